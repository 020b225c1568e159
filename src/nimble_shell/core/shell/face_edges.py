"""What is built where a face ends: the joint of the building at each side of a panel."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.pieces import Piece
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.quantities import EDGES, edge_key, named_edge

_ON = 0.002  #: a panel ends at an edge [m]


@dataclass(frozen=True, slots=True)
class FaceEdge:
    """A straight side of a face, in its plane from the left end and the foot of its elevation. [m]"""

    a: tuple[float, float]
    b: tuple[float, float]
    words: str  #: the joint that is built there; or what the edge is, where none is drawn yet

    def borders(self, a: tuple[float, float], b: tuple[float, float]) -> bool:
        """Whether another straight piece lies on it, over more than a point."""
        dx, dy = self.b[0] - self.a[0], self.b[1] - self.a[1]
        long = (dx * dx + dy * dy) ** 0.5
        if long <= _ON:
            return False
        at = []
        for x, y in (a, b):
            off = ((x - self.a[0]) * dy - (y - self.a[1]) * dx) / long
            if abs(off) > _ON:
                return False
            at.append(((x - self.a[0]) * dx + (y - self.a[1]) * dy) / long)
        return bool(min(max(at), long) - max(min(at), 0.0) > _ON)


def edges_of_faces(building: MeasuredBuilding, faces: Sequence[FaceSetOut]) -> dict[str, tuple[FaceEdge, ...]]:
    """Of each face by its id."""
    takeoff = building.shape.takeoff
    placed, body = takeoff.placed["external"], takeoff.body
    parapets = {one.id for one in building.bodies if one.roof.parapet > 0}
    joints = {key: f"{one.name}: {one.variant}" for one in building.joints for key in one.follows}
    shifts = {one.face: one.shift for one in faces}
    found: dict[str, list[FaceEdge]] = defaultdict(list)
    for edge in takeoff.edges:
        kind, zones = named_edge(takeoff, edge, parapets)
        words = joints.get(edge_key(kind, zones), EDGES[kind][0] if kind else "")
        for n in (edge.meeting.face, edge.meeting.other):
            id_ = body.faces[n].id
            if not words or id_ not in shifts:
                continue
            ring, flat, (u0, v0) = body.rings[n].tolist(), placed.flats[n], shifts[id_]
            ends = [flat[ring.index(corner)] for corner in (edge.meeting.start, edge.meeting.end)]
            (ax, ay), (bx, by) = ((float(x) - u0, float(y) - v0) for x, y in ends)
            found[id_].append(FaceEdge((ax, ay), (bx, by), words))
    return {key: tuple(several) for key, several in found.items()}


def beside(piece: Piece, edges: Sequence[FaceEdge]) -> tuple[str, str, str, str]:
    """Joints of the building at the left, the right, the foot and the head of a panel; empty where there is none."""
    ring = [(x / 1000, y / 1000) for x, y in piece.outline]
    middle = (piece.y0 + piece.y1) / 2000
    found = {"left": "", "right": "", "bottom": "", "top": ""}
    for a, b in zip(ring, [*ring[1:], ring[0]], strict=True):
        words = next((one.words for one in edges if one.borders(a, b)), "")
        if not words:
            continue
        if abs(a[0] - b[0]) <= _ON:
            side = "left" if abs(a[0] - piece.x0 / 1000) <= abs(a[0] - piece.x1 / 1000) else "right"
        else:
            side = "top" if (a[1] + b[1]) / 2 > middle else "bottom"
        found[side] = words
    return found["left"], found["right"], found["bottom"], found["top"]
