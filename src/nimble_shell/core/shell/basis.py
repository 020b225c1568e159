"""Basis: site, climate, indoor conditions, what is asked, and the schools in use."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from nimble_shell.core.assemblies.films import FilmSchool
from nimble_shell.core.climate import MONTHS, MonthlyClimate, cold_continental, p_sat
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.quantities import UNIT_SYSTEMS
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.shell.criteria import Criterion, Handling
from nimble_shell.core.shell.damp import AirDrive, DampLimits
from nimble_shell.core.shell.practice import Economy, Rate
from nimble_shell.core.working import value_of

BridgedMethod = Literal["parallel", "isothermal", "combined"]
VapourQuantities = Literal["sd", "perm"]
Dimensions = Literal["internal", "overall", "external"]  #: what areas and lengths are taken between


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


Regime = Literal["fixed", "class 1", "class 2", "class 3", "class 4", "class 5", "production"]
#: Vapour pressure of a room over the outside's at 0 °C and below, falling to nothing at 20 °C; upper edges of the
#: classes [Pa]. The fifth has none: a quarter more than the fourth is taken.
CLASSES: dict[Regime, float] = {
    "class 1": 270.0, "class 2": 540.0, "class 3": 810.0, "class 4": 1080.0, "class 5": 1350.0,
}  # fmt: skip
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

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("theta_heating", "theta_cooling", "heated_below"):
            theta = getattr(self, name)
            check.check(
                -50 <= theta <= 60,
                (name,),
                "temperature_out_of_range",
                f"temperature is {theta:g} °C",
                "indoor temperatures lie from −50 to 60 °C",
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
        check.check(0 <= self.production <= 0.1, ("production",), "production_out_of_range",
                    f"{86400 * self.production:g} kg of vapour a day", "from 0 to 8640 kg a day")  # fmt: skip
        check.check(0 < self.ventilation <= 100, ("ventilation",), "ventilation_not_positive",
                    f"{3600 * self.ventilation:g} m³ of air an hour", "above 0")  # fmt: skip
        check.check(-1 <= self.added <= 1, ("added",), "humidity_out_of_range", f"{100 * self.added:g} points",
                    "from −100 to 100 points")  # fmt: skip
        check.refuse()

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
                p = p_e + CLASSES[self.regime] * min(max(1 - theta_e / 20, 0.0), 1.0)
            phi = min(max(p / limit, 0.01), 0.99)
        return min(max(phi + self.added, 0.01), 1.0) if heated and self.added else phi


@dataclass(frozen=True, slots=True, kw_only=True)
class Targets:
    """What is asked; None where nothing is."""

    R_wall: float | None = None  #: clear wall, by the bridged method in use [m²·K/W]
    R_roof: float | None = None  #: the same of roofs [m²·K/W]
    R_floor: float | None = None  #: the same of floors [m²·K/W]
    R_shell: float | None = None  #: effective R of the whole shell [m²·K/W]
    f_rsi: float | None = None  #: lowest temperature factor of internal surfaces

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("R_wall", "R_roof", "R_floor", "R_shell"):
            R = getattr(self, name)
            check.check(
                R is None or 0 < R <= 50,
                (name,),
                "target_out_of_range",
                f"asked R is {R} m²·K/W",
                "an asked R lies above 0 and up to 50 m²·K/W",
            )
        check.check(
            self.f_rsi is None or 0 < self.f_rsi < 1,
            ("f_rsi",),
            "target_out_of_range",
            f"asked factor is {self.f_rsi}",
            "a temperature factor lies between 0 and 1",
        )
        check.refuse()


@dataclass(frozen=True, slots=True)
class TargetSet:
    """A named set of targets; an example, not a code."""

    name: str
    targets: Targets


TARGET_SETS: tuple[TargetSet, ...] = (
    TargetSet("example: modest", Targets(R_wall=3.5, R_roof=5.5, R_floor=3.0, R_shell=3.0, f_rsi=0.70)),
    TargetSet("example: cold, good", Targets(R_wall=5.6, R_roof=8.0, R_floor=5.0, R_shell=4.8, f_rsi=0.79)),
    TargetSet("example: cold, ambitious", Targets(R_wall=8.0, R_roof=11.0, R_floor=7.0, R_shell=6.5, f_rsi=0.85)),
    TargetSet("example: hot", Targets(R_wall=3.0, R_roof=6.0, R_floor=1.5, R_shell=2.5, f_rsi=0.60)),
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Limits:
    """What a build-up has to keep, besides its R; None where nothing is asked."""

    thickness: float | None = None  #: whole build-up at most [m]
    weight: float | None = None  #: at most [kg/m²]
    inside_share: float | None = None  #: of the thermal resistance inside the vapour-control plane, at most, 0…1
    stock_only: bool = False  #: only thicknesses the practice keeps in stock

    def __post_init__(self) -> None:
        check = Collector()
        check.check(
            self.thickness is None or 0 < self.thickness <= 3,
            ("thickness",),
            "thickness_not_positive",
            f"largest thickness is {self.thickness} m",
            "above 0 and up to 3 m",
        )
        check.check(
            self.weight is None or 0 < self.weight <= 5000,
            ("weight",),
            "weight_not_positive",
            f"largest weight is {self.weight} kg/m²",
            "above 0",
        )
        check.check(
            self.inside_share is None or 0 < self.inside_share < 1,
            ("inside_share",),
            "share_out_of_range",
            f"share is {self.inside_share}",
            "between 0 and 100 %",
        )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Schools:
    """Which of the trade's schools this project follows."""

    units: UnitSystem = "SI"
    films: FilmSchool = "iso6946"
    bridged: BridgedMethod = "combined"
    label_mean: float = 10.0  #: mean temperature of labelled conductivities [°C]
    vapour: VapourQuantities = "sd"
    dimensions: Dimensions = "external"

    def __post_init__(self) -> None:
        check = Collector()
        check.check(self.units in UNIT_SYSTEMS, ("units",), "unknown_school", f"units are “{self.units}”", "SI or IP")
        check.check(
            -20 <= self.label_mean <= 40,
            ("label_mean",),
            "temperature_out_of_range",
            f"label temperature is {self.label_mean:g} °C",
            "labels use 10 or 24 °C mean",
        )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Basis:
    """What everything else rests on."""

    site: Site = field(default_factory=Site)
    climate: MonthlyClimate = field(default_factory=cold_continental)
    indoor: Indoor = field(default_factory=Indoor)
    targets: Targets = field(default_factory=Targets)
    schools: Schools = field(default_factory=Schools)
    limits: Limits = field(default_factory=Limits)
    economy: Economy = field(default_factory=Economy)
    rates: tuple[Rate, ...] = ()
    criteria: tuple[Criterion, ...] = ()
    handling: Handling = field(default_factory=Handling)
    damp: DampLimits = field(default_factory=DampLimits)
    air: AirDrive = field(default_factory=AirDrive)

    def __post_init__(self) -> None:
        check = Collector()
        for name, keys in (
            ("rates", [rate.material for rate in self.rates]),
            ("criteria", [criterion.key for criterion in self.criteria]),
        ):
            check.check(len(set(keys)) == len(keys), (name,), "listed_twice", f"{name} name one thing twice",
                        "name each once")  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Condition:
    """Indoor and outdoor air at one moment of the year."""

    name: str
    theta_i: float  #: [°C]
    phi_i: float  #: 0…1
    theta_e: float  #: [°C]
    phi_e: float  #: 0…1
    origin: str


def condition(basis: Basis, key: str) -> Condition:
    """A month ("0" … "11"), or the design moment "winter" or "summer".

    Raises
    ------
    DomainError
        If there is no such condition.
    """
    climate, indoor, site = basis.climate, basis.indoor, basis.site
    if key in ("winter", "summer"):
        month = climate.coldest if key == "winter" else max(range(12), key=lambda m: climate.theta_e[m])
        theta_e = site.theta_winter if key == "winter" else site.theta_summer
        theta_i = indoor.theta_heating if key == "winter" else indoor.theta_cooling
        phi_i = indoor.humidity(theta_i, theta_e, climate.phi_e[month], heated=key == "winter")
        origin = f"Basis: design temperature, relative humidity of {MONTHS[month]}"
        return Condition(
            name=f"{key} design",
            theta_i=theta_i,
            phi_i=phi_i,
            theta_e=theta_e,
            phi_e=climate.phi_e[month],
            origin=origin,
        )
    if not (key.isdecimal() and int(key) < 12):
        raise DomainError(
            Issue(
                path=("condition",),
                code="unknown_condition",
                message=f"there is no condition “{key}”",
                hint="a month from 0 (January) to 11, winter or summer",
            )
        )
    month = int(key)
    theta_e = climate.theta_e[month]
    theta_i, phi_i = indoor.in_month(theta_e, climate.phi_e[month])
    return Condition(
        name=f"{MONTHS[month]} mean",
        theta_i=theta_i,
        phi_i=phi_i,
        theta_e=theta_e,
        phi_e=climate.phi_e[month],
        origin="Basis: monthly climate",
    )


_MOULD = 0.8  #: relative humidity at a surface from which mould may grow, ISO 13788:2012, 5.1


def critical_temperature(moment: Condition) -> float:
    """Surface temperature at which the room's air has 80 % at the surface. [°C]

    References
    ----------
    .. [1] ISO 13788:2012, 5.1 and 5.3.
    """
    p = moment.phi_i * value_of(p_sat(moment.theta_i)) / _MOULD
    low, high = -60.0, 80.0
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if value_of(p_sat(middle)) < p else (low, middle)
    return (low + high) / 2
