"""A clear hot day that repeats itself: the load of a room held at its set-point, and its temperature left alone.

It is exact for plane layers and constant films and has nothing to tune. What it simplifies: one room temperature,
films that join radiation and convection, sensible heat alone.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.loads.periodic_walls import MassWall, answers
from nimble_shell.core.sun.clear_sky import ClearSky, Irradiance, irradiance
from nimble_shell.core.sun.overhang import Overhang, SunWindow, shaded
from nimble_shell.core.sun.position import Day, Sun, on_plane, sun_at
from nimble_shell.core.working import Derivation, Num, derive, named, traced, value_of

FloatArray = NDArray[np.float64]
HOURS = 24
AIR = 3.0  #: q/3 W/K for q in m³/h


@dataclass(frozen=True, slots=True, kw_only=True)
class DayElement:
    """A wall, roof, floor or partition."""

    id: str
    A: float  #: [m²]
    wall: MassWall
    beyond: Literal["outside", "adiabatic"] | float = "outside"  #: or a temperature [°C]
    azimuth: float = 0.0  #: [°]
    tilt: float = 90.0
    alpha: float = 0.0  #: of the sun, at its outer side
    sky_loss: float = 0.0  #: to a clear sky [W/m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class DayWindow:
    """Units that are alike."""

    id: str
    A: float  #: [m²]
    U: float  #: [W/(m²·K)]
    g: float
    F_F: float  #: glass of the whole
    F_w: float = 0.9  #: for the sun's slant
    F_c: float = 1.0  #: of a shade
    azimuth: float = 0.0
    tilt: float = 90.0
    w: float = 1.0  #: of one [m]
    h: float = 1.0
    overhang: Overhang | None = None  #: of upright ones


@dataclass(frozen=True, slots=True, kw_only=True)
class SunnyDay:
    """Which day, and where."""

    latitude: float  #: [°]
    day: Day
    sky: ClearSky = field(default_factory=ClearSky)


@dataclass(frozen=True, slots=True, kw_only=True)
class CoolingCase:
    """A room or building on that day, at the full hours of solar time."""

    theta_i: float  #: [°C]
    theta_e: tuple[float, ...]  #: 24 values [°C]
    elements: tuple[DayElement, ...]
    windows: tuple[DayWindow, ...] = ()
    sun: SunnyDay | None = None
    q_air: float = 0.0  #: [m³/h]
    convective: tuple[float, ...] = (0.0,) * HOURS  #: [W]
    radiant: tuple[float, ...] = (0.0,) * HOURS  #: [W]


@dataclass(frozen=True, slots=True, kw_only=True)
class CoolingFigures:
    """What it comes to, each of 24 hours."""

    load: FloatArray  #: to be taken away [W]
    parts: Mapping[str, FloatArray]  #: of it, by what brings it [W]
    solar: FloatArray  #: through windows [W]
    free: FloatArray  #: temperature of the room left alone [°C]
    Y: NDArray[np.complex128]  #: heat that the room lets go of for its mean and each harmonic [W/K]
    hour: int  #: of the greatest load

    @property
    def peak(self) -> float:
        return float(self.load[self.hour])

    @property
    def mean(self) -> float:
        return float(self.load.mean())


def swing(mean: float, amplitude: float, hour_max: float) -> tuple[float, ...]:
    """A day's temperature as a cosine. [°C]"""
    hours = np.arange(HOURS)
    return tuple(float(one) for one in mean + amplitude * np.cos(2 * np.pi * (hours - hour_max) / HOURS))


def cooling_day(case: CoolingCase) -> CoolingFigures:
    """Load of a room held at its set-point, and its temperature left alone, on a day that repeats itself.

    Raises
    ------
    DomainError
        If an element has no resistance, radiant gains have nothing to fall on, or heat no way out.

    Notes
    -----
    Every course of 24 values becomes a mean and twelve harmonics; each element answers each of them by its own
    matrices. Radiant gains (of the sun, too) fall on the elements by their areas, and reach the room late.

    References
    ----------
    .. [1] ISO 13786:2017, 7: layer matrices. ISO 52016-1:2017 for sol-air temperatures and gains of windows.
    """
    if not case.elements:
        raise DomainError(Issue(path=("elements",), code="no_elements", message="gains have no element to fall on",
                                hint="at least one wall, floor or roof"))  # fmt: skip
    light = _Light(case)
    known = answers([one.wall for one in case.elements])
    areas = np.array([one.A for one in case.elements])
    theta_e = np.array(case.theta_e)
    solar = {one.id: _solar(one, light) for one in case.windows}
    K = case.q_air / AIR + sum(one.A * one.U for one in case.windows)
    Y = areas @ known.Y_ii
    Y[0] += K
    Y[1:] += K
    if Y[0].real <= 0:
        raise DomainError(Issue(path=("elements",), code="no_way_out", message="heat has no way out of the room",
                                hint="an element to the outside, a window, or air"))  # fmt: skip
    reaching = (areas / areas.sum()) @ known.F
    parts = {}
    for one, Y_ie in zip(case.elements, known.Y_ie, strict=True):
        parts[one.id] = one.A * (_element(one, Y_ie, theta_e, light) - case.theta_i * Y_ie[0].real)
    for window in case.windows:
        parts[window.id] = window.A * window.U * (theta_e - case.theta_i) + _back(
            reaching * np.fft.rfft(solar[window.id])
        )
    parts["air"] = case.q_air / AIR * (theta_e - case.theta_i)
    parts["convective gains"] = np.array(case.convective)
    parts["radiant gains"] = _back(reaching * np.fft.rfft(case.radiant))
    load = np.sum(list(parts.values()), axis=0)
    held = case.theta_i * Y[0].real  # the load is what comes into a room at 0 °C, less what the set-point drives out
    free = _back(np.fft.rfft(load + held) / Y)
    sunshine = np.sum(list(solar.values()), axis=0) if solar else np.zeros(HOURS)
    return CoolingFigures(load=load, parts=parts, solar=sunshine, free=free, Y=Y,
                          hour=int(np.argmax(load)))  # fmt: skip


def _back(harmonics: NDArray[np.complex128]) -> FloatArray:
    """At the full hours; of the twelfth harmonic the real part stays."""
    return np.fft.irfft(harmonics, HOURS)


def _element(one: DayElement, Y_ie: NDArray[np.complex128], theta_e: FloatArray, light: _Light) -> FloatArray:
    """Heat that it brings into a room at 0 °C. [W/m²]"""
    if one.beyond == "adiabatic":
        return np.zeros(HOURS)
    if one.beyond != "outside":
        return np.full(HOURS, one.beyond / one.wall.R)
    sunny = light.on(one.azimuth, one.tilt)
    sol_air = theta_e + one.wall.Rse * (one.alpha * (sunny.beam + sunny.rest) - one.sky_loss)
    return _back(Y_ie * np.fft.rfft(sol_air))


def _solar(one: DayWindow, light: _Light) -> FloatArray:
    """Sun through it. [W]"""
    sunny = light.on(one.azimuth, one.tilt)
    lit = light.lit(one)
    return one.A * one.F_F * one.F_w * one.g * one.F_c * (lit * sunny.beam + sunny.rest)


class _Light:
    """The day's sun at the full hours, on all planes of a building at once."""

    def __init__(self, case: CoolingCase) -> None:
        self._sun: Sun | None = None
        self._planes: dict[tuple[float, float], Irradiance] = {}
        sunny = case.sun
        if sunny is None:
            return
        self._sun = sun_at(sunny.latitude, sunny.day, np.arange(HOURS, dtype=float))
        parts: tuple[DayElement | DayWindow, ...] = (*case.elements, *case.windows)
        planes = list(dict.fromkeys((one.azimuth, one.tilt) for one in parts))
        azimuth, tilt = (np.array(column, dtype=float)[:, None] for column in zip(*planes, strict=True))
        light = irradiance(sunny.sky, self._sun, on_plane(self._sun, azimuth, tilt), tilt)
        self._planes = {plane: Irradiance(light.beam[at], light.rest[at]) for at, plane in enumerate(planes)}

    def on(self, azimuth: float, tilt: float) -> Irradiance:
        return self._planes.get((azimuth, tilt)) or Irradiance(np.zeros(HOURS), np.zeros(HOURS))

    def lit(self, one: DayWindow) -> FloatArray:
        """Share of it in the sun; the beam of a moment without any is 0."""
        if self._sun is None or one.overhang is None or one.tilt != 90.0:
            return np.ones(HOURS)
        plane = on_plane(self._sun, one.azimuth)
        window = SunWindow(azimuth=one.azimuth, w=one.w, h=one.h, overhang=one.overhang)
        return np.where(plane.on, 1 - shaded(window, self._sun, plane), 0.0)


def peak_working(figures: CoolingFigures, A_F: float, rule: float | None = None) -> dict[str, Derivation]:
    """Working of the greatest load: what brings it at that hour, part by part.

    Parameters
    ----------
    figures : CoolingFigures
    A_F : float
        Floor. [m²]
    rule : float, optional
        By floor area. [W/m²]
    """
    at = f"{figures.hour}:00 solar time"
    parts: list[Num] = [
        traced(
            float(hours[figures.hour]), f"Phi_{n}", name, "W", f"at {at}: mean and twelve harmonics, ISO 13786:2017, 7"
        )
        for n, (name, hours) in enumerate(figures.parts.items(), 1)
    ]
    peak = named(sum(parts, 0.0), "Phi_peak", f"greatest load, at {at}", "W", "Σ of its parts at that hour")
    floor = traced(A_F, "A_F", "floor", "m²", "of the shape, or entered")
    found = {"peak": peak, "per_area": named(peak / floor, "phi_peak", "greatest load over the floor", "W/m²", "Φ/A_F")}
    if rule is not None:
        whole = named(traced(rule, "rule", "rule by floor area", "W/m²", "entered") * floor, "Phi_rule",
                      "the same by the rule", "W", "rule·A_F")  # fmt: skip
        found["rule_total"] = whole
        if value_of(peak) > 0:
            found["ratio"] = named(whole / peak, "ratio", "rule over load", "", "Φ_rule/Φ")
    return {name: derive(one) for name, one in found.items()}
