"""Version 1 of the API: the one register of what is open in a building."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter

from nimble_shell.api.ground import REFUSALS, Id, Projects, Registers
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.quantities.sentence import marked
from nimble_shell.core.shell.decisions import OpenDecision, WayOut
from nimble_shell.core.shell.project import Building
from nimble_shell.formats.document import Model
from nimble_shell.formats.project import AssemblyDoc, BuildingDoc, JointDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.formats.things import KINDS

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class ProposedThing(Model):
    """A thing as one click would write it."""

    kind: str
    owner: str
    id: str
    document: dict[str, Any]


class WayOutOut(Model):
    """What would settle a decision: a thing to write, or a place to go to."""

    text: Prose
    note: str
    thing: ProposedThing | None
    step: int | None
    view: str
    search: bool


class OpenDecisionOut(Model):
    """One thing that waits for somebody."""

    key: str
    matter: str
    state: str
    step: int
    station: str
    id: str
    view: str
    text: Prose
    ways: list[WayOutOut]


class RegisterOut(Model):
    """What is open in a building, and how much is still being found out."""

    decisions: list[OpenDecisionOut]
    waiting: int


@router.get("/projects/{project_id}/buildings/{building_id}/decisions")
def decisions(project_id: Id, building_id: Id, service: Projects, register: Registers) -> RegisterOut:
    """Everything that is open in a building: mast, strip, ledger, sheets and keys read this and nothing else."""
    found = register(service.load(project_id), building_id)
    return RegisterOut(decisions=[_decision(one, building_id) for one in found.decisions], waiting=found.waiting)


def _decision(one: OpenDecision, building: str) -> OpenDecisionOut:
    return OpenDecisionOut(
        key=one.key, matter=one.matter, state=one.state, step=one.step, station=one.station, id=one.id, view=one.view,
        text=one.text, ways=[way_out(way, building) for way in one.ways],
    )  # fmt: skip


def way_out(way: WayOut, building: str) -> WayOutOut:
    """A way out as the window has it: the thing that one click writes holds nothing that would stand for more."""
    thing = None
    if isinstance(way.changed, Assembly):
        document = AssemblyDoc.from_core(way.changed).to_wire()
        document.pop("fixings")  # they stay as they are
        thing = ProposedThing(kind="assembly", owner="", id=way.changed.id, document=document)
    elif isinstance(way.changed, Building):
        document = BuildingDoc.from_core(way.changed).to_wire()
        for held in KINDS["building"].holds:
            document.pop(held)  # they stay as they are
        thing = ProposedThing(kind="building", owner="", id=way.changed.id, document=document)
    elif way.changed is not None:
        thing = ProposedThing(kind="joint", owner=building, id=way.changed.id,
                         document=JointDoc.from_core(way.changed).to_wire())  # fmt: skip
    return WayOutOut(text=way.text, note=marked(way.text), thing=thing, step=way.step, view=way.view, search=way.search)
