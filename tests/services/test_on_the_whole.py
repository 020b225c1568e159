"""What a building comes to with another build-up in the place of its own, from what is known."""

from __future__ import annotations

from dataclasses import replace

import pytest
from services.answering import Answering
from shapeless import typed

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.moisture.verdict.verdict import Verdict, judge_alone
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.bench import consequence
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joints import JointResults, building_in
from nimble_shell.services.on_the_whole import WholeResults
from nimble_shell.services.verdicts import VerdictResults
from nimble_shell.store import NotFound, Stored

PROJECT = campus()
STORED = Stored(project=PROJECT, slots={}, revision=1, changed_at="")
HOUSE = "boat-workshop"
BUILDING = building_in(PROJECT, HOUSE)
WALL = next(
    assembly
    for assembly in PROJECT.assemblies
    for element in BUILDING.elements
    if element.station == "D" and element.assembly_id == assembly.id
)


@pytest.fixture
def queue() -> Answering:
    return Answering()


@pytest.fixture
def results(queue: Answering) -> WholeResults:
    return WholeResults(JointResults(queue), FixingResults(queue), VerdictResults(queue))


def thicker(by: float) -> Assembly:
    index = WALL.core_index
    assert index is not None
    return WALL.with_thickness(index, WALL.layers[index].d + by)


class TestMoisture:
    def test_is_asked_of_each_and_given_once_known(self, queue: Answering, results: WholeResults) -> None:
        drafts = [WALL, thicker(0.05)]
        first = results.of(STORED, HOUSE, WALL.id, drafts, joints=False)
        assert [one.verdict for one in first] == [None, None]
        assert queue.asked == ["judge_alone", "judge_alone"]
        assert all(one.sums is None for one in first)

    def test_has_its_reason_where_there_is_none(self, queue: Answering, results: WholeResults) -> None:
        queue.fails = "nothing inside of the gap"
        (only,) = results.of(STORED, HOUSE, WALL.id, [WALL], joints=False)
        assert only.verdict is None
        assert "nothing inside of the gap" in only.verdict_why


class TestSums:
    def test_lack_what_is_to_come_and_say_how_much(self, queue: Answering, results: WholeResults) -> None:
        (only,) = results.of(STORED, HOUSE, WALL.id, [WALL], joints=True, ticket="w.1")
        assert only.sums is not None
        assert (only.sums.R_effective, only.sums.H) == (None, None)
        assert only.sums.waiting > 0
        assert "solve_joint" in queue.asked

    def test_of_a_building_without_joints_are_those_of_its_ledger(self, results: WholeResults) -> None:
        bare = replace(
            typed(PROJECT),
            assemblies=tuple(replace(one, fixings=()) for one in PROJECT.assemblies),
            buildings=tuple(replace(one, joints=()) for one in typed(PROJECT).buildings),
        )
        stored = replace(STORED, project=bare)
        wall = next(one for one in bare.assemblies if one.id == WALL.id)
        index = wall.core_index
        assert index is not None
        better = wall.with_thickness(index, wall.layers[index].d + 0.1)
        now, then = results.of(stored, HOUSE, wall.id, [wall, replace(better, id="another")], joints=True)
        assert now.sums is not None
        assert then.sums is not None
        ledger = consequence(bare, None, HOUSE).now.ledger
        assert ledger.R_effective is not None
        assert now.sums.R_effective == value_of(ledger.R_effective)
        assert then.sums.R_effective is not None
        assert then.sums.R_effective > now.sums.R_effective
        assert then.sums.H is not None
        assert now.sums.H is not None
        assert then.sums.H < now.sums.H

    def test_what_cannot_be_solved_leaves_them_open_by_name(self, queue: Answering, results: WholeResults) -> None:
        queue.fails = "no path through the corner"
        (only,) = results.of(STORED, HOUSE, WALL.id, [WALL], joints=True)
        assert only.sums is not None
        assert only.sums.R_effective is None
        assert any("no path through the corner" in one for one in only.sums.missing)


def test_what_is_equal_is_asked_once(queue: Answering, results: WholeResults) -> None:
    results.of(STORED, HOUSE, WALL.id, [WALL], joints=True, ticket="w.1")
    before = len([one for one in queue.asked if one == solve_joint.__qualname__])
    results.of(STORED, HOUSE, WALL.id, [replace(WALL)], joints=True, ticket="w.1")
    assert len([one for one in queue.asked if one == solve_joint.__qualname__]) == before


def test_a_build_up_or_building_that_is_not_there_is_told(results: WholeResults) -> None:
    with pytest.raises(NotFound):
        results.of(STORED, "nowhere", WALL.id, [WALL], joints=False)
    with pytest.raises(NotFound):
        results.of(STORED, HOUSE, "no-such-wall", [WALL], joints=False)


def test_a_verdict_that_is_known_is_that_of_the_draft(queue: Answering, results: WholeResults) -> None:
    said = Verdict(passes=False, reason="surface", phi_fails=0.4, phi_room=0.5)
    results.of(STORED, HOUSE, WALL.id, [WALL], joints=False)
    (question,) = queue.questions
    queue.tell(judge_alone, question, said)
    (only,) = results.of(STORED, HOUSE, WALL.id, [WALL], joints=False)
    assert only.verdict == said
