"""The same elevations in other systems and on other modules: panels, joints, waste, timber, mass and R."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.module import module_of
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.stations import Station
from nimble_shell.core.progress import report
from nimble_shell.core.setout.panels import SetOut
from nimble_shell.core.setout.timber import framed_share, from_set_out
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import BuildingSetOut, set_out_building
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.working import value_of
from nimble_shell.services.whole_shell import shaped

MODULES = (1.0, 1.2, 1.25, 2.4)  #: that are tried beside the build-up's own [m]
OTHERS = ("sip", "cassette", "metal-panel", "mesh-mortar", "straw-bale", "site-framing")  #: at their start values
PICKS_A_DAY = 14.0  #: lifts of a crane that a crew sets [1/d]
_WALL: Station = "D"
_SAME = 1e-6  #: modules that differ by less are one [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Compared:
    """All walls of a building in one system on one module."""

    key: str
    name: str
    now: bool  #: whether it is what is drawn
    module: float | None  #: [m]; None of what is framed on site
    reason: str  #: why some wall cannot be set out; its sums are then of none
    panels: int
    off_module: int
    joints: float  #: length between panels [m]
    waste: float  #: cut from the blanks and left [m²]
    mass: float  #: of all panels [kg]
    crane_days: float | None  #: None where people carry everything
    timber: float | None  #: share of the wall in the framed layer
    R: float  #: clear section with it [m²·K/W]


def compared(project: Project, building_id: str) -> tuple[Compared, ...]:
    """What is drawn first, then its other modules, then other systems. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    rows: list[Compared] = []
    walls = {one.id for one in building.elements if one.station == _WALL and one.assembly_id}
    known = {one.id: one for one in project.assemblies}
    own = (known.get(one.assembly_id or "") for one in building.elements if one.id in walls)
    drawn = next((one for one in own if one is not None), None)
    if drawn is None:
        return ()
    candidates = list(_candidates(drawn))
    for n, (key, name, assembly, module) in enumerate(candidates):
        report(n, len(candidates))
        tried = _with(project, building_id, walls, assembly)
        rows.append(_row(key, name, tried, shaped(tried, building_id), assembly, module))
    return tuple(rows)


def _candidates(drawn: Assembly) -> Iterator[tuple[str, str, Assembly, float | None]]:
    yield "now", drawn.name, drawn, None
    own = module_of(drawn)
    for module in MODULES if own is not None else ():
        if abs(module - (own or 0.0)) < _SAME:
            continue
        yield f"module-{module:g}", drawn.name, drawn, module
    for key in OTHERS:
        if key != drawn.system:
            system = SYSTEMS[key]
            yield key, system.name, system.assembly(f"compared-{key}", system.name), None


def _with(project: Project, building_id: str, walls: set[str], assembly: Assembly) -> Project:
    """The project with this build-up in all walls of a building, their pins let go."""
    others = tuple(one for one in project.assemblies if one.id != assembly.id)
    buildings = []
    for one in project.buildings:
        if one.id == building_id:
            elements = tuple(
                replace(each, assembly_id=assembly.id, U_entered=None) if each.id in walls else each
                for each in one.elements
            )
            one = replace(one, elements=elements, setout=replace(one.setout, counts=False, pins=()))
        buildings.append(one)
    return replace(project, assemblies=(*others, assembly), buildings=tuple(buildings))


def _row(key: str, name: str, project: Project, building: MeasuredBuilding, assembly: Assembly,
         module: float | None) -> Compared:  # fmt: skip
    found = set_out_building(project, building, module=module)
    faces = [one for one in found.faces if one.kind == "wall"]
    reason = next((one.found.reason for one in faces if not isinstance(one.found, SetOut)), "")
    timber = found.timber.get(assembly.id)
    sums = [one.found.sum for one in faces if isinstance(one.found, SetOut)]
    panels = [panel.panel for one in faces for panel in one.panels]
    heavy = [one for one in panels if building.setout.wants_crane(one.mass)]
    changed = assembly if timber is None else from_set_out(assembly, timber)
    return Compared(
        key=key, name=name, now=key == "now", module=_module(found), reason=reason, panels=len(panels),
        off_module=sum(one.off_module for one in sums), joints=sum(one.member_length for one in sums),
        waste=sum(one.waste for one in sums), mass=sum(one.mass for one in panels),
        crane_days=len(heavy) / PICKS_A_DAY if heavy else None, timber=framed_share(changed),
        R=_resistance(project, building, changed),
    )  # fmt: skip


def _module(found: BuildingSetOut) -> float | None:
    wall = next((one for one in found.faces if one.kind == "wall"), None)
    if wall is None:
        return None
    widths = wall.rules.rules.module_widths
    return (widths[0] if widths else wall.rules.module) / 1000


def _resistance(project: Project, building: MeasuredBuilding, assembly: Assembly) -> float:
    basis = project.within(building.id).basis
    return value_of(clear_wall_R(assembly, project.catalogue, basis, direction=direction_in(basis, _WALL)))
