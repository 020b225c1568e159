"""Invented climates that ship with the program, each by a documented formula, as months and as hours.

One harmonic each over the year, with m = 1 for January:
θ_e(m) = mean + amplitude·cos(2π(m − peak)/12) [°C], and humidity, daily range and scatter likewise. Hours: the monthly
values joined by straight lines through mid-month, a daily wave with its top at 15 h, and weather of three
incommensurate periods (3.3, 5.1 and 8.7 days) that has the stated standard deviation.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.climate.monthly import MonthlyClimate

FloatArray = NDArray[np.float64]

MONTH_DAYS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
HOURS = 8760
WARMEST_HOUR = 15
_WEATHER_DAYS = (3.3, 5.1, 8.7)


@dataclass(frozen=True, slots=True)
class Wave:
    """mean + amplitude·cos(2π(m − peak)/12)."""

    mean: float
    amplitude: float
    peak: float

    def months(self, digits: int) -> tuple[float, ...]:
        """Values of the twelve months, rounded."""
        return tuple(
            round(self.mean + self.amplitude * math.cos(2 * math.pi * (month - self.peak) / 12), digits)
            for month in range(1, 13)
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Invented:
    """The waves of a climate."""

    key: str
    name: str
    theta: Wave  #: [°C]
    phi: Wave  #: 0…1
    swing: Wave  #: [K]
    sigma: Wave  #: [K]
    theta_winter: float  #: design temperature [°C]
    theta_summer: float  #: design temperature [°C]

    def monthly(self) -> MonthlyClimate:
        """The twelve months; temperatures to 0.1 K, humidity to 1 %."""
        return MonthlyClimate(
            name=self.name,
            source="invented: a yearly wave of temperature, one of humidity",
            theta_e=self.theta.months(1),
            phi_e=self.phi.months(2),
            swing=self.swing.months(1),
            sigma=self.sigma.months(1),
        )


INVENTED: dict[str, Invented] = {
    climate.key: climate
    for climate in (
        Invented(key="cold-continental", name="Heron County, cold-continental (invented)", theta=Wave(6.4, 14.5, 7.05),
                 phi=Wave(0.72, 0.08, 12), swing=Wave(9.5, 2.0, 6.5), sigma=Wave(4.0, 1.5, 1),
                 theta_winter=-26.0, theta_summer=31.0),
        Invented(key="maritime", name="Gannet Sound, maritime (invented)", theta=Wave(10.2, 5.6, 7.6),
                 phi=Wave(0.82, 0.05, 12.5), swing=Wave(5.5, 1.0, 6.5), sigma=Wave(2.4, 0.4, 1),
                 theta_winter=-4.0, theta_summer=25.0),
        Invented(key="hot-dry", name="Quail Basin, hot-dry (invented)", theta=Wave(21.5, 11.0, 7.3),
                 phi=Wave(0.34, 0.14, 1), swing=Wave(14.5, 1.5, 6.5), sigma=Wave(2.6, 0.6, 2),
                 theta_winter=0.0, theta_summer=43.0),
        Invented(key="hot-humid", name="Ibis Delta, hot-humid (invented)", theta=Wave(23.8, 5.2, 7.5),
                 phi=Wave(0.79, 0.04, 8.5), swing=Wave(8.0, 1.2, 2), sigma=Wave(2.0, 1.0, 1),
                 theta_winter=4.0, theta_summer=35.0),
    )
}  # fmt: skip


def cold_continental() -> MonthlyClimate:
    """The invented climate of the demo site, °C and shares."""
    return INVENTED["cold-continental"].monthly()


def hourly_temperature(climate: MonthlyClimate) -> FloatArray:
    """A year of hourly temperatures that has the climate's monthly means, daily ranges and scatter. [°C]

    Parameters
    ----------
    climate : MonthlyClimate

    Returns
    -------
    ndarray, shape (8760,)

    Notes
    -----
    The formula of this module; each month is shifted, and its weather scaled, so that mean and standard deviation are
    those stated.
    """
    hours = np.arange(HOURS, dtype=float)
    ends = np.cumsum((0, *MONTH_DAYS)) * 24
    middle = (ends[:-1] + ends[1:]) / 2
    theta = np.interp(hours, middle, climate.theta_e, period=HOURS)
    swing = np.interp(hours, middle, climate.swing, period=HOURS)
    day = np.cos(2 * np.pi * (hours % 24 - WARMEST_HOUR) / 24)
    weather = np.zeros(HOURS)
    for number, days in enumerate(_WEATHER_DAYS):
        weather += np.cos(2 * np.pi * hours / (24 * days) + number)
    for month in range(12):
        span = slice(int(ends[month]), int(ends[month + 1]))
        scatter = weather[span] - weather[span].mean()
        drift = theta[span] - theta[span].mean()
        theta[span] = climate.theta_e[month] + drift + scatter * climate.sigma[month] / scatter.std()
    return np.asarray(theta + swing / 2 * day, dtype=float)
