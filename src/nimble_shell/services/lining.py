"""Furring or direct: a lining on the webs of a form, or on battens before it, by how straight the wall was read."""

from __future__ import annotations

import math
from collections import defaultdict
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer, Member
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.stations import Station
from nimble_shell.core.setout.courses.form_runs import FormRun
from nimble_shell.core.shell.coursed import runs_of
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.site.choices import PourChoices, StringLine
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.working import value_of
from nimble_shell.services.whole_shell import shaped

_M = 1000.0
_BATTEN = Member(name="furring", material="softwood-battens", run="vertical", width=0.045, centres=0.4)


@dataclass(frozen=True, slots=True, kw_only=True)
class LiningWay:
    """One way of lining the walls of a build-up."""

    furred: bool
    possible: bool  #: direct only where the wall is straight enough to be packed out
    why: str
    thickness: float  #: from the form to the face of the room, packing with it [m]
    packed: int  #: places that want packing
    R: float  #: clear section [m²·K/W]
    cost: float | None  #: None while a rate is missing
    room: float  #: floor area that it takes [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Lining:
    """Of one build-up of forms that is lined inside."""

    assembly: str
    name: str
    area: float  #: [m²]
    length: float  #: of its walls along the inside [m]
    read: int  #: string lines read after the pour
    bow: float | None  #: between the highest and the lowest of a wall; None while nothing is read [m]
    direct: LiningWay
    furred: LiningWay


@dataclass(frozen=True, slots=True, kw_only=True)
class LiningSheet:
    """Of a building."""

    choices: PourChoices
    linings: tuple[Lining, ...]


def lining_sheet(project: Project, building_id: str) -> LiningSheet:
    """Every build-up of forms with foam inside. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    known = {one.id: one for one in project.assemblies}
    of = {one.id: one for one in building.elements}
    by_element = defaultdict[str, list[FormRun]](list)
    for run in runs_of(project, building):
        if run.form.foam_in:
            by_element[run.zone].append(run)
    found = []
    for element, runs in by_element.items():
        assembly = known[of[element].assembly_id or ""]
        opened = building.opened(element) or 0.0
        found.append(_lining(project, building, assembly, of[element].station, of[element].area - opened, runs))
    return LiningSheet(choices=building.pour, linings=tuple(found))


def _lining(
    project: Project, building: MeasuredBuilding, assembly: Assembly, station: Station, area: float,
    runs: list[FormRun],
) -> Lining:  # fmt: skip
    choices = building.pour
    lowest = min((run.base for run in runs), default=0.0)
    length = sum(one.length for run in runs if not run.gable and run.base <= lowest + 1.0
                 for one in run.run.walls) / _M  # fmt: skip
    walls = {wall.id for run in runs for wall in run.walls}
    strings = [one for one in choices.strings if one.wall in walls and one.after is not None]
    bow = _bow(strings) if strings else None
    board = next((one.d for one in assembly.layers if one.fitted == "late"), 0.0125)
    spread = bow or 0.0
    packed = sum(abs((one.after or 0.0) - _middle(strings)) > choices.flat for one in strings)
    straight = bow is None or bow <= choices.packing
    direct = LiningWay(
        furred=False, possible=straight,
        why="" if straight else "the wall is read as less straight than packers even out",
        thickness=board + (spread if spread > choices.flat else 0.0), packed=packed,
        R=_R(project, building, assembly, station), cost=_cost(area, choices.direct_cost),
        room=length * (board + (spread if spread > choices.flat else 0.0)),
    )  # fmt: skip
    depth = choices.furring + spread
    furred = LiningWay(
        furred=True, possible=True, why="", thickness=board + depth, packed=0,
        R=_R(project, building, furred_assembly(assembly, choices.furring), station),
        cost=_cost(area, choices.furred_cost), room=length * (board + depth),
    )  # fmt: skip
    return Lining(assembly=assembly.id, name=assembly.name, area=area, length=length, read=len(strings), bow=bow,
                  direct=direct, furred=furred)  # fmt: skip


def _bow(strings: list[StringLine]) -> float:
    """Greatest spread of the readings of one wall."""
    walls = defaultdict[str, list[float]](list)
    for one in strings:
        walls[one.wall].append(one.after or 0.0)
    return max(max(several) - min(several) for several in walls.values())


def _middle(strings: list[StringLine]) -> float:
    return math.fsum(one.after or 0.0 for one in strings) / len(strings) if strings else 0.0


def furred_assembly(assembly: Assembly, depth: float) -> Assembly:
    """The build-up with its lining on upright battens before the form."""
    first = next((n for n, one in enumerate(assembly.layers) if one.fitted == "late"), 0)
    gap = Layer(id="furring", d=depth, air=AirGap(), members=(_BATTEN,), fitted="late")
    return replace(assembly, layers=(*assembly.layers[: first + 1], gap, *assembly.layers[first + 1 :]))


def _R(project: Project, building: MeasuredBuilding, assembly: Assembly, station: Station) -> float:
    basis = project.within(building.id).basis
    return value_of(clear_wall_R(assembly, project.catalogue, basis, direction=direction_in(basis, station)))


def _cost(area: float, rate: float | None) -> float | None:
    return None if rate is None else area * rate
