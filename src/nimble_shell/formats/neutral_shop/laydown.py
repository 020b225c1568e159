"""Laydown of the neutral shop case: true sides and diagonals."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shop.laydown import FOUR, NEAR, Laydown, Measured, check, laydown
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive
from nimble_shell.formats.strict import Number, Strict

Corner = Annotated[list[Number], Field(min_length=2, max_length=2)]


class MeasuredCase(Strict):
    sides: Annotated[list[Positive], Field(min_length=4, max_length=4)]
    diagonals: Annotated[list[Positive], Field(min_length=2, max_length=2)]


class LaydownCase(Strict):
    kind: Literal["laydown"] = "laydown"
    outline: Annotated[list[Corner], Field(min_length=3, max_length=1000)]
    measured: MeasuredCase | None = None
    tolerance: NotNegative | None = None


def compute(case: LaydownCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    asked = laydown([(x, y) for x, y in case.outline])
    answer: dict[str, Any] = {
        "sides": list(asked.sides), "diagonals": {f"{i}-{j}": value for (i, j), value in asked.diagonals.items()},
        "angles_deg": list(asked.angles), "area_m2": asked.area * 1e-6,
    }  # fmt: skip
    if case.measured is not None:
        answer["check"] = _check(case, case.measured, asked)
    return answer


def _check(case: LaydownCase, read: MeasuredCase, asked: Laydown) -> dict[str, Any]:
    if len(case.outline) != FOUR:
        raise DomainError(Issue(path=("measured",), code="not_four", message=f"{len(case.outline)} corners",
                                hint="measured sides and diagonals are of four corners"))  # fmt: skip
    a, b, c, d = read.sides
    found = check(asked, Measured(sides=(a, b, c, d), diagonals=(read.diagonals[0], read.diagonals[1])))
    answer: dict[str, Any] = {
        "angles_deg": list(found.angles), "off_deg": list(found.off), "closure_mm": found.closure,
        "rack_mm": found.rack, "worst_mm": found.worst,
    }  # fmt: skip
    if case.tolerance is not None:
        answer["ok"] = found.worst <= case.tolerance + NEAR
    return answer
