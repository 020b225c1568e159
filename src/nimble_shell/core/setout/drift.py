"""Foam blocks against rigid sheets of a one-sided form: how far the joints drift, and the least that brings them back.

Lengths in mm.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate
from typing import Any

import numpy as np

_NEAR = 1e-6
_SECONDS = 20.0  #: of each of the three questions


@dataclass(frozen=True, slots=True, kw_only=True)
class DriftCase:
    """Sheet i stands against block i of every course."""

    nominal: float
    sheets: tuple[float, ...]
    courses: tuple[tuple[float, ...], ...]
    tolerance: float
    step: float  #: of a trim or a rasp
    max_trim: float
    thickness: float  #: between the two faces, that ties span

    @property
    def cut(self) -> tuple[float, ...]:
        """Of each sheet, to be cut to nominal first."""
        return tuple(max(0.0, one - self.nominal) for one in self.sheets)

    @property
    def before(self) -> tuple[tuple[float, ...], ...]:
        """Drift at each joint once sheets over nominal are cut."""
        faced = [one - cut for one, cut in zip(self.sheets, self.cut, strict=True)]
        return tuple(
            tuple(accumulate(block - sheet for block, sheet in zip(course, faced, strict=True)))
            for course in self.courses
        )  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class Mended:
    """Trims of sheets, once; and rasps of blocks, course by course."""

    trims: tuple[float, ...]
    rasps: tuple[tuple[float, ...], ...]
    after: tuple[tuple[float, ...], ...]
    proved: bool
    bound: int  #: no way has fewer trims

    @property
    def counts(self) -> tuple[int, int, float]:
        """Sheets trimmed, blocks rasped, and all that is taken off."""
        blocks = [one for course in self.rasps for one in course]
        return (sum(one > _NEAR for one in self.trims), sum(one > _NEAR for one in blocks),
                sum(self.trims) + sum(blocks))  # fmt: skip

    def worst_tie(self, thickness: float) -> float:
        """[°]"""
        worst = max((abs(one) for course in self.after for one in course), default=0.0)
        return math.degrees(math.atan(worst / thickness))


def mend(case: DriftCase) -> Mended | None:
    """Fewest trims, then fewest rasps, then least taken off, so that every joint is within tolerance; None where
    nothing is.

    All cuts are whole steps. Cumulative trims less cumulative rasps of a course lie between two whole numbers at each
    joint; so it is an integer programme, asked three times, each answer kept for the next.
    """
    n, m = len(case.sheets), len(case.courses)
    windows = _windows(case)
    if windows is None:
        return None
    low, high = windows
    most_trim = math.floor(case.max_trim / case.step + _NEAR)
    caps = [[max(0, math.floor((block - case.nominal) / case.step + _NEAR)) for block in course]
            for course in case.courses]  # fmt: skip
    if not n or not m or all(a <= 0 <= b for row in zip(low, high, strict=True) for a, b in zip(*row, strict=True)):
        return _mended(case, [0] * n, [[0] * n for _ in range(m)], proved=True, bound=0)
    return _Programme(case, low, high, most_trim, caps).solved()


def back_to_nought(case: DriftCase) -> tuple[float, ...]:
    """The other custom: each sheet trimmed so that the middle of all courses comes back to nought at its joint."""
    trims, off = list[float](), 0.0
    for n in range(len(case.sheets)):
        at = [course[n] for course in case.before]
        middle = (min(at) + max(at)) / 2 + off
        steps = max(0, min(round(-middle / case.step), math.floor(case.max_trim / case.step + _NEAR)))
        trims.append(steps * case.step)
        off += trims[-1]
    return tuple(trims)


def _windows(case: DriftCase) -> tuple[list[list[int]], list[list[int]]] | None:
    """What trims less rasps may come to at each joint, in steps."""
    low, high = list[list[int]](), list[list[int]]()
    for course in case.before:
        low.append([math.ceil((-case.tolerance - one) / case.step - _NEAR) for one in course])
        high.append([math.floor((case.tolerance - one) / case.step + _NEAR) for one in course])
    if any(a > b for row in zip(low, high, strict=True) for a, b in zip(*row, strict=True)):
        return None
    return low, high


class _Programme:
    """Columns: trims, rasps, whether each trim is made, whether each rasp is."""

    def __init__(
        self, case: DriftCase, low: list[list[int]], high: list[list[int]], most_trim: int, caps: list[list[int]]
    ) -> None:
        from scipy.sparse import block_diag, csr_array, eye_array, hstack, vstack  # not for every start

        self.case, self.n, self.m = case, len(case.sheets), len(case.courses)
        n, m = self.n, self.m
        sums = np.tril(np.ones((n, n)))
        trims = vstack([csr_array(sums)] * m)
        rasps = block_diag([csr_array(-sums)] * m)
        count = n + n * m
        drift = hstack([trims, rasps, csr_array((n * m, count))])
        limits = np.array([most_trim] * n + [one for row in caps for one in row], dtype=float)
        made = hstack([eye_array(count), -csr_array(np.diag(limits))])
        self.matrix: Any = csr_array(vstack([drift, made]))
        self.lower = np.concatenate([np.array(low, dtype=float).ravel(), np.full(count, -np.inf)])
        self.upper = np.concatenate([np.array(high, dtype=float).ravel(), np.zeros(count)])
        self.top = np.concatenate([limits, np.ones(count)])
        self.count = count

    def solved(self) -> Mended | None:
        trimmed, rasped, taken = (np.zeros(2 * self.count) for _ in range(3))
        trimmed[self.count : self.count + self.n] = 1.0
        rasped[self.count + self.n :] = 1.0
        taken[: self.count] = 1.0
        kept = list[tuple[np.ndarray, float]]()
        proved, bound, x = True, 0, None
        for at, wanted in enumerate((trimmed, rasped, taken)):
            found, sure, least = self._least(wanted, kept)
            if found is None:
                break
            x, proved = found, proved and sure
            bound = math.ceil(least - _NEAR) if at == 0 else bound
            kept.append((wanted, round(float(wanted @ found))))
        if x is None:
            return None
        whole = [round(float(one)) for one in x[: self.count]]
        rows = [whole[self.n * (1 + c) : self.n * (2 + c)] for c in range(self.m)]
        return _mended(self.case, whole[: self.n], rows, proved=proved, bound=bound)

    def _least(self, wanted: np.ndarray, kept: list[tuple[np.ndarray, float]]) -> tuple[np.ndarray | None, bool, float]:
        from scipy.optimize import Bounds, LinearConstraint, milp
        from scipy.sparse import csr_array, vstack

        rows = [LinearConstraint(self.matrix, self.lower, self.upper)]
        if kept:
            rows.append(LinearConstraint(vstack([csr_array(row[None, :]) for row, _ in kept]), -np.inf,
                                         np.array([most for _, most in kept])))  # fmt: skip
        whole = np.ones(2 * self.count, dtype=int)
        found = milp(wanted, constraints=rows, integrality=whole, bounds=Bounds(0, self.top),
                     options={"time_limit": _SECONDS, "mip_rel_gap": 0.0})  # fmt: skip
        if found.x is None:
            return None, False, 0.0
        return found.x, found.status == 0, float(found.mip_dual_bound)


def _mended(
    case: DriftCase, trims: Sequence[int], rasps: Sequence[Sequence[int]], *, proved: bool, bound: int
) -> Mended:  # fmt: skip
    cut = [one * case.step for one in trims]
    worn = [[one * case.step for one in course] for course in rasps]
    after = tuple(
        tuple(before + trim - rasp for before, trim, rasp in zip(course, accumulate(cut), accumulate(row), strict=True))
        for course, row in zip(case.before, worn, strict=True)
    )
    return Mended(trims=tuple(cut), rasps=tuple(tuple(row) for row in worn), after=after, proved=proved, bound=bound)
