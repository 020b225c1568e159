"""Joints of a building: what is drawn of what, which parameters another variant takes, and what is known unsolved."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from services.answering import Answering
from services.solved_joints import figures_of

from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.joints import (
    MOST_SWEPT,
    JointResults,
    building_in,
    continuity_walk,
    drawn,
    family_of,
    joint_in,
    other_of,
    question,
    sealing,
    swept,
    values_of,
)
from nimble_shell.store import NotFound, Stored

PROJECT = campus()
LAB = PROJECT.buildings[0]
EAVE, SEAM, OPENING = (joint_in(LAB, one) for one in ("j2", "j3", "j5"))


@pytest.fixture
def queue() -> Answering:
    return Answering()


def with_joint(joint: ShellJoint) -> tuple[Project, Building]:
    lab = replace(LAB, joints=tuple(joint if one.id == joint.id else one for one in LAB.joints))
    return replace(PROJECT, buildings=(lab, *PROJECT.buildings[1:])), lab


def tell(queue: Answering, project: Project, joint: ShellJoint, f_rsi: float = 0.9) -> None:
    queue.tell(solve_joint, question(project, drawn(project, joint), "final"), figures_of(0.1, f_rsi))


class TestFinding:
    def test_what_is_there(self) -> None:
        assert building_in(PROJECT, LAB.id).as_stored() is LAB
        assert joint_in(LAB, "j2") is EAVE
        assert family_of(EAVE) is FAMILIES["eave"]

    @pytest.mark.parametrize("find", [lambda: building_in(PROJECT, "no"), lambda: joint_in(LAB, "no")])
    def test_what_is_not(self, find: Any) -> None:
        with pytest.raises(NotFound):
            find()

    def test_an_unknown_family_names_those_there_are(self) -> None:
        with pytest.raises(DomainError) as caught:
            family_of(replace(EAVE, family="arch"))
        assert "eave" in caught.value.issues[0].hint

    def test_no_other_variant_is_no_comparison(self) -> None:
        with pytest.raises(DomainError, match="no other variant"):
            other_of(replace(EAVE, other=""))
        assert other_of(replace(EAVE, other="plain")) == "plain"


class TestDrawn:
    @pytest.mark.parametrize("building", PROJECT.buildings, ids=lambda one: one.id)
    def test_every_joint_of_the_campus_has_shapes_and_temperatures(self, building: Building) -> None:
        inside = PROJECT.within(building.id)
        for joint in building.joints:
            found = drawn(inside, joint)
            assert found.drawing.shapes
            assert set(found.stacks) == {one.role for one in joint.roles}
            assert found.temperatures["inside"] > found.temperatures["neighbour"] > found.temperatures["outside"]

    def test_a_build_up_that_is_gone_is_named_where_it_was(self) -> None:
        broken = replace(EAVE, roles=(EAVE.roles[0], replace(EAVE.roles[1], assembly_id="gone")))
        with pytest.raises(DomainError) as caught:
            drawn(PROJECT, broken)
        assert caught.value.issues[0].path == ("roles", 1, "assembly_id")

    def test_the_unheated_neighbour_stands_half_way(self) -> None:
        found = drawn(PROJECT, EAVE).temperatures
        assert found["neighbour"] == pytest.approx((found["inside"] + found["outside"]) / 2)

    def test_another_moment_has_other_temperatures_and_the_same_shapes(self) -> None:
        winter, coldest = drawn(PROJECT, SEAM), drawn(PROJECT, SEAM, "0")
        assert winter.drawing.shapes == coldest.drawing.shapes
        assert winter.temperatures != coldest.temperatures


class TestParameters:
    @pytest.mark.parametrize("joint", LAB.joints, ids=lambda one: one.family)
    def test_another_variant_takes_what_it_has_and_allows(self, joint: ShellJoint) -> None:
        family = family_of(joint)
        assert set(values_of(joint, family, joint.variant)) == {value.key for value in joint.values}
        for variant in family.variants:
            turned = {one.key: one for one in family.turned(variant.key)}
            for key, value in values_of(joint, family, variant.key).items():
                assert variant.key == joint.variant or turned[key].allows(value)

    def test_what_lies_out_of_its_range_stays_behind(self) -> None:
        family = family_of(SEAM)
        variant = next(one.key for one in family.variants if one.key != SEAM.variant and family.turned(one.key))
        key = family.turned(variant)[0].key
        wild = replace(SEAM, values=(JointValue(key=key, number=1e6),))
        assert values_of(wild, family, variant) == {}
        assert values_of(wild, family, SEAM.variant) == {key: 1e6}


class TestSweeping:
    def numbers(self) -> tuple[str, list[float]]:
        parameter = next(one for one in family_of(EAVE).turned(EAVE.variant) if isinstance(one.start, float))
        return parameter.key, [float(parameter.start), 1e6]

    def test_says_in_words_what_cannot_be_drawn_and_asks_the_rest(self, queue: Answering) -> None:
        key, values = self.numbers()
        (_, solving), (value, why) = swept(queue, PROJECT, EAVE, key, values)
        assert not isinstance(solving, str)
        assert value == 1e6
        assert isinstance(why, str)
        assert queue.asked == ["solve_joint"]

    @pytest.mark.parametrize("many", [0, MOST_SWEPT + 1])
    def test_no_or_too_many_values_are_refused(self, queue: Answering, many: int) -> None:
        with pytest.raises(DomainError, match=f"{many} values"):
            swept(queue, PROJECT, EAVE, "overhang", [0.2] * many)


class TestWhatIsKnown:
    def test_nothing_at_first_and_all_is_asked_for(self, queue: Answering) -> None:
        found = JointResults(queue).known(PROJECT, LAB)
        assert [one.joint.id for one in found] == [one.id for one in LAB.joints]
        assert all(one.solved is None and one.takes == () and one.why_not == "" for one in found)
        assert queue.asked == ["solve_joint"] * len(LAB.joints)

    def test_looking_without_beginning_asks_nothing(self, queue: Answering) -> None:
        JointResults(queue).known(PROJECT, LAB, begin=False)
        assert queue.asked == []

    def test_the_same_value_until_something_is_answered(self, queue: Answering) -> None:
        results = JointResults(queue)
        first = results.known(PROJECT, LAB)
        assert results.known(PROJECT, LAB) is first
        tell(queue, PROJECT, SEAM)
        found = next(one for one in results.known(PROJECT, LAB) if one.joint.id == "j3")
        assert found.solved is not None
        assert [(one.assembly_id, one.place, one.length) for one in found.takes] == [("wall-w-a", "seam", SEAM.length)]

    def test_a_joint_that_cannot_be_drawn_says_why(self, queue: Answering) -> None:
        project, lab = with_joint(replace(SEAM, roles=(replace(SEAM.roles[0], assembly_id="gone"),)))
        found = next(one for one in JointResults(queue).known(project, lab) if one.joint.id == "j3")
        assert found.drawn is None
        assert "gone" in found.why_not

    def test_one_that_cannot_be_solved_says_why(self, queue: Answering) -> None:
        queue.fails = "too fine to be meshed"
        assert {one.why_not for one in JointResults(queue).known(PROJECT, LAB)} == {"too fine to be meshed"}

    def test_beside_what_it_was_a_change_is_not_blamed_for_what_was_never_solved(self, queue: Answering) -> None:
        turned = replace(SEAM, variant=next(one.key for one in family_of(SEAM).variants if one.key != SEAM.variant))
        project, _ = with_joint(turned)
        tell(queue, project, turned)
        at = Stored(project=project, slots={}, revision=2, changed_at="", before=PROJECT)
        now, before = JointResults(queue).beside(at, LAB.id)
        assert before is not None
        seams = [next(one for one in found if one.joint.id == "j3") for found in (now, before)]
        assert seams[0].solved is not None
        assert seams[0] is seams[1]

    def test_beside_what_it_was_both_are_known_where_both_were_solved(self, queue: Answering) -> None:
        turned = replace(SEAM, variant=next(one.key for one in family_of(SEAM).variants if one.key != SEAM.variant))
        project, _ = with_joint(turned)
        tell(queue, project, turned, 0.85)
        tell(queue, PROJECT, SEAM, 0.95)
        at = Stored(project=project, slots={}, revision=2, changed_at="", before=PROJECT)
        now, before = JointResults(queue).beside(at, LAB.id)
        assert before is not None
        f_rsi = [
            next(one.solved.f_rsi for one in found if one.joint.id == "j3" and one.solved) for found in (now, before)
        ]
        assert f_rsi == [0.85, 0.95]

    def test_without_a_change_there_is_nothing_beside_it(self, queue: Answering) -> None:
        at = Stored(project=PROJECT, slots={}, revision=1, changed_at="")
        assert JointResults(queue).beside(at, LAB.id)[1] is None


class TestTheWalk:
    def test_goes_by_every_build_up_and_every_joint(self, queue: Answering) -> None:
        found = continuity_walk(PROJECT, LAB, JointResults(queue).known(PROJECT, LAB))
        ids = {stop.id for stop in found.stops}
        assert ids >= {one.id for one in LAB.joints}
        assert ids >= {one.id for one in LAB.elements if one.assembly_id is not None}

    def test_a_joint_that_cannot_be_drawn_is_undecided_with_its_reason(self, queue: Answering) -> None:
        project, lab = with_joint(replace(SEAM, roles=(replace(SEAM.roles[0], assembly_id="gone"),)))
        found = continuity_walk(project, lab, JointResults(queue).known(project, lab))
        stop = next(one for one in found.stops if one.id == "j3" and one.kind == "joint")
        assert {state for _, state in stop.lines} == {"undecided"}
        assert "gone" in stop.why[0]

    def test_insulation_goes_through_where_the_surface_keeps_what_is_asked(self) -> None:
        asked = replace(PROJECT, basis=replace(PROJECT.basis, targets=replace(PROJECT.basis.targets, f_rsi=0.8)))
        what = drawn(asked, EAVE)
        states = [dict(sealing(asked, EAVE, what, f_rsi).lines) for f_rsi in (0.9, 0.7)]
        assert states[0] != states[1]
        assert {line for line in states[0] if states[0][line] != states[1][line]} == {"heat"}
