"""A building's form walls in courses: each run laid, or why it cannot be."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.errors import DomainError
from nimble_shell.core.held import Held
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.setout.courses.courses import Coursed, lay_run
from nimble_shell.core.setout.courses.drawn import courses_drawn
from nimble_shell.core.setout.courses.form_runs import Filling, Form, FormRun, filling, form_runs
from nimble_shell.core.setout.courses.laying import NoLaying
from nimble_shell.core.setout.courses.run import NEAR
from nimble_shell.core.setout.faces import face_marks
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project

SYSTEMS = ("icf", "icf-one-sided")
_M = 1000.0


@dataclass(frozen=True, slots=True, kw_only=True)
class LaidRun:
    """A run and how it is laid."""

    of: FormRun
    found: Coursed | NoLaying


_LAID: Held[tuple[LaidRun, ...]] = Held(64)
_RUNS: Held[tuple[FormRun, ...]] = Held(256)
_OF_RUN: Held[Coursed | NoLaying] = Held(1024)


def cast_layers(assembly: Assembly, catalogue: Catalogue) -> set[int]:
    """Layers that are the form and its concrete; none of a build-up that is no form."""
    if assembly.system not in SYSTEMS:
        return set()
    panels = set(assembly.panels)
    cast = {n for n, one in enumerate(assembly.layers)
            if one.material in catalogue and catalogue[one.material].family == "concrete"}  # fmt: skip
    return panels | {n for n in cast if panels & {n - 1, n + 1}}


def form_of(assembly: Assembly, catalogue: Catalogue) -> Form | None:
    """The form within a build-up; None of one that is no form."""
    if assembly.system not in SYSTEMS:
        return None
    layers = assembly.layers
    cast = next((n for n, one in enumerate(layers)
                 if one.material in catalogue and catalogue[one.material].family == "concrete"), None)  # fmt: skip
    panels = assembly.panels
    if cast is None or not panels:
        return None
    foam_in = layers[cast - 1].d if cast - 1 in panels else 0.0
    foam_out = layers[cast + 1].d if cast + 1 in panels else 0.0
    first_beyond = cast + (2 if foam_out else 1)
    return Form(foam_out=foam_out, core=layers[cast].d, foam_in=foam_in,
                beyond=sum(one.d for one in layers[first_beyond:]), one_sided=not (foam_in and foam_out))  # fmt: skip


def forms_of(project: Project, building: MeasuredBuilding) -> dict[str, Form]:
    """Of each element of a building that is cast in forms."""
    known = {one.id: one for one in project.assemblies}
    found = {one.id: form_of(known[one.assembly_id], project.catalogue) for one in building.elements
             if one.assembly_id in known}  # fmt: skip
    return {key: one for key, one in found.items() if one is not None}


def fillings_of(project: Project, building: MeasuredBuilding) -> dict[str, Filling]:
    """What each opening is called and what goes round its unit, by its id."""
    units = {one.id: one for one in project.units}
    return {one.id: filling(one.mark or one.id, units.get(one.unit), building.forms) for one in building.openings}


def runs_of(project: Project, building: MeasuredBuilding) -> tuple[FormRun, ...]:
    """Its runs, not laid yet."""
    forms = forms_of(project, building)
    fillings = fillings_of(project, building)
    key = (building.shape, building.openings)
    more = (tuple(forms.items()), building.forms.laying, tuple(fillings.items()))
    held = _RUNS.get(key, *more)
    if held is not None:
        return held
    placed = building.shape.takeoff.placed["external"]
    found = form_runs(placed.body.faces, placed.flats, forms, building.forms, face_marks(placed.body.faces), fillings)
    return _RUNS.put(key, tuple(found), *more)


def course_building(project: Project, building: MeasuredBuilding) -> tuple[LaidRun, ...]:
    """Every run in courses. Raises Stopped."""
    runs = runs_of(project, building)
    held = _LAID.get((runs,))
    return held if held is not None else _LAID.put((runs,), tuple(LaidRun(of=one, found=laid(one)) for one in runs))


def laid(run: FormRun) -> Coursed | NoLaying:
    """A run laid, or why not; kept, so that a change to one run leaves the others."""
    return _OF_RUN.once((), lambda: _laid(run), run.run.key)


def _laid(run: FormRun) -> Coursed | NoLaying:
    try:
        return lay_run(run.run)
    except DomainError as error:
        return NoLaying(error.issues[0].message)


@dataclass(frozen=True, slots=True, kw_only=True)
class AsLaid:
    """What courses come to, of the walls of one build-up."""

    centres: float  #: of webs: area of the walls over the length of all webs [m]
    corners: float  #: mitres that are foamed on site [m]
    gaps: float  #: stack joints, and cuts that stand against a buck or a corner off the webs [m]


def as_laid(project: Project, building: MeasuredBuilding) -> dict[str, AsLaid]:
    """Of each build-up whose runs are all laid, by its id."""
    of = {one.id: one.assembly_id or "" for one in building.elements}
    by_assembly: dict[str, list[LaidRun]] = {}
    for one in course_building(project, building):
        by_assembly.setdefault(of[one.of.zone], []).append(one)
    return {key: _as_laid(several, building) for key, several in by_assembly.items()
            if all(isinstance(one.found, Coursed) for one in several)}  # fmt: skip


def _as_laid(runs: list[LaidRun], building: MeasuredBuilding) -> AsLaid:
    area = webs = corners = gaps = 0.0
    for one in runs:
        assert isinstance(one.found, Coursed)
        run = one.of.run
        for n, wall in enumerate(one.found.walls):
            for course in courses_drawn(run, n, wall):
                high = (course.of.top - course.of.bottom) / _M
                legs = (course.left, course.right)
                area += high * (sum(each.x1 - each.x0 for each in course.blocks) + sum(legs)) / _M
                webs += high * (sum(each.webs for each in course.blocks)
                                + sum(int(leg / run.block.increment + NEAR) for leg in legs))  # fmt: skip
            gaps += run.height / _M if run.walls[n].name in run.stacks else 0.0
        if building.forms.corners == "site":
            corners += len(list(run.corners())) * run.height / _M
    return AsLaid(centres=area / webs if webs else building.forms.web, corners=corners, gaps=gaps)


def from_courses(assembly: Assembly, laid: AsLaid, nominal: float) -> Assembly:
    """A build-up whose webs are as many as they are laid.

    Parameters
    ----------
    nominal : float
        Spacing that its webs' share was stated for. [m]
    """
    layers = tuple(
        replace(layer, members=tuple(
            replace(one, share=min(0.9, one.share * nominal / laid.centres))
            if one.joint == "web" and one.share is not None else one for one in layer.members
        )) if layer.members else layer
        for layer in assembly.layers
    )  # fmt: skip
    return replace(assembly, layers=layers, fixings=tuple(_webs(one, laid, nominal) for one in assembly.fixings))


def _webs(one: Fixing, laid: AsLaid, nominal: float) -> Fixing:
    """Their number is what changes; χ of one of them is as it was solved."""
    if one.kind != "web":
        return one
    if one.across is not None and one.along is not None:
        return replace(one, n=1 / (laid.centres * one.along), across=None, along=None)
    return one if one.n is None else replace(one, n=one.n * nominal / laid.centres)
