"""The fewest points along a line: not too far apart, near enough to both ends, clear of what is in the way."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

NEAR = 1e-6


@dataclass(frozen=True, slots=True)
class NoPoint:
    """Between these no place is left that is near enough to the last point."""

    a: float
    b: float


def fewest_points(
    length: float, *, end: float, spacing: float, step: float, blocked: Sequence[tuple[float, float]] = ()
) -> tuple[float, ...] | NoPoint:
    """Multiples of a step from 0 to a length, gaps of `spacing` at most; none strictly inside of what is blocked.

    Each goes as far as it can: no other way gets farther with as many, so none has fewer.

    Parameters
    ----------
    end : float
        Of the first and the last from the ends, at most; as the rest in one unit of length.
    """
    found: list[float] = []
    reach = min(end, length)
    while not found or found[-1] < length - end - NEAR:
        last = found[-1] if found else -step
        place = _last_free(min(reach, length), step, blocked)
        if place <= last + NEAR:
            return NoPoint(max(last, 0.0), reach)
        found.append(place)
        reach = place + spacing
    return tuple(found)


def _last_free(reach: float, step: float, blocked: Sequence[tuple[float, float]]) -> float:
    """The farthest place up to here; below nought where there is none."""
    n = math.floor(reach / step + NEAR)
    while n >= 0:
        x = n * step
        in_way = next(((a, b) for a, b in blocked if a + NEAR < x < b - NEAR), None)
        if in_way is None:
            return x
        n = min(n - 1, math.floor(in_way[0] / step + NEAR))
    return -1.0
