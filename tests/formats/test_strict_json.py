"""A text is JSON with one meaning, or it is said what is wrong with it and where."""

from __future__ import annotations

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.formats.problems import MOST, from_validation
from nimble_shell.formats.strict_json import MOST_DEEP, NotJson, read

VALUES = st.recursive(
    st.none() | st.booleans() | st.integers(-(10**9), 10**9) | st.floats(allow_nan=False, allow_infinity=False)
    | st.text(st.characters(exclude_categories=["Cs"])),
    lambda inner: st.lists(inner) | st.dictionaries(st.text(st.characters(exclude_categories=["Cs"])), inner),
    max_leaves=20,
)  # fmt: skip


@given(VALUES)
def test_what_is_written_is_read_back(value: Any) -> None:
    assert read(json.dumps(value).encode()) == value
    assert read(b"\xef\xbb\xbf" + json.dumps(value, ensure_ascii=False).encode()) == value


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (b'{\n "a": [1, 2', "ends too soon, at line 2, column 12"),
        (b'{\n "a": "x', "a text is not closed that begins, at line 2, column 7"),
        (b"", "ends too soon, at line 1, column 1"),
        (b'{"a": 1,\n "b" 2}', "a colon is expected, at line 2, column 6"),
        (b'{"a": 1} x', "something follows after the end, at line 1, column 10"),
        (b'{"a": 1, "b": {"c": 1, "c": 2}}', "the key “c” stands twice in one object"),
        (b'{"a": NaN}', "NaN is not a number in JSON"),
        (b'{"a": -Infinity}', "-Infinity is not a number in JSON"),
        (b'{"a": "\\ud800"}', "half of a surrogate pair stands in the text “\\ud800”"),
        (b'{\n"a": "\xe4"}', "it is not in UTF-8: byte 0xe4 at line 2, column 7"),
        (b"\xff\xfe{\x00", "it is not in UTF-8: byte 0xff at line 1, column 1"),
        (b"[" * 200_000, "more than 100 objects and lists within one another, at line 1, column 101"),
        (b'[{"a":' * 60 + b"1", "more than 100 objects and lists"),
    ],
)
def test_what_is_wrong_is_said_with_its_place(text: bytes, said: str) -> None:
    with pytest.raises(NotJson) as refused:
        read(text)
    assert said in str(refused.value)


def test_brackets_in_texts_do_not_nest() -> None:
    value = {"a": "[" * 500, 'b"\\': ['"{' * 300]}
    assert read(json.dumps(value).encode()) == value
    assert read(b"[" * MOST_DEEP + b"]" * MOST_DEEP)


def test_of_many_errors_so_many_are_listed_as_can_be_read_and_the_rest_are_counted() -> None:
    many = [{"loc": ("layers", at, "d"), "type": "missing", "msg": ""} for at in range(50_000)]
    found = from_validation(many).errors
    assert len(found) == MOST + 1
    assert found[-1].detail == f"and {50_000 - MOST:,} more of 50,000 in all"
    assert len(from_validation(many[:MOST]).errors) == MOST
