"""Version 1 of the API, `/api/v1/…`: panels on the hook."""

from __future__ import annotations

from fastapi import APIRouter
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import schemas as s
from nimble_shell.api.ground import REFUSALS, Id, Projects
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import LiftingDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.services.lifts import LiftCard, LiftRow, LiftSheet, lift_card, lift_sheet

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class LiftRowOut(Model, core=LiftRow):
    problem: Prose


class LiftSheetOut(Model, core=LiftSheet):
    choices: LiftingDoc


class LiftCardOut(Model, core=LiftCard):
    pass


@router.get("/projects/{project_id}/buildings/{building_id}/lifts")
async def lifts(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> LiftSheetOut:
    """Every panel in set order with crane, people and days."""
    stored = await run_in_threadpool(service.load, project_id)
    return LiftSheetOut.model_validate(await wait.search(lambda _: lift_sheet(stored.project, building_id), ticket))


@router.get("/projects/{project_id}/buildings/{building_id}/lifts/panel")
def lift_of_panel(project_id: Id, building_id: Id, mark: s.ShortText, service: Projects) -> LiftCardOut:
    """One panel on its hook: slings, balance, crane, wind, turning."""
    return LiftCardOut.model_validate(lift_card(service.load(project_id).project, building_id, mark))
