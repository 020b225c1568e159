"""Requests and responses of the studies and standards. SI throughout; null where there is no value."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Base64Bytes, Field

from nimble_shell.api.schemas import ChangeNoteIn, LowestOut, ShortText
from nimble_shell.core.assemblies.difference import Difference
from nimble_shell.core.studies.claim import Claim
from nimble_shell.core.studies.probe import Chase
from nimble_shell.core.studies.sensitivity import Swing
from nimble_shell.core.studies.variants import NextThickness, Variants
from nimble_shell.formats.document import Identifier, Model
from nimble_shell.formats.project import AssemblyDoc, ClimateDoc, JointDoc
from nimble_shell.formats.reader import Prose
from nimble_shell.services.on_the_whole import WholeSums
from nimble_shell.services.studies import PlacedDraft, Probe
from nimble_shell.services.workings import (
    OfDay,
    OfLeak,
    OfMargin,
    OfMoisture,
    OfProbe,
    OfSide,
    OfVariant,
    Studied,
)


class AtIn(Model):
    """A build-up as drafted, where a building uses it."""

    building_id: Identifier
    assembly: AssemblyDoc

    def place(self) -> PlacedDraft:
        return PlacedDraft(building_id=self.building_id, assembly=self.assembly.to_core())


class VariantsIn(AtIn):
    cores: Annotated[list[ShortText], Field(max_length=40)] = []


class CoreOut(Model, core=Variants):
    """One core; lists have one entry for each thickness."""

    d: list[float]
    columns: dict[str, list[float | None]]


class NextOut(Model, core=NextThickness):
    pass


class Pick(Model):
    core: int
    at: int


class SwingOut(Model, core=Swing):
    text: Prose
    core: list[float | None]


class DecisionOut(Model):
    layer: int
    asked: float | None
    cores: list[CoreOut]
    cheapest: Pick | None
    least_life: Pick | None
    least_beyond: Pick | None
    step: NextOut | None
    swings: list[SwingOut]


class CompareIn(Model):
    building_id: Identifier
    condition: ShortText = "0"
    sides: Annotated[list[Identifier], Field(max_length=4)]
    mode: Literal["as drawn", "equal R", "equal thickness"] = "as drawn"


class SideOut(Model):
    assembly: AssemblyDoc
    figures: dict[str, float]
    counted: int
    why_not: Prose


class ComparisonOut(Model):
    """The first side leads: the others were brought to it, if asked."""

    sides: list[SideOut]


class OnTheWholeIn(Model):
    """Build-ups that take the place of one of the project, wherever it is used."""

    building_id: Identifier
    assembly_id: Identifier
    instead: Annotated[list[AssemblyDoc], Field(max_length=64)]
    joints: bool = False
    ticket: ShortText = ""


class WholeSumsOut(Model, core=WholeSums):
    """Sums of the building; null while a part of them is missing or to come."""

    lowest: LowestOut | None
    missing: list[Prose]


class OnTheWholeOut(Model):
    """What one comes to: moisture of the build-up alone, and the building's sums where they were asked."""

    passes: bool | None
    margin: float | None
    reason: str
    why_not: Prose
    sums: WholeSumsOut | None


class OnTheWholesOut(Model):
    rows: list[OnTheWholeOut]


class ClaimIn(AtIn):
    R: float
    d: float
    theta: float = 10.0
    age: Literal["aged", "fresh"] = "fresh"

    def to_core(self) -> Claim:
        return Claim(R=self.R, d=self.d, theta=self.theta, age=self.age)


class CheckedOut(Model):
    lambda_claimed: float
    lambda_aged: float
    lambda_catalogue: float
    figures: dict[str, float]
    remains: float


class DayIn(AtIn):
    month: Annotated[int, Field(ge=0, le=11)] = 6
    rise: Annotated[float, Field(ge=0, le=60)] = 0.0


class DayOut(Model):
    month: int
    Y12: float
    decrement: float
    lag_h: float
    kappa_i: float
    kappa_e: float
    theta_i: float
    outside: list[float]
    surface: list[float]
    massless: list[float]
    mean_flux: float
    peak_flux: float
    peak_massless: float
    verdict: str


class ProbeIn(AtIn):
    depth: float | None = None
    chase_layer: int | None = None
    chase_depth: float = 0.0
    chase_share: float = 0.0


class ChaseOut(Model, core=Chase):
    pass


class ProbeOut(Model, core=Probe):
    pass


class WeatherIn(Model):
    name: ShortText
    content: Base64Bytes


class SiteOut(Model):
    place: str
    latitude: float
    altitude: float
    theta_winter: float
    theta_summer: float
    hours: int
    filled: int


class WeatherOut(Model):
    climate: ClimateDoc
    site: SiteOut | None


class UseOut(Model):
    project_id: str
    project: str
    id: str
    name: str
    version: int


class StandardOut(Model):
    id: str
    version: int
    place: Literal["wall", "roof", "floor"]
    assembly: AssemblyDoc
    reason: str
    source: str
    trusted_since: str
    saved_at: str
    withdrawn: bool
    uses: list[UseOut]


class JointStandardOut(Model):
    id: str
    version: int
    joint: JointDoc
    reason: str
    source: str
    trusted_since: str
    saved_at: str
    withdrawn: bool
    uses: list[UseOut]


class KeepJointStandard(Model):
    reason: ShortText
    source: ShortText = ""
    trusted_since: ShortText = ""


class TakeJointStandard(ChangeNoteIn):
    standard_id: Identifier
    version: int  # of the joint


class KeepStandard(Model):
    place: Literal["wall", "roof", "floor"]
    reason: ShortText
    source: ShortText = ""
    trusted_since: ShortText = ""


class TakeOffer(ChangeNoteIn):
    version: int  # of the build-up


class UseStandard(ChangeNoteIn):
    building_id: Identifier
    element_id: Identifier
    standard_id: Identifier


class Withdrawal(Model):
    again: bool = False


class Stored(Model):
    stored: int


class DifferenceOut(Model, core=Difference):
    pass


class JointOfferOut(Model):
    standard: JointStandardOut
    differences: list[DifferenceOut]


class OfferOut(Model):
    standard: StandardOut
    differences: list[DifferenceOut]


class OfDayIn(Model):
    kind: Literal["day"]
    month: Annotated[int, Field(ge=0, le=11)]
    rise: Annotated[float, Field(ge=0, le=60)] = 0.0

    def to_core(self) -> Studied:
        return OfDay(month=self.month, rise=self.rise)


class OfMoistureIn(Model):
    kind: Literal["moisture"]
    month: Annotated[int, Field(ge=0, le=11)]

    def to_core(self) -> Studied:
        return OfMoisture(month=self.month)


class OfMarginIn(Model):
    kind: Literal["margin"]

    def to_core(self) -> Studied:
        return OfMargin()


class OfLeakIn(Model):
    kind: Literal["leak"]
    joint_id: Identifier
    month: Annotated[int, Field(ge=0, le=11)]
    leakage: Annotated[float, Field(ge=0, le=1000)] | None = None

    def to_core(self) -> Studied:
        return OfLeak(joint_id=self.joint_id, month=self.month, leakage=self.leakage)


class OfClaimIn(Model):
    kind: Literal["claim"]
    R: float
    d: float
    theta: float
    age: Literal["aged", "fresh"]

    def to_core(self) -> Studied:
        return Claim(R=self.R, d=self.d, theta=self.theta, age=self.age)


class OfProbeIn(Model):
    kind: Literal["probe"]
    depth: float | None = None
    chase_layer: int | None = None
    chase_depth: float = 0.0
    chase_share: float = 0.0

    def to_core(self) -> Studied:
        return OfProbe(depth=self.depth, layer=self.chase_layer, groove=self.chase_depth, share=self.chase_share)


class OfVariantIn(Model):
    kind: Literal["variant"]
    core: ShortText
    d: Annotated[float, Field(gt=0, le=3)]

    def to_core(self) -> Studied:
        return OfVariant(core=self.core, d=self.d)


class OfSideIn(Model):
    kind: Literal["side"]
    leader: Identifier
    condition: ShortText = "0"

    def to_core(self) -> Studied:
        return OfSide(leader=self.leader, condition=self.condition)


class StudyWorkingIn(AtIn):
    """A figure of a study, and what was asked of the study."""

    figure: ShortText
    of: Annotated[
        OfMoistureIn | OfMarginIn | OfLeakIn | OfDayIn | OfClaimIn | OfProbeIn | OfVariantIn | OfSideIn,
        Field(discriminator="kind"),
    ]
