"""Joints that mirror one another about the middle of a band: a shortest path from both ends at once, which is exact."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.setout.elevation import NEAR
from nimble_shell.core.setout.partition import NEVER, Costs, Layer, layer_at
from nimble_shell.core.setout.rules import Objective, Term
from nimble_shell.core.setout.strips import BandStrips

Counts = NDArray[np.int64]
Floats = NDArray[np.float64]
_LEFT, _RIGHT = 0, 1


@dataclass(frozen=True, slots=True)
class _Side:
    """Steps towards the middle: from each distance to farther ones."""

    joint: Counts  #: at each distance; −1 where there is none
    step: Counts  #: [from, on by]
    part: Floats


def best_mirrored(strips: BandStrips, objective: Objective) -> Layer | None:
    """One layer of joints; None where none are legal.

    A state is the distance of the last joint from the left end and from the right one, the lesser first; it is always
    the lesser that goes on. So whether a joint has its image is known as soon as the other side comes up to it or
    passes it, and every pair is looked at once.
    """
    return _Folded(strips, objective).best()


class _Folded:
    """A band folded about its middle."""

    def __init__(self, strips: BandStrips, objective: Objective) -> None:
        self.strips, x = strips, strips.x
        self._costs = Costs(objective, strips)
        self._lone, _ = self._of({"lopsided": 1})  # what a joint without its image costs
        half = (x[-1] - x[0]) / 2
        left, right = x - x[0], x[-1] - x
        ours, theirs = np.flatnonzero(left <= half + NEAR), np.flatnonzero(right < half - NEAR)[::-1]
        every = np.sort(np.concatenate([left[ours], right[theirs]]))
        self.far = every[np.concatenate([[True], np.diff(every) > NEAR])]
        self.middle = bool(abs(self.far[-1] - half) <= NEAR)  # a joint there is its own image
        at = (self._numbers(left, ours), self._numbers(right, theirs))
        self._steps = [self._every(at[side], side) for side in (_LEFT, _RIGHT)]
        self.wide = max(max(int(on.max(initial=0)) for _, on, _, _ in steps) for steps in self._steps)
        self.sides = tuple(self._side(at[side], self._steps[side]) for side in (_LEFT, _RIGHT))
        self._at = at

    def _of(self, terms: dict[Term, Any]) -> tuple[Any, Any]:
        none: dict[Term, Any] = {
            "panels": 0, "off_module": 0, "members": 0, "member_length": 0.0, "waste": 0.0, "lopsided": 0, "astray": 0,
        }  # fmt: skip
        return self._costs.of({**none, **terms})

    def _numbers(self, distance: Floats, joints: Counts) -> Counts:
        """Of each joint the number of its distance; −1 on the other side."""
        found = np.full(len(distance), -1)
        found[joints] = np.searchsorted(self.far, distance[joints] - NEAR)
        return found

    def _every(self, number: Counts, side: int) -> list[tuple[int, Counts, Any, Any]]:
        """Of each joint that strips end at on its outer side, whence they come: number, on by, and what they cost."""
        found = []
        for j in range(1, len(self.strips.x)):
            to = self.strips.to(j)
            i = np.arange(to.first, to.first + len(to.legal))
            good = to.legal & (number[i] >= 0) & np.bool_(number[j] >= 0)
            if not good.any():
                continue
            i = i[good]
            new = np.full(len(i), j) if side == _LEFT else i  # the joint that is come to
            whole, part = self._of({
                "panels": to.panels[good], "off_module": to.off_module[good], "members": 1, "waste": to.waste[good],
                "member_length": self.strips.member_length[new], "astray": self.strips.astray[new].astype(np.int64),
            })  # fmt: skip
            before, after = (number[i], number[new]) if side == _LEFT else (np.full(len(i), number[j]), number[i])
            shape = np.zeros(len(i))
            found.append((j, after - before, (before, whole + shape.astype(np.int64)), part + shape))
        return found

    def _side(self, number: Counts, steps: Sequence[tuple[int, Counts, Any, Any]]) -> _Side:
        n = len(self.far)
        joint = np.full(n, -1)
        joint[number[number >= 0]] = np.flatnonzero(number >= 0)
        step, parts = np.full((n, self.wide + 1), NEVER, dtype=np.int64), np.zeros((n, self.wide + 1))
        for _, on, (before, whole), part in steps:
            step[before, on], parts[before, on] = whole, part
        return _Side(joint, step, parts)

    def best(self) -> Layer | None:
        n, wide = len(self.far), self.wide
        whole = np.full((2, n, wide + 1), NEVER, dtype=np.int64)  # [which side is behind, where it is, the other on by]
        part, came = np.full((2, n, wide + 1), np.inf), np.full((2, n, wide + 1, 3), -1)
        whole[_LEFT, 0, 0], part[_LEFT, 0, 0] = 0, 0.0
        for low in range(n):
            for behind in (_LEFT, _RIGHT):
                self._go_on(low, behind, whole, part, came)
                if behind == _LEFT and whole[_LEFT, low, 0] < NEVER:  # side by side, either may go on
                    self._go_on(low, behind, whole, part, came, other=True)
        return self._closed(whole, part, came)

    def _go_on(self, low: int, behind: int, whole: Counts, part: Floats, came: Counts, *, other: bool = False) -> None:
        moving = _RIGHT if other else behind
        side = self.sides[moving]
        offs = np.array([0]) if other else np.flatnonzero(whole[behind, low] < NEVER)
        ons = np.flatnonzero(side.step[low] < NEVER)
        if not len(offs) or not len(ons):
            return
        off, on = (one.ravel() for one in np.meshgrid(offs, ons, indexing="ij"))
        lone = ((on < off) | ((on > off) & (off > 0))) * self._lone  # passed, or come to with nobody opposite
        cost = whole[behind, low, off] + side.step[low, on] + lone
        beside = part[behind, low, off] + side.part[low, on]
        to = (np.where(on == off, _LEFT, np.where(on > off, 1 - moving, moving)), low + np.minimum(on, off),
              np.abs(on - off))  # fmt: skip
        better = (cost < whole[to]) | ((cost == whole[to]) & (beside < part[to]))  # no two lead to the same place
        to = (to[0][better], to[1][better], to[2][better])
        whole[to], part[to] = cost[better], beside[better]
        came[to] = np.stack([np.full(int(better.sum()), behind), np.full(int(better.sum()), low), off[better]], axis=1)

    def _closed(self, whole: Counts, part: Floats, came: Counts) -> Layer | None:
        """The strip in the middle, between the last joints of both sides."""
        best: tuple[int, float, int, int] | None = None
        left, right = self._at
        for k in np.flatnonzero(right >= 0):
            to = self.strips.to(int(k))
            for n, legal in enumerate(to.legal):
                i = to.first + n
                if not legal or left[i] < 0:
                    continue
                a, b = int(left[i]), int(right[k])
                state = (_LEFT if a <= b else _RIGHT, min(a, b), abs(a - b))
                if state[2] > self.wide or whole[state] >= NEVER:
                    continue
                more, beside = self._of({"panels": int(to.panels[n]), "off_module": int(to.off_module[n]),
                                         "waste": float(to.waste[n])})  # fmt: skip
                own = self.middle and a == len(self.far) - 1
                lone = self._lone if a != b and not own else 0
                found = (int(whole[state] + more + lone), float(part[state] + beside), i, int(k))
                best = found if best is None else min(best, found)
        if best is None:
            return None
        return layer_at(self.strips, self._ends(came, best[2], best[3]))

    def _ends(self, came: Counts, i: int, k: int) -> list[int]:
        a, b = int(self._at[_LEFT][i]), int(self._at[_RIGHT][k])
        lefts, rights = {a}, {b}
        while (a, b) != (0, 0):
            behind, low, off = (int(one) for one in came[_LEFT if a <= b else _RIGHT, min(a, b), abs(a - b)])
            a, b = (low, low + off) if behind == _LEFT else (low + off, low)
            lefts.add(a)
            rights.add(b)
        ours = [int(self.sides[_LEFT].joint[one]) for one in lefts]
        theirs = [int(self.sides[_RIGHT].joint[one]) for one in rights]
        return sorted({*ours, *theirs})
