"""The project file: also the wire format and the snapshots of the change log. SI; layers inside → outside."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer, Member, Run, Ventilation
from nimble_shell.core.assemblies.films import FilmSchool
from nimble_shell.core.climate import MonthlyClimate
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.shell import basis as core_basis
from nimble_shell.core.shell import project as core_project
from nimble_shell.formats.document import Document

FORMAT: Literal["nimble-shell-project"] = "nimble-shell-project"
FORMAT_VERSION: Literal[1] = 1

Identifier = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,64}$")]
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


class AirGapDoc(Document):
    """How an air layer is connected to outside."""

    core = AirGap
    ventilation: Ventilation = "unventilated"
    A_v: float = 1000e-6


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


class AssemblyDoc(Document):
    """A build-up."""

    core = Assembly
    id: Identifier
    name: Text
    system: Text = ""
    layers: list[LayerDoc]
    note: Text = ""


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


class IndoorDoc(Document):
    core = core_basis.Indoor
    theta_heating: float = 20.0
    phi_heating: float = 0.45
    theta_cooling: float = 25.0
    phi_cooling: float = 0.55
    heated_below: float = 15.0


class TargetsDoc(Document):
    core = core_basis.Targets
    R_wall: float | None = None
    R_shell: float | None = None
    f_rsi: float | None = None


class SchoolsDoc(Document):
    core = core_basis.Schools
    units: UnitSystem = "SI"
    films: FilmSchool = "iso6946"
    bridged: core_basis.BridgedMethod = "combined"
    label_mean: float = 10.0
    vapour: core_basis.VapourQuantities = "sd"


class BasisDoc(Document):
    core = core_basis.Basis
    site: SiteDoc
    climate: ClimateDoc
    indoor: IndoorDoc
    targets: TargetsDoc
    schools: SchoolsDoc


class ElementDoc(Document):
    """A piece of a building's shell."""

    core = core_project.ShellElement
    id: Identifier
    station: core_project.Station
    name: Text
    area: float
    assembly_id: Identifier | None = None
    U_entered: float | None = Field(None, alias="U")
    origin: Text = ""


class BuildingDoc(Document):
    core = core_project.Building
    id: Identifier
    name: Text
    use: Text = ""
    elements: list[ElementDoc] = []
    asked_H: float | None = None


class ProjectDoc(Document):
    """What a project file holds, besides its format and version."""

    core = core_project.Project
    id: Identifier
    name: Text
    basis: BasisDoc
    buildings: list[BuildingDoc] = []
    assemblies: list[AssemblyDoc] = []


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
