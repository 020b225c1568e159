"""Casting beds and the cure clock, against a count day by day; the order of work against its own rules."""

from __future__ import annotations

import random
from collections.abc import Callable

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.shop.wet_choices import CastLog, WetChoices
from nimble_shell.core.site.casting import ToCast, cast_plan, clock
from nimble_shell.core.site.choices import BraceRow, CraneRow, LiftChoices, PourChoices
from nimble_shell.core.site.work_plan import DAY, MoreAfter, TaskHours, WorkChoices, operations, work_plan

SYSTEMS = ("sip", "icf", "icf-one-sided", "mesh-mortar", "straw-bale", "straw-board", "metal-panel", "cassette",
           "bead-cassette")  # fmt: skip


def test_a_clock_counts_warm_days_only() -> None:
    cold = {3, 4, 5}
    assert clock(0, 2, lambda day: day not in cold) == 2
    assert clock(2, 2, lambda day: day not in cold) == 7
    assert clock(0, 0, lambda _: False) == 0
    assert clock(0, 1, lambda _: False) is None


@pytest.mark.parametrize("seed", range(12))
def test_no_bed_holds_two_panels_and_no_day_mixes_more_than_the_mixer(seed: int) -> None:
    draw = random.Random(seed)
    cold = {draw.randrange(60) for _ in range(20)}
    panels = [ToCast(f"P{n}", draw.uniform(0.1, 0.5)) for n in range(draw.randrange(3, 14))]
    beds, turn, cure = draw.randrange(1, 4), draw.randrange(4), draw.randrange(8)
    plan = cast_plan(panels, beds=beds, turn=turn, cure=cure, per_day=0.9, warm=lambda day: day not in cold)
    assert plan is not None
    mixed: dict[int, float] = {}
    for one, panel in zip(plan, panels, strict=True):
        for day in (one.first, one.turned):
            mixed[day] = mixed.get(day, 0.0) + panel.side
            assert day not in cold
        warm = [day for day in range(one.turned + 1, one.lift + 1) if day not in cold]
        assert len(warm) == cure  # neither lifted early, nor left a day too long
        assert sum(day not in cold for day in range(one.first + 1, one.turned + 1)) >= turn
    assert max(mixed.values()) <= 0.9 + 1e-9
    for bed in range(beds):
        own = sorted((one.first, one.lift) for one in plan if one.bed == bed)
        assert all(a[1] < b[0] for a, b in zip(own, own[1:], strict=False))


def test_a_side_that_no_day_mixes_cannot_be_cast() -> None:
    assert cast_plan([ToCast("P", 2.0)], beds=1, turn=1, cure=1, per_day=1.0, warm=lambda _: True) is None


@pytest.mark.parametrize("system", SYSTEMS)
def test_each_system_has_an_order_that_keeps_every_wait_and_its_hold_points_come_before_what_covers(
    system: str,
) -> None:
    choices = WorkChoices()
    found = work_plan([system], choices)
    assert found.cycle is None
    assert found.plan is not None
    assert not found.unknown
    at, hours = found.plan.earliest, {one.id: one.hours * DAY / choices.day for one in found.operations}
    for one in found.operations:
        for each in one.after:
            end = at[each.id] + hours[each.id]
            assert at[one.id] >= end + each.wait - 1e-6
            assert each.within is None or at[one.id] <= end + each.within + 1e-6
    holds = [one for one in found.operations if one.hold]
    assert any(one.id not in {"levels", "roof-look", "window-look", "test-1"} for one in holds)
    for hold in holds[:-1]:
        assert any(hold.id in [each.id for each in one.after] for one in found.operations)
    assert work_plan([system], WorkChoices(proposed=found.plan.sequence)).broken == ()


def test_a_proposed_order_that_covers_first_is_told_and_a_round_is_named() -> None:
    plan = work_plan(["icf"], WorkChoices()).plan
    assert plan is not None
    order = list(plan.sequence)
    at, to = order.index("bars"), order.index("pour")
    order[at], order[to] = order[to], order[at]
    broken = work_plan(["icf"], WorkChoices(proposed=tuple(order))).broken
    assert ("pour", "string") in broken
    found = work_plan(["icf"], WorkChoices(more=(MoreAfter(id="courses", after="pour"),)))
    assert found.plan is None
    assert found.cycle is not None
    assert {"courses", "pour"} <= set(found.cycle)
    assert work_plan(["icf"], WorkChoices(more=(MoreAfter(id="pour", after="nothing"),))).unknown == ("nothing",)


def test_hours_that_are_said_replace_the_usual_ones() -> None:
    changed = {
        one.id: one.hours for one in operations(["sip"], WorkChoices(hours=(TaskHours(id="sip-set", hours=40),)))
    }
    assert changed["sip-set"] == 40


@pytest.mark.parametrize(
    "wrong",
    [
        lambda: PourChoices(rate=0),
        lambda: PourChoices(temperature=-20),
        lambda: PourChoices(rated=0),
        lambda: PourChoices(braces=(BraceRow(height=2, spacing=1), BraceRow(height=1, spacing=1))),
        lambda: LiftChoices(table=(CraneRow(radius=8, mass=100), CraneRow(radius=4, mass=200))),
        lambda: LiftChoices(table=(CraneRow(radius=4, mass=100), CraneRow(radius=8, mass=200))),
        lambda: LiftChoices(setup=8.0),
        lambda: WetChoices(least=0.06, most=0.03),
        lambda: WetChoices(mix=()),
        lambda: WetChoices(cast=(CastLog(panel="A", cast=5, lifted=3),)),
    ],
)
def test_what_cannot_be_is_refused_where_it_stands(wrong: Callable[[], object]) -> None:
    with pytest.raises(DomainError) as error:
        wrong()
    assert error.value.issues[0].path
