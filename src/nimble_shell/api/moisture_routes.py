"""Version 1 of the API, `/api/v1/…`: moisture of build-ups, joints and surfaces. Nothing of the project is saved."""

from __future__ import annotations

import asyncio
from dataclasses import replace
from typing import Annotated

from fastapi import APIRouter, Depends, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import moisture_schemas as m
from nimble_shell.api import moisture_views as views
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Joints, Projects, Registers, Remedies, Verdicts, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.study_schemas import AtIn
from nimble_shell.api.waiting import Wait
from nimble_shell.core.errors import DomainError, NotConverged, reason_of
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.verdict.verdict import ADDED, judged
from nimble_shell.core.shell.project import Project
from nimble_shell.services import hours, joints, moisture, remedies, sheets, verdicts
from nimble_shell.services.fixings import carried
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.store import NotFound

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


async def _book(request: Request) -> hours.HoursResults:
    results: hours.HoursResults = request.app.state.hours
    return results


Hours = Annotated[hours.HoursResults, Depends(_book)]


@router.post("/projects/{project_id}/moisture")
def through_the_year(project_id: Id, asked: AtIn, service: Projects, fixings: Fixings) -> m.MoistureOut:
    """A build-up as drafted, month by month: its surface, and what condenses and dries inside."""
    project, at = _drafted(project_id, asked, service, fixings)
    return views.year(moisture.through_the_year(project, at))


@router.post("/projects/{project_id}/moisture/positions")
def positions(project_id: Id, asked: AtIn, service: Projects, fixings: Fixings) -> m.PositionsOut:
    """Where the control plane of a build-up may lie, in its field and at its members."""
    project, at = _drafted(project_id, asked, service, fixings)
    return views.positions(project, moisture.positions_of(project, at))


@router.get("/projects/{project_id}/buildings/{building_id}/surfaces")
def surfaces(
    project_id: Id, building_id: Id, service: Projects, results: Joints, fixings: Fixings
) -> m.SurfaceRankingOut:
    """Inner surfaces of a building's elements and joints, the worst first."""
    stored = service.load(project_id)
    project = fixings.owned(stored)
    known = results.known(stored.project, joints.building_in(stored.project, building_id))
    return m.SurfaceRankingOut.model_validate(moisture.surface_ranking(project, building_id, known))


@router.get("/projects/{project_id}/buildings/{building_id}/verdicts")
def building_verdicts(
    project_id: Id, building_id: Id, service: Projects, results: Joints, judges: Verdicts, fixings: Fixings
) -> m.PlacesOut:
    """What is known of the moisture of every element and joint, the least margin first."""
    stored = service.load(project_id)
    building = joints.building_in(stored.project, building_id)
    known = results.known(stored.project, building)
    return views.places(judges.building(fixings.owned(stored), building, known))


@router.post("/projects/{project_id}/moisture/verdict")
async def verdict(
    project_id: Id, asked: m.VerdictIn, service: Projects, judges: Verdicts, runs: Hours, fixings: Fixings, wait: Wait
) -> m.ElementVerdictOut:
    """A build-up as drafted: whether it passes, by what margin, the smallest changes that turn it, and the hours."""
    project, at = await run_in_threadpool(_drafted, project_id, asked, service, fixings)
    found = await wait(judges.element(project, at, asked.ticket), asked.ticket)
    by_hour = await run_in_threadpool(runs.said, project, at)
    return views.element_verdict(project, at.assembly, found, by_hour)


@router.post("/projects/{project_id}/moisture/leak")
async def leak(
    project_id: Id, asked: m.LeakIn, service: Projects, results: Joints, judges: Verdicts, wait: Wait
) -> m.LeakOut | None:
    """Room air through a joint, month by month; nothing where its build-up has no outer skin."""
    stored = await run_in_threadpool(service.load, project_id)
    project = stored.project
    building = joints.building_in(project, asked.building_id)
    project = project.within(building.id)
    joint = joints.joint_in(building, asked.joint_id)
    drawn = await run_in_threadpool(results.known, stored.project, building)
    known = next((one for one in drawn if one.joint.id == joint.id), None)
    f_rsi = known.solved.f_rsi if known is not None and known.solved is not None else None
    question = await run_in_threadpool(verdicts.leak_question, project, joint, f_rsi, asked.leakage)
    found = await wait(judges.joint(question, asked.ticket), asked.ticket)
    return await run_in_threadpool(views.leak, project, question, found)


@router.post("/projects/{project_id}/moisture/joint-surface")
async def joint_surface(
    project_id: Id, asked: m.JointSurfaceIn, service: Projects, results: Joints, held: Remedies, wait: Wait
) -> m.JointSurfaceOut:
    """The inner surface of a joint, and what would keep it; every change is solved again."""
    stored = await run_in_threadpool(service.load, project_id)
    joint = joints.joint_in(joints.building_in(stored.project, asked.building_id), asked.joint_id)
    project = stored.project.within(asked.building_id)
    question = remedies.question_of(project, joint)
    found = await wait(question.surface(results.queue, asked.ticket), asked.ticket)
    changes: list[remedies.Remedy] = []
    least = found.asked(project.basis.targets.f_rsi)
    if least is not None and found.f_rsi < least:
        searches = await run_in_threadpool(question.searched, results.queue, least, asked.ticket)
        for answers in await asyncio.gather(*(wait(one, asked.ticket) for one in searches)):
            changes += answers
        held.hold(project, joint, changes)
    return views.joint_surface(found, least, changes)


@router.post("/projects/{project_id}/moisture/life")
def supposed(project_id: Id, asked: AtIn, service: Projects) -> m.LifeIn:
    """What a run supposes of a build-up where it stands, until somebody says otherwise."""
    project, at = service.load(project_id).project, asked.place()
    return m.LifeIn.of(hours.meant(project, at))


@router.post("/projects/{project_id}/moisture/hours")
async def by_the_hour(
    project_id: Id, asked: m.HoursIn, service: Projects, results: Hours, fixings: Fixings, wait: Wait
) -> m.HoursOut:
    """A build-up as drafted, by the hour, until its years repeat. The run is kept."""
    project, at = await run_in_threadpool(_drafted, project_id, asked, service, fixings)
    life = asked.life.to_core(project.basis.air.height(at.station(project)))
    question = hours.question(project, at, life)
    found = await wait(results.ask(question, asked.ticket), asked.ticket)
    months = judged(await run_in_threadpool(moisture.through_the_year, project, at))
    damp = project.basis.damp
    cause = None
    if bool(months) != bool(found.fails(damp)):
        ways = [(one, hours.question(project, at, replace(life, without=(one,)))) for one in hours.EFFECTS]
        other = await asyncio.gather(*(wait(results.ask(way, asked.ticket), asked.ticket) for _, way in ways))
        said = {one: bool(run.fails(damp)) for (one, _), run in zip(ways, other, strict=True)}
        cause = hours.cause_of(bool(found.fails(damp)), said)
    return await run_in_threadpool(views.hours, project, at.assembly, question.key, found, months, cause)


@router.post("/projects/{project_id}/moisture/hours/advice")
async def hourly_advice(
    project_id: Id, asked: m.HoursIn, service: Projects, results: Hours, fixings: Fixings, wait: Wait
) -> m.HoursAdviceOut:
    """The smallest change of each kind with which a build-up is accepted by the hour; every step is run."""
    project, at = await run_in_threadpool(_drafted, project_id, asked, service, fixings)
    life = asked.life.to_core(project.basis.air.height(at.station(project)))
    question = hours.question(project, at, life, *ADDED)
    found = await asyncio.gather(
        *(wait(one, asked.ticket) for one in results.advise(question, project.basis.damp, asked.ticket))
    )
    told = [one for one in found if one is not None]
    return m.HoursAdviceOut(advice=views.advice(project, at.assembly, told, by_points=True))


@router.get("/moisture/hours/{key}/field")
async def field(key: Id, results: Hours) -> Response:
    """θ [1/100 °C], φ [1/100 %] and w [1/10 kg/m³] of a run's places, as 16-bit integers, least byte first."""
    found = await run_in_threadpool(results.known, key)
    if found is None:
        raise NotFound("run", key)
    return Response(await run_in_threadpool(views.field, found), media_type="application/octet-stream")


@router.post("/projects/{project_id}/moisture/fan")
async def fan(
    project_id: Id, asked: m.HoursIn, service: Projects, results: Hours, fixings: Fixings, wait: Wait
) -> m.FanOut:
    """A build-up as meant, and with one thing or all of them wrong, for three years each."""
    project, at = await run_in_threadpool(_drafted, project_id, asked, service, fixings)
    lives = hours.fan(asked.life.to_core(project.basis.air.height(at.station(project))))

    async def one(name: str, life: Life) -> m.FanRunOut:
        try:
            found = await wait(results.ask(hours.question(project, at, life), asked.ticket), asked.ticket)
        except (DomainError, NotConverged) as error:
            return views.fan_run(project, name, None, reason_of(error))
        return await run_in_threadpool(views.fan_run, project, name, found)

    runs = await asyncio.gather(*(one(name, life) for name, life in lives))
    days = list(range(0, 365 * hours.FAN_YEARS, views.EVERY))
    return m.FanOut(days=days, runs=runs, wood_limit=project.basis.damp.wood, mould_limit=project.basis.damp.mould)


@router.get("/projects/{project_id}/buildings/{building_id}/build-ups/{assembly_id}/moisture.pdf")
async def sheet(
    project_id: Id, building_id: Id, assembly_id: Id, service: Projects, results: Joints, judges: Verdicts, runs: Hours,
    fixings: Fixings, register: Registers,
) -> Response:  # fmt: skip
    """The page of a build-up's moisture, as saved; by the hour what was run last and kept, as meant."""
    stored = await run_in_threadpool(service.load, project_id)
    project = fixings.owned(stored)
    building = joints.building_in(project, building_id)
    assembly = sheets.assembly_in(project, assembly_id)
    at = PlacedDraft(building_id=building_id, assembly=assembly)
    found = await asyncio.wrap_future(judges.element(project, at))
    known = await run_in_threadpool(results.known, stored.project, joints.building_in(stored.project, building_id))
    mine = {one.joint.id for one in known if any(role.assembly_id == assembly_id for role in one.joint.roles)}
    places = await run_in_threadpool(judges.building, project, building, known)
    joined = [(one.name, one.verdict) for one in places if one.id in mine and one.joint and one.verdict is not None]
    life = hours.meant(project, at)
    run = await run_in_threadpool(runs.known, hours.question(project, at, life).key)
    pdf = await run_in_threadpool(
        sheets.moisture_sheet,
        replace(stored, project=project),
        building_id,
        assembly_id,
        found,
        joined,
        run,
        await run_in_threadpool(register, stored, building_id),
    )
    return attachment(pdf, "application/pdf", f"{assembly.name}-moisture.pdf")


def _drafted(project_id: str, asked: AtIn, service: Projects, fixings: Fixings) -> tuple[Project, PlacedDraft]:
    at = asked.place()
    project = fixings.owned(service.load(project_id)).within(at.building_id)
    return project, replace(at, assembly=carried(project, at.assembly))
