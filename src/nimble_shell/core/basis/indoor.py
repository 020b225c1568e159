"""Room conditions, and where the humidity of a room comes from."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.climate import p_sat
from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.working import value_of

Regime = Literal["fixed", "class 1", "class 2", "class 3", "class 4", "class 5", "production"]
#: Vapour pressure of a room over the outside's at 0 °C and below, falling to nothing at 20 °C; upper edges of the
#: classes [Pa]. The fifth has none: a quarter more than the fourth is taken.
CLASSES: dict[Regime, float] = {
    "class 1": 270.0, "class 2": 540.0, "class 3": 810.0, "class 4": 1080.0, "class 5": 1350.0,
}  # fmt: skip
CLASS_MARGIN = 1.1  #: of a class's Δp, ISO 13788:2012, 4.2.4
_R_V = 461.5  #: of water vapour [J/(kg·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Indoor:
    """Room conditions in the heated and in the warm part of the year."""

    theta_heating: float = 20.0  #: [°C]
    phi_heating: float = 0.45  #: 0…1
    theta_cooling: float = 25.0  #: [°C]
    phi_cooling: float = 0.55  #: 0…1
    heated_below: float = 15.0  #: months with a colder mean are heated [°C]
    regime: Regime = "fixed"  #: where the room's humidity comes from
    production: float = 6.0 / 86400  #: of vapour, where it is ventilated off [kg/s]
    ventilation: float = 90.0 / 3600  #: outside air that carries it off [m³/s]
    added: float = 0.0  #: to the humidity in heated months, for safety or for worse, −1…1
    class_margin: bool = False  #: whether a class counts with a tenth more, as the standard asks of design

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("theta_heating", "theta_cooling", "heated_below"):
            theta = getattr(self, name)
            check.check(
                -50 <= theta <= 60,
                (name,),
                "temperature_out_of_range",
                sentence("temperature is {v1}", v1=(theta, "temperature")),
                sentence(
                    "indoor temperatures lie from {v1} to {v2}", v1=(-50.0, "temperature"), v2=(60.0, "temperature")
                ),
            )
        for name in ("phi_heating", "phi_cooling"):
            phi = getattr(self, name)
            check.check(
                0 < phi <= 1,
                (name,),
                "humidity_out_of_range",
                f"relative humidity is {100 * phi:g} %",
                "relative humidity lies above 0 and up to 100 %",
            )
        known = ("fixed", "production", *CLASSES)
        check.check(self.regime in known, ("regime",), "unknown_regime", f"there is no regime “{self.regime}”",
                    f"one of {', '.join(known)}")  # fmt: skip
        check.check(
            0 <= self.production <= 0.1,
            ("production",),
            "production_out_of_range",
            sentence("{v1}", v1=(self.production, "vapour_rate")),
            sentence("from 0 to {v1}", v1=(0.1, "vapour_rate")),
        )
        check.check(0 < self.ventilation <= 100, ("ventilation",), "ventilation_not_positive",
                    sentence("{v1}", v1=(self.ventilation, "air_flow")), "above 0")  # fmt: skip
        check.check(-1 <= self.added <= 1, ("added",), "humidity_out_of_range", f"{100 * self.added:g} points",
                    "from −100 to 100 points")  # fmt: skip
        check.refuse()

    @property
    def humidity_from(self) -> str:
        """Where the room's humidity comes from, in words."""
        if self.regime == "fixed":
            return "humidity of the room fixed, as entered in the Basis"
        if self.regime == "production":
            return "humidity of the room from production over ventilation (ISO 13788:2012, 4.2.4)"
        margin = "with the margin of 1.1" if self.class_margin else "without the margin of 1.1"
        return f"humidity of the room by {self.regime}, Δp {margin} (ISO 13788:2012, 4.2.4 and annex A)"

    def in_month(self, theta_e: float, phi_e: float) -> tuple[float, float]:
        """Room temperature [°C] and relative humidity (0…1) in a month with these outdoor means."""
        heated = theta_e < self.heated_below
        theta_i = self.theta_heating if heated else self.theta_cooling
        return theta_i, self.humidity(theta_i, theta_e, phi_e, heated=heated)

    def humidity(self, theta_i: float, theta_e: float, phi_e: float, *, heated: bool) -> float:
        """Relative humidity of the room, by its regime; from 1 to 99 % where it is not fixed.

        References
        ----------
        .. [1] ISO 13788:2012, annex A (classes), 4.2.4 (production over ventilation).
        """
        if self.regime == "fixed":
            phi = self.phi_heating if heated else self.phi_cooling
        else:
            p_e, limit = phi_e * value_of(p_sat(theta_e)), value_of(p_sat(theta_i))
            if self.regime == "production":
                p = (p_e / (theta_e + 273.15) + self.production / self.ventilation * _R_V) * (theta_i + 273.15)
            else:
                margin = CLASS_MARGIN if self.class_margin else 1.0
                p = p_e + margin * CLASSES[self.regime] * min(max(1 - theta_e / 20, 0.0), 1.0)
            phi = min(max(p / limit, 0.01), 0.99)
        return min(max(phi + self.added, 0.01), 1.0) if heated and self.added else phi
