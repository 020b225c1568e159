"""Bars of the neutral shop case: linear stock."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector
from nimble_shell.core.shop.bars.nest import nest
from nimble_shell.core.shop.bars.stock import TERMS, BarSum, Nested, NoBars, Saw, Stock, Term
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive
from nimble_shell.formats.strict import Strict

MOST = 1_000_000  #: pieces or bars of one line
MOST_LENGTHS = 500  #: different ones of a section
Count = Annotated[int, Field(strict=True, ge=1, le=MOST)]


class StockCase(Strict):
    section: str
    length: Positive
    count: Count | None = None
    cost: NotNegative | None = None


class OffcutCase(Strict):
    section: str
    length: Positive
    count: Count
    cost: NotNegative = 0.0


class PieceCase(Strict):
    name: str
    section: str
    length: Positive
    count: Count


class BarsCase(Strict):
    kind: Literal["bars"] = "bars"
    kerf: NotNegative
    end_trim: NotNegative = 0.0
    keep: NotNegative = 0.0
    stock: list[StockCase]
    offcuts: list[OffcutCase] = []
    pieces: list[PieceCase]
    objective: Annotated[list[Term], Field(min_length=1)]


def compute(case: BarsCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    _check(case)
    saw = Saw(kerf=case.kerf, end_trim=case.end_trim, keep=case.keep)
    wanted: dict[str, Counter[float]] = defaultdict(Counter)
    for one in case.pieces:
        wanted[one.section][one.length] += one.count
    found: dict[str, Nested] = {}
    for section, lengths in wanted.items():
        answer = nest(list(lengths), list(lengths.values()), _stock(case, section), saw, case.objective)
        if isinstance(answer, NoBars):
            return {"status": "infeasible", "reason": f"{section}: {answer.reason}"}
        found[section] = answer
    return _answer(found)


def _check(case: BarsCase) -> None:
    check = Collector()
    for at, term in enumerate(case.objective):
        check.check(term not in case.objective[:at], ("objective", at), "told_twice", f"“{term}” is there twice",
                    "no term twice")  # fmt: skip
    there = {one.section for one in case.stock} | {one.section for one in case.offcuts}
    different: dict[str, set[float]] = defaultdict(set)
    for at, one in enumerate(case.pieces):
        check.check(one.section in there, ("pieces", at, "section"), "unknown_name",
                    f"there is no stock of section “{one.section}”", "add a bar of it")  # fmt: skip
        different[one.section].add(one.length)
        if len(different[one.section]) == MOST_LENGTHS + 1:
            check.check(False, ("pieces", at), "too_many", f"more than {MOST_LENGTHS} lengths of “{one.section}”",
                        "cut them in several lots")  # fmt: skip
    check.refuse()


def _stock(case: BarsCase, section: str) -> Sequence[Stock]:
    new = [
        Stock(length=one.length, cost=one.length if one.cost is None else one.cost, count=one.count)
        for one in case.stock if one.section == section
    ]  # fmt: skip
    rack = [
        Stock(length=one.length, cost=one.cost, count=one.count, offcut=True)
        for one in case.offcuts if one.section == section
    ]  # fmt: skip
    return [*rack, *new]


def _answer(found: dict[str, Nested]) -> dict[str, Any]:
    total = sum((one.sum for one in found.values()), BarSum())
    return {
        "status": "optimal" if all(one.proved for one in found.values()) else "feasible",
        "bound": sum(one.bound for one in found.values()),
        "objective": {term: getattr(total, term) for term in TERMS},
        "bars": [
            {"section": section, "length": bar.length, "offcut": bar.offcut, "times": bar.times,
             "lengths": list(bar.lengths), "remnant": bar.remnant}
            for section, one in found.items() for bar in one.bars
        ],
    }  # fmt: skip
