"""Concrete between insulating forms, flat or waffle."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shop.quantities.counts import whole

Turn = Literal["out", "in"] | None
CLOSES_WITHIN = 1.0  #: [mm]


@dataclass(frozen=True, slots=True, kw_only=True)
class Run:
    """Walls one after the other along the outer face, left to right seen from outside, corners square."""

    lengths: tuple[float, ...]  #: [mm]
    turns: tuple[Turn, ...]  #: at each wall's right end; None at the end of an open run
    closed: bool

    def check(self) -> None:
        """Raise DomainError where the run does not hang together."""
        for at, turn in enumerate(self.turns):
            last = at == len(self.turns) - 1
            if turn is None and not (last and not self.closed):
                raise _refused(("walls", at, "turn"), "no_turn", "a corner without a hand", "“out” or “in”")
        if not self.closed:
            return
        x = y = 0.0
        dx, dy = 1, 0
        for length, turn in zip(self.lengths, self.turns, strict=True):
            x, y = x + dx * length, y + dy * length
            dx, dy = (-dy, dx) if turn == "out" else (dy, -dx)
        gap = math.hypot(x, y)
        if gap > CLOSES_WITHIN or (dx, dy) != (1, 0):
            raise _refused(("walls",), "open_run", f"the run does not close: {gap:g} mm are left",
                           "mend a length or a corner, or “closed”: false")  # fmt: skip

    def centre_line(self, depth: float) -> float:
        """Along a line that lies so deep behind the outer face. [mm]"""
        corners = self.turns if self.closed else self.turns[:-1]
        return sum(self.lengths) + 2 * depth * (corners.count("in") - corners.count("out"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Waffle:
    """Ribs both ways behind a thin web. [mm]"""

    a: float  #: pitch of the vertical ribs
    b: float  #: of the horizontal ones
    web: float
    v: tuple[float, float]  #: width and thickness of the vertical ribs
    h: tuple[float, float]

    @property
    def thickness(self) -> float:
        """Of a flat wall with as much concrete; ribs that cross are counted once, with the thicker one."""
        (vw, vt), (hw, ht) = self.v, self.h
        ribs = (vt - self.web) * vw * self.b + (ht - self.web) * hw * self.a
        return self.web + (ribs - (min(vt, ht) - self.web) * vw * hw) / (self.a * self.b)


@dataclass(frozen=True, slots=True, kw_only=True)
class Concrete:
    """What is poured."""

    centre: float  #: [mm]
    net: float  #: of the core's centre plane [mm²]
    volume: float  #: [m³]
    order: float
    trucks: int


def concrete(run: Run, height: float, foam_out: float, core: float, openings: Sequence[tuple[float, float, int]],
             waste: float, truck: float, waffle: Waffle | None = None) -> Concrete:  # fmt: skip
    """Concrete of a run of walls.

    Parameters
    ----------
    openings : sequence of (w, h, count)
        [mm]
    truck : float
        [m³]
    """
    centre = run.centre_line(foam_out + core / 2)
    net = centre * height - sum(w * h * count for w, h, count in openings)
    if net < 0:
        raise _refused(("openings",), "too_large", "the openings are larger than the wall", "check their sizes")
    volume = net * (core if waffle is None else waffle.thickness) * 1e-9
    order = volume * (1 + waste)
    return Concrete(centre=centre, net=net, volume=volume, order=order, trucks=whole(order / truck))


def _refused(path: tuple[str | int, ...], code: str, message: str, hint: str) -> DomainError:
    return DomainError(Issue(path=path, code=code, message=message, hint=hint))
