"""What keeps the surface of a joint: solved again here, by itself."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.core.shell.project import Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.remedies import joint_surface, question_of, search, searches

CAMPUS = campus()


def joint(building: str, name: str) -> tuple[Project, ShellJoint]:
    of = next(one for one in CAMPUS.buildings if one.id == building)
    asked = question_of(CAMPUS.within(building), next(one for one in of.joints if one.name == name))
    return asked.project, asked.joint


def test_a_pipe_through_the_wall_is_kept_by_another_variant_and_by_nothing_of_its_own() -> None:
    project, pipe = joint("bunkhouse", "Ventilation pipe")
    now = joint_surface(project, pipe)
    assert now.required is not None
    assert now.month == 0
    assert not now.passes
    found = [one for number in range(len(list(searches(project, pipe))))
             for one in search(project, pipe, number, now.required)]  # fmt: skip
    assert {one.kind for one in found} == {"variant", "parameter", "choice", "outside", "core"}
    assert [one.kind for one in found if one.found] == ["variant"]
    assert all(one.f_rsi is not None and one.f_rsi < now.required for one in found if not one.found)
    assert joint_surface(project, replace(pipe, variant="lagged", values=())).passes


def test_a_parameter_is_the_smallest_that_passes_and_one_step_less_fails() -> None:
    project, door = joint("pump-house", "Door")
    now = joint_surface(project, door)
    assert now.required is not None
    found = next(
        one for number in range(len(list(searches(project, door)))) for one in search(project, door, number, now.required)
        if one.kind == "parameter" and one.found
    )  # fmt: skip
    assert found.text == "frame depth"
    assert found.amount is not None
    assert found.before is not None
    for amount, passes in ((found.amount, True), (found.before, False)):
        turned = replace(door, values=(*(v for v in door.values if v.key != "frame"),
                                       JointValue(key="frame", number=amount)))  # fmt: skip
        assert joint_surface(project, turned).passes is passes


def test_equal_joints_are_one_question_whatever_they_are_called() -> None:
    project, door = joint("pump-house", "Door")
    other = replace(door, name="Another", length=12.0, sealed=True)
    assert question_of(project, other) == question_of(project, door)


def test_a_joint_whose_build_up_is_gone_is_refused() -> None:
    project, door = joint("pump-house", "Door")
    with pytest.raises(DomainError, match="gone"):
        joint_surface(replace(project, assemblies=()), door)
