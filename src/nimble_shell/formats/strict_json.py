"""JSON as it has to be: one meaning for each key, numbers that are numbers, and errors that say where."""

from __future__ import annotations

import json
import re
from collections import Counter
from typing import Any

MOST_DEEP = 100  #: objects and lists within one another
_BRACKETS = re.compile(r'"(?:[^"\\]|\\.)*"|[\[\]{}]', re.DOTALL)


class NotJson(ValueError):
    """What is wrong with a text, in words, with its place."""


def read(content: bytes) -> Any:
    """The value of a text in UTF-8, with or without a byte order mark.

    Raises
    ------
    NotJson
        With line and column: where it cannot be read, ends too soon, says a key twice, names a number that is none
        (NaN, Infinity), nests too deep, or holds half of a surrogate pair.
    """
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        place = _place(content[: error.start].decode("utf-8", "replace"), len(content))
        raise NotJson(f"it is not in UTF-8: byte {content[error.start]:#04x} at {place}") from None
    if text.count("{") + text.count("[") > MOST_DEEP:  # fewer of them cannot nest deeper
        _check_depth(text)
    try:
        found = json.loads(text, parse_constant=_no_number, object_pairs_hook=_once)
    except json.JSONDecodeError as error:
        end = len(text.rstrip())
        if error.pos >= end:
            raise NotJson(f"it ends too soon, at {_place(text, end)}: what was opened is not closed") from None
        raise NotJson(f"{_LOWER.get(error.msg, error.msg)}, at {_place(text, error.pos)}") from None
    except NotJson:
        raise
    except ValueError as error:  # a number with more digits than can be read
        raise NotJson(str(error)) from None
    if "\\u" in text:  # in UTF-8 half of a pair is none of the letters, so only an escape can name one
        _check_surrogates(found)
    return found


_LOWER = {
    "Expecting value": "a value is expected",
    "Expecting property name enclosed in double quotes": "a key in double quotes is expected",
    "Expecting ',' delimiter": "a comma is expected",
    "Expecting ':' delimiter": "a colon is expected",
    "Extra data": "something follows after the end",
    "Unterminated string starting at": "a text is not closed that begins",
}


def _place(text: str, at: int) -> str:
    before = text[:at]
    line = before.count("\n") + 1
    return f"line {line}, column {len(before) - (before.rfind(chr(10)) + 1) + 1}"


def _no_number(name: str) -> float:
    raise NotJson(f"{name} is not a number in JSON")


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found = dict(pairs)
    if len(found) < len(pairs):
        twice = next(key for key, times in Counter(key for key, _ in pairs).items() if times > 1)
        raise NotJson(f"the key “{twice}” stands twice in one object")
    return found


def _check_depth(text: str) -> None:
    """Refuse what nests too deep before anything is built of it; brackets in texts do not count."""
    depth = 0
    for found in _BRACKETS.finditer(text):
        mark = found[0]
        depth += (mark in "[{") - (mark in "]}")
        if depth > MOST_DEEP:
            place = _place(text, found.start())
            raise NotJson(f"more than {MOST_DEEP} objects and lists within one another, at {place}")


def _check_surrogates(value: Any) -> None:
    stack = [value]
    while stack:
        one = stack.pop()
        if isinstance(one, dict):
            stack += [*one, *one.values()]
        elif isinstance(one, list):
            stack += one
        elif isinstance(one, str) and any("\ud800" <= letter <= "\udfff" for letter in one):
            shown = one.encode("ascii", "backslashreplace").decode()[:40]
            raise NotJson(f"half of a surrogate pair stands in the text “{shown}”")
