"""Version 1 of the API: `/api/v1/…`."""

from __future__ import annotations

import re
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Path, Request
from fastapi.responses import Response

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.formats.problems import Problem
from nimble_shell.formats.project import json_schema
from nimble_shell.services import bench as benches
from nimble_shell.services import sheets
from nimble_shell.services.projects import Note, ProjectService

REFUSALS: dict[int | str, dict[str, Any]] = {
    code: {"model": Problem, "description": text}
    for code, text in {
        403: "another site asked", 404: "not there", 409: "changed in another window", 413: "too large",
        422: "refused, with the place and the way out", 503: "the database does not answer", 507: "the disk is full",
    }.items()
}  # fmt: skip
router = APIRouter(prefix="/api/v1", responses=REFUSALS)


def _service(request: Request) -> ProjectService:
    service: ProjectService = request.app.state.projects
    return service


Service = Annotated[ProjectService, Depends(_service)]
Id = Annotated[str, Path(pattern=r"^[A-Za-z0-9_-]{1,64}$")]


@router.get("/shelf")
def shelf() -> s.Shelf:
    """Materials, systems and units that ship with the program."""
    return views.shelf()


@router.get("/schema/project.json")
def project_schema() -> dict[str, Any]:
    """JSON Schema of the project file."""
    return json_schema()


@router.get("/projects")
def list_projects(service: Service) -> list[s.ListedOut]:
    """Every project, deleted ones marked, newest change first."""
    return [s.ListedOut.model_validate(listed) for listed in service.all()]


@router.post("/projects", status_code=201)
def create_project(new: s.NewProject, service: Service) -> s.ProjectOut:
    """An empty project with one building."""
    return views.project(service.create(new.name))


@router.post("/projects/import", status_code=201)
def import_project(file: dict[str, Any], service: Service) -> s.ProjectOut:
    """Bring in a project file; the data is untouched if it is refused."""
    return views.project(service.bring_in(sheets.read_project_file(file)))


@router.get("/projects/{project_id}")
def get_project(project_id: Id, service: Service) -> s.ProjectOut:
    """The whole project with the versions to name when saving."""
    return views.project(service.load(project_id))


@router.delete("/projects/{project_id}", status_code=204)
def delete_project(project_id: Id, service: Service) -> None:
    """Move to the bin; it can be restored."""
    service.delete(project_id)


@router.post("/projects/{project_id}/restore")
def restore_project(project_id: Id, service: Service) -> s.ProjectOut:
    """Bring back from the bin."""
    return views.project(service.restore(project_id))


@router.get("/projects/{project_id}/file")
def export_project(project_id: Id, service: Service) -> Response:
    """The project file."""
    stored = service.load(project_id)
    return _attachment(sheets.project_file(stored), "application/json", f"{stored.project.name}.json")


@router.put("/projects/{project_id}/basis")
def save_basis(project_id: Id, saved: s.SaveBasis, service: Service) -> s.ProjectOut:
    """Change name or Basis."""
    return views.project(service.save_basis(project_id, saved.name, saved.basis.to_core(), saved.version, _note(saved)))


@router.put("/projects/{project_id}/buildings")
def save_building(project_id: Id, saved: s.SaveBuilding, service: Service) -> s.ProjectOut:
    """Change a building, or add one when no version is named."""
    return views.project(service.save_building(project_id, saved.building.to_core(), saved.version, _note(saved)))


@router.post("/projects/{project_id}/buildings/{building_id}/removal")
def remove_building(project_id: Id, building_id: Id, removal: s.Removal, service: Service) -> s.ProjectOut:
    """Take a building away; undo brings it back."""
    return views.project(service.remove_building(project_id, building_id, removal.version, _note(removal)))


@router.put("/projects/{project_id}/assemblies")
def save_assembly(project_id: Id, saved: s.SaveAssembly, service: Service) -> s.ProjectOut:
    """Change a build-up."""
    return views.project(service.save_assembly(project_id, saved.assembly.to_core(), saved.version, _note(saved)))


@router.post("/projects/{project_id}/assemblies", status_code=201)
def start_assembly(project_id: Id, start: s.StartAssembly, service: Service) -> s.ProjectOut:
    """Give an element of the shell a build-up of a system."""
    return views.project(
        service.start_assembly(
            project_id, start.building_id, start.element_id, start.system, start.values, _note(start)
        )
    )


@router.post("/projects/{project_id}/assemblies/{assembly_id}/removal")
def remove_assembly(project_id: Id, assembly_id: Id, removal: s.Removal, service: Service) -> s.ProjectOut:
    """Take a build-up away; undo brings it back."""
    return views.project(service.remove_assembly(project_id, assembly_id, removal.version, _note(removal)))


@router.post("/projects/{project_id}/undo")
def undo(project_id: Id, step: s.StepIn, service: Service) -> s.ProjectOut:
    """Take back the newest change, named by its number."""
    return views.project(service.step(project_id, "undo", step.number))


@router.post("/projects/{project_id}/redo")
def redo(project_id: Id, step: s.StepIn, service: Service) -> s.ProjectOut:
    """Do the last undone change again, named by its number."""
    return views.project(service.step(project_id, "redo", step.number))


@router.get("/projects/{project_id}/changes")
def changes(project_id: Id, service: Service) -> list[s.ChangeOut]:
    """The change log, newest first."""
    return [s.ChangeOut.model_validate(change) for change in service.changes(project_id)]


@router.get("/projects/{project_id}/buildings/{building_id}/ledger")
def ledger(project_id: Id, building_id: Id, service: Service) -> s.ConsequenceOut:
    """The ledger of a building as saved, beside what it was before the newest change."""
    stored, before = service.load_with_before(project_id)
    return views.consequence(benches.consequence(stored.project, before, building_id), preview=False)


@router.post("/projects/{project_id}/bench")
def bench(project_id: Id, asked: s.BenchIn, service: Service) -> s.BenchOut:
    """Every figure of a build-up as drafted, and what it means for the shell. Nothing is saved."""
    stored, before = service.load_with_before(project_id)
    draft = asked.assembly.to_core()
    project = benches.with_draft(stored.project, draft)
    preview = project != stored.project
    effect = benches.consequence(project, stored.project if preview else before, asked.building_id)
    building = benches.find_building(project, asked.building_id)
    station = benches.station_of(building, draft.id)
    found = benches.bench(draft, project.catalogue, project.basis, asked.condition, station)
    return views.bench(found, effect, preview=preview)


@router.post("/projects/{project_id}/working")
def working(project_id: Id, asked: s.WorkingIn, service: Service) -> s.WorkingOut:
    """Show working: every step of one figure, from the executed calculation."""
    project = service.load(project_id).project
    if asked.assembly is not None:
        draft = asked.assembly.to_core()
        project = benches.with_draft(project, draft)
        if not benches.is_of_the_shell(asked.figure):
            station = benches.station_of(benches.find_building(project, asked.building_id), draft.id)
            return views.working(benches.bench_working(project, draft, asked.condition, asked.figure, station))
    return views.working(benches.ledger_working(project, asked.building_id, asked.figure))


@router.get("/projects/{project_id}/assemblies/{assembly_id}/sheet.pdf")
def sheet(project_id: Id, assembly_id: Id, building_id: str, service: Service, condition: str = "0") -> Response:
    """The specification sheet of a build-up."""
    stored = service.load(project_id)
    name, pdf = sheets.specification(stored, building_id, assembly_id, condition)
    return _attachment(pdf, "application/pdf", f"{name}.pdf")


def _note(saying: s.Saying) -> Note:
    return Note(text=saying.text, zone=saying.zone)


def _attachment(content: bytes, media_type: str, name: str) -> Response:
    safe = re.sub(r"[^A-Za-z0-9._-]+", "-", name).strip("-.") or "nimble-shell"
    return Response(content, media_type=media_type, headers={"Content-Disposition": f'attachment; filename="{safe}"'})
