"""Drift of the neutral set-out case: blocks of one-sided forms against rigid sheets."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector
from nimble_shell.core.setout.drift import DriftCase as Asked
from nimble_shell.core.setout.drift import mend
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive
from nimble_shell.formats.strict import Strict

KIND = "drift"
_NEAR = 1e-6
_MOST_STEPS = 1e6


class DriftCase(Strict):
    kind: Literal["drift"] = "drift"
    nominal: Positive
    sheets: Annotated[list[Positive], Field(min_length=1, max_length=1000)]
    courses: Annotated[list[list[Positive]], Field(min_length=1, max_length=1000)]
    tolerance: NotNegative
    step: Positive
    max_trim: NotNegative
    thickness: Positive


def compute(case: DriftCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    check = Collector()
    for at, course in enumerate(case.courses):
        check.check(len(course) == len(case.sheets), ("courses", at), "not_as_many",
                    f"{len(course)} blocks, {len(case.sheets)} sheets", "a block for each sheet")  # fmt: skip
    check.check(case.max_trim / case.step <= _MOST_STEPS, ("step",), "too_fine",
                f"{case.max_trim / case.step:.3g} steps to a trim", "a larger step")  # fmt: skip
    check.refuse()
    courses = tuple(tuple(one) for one in case.courses)
    asked = Asked(
        nominal=case.nominal, sheets=tuple(case.sheets), courses=courses, tolerance=case.tolerance, step=case.step,
        max_trim=case.max_trim, thickness=case.thickness,
    )  # fmt: skip
    begun = {
        "cut_to_nominal": [{"sheet": n, "mm": one} for n, one in enumerate(asked.cut) if one > _NEAR],
        "drift_before": [list(one) for one in asked.before],
    }
    found = mend(asked)
    if found is None:
        return {"status": "infeasible", "reason": "no trims and rasps of these sizes keep every joint within tolerance",
                **begun}  # fmt: skip
    trims, rasps, removed = found.counts
    return {
        "status": "optimal" if found.proved else "feasible",
        "bound": trims if found.proved else found.bound,
        "objective": {"trims": trims, "rasps": rasps, "removed_mm": removed},
        "cut_to_nominal": begun["cut_to_nominal"],
        "trims": [{"sheet": n, "mm": one} for n, one in enumerate(found.trims) if one > _NEAR],
        "rasps": [{"course": c, "block": n, "mm": one}
                  for c, row in enumerate(found.rasps) for n, one in enumerate(row) if one > _NEAR],
        "drift_before": begun["drift_before"],
        "drift_after": [list(one) for one in found.after],
        "worst_tie_deg": found.worst_tie(case.thickness),
    }  # fmt: skip
