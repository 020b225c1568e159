"""What is solved: regions of one material, and segments of surface bound to environments. Lengths in m."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import shapely

from nimble_shell.core.errors import Collector
from nimble_shell.core.materials import ConductivityTable
from nimble_shell.core.quantities import limits
from nimble_shell.core.quantities.limits import Limits, within

Point = tuple[float, float]
SectionKind = Literal["plane", "axisymmetric"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Region:
    """A polygon of one material, or of nothing; a later one takes the place of what it covers."""

    ring: tuple[Point, ...]  #: corners, without the first one again [m]
    lambda_: float | None  #: [W/(m·K)]; None is void
    table: ConductivityTable = ()  #: λ(θ) in place of it, where known


CONDUCTIVITY: Limits = (1e-9, 1e6)  #: of what is solved [W/(m·K)]
EXTENT: Limits = (0.0, 1e4)  #: from the origin [m]
FILM: Limits = (1e-12, 100.0)  #: or 0 [m²·K/W]


@dataclass(frozen=True, slots=True, kw_only=True)
class SurfaceSegment:
    """A straight segment of surface in contact with an environment; counts only where it meets the outer surface."""

    a: Point  #: [m]
    b: Point  #: [m]
    env: str
    R_s: float  #: surface resistance; 0 prescribes the surface's temperature [m²·K/W]


@dataclass(frozen=True, slots=True, kw_only=True)
class Section:
    """A section of a long body, or a half section of a body of revolution (x is the radius, y the axis)."""

    regions: tuple[Region, ...]
    segments: tuple[SurfaceSegment, ...]
    temperatures: dict[str, float]  #: of each environment [°C]
    kind: SectionKind = "plane"

    def __post_init__(self) -> None:
        check = Collector()
        check.check(any(region.lambda_ for region in self.regions), ("regions",), "nothing_solid",
                    "no region has a conductivity", "add a region of material")  # fmt: skip
        for at, region in enumerate(self.regions):
            if region.lambda_ is not None:
                within(check, region.lambda_, CONDUCTIVITY, ("regions", at, "lambda"), "conductivity_not_positive",
                       "thermal conductivity", "conductivity")  # fmt: skip
            far = max((abs(at) for point in region.ring for at in point), default=0.0)
            within(check, far, EXTENT, ("regions", at), "too_far_away", "a corner", "distance")
            check.check(len(region.ring) >= 3, ("regions", at, "points"), "too_few_corners",
                        f"a polygon of {len(region.ring)} corners", "at least three")  # fmt: skip
            if len(region.ring) >= 3:
                ring = shapely.Polygon(region.ring)
                x0, y0, x1, y1 = ring.bounds
                check.check(x0 < x1 and y0 < y1, ("regions", at), "region_without_size", "the region has no area",
                            "give it a width and a height")  # fmt: skip
                check.check(
                    ring.is_valid or not (x0 < x1 and y0 < y1),
                    ("regions", at, "points"),
                    "polygon_crosses_itself",
                    f"the outline touches or crosses itself: {shapely.is_valid_reason(ring)}",
                    "give its corners in order around the outline",
                )
            check.check(
                self.kind == "plane" or min(x for x, _ in region.ring) >= 0,
                ("regions", at),
                "radius_negative",
                "part of the region lies at a negative radius",
                "x is the radius, from 0 up",
            )
        for at, segment in enumerate(self.segments):
            check_surface(check, segment.R_s, self.temperatures.get(segment.env, 0.0), at)
            far = max(abs(at) for at in (*segment.a, *segment.b))
            within(check, far, EXTENT, ("boundaries", at), "too_far_away", "an end", "distance")
            check.check(segment.a != segment.b, ("boundaries", at), "piece_without_length", "the segment has no length",
                        "give two different ends")  # fmt: skip
            check.check(segment.env in self.temperatures, ("boundaries", at, "env"), "unknown_environment",
                        f"there is no environment “{segment.env}”", "name its temperature")  # fmt: skip
        check.check(bool(self.segments), ("boundaries",), "no_boundaries", "no surface meets an environment",
                    "bind at least one segment of surface to an environment")  # fmt: skip
        check.refuse()


def check_surface(check: Collector, R_s: float, temperature: float, at: int) -> None:
    """Note what is wrong with the film or the temperature of a surface. [m²·K/W], [°C]"""
    if R_s != 0:
        within(check, R_s, FILM, ("boundaries", at, "Rs"), "film_out_of_range", "surface resistance", "resistance")
    within(check, temperature, limits.TEMPERATURE, ("boundaries", at, "temperature"), "temperature_not_physical",
           "temperature", "temperature")  # fmt: skip
