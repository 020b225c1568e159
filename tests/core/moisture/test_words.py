"""What a search has found, in words: once for screen and page, in the reader's units and the practice's quantities."""

from __future__ import annotations

import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.verdict.verdict import Advice, AdviceKind
from nimble_shell.core.moisture.verdict.words import advice_text, layer_name
from nimble_shell.core.quantities.sentence import in_units
from nimble_shell.core.quantities.units import UnitSystem

KINDS: tuple[AdviceKind, ...] = ("vapour", "outside", "core", "gap", "room", "seal")


def advice(kind: AdviceKind, amount: float, step: float, *, found: bool = True) -> Advice:
    return Advice(kind=kind, found=found, amount=amount, step=step, layer=1)


@pytest.mark.parametrize(
    ("one", "system", "words"),
    [
        (advice("vapour", 5.0, 2.0), "SI", "a vapour layer of s_d 5 m on the warm side; s_d 2 m still fails"),
        (advice("outside", 0.06, 0.05), "SI", "60 mm of open insulation outside; 50 mm still fails"),
        (advice("outside", 0.0508, 0.0254), "IP", "2 in of open insulation outside; 1 in still fails"),
        (advice("core", 0.2, 0.19), "SI", "Stone of 200 mm; 190 mm still fails"),
        (advice("gap", 0.03, 0.0), "SI", "a ventilated gap behind the outermost layer"),
        (advice("room", 0.4, 0.41), "SI", "a room at 40 % through the cold months; 41 % still fails"),
        (advice("seal", 0.1, 0.3), "SI", "a joint of 0.1 m³/(h·m) at 50 Pa; 0.3 m³/(h·m) still fails"),
    ],
)
def test_a_change_that_turns_it_is_told_with_the_step_that_still_fails(
    one: Advice, system: UnitSystem, words: str
) -> None:
    assert in_units(advice_text(one, "Stone", "sd"), system) == words


@pytest.mark.parametrize("kind", KINDS)
def test_that_none_of_a_kind_turns_it_is_told_with_what_was_tried(kind: AdviceKind) -> None:
    text = str(advice_text(advice(kind, 0.3, 0.3, found=False), "Stone", "sd"))
    assert text.startswith("no ") or "does not turn it" in text
    assert "still fails" not in text


def test_a_practice_that_thinks_in_permeance_reads_permeance() -> None:
    text = advice_text(advice("vapour", 5.0, 2.0), "", "perm")
    assert in_units(text, "SI") == "a vapour layer of 40 ng/(s·m²·Pa) on the warm side; 100 ng/(s·m²·Pa) still fails"
    assert "perm on the warm side" in in_units(text, "IP")


def test_a_layer_that_passes_everything_has_a_permeance_still() -> None:
    assert "inf" not in str(advice_text(advice("vapour", 0.2, 0.0), "", "perm"))


def test_by_points_the_room_is_told_by_how_much_drier_it_is() -> None:
    text = str(advice_text(advice("room", 0.05, 0.04), "", "sd", by_points=True))
    assert text == "a room drier by 5 points; 4 still fails"
    none = str(advice_text(advice("room", 0.3, 0.3, found=False), "", "sd", by_points=True))
    assert none == "no drier room turns it, up to 30 % less"


def test_a_layer_is_called_by_its_material() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    for at, layer in enumerate(wall.layers):
        expected = CATALOGUE[layer.material].name if layer.material else "the air layer"
        assert layer_name(wall, CATALOGUE, at) == expected
    assert layer_name(wall, CATALOGUE, None) == ""
