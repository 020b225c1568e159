"""What a designer decides of insulated concrete forms: the block, its corners and bucks, stack joints, what is read of
blocks and footing, and what is cast in. Courses are results; only this is stored. Lengths in m.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

MOST_READ, MOST_COURSES, MOST_ENTERED = 400, 60, 500
MISREAD = 0.05  #: a reading that is farther off a block is none of it [m]
CornerSchool = Literal["factory", "site"]
CastKind = Literal["hanger", "sleeve", "strap", "dowel", "buck anchor", "sill anchor", "service sleeve"]


def within(check: Collector, name: str, value: float, least: float, most: float) -> None:
    """Refuse a length that none of a form is."""
    check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "length")),
                sentence("{a} to {b}", a=(least, "length"), b=(most, "length")))  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class StackJoint:
    """Where all courses of a wall have a joint over one another."""

    wall: str  #: of a run
    u: float  #: from the wall's left end, seen from outside


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadBlocks:
    """Blocks of a one-sided form as they were measured, course by course, and the rigid sheets before them."""

    wall: str
    courses: tuple[tuple[float, ...], ...] = ()  #: from below, left to right; the last may be begun only
    sheets: tuple[float, ...] = ()  #: as long as a block where none was measured

    def __post_init__(self) -> None:
        check = Collector()
        check.check(len(self.courses) <= MOST_COURSES, ("courses",), "too_many", f"{len(self.courses)} courses",
                    f"at most {MOST_COURSES}")  # fmt: skip
        for at, row in (*enumerate(self.courses), (-1, self.sheets)):
            place = ("sheets",) if at < 0 else ("courses", at)
            check.check(len(row) <= MOST_READ, place, "too_many", f"{len(row)} readings", f"at most {MOST_READ}")
            for n, one in enumerate(row):
                check.check(0.05 <= one <= 5, (*place, n), "out_of_range", sentence("{v}", v=(one, "length")),
                            sentence("{a} to {b}", a=(0.05, "length"), b=(5.0, "length")))  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class FootingLevel:
    """The footing's top as it was levelled, above where it is drawn."""

    wall: str
    u: float
    z: float  #: above nought is too high

    def __post_init__(self) -> None:
        check = Collector()
        within(check, "z", self.z, -0.5, 0.5)
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class CastIn:
    """What is set before the pour and cast in, as somebody specified it: at places, or at a spacing along a wall."""

    kind: CastKind = "hanger"
    name: str = ""
    wall: str = ""
    z: float = 0.0  #: above the foot of the wall
    at: tuple[float, ...] = ()
    spacing: float | None = None
    by: str = ""  #: who specified it

    def __post_init__(self) -> None:
        check = Collector()
        check.check((self.spacing is None) == bool(self.at), ("spacing",), "places_unclear",
                    f"{len(self.at)} places and {'no' if self.spacing is None else 'a'} spacing",
                    "places along the wall, or a spacing")  # fmt: skip
        if self.spacing is not None:
            within(check, "spacing", self.spacing, 0.05, 10.0)
        within(check, "z", self.z, 0.0, 60.0)
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class FormChoices:
    """Of a building."""

    block: float = 1.2  #: length of a block
    height: float = 0.3  #: of a course
    half: float | None = 0.15  #: height of half blocks; None where none are made
    web: float = 0.2  #: spacing of webs, that blocks are cut on
    min_cut: float = 0.2  #: shortest piece
    long: float = 0.8  #: leg of a corner block along the outer face
    short: float = 0.4
    bond: float = 0.2  #: least distance of joints from one course to the next
    first_long: Literal["before", "after"] = "before"
    corners: CornerSchool = "factory"
    buck: float = 0.038  #: thickness of a buck
    shim: float = 0.010  #: on each side of a unit
    flashing: float = 0.003  #: on each side
    bearing: float = 0.2  #: of a lintel on either side of its opening
    counts: bool = False  #: whether webs and gaps of the thermal model are those of the courses
    gap_low: float = 0.005  #: leak of a foamed corner or a cut joint at 50 Pa, with the concrete behind [m³/(h·m)]
    gap_high: float = 0.05
    stacks: tuple[StackJoint, ...] = ()
    tolerance: float = 0.006  #: that ties hold square within
    step: float = 0.001  #: of a trim or a rasp
    max_trim: float = 0.030  #: off one sheet
    sheet: float = 0.018  #: thickness of the rigid sheet
    sheet_uses: int = 0  #: that the sheets have seen
    sheet_most: int = 20  #: that they are good for, as whoever makes them says
    platform: float = 1.2  #: height of a working platform
    read: tuple[ReadBlocks, ...] = ()
    levels: tuple[FootingLevel, ...] = ()
    cast: tuple[CastIn, ...] = ()

    @property
    def round_unit(self) -> float:
        """What a concrete opening is larger than its unit, on each side."""
        return self.buck + self.shim + self.flashing

    @property
    def laying(self) -> tuple[object, ...]:
        """What runs and their courses follow from: readings, levels and what is cast in change neither."""
        return (self.block, self.height, self.half, self.web, self.min_cut, self.long, self.short, self.bond,
                self.first_long, self.round_unit, self.stacks)  # fmt: skip

    def read_of(self, wall: str) -> ReadBlocks | None:
        """What was measured on a wall."""
        return next((one for one in self.read if one.wall == wall), None)

    def __post_init__(self) -> None:
        check = Collector()
        for name, least, most in (
            ("block", 0.3, 3.0), ("height", 0.1, 1.0), ("web", 0.05, 0.6), ("min_cut", 0.01, 2.0), ("long", 0.2, 3.0),
            ("short", 0.1, 3.0), ("bond", 0.0, 1.0), ("buck", 0.0, 0.2), ("shim", 0.0, 0.05), ("flashing", 0.0, 0.02),
            ("bearing", 0.0, 2.0), ("tolerance", 0.0, 0.05), ("step", 0.0005, 0.01), ("max_trim", 0.0, 0.3),
            ("sheet", 0.003, 0.1), ("platform", 0.3, 6.0),
        ):  # fmt: skip
            within(check, name, getattr(self, name), least, most)
        check.check(0 <= self.gap_low <= self.gap_high <= 100, ("gap_high",), "not_in_order",
                    f"{self.gap_low:g} to {self.gap_high:g}", "low, then high, from nought on")  # fmt: skip
        if self.half is not None:
            check.check(0.05 <= self.half < self.height, ("half",), "out_of_range",
                        sentence("{v}", v=(self.half, "length")),
                        sentence("lower than a course of {h}", h=(self.height, "length")))  # fmt: skip
        check.check(self.short < self.long, ("short",), "out_of_range", sentence("{v}", v=(self.short, "length")),
                    sentence("shorter than the long leg of {l}", l=(self.long, "length")))  # fmt: skip
        check.check(0 <= self.sheet_uses <= 10_000, ("sheet_uses",), "out_of_range", f"{self.sheet_uses} uses",
                    "0 to 10,000")  # fmt: skip
        check.check(1 <= self.sheet_most <= 10_000, ("sheet_most",), "out_of_range", f"{self.sheet_most} uses",
                    "1 to 10,000")  # fmt: skip
        for at, read in enumerate(self.read):
            for c, row in enumerate(read.courses):
                for n, one in enumerate(row):
                    check.check(abs(one - self.block) <= MISREAD, ("read", at, "courses", c, n), "no_such_block",
                                sentence("{v}, {d} off a block of {b}", v=(one, "length"), b=(self.block, "length"),
                                         d=(abs(one - self.block), "length")),
                                sentence("within {m}: read it again", m=(MISREAD, "length")))  # fmt: skip
        for name in ("stacks", "read", "levels", "cast"):
            count = len(getattr(self, name))
            check.check(count <= MOST_ENTERED, (name,), "too_many", f"{count} {name}", f"at most {MOST_ENTERED}")
        walls = [one.wall for one in self.stacks]
        for at, wall in enumerate(walls):
            check.check(wall not in walls[:at], ("stacks", at), "told_twice", f"two stack joints on “{wall}”",
                        "at most one on a wall")  # fmt: skip
        check.refuse()
