"""Version 1 of the API, `/api/v1/…`: what a build-up comes to. Nothing here is saved."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter

from nimble_shell.api import schemas as s
from nimble_shell.api import study_schemas as t
from nimble_shell.api import study_views, views
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Joints, OnTheWholes, Projects, Wholes
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.core.shell.project import Project
from nimble_shell.formats.weather import read_weather
from nimble_shell.services import bench as benches
from nimble_shell.services import studies, workings
from nimble_shell.services.fixings import FixingResults, carried
from nimble_shell.services.joints import building_in
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.reading import read_apart
from nimble_shell.services.studies import PlacedDraft

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.get("/projects/{project_id}/buildings/{building_id}/ledger")
def ledger(
    project_id: Id, building_id: Id, service: Projects, results: Joints, fixings: Fixings, wholes: Wholes
) -> s.ConsequenceOut:
    """The ledger of a building as saved, beside what it was before the newest change."""
    stored = service.load(project_id)
    now, then = results.beside(stored, building_id)
    effect = benches.consequence(
        fixings.owned(stored), fixings.before(stored), building_id, now, then,
        fixings.waiting(stored.project, building_id),
    )  # fmt: skip
    return views.consequence(effect, wholes.beside(project_id, building_id, effect.now), preview=False)


@router.post("/projects/{project_id}/bench")
def bench(
    project_id: Id, asked: s.BenchIn, service: Projects, results: Joints, fixings: Fixings, wholes: Wholes
) -> s.BenchOut:
    """Every figure of a build-up as drafted, and what it means for the shell. Nothing is saved."""
    stored = service.load(project_id)
    saved = fixings.owned(stored)
    edited = asked.assembly.to_core()
    draft = carried(saved, edited)
    project = benches.with_draft(saved, draft)
    preview = project is not saved
    # While a build-up is drafted its joints and fixings count as last solved; they follow once it is saved.
    now, then = results.beside(stored, asked.building_id)
    effect = benches.consequence(
        project, saved if preview else fixings.before(stored), asked.building_id, now, now if preview else then,
        fixings.waiting(stored.project, asked.building_id),
    )  # fmt: skip
    building = building_in(project, asked.building_id)
    station = benches.station_of(building, draft.id)
    seen = project.within(asked.building_id)
    found = benches.bench(draft, seen.catalogue, seen.basis, asked.condition, station)
    last = wholes.beside(project_id, asked.building_id, effect.now, saved=not preview)
    return views.bench(found, effect, last, settled=fixings.settled(stored, edited), preview=preview)


@router.post("/projects/{project_id}/working")
def working(project_id: Id, asked: s.WorkingIn, service: Projects, results: Joints, fixings: Fixings) -> s.WorkingOut:
    """Show working: every step of one figure, from the executed calculation."""
    stored = service.load(project_id)
    project = fixings.owned(stored)
    if asked.assembly is not None:
        draft = carried(project, asked.assembly.to_core())
        project = benches.with_draft(project, draft)
        if not benches.is_of_the_shell(asked.figure):
            station = benches.station_of(building_in(project, asked.building_id), draft.id)
            seen = project.within(asked.building_id)
            return views.working(benches.bench_working(seen, draft, asked.condition, asked.figure, station))
    joints = results.known(stored.project, building_in(stored.project, asked.building_id))
    return views.working(benches.ledger_working(project, asked.building_id, asked.figure, joints))


@router.post("/projects/{project_id}/study-working")
def study_working(project_id: Id, asked: t.StudyWorkingIn, service: Projects, fixings: Fixings) -> s.WorkingOut:
    """Show working of a figure of a study: a day, a claim, a probe, a variant, a side of a comparison."""
    project, at = _studied(project_id, asked, service, fixings)
    return views.working(workings.study_working(project, at, asked.of.to_core(), asked.figure))


@router.post("/projects/{project_id}/variants")
def variants(project_id: Id, asked: t.VariantsIn, service: Projects, fixings: Fixings) -> t.DecisionOut:
    """The foam decision: cores by thicknesses, every column, and which input moves the answer most."""
    project, at = _studied(project_id, asked, service, fixings)
    return study_views.decision(studies.foam(project, at, asked.cores))


@router.post("/projects/{project_id}/compare")
def compare(project_id: Id, asked: t.CompareIn, service: Projects, fixings: Fixings) -> t.ComparisonOut:
    """Build-ups side by side, as they are, at equal R or at equal thickness."""
    project = fixings.owned(service.load(project_id)).within(asked.building_id)
    return study_views.comparison(studies.compare(project, asked.building_id, asked.condition, asked.sides, asked.mode))


@router.post("/projects/{project_id}/on-the-whole")
def on_the_whole(project_id: Id, asked: t.OnTheWholeIn, service: Projects, results: OnTheWholes) -> t.OnTheWholesOut:
    """What a building comes to with each of some build-ups in the place of one of its own, as far as it is known."""
    found = results.of(
        service.load(project_id), asked.building_id, asked.assembly_id, [one.to_core() for one in asked.instead],
        joints=asked.joints, ticket=asked.ticket,
    )  # fmt: skip
    return study_views.on_the_whole(found)


@router.post("/projects/{project_id}/claim")
def claim(project_id: Id, asked: t.ClaimIn, service: Projects, fixings: Fixings) -> t.CheckedOut:
    """What the wall is with a supplier's R, and how much of the claim remains."""
    project, at = _studied(project_id, asked, service, fixings)
    return study_views.checked(studies.claim(project, at, asked.to_core()))


@router.post("/projects/{project_id}/day")
def day(project_id: Id, asked: t.DayIn, service: Projects, fixings: Fixings) -> t.DayOut:
    """The mean day of a month through the build-up, beside a wall of the same U without mass."""
    project, at = _studied(project_id, asked, service, fixings)
    return study_views.day(studies.day_through(project, at, asked.month, asked.rise))


@router.post("/projects/{project_id}/probe")
def probe(project_id: Id, asked: t.ProbeIn, service: Projects, fixings: Fixings) -> t.ProbeOut:
    """Temperature at a depth, and R at a groove."""
    project, at = _studied(project_id, asked, service, fixings)
    return study_views.probe(
        studies.probe(
            project,
            at,
            depth=asked.depth,
            chased=asked.chase_layer,
            chase_depth=asked.chase_depth,
            chase_share=asked.chase_share,
        )
    )


def _studied(
    project_id: str, asked: t.AtIn, service: ProjectService, fixings: FixingResults
) -> tuple[Project, PlacedDraft]:
    """The project and the build-up that is studied, with fixings as solved."""
    at = asked.place()
    project = fixings.owned(service.load(project_id)).within(at.building_id)
    return project, replace(at, assembly=carried(project, at.assembly))


@router.post("/weather")
def weather(file: t.WeatherIn) -> t.WeatherOut:
    """Read a climate from a CSV or weather file. Nothing is saved; a wrong file names its line."""
    return study_views.weather(read_apart(read_weather, file.content, file.name))
