"""The project file: also the wire format and the snapshots of the change log. SI; layers inside → outside."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from nimble_shell.core.assemblies import assembly as assemblies
from nimble_shell.core.assemblies import fixing as fixings
from nimble_shell.core.assemblies.assembly import AirGap, Assembly, JointPlace, Layer, Member, Run, Ventilation
from nimble_shell.core.assemblies.films import FilmSchool
from nimble_shell.core.climate import MonthlyClimate
from nimble_shell.core.materials import Material
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.shell import basis as core_basis
from nimble_shell.core.shell import criteria, damp, practice
from nimble_shell.core.shell import joint as core_joint
from nimble_shell.core.shell import project as core_project
from nimble_shell.formats.document import Document

FORMAT: Literal["nimble-shell-project"] = "nimble-shell-project"
FORMAT_VERSION: Literal[1] = 1

Identifier = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,64}$")]
Pair = Annotated[list[float], Field(min_length=2, max_length=2)]
Text = Annotated[str, StringConstraints(max_length=2000)]


class MemberDoc(Document):
    """A stud, plate, spline, batten or web that repeats through a layer."""

    core = Member
    name: Text
    material: Text
    run: Run = "vertical"
    share: float | None = None
    width: float | None = None
    centres: float | None = None
    joint: JointPlace = ""


class AirGapDoc(Document):
    """How an air layer is connected to outside."""

    core = AirGap
    ventilation: Ventilation = "unventilated"
    A_v: float = 1000e-6


class DeclaredDoc(Document):
    """A fire class or sound rating with its source."""

    core = assemblies.Declared
    kind: Literal["fire", "sound"]
    value: Text
    source: Text = ""


class SubstitutionDoc(Document):
    """What was asked where another material was delivered."""

    core = assemblies.Substitution
    asked: Text
    asked_lambda: float | None = None
    reason: Text = ""
    approved: Text = ""


class PlateDoc(Document):
    """Washer, flange or base plate at an end of a fixing."""

    core = fixings.Plate
    material: Text
    size: float
    t: float


class FixingDoc(Document):
    """A group of screws, ties, wires, webs or brackets through one layer and into its neighbours."""

    core = fixings.Fixing
    id: Identifier
    name: Text
    material: Text
    layer: Identifier
    kind: fixings.FixingKind = "screw"
    n: float | None = None
    across: float | None = None
    along: float | None = None
    diameter: float | None = None
    t: float | None = None
    h: float | None = None
    depth: float | None = None
    inner: float = 0.0
    outer: float = 0.0
    sleeve: float | None = None
    sleeve_material: Text = ""
    head: PlateDoc | None = None
    foot: PlateDoc | None = None
    mesh: float = 0.0


class StandardRefDoc(Document):
    core = assemblies.StandardRef
    id: Identifier
    version: int


class LayerDoc(Document):
    """One layer; `lambda` replaces the catalogue's conductivity."""

    core = Layer
    id: Identifier
    material: Text = ""
    d: float
    lambda_entered: float | None = Field(None, alias="lambda")
    air: AirGapDoc | None = None
    members: list[MemberDoc] = []
    studied: bool = False
    rib: float = 0.0
    control: list[assemblies.Control] = []
    services: bool = False
    fitted: assemblies.Fitted = "site"
    passes: int = 1
    declared: list[DeclaredDoc] = []
    substitution: SubstitutionDoc | None = None


class AssemblyDoc(Document):
    """A build-up."""

    core = Assembly
    id: Identifier
    name: Text
    system: Text = ""
    layers: list[LayerDoc]
    note: Text = ""
    fixings: list[FixingDoc] = []
    outside: assemblies.Outside = "air"
    standard: StandardRefDoc | None = None


class SiteDoc(Document):
    core = core_basis.Site
    place: Text = ""
    latitude: float = 46.0
    altitude: float = 0.0
    theta_winter: float = -20.0
    theta_summer: float = 30.0


class ClimateDoc(Document):
    """Monthly means, January first."""

    core = MonthlyClimate
    name: Text
    source: Text = ""
    theta_e: list[float]
    phi_e: list[float]
    swing: list[float] = [8.0] * 12
    sigma: list[float] = [3.0] * 12


class IndoorDoc(Document):
    core = core_basis.Indoor
    theta_heating: float = 20.0
    phi_heating: float = 0.45
    theta_cooling: float = 25.0
    phi_cooling: float = 0.55
    heated_below: float = 15.0
    regime: core_basis.Regime = "fixed"
    production: float = 6.0 / 86400
    ventilation: float = 90.0 / 3600
    added: float = 0.0


class TargetsDoc(Document):
    core = core_basis.Targets
    R_wall: float | None = None
    R_roof: float | None = None
    R_floor: float | None = None
    R_shell: float | None = None
    f_rsi: float | None = None


class SchoolsDoc(Document):
    core = core_basis.Schools
    units: UnitSystem = "SI"
    films: FilmSchool = "iso6946"
    bridged: core_basis.BridgedMethod = "combined"
    label_mean: float = 10.0
    vapour: core_basis.VapourQuantities = "sd"
    dimensions: core_basis.Dimensions = "external"


class LimitsDoc(Document):
    core = core_basis.Limits
    thickness: float | None = None
    weight: float | None = None
    inside_share: float | None = None
    stock_only: bool = False


class EconomyDoc(Document):
    core = practice.Economy
    currency: Annotated[str, StringConstraints(max_length=12)] = ""
    heat_price: float = 0.12
    heat_yield: float = 0.95
    heat_carbon: float = 0.20
    cool_price: float = 0.25
    cool_yield: float = 3.0
    cool_carbon: float = 0.35
    life: float = 50.0
    discount: float = 0.02


class RateDoc(Document):
    """The practice's own rates of a material."""

    core = practice.Rate
    material: Text
    cost: float | None = None
    carbon: float | None = None
    stock: list[float] | None = None


class CriterionDoc(Document):
    """One line of the criteria register."""

    core = criteria.Criterion
    key: criteria.CriterionKey
    site: Text = ""
    kit: Text = ""
    responsible: Text = ""
    stamped: bool = False


class HandlingDoc(Document):
    core = criteria.Handling
    crane: bool = True
    people: int = 4
    kg_per_person: float = 25.0
    access: float = 3.0


class DampDoc(Document):
    """What the practice accepts of water and mould."""

    core = damp.DampLimits
    plane: float = 1.0
    beside_tight: float = 0.5
    timber: float = 0.05
    board: float = 0.03
    wood: float = 0.20
    mould: float = 1.0
    years: float = 50.0


class AirDoc(Document):
    """What pushes air through joints."""

    core = damp.AirDrive
    ridge: float = 3.5
    footing: float = -2.5
    wind: float = 1.0
    fan: float = 0.0
    exponent: float = 0.65
    reaching: float = 0.15
    strip: float = 0.20
    leakages: list[Pair] = [list(pair) for pair in damp.LEAKAGES]


class BasisDoc(Document):
    core = core_basis.Basis
    site: SiteDoc
    climate: ClimateDoc
    indoor: IndoorDoc
    targets: TargetsDoc
    schools: SchoolsDoc
    limits: LimitsDoc = LimitsDoc()
    economy: EconomyDoc = EconomyDoc()
    rates: list[RateDoc] = []
    criteria: list[CriterionDoc] = []
    handling: HandlingDoc = HandlingDoc()
    damp: DampDoc = DampDoc()
    air: AirDoc = AirDoc()


class MaterialDoc(Document):
    """A material of the practice's own."""

    core = Material
    key: Identifier
    name: Text
    family: Text = "panel"
    hatch: Text = "board"
    lambda_: float = Field(alias="lambda")
    rho: float
    c: float
    mu: float = 1.0
    sd: float | None = None
    lambda_fresh: float | None = None
    lambda_T: list[Pair] = []
    emissivity: float = 0.9
    cost: float = 0.0
    carbon: float = 0.0
    stock: list[float] = []
    usual: Pair | None = None
    source: Text = ""
    rates: Text = "entered"


class ElementDoc(Document):
    """A piece of a building's shell."""

    core = core_project.ShellElement
    id: Identifier
    station: core_joint.Station
    name: Text
    area: float
    assembly_id: Identifier | None = None
    U_entered: float | None = Field(None, alias="U")
    origin: Text = ""


class JointRoleDoc(Document):
    core = core_joint.JointRole
    role: Text
    assembly_id: Identifier


class JointValueDoc(Document):
    core = core_joint.JointValue
    key: Text
    number: float | None = None
    word: Text | None = None


class JointDoc(Document):
    """A joint of a building's shell."""

    core = core_joint.ShellJoint
    id: Identifier
    station: core_joint.Station
    name: Text
    family: Text
    variant: Text
    roles: list[JointRoleDoc]
    values: list[JointValueDoc] = []
    length: float = 0.0
    other: Text = ""
    omitted: list[Text] = []
    sealed: bool = False
    sealant: Text = "polyurethane"
    tape: Text = "acrylic tape"
    fall: float | None = None
    drains_to: Literal["", "outside", "inside"] = ""
    standard: StandardRefDoc | None = None


class BuildingDoc(Document):
    core = core_project.Building
    id: Identifier
    name: Text
    use: Text = ""
    elements: list[ElementDoc] = []
    asked_H: float | None = None
    joints: list[JointDoc] = []
    indoor: IndoorDoc | None = None


class ProjectDoc(Document):
    """What a project file holds, besides its format and version."""

    core = core_project.Project
    id: Identifier
    name: Text
    basis: BasisDoc
    buildings: list[BuildingDoc] = []
    assemblies: list[AssemblyDoc] = []
    materials: list[MaterialDoc] = []


class ProjectFile(Document):
    """A whole project as one JSON file."""

    core = core_project.Project
    format: Literal["nimble-shell-project"]
    version: Literal[1]
    project: ProjectDoc


def json_schema() -> dict[str, Any]:
    """The published JSON Schema of the project file."""
    schema = ProjectFile.model_json_schema(by_alias=True)
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Nimble Shell project, version 1"
    return schema
