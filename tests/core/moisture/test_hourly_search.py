"""What would make a run accepted by the hour: the answer passes and one step less fails, run again here."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.moisture.verdict.hourly_search import search_hours
from nimble_shell.core.moisture.verdict.verdict import AdviceKind

BASIS = Basis()
ROOF = SYSTEMS["sip-roof"].assembly("r", "r")
#: A ridge whose joint leaks.
LEAKING = Life(years=1, leakage=6.0, height=3.5)


def fails(life: Life) -> str:
    return seasons(ROOF, CATALOGUE, BASIS, life, "up").fails(BASIS.damp)


def test_a_tighter_joint_is_found_and_a_step_less_tight_fails() -> None:
    assert fails(LEAKING)
    found = search_hours(ROOF, CATALOGUE, BASIS, LEAKING, "up", BASIS.damp, "seal")
    assert found is not None
    assert found.found
    assert 0 < found.amount < found.step <= LEAKING.leakage
    assert not fails(replace(LEAKING, leakage=found.amount))
    assert fails(replace(LEAKING, leakage=found.step))


@pytest.mark.parametrize("kind", ["gap", "seal"])
def test_there_is_nothing_to_change_where_there_is_nothing_of_the_kind(kind: AdviceKind) -> None:
    tight = replace(LEAKING, leakage=0.0)
    assert search_hours(ROOF, CATALOGUE, BASIS, tight, "up", BASIS.damp, kind) is None


def test_what_does_not_turn_it_says_how_far_it_went() -> None:
    found = search_hours(ROOF, CATALOGUE, BASIS, LEAKING, "up", BASIS.damp, "vapour")
    assert found is not None
    assert not found.found
    assert found.amount == 1500.0


def test_a_room_is_told_by_how_much_drier_it_is_than_was_supposed() -> None:
    damper = replace(LEAKING, leakage=0.2, damper=0.2)
    assert fails(damper)
    found = search_hours(ROOF, CATALOGUE, BASIS, damper, "up", BASIS.damp, "room")
    assert found is not None
    assert found.found
    assert 0 < found.amount == pytest.approx(found.step + 0.01)
    assert not fails(replace(damper, damper=0.2 - found.amount))
    assert fails(replace(damper, damper=0.2 - found.step))
