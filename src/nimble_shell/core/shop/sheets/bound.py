"""What no way of cutting can be below: areas, and areas of parts that cannot lie beside one another.

A part and its kerf take (w + kerf)·(h + kerf) of a sheet that is a kerf larger both ways. That stays true after both
lengths went through a dual feasible function (Fekete and Schepers 2001): one that maps lengths which together fit into
1 onto values which together fit into 1, and so counts more than half a sheet as a whole one.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence

import numpy as np

from nimble_shell.core.shop.sheets.stock import NEAR, Part, Saw, Sheet

_FINE = 1e-6
Feasible = Callable[[float], float]


def least_cost(parts: Sequence[Part], sheets: Sequence[Sheet], saw: Saw) -> float | None:
    """A true bound on the cost of all sheets; None where even by their areas the sheets are too few."""
    if not parts:
        return 0.0
    wide, high = (max(_inner(one, saw)[side] for one in sheets) for side in (0, 1))
    least = 0.0
    for across in _functions([value for one in parts for value in _sides(one)], wide, saw.kerf):
        for along in _functions([value for one in parts for value in _sides(one)], high, saw.kerf):
            need = sum(one.count * _least(one, across, along, wide, high, saw.kerf) for one in parts)
            holds = [across(1.0 if a >= wide - NEAR else a / wide) * along(1.0 if b >= high - NEAR else b / high)
                     for a, b in (_inner(one, saw) for one in sheets)]  # fmt: skip
            found = _linear(need, holds, sheets)
            if found is None:
                return None
            least = max(least, found)
    return _rounded(least, [one.cost for one in sheets])


def _inner(one: Sheet, saw: Saw) -> tuple[float, float]:
    return one.w - 2 * saw.edge_trim + saw.kerf, one.h - 2 * saw.edge_trim + saw.kerf


def _sides(one: Part) -> tuple[float, ...]:
    return (one.w, one.h)


def _least(one: Part, across: Feasible, along: Feasible, wide: float, high: float, kerf: float) -> float:
    """Of the ways it may lie."""
    ways = [(one.w, one.h)] + ([(one.h, one.w)] if one.turn else [])
    fitting = [(w, h) for w, h in ways if w + kerf <= wide + NEAR and h + kerf <= high + NEAR]
    return min((across((w + kerf) / wide) * along((h + kerf) / high) for w, h in fitting), default=0.0)


def _functions(sides: Iterable[float], most: float, kerf: float) -> list[Feasible]:
    """The length itself; and for every share of a part up to a half: longer rests count as whole."""
    shares = sorted({share for one in sides if 0 < (share := (one + kerf) / most) <= 0.5})
    shares = shares[:: max(1, len(shares) // 12)]

    def halves(least: float) -> Feasible:
        return lambda x: 1.0 if x > 1 - least + _FINE else (0.0 if x < least - _FINE else x)

    def parts(k: int) -> Feasible:
        return lambda x: x if abs((k + 1) * x - round((k + 1) * x)) < _FINE else math.floor((k + 1) * x) / k

    return [lambda x: x, *(halves(one) for one in shares), *(parts(k) for k in range(1, 6))]


def _linear(need: float, holds: Sequence[float], sheets: Sequence[Sheet]) -> float | None:
    """Cheapest sheets that hold so much, parts of sheets allowed: the cheapest for what they hold first."""
    cost, left = 0.0, need
    for at in sorted(range(len(sheets)), key=lambda at: sheets[at].cost / holds[at] if holds[at] > 0 else math.inf):
        if left <= _FINE:
            break
        if holds[at] <= 0:
            continue
        times = left / holds[at]
        count = sheets[at].count
        times = times if count is None else min(times, count)
        cost, left = cost + times * sheets[at].cost, left - times * holds[at]
    return None if left > _FINE * max(1.0, need) else cost


def _rounded(least: float, costs: Sequence[float]) -> float:
    """Up to the next sum of whole sheets."""
    whole = [round(one * 1e6) for one in costs]
    if any(abs(a - b * 1e6) > 1e-3 for a, b in zip(whole, costs, strict=True)) or not any(whole):
        return least
    grain = int(np.gcd.reduce(whole)) / 1e6
    return grain * math.ceil(least / grain - 1e-7)
