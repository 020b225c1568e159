"""One body of a building: a footprint, its storeys and a roof, and the faces that they come to."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import pairwise

import numpy as np
import shapely

from nimble_shell.core.building.footprint import Outline, Point
from nimble_shell.core.building.roof import Roof, planes
from nimble_shell.core.errors import Collector
from nimble_shell.core.geometry.face import Beyond, Face, Opening
from nimble_shell.core.quantities.sentence import sentence

LEAST_STOREY, MOST_STOREY = 1.5, 30.0  #: from floor to floor [m]
_SLIVER = 1e-4  #: what is left of a face and counts for none [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Thicknesses:
    """Of the build-ups of a body. [m]"""

    wall: float = 0.0
    roof: float = 0.0
    floor: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class PlacedOpening:
    """An opening in the wall over a side of the footprint; its u runs along the side, its v is a height in space."""

    side: int
    opening: Opening


@dataclass(frozen=True, slots=True, kw_only=True)
class BuildingBody:
    """A body as it is drawn."""

    id: str
    outline: Outline  #: anticlockwise, x east, y north [m]
    storeys: tuple[float, ...]  #: from floor to floor, from below [m]
    base: float = 0.0  #: height of its lowest floor's underside [m]
    roof: Roof = field(default_factory=Roof)
    thicknesses: Thicknesses = field(default_factory=Thicknesses)
    ground: float | None = 0.0  #: height of the ground round it; None where it stands on another body [m]
    beyond: tuple[tuple[int, Beyond], ...] = ()  #: sides that face something else than the outside
    openings: tuple[PlacedOpening, ...] = ()

    def __post_init__(self) -> None:
        check = Collector()
        check.check(bool(self.storeys), ("storeys",), "no_storey", "a body has no storey", "give one height or more")
        for n, height in enumerate(self.storeys):
            check.check(LEAST_STOREY <= height <= MOST_STOREY, ("storeys", n), "storey_out_of_range",
                        sentence(f"storey {n + 1} is {{v}} high", v=(height, "distance")),
                        sentence("{v1} to {v2}", v1=(LEAST_STOREY, "distance"),
                                 v2=(MOST_STOREY, "distance")))  # fmt: skip
        for n, one in enumerate(self.openings):
            check.check(0 <= one.side < len(self.outline), ("openings", n), "unknown_side",
                        f"there is no side {one.side + 1}", f"1 to {len(self.outline)}")  # fmt: skip
        check.refuse()

    @property
    def eaves(self) -> float:
        """Height of the lowest place of its roof. [m]"""
        return self.base + sum(self.storeys)

    @property
    def floors(self) -> tuple[float, ...]:
        """Heights of the floors between its storeys. [m]"""
        return tuple(self.base + sum(self.storeys[: n + 1]) for n in range(len(self.storeys) - 1))

    def side(self, number: int) -> tuple[Point, Point]:
        """Ends of a side of the footprint, left to right as seen from outside. [m]"""
        return self.outline[number], self.outline[(number + 1) % len(self.outline)]


def faces_of(body: BuildingBody) -> list[Face]:
    """The faces of a body that stands alone: they close its volume.

    Raises
    ------
    DomainError
        If its roof cannot be made over this footprint, or an opening leaves its face.
    """
    to_ground = body.ground is not None and body.base <= body.ground
    floor = Face(id=f"{body.id}.floor", kind="floor", at=(0.0, 0.0, body.base), outline=body.outline,
                 thickness=body.thicknesses.floor, to="ground" if to_ground else "outside")  # fmt: skip
    return [*_walls(body), floor, *_roofs(body)]


def _roofs(body: BuildingBody) -> Iterator[Face]:
    for n, plane in enumerate(planes(body.outline, body.roof)):
        yield Face(id=f"{body.id}.roof{n + 1}", kind="roof", at=(*plane.at, body.eaves), pitch=plane.pitch,
                   azimuth=plane.azimuth, outline=plane.outline, thickness=body.thicknesses.roof)  # fmt: skip


def _walls(body: BuildingBody) -> Iterator[Face]:
    beyond = dict(body.beyond)
    for number in range(len(body.outline)):
        p, q = body.side(number)
        azimuth = math.degrees(math.atan2(q[1] - p[1], p[0] - q[0])) % 360
        openings = [one.opening for one in body.openings if one.side == number]
        whole = shapely.Polygon([(0.0, body.base), (math.dist(p, q), body.base), *_top(body, p, q)[::-1]])
        parts = list(_by_ground(whole, body.ground, beyond.get(number, "outside")))
        for n, (name, part, to) in enumerate(parts):
            box = part.buffer(1e-6)
            mine = [one for one in openings if box.covers(shapely.box(one.u, one.v, one.u + one.w, one.v + one.h))]
            openings = [one for one in openings if one not in mine]
            if n == len(parts) - 1:
                mine += openings  # what lies in no part is refused by the last one
            yield Face(id=f"{body.id}.{number + 1}{'' if name == 'above' else '.' + name}", kind="wall", at=(*p, 0.0),
                       azimuth=azimuth, outline=tuple(part.exterior.coords[:-1]), to=to,
                       thickness=body.thicknesses.wall, openings=tuple(mine))  # fmt: skip


def _top(body: BuildingBody, p: Point, q: Point) -> list[Point]:
    """The upper edge of a wall from left to right: (along the side, height). [m]"""
    length = math.dist(p, q)
    if body.roof.form in ("flat", "hip"):
        return [(0.0, body.eaves), (length, body.eaves)]
    ends = np.array([p, q])
    heights = [plane.height(ends) for plane in planes(body.outline, body.roof)]
    places = {0.0, 1.0}
    for a, b in pairwise(heights):
        apart = a - b
        if apart[0] * apart[1] < 0:
            places.add(float(apart[0] / (apart[0] - apart[1])))
    lowest = [(t, min(float(one[0] + t * (one[1] - one[0])) for one in heights)) for t in sorted(places)]
    return [(t * length, body.eaves + height) for t, height in lowest]


def _by_ground(
    whole: shapely.Polygon, ground: float | None, beyond: Beyond
) -> Iterator[tuple[str, shapely.Polygon, Beyond]]:
    """A wall above and below the ground line."""
    low, high = whole.bounds[1], whole.bounds[3]
    if ground is None or beyond != "outside" or ground <= low:
        yield "above", whole, beyond
    elif ground >= high:
        yield "below", whole, "ground"
    else:
        left, right = whole.bounds[0], whole.bounds[2]
        for box, below in (
            (shapely.box(left, low, right, ground), True),
            (shapely.box(left, ground, right, high), False),
        ):
            part = shapely.intersection(whole, box)
            if part.area > _SLIVER:
                yield ("below", part, "ground") if below else ("above", part, beyond)
