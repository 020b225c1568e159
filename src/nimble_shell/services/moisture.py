"""Moisture of a building's elements and joints by month. Nothing is saved."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.errors import DomainError
from nimble_shell.core.moisture.monthly.condensation import Month
from nimble_shell.core.moisture.monthly.element import ElementYear, element_year, months_of
from nimble_shell.core.moisture.monthly.position import Position, positions
from nimble_shell.core.moisture.monthly.surface import critical_month, f_rsi_required, phi_at_failure
from nimble_shell.core.shell.decisions import RankedSurface
from nimble_shell.core.shell.project import Project
from nimble_shell.core.thermal.figures import surface_factor
from nimble_shell.services.joints import KnownJoint, building_in
from nimble_shell.services.studies import PlacedDraft

_NOTHING_ASKED = 1e3  #: what no month asks anything of stands behind every margin


@dataclass(frozen=True, slots=True, kw_only=True)
class SurfaceRanking:
    """Every surface of a building, the worst first, against what the worst month asks."""

    surfaces: tuple[RankedSurface, ...]
    required: float | None  #: f_rsi of the critical month
    critical: int | None


def through_the_year(project: Project, at: PlacedDraft) -> ElementYear:
    """A build-up as drafted through the months of the Basis. Raises DomainError, NotFound."""
    project = project.within(at.building_id)
    return element_year(at.assembly, project.catalogue, project.basis, direction_in(project.basis, at.station(project)))


def positions_of(project: Project, at: PlacedDraft) -> tuple[Position, ...]:
    """Where the control plane of a build-up may lie. Raises DomainError, NotFound."""
    project = project.within(at.building_id)
    return positions(at.assembly, project.catalogue, project.basis, direction_in(project.basis, at.station(project)))


def surface_ranking(project: Project, building_id: str, joints: Sequence[KnownJoint]) -> SurfaceRanking:
    """All surfaces of a building, the worst first; what has no factor yet comes last. Raises NotFound."""
    building = building_in(project, building_id)
    project = project.within(building_id)
    assemblies = {one.id: one for one in project.assemblies}
    air = months_of(project.basis)
    found: list[RankedSurface] = []

    def add(id_: str, station: str, name: str, f_rsi: float | None, months: Sequence[Month], *, joint: bool,
            why: str, waiting: bool = False) -> None:  # fmt: skip
        asked = [one for month in months if (one := f_rsi_required(month)) is not None]
        fails = [
            one for month in months if f_rsi is not None and (one := phi_at_failure(month, f_rsi)) is not None
        ]  # fmt: skip
        found.append(RankedSurface(id=id_, station=station, name=name, joint=joint, f_rsi=f_rsi, why_not=why,
                             required=max(asked, default=None), target=project.basis.targets.f_rsi,
                             phi_fails=min(fails, default=None), waiting=waiting))  # fmt: skip

    for element in building.elements:
        assembly = assemblies.get(element.assembly_id or "")
        if assembly is None:
            continue
        f_rsi, why = None, ""
        try:
            f_rsi = surface_factor(
                assembly, project.catalogue, project.basis, direction=direction_in(project.basis, element.station)
            )
        except DomainError as error:
            why = error.issues[0].message
        months = months_of(project.basis, assembly.outside)
        add(element.id, element.station, element.name, f_rsi, months, joint=False, why=why)
    for known in joints:
        joint, solved = known.joint, known.solved
        why = known.why_not or ("being solved" if solved is None else "")
        add(joint.id, joint.station, joint.name, None if solved is None else solved.f_rsi, air, joint=True, why=why,
            waiting=solved is None and not known.why_not)  # fmt: skip
    required = [f_rsi_required(month) for month in air]
    critical = critical_month(required)
    return SurfaceRanking(
        surfaces=tuple(sorted(found, key=_rank)),
        required=None if critical is None else required[critical],
        critical=critical,
    )


def _rank(one: RankedSurface) -> float:
    """The least margin first, what has none last."""
    if one.f_rsi is None:
        return math.inf
    return one.f_rsi + _NOTHING_ASKED if one.margin is None else one.margin
