"""A level plate above a window, and what of the window its shadow covers."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.sun.clear_sky import ClearSky, irradiance
from nimble_shell.core.sun.position import Day, OnPlane, Sun, on_plane, sun_at

FloatArray = NDArray[np.float64]
MINUTES = 2  #: looks at the sun in each minute of a day
INFINITE = math.inf


@dataclass(frozen=True, slots=True, kw_only=True)
class Overhang:
    """A plate."""

    depth: float  #: how far it stands out [m]
    gap: float  #: above the head of the window [m]
    extend: float = 0.0  #: beyond both sides of the window, `INFINITE` without ends [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class SunWindow:
    """A window as the sun sees it."""

    azimuth: float  #: its outward normal, from north clockwise [°]
    w: float  #: [m]
    h: float
    overhang: Overhang | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class SunMoment:
    """The sun at a window. [°]; None where none is on it."""

    incidence: float
    profile: float | None  #: its altitude in the plane square to the window
    shaded: float | None  #: share of the window in the shadow, 0…1


@dataclass(frozen=True, slots=True, kw_only=True)
class SunDay:
    """A clear day at a window."""

    sun_hours: float  #: with the sun on it [h]
    lit_hours: float  #: the same, by the share that is lit [h]
    H_beam: float  #: without the overhang [Wh/m²]
    H_diffuse: float  #: from the sky and off the ground [Wh/m²]
    beam_share: float | None  #: that the overhang lets in, 0…1; None without any


@dataclass(frozen=True, slots=True, kw_only=True)
class BestDepth:
    """What an endless plate may and must have."""

    d_min: float  #: that shades the whole window at one moment [m]
    d_max: float | None  #: that leaves it whole in the sun at another; None if there is no sun then [m]
    feasible: bool


def shaded(window: SunWindow, sun: Sun, plane: OnPlane) -> FloatArray:
    """Share of a window that its overhang shades, 0…1; it is asked of moments with the sun on the window alone.

    Notes
    -----
    The plate's outer edge falls depth·tan h/cos γ below it and depth·tan γ aside, so that the shadow is a
    parallelogram. At a drop y below the plate its side has moved k·y with k = |sin γ|/tan h; what is open
    beside it, clipped to the window's width, is integrated over the drop in closed form.
    """
    plate = window.overhang
    if plate is None or plate.depth <= 0:
        return np.zeros_like(sun.altitude)
    tan_h = np.maximum(np.tan(sun.altitude), 1e-12)
    drop = plate.depth * tan_h / np.maximum(np.cos(plane.gamma), 1e-12)
    top, bottom = plate.gap, np.clip(drop, plate.gap, plate.gap + window.h)
    covered = window.w * (bottom - top)
    if math.isfinite(plate.extend):
        k = np.abs(np.sin(plane.gamma)) / tan_h
        safe = np.where(k > 1e-9, k, 1.0)
        open_ = (_open(k * bottom - plate.extend, window.w) - _open(k * top - plate.extend, window.w)) / safe
        covered = covered - np.where(k > 1e-9, open_, 0.0)
    found: FloatArray = np.clip(covered / (window.w * window.h), 0.0, 1.0)
    return found


def _open(u: FloatArray, w: float) -> FloatArray:
    """∫ clip(s, 0, w) ds up to u."""
    inside = np.clip(u, 0.0, w)
    return inside**2 / 2 + w * np.maximum(u - w, 0.0)


def at_moment(window: SunWindow, latitude: float, day: Day, solar: float) -> SunMoment:
    """The sun at a window at a moment of solar time."""
    sun = sun_at(latitude, day, np.array([solar]))
    plane = on_plane(sun, window.azimuth)
    incidence = math.degrees(math.acos(float(np.clip(plane.cos[0], -1.0, 1.0))))
    if not plane.on[0]:
        return SunMoment(incidence=incidence, profile=None, shaded=None)
    return SunMoment(incidence=incidence, profile=math.degrees(_profile(sun, plane)),
                     shaded=float(shaded(window, sun, plane)[0]))  # fmt: skip


def _profile(sun: Sun, plane: OnPlane) -> float:
    return math.atan2(math.tan(sun.altitude[0]), math.cos(plane.gamma[0]))


def sun_day(window: SunWindow, latitude: float, day: Day, sky: ClearSky) -> SunDay:
    """A clear day at a window, looked at twice a minute of solar time."""
    count = 24 * 60 * MINUTES
    sun = sun_at(latitude, day, (np.arange(count) + 0.5) * 24 / count)
    plane = on_plane(sun, window.azimuth)
    light = irradiance(sky, sun, plane)
    step = 24 / count
    lit = np.where(plane.on, 1 - shaded(window, sun, plane), 0.0)
    H_beam = float(np.sum(light.beam[plane.on])) * step
    return SunDay(
        sun_hours=float(np.count_nonzero(plane.on)) * step, lit_hours=float(np.sum(lit)) * step, H_beam=H_beam,
        H_diffuse=float(np.sum(light.rest)) * step,
        beam_share=float(np.sum(lit * light.beam)) * step / H_beam if H_beam > 0 else None,
    )  # fmt: skip


def best_depth(window: SunWindow, latitude: float, shade: tuple[Day, float], sun: tuple[Day, float]) -> BestDepth:
    """How deep an endless plate must be to shade the window at a moment, and may be to leave it in the sun at another.

    Parameters
    ----------
    window : SunWindow
        With its overhang's gap; none is 0.
    latitude : float
        [°]
    shade, sun : (Day, float)
        Moments of solar time. [h]
    """
    gap = window.overhang.gap if window.overhang else 0.0
    summer, winter = (at_moment(window, latitude, *one).profile for one in (shade, sun))
    d_min = 0.0 if summer is None else (gap + window.h) / math.tan(math.radians(summer))
    d_max = None if winter is None else gap / math.tan(math.radians(winter))
    return BestDepth(d_min=d_min, d_max=d_max, feasible=d_max is None or d_min <= d_max)
