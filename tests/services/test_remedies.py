"""What keeps the surface of a joint: solved again here, by itself."""

from __future__ import annotations

from dataclasses import replace
from itertools import islice

import pytest

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.core.moisture.verdict.verdict import outside_steps, thicker_steps
from nimble_shell.core.shell.project import Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.remedies import (
    JointSurface,
    Remedy,
    RemedyKind,
    RemedyResults,
    joint_surface,
    question_of,
    search,
    searches,
)

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


def test_what_was_searched_is_offered_as_one_click_that_settles_it() -> None:
    project = CAMPUS.within("bunkhouse")
    pipe = next(one for building in project.buildings for one in building.joints if one.name == "Ventilation pipe")
    asked = question_of(project, pipe)
    least = joint_surface(asked.project, asked.joint).asked(None)
    assert least is not None
    found = [one for number in range(2) for one in search(asked.project, asked.joint, number, least)]
    results = RemedyResults()
    assert results.ways(project, pipe) == []
    results.hold(project, pipe, found)
    ways = results.ways(project, pipe)
    assert len(ways) == sum(one.found for one in found) >= 1
    for way in ways:
        assert isinstance(way.changed, ShellJoint)
        assert (way.changed.id, way.changed.name) == (pipe.id, pipe.name)
        again = question_of(project, way.changed)
        assert joint_surface(again.project, again.joint).f_rsi >= least
    assert results.ways(CAMPUS.within("bunkhouse"), replace(pipe, length=9.0, name="Another"))  # asks the same
    assert results.ways(project, replace(pipe, variant="lagged", values=())) == []  # was not searched
    drier = replace(project.basis, damp=replace(project.basis.damp, wood=0.18))
    assert results.ways(replace(project, basis=drier), pipe) == []  # nor was this, though all else is the same


@pytest.mark.parametrize("kind", ["outside", "core"])
def test_a_build_up_that_keeps_a_joint_is_offered_as_it_was_tried(kind: RemedyKind) -> None:
    project = CAMPUS.within("main-laboratory")
    joint = next(one for one in project.buildings[0].joints if one.roles[0].assembly_id == "wall-w-a")
    wall = next(one for one in project.assemblies if one.id == "wall-w-a")
    amount, tried = next(islice((outside_steps if kind == "outside" else thicker_steps)(wall), 3, None))
    results = RemedyResults()
    one = Remedy(kind=kind, text="wall", found=True, f_rsi=0.9, amount=amount, before=0.0, assembly_id=wall.id)
    results.hold(project, joint, [one, replace(one, found=False), replace(one, assembly_id="gone")])
    (way,) = results.ways(project, joint)
    assert isinstance(way.changed, Assembly)
    assert [(layer.material, layer.d) for layer in way.changed.layers] == [
        (layer.material, layer.d) for layer in tried.layers
    ]
    assert all(not layer.id.startswith("searched") for layer in way.changed.layers)


def test_the_stricter_of_month_and_basis_is_asked() -> None:
    surface = JointSurface(f_rsi=0.72, required=0.70, month=0)
    assert (surface.passes, surface.asked(0.79), surface.asked(0.5)) == (True, 0.79, 0.70)
    assert surface.asked(None) == 0.70
    assert JointSurface(f_rsi=0.72, required=None, month=None).asked(None) is None


def test_equal_joints_are_one_question_whatever_they_are_called() -> None:
    project, door = joint("pump-house", "Door")
    other = replace(door, name="Another", length=12.0, sealed=True)
    assert question_of(project, other) == question_of(project, door)


def test_a_joint_whose_build_up_is_gone_is_refused() -> None:
    project, door = joint("pump-house", "Door")
    with pytest.raises(DomainError, match="gone"):
        joint_surface(replace(project, assemblies=()), door)
