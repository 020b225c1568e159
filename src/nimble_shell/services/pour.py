"""The pour sheet: each run of forms with its pressure, lifts, concrete, trucks, braces and lean. In m, h, kN/m²."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.courses.form_runs import FormRun
from nimble_shell.core.shell.coursed import runs_of
from nimble_shell.core.shell.pouring import NEAR, ON_BOARD, Braced, Poured, PouredLift, poured
from nimble_shell.core.shell.project import Project
from nimble_shell.core.site.choices import PourChoices, StringLine
from nimble_shell.core.site.pressure import Governs
from nimble_shell.services.whole_shell import shaped

_M = 1000.0
_SHOWN = 400  #: truck times at most


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadJoint:
    """Where a lift ended on a day."""

    level: float
    on_board: bool
    nearest: float  #: board joint
    reason: str


@dataclass(frozen=True, slots=True, kw_only=True)
class BracedWall:
    """A wall with its braces."""

    wall: str
    mark: str
    length: float
    at: tuple[float, ...]
    spacing: float | None
    problem: str
    strings: tuple[StringLine, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PouredRun:
    """A run as it is filled."""

    id: str
    marks: str
    gable: bool
    one_sided: bool
    foam_out: float
    core: float
    foam_in: float
    height: float
    joints: tuple[float, ...]
    pressure: float  #: filled to the top in one
    governs: Governs
    fits: bool | None  #: as it is planned; None where nothing is rated
    could: int  #: lifts that would fit; nought where none do
    greatest: float | None
    most_rate: float | None
    most_height: float | None
    any_rate: bool  #: whether no rate is too fast
    coldest: float | None
    lifts: tuple[PouredLift, ...]
    no_lifts: str
    area: float
    volume: float
    order: float
    trucks: int
    truck_times: tuple[float, ...]  #: from the start of the pour
    hours: float
    corners: int  #: to be strapped on both faces, like butt joints and tees
    butts: int
    tees: int
    walls: tuple[BracedWall, ...]
    lean_top: float | None
    lean_brace: float | None
    read: tuple[ReadJoint, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class PourSheet:
    """All runs of a building."""

    choices: PourChoices
    runs: tuple[PouredRun, ...]
    volume: float
    order: float
    trucks: int


def pour_sheet(project: Project, building_id: str) -> PourSheet:
    """All runs. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    runs = runs_of(project, building)
    if not runs:
        raise DomainError(Issue(path=("elements",), code="no_forms",
                                message=f"“{building.name}” has no wall that is cast in forms",
                                hint="give a wall a build-up of insulated concrete forms"))  # fmt: skip
    found = tuple(_run(one, poured(one, building.pour), building.pour) for one in runs)
    return PourSheet(choices=building.pour, runs=found, volume=sum(one.volume for one in found),
                     order=sum(one.order for one in found), trucks=sum(one.trucks for one in found))  # fmt: skip


def _run(of: FormRun, one: Poured, choices: PourChoices) -> PouredRun:
    rated, greatest = choices.rated, one.greatest
    return PouredRun(
        id=of.id, marks=", ".join(each.mark for each in of.walls), gable=of.gable, one_sided=of.form.one_sided,
        foam_out=of.form.foam_out, core=of.form.core, foam_in=of.form.foam_in, height=of.run.height / _M,
        joints=one.joints, pressure=one.one_go.value, governs=one.one_go.governs,
        fits=one.fits(choices), could=one.could, greatest=greatest,
        most_rate=one.most_rate, most_height=one.most_height, any_rate=rated is not None and one.most_rate is None,
        coldest=one.coldest,
        lifts=one.lifts, no_lifts=one.no_lifts, area=one.area, volume=one.volume, order=one.order, trucks=one.trucks,
        truck_times=_times(one, choices), hours=one.hours,
        corners=len(list(of.run.corners())), butts=len(of.run.stacks),
        tees=sum(end == "tee" for each in of.walls for end in (each.left, each.right)),
        walls=tuple(_braced(of, n, each, choices) for n, each in enumerate(one.braces)),
        lean_top=None if one.lean is None else one.lean.top / _M,
        lean_brace=None if one.lean is None else one.lean.brace / _M,
        read=tuple(_joint(each.level, each.reason, one.joints) for each in choices.days if each.run == of.id),
    )  # fmt: skip


def _times(one: Poured, choices: PourChoices) -> tuple[float, ...]:
    """When each truck begins to be emptied: as the forms rise, with waits between lifts."""
    found, filled = list[float](), 0.0
    for lift in one.lifts:
        wanted = lift.volume * (1 + choices.waste)
        while len(found) * choices.truck < filled + wanted - NEAR and len(found) < _SHOWN:
            into = len(found) * choices.truck - filled
            share = into / wanted if wanted else 0.0
            found.append(lift.begins + max(0.0, share) * (lift.ends - lift.begins))
        filled += wanted
    return tuple(found)


def _braced(of: FormRun, n: int, one: Braced, choices: PourChoices) -> BracedWall:
    wall = of.walls[n]
    return BracedWall(wall=wall.id, mark=wall.mark, length=of.run.walls[n].length / _M, at=one.at, spacing=one.spacing,
                      problem=one.problem,
                      strings=tuple(each for each in choices.strings if each.wall == wall.id))  # fmt: skip


def _joint(level: float, reason: str, joints: tuple[float, ...]) -> ReadJoint:
    nearest = min(joints, key=lambda one: abs(one - level), default=level)
    return ReadJoint(level=level, on_board=abs(level - nearest) <= ON_BOARD, nearest=nearest, reason=reason)
