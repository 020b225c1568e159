"""A year of monthly means, with the range of the day and the scatter of the days."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

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
    swing: tuple[float, ...] = (8.0,) * 12  #: mean daily range of the temperature [K]
    sigma: tuple[float, ...] = (3.0,) * 12  #: standard deviation about the mean day [K]

    def __post_init__(self) -> None:
        check = Collector()
        every = (("theta_e", self.theta_e), ("phi_e", self.phi_e), ("swing", self.swing), ("sigma", self.sigma))
        for field, values in every:
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
                sentence(f"mean temperature of {_month(month)} is {{v1}}", v1=(theta, "temperature")),
                sentence("monthly means lie from {v1} to {v2}", v1=(-80.0, "temperature"), v2=(60.0, "temperature")),
            )
        for month, phi in enumerate(self.phi_e):
            check.check(
                0 < phi <= 1,
                ("phi_e", month),
                "humidity_out_of_range",
                f"relative humidity of {_month(month)} is {100 * phi:g} %",
                "relative humidity lies above 0 and up to 100 %",
            )
        for field, most in (("swing", 40.0), ("sigma", 15.0)):
            for month, value in enumerate(getattr(self, field)):
                check.check(
                    0 <= value <= most,
                    (field, month),
                    "scatter_out_of_range",
                    sentence(f"{field} of {_month(month)} is {{v1}}", v1=(value, "difference")),
                    sentence("it lies from 0 to {v1}", v1=(most, "difference")),
                )
        check.refuse()

    @property
    def coldest(self) -> int:
        """Index of the coldest month."""
        return min(range(12), key=lambda month: self.theta_e[month])


def _month(index: int) -> str:
    return MONTHS[index] if 0 <= index < 12 else f"month {index + 1}"
