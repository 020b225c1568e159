"""Version 1 of the API, `/api/v1/…`: practice standards."""

from __future__ import annotations

import json
from typing import Any

from fastapi import APIRouter
from fastapi.responses import Response

from nimble_shell.api import schemas as s
from nimble_shell.api import study_schemas as t
from nimble_shell.api import study_views, views
from nimble_shell.api.edit_routes import Since, answered
from nimble_shell.api.ground import REFUSALS, Id, JointStandards, Projects, Standards, TargetSets, attachment, note_of
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.formats.standards import read_standards, write_standards

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.get("/target-sets")
def list_target_sets(service: TargetSets) -> list[s.TargetSetOut]:
    """The practice's own sets of targets; the examples are among what ships."""
    return views.target_sets(service.own())


@router.put("/target-sets")
def keep_target_set(asked: s.TargetSetIn, service: TargetSets) -> list[s.TargetSetOut]:
    """Keep targets under a name of the practice's own; a known name gets a next version."""
    service.keep(asked.name, asked.targets.to_core())
    return views.target_sets(service.own())


@router.post("/target-sets/withdrawal")
def withdraw_target_set(asked: s.TargetSetName, service: TargetSets) -> list[s.TargetSetOut]:
    """No longer offer a set; projects that took it keep their targets."""
    service.withdraw(asked.name)
    return views.target_sets(service.own())


@router.get("/standards")
def list_standards(service: Standards) -> list[t.StandardOut]:
    """The practice's standards with where each is used."""
    return [study_views.standard(kept, uses) for kept, uses in service.all()]


@router.get("/standards.json")
def export_standards(service: Standards, joints: JointStandards) -> Response:
    """Every standard as a file, of build-ups and of joints."""
    content = write_standards([kept.standard for kept, _ in service.all()], [kept.standard for kept, _ in joints.all()])
    return attachment(json.dumps(content, indent=1, ensure_ascii=False).encode(), "application/json", "standards.json")


@router.post("/standards/import")
def import_standards(file: dict[str, Any], service: Standards, joints: JointStandards) -> t.Stored:
    """Bring in a file of standards; a known one gets a next version if it differs."""
    read, read_joints = read_standards(file)
    return t.Stored(stored=service.bring_in(read) + joints.bring_in(read_joints))


@router.get("/joint-standards")
def list_joint_standards(service: JointStandards) -> list[t.JointStandardOut]:
    """The practice's standards of joints with where each is used."""
    return [study_views.joint_standard(kept, uses) for kept, uses in service.all()]


@router.post("/joint-standards/{standard_id}/withdrawal", status_code=204)
def withdraw_joint_standard(standard_id: Id, asked: t.Withdrawal, service: JointStandards) -> None:
    """No longer offer a standard, or offer it again; what uses it stays as it is."""
    service.withdraw(standard_id, again=asked.again)


@router.post("/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/standard", status_code=201)
def keep_joint_standard(
    project_id: Id,
    building_id: Id,
    joint_id: Id,
    asked: t.KeepJointStandard,
    service: JointStandards,
    projects: Projects,
    since: Since = None,
) -> s.DeltaOut:
    """Keep a joint as a standard, or as the next version of the one it was taken from."""
    stored = service.keep(project_id, building_id, joint_id, reason=asked.reason, source=asked.source,
                     trusted_since=asked.trusted_since)  # fmt: skip
    return answered(projects, stored, since)


@router.get("/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/offer")
def joint_standard_offer(
    project_id: Id, building_id: Id, joint_id: Id, service: JointStandards
) -> t.JointOfferOut | None:
    """What the newest version of its standard would change in a joint; null if there is nothing to offer."""
    offer = service.offer(project_id, building_id, joint_id)
    return None if offer is None else study_views.joint_offer(offer)


@router.post("/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/offer")
def take_joint_standard(
    project_id: Id,
    building_id: Id,
    joint_id: Id,
    asked: t.TakeJointStandard,
    service: JointStandards,
    projects: Projects,
    since: Since = None,
) -> s.DeltaOut:
    """Build a joint as the newest version of a standard says, as one undoable change."""
    stored = service.take(project_id, building_id, joint_id, asked.standard_id, asked.version, note_of(asked))
    return answered(projects, stored, since)


@router.post("/standards/{standard_id}/withdrawal", status_code=204)
def withdraw_standard(standard_id: Id, asked: t.Withdrawal, service: Standards) -> None:
    """No longer offer a standard, or offer it again; what uses it keeps its build-up."""
    service.withdraw(standard_id, again=asked.again)


@router.post("/projects/{project_id}/assemblies/{assembly_id}/standard", status_code=201)
def keep_standard(
    project_id: Id, assembly_id: Id, asked: t.KeepStandard, service: Standards, projects: Projects, since: Since = None
) -> s.DeltaOut:
    """Keep a build-up as a standard, or as the next version of the one it was taken from."""
    stored = service.keep(project_id, assembly_id, asked.place, reason=asked.reason, source=asked.source,
                     trusted_since=asked.trusted_since)  # fmt: skip
    return answered(projects, stored, since)


@router.post("/projects/{project_id}/standards", status_code=201)
def use_standard(
    project_id: Id, asked: t.UseStandard, service: Standards, projects: Projects, since: Since = None
) -> s.DeltaOut:
    """Give an element of the shell a copy of a standard."""
    stored = service.use(project_id, asked.building_id, asked.element_id, asked.standard_id, note_of(asked))
    return answered(projects, stored, since)


@router.get("/projects/{project_id}/assemblies/{assembly_id}/offer")
def standard_offer(project_id: Id, assembly_id: Id, service: Standards) -> t.OfferOut | None:
    """What the newest version of its standard would change in a build-up; null if there is nothing to offer."""
    offer = service.offer(project_id, assembly_id)
    return None if offer is None else study_views.offer(offer)


@router.post("/projects/{project_id}/assemblies/{assembly_id}/offer")
def take_offer(
    project_id: Id, assembly_id: Id, asked: t.TakeOffer, service: Standards, projects: Projects, since: Since = None
) -> s.DeltaOut:
    """Take the newest version of its standard, as one undoable change."""
    stored = service.take(project_id, assembly_id, asked.version, note_of(asked))
    return answered(projects, stored, since)
