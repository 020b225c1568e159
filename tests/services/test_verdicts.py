"""Verdicts of a building: what is known is told, what is not is asked once, and the least margin stands first."""

from __future__ import annotations

from dataclasses import replace

import pytest
from services.answering import Answering
from services.solved_joints import figures_of

from nimble_shell.core.moisture.verdict.verdict import Verdict, judge_alone, judge_joint
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.joints import KnownJoint, drawn
from nimble_shell.services.solver_queue import key_of
from nimble_shell.services.verdicts import VerdictResults, leak_question, safe_grade

PROJECT = campus()
LAB = PROJECT.buildings[0]


@pytest.fixture
def queue() -> Answering:
    return Answering()


def verdict(margin: float | None) -> Verdict:
    fails = None if margin is None else 0.45 + margin
    return Verdict(passes=margin is None or margin > 0, reason="" if margin is None or margin > 0 else "surface",
                   phi_fails=fails, phi_room=0.45)  # fmt: skip


def known(joint_id: str, f_rsi: float | None = 0.9, *, point: bool = False, why: str = "") -> KnownJoint:
    joint = next(one for one in LAB.joints if one.id == joint_id)
    solved = None if f_rsi is None else figures_of(0.1, f_rsi)
    return KnownJoint(joint=joint, solved=solved, takes=(), point=point, why_not=why)


class TestABuilding:
    def test_has_every_build_up_and_every_joint_that_is_a_line(self, queue: Answering) -> None:
        found = VerdictResults(queue).building(PROJECT, LAB, [known("j2"), known("j6", point=True)])
        assert [one.id for one in found if not one.joint] == ["e1", "e2", "e5"]
        assert [one.id for one in found if one.joint] == ["j2"]
        assert all(one.verdict is None and one.why_not == "" for one in found)

    def test_asks_for_what_is_not_known_and_once(self, queue: Answering) -> None:
        results = VerdictResults(queue)
        results.building(PROJECT, LAB, [known("j2")])
        assert sorted(queue.asked) == ["judge_alone"] * 3 + ["judge_joint"]
        results.building(PROJECT, LAB, [known("j2")])
        assert queue.waiting == 4  # the same questions, not new ones

    def test_asks_nothing_of_a_joint_that_is_not_solved_yet(self, queue: Answering) -> None:
        found = VerdictResults(queue).building(PROJECT, LAB, [known("j2", f_rsi=None)])
        assert "judge_joint" not in queue.asked
        assert next(one for one in found if one.id == "j2").verdict is None

    def test_the_least_margin_stands_first_and_what_is_unknown_last(self, queue: Answering) -> None:
        margins = {"j2": -0.1, "j6": 0.2}
        for joint_id, margin in margins.items():
            joint = next(one for one in LAB.joints if one.id == joint_id)
            queue.tell(judge_joint, leak_question(PROJECT, joint, 0.9).args, (verdict(margin), None, None))
        found = VerdictResults(queue).building(PROJECT, LAB, [known("j6"), known("j2")])
        assert [one.id for one in found[:2]] == ["j2", "j6"]
        assert all(one.verdict is None for one in found[2:])

    def test_what_never_fails_stands_behind_what_may(self, queue: Answering) -> None:
        for joint_id, margin in (("j2", None), ("j6", 0.3)):
            joint = next(one for one in LAB.joints if one.id == joint_id)
            queue.tell(judge_joint, leak_question(PROJECT, joint, 0.9).args, (verdict(margin), None, None))
        found = VerdictResults(queue).building(PROJECT, LAB, [known("j2"), known("j6")])
        assert [one.id for one in found if one.verdict] == ["j6", "j2"]

    def test_says_why_something_has_no_verdict(self, queue: Answering) -> None:
        queue.fails = "the layers do not end"
        found = VerdictResults(queue).building(PROJECT, LAB, [known("j2", why="its build-up is gone")])
        assert {one.why_not for one in found if not one.joint} == {"the layers do not end"}
        assert next(one.why_not for one in found if one.joint) == "its build-up is gone"

    def test_is_asked_anew_where_what_moves_its_water_changed_and_nowhere_else(self, queue: Answering) -> None:
        results, basis = VerdictResults(queue), PROJECT.basis
        bare = replace(LAB, indoor=None)  # it has the room of the project
        here = replace(PROJECT, buildings=(bare, *PROJECT.buildings[1:]))
        results.building(here, bare, [])
        assert queue.waiting == 3
        wetter = replace(basis.indoor, phi_heating=basis.indoor.phi_heating + 0.01)
        for count, other in (
            (3, replace(basis, targets=replace(basis.targets, R_wall=9.0), rates=())),
            (6, replace(basis, indoor=wetter)),
            (9, replace(basis, damp=replace(basis.damp, plane=basis.damp.plane + 0.1))),
            (9, basis),
        ):
            results.building(replace(here, basis=other), bare, [])
            assert queue.waiting == count


class TestALeak:
    JOINT = next(one for one in LAB.joints if one.id == "j2")

    def test_is_asked_with_the_leakage_of_its_seals_at_the_high_end(self) -> None:
        asked = leak_question(PROJECT, self.JOINT, 0.9)
        assert asked.judged == asked.leakage[1] >= asked.leakage[0]
        assert asked.station == self.JOINT.station

    def test_or_with_one_that_is_tried(self) -> None:
        assert leak_question(PROJECT, self.JOINT, 0.9, leakage=0.123).judged == 0.123

    def test_drawn_already_it_asks_the_same(self) -> None:
        what = drawn(PROJECT, self.JOINT)
        assert leak_question(PROJECT, self.JOINT, 0.9, what=what).args == leak_question(PROJECT, self.JOINT, 0.9).args

    def test_does_not_depend_on_names_and_prices(self) -> None:
        renamed = replace(PROJECT, name="x", assemblies=tuple(
            replace(one, name=f"{one.name}!") for one in PROJECT.assemblies))  # fmt: skip
        keys = [key_of(judge_joint, *leak_question(one, self.JOINT, 0.9).args) for one in (PROJECT, renamed)]
        assert keys[0] == keys[1]

    def test_depends_on_the_surface_that_was_solved(self) -> None:
        keys = {key_of(judge_joint, *leak_question(PROJECT, self.JOINT, f).args) for f in (0.9, 0.8)}
        assert len(keys) == 2


def test_the_loosest_grade_that_is_safe_is_named() -> None:
    leakages = PROJECT.basis.air.leakages
    assert safe_grade(None, leakages) is None
    assert safe_grade(0.0, leakages) is None
    assert safe_grade(1e9, leakages) == "open"
    from nimble_shell.core.joints.sealing.seals import graded

    for name, _, high in graded(leakages):
        assert safe_grade(high, leakages) == name


def test_an_element_is_judged_alone(queue: Answering) -> None:
    found = VerdictResults(queue).building(PROJECT, LAB, [])
    assert len(found) == 3
    assert set(queue.asked) == {judge_alone.__qualname__}
