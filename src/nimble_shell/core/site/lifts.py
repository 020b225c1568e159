"""Lifts of a pour, places of braces, and the lean a wall is given before it is filled."""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass

NEAR = 1e-9


@dataclass(frozen=True, slots=True, kw_only=True)
class Lifts:
    """Tops of the lifts, rising; the last is the whole height. [m]"""

    levels: tuple[float, ...]

    @property
    def heights(self) -> tuple[float, ...]:
        return tuple(b - a for a, b in zip((0.0, *self.levels[:-1]), self.levels, strict=True))

    @property
    def greatest(self) -> float:
        return max(self.heights)


def lifts(joints: Sequence[float], height: float, most: float) -> Lifts | None:
    """Fewest lifts with day joints on board joints, then the smallest greatest lift; None where none is low enough.

    Parameters
    ----------
    joints : sequence of float
        Levels at which a day joint may lie, rising; those above the wall do not count. [m]
    most : float
        Greatest lift. [m]
    """
    levels = [0.0, *(one for one in joints if NEAR < one < height - NEAR), height]
    n = len(levels)
    #: By number of lifts to each level: the smallest greatest lift, and the level before.
    best: list[tuple[int, float, int] | None] = [None] * n
    best[0] = (0, 0.0, -1)
    for j in range(1, n):
        for i in range(j):
            before = best[i]
            lift = levels[j] - levels[i]
            if before is None or lift > most + NEAR:
                continue
            found = (before[0] + 1, max(before[1], lift), i)
            now = best[j]
            if now is None or found[:2] < now[:2]:
                best[j] = found
    # The fewest to a level need not lead to the smallest greatest at the end: counted per number of lifts.
    end = best[n - 1]
    if end is None:
        return None
    return Lifts(levels=_evenest(levels, end[0], most))


def _evenest(levels: Sequence[float], count: int, most: float) -> tuple[float, ...]:
    """So many lifts with the smallest greatest one."""
    n = len(levels)
    worst = [[math.inf] * n for _ in range(count + 1)]
    came = [[-1] * n for _ in range(count + 1)]
    worst[0][0] = 0.0
    for k in range(1, count + 1):
        for j in range(1, n):
            for i in range(j):
                lift = levels[j] - levels[i]
                if lift <= most + NEAR and max(worst[k - 1][i], lift) < worst[k][j]:
                    worst[k][j], came[k][j] = max(worst[k - 1][i], lift), i
    found, at = [], n - 1
    for k in range(count, 0, -1):
        found.append(levels[at])
        at = came[k][at]
    return tuple(reversed(found))


def brace_spacing(table: Sequence[tuple[float, float]], height: float) -> float | None:
    """Greatest spacing by an entered table, linear between its rows; None outside of it."""
    heights = [one for one, _ in table]
    if not heights or height < heights[0] - NEAR or height > heights[-1] + NEAR:
        return None
    at = min(max(bisect_right(heights, height), 1), len(heights) - 1)
    if len(heights) == 1:
        return table[0][1]
    (h0, s0), (h1, s1) = table[at - 1], table[at]
    return s0 + (s1 - s0) * (height - h0) / (h1 - h0)


@dataclass(frozen=True, slots=True)
class Lean:
    """A wall set leaning towards its braces before the pour. [mm]"""

    top: float  #: offset of its top
    brace: float  #: change of a brace's length; below nought it is shorter


def lean(height: float, per_m: float, brace_height: float, brace_foot: float) -> Lean:
    """The wall turns about its base by so much for each metre of height. [mm], [mm/m]"""
    top = per_m * height / 1000
    theta = math.asin(top / height)
    x, y = brace_height * math.sin(theta), brace_height * math.cos(theta)
    before = math.hypot(brace_foot, brace_height)
    return Lean(top, math.hypot(brace_foot - x, y) - before)
