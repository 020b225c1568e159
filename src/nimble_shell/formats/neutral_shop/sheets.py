"""Sheets of the neutral shop case: parts by through cuts."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool

from nimble_shell.core.errors import Collector
from nimble_shell.core.shop.sheets.cut import cut
from nimble_shell.core.shop.sheets.stock import NEAR, Cutting, NoSheets, Part, Saw, Sheet
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive
from nimble_shell.formats.strict import Strict

MOST = 5000  #: parts and fillers in all
Count = Annotated[int, Field(strict=True, ge=1)]


class SheetCase(Strict):
    name: str
    w: Positive
    h: Positive
    count: Count | None = None
    cost: NotNegative | None = None


class PartCase(Strict):
    name: str
    w: Positive
    h: Positive
    count: Count
    turn: StrictBool


class SheetsCase(Strict):
    kind: Literal["sheets"] = "sheets"
    kerf: NotNegative
    edge_trim: NotNegative = 0.0
    sheets: Annotated[list[SheetCase], Field(min_length=1)]
    parts: list[PartCase]
    fillers: list[PartCase] = []


def compute(case: SheetsCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    check, total = Collector(), 0
    for group in ("parts", "fillers"):
        for at, one in enumerate(getattr(case, group)):
            total += one.count
            check.check(total <= MOST, (group, at, "count"), "too_many", f"{total} parts",
                        f"at most {MOST} at once: cut them in several lots")  # fmt: skip
    for at, sheet in enumerate(case.sheets):
        check.check(min(sheet.w, sheet.h) > 2 * case.edge_trim, ("sheets", at), "trimmed_away",
                    "the edges that are trimmed meet", "a larger sheet, or less “edge_trim”")  # fmt: skip
    check.refuse()
    sheets = [
        Sheet(name=one.name, w=one.w, h=one.h, count=one.count,
              cost=one.w * one.h * 1e-6 if one.cost is None else one.cost)
        for one in case.sheets
    ]  # fmt: skip
    parts, fillers = [_part(one) for one in case.parts], [_part(one) for one in case.fillers]
    found = cut(parts, sheets, Saw(kerf=case.kerf, edge_trim=case.edge_trim), fillers)
    if isinstance(found, NoSheets):
        return {"status": "infeasible", "reason": found.reason}
    names = [one.name for one in (*parts, *fillers)]
    proved = found.cost <= found.bound + NEAR and found.fillers == sum(one.count for one in fillers)
    return {
        "status": "optimal" if proved else "feasible",
        "bound": found.bound,
        "objective": {"cost": found.cost, "sheets": len(found.cuttings), "fillers": found.fillers},
        "sheets": [_sheet(one, sheets, names) for one in found.cuttings],
    }


def _part(one: PartCase) -> Part:
    return Part(name=one.name, w=one.w, h=one.h, count=one.count, turn=one.turn)


def _sheet(one: Cutting, sheets: list[Sheet], names: list[str]) -> dict[str, Any]:
    parts = [{"name": names[p.part], "x": p.x, "y": p.y, "turned": p.turned} for p in one.placed]
    return {"sheet": sheets[one.sheet].name, "parts": parts, "offcuts": [list(free) for free in one.offcuts]}
