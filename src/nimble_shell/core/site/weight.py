"""Weight and centre of gravity of a panel by its layers, openings and members. Lengths in mm, masses in kg."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import shapely

Point = tuple[float, float]
Place = tuple[float, float, float]
M2, M3 = 1e-6, 1e-9


@dataclass(frozen=True, slots=True, kw_only=True)
class Layer:
    """Over all of the panel, or over a region of it."""

    d: float
    rho: float  #: [kg/m³]
    region: tuple[Point, ...] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Hole:
    """An opening through all layers, with the unit that is fitted into it."""

    x: float
    y: float
    w: float
    h: float
    mass: float = 0.0
    z: float | None = None  #: of the unit, from the inside; None in the middle of the panel


@dataclass(frozen=True, slots=True, kw_only=True)
class Stick:
    """A member along a line."""

    a: Point
    b: Point
    per_m: float  #: [kg/m]
    z: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Body:
    """A panel; z = 0 at its inside, layers from there outwards."""

    outline: tuple[Point, ...]
    layers: tuple[Layer, ...]
    openings: tuple[Hole, ...] = ()
    members: tuple[Stick, ...] = ()

    @property
    def gross(self) -> float:
        """[m²]"""
        return float(shapely.Polygon(self.outline).area) * M2

    @property
    def net(self) -> float:
        """Less its openings. [m²]"""
        return float(shapely.Polygon(self.outline).difference(_cut(self.openings)).area) * M2


@dataclass(frozen=True, slots=True)
class Weight:
    mass: float
    at: Place  #: centre of gravity


def weight_of(body: Body) -> Weight:
    """Layers less openings, units at the middle of theirs, members along their lines."""
    cut, z, parts = _cut(body.openings), 0.0, list[tuple[float, Place]]()
    thick = sum(one.d for one in body.layers)
    for layer in body.layers:
        shape = shapely.Polygon(layer.region or body.outline).difference(cut)
        if not shape.is_empty:
            middle = shape.centroid
            parts.append((shape.area * layer.d * layer.rho * M3, (middle.x, middle.y, z + layer.d / 2)))
        z += layer.d
    for hole in body.openings:
        if hole.mass:
            depth = thick / 2 if hole.z is None else hole.z
            parts.append((hole.mass, (hole.x + hole.w / 2, hole.y + hole.h / 2, depth)))
    for one in body.members:
        long = math.dist(one.a, one.b) / 1000
        parts.append((long * one.per_m, ((one.a[0] + one.b[0]) / 2, (one.a[1] + one.b[1]) / 2, one.z)))
    return together(parts)


def together(parts: Sequence[tuple[float, Place]]) -> Weight:
    """Of several masses."""
    mass = sum(one for one, _ in parts)
    if mass <= 0:
        return Weight(0.0, (0.0, 0.0, 0.0))
    x, y, z = (sum(one * at[axis] for one, at in parts) / mass for axis in range(3))
    return Weight(mass, (x, y, z))


def _cut(openings: Sequence[Hole]) -> shapely.Geometry:
    return shapely.union_all([shapely.box(one.x, one.y, one.x + one.w, one.y + one.h) for one in openings])
