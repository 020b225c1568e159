"""The neutral shell case of the command line: plain JSON in and out; metres and degrees, x east, y north, z up."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.face import Beyond, Face, Opening, OpeningKind
from nimble_shell.core.takeoff.takeoff import FaceArea, FloorLine, Measured, Partition, Takeoff, take_off
from nimble_shell.formats.neutral_windows import WindowCase, answer_windows
from nimble_shell.formats.strict import Number, Strict

#: Blocks of the format that are known and not computed yet.
TO_COME = ("ground", "transmission", "leakage", "blower_door", "balance", "ventilation", "sun",
           "heating_load", "cooling_day", "glazing", "energy")  # fmt: skip
Positive = Annotated[Number, Field(gt=0)]
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
    thickness: Annotated[Number, Field(ge=0)] = 0.0


class PartitionCase(Strict):
    faces: list[str]
    thickness: Annotated[Number, Field(ge=0)]
    length: Annotated[Number, Field(ge=0)]


class GeometryCase(Strict):
    dimensions: Measured
    faces: list[FaceCase]
    floor_lines: list[FloorLineCase] = []
    partitions: list[PartitionCase] = []


class ShellCase(Strict):
    kind: Literal["shell"] = "shell"
    name: str = ""
    geometry: GeometryCase | None = None
    windows: list[WindowCase] | None = None


def split(case: dict[str, Any]) -> tuple[ShellCase, list[str]]:
    """A case, and the blocks of it that are not computed yet.

    Raises
    ------
    pydantic.ValidationError
        With what is wrong in the file.
    """
    waiting = [name for name in TO_COME if name in case]
    return ShellCase.model_validate({key: value for key, value in case.items() if key not in TO_COME}), waiting


def compute(case: ShellCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    if case.geometry is None and case.windows is None:
        raise DomainError(Issue(path=(), code="nothing_asked", message="there is neither geometry nor windows in it",
                                hint="give the block geometry or the block windows"))  # fmt: skip
    answer = {}
    if case.geometry is not None:
        answer["geometry"] = _geometry(case.geometry)
    if case.windows is not None:
        answer["windows"] = answer_windows(case.windows)
    return answer


def _geometry(case: GeometryCase) -> dict[str, Any]:
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
        return _printed(take_off(faces, case.dimensions, lines, partitions))
    except DomainError as error:
        raise error.under("geometry") from None


def _printed(found: Takeoff) -> dict[str, Any]:
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
