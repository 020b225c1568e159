"""Geometry of the neutral shell case: faces in space; metres and degrees, x east, y north, z up."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Tag

from nimble_shell.core.errors import DomainError
from nimble_shell.core.geometry.face import Beyond, Face, Opening, OpeningKind
from nimble_shell.core.takeoff.takeoff import FaceArea, FloorLine, Measured, Partition, Takeoff, take_off
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive
from nimble_shell.formats.strict import Number, Strict

Plan = list[tuple[Number, Number]]


class WallOpening(Strict):
    id: str
    u: Number
    z: Number
    w: Positive
    h: Positive
    kind: OpeningKind = "window"


class RoofOpening(Strict):
    id: str
    u: Number
    v: Number
    w: Positive
    h: Positive


class WallCase(Strict):
    id: str
    kind: Literal["wall"]
    at: tuple[Number, Number]
    azimuth: Number
    outline: Plan
    thickness: Number
    to: Beyond
    openings: list[WallOpening] = []

    def face(self) -> Face:
        openings = tuple(Opening(id=o.id, u=o.u, v=o.z, w=o.w, h=o.h, kind=o.kind) for o in self.openings)
        return Face(id=self.id, kind="wall", at=(*self.at, 0.0), azimuth=self.azimuth, outline=tuple(self.outline),
                    thickness=self.thickness, to=self.to, openings=openings)  # fmt: skip


class FloorCase(Strict):
    id: str
    kind: Literal["floor"]
    z: Number
    outline: Plan
    thickness: Number
    to: Beyond

    def face(self) -> Face:
        return Face(id=self.id, kind="floor", at=(0.0, 0.0, self.z), outline=tuple(self.outline),
                    thickness=self.thickness, to=self.to)  # fmt: skip


class RoofCase(Strict):
    id: str
    kind: Literal["roof"]
    at: tuple[Number, Number, Number]
    pitch: Number
    azimuth: Number
    outline: Plan
    thickness: Number
    to: Beyond
    openings: list[RoofOpening] = []

    def face(self) -> Face:
        openings = tuple(Opening(id=o.id, u=o.u, v=o.v, w=o.w, h=o.h) for o in self.openings)
        return Face(id=self.id, kind="roof", at=self.at, pitch=self.pitch, azimuth=self.azimuth, to=self.to,
                    outline=tuple(self.outline), thickness=self.thickness, openings=openings)  # fmt: skip


def _branch(value: Any) -> str:
    return f"tagged-{value.get('kind') if isinstance(value, dict) else ''}"


FaceCase = Annotated[
    Annotated[WallCase, Tag("tagged-wall")] | Annotated[FloorCase, Tag("tagged-floor")]
    | Annotated[RoofCase, Tag("tagged-roof")],
    Discriminator(_branch, custom_error_type="unknown_kind",
                  custom_error_message="a face is of kind “wall”, “floor” or “roof”"),
]  # fmt: skip


class FloorLineCase(Strict):
    z: Number
    thickness: NotNegative = 0.0


class PartitionCase(Strict):
    faces: list[str]
    thickness: NotNegative
    length: NotNegative


class GeometryCase(Strict):
    dimensions: Measured
    faces: list[FaceCase]
    floor_lines: list[FloorLineCase] = []
    partitions: list[PartitionCase] = []


def take_off_of(case: GeometryCase) -> Takeoff:
    """Quantities of the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    faces = []
    for at, one in enumerate(case.faces):
        try:
            faces.append(one.face())
        except DomainError as error:
            raise error.under("geometry", "faces", at) from None
    lines = [FloorLine(z=one.z, thickness=one.thickness) for one in case.floor_lines]
    partitions = [Partition(faces=tuple(one.faces), thickness=one.thickness, length=one.length)
                  for one in case.partitions]  # fmt: skip
    try:
        return take_off(faces, case.dimensions, lines, partitions)
    except DomainError as error:
        raise error.under("geometry") from None


def answer_geometry(found: Takeoff) -> dict[str, Any]:
    """Answer the block."""
    answer: dict[str, Any] = {
        "faces": {key: _area(one) for key, one in found.faces.items()},
        "areas": {key: _area(one) for key, one in found.areas.items()},
        "openings": asdict(found.openings),
        "joints": {kind: {to: asdict(one) for to, one in by.items()} for kind, by in found.joints.items()},
        "volume": asdict(found.volume),
        "A_E": found.envelope,
    }
    if found.ground is not None:
        B = found.ground.B
        answer["ground"] = {
            "A": asdict(found.ground.A),
            "P": asdict(found.ground.P),
            "B": None if B is None else asdict(B),
        }
    return answer


def _area(one: FaceArea) -> dict[str, Any]:
    return {"gross": asdict(one.gross), "openings": one.openings, "net": asdict(one.net)}
