"""Where a project stands."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector


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
            f"altitude is {self.altitude:g} m",
            "altitude lies from −430 to 6000 m",
        )
        for name in ("theta_winter", "theta_summer"):
            theta = getattr(self, name)
            check.check(
                -80 <= theta <= 60,
                (name,),
                "temperature_not_on_earth",
                f"design temperature is {theta:g} °C",
                "design temperatures lie from −80 to 60 °C",
            )
        check.check(
            self.theta_winter < self.theta_summer,
            ("theta_winter",),
            "seasons_swapped",
            f"winter is {self.theta_winter:g} °C and summer {self.theta_summer:g} °C",
            "the winter design temperature is the lower one",
        )
        check.refuse()
