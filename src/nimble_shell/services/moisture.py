"""Moisture of a building's elements and joints by month. Nothing is saved."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.assemblies.figures import surface_factor
from nimble_shell.core.errors import DomainError
from nimble_shell.core.moisture.element import ElementYear, element_year, months_of
from nimble_shell.core.moisture.position import Position, positions
from nimble_shell.core.moisture.surface import critical_month, f_rsi_required, phi_at_failure
from nimble_shell.core.shell.project import Project, direction_at
from nimble_shell.services.bench import find_building
from nimble_shell.services.joints import Known
from nimble_shell.services.studies import At


@dataclass(frozen=True, slots=True, kw_only=True)
class Surface:
    """One place of a building whose inner surface can be judged, or why it cannot yet."""

    id: str  #: of the element or joint
    station: str
    name: str
    joint: bool
    f_rsi: float | None
    phi_fails: float | None  #: room humidity at which it starts to fail, in its worst month
    why_not: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class League:
    """Every surface of a building, the worst first, against what the worst month asks."""

    surfaces: tuple[Surface, ...]
    required: float | None  #: f_rsi of the critical month
    critical: int | None


def through_the_year(project: Project, at: At) -> ElementYear:
    """A build-up as drafted through the months of the Basis. Raises DomainError, NotFound."""
    return element_year(at.assembly, project.catalogue, project.basis, direction_at(at.station(project)))


def positions_of(project: Project, at: At) -> tuple[Position, ...]:
    """Where the control plane of a build-up may lie. Raises DomainError, NotFound."""
    return positions(at.assembly, project.catalogue, project.basis, direction_at(at.station(project)))


def league(project: Project, building_id: str, joints: Sequence[Known]) -> League:
    """All surfaces of a building, the worst first; what has no factor yet comes last. Raises NotFound."""
    building = find_building(project, building_id)
    assemblies = {one.id: one for one in project.assemblies}
    months = months_of(project.basis)
    required = [f_rsi_required(month) for month in months]

    def fails(f_rsi: float) -> float | None:
        by_month = [one for month in months if (one := phi_at_failure(month, f_rsi)) is not None]
        return min(by_month, default=None)

    found = []
    for element in building.elements:
        assembly = assemblies.get(element.assembly_id or "")
        if assembly is None:
            continue
        try:
            f = surface_factor(assembly, project.catalogue, project.basis, direction=direction_at(element.station))
            found.append(Surface(id=element.id, station=element.station, name=element.name, joint=False, f_rsi=f,
                                 phi_fails=fails(f)))  # fmt: skip
        except DomainError as error:
            found.append(Surface(id=element.id, station=element.station, name=element.name, joint=False, f_rsi=None,
                                 phi_fails=None, why_not=error.issues[0].message))  # fmt: skip
    for known in joints:
        joint, solved = known.joint, known.solved
        why = known.why_not or ("being solved" if solved is None else "")
        f_joint = None if solved is None else solved.f_rsi
        found.append(Surface(id=joint.id, station=joint.station, name=joint.name, joint=True, f_rsi=f_joint,
                             phi_fails=None if f_joint is None else fails(f_joint), why_not=why))  # fmt: skip
    critical = critical_month(required)
    return League(
        surfaces=tuple(sorted(found, key=lambda one: (one.f_rsi is None, one.f_rsi or 0.0))),
        required=None if critical is None else required[critical],
        critical=critical,
    )
