"""A run of walls to be laid in courses of blocks: its corners with their legs, its openings and stack joints. mm."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from nimble_shell.core.errors import Collector, Path
from nimble_shell.core.quantities.sentence import sentence

NEAR = 1e-6
_CLOSES = 1.0  #: within what a closed run closes
Turn = Literal["out", "in"]
Hand = Literal["left", "right"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Block:
    """A straight block, and the legs of a corner block."""

    length: float
    height: float
    half_height: float | None
    thickness: float
    increment: float  #: of the web grid that it is cut on
    min_cut: float
    long: float
    short: float


@dataclass(frozen=True, slots=True, kw_only=True)
class RunWall:
    """Left to right as seen from outside, along the outer face."""

    name: str
    length: float
    turn: Turn | None  #: of the corner at its right end; None at the end of an open run


@dataclass(frozen=True, slots=True, kw_only=True)
class WallOpening:
    """A concrete opening, from the left end of its wall and from the footing."""

    name: str
    wall: str
    x: float
    y: float
    w: float
    h: float

    @property
    def right(self) -> float:
        return self.x + self.w

    @property
    def top(self) -> float:
        return self.y + self.h


@dataclass(frozen=True, slots=True)
class Course:
    """One of them, from the footing."""

    index: int
    bottom: float
    top: float
    half: bool


@dataclass(frozen=True, slots=True)
class Legs:
    """What corner blocks take of a wall in a course; nought at a free end."""

    left: float
    right: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Run:
    """Walls with all that is known of them."""

    block: Block
    bond: float  #: least distance of joints from one course to the next
    height: float
    first_long: Literal["before", "after"]
    closed: bool
    walls: tuple[RunWall, ...]
    openings: tuple[WallOpening, ...] = ()
    stacks: Mapping[str, float] = field(default_factory=dict)  #: of walls whose courses all have a joint at one place
    webs: bool = False  #: whether pieces that fewer than two webs hold are as few as can be, after pieces and cuts
    raked: tuple[tuple[float, float], ...] = ()  #: of a gable on its own: its outline, which courses are cut to

    @property
    def key(self) -> tuple[object, ...]:
        """All of it, as what is kept of a run is found by."""
        return (self.block, self.bond, self.height, self.first_long, self.closed, self.walls, self.openings,
                tuple(sorted(self.stacks.items())), self.webs, self.raked)  # fmt: skip

    @property
    def ripped(self) -> float:
        """Height that the last course is ripped to; nought where none is."""
        left = self._left
        half = self.block.half_height
        return 0.0 if half is not None and abs(left - half) <= NEAR else left

    @property
    def _left(self) -> float:
        left = self.height - self._whole * self.block.height
        return 0.0 if left <= NEAR else left

    @property
    def _whole(self) -> int:
        return math.floor(self.height / self.block.height + NEAR)

    def courses(self) -> tuple[Course, ...]:
        """Whole ones, and a half or a ripped one on top where something is left."""
        high = self.block.height
        found = [Course(n, n * high, (n + 1) * high, half=False) for n in range(self._whole)]
        if self._left:
            found.append(Course(self._whole, self._whole * high, self.height, half=not self.ripped))
        return tuple(found)

    def corners(self) -> Iterator[tuple[int, int, Turn]]:
        """Wall before, wall after, and which way the run turns."""
        for n, wall in enumerate(self.walls):
            if wall.turn is not None:
                yield n, (n + 1) % len(self.walls), wall.turn

    def long_before(self, course: int) -> bool:
        """Whether the long legs lie on the walls before their corners."""
        return (course % 2 == 0) == (self.first_long == "before")

    def hand(self, course: int, turn: Turn) -> Hand:
        """Of a corner block, seen from its own convex side."""
        return "left" if self.long_before(course) == (turn == "out") else "right"

    def legs(self, wall: int, course: int) -> Legs:
        """On the outer face of a wall."""
        left = right = 0.0
        for before, after, turn in self.corners():
            less = self.block.thickness if turn == "in" else 0.0
            first, second = (self.block.long, self.block.short) if self.long_before(course) else (
                self.block.short, self.block.long)  # fmt: skip
            if before == wall:
                right = first - less
            if after == wall:
                left = second - less
        return Legs(left, right)

    def at(self, y: float) -> tuple[float, float] | None:
        """From where to where a gable reaches at a height; None above it."""
        crossings = list[float]()
        for (x0, y0), (x1, y1) in zip(self.raked, (*self.raked[1:], self.raked[0]), strict=True):
            if min(y0, y1) - NEAR <= y <= max(y0, y1) + NEAR:
                crossings += [x0, x1] if abs(y1 - y0) <= NEAR else [x0 + (x1 - x0) * (y - y0) / (y1 - y0)]
        return (min(crossings), max(crossings)) if crossings else None

    def of(self, wall: int) -> list[WallOpening]:
        """Openings of a wall, left to right."""
        return sorted((one for one in self.openings if one.wall == self.walls[wall].name), key=lambda one: one.x)


def check_run(run: Run) -> None:
    """Refuse what is no run. Raises DomainError."""
    check, block = Collector(), run.block
    grids: tuple[tuple[Path, float], ...] = (
        (("block", "length"), block.length), (("block", "corner", "long"), block.long - block.short),
    )  # fmt: skip
    for path, value in grids:
        steps = value / block.increment
        said = sentence(f"{{v}} is {steps:.4g} increments of {{w}}", v=(value / 1000, "length"),
                        w=(block.increment / 1000, "length"))  # fmt: skip
        check.check(abs(steps - round(steps)) <= NEAR, path, "off_the_grid", said, "a whole number of them")
    check.check(block.min_cut <= block.length + NEAR, ("block", "min_cut"), "out_of_range",
                sentence("{v}", v=(block.min_cut / 1000, "length")), "no longer than a block")  # fmt: skip
    _check_walls(check, run)
    at = {one.name: n for n, one in enumerate(run.walls)}
    longest = [max(run.legs(n, course).left for course in (0, 1)) for n in range(len(run.walls))]
    shortest = [max(run.legs(n, course).right for course in (0, 1)) for n in range(len(run.walls))]
    for n, one in enumerate(run.openings):
        where: Path = ("openings", n)
        if one.wall not in at:
            check.check(False, (*where, "wall"), "unknown_name", f"there is no wall “{one.wall}”", "one of the walls")
            continue
        wall = at[one.wall]
        inside = one.x >= longest[wall] - NEAR and one.right <= run.walls[wall].length - shortest[wall] + NEAR
        check.check(inside, (*where, "x"), "in_a_corner",
                    sentence(f"“{one.name}” from {{a}} to {{b}} comes into the leg of a corner block",
                             a=(one.x / 1000, "length"), b=(one.right / 1000, "length")),
                    "clear of the longest legs")  # fmt: skip
        check.check(one.top <= run.height + NEAR, (*where, "h"), "out_of_range",
                    sentence(f"“{one.name}” ends at {{v}}", v=(one.top / 1000, "length")),
                    "no higher than the wall")  # fmt: skip
        stack = run.stacks.get(one.wall)
        check.check(stack is None or not one.x - NEAR <= stack <= one.right + NEAR, where, "meets_a_stack_joint",
                    sentence(f"“{one.name}” meets the stack joint at {{v}}", v=((stack or 0.0) / 1000, "length")),
                    "clear of it")  # fmt: skip
        for other in run.openings[:n]:
            apart = (other.wall != one.wall or other.right <= one.x + NEAR or one.right <= other.x + NEAR
                     or other.top <= one.y + NEAR or one.top <= other.y + NEAR)  # fmt: skip
            check.check(apart, where, "openings_meet", f"“{one.name}” meets “{other.name}”", "openings lie apart")
    check.refuse()


def _check_walls(check: Collector, run: Run) -> None:
    names = [one.name for one in run.walls]
    for n, one in enumerate(run.walls):
        last = n == len(run.walls) - 1
        check.check(one.name not in names[:n], ("run", "walls", n, "name"), "name_twice",
                    f"“{one.name}” is there twice", "another name")  # fmt: skip
        free = one.turn is None
        check.check(free == (last and not run.closed), ("run", "walls", n, "turn"), "turn",
                    "no corner" if free else f"“{one.turn}”",
                    "null at the end of an open run, and nowhere else")  # fmt: skip
    for name, x in run.stacks.items():
        wall = next((one for one in run.walls if one.name == name), None)
        check.check(
            wall is not None, ("stack_joints",), "unknown_name", f"there is no wall “{name}”", "one of the walls"
        )
        check.check(wall is None or 0 < x < wall.length, ("stack_joints",), "out_of_range",
                    sentence("a joint at {v}", v=(x / 1000, "length")), "within its wall")  # fmt: skip
    if run.closed and all(one.turn is not None for one in run.walls):
        x, y, turned = _walked(run.walls)
        check.check(math.hypot(x, y) <= _CLOSES and turned == 4, ("run", "walls"), "does_not_close",
                    sentence(f"its end lies {{v}} from its beginning, after {turned} turns",
                             v=(math.hypot(x, y) / 1000, "length")),
                    sentence("lengths that close within {v}", v=(_CLOSES / 1000, "length")))  # fmt: skip


def _walked(walls: Sequence[RunWall]) -> tuple[float, float, int]:
    """Where the run ends, and how often it has turned to the left."""
    x = y = 0.0
    way, turned = (1, 0), 0
    for one in walls:
        x, y = x + way[0] * one.length, y + way[1] * one.length
        left = one.turn == "out"
        way = (-way[1], way[0]) if left else (way[1], -way[0])
        turned += 1 if left else -1
    return x, y, turned
