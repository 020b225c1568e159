"""Quantities of a building from its shape: the area of each element, and every joint that the shape has."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from nimble_shell.core.basis.schools import Dimensions
from nimble_shell.core.basis.stations import Station
from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.building.flat_face import FlatFace
from nimble_shell.core.building.joined import faces_of_building, floor_lines_of
from nimble_shell.core.building.suited import by_kind, in_planes
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.face import Face
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.takeoff.edges import Edge
from nimble_shell.core.takeoff.seams import seam_lines
from nimble_shell.core.takeoff.takeoff import Both, DrawnPlane, Measured, Takeoff, Three, take_off

#: What a designer calls an edge of the shape, and the station it stands at.
EDGES: dict[str, tuple[str, Station]] = {
    "ridge": ("Ridge", "A"), "hip": ("Hip", "A"), "valley": ("Valley", "A"),
    "eave": ("Eave", "C"), "high_eave": ("High eave", "C"), "verge": ("Verge", "C"), "parapet": ("Parapet", "C"),
    "roof_edge": ("Edge of a flat roof", "C"), "abutment": ("Roof against a wall", "C"),
    "roof_seam": ("Roof seams", "B"),
    "corner_out": ("Outer corners", "D"), "corner_in": ("Inner corners", "D"), "seam": ("Wall seams", "D"),
    "party": ("Ends of a party wall", "D"),
    "head": ("Heads of openings", "E"), "jamb": ("Jambs of openings", "E"), "window_sill": ("Sills of windows", "E"),
    "floor_line": ("Intermediate floor", "F"), "change": ("Change of build-up", "G"),
    "threshold": ("Thresholds of doors", "H"), "foot": ("Foot of the wall", "H"), "step": ("Step in the floor", "H"),
    "ground_line": ("Ground line", "G"), "other": ("Other edge", "D"),
}  # fmt: skip
#: What the members of a build-up stand for until it is a joint, and where nothing but soil begins.
IN_AREA_SHARES = frozenset({"seam", "roof_seam", "ground_line"})


@dataclass(frozen=True, slots=True, kw_only=True)
class ShapeEdge:
    """All pieces of the shape where the same meets the same."""

    key: str  #: kind and elements, "eave|e1|e2"
    kind: str
    elements: tuple[str, ...]  #: that meet in it, sorted
    length: Both  #: [m]
    pieces: int


@dataclass(frozen=True, slots=True, kw_only=True)
class ElementArea:
    """Of an element of the shell."""

    gross: Three  #: [m²]
    openings: float  #: of them in it [m²]


@dataclass(frozen=True)
class Quantities:
    """What a shape comes to."""

    takeoff: Takeoff
    elements: Mapping[str, ElementArea]
    edges: tuple[ShapeEdge, ...]
    at_openings: Mapping[str, tuple[str, ...]]  #: ids of the openings that an edge is round, by its key
    approximate: bool  #: whether thicknesses were evened out beyond those of one plane

    def area(self, element_id: str, dimensions: Dimensions) -> float | None:
        """Gross; None of what the shape does not have. [m²]"""
        found = self.elements.get(element_id)
        return None if found is None else in_system(found.gross, dimensions)

    def length(self, keys: Sequence[str], dimensions: Dimensions) -> float:
        """Of edges together. [m]"""
        return sum(along(one.length, dimensions) for one in self.edges if one.key in keys)


def in_system(area: Three, dimensions: Dimensions) -> float:
    """An area as a system of dimensions has it. [m²]"""
    return {"external": area.external, "overall": area.overall_internal, "internal": area.internal}[dimensions]


def along(length: Both, dimensions: Dimensions) -> float:
    """A length as a system of dimensions has it; inner ones are the overall inner ones. [m]"""
    return length.external if dimensions == "external" else length.overall_internal


def quantities(
    bodies: Sequence[BuildingBody],
    openings: Sequence[BodyOpening],
    *,
    thickness_of: Mapping[str, float],
    module_of: Mapping[str, float],
    measured: DrawnPlane = "external",
    beyond_line: Mapping[str, float] | None = None,
    floor_thickness: float = 0.0,
    flat: Sequence[FlatFace] = (),
) -> Quantities:
    """Everything that a shape comes to.

    Parameters
    ----------
    bodies : sequence of BuildingBody
    openings : sequence of BodyOpening
    thickness_of : mapping of element id to float
        Of its build-up; nought where none is drawn. [m]
    module_of : mapping of element id to float
        Width of its panels; without seams where there is none. [m]
    measured : {"external", "overall_internal", "structure"}
        Which surface the shape is drawn to.
    beyond_line : mapping of element id to float, optional
        Thickness outside of the structure of its build-up, where shapes are drawn to that. [m]
    floor_thickness : float
        Of the floors between storeys. [m]
    flat : sequence of FlatFace
        Faces that no body has; they count by their outline in every system, and enclose no volume.

    Raises
    ------
    DomainError
        With the path of a body, an opening or a face.
    """
    faces = faces_of_building(bodies, openings, thickness_of, beyond_line)
    lines = floor_lines_of(bodies, floor_thickness)
    approximate = False
    try:
        found = take_off(in_planes(faces), measured, lines)
    except DomainError as error:
        if error.issues[0].code != "planes_apart":
            raise
        approximate = True
        found = take_off(by_kind(faces), measured, lines)
    parapets = {body.id for body in bodies if body.roof.parapet > 0}
    edges = _Edges()
    _at_faces(found, parapets, edges)
    _at_floors(found, edges)
    round_openings = _at_openings(faces, openings, edges)
    _at_seams(found, module_of, edges)
    return Quantities(found, _areas(faces, found, openings, flat), edges.all(), round_openings, approximate)


class _Edges:
    """Pieces of edges, added up by what meets there."""

    def __init__(self) -> None:
        self._found: dict[str, tuple[str, Sequence[str], Both, int]] = {}
        self._keys: dict[tuple[str, ...], str] = {}

    def add(self, kind: str, elements: Sequence[str], length: Both, pieces: int = 1) -> str:
        """The key of the edge; empty of one without a length."""
        if max(length.external, length.overall_internal) <= 0:
            return ""
        named = (kind, *elements)
        key = self._keys.get(named) or self._keys.setdefault(named, edge_key(kind, elements))
        known = self._found.get(key)
        if known is not None:
            length, pieces = known[2] + length, known[3] + pieces
        self._found[key] = (kind, elements, length, pieces)
        return key

    def all(self) -> tuple[ShapeEdge, ...]:
        order = {kind: at for at, kind in enumerate(EDGES)}
        found = (
            ShapeEdge(key=key, kind=kind, elements=tuple(sorted(set(elements))), length=length, pieces=pieces)
            for key, (kind, elements, length, pieces) in self._found.items()
        )
        return tuple(sorted(found, key=lambda one: (order[one.kind], one.key)))


def _areas(
    faces: Sequence[Face], found: Takeoff, openings: Sequence[BodyOpening], flat: Sequence[FlatFace]
) -> dict[str, ElementArea]:
    areas: dict[str, ElementArea] = {}
    for face in faces:
        if face.zone:
            own = found.faces[face.id]
            held = areas.get(face.zone)
            if face.to == "heated":  # there, and nothing is lost through it
                areas.setdefault(face.zone, ElementArea(gross=Three(0.0, 0.0, 0.0), openings=0.0))
                continue
            areas[face.zone] = ElementArea(gross=own.gross + held.gross if held else own.gross,
                                           openings=own.openings + (held.openings if held else 0.0))  # fmt: skip
    there = {one.id for face in faces if face.to != "heated" for one in face.openings}
    for one in openings:
        if one.zone and one.id in there:
            area = one.w * one.h
            held = areas.get(one.zone)
            gross = Three(area, area, area)
            areas[one.zone] = ElementArea(gross=held.gross + gross if held else gross, openings=0.0)
    for at, extra in enumerate(flat):
        if extra.zone:
            held = areas.get(extra.zone, ElementArea(gross=Three(0.0, 0.0, 0.0), openings=0.0))
            total = held.gross + Three(extra.area, extra.area, extra.area)
            if min(total.external, total.internal) < held.openings:
                raise DomainError(Issue(
                    path=("faces", at), code="nothing_left",
                    message=sentence(f"“{extra.name}” takes {{a}} away from an element that has {{b}}",
                                     a=(-extra.area, "area"), b=(held.gross.internal, "area")),
                    hint="make it smaller, or count it with another element"))  # fmt: skip
            areas[extra.zone] = ElementArea(gross=total, openings=held.openings)
    return areas


def _named(kind: str, faces: Sequence[Face], parapets: set[str]) -> str:
    """The designer's word for an edge of the takeoff; empty where no joint of the shell is."""
    outside = [face for face in faces if face.to != "heated"]
    if not outside:
        return ""
    if len(outside) < len(faces) and kind not in ("change", "other"):
        return "party"
    if kind == "eave" and any(face.kind == "roof" and face.pitch == 0 for face in faces):
        roof = next(face for face in faces if face.kind == "roof")
        return "parapet" if roof.id.partition(".")[0] in parapets else "roof_edge"
    if kind == "change" and {face.to for face in faces} == {"ground", "outside"}:
        return "ground_line" if faces[0].zone == faces[1].zone else "change"
    return {"sill": "foot"}.get(kind, kind)


def edge_key(kind: str, elements: Sequence[str]) -> str:
    """What an edge of a shape is called by: its kind and the elements that meet there."""
    return "|".join((kind, *sorted(set(elements))))


def _at_faces(found: Takeoff, parapets: set[str], edges: _Edges) -> None:
    by: dict[Measured, np.ndarray] = {}
    for system, placed in found.placed.items():
        ends = np.array([(one.meeting.start, one.meeting.end) for one in found.edges])
        by[system] = np.linalg.norm(placed.points[ends[:, 1]] - placed.points[ends[:, 0]], axis=1)
    for n, edge in enumerate(found.edges):
        kind, zones = named_edge(found, edge, parapets)
        if kind:
            edges.add(kind, zones, Both(float(by["external"][n]), float(by["overall_internal"][n])))


def named_edge(found: Takeoff, edge: Edge, parapets: set[str]) -> tuple[str, list[str]]:
    """The designer's word for an edge, empty where no joint of the shell is; and the elements that meet in it."""
    pair = [found.body.faces[edge.meeting.face], found.body.faces[edge.meeting.other]]
    kind = _named(edge.kind, pair, parapets)
    zones = [face.zone for face in pair if face.to != "heated" and face.zone]
    if kind == "party":  # with the build-up towards the neighbour, where somebody has given it one of its own
        zones += [face.zone for face in pair if face.to == "heated" and face.zone]
    return kind, zones


def _at_floors(found: Takeoff, edges: _Edges) -> None:
    faces = {face.id: face for face in found.body.faces}
    for wall, lines in found.floor_lines.items():
        if faces[wall].to == "outside":
            for line in lines:
                edges.add("floor_line", [faces[wall].zone], line)


def _at_openings(
    faces: Sequence[Face], openings: Sequence[BodyOpening], edges: _Edges
) -> dict[str, tuple[str, ...]]:  # fmt: skip
    """Their edges; and which openings each of them is round."""
    found: dict[str, list[str]] = {}
    zone_of = {one.id: one.zone for one in openings}
    for face in faces:
        if face.to == "heated":
            continue
        for one in face.openings:
            meets = list(filter(None, (face.zone, zone_of[one.id])))
            low = "threshold" if one.kind == "door" else "window_sill"
            for kind, length, pieces in (("head", one.w, 1), ("jamb", 2 * one.h, 2), (low, one.w, 1)):
                found.setdefault(edges.add(kind, meets, Both(length, length), pieces), []).append(one.id)
    return {key: tuple(ids) for key, ids in found.items()}


def _at_seams(found: Takeoff, module_of: Mapping[str, float], edges: _Edges) -> None:
    for n, face in enumerate(found.body.faces):
        module = module_of.get(face.zone)
        if module is None or face.to == "heated" or face.kind == "floor":
            continue
        kind = "seam" if face.kind == "wall" else "roof_seam"
        lines = {by: seam_lines(face, placed.flats[n], module) for by, placed in found.placed.items()}
        lengths = {by: float((one[:, 2] - one[:, 1]).sum()) for by, one in lines.items()}
        if lengths["external"] > 0:
            edges.add(kind, [face.zone], Both(lengths["external"], lengths["overall_internal"]),
                      len(lines["external"]))  # fmt: skip
