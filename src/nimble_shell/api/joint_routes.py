"""Version 1 of the API, `/api/v1/…`: joints. Solved in worker processes; a request only waits."""

from __future__ import annotations

import asyncio
from concurrent.futures import Future
from dataclasses import replace

from fastapi import APIRouter
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from nimble_shell.api import joint_schemas as j
from nimble_shell.api import joint_views as views
from nimble_shell.api.ground import REFUSALS, Id, Joints, Projects, Registers, Ticket, Verdicts, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.api.waiting import Wait, Waiting
from nimble_shell.core.basis.schools import Dimensions
from nimble_shell.core.errors import DomainError, NotConverged, reason_of
from nimble_shell.core.joints.compared import warmer
from nimble_shell.core.joints.solved import SolvedJoint
from nimble_shell.core.progress import Stopped
from nimble_shell.services import joints, sheets
from nimble_shell.services.bench import to_outside
from nimble_shell.services.joints import building_in
from nimble_shell.services.verdicts import leak_question

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.get("/joint-families")
def joint_families() -> list[j.FamilyOut]:
    """Every family of joints with its variants and what can be turned."""
    return views.families()


@router.post("/projects/{project_id}/joint")
async def joint(project_id: Id, asked: j.JointIn, service: Projects, results: Joints, wait: Wait) -> j.JointOut:
    """A joint as drafted: drawn from the project's build-ups and solved. Nothing is saved."""
    project = (await run_in_threadpool(service.load, project_id)).project.within(asked.building_id)
    one = asked.joint.to_core()
    variant = asked.variant or one.variant
    found = await run_in_threadpool(joints.drawn, project, one, asked.condition, variant)
    answer = await wait(joints.ask(results.queue, project, found, asked.accuracy, ticket=asked.ticket), asked.ticket)
    return await run_in_threadpool(
        lambda: j.JointOut(
            drawing=views.drawing(found, one, variant),
            solved=views.solved(found, answer, asked.accuracy, project.basis),
            sealing=views.sealing(joints.sealing(project, replace(one, variant=variant), found, answer.f_rsi)),
        )
    )


@router.post("/projects/{project_id}/joint-drawing")
def joint_drawing(project_id: Id, asked: j.JointIn, service: Projects) -> j.JointOut:
    """A joint as drafted, drawn only."""
    one = asked.joint.to_core()
    variant = asked.variant or one.variant
    project = service.load(project_id).project.within(asked.building_id)
    found = joints.drawn(project, one, asked.condition, variant)
    sealing = joints.sealing(project, replace(one, variant=variant), found)
    return j.JointOut(drawing=views.drawing(found, one, variant), solved=None, sealing=views.sealing(sealing))


@router.post("/projects/{project_id}/joint-difference")
async def joint_difference(
    project_id: Id, asked: j.DifferenceIn, service: Projects, results: Joints, wait: Wait
) -> j.WarmerOut:
    """How much warmer a joint is in the variant it is compared with, at final accuracy."""
    project = (await run_in_threadpool(service.load, project_id)).project.within(asked.building_id)
    one = asked.joint.to_core()
    found = [
        await run_in_threadpool(joints.drawn, project, one, asked.condition, variant)
        for variant in (one.variant, joints.other_of(one))
    ]
    questions = [joints.ask(results.queue, project, each, "final", ticket=asked.ticket) for each in found]
    answers = [await wait(question, asked.ticket) for question in questions]
    first, second = zip((each.drawing for each in found), answers, strict=True)
    change = await run_in_threadpool(warmer, first, second)
    return views.warmer(found[1].drawing, change)


@router.post("/projects/{project_id}/joint-sweep")
async def joint_sweep(project_id: Id, asked: j.SweepIn, service: Projects, results: Joints, wait: Wait) -> j.SweepOut:
    """ψ and the surface factor over values of one parameter, at working accuracy."""
    project = (await run_in_threadpool(service.load, project_id)).project.within(asked.building_id)
    one = asked.joint.to_core()
    questions = await run_in_threadpool(
        joints.swept, results.queue, project, one, asked.key, asked.values, asked.ticket
    )
    system = project.basis.schools.dimensions
    return j.SweepOut(
        points=[await _point(value, question, system, wait, asked.ticket) for value, question in questions]
    )


@router.get("/projects/{project_id}/buildings/{building_id}/walk")
def continuity_walk(project_id: Id, building_id: Id, service: Projects, results: Joints) -> j.WalkOut:
    """The lines of control round the section of a building, station by station."""
    stored = service.load(project_id)
    building = building_in(stored.project, building_id)
    known = results.known(stored.project, building)
    return views.walk(joints.continuity_walk(stored.project, building, known))


@router.get("/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/sheet.pdf")
async def sheet(
    project_id: Id, building_id: Id, joint_id: Id, service: Projects, results: Joints, judges: Verdicts,
    register: Registers, condition: str = "winter",
) -> Response:  # fmt: skip
    """The page of a joint, solved to final accuracy, with what room air through it does."""
    stored = await run_in_threadpool(service.load, project_id)
    one = joints.joint_in(building_in(stored.project, building_id), joint_id)
    project = stored.project.within(building_id)
    found = await run_in_threadpool(joints.drawn, project, one, condition)
    answer = await asyncio.wrap_future(joints.ask(results.queue, project, found, "final"))
    judged = None
    if not found.family.point:
        question = await run_in_threadpool(leak_question, project, one, answer.f_rsi)
        judged = await asyncio.wrap_future(judges.joint(question))
    decided = await run_in_threadpool(register, stored, building_id)
    pdf = await run_in_threadpool(sheets.joint_sheet, stored, building_id, one, found, answer, judged, decided)
    return attachment(pdf, "application/pdf", f"{one.name}.pdf")


@router.get("/solving/{ticket}")
def progress(ticket: Ticket, results: Joints) -> j.ProgressOut:
    """How far the questions of a ticket are; nothing is left where they are answered."""
    return j.ProgressOut.model_validate(results.queue.progress(ticket))


@router.delete("/solving/{ticket}")
def stop(ticket: Ticket, results: Joints) -> j.StoppedOut:
    """Stop the questions of a ticket; who waits for them is told so."""
    return j.StoppedOut(stopped=results.queue.cancel(ticket))


async def _point(
    value: float, question: Future[SolvedJoint] | str, system: Dimensions, wait: Waiting, ticket: str
) -> j.SweepPoint:
    if isinstance(question, str):
        return j.SweepPoint(value=value, psi=None, f_rsi=None, why_not=question)
    try:
        answer = await wait(question, ticket)
    except (DomainError, NotConverged, Stopped) as error:
        return j.SweepPoint(value=value, psi=None, f_rsi=None, why_not=reason_of(error))
    return j.SweepPoint(value=value, psi=to_outside(answer, system), f_rsi=answer.f_rsi, why_not="")
