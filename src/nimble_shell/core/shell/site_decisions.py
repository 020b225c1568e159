"""What wet trades, lifts and the order of work leave open."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.shell.decisions import OpenDecision, WayOut
from nimble_shell.core.shell.lifting import carried
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import BuildingSetOut
from nimble_shell.core.shell.wetting import MORTARED, PLASTERED, clocked
from nimble_shell.core.site.work_plan import work_plan


def site_decisions(project: Project, building: MeasuredBuilding, found: BuildingSetOut) -> Iterator[OpenDecision]:
    """Of a building as it is set out."""
    known = {one.id: one for one in project.assemblies}
    of = {one.id: known[one.assembly_id] for one in building.elements if one.assembly_id in known}
    systems = {one.system for one in of.values()}
    if systems & set(PLASTERED):
        yield from _clocks(project, building)
        yield from _bales(building)
    if systems & set(MORTARED):
        yield from _probes(building)
    yield from _crane(building, found)
    yield from _order(building, [one.system for one in of.values()])


def _clocks(project: Project, building: MeasuredBuilding) -> Iterator[OpenDecision]:
    for one in clocked(building.wet, project.within(building.id).basis):
        if one.lifted is not None and one.lift is not None and one.lifted < one.lift:
            days = "one warm day" if one.counted == 1 else f"{one.counted} warm days"
            yield OpenDecision(
                key=f"early-{one.panel}", matter="set-out", state="open", step=8, view="wet", id=one.panel,
                text=f"{one.panel} was lifted on day {one.lifted + 1} with {days} of cure: "
                     f"its clock stood still, it may be lifted from day {one.lift + 1}",
                ways=(WayOut(text="Look at its plaster, and say what is done with it", step=8, view="wet"),),
            )  # fmt: skip


def _bales(building: MeasuredBuilding) -> Iterator[OpenDecision]:
    for n, one in enumerate(building.wet.bales):
        if one.moisture > building.wet.damp:
            yield OpenDecision(
                key=f"bale-{n}", matter="set-out", state="open", step=8, view="wet", id=one.panel,
                text=sentence(f"A bale of {one.panel} has a moisture of {{m}}, those above {{l}} stay out",
                              m=(one.moisture, "share"), l=(building.wet.damp, "share")),
                ways=(WayOut(text="Another bale, read again", step=8, view="wet"),),
            )  # fmt: skip


def _probes(building: MeasuredBuilding) -> Iterator[OpenDecision]:
    choices = building.wet
    for n, one in enumerate(choices.probes):
        if not choices.least <= one.thickness <= choices.most:
            word = "thinner than" if one.thickness < choices.least else "thicker than"
            limit = choices.least if one.thickness < choices.least else choices.most
            yield OpenDecision(
                key=f"probe-{n}", matter="set-out", state="open", step=8, view="wet", id=one.face,
                text=sentence(f"Mortar on {one.face} was probed with {{t}}, {word} {{l}}",
                              t=(one.thickness, "length"), l=(limit, "length")),
                ways=(WayOut(text="Another coat, or the engineer says that it does", step=8, view="wet"),),
            )  # fmt: skip


def _crane(building: MeasuredBuilding, found: BuildingSetOut) -> Iterator[OpenDecision]:
    """Panels that the crane does not carry where they are set; nothing while no table is entered."""
    if not building.lifting.table or not building.setout.crane:
        return
    shapes = {one.id: one for one in building.shape.takeoff.placed["external"].body.faces}
    every = [(one, *carried(one, face, shapes.get(face.face), building.lifting))
             for face in found.faces for one in face.panels]  # fmt: skip
    over = [(one, radius) for one, radius, crane in every if crane is not None and not crane.ok]
    if over:
        worst, radius = max(over, key=lambda pair: pair[0].panel.mass)
        more = f" and {len(over) - 1} more" if over[1:] else ""
        yield OpenDecision(
            key="crane-table", matter="set-out", state="open", step=8, view="lifts", id=worst.mark,
            text=sentence(f"{worst.mark}{more}: the crane does not carry {{m}} at {{r}}",
                          m=(worst.panel.mass, "mass"), r=(radius, "distance")),
            ways=(WayOut(text="Come nearer, a larger crane, or lighter panels", step=8, view="lifts"),),
        )  # fmt: skip


def _order(building: MeasuredBuilding, systems: list[str]) -> Iterator[OpenDecision]:
    choices, stored = building.work, building.as_stored()
    found = work_plan(systems, choices)
    texts = {one.id: one.text for one in found.operations}
    as_follows = WayOut(text="Take the order that follows",
                        changed=replace(stored, work=replace(choices, proposed=())))  # fmt: skip
    if found.cycle:
        rounds = " → ".join(texts[one] for one in (*found.cycle, found.cycle[0]))
        yield OpenDecision(key="work-cycle", matter="set-out", state="open", step=8, view="work",
                           text=f"Operations wait for one another in a round: {rounds}")  # fmt: skip
    elif found.plan is None:
        yield OpenDecision(key="work-exposure", matter="set-out", state="open", step=8, view="work",
                           text="Waits and longest exposures of the order of work contradict one another")  # fmt: skip
    if found.broken:
        early, late = found.broken[0]
        yield OpenDecision(key="work-order", matter="set-out", state="open", step=8, view="work",
                           text=f"The proposed order has “{texts[early]}” before “{texts.get(late, late)}”",
                           ways=(as_follows,))  # fmt: skip
