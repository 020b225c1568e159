"""Requests and responses. Documents of the project file are used as they are; the rest is here. SI throughout."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Base64Bytes, Field, StringConstraints

from nimble_shell.core.basis.condition import Condition
from nimble_shell.core.quantities.units import Dimension, Unit
from nimble_shell.core.remarks.remark import Remark, Said
from nimble_shell.core.shell.ledger import JointLine, UKind
from nimble_shell.core.studies.thickness import Study, StudyPoint
from nimble_shell.core.thermal.control import ControlLine, Share
from nimble_shell.core.thermal.figures import Plane, Profile
from nimble_shell.core.working.derivation import Derivation, Step
from nimble_shell.formats.document import Identifier, Model
from nimble_shell.formats.project import (
    AssemblyDoc,
    ClimateDoc,
    ProjectDoc,
    SchoolsDoc,
    TargetsDoc,
)
from nimble_shell.formats.reader import Prose
from nimble_shell.services.bench import Lowest
from nimble_shell.store.changes import Change
from nimble_shell.store.inspect import ProjectThere
from nimble_shell.store.projects import Listed

ShortText = Annotated[str, StringConstraints(max_length=200)]


class ChangeOut(Model, core=Change):
    """An entry of the change log."""


class ListedOut(Model, core=Listed):
    """A project in the list."""


class ProjectThereOut(Model, core=ProjectThere):
    pass


class BackupOut(Model):
    """A copy of the data, and what lies in it; with the reason where it cannot be used."""

    name: str
    made_at: str
    reason: str
    size: int
    projects: list[ProjectThereOut]
    why_not: Prose


class MaterialOut(Model):
    key: str
    name: str
    family: str
    hatch: str
    conductivity: float = Field(validation_alias="lambda_")
    conductivity_fresh: float | None = Field(validation_alias="lambda_fresh")
    rho: float
    c: float
    mu: float
    sd: float | None
    emissivity: float
    cost: float
    carbon: float
    stock: list[float]
    source: str


class Derived(Model):
    """What follows from a project's things and is no thing itself."""

    findings: dict[str, str]  #: of the criteria register: inside, needs an engineer, not stated
    catalogue: list[MaterialOut]  #: own materials, and shipped ones at the practice's own rates


class ProjectOut(Model):
    """A project as it stands."""

    project: ProjectDoc
    versions: dict[str, int]  #: of each thing by its key; of one that holds others the newest of all
    revision: int
    undo: ChangeOut | None
    redo: ChangeOut | None
    changed_at: str
    derived: Derived


class ThingOut(Model):
    """A thing as it was written last; without a document it was removed."""

    kind: str
    owner: str
    id: str
    revision: int
    document: dict[str, Any] | None


class OrderOut(Model):
    """Ids of the things of one kind and owner, in their order."""

    kind: str
    owner: str
    ids: list[str]


class DeltaOut(Model):
    """What has been written since the revision that was named: all a window needs to be up to date."""

    project_id: str
    revision: int
    undo: ChangeOut | None
    redo: ChangeOut | None
    changed_at: str
    things: list[ThingOut]
    orders: list[OrderOut]  #: of every kind and owner that is told of
    derived: Derived | None  #: where it may have changed


class NewProject(Model):
    name: ShortText


class ChangeNoteIn(Model):
    """How a change is called in the log."""

    text: ShortText
    zone: ShortText = ""


class ThingEdit(Model):
    """A thing as it is to be; null takes it away.

    A document that names what it holds (elements and joints, fixings) stands for all of that; else it stays as it is.
    """

    kind: ShortText
    owner: Identifier | Literal[""] = ""
    id: Identifier | Literal[""] = ""
    read: int | None = None  #: revision of the project that was seen; null for a thing that is new
    document: dict[str, Any] | None


class EditIn(ChangeNoteIn):
    """Things to be written together, as one undoable change."""

    items: Annotated[list[ThingEdit], Field(min_length=1, max_length=2000)]


class StartAssembly(ChangeNoteIn):
    building_id: Identifier
    element_id: Identifier
    system: ShortText
    values: dict[str, float | ShortText] = {}


class Alternative(ChangeNoteIn):
    """A build-up of the project in an element's place; without one named, a copy of its own."""

    building_id: Identifier
    element_id: Identifier
    assembly_id: Identifier | None = None


class Removal(ChangeNoteIn):
    """Of a build-up: what uses it stands in the way, or goes along."""

    version: int
    users: Literal["refuse", "take along"] = "refuse"


class MaterialLike(ChangeNoteIn):
    """A material of the practice's own that begins as a copy of another one."""

    like: Identifier


class MaterialsFile(ChangeNoteIn):
    """A CSV file of own materials."""

    content: Base64Bytes
    instead: bool = False  #: whether what has the same key may be replaced


class StepIn(Model):
    number: int


class FigureOut(Model):
    text: str
    dimension: str
    value: float


class PlaneOut(Model, core=Plane):
    pass


class ConditionOut(Model, core=Condition):
    pass


class ProfileOut(Model, core=Profile):
    pass


class StudyPointOut(Model, core=StudyPoint):
    pass


class StudyOut(Model, core=Study):
    met: bool


class SaidOut(Model, core=Said):
    pass


class RemarkOut(Model, core=Remark):
    pass


class LedgerLineOut(Model):
    element_id: str
    station: str
    name: str
    area: float
    U: float | None
    U_kind: UKind
    U_clear: float | None
    R: float | None
    H: float | None
    from_assembly: bool
    asked: float | None  #: clear-wall R
    falls_short: bool


class LowestOut(Model, core=Lowest):
    falls_short: bool


class JointLineOut(Model, core=JointLine):
    pass


class LedgerOut(Model):
    """Transmission of the shell; `not_counted` names what is left out, `pending` what is being solved."""

    joints: list[JointLineOut]
    H_joints: float | None
    H_fixings: float | None
    share_joints: float | None
    pending: list[Prose]

    lines: list[LedgerLineOut]
    H: float | None
    R_effective: float | None
    area: float
    missing: list[Prose]
    not_counted: list[Prose]
    lowest: LowestOut | None
    whole: bool  #: whether its sums lack nothing that is drawn


class ConsequenceOut(Model):
    """The ledger, and what it was: before the draft, or before the newest saved change."""

    now: LedgerOut
    before: LedgerOut | None
    last: LedgerOut | None  #: the last one that was whole, where `now` is not
    preview: bool
    open: list[str]  #: sums of `now` that miss what is asked of the building: R_effective, H_shell


class BenchIn(Model):
    building_id: Identifier
    condition: ShortText = "0"
    assembly: AssemblyDoc


class LineOut(Model, core=ControlLine):
    """One line of the continuity strip: the layers that carry it, from inside."""


class ShareOut(Model, core=Share):
    """Share of the field's resistance inside the vapour-control plane."""


class BenchOut(Model):
    figures: dict[str, FigureOut]
    profile: ProfileOut
    counted: int
    in_range: bool
    shares: list[list[float]]
    R_layers: list[float]
    lines: list[LineOut]
    inside: ShareOut | None
    R_asked_materials: float | None
    study: StudyOut | None
    settled: bool  #: whether its points are solved at the thickness that reaches what is asked
    remarks: list[RemarkOut]
    consequence: ConsequenceOut


class WorkingIn(Model):
    building_id: Identifier
    condition: ShortText = "0"
    figure: ShortText
    assembly: AssemblyDoc | None = None


class StepOut(Model, core=Step):
    pass


class WorkingOut(Model, core=Derivation):
    """Every step of one figure, the figure last; formulas are Python expressions over the symbols."""


class ParameterOut(Model):
    key: str
    text: str
    kind: Literal["number", "choice"]
    start: float | str
    least: float | None = None
    most: float | None = None
    dimension: str | None = None
    options: list[str] = []


class SystemFigures(Model):
    """The starting point on a plain Basis."""

    R_nominal: float
    R_clear: float
    thickness: float
    weight: float


class SystemPreviewIn(Model):
    """Parameters of a system that differ from their start."""

    values: dict[str, float | ShortText] = {}


class SystemPreview(Model):
    """A system drawn with some parameters, and what it comes to on a plain Basis."""

    figures: SystemFigures
    preview: AssemblyDoc


class SystemOut(Model):
    key: str
    kind: int
    place: Literal["wall", "roof", "floor"]
    figures: SystemFigures
    cores: list[str]
    name: str
    anatomy: str
    parameters: list[ParameterOut]
    cautions: list[str]
    preview: AssemblyDoc


class UnitOut(Model, core=Unit):
    """A unit: shown value = SI value · per_si + offset."""


class DimensionOut(Model, core=Dimension):
    pass


class StrokeOut(Model):
    d: str
    pen: float


class DotOut(Model):
    x: float
    y: float
    r: float


class HatchOut(Model):
    """A drawn material, as a tile that repeats; px at 1x."""

    width: float
    height: float
    strokes: list[StrokeOut]
    dots: list[DotOut]
    opacity: float


class ClimateOut(Model):
    """A climate that ships, with the design temperatures that belong to it."""

    key: str
    theta_winter: float
    theta_summer: float
    climate: ClimateDoc


class TargetSetOut(Model):
    """Targets under a name: a shipped example, or the practice's own; not a code."""

    name: str
    targets: TargetsDoc
    own: bool = False


class TargetSetIn(Model):
    name: ShortText
    targets: TargetsDoc


class TargetSetName(Model):
    name: ShortText


class CriterionKind(Model):
    key: str
    text: str
    dimension: str  #: empty where it is told in words


class ShippedOut(Model):
    """What ships with the program: materials, systems, climates, and the dimensions with their units."""

    climates: list[ClimateOut]
    target_sets: list[TargetSetOut]
    criteria: list[CriterionKind]
    mould_phi: float  #: relative humidity at a surface from which mould may grow
    schools: SchoolsDoc  #: of a new project
    columns: dict[str, str]
    stops: dict[str, str]

    version: str
    edition: str
    materials: list[MaterialOut]
    systems: list[SystemOut]
    dimensions: dict[str, DimensionOut]
    hatches: dict[str, HatchOut]
