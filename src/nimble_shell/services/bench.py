"""The build-up bench: every figure of a wall, its study and remarks, and what it means for the whole shell."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import lru_cache

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.figures import (
    WallFigures,
    clear_wall_R,
    surface_factor,
    wall_figures,
    wall_working,
)
from nimble_shell.core.assemblies.films import Direction
from nimble_shell.core.assemblies.remarks import Remark, remarks
from nimble_shell.core.assemblies.study import Study, crossing_working, thickness_study
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.shell.basis import Basis
from nimble_shell.core.shell.ledger import ShellLedger, shell_ledger
from nimble_shell.core.shell.project import Building, Project, Station
from nimble_shell.core.working import Derivation, Given, Num, derive, plain, traced, value_of
from nimble_shell.store import NotFound

#: Heat flows up through what is above the room, down through what is below it.
DIRECTIONS: dict[Station, Direction] = {"A": "up", "B": "up", "H": "down"}


@dataclass(frozen=True, slots=True, kw_only=True)
class Bench:
    """Everything the build-up bench shows of one wall."""

    wall: WallFigures
    study: Study | None
    remarks: tuple[Remark, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Lowest:
    """The lowest temperature factor of the clear sections, and whose it is."""

    f_rsi: float
    station: str
    name: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Consequence:
    """The ledger of a building, beside what it was."""

    now: ShellLedger
    lowest: Lowest | None
    before: ShellLedger | None
    lowest_before: Lowest | None


@lru_cache(maxsize=256)
def bench(assembly: Assembly, basis: Basis, condition: str, direction: Direction = "horizontal") -> Bench:
    """All figures of one build-up. Raises DomainError."""
    wall = wall_figures(assembly, CATALOGUE, basis, condition, direction=direction)
    study = None
    if assembly.core_index is not None and assembly.core_index < wall.counted:
        study = thickness_study(assembly, CATALOGUE, basis, asked=basis.targets.R_wall, direction=direction)
    return Bench(wall=wall, study=study, remarks=tuple(remarks(assembly, CATALOGUE, basis, wall, study)))


def bench_working(assembly: Assembly, basis: Basis, condition: str, figure: str, direction: Direction) -> Derivation:
    """The working of a figure of the bench. Raises DomainError."""
    if figure == "d_core":
        asked = basis.targets.R_wall
        if asked is None:
            raise DomainError(Issue(path=("figure",), code="nothing_asked", message="no R is asked of walls",
                                    hint="set one in the Basis"))  # fmt: skip
        return crossing_working(assembly, CATALOGUE, basis, asked, direction)
    return wall_working(assembly, CATALOGUE, basis, condition, figure, direction=direction)


def consequence(project: Project, before: Project | None, building_id: str) -> Consequence:
    """What the shell of a building comes to, and what it came to before. Raises NotFound."""
    now, lowest = _ledger(project, find_building(project, building_id))
    if before is None or building_id not in {building.id for building in before.buildings}:
        return Consequence(now=now, lowest=lowest, before=None, lowest_before=None)
    old, lowest_before = _ledger(before, find_building(before, building_id))
    return Consequence(now=now, lowest=lowest, before=old, lowest_before=lowest_before)


def ledger_working(project: Project, building_id: str, figure: str) -> Derivation:
    """The working of a figure of the shell; H_ and an element's id is that element's. Raises DomainError, NotFound."""
    building = find_building(project, building_id)
    if figure == "f_rsi_lowest":
        drawn = [(assembly, direction) for assembly, direction, _, _ in _drawn(project, building)]
        if drawn:
            lowest = min(drawn, key=lambda one: _surface_factor(one[0], project.basis, one[1]))
            return wall_working(lowest[0], CATALOGUE, project.basis, "winter", "f_rsi", direction=lowest[1])
    ledger = shell_ledger(building, _transmittances(project, building, traced), given=traced)
    number = {"H_shell": ledger.H, "R_effective": ledger.R_effective}.get(figure)
    number = next((line.H for line in ledger.lines if figure == f"H_{line.element_id}"), number)
    if number is None:
        raise DomainError(Issue(path=("figure",), code="unknown_figure", message=f"there is no working of “{figure}”",
                                hint="a figure of the shell has one once its element has a U"))  # fmt: skip
    return derive(number)


def is_of_the_shell(figure: str) -> bool:
    """Whether a figure belongs to the ledger rather than to one build-up."""
    return figure in ("R_effective", "f_rsi_lowest") or figure.startswith("H_")


def with_draft(project: Project, draft: Assembly) -> Project:
    """The project as if the draft were saved. Raises NotFound."""
    if draft.id not in {assembly.id for assembly in project.assemblies}:
        raise NotFound("assembly", draft.id)
    return replace(project, assemblies=tuple(draft if a.id == draft.id else a for a in project.assemblies))


def find_building(project: Project, building_id: str) -> Building:
    """Raises NotFound."""
    for building in project.buildings:
        if building.id == building_id:
            return building
    raise NotFound("building", building_id)


def direction_of(building: Building, assembly_id: str) -> Direction:
    """Direction of heat flow through an assembly where a building uses it."""
    for element in building.elements:
        if element.assembly_id == assembly_id:
            return DIRECTIONS.get(element.station, "horizontal")
    return "horizontal"


def _ledger(project: Project, building: Building) -> tuple[ShellLedger, Lowest | None]:
    ledger = shell_ledger(building, _transmittances(project, building, plain))
    factors = [
        Lowest(f_rsi=_surface_factor(assembly, project.basis, direction), station=station, name=name)
        for assembly, direction, station, name in _drawn(project, building)
    ]
    return ledger, min(factors, key=lambda lowest: lowest.f_rsi, default=None)


def _drawn(project: Project, building: Building) -> Iterable[tuple[Assembly, Direction, Station, str]]:
    known = {assembly.id: assembly for assembly in project.assemblies}
    for element in building.elements:
        if element.assembly_id is not None:
            direction = DIRECTIONS.get(element.station, "horizontal")
            yield known[element.assembly_id], direction, element.station, element.name


def _transmittances(project: Project, building: Building, given: Given) -> dict[str, Num]:
    method = project.basis.schools.bridged
    found: dict[str, Num] = {}
    for number, (assembly, direction, station, _) in enumerate(_drawn(project, building), 1):
        U = 1 / _clear_R(assembly, project.basis, direction)
        origin = f"computed in {station}2, {method}"
        found[assembly.id] = given(U, f"U_wall_{number}", f"clear-wall U, {assembly.name}", "W/(m²·K)", origin)
    return found


@lru_cache(maxsize=1024)
def _clear_R(assembly: Assembly, basis: Basis, direction: Direction) -> float:
    return value_of(clear_wall_R(assembly, CATALOGUE, basis, direction=direction))


@lru_cache(maxsize=1024)
def _surface_factor(assembly: Assembly, basis: Basis, direction: Direction) -> float:
    return surface_factor(assembly, CATALOGUE, basis, direction=direction)
