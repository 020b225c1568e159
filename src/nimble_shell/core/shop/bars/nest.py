"""Pieces of one section into bars, proved: column generation, and all ways that could still be better.

The linear answer over all ways is a bound; whole numbers over the ways it used come close. What could be better than
they are uses only ways whose price lies within the gap (reduced costs): those are all listed and asked once more.
"""

from __future__ import annotations

import itertools
import math
import random
from collections import Counter
from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.progress import report
from nimble_shell.core.quantities.sentence import composed, joined, sentence
from nimble_shell.core.shop.bars.master import Duals, Goal, Kind, Master, Way
from nimble_shell.core.shop.bars.patterns import NEAR, Floats, Prices, Ruler, ruler
from nimble_shell.core.shop.bars.stock import Bar, BarSum, Nested, NoBars, Saw, Stock, Term

_ROUNDS = 400
_MORE_WAYS = 120  #: with prices a little off, before all that come close are listed
_MOST_WAYS = 8_000  #: of one list
_FINE = 1e-6


def nest(lengths: Sequence[float], counts: Sequence[int], stock: Sequence[Stock], saw: Saw,
         objective: Sequence[Term]) -> Nested | NoBars:  # fmt: skip
    """The best bars for pieces of one section.

    Parameters
    ----------
    lengths, counts : sequences
        Of the pieces, lengths all different. [mm]
    objective : sequence
        Terms, the first counts most.
    """
    usable = [one.length - 2 * saw.end_trim + saw.kerf for one in stock]
    longest = max(usable, default=0.0)
    if lengths and max(lengths) + saw.kerf > longest + NEAR:
        most = max(longest - saw.kerf, 0.0)
        return NoBars(reason=sentence("a piece of {v} is longer than the {most} that the longest bar has",
                                      v=_length(max(lengths)), most=_length(most)))  # fmt: skip
    return _Nesting(lengths, counts, stock, saw, usable).solve(objective)


class _Nesting:
    def __init__(self, lengths: Sequence[float], counts: Sequence[int], stock: Sequence[Stock], saw: Saw,
                 usable: Sequence[float]) -> None:  # fmt: skip
        self.lengths, self.stock, self.saw = np.array(lengths, dtype=float), stock, saw
        self.longest = max(usable, default=0.0)
        self.ruler: Ruler = ruler(lengths, counts, saw.kerf, [one for one in usable if one > saw.kerf])
        kinds = [one for at in range(len(stock)) for one in self._kinds(at, usable[at])]
        limits = {at: one.count for at, one in enumerate(stock) if one.count is not None}
        self.master = Master(demand=np.array(counts, dtype=np.int64), kinds=kinds, limits=limits)
        self.random = random.Random(1)  # the same answer every time

    def _kinds(self, at: int, usable: float) -> Iterable[Kind]:
        one, saw = self.stock[at], self.saw
        fixed: dict[Goal, float] = {"missing": 0.0, "cost": one.cost, "bars": 1.0, "waste": one.length}
        none = np.zeros(len(self.lengths))
        yield Kind(stock=at, capacity=usable, kept=False, fixed=fixed, per_piece=none)
        kept = one.length - 2 * saw.end_trim - saw.keep
        if saw.keep > 0 and kept > 0:
            yield Kind(stock=at, capacity=kept, kept=True, fixed={**fixed, "waste": 2 * saw.end_trim},
                       per_piece=self.lengths + saw.kerf)  # fmt: skip

    def solve(self, objective: Sequence[Term]) -> Nested | NoBars:
        master = self.master
        for at, kind in enumerate(master.kinds):
            self._begin(at, kind)
        chosen: dict[Way, int] = {}
        bound, proved = 0.0, True
        goals: list[Goal] = ["missing"] if master.limits else []
        goals.extend(objective)
        for goal in goals:
            least, value, chosen = self._best(goal)
            if goal == "missing" and value > 0.5:  # a whole number
                return self._short(least, value)
            proved = proved and value <= least + _FINE * max(1.0, value)
            if goal == objective[0]:  # waste is reckoned as if nothing came of the bars
                bound = least - (float(self.lengths @ master.demand) if goal == "waste" else 0.0)
            master.held[goal] = value
        bars = self._bars(chosen)
        return Nested(bars=bars, sum=self._sum(bars), bound=bound, proved=proved)

    def _short(self, least: float, value: float) -> NoBars:
        there = joined(" and ", (sentence(f"{one.count} of {{v}}", v=_length(one.length)) for one in self.stock
                                 if one.count is not None))  # fmt: skip
        sure = "" if least >= value - 0.5 else ", as far as was found"
        said = f"the stock is too little: {value:.0f} pieces are left over{sure}; there are {{there}}"
        return NoBars(reason=composed(said, there=there))

    def _begin(self, at: int, kind: Kind) -> None:
        """Bars of one length of piece each: enough for a first linear answer."""
        for i, true in enumerate(self.ruler.true):
            count = min(int((kind.capacity + NEAR) / true), int(self.master.demand[i]))
            counts = [0] * len(self.lengths)
            counts[i] = count
            self.master.add(Way(kind=at, counts=tuple(counts)))

    def _best(self, goal: Goal) -> tuple[float, float, dict[Way, int]]:
        """Bound, value and ways of one term, those before it held."""
        duals = self._priced(goal)
        least = self._rounded(goal, duals.least)
        value, chosen = self._whole(goal)
        if value > least + _FINE * max(1.0, value):
            self._more(goal, duals)
            value, chosen = self._whole(goal)
        if value > least + _FINE * max(1.0, value):
            return self._proved(goal, duals, least, value, chosen)
        return least, value, chosen

    def _priced(self, goal: Goal) -> Duals:
        """The linear answer over all ways there are."""
        for turn in range(_ROUNDS):
            report(turn, len(self.master.ways))
            duals = self.master.linear(goal)
            if not self._add_best(goal, duals, 1.0):
                break
        return duals

    def _values(self, goal: Goal, duals: Duals, *, kept: bool) -> Floats:
        """What each piece is worth on a bar that is filled freely, or on one whose remnant is kept."""
        paid = duals.held.get("waste", 0.0) + (1.0 if goal == "waste" else 0.0)
        return duals.pieces - paid * (self.lengths + self.saw.kerf) if kept else duals.pieces

    def _price(self, goal: Goal, duals: Duals, kind: Kind) -> float:
        """Of a bar, to be earned by its pieces."""
        held = sum(pays * kind.fixed[one] for one, pays in duals.held.items())
        return kind.fixed[goal] + held + float(duals.stocks[kind.stock])

    def _add_best(self, goal: Goal, duals: Duals, factor: Floats | float) -> bool:
        """Add the best way of each kind, if it earns more than its bar."""
        added, tables = False, self._tables(goal, duals, factor)
        for at, kind in enumerate(self.master.kinds):
            value, counts = tables[kind.kept].best(kind.capacity)
            better = value > self._price(goal, duals, kind) + 1e-9 * self.master.scale(goal)
            if (better or not isinstance(factor, float)) and self.ruler.fits(counts, kind.capacity):
                added |= self.master.add(Way(kind=at, counts=counts))
        return added

    def _tables(self, goal: Goal, duals: Duals, factor: Floats | float = 1.0) -> dict[bool, Prices]:
        kinds = {kind.kept for kind in self.master.kinds}
        return {kept: Prices(self.ruler, self._values(goal, duals, kept=kept) * factor, self.longest) for kept in kinds}

    def _more(self, goal: Goal, duals: Duals) -> None:
        for turn in range(_MORE_WAYS):
            report(turn, len(self.master.ways))
            off = np.array([self.random.uniform(0.97, 1.03) for _ in self.lengths])
            self._add_best(goal, duals, off)

    def _whole(self, goal: Goal) -> tuple[float, dict[Way, int]]:
        found = self.master.whole(goal)
        if isinstance(found, bool):
            return math.inf, {}
        return found

    def _proved(self, goal: Goal, duals: Duals, least: float, value: float,
                chosen: dict[Way, int]) -> tuple[float, float, dict[Way, int]]:  # fmt: skip
        """List all ways that something better could use, and ask once more."""
        aim = value - self._grain(goal) * (1 - _FINE)
        if not self._list(goal, duals, max(aim - duals.least, 0.0)):
            return least, value, chosen
        better = self.master.whole(goal, None if math.isinf(aim) else aim)
        if better is False:
            return value, value, chosen
        if better is True:
            return least, value, chosen
        return better[0], better[0], better[1]

    def _list(self, goal: Goal, duals: Duals, gap: float) -> bool:
        """Whether all ways within the gap could be listed."""
        tables, size = self._tables(goal, duals), self.master.scale(goal)
        for at, kind in enumerate(self.master.kinds):
            least = self._price(goal, duals, kind) - gap - _FINE * size
            near = tables[kind.kept].near(kind.capacity, least, filled=not kind.kept)
            for count, counts in enumerate(itertools.islice(near, _MOST_WAYS + 1)):
                if count == _MOST_WAYS:
                    return False
                if count % 1000 == 0:
                    report(count, len(self.master.ways))
                if self.ruler.fits(counts, kind.capacity):
                    self.master.add(Way(kind=at, counts=counts))
        return True

    def _grain(self, goal: Goal) -> float:
        """Two values of a term differ by a multiple of this."""
        if goal in ("missing", "bars"):
            return 1.0
        found = [kind.fixed[goal] for kind in self.master.kinds]
        if goal == "waste" and any(kind.kept for kind in self.master.kinds):
            found += [float(one) for one in self.lengths + self.saw.kerf]
        whole = [round(one / _FINE) for one in found]
        return math.gcd(*whole) * _FINE or _FINE

    def _rounded(self, goal: Goal, least: float) -> float:
        grain = self._grain(goal)
        steps = least / grain
        return grain * math.ceil(steps - _FINE - 1e-9 * steps)

    def _bars(self, chosen: dict[Way, int]) -> tuple[Bar, ...]:
        """Bars without what they would cut too much; equal ones together, those of one length the cheapest first."""
        over = -self.master.demand.copy()
        for way, times in chosen.items():
            over += np.array(way.counts) * times
        cut: Counter[tuple[float, tuple[int, ...]]] = Counter()
        for way, times in chosen.items():
            for counts, n in _trimmed(way.counts, times, over):
                cut[(self.stock[self.master.kinds[way.kind].stock].length, counts)] += n
        return tuple(self._from_stock(cut))

    def _from_stock(self, cut: Counter[tuple[float, tuple[int, ...]]]) -> Iterable[Bar]:
        left = [one.count for one in self.stock]
        for (length, counts), times in sorted(cut.items(), reverse=True):
            if not any(counts):
                continue
            alike = sorted((at for at, one in enumerate(self.stock) if one.length == length),
                           key=lambda at: self.stock[at].cost)  # fmt: skip
            for at in alike:
                there = left[at]
                taken = times if there is None else min(times, there)
                times -= taken
                if there is not None:
                    left[at] = there - taken
                if taken:
                    yield self._bar(self.stock[at], counts, taken)

    def _bar(self, stock: Stock, counts: Sequence[int], times: int) -> Bar:
        each = sorted((float(self.lengths[i]) for i, n in enumerate(counts) for _ in range(n)), reverse=True)
        return Bar(length=stock.length, offcut=stock.offcut, cost=stock.cost, times=times, lengths=tuple(each),
                   remnant=self.saw.remnant(stock.length, sum(each), len(each)))  # fmt: skip

    def _sum(self, bars: Sequence[Bar]) -> BarSum:
        total = BarSum()
        for bar in bars:
            waste = bar.length - sum(bar.lengths) - self.saw.kept(bar.remnant)
            total += BarSum(cost=bar.cost * bar.times, bars=bar.times, waste=waste * bar.times)
        return total


def _length(mm: float) -> tuple[float, str]:
    return mm / 1000, "length"


def _trimmed(counts: tuple[int, ...], times: int, over: NDArray[np.int64]) -> Iterable[tuple[tuple[int, ...], int]]:
    """The same bars without pieces that are cut too often; what is over goes down with it."""
    for _ in range(times):
        if not (over > 0).any():
            break
        less = np.minimum(np.array(counts), np.maximum(over, 0))
        over -= less
        yield tuple(int(n) for n in np.array(counts) - less), 1
        times -= 1
    if times:
        yield counts, times
