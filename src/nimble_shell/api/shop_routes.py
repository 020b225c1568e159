"""Version 1 of the API, `/api/v1/…`: what is cut for a building's panels, from what, and in which order."""

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
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import ShopDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.services.joints import building_in
from nimble_shell.services.setout_export import cut_list_csv
from nimble_shell.services.shop import (
    BarDrawn,
    BoardPart,
    Boards,
    Diagonal,
    Laid,
    Section,
    SheetDrawn,
    ShopPiece,
    ShopSheet,
    Truckload,
    boards_of,
    laydown_check,
    shop_sheet,
)
from nimble_shell.services.shop_panels import (
    Filled,
    FilledPanel,
    PanelCard,
    PanelWeight,
    PanelWork,
    filling_of,
    panel_card,
    tape_read,
)
from nimble_shell.services.shop_papers import labels, lists_xlsx, nesting

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class PanelWeightOut(Model, core=PanelWeight):
    pass


class PanelWorkOut(Model, core=PanelWork):
    pass


class PanelCardOut(Model, core=PanelCard):
    pass


class FilledPanelOut(Model, core=FilledPanel):
    pass


class FilledOut(Model, core=Filled):
    pass


class ShopPieceOut(Model, core=ShopPiece):
    pass


class BarDrawnOut(Model, core=BarDrawn):
    pass


class BarSectionOut(Model, core=Section):
    reason: Prose


class TruckloadOut(Model, core=Truckload):
    pass


class DiagonalOut(Model, core=Diagonal):
    pass


class LaidOut(Model, core=Laid):
    pass


class ShopOut(Model, core=ShopSheet):
    choices: ShopDoc
    no_truck: Prose


class BoardPartOut(Model, core=BoardPart):
    pass


class SheetDrawnOut(Model, core=SheetDrawn):
    pass


class BoardsOut(Model, core=Boards):
    reason: Prose


_MISREAD = 3.0  #: tolerances, one of each of the readings that a diagonal follows from, as they add up by squares


class ReadingsIn(Model):
    """Four sides from corner to corner, then both diagonals, as a tape read them. [m]"""

    panel: s.ShortText
    read: Annotated[list[Annotated[float, Field(gt=0, le=100)]], Field(min_length=6, max_length=6)]
    tolerance: Annotated[float, Field(ge=0, le=0.1)]


class LaydownOut(Model):
    """What the readings say. [m]"""

    ok: bool
    worst: float
    rack: float  #: half of what the diagonals differ; above nought the first one is too long
    closure: float  #: of the last diagonal, off what the other five leave
    misread: bool  #: whether the six contradict one another by more than a tape errs
    off_deg: list[float]


@router.post("/projects/{project_id}/buildings/{building_id}/shop/laydown")
def lay_down(project_id: Id, building_id: Id, asked: ReadingsIn, service: Projects) -> LaydownOut:
    """A laid-down panel against what a tape read on it."""
    found = laydown_check(service.load(project_id).project, building_id, asked.panel, asked.read)
    worst, good = found.worst / 1000, found.worst / 1000 <= asked.tolerance + 1e-9
    misread = not good and abs(found.closure) / 1000 > _MISREAD * asked.tolerance
    return LaydownOut(ok=good, misread=misread, worst=worst, rack=found.rack / 1000,
                      closure=found.closure / 1000, off_deg=list(found.off))  # fmt: skip


@router.get("/projects/{project_id}/buildings/{building_id}/shop")
async def shop(project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = "") -> ShopOut:
    """The cut list in the order trucks ask for it, bars of what is left, trucks, and panels that are laid down."""
    stored = await run_in_threadpool(service.load, project_id)
    return ShopOut.model_validate(await wait.search(lambda _: shop_sheet(stored.project, building_id), ticket))


@router.get("/projects/{project_id}/buildings/{building_id}/cut-list.csv")
def export_cut_list(project_id: Id, building_id: Id, service: Projects) -> Response:
    """All pieces in the order they are cut as CSV, in the units of the project."""
    project = service.load(project_id).project
    name = building_in(project, building_id).name
    return attachment(cut_list_csv(project, building_id), "text/csv; charset=utf-8", f"{name}-cut-list.csv")


@router.get("/projects/{project_id}/buildings/{building_id}/shop/boards")
async def boards(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> list[BoardsOut]:
    """Skins and boards of all panels in raw boards."""
    stored = await run_in_threadpool(service.load, project_id)
    found = await wait.search(lambda _: boards_of(stored.project, building_id), ticket)
    return [BoardsOut.model_validate(one) for one in found]


@router.get("/projects/{project_id}/buildings/{building_id}/shop/panel")
def panel(project_id: Id, building_id: Id, mark: s.ShortText, service: Projects) -> PanelCardOut:
    """One panel: its weight and where that acts, and what is worked into it."""
    return PanelCardOut.model_validate(panel_card(service.load(project_id).project, building_id, mark))


class TapeIn(Model):
    panel: s.ShortText


class TapeOut(Model):
    read: list[float]  #: four sides, then both diagonals [m]


@router.post("/projects/{project_id}/buildings/{building_id}/shop/tape")
def tape(project_id: Id, building_id: Id, asked: TapeIn, service: Projects) -> TapeOut:
    """What the simulated tape reads on a laid-down panel of four corners."""
    return TapeOut(read=list(tape_read(service.load(project_id).project, building_id, asked.panel)))


@router.get("/projects/{project_id}/buildings/{building_id}/shop/filling")
def filling(project_id: Id, building_id: Id, service: Projects) -> list[FilledOut]:
    """Beads that are blown into frames: volumes, bags, ports and their order, and what has to be closed before."""
    return [FilledOut.model_validate(one) for one in filling_of(service.load(project_id).project, building_id)]


@router.get("/projects/{project_id}/buildings/{building_id}/labels.pdf")
def export_labels(project_id: Id, building_id: Id, service: Projects) -> Response:
    """A label for each panel."""
    stored = service.load(project_id)
    name = building_in(stored.project, building_id).name
    return attachment(labels(stored, building_id), "application/pdf", f"{name}-labels.pdf")


@router.get("/projects/{project_id}/buildings/{building_id}/nesting.pdf")
async def export_nesting(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> Response:
    """Bars and boards drawn with what is cut out of them."""
    stored = await run_in_threadpool(service.load, project_id)
    name = building_in(stored.project, building_id).name
    found = await wait.search(lambda _: nesting(stored, building_id), ticket)
    return attachment(found, "application/pdf", f"{name}-nesting.pdf")


@router.get("/projects/{project_id}/buildings/{building_id}/lists.xlsx")
async def export_lists(
    project_id: Id, building_id: Id, service: Projects, wait: Wait, ticket: s.ShortText = ""
) -> Response:
    """Panels, pieces, bars and hold points as a workbook, in the units of the project."""
    stored = await run_in_threadpool(service.load, project_id)
    name = building_in(stored.project, building_id).name
    found = await wait.search(lambda _: lists_xlsx(stored, building_id), ticket)
    return attachment(found, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", f"{name}-lists.xlsx")
