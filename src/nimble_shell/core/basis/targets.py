"""What is asked of build-ups and of the whole shell."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence


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
                sentence("asked R is {v1}", v1=(R, "resistance")),
                sentence("an asked R lies above 0 and up to {v1}", v1=(50.0, "resistance")),
            )
        check.check(
            self.f_rsi is None or 0 < self.f_rsi < 1,
            ("f_rsi",),
            "target_out_of_range",
            f"asked factor is {self.f_rsi}",
            "a surface factor lies between 0 and 1",
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
            sentence("largest thickness is {v1}", v1=(self.thickness, "distance")),
            sentence("above 0 and up to {v1}", v1=(3.0, "distance")),
        )
        check.check(
            self.weight is None or 0 < self.weight <= 5000,
            ("weight",),
            "weight_not_positive",
            sentence("largest weight is {v1}", v1=(self.weight, "surface_mass")),
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
