"""Straight blocks of one wall, course by course: fewest pieces, then fewest cuts, then cuts that share blocks."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Any, cast

import numpy as np

from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.setout.courses.run import NEAR, Course, Run

_WEIGHT = 10_000.0  #: of a piece against a cut: no wall has so many
_FEW = 1e-3  #: of a piece that fewer than two webs hold against a cut: no wall has a thousand
_MOST_PATTERNS = 4000
_MOST_SHARED = 6000  #: columns of all walls together
_SHORTEST = 0.5  #: that one wall by itself is given [s]
TWO_WEBS = 2  #: that hold a piece; one that has fewer is braced, or cut otherwise
Piece = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Laid:
    """Straight pieces of each course of a wall, left to right."""

    courses: tuple[tuple[Piece, ...], ...]
    proved: bool
    bound: int  #: no laying has fewer pieces


@dataclass(frozen=True, slots=True)
class NoLaying:
    """Why there is none."""

    reason: str


@dataclass(slots=True)
class _Row:
    """A course on the wall."""

    wall: int
    course: Course
    spans: list[tuple[float, float, float]]  #: from, to, and a place on its web grid
    fixed: list[float]  #: ends of legs
    free: list[list[float]] = field(default_factory=list)  #: places for joints in each span


def lay(run: Run, wall: int, seconds: float) -> Laid | NoLaying:
    """One wall of a run to the fewest pieces, then cuts: to the proven optimum, or to a bound where time runs out.

    Which cuts come out of one block is the matter of `share`.
    """
    rows = rows_of(run, wall)
    return rows if isinstance(rows, NoLaying) else _Programme(run, rows).solved(seconds)


def share(run: Run, walls: Sequence[Laid], seconds: float) -> tuple[Laid, ...]:
    """All walls laid once more, with as many pieces and cuts, so that these come out of as few blocks as they can.

    Where that is too much for all of them together, or is not proved in time, each is by itself, and stays as it is
    where that is too much as well.
    """
    together = _shared(run, walls, range(len(walls)), seconds)
    if together is not None and (together[1] or len(walls) == 1):
        return together[0]
    each = max(seconds / len(walls), _SHORTEST)
    return tuple(one for n, wall in enumerate(walls) for one in (_shared(run, [wall], [n], each) or ([wall],))[0])


def _shared(
    run: Run, walls: Sequence[Laid], numbers: Sequence[int], seconds: float
) -> tuple[tuple[Laid, ...], bool] | None:
    """Some walls of a run, and whether it is proved that no fewer blocks do; None where it is too much."""
    every = [row for n in numbers for row in cast("list[_Row]", rows_of(run, n))]
    programme = _Programme(run, every)
    if len(programme.pieces) > _MOST_SHARED:
        return None
    laid = [piece for wall in walls for course in wall.courses for piece in course]
    cuts = sum(b - a < run.block.length - NEAR for a, b in laid)
    found = programme.shared(len(laid), cuts, programme.few_of(walls), seconds)
    if found is None:
        return None
    courses, high = programme.courses(found[0]), len(every) // len(walls)
    shared = (replace(wall, courses=courses[n * high : (n + 1) * high]) for n, wall in enumerate(walls))
    return tuple(shared), found[1]


def rows_of(run: Run, wall: int) -> list[_Row] | NoLaying:
    """The courses of a wall with the places that joints may have."""
    rows = [_row(run, wall, course) for course in run.courses()]
    for one in rows:
        if isinstance(one, NoLaying):
            return one
    good = [one for one in rows if isinstance(one, _Row)]
    clash = _legs_clash(good, run.bond)
    if clash:
        return NoLaying(clash)
    for n, row in enumerate(good):
        near = [x for other in good[max(n - 1, 0) : n + 2] if other is not row for x in other.fixed]
        row.free = [
            [x for x in _grid(span, run) if all(abs(x - each) >= run.bond - NEAR for each in near)]
            for span in row.spans
        ]  # fmt: skip
    return good


def _row(run: Run, wall: int, course: Course) -> _Row | NoLaying:
    own, length = run.walls[wall], run.walls[wall].length
    legs = run.legs(wall, course.index)
    s, e, stack = legs.left, length - legs.right, run.stacks.get(own.name)
    if run.raked:
        return _raked(run, wall, course)
    name = f"course {course.index + 1} of “{own.name}”"
    if e < s - NEAR or (stack is not None and not s - NEAR <= stack <= e + NEAR):
        return NoLaying(f"{name}: its legs leave nothing to lay")
    steps = (e - s) / run.block.increment
    if stack is None and abs(steps - round(steps)) > NEAR:
        return NoLaying(sentence(f"{name}: {{v}} between its legs are no whole number of webs of {{w}} each; "
                                 "a stack joint would do",
                                 v=((e - s) / 1000, "length"), w=(run.block.increment / 1000, "length")))  # fmt: skip
    gaps = [(one.x, one.right) for one in run.of(wall)
            if one.y <= course.bottom + NEAR and one.top >= course.top - NEAR]  # fmt: skip
    spans = list[tuple[float, float, float]]()
    for a, b, grid in ((s, e, s),) if stack is None else ((s, stack, s), (stack, e, e)):
        x = a
        for left, right in [*(gap for gap in gaps if a - NEAR <= gap[0] and gap[1] <= b + NEAR), (b, b)]:
            if left - x > NEAR:
                spans.append((x, left, grid))
            x = right
    narrow = next(((a, b) for a, b, _ in spans if b - a < run.block.min_cut - NEAR), None)
    if narrow is not None:
        return NoLaying(sentence(f"{name}: {{v}} from {{a}} to {{b}} is narrower than the shortest piece, {{m}}",
                                 v=((narrow[1] - narrow[0]) / 1000, "length"), a=(narrow[0] / 1000, "length"),
                                 b=(narrow[1] / 1000, "length"), m=(run.block.min_cut / 1000, "length")))  # fmt: skip
    edges = [end for gap in gaps for end in gap]
    corners = [at for at, there in ((s, legs.left > 0), (e, legs.right > 0)) if there]
    fixed = [x for x in corners if all(abs(x - edge) > NEAR for edge in edges)]
    return _Row(wall, course, spans, fixed)


def _raked(run: Run, wall: int, course: Course) -> _Row:
    """A course of a gable: as wide as at its foot, on the web grid of the wall below; a tip comes out of an offcut."""
    a, b = run.at(course.bottom) or (0.0, 0.0)
    spans = [(a, b, 0.0)] if b - a >= run.block.min_cut - NEAR else []
    return _Row(wall, course, spans, [])


def _legs_clash(rows: Sequence[_Row], bond: float) -> str:
    for one, other in pairwise(rows):
        if any(abs(a - b) < bond - NEAR for a in one.fixed for b in other.fixed):
            return sentence(f"legs of courses {one.course.index + 1} and {other.course.index + 1} end within {{v}}",
                            v=(bond / 1000, "length"))  # fmt: skip
    return ""


def _grid(span: tuple[float, float, float], run: Run) -> Iterator[float]:
    """Places for joints that leave no piece too short at the ends of a span."""
    a, b, origin = span
    step, least = run.block.increment, run.block.min_cut
    first = math.ceil((a + least - origin) / step - NEAR)
    last = math.floor((b - least - origin) / step + NEAR)
    for k in range(first, last + 1):
        yield origin + k * step


def webs_between(a: float, b: float, origin: float, step: float) -> int:
    """Webs of a piece: they stand in the middle of each step of its grid."""
    first, last = (a - origin) / step - 0.5, (b - origin) / step - 0.5
    return max(0, math.floor(last - NEAR) - math.ceil(first + NEAR) + 1)


class _Programme:
    """Columns: a piece from one place to another of a span. A span is a way through its pieces."""

    def __init__(self, run: Run, rows: Sequence[_Row]) -> None:
        self.run, self.rows = run, rows
        self.pieces: list[tuple[int, float, float]] = []  #: row, from, to
        self.few: list[float] = []  #: 1 for each that fewer than two webs hold
        self.entries: list[tuple[int, int, float]] = []  #: row of the matrix, column, value
        self.lower: list[float] = []
        self.upper: list[float] = []
        self.into: list[dict[float, list[int]]] = [defaultdict(list) for _ in rows]
        for n, row in enumerate(rows):
            for (a, b, origin), places in zip(row.spans, row.free, strict=True):
                self._span(n, [a, *places, b], origin)

    def _span(self, n: int, places: list[float], origin: float) -> None:
        least, most = self.run.block.min_cut, self.run.block.length
        at = {x: len(self.lower) + k for k, x in enumerate(places)}
        for k, _ in enumerate(places):
            flow = -1.0 if k == 0 else 1.0 if k == len(places) - 1 else 0.0
            self.lower.append(flow)
            self.upper.append(flow)
        for i, a in enumerate(places):
            for b in places[i + 1 :]:
                if b - a > most + NEAR:
                    break
                if b - a >= least - NEAR:
                    column = len(self.pieces)
                    self.pieces.append((n, a, b))
                    self.few.append(float(webs_between(a, b, origin, self.run.block.increment) < TWO_WEBS))
                    self.entries += [(at[a], column, -1.0), (at[b], column, 1.0)]
                    if b != places[-1]:
                        self.into[n][b].append(column)

    def _bonded(self, n: int) -> None:
        """Joints of two courses keep apart: of those within a short stretch there is one at most."""
        both = sorted([(x, 0) for x in self.into[n]] + [(x, 1) for x in self.into[n + 1]])
        short = min(self.run.bond, self.run.block.min_cut)
        seen = set[tuple[tuple[float, int], ...]]()
        for k, (a, _) in enumerate(both):
            held = tuple(one for one in both[k:] if one[0] - a < short - NEAR)
            if len({side for _, side in held}) == 2 and held not in seen:
                seen.add(held)
                self._at_most_one(n, held)
        for a, side in both:
            for b, other in both:
                if side == 0 and other == 1 and short - NEAR <= abs(a - b) < self.run.bond - NEAR:
                    self._at_most_one(n, ((a, 0), (b, 1)))

    def _at_most_one(self, n: int, held: Sequence[tuple[float, int]]) -> None:
        row = len(self.lower)
        self.lower.append(-np.inf)
        self.upper.append(1.0)
        self.entries += [(row, column, 1.0) for x, side in held for column in self.into[n + side][x]]

    def solved(self, seconds: float) -> Laid | NoLaying:
        short, few = self._short(), np.array(self.few) * self.run.webs
        found = self._asked(_WEIGHT + short + _FEW * few, seconds)
        if found is None:
            return NoLaying("no joints of these courses keep the bond")
        x, proved, least = found
        pieces = round(float(x.sum()))
        bound = pieces if proved else max(0, math.ceil((least - float(len(self.pieces))) / _WEIGHT))
        return Laid(self.courses(x), proved, bound)

    def courses(self, chosen: np.ndarray) -> tuple[tuple[Piece, ...], ...]:
        """The pieces that are chosen, row by row."""
        return tuple(
            tuple((a, b) for column, (n, a, b) in enumerate(self.pieces) if n == row and chosen[column] > 0.5)
            for row in range(len(self.rows))
        )

    def few_of(self, walls: Sequence[Laid]) -> int:
        """Pieces of a laying that fewer than two webs hold."""
        rows = [row for wall in walls for row in wall.courses]
        held = {(n, a, b): few for (n, a, b), few in zip(self.pieces, self.few, strict=True)}
        return round(sum(held[n, a, b] for n, row in enumerate(rows) for a, b in row))

    def _short(self) -> np.ndarray:
        """Which pieces are cuts."""
        return np.array([b - a < self.run.block.length - NEAR for _, a, b in self.pieces], dtype=float)

    def _asked(
        self, wanted: np.ndarray, seconds: float, more: int = 0,
        rows: Sequence[tuple[np.ndarray, float, float]] = (),
    ) -> tuple[np.ndarray, bool, float] | None:  # fmt: skip
        """Least of a sum; `more` columns that need not be whole stand behind those of the pieces."""
        from scipy.optimize import Bounds, LinearConstraint, milp
        from scipy.sparse import csr_array, hstack, vstack

        for n, (row, above) in enumerate(pairwise(self.rows)):  # not before: of many pieces nothing is asked
            if row.wall == above.wall:
                self._bonded(n)
        count = len(self.pieces)
        if not count:
            empty = all(low <= 0 <= high for low, high in zip(self.lower, self.upper, strict=True))
            return (np.zeros(0), True, 0.0) if empty else None
        i, j, values = zip(*self.entries, strict=True)
        matrix: Any = csr_array((values, (i, j)), shape=(len(self.lower), count))
        lower, upper = list(self.lower), list(self.upper)
        if more:
            matrix = hstack([matrix, csr_array((len(self.lower), more))])
        if rows:
            matrix = vstack([matrix, csr_array(np.array([row for row, _, _ in rows]))])
            lower += [low for _, low, _ in rows]
            upper += [high for _, _, high in rows]
        whole = np.concatenate([np.ones(count, dtype=int), np.zeros(more, dtype=int)])
        top = np.concatenate([np.ones(count), np.full(more, np.inf)])
        found = milp(wanted, constraints=LinearConstraint(csr_array(matrix), lower, upper), integrality=whole,
                     bounds=Bounds(0, top), options={"time_limit": seconds, "mip_rel_gap": 0.0})  # fmt: skip
        if found.x is None:
            return None
        return np.round(found.x[:count]), found.status == 0, float(found.mip_dual_bound)

    def shared(self, pieces: int, cuts: int, few: int, seconds: float) -> tuple[np.ndarray, bool] | None:
        """As many pieces and cuts, out of the fewest blocks, as far as blocks may be shared by halves and thirds.

        Where webs count, no more pieces are held by fewer than two of them. With whether it is proved.
        """
        short = self._short()
        kinds: dict[tuple[bool, float], list[int]] = defaultdict(list)
        for column, (n, a, b) in enumerate(self.pieces):
            if short[column]:
                kinds[self.rows[n].course.half, round(b - a, 6)].append(column)
        if not cuts or not kinds:
            return None
        keys = list(kinds)
        patterns = [one for half in (False, True)
                    for one in patterns_of([key for key in keys if key[0] == half], self.run.block.length)]  # fmt: skip
        if len(patterns) > _MOST_PATTERNS:
            return None
        count, more = len(self.pieces), len(patterns)
        rows = [(np.concatenate([np.ones(count), np.zeros(more)]), float(pieces), float(pieces)),
                (np.concatenate([short, np.zeros(more)]), float(cuts), float(cuts))]  # fmt: skip
        if self.run.webs:
            rows.append((np.concatenate([np.array(self.few), np.zeros(more)]), 0.0, float(few)))
        for key in keys:
            row = np.zeros(count + more)
            row[kinds[key]] = -1.0
            for k, pattern in enumerate(patterns):
                row[count + k] = pattern.count(key)
            rows.append((row, 0.0, np.inf))
        found = self._asked(np.concatenate([np.zeros(count), np.ones(more)]), seconds, more, rows)
        return None if found is None else found[:2]


def patterns_of(kinds: Sequence[tuple[bool, float]], length: float) -> list[tuple[tuple[bool, float], ...]]:
    """Every set of cuts that one block holds and none can be added to."""
    ordered = sorted(kinds, key=lambda one: -one[1])
    found: list[tuple[tuple[bool, float], ...]] = []

    def fill(at: int, room: float, held: tuple[tuple[bool, float], ...]) -> None:
        if len(found) > _MOST_PATTERNS:
            return
        grown = False
        for k in range(at, len(ordered)):
            if ordered[k][1] <= room + NEAR:
                grown = True
                fill(k, room - ordered[k][1], (*held, ordered[k]))
        if not grown and held:
            found.append(held)

    fill(0, length, ())
    return found
