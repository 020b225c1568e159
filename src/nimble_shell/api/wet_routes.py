"""Version 1 of the API, `/api/v1/…`: mortar, plaster and straw boards; the order of work."""

from __future__ import annotations

from fastapi import APIRouter
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import schemas as s
from nimble_shell.api.ground import REFUSALS, Id, Projects
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait
from nimble_shell.core.shell.wetting import BoardedFaces, Clocked, MortaredFaces, PlasteredFaces
from nimble_shell.core.shop.quantities.wet import Mortar, Needed, Plaster
from nimble_shell.core.site.casting import Cast, ToCast
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import WetDoc, WorkDoc
from nimble_shell.services.wet import CastDay, WetSheet, wet_sheet
from nimble_shell.services.work import WorkAfter, WorkRow, WorkSheet, work_sheet

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class MortarOut(Model, core=Mortar):
    pass


class MortaredOut(Model, core=MortaredFaces):
    pass


class NeededOut(Model, core=Needed):
    pass


class PlasterOut(Model, core=Plaster):
    pass


class ToCastOut(Model, core=ToCast):
    pass


class CastOut(Model, core=Cast):
    pass


class PlasteredOut(Model, core=PlasteredFaces):
    pass


class BoardedOut(Model, core=BoardedFaces):
    pass


class ClockedOut(Model, core=Clocked):
    pass


class CastDayOut(Model, core=CastDay):
    pass


class WetSheetOut(Model, core=WetSheet):
    choices: WetDoc


class WorkAfterOut(Model, core=WorkAfter):
    pass


class WorkRowOut(Model, core=WorkRow):
    pass


class WorkSheetOut(Model, core=WorkSheet):
    choices: WorkDoc


@router.get("/projects/{project_id}/buildings/{building_id}/work")
def work(project_id: Id, building_id: Id, service: Projects) -> WorkSheetOut:
    """Operations at their earliest days, hold points, and what a proposed order breaks."""
    return WorkSheetOut.model_validate(work_sheet(service.load(project_id).project, building_id))


@router.get("/projects/{project_id}/buildings/{building_id}/wet")
async def wet(project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = "") -> WetSheetOut:
    """Mortar, plaster and boards, build-up by build-up, with the casting of panels."""
    stored = await run_in_threadpool(service.load, project_id)
    return WetSheetOut.model_validate(await wait.search(lambda _: wet_sheet(stored.project, building_id), ticket))
