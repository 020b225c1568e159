"""Version 1 of the API, `/api/v1/…`: a project from one sheet, and the shape of a building as it is being drawn."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter
from fastapi.responses import Response

from nimble_shell.api import schemas as s
from nimble_shell.api import shape_schemas as g
from nimble_shell.api import views
from nimble_shell.api.edit_routes import Since, answered
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Joints, Projects, Wholes, attachment, note_of
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.core.errors import Collector, DomainError
from nimble_shell.core.shell.project import Project
from nimble_shell.formats.openings_csv import read_openings, write_openings
from nimble_shell.formats.project import BodyDoc
from nimble_shell.formats.quantities_csv import write_quantities
from nimble_shell.formats.reading.reading import ReadOpening, ReadWall
from nimble_shell.services import bench as benches
from nimble_shell.services.begin import begin
from nimble_shell.services.drawings import read_drawing
from nimble_shell.services.joints import building_in
from nimble_shell.services.read_bodies import body_from, differences, not_drawn
from nimble_shell.services.reading import read_apart
from nimble_shell.services.shape import ShapeDraft, shape_of, with_shape
from nimble_shell.services.shape_edits import draw_joints, give_back, schedule_of, sides_for, take_schedule
from nimble_shell.services.shape_export import quantity_rows

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.post("/projects/begin", status_code=201)
def begin_project(asked: g.BeginIn, service: Projects) -> s.ProjectOut:
    """A new project with a complete shell: build-ups, shape, openings, a joint for each edge that it can be."""
    return views.project(begin(service, asked.to_core()))


@router.post("/projects/{project_id}/buildings/{building_id}/shape/joints")
def draw_every_joint(
    project_id: Id, building_id: Id, note: s.ChangeNoteIn, service: Projects, since: Since = None
) -> s.DeltaOut:
    """A joint for each edge of the shape that has none, where a family suits."""
    return answered(service, draw_joints(service, project_id, building_id, note_of(note)), since)


@router.post("/projects/{project_id}/buildings/{building_id}/shape/followed")
def follow_the_shape(
    project_id: Id, building_id: Id, note: s.ChangeNoteIn, service: Projects, since: Since = None
) -> s.DeltaOut:
    """Areas and lengths are given back to the shape, and joints take the edges that they are drawn for."""
    return answered(service, give_back(service, project_id, building_id, note_of(note)), since)


@router.get("/projects/{project_id}/buildings/{building_id}/openings.csv")
def export_openings(project_id: Id, building_id: Id, service: Projects) -> Response:
    """The opening schedule of a building as CSV."""
    project = service.load(project_id).project
    building = building_in(project, building_id)
    content = write_openings(schedule_of(project, building))
    return attachment(content, "text/csv; charset=utf-8", f"{building.name}-openings.csv")


@router.get("/projects/{project_id}/buildings/{building_id}/quantities.csv")
def export_quantities(project_id: Id, building_id: Id, service: Projects) -> Response:
    """Every area, length, bearing and height of a building's shape as CSV, in the units of the project."""
    project = service.load(project_id).project
    content = write_quantities(quantity_rows(project, building_id), project.basis.schools.units)
    name = building_in(project, building_id).name
    return attachment(content, "text/csv; charset=utf-8", f"{name}-quantities.csv")


@router.post("/projects/{project_id}/buildings/{building_id}/openings/csv")
def import_openings(
    project_id: Id, building_id: Id, file: g.ScheduleIn, service: Projects, since: Since = None
) -> s.DeltaOut:
    """Take an opening schedule: known marks are changed, others added, none is taken away; all lines or none."""
    lines = read_apart(read_openings, file.content)
    return answered(service, take_schedule(service, project_id, building_id, lines, note_of(file)), since)


@router.post("/projects/{project_id}/buildings/{building_id}/reading")
def read_file(project_id: Id, building_id: Id, file: g.DrawingIn, service: Projects) -> g.ReadingOut:
    """What a DXF or IFC file holds, and which side of the shape each wall seems to be. Nothing is saved."""
    building = building_in(service.load(project_id).project, building_id).as_stored()
    found = read_drawing(file.content, file.name, file.unit, file.layers)
    body = differ = None
    if found.body is not None:
        if building.bodies:
            differ = differences(found.body, building)
        else:
            body, differ = body_from(found.body, building, file.name), not_drawn(found.body)
            building = replace(building, bodies=(body,), north=found.body.north)
    sides = sides_for(building, found.walls)
    return g.ReadingOut.model_validate(
        {"kind": found.kind, "unit": found.unit, "layers": found.layers, "floors": found.floors, "roofs": found.roofs,
         "perimeter": found.perimeter, "left_out": found.left_out, "differences": differ or (),
         "walls": [_read_wall(one, side) for one, side in zip(found.walls, sides, strict=True)],
         "body": None if body is None else BodyDoc.from_core(body), "north": building.north})  # fmt: skip


def _read_wall(one: ReadWall, side: str) -> g.ReadWallOut:
    wide, high = one.size
    fields = {name: getattr(one, name) for name in ReadWall.__dataclass_fields__}
    openings = [{**{name: getattr(each, name) for name in ReadOpening.__dataclass_fields__}, **each.box(),
                 "kind": each.kind} for each in one.openings]  # fmt: skip
    return g.ReadWallOut.model_validate({**fields, "openings": openings, "side": side, "width": wide, "height": high,
                                         "net": one.net})  # fmt: skip


@router.post("/projects/{project_id}/buildings/{building_id}/shape")
def shape(
    project_id: Id, building_id: Id, asked: g.ShapeIn, service: Projects, results: Joints, fixings: Fixings,
    wholes: Wholes,
) -> g.ShapeAnswer:  # fmt: skip
    """Faces, areas, joints and volume of a building as it is being drawn, and what that means for its shell."""
    stored = service.load(project_id)
    building_in(stored.project, building_id)
    draft = _draft(asked)
    saved = fixings.owned(stored)
    project = with_shape(saved, building_id, draft)
    preview = project is not saved
    # While a shape is drawn its joints count as last solved: only their lengths change.
    now, then = results.beside(stored, building_id)
    effect = benches.consequence(
        project, saved if preview else fixings.before(stored), building_id, now, now if preview else then,
        fixings.waiting(stored.project, building_id),
    )  # fmt: skip
    last = wholes.beside(project_id, building_id, effect.now, saved=not preview)
    return g.ShapeAnswer(now=_sheet(project, building_id), before=_sheet(saved, building_id) if preview else None,
                      consequence=views.consequence(effect, last, preview=preview))  # fmt: skip


def _sheet(project: Project, building_id: str) -> g.ShapeSheetOut | None:
    if not building_in(project, building_id).bodies:
        return None
    return g.ShapeSheetOut.model_validate(shape_of(project, building_id))


def _draft(asked: g.ShapeIn) -> ShapeDraft:
    check = Collector()
    found: dict[str, tuple[object, ...] | None] = {"bodies": None, "openings": None}
    for name, documents in (("bodies", asked.bodies), ("openings", asked.openings)):
        if documents is None:
            continue
        values = []
        for at, one in enumerate(documents):
            try:
                values.append(one.to_core())
            except DomainError as error:
                check.add(error.under(name, at).issues)
        found[name] = tuple(values)
    check.refuse()
    return ShapeDraft(bodies=found["bodies"], openings=found["openings"], north=asked.north)  # type: ignore[arg-type]  # of the documents' own kinds
