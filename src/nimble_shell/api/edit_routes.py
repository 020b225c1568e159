"""Version 1 of the API, `/api/v1/…`: everything that changes a project. Each answers with what was written, no more."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Query
from fastapi.exceptions import RequestValidationError
from pydantic import ValidationError

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.api.ground import REFUSALS, Id, Projects, note_of
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.formats.materials_csv import read_materials
from nimble_shell.formats.things import KINDS, Key
from nimble_shell.services.projects import Edit, ProjectService
from nimble_shell.services.reading import read_apart
from nimble_shell.store import Stored

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)

#: Revision that the window holds; without it the answer tells of this change alone.
Since = Annotated[int | None, Query(ge=0)]


def answered(service: ProjectService, stored: Stored, since: int | None) -> s.DeltaOut:
    """What was written since, or by the change that led to what is stored."""
    return views.delta(service.delta(stored.project.id, stored.revision - 1 if since is None else since))


@router.post("/projects/{project_id}/edit")
def edit(project_id: Id, asked: s.EditIn, service: Projects, since: Since = None) -> s.DeltaOut:
    """Write things of a project as one undoable change."""
    edits = [_edit(item, at) for at, item in enumerate(asked.items)]
    return answered(service, service.put(project_id, edits, note_of(asked)), since)


@router.get("/projects/{project_id}/delta")
def delta(project_id: Id, since: Annotated[int, Query(ge=0)], service: Projects) -> s.DeltaOut:
    """What was written since a revision, by whomever."""
    return views.delta(service.delta(project_id, since))


@router.post("/projects/{project_id}/materials/like", status_code=201)
def add_material_like(project_id: Id, asked: s.MaterialLike, service: Projects, since: Since = None) -> s.DeltaOut:
    """An own material that takes everything over from one of the project's catalogue."""
    return answered(service, service.add_material_like(project_id, asked.like, note_of(asked)), since)


@router.post("/projects/{project_id}/materials/csv")
def import_materials(project_id: Id, file: s.MaterialsFile, service: Projects, since: Since = None) -> s.DeltaOut:
    """Add the materials of a CSV file; with `instead`, change those of the same key; all lines or none."""
    found = read_apart(read_materials, file.content)
    return answered(service, service.take_materials(project_id, found, note_of(file), instead=file.instead), since)


@router.post("/projects/{project_id}/assemblies", status_code=201)
def start_assembly(project_id: Id, start: s.StartAssembly, service: Projects, since: Since = None) -> s.DeltaOut:
    """Give an element of the shell a build-up of a system."""
    stored = service.start_assembly(
        project_id, start.building_id, start.element_id, start.system, start.values, note_of(start)
    )
    return answered(service, stored, since)


@router.post("/projects/{project_id}/alternatives")
def use_alternative(project_id: Id, asked: s.Alternative, service: Projects, since: Since = None) -> s.DeltaOut:
    """Put another build-up, or a copy of its own, in an element's place; its joints follow."""
    place = (asked.building_id, asked.element_id, asked.assembly_id)
    return answered(service, service.use_assembly(project_id, *place, note_of(asked)), since)


@router.post("/projects/{project_id}/assemblies/{assembly_id}/removal")
def remove_assembly(
    project_id: Id, assembly_id: Id, removal: s.Removal, service: Projects, since: Since = None
) -> s.DeltaOut:
    """Take a build-up away; undo brings it back."""
    stored = service.remove_assembly(project_id, assembly_id, removal.version, note_of(removal), removal.users)
    return answered(service, stored, since)


@router.post("/projects/{project_id}/undo")
def undo(project_id: Id, step: s.StepIn, service: Projects, since: Since = None) -> s.DeltaOut:
    """Take back the newest change, named by its number."""
    return answered(service, service.step(project_id, "undo", step.number), since)


@router.post("/projects/{project_id}/redo")
def redo(project_id: Id, step: s.StepIn, service: Projects, since: Since = None) -> s.DeltaOut:
    """Do the last undone change again, named by its number."""
    return answered(service, service.step(project_id, "redo", step.number), since)


def _edit(item: s.ThingEdit, at: int) -> Edit:
    where = ("items", at)
    kind = KINDS.get(item.kind)
    if kind is None:
        raise DomainError(Issue(path=(*where, "kind"), code="unknown_kind", message=f"there is no kind “{item.kind}”",
                                hint=f"one of {', '.join(KINDS)}"))  # fmt: skip
    key = Key(item.kind, item.owner, item.id)
    if item.document is None:
        return Edit(key=key, value=None, read=item.read)
    try:
        value = kind.document.model_validate(item.document).to_core()
    except ValidationError as error:
        found: list[Any] = error.errors(include_url=False, include_context=False)
        listed = [{**one, "loc": (*where, "document", *one["loc"])} for one in found]
        raise RequestValidationError(listed) from error
    except DomainError as error:
        raise error.under(*where, "document") from error
    if item.id and kind.id_of(value) != item.id:
        raise DomainError(Issue(path=(*where, "id"), code="id_differs",
                                message=f"the document is of “{kind.id_of(value)}”, not of “{item.id}”",
                                hint="name the same thing in both places"))  # fmt: skip
    return Edit(key=key, value=value, read=item.read, bare=not any(name in item.document for name in kind.holds))
