"""Sunshine under a clear sky, on a plane of any tilt."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.sun.position import OnPlane, Sun

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class ClearSky:
    """Coefficients of the sky of a place."""

    A: float = 1080.0  #: beam above the air [W/m²]
    B: float = 0.2  #: how much the air takes of it
    C: float = 0.13  #: diffuse, of the beam
    rho_g: float = 0.2  #: what the ground throws back


@dataclass(frozen=True, slots=True)
class Irradiance:
    """On a plane. [W/m²]"""

    beam: FloatArray
    rest: FloatArray  #: from the sky and off the ground


def irradiance(sky: ClearSky, sun: Sun, plane: OnPlane, tilt: float | FloatArray = 90.0) -> Irradiance:
    """What a clear sky brings to a plane.

    Parameters
    ----------
    sky : ClearSky
    sun : Sun
    plane : OnPlane
        The sun as seen from it.
    tilt : float
        [°]

    References
    ----------
    .. [1] The clear-sky model of three coefficients: beam A·exp(−B/sin h), diffuse C times it, isotropic.
    """
    up = sun.altitude > 0
    sin_h = np.sin(sun.altitude)
    I_b = np.where(up, sky.A * np.exp(-sky.B / np.where(up, np.maximum(sin_h, 1e-12), 1.0)), 0.0)
    I_d = sky.C * I_b
    leaning = np.cos(np.radians(tilt))
    seen, below = (1 + leaning) / 2, (1 - leaning) / 2
    rest = I_d * seen + sky.rho_g * (I_b * sin_h + I_d) * below
    return Irradiance(I_b * np.maximum(plane.cos, 0.0), rest)
