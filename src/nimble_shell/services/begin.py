"""A project from one sheet: place, systems, footprint, heights, roof and glazing; a complete shell stands."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.site import Site
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.building.footprint import Outline, Plan, checked, footprint
from nimble_shell.core.building.roof import Roof, RoofForm, pitch_of
from nimble_shell.core.climate import MonthlyClimate
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.core.windows.unit import UnitType
from nimble_shell.services.projects import ProjectService, new_id
from nimble_shell.services.shape_edits import with_joints
from nimble_shell.store import Stored

MOST_GLAZING = 0.6  #: share of a wall that windows of a sheet may take [-]
#: Types to begin with: a window's width is about this one, so that the glass comes to the share that is asked.
_WINDOW = UnitType(id="window", name="Window")
_DOOR = UnitType(id="door", name="Door", kind="door", opens="inward", w=1.0, h=2.1, sill=0.0, filled=1, panel_U=0.8)
_OVER = 0.3  #: at least over a window [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Beginning:
    """What the sheet says."""

    name: str
    place: str = ""
    climate: MonthlyClimate | None = None  #: that of a new Basis without one
    theta_winter: float | None = None  #: [°C]
    schools: Schools = field(default_factory=Schools)
    wall: str = "sip"  #: keys of systems
    roof: str = "sip-roof"
    floor: str = "slab"
    plan: Plan = "rectangle"
    long: float = 12.0  #: [m]
    wide: float = 8.4
    arm: float = 4.8
    depth: float = 3.6
    points: Outline = ()  #: in the place of a plan of lengths
    storeys: tuple[float, ...] = (2.8,)  #: [m]
    form: RoofForm = "two pitches"
    pitch: float | None = 35.0  #: [°]; None where the ridge says it
    ridge: float | None = None  #: above the eaves [m]
    glazing: tuple[float, ...] = (0.2, 0.1, 0.1, 0.1)  #: share of each side's wall; the last one of those beyond [-]
    north: float = 0.0  #: bearing of the plan's y axis [°]


def begin(service: ProjectService, asked: Beginning) -> Stored:
    """Store a new project with its shell: build-ups, shape, openings, a joint for each edge. Raises DomainError."""
    return service.bring_in(begun(asked, new_id()))


def begun(asked: Beginning, project_id: str) -> Project:
    """The project that a sheet describes. Raises DomainError, with the sheet's own names as paths."""
    _check(asked)
    outline = _at("footprint", lambda: checked(asked.points) if asked.points else footprint(
        asked.plan, asked.long, asked.wide, asked.arm, asked.depth))  # fmt: skip
    roof = Roof(form=asked.form, towards=_across(outline))
    pitch = 0.0
    if asked.form != "flat":
        given = asked.pitch if asked.ridge is None else pitch_of(outline, roof, asked.ridge)
        pitch = 35.0 if given is None else given
    body = BuildingBody(id="b1", name=asked.name[:80], outline=outline, storeys=asked.storeys, wall="wall", top="roof",
                        floor="floor", roof=replace(roof, pitch=pitch))  # fmt: skip
    assemblies = {part: SYSTEMS[key].assembly(f"{part}-1", SYSTEMS[key].name) for part, key in _systems(asked)}
    elements = (
        ShellElement(id="roof", station="B", name="Roof", assembly_id=assemblies["roof"].id),
        ShellElement(id="wall", station="D", name="Walls", assembly_id=assemblies["wall"].id),
        ShellElement(id="windows", station="E", name="Windows", ),
        ShellElement(id="doors", station="E", name="Doors", ),
        ShellElement(id="floor", station="F" if assemblies["floor"].outside == "air" else "H", name="Lowest floor",
                     assembly_id=assemblies["floor"].id),
    )  # fmt: skip
    if assemblies["floor"].outside == "air":  # it stands clear of the ground
        body = replace(body, base=0.5)
    building = Building(id="building-1", name=asked.name[:80], elements=elements, bodies=(body,), north=asked.north,
                        openings=_openings(body, asked.glazing))  # fmt: skip
    basis = Basis(site=Site(place=asked.place), schools=asked.schools)
    if asked.climate is not None:
        basis = replace(basis, climate=asked.climate)
    if asked.theta_winter is not None:
        basis = replace(basis, site=replace(basis.site, theta_winter=asked.theta_winter))
    project = Project(id=project_id, name=asked.name, basis=basis, buildings=(building,),
                      assemblies=tuple(assemblies.values()), units=(_WINDOW, _DOOR))  # fmt: skip
    return with_joints(project, building.id)


def _systems(asked: Beginning) -> tuple[tuple[ShellPart, str], ...]:
    return (("wall", asked.wall), ("roof", asked.roof), ("floor", asked.floor))


def _check(asked: Beginning) -> None:
    check = Collector()
    for part, key in _systems(asked):
        there = key in SYSTEMS and SYSTEMS[key].place == part
        check.check(there, (part,), "unknown_system", f"“{key}” is no system of a {part}",
                    f"one of {', '.join(one.key for one in SYSTEMS.values() if one.place == part)}")  # fmt: skip
    for n, share in enumerate(asked.glazing):
        check.check(0 <= share <= MOST_GLAZING, ("glazing", n), "glazing_out_of_range",
                    f"{100 * share:g} % of a wall is glass", f"0 to {100 * MOST_GLAZING:g} %")  # fmt: skip
    check.check(asked.form == "flat" or asked.ridge is None or asked.ridge > 0, ("ridge",), "ridge_below_eaves",
                "the ridge lies at or below the eaves", "above them, or a flat roof")  # fmt: skip
    check.refuse()


def _at(field_name: str, make: object) -> Outline:
    try:
        found: Outline = make()  # type: ignore[operator]  # a function without arguments
    except DomainError as error:
        raise DomainError(*(Issue(path=(field_name, *one.path), code=one.code, message=one.message, hint=one.hint)
                            for one in error.issues)) from None  # fmt: skip
    return found


def _across(outline: Outline) -> float:
    """A ridge runs along the longer way of the plan. [°]"""
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    return 180.0 if max(xs) - min(xs) >= max(ys) - min(ys) else 90.0


def _openings(body: BuildingBody, glazing: tuple[float, ...]) -> tuple[BodyOpening, ...]:
    """Windows that come to a share of each side's wall below the eaves, evenly in every storey; a door in the first."""
    found: list[BodyOpening] = []
    for side in range(len(body.outline)):
        share = glazing[min(side, len(glazing) - 1)] if glazing else 0.0
        length = math.dist(*body.side(side))
        low = 0.0
        for storey, height in enumerate(body.storeys):
            door = side == 0 and storey == 0 and length > 3 * _DOOR.w and height > _DOOR.h
            found += _row(body, side, low, height, share, length, len(found), door=door)
            low += height
    return tuple(found)


def _row(
    body: BuildingBody, side: int, low: float, height: float, share: float, length: float, before: int, *, door: bool
) -> list[BodyOpening]:
    """Of one side and storey: as many windows as come near their least width, in equal bays; the door takes a bay."""
    h = min(_WINDOW.h, height - _WINDOW.sill - _OVER)
    area = share * length * height
    count = 0 if h < 0.3 or area < 0.1 else max(1, round(area / (_WINDOW.w * h)))
    bays = count + (1 if door else 0)
    if not bays:
        return []
    bay = length / bays
    count = min(count, int(length // 0.6))
    w = 0.0 if not count else min(area / (count * h), 0.9 * bay)
    found: list[BodyOpening] = []
    for n in range(bays):
        unit = _DOOR if door and n == bays // 2 else _WINDOW
        wide, high = (w, h) if unit is _WINDOW else (unit.w, unit.h)
        if wide < 0.2:
            continue
        number = before + len(found) + 1
        found.append(BodyOpening(id=f"o{number}", mark=f"{unit.name[0]}{number}", body=body.id, side=side,
                                 u=round((n + 0.5) * bay - wide / 2, 3), sill=low + unit.sill, w=round(wide, 3),
                                 h=round(high, 3), kind=unit.kind, zone=f"{unit.kind}s", unit=unit.id))  # fmt: skip
    return found
