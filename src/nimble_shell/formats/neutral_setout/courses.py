"""Courses of the neutral set-out case: blocks of insulated concrete forms on a run of walls."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector
from nimble_shell.core.setout.courses.courses import Coursed, lay_run
from nimble_shell.core.setout.courses.laying import NoLaying
from nimble_shell.core.setout.courses.run import NEAR, Block, Run, RunWall, WallOpening
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive
from nimble_shell.formats.strict import Strict

_MOST_COURSES, _MOST_PLACES = 200, 5000


class CornerCase(Strict):
    long: Positive
    short: Positive


class BlockCase(Strict):
    length: Positive
    height: Positive
    half_height: Positive | None
    thickness: Positive
    increment: Positive
    min_cut: Positive
    corner: CornerCase


class WallCase(Strict):
    name: str
    length: Positive
    turn: Literal["out", "in"] | None


class RunCase(Strict):
    closed: bool
    walls: Annotated[list[WallCase], Field(min_length=1, max_length=500)]


class OpeningCase(Strict):
    name: str
    wall: str
    x: NotNegative
    y: NotNegative
    w: Positive
    h: Positive


class StackCase(Strict):
    wall: str
    x: Positive


class CoursesCase(Strict):
    kind: Literal["courses"] = "courses"
    block: BlockCase
    bond: NotNegative
    height: Positive
    first_long: Literal["before", "after"]
    run: RunCase
    openings: Annotated[list[OpeningCase], Field(max_length=2000)]
    stack_joints: Annotated[list[StackCase], Field(max_length=500)]


def compute(case: CoursesCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    run = _run(case)
    found = lay_run(run)
    if isinstance(found, NoLaying):
        return {"status": "infeasible", "reason": found.reason}
    return _answer(run, found)


def _run(case: CoursesCase) -> Run:
    check, given = Collector(), case.block
    names = [one.wall for one in case.stack_joints]
    for at, name in enumerate(names):
        check.check(name not in names[:at], ("stack_joints", at), "told_twice", f"two stack joints on “{name}”",
                    "at most one on a wall")  # fmt: skip
    check.check(case.height / given.height <= _MOST_COURSES, ("height",), "too_many",
                f"{case.height / given.height:.3g} courses", f"at most {_MOST_COURSES}")  # fmt: skip
    longest = max(one.length for one in case.run.walls)
    check.check(longest / given.increment <= _MOST_PLACES, ("block", "increment"), "too_fine",
                f"{longest / given.increment:.3g} places for joints", f"at most {_MOST_PLACES}")  # fmt: skip
    told = [one.name for one in case.openings]
    for at, name in enumerate(told):
        check.check(name not in told[:at], ("openings", at, "name"), "name_twice", f"“{name}” is there twice",
                    "another name")  # fmt: skip
    check.refuse()
    return Run(
        block=Block(length=given.length, height=given.height, half_height=given.half_height, thickness=given.thickness,
                    increment=given.increment, min_cut=given.min_cut, long=given.corner.long, short=given.corner.short),
        bond=case.bond, height=case.height, first_long=case.first_long, closed=case.run.closed,
        walls=tuple(RunWall(name=one.name, length=one.length, turn=one.turn) for one in case.run.walls),
        openings=tuple(WallOpening(name=one.name, wall=one.wall, x=one.x, y=one.y, w=one.w, h=one.h)
                       for one in case.openings),
        stacks={one.wall: one.x for one in case.stack_joints},
    )  # fmt: skip


def _answer(run: Run, found: Coursed) -> dict[str, Any]:
    courses, whole, half = run.courses(), found.whole, found.half
    halves = sum(one.half for one in courses)
    return {
        "status": "optimal" if found.proved else "feasible",
        "bound": found.pieces if found.proved else found.bound,
        "objective": {"pieces": found.pieces, "cuts": found.cuts, "bought": found.bought},
        "walls": [
            {"name": wall.name, "courses": [[list(piece) for piece in course] for course in laid.courses]}
            for wall, laid in zip(run.walls, found.walls, strict=True)
        ],
        "counts": {
            "courses": len(courses) - halves - (1 if run.ripped else 0), "half_courses": halves,
            "ripped_mm": run.ripped, "left": whole.left, "right": whole.right, "half_left": half.left,
            "half_right": half.right, "full": whole.full, "half_full": half.full, "cut": whole.cut,
            "half_cut": half.cut, "bought": whole.bought, "half_bought": half.bought,
        },
        "offcut_mm": found.offcut,
        "openings": [
            {"name": one.name, "lintel_mm": run.height - one.top,
             "courses_above": sum(each.bottom >= one.top - NEAR for each in courses)}
            for one in run.openings
        ],
    }  # fmt: skip
