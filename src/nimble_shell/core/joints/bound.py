"""From a drawing to what is solved: regions, and the segments of surface that meet each environment."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Mapping
from dataclasses import replace

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.basis.schools import FilmSchool
from nimble_shell.core.conduction.section import Point, Region, Section, SurfaceSegment
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.joints.drawing import SNAP, Air, Drawing
from nimble_shell.core.thermal.films import R_SI_OPENING, R_SI_SURFACE, films

FloatArray = NDArray[np.float64]

_OUT = 1e-6  #: a surface belongs to the environment that is this far outside of it [m]
_FLAT = 0.5  #: rise of a surface's normal from which heat flows up or down rather than across


def section_of(drawing: Drawing, temperatures: Mapping[str, float], school: FilmSchool) -> Section:
    """The section of a joint.

    Parameters
    ----------
    drawing : Drawing
    temperatures : mapping
        Of each environment. [°C]
    school : {"iso6946", "north_american"}
        Of the surface films.

    Raises
    ------
    DomainError
        If an environment of the drawing has no temperature, or meets no surface.

    References
    ----------
    .. [1] ISO 10211:2017, 7.2 and 8.3.
    """
    used = {air.env for air in drawing.airs}
    missing = used - set(temperatures)
    if missing:
        raise DomainError(Issue(path=("temperatures",), code="no_temperature",
                                message=f"there is no temperature of “{min(missing)}”", hint="name one"))  # fmt: skip
    segments = tuple(_segments(drawing, school))
    regions = tuple(
        Region(ring=shape.ring, lambda_=None if shape.fill is None else shape.fill.lambda_) for shape in drawing.shapes
    )
    return Section(
        regions=regions,
        segments=segments,
        temperatures={env: temperatures[env] for env in temperatures if env in used},
        kind=drawing.kind,
    )


def judged(drawing: Drawing, section: Section) -> Section:
    """The section of a drawing with the films that its inner surfaces are judged by.

    R_si is 0.13 m²·K/W on glazing, frames and doors, and 0.25 elsewhere.

    References
    ----------
    .. [1] ISO 13788:2012, 4.4.1, table 2.
    """
    rooms = {air.env for air in drawing.airs if air.R_s is None}
    openings = [shapely.Polygon(shape.ring).buffer(_OUT) for shape in drawing.shapes if shape.opening]

    def film(segment: SurfaceSegment) -> float:
        middle = ((segment.a[0] + segment.b[0]) / 2, (segment.a[1] + segment.b[1]) / 2)
        return R_SI_OPENING if any(shapely.contains_xy(one, *middle) for one in openings) else R_SI_SURFACE

    segments = tuple(replace(one, R_s=film(one)) if one.env in rooms else one for one in section.segments)
    return replace(section, segments=segments)


def solid_of(drawing: Drawing) -> shapely.Geometry:
    """The union of what is solid."""
    solid: shapely.Geometry = shapely.Polygon()
    batch: list[shapely.Polygon] = []
    for shape in drawing.shapes:
        ring = shapely.Polygon(shape.ring)
        if shape.fill is not None:
            batch.append(ring)
            continue
        solid = shapely.union_all([solid, *batch], grid_size=SNAP)
        solid, batch = shapely.difference(solid, ring, grid_size=SNAP), []
    return shapely.union_all([solid, *batch], grid_size=SNAP)


def _segments(drawing: Drawing, school: FilmSchool) -> Iterator[SurfaceSegment]:
    corners = np.array([point for shape in drawing.shapes for point in shape.ring])
    airs = [(air, shapely.Polygon(air.ring)) for air in drawing.airs]
    openings = [shapely.Polygon(shape.ring) for shape in drawing.shapes if shape.opening]
    ends = [*(polygon for _, polygon in airs), *openings]
    for polygon in ends:
        shapely.prepare(polygon)
    for a, b in _outline(solid_of(drawing)):
        for p, q in _split(a, b, ends):
            length = math.dist(p, q)
            if length < 2 * SNAP:
                continue
            normal = ((q[1] - p[1]) / length, (p[0] - q[0]) / length)
            x, y = (p[0] + q[0]) / 2 + _OUT * normal[0], (p[1] + q[1]) / 2 + _OUT * normal[1]
            if drawing.kind == "axisymmetric" and max(p[0], q[0]) < SNAP:
                continue  # the axis is no surface
            air = next((air for air, polygon in airs if shapely.contains_xy(polygon, x, y)), None)
            start, end = _at_corner(p, corners), _at_corner(q, corners)
            if air is not None and start != end:
                yield SurfaceSegment(a=start, b=end, env=air.env, R_s=_film(air, normal, school, drawing))


def _at_corner(point: Point, corners: FloatArray) -> Point:
    """The corner of a shape that the point is, but for rounding; else the point."""
    away = np.abs(corners - point).max(axis=1)
    nearest = int(np.argmin(away))
    return (float(corners[nearest, 0]), float(corners[nearest, 1])) if away[nearest] < 4 * SNAP else point


def _outline(solid: shapely.Geometry) -> Iterator[tuple[Point, Point]]:
    """Sides of the outline, the solid to their left."""
    for part in shapely.get_parts(solid):
        polygon = shapely.orient_polygons(part)
        for ring in (polygon.exterior, *polygon.interiors):
            corners = [(float(x), float(y)) for x, y in ring.coords]
            yield from itertools.pairwise(corners)


def _split(a: Point, b: Point, polygons: list[shapely.Polygon]) -> Iterator[tuple[Point, Point]]:
    """The side, cut where an environment ends."""
    line = shapely.LineString([a, b])
    stops = {0.0, 1.0}
    for polygon in polygons:
        crossing = shapely.intersection(line, polygon.exterior)
        for x, y in shapely.get_coordinates(crossing):
            t = line.project(shapely.Point(x, y), normalized=True)
            if min(t, 1 - t) * line.length > 2 * SNAP:
                stops.add(float(t))
    places = sorted(stops)
    points = [(a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])) for t in places]
    yield from itertools.pairwise(points)


def _film(air: Air, normal: Point, school: FilmSchool, drawing: Drawing) -> float:
    """Surface resistance. A normal that points down belongs to a ceiling: heat flows up into it, or down out of it."""
    if air.R_s is not None:
        return air.R_s
    if drawing.direction is not None:
        return films(school, drawing.direction).R_si
    if drawing.plan or abs(normal[1]) <= _FLAT:
        return films(school, "horizontal").R_si
    return films(school, "up" if (normal[1] < 0) != drawing.inwards else "down").R_si
