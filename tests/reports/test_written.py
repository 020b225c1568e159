"""Values as pages write them, and what no typesetter takes."""

from __future__ import annotations

import pytest

from nimble_shell.core.quantities.units import UNIT_SYSTEMS, UnitSystem
from nimble_shell.reports.page import footer, items, table
from nimble_shell.reports.written import Written, cleaned, sentence_case


@pytest.mark.parametrize(
    ("system", "value", "dimension", "text"),
    [
        ("SI", 5.293, "resistance", "5.29 m²·K/W"),
        ("IP", 5.293, "resistance", "30.1 h·ft²·°F/BTU"),
        ("SI", -8.1, "temperature", "−8.1 °C"),
        ("SI", 0.9, "ratio", "0.900"),
        ("SI", 0.8, "share", "80.0 %"),
    ],
)
def test_a_value_has_its_unit(system: UnitSystem, value: float, dimension: str, text: str) -> None:
    found = Written(system).full(value, dimension)
    if system == "SI":
        assert found.replace("-", "−") == text
    assert found == f"{Written(system).number(value, dimension)} {Written(system).symbol(dimension)}".rstrip()


def test_more_digits_where_they_are_wanted() -> None:
    assert Written("SI").number(0.012345, "linear", 4) == "0.0123"
    assert Written("SI").full(0.00012, "linear", 5).startswith("0.00012")


@pytest.mark.parametrize(("system", "text"), [("SI", "184.5 mm"), ("IP", '7 1/4"')])
def test_a_length_is_that_of_drawings(system: UnitSystem, text: str) -> None:
    metres = 0.1845 if system == "SI" else 7.25 * 0.0254
    assert Written(system).length(metres) == text


@pytest.mark.parametrize("system", UNIT_SYSTEMS)
def test_a_dimension_without_a_unit_has_no_space_behind_it(system: UnitSystem) -> None:
    assert not Written(system).full(1.0, "ratio").endswith(" ")


@pytest.mark.parametrize(
    ("text", "expected"), [("solved as a body", "Solved as a body."), ("Done.", "Done."), ("λ is entered", "Λ is entered.")]
)  # fmt: skip
def test_a_note_becomes_a_sentence(text: str, expected: str) -> None:
    assert sentence_case(text) == expected


def test_control_characters_are_left_out_and_the_rest_stays() -> None:
    assert cleaned("a\x00b\x07c\x7f\u2009d\ne #[x] $m$") == "abc\u2009d\ne #[x] $m$"


def test_sections_are_lists_and_tables() -> None:
    assert items("Head", ("a", "b")) == {"head": "Head", "items": ["a", "b"], "numbered": False}
    assert table("Head", ("x", "y"), [("1", "2")]) == {"head": "Head", "columns": ["x", "y"], "rows": [["1", "2"]]}


def test_a_page_says_what_it_rests_on() -> None:
    assert footer(7, "2026-11-28T08:15:30+00:00", "9") == "revision 7 · saved 2026-11-28 08:15 UTC · catalogue 9"
