"""A small window of a solved section, solved again on a much finer grid: what happens in a corner, for little."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.conduction.elements import (
    NEAR,
    Space,
    assembled,
    conductances,
    edge_masses,
    edge_nodes,
    value_at,
)
from nimble_shell.core.conduction.mesh import Grid, build
from nimble_shell.core.conduction.section import Point, Region, Section, SurfaceSegment
from nimble_shell.core.conduction.solve import factored, segments_of_edges

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

_REACH = 4  #: intervals of the grid on either side of the place
_TIMES = 3  #: that the window's own grid closes in on it


@dataclass(frozen=True, slots=True, eq=False)
class Surface:
    """Temperatures along edges of a surface, at both ends and the middle of each."""

    places: FloatArray  #: shape (n, 3, 2) [m]
    theta: FloatArray  #: shape (n, 3) [°C]
    segment: IntArray  #: of the section, shape (n,)


def window(section: Section, space: Space, grid: Grid, theta: FloatArray, place: Point) -> Surface:
    """The surfaces around a place, closer than the grid that the section was solved on.

    Parameters
    ----------
    section : Section
        With the films of the temperatures.
    space : Space
        That it was solved on.
    grid : Grid
        Of it.
    theta : ndarray
        Temperatures at its unknowns. [°C]
    place : tuple
        [m]

    Notes
    -----
    The window reaches some intervals of the grid to either side. Where it cuts through the section it has the
    temperatures found there; inside of it the field of a corner, which no even grid resolves, costs some thousand
    unknowns.
    """
    around = Grid(x=_around(grid.x, place[0]), y=_around(grid.y, place[1]))
    box = shapely.box(around.x[0], around.y[0], around.x[-1], around.y[-1])
    part, of = _clipped(section, box)
    fine = around
    for _ in range(_TIMES):
        fine = fine.towards(place)
    mesh = build(part, fine)
    own = Space(mesh=mesh, axisymmetric=section.kind == "axisymmetric")
    segment = segments_of_edges(mesh, part.segments)
    bound = segment >= 0
    on, segment = mesh.outer[bound], segment[bound]
    nodes = edge_nodes(own, on)
    R = np.array([one.R_s for one in part.segments])[segment]
    T = np.array([section.temperatures[one.env] for one in part.segments])[segment]
    found = np.zeros(own.size)
    known = np.zeros(own.size, dtype=bool)
    cut = np.unique(edge_nodes(own, mesh.outer[~bound]))
    cut = cut[_on_outline(own.places[cut], box)]
    found[cut], known[cut] = value_at(_near(space, box), theta, own.places[cut]), True
    filmed = R > 0
    found[nodes[~filmed]], known[nodes[~filmed]] = T[~filmed][:, None], True
    films = edge_masses(own, on[filmed]) / R[filmed][:, None, None]
    A = assembled(own, (own.nodes, conductances(own)), (nodes[filmed], films))
    b = np.zeros(own.size)
    np.add.at(b, nodes[filmed], films.sum(axis=2) * T[filmed][:, None])
    free = np.nonzero(~known)[0]
    found[free] = factored(A[free][:, free].tocsc())((b - A @ found)[free])
    order = [0, 2, 1]
    return Surface(own.places[nodes[:, order]], found[nodes[:, order]], of[segment])


def _around(lines: FloatArray, at: float) -> FloatArray:
    middle = int(np.searchsorted(lines, at))
    return lines[max(middle - _REACH, 0) : middle + _REACH + 1]


def _on_outline(points: FloatArray, box: shapely.Polygon) -> NDArray[np.bool_]:
    x0, y0, x1, y1 = box.bounds
    ends = [np.abs(points[:, axis] - end) for axis, end in ((0, x0), (0, x1), (1, y0), (1, y1))]
    found: NDArray[np.bool_] = np.min(ends, axis=0) < NEAR
    return found


def _near(space: Space, box: shapely.Polygon) -> Space:
    """The triangles that touch a box, so that few are looked through."""
    mesh = space.mesh
    x0, y0, x1, y1 = box.bounds
    after, before = mesh.xy > np.array([x0, y0]) - NEAR, mesh.xy < np.array([x1, y1]) + NEAR
    sides = np.hstack([after, before])  # of the outline that each corner is within
    a, b, c = mesh.triangles.T
    keep = (sides[a] | sides[b] | sides[c]).all(axis=1)
    kept = {name: getattr(mesh, name)[keep] for name in ("triangles", "edge_of", "lambda_", "region")}
    return replace(space, mesh=replace(mesh, **kept))


def _clipped(section: Section, box: shapely.Polygon) -> tuple[Section, IntArray]:
    """What of a section lies in a box, and which of its segments each segment was."""
    regions = tuple(one for region in section.regions for one in _parts(region, box))
    wide = box.buffer(NEAR, join_style="mitre")  # a segment may lie beside the outline by rounding alone
    cut = [(at, one) for at, segment in enumerate(section.segments) for one in _pieces(segment, wide)]
    part = replace(section, regions=regions, segments=tuple(one for _, one in cut))
    return part, np.array([at for at, _ in cut])


def _parts(region: Region, box: shapely.Polygon) -> Iterator[Region]:
    for one in shapely.get_parts(shapely.intersection(shapely.Polygon(region.ring), box)):
        if isinstance(one, shapely.Polygon) and one.area > NEAR**2:
            yield replace(region, ring=tuple((float(x), float(y)) for x, y in one.exterior.coords[:-1]))


def _pieces(segment: SurfaceSegment, box: shapely.Polygon) -> Iterator[SurfaceSegment]:
    for one in shapely.get_parts(shapely.intersection(shapely.LineString([segment.a, segment.b]), box)):
        if isinstance(one, shapely.LineString) and one.length > NEAR:
            a, b = ((float(x), float(y)) for x, y in one.coords)
            yield replace(segment, a=a, b=b)
