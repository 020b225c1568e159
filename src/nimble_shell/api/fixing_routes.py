"""Version 1 of the API, `/api/v1/…`: fixings. Solved in worker processes; a request only waits."""

from __future__ import annotations

import asyncio
from dataclasses import replace

from fastapi import APIRouter
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import fixing_schemas as f
from nimble_shell.api import fixing_views as views
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Projects, Registers, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait, Waiting
from nimble_shell.core.errors import DomainError, NotConverged, reason_of
from nimble_shell.core.fixings.kinds import CAUTION, KINDS, started
from nimble_shell.core.progress import Stopped
from nimble_shell.formats.project import FixingDoc
from nimble_shell.services import fixings, sheets
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.store import NotFound

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.get("/fixing-kinds")
def fixing_kinds() -> f.FixingKindsOut:
    """What a group of fixings can start as."""
    kinds = [f.FixingKindOut(key=kind.key, text=kind.text, note=kind.note) for kind in KINDS.values()]
    return f.FixingKindsOut(kinds=kinds, caution=CAUTION)


@router.post("/projects/{project_id}/fixing-start")
def start_fixing(project_id: Id, asked: f.StartFixingIn, service: Projects) -> FixingDoc:
    """A group at usual sizes, cut to what the build-up has room for. Nothing is saved."""
    service.load(project_id)
    return FixingDoc.from_core(started(asked.kind, asked.place().assembly, asked.layer, asked.fixing_id))


@router.post("/projects/{project_id}/fixing")
async def fixing(project_id: Id, asked: f.FixingIn, service: Projects, results: Fixings, wait: Wait) -> f.FixingOut:
    """A group of a build-up as drafted, solved. Nothing is saved."""
    stored = await run_in_threadpool(service.load, project_id)
    project, at = stored.project, asked.place()
    looked = await run_in_threadpool(
        fixings.look,
        results.queue,
        project,
        at.assembly,
        asked.fixing_id,
        asked.condition,
        asked.accuracy,
        asked.ticket,
    )
    solved = await wait(looked.solved, asked.ticket)
    owned = await run_in_threadpool(results.owned, stored)
    return await run_in_threadpool(views.fixing, owned, at, looked, solved, asked.condition, asked.accuracy)


@router.get("/projects/{project_id}/assemblies/{assembly_id}/fixings/{fixing_id}/sheet.pdf")
async def sheet(
    project_id: Id, assembly_id: Id, fixing_id: Id, building_id: str, service: Projects, results: Fixings,
    register: Registers,
) -> Response:  # fmt: skip
    """The page of a group of fixings, solved to final accuracy."""
    stored = await run_in_threadpool(service.load, project_id)
    assembly = next((one for one in stored.project.assemblies if one.id == assembly_id), None)
    if assembly is None:
        raise NotFound("assembly", assembly_id)
    looked = await run_in_threadpool(
        fixings.look, results.queue, stored.project, assembly, fixing_id, "winter", "final"
    )
    solved = await asyncio.wrap_future(looked.solved)
    counted = replace(stored, project=await run_in_threadpool(results.owned, stored))
    at = PlacedDraft(building_id=building_id, assembly=assembly)
    decided = await run_in_threadpool(register, stored, building_id)
    pdf = await run_in_threadpool(sheets.fixing_sheet, counted, at, looked, solved, decided)
    return attachment(pdf, "application/pdf", f"{looked.fixing.name}.pdf")


@router.post("/projects/{project_id}/fixing-sweep")
async def fixing_sweep(
    project_id: Id, asked: f.FixingSweepIn, service: Projects, results: Fixings, wait: Wait
) -> f.FixingSweepOut:
    """χ and ΔU over spacings, at working accuracy."""
    project = (await run_in_threadpool(service.load, project_id)).project
    points = await run_in_threadpool(
        fixings.swept, results.queue, project, asked.place().assembly, asked.fixing_id, asked.values, asked.ticket
    )
    return f.FixingSweepOut(points=[await _point(one, wait, asked.ticket) for one in points])


async def _point(one: fixings.Swept, wait: Waiting, ticket: str) -> f.FixingSweepPoint:
    if one.cell is None or one.solved is None:
        return views.nothing(one, one.why_not)
    try:
        solved = await wait(one.solved, ticket)
    except (DomainError, NotConverged, Stopped) as error:
        return views.nothing(one, reason_of(error))
    return f.FixingSweepPoint(
        value=one.value,
        along=one.along,
        per_area=one.cell.per_area,
        chi=solved.chi,
        delta_U=solved.chi * one.cell.per_area,
        delta_U_approximate=one.cell.chi_approximate * one.cell.per_area,
        why_not="",
    )
