"""What differs between two states of a build-up: everything a person would call different, and nothing else."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from nimble_shell.core.assemblies.assembly import Assembly, Declared, Member
from nimble_shell.core.assemblies.difference import Difference, differences
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.quantities.sentence import in_units

WALL = SYSTEMS["sip"].assembly("w", "Wall")
CORE = WALL.core_index or 0


def found(after: Assembly, before: Assembly = WALL) -> list[Difference]:
    return differences(before, after, CATALOGUE)


def changed(at: int, **values: Any) -> Assembly:
    layers = list(WALL.layers)
    layers[at] = replace(layers[at], **values)
    return replace(WALL, layers=tuple(layers))


@pytest.mark.parametrize("key", SYSTEMS)
def test_nothing_differs_from_itself(key: str) -> None:
    one = SYSTEMS[key].assembly("w", "W")
    assert differences(one, replace(one), CATALOGUE) == []


def test_a_name_and_a_note_are_no_difference() -> None:
    assert found(replace(WALL, name="Another", note="n", id="x")) == []


@pytest.mark.parametrize(
    ("at", "values", "what", "dimension"),
    [
        (CORE, {"d": 0.3}, "thickness of", "length"),
        (CORE, {"material": "xps-036"}, "material", ""),
        (CORE, {"lambda_entered": 0.029}, "λ of", "conductivity"),
        (CORE, {"members": ()}, "members in", ""),
        (CORE, {"control": ("air",)}, "control lines of", ""),
        (CORE, {"fitted": "shop"}, "fitting of", ""),
        (CORE, {"passes": 3}, "rounds of work on", ""),
        (CORE, {"declared": (Declared(kind="fire class", value="E", source="test"),)}, "declared values of", ""),
    ],
)
def test_one_change_is_one_difference(at: int, values: dict[str, Any], what: str, dimension: str) -> None:
    after = changed(at, **values)
    if after == WALL:
        values = {**values, "fitted": "site"} if "fitted" in values else values
        after = changed(at, **values)
    (one,) = found(after)
    assert one.what.startswith(what)
    assert one.dimension == dimension
    assert one.before != one.after


def test_values_are_si_and_say_both_sides() -> None:
    (one,) = found(changed(CORE, d=0.3))
    assert (one.before, one.after) == (WALL.layers[CORE].d, 0.3)


def test_a_layer_that_went_and_one_that_came_are_told_with_their_thickness() -> None:
    gone = replace(WALL, layers=(*WALL.layers[:CORE], *WALL.layers[CORE + 1 :]))
    (one,) = found(gone)
    assert one.what.endswith("removed")
    assert (one.before, one.after) == (WALL.layers[CORE].d, None)
    (back,) = found(WALL, before=gone)
    assert back.what.endswith("added")
    assert (back.before, back.after) == (None, WALL.layers[CORE].d)


def test_another_order_is_told_as_such() -> None:
    (one,) = found(replace(WALL, layers=WALL.layers[::-1]))
    assert one.what == "order of the layers"


def test_a_layer_put_between_others_is_no_other_order() -> None:
    more = replace(WALL.layers[0], id="new")
    whats = [one.what for one in found(replace(WALL, layers=(WALL.layers[0], more, *WALL.layers[1:])))]
    assert len(whats) == 1
    assert whats[0].endswith("added")


def test_members_are_said_in_the_readers_units() -> None:
    member = Member(name="stud", material="softwood", width=0.0508, centres=0.6096)
    (one,) = found(changed(CORE, members=(member,)))
    assert in_units(str(one.after), "SI") != ""
    assert isinstance(one.after, str)
    assert in_units(one.after, "IP") == "stud 2 in at 24 in"
    assert in_units(one.after, "SI").startswith("stud 50.8 mm at 609.6")


def test_members_by_share_are_said_in_percent() -> None:
    (one,) = found(changed(CORE, members=(Member(name="stud", material="softwood", share=0.125),)))
    assert one.after == "stud 12.5 %"


def test_screws_are_told_by_their_number() -> None:
    fixing = started("screw", WALL, WALL.layers[CORE].id, "f1")
    (one,) = found(replace(WALL, fixings=(fixing,)))
    assert one.before == "none"
    assert fixing.name in str(one.after)
    assert found(replace(WALL, fixings=(fixing,)), before=replace(WALL, fixings=(fixing,))) == []
