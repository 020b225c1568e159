"""Version 1 of the API, `/api/v1/…`: what is bought for a building."""

from __future__ import annotations

from fastapi import APIRouter
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import schemas as s
from nimble_shell.api.ground import REFUSALS, Id, Projects, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait
from nimble_shell.core.shop.bill import BillRow
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import BillDoc
from nimble_shell.services.bill import Bill, bill_csv, bill_of, bill_xlsx
from nimble_shell.services.joints import building_in

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class BillRowOut(Model, core=BillRow):
    ordered: float
    cost: float | None


class BillOut(Model, core=Bill):
    choices: BillDoc


@router.get("/projects/{project_id}/buildings/{building_id}/bill")
async def bill(project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = "") -> BillOut:
    """Every material, seal, block and bag with its waste, rounded to what is sold, and its cost."""
    stored = await run_in_threadpool(service.load, project_id)
    return BillOut.model_validate(await wait.search(lambda _: bill_of(stored.project, building_id), ticket))


@router.get("/projects/{project_id}/buildings/{building_id}/bill.csv")
async def export_bill(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> Response:
    """The same as CSV, in the units of the project."""
    stored = await run_in_threadpool(service.load, project_id)
    name = building_in(stored.project, building_id).name
    found = await wait.search(lambda _: bill_csv(stored.project, building_id), ticket)
    return attachment(found, "text/csv; charset=utf-8", f"{name}-quantities.csv")


@router.get("/projects/{project_id}/buildings/{building_id}/bill.xlsx")
async def export_workbook(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> Response:
    """The same as a workbook."""
    stored = await run_in_threadpool(service.load, project_id)
    name = building_in(stored.project, building_id).name
    found = await wait.search(lambda _: bill_xlsx(stored.project, building_id), ticket)
    return attachment(
        found, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", f"{name}-quantities.xlsx"
    )
