"""Sentences carry their values, and no message of the core has a unit written into its prose."""

from __future__ import annotations

import ast
import copy
import pickle
import re
from pathlib import Path

import pytest

import nimble_shell
from nimble_shell.core.basis.criteria import Handling
from nimble_shell.core.errors import DomainError
from nimble_shell.core.quantities.sentence import Sentence, composed, in_units, joined, marked, quantity_text, sentence

SOURCES = Path(nimble_shell.__file__).parent
SHORT = sentence("short of {asked}", asked=(5.0, "resistance"))


def test_a_sentence_is_said_in_the_units_of_its_reader() -> None:
    assert SHORT == "short of 5 m²·K/W"
    assert in_units(SHORT, "IP") == "short of 28.4 h·ft²·°F/Btu"
    assert in_units("nothing in it", "IP") == "nothing in it"


def test_sentences_within_sentences_keep_their_values() -> None:
    whole = composed("{first}: {second}", first=SHORT, second=sentence("{asked} thick", asked=(0.254, "length")))
    assert whole == "short of 5 m²·K/W: 254 mm thick"
    assert in_units(whole, "IP") == "short of 28.4 h·ft²·°F/Btu: 10 in thick"
    assert in_units(joined("; ", [whole, "plain", SHORT]), "IP").count("h·ft²·°F/Btu") == 2


@pytest.mark.parametrize("carry", [lambda one: pickle.loads(pickle.dumps(one)), copy.deepcopy])
def test_a_sentence_travels_with_its_values(carry) -> None:  # type: ignore[no-untyped-def]
    came = carry(SHORT)
    assert isinstance(came, Sentence)
    assert in_units(came, "IP") == in_units(SHORT, "IP")


def test_a_text_that_is_kept_carries_its_values_in_si() -> None:
    inner = sentence("a core of {d}", d=(0.14, "length"))
    whole = composed("{what}, from {f}", what=inner, f=sentence("{t}", t=(-5.0, "temperature")))
    assert marked(whole) == "a core of ⟨0.14 length⟩, from ⟨-5 temperature⟩"
    assert marked("nothing of it is a value") == "nothing of it is a value"


def test_a_refusal_speaks_inch_pound() -> None:
    with pytest.raises(DomainError) as refused:
        Handling(kg_per_person=90.0)
    issue = refused.value.issues[0]
    assert "90 kg" in issue.message
    assert in_units(issue.message, "IP") == "198 lb a person"
    assert "kg" not in in_units(issue.hint, "IP")
    assert quantity_text(90.0, "mass", "IP") == "198 lb"


#: A value or a place for one, and an SI unit behind it.
_UNIT = r"(?:mm|m²·K/W|W/\(m²·K\)|W/\(m·K\)|W/K|kg/m³|kg/m²|J/\(kg·K\)|m³/\(h·m\)|m³|m²|°C|K|Pa|kg|g/m²|m/s|kN/m²|m)"
_WRITTEN = re.compile(rf"(?:\}}|\d)[ \u2009]?{_UNIT}(?![\w²³])")
#: Files whose texts no project sees: drawings' own sizes, references and the trade's test pressure.
_PRESSURE = re.compile(r"50 Pa")
_ELSEWHERE = {"references", "working", "quantities"}


def _texts(tree: ast.AST) -> list[tuple[int, str]]:
    """Texts of a file with a place for every value; documentation is none of them."""
    documentation = {
        id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant)
    }
    found: list[tuple[int, str]] = []
    for node in ast.walk(tree):
        if isinstance(node, ast.JoinedStr):
            parts = (one.value if isinstance(one, ast.Constant) else "{}" for one in node.values)
            found.append((node.lineno, "".join(map(str, parts))))
        elif isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in documentation:
            found.append((node.lineno, node.value))
    return found


@pytest.mark.parametrize("room", ["core", "services", "formats", "reports", "api"])
def test_no_message_has_a_unit_in_its_prose(room: str) -> None:
    wrong = [
        f"{file.relative_to(SOURCES)}:{line}: {text[:80]}"
        for file in sorted((SOURCES / room).rglob("*.py"))
        if not _ELSEWHERE & set(file.parts)
        for line, text in _texts(ast.parse(file.read_text()))
        if " " in text.strip() and not text.startswith("<svg") and _WRITTEN.search(_PRESSURE.sub("", text))
    ]
    assert not wrong, "\n".join(wrong)
