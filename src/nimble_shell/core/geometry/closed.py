"""Faces that close a heated volume: every edge of one is met by others over its whole length, exactly once."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from copy import copy
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components
from scipy.spatial import cKDTree

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.face import MEET, Face, FloatArray, ids_once
from nimble_shell.core.held import Held
from nimble_shell.core.quantities.sentence import sentence

IntArray = NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class Meeting:
    """A straight piece where two faces meet, once for both."""

    face: int  #: along whose outline, anticlockwise, it runs from `start` to `end`
    other: int
    start: int  #: corner of the body
    end: int


@dataclass(frozen=True)
class Body:
    """A closed volume.

    A corner of another face that lies on an edge is a corner of that face too: `rings` has them all.
    """

    faces: tuple[Face, ...]
    rings: tuple[IntArray, ...]  #: corners of each face, anticlockwise as seen from outside
    flats: tuple[FloatArray, ...]  #: the same in the face's own plane, as its outline has them: each (corners, 2) [m]
    meetings: tuple[Meeting, ...]
    points: FloatArray  #: of the corners: (corners, 3) [m]

    @cached_property
    def normals(self) -> FloatArray:
        """Outward, of each face: (faces, 3)."""
        return np.array([face.axes[2] for face in self.faces])

    @cached_property
    def through(self) -> tuple[IntArray, ...]:
        """Of each corner the faces through it."""
        found: list[list[int]] = [[] for _ in self.points]
        for number, ring in enumerate(self.rings):
            for corner in set(ring.tolist()):
                found[corner].append(number)
        return tuple(np.array(one) for one in found)

    def of(self, faces: Sequence[Face]) -> Body:
        """The same of faces with the same outlines, however thick they are."""
        made = copy(self)
        vars(made)["faces"] = tuple(faces)
        return made


_CLOSED: Held[Body] = Held(256)  #: by the corners of the faces, which those of other thicknesses share


def close(faces: Sequence[Face]) -> Body:
    """The body that faces close.

    Parameters
    ----------
    faces : sequence of Face

    Raises
    ------
    DomainError
        With the path of a face, where an edge of it meets nothing, or more than one face along the same piece.

    Notes
    -----
    Points within 2 mm are one. Each edge is cut at every corner that lies on it; a piece from i to j of one face wants
    exactly one from j to i of another.
    """
    ids_once(faces)
    if not faces:
        raise DomainError(
            Issue(path=(), code="no_faces", message="there are no faces", hint="name those of the volume")
        )
    own = tuple(face.corners for face in faces)
    known = _CLOSED.get(own)
    if known is not None:
        return known.of(faces)
    corners, points = _joined(np.concatenate(own))
    first = np.cumsum([0, *(len(one) for one in own)])
    rings = _with_corners_on_edges([corners[a:b] for a, b in itertools.pairwise(first)], points)
    flats = [_flat(face, of, ring, points) for face, of, ring in zip(faces, own, rings, strict=True)]
    return _CLOSED.put(own, Body(tuple(faces), tuple(rings), tuple(flats), tuple(_met(faces, rings, points)), points))


def _flat(face: Face, own: FloatArray, ring: IntArray, points: FloatArray) -> FloatArray:
    """Corners of a face in its plane: its own as they are, those of others where they lie."""
    right, up, _ = face.axes
    there = points[ring]
    nearest = np.linalg.norm(own[None] - there[:, None], axis=2)
    mine = nearest.min(axis=1) <= MEET
    there = np.where(mine[:, None], own[nearest.argmin(axis=1)], there) - face.origin
    return np.column_stack([there @ right, there @ up])


def _joined(every: FloatArray) -> tuple[IntArray, FloatArray]:
    """Of each point the corner that it is, and the corners: those within 2 mm are one."""
    pairs = cKDTree(every).query_pairs(MEET, output_type="ndarray")
    near = coo_array((np.ones(len(pairs)), (pairs[:, 0], pairs[:, 1])), shape=(len(every), len(every)))
    count, label = connected_components(near, directed=False)
    sums = np.zeros((count, 3))
    np.add.at(sums, label, every)
    return label.astype(np.int64), sums / np.bincount(label, minlength=count)[:, None]


def _with_corners_on_edges(rings: list[IntArray], points: FloatArray) -> list[IntArray]:
    """The rings, with every corner that lies on one of their edges put in."""
    starts = np.concatenate(rings)
    ends = np.concatenate([np.roll(ring, -1) for ring in rings])
    low = np.minimum(points[starts], points[ends])[:, :2] - MEET
    high = np.maximum(points[starts], points[ends])[:, :2] + MEET
    edge, corner = shapely.STRtree(shapely.points(points[:, :2])).query(shapely.box(*low.T, *high.T))
    a, along = points[starts[edge]], points[ends[edge]] - points[starts[edge]]
    length = np.linalg.norm(along, axis=1)
    t = ((points[corner] - a) * along).sum(axis=1) / np.maximum(length, MEET) ** 2
    away = np.linalg.norm(points[corner] - a - t[:, None] * along, axis=1)
    on = (away <= MEET) & (t * length > MEET) & ((1 - t) * length > MEET)
    on &= (corner != starts[edge]) & (corner != ends[edge])
    order = np.lexsort((t[on], edge[on]))
    within: dict[int, list[int]] = {}
    for number, one in zip(edge[on][order].tolist(), corner[on][order].tolist(), strict=True):
        within.setdefault(number, []).append(one)
    found, at = [], 0
    for ring in rings:
        found.append(
            np.array([one for n, start in enumerate(ring.tolist(), at) for one in (start, *within.get(n, ()))])
        )
        at += len(ring)
    return found


def _met(faces: Sequence[Face], rings: Sequence[IntArray], points: FloatArray) -> list[Meeting]:
    by_way: dict[tuple[int, int], int] = {}
    for number, ring in enumerate(rings):
        for start, end in zip(ring.tolist(), np.roll(ring, -1).tolist(), strict=True):
            if (start, end) in by_way:
                raise _refusal(faces, number, "edge_met_twice", "lies along one that “{other}” has on the same side",
                               points[start], points[end], faces[by_way[start, end]].id)  # fmt: skip
            by_way[start, end] = number
    found = []
    for (start, end), number in by_way.items():
        other = by_way.get((end, start))
        if other is None or other == number:
            raise _refusal(faces, number, "edge_open", "meets no other face", points[start], points[end])
        if start < end:
            found.append(Meeting(face=number, other=other, start=start, end=end))
    return found


def _refusal(
    faces: Sequence[Face], number: int, code: str, what: str, a: FloatArray, b: FloatArray, other: str = ""
) -> DomainError:
    ends = {f"{axis}{n}": (float(value), "distance")
            for n, point in enumerate((a, b)) for axis, value in zip("xyz", point, strict=True)}  # fmt: skip
    where = "the edge from ({x0}, {y0}, {z0}) to ({x1}, {y1}, {z1})"
    return DomainError(Issue(
        path=(number,), code=code,
        message=sentence(f"{where} of “{faces[number].id}” {what.format(other=other)}", **ends),
        hint=sentence("faces have to close the heated volume: a missing face, a wrong azimuth, or ends over {v} apart",
                      v=(MEET, "length")),
    ))  # fmt: skip
