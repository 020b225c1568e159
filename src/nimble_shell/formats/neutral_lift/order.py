"""Order of work: earliest times, what is critical, and what a proposed order breaks."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector
from nimble_shell.core.site.order import After, Task, cycle_of, plan_of, violations
from nimble_shell.formats.neutral_shell.values import NotNegative, only_once
from nimble_shell.formats.strict import Strict


class AfterCase(Strict):
    id: str
    wait_h: NotNegative = 0.0
    within_h: NotNegative | None = None


class TaskCase(Strict):
    id: str
    hold: bool
    hours: NotNegative
    after: Annotated[list[AfterCase], Field(max_length=10_000)]


class OrderCase(Strict):
    kind: Literal["order"] = "order"
    tasks: Annotated[list[TaskCase], Field(max_length=10_000)]
    proposed: Annotated[list[str], Field(max_length=10_000)] | None = None


_KEYS = ("earliest_h", "total_h", "critical", "violations", "sequence")


def compute(case: OrderCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of an id that is unknown or told twice.
    """
    _checked(case)
    tasks = [
        Task(id=one.id, hours=one.hours, hold=one.hold,
             after=tuple(After(id=each.id, wait=each.wait_h, within=each.within_h) for each in one.after))
        for one in case.tasks
    ]  # fmt: skip
    ring = cycle_of(tasks)
    if ring is not None:
        return {"acyclic": False, "cycle": list(ring), **dict.fromkeys(_KEYS)}
    plan = plan_of(tasks)
    if plan is None:
        return {"status": "infeasible", "reason": "what has to wait and what may not lie open contradict one another"}
    answer: dict[str, Any] = {
        "acyclic": True, "cycle": None, "earliest_h": dict(plan.earliest), "total_h": plan.total,
        "critical": list(plan.critical),
    }  # fmt: skip
    if case.proposed is not None:
        answer["violations"] = [list(one) for one in violations(tasks, case.proposed)]
    answer["sequence"] = list(plan.sequence)
    return answer


def _checked(case: OrderCase) -> None:
    check = Collector()
    known = [one.id for one in case.tasks]
    only_once(check, known, "tasks")
    for at, one in enumerate(case.tasks):
        _there(check, [each.id for each in one.after], known, "tasks", at, "after")
        only_once(check, [each.id for each in one.after], "tasks", at, "after")
    if case.proposed is not None:
        _there(check, case.proposed, known, "proposed")
        only_once(check, case.proposed, "proposed")
    check.refuse()


def _there(check: Collector, ids: Sequence[str], known: Sequence[str], *path: str | int) -> None:
    names = set(known)
    for at, one in enumerate(ids):
        check.check(one in names, (*path, at), "unknown_name", f"there is no task “{one}”", "one of the tasks")
