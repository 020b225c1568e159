"""A laid wall as somebody sees it: courses with their corner blocks, pieces with their webs, bond bed by bed, lintels.

Lengths in mm from the wall's left end and its foot.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from nimble_shell.core.setout.courses.laying import Laid, webs_between
from nimble_shell.core.setout.courses.run import NEAR, Course, Hand, Run, WallOpening


@dataclass(frozen=True, slots=True)
class Block:
    """A straight piece."""

    x0: float
    x1: float
    webs: int
    cut: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawnCourse:
    """A course of a wall."""

    of: Course
    ripped: bool
    left: float  #: leg of the corner block at the left end; nought without one
    right: float
    left_hand: Hand | None
    right_hand: Hand | None
    blocks: tuple[Block, ...]
    bond: float | None  #: least distance from joints of the course below; None where there is nothing to compare


@dataclass(frozen=True, slots=True)
class Lintel:
    """Of an opening: concrete and bars above it."""

    opening: str
    x0: float
    x1: float
    y: float  #: of its underside
    height: float
    courses: int  #: whole ones above the opening


def courses_drawn(run: Run, wall: int, laid: Laid) -> list[DrawnCourse]:
    """Of a wall, from below."""
    hands = {(before if side == "right" else after, side): turn
             for before, after, turn in run.corners() for side in ("left", "right")}  # fmt: skip
    found, below = list[DrawnCourse](), list[float]()
    for course, pieces in zip(run.courses(), laid.courses, strict=True):
        legs = run.legs(wall, course.index)
        start, end = legs.left, run.walls[wall].length - legs.right
        blocks = tuple(
            Block(a, b, webs_in(run, wall, start, end, a, b), b - a < run.block.length - NEAR) for a, b in pieces
        )
        joints = _joints(run, wall, course, blocks, start, end)
        bond = min((abs(a - b) for a in joints for b in below), default=None)
        left, right = hands.get((wall, "left")), hands.get((wall, "right"))
        found.append(DrawnCourse(
            of=course, ripped=bool(run.ripped) and course.index == run.courses()[-1].index,
            left=legs.left, right=legs.right, blocks=blocks, bond=bond,
            left_hand=None if left is None else run.hand(course.index, left),
            right_hand=None if right is None else run.hand(course.index, right),
        ))  # fmt: skip
        below = joints
    return found


def webs_in(run: Run, wall: int, start: float, end: float, a: float, b: float) -> int:
    """Webs of a piece, on the grid of its side of a stack joint."""
    stack = run.stacks.get(run.walls[wall].name)
    step = run.block.increment
    origin = (end if stack is not None and a >= stack - NEAR else start) if not run.raked else 0.0
    return webs_between(a, b, origin, step)


def _joints(run: Run, wall: int, course: Course, blocks: Sequence[Block], start: float, end: float) -> list[float]:
    """Between straight pieces, and ends of legs that meet one; not stack joints, edges of openings, free ends."""
    stack = run.stacks.get(run.walls[wall].name)
    edges = [x for one in run.of(wall) if one.y <= course.bottom + NEAR and one.top >= course.top - NEAR
             for x in (one.x, one.right)]  # fmt: skip
    inner = [one.x1 for one, following in pairwise(blocks) if abs(one.x1 - following.x0) <= NEAR]
    legs = run.legs(wall, course.index)
    ends = [x for x, leg in ((start, legs.left), (end, legs.right)) if leg > 0]
    apart = [] if stack is None else [stack]
    return [x for x in (*inner, *ends) if all(abs(x - one) > NEAR for one in (*edges, *apart))]


def lintels(run: Run, wall: int, bearing: float) -> list[Lintel]:
    """Over each opening that does not reach the top, as far as there is wall to bear on."""
    return [_lintel(run, wall, one, bearing) for one in run.of(wall) if run.height - one.top > NEAR]


def _lintel(run: Run, wall: int, one: WallOpening, bearing: float) -> Lintel:
    above = sum(course.bottom >= one.top - NEAR for course in run.courses())
    return Lintel(one.name, max(0.0, one.x - bearing), min(run.walls[wall].length, one.right + bearing), one.top,
                  run.height - one.top, above)  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class SiteCorners:
    """What corners need that are cut and foamed on site in the place of factory blocks."""

    corners: int
    pieces: int  #: cut to a mitre
    blocks: int  #: that they come out of
    foam: float  #: bead along both panels of each mitre [mm]
    strong_backs: int  #: uprights, one on each side of a corner
    holds: int  #: against uplift: one at each corner and lift of courses


def site_corners(run: Run, bought: int) -> SiteCorners:
    """Of a run: each corner block becomes two straight pieces that are cut at a mitre.

    Parameters
    ----------
    bought : int
        Blocks that all of these pieces come out of.
    """
    corners, courses = len(list(run.corners())), run.courses()
    return SiteCorners(corners=corners, pieces=2 * corners * len(courses), blocks=bought,
                       foam=2 * corners * run.height, strong_backs=2 * corners,
                       holds=corners * math.ceil(len(courses) / 4))  # fmt: skip
