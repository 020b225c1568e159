"""The pieces of a strip: what is left of it between the openings, each in one."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from nimble_shell.core.setout.elevation import NEAR, Band, Opening, Point, Slice


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """One panel: its box, and its outer boundary with the notches of openings."""

    x0: float
    x1: float
    y0: float
    y1: float
    outline: tuple[Point, ...]  #: anticlockwise
    holes: tuple[str, ...]  #: openings that do not touch the boundary
    area: float  #: [mm²]

    @property
    def width(self) -> float:
        return self.x1 - self.x0

    @property
    def height(self) -> float:
        return self.y1 - self.y0

    @property
    def square(self) -> bool:
        """Whether its blank is a rectangle: notches and holes are cut into that."""
        box = [(x, y) for x in (self.x0, self.x1) for y in (self.y0, self.y1)]
        return all(any(abs(x - a) + abs(y - b) <= NEAR for a, b in self.outline) for x, y in box)


def columns_of(band: Band, x0: float, x1: float) -> list[list[Slice]]:
    """What stands over each stretch of a strip, from below; left to right."""
    cuts = {x0, x1}
    cuts |= {x for one in band.slices for x in (one.x0, one.x1) if x0 < x < x1}
    cuts |= {x for one in band.openings for x in (one.x, one.right) if x0 < x < x1}
    found = []
    for a, b in pairwise(sorted(cuts)):
        if b - a <= NEAR:
            continue
        middle = (a + b) / 2
        whole = next(one for one in band.slices if one.x0 <= middle <= one.x1).between(a, b)
        gap = next((one for one in band.openings if one.x < middle < one.right), None)
        found.append([one for one in _beside(whole, gap) if one.open])
    return found


def _beside(whole: Slice, gap: Opening | None) -> list[Slice]:
    if gap is None:
        return [whole]
    a, b = whole.x0, whole.x1
    below = Slice(a, b, whole.base0, whole.base1, max(gap.y, whole.base0), max(gap.y, whole.base1))
    above = Slice(a, b, min(gap.top, whole.top0), min(gap.top, whole.top1), whole.top0, whole.top1)
    return [below, above]


def pieces_of(band: Band, x0: float, x1: float) -> list[Piece]:
    """Connected parts of a strip, each sharing more than a point with itself; left to right, from below."""
    columns = columns_of(band, x0, x1)
    flat = [(n, one) for n, column in enumerate(columns) for one in column]
    group = list(range(len(flat)))

    def root(at: int) -> int:
        while group[at] != at:
            at = group[at]
        return at

    for at, (n, one) in enumerate(flat):
        for other_at, (m, other) in enumerate(flat):
            if m == n + 1 and min(one.top1, other.top0) - max(one.base1, other.base0) > NEAR:
                group[root(other_at)] = root(at)
    parts: dict[int, list[Slice]] = {}
    for at, (_, one) in enumerate(flat):
        parts.setdefault(root(at), []).append(one)
    return [_piece(part, band.openings) for part in parts.values()]


def _piece(part: Sequence[Slice], openings: Sequence[Opening]) -> Piece:
    outline = _boundary(part)
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    box = (min(xs), max(xs), min(ys), max(ys))
    holes = tuple(
        one.name for one in openings
        if box[0] < one.x and one.right < box[1] and _around(part, one)
    )  # fmt: skip
    return Piece(x0=box[0], x1=box[1], y0=box[2], y1=box[3], outline=outline, holes=holes,
                 area=sum(one.area for one in part))  # fmt: skip


def _around(part: Sequence[Slice], hole: Opening) -> bool:
    """Whether a piece stands on all sides of an opening, nowhere at a point alone."""
    over = [one for one in part if one.x0 >= hole.x - NEAR and one.x1 <= hole.right + NEAR]
    below = [one for one in over if one.top0 <= hole.y + NEAR and one.top1 <= hole.y + NEAR]
    above = [one for one in over if one.base0 >= hole.top - NEAR and one.base1 >= hole.top - NEAR]
    return all(
        abs(sum(one.x1 - one.x0 for one in side) - hole.w) <= NEAR
        and all(min(one.top0 - one.base0, one.top1 - one.base1) > NEAR for one in side)
        for side in (below, above)
    )


def _boundary(part: Sequence[Slice]) -> tuple[Point, ...]:
    """Anticlockwise; edges that two slices share fall away, and of what is left the ring that goes round it."""
    edges: list[tuple[Point, Point]] = []
    walls: dict[float, list[tuple[float, float, int]]] = {}
    for one in part:
        edges.append(((one.x0, one.base0), (one.x1, one.base1)))
        edges.append(((one.x1, one.top1), (one.x0, one.top0)))
        walls.setdefault(one.x1, []).append((one.base1, one.top1, 1))
        walls.setdefault(one.x0, []).append((one.base0, one.top0, -1))
    for x, sides in walls.items():
        heights = sorted({y for y0, y1, _ in sides for y in (y0, y1)})
        for y0, y1 in pairwise(heights):
            turn = sum(way for low, high, way in sides if low <= y0 and y1 <= high)
            if turn > 0:
                edges.append(((x, y0), (x, y1)))
            elif turn < 0:
                edges.append(((x, y1), (x, y0)))
    follow: dict[Point, list[Point]] = {}
    for a, b in edges:
        if abs(a[0] - b[0]) > NEAR or abs(a[1] - b[1]) > NEAR:
            follow.setdefault(a, []).append(b)
    return _plain(_ring(follow, min(follow)))


def _ring(follow: dict[Point, list[Point]], start: Point) -> list[Point]:
    """Round the outside from its lowest corner on the left; where it touches itself as far to the left as can be."""
    ring, at, came = [], start, (0.0, -1.0)
    while follow[at]:
        ring.append(at)
        goes = max(follow[at], key=lambda to: _turn(came, (to[0] - at[0], to[1] - at[1])))
        follow[at].remove(goes)
        came, at = (goes[0] - at[0], goes[1] - at[1]), goes
    return ring


def _turn(came: Point, goes: Point) -> float:
    """How far to the left a way turns, -π…π; one to the right is less."""
    cross, dot = came[0] * goes[1] - came[1] * goes[0], came[0] * goes[0] + came[1] * goes[1]
    return math.atan2(cross, dot)


def _plain(ring: Sequence[Point]) -> tuple[Point, ...]:
    """Without corners that are none."""
    kept: list[Point] = []
    for n, (x, y) in enumerate(ring):
        (px, py), (qx, qy) = ring[n - 1], ring[(n + 1) % len(ring)]
        if abs((x - px) * (qy - y) - (y - py) * (qx - x)) > NEAR * max(1.0, abs(qx - px) + abs(qy - py)):
            kept.append((x, y))
    return tuple(kept)
