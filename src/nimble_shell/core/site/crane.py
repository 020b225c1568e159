"""What a crane's entered table, the wind and people allow, and the force that turns a panel upright."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.shop.handling import G


@dataclass(frozen=True, slots=True)
class CraneUse:
    """At one radius."""

    load: float  #: on the hook, rigging with it [kg]
    capacity: float | None  #: None outside of the table [kg]
    use: float | None
    max_radius: float | None  #: greatest one of the table that takes the load; None where none does [m]
    ok: bool


def crane_use(table: Sequence[tuple[float, float]], radius: float, load: float) -> CraneUse:
    """Against the crane's own table, linear between its rows. [m, kg]"""
    capacity = _between(table, radius)
    use = load / capacity if capacity else None
    return CraneUse(load, capacity, use, _reach(table, load), capacity is not None and load <= capacity + 1e-9)


def _between(table: Sequence[tuple[float, float]], radius: float) -> float | None:
    if not table or not table[0][0] - 1e-9 <= radius <= table[-1][0] + 1e-9:
        return None
    for (r0, m0), (r1, m1) in itertools.pairwise(table):
        if radius <= r1 + 1e-9:
            return m0 + (m1 - m0) * (radius - r0) / (r1 - r0)
    return table[0][1]


def _reach(table: Sequence[tuple[float, float]], load: float) -> float | None:
    if not table or table[0][1] < load - 1e-9:
        return None
    for (r0, m0), (r1, m1) in itertools.pairwise(table):
        if m1 < load - 1e-9:
            return r0 + (r1 - r0) * (m0 - load) / (m0 - m1)
    return table[-1][0]


def wind_force(area: float, speed: float, cf: float, rho: float) -> float:
    """On an area. [m², m/s, -, kg/m³] → [N]"""
    return 0.5 * rho * speed**2 * cf * area


def speed_at(limit: float, area: float, cf: float, rho: float) -> float | None:
    """Wind that comes to a force; None where none does. [N] → [m/s]"""
    return math.sqrt(2 * limit / (rho * cf * area)) if cf * area > 0 else None


def turning(load: float, centre: tuple[float, float], pick: tuple[float, float], angle: float) -> float:
    """Pull of an upright hoist at a pick that holds a panel at an angle about its pivot.

    Parameters
    ----------
    load : float
        Weight force. [N]
    centre, pick : (float, float)
        y and z from the pivot. [mm]
    angle : float
        0 flat, 90 upright. [°]
    """
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    return load * (centre[0] * c - centre[1] * s) / (pick[0] * c - pick[1] * s)


def people(mass: float, each: float, least: int) -> int:
    """That carry it."""
    return max(least, math.ceil(mass / each - 1e-9))


def weight_force(mass: float, dynamic: float) -> float:
    """[N]"""
    return mass * dynamic * G
