"""What the practice allows water to do in its shells, and what drives air through their joints."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

#: Surfaces that mould grows on, by the surface quality SQ of the growth equation: 0, 0.5 and 1.
MouldSurface = Literal["sawn", "moderate", "kiln dried"]


@dataclass(frozen=True, slots=True, kw_only=True)
class DampLimits:
    """Most water and mould that a practice accepts; usual limits of the trade to start from."""

    plane: float = 1.0  #: condensed at a plane [kg/m²]
    beside_tight: float = 0.5  #: the same beside a layer that takes up no water [kg/m²]
    timber: float = 0.05  #: gained by solid wood, of its mass
    board: float = 0.03  #: gained by boards of wood, of their mass
    wood: float = 0.20  #: water content of wood, of its dry mass, as a mean of a day
    mould: float = 1.0  #: mould index at a place inside, 0…6
    mould_surface: MouldSurface = "sawn"  #: how the surfaces are finished on which mould is followed
    years: float = 50.0  #: over which what is left at a plane each year may not come to its limit

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("plane", "beside_tight"):
            value = getattr(self, name)
            check.check(
                0 < value <= 20,
                (name,),
                "limit_out_of_range",
                sentence("{v1}", v1=(value, "surface_mass")),
                sentence("above 0 and up to {v1}", v1=(20.0, "surface_mass")),
            )
        for name in ("timber", "board", "wood"):
            value = getattr(self, name)
            check.check(0 < value < 1, (name,), "limit_out_of_range", f"{100 * value:g} % by mass",
                        "between 0 and 100 %")  # fmt: skip
        check.check(0 < self.mould <= 6, ("mould",), "limit_out_of_range", f"mould index {self.mould:g}",
                    "above 0 and up to 6")  # fmt: skip
        check.check(1 <= self.years <= 500, ("years",), "limit_out_of_range", f"{self.years:g} years",
                    "from 1 to 500 years")  # fmt: skip
        check.refuse()


#: Leakage of a joint at 50 Pa by grade of seal, from open to three lines, low and high [m³/(h·m)]; starting values.
LEAKAGES = ((2.0, 6.0), (0.3, 0.9), (0.1, 0.3), (0.03, 0.1))


@dataclass(frozen=True, slots=True, kw_only=True)
class AirDrive:
    """What pushes air through joints, as a mean of a month; starting values."""

    ridge: float = 3.5  #: of the ridge above the level where inside and outside press alike [m]
    footing: float = -2.5  #: of the footing, below it [m]
    wind: float = 1.0  #: outwards on the lee [Pa]
    fan: float = 0.0  #: of the room over the outside by ventilation [Pa]
    exponent: float = 0.65  #: of the flow with pressure
    reaching: float = 0.15  #: of the air through a joint, what cools down to the outer skin, 0…1
    strip: float = 0.20  #: of the outer skin along the joint that takes up what is left there [m]
    leakages: tuple[tuple[float, float], ...] = LEAKAGES  #: of joints by grade of seal, low and high [m³/(h·m)]

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("ridge", "footing"):
            value = getattr(self, name)
            check.check(
                -60 <= value <= 60,
                (name,),
                "height_out_of_range",
                sentence("height is {v1}", v1=(value, "distance")),
                sentence("from {v1} to {v2}", v1=(-60.0, "distance"), v2=(60.0, "distance")),
            )
        for name in ("wind", "fan"):
            value = getattr(self, name)
            check.check(
                -100 <= value <= 100,
                (name,),
                "pressure_out_of_range",
                sentence("pressure is {v1}", v1=(value, "pressure")),
                sentence("from {v1} to {v2}", v1=(-100.0, "pressure"), v2=(100.0, "pressure")),
            )
        check.check(0.5 <= self.exponent <= 1, ("exponent",), "exponent_out_of_range",
                    f"exponent is {self.exponent:g}", "from 0.5 to 1")  # fmt: skip
        check.check(0 < self.reaching <= 1, ("reaching",), "share_out_of_range", f"share is {self.reaching:g}",
                    "above 0 and up to 100 %")  # fmt: skip
        check.check(len(self.leakages) == len(LEAKAGES), ("leakages",), "grades_missing",
                    f"{len(self.leakages)} leakages", f"one of each of {len(LEAKAGES)} grades")  # fmt: skip
        for at, (low, high) in enumerate(self.leakages):
            check.check(
                0 < low <= high <= 1000,
                ("leakages", at),
                "leakage_out_of_range",
                sentence("leakage is {v1} to {v2}", v1=(low, "joint_flow"), v2=(high, "joint_flow")),
                "low above 0 and not above high",
            )
        for at in range(1, len(self.leakages)):
            check.check(self.leakages[at][1] <= self.leakages[at - 1][1], ("leakages", at), "grades_not_falling",
                        "it leaks more than the grade before", "more seals leak less")  # fmt: skip
        check.check(
            0.01 <= self.strip <= 2,
            ("strip",),
            "strip_out_of_range",
            sentence("strip is {v1}", v1=(self.strip, "length")),
            sentence("from {v1} to {v2}", v1=(0.01, "length"), v2=(2.0, "length")),
        )
        check.refuse()

    def height(self, station: str) -> float:
        """Of a station above the level where inside and outside press alike. [m]"""
        return self.footing + (self.ridge - self.footing) * _UP[station]


#: How far up between footing and ridge a station lies.
_UP = {"A": 1.0, "B": 0.85, "C": 0.7, "D": 0.45, "E": 0.45, "F": 0.4, "G": 0.1, "H": 0.0}
