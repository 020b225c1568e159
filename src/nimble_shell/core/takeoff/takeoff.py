"""Areas, joints, openings, volume and ground of a body, by each system of dimensions."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Literal, TypeVar

import numpy as np

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.closed import Body, close
from nimble_shell.core.geometry.face import Face, level_length
from nimble_shell.core.geometry.moved import Placed, as_given, moved
from nimble_shell.core.takeoff.edges import Edge, edges_of

Measured = Literal["external", "overall_internal"]
DrawnPlane = Literal["external", "overall_internal", "structure"]  #: that outlines lie in


@dataclass(frozen=True, slots=True)
class Both:
    """A figure by outer dimensions and by overall inner ones."""

    external: float
    overall_internal: float

    def __add__(self, other: Both) -> Both:
        return Both(self.external + other.external, self.overall_internal + other.overall_internal)


@dataclass(frozen=True, slots=True)
class Three:
    """An area by outer, overall inner and inner dimensions; of the last, storeys and partitions are left out. [m²]"""

    external: float
    overall_internal: float
    internal: float

    def __add__(self, other: Three) -> Three:
        return Three(self.external + other.external, self.overall_internal + other.overall_internal,
                     self.internal + other.internal)  # fmt: skip

    def less(self, area: float) -> Three:
        return self + Three(-area, -area, -area)


@dataclass(frozen=True, slots=True)
class FaceArea:
    """Of a face, or of all of a kind."""

    gross: Three
    openings: float  #: [m²]

    @property
    def net(self) -> Three:
        return self.gross.less(self.openings)

    def __add__(self, other: FaceArea) -> FaceArea:
        return FaceArea(self.gross + other.gross, self.openings + other.openings)


T = TypeVar("T", FaceArea, Both)


@dataclass(frozen=True, slots=True)
class OpeningLengths:
    """Of all openings together; doors have a threshold instead of a sill."""

    n: int
    area: float  #: [m²]
    head: float  #: [m]
    sill: float
    threshold: float
    jamb: float


@dataclass(frozen=True, slots=True)
class GroundPlan:
    """Floors on the ground (ISO 13370:2017, 3.1.3): B is A over half of the exposed perimeter P."""

    A: Both  #: [m²]
    P: Both  #: [m]

    @property
    def B(self) -> Both | None:
        """Characteristic dimension; None where nothing of it is exposed. [m]"""
        if min(self.P.external, self.P.overall_internal) <= 0:
            return None
        return Both(2 * self.A.external / self.P.external, 2 * self.A.overall_internal / self.P.overall_internal)


@dataclass(frozen=True, slots=True, kw_only=True)
class FloorLine:
    """Where a floor meets the walls."""

    z: float  #: in space [m]
    thickness: float = 0.0  #: [m]
    of: str = ""  #: what the ids of its walls begin with; every wall if empty


@dataclass(frozen=True, slots=True, kw_only=True)
class Partition:
    """A wall between rooms, where it meets faces."""

    faces: tuple[str, ...]
    thickness: float  #: [m]
    length: float  #: on each of them [m]


@dataclass(frozen=True)
class Takeoff:
    """What a body comes to."""

    body: Body
    placed: dict[Measured, Placed]
    faces: dict[str, FaceArea]  #: by id
    areas: dict[str, FaceArea]  #: by kind and what lies beyond, as "wall|outside"
    openings: OpeningLengths
    edges: list[Edge]
    joints: dict[str, dict[str, Both]]  #: lengths by kind, and by what lies beyond [m]
    volume: Both  #: [m³]
    envelope: float  #: overall inner gross area of all faces [m²]
    ground: GroundPlan | None
    floor_lines: dict[str, list[Both]]  #: of each wall, by id: how long each floor line is on it [m]


def take_off(
    faces: Sequence[Face],
    measured: DrawnPlane,
    floor_lines: Sequence[FloorLine] = (),
    partitions: Sequence[Partition] = (),
) -> Takeoff:
    """All quantities of a body.

    Parameters
    ----------
    faces : sequence of Face
        They close the heated volume.
    measured : {"external", "overall_internal", "structure"}
        Which surfaces their outlines were measured to; of the structure's, each face says what lies outside of it.
    floor_lines : sequence of FloorLine
    partitions : sequence of Partition

    Raises
    ------
    DomainError
        With a path from ("faces", …) or ("partitions", …).

    References
    ----------
    .. [1] ISO 13789:2017, annex A, on systems of dimensions.
    .. [2] ISO 13370:2017, 8.1, on the characteristic dimension.
    """
    try:
        body = close(faces)
        placed = _placed(body, measured)
    except DomainError as error:
        raise error.under("faces") from None
    edges = edges_of(body)
    lines = {
        face.id: [_on(placed, n, line) for line in floor_lines] for n, face in enumerate(faces) if face.kind == "wall"
    }
    left_out = _left_out(faces, floor_lines, lines, partitions)
    areas = {face.id: _area(placed, n, left_out[face.id]) for n, face in enumerate(faces)}
    inner = placed["overall_internal"]
    return Takeoff(
        body=body, placed=placed, faces=areas, areas=_summed((f"{one.kind}|{one.to}", areas[one.id]) for one in faces),
        openings=_openings(faces), edges=edges, joints=_joints(placed, edges, faces, lines),
        volume=Both(placed["external"].volume, inner.volume), envelope=float(inner.gross.sum()),
        ground=_ground(placed, edges), floor_lines=lines,
    )  # fmt: skip


def _placed(body: Body, drawn: DrawnPlane) -> dict[Measured, Placed]:
    given, thick = as_given(body), np.array([face.thickness for face in body.faces])
    if drawn == "external":
        return {"external": given, "overall_internal": moved(body, -thick)}
    if drawn == "overall_internal":
        return {"external": moved(body, thick), "overall_internal": given}
    outside = np.array([face.beyond_line for face in body.faces])
    return {"external": moved(body, outside), "overall_internal": moved(body, outside - thick)}


def _both(placed: dict[Measured, Placed], figure: Callable[[Placed], float]) -> Both:
    return Both(figure(placed["external"]), figure(placed["overall_internal"]))


def _summed(items: Iterable[tuple[str, T]]) -> dict[str, T]:
    found: dict[str, T] = {}
    for key, one in items:
        found[key] = found[key] + one if key in found else one
    return found


def _on(placed: dict[Measured, Placed], number: int, line: FloorLine) -> Both:
    """Length of a floor line on a wall, less the openings that it passes. [m]"""
    face = next(iter(placed.values())).body.faces[number]
    if not face.id.startswith(line.of):
        return Both(0.0, 0.0)
    passed = sum(one.w for one in face.openings if one.v < line.z < one.v + one.h)

    def length(by: Placed) -> float:
        whole = level_length(by.flats[number], line.z)
        return whole - passed if whole > 0 else 0.0

    return _both(placed, length)


def _left_out(
    faces: Sequence[Face],
    floor_lines: Sequence[FloorLine],
    lines: dict[str, list[Both]],
    partitions: Sequence[Partition],
) -> dict[str, float]:
    """Area of each face that storeys and partitions take of the overall inner one. [m²]"""
    found = {face.id: 0.0 for face in faces}
    for face, on in lines.items():
        found[face] += sum(line.thickness * one.overall_internal for line, one in zip(floor_lines, on, strict=True))
    for at, one in enumerate(partitions):
        for n, face in enumerate(one.faces):
            if face not in found:
                path = ("partitions", at, "faces", n)
                raise DomainError(Issue(path=path, code="unknown_face", message=f"there is no face “{face}”",
                                        hint="name one of the faces"))  # fmt: skip
            found[face] += one.thickness * one.length
    return found


def _area(placed: dict[Measured, Placed], number: int, left_out: float) -> FaceArea:
    external, overall = (float(placed[by].gross[number]) for by in ("external", "overall_internal"))
    face = placed["external"].body.faces[number]
    return FaceArea(Three(external, overall, overall - left_out), sum(one.w * one.h for one in face.openings))


def _openings(faces: Sequence[Face]) -> OpeningLengths:
    every = [one for face in faces for one in face.openings]
    return OpeningLengths(
        n=len(every), area=sum(one.w * one.h for one in every), head=sum(one.w for one in every),
        sill=sum(one.w for one in every if one.kind == "window"),
        threshold=sum(one.w for one in every if one.kind == "door"), jamb=sum(2 * one.h for one in every),
    )  # fmt: skip


def _joints(
    placed: dict[Measured, Placed], edges: Sequence[Edge], faces: Sequence[Face], lines: dict[str, list[Both]]
) -> dict[str, dict[str, Both]]:
    by_kind: dict[str, list[tuple[str, Both]]] = {}
    for edge in edges:
        by_kind.setdefault(edge.kind, []).append((edge.beyond, _length(placed, edge)))
    beyond = {face.id: face.to for face in faces}
    passed = [(beyond[face], one) for face, on in lines.items() for one in on if one.external or one.overall_internal]
    if passed:
        by_kind["floor_line"] = [(to, one) for to, one in passed]
    return {kind: _summed(pieces) for kind, pieces in by_kind.items()}


def _length(placed: dict[Measured, Placed], edge: Edge) -> Both:
    return _both(placed, lambda by: by.length(edge.meeting.start, edge.meeting.end))


def _ground(placed: dict[Measured, Placed], edges: Sequence[Edge]) -> GroundPlan | None:
    """Its perimeter is exposed except at walls to heated neighbours, and at the wall of a step."""
    faces = placed["external"].body.faces
    floors = [n for n, face in enumerate(faces) if face.kind == "floor" and face.to == "ground"]
    if not floors:
        return None
    stepped = {n for edge in edges if edge.kind == "step" for n in (edge.meeting.face, edge.meeting.other)}
    exposed = Both(0.0, 0.0)
    for edge in edges:
        sides = {edge.meeting.face, edge.meeting.other}
        wall = next((n for n in sides if faces[n].kind == "wall"), None)
        if edge.kind != "sill" or wall is None or not sides & set(floors):
            continue
        if faces[wall].to != "heated" and wall not in stepped:
            exposed += _length(placed, edge)
    return GroundPlan(_both(placed, lambda by: float(by.gross[floors].sum())), exposed)
