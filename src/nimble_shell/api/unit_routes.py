"""Version 1 of the API, `/api/v1/…`: types of windows and doors, and the openings that are filled with them."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.api.edit_routes import Since, answered
from nimble_shell.api.ground import REFUSALS, Id, Projects, note_of
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.core.windows.starts import FRAMES, GLASSES, SPACERS, FrameStart, GlassStart, SpacerStart
from nimble_shell.core.windows.transmittance import Light
from nimble_shell.formats.document import Identifier, Model
from nimble_shell.formats.project import UnitDoc
from nimble_shell.services.units import DrawnUnit, edge_variants, fill_openings, fit_joints, unit_sheet, unit_working

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class UnitTypeIn(Model):
    """A unit type as somebody is changing it; none shows those that are stored."""

    unit: UnitDoc | None = None


class LightOut(Model, core=Light):
    pass


class UnitTypeOut(Model, core=DrawnUnit):
    working: s.WorkingOut  #: of its U


class FrameStartOut(Model, core=FrameStart):
    pass


class GlassStartOut(Model, core=GlassStart):
    pass


class SpacerStartOut(Model, core=SpacerStart):
    pass


class EdgeVariantOut(Model):
    """A way in which the joint at an edge of a unit can be built."""

    edge: str
    variant: str
    text: str


class UnitTypesOut(Model):
    units: list[UnitTypeOut]
    frames: list[FrameStartOut]  #: to begin with
    glasses: list[GlassStartOut]
    spacers: list[SpacerStartOut]
    variants: list[EdgeVariantOut]


class FillIn(s.ChangeNoteIn):
    """Openings of a building and the type that fills them; an empty one takes it away."""

    openings: Annotated[list[Identifier], Field(min_length=1, max_length=5000)]
    unit: str = Field("", pattern=r"^[A-Za-z0-9_-]{0,64}$")


@router.post("/projects/{project_id}/units")
def units(project_id: Id, asked: UnitTypeIn, service: Projects) -> UnitTypesOut:
    """What each type of window and door comes to, by ISO 10077-1 or as declared. Nothing is saved."""
    project = service.load(project_id).project
    draft = None if asked.unit is None else asked.unit.to_core()
    types = {one.id: one for one in project.units}
    if draft is not None:
        types[draft.id] = draft
    found = []
    for drawn in unit_sheet(project, draft):
        fields = {name: getattr(drawn, name) for name in DrawnUnit.__dataclass_fields__}
        found.append(UnitTypeOut.model_validate({**fields, "working": views.working(unit_working(types[drawn.id]))}))
    return UnitTypesOut.model_validate({"units": found, "frames": FRAMES, "glasses": GLASSES, "spacers": SPACERS,
                                    "variants": edge_variants()})  # fmt: skip


@router.post("/projects/{project_id}/buildings/{building_id}/openings/unit")
def fill(project_id: Id, building_id: Id, asked: FillIn, service: Projects, since: Since = None) -> s.DeltaOut:
    """Fill openings with a type: its size and sill, and joints that are round its openings alone take its frame."""
    stored = fill_openings(service, project_id, building_id, asked.openings, asked.unit, note_of(asked))
    return answered(service, stored, since)


@router.post("/projects/{project_id}/buildings/{building_id}/openings/joints")
def fit(project_id: Id, building_id: Id, note: s.ChangeNoteIn, service: Projects, since: Since = None) -> s.DeltaOut:
    """Joints round openings of one type take its frame, place in the wall, shim, fin and variant."""
    return answered(service, fit_joints(service, project_id, building_id, note_of(note)), since)
