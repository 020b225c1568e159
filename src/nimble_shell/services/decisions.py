"""The register of a building, filled from what is known of it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.coursed import course_building
from nimble_shell.core.shell.decisions import Known, OpenDecision, decisions
from nimble_shell.core.shell.form_decisions import form_decisions
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.panel_decisions import panel_decisions
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.core.shell.site_decisions import site_decisions
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.services.bench import bench, consequence
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joints import JointResults, KnownJoint, building_in, continuity_walk
from nimble_shell.services.moisture import surface_ranking
from nimble_shell.services.remedies import RemedyResults
from nimble_shell.services.verdicts import VerdictResults
from nimble_shell.services.ways_out import BuiltElement, Settling
from nimble_shell.services.whole_shell import summed_up
from nimble_shell.store import Stored


@dataclass(frozen=True, slots=True, kw_only=True)
class Register:
    """What is open in a building, and how much of it is still being found out."""

    decisions: tuple[OpenDecision, ...]
    waiting: int  #: joints and verdicts that are on their way


def register(
    stored: Stored, owned: Project, building_id: str, joints: JointResults, judges: VerdictResults,
    points: Sequence[str] = (), remedies: RemedyResults | None = None,
) -> Register:  # fmt: skip
    """Everything that is open in a building as saved. Raises NotFound.

    Parameters
    ----------
    stored : Stored
    owned : Project
        The same with its fixings as solved.
    points : sequence of str
        Fixings that are still to come: until then no sum is judged.
    remedies : RemedyResults, optional
        What was searched for cold joints.
    """
    building = building_in(stored.project, building_id)
    known = joints.known(stored.project, building)
    effect = consequence(owned, None, building_id, known, waiting=points)
    judged = judges.building(owned, building, known)
    surfaces = surface_ranking(owned, building_id, known).surfaces
    built = list(_built(owned.within(building_id), building))
    settles = Settling(stored.project.within(building_id), building, surfaces, judged, remedies)
    found = decisions(Known(
        building=building,
        ledger=effect.now.ledger,
        missed=effect.open,
        walk=continuity_walk(stored.project, building, known),
        surfaces=surfaces,
        judged=judged,
        remarks=tuple((one.element_id, remark) for one in built for remark in one.remarks),
        ways=settles.ways(built),
        searched=settles.searched(),
        criteria=owned.basis.criteria,
        room=owned.within(building_id).basis.indoor,
        whole=_whole(owned, building_id, known, points),
        panels=tuple(_panels(stored.project, building)),
    ))  # fmt: skip
    waiting = sum(one.waiting for one in surfaces) + sum(one.verdict is None and not one.why_not for one in judged)
    return Register(decisions=found, waiting=waiting + len(points))


def _panels(project: Project, building: Building) -> Iterable[OpenDecision]:
    """What panels, forms and the site leave open."""
    if isinstance(building, MeasuredBuilding):
        found = set_out_building(project, building)
        yield from panel_decisions(building, found)
        yield from site_decisions(project, building, found)
        yield from form_decisions(building, course_building(project, building))


def _whole(
    owned: Project, building_id: str, known: Sequence[KnownJoint], points: Sequence[str]
) -> WholeBuilding | None:
    building = building_in(owned, building_id)
    return summed_up(owned, building, known, points) if isinstance(building, MeasuredBuilding) else None


def registered(
    stored: Stored, building_id: str, joints: JointResults, judges: VerdictResults, fixings: FixingResults,
    remedies: RemedyResults,
) -> Register:  # fmt: skip
    """The same of a project as stored, with what is known of its fixings. Raises NotFound."""
    points = fixings.waiting(stored.project, building_id)
    return register(stored, fixings.owned(stored), building_id, joints, judges, points, remedies)


def _built(project: Project, building: Building) -> Iterable[BuiltElement]:
    by_id = {one.id: one for one in project.assemblies}
    for element in building.elements:
        assembly = by_id.get(element.assembly_id or "")
        if assembly is None:
            continue
        try:
            found = bench(assembly, project.catalogue, project.basis, "0", element.station)
        except DomainError:
            continue  # said by the surface that it has not
        yield BuiltElement(element_id=element.id, station=element.station, assembly=assembly, remarks=found.remarks,
                           study=found.study)  # fmt: skip
