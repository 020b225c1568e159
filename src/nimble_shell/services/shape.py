"""The shape sheet: a building's faces, sides and quantities, as drawn or as somebody is drawing it."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from nimble_shell.core.basis.stations import Station
from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.building.footprint import plan_area
from nimble_shell.core.building.roof import rise_of, run_of
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.face import Beyond, Face, FaceKind, FloatArray
from nimble_shell.core.shell.measured import MeasuredBuilding, Quantity
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.quantities import EDGES, along, in_system
from nimble_shell.core.shell.wanted import family_of
from nimble_shell.core.takeoff.module_fit import ModuleFit, fit, off_module
from nimble_shell.core.takeoff.takeoff import Both
from nimble_shell.services.joints import building_in


@dataclass(frozen=True, slots=True, kw_only=True)
class ShapeDraft:
    """What somebody is drawing; None of what stays as it is stored."""

    bodies: tuple[BuildingBody, ...] | None = None
    openings: tuple[BodyOpening, ...] | None = None
    north: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnOpening:
    """An opening in its face."""

    id: str
    mark: str
    kind: str
    u: float  #: [m]
    v: float  #: a wall's: height in space [m]
    w: float  #: [m]
    h: float  #: [m]
    off_module: float | None  #: of its nearer edge from the nearest seam [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnFace:
    """A face of the building, flat and in space."""

    id: str
    body: str
    side: int | None  #: of the footprint; None of a roof or floor
    kind: FaceKind
    to: Beyond
    element: str  #: that it is counted with
    bearing: float  #: of its outward normal, from true north, clockwise [°]
    pitch: float  #: [°]
    gross: float  #: by the dimensions of the Basis [m²]
    net: float  #: [m²]
    flat: tuple[tuple[float, float], ...]  #: in its plane, u to the right, v up; a wall's v is the height in space [m]
    corners: tuple[tuple[float, float, float], ...]  #: in space, anticlockwise as seen from outside [m]
    normal: tuple[float, float, float]
    right: tuple[float, float, float]  #: unit vectors of u and v in space
    up: tuple[float, float, float]
    origin: tuple[float, float, float]  #: where u and v are nought [m]
    openings: tuple[DrawnOpening, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnSide:
    """A side of a body's footprint."""

    body: str
    side: int
    length: float  #: [m]
    bearing: float  #: that it faces [°]
    fit: ModuleFit | None  #: None where its wall has no module
    quarters: int  #: of a module that are left over


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnBody:
    """Heights of a body."""

    id: str
    eaves: float  #: [m]
    ridge: float  #: [m]
    run: float  #: of the roof in plan, from the eaves to the ridge; it does not depend on the pitch [m]
    roof_area: float  #: of its footprint, in plan [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnEdge:
    """A joint that the shape has."""

    key: str
    kind: str
    name: str
    station: Station
    elements: tuple[str, ...]
    length: float  #: by the dimensions of the Basis [m]
    pieces: int
    joint: str  #: id of the joint that stands for it; empty for none
    family: str  #: that it is drawn by; empty for none
    missing: bool  #: whether the sums lack it


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnFlatFace:
    """A face that no body has."""

    id: str
    area: float  #: negative of one that is taken away [m²]
    bearing: float  #: [°]


@dataclass(frozen=True, slots=True, kw_only=True)
class ShapeSheet:
    """All that is shown of a building's shape."""

    faces: tuple[DrawnFace, ...]
    sides: tuple[DrawnSide, ...]
    bodies: tuple[DrawnBody, ...]
    edges: tuple[DrawnEdge, ...]
    flat: tuple[DrawnFlatFace, ...]
    areas: tuple[Quantity, ...]
    lengths: tuple[Quantity, ...]
    volume: Both  #: [m³]
    envelope: float  #: overall inner area of all faces [m²]
    floor_area: Both  #: of all storeys [m²]
    ground_area: Both | None  #: [m²]
    perimeter: Both | None  #: exposed [m]
    B: Both | None  #: characteristic dimension (ISO 13370) [m]
    approximate: bool  #: whether thicknesses were evened out
    modules: Mapping[str, float]  #: of each element that is made of panels [m]


def with_shape(project: Project, building_id: str, draft: ShapeDraft) -> Project:
    """The project with a building as somebody is drawing it. Raises DomainError."""
    changes = {name: value for name in ("bodies", "openings", "north")
               if (value := getattr(draft, name)) is not None}  # fmt: skip
    buildings = tuple(replace(one, **changes) if one.id == building_id else one for one in project.buildings)
    return replace(project, buildings=buildings) if changes else project


def shape_of(project: Project, building_id: str) -> ShapeSheet:
    """The shape of a building. Raises DomainError, with code "no_shape" where there is none, and NotFound."""
    building = building_in(project, building_id)
    if not isinstance(building, MeasuredBuilding):
        raise DomainError(Issue(path=("bodies",), code="no_shape", message=f"“{building.name}” has no shape yet",
                                hint="draw a body, or begin with its lengths"))  # fmt: skip
    found, dimensions = building.shape.takeoff, building.dimensions
    modules = building.modules
    claimed = {key: joint.id for joint in building.joints for key in joint.follows}
    bare = {one.key for one in building.without_joint()}
    marks = {one.id: one.mark or one.id for one in building.openings}
    sides = tuple(_side(building, body, number) for body in building.bodies for number in range(len(body.outline)))
    ground = found.ground
    return ShapeSheet(
        faces=tuple(_face(building, n, face, marks) for n, face in enumerate(found.body.faces)), sides=sides,
        bodies=tuple(DrawnBody(id=one.id, eaves=one.eaves, ridge=one.eaves + rise_of(one.outline, one.roof),
                               run=run_of(one.outline, one.roof), roof_area=plan_area(one.outline))
                     for one in building.bodies),
        edges=tuple(DrawnEdge(key=one.key, kind=one.kind, name=EDGES[one.kind][0], station=EDGES[one.kind][1],
                              elements=one.elements, length=along(one.length, dimensions), pieces=one.pieces,
                              joint=claimed.get(one.key, ""), family=family_of(one.kind),
                              missing=one.key in bare)
                    for one in building.shape.edges),
        flat=tuple(DrawnFlatFace(id=one.id, area=one.area, bearing=(one.azimuth + building.north) % 360)
                   for one in building.faces),
        areas=building.areas, lengths=building.lengths, volume=found.volume, envelope=found.envelope,
        floor_area=_floors(building), ground_area=None if ground is None else ground.A,
        perimeter=None if ground is None else ground.P, B=None if ground is None else ground.B,
        approximate=building.shape.approximate, modules=modules,
    )  # fmt: skip


def _face(building: MeasuredBuilding, number: int, face: Face, marks: Mapping[str, str]) -> DrawnFace:
    found = building.shape.takeoff
    body, _, rest = face.id.partition(".")
    area = found.faces[face.id]
    right, up, normal = face.axes
    module = building.modules.get(face.zone)
    side = int(rest.partition(".")[0]) - 1 if face.kind == "wall" else None
    return DrawnFace(
        id=face.id, body=body, side=side, kind=face.kind, to=face.to, element=face.zone, pitch=face.pitch,
        bearing=(face.azimuth + building.north) % 360, gross=in_system(area.gross, building.dimensions),
        net=in_system(area.net, building.dimensions), flat=_pairs(found.body.flats[number]),
        corners=_triples(found.body.points[found.body.rings[number]]), normal=_triple(normal), right=_triple(right),
        up=_triple(up), origin=_triple(face.origin),
        openings=tuple(DrawnOpening(id=one.id, mark=marks.get(one.id, one.id), kind=one.kind, u=one.u, v=one.v,
                                    w=one.w, h=one.h, off_module=_off(one.u, one.w, module))
                       for one in face.openings),
    )  # fmt: skip


def _off(u: float, w: float, module: float | None) -> float | None:
    """Of the edge that lies nearer to a seam. [m]"""
    return None if module is None else min((off_module(one, module) for one in (u, u + w)), key=abs)


def _side(building: MeasuredBuilding, body: BuildingBody, number: int) -> DrawnSide:
    p, q = body.side(number)
    length = math.dist(p, q)
    zone = next((one.zone for one in body.sides if one.number == number and one.zone), body.wall)
    module = building.modules.get(zone)
    found = None if module is None else fit(length, module)
    bearing = (math.degrees(math.atan2(q[1] - p[1], p[0] - q[0])) + building.north) % 360
    return DrawnSide(body=body.id, side=number, length=length, bearing=bearing, fit=found,
                     quarters=0 if found is None else found.quarters)  # fmt: skip


def _floors(building: MeasuredBuilding) -> Both:
    """Of every storey by outer and overall inner dimensions: inner ones as much smaller as the lowest floors are."""
    outer = sum(plan_area(one.outline) * len(one.storeys) for one in building.bodies)
    floors = [building.shape.takeoff.faces[face.id].gross for face in building.shape.takeoff.body.faces
              if face.kind == "floor"]  # fmt: skip
    external = sum(one.external for one in floors)
    return Both(outer, outer * sum(one.overall_internal for one in floors) / external if external else outer)


def _pairs(rows: FloatArray) -> tuple[tuple[float, float], ...]:
    return tuple((float(a), float(b)) for a, b in rows)


def _triple(row: FloatArray) -> tuple[float, float, float]:
    a, b, c = row
    return float(a), float(b), float(c)


def _triples(rows: FloatArray) -> tuple[tuple[float, float, float], ...]:
    return tuple(_triple(one) for one in rows)
