"""Version 1 of the API, `/api/v1/…`: projects and their parts."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from fastapi import APIRouter
from fastapi.responses import Response

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Projects, Registers, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.formats.materials_csv import write_materials
from nimble_shell.formats.project import json_schema
from nimble_shell.services import sheets
from nimble_shell.store import NotFound

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.post("/systems/{key}/preview")
def system_preview(key: Id, asked: s.SystemPreviewIn) -> s.SystemPreview:
    """What a system looks like and comes to with some of its parameters. Nothing is saved."""
    if key not in SYSTEMS:
        raise NotFound("system", key)
    return views.system_preview(SYSTEMS[key], asked.values)


@router.get("/shipped")
def shipped() -> s.ShippedOut:
    """Materials, systems and units that ship with the program."""
    return views.shipped()


@router.get("/schema/project.json")
def project_schema() -> dict[str, Any]:
    """JSON Schema of the project file."""
    return json_schema()


@router.get("/projects")
def list_projects(service: Projects) -> list[s.ListedOut]:
    """Every project, deleted ones marked, newest change first."""
    return [s.ListedOut.model_validate(listed) for listed in service.all()]


@router.post("/projects", status_code=201)
def create_project(new: s.NewProject, service: Projects) -> s.ProjectOut:
    """An empty project with one building."""
    return views.project(service.create(new.name))


@router.post("/projects/import", status_code=201)
def import_project(file: dict[str, Any], service: Projects) -> s.ProjectOut:
    """Bring in a project file; the data is untouched if it is refused."""
    return views.project(service.bring_in(sheets.read_project_file(file)))


@router.get("/projects/{project_id}")
def get_project(project_id: Id, service: Projects) -> s.ProjectOut:
    """The whole project with the versions to name when saving."""
    return views.project(service.load(project_id))


@router.delete("/projects/{project_id}", status_code=204)
def delete_project(project_id: Id, service: Projects) -> None:
    """Move to the bin; it can be restored."""
    service.delete(project_id)


@router.post("/projects/{project_id}/restore")
def restore_project(project_id: Id, service: Projects) -> s.ProjectOut:
    """Bring back from the bin."""
    return views.project(service.restore(project_id))


@router.get("/projects/{project_id}/file")
def export_project(project_id: Id, service: Projects) -> Response:
    """The project file."""
    stored = service.load(project_id)
    return attachment(sheets.project_file(stored), "application/json", f"{stored.project.name}.json")


@router.get("/projects/{project_id}/changes")
def changes(project_id: Id, service: Projects) -> list[s.ChangeOut]:
    """The change log, newest first."""
    return [s.ChangeOut.model_validate(change) for change in service.changes(project_id)]


@router.get("/projects/{project_id}/assemblies/{assembly_id}/sheet.pdf")
def sheet(
    project_id: Id,
    assembly_id: Id,
    building_id: str,
    service: Projects,
    fixings: Fixings,
    register: Registers,
    condition: str = "0",
) -> Response:
    """The specification sheet of a build-up."""
    stored = service.load(project_id)
    owned = replace(stored, project=fixings.owned(stored))
    name, pdf = sheets.specification(owned, building_id, assembly_id, condition, register(stored, building_id))
    return attachment(pdf, "application/pdf", f"{name}.pdf")


@router.get("/projects/{project_id}/materials.csv")
def export_materials(project_id: Id, service: Projects, every: bool = False) -> Response:
    """Own materials as CSV; with `every`, the shipped ones too, as a pattern to start from."""
    project = service.load(project_id).project
    materials = tuple(project.catalogue.values()) if every else project.materials
    return attachment(write_materials(materials), "text/csv; charset=utf-8", f"{project.name}-materials.csv")
