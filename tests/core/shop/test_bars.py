"""Bars against every way there is to cut a few pieces, and against what is known of larger sets."""

from __future__ import annotations

import itertools
import math
import random
from functools import cache

import pytest

from nimble_shell.core.shop.bars.nest import nest
from nimble_shell.core.shop.bars.stock import BarSum, Nested, NoBars, Saw, Stock, Term

TERMS: tuple[Term, ...] = ("cost", "bars", "waste")


def by_trying(
    pieces: list[float], stock: list[Stock], saw: Saw, objective: tuple[Term, ...]
) -> tuple[float, ...] | None:
    """The best sums, term by term, over all ways to share pieces out among bars; None where there is none."""
    n = len(pieces)

    def value(one: Stock, mask: int) -> dict[str, float] | None:
        held = [pieces[i] for i in range(n) if mask >> i & 1]
        usable = one.length - 2 * saw.end_trim
        if sum(held) + saw.kerf * (len(held) - 1) > usable + 1e-9:
            return None
        rest = max(0.0, usable - sum(held) - saw.kerf * len(held))
        kept = rest if saw.keep and rest >= saw.keep else 0.0
        return {"cost": one.cost, "bars": 1.0, "waste": one.length - sum(held) - kept}

    @cache
    def best(left: int, used: tuple[int, ...]) -> tuple[float, ...] | None:
        if left == 0:
            return (0.0,) * len(objective)
        first, found = left & -left, None
        others = left ^ first
        part = others
        while True:
            for at, one in enumerate(stock):
                if one.count is not None and used[at] >= one.count:
                    continue
                own = value(one, part | first)
                if own is None:
                    continue
                count = tuple(u + (i == at) for i, u in enumerate(used)) if one.count is not None else used
                rest = best(others ^ part, count)
                if rest is not None:
                    total = tuple(own[term] + more for term, more in zip(objective, rest, strict=True))
                    found = total if found is None or total < found else found
            if part == 0:
                return found
            part = (part - 1) & others

    return best((1 << n) - 1, (0,) * len(stock))


@pytest.mark.parametrize("seed", range(60))
def test_no_way_is_better(seed: int) -> None:
    given = random.Random(seed)
    pieces = [float(given.choice([450, 700, 905, 1180, 1690, 2200])) for _ in range(given.randint(1, 7))]
    stock = [
        Stock(length=3600.0, cost=given.choice([3600.0, 10.5])),
        Stock(length=4800.0, cost=4800.0, count=given.choice([None, 1])),
    ]
    if given.random() < 0.5:
        stock.append(Stock(length=1700.0, cost=0.0, count=given.randint(1, 2), offcut=True))
    if given.random() < 0.3:
        stock = [Stock(length=one.length, cost=one.cost, count=one.count or 2, offcut=one.offcut) for one in stock]
    saw = Saw(kerf=given.choice([0.0, 3.0, 4.5]), end_trim=given.choice([0.0, 10.0]), keep=given.choice([0.0, 500.0]))
    objective = tuple(given.sample(TERMS, given.randint(1, 3)))
    lengths = sorted(set(pieces))
    found = nest(lengths, [pieces.count(one) for one in lengths], stock, saw, objective)
    expected = by_trying(pieces, stock, saw, objective)
    if expected is None:
        assert isinstance(found, NoBars)
        return
    assert isinstance(found, Nested)
    assert found.proved
    assert [getattr(found.sum, term) for term in objective] == pytest.approx(expected, abs=1e-6)
    assert found.bound == pytest.approx(expected[0], abs=1e-6)
    _are_bars(found, pieces, stock, saw)


def _are_bars(found: Nested, pieces: list[float], stock: list[Stock], saw: Saw) -> None:
    """What was said of them holds: pieces, lengths, counts and sums."""
    assert sorted(one for bar in found.bars for one in bar.lengths * bar.times) == sorted(pieces)
    for bar in found.bars:
        assert sum(bar.lengths) + saw.kerf * (len(bar.lengths) - 1) <= bar.length - 2 * saw.end_trim + 1e-6
    for one in stock:
        used = sum(bar.times for bar in found.bars if (bar.length, bar.offcut) == (one.length, one.offcut))
        assert one.count is None or used <= one.count
    total = BarSum()
    for bar in found.bars:
        rest = max(0.0, bar.length - 2 * saw.end_trim - sum(bar.lengths) - saw.kerf * len(bar.lengths))
        kept = rest if saw.keep and rest >= saw.keep else 0.0
        total += BarSum(
            cost=bar.cost * bar.times, bars=bar.times, waste=(bar.length - sum(bar.lengths) - kept) * bar.times
        )
    assert (total.cost, total.bars, total.waste) == pytest.approx((found.sum.cost, found.sum.bars, found.sum.waste))


@pytest.mark.parametrize("kinds", [8, 12, 20])
def test_two_hundred_pieces_come_to_the_bound(kinds: int) -> None:
    given = random.Random(kinds)
    lengths = [float(one) for one in given.sample(range(300, 3500), kinds)]
    counts = [0] * kinds
    for _ in range(200):
        counts[given.randrange(kinds)] += 1
    stock = [Stock(length=6000.0, cost=6000.0)]
    found = nest(lengths, counts, stock, Saw(kerf=4.0), ("bars",))
    assert isinstance(found, Nested)
    assert found.proved
    pieces = [one for one, n in zip(lengths, counts, strict=True) for _ in range(n)]
    assert found.sum.bars >= math.ceil(sum(one + 4.0 for one in pieces) / 6004.0 - 1e-9)
    _are_bars(found, pieces, stock, Saw(kerf=4.0))


def test_a_million_pieces_are_counted_not_listed() -> None:
    found = nest([1490.0, 700.0], [1_000_000, 500_000], [Stock(length=6000.0, cost=1.0)], Saw(kerf=3.0), ("bars",))
    assert isinstance(found, Nested)
    # Four long ones fill a bar exactly, eight short ones the other.
    assert found.sum.bars == pytest.approx(1_000_000 / 4 + 500_000 / 8, rel=1e-3)
    assert found.bound <= found.sum.bars


@pytest.mark.parametrize(
    ("lengths", "stock", "said"),
    [
        ([6001.0], [Stock(length=6000.0, cost=1.0)], "longer than the 6 000 mm"),
        ([5990.0], [Stock(length=6000.0, cost=1.0)], "longer than the 5 980 mm"),
        ([2000.0], [Stock(length=6000.0, cost=1.0, count=2)], "the stock is too little"),
    ],
)
def test_what_cannot_be_cut_is_said(lengths: list[float], stock: list[Stock], said: str) -> None:
    trim = 10.0 if lengths == [5990.0] else 0.0
    found = nest(lengths, [7], stock, Saw(kerf=0.0, end_trim=trim), ("bars",))
    assert isinstance(found, NoBars)
    assert said in found.reason.replace("\N{THIN SPACE}", " ")


def test_equal_lengths_are_taken_from_the_cheapest() -> None:
    stock = [Stock(length=3000.0, cost=9.0), Stock(length=3000.0, cost=2.0, count=2, offcut=True)]
    for objective in itertools.permutations(TERMS):
        found = nest([3000.0], [3], stock, Saw(kerf=3.0), objective)
        assert isinstance(found, Nested)
        assert found.sum.cost == 13.0
