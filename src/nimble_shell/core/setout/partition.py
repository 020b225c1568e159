"""The best joints of a band: a shortest path from its left end to its right one, which is exact."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.elevation import NEAR
from nimble_shell.core.setout.rules import COUNTED, Objective, Term
from nimble_shell.core.setout.strips import BandStrips

NEVER = np.iinfo(np.int64).max // 4  #: no way leads there

Floats = NDArray[np.float64]
Counts = NDArray[np.int64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sum:
    """What joints come to."""

    panels: int = 0
    off_module: int = 0
    members: int = 0
    lopsided: int = 0  #: joints whose mirror image, about the middle of their storey, is none
    astray: int = 0  #: joints that stand on none of the storey below
    member_length: float = 0.0  #: [m]
    waste: float = 0.0  #: [m²]

    def __add__(self, other: Sum) -> Sum:
        return Sum(**{term: getattr(self, term) + getattr(other, term) for term in self.__slots__})


@dataclass(frozen=True, slots=True, kw_only=True)
class Layer:
    """Joints of one layer of a band between its ends, rising; and what they come to."""

    joints: tuple[float, ...]
    sum: Sum


class Costs:
    """Costs of an objective as a whole number, and a length or area that decides among equal ones."""

    def __init__(self, objective: Objective, strips: BandStrips) -> None:
        self._base = strips.most + 1  # terms one after the other are the digits of one number
        self._weights = objective.weights
        self._counted = [term for term in objective.order if term in COUNTED]
        self.measures_members = "member_length" in (self._weights or objective.order)
        self._last = next((term for term in objective.order if term not in COUNTED), None)
        if self._base ** len(self._counted) > NEVER:
            raise DomainError(Issue(path=("objective",), code="too_many_terms",
                                    message=f"{len(self._counted)} counts of up to {strips.most} cannot be ordered",
                                    hint="fewer terms, or a coarser step"))  # fmt: skip

    def of(self, terms: dict[Term, Any]) -> tuple[Any, Any]:
        """Whole number and part of it, each one or an array, as the terms are."""
        if self._weights is not None:
            return 0, sum((weight * terms[term] for term, weight in self._weights.items()), 0.0)
        whole: Any = 0
        for term in self._counted:
            whole = whole * self._base + terms[term]
        return whole, 0.0 if self._last is None else terms[self._last]


def best_layer(strips: BandStrips, objective: Objective) -> Layer | None:
    """One layer of joints; None where none are legal. Exact: every legal strip is a step, and all costs add up."""
    costs, n = Costs(objective, strips), len(strips.x)
    lengths = strips.member_length if costs.measures_members else np.zeros(n)
    whole, part = (
        np.full(2 * n, NEVER, dtype=np.int64),
        np.full(2 * n, np.inf),
    )  # before the first n to which nothing leads
    came = np.full(n, -1)
    whole[n], part[n] = 0, 0.0
    for rows in strips.rows():
        joints = rows.first + np.arange(len(rows.legal))
        inner, astray = (joints < n - 1).astype(np.int64), strips.astray[joints].astype(np.int64)
        more, beside = costs.of({
            "panels": rows.panels, "off_module": rows.off_module, "members": inner[:, None],
            "member_length": lengths[joints][:, None], "waste": rows.waste, "lopsided": 0, "astray": astray[:, None],
        })  # fmt: skip
        more = np.where(rows.legal, more, NEVER)
        for j, own, aside in zip(joints.tolist(), more, np.broadcast_to(beside, more.shape), strict=True):
            before = slice(n + j - rows.reach, n + j)
            total = whole[before] + own
            least = total.min()
            if least >= NEVER:
                continue
            ties = np.where(total == least, part[before] + aside, np.inf)
            at = int(ties.argmin())
            whole[n + j], part[n + j], came[j] = least, ties[at], j - rows.reach + at
    if came[n - 1] < 0:
        return None
    ends = [n - 1]
    while ends[-1] > 0:
        ends.append(int(came[ends[-1]]))
    return layer_at(strips, ends[::-1])


def layer_at(strips: BandStrips, ends: Sequence[int]) -> Layer:
    """The layer whose strips end at these joints, by number, both ends of the band among them."""
    total = Sum(lopsided=_lopsided(strips, ends))
    for before, at in pairwise(ends):
        found = strips.to(at)
        n, inner = before - found.first, at < len(strips.x) - 1
        total += Sum(
            panels=int(found.panels[n]), off_module=int(found.off_module[n]), members=int(inner),
            member_length=strips.band.member(float(strips.x[at])) if inner else 0.0, waste=float(found.waste[n]),
            astray=int(strips.astray[at]),
        )  # fmt: skip
    return Layer(joints=tuple(float(strips.x[at]) for at in ends[1:-1]), sum=total)


def _lopsided(strips: BandStrips, ends: Sequence[int]) -> int:
    """Joints whose mirror image is none."""
    if not strips.rules.mirrored:
        return 0
    x = strips.x[list(ends)]
    images = strips.band.x0 + strips.band.x1 - x
    return int(sum(np.abs(x - one).min() > NEAR for one in images))
