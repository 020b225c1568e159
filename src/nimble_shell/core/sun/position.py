"""The sun's place in the sky, by Spencer's series for the day."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
_MONTH_LENGTHS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)


@dataclass(frozen=True, slots=True, kw_only=True)
class Day:
    """A day of a year of 365."""

    month: int
    day: int

    @property
    def number(self) -> int:
        """From 1 (1 January) to 365."""
        return date(2001, self.month, self.day).timetuple().tm_yday


def days_in(month: int) -> int:
    """Days of a month, from 1; February has 28."""
    return _MONTH_LENGTHS[month - 1]


def declination(day: Day) -> float:
    """Latitude over which the sun stands on a day. [rad]

    References
    ----------
    .. [1] J. W. Spencer, Fourier series representation of the position of the sun, 1971.
    """
    g = _angle(day)
    return (
        0.006918 - 0.399912 * math.cos(g) + 0.070257 * math.sin(g) - 0.006758 * math.cos(2 * g)
        + 0.000907 * math.sin(2 * g) - 0.002697 * math.cos(3 * g) + 0.00148 * math.sin(3 * g)
    )  # fmt: skip


def equation_of_time(day: Day) -> float:
    """How far the sun is ahead of the mean clock. [min]"""
    g = _angle(day)
    return 229.18 * (
        0.0000075 + 0.001868 * math.cos(g) - 0.032077 * math.sin(g) - 0.014615 * math.cos(2 * g)
        - 0.040849 * math.sin(2 * g)
    )  # fmt: skip


def _angle(day: Day) -> float:
    return 2 * math.pi * (day.number - 1) / 365


@dataclass(frozen=True, slots=True, kw_only=True)
class Clock:
    """The time people read, and where."""

    longitude: float  #: east positive [°]
    utc_offset: float  #: [h]


def solar_time(day: Day, hour: float, clock: Clock | None = None) -> float:
    """Solar time of an hour by a clock; the hour itself where none is given. [h]"""
    if clock is None:
        return hour
    return hour - clock.utc_offset + clock.longitude / 15 + equation_of_time(day) / 60


@dataclass(frozen=True, slots=True)
class Sun:
    """Where it stands at one or many moments. [rad]"""

    altitude: FloatArray
    azimuth: FloatArray  #: from north, clockwise, 0…2π


def sun_at(latitude: float, day: Day, solar: FloatArray | float) -> Sun:
    """Altitude and azimuth of the sun.

    Parameters
    ----------
    latitude : float
        North positive. [°]
    day : Day
    solar : float or array
        Solar time. [h]

    Notes
    -----
    No refraction; the declination is that of the day throughout.
    """
    phi, delta = math.radians(latitude), declination(day)
    omega = np.radians(15.0 * (np.asarray(solar, dtype=float) - 12.0))
    sin_h = math.sin(phi) * math.sin(delta) + math.cos(phi) * math.cos(delta) * np.cos(omega)
    east = -math.cos(delta) * np.sin(omega)
    north = math.sin(delta) * math.cos(phi) - math.cos(delta) * math.sin(phi) * np.cos(omega)
    return Sun(np.arcsin(np.clip(sin_h, -1.0, 1.0)), np.mod(np.arctan2(east, north), 2 * np.pi))


@dataclass(frozen=True, slots=True)
class OnPlane:
    """The sun seen from a plane."""

    cos: FloatArray  #: of its incidence
    gamma: FloatArray  #: its azimuth less that of the plane [rad]
    on: NDArray[np.bool_]  #: whether it shines on the plane


def on_plane(sun: Sun, azimuth: float | FloatArray, tilt: float | FloatArray = 90.0) -> OnPlane:
    """Incidence of the sun on a plane.

    Parameters
    ----------
    sun : Sun
    azimuth, tilt : float or array
        Of the plane's outward normal; tilt 0 faces up, 90 is a wall. Of several planes at once a column of each. [°]
    """
    gamma = sun.azimuth - np.radians(azimuth)
    beta = np.radians(tilt)
    upright = np.where(np.asarray(tilt) == 90.0, 0.0, np.cos(beta))
    cos = np.sin(sun.altitude) * upright + np.cos(sun.altitude) * np.sin(beta) * np.cos(gamma)
    return OnPlane(cos, gamma, (sun.altitude > 0) & (cos > 0))
