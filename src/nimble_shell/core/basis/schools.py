"""The trade's schools: units, films, methods and dimension systems."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities import UNIT_SYSTEMS
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.quantities.units import UnitSystem

FilmSchool = Literal["iso6946", "north_american"]
BridgedMethod = Literal["parallel", "isothermal", "combined"]
VapourQuantities = Literal["sd", "perm"]
DecimalMark = Literal["point", "comma"]
Dimensions = Literal["internal", "overall", "external"]  #: what areas and lengths are taken between

DrawnTo = Literal[
    "outer", "structure", "inner"
]  #: which surface of the build-ups a shape is drawn to, and stays when they change


@dataclass(frozen=True, slots=True, kw_only=True)
class Schools:
    """Which of the trade's schools this project follows."""

    units: UnitSystem = "SI"  #: of pages, and of a reader who has not chosen
    decimal: DecimalMark = "point"  #: what a comma before three digits is in typed numbers; with a point it is asked
    films: FilmSchool = "iso6946"
    bridged: BridgedMethod = "combined"
    label_mean: float = 10.0  #: mean temperature of labelled conductivities [°C]
    vapour: VapourQuantities = "sd"
    dimensions: Dimensions = "external"
    drawn_to: DrawnTo = "outer"

    def __post_init__(self) -> None:
        check = Collector()
        check.check(self.units in UNIT_SYSTEMS, ("units",), "unknown_school", f"units are “{self.units}”", "SI or IP")
        check.check(
            -20 <= self.label_mean <= 40,
            ("label_mean",),
            "temperature_out_of_range",
            sentence("label temperature is {v1}", v1=(self.label_mean, "temperature")),
            sentence("labels use {v1} or {v2} mean", v1=(10.0, "temperature"), v2=(24.0, "temperature")),
        )
        check.refuse()
