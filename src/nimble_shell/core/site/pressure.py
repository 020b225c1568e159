"""Lateral pressure of fresh concrete on a form, by two stated schools, and what it leaves of rate and height.

Both are published design methods. The form's rated value is its supplier's; local codes and licensed people decide.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

from nimble_shell.core.shop.handling import G

Member = Literal["wall", "column"]
Governs = Literal["formula", "minimum", "hydrostatic"]
_NEAR = 1e-9
_B_RATE, _B_FAST, _B_HEIGHT = 2.1, 4.5, 4.2  #: where the second school changes its formula [m/h], [m/h], [m]
_LEAST = 30.0  #: pressure that the second school never goes below, times Cw [kPa]
_FASTEST = 1e6  #: no pour is faster [m/h]
_HALVINGS = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class SchoolA:
    """CIRIA Report 108, 3.1: a limit by rate and height of the form, or hydrostatic."""

    C1: float  #: by the section
    C2: float  #: by cement and admixtures


@dataclass(frozen=True, slots=True, kw_only=True)
class SchoolB:
    """ACI 347R-14, 4.2, in SI: by rate and temperature, with coefficients of weight and chemistry."""

    Cw: float
    Cc: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Pour:
    """One pour against one form."""

    school: SchoolA | SchoolB
    member: Member
    density: float  #: of fresh concrete [kg/m³]
    temperature: float  #: of it as placed [°C]
    form_height: float  #: [m]
    height: float  #: of the pour [m]
    rate: float  #: of rise [m/h]

    @property
    def unit_weight(self) -> float:
        """[kN/m³]"""
        return self.density * G / 1000

    @property
    def hydrostatic(self) -> float:
        """[kPa]"""
        return self.unit_weight * self.height


@dataclass(frozen=True, slots=True)
class Pressure:
    value: float  #: [kPa]
    governs: Governs


def pressure(pour: Pour) -> Pressure:
    """Greatest lateral pressure of a pour; where two govern alike, the hydrostatic one is named."""
    by = _school_a(pour, pour.school) if isinstance(pour.school, SchoolA) else _school_b(pour, pour.school)
    limit = pour.hydrostatic
    if by is None or by.value >= limit - _NEAR * max(1.0, limit):
        return Pressure(limit, "hydrostatic")
    return by


def _school_a(pour: Pour, school: SchoolA) -> Pressure | None:
    K = (36 / (pour.temperature + 16)) ** 2
    reach = school.C1 * math.sqrt(pour.rate)
    if reach >= pour.form_height:
        return None
    return Pressure(pour.unit_weight * (reach + school.C2 * K * math.sqrt(pour.form_height - reach)), "formula")


def _school_b(pour: Pour, school: SchoolB) -> Pressure | None:
    R, warm = pour.rate, pour.temperature + 17.8
    if pour.member == "column" or (R < _B_RATE and pour.height <= _B_HEIGHT):
        q = 7.2 + 785 * R / warm
    elif R <= _B_FAST:
        q = 7.2 + 1156 / warm + 244 * R / warm
    else:
        return None
    by, least = school.Cw * school.Cc * q, _LEAST * school.Cw
    return Pressure(by, "formula") if by >= least else Pressure(least, "minimum")


def greatest_rate(pour: Pour, rated: float) -> float | None:
    """Greatest rate of rise (its supremum) that a form takes; None where none is too fast, nought where none is kept.

    Parameters
    ----------
    rated : float
        Pressure the form is rated for, by its supplier. [kPa]
    """

    def fits(rate: float) -> bool:
        return pressure(replace(pour, rate=rate)).value <= rated + _NEAR

    if pour.hydrostatic <= rated + _NEAR:
        return None
    # Pressure does not fall with the rate within one formula; where the second school changes, it may.
    last = 0.0
    for low, high in _pieces(pour):
        last = max(last, _supremum(fits, low, high))
    return last


def _pieces(pour: Pour) -> list[tuple[float, float]]:
    """Rates over which one formula rises without a break, from just above the lower to the upper."""
    if isinstance(pour.school, SchoolB) and pour.member == "wall":
        return [(0.0, _B_RATE), (_B_RATE, _B_FAST), (_B_FAST, _FASTEST)]
    return [(0.0, _FASTEST)]


def _supremum(fits: Callable[[float], bool], low: float, high: float) -> float:
    """Of the rates between two that fit, as they do from the lower one up; nought where none does."""
    inside = low + (high - low) * 1e-12 if low else 1e-12
    if not fits(inside):
        return 0.0
    top = math.nextafter(high, low)
    if fits(top):
        return high
    for _ in range(_HALVINGS):
        middle = (inside + top) / 2
        if middle in (inside, top):
            break
        inside, top = (middle, top) if fits(middle) else (inside, middle)
    return inside


def least_temperature(pour: Pour, rated: float, coldest: float, warmest: float) -> float | None:
    """Coldest concrete (its infimum) whose pressure a form takes at this rate and height; None where none does. [°C]"""

    def fits(at: float) -> bool:
        return pressure(replace(pour, temperature=at)).value <= rated + _NEAR

    if not fits(warmest):
        return None
    low, high = coldest, warmest
    if fits(low):
        return low
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        if middle in (low, high):
            break
        low, high = (low, middle) if fits(middle) else (middle, high)
    return high


def greatest_height(pour: Pour, rated: float) -> float:
    """Greatest height of a pour (its supremum), up to the form's, that a form takes at this rate. [m]"""

    def fits(height: float) -> bool:
        return pressure(replace(pour, height=height)).value <= rated + _NEAR

    best = 0.0
    edges = sorted({0.0, min(_B_HEIGHT, pour.form_height), pour.form_height})
    for low, high in itertools.pairwise(edges):
        if fits(high):
            best = high
            continue
        inside = low + (high - low) * 1e-12
        if fits(inside):
            best = max(best, _supremum_height(fits, inside, high))
    return best


def _supremum_height(fits: Callable[[float], bool], inside: float, top: float) -> float:
    for _ in range(_HALVINGS):
        middle = (inside + top) / 2
        if middle in (inside, top):
            break
        inside, top = (middle, top) if fits(middle) else (inside, middle)
    return inside
