"""Every strip that may end at a joint, looked at together: whether it is legal, and what it comes to."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.setout.elevation import NEAR, Band, Opening
from nimble_shell.core.setout.pieces import Piece, columns_of, pieces_of
from nimble_shell.core.setout.rules import Rules

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
_CELLS = 400_000  #: strips that are looked at together
M2 = 1e-6  #: of a mm²


@dataclass(frozen=True, slots=True, kw_only=True)
class Strips:
    """Strips from each of some joints to one."""

    first: int  #: joint that the first of them begins at; the others follow
    legal: Bools
    panels: NDArray[np.int64]
    off_module: NDArray[np.int64]
    waste: Floats  #: [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rows:
    """Strips [j, k] to each of several joints from the `reach` joints before it, the last from the one next to it."""

    first: int  #: joint that the strips of the first row end at; the other rows follow
    reach: int
    legal: Bools
    panels: NDArray[np.int64]
    off_module: NDArray[np.int64]
    waste: Floats  #: [m²]


def joints_of(band: Band, rules: Rules, pins: Sequence[float] = ()) -> Floats:
    """Both ends of a band, and every legal joint between them, rising; a pinned one need not lie on the grid. [mm]"""
    least = int(np.ceil((band.x0 + NEAR - rules.origin) / rules.step))
    most = int(np.floor((band.x1 - NEAR - rules.origin) / rules.step))
    grid = rules.origin + rules.step * np.arange(least, most + 1, dtype=float)
    if rules.mirrored:
        grid = np.concatenate([grid, band.x0 + band.x1 - grid])
    edges = [x for one in band.openings for x in (one.x, one.right)] if rules.joint_at_edge else []
    edges += [x for one in band.posts for x in (one.x, one.right)]
    found = np.unique(np.concatenate([grid, np.array(edges, dtype=float), np.array(pins, dtype=float)]))
    legal = (found > band.x0 + NEAR) & (found < band.x1 - NEAR)
    for one in band.openings:
        at_a, at_b = np.abs(found - one.x), np.abs(found - one.right)
        on_edge = np.minimum(at_a, at_b) <= NEAR
        if not rules.joint_at_edge:
            legal &= ~on_edge
        legal &= on_edge | ((at_a >= rules.edge_clear - NEAR) & (at_b >= rules.edge_clear - NEAR))
        if rules.at_opening != "cut":
            legal &= on_edge | (found < one.x) | (found > one.right)
    for post in band.posts:
        away = np.maximum(post.x - found, found - post.right)
        legal &= (np.abs(away) <= NEAR) | (away >= rules.edge_clear - NEAR)
    found = found[legal]
    if len(found):  # a grid position beside an edge within nothing is that edge
        found = found[np.concatenate([[True], np.diff(found) > NEAR])]
    return np.concatenate([[band.x0], found, [band.x1]])


class BandStrips:
    """Strips of one band under its rules."""

    def __init__(
        self, band: Band, rules: Rules, pins: Sequence[float] = (), below: Sequence[float] | None = None
    ) -> None:
        self.band, self.rules = band, rules
        self.x = joints_of(band, rules, pins)
        self.pins = np.array(sorted(pins), dtype=float)
        self.astray = self._astray(below)
        self._cells()
        self._rows: Rows | None = None
        self._openings()
        self.bays = self._bays()

    def _astray(self, below: Sequence[float] | None) -> Bools:
        """Of each joint whether it stands on none of the storey below; of the lowest storey none."""
        found = np.zeros(len(self.x), dtype=np.bool_)
        if below is not None:
            joints = np.array([-np.inf, *sorted(below), np.inf])
            at = np.searchsorted(joints, self.x)
            found[:] = np.minimum(joints[at] - self.x, self.x - joints[at - 1]) > NEAR
        found[0] = found[-1] = False
        return found

    @property
    def most(self) -> int:
        """No term counts more than this, nor this many pieces."""
        length, least = self.band.x1 - self.band.x0, max(self.rules.min_strip, NEAR)
        strips = min(len(self.x), int(length / least) + 2 * len(self.band.openings) + 2)
        return 2 * strips + len(self.band.openings)

    def _cells(self) -> None:
        """Heights of each stretch between two joints, and the area up to each."""
        x, band = self.x, self.band
        columns = columns_of(band, band.x0, band.x1)
        low, high = np.full(len(x) - 1, np.inf), np.full(len(x) - 1, -np.inf)
        self._area = np.zeros(len(x))
        for column in columns:
            if not column:
                continue
            x0, x1 = column[0].x0, column[0].x1
            inner = np.clip(x, x0, x1)
            for one in column:
                height0, height1 = one.top0 - one.base0, one.top1 - one.base1
                t = (inner - x0) / (x1 - x0)
                self._area += (x1 - x0) * (height0 * t + (height1 - height0) * t * t / 2)
            at = np.flatnonzero((x[:-1] < x1 - NEAR) & (x[1:] > x0 + NEAR))
            base, top = column[0], column[-1]
            for ends in (inner[:-1][at], inner[1:][at]):
                t = (ends - x0) / (x1 - x0)
                low[at] = np.minimum(low[at], base.base0 + (base.base1 - base.base0) * t)
                high[at] = np.maximum(high[at], top.top0 + (top.top1 - top.top0) * t)
        self._low, self._high = low, high

    def _openings(self) -> None:
        """Which joints lie before, in and after each opening, and which openings want a closer look."""
        x = self.x
        self._a = [int(np.searchsorted(x, one.x - NEAR)) for one in self.band.openings]
        self._b = [int(np.searchsorted(x, one.right + NEAR, side="right")) - 1 for one in self.band.openings]
        self._plain = [_plain(self.band, one) for one in self.band.openings]
        self._full = [not _stubs(self.band, one) for one in self.band.openings]

    def _bays(self) -> dict[int, tuple[int, int, float]]:
        """By the joint that a bay ends at: the one it begins at, its panels and its waste; illegal ones are not there.

        A bay that may not be is there with no joint to begin at.
        """
        found: dict[int, tuple[int, int, float]] = {}
        for a, b, one in zip(self._a, self._b, self.band.openings, strict=True):
            if not (0 < a < b < len(self.x) - 1) or abs(self.x[a] - one.x) > NEAR or abs(self.x[b] - one.right) > NEAR:
                continue
            pieces = pieces_of(self.band, one.x, one.right)
            wastes = [self.waste_of(piece, turned=True) for piece in pieces]
            legal = self.rules.at_opening != "inside" and None not in wastes
            found[b] = (a if legal else -1, len(pieces), sum(each or 0.0 for each in wastes))
        return found

    def waste_of(self, piece: Piece, *, turned: bool, load: float = 0.0) -> float | None:
        """Of the smallest blank that a piece fits; None where it fits none, or may not be. [m²]"""
        rules = self.rules
        if piece.height < rules.min_piece - NEAR or not self._carried(piece.area * M2 * rules.mass_per_m2 + load):
            return None
        ways = [(piece.width, piece.height)] + ([(piece.height, piece.width)] if turned else [])
        if rules.blanks is None:
            wide, long = rules.max_width or 0.0, rules.max_length or 0.0
            return 0.0 if any(w <= wide + NEAR and h <= long + NEAR for w, h in ways) else None
        areas = [
            one.width * (h if one.length is None else one.length) for one in rules.blanks for w, h in ways
            if w <= one.width + NEAR and (one.length is None or h <= one.length + NEAR)
        ]  # fmt: skip
        return (min(areas) - piece.area) * M2 if areas else None

    def _carried(self, mass: float) -> bool:
        return self.rules.max_mass is None or mass <= self.rules.max_mass + NEAR

    def to(self, j: int) -> Strips:
        """All strips that end at a joint."""
        rows = self._rows_with(j)
        first = max(0, j - rows.reach)
        one = (j - rows.first, slice(rows.reach - (j - first), None))
        return Strips(first=first, legal=rows.legal[one], panels=rows.panels[one], off_module=rows.off_module[one],
                      waste=rows.waste[one])  # fmt: skip

    def rows(self) -> Iterator[Rows]:
        """The strips to every joint, as many rows at a time as are looked at together."""
        for j in range(0, len(self.x), self._at_once):
            yield self._rows_with(j)

    def _rows_with(self, j: int) -> Rows:
        """The rows that a joint is among."""
        if self._rows is None or not self._rows.first <= j < self._rows.first + len(self._rows.legal):
            begin = j // self._at_once * self._at_once
            self._rows = self._several(np.arange(begin, min(begin + self._at_once, len(self.x))))
        return self._rows

    @cached_property
    def _at_once(self) -> int:
        """Joints whose strips are looked at together, so that a fine grid does not fill the memory."""
        widest = self.rules.widest / max(self.rules.step, 1e-3)
        return max(1, int(_CELLS / max(min(widest, len(self.x)), 1)))

    def _several(self, js: NDArray[np.int64]) -> Rows:
        """The strips to several joints, [j, k] from joint j − 1 − k until they are turned round."""
        x, rules, n = self.x, self.rules, len(self.x)
        count = js - np.minimum(np.searchsorted(x, x[js] - rules.widest - NEAR), js)
        k = np.arange(max(int(count.max()), 1))
        j = js[:, None]
        there = k < count[:, None]
        i = np.where(there, j - 1 - k, 0)
        width = x[j] - x[i]
        legal = there & (width >= rules.min_strip - NEAR)
        if rules.layout == "cover":
            whole = np.abs(width - (rules.cover or 0.0)) <= NEAR
            legal &= whole | (i == 0) | (j == n - 1)
        cell = np.minimum(i, len(self._low) - 1)
        low = np.minimum.accumulate(self._low[cell], axis=1)
        high = np.maximum.accumulate(self._high[cell], axis=1)
        area = self._area[j] - self._area[i]
        load, look = np.zeros(width.shape), np.zeros(width.shape, dtype=bool)
        for at, one in enumerate(self.band.openings):
            meets = there & (x[i] < one.right - NEAR) & (x[j] > one.x + NEAR)
            load[meets] += one.mass
            legal &= ~((np.abs(x[i] - one.x) <= NEAR) & (np.abs(x[j] - one.right) <= NEAR))  # a bay is none of these
            if rules.at_opening == "bay" or (rules.at_opening != "cut" and self._full[at]):
                legal &= ~meets
            inside = (x[i] >= one.x - NEAR) & (x[j] <= one.right + NEAR)
            look |= meets & (inside | np.bool_(not self._plain[at]))
        if rules.at_opening == "cut":
            load[:] = 0.0
        if len(self.pins):  # none may be passed over
            before = np.searchsorted(self.pins, x[js] - NEAR) - 1
            passed = np.where(before >= 0, self.pins[np.maximum(before, 0)], -np.inf)
            legal &= x[i] >= passed[:, None] - NEAR
        height = high - low
        legal &= look | (height >= rules.min_piece - NEAR)
        if rules.max_mass is not None:
            legal &= look | (area * M2 * rules.mass_per_m2 + load <= rules.max_mass + NEAR)
        blank = self._blank(width, height)
        legal &= look | np.isfinite(blank)
        waste = (blank - area) * M2 if rules.blanks is not None else np.zeros(width.shape)
        panels, off = np.ones(width.shape, dtype=np.int64), self._off(width)
        for row, near in np.argwhere(look & legal).tolist():
            legal[row, near], panels[row, near], waste[row, near] = self._looked(
                int(i[row, near]), int(js[row]), float(load[row, near])
            )
        bays = [(j, *self.bays[j]) for j in js.tolist() if self._has_bay(j)]
        reach = max(len(k), *(j - a for j, a, _, _ in bays), 0)
        legal, panels, off, waste = (_turned(one, reach) for one in (legal, panels, off, waste))
        for j, a, pieces, wasted in bays:
            own = (j - int(js[0]), reach - (j - a))
            legal[own], panels[own], off[own], waste[own] = True, pieces, 0, wasted
        return Rows(first=int(js[0]), reach=reach, legal=legal, panels=panels, off_module=off, waste=waste)

    def _looked(self, i: int, j: int, load: float) -> tuple[bool, int, float]:
        """Of a strip whose pieces are looked at one by one: whether it is legal, how many they are, their waste."""
        pieces = pieces_of(self.band, float(self.x[i]), float(self.x[j]))
        wastes = [self.waste_of(one, turned=False, load=load) for one in pieces]
        legal = None not in wastes and (self.rules.at_opening == "cut" or len(pieces) == 1)
        return legal, len(pieces), sum(one or 0.0 for one in wastes)

    def _has_bay(self, j: int) -> bool:
        """Whether a bay that may be ends at a joint."""
        a = self.bays.get(j, (-1,))[0]
        if a < 0 or self._pinned_between(a, j):
            return False
        return self.rules.layout != "cover" or abs(self.x[j] - self.x[a] - (self.rules.cover or 0.0)) <= NEAR

    def _pinned_between(self, i: int, j: int) -> bool:
        return bool(((self.pins > self.x[i] + NEAR) & (self.pins < self.x[j] - NEAR)).any())

    def _blank(self, width: Floats, height: Floats) -> Floats:
        """Area of the smallest blank that a box fits upright; infinite where there is none. [mm²]"""
        rules = self.rules
        if rules.blanks is None:
            fits = (width <= (rules.max_width or 0.0) + NEAR) & (height <= (rules.max_length or 0.0) + NEAR)
            return np.where(fits, 0.0, np.inf)
        found = np.full(width.shape, np.inf)
        for wide in {one.width for one in rules.blanks}:
            any_length = any(one.length is None for one in rules.blanks if one.width == wide)
            lengths = np.array(
                sorted(one.length for one in rules.blanks if one.width == wide and one.length is not None)
            )
            own = np.append(lengths, np.inf)[np.searchsorted(lengths, height - NEAR)]
            area = wide * (np.minimum(own, height) if any_length else own)
            found = np.where(width <= wide + NEAR, np.minimum(found, area), found)
        return found

    def _off(self, width: Floats) -> NDArray[np.int64]:
        """1 where a full strip is off the module."""
        rules = self.rules
        if rules.bale is not None:
            length, tight, frame = rules.bale.length, rules.bale.tight, rules.bale.frame
            n = np.floor((width - frame + NEAR) / (length - tight))  # as many as go in, pressed as far as can be
            return ((n < 1) | (width > n * length + frame + NEAR)).astype(np.int64)
        widths = rules.module_widths or ((rules.cover or 0.0,) if rules.layout == "cover" else ())
        if not widths:
            return np.zeros(width.shape, dtype=np.int64)
        off: NDArray[np.int64] = np.all([np.abs(width - one) > NEAR for one in widths], axis=0).astype(np.int64)
        return off

    @cached_property
    def member_length(self) -> Floats:
        """At each joint between the ends. [m]"""
        return np.array([0.0, *(self.band.member(float(x)) for x in self.x[1:-1]), 0.0])


def _turned(values: NDArray[Any], reach: int) -> NDArray[Any]:
    """From the farthest to the nearest, with nothing before them."""
    found = np.zeros((len(values), reach), dtype=values.dtype)
    found[:, reach - values.shape[1] :] = values[:, ::-1]
    return found


def _stubs(band: Band, one: Opening) -> bool:
    """Whether anything stands below or above all of an opening."""
    columns = columns_of(band, one.x, one.right)
    return all(columns)


def _plain(band: Band, one: Opening) -> bool:
    """Whether what stands below an opening, and above it, is one with the band on both sides, or is not there at all.

    Then a strip that reaches beyond an opening is one piece.
    """
    columns = columns_of(band, one.x, one.right)
    sides = [
        [[each for each in column if (each.top0 + each.top1) / 2 <= one.y + NEAR] for column in columns],
        [[each for each in column if (each.base0 + each.base1) / 2 >= one.top - NEAR] for column in columns],
    ]
    before = next(each for each in band.slices if each.x0 < one.x <= each.x1 + NEAR)
    after = next(each for each in reversed(band.slices) if each.x0 - NEAR <= one.right < each.x1)
    left, right = before.between(before.x0, one.x), after.between(one.right, after.x1)
    there = [side for side in sides if any(side)]
    if not there:
        return False
    for side in there:
        if not all(side):
            return False
        chain = [left, *(one for (one,) in side), right]
        if any(min(a.top1, b.top0) - max(a.base1, b.base0) <= NEAR for a, b in pairwise(chain)):
            return False
    return True
