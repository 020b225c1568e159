"""Parts into the cheapest sheets: many packings by rules, the best of their sheets put together, and a bound.

Every packing gives sheets that come apart by through cuts. All different ones are kept; which of them to take, and how
often, is a covering in whole numbers. Fillers go into what a packing leaves over and never open a sheet.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.progress import report
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.shop.sheets.bound import least_cost
from nimble_shell.core.shop.sheets.packing import FITS, SPLITS, Floats, Ints, pack
from nimble_shell.core.shop.sheets.stock import NEAR, Cut, Cutting, NoSheets, Part, Placed, Saw, Sheet

_ROUNDS = 5  #: of packings and one covering
_ROUNDS_FOR_FILLERS = 3  #: once nothing can be cheaper
_WORK = 45_000  #: parts placed a round
_LEAST_PACKINGS, _MOST_PACKINGS = 100, 2000
_MOST_POOL = 6000
_MOST_COLUMNS = 400  #: of one covering, the cheapest by their linear prices
_MOST_KINDS = 25  #: of parts, for a covering in whole numbers; more are dived for
_LAST_SHEETS, _LAST_PACKINGS = 3.5, 150  #: that are packed anew at the end of a dive
_SPREADS = (0.05, 0.15, 0.4)  #: of what orders parts, where it is shaken
_NODES, _SECONDS = 20, 1.5  #: of one covering

Pattern = tuple[int, tuple[int, ...]]  #: kind of sheet, counts of parts and fillers


def cut(parts: Sequence[Part], sheets: Sequence[Sheet], saw: Saw, fillers: Sequence[Part] = ()) -> Cut | NoSheets:
    """Sheets for all parts: least cost, then most fillers, as far as found; and a bound on the cost."""
    for one in parts:
        if not any(_lies(one, sheet, saw) for sheet in sheets):
            said = f"“{one.name}” of {{w}} × {{h}} is larger than every sheet"
            return NoSheets(reason=sentence(said, w=(one.w / 1000, "length"), h=(one.h / 1000, "length")))
    bound = least_cost(parts, sheets, saw)
    if bound is None:
        return NoSheets(reason="the sheets are too few: even their areas do not hold all parts")
    if not parts:
        return Cut(cuttings=(), cost=0.0, fillers=0, bound=0.0)
    found = _Search(parts, sheets, saw, fillers).run(bound)
    if found is None:
        return NoSheets(reason="no way was found to cut all parts from so few sheets")
    return found


def _lies(part: Part, sheet: Sheet, saw: Saw) -> bool:
    w, h = sheet.w - 2 * saw.edge_trim, sheet.h - 2 * saw.edge_trim
    upright = part.w <= w + NEAR and part.h <= h + NEAR
    return upright or (part.turn and part.h <= w + NEAR and part.w <= h + NEAR)


@dataclass(frozen=True, slots=True)
class _Packing:
    """What the kernel filled in."""

    order: Ints
    own: Ints
    where: Floats
    turned: NDArray[np.bool_]
    kinds: Ints
    free: Floats

    def cuttings(self, every: Sequence[Part]) -> list[Cutting]:
        return [self.cutting(sheet, every) for sheet in range(len(self.kinds))]

    def cutting(self, sheet: int, every: Sequence[Part]) -> Cutting:
        placed = []
        for n in np.flatnonzero(self.own == sheet):
            part, turned = every[int(self.order[n])], bool(self.turned[n])
            w, h = (part.h, part.w) if turned else (part.w, part.h)
            placed.append(Placed(part=int(self.order[n]), x=float(self.where[n, 0]), y=float(self.where[n, 1]), w=w,
                                 h=h, turned=turned))  # fmt: skip
        rest = tuple((float(r[1]), float(r[2]), float(r[3]), float(r[4])) for r in self.free[self.free[:, 0] == sheet])
        return Cutting(sheet=int(self.kinds[sheet]), placed=tuple(placed), offcuts=rest)


@dataclass(slots=True)
class _Best:
    """Least cost, then most fillers, and where its sheets are in packings."""

    cost: float = np.inf
    fillers: int = -1
    cuttings: tuple[Cutting, ...] = ()

    def beaten(self, cost: float, fillers: int) -> bool:
        return cost < self.cost - NEAR or (cost <= self.cost + NEAR and fillers > self.fillers)

    def take(self, cost: float, fillers: int, cuttings: Iterable[Cutting]) -> None:
        if self.beaten(cost, fillers):
            self.cost, self.fillers, self.cuttings = cost, fillers, tuple(cuttings)


class _Search:
    def __init__(self, parts: Sequence[Part], sheets: Sequence[Sheet], saw: Saw, fillers: Sequence[Part]) -> None:
        self.parts, self.sheets, self.saw, self.fillers = parts, sheets, saw, fillers
        self.every = [*parts, *fillers]
        self.w, self.h = np.array([one.w for one in self.every]), np.array([one.h for one in self.every])
        self.turn = np.array([one.turn for one in self.every])
        self.sheet_w, self.sheet_h = np.array([one.w for one in sheets]), np.array([one.h for one in sheets])
        self.needed = sum(one.count for one in parts)
        longer, shorter = np.maximum(self.w, self.h), np.minimum(self.w, self.h)
        self._keys = (longer, shorter, self.w + self.h, self.h, self.w)
        self._by_cost = np.argsort([one.cost / (one.w * one.h) for one in sheets], kind="stable")[None, :]
        self.pool: dict[Pattern, tuple[_Packing, int]] = {}
        self.random = np.random.default_rng(1)

    def run(self, bound: float) -> Cut | None:
        total = sum(one.count for one in self.every)
        packings = min(_MOST_PACKINGS, max(_LEAST_PACKINGS, _WORK // total))
        best, pieces = _Best(), self._pieces([one.count for one in self.every])
        prices = self.w * self.h
        wanted = sum(one.count for one in self.fillers)
        for turn in range(_ROUNDS):
            for n in range(packings):
                if n % 20 == 0:
                    report(turn, n)
                self._try(best, self._order(prices, pieces, plain=turn == 0 and n < 2 * FITS * SPLITS), n)
            prices = self._covering(best, prices)
            cheapest = best.cost <= bound + NEAR
            if cheapest and (best.fillers >= wanted or turn >= _ROUNDS_FOR_FILLERS):
                break
        if not best.cuttings:
            return None
        return Cut(cuttings=best.cuttings, cost=best.cost, fillers=best.fillers, bound=bound)

    def _pieces(self, counts: Sequence[int]) -> tuple[Ints, Ints]:
        """Every single part by its number, and every single filler."""
        n = len(self.parts)
        every = np.arange(len(self.every))
        return np.repeat(every[:n], counts[:n]), np.repeat(every[n:], counts[n:])

    def _order(self, prices: Floats, pieces: tuple[Ints, Ints], *, plain: bool) -> Ints:
        """Parts from the dearest on, a little shaken; then fillers."""
        random = self.random
        key = (prices, *self._keys)[int(random.integers(1 + len(self._keys)))]
        spread = 0.0 if plain else _SPREADS[int(random.integers(len(_SPREADS)))]
        found = []
        for numbers in pieces:
            if random.random() < 0.5:  # shake kinds, or every single piece
                noise = random.normal(1.0, spread, len(self.every))[numbers]
            else:
                noise = random.normal(1.0, spread, len(numbers))
            found.append(numbers[(-key[numbers] * noise).argsort(kind="stable")])
        return np.concatenate(found)

    def _packed(self, order: Ints, needed: int, used: Mapping[int, int], n: int) -> _Packing | None:
        """By the nth rules; None where it does not come out."""
        count = len(order)
        own, where, turned = np.zeros(count, np.int64), np.zeros((count, 2)), np.zeros(count, np.bool_)
        kinds, free = np.zeros(needed + 1, np.int64), np.zeros((2 * count + needed + 2, 5))
        left = [needed if one.count is None else one.count - used.get(at, 0) for at, one in enumerate(self.sheets)]
        sheets, rests = pack(
            order, self.w, self.h, self.turn, needed, self.sheet_w, self.sheet_h, np.array(left, np.int64),
            self._wishes(n), self.saw.kerf, self.saw.edge_trim, n % FITS, n // FITS % SPLITS, own,
            where, turned, kinds, free,
        )  # fmt: skip
        return None if sheets < 0 else _Packing(order, own, where, turned, kinds[:sheets], free[:rests])

    def _try(self, best: _Best, order: Ints, n: int) -> None:
        """One packing of everything; its sheets go to the pool."""
        packing = self._packed(order, self.needed, {}, n)
        if packing is None:
            return
        there, kinds, width = packing.own >= 0, packing.kinds.tolist(), len(self.every)
        held = np.bincount(packing.own[there] * width + packing.order[there], minlength=len(kinds) * width)
        for sheet, (kind, counts) in enumerate(zip(kinds, held.reshape(-1, width).tolist(), strict=True)):
            if len(self.pool) < _MOST_POOL:
                self.pool.setdefault((kind, tuple(counts)), (packing, sheet))
        cost = sum(self.sheets[kind].cost for kind in kinds)
        fillers = int(there[self.needed :].sum())
        if best.beaten(cost, fillers):
            best.take(cost, fillers, packing.cuttings(self.every))

    def _wishes(self, n: int) -> Ints:
        """Kinds of sheets in the order of their cost an area, or shuffled for every sheet."""
        if len(self.sheets) == 1 or n % 2 == 0:
            return self._by_cost
        return np.array([self.random.permutation(len(self.sheets)) for _ in range(12)])

    def _covering(self, best: _Best, prices: Floats) -> Floats:
        """Put sheets of all packings together; what parts are worth in the linear answer orders the next packings."""
        from scipy.optimize import linprog  # not for every start

        patterns = list(self.pool)
        n = len(self.parts)
        costs = np.array([self.sheets[kind].cost for kind, _ in patterns])
        held = np.array([counts for _, counts in patterns], dtype=float).T
        limited = [at for at, sheet in enumerate(self.sheets) if sheet.count is not None]
        kinds = [[-float(kind == at) for kind, _ in patterns] for at in limited]
        matrix = np.vstack([held[:n], np.array(kinds).reshape(len(limited), len(patterns))])
        need = np.array([*(one.count for one in self.parts), *(-(self.sheets[at].count or 0) for at in limited)], float)
        priced = linprog(costs, A_ub=-matrix, b_ub=-need, method="highs")
        if priced.status != 0:
            return prices
        pays = -np.asarray(priced.ineqlin.marginals)
        gain = held[n:].sum(axis=0)
        cheap = np.argsort(costs - pays @ matrix - 1e-3 * gain, kind="stable")[:_MOST_COLUMNS]
        few = [patterns[at] for at in cheap]
        self._dive(best, few, costs[cheap], matrix[:, cheap], need)
        if n <= _MOST_KINDS:
            self._whole(best, few, costs[cheap], matrix[:, cheap], need)
            if self.fillers and np.isfinite(best.cost):
                dear = np.vstack([matrix, -costs])[:, cheap]
                self._whole(best, few, -gain[cheap], dear, np.append(need, -best.cost - NEAR))
        worth, areas = pays[:n], self.w[:n] * self.h[:n]
        return np.concatenate([worth / (float(worth.max()) or 1.0) + 0.2 * areas / areas.max(), prices[n:]])

    def _dive(self, best: _Best, patterns: list[Pattern], costs: Floats, matrix: Floats, need: Floats) -> None:
        """Take the sheets that the linear answer takes most of, one by one; pack the rest anew."""
        from scipy.optimize import linprog

        left, chosen = need.copy(), list[Pattern]()
        while (left[: len(self.parts)] > 0).any():
            found = linprog(costs, A_ub=-matrix, b_ub=-left, method="highs")
            if found.x is None:
                return
            if chosen and found.x.sum() <= _LAST_SHEETS:
                break
            at = int(np.argmax(found.x))
            chosen.append(patterns[at])
            left = left - matrix[:, at]
            left[: len(self.parts)] = np.maximum(left[: len(self.parts)], 0)
        taken = [packing.cutting(sheet, self.every) for packing, sheet in map(self.pool.__getitem__, chosen)]
        self._finish(best, taken, np.round(left[: len(self.parts)]).astype(int))

    def _finish(self, best: _Best, taken: list[Cutting], left: Ints) -> None:
        """Pack what is left into sheets of its own, many times."""
        used = Counter(one.sheet for one in taken)
        over = Counter({at: -one.count for at, one in enumerate(self.every)})
        for one in taken:
            over.update(placed.part for placed in one.placed)
        kept = [_without(one, over) for one in taken]
        fillers = Counter(placed.part for one in kept for placed in one.placed)
        counts = [
            *left.tolist(),
            *(one.count - fillers[at] for at, one in enumerate(self.every) if at >= len(self.parts)),
        ]
        cost = sum(self.sheets[one.sheet].cost for one in kept)
        pieces = self._pieces(counts)
        for n in range(_LAST_PACKINGS):
            order = self._order(self.w * self.h, pieces, plain=n < FITS * SPLITS)
            packing = self._packed(order, int(left.sum()), used, n)
            if packing is None:
                continue
            more = sum(self.sheets[int(kind)].cost for kind in packing.kinds)
            count = sum(fillers[at] for at in fillers if at >= len(self.parts)) + int(
                (packing.own[int(left.sum()) :] >= 0).sum()
            )
            if best.beaten(cost + more, count):
                best.take(cost + more, count, [*kept, *packing.cuttings(self.every)])

    def _whole(self, best: _Best, patterns: list[Pattern], costs: Floats, matrix: Floats, need: Floats) -> None:
        """Whole sheets of these patterns that hold what is needed."""
        from scipy.optimize import Bounds, LinearConstraint, milp

        found = milp(costs, constraints=LinearConstraint(matrix, lb=need), bounds=Bounds(0, np.inf),
                     integrality=np.ones(len(costs), dtype=np.int64),
                     options={"node_limit": _NODES, "time_limit": _SECONDS})  # fmt: skip
        if found.x is not None:
            self._take(best, patterns, found.x)

    def _take(self, best: _Best, patterns: list[Pattern], times: Floats) -> None:
        """Sheets without what they would cut too much."""
        over = Counter({at: -one.count for at, one in enumerate((*self.parts, *self.fillers))})
        chosen: list[Cutting] = []
        for key, n in zip(patterns, times, strict=True):
            packing, sheet = self.pool[key]
            chosen += [packing.cutting(sheet, self.every)] * round(n)
        for one in chosen:
            over.update(placed.part for placed in one.placed)
        cuttings = [cutting for one in chosen if (cutting := _without(one, over)).placed]
        held = Counter(placed.part for one in cuttings for placed in one.placed)
        if any(held[at] < one.count for at, one in enumerate(self.parts)):
            return
        cost = sum(self.sheets[one.sheet].cost for one in cuttings)
        best.take(cost, sum(held[at] for at in held if at >= len(self.parts)), cuttings)


def _without(cutting: Cutting, over: Counter[int]) -> Cutting:
    kept, free = [], list(cutting.offcuts)
    for one in cutting.placed:
        if over[one.part] > 0:
            over[one.part] -= 1
            free.append((one.x, one.y, one.w, one.h))
        else:
            kept.append(one)
    return Cutting(sheet=cutting.sheet, placed=tuple(kept), offcuts=tuple(free))
