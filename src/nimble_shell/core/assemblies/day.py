"""A day: how the swing outside comes through, beside a wall of the same U without mass."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.figures import surroundings
from nimble_shell.core.assemblies.films import Direction
from nimble_shell.core.assemblies.periodic import Periodic, periodic
from nimble_shell.core.assemblies.resistance import resistances
from nimble_shell.core.assemblies.resolve import resolve
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.shell.basis import Basis
from nimble_shell.core.working import value_of

_WARMEST_HOUR = 15.0
_SMALL = 0.1  #: a swing of the inner surface that nobody feels [K]
Verdict = Literal["swing too small to matter", "evens out both ways", "delays, does not save", "hardly any mass"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Day:
    """The mean day of a month, by the hour, and the characteristics behind it."""

    month: int  #: 0 is January
    periodic: Periodic
    theta_i: float  #: room, held [°C]
    outside: tuple[float, ...]  #: 0 … 24 h [°C]
    surface: tuple[float, ...]  #: inner surface [°C]
    massless: tuple[float, ...]  #: inner surface of a wall of the same U without mass [°C]
    mean_flux: float  #: into the room, which mass does not change [W/m²]
    peak_flux: float  #: into the room at its largest [W/m²]
    peak_massless: float  #: the same without mass [W/m²]
    verdict: Verdict


def day(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    month: int,
    *,
    rise: float = 0.0,
    direction: Direction = "horizontal",
) -> Day:
    """The day of a month through the field of a build-up.

    Parameters
    ----------
    month : int
        0 is January.
    rise : float
        What sun adds to the outer surface's equivalent temperature at its highest. [K]
    direction : {"horizontal", "up", "down"}

    Returns
    -------
    Day

    Notes
    -----
    Room held at its temperature. Outside θ(t) = mean + swing/2·cos(2π(t − 15 h)/24 h), with half the rise added to
    the mean and half to the amplitude. Flux into the room: U·(mean − θ_i) + |Y12|·A·cos(2π(t − 15 − lag)/24).

    References
    ----------
    .. [1] ISO 13786:2017, 7; the single harmonic is its sinusoidal boundary condition.
    """
    around = surroundings(basis, direction, season="summer")
    element = resolve(assembly, catalogue, around).element
    found = periodic(element, 24.0)
    U = 1 / value_of(resistances(element).nominal)
    R_si = value_of(element.R_si)
    climate = basis.climate
    theta_i, _ = basis.indoor.in_month(climate.theta_e[month])
    mean = climate.theta_e[month] + rise / 2
    amplitude = climate.swing[month] / 2 + rise / 2
    hours = [float(hour) for hour in range(25)]

    def wave(hour: float, lag: float) -> float:
        return math.cos(2 * math.pi * (hour - _WARMEST_HOUR - lag) / 24)

    steady = U * (mean - theta_i)
    flux = [steady + found.Y12 * amplitude * wave(hour, found.lag_h) for hour in hours]
    light = [steady + U * amplitude * wave(hour, 0.0) for hour in hours]
    return Day(
        month=month,
        periodic=found,
        theta_i=theta_i,
        outside=tuple(mean + amplitude * wave(hour, 0.0) for hour in hours),
        surface=tuple(theta_i + R_si * q for q in flux),
        massless=tuple(theta_i + R_si * q for q in light),
        mean_flux=steady,
        peak_flux=steady + found.Y12 * amplitude,
        peak_massless=steady + U * amplitude,
        verdict=_verdict(found, R_si * U * amplitude, mean, amplitude, theta_i),
    )


def _verdict(found: Periodic, light_swing: float, mean: float, amplitude: float, theta_i: float) -> Verdict:
    if light_swing < _SMALL:
        return "swing too small to matter"
    if found.decrement > 0.85:
        return "hardly any mass"
    # Mass saves only where the outside passes the room's temperature both ways within the day.
    return "evens out both ways" if abs(mean - theta_i) < amplitude else "delays, does not save"
