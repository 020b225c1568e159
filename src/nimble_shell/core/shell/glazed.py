"""The windows of a building by where they look: what their share makes of a wall, what sun an overhang lets in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nimble_shell.core.shell.hot_day import Facing, Pane
from nimble_shell.core.shell.ledger import ShellLedger
from nimble_shell.core.shell.plant import Loads
from nimble_shell.core.sun.clear_sky import ClearSky
from nimble_shell.core.sun.overhang import BestDepth, Overhang, SunWindow, best_depth, shaded, sun_day
from nimble_shell.core.sun.position import Day, on_plane, sun_at
from nimble_shell.core.transmission.glazing import GlazedWall, resistance_at, share_at
from nimble_shell.core.working import value_of

SHARES = tuple(n / 20 for n in range(13))  #: that are drawn, 0…60 %
_HALF = 15.0  #: walls within this of one another look one way [°]
SUMMER, WINTER = (7, 8), (12, 1)  #: months north of the equator
_EXTEND = 0.5  #: of an overhang beyond the sides [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Orientation:
    """Walls that look one way with their windows; the whole building where `azimuth` is None."""

    azimuth: float | None  #: from north [°]
    A: float  #: gross [m²]
    share: float  #: glazed
    R: float | None  #: whole wall as it is, with its windows and their setting [m²·K/W]
    R_opaque: float  #: without any window, with the seams of the walls [m²·K/W]
    curve: tuple[float, ...]  #: R at SHARES
    break_even: float | None  #: share at which it is as the plain framed wall; None where none is
    unit: str  #: type that is put in again and again; the largest of them


@dataclass(frozen=True, slots=True, kw_only=True)
class Shading:
    """Sun on the windows that look one way, under the overhang."""

    azimuth: float
    area: float  #: [m²]
    hours: tuple[tuple[float | None, ...], ...]  #: lit share of the window, by month and hour; None without sun on it
    summer: float | None  #: share of the beam that is let in on clear days of summer
    winter: float | None
    best: BestDepth  #: of an endless plate: all shade at noon on 1 July, all sun at noon on 21 December


def orientations(
    facings: Sequence[Facing], panes: Sequence[Pane], ledger: ShellLedger, R_plain: float
) -> list[Orientation]:
    """Every way that walls look, and the building.

    Parameters
    ----------
    facings, panes : sequence
        Of a building.
    ledger : ShellLedger
        U of its walls, and ψ of what is round its windows.
    R_plain : float
        Of the plain framed wall that it is compared with. [m²·K/W]
    """
    U = {line.element_id: value_of(line.U) for line in ledger.lines if line.U is not None}
    walls = [one for one in facings if one.tilt == 90.0 and one.to == "outside" and one.element in U]
    psi, seams = _setting(ledger, panes), _seams(ledger, walls)
    U = {key: one + seams for key, one in U.items()}
    groups: list[float] = []
    for one in sorted({one.azimuth for one in walls}):
        if not any(_apart(one, other) <= _HALF for other in groups):
            groups.append(one)
    found = [
        _orientation(
            azimuth,
            [one for one in walls if _apart(one.azimuth, azimuth) <= _HALF],
            [one for one in panes if one.tilt == 90.0 and _apart(one.azimuth, azimuth) <= _HALF],
            U,
            psi,
            R_plain,
        )
        for azimuth in groups
    ]
    return (
        [*found, _orientation(None, walls, [one for one in panes if one.tilt == 90.0], U, psi, R_plain)]
        if walls
        else []
    )


def _apart(a: float, b: float) -> float:
    return abs((a - b + 180) % 360 - 180)


def _setting(ledger: ShellLedger, panes: Sequence[Pane]) -> float:
    """Mean ψ round the windows, by their perimeter. [W/(m·K)]"""
    around = sum(2 * (one.w + one.h) * one.n for one in panes)
    lost = sum(value_of(one.H) for one in ledger.joints if one.station == "E" and one.H is not None and not one.point)
    return lost / around if around else 0.0


def _seams(ledger: ShellLedger, walls: Sequence[Facing]) -> float:
    """What seams and corners add to each area of the walls, whose splines are theirs once solved. [W/(m²·K)]"""
    area = sum(one.area for one in walls)
    lost = sum(value_of(one.H) for one in ledger.joints if one.station == "D" and one.H is not None)
    return lost / area if area else 0.0


def _orientation(
    azimuth: float | None,
    walls: Sequence[Facing],
    panes: Sequence[Pane],
    U: dict[str, float],
    psi: float,
    R_plain: float,
) -> Orientation:
    opaque, glass = sum(one.area for one in walls), sum(one.area for one in panes)
    A = opaque + glass
    U_wall = sum(one.area * U[one.element] for one in walls) / opaque
    largest = max(panes, key=lambda one: one.area, default=None)
    U_w = sum(one.area * one.U for one in panes) / glass if glass else (largest.U if largest else 1.0)
    wall = GlazedWall(
        A=A, U_wall=U_wall, w=largest.w if largest else 1.2, h=largest.h if largest else 1.3, U_w=U_w, psi=psi
    )
    H = opaque * U_wall + sum(one.area * one.U + 2 * (one.w + one.h) * one.n * psi for one in panes)
    even = share_at(wall, R_plain)
    return Orientation(
        azimuth=azimuth,
        A=A,
        share=glass / A,
        R=A / H if H > 0 else None,
        R_opaque=1 / U_wall,
        curve=tuple(value_of(resistance_at(wall, one)) for one in SHARES),
        break_even=None if even is None else value_of(even),
        unit=largest.unit if largest else "",
    )


def shadings(panes: Sequence[Pane], loads: Loads, latitude: float) -> list[Shading]:
    """Of every way that upright windows look, by their largest one."""
    by: dict[float, list[Pane]] = {}
    for one in panes:
        if one.tilt == 90.0:
            by.setdefault(one.azimuth, []).append(one)
    found = []
    for azimuth, some in sorted(by.items()):
        largest = max(some, key=lambda one: one.w * one.h)
        hours, summer, winter, best = _shading(
            azimuth, largest.w, largest.h, loads.overhang, loads.overhang_gap, latitude
        )
        found.append(
            Shading(
                azimuth=azimuth,
                area=sum(one.area for one in some),
                hours=hours,
                summer=summer,
                winter=winter,
                best=best,
            )
        )
    return found


@lru_cache(maxsize=512)
def _shading(
    azimuth: float, w: float, h: float, depth: float, gap: float, latitude: float
) -> tuple[tuple[tuple[float | None, ...], ...], float | None, float | None, BestDepth]:
    window = SunWindow(azimuth=azimuth, w=w, h=h, overhang=Overhang(depth=depth, gap=gap, extend=_EXTEND))
    hours = tuple(_lit(window, latitude, month) for month in range(1, 13))
    summer, winter = (SUMMER, WINTER) if latitude >= 0 else (WINTER, SUMMER)
    noon, low = ((7, 1), (12, 21)) if latitude >= 0 else ((1, 1), (6, 21))
    best = best_depth(window, latitude, (Day(month=noon[0], day=noon[1]), 12.0), (Day(month=low[0], day=low[1]), 12.0))
    return hours, _let_in(window, latitude, summer), _let_in(window, latitude, winter), best


def _lit(window: SunWindow, latitude: float, month: int) -> tuple[float | None, ...]:
    sun = sun_at(latitude, Day(month=month, day=15), np.arange(24, dtype=np.float64) + 0.5)
    plane = on_plane(sun, window.azimuth)
    lit = 1 - shaded(window, sun, plane)
    return tuple(float(lit[n]) if plane.on[n] else None for n in range(24))


def _let_in(window: SunWindow, latitude: float, months: tuple[int, ...]) -> float | None:
    """Share of the beam of clear days that reaches the glass."""
    days = [sun_day(window, latitude, Day(month=month, day=15), ClearSky()) for month in months]
    H = sum(one.H_beam for one in days)
    return sum(one.H_beam * (one.beam_share or 0.0) for one in days) / H if H > 0 else None
