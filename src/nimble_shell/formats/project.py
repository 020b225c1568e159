"""The project file: also the wire format and the snapshots of the change log. SI; layers inside → outside.

Fields, types and defaults are those of the core's dataclasses; what is written here differs from them on purpose.
"""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from nimble_shell.core.assemblies.assembly import (
    AirGap,
    Assembly,
    Declared,
    Layer,
    Member,
    StandardRef,
    Substitution,
)
from nimble_shell.core.assemblies.fixing import Fixing, Plate
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.criteria import Criterion, Handling
from nimble_shell.core.basis.damp import AirDrive, DampLimits
from nimble_shell.core.basis.economy import Economy
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.site import Site
from nimble_shell.core.basis.targets import Limits, Targets
from nimble_shell.core.building.body import BodyOpening, BodySide, BuildingBody, WallPart
from nimble_shell.core.building.flat_face import FlatFace
from nimble_shell.core.building.roof import Roof
from nimble_shell.core.climate import MonthlyClimate
from nimble_shell.core.joints.joint import JointRole, JointValue, ShellJoint
from nimble_shell.core.materials import Material
from nimble_shell.core.materials.material import Hatching
from nimble_shell.core.materials.rates import Rate
from nimble_shell.core.setout.choices import JointPin, SetOutChoices
from nimble_shell.core.setout.courses.choices import CastIn, FootingLevel, FormChoices, ReadBlocks, StackJoint
from nimble_shell.core.setout.entered import Anchors, EnteredPost, Screws, Sensor, Socket
from nimble_shell.core.shell.plant import Buffer, Fire, FreshAir, Ground, Loads, MeasurePrice, Plant, Tightness
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.core.shop.bill import BillChoices, Price
from nimble_shell.core.shop.choices import CutPiece, RackBar, ShopChoices, TapeReadings
from nimble_shell.core.shop.wet_choices import BaleReading, CastLog, MixPart, MortarTest, WetChoices
from nimble_shell.core.site.choices import BraceRow, CraneRow, LiftChoices, LoggedDay, PourChoices, StringLine
from nimble_shell.core.site.work_plan import MoreAfter, TaskHours, WorkChoices
from nimble_shell.core.windows.transmittance import Frame, Glass
from nimble_shell.core.windows.unit import UnitJoint, UnitType
from nimble_shell.formats.document import Document, Identifier, Text

Zone = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{0,64}$")]  #: an element of the shell, or none
FORMAT: Literal["nimble-shell-project"] = "nimble-shell-project"
FORMAT_VERSION: Literal[1] = 1


class MemberDoc(Document, core=Member):
    """A stud, plate, spline, batten or web that repeats through a layer."""


class AirGapDoc(Document, core=AirGap):
    """How an air layer is connected to outside."""


class DeclaredDoc(Document, core=Declared):
    """A fire class or sound rating with its source."""

    source: Text = ""


class SubstitutionDoc(Document, core=Substitution):
    """What was asked where another material was delivered."""


class PlateDoc(Document, core=Plate):
    """Washer, flange or base plate at an end of a fixing."""


class FixingDoc(Document, core=Fixing):
    """A group of screws, ties, wires, webs or brackets through one layer and into its neighbours."""

    id: Identifier
    layer: Identifier


class StandardRefDoc(Document, core=StandardRef):
    id: Identifier


class LayerDoc(Document, core=Layer):
    """One layer; `lambda` replaces the catalogue's conductivity."""

    id: Identifier
    lambda_entered: float | None = Field(None, alias="lambda")


class AssemblyDoc(Document, core=Assembly):
    """A build-up."""

    id: Identifier
    system: Text = ""


class SiteDoc(Document, core=Site):
    pass


class ClimateDoc(Document, core=MonthlyClimate):
    """Monthly means, January first."""

    source: Text = ""


class IndoorDoc(Document, core=Indoor):
    pass


class TargetsDoc(Document, core=Targets):
    pass


class SchoolsDoc(Document, core=Schools):
    pass


class LimitsDoc(Document, core=Limits):
    pass


class EconomyDoc(Document, core=Economy):
    currency: Annotated[str, StringConstraints(max_length=12)] = ""


class RateDoc(Document, core=Rate):
    """The practice's own rates of a material."""


class CriterionDoc(Document, core=Criterion):
    """One line of the criteria register."""


class HandlingDoc(Document, core=Handling):
    pass


class DampDoc(Document, core=DampLimits):
    """What the practice accepts of water and mould."""


class AirDoc(Document, core=AirDrive):
    """What pushes air through joints."""


class BasisDoc(Document, core=Basis):
    site: SiteDoc = Field()  # a file says where it is and what is asked; nothing of it is presumed
    climate: ClimateDoc = Field()
    indoor: IndoorDoc = Field()
    targets: TargetsDoc = Field()
    schools: SchoolsDoc = Field()


class MaterialDoc(Document, core=Material):
    """A material of the practice's own."""

    key: Identifier
    family: Text = "panel"
    hatch: Hatching = "board"
    lambda_: float = Field(alias="lambda")
    rates: Text = "entered"


class ElementDoc(Document, core=ShellElement):
    """A piece of a building's shell."""

    id: Identifier
    assembly_id: Identifier | None = None
    U_entered: float | None = Field(None, alias="U")


class JointRoleDoc(Document, core=JointRole):
    assembly_id: Identifier


class JointValueDoc(Document, core=JointValue):
    pass


class JointDoc(Document, core=ShellJoint):
    """A joint of a building's shell."""

    id: Identifier


class RoofDoc(Document, core=Roof):
    pass


class BodySideDoc(Document, core=BodySide):
    """What a side of a footprint has of its own."""

    zone: Zone = ""


class WallPartDoc(Document, core=WallPart):
    """A part of a wall with another build-up."""

    zone: Identifier


class BodyDoc(Document, core=BuildingBody):
    """A body of a building: footprint, storeys, roof; what its faces are counted with are elements of the shell."""

    id: Identifier
    wall: Zone = ""
    below: Zone = ""
    top: Zone = ""
    floor: Zone = ""


class OpeningDoc(Document, core=BodyOpening):
    """A window or door in a side of a body."""

    id: Identifier
    body: Identifier
    zone: Zone = ""
    unit: Zone = ""


class FlatFaceDoc(Document, core=FlatFace):
    """A face that no body has."""

    id: Identifier
    zone: Zone = ""


class FrameDoc(Document, core=Frame):
    """What runs round a unit."""


class GlassDoc(Document, core=Glass):
    """A glazing with its spacer."""


class UnitJointDoc(Document, core=UnitJoint):
    """Which variant of a joint an edge is built with."""


class UnitDoc(Document, core=UnitType):
    """A type of window or door."""

    id: Identifier


class GroundDoc(Document, core=Ground):
    lambda_: float = Field(2.0, alias="lambda")


class TightnessDoc(Document, core=Tightness):
    pass


class FreshAirDoc(Document, core=FreshAir):
    pass


class FireDoc(Document, core=Fire):
    pass


class LoadsDoc(Document, core=Loads):
    pass


class BufferDoc(Document, core=Buffer):
    pass


class MeasurePriceDoc(Document, core=MeasurePrice):
    pass


class PlantDoc(Document, core=Plant):
    pass


class JointPinDoc(Document, core=JointPin):
    pass


class EnteredPostDoc(Document, core=EnteredPost):
    pass


class AnchorsDoc(Document, core=Anchors):
    pass


class ScrewsDoc(Document, core=Screws):
    pass


class SensorDoc(Document, core=Sensor):
    pass


class SocketDoc(Document, core=Socket):
    pass


class SetOutDoc(Document, core=SetOutChoices):
    pass


class CutPieceDoc(Document, core=CutPiece):
    pass


class RackBarDoc(Document, core=RackBar):
    pass


class TapeReadingsDoc(Document, core=TapeReadings):
    pass


class ShopDoc(Document, core=ShopChoices):
    pass


class StackJointDoc(Document, core=StackJoint):
    pass


class ReadBlocksDoc(Document, core=ReadBlocks):
    pass


class FootingLevelDoc(Document, core=FootingLevel):
    pass


class CastInDoc(Document, core=CastIn):
    pass


class FormsDoc(Document, core=FormChoices):
    pass


class BraceRowDoc(Document, core=BraceRow):
    pass


class StringLineDoc(Document, core=StringLine):
    pass


class LoggedDayDoc(Document, core=LoggedDay):
    pass


class PourDoc(Document, core=PourChoices):
    pass


class CraneRowDoc(Document, core=CraneRow):
    pass


class LiftingDoc(Document, core=LiftChoices):
    pass


class MixPartDoc(Document, core=MixPart):
    pass


class CastLogDoc(Document, core=CastLog):
    pass


class BaleReadingDoc(Document, core=BaleReading):
    pass


class MortarTestDoc(Document, core=MortarTest):
    pass


class WetDoc(Document, core=WetChoices):
    pass


class TaskHoursDoc(Document, core=TaskHours):
    pass


class MoreAfterDoc(Document, core=MoreAfter):
    pass


class WorkDoc(Document, core=WorkChoices):
    pass


class PriceDoc(Document, core=Price):
    pass


class BillDoc(Document, core=BillChoices):
    pass


class BuildingDoc(Document, core=Building):
    id: Identifier


class ProjectDoc(Document, core=Project):
    """What a project file holds, besides its format and version."""

    id: Identifier


class ProjectFile(Document):
    """A whole project as one JSON file."""

    format: Literal["nimble-shell-project"]
    version: Literal[1]
    project: ProjectDoc


def json_schema() -> dict[str, Any]:
    """The published JSON Schema of the project file."""
    schema = ProjectFile.model_json_schema(by_alias=True)
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Nimble Shell project, version 1"
    return schema
