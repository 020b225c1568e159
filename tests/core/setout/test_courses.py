"""Courses of blocks: against every laying of small walls, by a referee written from the rules on larger ones."""

from __future__ import annotations

import itertools
import random
from dataclasses import replace

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.setout.courses.courses import Coursed, blocks_for, lay_run
from nimble_shell.core.setout.courses.laying import NoLaying
from nimble_shell.core.setout.courses.run import Block, Run, RunWall, WallOpening

BLOCK = Block(length=1200, height=400, half_height=200, thickness=300, increment=200, min_cut=400, long=900, short=500)
Pieces = tuple[tuple[float, float], ...]


def spans_of(run: Run, wall: int, course: int) -> tuple[list[tuple[float, float, float]], list[float]]:
    """Of a course: stretches with a place on their grid, and leg ends; from the words of the rules."""
    one = run.courses()[course]
    s = e = 0.0
    for before, after, turn in run.corners():
        less = 300.0 if turn == "in" else 0.0
        long_before = (course % 2 == 0) == (run.first_long == "before")
        if before == wall:
            e = (900.0 if long_before else 500.0) - less
        if after == wall:
            s = (500.0 if long_before else 900.0) - less
    length = run.walls[wall].length
    right, stack = length - e, run.stacks.get(run.walls[wall].name)
    whole = [(o.x, o.x + o.w) for o in run.openings
             if o.wall == run.walls[wall].name and o.y <= one.bottom and o.y + o.h >= one.top]  # fmt: skip
    cuts = sorted({s, right, *([] if stack is None else [stack]), *(x for gap in whole for x in gap)})
    found = [
        (a, b, s if stack is None or b <= stack else right) for a, b in itertools.pairwise(cuts)
        if b > a and not any(x0 <= a and b <= x1 for x0, x1 in whole)
    ]  # fmt: skip
    return found, [x for x, there in ((s, s > 0), (right, e > 0)) if there]


def ways(span: tuple[float, float, float]) -> list[Pieces]:
    """Every filling of a stretch."""
    a, b, origin = span
    places = [origin + 200 * k for k in range(-100, 101) if a < origin + 200 * k < b]
    found = []
    for count in range(len(places) + 1):
        for some in itertools.combinations(places, count):
            ends = [a, *some, b]
            if all(400 <= v - u <= 1200 for u, v in itertools.pairwise(ends)):
                found.append(tuple(itertools.pairwise(ends)))
    return found


def joints(pieces: Pieces, spans: list[tuple[float, float, float]], legs: list[float]) -> list[float]:
    ends = {x for a, b, _ in spans for x in (a, b)}
    return [b for _, b in pieces if b not in ends] + legs


def kept(rows: list[list[float]], bond: float) -> bool:
    return all(abs(a - b) >= bond for one, other in itertools.pairwise(rows) for a in one for b in other)


@pytest.mark.parametrize("seed", range(14))
def test_no_laying_of_a_small_wall_has_fewer_pieces_or_cuts(seed: int) -> None:
    chance = random.Random(seed)
    corners = chance.choice([0, 1])
    length = 200.0 * chance.randint(9, 12) + (500.0 if corners else 0.0)
    turn = "out" if corners else None
    walls = [RunWall(name="A", length=length, turn=turn)]
    if corners:
        walls.append(RunWall(name="B", length=1700.0, turn=None))
    openings = []
    if chance.random() < 0.6:
        openings.append(WallOpening(name="O", wall="A", x=800.0 + 50 * chance.randint(0, 3), y=400.0, w=400.0, h=800.0))
    run = Run(block=BLOCK, bond=chance.choice([200.0, 300.0]), height=1200.0, first_long=chance.choice(["before", "after"]),
              closed=False, walls=tuple(walls), openings=tuple(openings))  # fmt: skip
    try:
        found = lay_run(run)
    except DomainError:
        return  # an opening in the leg
    best = 0, 0
    for wall in range(len(walls)):
        courses = [spans_of(run, wall, n) for n in range(3)]
        every = [[tuple(itertools.chain(*parts)) for parts in itertools.product(*(ways(span) for span in spans))]
                 for spans, _ in courses]  # fmt: skip
        legal = [
            (sum(len(row) for row in some), sum(b - a < 1200 for row in some for a, b in row))
            for some in itertools.product(*every)
            if kept([joints(row, *course) for row, course in zip(some, courses, strict=True)], run.bond)
        ]  # fmt: skip
        if not legal:
            assert isinstance(found, NoLaying)
            return
        least = min(legal)
        best = best[0] + least[0], best[1] + least[1]
    assert isinstance(found, Coursed)
    assert found.proved
    assert (found.pieces, found.cuts) == best


@pytest.mark.parametrize("seed", range(6))
def test_a_referee_finds_nothing_wrong_with_a_long_run(seed: int) -> None:
    chance = random.Random(40 + seed)
    lengths, turns = (9800.0, 6700.0, 6700.0), ("out", "in", "out")
    walls = tuple(RunWall(name=f"W{n}", length=lengths[n % 3], turn=turns[n % 3]) for n in range(12))  # type: ignore[arg-type]
    openings = tuple(
        WallOpening(name=f"O{n}", wall=f"W{n}", x=1900.0 + 50 * chance.randint(0, 4), y=chance.choice([0.0, 700.0]),
                    w=chance.choice([900.0, 1500.0]), h=1700.0)
        for n in range(12) if chance.random() < 0.7
    )  # fmt: skip
    run = Run(block=BLOCK, bond=200.0, height=chance.choice([2400.0, 2600.0, 2550.0]), first_long="before", closed=True,
              walls=walls, openings=openings, stacks={"W4": 4500.0} if seed % 2 else {})  # fmt: skip
    found = lay_run(run)
    assert isinstance(found, Coursed)
    lengths_laid = []
    for wall, laid in enumerate(found.walls):
        rows = []
        for n, pieces in enumerate(laid.courses):
            spans, legs = spans_of(run, wall, n)
            assert sum(b - a for a, b in pieces) == pytest.approx(sum(b - a for a, b, _ in spans))
            for a, b in pieces:
                assert 400 - 1e-6 <= b - a <= 1200 + 1e-6
                inside = next(span for span in spans if span[0] <= a + 1e-6 and b <= span[1] + 1e-6)
                if abs(b - inside[1]) > 1e-6:
                    assert (b - inside[2]) % 200 == pytest.approx(0, abs=1e-6)
            rows.append(joints(pieces, spans, legs))
            lengths_laid += [b - a for a, b in pieces]
        assert kept(rows, run.bond - 1e-6)
    assert found.pieces == len(lengths_laid)
    assert found.cuts == sum(one < 1200 - 1e-6 for one in lengths_laid)
    assert found.offcut == pytest.approx(found.bought * 1200 - sum(lengths_laid))
    assert found.bound <= found.pieces
    corners, courses = 12, run.courses()
    halves = sum(one.half for one in courses)
    assert found.whole.left + found.whole.right == corners * (len(courses) - halves)
    assert found.half.left + found.half.right == corners * halves


@pytest.mark.parametrize("seed", range(12))
def test_cuts_come_out_of_the_fewest_blocks(seed: int) -> None:
    chance = random.Random(seed)
    cuts = [float(chance.choice([400, 500, 600, 700, 800, 1000])) for _ in range(7)]

    def fits(count: int) -> bool:
        return any(
            all(sum(one for one, at in zip(cuts, places, strict=True) if at == n) <= 1200 for n in range(count))
            for places in itertools.product(range(count), repeat=len(cuts))
        )

    least = next(count for count in range(1, 8) if fits(count))
    assert blocks_for(cuts, 1200.0) == least


def test_hands_are_those_of_the_convex_side() -> None:
    """At an outer corner a long leg before it lies on the left; at an inner one it is the other way about."""
    walls = (RunWall(name="A", length=4900, turn="out"), RunWall(name="B", length=3700, turn="in"),
             RunWall(name="C", length=2800, turn=None))  # fmt: skip
    run = Run(block=BLOCK, bond=200, height=800, first_long="before", closed=False, walls=walls)
    assert [run.hand(0, turn) for _, _, turn in run.corners()] == ["left", "right"]
    assert [run.hand(1, turn) for _, _, turn in run.corners()] == ["right", "left"]
    turned = replace(run, first_long="after")
    assert [turned.hand(0, turn) for _, _, turn in turned.corners()] == ["right", "left"]


def test_the_top_course_is_whole_half_or_ripped() -> None:
    wall = (RunWall(name="A", length=3600, turn=None),)
    run = Run(block=BLOCK, bond=200, height=800, first_long="before", closed=False, walls=wall)
    assert [(one.half, one.top) for one in run.courses()] == [(False, 400), (False, 800)]
    half = replace(run, height=1000.0)
    assert (half.courses()[-1].half, half.ripped) == (True, 0.0)
    ripped = replace(run, height=1100.0)
    assert (ripped.courses()[-1].half, ripped.ripped) == (False, 300.0)


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"walls": (RunWall(name="A", length=3600, turn="out"),)}, "run"),
        ({"walls": (RunWall(name="A", length=3600, turn="out"), RunWall(name="A", length=3600, turn=None))}, "run"),
        ({"block": replace(BLOCK, long=950.0)}, "block"),
        ({"block": replace(BLOCK, length=1250.0)}, "block"),
        ({"openings": (WallOpening(name="O", wall="B", x=900, y=0, w=500, h=800),)}, "openings"),
        ({"openings": (WallOpening(name="O", wall="A", x=900, y=0, w=500, h=1300),)}, "openings"),
        ({"openings": tuple(WallOpening(name=n, wall="A", x=900, y=0, w=500, h=800) for n in "OP")}, "openings"),
        (
            {"openings": (WallOpening(name="O", wall="A", x=900, y=0, w=900, h=800),), "stacks": {"A": 1800.0}},
            "openings",
        ),
        ({"stacks": {"A": 9000.0}}, "stack_joints"),
    ],
)
def test_what_is_no_run_is_refused_where_it_stands(change: dict[str, object], path: str) -> None:
    run = Run(block=BLOCK, bond=200, height=1200, first_long="before", closed=False,
              walls=(RunWall(name="A", length=3600, turn=None),))  # fmt: skip
    with pytest.raises(DomainError) as told:
        lay_run(replace(run, **change))  # type: ignore[arg-type]
    assert told.value.issues[0].path[0] == path


def test_a_closed_run_has_to_close() -> None:
    square = tuple(RunWall(name=n, length=4900, turn="out") for n in "ABCD")
    run = Run(block=BLOCK, bond=200, height=800, first_long="before", closed=True, walls=square)
    assert isinstance(lay_run(run), Coursed | NoLaying)
    with pytest.raises(DomainError, match="lies 2 mm from its beginning"):
        lay_run(replace(run, walls=(replace(square[0], length=4902), *square[1:])))


@pytest.mark.parametrize("seed", range(10))
def test_no_laying_with_as_few_pieces_and_cuts_leaves_fewer_pieces_on_one_web(seed: int) -> None:
    chance = random.Random(seed)
    block = replace(BLOCK, min_cut=200)
    length = 200.0 * chance.randint(7, 9)
    hole = WallOpening(name="O", wall="A", x=450.0 + 50 * chance.randint(0, 5), y=0.0, w=450.0, h=400.0)
    run = Run(block=block, bond=200.0, height=800.0, first_long="before", closed=False, webs=True,
              walls=(RunWall(name="A", length=length, turn=None),), openings=(hole,))  # fmt: skip
    found = lay_run(run)
    assert isinstance(found, Coursed)

    def few(pieces: Pieces) -> int:
        return sum(sum(a < 100 + 200 * k < b for k in range(20)) < 2 for a, b in pieces)

    def fillings(a: float, b: float) -> list[Pieces]:
        places = [200.0 * k for k in range(20) if a < 200 * k < b]
        every = [[a, *some, b] for n in range(len(places) + 1) for some in itertools.combinations(places, n)]
        return [tuple(itertools.pairwise(ends)) for ends in every
                if all(200 <= v - u <= 1200 for u, v in itertools.pairwise(ends))]  # fmt: skip

    first = [one + other for one in fillings(0.0, hole.x) for other in fillings(hole.right, length)]
    second = fillings(0.0, length)

    def inner(pieces: Pieces) -> list[float]:
        return [b for _, b in pieces if b not in (length, hole.x)]

    legal = [
        (len(low) + len(high), sum(b - a < 1200 for a, b in (*low, *high)), few(low) + few(high))
        for low in first for high in second
        if all(abs(x - y) >= 200 for x in inner(low) for y in inner(high))
    ]  # fmt: skip
    laid = [piece for course in found.walls[0].courses for piece in course]
    assert (found.pieces, found.cuts, few(tuple(laid))) == min(legal)
