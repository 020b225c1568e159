"""The joints of a body: each straight piece where two faces meet, by what meets there."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from nimble_shell.core.geometry.closed import Body, Meeting
from nimble_shell.core.geometry.face import Face, FaceKind, FloatArray
from nimble_shell.core.held import Held

EdgeKind = Literal["corner_out", "corner_in", "sill", "step", "ridge", "hip", "valley", "eave", "high_eave", "verge",
                   "abutment", "floor_line", "change", "other"]  # fmt: skip
_LEVEL = 1e-3  #: rise of an edge that counts as level [-]
_COPLANAR = 1e-3  #: angle up to which two faces are one plane [rad]


@dataclass(frozen=True, slots=True)
class Edge:
    """A piece where two faces meet that are not one plane, or where one plane changes its build-up."""

    kind: EdgeKind
    meeting: Meeting
    beyond: str  #: what lies beyond its faces: one word, or two joined by | in their order


#: By how a body closes: other thicknesses close it alike.
_EDGES: Held[tuple[Edge, ...]] = Held(256)


def edges_of(body: Body) -> list[Edge]:
    """Every joint of a body, in pieces; where two faces of one plane are counted apart, their build-up changes."""
    said = tuple((one.kind, one.zone, one.to) for one in body.faces)
    known = _EDGES.get((body.meetings,), said)
    return list(_EDGES.put((body.meetings,), tuple(_edges_of(body)), said) if known is None else known)


def _edges_of(body: Body) -> list[Edge]:
    ends = np.array([(one.start, one.end) for one in body.meetings])
    sides = np.array([(one.face, one.other) for one in body.meetings])
    along = body.points[ends[:, 1]] - body.points[ends[:, 0]]
    along /= np.linalg.norm(along, axis=1)[:, None]
    first, second = body.normals[sides[:, 0]], body.normals[sides[:, 1]]
    one_plane = (np.linalg.norm(cross(first, second), axis=1) < _COPLANAR) & ((first * second).sum(axis=1) > 0)
    #: Unit vectors in each face, from the edge into it.
    into, into_other = cross(first, along), cross(second, -along)
    convex, level = (second * into).sum(axis=1) < 0, np.abs(along[:, 2]) < _LEVEL
    found = []
    for n in np.flatnonzero(~one_plane):
        pair = [body.faces[side] for side in sides[n]]
        ways = {pair[0].kind: into[n], pair[1].kind: into_other[n]}
        kind = _named(ways, convex=bool(convex[n]), level=bool(level[n]))
        found.append(Edge(kind, body.meetings[n], _beyond(pair)))
    for n in np.flatnonzero(one_plane):
        pair = [body.faces[side] for side in sides[n]]
        if pair[0].zone != pair[1].zone:
            found.append(Edge("change", body.meetings[n], _beyond(pair)))
    return found


def _beyond(pair: Sequence[Face]) -> str:
    return "|".join(sorted({one.to for one in pair}))


def cross(a: FloatArray, b: FloatArray) -> FloatArray:
    """Of rows, (n, 3)."""
    return np.column_stack([a[:, 1] * b[:, 2] - a[:, 2] * b[:, 1], a[:, 2] * b[:, 0] - a[:, 0] * b[:, 2],
                            a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]])  # fmt: skip


def _named(into: Mapping[FaceKind, FloatArray], *, convex: bool, level: bool) -> EdgeKind:
    kinds: set[str] = set(into)
    if kinds == {"wall"}:
        return "corner_out" if convex else "corner_in"
    if kinds == {"roof"}:
        return "valley" if not convex else "ridge" if level else "hip"
    if kinds == {"wall", "floor"}:
        return "sill" if into["wall"][2] > 0 else "step"
    if kinds == {"wall", "roof"}:
        if into["wall"][2] > 0:
            return "abutment"
        if not level:
            return "verge"
        return "eave" if into["roof"][2] > -_LEVEL else "high_eave"
    return "other"
