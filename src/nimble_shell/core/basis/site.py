"""Where a project stands."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence


@dataclass(frozen=True, slots=True, kw_only=True)
class Site:
    """Where it stands."""

    place: str = ""
    latitude: float = 46.0  #: [°], north positive
    altitude: float = 0.0  #: [m]
    theta_winter: float = -20.0  #: design temperature for heating [°C]
    theta_summer: float = 30.0  #: design temperature for cooling [°C]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(
            -90 <= self.latitude <= 90,
            ("latitude",),
            "latitude_out_of_range",
            f"latitude is {self.latitude:g}°",
            "latitude lies from −90 to 90°, north positive",
        )
        check.check(
            -430 <= self.altitude <= 6000,
            ("altitude",),
            "altitude_out_of_range",
            sentence("altitude is {v1}", v1=(self.altitude, "distance")),
            sentence("altitude lies from {v1} to {v2}", v1=(-430.0, "distance"), v2=(6000.0, "distance")),
        )
        for name in ("theta_winter", "theta_summer"):
            theta = getattr(self, name)
            check.check(
                -80 <= theta <= 60,
                (name,),
                "temperature_not_on_earth",
                sentence("design temperature is {v1}", v1=(theta, "temperature")),
                sentence(
                    "design temperatures lie from {v1} to {v2}", v1=(-80.0, "temperature"), v2=(60.0, "temperature")
                ),
            )
        check.check(
            self.theta_winter < self.theta_summer,
            ("theta_winter",),
            "seasons_swapped",
            sentence(
                "winter is {v1} and summer {v2}",
                v1=(self.theta_winter, "temperature"),
                v2=(self.theta_summer, "temperature"),
            ),
            "the winter design temperature is the lower one",
        )
        check.refuse()
