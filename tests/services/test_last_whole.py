"""While something is being solved the last ledger that lacked nothing stands, and nobody judges a part."""

from __future__ import annotations

from dataclasses import replace

import pytest
from services.answering import Answering
from services.solved_joints import figures_of

from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.shell.project import Project
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.bench import Consequence, consequence
from nimble_shell.services.joints import JointResults, drawn, question
from nimble_shell.services.last_whole import LastWhole

CAMPUS = campus()
LAB = CAMPUS.buildings[0]
#: What the areas alone pass and the whole fails.
ASKED = replace(CAMPUS, basis=replace(CAMPUS.basis, targets=replace(CAMPUS.basis.targets, R_shell=4.0)))


def solved(queue: Answering, project: Project, leave_out: str = "") -> None:
    for joint in project.buildings[0].joints:
        if joint.id != leave_out:
            queue.tell(solve_joint, question(project, drawn(project, joint), "final"), figures_of(0.5, 0.9))


def seen(queue: Answering, project: Project) -> Consequence:
    building = project.buildings[0]
    known = JointResults(queue).known(project, building, begin=False)
    return consequence(project, None, building.id, known)


@pytest.fixture
def queue() -> Answering:
    return Answering()


def test_a_part_is_never_judged(queue: Answering) -> None:
    areas = seen(queue, ASKED).now.ledger
    assert areas.R_effective is not None
    assert value_of(areas.R_effective) >= 4.0
    assert not areas.whole
    solved(queue, ASKED, leave_out="j1")
    part = seen(queue, ASKED)
    assert part.now.ledger.R_effective is not None
    assert value_of(part.now.ledger.R_effective) < 4.0
    assert part.open == ()
    solved(queue, ASKED)
    assert "R_effective" in seen(queue, ASKED).open


def test_a_joint_that_cannot_be_solved_leaves_the_sum_a_part_by_its_name(queue: Answering) -> None:
    solved(queue, ASKED)
    lost = replace(LAB.joints[0], roles=(replace(LAB.joints[0].roles[0], assembly_id="gone"),))
    building = replace(LAB, joints=(lost, *LAB.joints[1:]))
    known = JointResults(queue).known(ASKED, building, begin=False)
    found = consequence(replace(ASKED, buildings=(building, *ASKED.buildings[1:])), None, LAB.id, known)
    assert not found.now.ledger.whole
    assert found.open == ()
    assert any(lost.name in one and "gone" in one for one in found.now.ledger.missing)


def test_the_last_whole_ledger_stands_until_a_newer_one_is_whole(queue: Answering) -> None:
    wholes = LastWhole()
    assert wholes.beside("p", "b", seen(queue, CAMPUS).now) is None  # none was whole yet
    solved(queue, CAMPUS)
    whole = seen(queue, CAMPUS).now
    assert whole.ledger.whole
    assert wholes.beside("p", "b", whole) is None  # it speaks for itself
    wall = next(one for one in CAMPUS.assemblies if one.id == "wall-w-a")
    thicker = wall.with_thickness(wall.core_index or 0, 0.3)
    edited = replace(CAMPUS, assemblies=tuple(thicker if one is wall else one for one in CAMPUS.assemblies))
    part = seen(queue, edited).now
    assert wholes.beside("p", "b", part) is whole
    assert wholes.beside("p", "another", part) is None
    solved(queue, edited)
    newer = seen(queue, edited).now
    assert wholes.beside("p", "b", newer) is None
    assert wholes.beside("p", "b", part) is newer


def test_a_draft_is_never_the_last_word(queue: Answering) -> None:
    wholes = LastWhole()
    solved(queue, CAMPUS)
    assert wholes.beside("p", "b", seen(queue, CAMPUS).now, saved=False) is None
    assert wholes.beside("p", "b", seen(Answering(), CAMPUS).now) is None
