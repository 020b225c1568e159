"""What there is to do to a building: the cheapest next step of each thing in it, and how the project reads then."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from functools import partial
from typing import Any, Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project, ShellElement
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.core.thermal.amounts import wall_amounts
from nimble_shell.core.windows.starts import GLASSES, GlassStart
from nimble_shell.core.working import value_of
from nimble_shell.services.joints import building_in, drawn, values_of
from nimble_shell.services.shape_edits import with_building

MeasureKind = Literal["core", "points", "joint", "seal", "edge", "glass", "recovery"]
Apply = Callable[[Project], Project]
_EDGE_STEP = 0.6  #: of upright foam at the edge of a slab [m]
_EDGE_FOAM = "eps-035"
_RECOVERY = 0.85
_FEWER = 0.75  #: of the points of a group


@dataclass(frozen=True, slots=True, kw_only=True)
class Measure:
    """A change, and what it costs by the practice's rates; None where it has no rate."""

    key: str
    kind: MeasureKind
    station: str
    text: str
    id: str  #: of the element, joint or unit that it changes; empty of the building
    apply: Apply
    cost: float | None
    carbon: float | None  #: of its materials [kg CO₂e]
    assembly: str = ""  #: id of the build-up that it changes
    joint: str = ""  #: id of the joint that it changes


def measures(project: Project, building: MeasuredBuilding, found: WholeBuilding) -> list[Measure]:
    """The cheapest next steps of each station, at the practice's rates or at what somebody has typed."""
    typed = {one.key: one.cost for one in building.plant.prices}
    known = [
        *_cores(project, building),
        *_points(project, building),
        *_joints(project, building),
        *_seals(building),
        *_edge(project, building, found),
        *_glass(project, building),
        *_recovery(building),
    ]
    return [replace(one, cost=typed.get(one.key, one.cost)) for one in known]


def _cores(project: Project, building: MeasuredBuilding) -> Iterable[Measure]:
    """The next core in stock of each build-up."""
    for assembly, elements in _in_use(project, building):
        at = assembly.core_index
        layer = None if at is None else assembly.layers[at]
        stock = (
            [] if layer is None else sorted(d for d in project.catalogue[layer.material].stock if d > layer.d + 1e-6)
        )
        if layer is not None and stock:
            cost, carbon = _materials(project, building, assembly, assembly.with_core(stock[0]))
            text = sentence(
                f"{assembly.name}: core of {{a}} in the place of {{b}}", a=(stock[0], "length"), b=(layer.d, "length")
            )
            yield Measure(
                key=f"core-{assembly.id}",
                kind="core",
                station=elements[0].station,
                id=elements[0].id,
                text=text,
                apply=partial(_with_core, assembly_id=assembly.id, d=stock[0]),
                cost=cost,
                carbon=carbon,
                assembly=assembly.id,
            )


def _points(project: Project, building: MeasuredBuilding) -> Iterable[Measure]:
    """A quarter fewer of each group of screws, ties or webs."""
    for assembly, elements in _in_use(project, building):
        for fixing in assembly.fixings:
            sparser = _sparser(assembly, fixing.id)
            if sparser is not None:
                cost, carbon = _materials(project, building, assembly, sparser)
                yield Measure(
                    key=f"points-{assembly.id}-{fixing.id}",
                    kind="points",
                    station=elements[0].station,
                    id=assembly.id,
                    text=f"{assembly.name}: a quarter fewer of “{fixing.name}”, if the engineer agrees",
                    cost=cost,
                    carbon=carbon,
                    apply=partial(_with_fewer, assembly_id=assembly.id, fixing_id=fixing.id),
                    assembly=assembly.id,
                )


def _in_use(project: Project, building: MeasuredBuilding) -> Iterable[tuple[Assembly, list[ShellElement]]]:
    for assembly in project.assemblies:
        elements = [one for one in building.elements if one.assembly_id == assembly.id]
        if elements:
            yield assembly, elements


def _materials(project: Project, building: MeasuredBuilding, now: Assembly, then: Assembly) -> tuple[float, float]:
    """What the materials of a build-up cost more, and their carbon, over its area in the building."""
    area = sum(
        building.shape.elements[one.id].gross.external
        for one in building.elements
        if one.assembly_id == now.id and one.id in building.shape.elements
    )
    before, after = (wall_amounts(one, project.catalogue) for one in (now, then))
    cost, carbon = ((value_of(after[key]) - value_of(before[key])) * area for key in ("cost", "carbon"))
    return cost, carbon


def _sparser(assembly: Assembly, fixing_id: str) -> Assembly | None:
    """With a quarter fewer of a group; None where it has neither a number nor a spacing."""

    def fewer(one: Fixing) -> Fixing:
        return replace(one, n=one.n * _FEWER) if one.n is not None else replace(one, along=(one.along or 0.0) / _FEWER)

    own = next(one for one in assembly.fixings if one.id == fixing_id)
    if own.n is None and own.along is None:
        return None
    return replace(assembly, fixings=tuple(fewer(one) if one.id == fixing_id else one for one in assembly.fixings))


def _joints(project: Project, building: MeasuredBuilding) -> Iterable[Measure]:
    """Every other variant of a joint that can be drawn."""
    for joint in building.joints:
        if joint.length <= 0 or joint.family not in FAMILIES:
            continue
        family = FAMILIES[joint.family]
        first = next((one for one in project.assemblies if one.id == joint.roles[0].assembly_id), None)
        for variant in family.variants:
            if first is None or variant.key == joint.variant or first.system not in variant.suits:
                continue
            kept = values_of(joint, family, variant.key)
            changes = {
                "variant": variant.key,
                "values": tuple(one for one in joint.values if one.key in kept),
                "omitted": (),
            }
            if _can_be(project, replace(joint, **changes)):  # type: ignore[arg-type]  # of any field
                yield Measure(
                    key=f"joint-{joint.id}-{variant.key}",
                    kind="joint",
                    station=joint.station,
                    id=joint.id,
                    joint=joint.id,
                    cost=None,
                    carbon=None,
                    text=f"{joint.name}: {variant.text}",
                    apply=partial(_with_joint, building_id=building.id, joint_id=joint.id, changes=changes),
                )


def _can_be(project: Project, joint: ShellJoint) -> bool:
    try:
        drawn(project, joint)
    except DomainError:
        return False
    return True


def _seals(building: MeasuredBuilding) -> Iterable[Measure]:
    """Seals that were left out, put back."""
    for joint in building.joints:
        if joint.omitted:
            yield Measure(
                key=f"seal-{joint.id}",
                kind="seal",
                station=joint.station,
                id=joint.id,
                joint=joint.id,
                cost=None,
                carbon=None,
                text=f"{joint.name}: the seals that are left out, put back",
                apply=partial(_with_joint, building_id=building.id, joint_id=joint.id, changes={"omitted": ()}),
            )


def _edge(project: Project, building: MeasuredBuilding, found: WholeBuilding) -> Iterable[Measure]:
    """Foam at the edge of a slab, deeper by a board."""
    if found.ground is None or found.ground.figures.U_bw is not None:
        return
    soil = building.plant.ground
    deep = soil.edge_depth + _EDGE_STEP
    volume = found.ground.floor.P * _EDGE_STEP * soil.edge_d
    foam = project.catalogue[_EDGE_FOAM]
    yield Measure(
        key="edge",
        kind="edge",
        station="H",
        id="",
        cost=volume * foam.cost,
        carbon=volume * foam.rho * foam.carbon,
        text=sentence(
            "Upright foam at the edge of the slab, {a} deep in the place of {b}",
            a=(deep, "length"),
            b=(soil.edge_depth, "length"),
        ),
        apply=partial(_with_plant, building_id=building.id, part="ground", changes={"edge_depth": deep}),
    )


def _glass(project: Project, building: MeasuredBuilding) -> Iterable[Measure]:
    """The next better glass of each type of unit in use."""
    used = {one.unit for one in building.openings}
    for unit in project.units:
        better = sorted((one for one in GLASSES if one.U < unit.glass.U - 1e-6), key=lambda one: -one.U)
        if unit.id not in used or unit.U_declared is not None or not better:
            continue
        start = better[0]
        yield Measure(
            key=f"glass-{unit.id}",
            kind="glass",
            station="E",
            id=unit.id,
            cost=None,
            carbon=None,
            apply=partial(_with_glass, unit_id=unit.id, start=start),
            text=f"{unit.name}: {start.name}",
        )


def _recovery(building: MeasuredBuilding) -> Iterable[Measure]:
    if building.plant.air.eta_t < _RECOVERY:
        yield Measure(
            key="recovery",
            kind="recovery",
            station="",
            id="",
            cost=None,
            carbon=None,
            text=f"Ventilation that recovers {100 * _RECOVERY:g} % of the heat",
            apply=partial(_with_plant, building_id=building.id, part="air", changes={"eta_t": _RECOVERY}),
        )


def _with_core(project: Project, assembly_id: str, d: float) -> Project:
    made = next(one for one in project.assemblies if one.id == assembly_id).with_core(d)
    return replace(project, assemblies=tuple(made if one.id == made.id else one for one in project.assemblies))


def _with_fewer(project: Project, assembly_id: str, fixing_id: str) -> Project:
    own = next(one for one in project.assemblies if one.id == assembly_id)
    made = _sparser(own, fixing_id) or own
    return replace(project, assemblies=tuple(made if one.id == made.id else one for one in project.assemblies))


def _with_glass(project: Project, unit_id: str, start: GlassStart) -> Project:
    units = tuple(
        replace(one, glass=replace(one.glass, U=start.U, g=start.g), panes=start.panes) if one.id == unit_id else one
        for one in project.units
    )
    return replace(project, units=units)


def _with_joint(project: Project, building_id: str, joint_id: str, changes: Mapping[str, Any]) -> Project:
    own = building_in(project, building_id).as_stored()
    joints = tuple(replace(one, **changes) if one.id == joint_id else one for one in own.joints)
    return with_building(project, replace(own, joints=joints))


def _with_plant(project: Project, building_id: str, part: str, changes: Mapping[str, Any]) -> Project:
    own = building_in(project, building_id).as_stored()
    changed: Any = replace(getattr(own.plant, part), **changes)
    parts: dict[str, Any] = {part: changed}
    return with_building(project, replace(own, plant=replace(own.plant, **parts)))
