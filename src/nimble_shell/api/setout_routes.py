"""Version 1 of the API, `/api/v1/…`: faces cut into panels, as stored and as they are being drawn."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Joints, Projects, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait
from nimble_shell.core.setout.partition import Sum
from nimble_shell.core.shell.panel_workings import panel_working as working_of
from nimble_shell.core.shell.set_out import NotOfPanels
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import OpeningDoc, SetOutDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.services.joints import building_in
from nimble_shell.services.setout import (
    Move,
    SetOutDraft,
    SetOutEffect,
    SetOutSheet,
    ThermalBack,
    assumed,
    better_places,
    effect_of,
    set_out_one,
    set_out_sheet,
)
from nimble_shell.services.setout_compare import Compared, compared
from nimble_shell.services.setout_drawn import (
    DrawnAnchor,
    DrawnFitting,
    DrawnJoint,
    DrawnPanel,
    DrawnPlate,
    DrawnPost,
    DrawnSetOut,
    HoldPoint,
    SetOpening,
)
from nimble_shell.services.setout_export import drawing_dxf, panels_csv
from nimble_shell.services.shape import ShapeDraft
from nimble_shell.services.shop_papers import drawings_pdf, face_drawing

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class TermsOut(Model, core=Sum):
    pass


class SetJointOut(Model, core=DrawnJoint):
    pass


class SetPanelOut(Model, core=DrawnPanel):
    pass


class SetOpeningOut(Model, core=SetOpening):
    pass


class SetPlateOut(Model, core=DrawnPlate):
    pass


class SetPostOut(Model, core=DrawnPost):
    pass


class SetAnchorOut(Model, core=DrawnAnchor):
    problem: Prose


class SetFittingOut(Model, core=DrawnFitting):
    pass


class HoldPointOut(Model, core=HoldPoint):
    pass


class FaceSetOutOut(Model, core=DrawnSetOut):
    reason: Prose
    no_anchors: list[Prose]


class NotOfPanelsOut(Model, core=NotOfPanels):
    pass


class ThermalBackOut(Model, core=ThermalBack):
    pass


class SetOutEffectOut(Model, core=SetOutEffect):
    pass


class SetOutOut(Model, core=SetOutSheet):
    choices: SetOutDoc


class MoveOut(Model, core=Move):
    pass


class ComparedOut(Model, core=Compared):
    reason: Prose


class PanelWorkingIn(Model):
    """A figure of a face, a panel or a build-up."""

    figure: s.ShortText
    of: s.ShortText


class FaceDraftIn(Model):
    """A face as somebody is drawing it; what is left out stays as it is stored."""

    face: s.ShortText
    choices: SetOutDoc | None = None
    openings: list[OpeningDoc] | None = None


@router.get("/projects/{project_id}/buildings/{building_id}/setout")
async def set_out(
    project_id: Id, building_id: Id, service: Projects, results: Joints, fixings: Fixings, wait: Wait,
    ticket: s.ShortText = "",
) -> SetOutOut:  # fmt: skip
    """Every face of panels with its panels, joints and plates, and what they make of the build-ups."""
    stored = await run_in_threadpool(service.load, project_id)

    def found(_: str) -> SetOutSheet:
        project = fixings.owned(stored)
        sheet = set_out_sheet(project, building_id, SetOutDraft())
        known = results.known(stored.project, building_in(stored.project, building_id))
        effect = effect_of(project, building_id, known, fixings.waiting(stored.project, building_id))
        return replace(sheet, effect=effect)

    return SetOutOut.model_validate(await wait.search(found, ticket))


@router.post("/projects/{project_id}/buildings/{building_id}/setout/face")
def set_out_face(project_id: Id, building_id: Id, asked: FaceDraftIn, service: Projects) -> FaceSetOutOut:
    """One face round the joints that are pinned and the openings where they are drawn."""
    draft = SetOutDraft(
        choices=None if asked.choices is None else asked.choices.to_core(),
        shape=ShapeDraft(openings=None if asked.openings is None else tuple(one.to_core() for one in asked.openings)),
    )
    return FaceSetOutOut.model_validate(set_out_one(service.load(project_id).project, building_id, asked.face, draft))


@router.get("/projects/{project_id}/buildings/{building_id}/setout/compared")
async def compare(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> list[ComparedOut]:
    """The same walls on other modules and in other systems."""
    stored = await run_in_threadpool(service.load, project_id)
    found = await wait.search(lambda _: compared(stored.project, building_id), ticket)
    return [ComparedOut.model_validate(one) for one in found]


@router.get("/projects/{project_id}/buildings/{building_id}/panels.csv")
def export_panels(project_id: Id, building_id: Id, service: Projects) -> Response:
    """All panels as CSV, in the units of the project."""
    project = service.load(project_id).project
    name = building_in(project, building_id).name
    return attachment(panels_csv(project, building_id), "text/csv; charset=utf-8", f"{name}-panels.csv")


@router.get("/projects/{project_id}/buildings/{building_id}/setout.dxf")
def export_drawing(project_id: Id, building_id: Id, service: Projects) -> Response:
    """All faces of panels as a DXF drawing in mm."""
    project = service.load(project_id).project
    name = building_in(project, building_id).name
    return attachment(drawing_dxf(project, building_id), "application/dxf", f"{name}-setout.dxf")


@router.get("/projects/{project_id}/buildings/{building_id}/setout.pdf")
def export_drawings(project_id: Id, building_id: Id, service: Projects) -> Response:
    """All faces of panels to scale, a page each."""
    stored = service.load(project_id)
    name = building_in(stored.project, building_id).name
    return attachment(drawings_pdf(stored, building_id), "application/pdf", f"{name}-setout.pdf")


@router.get("/projects/{project_id}/buildings/{building_id}/setout.svg")
def export_face(project_id: Id, building_id: Id, face: s.ShortText, service: Projects) -> Response:
    """One face of panels as SVG to scale."""
    project = service.load(project_id).project
    name = building_in(project, building_id).name
    return attachment(face_drawing(project, building_id, face).encode(), "image/svg+xml", f"{name}-{face}.svg")


@router.post("/projects/{project_id}/buildings/{building_id}/panel-working")
def panel_working(
    project_id: Id, building_id: Id, asked: PanelWorkingIn, service: Projects, fixings: Fixings
) -> s.WorkingOut:
    """Show working of a figure of the set-out or the shop."""
    project = fixings.owned(service.load(project_id)).within(building_id)
    return views.working(working_of(project, assumed(project, building_id), asked.figure, asked.of))


@router.get("/projects/{project_id}/buildings/{building_id}/setout/moves")
async def moves(
    project_id: Id, building_id: Id, face: s.ShortText, service: Projects, results: Joints, wait: Wait,
    ticket: s.ShortText = "",
) -> list[MoveOut]:  # fmt: skip
    """Where each opening of a face would stand better, and what that saves."""
    stored = await run_in_threadpool(service.load, project_id)
    known = results.known(stored.project, building_in(stored.project, building_id), begin=False)
    found = await wait.search(lambda _: better_places(stored.project, building_id, face, known), ticket)
    return [MoveOut.model_validate(one) for one in found]
