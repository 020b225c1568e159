"""A building's form walls in courses: each run laid, or why it cannot be."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.errors import DomainError
from nimble_shell.core.held import Held
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.setout.courses.courses import Coursed, lay_run
from nimble_shell.core.setout.courses.form_runs import Form, FormRun, form_runs
from nimble_shell.core.setout.courses.laying import NoLaying
from nimble_shell.core.setout.faces import face_marks
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project

SYSTEMS = ("icf", "icf-one-sided")


@dataclass(frozen=True, slots=True, kw_only=True)
class LaidRun:
    """A run and how it is laid."""

    of: FormRun
    found: Coursed | NoLaying


_LAID: Held[tuple[LaidRun, ...]] = Held(64)
_RUNS: Held[tuple[FormRun, ...]] = Held(256)


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


def runs_of(project: Project, building: MeasuredBuilding) -> tuple[FormRun, ...]:
    """Its runs, not laid yet."""
    forms = forms_of(project, building)
    key, more = (building.shape, building.openings, building.forms), tuple(forms.items())
    held = _RUNS.get(key, more)
    if held is not None:
        return held
    placed = building.shape.takeoff.placed["external"]
    names = {one.id: one.mark or one.id for one in building.openings}
    found = form_runs(placed.body.faces, placed.flats, forms, building.forms, face_marks(placed.body.faces), names)
    return _RUNS.put(key, tuple(found), more)


def course_building(project: Project, building: MeasuredBuilding) -> tuple[LaidRun, ...]:
    """Every run in courses. Raises Stopped."""
    runs = runs_of(project, building)
    held = _LAID.get((runs,))
    return held if held is not None else _LAID.put((runs,), tuple(LaidRun(of=one, found=laid(one)) for one in runs))


def laid(run: FormRun) -> Coursed | NoLaying:
    """A run laid, or why not."""
    try:
        return lay_run(run.run)
    except DomainError as error:
        return NoLaying(error.issues[0].message)
