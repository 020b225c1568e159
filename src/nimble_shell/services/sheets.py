"""Going out and coming in: the specification sheet, and project files."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.condition import Condition, condition, critical_temperature
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.stations import asked_R
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.fixings.kinds import CAUTION
from nimble_shell.core.fixings.solved import SolvedFixing
from nimble_shell.core.joints.drawing import SYSTEMS as DIMENSIONS
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.joints.solved import SolvedJoint
from nimble_shell.core.materials import EDITION
from nimble_shell.core.moisture.hourly.life import Seasons
from nimble_shell.core.moisture.monthly.element import element_year
from nimble_shell.core.moisture.monthly.position import positions
from nimble_shell.core.moisture.verdict.verdict import JudgedJoint, Verdict
from nimble_shell.core.quantities.sentence import composed
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.shell.cut import cut_across
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.formats.project import FORMAT, FORMAT_VERSION, ProjectDoc, ProjectFile
from nimble_shell.formats.reader import chosen
from nimble_shell.reports.fixing_sheet import FixingPage, fixing_pdf
from nimble_shell.reports.joint_sheet import JointPage, joint_pdf
from nimble_shell.reports.moisture_sheet import MoisturePage, moisture_pdf
from nimble_shell.reports.page import PageHeading
from nimble_shell.reports.plant_sheet import PlantPage, plant_pdf
from nimble_shell.reports.section import wall_section
from nimble_shell.reports.specification import Sheet, shank, specification_pdf
from nimble_shell.reports.whole_sheet import WholePage, whole_pdf
from nimble_shell.reports.written import Written
from nimble_shell.services.bench import bench, station_of, to_outside
from nimble_shell.services.decisions import Register
from nimble_shell.services.fixings import LookedAtFixing, remaining
from nimble_shell.services.joints import Drawn, building_in, sealing
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.services.whole_shell import shaped
from nimble_shell.store import NotFound, Stored


def specification(
    stored: Stored, building_id: str, assembly_id: str, condition: str, register: Register | None = None
) -> tuple[str, bytes]:
    """Name and PDF of a build-up's specification sheet, with what is open in its building where that is known.

    Raises DomainError, NotFound.
    """
    project = stored.project.within(building_id)
    building = building_in(project, building_id)
    assembly = assembly_in(project, assembly_id)
    station = station_of(building, assembly_id)
    found = bench(assembly, project.catalogue, project.basis, condition, station)
    system = SYSTEMS.get(assembly.system)
    sheet = Sheet(
        project=project.name, building=building.name, assembly=assembly, basis=project.basis, wall=found.wall,
        remarks=found.remarks, cautions=system.cautions if system else (), catalogue=project.catalogue, edition=EDITION,
        zone=f"{station}2", asked=asked_R(project.basis.targets, station), units=_units(project),
        system=system.name if system else "", changed_at=stored.changed_at, revision=stored.revision,
        open=() if register is None else _open(register),
    )  # fmt: skip
    return assembly.name, specification_pdf(sheet)


def _open(register: Register) -> tuple[str, ...]:
    """Every open decision with its place, as the register has it."""
    found = tuple(
        composed(f"{one.station}{one.step}: {{text}}{'' if one.text.endswith('.') else '.'}", text=one.text)
        for one in register.decisions
    )
    if not register.waiting:
        return found
    more = "One joint or verdict is" if register.waiting == 1 else f"{register.waiting} joints and verdicts are"
    return (*found, f"{more} still being found out.")


def joint_sheet(
    stored: Stored, building_id: str, joint: ShellJoint, found: Drawn, solved: SolvedJoint, judged: JudgedJoint | None,
    register: Register | None = None,
) -> bytes:  # fmt: skip
    """PDF of a joint's page, with its moisture where that was judged, and what is open in its building."""
    project = stored.project.within(building_id)
    family = found.family
    heading = _heading(stored, building_id, f"{joint.station}3", joint.name,
                       f"{family.name}: {family.variant(joint.variant).text}", found.moment, register)  # fmt: skip
    return joint_pdf(
        JointPage(
            heading=heading,
            drawing=found.drawing,
            solved=solved,
            psi={system: to_outside(solved, system) for system in DIMENSIONS},
            system=project.basis.schools.dimensions,
            length=joint.length,
            point=family.point,
            sealing=sealing(project, joint, found, solved.f_rsi),
            judged=judged,
        )
    )


def fixing_sheet(
    stored: Stored, at: PlacedDraft, looked: LookedAtFixing, solved: SolvedFixing, register: Register | None = None
) -> bytes:
    """PDF of the page of a group of fixings. The project is as it counts, with what is solved in it."""
    project, fixing = stored.project, looked.fixing
    left = remaining(project, at, fixing, solved.chi / looked.cell.chi_approximate)
    station = station_of(building_in(project, at.building_id), at.assembly.id)
    written = Written(_units(project))
    material = project.catalogue[fixing.material].name
    heading = _heading(stored, at.building_id, f"{station}4", fixing.name, at.assembly.name,
                       condition(project.basis, "winter"), register)  # fmt: skip
    return fixing_pdf(
        FixingPage(
            heading=heading,
            cell=looked.cell,
            solved=solved,
            shank=f"{material}, {shank(fixing, written)}, length {written.length(looked.cell.length)}.",
            R_without=left.R_without,
            R_all=left.R_all,
            area=left.area,
            cautions=(CAUTION,),
        )
    )


def moisture_sheet(
    stored: Stored, building_id: str, assembly_id: str, verdict: Verdict, joints: Sequence[tuple[str, Verdict]],
    hours: Seasons | None, register: Register | None = None,
) -> bytes:  # fmt: skip
    """PDF of the page of a build-up's moisture, as saved. Raises DomainError, NotFound."""
    project = stored.project.within(building_id)
    station = station_of(building_in(project, building_id), assembly_id)
    assembly = assembly_in(project, assembly_id)
    direction = direction_in(project.basis, station)
    moment = condition(project.basis, "winter")
    drawn = wall_section(assembly, project.catalogue,
                         bench(assembly, project.catalogue, project.basis, "winter", station).wall.profile,
                         _units(project))  # fmt: skip
    return moisture_pdf(
        MoisturePage(
            heading=_heading(
                stored,
                building_id,
                f"{station}5",
                f"{assembly.name}: moisture",
                SYSTEMS[assembly.system].name if assembly.system in SYSTEMS else "",
                moment,
                register,
            ),
            svg=drawn.svg,
            scale=drawn.scale,
            assembly=assembly,
            catalogue=project.catalogue,
            vapour=project.basis.schools.vapour,
            year=element_year(assembly, project.catalogue, project.basis, direction),
            verdict=verdict,
            positions=positions(assembly, project.catalogue, project.basis, direction),
            rule=project.basis.limits.inside_share,
            room=project.basis.indoor.humidity_from,
            joints=joints,
            hours=hours,
            damp=project.basis.damp,
        )
    )


def assembly_in(project: Project, assembly_id: str) -> Assembly:
    """Raises NotFound."""
    found = next((one for one in project.assemblies if one.id == assembly_id), None)
    if found is None:
        raise NotFound("assembly", assembly_id)
    return found


def _units(project: Project) -> UnitSystem:
    """What a page is printed in: as its reader sees the program, else as the project is kept."""
    return chosen() or project.basis.schools.units


def plant_sheet(stored: Stored, building_id: str, found: WholeBuilding, register: Register | None = None) -> bytes:
    """PDF of the statement for the plant contractor. Raises DomainError where the building has no shape, NotFound."""
    project = stored.project.within(building_id)
    building = shaped(stored.project, building_id)
    heading = _heading(
        stored,
        building_id,
        "A–H 7",
        "Statement for the plant contractor",
        building.use or "whole building",
        condition(project.basis, "winter"),
        None,
    )
    states = [] if register is None else [one.state for one in register.decisions]
    return plant_pdf(PlantPage(heading=heading, found=found, basis=project.basis, plant=building.plant,
                               section=cut_across(building), open=states.count("open"),
                               unsaid=states.count("unknown")))  # fmt: skip


def whole_sheet(stored: Stored, building_id: str, found: WholeBuilding, register: Register | None = None) -> bytes:
    """PDF of a whole building in its specification. Raises DomainError where it has no shape, NotFound."""
    project = stored.project.within(building_id)
    building = shaped(stored.project, building_id)
    heading = _heading(
        stored,
        building_id,
        "A–H 7",
        "Whole shell",
        building.use or "whole building",
        condition(project.basis, "winter"),
        register,
    )
    soil, section = building.plant.ground, cut_across(building)
    return whole_pdf(WholePage(heading=heading, found=found, soil=soil, section=section))


def _heading(
    stored: Stored, building_id: str, zone: str, title: str, kind: str, moment: Condition,
    register: Register | None,
) -> PageHeading:  # fmt: skip
    project = stored.project
    return PageHeading(
        project=project.name,
        building=building_in(project, building_id).name,
        zone=zone,
        title=title,
        kind=kind,
        units=_units(project),
        critical=critical_temperature(moment),
        f_rsi_asked=project.basis.targets.f_rsi,
        revision=stored.revision,
        changed_at=stored.changed_at,
        edition=EDITION,
        open=() if register is None else _open(register),
    )


def project_file(stored: Stored) -> bytes:
    """The project as a project file: indented JSON in UTF-8."""
    file = ProjectFile(format=FORMAT, version=FORMAT_VERSION, project=ProjectDoc.from_core(stored.project))
    return file.model_dump_json(by_alias=True, indent=1).encode()


def read_project_file(file: Any) -> Project:
    """A project from the content of a project file.

    Raises
    ------
    DomainError
        If it is not a project file of this version, or holds something impossible; with the place.
    ValidationError
        If a value has the wrong shape.
    """
    if not isinstance(file, dict) or file.get("format") != FORMAT:
        raise DomainError(Issue(path=("format",), code="not_a_project_file",
                                message="this is not a Nimble Shell project file",
                                hint=f"a project file begins with \"format\": \"{FORMAT}\""))  # fmt: skip
    version = file.get("version")
    if version != FORMAT_VERSION:
        newer = isinstance(version, int) and version > FORMAT_VERSION
        raise DomainError(Issue(path=("version",), code="file_newer" if newer else "unknown_version",
                                message=f"the file is of version {version!r}, this program reads {FORMAT_VERSION}",
                                hint="open it with the newer program and export it again" if newer
                                else f"write version {FORMAT_VERSION}"))  # fmt: skip
    read = ProjectFile.model_validate(file)
    try:
        project: Project = read.project.to_core()
    except DomainError as error:
        raise error.under("project") from error
    return project
