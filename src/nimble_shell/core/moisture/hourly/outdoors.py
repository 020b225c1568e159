"""A year of hours on both sides of an element, from the months of the Basis: air, sun, sky, rain and room."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.climate import hourly_temperature
from nimble_shell.core.climate.invented import HOURS, MONTH_DAYS
from nimble_shell.core.climate.saturation import p_sat_of
from nimble_shell.core.errors import Collector
from nimble_shell.core.moisture.monthly.element import below_floor, months_of
from nimble_shell.core.quantities.sentence import sentence

FloatArray = NDArray[np.float64]
_SOLAR = 1361.0  #: [W/m²]
_HARGREAVES = 0.16  #: of the clearness with the root of the daily range, inland [K^-0.5]
_ALBEDO = 0.2
_SKY = 11.0  #: air less sky, ISO 52016-1:2017, table B.19 [K]
_H_R = 4.6 * 0.9  #: long-wave transfer of a dull surface [W/(m²·K)]
_HUMIDEST = 0.99
_EVENT, _EVERY = 12, 120  #: hours of rain, and from one rain to the next


@dataclass(frozen=True, slots=True, kw_only=True)
class Exposure:
    """How an element stands in its weather."""

    azimuth: float = 0.0  #: that it faces, 0 north, 90 east [°]
    tilt: float = 90.0  #: 0 lies and looks up, 90 stands [°]
    absorptance: float = 0.6  #: of its outer surface for the sun, 0…1
    rain: float = 0.0  #: that its outer surface takes up in a year [kg/m²]
    ground: bool = False  #: the ground is outside, not air

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 <= self.azimuth <= 360, ("azimuth",), "azimuth_out_of_range", f"azimuth is {self.azimuth:g}°",
                    "from 0, north, over 90, east, to 360°")  # fmt: skip
        check.check(0 <= self.tilt <= 180, ("tilt",), "tilt_out_of_range", f"tilt is {self.tilt:g}°",
                    "0 looks up, 90 stands, 180 looks down")  # fmt: skip
        check.check(0 <= self.absorptance <= 1, ("absorptance",), "absorptance_out_of_range",
                    f"absorptance is {self.absorptance:g}", "from 0 to 100 %")  # fmt: skip
        check.check(
            0 <= self.rain <= 2000,
            ("rain",),
            "rain_out_of_range",
            sentence("rain is {v1}", v1=(self.rain, "surface_mass")),
            sentence("from 0 to {v1} a year", v1=(2000.0, "surface_mass")),
        )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Outdoors:
    """Hours of a year from 1 January, shape (8760,)."""

    theta_air: FloatArray  #: [°C]
    theta_e: FloatArray  #: of what the outer surface exchanges heat with, sun and sky in it [°C]
    p_e: FloatArray  #: [Pa]
    theta_i: FloatArray  #: [°C]
    p_i: FloatArray  #: [Pa]
    sun: FloatArray  #: on the element [W/m²]
    rain: FloatArray  #: taken up [kg/(m²·s)]


def outdoors(basis: Basis, exposure: Exposure, R_se: float) -> Outdoors:
    """A year of hours.

    Parameters
    ----------
    basis : Basis
    exposure : Exposure
    R_se : float
        Of its outer surface. [m²·K/W]

    Notes
    -----
    Temperatures are the Basis' months with their daily range and scatter; the vapour pressures of both airs are those
    of the months joined by straight lines, the outside's at most 99 % of saturation. Clearness of the sky from the
    daily range of temperature [1]_, diffuse share by clearness [2]_, the sky equally bright all over; the sky is 11 K
    colder than the air. Rain falls in twelve of each 120 hours.

    References
    ----------
    .. [1] Hargreaves and Samani, as in FAO Irrigation and Drainage Paper 56, eq. 50.
    .. [2] Erbs, Klein and Duffie (1982), hourly correlation.
    """
    months = months_of(basis)
    air = hourly_temperature(basis.climate)
    p_e = np.minimum(_joined([m.p_e for m in months]), _HUMIDEST * saturation(air))
    room = _joined([m.theta_i for m in months])
    p_i = np.minimum(_joined([m.p_i for m in months]), _HUMIDEST * saturation(room))
    rain = np.zeros(HOURS)
    if exposure.ground:
        ground = _joined(list(below_floor(basis.climate.theta_e)))
        return Outdoors(theta_air=ground, theta_e=ground, p_e=_HUMIDEST * saturation(ground), theta_i=room, p_i=p_i,
                        sun=np.zeros(HOURS), rain=rain)  # fmt: skip
    sun = sun_on(basis, exposure)
    seen = (1 + np.cos(np.radians(exposure.tilt))) / 2
    theta_e = air + (exposure.absorptance * sun - seen * _H_R * _SKY) * R_se
    if exposure.rain:
        wet = np.arange(HOURS) % _EVERY < _EVENT
        rain = np.where(wet, exposure.rain / wet.sum() / 3600, 0.0)
    return Outdoors(theta_air=air, theta_e=theta_e, p_e=p_e, theta_i=room, p_i=p_i, sun=sun, rain=rain)


def sun_on(basis: Basis, exposure: Exposure) -> FloatArray:
    """Global radiation on a plane, hour by hour in solar time. [W/m²]"""
    hour = np.arange(HOURS) + 0.5
    day = hour // 24
    declination = np.radians(23.45) * np.sin(2 * np.pi * (284 + day + 1) / 365)
    angle = np.radians(15 * (hour % 24 - 12))  # of the hour, west positive
    latitude = np.radians(basis.site.latitude)
    up = np.sin(latitude) * np.sin(declination) + np.cos(latitude) * np.cos(declination) * np.cos(angle)
    beyond = _SOLAR * (1 + 0.033 * np.cos(2 * np.pi * (day + 1) / 365)) * np.maximum(up, 0)
    clear = np.clip(_HARGREAVES * np.sqrt(_stepped(basis.climate.swing)), 0.2, 0.75)
    level = clear * beyond
    diffuse = level * np.where(
        clear <= 0.22,
        1 - 0.09 * clear,
        np.where(clear <= 0.80, 0.9511 - 0.1604 * clear + 4.388 * clear**2 - 16.638 * clear**3 + 12.336 * clear**4,
                 0.165),
    )  # fmt: skip
    # East, north and up of the sun, and of the plane's normal.
    east = -np.cos(declination) * np.sin(angle)
    north = np.cos(latitude) * np.sin(declination) - np.sin(latitude) * np.cos(declination) * np.cos(angle)
    tilt, azimuth = np.radians(exposure.tilt), np.radians(exposure.azimuth)
    normal = np.sin(tilt) * np.sin(azimuth), np.sin(tilt) * np.cos(azimuth), np.cos(tilt)
    onto = np.maximum(east * normal[0] + north * normal[1] + up * normal[2], 0)
    beam = np.where(up > 0.05, (level - diffuse) * onto / np.maximum(up, 0.05), 0.0)
    seen = (1 + np.cos(tilt)) / 2
    return np.asarray(beam + diffuse * seen + level * _ALBEDO * (1 - seen), dtype=float)


def saturation(theta: FloatArray) -> FloatArray:
    """Over a table, linear between steps of 0.1 K; within 0.01 %. [Pa]"""
    steps = np.arange(-100.0, 121.0, 0.1)
    return np.interp(theta, steps, p_sat_of(steps))


def _joined(values: list[float]) -> FloatArray:
    """Months joined by straight lines through their middles."""
    ends = np.cumsum((0, *MONTH_DAYS)) * 24
    return np.asarray(np.interp(np.arange(HOURS) + 0.5, (ends[:-1] + ends[1:]) / 2, values, period=HOURS))


def _stepped(values: tuple[float, ...]) -> FloatArray:
    return np.repeat(np.array(values), 24 * np.array(MONTH_DAYS))
