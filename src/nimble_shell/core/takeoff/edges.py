"""The joints of a body: each straight piece where two faces meet, by what meets there."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from nimble_shell.core.geometry.closed import Body, Meeting
from nimble_shell.core.geometry.face import FloatArray

EdgeKind = Literal["corner_out", "corner_in", "sill", "step", "ridge", "hip", "valley", "eave", "high_eave", "verge",
                   "abutment", "floor_line", "other"]  # fmt: skip
_LEVEL = 1e-3  #: rise of an edge that counts as level [-]
_COPLANAR = 1e-4  #: angle up to which two faces are one plane [rad]


@dataclass(frozen=True, slots=True)
class Edge:
    """A piece where two faces meet that are not coplanar."""

    kind: EdgeKind
    meeting: Meeting
    beyond: str  #: what lies beyond its faces: one word, or two joined by | in their order


def edges_of(body: Body) -> list[Edge]:
    """Every joint of a body, in pieces."""
    found = []
    for meeting in body.meetings:
        kind = _kind(body, meeting)
        if kind is not None:
            sides = {body.faces[meeting.face].to, body.faces[meeting.other].to}
            found.append(Edge(kind, meeting, "|".join(sorted(sides))))
    return found


def _kind(body: Body, meeting: Meeting) -> EdgeKind | None:
    """None where the two faces are one plane."""
    along = body.points[meeting.end] - body.points[meeting.start]
    along = along / np.linalg.norm(along)
    first, second = body.normals[meeting.face], body.normals[meeting.other]
    if first @ second > 0 and np.linalg.norm(np.cross(first, second)) < _COPLANAR:
        return None
    #: Unit vectors in each face, from the edge into it.
    into: dict[str, FloatArray] = {body.faces[meeting.face].kind: np.cross(first, along),
            body.faces[meeting.other].kind: np.cross(second, -along)}  # fmt: skip
    convex = bool(second @ np.cross(first, along) < 0)
    return _named(into, convex=convex, level=abs(along[2]) < _LEVEL)


def _named(into: dict[str, FloatArray], *, convex: bool, level: bool) -> EdgeKind:
    kinds = set(into)
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
