"""From a drawing to what is solved: regions, and the segments of surface that meet each environment."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
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
    airs = [shapely.Polygon(air.ring) for air in drawing.airs]
    openings = [shapely.Polygon(shape.ring) for shape in drawing.shapes if shape.opening]
    sides = _split(_outline(solid_of(drawing)), [*airs, *openings])
    along = sides[:, 1] - sides[:, 0]
    lengths = np.hypot(along[:, 0], along[:, 1])
    kept = lengths >= 2 * SNAP
    if drawing.kind == "axisymmetric":
        kept &= sides[:, :, 0].max(axis=1) >= SNAP  # the axis is no surface
    sides, along, lengths = sides[kept], along[kept], lengths[kept]
    normals = np.column_stack([along[:, 1], -along[:, 0]]) / lengths[:, None]
    before = sides.mean(axis=1) + _OUT * normals
    faced = np.full(len(sides), -1)
    for number, polygon in reversed(list(enumerate(airs))):
        faced[shapely.contains_xy(polygon, before)] = number
    starts, ends = _at_corners(sides[:, 0], corners), _at_corners(sides[:, 1], corners)
    for number, normal, start, end in zip(faced, normals, starts, ends, strict=True):
        if number >= 0 and start != end:
            air = drawing.airs[number]
            yield SurfaceSegment(a=start, b=end, env=air.env, R_s=_film(air, float(normal[1]), school, drawing))


def _at_corners(points: FloatArray, corners: FloatArray) -> list[Point]:
    """Of each point the corner of a shape that it is, but for rounding; else the point."""
    away = np.abs(corners[None, :, :] - points[:, None, :]).max(axis=2)
    nearest = away.argmin(axis=1)
    met = away[np.arange(len(points)), nearest] < 4 * SNAP
    return [(float(x), float(y)) for x, y in np.where(met[:, None], corners[nearest], points)]


def _outline(solid: shapely.Geometry) -> FloatArray:
    """Sides of the outline, the solid to their left: (sides, 2 ends, 2)."""
    found = [np.empty((0, 2, 2))]
    for part in shapely.get_parts(solid):
        polygon = shapely.orient_polygons(part)
        for ring in (polygon.exterior, *polygon.interiors):
            corners = shapely.get_coordinates(ring)
            found.append(np.stack([corners[:-1], corners[1:]], axis=1))
    return np.concatenate(found)


def _split(sides: FloatArray, polygons: Sequence[shapely.Polygon]) -> FloatArray:
    """The sides, each cut where an environment ends; in their order."""
    lines = shapely.linestrings(sides)
    rings = shapely.get_exterior_ring(polygons)
    at, of = shapely.STRtree(rings).query(lines, predicate="intersects")
    places, which = shapely.get_coordinates(shapely.intersection(lines[at], rings[of]), return_index=True)
    side = at[which]
    t = shapely.line_locate_point(lines[side], shapely.points(places), normalized=True)
    cut = np.minimum(t, 1 - t) * shapely.length(lines[side]) > 2 * SNAP
    number = np.concatenate([side[cut], np.repeat(np.arange(len(sides)), 2)])
    where = np.concatenate([t[cut], np.tile([0.0, 1.0], len(sides))])
    number, where = np.unique(np.column_stack([number, where]), axis=0).T
    number = number.astype(int)
    points = sides[number, 0] + where[:, None] * (sides[number, 1] - sides[number, 0])
    pairs = np.stack([points[:-1], points[1:]], axis=1)
    kept: FloatArray = pairs[number[:-1] == number[1:]]
    return kept


def _film(air: Air, rise: float, school: FilmSchool, drawing: Drawing) -> float:
    """Surface resistance, by the rise of the surface's normal.

    A normal that points down belongs to a ceiling: heat flows up into it, or down out of it.
    """
    if air.R_s is not None:
        return air.R_s
    if drawing.direction is not None:
        return films(school, drawing.direction).R_si
    if drawing.plan or abs(rise) <= _FLAT:
        return films(school, "horizontal").R_si
    return films(school, "up" if (rise < 0) != drawing.inwards else "down").R_si
