"""The build-up bench: every figure of a wall, its study and remarks, and what it means for the whole shell."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from nimble_shell.core.assemblies.assembly import Assembly, nominal_share
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.schools import Dimensions
from nimble_shell.core.basis.stations import Direction, Station, asked_R, misses
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.held import Held
from nimble_shell.core.joints.ownership import Taken, left_in
from nimble_shell.core.joints.solved import JointFigures
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.moisture.monthly.element import factor_asked
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.remarks.remarks import remarks
from nimble_shell.core.shell.buffer import adjustments, unheated_shares
from nimble_shell.core.shell.facings import facings_of
from nimble_shell.core.shell.ledger import JointLoss, ShellLedger, net_areas, shell_ledger
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.on_ground import on_ground
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.set_out import as_set_out
from nimble_shell.core.studies.thickness import Study, crossing_working, thickness_study
from nimble_shell.core.thermal.control import ControlLine, Share, continuity, share_inside
from nimble_shell.core.thermal.figures import (
    WallFigures,
    clear_wall_R,
    points_U,
    surface_factor,
    wall_figures,
    wall_working,
)
from nimble_shell.core.thermal.section import resolved_section, surroundings
from nimble_shell.core.working import Derivation, Given, Num, derive, named, plain, traced, value_of
from nimble_shell.services.joints import KnownJoint, building_in
from nimble_shell.store import NotFound


@dataclass(frozen=True, slots=True, kw_only=True)
class Bench:
    """Everything the build-up bench shows of one wall."""

    wall: WallFigures
    study: Study | None
    remarks: tuple[Remark, ...]
    lines: tuple[ControlLine, ...]
    inside: Share | None
    R_asked_materials: float | None  #: clear wall with the materials that were asked, if some were substituted


@dataclass(frozen=True, slots=True, kw_only=True)
class Lowest:
    """The lowest temperature factor of the clear sections, and whose it is."""

    f_rsi: float
    station: str
    name: str
    asked: float | None  #: of every surface

    @property
    def falls_short(self) -> bool:
        """Whether it misses what is asked."""
        return misses(self.f_rsi, self.asked)


@dataclass(frozen=True, slots=True, kw_only=True)
class Summed:
    """The ledger of a building and its lowest surface."""

    ledger: ShellLedger
    lowest: Lowest | None

    @property
    def whole(self) -> bool:
        """Whether its sums lack nothing."""
        return self.ledger.whole


@dataclass(frozen=True, slots=True, kw_only=True)
class Consequence:
    """The ledger of a building, beside what it was."""

    now: Summed
    before: Summed | None
    open: tuple[str, ...] = ()  #: sums of `now` that miss what is asked of the building


@lru_cache(maxsize=256)
def bench(assembly: Assembly, catalogue: Catalogue, basis: Basis, condition: str, station: Station = "D") -> Bench:
    """All figures of one build-up at a station of the shell. Raises DomainError."""
    direction, asked = direction_in(basis, station), asked_R(basis.targets, station)
    wall = wall_figures(assembly, catalogue, basis, condition, direction=direction)
    study = None
    if assembly.core_index is not None and assembly.core_index < wall.counted:
        study = thickness_study(assembly, catalogue, basis, asked=asked, direction=direction)
    said = remarks(assembly, catalogue, basis, wall, study, asked=asked)
    as_asked = _clear_R(assembly.as_asked(), catalogue, basis, direction) if assembly.substituted else None
    inside = share_inside(assembly, list(wall.R_layers))
    return Bench(wall=wall, study=study, remarks=tuple(said), lines=continuity(assembly), inside=inside,
                 R_asked_materials=as_asked)  # fmt: skip


def bench_working(project: Project, assembly: Assembly, condition: str, figure: str, station: Station) -> Derivation:
    """The working of a figure of the bench. Raises DomainError."""
    direction = direction_in(project.basis, station)
    if figure == "d_core":
        asked = asked_R(project.basis.targets, station)
        if asked is None:
            raise DomainError(Issue(path=("figure",), code="nothing_asked", message="no R is asked of this station",
                                    hint="set one in the Basis"))  # fmt: skip
        return crossing_working(assembly, project.catalogue, project.basis, asked, direction)
    return wall_working(assembly, project.catalogue, project.basis, condition, figure, direction=direction)


Joints = Sequence[KnownJoint]
_BEFORE: Held[Summed] = Held(32)
_FLOOR_FILMS = 0.21  #: inside and outside [m²·K/W]


def consequence(
    project: Project,
    before: Project | None,
    building_id: str,
    joints: Joints = (),
    joints_before: Joints | None = None,
    waiting: Sequence[str] = (),
) -> Consequence:
    """What the shell of a building comes to, and what it came to before; joints as known. Raises NotFound.

    Fixings count as solved where the build-ups say so; what is waiting is named.
    """
    building = building_in(project, building_id)
    now = _ledger(project, building, joints, waiting)
    missed = now.ledger.open(project.basis.targets.R_shell, building.asked_H)
    if before is None or building_id not in {building.id for building in before.buildings}:
        return Consequence(now=now, before=None, open=missed)
    then = tuple(joints if joints_before is None else joints_before)
    was = (before, then)  # of a project as saved, beside every draft of it
    old = _BEFORE.get(was, building_id) or _BEFORE.put(
        was, _ledger(before, building_in(before, building_id), then), building_id
    )
    return Consequence(now=now, before=old, open=missed)


def ledger_working(project: Project, building_id: str, figure: str, joints: Joints = ()) -> Derivation:
    """The working of a figure of the shell.

    H_ and an element's or a joint's id is its own loss, U_of_ and an element's the way to the U that counts for it.

    Raises DomainError, NotFound.
    """
    building = building_in(project, building_id)
    if figure == "f_rsi_lowest":
        drawn = [(assembly, direction) for assembly, direction, _, _ in _drawn(project, building)]
        if drawn:
            lowest = min(drawn, key=lambda one: _surface_factor(one[0], project.catalogue, project.basis, one[1]))
            return wall_working(lowest[0], project.catalogue, project.basis, "winter", "f_rsi", direction=lowest[1])
    if figure.startswith("U_of_"):
        return derive(_bridge(project, building, figure.removeprefix("U_of_"), joints))
    ledger = shell_of(project, building, joints, traced)
    known = {
        "H_shell": ledger.H,
        "R_effective": ledger.R_effective,
        "share_joints": ledger.share_joints,
        "H_fixings": ledger.H_fixings,
    }
    number = known.get(figure)
    number = next((line.H for line in ledger.lines if figure == f"H_{line.element_id}"), number)
    number = next((line.H for line in ledger.joints if figure == f"H_joint_{line.joint_id}"), number)
    if number is None:
        raise DomainError(Issue(path=("figure",), code="unknown_figure", message=f"there is no working of “{figure}”",
                                hint="a figure of the shell has one once its element has a U"))  # fmt: skip
    return derive(number)


def _bridge(project: Project, building: Building, element_id: str, joints: Joints) -> Num:
    """From the U of the field to the U that counts in the ledger: members, fixings, what solved joints took over."""
    at = [one for one, element in enumerate(building.elements) if element.assembly_id is not None]
    place = next((n for n, one in enumerate(at) if building.elements[one].id == element_id), None)
    if place is None:
        raise DomainError(Issue(path=("figure",), code="unknown_figure", message="this element has no build-up",
                                hint="its U is the one that was entered"))  # fmt: skip
    assembly, direction, station, name = list(_drawn(project, building))[place]
    basis, catalogue = project.within(building.id).basis, project.catalogue
    method = project.basis.schools.bridged
    own = left_in(assembly, area_of(building, assembly.id), [one for known in joints for one in known.takes])
    bare = replace(assembly, layers=tuple(replace(layer, members=()) for layer in assembly.layers), fixings=())
    U_field, U_members, U_clear, U_counted = (
        1 / _clear_R(one, catalogue, basis, direction) for one in (bare, replace(assembly, fixings=()), assembly, own)
    )
    unit, source = "W/(m²·K)", f"computed in {station}2, {method}"
    clear = named(
        traced(U_field, "U_field", f"field of {assembly.name}, no member and no fixing", unit, source)
        + traced(U_members - U_field, "dU_members", "all of its members", unit, source)
        + traced(U_clear - U_members, "dU_fixings", "its fixings", unit, f"computed in {station}4"),
        "U_clear", "clear wall, as on the bench", unit, "field + members + fixings",
    )  # fmt: skip
    taken = traced(U_clear - U_counted, "dU_joints", "members that solved joints have taken over", unit,
                   "by their length, joints in step 3")  # fmt: skip
    return named(clear - taken, "U_counted", f"counted for {name}; its joints add the rest as ψ·l", unit,
                 "clear wall less what its joints own")  # fmt: skip


def is_of_the_shell(figure: str) -> bool:
    """Whether a figure belongs to the ledger rather than to one build-up."""
    return figure in ("R_effective", "f_rsi_lowest", "share_joints") or figure.startswith(("H_", "U_of_"))


def with_draft(project: Project, draft: Assembly) -> Project:
    """The project as if the draft were saved; itself where nothing differs. Raises NotFound."""
    known = next((assembly for assembly in project.assemblies if assembly.id == draft.id), None)
    if known is None:
        raise NotFound("assembly", draft.id)
    if known == draft:
        return project
    return replace(project, assemblies=tuple(draft if a.id == draft.id else a for a in project.assemblies))


def area_of(building: Building, assembly_id: str) -> float:
    """Net area of a building's elements with a build-up. [m²]"""
    return sum(
        value_of(area)
        for element, area in zip(building.elements, net_areas(building), strict=True)
        if element.assembly_id == assembly_id
    )


def station_of(building: Building, assembly_id: str) -> Station:
    """Where a building uses an assembly; the wall if nowhere."""
    return next((element.station for element in building.elements if element.assembly_id == assembly_id), "D")


def _ledger(project: Project, building: Building, joints: Joints, waiting: Sequence[str] = ()) -> Summed:
    ledger = shell_of(project, building, joints, plain, waiting)
    asked = factor_asked(project.basis)
    factors = [
        Lowest(
            f_rsi=_surface_factor(assembly, project.catalogue, project.basis, direction),
            station=station,
            name=name,
            asked=asked,
        )
        for assembly, direction, station, name in _drawn(project, building)
    ]
    factors += [
        Lowest(f_rsi=known.solved.f_rsi, station=known.joint.station, name=known.joint.name, asked=asked)
        for known in joints
        if known.solved is not None and known.solved.f_rsi is not None
    ]
    return Summed(ledger=ledger, lowest=min(factors, key=lambda lowest: lowest.f_rsi, default=None))


def shell_of(
    project: Project, building: Building, joints: Joints, given: Given, waiting: Sequence[str] = ()
) -> ShellLedger:
    """The ledger of a building with its joints as they are known; what is waiting is named, the ground is in it."""
    project, system = as_set_out(project, building), project.basis.schools.dimensions
    # Of a shape that is being drawn: joints that were solved know those of the stored one.
    lengths = {joint.id: joint.length for joint in building.joints if building.follows_shape(joint.id)}
    losses = [
        JointLoss(
            joint_id=known.joint.id,
            station=known.joint.station,
            name=known.joint.name,
            length=lengths.get(known.joint.id, known.joint.length),
            from_shape=building.follows_shape(known.joint.id),
            psi=None if known.solved is None else to_outside(known.solved, system),
            point=known.point,
            why_not=known.why_not,
            owner_of=_in_words(project, building, known.takes),
        )
        for known in joints
    ]
    transmittances = _transmittances(project, building, joints, given)
    points = _through_fixings(project, building, given)
    clear = {
        assembly.id: 1 / _clear_R(assembly, project.catalogue, project.basis, direction)
        for assembly, direction, _, _ in _drawn(project, building)
    }
    ground = _with_ground(project, building, given)

    def summed(adjusted: Mapping[str, float]) -> ShellLedger:
        return shell_ledger(
            building,
            transmittances,
            basis=project.basis,
            joints=losses,
            points_of=points,
            clear_of=clear,
            waiting=waiting,
            ground_of=ground,
            adjusted=adjusted,
            given=given,
        )

    ledger = summed({})
    if not isinstance(building, MeasuredBuilding) or not building.plant.buffer.known:
        return ledger
    return summed(adjustments(ledger, building.plant.buffer, unheated_shares(facings_of(building))))


def bare_resistances(project: Project, building: Building) -> dict[str, float]:
    """Of each element's build-up, without films; of an entered U the films of a floor are taken off. [m²·K/W]"""
    assemblies = {one.id: one for one in project.assemblies}
    basis, catalogue = project.within(building.id).basis, project.catalogue
    found = {}
    for element in building.elements:
        assembly = assemblies.get(element.assembly_id or "")
        if assembly is not None:
            direction = direction_in(basis, element.station)
            section = resolved_section(assembly, catalogue, surroundings(basis.schools, direction)).resolved.element
            R = _clear_R(assembly, catalogue, basis, direction) - value_of(section.R_si) - value_of(section.R_se)
            found[element.id] = max(R, 0.0)
        elif element.U_entered is not None:
            found[element.id] = max(1 / element.U_entered - _FLOOR_FILMS, 0.0)
    return found


def _with_ground(project: Project, building: Building, given: Given) -> dict[str, Num]:
    """U of what lies on the ground or stands in it, where a shape tells."""
    if not isinstance(building, MeasuredBuilding):
        return {}
    found = on_ground(building, building.plant.ground, bare_resistances(project, building), given)
    return {} if found is None else found.transmittances


def _in_words(project: Project, building: Building, takes: Sequence[Taken]) -> str:
    """What a joint has taken over from the areas; empty for nothing."""
    known = {assembly.id: assembly for assembly in project.assemblies}
    found = []
    for one in takes:
        area = area_of(building, one.assembly_id)
        members = (member for layer in known[one.assembly_id].layers for member in layer.members)
        for member in members:
            if member.joint == one.place and one.length > 0 and area > 0:
                share = min(one.area(member) / (nominal_share(member) * area), 1.0)
                found.append(f"{100 * share:.3g} % of “{member.name}” of {known[one.assembly_id].name}")
    return f"it has taken {' and '.join(dict.fromkeys(found))} from the areas" if found else ""


def to_outside(solved: JointFigures, system: Dimensions) -> float:
    """ψ of what goes outside, with the part that goes by way of an unheated neighbour. [W/(m·K)]

    Notes
    -----
    Couplings that end in the neighbour count by how far its temperature lies from the room's (ISO 13789:2017, b).
    """
    T = solved.temperatures
    span = T["inside"] - T["outside"]
    total = 0.0
    for (a, b), psi in solved.psi.items():
        if "inside" in (a, b):
            other = b if a == "inside" else a
            share = (T["inside"] - T[other]) / span if abs(span) > 1e-9 else float(other == "outside")
            total += share * psi[system]
    return total


def _drawn(project: Project, building: Building) -> Iterable[tuple[Assembly, Direction, Station, str]]:
    known, basis = {assembly.id: assembly for assembly in project.assemblies}, project.within(building.id).basis
    for element in building.elements:
        if element.assembly_id is not None:
            direction = direction_in(basis, element.station)
            yield known[element.assembly_id], direction, element.station, element.name


def _transmittances(project: Project, building: Building, joints: Joints, given: Given) -> dict[str, Num]:
    method = project.basis.schools.bridged
    found: dict[str, Num] = {}
    for number, (assembly, direction, station, _) in enumerate(_drawn(project, building), 1):
        own = left_in(assembly, area_of(building, assembly.id), [one for known in joints for one in known.takes])
        U = 1 / _clear_R(own, project.catalogue, project.basis, direction)
        origin = f"computed in {station}2, {method}"
        if own is not assembly:
            origin += "; members in the place of solved joints are theirs, the rest is the area's"
        found[assembly.id] = given(U, f"U_wall_{number}", f"clear-wall U, {assembly.name}", "W/(m²·K)", origin)
    return found


def _through_fixings(project: Project, building: Building, given: Given) -> dict[str, Num]:
    found: dict[str, Num] = {}
    for number, (assembly, direction, station, _) in enumerate(_drawn(project, building), 1):
        if assembly.fixings:
            added = _points_U(assembly, project.catalogue, project.basis, direction)
            found[assembly.id] = given(added, f"dU_wall_{number}", f"ΔU of fixings, {assembly.name}", "W/(m²·K)",
                                       f"computed in {station}4")  # fmt: skip
    return found


@lru_cache(maxsize=1024)
def _points_U(assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction) -> float:
    return points_U(assembly, catalogue, basis, direction=direction)


@lru_cache(maxsize=1024)
def _clear_R(assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction) -> float:
    return value_of(clear_wall_R(assembly, catalogue, basis, direction=direction))


@lru_cache(maxsize=1024)
def _surface_factor(assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction) -> float:
    return surface_factor(assembly, catalogue, basis, direction=direction)
