"""A mesh of triangles that follows every edge: grid lines through all corners, cut by the sloping edges.

Grid lines run through every corner of every region and segment and are graded between. Together with the edges
themselves they make an arrangement whose faces are convex for rectangles and small where a slope cuts a cell; each
face is triangulated by itself, and since the arrangement is noded the triangles meet edge to edge.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.conduction.refinement import halved
from nimble_shell.core.conduction.section import Point, Section
from nimble_shell.core.errors import DomainError, Issue

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

NEAREST = 8  #: intervals beside a corner are at most this part of the smaller extent of the model
GROWTH = 2.5  #: an interval is at most this many times its neighbour
_CLOSER = 3  #: halvings towards a place, each time
_CLOSEST = 5e-5  #: nearer to it than this a line needs no other between [m]
_ON = 1e-7  #: a corner nearer to an edge lies on it [m]
_SNAP = 1e-8  #: corners nearer than this are one [m]


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Mesh:
    """Triangles of one material each."""

    xy: FloatArray  #: corners, shape (n, 2) [m]
    triangles: IntArray  #: corners of each, shape (m, 3), counter-clockwise
    lambda_: FloatArray  #: of each triangle, shape (m,) [W/(m·K)]
    region: IntArray  #: of each triangle, index into the section's regions, shape (m,)
    edges: IntArray  #: corners of each edge, shape (k, 2), lower index first
    edge_of: IntArray  #: edges of each triangle, opposite to its corners, shape (m, 3)
    outer: IntArray  #: edges with one triangle only

    @property
    def centres(self) -> FloatArray:
        """Of the triangles, shape (m, 2). [m]"""
        return centres_of(self.xy, self.triangles)


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Grid:
    """Coordinates of the grid lines. [m]"""

    x: FloatArray
    y: FloatArray

    def refined(self, columns: NDArray[np.bool_], rows: NDArray[np.bool_]) -> Grid:
        """Chosen intervals halved."""
        return Grid(x=halved(self.x, columns), y=halved(self.y, rows))

    def towards(self, place: Point) -> Grid:
        """The intervals beside a place halved again and again, each time the nearer half."""
        return Grid(x=_closing(self.x, place[0]), y=_closing(self.y, place[1]))


def first_grid(section: Section, growth: float = GROWTH) -> Grid:
    """Grid lines through every corner, and between them intervals that grow by at most a factor. [m]

    Parameters
    ----------
    growth
        That factor.
    """
    corners = np.array(
        [point for region in section.regions for point in region.ring]
        + [point for segment in section.segments for point in (segment.a, segment.b)]
    )
    nearest = float(np.ptp(corners, axis=0).min()) / NEAREST
    return Grid(x=graded(corners[:, 0], nearest, growth), y=graded(corners[:, 1], nearest, growth))


def graded(values: FloatArray, nearest: float, growth: float = GROWTH) -> FloatArray:
    """Grid lines through the values: no interval beside one is wider than `nearest`, and neighbours grow gently. [m]"""
    lines = np.unique(np.round(values / _SNAP)) * _SNAP
    lines = np.unique(np.concatenate([_beside(a, b, nearest) for a, b in pairwise(lines)]))
    while True:
        d = np.diff(lines)
        least = np.minimum(np.r_[np.inf, d[:-1]], np.r_[d[1:], np.inf])
        wide = d > growth * least * 1.000001
        if not wide.any():
            break
        lines = halved(lines, wide)
    while len(lines) < 5:
        lines = halved(lines, np.ones(len(lines) - 1, dtype=bool))
    return lines


def _closing(lines: FloatArray, at: float) -> FloatArray:
    """Lines that close in on a coordinate, from either side. [m]"""
    below, above = lines[lines < at - _SNAP], lines[lines > at + _SNAP]
    parts = 0.5 ** np.arange(1, _CLOSER + 1)
    more = [at + (end - at) * parts for end in (*below[-1:], *above[:1]) if abs(end - at) > _CLOSEST]
    return np.unique(np.concatenate([lines, *more]))


def _beside(a: float, b: float, nearest: float) -> FloatArray:
    """Lines from a to b whose first and last interval are not wider than `nearest`. [m]"""
    parts = math.ceil((b - a) / nearest - 1e-9)
    return np.linspace(a, b, parts + 1) if parts < 4 else np.array([a, a + nearest, b - nearest, b])


def build(section: Section, grid: Grid) -> Mesh:
    """Triangles of the section on a grid.

    Raises
    ------
    DomainError
        If nothing solid is left.
    """
    rings = [shapely.Polygon(region.ring) for region in section.regions]
    corners, parts = _cells(Grid(x=_snapped(grid.x), y=_snapped(grid.y)), _slopes(section))
    middle = centres_of(corners, parts)
    owner = np.full(len(parts), -1)
    for at, (ring, region) in enumerate(zip(rings, section.regions, strict=True)):
        if _is_box(region.ring):
            x0, y0, x1, y1 = ring.bounds
            inside = (middle[:, 0] > x0) & (middle[:, 0] < x1) & (middle[:, 1] > y0) & (middle[:, 1] < y1)
        else:
            shapely.prepare(ring)
            inside = shapely.contains_xy(ring, middle[:, 0], middle[:, 1])
        owner[inside] = at
    lambda_ = np.array([*(region.lambda_ or np.nan for region in section.regions), np.nan])[owner]
    solid = np.isfinite(lambda_)
    if not solid.any():
        raise DomainError(
            Issue(
                path=("regions",),
                code="nothing_solid",
                message="nothing is left of the regions on a scale of 10 nm",
                hint="voids take the place of what they cover: check their order and the unit",
            )
        )
    used, triangles = np.unique(parts[solid], return_inverse=True)
    return _mesh(corners[used], triangles.reshape(-1, 3), lambda_[solid], owner[solid])


def centres_of(xy: FloatArray, triangles: IntArray) -> FloatArray:
    """Of triangles, shape (m, 2): corner by corner, as a mean over three of many is slow. [m]"""
    a, b, c = triangles.T
    found: FloatArray = (xy[a] + xy[b] + xy[c]) / 3
    return found


def _mesh(xy: FloatArray, triangles: IntArray, lambda_: FloatArray, region: IntArray) -> Mesh:
    a, b, c = (xy[triangles[:, at]] for at in range(3))
    area = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (c[:, 0] - a[:, 0]) * (b[:, 1] - a[:, 1])
    triangles = np.where((area < 0)[:, None], triangles[:, [0, 2, 1]], triangles)
    pairs = np.sort(np.concatenate([triangles[:, [1, 2]], triangles[:, [2, 0]], triangles[:, [0, 1]]]), axis=1)
    keys = pairs[:, 0].astype(np.int64) * len(xy) + pairs[:, 1]
    _, first, back, count = np.unique(keys, return_index=True, return_inverse=True, return_counts=True)
    edges, edge_of = pairs[first], back.reshape(3, -1).T
    outer = np.nonzero(count == 1)[0]
    return Mesh(xy=xy, triangles=triangles, lambda_=lambda_, region=region, edges=edges, edge_of=edge_of, outer=outer)


def _snapped(lines: FloatArray) -> FloatArray:
    """Grid lines on whole multiples of the snap, as the cut cells have them. [m]"""
    found: FloatArray = np.unique(np.round(lines / _SNAP)) * _SNAP
    return found


def _slopes(section: Section) -> FloatArray:
    """Edges along neither axis, each once and ended at every corner that lies on it, shape (n, 2, 2). [m]

    Edges of neighbours that share a line but not their ends would else differ by the snap, and leave slivers.
    """
    sides = [side for region in section.regions for side in pairwise((*region.ring, region.ring[0]))]
    sides += [(segment.a, segment.b) for segment in section.segments]
    ends = _snapped_points(np.array(sides))
    corners = np.unique(ends.reshape(-1, 2), axis=0)
    found: set[tuple[Point, Point]] = set()
    for a, b in ends[(np.abs(ends[:, 0] - ends[:, 1]) > _SNAP / 2).all(axis=1)]:
        length = float(np.linalg.norm(b - a))
        t = (corners - a) @ (b - a) / length**2
        away = np.abs((corners - a) @ np.array([a[1] - b[1], b[0] - a[0]])) / length
        on = (away < _ON) & (t > _ON / length) & (t < 1 - _ON / length)
        chain = [a, *corners[on][np.argsort(t[on])], b]
        for p, q in pairwise((float(x), float(y)) for x, y in chain):
            found.add((min(p, q), max(p, q)))
    return np.array(sorted(found)).reshape(-1, 2, 2)


def _snapped_points(points: FloatArray) -> FloatArray:
    found: FloatArray = np.round(points / _SNAP) * _SNAP
    return found


def _cells(grid: Grid, slopes: FloatArray) -> tuple[FloatArray, IntArray]:
    """Every cell of the grid as triangles: two where no slope crosses it, else what the slopes make of it."""
    nx, ny = len(grid.x), len(grid.y)
    X, Y = np.meshgrid(grid.x, grid.y, indexing="ij")
    points = np.stack([X.ravel(), Y.ravel()], axis=1)
    number = np.arange(nx * ny).reshape(nx, ny)
    p, q, r, s = number[:-1, :-1], number[1:, :-1], number[1:, 1:], number[:-1, 1:]
    even = (np.add.outer(np.arange(nx - 1), np.arange(ny - 1)) % 2 == 0)[..., None]  # the diagonals alternate
    one = np.where(even, np.stack([p, q, r], -1), np.stack([p, q, s], -1))
    two = np.where(even, np.stack([p, r, s], -1), np.stack([q, r, s], -1))
    if not len(slopes):
        return points, np.concatenate([one.reshape(-1, 3), two.reshape(-1, 3)])
    crossed, bits = _crossed(grid, slopes)
    cut = _cut(grid, crossed, bits)
    every = np.concatenate([points, cut.reshape(-1, 2)])
    # Coordinates are counted in lines of the snap, not in snaps: 60 m squared in snaps would not fit.
    columns, rows = (np.unique(np.round(axis / _SNAP), return_inverse=True)[1] for axis in every.T)
    keys = columns.astype(np.int64) * (int(rows.max()) + 1) + rows
    _, first, back = np.unique(keys, return_index=True, return_inverse=True)
    whole = np.concatenate([one[~crossed], two[~crossed], len(points) + np.arange(3 * len(cut)).reshape(-1, 3)])
    triangles = back.ravel()[whole]
    used, triangles = np.unique(triangles, return_inverse=True)
    return every[first][used], triangles.reshape(-1, 3)


def _crossed(grid: Grid, slopes: FloatArray) -> tuple[NDArray[np.bool_], list[FloatArray]]:
    """Which cells a slope runs through, and every slope as its corners and crossings with grid lines."""
    crossed = np.zeros((len(grid.x) - 1, len(grid.y) - 1), dtype=bool)
    bits = []
    for a, b in slopes:
        stops = [np.array([0.0, 1.0])]
        for at, lines in enumerate((grid.x, grid.y)):
            low, high = sorted((a[at], b[at]))
            stops.append((lines[(lines > low) & (lines < high)] - a[at]) / (b[at] - a[at]))
        t = np.unique(np.concatenate(stops))
        chain = a + t[:, None] * (b - a)
        middle = (chain[1:] + chain[:-1]) / 2
        column = np.clip(np.searchsorted(grid.x, middle[:, 0]) - 1, 0, len(grid.x) - 2)
        row = np.clip(np.searchsorted(grid.y, middle[:, 1]) - 1, 0, len(grid.y) - 2)
        crossed[column, row] = True
        bits.append(_snapped_points(chain))
    return crossed, bits


def _cut(grid: Grid, crossed: NDArray[np.bool_], bits: list[FloatArray]) -> FloatArray:
    """Faces of the arrangement of crossed cells and slopes, each triangulated by itself, shape (n, 3, 2). [m]"""
    column, row = np.nonzero(crossed)
    cells = shapely.box(grid.x[column], grid.y[row], grid.x[column + 1], grid.y[row + 1])
    lines = [*shapely.boundary(cells), *(shapely.LineString(chain) for chain in bits)]
    noded = shapely.unary_union(lines, grid_size=_SNAP)
    faces = shapely.get_parts(shapely.polygonize(shapely.get_parts(noded)))
    inside = shapely.point_on_surface(faces)
    at_x = np.clip(np.searchsorted(grid.x, shapely.get_x(inside)) - 1, 0, crossed.shape[0] - 1)
    at_y = np.clip(np.searchsorted(grid.y, shapely.get_y(inside)) - 1, 0, crossed.shape[1] - 1)
    faces = faces[crossed[at_x, at_y]]
    rings, owner = shapely.get_coordinates(shapely.get_exterior_ring(faces), return_index=True)
    count = np.bincount(owner) - 1  # the first corner comes again at the end
    start = np.concatenate([[0], np.cumsum(count + 1)[:-1]])
    return np.concatenate([_fans(rings[start[count == n][:, None] + np.arange(n)]) for n in np.unique(count)])


def _fans(rings: FloatArray) -> FloatArray:
    """Convex rings of n corners as triangles around their centres, shape (…, 3, 2); a triangle stays one."""
    if rings.shape[1] == 3:
        return rings
    centre = np.broadcast_to(rings.mean(axis=1, keepdims=True), rings.shape)
    return np.stack([centre, rings, np.roll(rings, -1, axis=1)], axis=2).reshape(-1, 3, 2)


def _is_rectilinear(ring: tuple[tuple[float, float], ...]) -> bool:
    following = (*ring[1:], ring[0])
    return all(abs(a[0] - b[0]) < _SNAP or abs(a[1] - b[1]) < _SNAP for a, b in zip(ring, following, strict=True))


def _is_box(ring: tuple[tuple[float, float], ...]) -> bool:
    return len(ring) == 4 and _is_rectilinear(ring)
