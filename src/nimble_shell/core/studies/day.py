"""A day: how the swing outside comes through, beside a wall of the same U without mass."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.thermal.periodic import Periodic, periodic
from nimble_shell.core.thermal.resistance import resistances
from nimble_shell.core.thermal.section import resolved_section, surroundings
from nimble_shell.core.working import Given, Num, named, plain, value_of

_WARMEST_HOUR = 15.0
PERIODIC = ("Y12", "decrement", "lag_h", "kappa_i", "kappa_e")
_SMALL = 0.1  #: a swing of the inner surface that nobody feels [K]
MassEffect = Literal["swing too small to matter", "evens out both ways", "delays, does not save", "hardly any mass"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Day:
    """The mean day of a month, by the hour, and the characteristics behind it."""

    month: int  #: 0 is January
    periodic: Periodic
    theta_i: float  #: room, held [°C]
    outside: tuple[float, ...]  #: 0 … 24 h [°C]
    surface: tuple[float, ...]  #: inner surface [°C]
    massless: tuple[float, ...]  #: inner surface of a wall of the same U without mass [°C]
    mean_flux: Num  #: into the room, which mass does not change [W/m²]
    peak_flux: Num  #: into the room at its largest [W/m²]
    peak_massless: Num  #: the same without mass [W/m²]
    verdict: MassEffect

    @property
    def figures(self) -> dict[str, Num]:
        """What has a working."""
        fluxes = {key: getattr(self, key) for key in ("mean_flux", "peak_flux", "peak_massless")}
        return {**{key: getattr(self.periodic, key) for key in PERIODIC}, **fluxes}


def day(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    month: int,
    *,
    rise: float = 0.0,
    direction: Direction = "horizontal",
    given: Given = plain,
) -> Day:
    """The day of a month through the field of a build-up.

    Parameters
    ----------
    month : int
        0 is January.
    rise : float
        What sun adds to the outer surface's equivalent temperature at its highest. [K]
    direction : {"horizontal", "up", "down"}
    given : Given
        `plain` for figures, `traced` for working.

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
    around = surroundings(basis.schools, direction, season="summer")
    element = resolved_section(assembly, catalogue, around, given=given).resolved.element
    found = periodic(element, 24.0, given=given)
    U = named(1 / resistances(element).nominal, "U_field", "transmittance of the field", "W/(m²·K)", "1/R")
    R_si = value_of(element.R_si)
    climate = basis.climate
    theta_i, _ = basis.indoor.in_month(climate.theta_e[month], climate.phi_e[month])
    monthly = given(climate.theta_e[month], "theta_month", "mean temperature of the month", "°C", "Basis: climate")
    swing = given(climate.swing[month], "D_swing", "daily range of the month", "K", "Basis: climate")
    sun = given(rise, "D_sun", "what sun adds at most", "K", "entered")
    room = given(theta_i, "theta_i", "room, held", "°C", "Basis: indoor regime")
    mean = named(monthly + sun / 2, "theta_m", "mean outside of the day, with sun", "°C", "half of what sun adds")
    amplitude = named(swing / 2 + sun / 2, "A", "amplitude outside, with sun", "K", "half the range, half the sun")
    hours = [float(hour) for hour in range(25)]

    def wave(hour: float, lag: float) -> float:
        return math.cos(2 * math.pi * (hour - _WARMEST_HOUR - lag) / 24)

    steady = named(U * (mean - room), "q_mean", "mean flux into the room", "W/m²", "U·(θm − θi)")
    peak = named(steady + found.Y12 * amplitude, "q_peak", "largest flux into the room", "W/m²",
                 "ISO 13786:2017, mean + Y12·A")  # fmt: skip
    light = named(steady + U * amplitude, "q_light", "largest flux, same U, no mass", "W/m²", "mean + U·A")
    lag, A, middle = value_of(found.lag_h), value_of(amplitude), value_of(mean)
    base = theta_i + R_si * value_of(steady)
    swung, at_once = R_si * (value_of(peak) - value_of(steady)), R_si * (value_of(light) - value_of(steady))
    return Day(
        month=month,
        periodic=found,
        theta_i=theta_i,
        outside=tuple(middle + A * wave(hour, 0.0) for hour in hours),
        surface=tuple(base + swung * wave(hour, lag) for hour in hours),
        massless=tuple(base + at_once * wave(hour, 0.0) for hour in hours),
        mean_flux=steady,
        peak_flux=peak,
        peak_massless=light,
        verdict=_verdict(value_of(found.decrement), at_once, middle, A, theta_i),
    )


def _verdict(decrement: float, light_swing: float, mean: float, amplitude: float, theta_i: float) -> MassEffect:
    if light_swing < _SMALL:
        return "swing too small to matter"
    if decrement > 0.85:
        return "hardly any mass"
    # Mass saves only where the outside passes the room's temperature both ways within the day.
    return "evens out both ways" if abs(mean - theta_i) < amplitude else "delays, does not save"
