"""Ways to cut one bar: the best for given prices of the pieces, and all that come close to it.

A bar holds k pieces when Σ lengths + (k − 1)·kerf ≤ what is usable of it: with every piece a kerf longer, and the bar
too, that is a plain sum. Lengths are whole numbers of a unit that divides them all; where that would take more than
`_MOST_UNITS`, pieces are rounded down, so that the price of a bar stays a true bound, and a way that does not fit is
passed over.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

_FINE = 1e-4  #: [mm], below which lengths are the same
_MOST_UNITS = 200_000
NEAR = 1e-6  #: a rule is met within this [mm]

Floats = NDArray[np.float64]
Counts = tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Ruler:
    """Lengths as whole numbers."""

    pieces: NDArray[np.int64]  #: each with its kerf
    most: NDArray[np.int64]  #: of each on one bar
    true: Floats  #: [mm], with kerf
    unit: float  #: [mm]

    def units(self, capacity: float) -> int:
        """Of a bar, with a kerf more than is usable. [mm]"""
        return math.floor((capacity + NEAR) / self.unit + 1e-9)

    def fits(self, counts: Sequence[int], capacity: float) -> bool:
        return float(np.dot(counts, self.true)) <= capacity + NEAR * max(1, sum(counts))


def ruler(lengths: Sequence[float], counts: Sequence[int], kerf: float, capacities: Sequence[float]) -> Ruler:
    """For pieces and the bars that they come out of."""
    true = np.array(lengths) + kerf
    fine = [round(one / _FINE) for one in (*true, *capacities)]
    exact = all(abs(one * _FINE - value) < NEAR for one, value in zip(fine, (*true, *capacities), strict=True))
    unit = math.gcd(*fine) * _FINE if exact else _FINE
    longest = max(capacities)
    unit = max(unit, longest / _MOST_UNITS)
    pieces = np.floor(true / unit + 1e-6).astype(np.int64)
    most = np.minimum(np.array(counts), np.floor((longest + NEAR) / true)).astype(np.int64)
    return Ruler(pieces=np.maximum(pieces, 1), most=most, true=true, unit=unit)


class Prices:
    """Best value of what a bar can hold, for every length of bar up to the longest.

    Parameters
    ----------
    values : array, shape (pieces,)
        What each piece is worth; one that is worth nothing is not cut.
    """

    def __init__(self, ruler: Ruler, values: Floats, longest: float) -> None:
        self._ruler, self._values = ruler, values
        self._units = ruler.units(longest)
        fitting = (i for i in range(len(values)) if ruler.pieces[i] <= self._units)
        self._order = sorted(fitting, key=lambda i: int(ruler.pieces[i]))  # the longest is decided first, at the end
        self._copies: list[tuple[int, NDArray[np.bool_]]] = []
        self._tables = [np.zeros(self._units + 1)]
        best = np.zeros(self._units + 1)
        for i in self._order:
            if values[i] > 0:
                best = self._add(best, i)
            self._tables.append(best.copy())

    def _add(self, best: Floats, i: int) -> Floats:
        size, value = int(self._ruler.pieces[i]), float(self._values[i])
        for _ in range(min(int(self._ruler.most[i]), self._units // size)):
            taken = np.zeros(len(best), dtype=np.bool_)
            more = best[:-size] + value
            taken[size:] = more > best[size:] + 1e-12
            if not taken.any():
                break
            best[size:] = np.where(taken[size:], more, best[size:])
            self._copies.append((i, taken))
        return best

    def best(self, capacity: float) -> tuple[float, Counts]:
        """Value of the best way, and its counts of each piece."""
        left = at = self._ruler.units(capacity)
        counts = [0] * len(self._values)
        for i, taken in reversed(self._copies):
            if taken[left]:
                counts[i] += 1
                left -= int(self._ruler.pieces[i])
        return float(self._tables[-1][at]), tuple(counts)

    def near(self, capacity: float, least: float, *, filled: bool) -> Iterator[Counts]:
        """All ways worth at least this much; if `filled`, without those that could hold one piece more."""
        counts = [0] * len(self._values)

        def go(n: int, left: int, found: float) -> Iterator[Counts]:
            if found + self._tables[n][left] < least:
                return
            if n == 0:
                if not (filled and self._holds_more(counts, left)):
                    yield tuple(counts)
                return
            i = self._order[n - 1]
            size, value = int(self._ruler.pieces[i]), float(self._values[i])
            for count in range(min(int(self._ruler.most[i]), left // size), -1, -1):
                counts[i] = count
                yield from go(n - 1, left - count * size, found + count * value)
            counts[i] = 0

        yield from go(len(self._order), self._ruler.units(capacity), 0.0)

    def _holds_more(self, counts: Sequence[int], left: int) -> bool:
        return any(self._ruler.pieces[i] <= left and counts[i] < self._ruler.most[i] for i in self._order)
