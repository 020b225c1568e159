"""Version 1 of the API, `/api/v1/…`: what could be done to a building, re-run one by one and together."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import schemas as s
from nimble_shell.api.edit_routes import Since, answered
from nimble_shell.api.ground import REFUSALS, Id, Measures, Projects, note_of
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait
from nimble_shell.formats.document import Model, Text
from nimble_shell.formats.reader import Prose
from nimble_shell.services.good_enough import GoodEnough
from nimble_shell.services.measures import Gains, Outcome, Together, adopt
from nimble_shell.services.states import State, StateFigures, states

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)
Keys = Annotated[list[Text], Field(min_length=1, max_length=50)]


class GainsOut(Model, core=Gains):
    pass


class MeasureOut(Model):
    """A change and what it comes to by itself; without gains while a part of the sum is being solved."""

    key: str
    kind: str
    station: str
    text: Prose
    id: str
    cost: float | None
    carbon: float | None
    gains: GainsOut | None
    per_cost: float | None
    margin: float | None  #: of moisture, the least of what it changes; null while that is judged
    waiting: int
    why_not: Prose


class TogetherOut(Model, core=Together):
    misses: list[str]


class LeftOutOut(Model):
    key: str
    misses: list[str]


class EnoughOut(Model):
    """The cheapest set that reaches what is asked; `without` is what is missed if one of it is left out."""

    keys: list[str] | None
    together: TogetherOut | None
    without: list[LeftOutOut]
    reached: bool
    tried: int


class StateFiguresOut(Model, core=StateFigures):
    pass


class StateOut(Model, core=State):
    pass


class StatesIn(Model):
    keys: Annotated[list[Text], Field(max_length=50)] = []


class EnoughIn(Model):
    ticket: s.ShortText = ""


class MeasureKeysIn(Model):
    keys: Keys


class AdoptIn(s.ChangeNoteIn):
    keys: Keys


@router.get("/projects/{project_id}/buildings/{building_id}/measures")
async def measures(
    project_id: Id, building_id: Id, service: Projects, results: Measures, wait: Wait, ticket: s.ShortText = ""
) -> list[MeasureOut]:
    """Every measure by itself, those that save most for their money first."""
    stored = await run_in_threadpool(service.load, project_id)
    found = await wait.search(lambda _: results.all(stored, building_id), ticket)
    return [_measure(one) for one in found]


@router.post("/projects/{project_id}/buildings/{building_id}/measures/together")
def together(
    project_id: Id, building_id: Id, asked: MeasureKeysIn, service: Projects, results: Measures
) -> TogetherOut:
    """Several at once; they are not additive."""
    return TogetherOut.model_validate(results.together(service.load(project_id), building_id, asked.keys))


@router.post("/projects/{project_id}/buildings/{building_id}/states")
def compared(project_id: Id, building_id: Id, asked: StatesIn, service: Projects, results: Measures) -> list[StateOut]:
    """The building as it is, as it was, with measures, and as a plain framed one."""
    found = states(results, service.load(project_id), building_id, asked.keys)
    return [StateOut.model_validate(one) for one in found]


@router.post("/projects/{project_id}/buildings/{building_id}/measures/enough")
async def enough(
    project_id: Id, building_id: Id, asked: EnoughIn, service: Projects, results: Measures, wait: Wait
) -> EnoughOut:
    """The cheapest set that reaches what is asked of the building, and what leaving one out would miss."""
    stored = await run_in_threadpool(service.load, project_id)
    found = await wait.search(lambda ticket: GoodEnough(results, stored, building_id, ticket).search(), asked.ticket)
    return EnoughOut(
        keys=None if found.keys is None else list(found.keys), reached=found.reached, tried=found.tried,
        together=None if found.together is None else TogetherOut.model_validate(found.together),
        without=[LeftOutOut(key=key, misses=list(missed)) for key, missed in found.without],
    )  # fmt: skip


@router.post("/projects/{project_id}/buildings/{building_id}/measures/adoption")
def adoption(
    project_id: Id, building_id: Id, asked: AdoptIn, service: Projects, results: Measures, since: Since = None
) -> s.DeltaOut:
    """Build with them, as one undoable change."""
    stored = adopt(service, results, project_id, building_id, asked.keys, note_of(asked))
    return answered(service, stored, since)


def _measure(one: Outcome) -> MeasureOut:
    what = one.measure
    return MeasureOut(
        key=what.key,
        kind=what.kind,
        station=what.station,
        text=what.text,
        id=what.id,
        cost=what.cost,
        carbon=what.carbon,
        gains=None if one.gains is None else GainsOut.model_validate(one.gains),
        per_cost=one.per_cost,
        waiting=one.waiting,
        margin=one.margin,
        why_not=one.why_not,
    )
