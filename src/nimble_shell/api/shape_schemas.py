"""What the shape sheet asks and is answered."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Base64Bytes, Field

from nimble_shell.api.schemas import ChangeNoteIn, ConsequenceOut, ShortText
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.building.footprint import Plan
from nimble_shell.core.building.roof import RoofForm
from nimble_shell.core.geometry.face import OpeningKind
from nimble_shell.core.shell.measured import Quantity
from nimble_shell.core.takeoff.module_fit import ModuleFit
from nimble_shell.core.takeoff.takeoff import Both
from nimble_shell.formats.document import Model, Pair
from nimble_shell.formats.project import BodyDoc, ClimateDoc, OpeningDoc, SchoolsDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.formats.reading.reading import LayerHolds, LeftOut, ReadLayer, ReadOpening, ReadPlate, ReadWall
from nimble_shell.services.begin import Beginning
from nimble_shell.services.shape import (
    DrawnBody,
    DrawnEdge,
    DrawnFace,
    DrawnFlatFace,
    DrawnOpening,
    DrawnSide,
    ShapeSheet,
)

Triple = Annotated[list[float], Field(min_length=3, max_length=3)]


class ShapeIn(Model):
    """A shape as it is being drawn; what is left out stays as it is stored."""

    bodies: list[BodyDoc] | None = None
    openings: list[OpeningDoc] | None = None
    north: float | None = None


class ScheduleIn(ChangeNoteIn):
    """An opening schedule as CSV."""

    content: Base64Bytes


class DrawingIn(Model):
    """A DXF drawing or an IFC model."""

    name: ShortText
    content: Base64Bytes
    unit: Literal["mm", "cm", "m", "in", "ft"] | None = None
    layers: Annotated[dict[str, LayerHolds], Field(max_length=1000)] = {}  #: of a drawing, as somebody has said


class ReadLayerOut(Model, core=ReadLayer):
    pass


class ReadOpeningOut(Model, core=ReadOpening):
    outline: list[Pair]
    u: float  #: box round it: from the wall's lower left corner [m]
    sill: float
    w: float
    h: float
    kind: OpeningKind


class ReadWallOut(Model, core=ReadWall):
    openings: list[ReadOpeningOut]
    outline: list[Pair]
    side: Annotated[str, Field(description="body and number of the side that it seems to be, “b1/0”; empty for none")]
    width: float
    height: float
    net: float


class ReadPlateOut(Model, core=ReadPlate):
    pass


class LeftOutOut(Model, core=LeftOut):
    pass


class ReadingOut(Model):
    """What a file holds, before anything of it is taken."""

    kind: Literal["dxf", "ifc"]
    unit: str
    walls: list[ReadWallOut]
    layers: list[ReadLayerOut]
    floors: list[ReadPlateOut]
    roofs: list[ReadPlateOut]
    perimeter: float | None
    left_out: list[LeftOutOut]
    body: BodyDoc | None  #: as it would be drawn, in a building that has none
    north: float  #: bearing of the top of its plan [°]
    differences: list[Prose]  #: from what is drawn, which stays


class BeginIn(Model):
    """A project from one sheet. SI; a climate that is left out is that of a new Basis."""

    name: ShortText
    place: ShortText = ""
    climate: ClimateDoc | None = None
    theta_winter: float | None = None
    schools: SchoolsDoc | None = None
    wall: ShortText = "sip"
    roof: ShortText = "sip-roof"
    floor: ShortText = "slab"
    plan: Plan = "rectangle"
    long: float = 12.0
    wide: float = 8.4
    arm: float = 4.8
    depth: float = 3.6
    points: Annotated[list[Pair], Field(max_length=200)] = []
    storeys: Annotated[list[float], Field(min_length=1, max_length=20)] = [2.8]
    form: RoofForm = "two pitches"
    pitch: float | None = 35.0
    ridge: float | None = None
    glazing: Annotated[list[float], Field(max_length=200)] = [0.2, 0.1, 0.1, 0.1]
    north: float = 0.0

    def to_core(self) -> Beginning:
        """Raises DomainError."""
        plain = self.model_dump(exclude={"climate", "schools", "points", "storeys", "glazing"})
        return Beginning(
            **plain, climate=None if self.climate is None else self.climate.to_core(),
            schools=Schools() if self.schools is None else self.schools.to_core(),
            points=tuple((x, y) for x, y in self.points), storeys=tuple(self.storeys), glazing=tuple(self.glazing),
        )  # fmt: skip


class BothOut(Model, core=Both):
    pass


class ModuleFitOut(Model, core=ModuleFit):
    pass


class QuantityOut(Model, core=Quantity):
    pass


class DrawnOpeningOut(Model, core=DrawnOpening):
    pass


class DrawnFaceOut(Model, core=DrawnFace):
    corners: list[Triple]
    normal: Triple
    right: Triple
    up: Triple
    origin: Triple


class DrawnSideOut(Model, core=DrawnSide):
    pass


class DrawnBodyOut(Model, core=DrawnBody):
    pass


class DrawnEdgeOut(Model, core=DrawnEdge):
    pass


class DrawnFlatFaceOut(Model, core=DrawnFlatFace):
    pass


class ShapeSheetOut(Model, core=ShapeSheet):
    modules: dict[str, float]


class ShapeAnswer(Model):
    """The shape as drafted, what it was, and what that means for the shell."""

    now: ShapeSheetOut | None  #: None where there is no shape
    before: ShapeSheetOut | None  #: as stored, where the draft differs
    consequence: ConsequenceOut
