"""What a file of somebody else holds, before anything of it is taken."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

from nimble_shell.core.building.footprint import Outline
from nimble_shell.core.building.roof import RoofForm
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.face import OpeningKind

FileUnit = Literal["mm", "cm", "m", "in", "ft"]
METRES: dict[FileUnit, float] = {"mm": 1e-3, "cm": 1e-2, "m": 1.0, "in": 0.0254, "ft": 0.3048}
Point = tuple[float, float]
_AT_FLOOR, _WALKED = 0.1, 1.7  #: how far a door may end above the floor, and its least height [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadOpening:
    """An opening of a wall."""

    name: str
    entity: str  #: handle or GlobalId
    area: float  #: [m²]
    outline: tuple[Point, ...]  #: in the wall's plane, u to the right as seen from outside, v up [m]

    def box(self) -> dict[str, float]:
        """The rectangle round it: u, sill, w, h. [m]"""
        us, vs = [u for u, _ in self.outline], [v for _, v in self.outline]
        box = {"u": min(us), "sill": max(min(vs), 0.0), "w": max(us) - min(us), "h": max(vs) - min(vs)}
        return {key: round(value, 4) for key, value in box.items()}

    @property
    def kind(self) -> OpeningKind:
        """A door reaches the floor and is high enough to walk through."""
        box = self.box()
        return "door" if box["sill"] < _AT_FLOOR and box["h"] > _WALKED else "window"


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadWall:
    """A wall as it is seen from outside."""

    name: str
    entity: str
    gross: float  #: [m²]
    outline: tuple[Point, ...]  #: from its lower left corner [m]
    openings: tuple[ReadOpening, ...] = ()
    bearing: float | None = None  #: of its outward normal from true north, clockwise [°]
    shell: bool = True  #: whether it lies between inside and outside
    storey: str = ""

    @property
    def net(self) -> float:
        """Without its openings. [m²]"""
        return self.gross - sum(one.area for one in self.openings)

    @property
    def size(self) -> Point:
        """Width and height. [m]"""
        us, vs = [u for u, _ in self.outline], [v for _, v in self.outline]
        return max(us) - min(us), max(vs) - min(vs)


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadPlate:
    """A floor or roof slab."""

    name: str
    entity: str
    area: float  #: [m²]
    pitch: float | None = None  #: [°]


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadBody:
    """Plan, storeys and roof of a model, where they make one body."""

    outline: Outline  #: its longest side along x, from its lower left corner [m]
    base: float  #: where its walls begin [m]
    storeys: tuple[float, ...]  #: from floor to floor [m]
    form: RoofForm
    pitch: float  #: [°]
    towards: float  #: that it falls to, from the plan's y axis, clockwise [°]
    overhang: float  #: [m]
    north: float  #: bearing of the plan's y axis [°]
    roof_known: bool = True  #: whether its roof is one that can be drawn; else it stands flat


LayerHolds = Literal["walls", "openings", "nothing"]


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadLayer:
    """A layer of a drawing with closed outlines."""

    name: str
    outlines: int
    holds: LayerHolds  #: as it was read, by its name, by what lies in what, or as somebody has said


@dataclass(frozen=True, slots=True, kw_only=True)
class LeftOut:
    """What is not taken, and why."""

    entity: str
    reason: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Reading:
    """All of it."""

    kind: Literal["dxf", "ifc"]
    unit: FileUnit
    walls: tuple[ReadWall, ...]
    floors: tuple[ReadPlate, ...] = ()
    roofs: tuple[ReadPlate, ...] = ()
    perimeter: float | None = None  #: of the lowest floor's outer faces [m]
    storeys: tuple[tuple[str, float], ...] = ()  #: name, height [m]
    body: ReadBody | None = None  #: of a model
    layers: tuple[ReadLayer, ...] = ()  #: of a drawing
    left_out: tuple[LeftOut, ...] = ()

    def to_json(self) -> dict[str, Any]:
        """As the neutral format has it."""
        found: dict[str, Any] = {"kind": self.kind, "unit": self.unit}
        if self.storeys:
            found["storeys"] = [{"name": name, "z_m": z} for name, z in self.storeys]
        found["walls"] = [_wall(one) for one in sorted(self.walls, key=_order(lambda one: one.gross))]
        found["floors"] = [{"name": one.name, "area_m2": one.area} for one in sorted(self.floors, key=_by_area)]
        found["roofs"] = [{"name": one.name, "area_m2": one.area, "pitch_deg": one.pitch or 0.0}
                          for one in sorted(self.roofs, key=_by_area)]  # fmt: skip
        if self.perimeter is not None:
            found["perimeter_m"] = self.perimeter
        found["left_out"] = [{"entity": one.entity, "reason": one.reason} for one in self.left_out]
        return found


def _order(area: Callable[[Any], float]) -> Callable[[Any], tuple[bool, str, float]]:
    """By names; what has none behind them, the largest first."""
    return lambda one: (not one.name, one.name, -area(one))


def _by_area(one: ReadPlate) -> tuple[bool, str, float]:
    return (not one.name, one.name, -one.area)


def _wall(one: ReadWall) -> dict[str, Any]:
    wide, high = one.size
    found: dict[str, Any] = {
        "name": one.name, "gross_m2": one.gross, "net_m2": one.net, "width_m": wide, "height_m": high,
        "openings": [{"name": each.name, "area_m2": each.area}
                     for each in sorted(one.openings, key=lambda each: -each.area)],
    }  # fmt: skip
    if one.bearing is not None:
        found["bearing_deg"] = one.bearing
    return {**found, "shell": one.shell}


def fault(code: str, message: str, hint: str, *, entity: str = "", proposed: str = "") -> Issue:
    """One thing that is wrong with a file."""
    return Issue(path=("content",), code=code, message=message, hint=hint, entity=entity, proposed=proposed)


def refuse(code: str, message: str, hint: str, *, entity: str = "", proposed: str = "") -> DomainError:
    """A file that cannot be read at all."""
    return DomainError(fault(code, message, hint, entity=entity, proposed=proposed))
