"""The register of a building, filled from what is known of it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from nimble_shell.core.basis.stations import Station, asked_R
from nimble_shell.core.errors import DomainError
from nimble_shell.core.moisture.verdict.verdict import inwards_of, with_advice
from nimble_shell.core.moisture.verdict.words import advice_text, layer_name
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.shell.decisions import JudgedPart, Known, OpenDecision, RankedSurface, WayOut, decisions
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.studies.thickness import Study
from nimble_shell.services.bench import bench, consequence
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joints import JointResults, building_in, continuity_walk
from nimble_shell.services.moisture import surface_ranking
from nimble_shell.services.remedies import RemedyResults
from nimble_shell.services.verdicts import VerdictResults
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
    found = decisions(Known(
        building=building,
        ledger=effect.now.ledger,
        missed=effect.open,
        walk=continuity_walk(stored.project, building, known),
        surfaces=surfaces,
        judged=judged,
        remarks=tuple((element, one) for element, remarks, _ in built for one in remarks),
        thicker=tuple((element, way) for element, _, way in built if way is not None),
        kept=tuple(_kept(stored.project.within(building_id), building, surfaces, remedies)),
        turned=tuple(_turned(stored.project.within(building_id), building, judged)),
        criteria=owned.basis.criteria,
        room=owned.within(building_id).basis.indoor,
    ))  # fmt: skip
    waiting = sum(one.waiting for one in surfaces) + sum(one.verdict is None and not one.why_not for one in judged)
    return Register(decisions=found, waiting=waiting + len(points))


def registered(
    stored: Stored, building_id: str, joints: JointResults, judges: VerdictResults, fixings: FixingResults,
    remedies: RemedyResults,
) -> Register:  # fmt: skip
    """The same of a project as stored, with what is known of its fixings. Raises NotFound."""
    points = fixings.waiting(stored.project, building_id)
    return register(stored, fixings.owned(stored), building_id, joints, judges, points, remedies)


def _built(project: Project, building: Building) -> Iterable[tuple[str, tuple[Remark, ...], WayOut | None]]:
    by_id = {one.id: one for one in project.assemblies}
    for element in building.elements:
        assembly = by_id.get(element.assembly_id or "")
        if assembly is None:
            continue
        try:
            found = bench(assembly, project.catalogue, project.basis, "0", element.station)
        except DomainError:
            continue  # said by the surface that it has not
        yield element.id, found.remarks, _thicker(project, element.assembly_id or "", element.station, found.study)


def _kept(
    project: Project, building: Building, surfaces: Sequence[RankedSurface], remedies: RemedyResults | None
) -> Iterable[tuple[str, WayOut]]:
    """The changes that keep the cold surface of a joint, where somebody has had them searched."""
    joints = {one.id: one for one in building.joints}
    if remedies is None:
        return
    for one in surfaces:
        if one.joint and one.margin is not None and one.margin < 0:
            yield from ((one.id, way) for way in remedies.ways(project, joints[one.id]))


def _turned(project: Project, building: Building, judged: Sequence[JudgedPart]) -> Iterable[tuple[str, WayOut]]:
    """The changes of layers that turn a build-up's moisture, where somebody has had them searched."""
    elements = {one.id: one for one in building.elements}
    by_id = {one.id: one for one in project.assemblies}
    for part in judged:
        if part.joint or part.verdict is None:
            continue
        assembly = by_id[elements[part.id].assembly_id or ""]
        for one in part.verdict.advice:
            changed = with_advice(assembly, project.catalogue, one, inwards=inwards_of(assembly, project.basis))
            if changed is not None:
                layer = layer_name(assembly, project.catalogue, one.layer)
                yield part.id, WayOut(text=advice_text(one, layer, project.basis.schools.vapour), changed=changed)


def _thicker(project: Project, assembly_id: str, station: Station, study: Study | None) -> WayOut | None:
    """The next core in stock that reaches what is asked; where none does, the thickness that would."""
    asked = asked_R(project.basis.targets, station)
    if study is None or asked is None or study.met:
        return None
    reach = [point.d for point in study.stock if point.R_clear >= asked and point.d > study.present.d]
    d = min(reach, default=study.d_asked)
    if d is None:
        return None
    assembly = next(one for one in project.assemblies if one.id == assembly_id)
    words = "A core of {v1}, in stock" if reach else "A core of {v1}"
    return WayOut(text=sentence(words, v1=(d, "length")), changed=assembly.with_core(d))
