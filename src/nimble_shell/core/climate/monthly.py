"""A year of monthly means, and the invented climate of the demo site by a documented formula."""

from __future__ import annotations

import math
from dataclasses import dataclass

from nimble_shell.core.errors import Collector

MONTHS = (
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class MonthlyClimate:
    """Monthly mean outdoor temperature and relative humidity, January first."""

    name: str
    source: str
    theta_e: tuple[float, ...]  #: [°C], 12 values
    phi_e: tuple[float, ...]  #: 0…1, 12 values

    def __post_init__(self) -> None:
        check = Collector()
        for field, values in (("theta_e", self.theta_e), ("phi_e", self.phi_e)):
            check.check(
                len(values) == 12,
                (field,),
                "not_twelve_months",
                f"{field} has {len(values)} values",
                "give one value for each month, January first",
            )
        for month, theta in enumerate(self.theta_e):
            check.check(
                -80 <= theta <= 60,
                ("theta_e", month),
                "temperature_not_on_earth",
                f"mean temperature of {_month(month)} is {theta} °C",
                "monthly means lie from −80 to 60 °C",
            )
        for month, phi in enumerate(self.phi_e):
            check.check(
                0 < phi <= 1,
                ("phi_e", month),
                "humidity_out_of_range",
                f"relative humidity of {_month(month)} is {100 * phi:g} %",
                "relative humidity lies above 0 and up to 100 %",
            )
        check.refuse()

    @property
    def coldest(self) -> int:
        """Index of the coldest month."""
        return min(range(12), key=lambda month: self.theta_e[month])


def _month(index: int) -> str:
    return MONTHS[index] if 0 <= index < 12 else f"month {index + 1}"


def cold_continental() -> MonthlyClimate:
    """The invented cold-continental climate of the demo site.

    Notes
    -----
    One harmonic each: θ_e(m) = 6.4 + 14.5·cos(2π(m − 7.05)/12) [°C] with m = 1 for January, and
    φ_e(m) = 0.72 + 0.08·cos(2π(m − 12)/12). Rounded to 0.1 K and 1 %.
    """

    def wave(mean: float, swing: float, peak: float, month: int) -> float:
        return mean + swing * math.cos(2 * math.pi * (month - peak) / 12)

    return MonthlyClimate(
        name="Heron County, cold-continental (invented)",
        source="formula: 6.4 + 14.5·cos(2π(m − 7.05)/12) °C; 0.72 + 0.08·cos(2π(m − 12)/12)",
        theta_e=tuple(round(wave(6.4, 14.5, 7.05, month), 1) for month in range(1, 13)),
        phi_e=tuple(round(wave(0.72, 0.08, 12, month), 2) for month in range(1, 13)),
    )
