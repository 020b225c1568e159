"""The order of work of a building: operations at their earliest days, hold points, a proposed order checked."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.shell.project import Project
from nimble_shell.core.site.work_plan import DAY, WorkChoices, work_plan
from nimble_shell.services.joints import building_in


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkAfter:
    """What an operation waits for."""

    id: str
    text: str
    wait: float  #: [h]
    within: float | None  #: begun so long after it at most [h]


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkRow:
    """An operation."""

    id: str
    text: str
    hours: float  #: of work
    hold: bool
    crane: bool
    day: int | None  #: on which it begins at the earliest, from 1; None where that cannot be told
    ends: int | None
    critical: bool
    done: bool
    shut: bool  #: a hold point before it is not through
    after: tuple[WorkAfter, ...]
    before: tuple[str, ...]  #: in the proposed order, what it comes before and waits for


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkSheet:
    """Of a building."""

    choices: WorkChoices
    rows: tuple[WorkRow, ...]  #: as proposed, else in an order that keeps all waits
    days: int | None
    crane: float  #: [h]
    problem: str
    missing: tuple[str, ...]  #: operations that the proposed order lacks
    unknown: tuple[str, ...]


def work_sheet(project: Project, building_id: str) -> WorkSheet:
    """All operations. Raises NotFound."""
    building = building_in(project, building_id)
    known = {one.id: one.system for one in project.assemblies}
    systems = [known[one.assembly_id] for one in building.elements if one.assembly_id in known]
    choices = building.work
    found = work_plan(systems, choices)
    of = {one.id: one for one in found.operations}
    plan = found.plan
    sequence = list(plan.sequence) if plan else list(of)
    order = [key for key in choices.proposed if key in of] if choices.proposed else sequence
    missing = tuple(key for key in of if key not in order)
    rows = []
    for key in (*order, *missing):
        one = of[key]
        start = None if plan is None else plan.earliest[key]
        end = None if start is None else start + one.hours * DAY / choices.day
        rows.append(WorkRow(
            id=key, text=one.text, hours=one.hours, hold=one.hold, crane=one.crane,
            day=None if start is None else int(start // DAY) + 1,
            ends=None if start is None or end is None else max(int(start // DAY) + 1, int(-(-end // DAY))),
            critical=plan is not None and key in plan.critical, done=key in choices.done,
            shut=any(of[each.id].hold and each.id not in choices.done for each in one.after if each.id in of),
            after=tuple(WorkAfter(id=each.id, text=of[each.id].text if each.id in of else each.id, wait=each.wait,
                                  within=each.within) for each in one.after),
            before=tuple(of[late].text for early, late in found.broken if early == key and late in of),
        ))  # fmt: skip
    return WorkSheet(
        choices=choices, rows=tuple(rows), days=None if plan is None else int(-(-plan.total // DAY)), crane=found.crane,
        problem=_problem(found.cycle, plan is None, {key: one.text for key, one in of.items()}),
        missing=tuple(of[key].text for key in missing) if choices.proposed else (), unknown=found.unknown,
    )  # fmt: skip


def _problem(cycle: tuple[str, ...] | None, none: bool, texts: dict[str, str]) -> str:
    if cycle:
        return "They wait for one another in a round: " + " → ".join(texts[one] for one in (*cycle, cycle[0]))
    return "Waits and longest exposures contradict one another" if none else ""
