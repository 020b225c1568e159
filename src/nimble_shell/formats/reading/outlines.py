"""Closed outlines out of what is drawn: polylines, circles, and loose lines whose ends nearly meet. In metres."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

from nimble_shell.formats.reading.reading import Point

JOIN = 1e-3  #: ends this near are one [m]
SAME = 1e-4  #: areas that differ by no more are one [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawn:
    """A path as it is drawn."""

    entity: str
    kind: str  #: LWPOLYLINE, LINE …
    layer: str
    points: tuple[Point, ...]
    closed: bool
    alone: bool = True  #: not a part of a block


@dataclass(frozen=True, slots=True, kw_only=True)
class Outline:
    """A closed outline."""

    entity: str
    kind: str
    layer: str
    shape: shapely.Polygon


@dataclass(frozen=True, slots=True, kw_only=True)
class Chain:
    """Lines that are joined and close nothing."""

    entities: tuple[str, ...]
    kind: str
    layer: str
    gap: float  #: between its ends [m]
    length: float  #: [m]
    ends: tuple[Point, Point]
    parts: int


def closed_outlines(paths: Sequence[Drawn]) -> tuple[list[Outline], list[Chain]]:
    """Outlines of one layer, and what of it stays open.

    Parameters
    ----------
    paths : sequence of Drawn
        Of one layer.
    """
    found = [_outline(one) for one in paths if _is_closed(one)]
    loose = [one for one in paths if not _is_closed(one)]
    joined, chains = _joined(loose)
    return _once([*found, *joined]), chains


def _is_closed(one: Drawn) -> bool:
    return len(one.points) >= 3 and (one.closed or _apart(one.points[0], one.points[-1]) <= JOIN)


def _apart(p: Point, q: Point) -> float:
    return float(np.hypot(p[0] - q[0], p[1] - q[1]))


def _outline(one: Drawn) -> Outline:
    return Outline(
        entity=one.entity, kind=one.kind, layer=one.layer, shape=shapely.Polygon(_without_doubles(one.points))
    )


def _without_doubles(points: Iterable[Point]) -> list[Point]:
    found: list[Point] = []
    for point in points:
        if not found or _apart(found[-1], point) > 1e-6:
            found.append(point)
    if len(found) > 1 and _apart(found[0], found[-1]) <= JOIN:
        found.pop()
    return found if len(found) >= 3 else [*found, *found[-1:], *found[-1:]][:3]


def _once(outlines: Sequence[Outline]) -> list[Outline]:
    """Without what is drawn twice: of what has one box to 1 mm, one of each shape."""
    found: list[Outline] = []
    by_box: dict[tuple[float, ...], list[Outline]] = {}
    for one in outlines:
        alike = by_box.setdefault(tuple(round(side, 3) for side in one.shape.bounds), [])
        if not (one.shape.is_valid and any(
            other.shape.is_valid and shapely.symmetric_difference(one.shape, other.shape).area < SAME
            for other in alike)):  # fmt: skip
            found.append(one)
            alike.append(one)
    return found


def _joined(paths: Sequence[Drawn]) -> tuple[list[Outline], list[Chain]]:
    """Outlines out of loose lines: their ends clustered, not rounded, so that none is lost at the edge of a cell."""
    segments = [(n, p, q) for n, one in enumerate(paths) for p, q in zip(one.points, one.points[1:], strict=False)
                if _apart(p, q) > 1e-9]  # fmt: skip
    if not segments:
        return [], []
    ends = np.array([point for _, p, q in segments for point in (p, q)])
    at = _clustered(ends)
    nodes = np.array([ends[at == n].mean(axis=0) for n in range(at.max() + 1)])
    edges: dict[tuple[int, int], int] = {}
    for k, (n, _, _) in enumerate(segments):
        a, b = sorted((int(at[2 * k]), int(at[2 * k + 1])))
        if a != b:
            edges.setdefault((a, b), n)
    lines = [shapely.LineString([nodes[a], nodes[b]]) for a, b in edges]
    polygons, cuts, dangles, _ = shapely.polygonize_full(lines)
    owners = {line.wkb: n for line, n in zip(lines, edges.values(), strict=True)}
    found = []
    tree, whose = shapely.STRtree(lines), list(edges.values())
    for shape in _merged(shapely.get_parts(polygons)):
        near = tree.query(shape.buffer(JOIN), predicate="covers")
        own = paths[whose[int(near.min())] if len(near) else 0]
        found.append(Outline(entity=own.entity, kind=own.kind, layer=own.layer, shape=shape))
    open_lines = [*shapely.get_parts(dangles), *shapely.get_parts(cuts)]
    return found, _chains(open_lines, owners, paths)


def _clustered(ends: np.ndarray) -> np.ndarray:
    tree = shapely.STRtree(shapely.points(ends))
    pairs = tree.query(shapely.points(ends), predicate="dwithin", distance=JOIN)
    near = coo_array((np.ones(pairs.shape[1]), (pairs[0], pairs[1])), shape=(len(ends), len(ends)))
    label: np.ndarray = connected_components(near, directed=False)[1]
    return label


def _merged(polygons: Iterable[shapely.Polygon]) -> list[shapely.Polygon]:
    """Cells of one outline: a line across it makes no two of it."""
    return [one for one in shapely.get_parts(shapely.union_all(list(polygons))) if one.area > 0]


def _chains(lines: Sequence[shapely.LineString], owners: dict[bytes, int], paths: Sequence[Drawn]) -> list[Chain]:
    if not lines:
        return []
    merged = shapely.get_parts(shapely.line_merge(shapely.union_all(list(lines))))
    found = []
    for chain in merged:
        own = [paths[owners[one.wkb]] for one in lines if one.wkb in owners and chain.distance(one) < JOIN
               and chain.buffer(JOIN).covers(one)]  # fmt: skip
        if not own:
            continue
        start, end = chain.coords[0], chain.coords[-1]
        found.append(Chain(entities=tuple(dict.fromkeys(one.entity for one in own)), kind=own[0].kind,
                           layer=own[0].layer, gap=_apart(start, end), length=chain.length,
                           ends=((start[0], start[1]), (end[0], end[1])),
                           parts=len(chain.coords) - 1))  # fmt: skip
    return found
