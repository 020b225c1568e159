"""Version 1 of the API, `/api/v1/…`: form walls in courses, their drift, and how they are filled."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import Field
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import schemas as s
from nimble_shell.api.ground import REFUSALS, Id, Projects, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait
from nimble_shell.core.setout.courses.courses import Counts
from nimble_shell.core.shell.pouring import PouredLift
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import FormsDoc, OpeningDoc, PourDoc, StringLineDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.services.course_papers import courses_pdf
from nimble_shell.services.courses import (
    BlockDrawn,
    BuckDrawn,
    BuckMove,
    CastRow,
    Corners,
    CourseDrawn,
    CourseSheet,
    RunDrawn,
    WallDrawn,
    better_bucks,
    course_sheet,
    course_wall,
)
from nimble_shell.services.drift import DriftSheet, DriftWall, FootingWall, Rasp, Trim, drift_sheet, read_block
from nimble_shell.services.joints import building_in
from nimble_shell.services.lining import Lining, LiningSheet, LiningWay, lining_sheet
from nimble_shell.services.pour import BracedWall, PouredRun, PourSheet, ReadJoint, pour_sheet
from nimble_shell.services.setout import SetOutDraft
from nimble_shell.services.shape import ShapeDraft

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class BlockOut(Model, core=BlockDrawn):
    pass


class CourseOut(Model, core=CourseDrawn):
    pass


class BuckOut(Model, core=BuckDrawn):
    pass


class FormWallOut(Model, core=WallDrawn):
    pass


class FormCornersOut(Model, core=Corners):
    pass


class BlockCountsOut(Model, core=Counts):
    pass


class FormRunOut(Model, core=RunDrawn):
    reason: Prose


class CastRowOut(Model, core=CastRow):
    pass


class CourseSheetOut(Model, core=CourseSheet):
    choices: FormsDoc


class BuckMoveOut(Model, core=BuckMove):
    pass


class TrimOut(Model, core=Trim):
    pass


class RaspOut(Model, core=Rasp):
    pass


class DriftWallOut(Model, core=DriftWall):
    pass


class FootingWallOut(Model, core=FootingWall):
    pass


class DriftSheetOut(Model, core=DriftSheet):
    choices: FormsDoc


class PouredLiftOut(Model, core=PouredLift):
    pass


class ReadJointOut(Model, core=ReadJoint):
    pass


class BracedWallOut(Model, core=BracedWall):
    strings: list[StringLineDoc]


class PouredRunOut(Model, core=PouredRun):
    pass


class PourSheetOut(Model, core=PourSheet):
    choices: PourDoc


class LiningWayOut(Model, core=LiningWay):
    pass


class LiningOut(Model, core=Lining):
    pass


class LiningSheetOut(Model, core=LiningSheet):
    choices: PourDoc


class FormWallDraftIn(Model):
    """A wall as somebody is drawing it; what is left out stays as it is stored."""

    wall: s.ShortText
    forms: FormsDoc | None = None
    openings: list[OpeningDoc] | None = None


class BlockIn(Model):
    """A place on a wall, all from 0."""

    wall: s.ShortText
    course: Annotated[int, Field(ge=0, le=200)]
    block: Annotated[int, Field(ge=0, le=1000)]


class BlockReadOut(Model):
    read: float  #: [m]


@router.get("/projects/{project_id}/buildings/{building_id}/courses")
async def courses(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> CourseSheetOut:
    """Every run of form walls in courses."""
    stored = await run_in_threadpool(service.load, project_id)
    found = await wait.search(lambda _: course_sheet(stored.project, building_id), ticket)
    return CourseSheetOut.model_validate(found)


@router.post("/projects/{project_id}/buildings/{building_id}/courses/wall")
def course_of_wall(project_id: Id, building_id: Id, asked: FormWallDraftIn, service: Projects) -> FormWallOut:
    """One wall with its openings and its stack joint where they are drawn."""
    draft = SetOutDraft(
        forms=None if asked.forms is None else asked.forms.to_core(),
        shape=ShapeDraft(openings=None if asked.openings is None else tuple(one.to_core() for one in asked.openings)),
    )
    return FormWallOut.model_validate(course_wall(service.load(project_id).project, building_id, asked.wall, draft))


@router.get("/projects/{project_id}/buildings/{building_id}/courses/moves")
async def buck_moves(
    project_id: Id, building_id: Id, wall: s.ShortText, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> list[BuckMoveOut]:
    """Where each opening of a wall would stand better, and what that changes."""
    stored = await run_in_threadpool(service.load, project_id)
    found = await wait.search(lambda _: better_bucks(stored.project, building_id, wall), ticket)
    return [BuckMoveOut.model_validate(one) for one in found]


@router.get("/projects/{project_id}/buildings/{building_id}/drift")
def drift(project_id: Id, building_id: Id, service: Projects) -> DriftSheetOut:
    """Foam blocks against rigid sheets wall by wall, and the footing as it was levelled."""
    return DriftSheetOut.model_validate(drift_sheet(service.load(project_id).project, building_id))


@router.post("/projects/{project_id}/buildings/{building_id}/drift/tape")
def tape_block(project_id: Id, building_id: Id, asked: BlockIn, service: Projects) -> BlockReadOut:
    """What the simulated tape reads of a block."""
    project = service.load(project_id).project
    return BlockReadOut(read=read_block(project, building_id, asked.wall, asked.course, asked.block))


@router.get("/projects/{project_id}/buildings/{building_id}/pour")
def pour(project_id: Id, building_id: Id, service: Projects) -> PourSheetOut:
    """Every run with its pressure, lifts, concrete, trucks, braces and lean."""
    return PourSheetOut.model_validate(pour_sheet(service.load(project_id).project, building_id))


@router.get("/projects/{project_id}/buildings/{building_id}/lining")
def lining(project_id: Id, building_id: Id, service: Projects) -> LiningSheetOut:
    """A lining on the webs of a form or on battens before it: thickness, R, cost and room of each."""
    return LiningSheetOut.model_validate(lining_sheet(service.load(project_id).project, building_id))


@router.get("/projects/{project_id}/buildings/{building_id}/courses.pdf")
async def export_courses(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> Response:
    """Every form wall to scale, a page each, with its cuts, bucks, what is cast in and its lifts."""
    stored = await run_in_threadpool(service.load, project_id)
    name = building_in(stored.project, building_id).name
    found = await wait.search(lambda _: courses_pdf(stored, building_id), ticket)
    return attachment(found, "application/pdf", f"{name}-courses.pdf")
