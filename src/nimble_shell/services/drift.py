"""The drift sheet: foam blocks against rigid sheets, wall by wall, and the footing as it was levelled. In m."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.courses.choices import FormChoices
from nimble_shell.core.setout.courses.form_runs import FormRun
from nimble_shell.core.setout.drift import Mended
from nimble_shell.core.shell.coursed import runs_of
from nimble_shell.core.shell.drifting import WallDrift, blocks_along, drift_of
from nimble_shell.core.shell.project import Project
from nimble_shell.services.simulated_tape import block_reading
from nimble_shell.services.whole_shell import shaped

_M, _NEAR = 1000.0, 1e-9


@dataclass(frozen=True, slots=True, kw_only=True)
class Trim:
    """Off a sheet; `left` is how long it is then."""

    sheet: int  #: from 1
    off: float
    left: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Rasp:
    """Off a block."""

    course: int  #: from 1
    block: int  #: from 1
    off: float


@dataclass(frozen=True, slots=True, kw_only=True)
class DriftWall:
    """A wall of a one-sided form."""

    id: str
    mark: str
    blocks: int
    courses: tuple[tuple[float, ...], ...]  #: as measured
    sheets: tuple[float, ...]  #: as measured, or nominal
    before: tuple[tuple[float, ...], ...]  #: drift at each joint of whole courses, sheets over nominal cut
    begun: tuple[float, ...]
    after: tuple[tuple[float, ...], ...]  #: none where nothing brings it back
    to_nominal: tuple[Trim, ...]
    trims: tuple[Trim, ...]
    rasps: tuple[Rasp, ...]
    back: tuple[Trim, ...]  #: that bring each joint back to nought
    worst: float  #: left alone
    tie: float  #: out of square, left alone [°]
    tie_after: float | None
    can: bool  #: whether anything brings it back
    proved: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class FootingWall:
    """What is under the first course of a wall."""

    id: str
    mark: str
    length: float
    base: float  #: height of its foot in the building
    high: float | None  #: highest place levelled; None where nothing is
    low: float | None
    packing: float | None  #: under the first course at its lowest place
    platform: float  #: top of the working platform above the foot
    moves: int  #: that it is moved up until the top can be reached


@dataclass(frozen=True, slots=True, kw_only=True)
class DriftSheet:
    """Of a building."""

    choices: FormChoices
    walls: tuple[DriftWall, ...]
    footing: tuple[FootingWall, ...]
    stand_offs: float  #: of the sheets' lower edge from the footing: the least that the levels ask
    worn: bool  #: whether the sheets have seen all the uses they are good for


_STAND_OFF = 0.010  #: under sheets, so that they come off [m]


def drift_sheet(project: Project, building_id: str) -> DriftSheet:
    """Drift and levels of a building. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    runs, choices = runs_of(project, building), building.forms
    walls = tuple(
        _wall(run, n, drift_of(run, n, choices), choices)
        for run in runs if run.form.one_sided and not run.gable for n in range(len(run.walls))
    )  # fmt: skip
    footing = tuple(_footing(run, n, choices) for run in _lowest(runs) for n in range(len(run.walls)))
    spread = [one.high - one.low for one in footing if one.high is not None and one.low is not None]
    return DriftSheet(choices=choices, walls=walls, footing=footing,
                      stand_offs=_STAND_OFF + max(spread, default=0.0),
                      worn=choices.sheet_uses >= choices.sheet_most)  # fmt: skip


def _lowest(runs: Sequence[FormRun]) -> list[FormRun]:
    """Those that stand on a footing: no other run of the same sides lies below."""

    def sides(run: FormRun) -> set[tuple[str, ...]]:
        return {tuple(one.id.split(".")[:2]) for one in run.walls}

    return [run for run in runs if not run.gable
            and not any(sides(run) & sides(other) and other.base < run.base - _NEAR for other in runs)]  # fmt: skip


def _wall(run: FormRun, n: int, found: WallDrift, choices: FormChoices) -> DriftWall:
    case, mended = found.case, found.mended
    read = choices.read_of(found.wall)
    sheets = tuple(case.sheets if case else (choices.block * _M,) * found.blocks)
    cut = case.cut if case else ()
    return DriftWall(
        id=found.wall, mark=run.walls[n].mark, blocks=found.blocks, courses=read.courses if read else (),
        sheets=tuple(one / _M for one in sheets), before=_rows(case.before if case else ()),
        begun=tuple(one / _M for one in found.begun), after=_rows(mended.after if mended else ()),
        to_nominal=_trims(cut, sheets), trims=_trims(mended.trims if mended else (), _faced(sheets, cut)),
        rasps=_rasps(mended), back=_trims(found.back, _faced(sheets, cut)), worst=found.worst / _M,
        tie=math.degrees(math.atan(found.worst / ((run.form.thickness + choices.sheet) * _M))),
        tie_after=mended.worst_tie(case.thickness) if mended and case else None, can=mended is not None or case is None,
        proved=mended.proved if mended else True,
    )  # fmt: skip


def _rows(rows: Sequence[Sequence[float]]) -> tuple[tuple[float, ...], ...]:
    return tuple(tuple(one / _M for one in row) for row in rows)


def _faced(sheets: Sequence[float], cut: Sequence[float]) -> list[float]:
    return [one - off for one, off in zip(sheets, cut, strict=True)] if cut else list(sheets)


def _trims(off: Sequence[float], sheets: Sequence[float]) -> tuple[Trim, ...]:
    return tuple(Trim(sheet=n, off=one / _M, left=(long - one) / _M)
                 for n, (one, long) in enumerate(zip(off, sheets, strict=bool(off)), 1) if one > _NEAR)  # fmt: skip


def _rasps(mended: Mended | None) -> tuple[Rasp, ...]:
    rows = mended.rasps if mended else ()
    return tuple(Rasp(course=c, block=n, off=one / _M) for c, row in enumerate(rows, 1)
                 for n, one in enumerate(row, 1) if one > _NEAR)  # fmt: skip


def _footing(run: FormRun, n: int, choices: FormChoices) -> FootingWall:
    wall = run.walls[n]
    levels = [one.z for one in choices.levels if one.wall == wall.id]
    high, low = max(levels, default=None), min(levels, default=None)
    top = run.run.height / _M
    return FootingWall(
        id=wall.id, mark=wall.mark, length=run.run.walls[n].length / _M, base=run.base, high=high, low=low,
        packing=None if high is None or low is None else high - low, platform=choices.platform,
        moves=max(0, math.ceil((top - _REACH) / choices.platform - _NEAR)),
    )  # fmt: skip


_REACH = 1.6  #: that somebody fills and looks into a form from where he stands [m]


def read_block(project: Project, building_id: str, wall: str, course: int, at: int) -> float:
    """What the simulated tape reads of a block, all from 0. Raises DomainError, NotFound. [m]"""
    building = shaped(project, building_id)
    for run in runs_of(project, building):
        for n, one in enumerate(run.walls):
            if one.id == wall and run.form.one_sided and at < blocks_along(run, n):
                return block_reading(wall, course, at, building.forms.block * _M) / _M
    raise DomainError(Issue(path=("wall",), code="unknown_block", message=f"there is no block {at + 1} on “{wall}”",
                            hint="a block of a one-sided wall"))  # fmt: skip
