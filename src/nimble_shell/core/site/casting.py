"""Panels cast face down on beds: when each side is plastered, turned, and can be lifted. Days from the first one.

A cure clock counts warm days only: it stands still in the cold.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass

_FARTHEST = 4000  #: days that are looked at
NEAR = 1e-9


@dataclass(frozen=True, slots=True)
class ToCast:
    """A panel and the plaster of one side. [m³]"""

    panel: str
    side: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Cast:
    """When a panel lies on its bed."""

    panel: str
    bed: int  #: from 0
    first: int  #: day of its first side
    turned: int  #: day on which it is turned and its second side is plastered
    lift: int  #: earliest day


def clock(start: int, days: int, warm: Callable[[int], bool]) -> int | None:
    """The day on which so many warm days have gone by after one; None where they never do."""
    counted, at = 0, start
    while counted < days:
        at += 1
        if at - start > _FARTHEST:
            return None
        counted += warm(at)
    return at


def cast_plan(
    panels: Sequence[ToCast], *, beds: int, turn: int, cure: int, per_day: float, warm: Callable[[int], bool],
    begin: int = 0,
) -> tuple[Cast, ...] | None:  # fmt: skip
    """Panels in order, each on the bed that is free first, on the first warm days whose plaster the mixer makes.

    None where a side is more than a day's plaster, or the cold never ends.

    Parameters
    ----------
    per_day : float
        Plaster that is mixed in a day. [m³]
    """
    free, mixed, found = [begin] * beds, defaultdict[int, float](float), list[Cast]()
    for one in panels:
        if one.side > per_day + NEAR:
            return None
        bed = free.index(min(free))
        first = _room(free[bed], one.side, per_day, mixed, warm)
        due = None if first is None else clock(first, turn, warm)
        turned = None if due is None else _room(due, one.side, per_day, mixed, warm, first)
        lift = None if turned is None else clock(turned, cure, warm)
        if first is None or turned is None or lift is None:
            return None
        mixed[first] += one.side
        mixed[turned] += one.side
        free[bed] = lift + 1
        found.append(Cast(panel=one.panel, bed=bed, first=first, turned=turned, lift=lift))
    return tuple(found)


def _room(
    day: int, side: float, per_day: float, mixed: dict[int, float], warm: Callable[[int], bool],
    taken: int | None = None,
) -> int | None:  # fmt: skip
    """The first warm day from one on whose mixer still makes a side's plaster; on a taken one it makes it twice."""
    for at in range(day, day + _FARTHEST):
        own = side if at == taken else 0.0
        if warm(at) and mixed[at] + own + side <= per_day + NEAR:
            return at
    return None
