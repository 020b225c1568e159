"""Plates along the base and the top of each storey: where they run, and where they are butted. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

from nimble_shell.core.setout.elevation import NEAR, Band, Opening, Slice
from nimble_shell.core.setout.points import NoPoint, fewest_points

Line = Literal["bottom", "top"]
LINES: tuple[Line, ...] = ("bottom", "top")
_STEP = 10.0  #: butt joints lie on whole steps from the left end of a plate


@dataclass(frozen=True, slots=True, kw_only=True)
class Plate:
    """A straight run of plate."""

    band: int
    line: Line
    x0: float
    y0: float
    x1: float
    y1: float
    butts: tuple[float, ...] = ()  #: along x, where two pieces of stock meet

    @property
    def length(self) -> float:
        return math.hypot(self.x1 - self.x0, self.y1 - self.y0)

    @property
    def slope(self) -> float:
        """[°]"""
        return math.degrees(math.atan2(self.y1 - self.y0, self.x1 - self.x0))

    @property
    def stretch(self) -> float:
        """Length over what it covers along x."""
        return self.length / (self.x1 - self.x0)

    @property
    def pieces(self) -> tuple[float, ...]:
        """Lengths from left to right."""
        ends = (self.x0, *self.butts, self.x1)
        return tuple((b - a) * self.stretch for a, b in pairwise(ends))

    def y(self, x: float) -> float:
        return self.y0 + (self.y1 - self.y0) * (x - self.x0) / (self.x1 - self.x0)


def plates_of(band: Band, line: Line) -> tuple[Plate, ...]:
    """Along one line of a storey, left to right; openings that touch it interrupt it, steps end it."""
    found: list[Plate] = []
    for one in _stretches(band, line):
        last = found[-1] if found else None
        if last is not None and _goes_on(last, one):
            found[-1] = replace(last, x1=one.x1, y1=one.y1)
        else:
            found.append(one)
    return tuple(found)


def _stretches(band: Band, line: Line) -> Iterator[Plate]:
    for one in band.slices:
        at = one.base if line == "bottom" else one.top
        taken = (_taken(each, one, line) for each in band.openings)
        gaps = sorted(gap for gap in taken if gap is not None)
        x = one.x0
        for a, b in [*gaps, (one.x1, one.x1)]:
            if a - x > NEAR:
                yield Plate(band=band.index, line=line, x0=x, y0=at(x), x1=a, y1=at(a))
            x = b


def _taken(opening: Opening, one: Slice, line: Line) -> tuple[float, float] | None:
    """What an opening takes of a line that it lies on."""
    a, b = max(opening.x, one.x0), min(opening.right, one.x1)
    edge, at = (opening.y, one.base) if line == "bottom" else (opening.top, one.top)
    on = b - a > NEAR and all(abs(at(x) - edge) <= NEAR for x in (a, b))
    return (a, b) if on else None


def _goes_on(a: Plate, b: Plate) -> bool:
    meets = abs(a.x1 - b.x0) <= NEAR and abs(a.y1 - b.y0) <= NEAR
    return meets and abs((a.y1 - a.y0) * (b.x1 - b.x0) - (b.y1 - b.y0) * (a.x1 - a.x0)) <= NEAR * a.length * b.length


def butted(
    plate: Plate, stock: float, joints: Sequence[float], clear: float, below: Sequence[float] = (), apart: float = 0.0
) -> Plate | NoPoint:
    """The plate out of pieces of stock, the fewest.

    Butt joints keep clear of joints between panels, and apart from those of the plate below.
    """
    if plate.length <= stock + NEAR:
        return plate
    reach = stock / plate.stretch
    blocked = [(x - clear - plate.x0, x + clear - plate.x0) for x in joints]
    blocked += [(x - apart - plate.x0, x + apart - plate.x0) for x in below]
    found = fewest_points(plate.x1 - plate.x0, end=reach, spacing=reach, step=_STEP, blocked=blocked)
    return found if isinstance(found, NoPoint) else replace(plate, butts=tuple(plate.x0 + x for x in found))
