"""Studies of a build-up: the foam decision, comparisons, claims, a day, a probe. Nothing is saved."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import REFERENCE, SYSTEMS
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.stations import Station, asked_R
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shell.project import Project
from nimble_shell.core.studies.claim import Checked, Claim, check_claim
from nimble_shell.core.studies.day import Day, day
from nimble_shell.core.studies.probe import Chase, chase, temperature_at
from nimble_shell.core.studies.sensitivity import Swing, sensitivity
from nimble_shell.core.studies.sweep import studied_layer
from nimble_shell.core.studies.thickness import crossing
from nimble_shell.core.studies.variants import Decision, decide
from nimble_shell.core.working import value_of
from nimble_shell.services.bench import Bench, bench, station_of
from nimble_shell.services.joints import building_in
from nimble_shell.store import NotFound

Mode = Literal["as drawn", "equal R", "equal thickness"]
REFERENCE_ID = "site-framed-reference"


@dataclass(frozen=True, slots=True, kw_only=True)
class PlacedDraft:
    """A build-up as drafted, where a building uses it."""

    building_id: str
    assembly: Assembly

    def station(self, project: Project) -> Station:
        """Raises NotFound."""
        return station_of(building_in(project, self.building_id), self.assembly.id)


@dataclass(frozen=True, slots=True, kw_only=True)
class Foam:
    """The foam decision with its sensitivity."""

    decision: Decision
    swings: tuple[Swing, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Side:
    """One build-up of a comparison; `why_not` says why it could not be brought to the same."""

    assembly: Assembly
    bench: Bench
    why_not: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Probe:
    """What was asked at one place."""

    winter: float | None  #: at the design temperature [°C]
    coldest: float | None  #: in the coldest month [°C]
    chase: Chase | None


def foam(project: Project, at: PlacedDraft, cores: Sequence[str]) -> Foam:
    """Cores by thicknesses. Without cores named, those of the build-up's system. Raises DomainError, NotFound."""
    station = at.station(project)
    asked, direction = asked_R(project.basis.targets, station), direction_in(project.basis, station)
    system = SYSTEMS.get(at.assembly.system)
    chosen = list(cores) or list(system.cores if system else ())
    args = (at.assembly, project.catalogue, project.basis)
    return Foam(
        decision=decide(*args, chosen, asked=asked, direction=direction),
        swings=sensitivity(*args, asked=asked, direction=direction),
    )


def compare(project: Project, building_id: str, condition: str, ids: Sequence[str], mode: Mode) -> list[Side]:
    """Two to four build-ups; the first one leads. Raises DomainError, NotFound.

    `site-framed-reference` stands for the wall everybody compares with.
    """
    if not 2 <= len(ids) <= 4:
        raise DomainError(
            Issue(path=("sides",), code="two_to_four", message=f"{len(ids)} build-ups", hint="compare two to four")
        )
    building = building_in(project, building_id)
    known = {assembly.id: assembly for assembly in project.assemblies}
    known[REFERENCE_ID] = SYSTEMS[REFERENCE].assembly(REFERENCE_ID, "Site-framed reference")
    missing = next((one for one in ids if one not in known), None)
    if missing is not None:
        raise NotFound("assembly", missing)
    station = station_of(building, ids[0])
    leader = bench(known[ids[0]], project.catalogue, project.basis, condition, station)
    sides = [Side(assembly=known[ids[0]], bench=leader)]
    for one in ids[1:]:
        assembly, why_not = _brought(project, known[one], known[ids[0]], leader, mode, station)
        found = bench(assembly, project.catalogue, project.basis, condition, station)
        sides.append(Side(assembly=assembly, bench=found, why_not=why_not))
    return sides


def _brought(
    project: Project, assembly: Assembly, to: Assembly, leader: Bench, mode: Mode, station: Station
) -> tuple[Assembly, str]:
    """The build-up at the leader's R or thickness by its core, or as it is with the reason."""
    if mode == "as drawn":
        return assembly, ""
    try:
        core = assembly.layers[studied_layer(assembly)]
        if mode == "equal thickness":
            more = (to.thickness - assembly.thickness) / sum(assembly.panels.values())
            return assembly.with_core(core.d + more), ""
    except DomainError as error:
        return assembly, error.issues[0].message
    R = value_of(leader.wall.figures["R_clear"].number)
    found, why_not = crossing(assembly, project.catalogue, project.basis, R, direction_in(project.basis, station))
    return (assembly, why_not) if found is None else (assembly.with_core(value_of(found)), "")


def claim(project: Project, at: PlacedDraft, claimed: Claim) -> Checked:
    """A supplier's R worked through. Raises DomainError, NotFound."""
    direction = direction_in(project.basis, at.station(project))
    return check_claim(at.assembly, project.catalogue, project.basis, claimed, direction)


def day_through(project: Project, at: PlacedDraft, month: int, rise: float) -> Day:
    """A month's mean day. Raises DomainError, NotFound."""
    direction = direction_in(project.basis, at.station(project))
    return day(at.assembly, project.catalogue, project.basis, month, rise=rise, direction=direction)


def probe(
    project: Project,
    at: PlacedDraft,
    *,
    depth: float | None,
    chased: int | None,
    chase_depth: float,
    chase_share: float,
) -> Probe:
    """Temperature at a depth, and a groove. Raises DomainError, NotFound."""
    direction = direction_in(project.basis, at.station(project))
    args = (at.assembly, project.catalogue, project.basis)
    coldest = str(project.basis.climate.coldest)
    return Probe(
        winter=None if depth is None else value_of(temperature_at(*args, depth, "winter", direction)),
        coldest=None if depth is None else value_of(temperature_at(*args, depth, coldest, direction)),
        chase=None if chased is None else chase(*args, chased, chase_depth, chase_share, direction),
    )
