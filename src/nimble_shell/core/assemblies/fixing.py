"""A group of points through a build-up: screws, ties, wires, dowels, webs, brackets."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.limits import within
from nimble_shell.core.quantities.sentence import sentence

_CLOSEST, _THINNEST = 0.001, 1e-4  #: two fixings stand apart, and a shank is thick [m]
THICKEST = 3.0  #: of a layer, and of anything in it [m]
MESH = 0.000141  #: steel of a mesh of 3 mm wires every 50 mm, per width [m²/m]
FixingKind = Literal["screw", "dowel", "tie", "wire", "web", "bracket"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Plate:
    """What spreads the end of a fixing: washer, disc, flange, base plate. Round on a round shank, else square."""

    material: str
    size: float  #: diameter, or side [m]
    t: float  #: thickness [m]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(
            0 < self.size <= 0.6,
            ("size",),
            "plate_out_of_range",
            sentence("the plate is {v1} wide", v1=(self.size, "length")),
            sentence("above 0 and up to {v1}", v1=(0.6, "length")),
        )
        check.check(
            0 < self.t <= 0.1,
            ("t",),
            "plate_out_of_range",
            sentence("the plate is {v1} thick", v1=(self.t, "length")),
            sentence("above 0 and up to {v1}", v1=(0.1, "length")),
        )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Fixing:
    """A group of points through one layer and into its neighbours. Owned by ΔU_f until solved, then by n·χ."""

    id: str
    name: str
    material: str
    layer: str  #: id of the insulating layer it goes through
    kind: FixingKind = "screw"
    n: float | None = None  #: number per area [1/m²]; or else a pattern
    across: float | None = None  #: spacing across [m]
    along: float | None = None  #: spacing along, upright in a wall [m]
    diameter: float | None = None  #: of a round shank [m]; or else a flat one
    t: float | None = None  #: thickness of a flat shank, across [m]
    h: float | None = None  #: height of a flat shank, along; as high as the spacing, it runs through [m]
    depth: float | None = None  #: length inside the layer if it does not go all the way, from its inner face [m]
    inner: float = 0.0  #: length beyond the layer's inner face [m]
    outer: float = 0.0  #: length beyond the layer's outer face [m]
    sleeve: float | None = None  #: diameter of a sleeve around a round shank, as long as it is in the layer [m]
    sleeve_material: str = ""
    head: Plate | None = None  #: at the outer end
    foot: Plate | None = None  #: at the inner end
    mesh: float = 0.0  #: steel of a mesh welded to both ends, per width of the skins [m²/m]

    def __post_init__(self) -> None:
        check = Collector()
        patterned = self.across is not None and self.along is not None
        check.check(
            patterned != (self.n is not None) and (patterned or (self.across is None and self.along is None)),
            ("n",),
            "count_unclear",
            f"n is {self.n}, spacing {self.across} by {self.along}",
            "give a number per m², or a spacing across and along",
        )
        check.check(
            (self.diameter is not None) != (self.t is not None and self.h is not None)
            and (self.t is None) == (self.h is None),
            ("diameter",),
            "shank_unclear",
            f"diameter is {self.diameter}, thickness {self.t}, height {self.h}",
            "give a diameter, or a thickness with a height",
        )
        for name, value, least, most in (
            ("across", self.across, _CLOSEST, 5.0),
            ("along", self.along, _CLOSEST, 5.0),
            ("diameter", self.diameter, _THINNEST, 0.1),
            ("t", self.t, _THINNEST, 0.1),
            ("h", self.h, _THINNEST, 5.0),
            ("sleeve", self.sleeve, _THINNEST, 0.1),
        ):
            if value is not None:
                within(check, value, (least, most), (name,), f"{name}_out_of_range", name, "length")
        check.check(
            self.n is None or 0 < self.n <= 1000,
            ("n",),
            "count_out_of_range",
            f"{self.n or 0:g} fixings per m²",
            sentence("between 0 and {v1}", v1=(1000.0, "count_per_area")),
        )
        check.check(
            self.depth is None or 0 < self.depth <= THICKEST,
            ("depth",),
            "thickness_not_positive",
            sentence("depth is {v1}", v1=(self.depth, "distance")),
            "above 0, or leave it out if it goes all the way",
        )
        for name, value in (("inner", self.inner), ("outer", self.outer)):
            check.check(
                0 <= value <= THICKEST,
                (name,),
                "length_out_of_range",
                sentence("length is {v1}", v1=(value, "length")),
                sentence("from 0 to {v1}", v1=(3.0, "distance")),
            )
        check.check(
            0 <= self.mesh <= 0.01,
            ("mesh",),
            "mesh_out_of_range",
            sentence("mesh has {area} of steel", area=(self.mesh, "steel_area")),
            sentence("from 0 to {v1}", v1=(0.01, "steel_area")),
        )
        sleeved = self.sleeve is None or (self.diameter is not None and self.diameter < self.sleeve)
        check.check(sleeved and bool(self.sleeve) == bool(self.sleeve_material), ("sleeve",), "sleeve_unclear",
                    sentence(f"a sleeve of {{v1}} of “{self.sleeve_material}”", v1=(self.sleeve or 0, "length")),
                    "a sleeve is wider than the round shank in it, and of a material")  # fmt: skip
        check.refuse()

    @property
    def area(self) -> float:
        """Cross-section of one shank. [m²]"""
        if self.diameter is not None:
            return math.pi * self.diameter**2 / 4
        return (self.t or 0.0) * (self.h or 0.0)

    def more(self, layer_d: float) -> list[tuple[str, str, float, float]]:
        """What one has besides its shank: words, material, area [m²] and length [m]."""
        found = []
        for words, plate in (("head", self.head), ("foot", self.foot)):
            if plate is not None:
                area = plate.size**2 * (math.pi / 4 if self.diameter is not None else 1.0)
                found.append((words, plate.material, area, plate.t))
        if self.sleeve is not None and self.diameter is not None:
            area = math.pi / 4 * (self.sleeve**2 - self.diameter**2)
            found.append(("sleeve", self.sleeve_material, area, self.depth or layer_d))
        return found

    @property
    def per_area(self) -> float:
        """Number per area. [1/m²]"""
        return self.n if self.n is not None else 1 / ((self.across or 1.0) * (self.along or 1.0))

    @property
    def materials(self) -> tuple[str, ...]:
        """Every material it is made of."""
        plates = [plate.material for plate in (self.head, self.foot) if plate is not None]
        return (self.material, *([self.sleeve_material] if self.sleeve_material else []), *plates)
