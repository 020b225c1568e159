"""A joint as it is drawn: shapes of material, the air around them, and what plane elements it is measured against."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

import shapely

from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.conduction.section import Point, SectionKind
from nimble_shell.core.joints.stack import Fill, Stack

System = Literal["internal", "overall", "external"]
SYSTEMS: tuple[System, ...] = ("internal", "overall", "external")
Seal = Literal["bead", "gasket", "tape", "foam", "lap", "drain"]

_FACE = 0.01  #: air this far before a face has the face's film [m]
_SAME = 1e-7  #: coordinates nearer than this are one [m]
SNAP = 1e-8  #: corners nearer than this are one [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Shape:
    """A polygon of one material, or a void; a later one takes the place of what it covers."""

    ring: tuple[Point, ...]  #: [m]
    fill: Fill | None
    part: str = ""  #: what it is of the joint; empty for a ply of a build-up
    opening: bool = False  #: glazing, a frame or a leaf, whose surface is judged as such


@dataclass(frozen=True, slots=True, kw_only=True)
class Air:
    """Where an environment is; it may overlap shapes, which come first."""

    env: str
    ring: tuple[Point, ...]  #: [m]
    R_s: float | None = None  #: of surfaces it meets; None: by the direction of the heat flow [m²·K/W]


@dataclass(frozen=True, slots=True, kw_only=True)
class Reference:
    """A plane element the joint is measured against. Lengths in m by dimension system."""

    name: str
    U: float  #: [W/(m²·K)]
    lengths: tuple[float, float, float]  #: internal, overall internal, external
    envs: tuple[str, str] = ("inside", "outside")


@dataclass(frozen=True, slots=True, kw_only=True)
class Dim:
    """A dimension line that edits a parameter."""

    key: str
    a: Point
    b: Point


@dataclass(frozen=True, slots=True, kw_only=True)
class Mark:
    """Where a seal of the schedule sits."""

    kind: Seal
    at: Point


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawing:
    """A joint, ready to be solved."""

    shapes: tuple[Shape, ...]
    airs: tuple[Air, ...]
    references: tuple[Reference, ...]
    view: tuple[float, float, float, float]  #: x0, y0, x1, y1 of what is looked at [m]
    dims: tuple[Dim, ...] = ()
    marks: tuple[Mark, ...] = ()
    plan: bool = False  #: a horizontal cut: all heat flows horizontally
    direction: Direction | None = None  #: of the heat flow at every inner surface; None: by how each of them lies
    inwards: bool = False  #: heat flows into the room over the year: up and down turn round
    kind: SectionKind = "plane"
    sides: tuple[str, str] = ("outside", "inside")  #: what lies to the left and right of the view
    assumptions: tuple[str, ...] = ()


@dataclass(slots=True)
class Board:
    """Collects a drawing."""

    shapes: list[Shape] = field(default_factory=list)
    airs: list[Air] = field(default_factory=list)
    references: list[Reference] = field(default_factory=list)
    dims: list[Dim] = field(default_factory=list)
    marks: list[Mark] = field(default_factory=list)

    def poly(self, ring: Iterable[Point], fill: Fill | None, part: str = "") -> None:
        """A polygon of material, or a void; nothing where it has no area."""
        corners = tuple((float(x), float(y)) for x, y in ring)
        if len(corners) >= 3 and shapely.Polygon(corners).area > SNAP**2:
            self.shapes.append(Shape(ring=corners, fill=fill, part=part))

    def rect(self, x0: float, y0: float, x1: float, y1: float, fill: Fill | None, part: str = "") -> None:
        """A rectangle of material, or a void; nothing where it has no area."""
        if abs(x1 - x0) > SNAP and abs(y1 - y0) > SNAP:
            self.poly(box(x0, y0, x1, y1), fill, part)

    def opening(self, x0: float, y0: float, x1: float, y1: float, fill: Fill, part: str) -> None:
        """A rectangle of a window or door."""
        self.shapes.append(Shape(ring=box(x0, y0, x1, y1), fill=fill, part=part, opening=True))

    def strip(
        self,
        stack: Stack,
        *,
        origin: Point,
        along: Point,
        out: Point,
        start: float,
        end: float,
        within: shapely.Polygon | None = None,
        only: Sequence[int] | None = None,
    ) -> None:
        """The plies of a stack, from `start` to `end` along its inner face. [m]

        Parameters
        ----------
        stack : Stack
        origin : tuple
            A point of the inner face.
        along, out : tuple
            Unit vectors along the face, and from inside to outside.
        within : Polygon, optional
            What of it is drawn.
        only : sequence of int, optional
            Plies to draw.
        """
        a = 0.0
        for index, ply in enumerate(stack.plies):
            b = a + ply.d
            if only is None or index in only:
                ring = tuple(
                    (origin[0] + s * along[0] + o * out[0], origin[1] + s * along[1] + o * out[1])
                    for s, o in ((start, a), (end, a), (end, b), (start, b))
                )
                self.clipped(ring, ply.fill, within)
            a = b

    def clipped(self, ring: Sequence[Point], fill: Fill | None, within: shapely.Polygon | None, part: str = "") -> None:
        """A polygon of material, as far as it lies within another."""
        if within is None:
            self.poly(ring, fill, part)
            return
        left = shapely.intersection(shapely.Polygon(ring), within, grid_size=SNAP)
        for segment in getattr(left, "geoms", [left]):
            if isinstance(segment, shapely.Polygon) and not segment.is_empty:
                self.poly(list(segment.exterior.coords)[:-1], fill, part)

    def air(self, env: str, ring: Iterable[Point], R_s: float | None = None) -> None:
        """Where an environment is. [m], [m²·K/W]"""
        self.airs.append(Air(env=env, ring=tuple(ring), R_s=R_s))

    def open_face(self, stack: Stack, y0: float, y1: float, x: float = 0.0) -> None:
        """Outdoor air before an upright stack's outer face, with its own film; `x` is its inner face. [m]"""
        self.air("outside", box(x - stack.d - _FACE, y0, x - stack.d / 2, y1), stack.R_se)

    def refer(
        self, name: str, U: float, internal: float, overall: float | None = None, external: float | None = None,
        envs: tuple[str, str] = ("inside", "outside"),
    ) -> None:  # fmt: skip
        """A plane element and its lengths; those not given are the internal one. [W/(m²·K)], [m]"""
        lengths = (internal, internal if overall is None else overall, internal if external is None else external)
        self.references.append(Reference(name=name, U=U, lengths=lengths, envs=envs))

    def dim(self, key: str, a: Point, b: Point) -> None:
        """A dimension line for a parameter."""
        self.dims.append(Dim(key=key, a=a, b=b))

    def mark(self, kind: Seal, x: float, y: float) -> None:
        """Where a seal sits."""
        self.marks.append(Mark(kind=kind, at=(x, y)))

    def done(
        self, view: tuple[float, float, float, float], *, plan: bool = False, kind: SectionKind = "plane",
        assumptions: tuple[str, ...] = (), sides: tuple[str, str] = ("outside", "inside"),
        direction: Direction | None = None,
    ) -> Drawing:  # fmt: skip
        """The drawing; coordinates that differ by rounding only are made one."""
        place = _gathered([point for shape in self.shapes for point in shape.ring])
        shapes = tuple(replace(shape, ring=tuple(place[point] for point in shape.ring)) for shape in self.shapes)
        return Drawing(
            shapes=shapes,
            airs=tuple(self.airs),
            references=tuple(self.references),
            view=view,
            dims=tuple(self.dims),
            marks=tuple(self.marks),
            plan=plan,
            direction=direction,
            kind=kind,
            assumptions=assumptions,
            sides=sides,
        )


def visible(drawing: Drawing) -> list[tuple[Shape, list[list[Point]]]]:
    """What is seen of each shape in the view, as rings: outlines, and holes in them. [m]"""
    window = shapely.Polygon(box(*drawing.view))
    covered: shapely.Geometry = shapely.Polygon()
    found: list[tuple[Shape, list[list[Point]]]] = []
    for shape in reversed(drawing.shapes):
        whole = shapely.Polygon(shape.ring)
        seen = shapely.intersection(shapely.difference(whole, covered, grid_size=SNAP), window, grid_size=SNAP)
        covered = shapely.union(covered, whole, grid_size=SNAP)
        rings = [
            [(float(x), float(y)) for x, y in ring.coords[:-1]]
            for part in shapely.get_parts(seen)
            if isinstance(part, shapely.Polygon) and not part.is_empty
            for ring in (part.exterior, *part.interiors)
        ]
        if rings and shape.fill is not None:
            found.append((shape, rings))
    return found[::-1]


def _gathered(points: Sequence[Point]) -> dict[Point, Point]:
    """Each point with its coordinates moved to the first of those nearer than what rounding makes of them."""
    moved: list[dict[float, float]] = []
    for axis in (0, 1):
        names: dict[float, float] = {}
        last = None
        for value in sorted({point[axis] for point in points}):
            last = value if last is None or value - last > _SAME else last
            names[value] = last
        moved.append(names)
    return {point: (moved[0][point[0]], moved[1][point[1]]) for point in points}


def box(x0: float, y0: float, x1: float, y1: float) -> tuple[Point, ...]:
    """A rectangle's corners, in order. [m]"""
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
