"""Types of windows and doors: openings are filled with one, and the joints round them follow."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace

from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.shell.fitted import as_units_are, filled_with
from nimble_shell.core.shell.project import Project
from nimble_shell.core.windows.transmittance import Light, lights
from nimble_shell.core.windows.unit import Edge, UnitType
from nimble_shell.core.working import Derivation, derive, traced, value_of
from nimble_shell.services.joints import building_in
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.services.shape_edits import shaped, with_building
from nimble_shell.store import NotFound, Stored


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnUnit:
    """A unit type with what it comes to at its own size."""

    id: str
    A: float  #: [m²]
    A_g: float
    A_p: float
    A_f: float
    l_g: float  #: visible edge of the glass [m]
    l_p: float
    U: float  #: that counts [W/(m²·K)]
    U_parts: float  #: by its parts
    declared: bool
    below_glass: bool  #: whether a declared U is better than its own glass, which only a very good frame makes it
    g: float  #: of the unit, 0…1
    rough_w: float  #: of the hole that it needs [m]
    rough_h: float
    lights: tuple[Light, ...]
    openings: int  #: of the project that name it
    other_size: int  #: of them, those of another size
    mass: float | None  #: of all of them [kg]
    price: float | None  #: of all of them


def unit_sheet(project: Project, draft: UnitType | None = None) -> tuple[DrawnUnit, ...]:
    """Every unit type of a project, one of them as somebody is changing it. Raises DomainError."""
    units = {one.id: one for one in project.units}
    if draft is not None:
        units[draft.id] = draft
    return tuple(_drawn(project, one) for one in units.values())


def _drawn(project: Project, unit: UnitType) -> DrawnUnit:
    found = unit.figures()
    sizes = [(one.w, one.h) for building in project.buildings for one in building.openings if one.unit == unit.id]
    rough_w, rough_h = unit.rough()
    return DrawnUnit(
        id=unit.id,
        A=found.A,
        A_g=found.A_g,
        A_p=found.A_p,
        A_f=found.A_f,
        l_g=found.l_g,
        l_p=found.l_p,
        U=value_of(unit.transmittance(unit.w, unit.h)),
        U_parts=value_of(found.U_w),
        declared=unit.U_declared is not None,
        below_glass=unit.U_declared is not None and unit.U_declared < unit.glass.U,
        g=unit.solar(),
        rough_w=rough_w,
        rough_h=rough_h,
        lights=lights(unit.parts()),
        openings=len(sizes),
        other_size=sum(1 for size in sizes if size != (unit.w, unit.h)),
        mass=None if unit.mass is None else unit.mass * len(sizes),
        price=None if unit.price is None else unit.price * len(sizes),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class EdgeVariant:
    """A way in which the joint at an edge of a unit can be built."""

    edge: Edge
    variant: str
    text: str


def edge_variants() -> tuple[EdgeVariant, ...]:
    """All of them."""
    families: dict[Edge, str] = {"head": "opening", "jamb": "opening", "sill": "opening", "threshold": "threshold"}
    return tuple(EdgeVariant(edge=edge, variant=one.key, text=one.text)
                 for edge, family in families.items() for one in FAMILIES[family].variants)  # fmt: skip


def unit_working(unit: UnitType) -> Derivation:
    """How its U comes about."""
    number = unit.transmittance(unit.w, unit.h, traced)
    return derive(number)


def unit_in(project: Project, unit_id: str) -> UnitType:
    """Raises NotFound."""
    found = next((one for one in project.units if one.id == unit_id), None)
    if found is None:
        raise NotFound("unit", unit_id)
    return found


def fill_openings(
    service: ProjectService, project_id: str, building_id: str, openings: Collection[str], unit_id: str,
    note: ChangeNote,
) -> Stored:  # fmt: skip
    """Openings of a building take a type with its size and sill, and joints that are theirs alone take its frame.

    An empty type takes theirs away and leaves size and joints as they are. Raises DomainError, NotFound.
    """

    def change(stored: Stored) -> Project:
        project = stored.project
        building = building_in(project, building_id).as_stored()
        bodies = {one.id: one for one in building.bodies}
        unit = unit_in(project, unit_id) if unit_id else None
        unknown = set(openings) - {one.id for one in building.openings}
        if unknown:
            raise NotFound("opening", min(unknown))
        filled = tuple(
            one if one.id not in openings else replace(one, unit="") if unit is None
            else filled_with(one, bodies[one.body], unit) for one in building.openings
        )  # fmt: skip
        changed = with_building(project, replace(building, openings=filled))
        return changed if unit is None else with_joints_of_units(changed, building_id)

    return service.edit(project_id, change, note)


def fit_joints(service: ProjectService, project_id: str, building_id: str, note: ChangeNote) -> Stored:
    """Joints round openings of one type take its frame, place, shim, fin and variant. Raises DomainError, NotFound."""
    return service.edit(project_id, lambda stored: with_joints_of_units(stored.project, building_id), note)


def with_joints_of_units(project: Project, building_id: str) -> Project:
    """The project with them. Raises DomainError."""
    building = shaped(project, building_id)
    stored = building.as_stored()
    return with_building(project, replace(stored, joints=as_units_are(project, building, stored.joints)))
