"""One body of a building: a footprint, its storeys and a roof, and the faces that they come to."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise

import numpy as np
import shapely

from nimble_shell.core.building.footprint import Outline, Point, checked
from nimble_shell.core.building.roof import Roof, planes
from nimble_shell.core.errors import Collector, DomainError
from nimble_shell.core.geometry.face import Beyond, Face, Opening, OpeningKind
from nimble_shell.core.quantities.sentence import sentence

LEAST_STOREY, MOST_STOREY = 1.5, 30.0  #: from floor to floor [m]
DEEPEST, HIGHEST = -30.0, 200.0  #: of a body's lowest floor, from the building's own zero [m]
LEAST_OPENING, MOST_OPENING = 0.05, 30.0  #: of an opening, either way [m]
_SLIVER = 1e-4  #: what is left of a face and counts for none [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class BodyOpening:
    """An opening in the wall over a side of the footprint, as it is seen from outside."""

    id: str
    body: str
    side: int  #: from 0
    u: float  #: from the side's left end to its left edge [m]
    sill: float  #: its lower edge above the body's base [m]
    w: float  #: [m]
    h: float  #: [m]
    kind: OpeningKind = "window"
    zone: str = ""  #: what it is counted with
    mark: str = ""  #: as schedules name it
    unit: str = ""  #: type of window or door that it is filled with
    source: str = ""  #: file that it was read from; empty once somebody has changed it

    def __post_init__(self) -> None:
        check = Collector()
        for name, words, size in (("w", "wide", self.w), ("h", "high", self.h)):
            check.check(LEAST_OPENING <= size <= MOST_OPENING, (name,), "opening_size",
                        sentence(f"“{self.mark or self.id}” is {{v}} {words}", v=(size, "length")),
                        sentence("{v1} to {v2}", v1=(LEAST_OPENING, "length"),
                                 v2=(MOST_OPENING, "length")))  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class BodySide:
    """What a side of the footprint has of its own."""

    number: int  #: from 0
    beyond: Beyond = "outside"
    zone: str = ""  #: what its wall is counted with, where that is another than the body's


@dataclass(frozen=True, slots=True, kw_only=True)
class WallPart:
    """A part of the wall over a side that is counted with something else: another build-up in one face."""

    side: int
    zone: str
    low: float  #: above the body's base [m]
    high: float  #: [m]
    left: float | None = None  #: along the side; the whole of it where there is none [m]
    right: float | None = None  #: [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class BuildingBody:
    """A body as it is drawn."""

    id: str
    name: str = ""
    outline: Outline  #: either way round, x and y in plan [m]
    storeys: tuple[float, ...]  #: from floor to floor, from below [m]
    base: float = 0.0  #: height of its lowest floor's underside [m]
    roof: Roof = field(default_factory=Roof)
    ground: float | None = 0.0  #: height of the ground round it; None where it stands on another body [m]
    sides: tuple[BodySide, ...] = ()  #: those that face something else than the outside, or have another wall
    parts: tuple[WallPart, ...] = ()
    wall: str = ""  #: what its walls are counted with
    below: str = ""  #: what its walls below the ground line are counted with; as the others if empty
    top: str = ""  #: what its roof is counted with
    floor: str = ""  #: what its lowest floor is counted with
    source: str = ""  #: file that it was read from; empty once somebody has changed it

    def __post_init__(self) -> None:
        check = Collector()
        check.check(bool(self.storeys), ("storeys",), "no_storey", "a body has no storey", "give one height or more")
        for n, height in enumerate(self.storeys):
            check.check(LEAST_STOREY <= height <= MOST_STOREY, ("storeys", n), "storey_out_of_range",
                        sentence(f"storey {n + 1} is {{v}} high", v=(height, "distance")),
                        sentence("{v1} to {v2}", v1=(LEAST_STOREY, "distance"),
                                 v2=(MOST_STOREY, "distance")))  # fmt: skip
        check.check(DEEPEST <= self.base <= HIGHEST, ("base",), "base_out_of_range",
                    sentence("it stands at {v}", v=(self.base, "distance")),
                    sentence("{v1} to {v2}", v1=(DEEPEST, "distance"), v2=(HIGHEST, "distance")))  # fmt: skip
        for name, several in (
            ("sides", [one.number for one in self.sides]),
            ("parts", [one.side for one in self.parts]),
        ):
            for n, number in enumerate(several):
                check.check(0 <= number < len(self.outline), (name, n), "unknown_side",
                            f"there is no side {number + 1}", f"1 to {len(self.outline)}")  # fmt: skip
        check.refuse()
        try:
            in_order = checked(self.outline)
        except DomainError as error:
            raise DomainError(*(replace(one, path=("outline", *one.path[1:])) for one in error.issues)) from None
        if in_order != self.outline:  # sides are numbered by it
            object.__setattr__(self, "outline", in_order)

    @property
    def zones(self) -> set[str]:
        """Everything that its faces are counted with."""
        own = {one.zone for one in self.sides} | {one.zone for one in self.parts}
        return {one for one in (*own, self.wall, self.below, self.top, self.floor) if one}

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


def faces_of(body: BuildingBody, openings: Sequence[BodyOpening] = ()) -> list[Face]:
    """The faces of a body that stands alone, of no thickness: they close its volume.

    Parameters
    ----------
    body : BuildingBody
    openings : sequence of BodyOpening
        Those of other bodies are passed over.

    Raises
    ------
    DomainError
        If its roof cannot be made over this footprint, or an opening leaves its face.
    """
    to_ground = body.ground is not None and body.base <= body.ground
    floor = Face(id=f"{body.id}.floor", kind="floor", at=(0.0, 0.0, body.base), outline=body.outline,
                 to="ground" if to_ground else "outside", zone=body.floor)  # fmt: skip
    return [*_walls(body, [one for one in openings if one.body == body.id]), floor, *_roofs(body)]


def _roofs(body: BuildingBody) -> Iterator[Face]:
    for n, plane in enumerate(planes(body.outline, body.roof)):
        yield Face(id=f"{body.id}.roof{n + 1}", kind="roof", at=(*plane.at, body.eaves), pitch=plane.pitch,
                   azimuth=plane.azimuth, outline=plane.outline, zone=body.top)  # fmt: skip


def _walls(body: BuildingBody, openings: Sequence[BodyOpening]) -> Iterator[Face]:
    own = {one.number: one for one in body.sides}
    for number in range(len(body.outline)):
        p, q = body.side(number)
        azimuth = math.degrees(math.atan2(q[1] - p[1], p[0] - q[0])) % 360
        mine = [_placed(body, one) for one in openings if one.side == number]
        whole = shapely.Polygon([(0.0, body.base), (math.dist(p, q), body.base), *_top(body, p, q)[::-1]])
        side = own.get(number, BodySide(number=number))
        parts = [piece for part in _by_ground(whole, body.ground, side.beyond) for piece in _by_zone(body, side, part)]
        for n, part in enumerate(parts):
            here = mine if n == len(parts) - 1 else _lying_in(part, mine)  # the last refuses what lies in none
            mine = [one for one in mine if one not in here]
            yield Face(id=f"{body.id}.{number + 1}{part.name}", kind="wall", at=(*p, 0.0), azimuth=azimuth,
                       outline=tuple(part.shape.exterior.coords[:-1]), to=part.beyond, zone=part.zone,
                       openings=tuple(here))  # fmt: skip


def _lying_in(part: _Part, openings: Sequence[Opening]) -> list[Opening]:
    box = part.shape.buffer(1e-6)
    return [one for one in openings if box.covers(shapely.box(one.u, one.v, one.u + one.w, one.v + one.h))]


def _placed(body: BuildingBody, one: BodyOpening) -> Opening:
    return Opening(id=one.id, u=one.u, v=body.base + one.sill, w=one.w, h=one.h, kind=one.kind)


@dataclass(frozen=True, slots=True)
class _Part:
    """A piece of a wall, with what its id ends on."""

    name: str
    shape: shapely.Polygon
    beyond: Beyond
    zone: str = ""


def _by_zone(body: BuildingBody, side: BodySide, part: _Part) -> Iterator[_Part]:
    """A wall above or below the ground, cut where it changes its build-up."""
    zone = side.zone or (body.below if part.beyond == "ground" and body.below else body.wall)
    rest = part.shape
    others = [one for one in body.parts if one.side == side.number]
    if not others:
        yield _Part(part.name, rest, part.beyond, zone)
        return
    left, right = rest.bounds[0], rest.bounds[2]
    found = []
    for n, one in enumerate(others):
        box = shapely.box(left if one.left is None else one.left, body.base + one.low,
                          right if one.right is None else one.right, body.base + one.high)  # fmt: skip
        for k, piece in enumerate(_pieces(shapely.intersection(rest, box))):
            name = f"{part.name}.p{n + 1}" + (f".{k + 1}" if k else "")
            found.append(_Part(name, piece, part.beyond, one.zone))
        rest = shapely.difference(rest, box, grid_size=1e-6)
    for k, piece in enumerate(_pieces(rest)):
        found.insert(k, _Part(part.name + (f".{k + 1}" if k else ""), piece, part.beyond, zone))
    yield from found


def _pieces(shape: shapely.Geometry) -> list[shapely.Polygon]:
    return [one for whole in shapely.get_parts(shape) if whole.area > _SLIVER for one in without_holes(whole)]


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


def _by_ground(whole: shapely.Polygon, ground: float | None, beyond: Beyond) -> Iterator[_Part]:
    """A wall above and below the ground line."""
    low, high = whole.bounds[1], whole.bounds[3]
    if ground is None or beyond != "outside" or ground <= low:
        yield _Part("", whole, beyond)
    elif ground >= high:
        yield _Part(".below", whole, "ground")
    else:
        left, right = whole.bounds[0], whole.bounds[2]
        below, above = shapely.box(left, low, right, ground), shapely.box(left, ground, right, high)
        for name, box, to in ((".below", below, "ground"), ("", above, beyond)):
            part = shapely.intersection(whole, box)
            if part.area > _SLIVER:
                yield _Part(name, part, to)  # type: ignore[arg-type]  # of both words


def without_holes(polygon: shapely.Polygon) -> Iterator[shapely.Polygon]:
    """The polygon, cut upright through each hole until none is left."""
    if not polygon.interiors:
        yield polygon
        return
    middle = shapely.Polygon(polygon.interiors[0]).representative_point().x
    left, low, right, high = polygon.bounds
    for box in (shapely.box(left, low, middle, high), shapely.box(middle, low, right, high)):
        for part in shapely.get_parts(shapely.intersection(polygon, box, grid_size=1e-6)):
            yield from without_holes(part)
