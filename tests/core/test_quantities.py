"""Units at the edges: what is written is what is meant, both ways."""

from __future__ import annotations

import json
from dataclasses import asdict
from fractions import Fraction
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.quantities import (
    DIMENSIONS,
    UNIT_SYSTEMS,
    format_feet_inches,
    parse,
    parse_length,
    show,
)
from nimble_shell.core.quantities.lengths import EXAMPLES
from nimble_shell.core.quantities.units import UnitSystem

VECTORS: dict[str, Any] = json.loads((Path(__file__).parents[1] / "vectors" / "quantities.json").read_text())


@pytest.mark.parametrize("case", VECTORS["lengths"], ids=lambda case: f"{case['text']} {case['system']}")
def test_a_length_is_read_as_builders_write_it(case: dict[str, Any]) -> None:
    assert parse_length(case["text"], case["system"]) == pytest.approx(case["metres"], rel=1e-14)


@pytest.mark.parametrize("system", ["SI", "IP"])
@pytest.mark.parametrize("text", VECTORS["unreadable_lengths"])
def test_what_is_no_length_is_refused_with_examples_of_its_units(text: str, system: UnitSystem) -> None:
    with pytest.raises(DomainError) as refused:
        parse_length(text, system)
    assert refused.value.issues[0].code == "length_unreadable"
    assert "7 1/4" in refused.value.issues[0].hint
    assert ("mm" in refused.value.issues[0].hint) is (system == "SI")


@pytest.mark.parametrize("system", ["SI", "IP"])
def test_every_example_of_a_length_can_be_read(system: UnitSystem) -> None:
    for text in EXAMPLES[system].replace(" or ", ", ").split(", "):
        assert parse_length(text, system) > 0


@pytest.mark.parametrize("case", VECTORS["feet_inches"], ids=lambda case: str(case["text"]))
def test_feet_and_inches_are_printed_as_on_drawings(case: dict[str, Any]) -> None:
    assert format_feet_inches(case["metres"], denominator=case["denominator"]) == case["text"]


@pytest.mark.parametrize("case", VECTORS["shown"], ids=lambda case: f"{case['value']} {case['dimension']}")
def test_a_value_is_printed_in_its_system(case: dict[str, Any]) -> None:
    assert show(case["value"], case["dimension"], case["system"]) == case["text"]


@given(st.integers(min_value=0, max_value=40_000), st.sampled_from([16, 32]))
def test_every_printed_fraction_reads_back_exactly(parts: int, denominator: int) -> None:
    metres = float(Fraction(parts, denominator) * Fraction(254, 10000))
    assert parse_length(format_feet_inches(metres, denominator=denominator), "IP") == metres


@given(st.floats(min_value=0, max_value=100), st.sampled_from([16, 32]))
def test_printing_rounds_to_the_nearest_fraction(metres: float, denominator: int) -> None:
    back = parse_length(format_feet_inches(metres, denominator=denominator), "IP")
    assert abs(back - metres) <= 0.0254 / denominator / 2 * (1 + 1e-9)


@given(
    st.floats(min_value=-1e4, max_value=1e4),
    st.sampled_from(sorted(DIMENSIONS)),
    st.sampled_from(UNIT_SYSTEMS),
)
def test_a_printed_value_reads_back_within_its_last_digit(value: float, dimension: str, system: Any) -> None:
    unit = DIMENSIONS[dimension].si if system == "SI" else DIMENSIONS[dimension].ip
    back = parse(show(value, dimension, system, decimals=9), dimension, system)
    assert back == pytest.approx(value, abs=0.51e-9 / unit.per_si, rel=1e-12)


@given(st.floats(min_value=-200, max_value=200))
def test_celsius_and_fahrenheit_agree_where_they_must(theta: float) -> None:
    assert parse(f"{theta * 1.8 + 32:.12f} °F", "temperature", "SI") == pytest.approx(theta, abs=1e-9)


def test_a_unit_written_out_wins_over_the_system() -> None:
    assert parse("5.42 m²·K/W", "resistance", "IP") == 5.42
    assert parse("212", "temperature", "IP") == pytest.approx(100)


@pytest.mark.parametrize("text", ["", "five", "5 kg", "1,2,3", "nan", "inf"])
def test_what_is_no_number_is_refused(text: str) -> None:
    with pytest.raises(DomainError) as refused:
        parse(text, "resistance", "SI")
    assert refused.value.issues[0].code == "quantity_unreadable"


def test_a_decimal_comma_is_understood() -> None:
    assert parse("5,42", "resistance", "SI") == 5.42


def test_inch_pound_resistance_is_the_known_factor() -> None:
    # from the definitions: 1 h·ft²·°F/Btu = 3600·0.3048²·(5/9)/1055.05585262 m²·K/W
    assert 1 / DIMENSIONS["resistance"].ip.per_si == pytest.approx(3600 * 0.3048**2 * 5 / 9 / 1055.05585262, rel=1e-15)


def test_an_odd_denominator_is_refused() -> None:
    with pytest.raises(ValueError, match="denominator"):
        format_feet_inches(1.0, denominator=10)


def test_the_vectors_shared_with_the_web_hold_this_table_of_dimensions() -> None:
    assert VECTORS["dimensions"] == {key: asdict(both) for key, both in DIMENSIONS.items()}
