"""Joints as practice standards: kept, used, offered with differences, withdrawn, and through a file."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.formats.standards import read_standards, write_standards
from nimble_shell.formats.things import Key
from nimble_shell.services.joint_standards import JointStandardService
from nimble_shell.services.projects import ChangeNote, Edit, ProjectService
from nimble_shell.store import Database, NotFound, Stored

BUILDING = "main-laboratory"


@pytest.fixture
def standards(database: Database, projects: ProjectService) -> JointStandardService:
    return JointStandardService(database, projects)


def seam(stored: Stored) -> ShellJoint:
    building = next(one for one in stored.project.buildings if one.id == BUILDING)
    return next(one for one in building.joints if one.family == "seam")


def kept(standards: JointStandardService, campus: str, joint: ShellJoint) -> Stored:
    return standards.keep(campus, BUILDING, joint.id, reason="dry for nine winters", source="log", trusted_since="2015")


def changed(projects: ProjectService, campus: str, joint: ShellJoint) -> Stored:
    stored = projects.load(campus)
    building = next(one for one in stored.project.buildings if one.id == BUILDING)
    joints = tuple(joint if one.id == joint.id else one for one in building.joints)
    edit = Edit(
        key=Key("building", "", BUILDING),
        value=replace(building, joints=joints),
        read=stored.versions[f"building/{BUILDING}"],
        bare=False,
    )
    return projects.put(campus, [edit], ChangeNote(text="changed"))


def test_a_joint_is_kept_without_what_is_the_project_s(
    standards: JointStandardService, projects: ProjectService, campus: str
) -> None:
    joint = seam(projects.load(campus))
    marked = seam(kept(standards, campus, joint))
    ((found, uses),) = standards.all()
    assert marked.standard is not None
    assert (marked.standard.id, marked.standard.version) == (found.standard.id, 1)
    assert found.standard.joint.variant == joint.variant
    assert (found.standard.joint.roles, found.standard.joint.length) == ((), 0.0)
    assert [use.name for use in uses] == ["Main Laboratory, Wall seams"]
    assert standards.offer(campus, BUILDING, joint.id) is None


def test_a_change_is_offered_back_with_its_differences_and_taken_as_one_step(
    standards: JointStandardService, projects: ProjectService, campus: str
) -> None:
    joint = seam(kept(standards, campus, seam(projects.load(campus))))
    other = replace(joint, variant="block", values=(JointValue(key="width", number=0.05),), omitted=("tape-in",))
    changed(projects, campus, other)
    offer = standards.offer(campus, BUILDING, joint.id)
    assert offer is not None
    assert {one.what for one in offer.differences} == {"variant", "width", "seals left out"}
    version = projects.load(campus).versions[f"building/{BUILDING}"]
    note = ChangeNote(text="standard taken")
    taken = standards.take(campus, BUILDING, joint.id, offer.kept.standard.id, version, note)
    assert seam(taken) == joint
    assert taken.undo is not None
    assert seam(projects.step(campus, "undo", taken.undo.number)).variant == "block"


def test_kept_again_it_is_the_next_version_and_the_first_user_is_offered_it(
    standards: JointStandardService, projects: ProjectService, campus: str
) -> None:
    joint = seam(kept(standards, campus, seam(projects.load(campus))))
    copy = projects.bring_in(projects.load(campus).project)
    changed(projects, campus, replace(joint, tape="butyl tape"))
    kept(standards, campus, joint)
    ((found, uses),) = standards.all()
    assert found.standard.version == 2
    assert sorted(use.version for use in uses) == [1, 2]
    offer = standards.offer(copy.project.id, BUILDING, joint.id)
    assert offer is not None
    assert [one.what for one in offer.differences] == ["tape"]


def test_a_file_carries_them_and_brings_a_known_one_only_if_it_differs(
    standards: JointStandardService, projects: ProjectService, campus: str
) -> None:
    kept(standards, campus, seam(projects.load(campus)))
    ((found, _),) = standards.all()
    file = write_standards([], [found.standard])
    assert read_standards(file) == ([], [found.standard])
    assert standards.bring_in([found.standard]) == 0
    assert standards.bring_in([replace(found.standard, reason="and a tenth")]) == 1
    assert standards.all()[0][0].standard.version == 2


def test_withdrawn_it_is_still_known_to_who_uses_it(
    standards: JointStandardService, projects: ProjectService, campus: str
) -> None:
    joint = seam(kept(standards, campus, seam(projects.load(campus))))
    assert joint.standard is not None
    standards.withdraw(joint.standard.id)
    assert standards.all()[0][0].withdrawn
    standards.withdraw(joint.standard.id, again=True)
    assert not standards.all()[0][0].withdrawn
    with pytest.raises(NotFound):
        standards.withdraw("nobody")


def test_without_a_reason_it_is_not_kept(
    standards: JointStandardService, projects: ProjectService, campus: str
) -> None:
    with pytest.raises(DomainError, match="no reason"):
        standards.keep(campus, BUILDING, seam(projects.load(campus)).id, reason=" ", source="", trusted_since="")
    assert standards.all() == []
    with pytest.raises(NotFound):
        standards.keep(campus, BUILDING, "nobody", reason="x", source="", trusted_since="")
