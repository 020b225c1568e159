"""Version 1 of the API, `/api/v1/…`: projects and their parts."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from fastapi import APIRouter
from fastapi.responses import Response

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Projects, attachment, note_of
from nimble_shell.formats.materials_csv import read_materials, write_materials
from nimble_shell.formats.project import json_schema
from nimble_shell.services import sheets

router = APIRouter(prefix="/api/v1", responses=REFUSALS)


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


@router.put("/projects/{project_id}/basis")
def save_basis(project_id: Id, saved: s.SaveBasis, service: Projects) -> s.ProjectOut:
    """Change name or Basis."""
    return views.project(
        service.save_basis(project_id, saved.name, saved.basis.to_core(), saved.version, note_of(saved))
    )


@router.put("/projects/{project_id}/buildings")
def save_building(project_id: Id, saved: s.SaveBuilding, service: Projects) -> s.ProjectOut:
    """Change a building, or add one when no version is named."""
    return views.project(service.save_building(project_id, saved.building.to_core(), saved.version, note_of(saved)))


@router.post("/projects/{project_id}/buildings/{building_id}/removal")
def remove_building(project_id: Id, building_id: Id, removal: s.Removal, service: Projects) -> s.ProjectOut:
    """Take a building away; undo brings it back."""
    return views.project(service.remove_building(project_id, building_id, removal.version, note_of(removal)))


@router.put("/projects/{project_id}/assemblies")
def save_assembly(project_id: Id, saved: s.SaveAssembly, service: Projects) -> s.ProjectOut:
    """Change a build-up."""
    return views.project(service.save_assembly(project_id, saved.assembly.to_core(), saved.version, note_of(saved)))


@router.post("/projects/{project_id}/assemblies", status_code=201)
def start_assembly(project_id: Id, start: s.StartAssembly, service: Projects) -> s.ProjectOut:
    """Give an element of the shell a build-up of a system."""
    return views.project(
        service.start_assembly(
            project_id, start.building_id, start.element_id, start.system, start.values, note_of(start)
        )
    )


@router.post("/projects/{project_id}/assemblies/{assembly_id}/removal")
def remove_assembly(project_id: Id, assembly_id: Id, removal: s.Removal, service: Projects) -> s.ProjectOut:
    """Take a build-up away; undo brings it back."""
    return views.project(service.remove_assembly(project_id, assembly_id, removal.version, note_of(removal)))


@router.post("/projects/{project_id}/undo")
def undo(project_id: Id, step: s.StepIn, service: Projects) -> s.ProjectOut:
    """Take back the newest change, named by its number."""
    return views.project(service.step(project_id, "undo", step.number))


@router.post("/projects/{project_id}/redo")
def redo(project_id: Id, step: s.StepIn, service: Projects) -> s.ProjectOut:
    """Do the last undone change again, named by its number."""
    return views.project(service.step(project_id, "redo", step.number))


@router.get("/projects/{project_id}/changes")
def changes(project_id: Id, service: Projects) -> list[s.ChangeOut]:
    """The change log, newest first."""
    return [s.ChangeOut.model_validate(change) for change in service.changes(project_id)]


@router.get("/projects/{project_id}/assemblies/{assembly_id}/sheet.pdf")
def sheet(
    project_id: Id, assembly_id: Id, building_id: str, service: Projects, fixings: Fixings, condition: str = "0"
) -> Response:
    """The specification sheet of a build-up."""
    stored = service.load(project_id)
    stored = replace(stored, project=fixings.owned(stored.project))
    name, pdf = sheets.specification(stored, building_id, assembly_id, condition)
    return attachment(pdf, "application/pdf", f"{name}.pdf")


@router.put("/projects/{project_id}/materials")
def save_materials(project_id: Id, saved: s.SaveMaterials, service: Projects) -> s.ProjectOut:
    """Change the project's own materials."""
    materials = tuple(document.to_core() for document in saved.materials)
    return views.project(service.save_materials(project_id, materials, saved.version, note_of(saved)))


@router.post("/projects/{project_id}/materials/like", status_code=201)
def add_material_like(project_id: Id, asked: s.MaterialLike, service: Projects) -> s.ProjectOut:
    """An own material that takes everything over from one of the project's catalogue."""
    return views.project(service.add_material_like(project_id, asked.like, asked.version, note_of(asked)))


@router.get("/projects/{project_id}/materials.csv")
def export_materials(project_id: Id, service: Projects, every: bool = False) -> Response:
    """Own materials as CSV; with `every`, the shipped ones too, as a pattern to start from."""
    project = service.load(project_id).project
    materials = tuple(project.catalogue.values()) if every else project.materials
    return attachment(write_materials(materials), "text/csv; charset=utf-8", f"{project.name}-materials.csv")


@router.post("/projects/{project_id}/materials/csv")
def import_materials(project_id: Id, file: s.MaterialsFile, service: Projects) -> s.ProjectOut:
    """Add the materials of a CSV file, or change those of the same key; all lines or none."""
    known = {material.key: material for material in service.load(project_id).project.materials}
    known.update({material.key: material for material in read_materials(file.content)})
    return views.project(service.save_materials(project_id, tuple(known.values()), file.version, note_of(file)))
