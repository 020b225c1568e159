"""Form walls in courses as they are drawn: blocks, webs, bond, lintels; counts, corners and what is cast in. In m."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.courses.choices import CastIn, FormChoices
from nimble_shell.core.setout.courses.courses import Counts, Coursed, blocks_for
from nimble_shell.core.setout.courses.drawn import DrawnCourse, courses_drawn, lintels, site_corners
from nimble_shell.core.setout.courses.form_runs import End, FormRun, with_openings
from nimble_shell.core.setout.courses.laying import TWO_WEBS, Laid, NoLaying, lay
from nimble_shell.core.setout.courses.run import Hand, WallOpening, check_run
from nimble_shell.core.shell.coursed import LaidRun, course_building, fillings_of, runs_of
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.pouring import Poured, poured
from nimble_shell.core.shell.project import Project
from nimble_shell.services.setout import SetOutDraft, drafted
from nimble_shell.services.shape import ShapeDraft
from nimble_shell.services.whole_shell import shaped

_M = 1000.0
_DRAG = 2.0  #: given to one wall that is being drawn [s]
_FINE = 2  #: figures behind the point of a mm
_NEAR = 1e-6
Point = tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class BlockDrawn:
    """A straight piece."""

    u0: float
    u1: float
    webs: int
    cut: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class CourseDrawn:
    """A course of a wall, from its foot."""

    low: float
    high: float
    half: bool
    ripped: bool
    left: float  #: leg of the corner block at the left end; nought without one
    right: float
    left_hand: Hand | None
    right_hand: Hand | None
    blocks: tuple[BlockDrawn, ...]
    bond: float | None  #: least, over the course below


@dataclass(frozen=True, slots=True, kw_only=True)
class BuckDrawn:
    """A concrete opening with its buck and its lintel."""

    id: str
    mark: str
    u: float
    v: float
    w: float
    h: float
    lintel_u0: float | None  #: None where it reaches the top
    lintel_u1: float | None
    lintel: float | None  #: height of the concrete above it
    above: int  #: whole courses above it
    fin: bool  #: its buck ends flush with the form's outer face


@dataclass(frozen=True, slots=True, kw_only=True)
class WallDrawn:
    """A wall, from its left end as seen from outside."""

    id: str
    mark: str
    length: float
    left: End
    right: End
    off: float  #: of the web grid
    stack: float | None
    outline: tuple[Point, ...]  #: of a gable; empty of a wall of one height
    courses: tuple[CourseDrawn, ...]  #: none where it cannot be laid
    bucks: tuple[BuckDrawn, ...]
    single: int  #: pieces that fewer than two webs hold


@dataclass(frozen=True, slots=True, kw_only=True)
class Corners:
    """Where corners are cut and foamed on site."""

    corners: int
    pieces: int
    blocks: int
    foam: float
    strong_backs: int
    holds: int


@dataclass(frozen=True, slots=True, kw_only=True)
class RunDrawn:
    """Walls that hang together."""

    id: str
    zone: str
    gable: bool
    one_sided: bool
    thickness: float
    base: float
    height: float
    walls: tuple[WallDrawn, ...]
    reason: str = ""  #: why it cannot be laid
    pieces: int = 0
    cuts: int = 0
    bought: int = 0
    whole: Counts | None = None
    half: Counts | None = None
    ripped: float = 0.0  #: height that the last course is ripped to
    offcut: float = 0.0
    proved: bool = False
    bound: int = 0
    corners: Corners | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class CastRow:
    """What is cast in, course by course and lift by lift."""

    wall: str
    mark: str
    kind: str
    name: str
    z: float
    course: int  #: from 1
    lift: int  #: from 1; 0 where lifts are not known
    at: tuple[float, ...]
    by: str


@dataclass(frozen=True, slots=True, kw_only=True)
class CourseSheet:
    """All runs of a building."""

    choices: FormChoices
    runs: tuple[RunDrawn, ...]
    cast: tuple[CastRow, ...]
    lacking: tuple[str, ...]  #: marks of walls that no sum over runs has


def course_sheet(project: Project, building_id: str) -> CourseSheet:
    """All runs of a building. Raises DomainError, NotFound, Stopped."""
    building = shaped(project, building_id)
    laid = course_building(project, building)
    if not laid:
        raise DomainError(Issue(path=("elements",), code="no_forms",
                                message=f"“{building.name}” has no wall that is cast in forms",
                                hint="give a wall a build-up of insulated concrete forms"))  # fmt: skip
    fins = _fins(project, building)
    runs = tuple(_run(building, one, fins) for one in laid)
    return CourseSheet(
        choices=building.forms, runs=runs, cast=tuple(_cast(building, [one.of for one in laid])),
        lacking=tuple(wall.mark for one in runs if one.reason for wall in one.walls),
    )  # fmt: skip


def course_wall(project: Project, building_id: str, wall: str, draft: SetOutDraft) -> WallDrawn:
    """One wall as somebody draws it: its openings moved, its stack joint elsewhere. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    run, n = _wall(runs_of(project, building), wall)
    along = _along(building, run, draft)
    if along is None:
        changed = drafted(project, building_id, draft)
        building = shaped(changed, building_id)
        run, n = _wall(runs_of(changed, building), wall)
    else:
        run = with_openings(run, along, building.forms)
    check_run(run.run)
    found = lay(run.run, n, _DRAG)
    if isinstance(found, NoLaying):
        raise DomainError(Issue(path=("openings",), code="no_laying", message=found.reason,
                                hint="let go further off, or move the stack joint"))  # fmt: skip
    return _drawn(building, run, n, found, _fins(project, building))


def _along(building: MeasuredBuilding, run: FormRun, draft: SetOutDraft) -> tuple[WallOpening, ...] | None:
    """Openings of a run that are only moved along their walls: the shape need not be counted anew for that.

    None where anything else is drawn.
    """
    openings = draft.shape.openings
    if openings is None or draft != SetOutDraft(shape=ShapeDraft(openings=openings)):
        return None
    before = {one.id: one for one in building.openings}
    if len(openings) != len(before) or any(
        one.id not in before or replace(one, u=before[one.id].u) != before[one.id] for one in openings
    ):  # fmt: skip
        return None
    by = {one.id: round((one.u - before[one.id].u) * _M, _FINE) for one in openings}
    ids = [key for wall in run.walls for key in wall.openings]
    return tuple(replace(one, x=round(one.x + by[key], _FINE)) for key, one in zip(ids, run.run.openings, strict=True))


def _wall(runs: Sequence[FormRun], wall: str) -> tuple[FormRun, int]:
    for run in runs:
        for n, one in enumerate(run.walls):
            if one.id == wall:
                return run, n
    raise DomainError(Issue(path=("wall",), code="unknown_wall", message=f"there is no form wall “{wall}”",
                            hint="one of the walls of the sheet"))  # fmt: skip


def _fins(project: Project, building: MeasuredBuilding) -> set[str]:
    """Openings whose units are fastened by a fin."""
    return {key for key, one in fillings_of(project, building).items() if one.fin}


def _run(building: MeasuredBuilding, one: LaidRun, fins: Collection[str]) -> RunDrawn:
    of, found = one.of, one.found
    if isinstance(found, NoLaying):
        return RunDrawn(
            id=of.id, zone=of.zone, gable=of.gable, one_sided=of.form.one_sided, thickness=of.form.thickness,
            base=of.base, height=of.run.height / _M, reason=found.reason,
            walls=tuple(_drawn(building, of, n, None, fins) for n in range(len(of.walls))),
        )  # fmt: skip
    walls = tuple(_drawn(building, of, n, laid, fins) for n, laid in enumerate(found.walls))
    return RunDrawn(
        id=of.id, zone=of.zone, gable=of.gable, one_sided=of.form.one_sided, thickness=of.form.thickness, base=of.base,
        height=of.run.height / _M, walls=walls, pieces=found.pieces, cuts=found.cuts, bought=found.bought,
        whole=found.whole, half=found.half, ripped=of.run.ripped / _M, offcut=found.offcut / _M, proved=found.proved,
        bound=found.bound, corners=_corners(building.forms, of, found),
    )  # fmt: skip


def _corners(choices: FormChoices, of: FormRun, found: Coursed) -> Corners | None:
    """Cut and foamed on site: their pieces share blocks with the cuts."""
    corners = len(list(of.run.corners()))
    if choices.corners == "factory" or not corners:
        return None
    cuts = [b - a for wall in found.walls for row in wall.courses for a, b in row if b - a < of.run.block.length - 1e-6]
    legs = [one for _ in of.run.courses() for _ in range(corners) for one in (of.run.block.long, of.run.block.short)]
    more = blocks_for([*cuts, *legs], of.run.block.length) - blocks_for(cuts, of.run.block.length)
    needed = site_corners(of.run, more)
    return Corners(corners=needed.corners, pieces=needed.pieces, blocks=needed.blocks, foam=needed.foam / _M,
                   strong_backs=needed.strong_backs, holds=needed.holds)  # fmt: skip


def _drawn(building: MeasuredBuilding, of: FormRun, n: int, laid: Laid | None, fins: Collection[str]) -> WallDrawn:
    wall, own, run = of.walls[n], of.run.walls[n], of.run
    courses = [] if laid is None else courses_drawn(run, n, laid)
    stack = run.stacks.get(own.name)
    return WallDrawn(
        id=wall.id, mark=wall.mark, length=own.length / _M, left=wall.left, right=wall.right, off=wall.off / _M,
        stack=None if stack is None else stack / _M, outline=tuple((x / _M, y / _M) for x, y in run.raked),
        courses=tuple(_course(one) for one in courses), bucks=tuple(_bucks(building, of, n, fins)),
        single=sum(each.webs < TWO_WEBS for one in courses for each in one.blocks),
    )  # fmt: skip


def _course(one: DrawnCourse) -> CourseDrawn:
    return CourseDrawn(
        low=one.of.bottom / _M, high=one.of.top / _M, half=one.of.half, ripped=one.ripped, left=one.left / _M,
        right=one.right / _M, left_hand=one.left_hand, right_hand=one.right_hand,
        bond=None if one.bond is None else one.bond / _M,
        blocks=tuple(BlockDrawn(u0=each.x0 / _M, u1=each.x1 / _M, webs=each.webs, cut=each.cut) for each in one.blocks),
    )  # fmt: skip


def _bucks(building: MeasuredBuilding, of: FormRun, n: int, fins: Collection[str]) -> Iterator[BuckDrawn]:
    over = {one.opening: one for one in lintels(of.run, n, building.forms.bearing * _M)}
    ids = {one.name: key for key, one in zip(
        of.walls[n].openings, [each for each in of.run.openings if each.wall == of.run.walls[n].name], strict=True
    )}  # fmt: skip
    for one in of.run.of(n):
        lintel = over.get(one.name)
        yield BuckDrawn(
            id=ids[one.name], mark=one.name, u=one.x / _M, v=one.y / _M, w=one.w / _M, h=one.h / _M,
            lintel_u0=None if lintel is None else lintel.x0 / _M, lintel_u1=None if lintel is None else lintel.x1 / _M,
            lintel=None if lintel is None else lintel.height / _M, above=0 if lintel is None else lintel.courses,
            fin=ids[one.name] in fins,
        )  # fmt: skip


def _cast(building: MeasuredBuilding, runs: Sequence[FormRun]) -> Iterator[CastRow]:
    """Course by course and lift by lift; each buck with its anchors, the sill that stands on the top with its own."""
    for run in runs:
        pour = poured(run, building.pour)
        for n, wall in enumerate(run.walls):
            length = run.run.walls[n].length / _M
            for one in (each for each in building.forms.cast if each.wall == wall.id):
                yield _row(run, pour, wall.id, wall.mark, one, one.at or _spread(one, length))


def _spread(one: CastIn, length: float) -> tuple[float, ...]:
    """Evenly, none farther from the next than the spacing."""
    step = one.spacing or length
    count = max(1, -int(-(length - _NEAR) // step))
    return tuple((n + 0.5) * length / count for n in range(count))


def _row(run: FormRun, pour: Poured, wall: str, mark: str, one: CastIn, at: tuple[float, ...]) -> CastRow:
    z = min(one.z, run.run.height / _M)
    course = next((n for n, each in enumerate(run.run.courses(), 1) if z * _M <= each.top + 1e-6), 0)
    lift = next((n for n, each in enumerate(pour.lifts, 1) if z <= each.high + 1e-9), 0)
    return CastRow(wall=wall, mark=mark, kind=one.kind, name=one.name, z=one.z, course=course, lift=lift, at=at,
                   by=one.by)  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class BuckMove:
    """An opening moved to where its wall comes out better."""

    opening: str
    mark: str
    by: float  #: to the right; to the left is below nought [m]
    single: int  #: changes of pieces that fewer than two webs hold, of pieces and of cuts
    pieces: int
    cuts: int


def better_bucks(project: Project, building_id: str, wall: str) -> tuple[BuckMove, ...]:
    """Where each opening of a wall would stand better: on the webs of its left or right edge, three of them at most."""
    building = shaped(project, building_id)
    run, n = _wall(runs_of(project, building), wall)
    now = lay(run.run, n, _DRAG)
    found = list[BuckMove]()
    before = None if isinstance(now, NoLaying) else _value(run, n, now)
    for key, one in zip(run.walls[n].openings, run.run.of(n), strict=True):
        best: tuple[tuple[int, int, int], float] | None = None
        for by in _tries(run, n, one.x, one.right):
            others = tuple(each if each is not one else replace(one, x=one.x + by) for each in run.run.openings)
            moved = with_openings(run, others, building.forms)
            try:
                check_run(moved.run)
            except DomainError:
                continue
            laid = lay(moved.run, n, _DRAG)
            if not isinstance(laid, NoLaying):
                value = _value(moved, n, laid)
                if best is None or (value, abs(by)) < (best[0], abs(best[1])):
                    best = (value, by)
        if best is not None and (before is None or best[0] < before):
            was = before or (0, 0, 0)
            found.append(BuckMove(opening=key, mark=one.name, by=best[1] / _M, single=best[0][0] - was[0],
                                  pieces=best[0][1] - was[1], cuts=best[0][2] - was[2]))  # fmt: skip
    return tuple(found)


def _value(run: FormRun, n: int, laid: Laid) -> tuple[int, int, int]:
    blocks = [each for one in courses_drawn(run.run, n, laid) for each in one.blocks]
    return sum(one.webs < TWO_WEBS for one in blocks), len(blocks), sum(one.cut for one in blocks)


def _tries(run: FormRun, n: int, a: float, b: float) -> list[float]:
    """Moves that put an edge on the web grid, the shortest first."""
    step, start = run.run.block.increment, run.run.legs(n, 0).left
    found = set[float]()
    for edge in (a, b):
        nearest = round((edge - start) / step)
        for k in range(nearest - 3, nearest + 4):
            by = round(start + k * step - edge, 2)
            if abs(by) > _NEAR:
                found.add(by)
    return sorted(found, key=abs)
