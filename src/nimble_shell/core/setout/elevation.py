"""An elevation: an outline with rough openings, cut along its storeys into bands. Lengths in mm, y up."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise

from nimble_shell.core.errors import DomainError, Issue, Path
from nimble_shell.core.quantities.sentence import composed, sentence

NEAR = 1e-6  #: two positions are one [mm]
Point = tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class Opening:
    """A rough opening, (x, y) its lower left corner."""

    name: str
    x: float
    y: float
    w: float
    h: float
    mass: float = 0.0  #: of what stands in it [kg]

    @property
    def right(self) -> float:
        return self.x + self.w

    @property
    def top(self) -> float:
        return self.y + self.h


@dataclass(frozen=True, slots=True)
class Post:
    """What carries a load from above: no joint comes into it; one may stand exactly at its edge."""

    band: int
    x: float
    w: float

    @property
    def right(self) -> float:
        return self.x + self.w


@dataclass(frozen=True, slots=True, kw_only=True)
class Elevation:
    """A wall or roof as it is looked at."""

    outline: tuple[Point, ...]  #: anticlockwise; every vertical line meets its inside in one segment
    openings: tuple[Opening, ...] = ()
    levels: tuple[float, ...] = ()  #: of horizontal joints, rising
    posts: tuple[Post, ...] = ()


@dataclass(frozen=True, slots=True)
class Slice:
    """A piece of an elevation between two verticals, with one base and one top line."""

    x0: float
    x1: float
    base0: float  #: at x0
    base1: float  #: at x1
    top0: float
    top1: float

    def base(self, x: float) -> float:
        return self.base0 + (self.base1 - self.base0) * (x - self.x0) / (self.x1 - self.x0)

    def top(self, x: float) -> float:
        return self.top0 + (self.top1 - self.top0) * (x - self.x0) / (self.x1 - self.x0)

    def between(self, x0: float, x1: float) -> Slice:
        return Slice(x0, x1, self.base(x0), self.base(x1), self.top(x0), self.top(x1))

    @property
    def area(self) -> float:
        return (self.x1 - self.x0) * (self.top0 - self.base0 + self.top1 - self.base1) / 2

    @property
    def open(self) -> bool:
        """Whether there is anything between its lines."""
        return self.area > NEAR * (self.x1 - self.x0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Band:
    """A storey of an elevation, from its least to its greatest x."""

    index: int
    slices: tuple[Slice, ...]  #: left to right, without a gap
    openings: tuple[Opening, ...]  #: left to right
    posts: tuple[Post, ...] = ()

    @property
    def x0(self) -> float:
        return self.slices[0].x0

    @property
    def x1(self) -> float:
        return self.slices[-1].x1

    def at(self, x: float) -> tuple[float, float]:
        """Base and top where both neighbours of a joint stand."""
        met = [one for one in self.slices if one.x0 - NEAR <= x <= one.x1 + NEAR]
        return max(one.base(x) for one in met), min(one.top(x) for one in met)

    def member(self, x: float) -> float:
        """Of the spline or post at a joint, less the openings that it crosses. [m]"""
        base, top = self.at(x)
        crossed = sum(one.h for one in self.openings if one.x + NEAR < x < one.right - NEAR)
        return (top - base - crossed) / 1000


def pitched(elevation: Elevation, pitch: float) -> Elevation:
    """An elevation whose y are runs in plan, at its pitch. [°]"""
    up = 1 / math.cos(math.radians(pitch))
    return Elevation(
        outline=tuple((x, y * up) for x, y in elevation.outline),
        openings=tuple(replace(one, y=one.y * up, h=one.h * up) for one in elevation.openings),
        levels=tuple(one * up for one in elevation.levels),
    )


@lru_cache(maxsize=1024)
def bands_of(elevation: Elevation) -> tuple[Band, ...]:
    """Its storeys, from below.

    Raises
    ------
    DomainError
        If the outline is none, a vertical meets it twice, a level lies outside of it, a storey comes apart, or an
        opening lies where none can; with its place.
    """
    slices = _slices(elevation.outline)
    low = min(min(one.base0, one.base1) for one in slices)
    high = max(max(one.top0, one.top1) for one in slices)
    for at, (before, level) in enumerate(pairwise((low, *elevation.levels))):
        if level <= before + NEAR or level >= high - NEAR:
            raise _refused(("levels", at), "level_outside", f"a level at {level:g}",
                           f"rising, between {low:g} and {high:g}")  # fmt: skip
    edges = (-math.inf, *elevation.levels, math.inf)
    found = [_band(n, slices, *between) for n, between in enumerate(pairwise(edges))]
    held: list[list[Opening]] = [[] for _ in found]
    for at, one in enumerate(elevation.openings):
        held[_home(one, at, found)].append(one)
    names = [one.name for one in elevation.openings]
    for at, name in enumerate(names):
        if name in names[:at]:
            raise _refused(("openings", at, "name"), "name_twice", f"“{name}” is there twice", "another name")
    for row in held:
        row.sort(key=lambda one: one.x)
        for left, right in pairwise(row):
            if right.x <= left.right + NEAR:
                raise _refused(("openings", names.index(right.name), "x"), "openings_meet",
                               f"“{right.name}” begins at {right.x:g}, “{left.name}” ends at {left.right:g}",
                               "openings of a storey lie apart")  # fmt: skip
    posts: list[list[Post]] = [[] for _ in found]
    for at, post in enumerate(elevation.posts):
        posts[_standing(post, at, found, held)].append(post)
    return tuple(
        replace(band, openings=tuple(row), posts=tuple(own))
        for band, row, own in zip(found, held, posts, strict=True)
    )  # fmt: skip


def _refused(path: Path, code: str, message: str, hint: str) -> DomainError:
    return DomainError(Issue(path=path, code=code, message=message, hint=hint))


def _slices(outline: Sequence[Point]) -> list[Slice]:
    """Between its corners, left to right."""
    ring = [*outline, *outline[:1]]
    twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise(ring))
    if len(outline) < 3 or twice <= NEAR:
        raise _refused(("outline",), "not_an_outline", f"{len(outline)} corners, area {twice / 2:g}",
                       "three corners or more, anticlockwise")  # fmt: skip
    xs = sorted({x for x, _ in outline})
    xs = [x for n, x in enumerate(xs) if n == 0 or x - xs[n - 1] > NEAR]
    found = []
    for x0, x1 in pairwise(xs):
        middle = (x0 + x1) / 2
        met = [(a, b) for a, b in pairwise(ring) if min(a[0], b[0]) < middle < max(a[0], b[0])]
        if len(met) != 2:
            raise _refused(("outline",), "not_in_one", f"a vertical at {middle:g} meets it {len(met)} times",
                           "every vertical line meets the inside in one piece")  # fmt: skip
        (base0, base1), (top0, top1) = sorted(
            ((_on(edge, x0), _on(edge, x1)) for edge in met), key=lambda ends: ends[0] + ends[1]
        )
        if base0 > top0 + NEAR or base1 > top1 + NEAR:
            raise _refused(("outline",), "crosses_itself", f"its lines cross between {x0:g} and {x1:g}",
                           "a simple outline")  # fmt: skip
        found.append(Slice(x0, x1, base0, base1, top0, top1))
    _joined(found, ("outline",), "the outline")
    return found


def _on(edge: tuple[Point, Point], x: float) -> float:
    (x0, y0), (x1, y1) = edge
    return y0 + (y1 - y0) * (x - x0) / (x1 - x0)


def _joined(slices: Sequence[Slice], path: Path, what: str) -> None:
    for left, right in pairwise(slices):
        shared = min(left.top1, right.top0) - max(left.base1, right.base0)
        if shared <= NEAR or right.x0 - left.x1 > NEAR:
            raise _refused(path, "comes_apart", f"{what} comes apart at {left.x1:g}", "one piece")


def _band(index: int, slices: Sequence[Slice], low: float, high: float) -> Band:
    found = [piece for one in slices for piece in _clipped(one, low, high)]
    if not found:
        raise _refused(("levels", index - 1), "storey_empty", f"nothing of it lies above {low:g}", "a level below")
    _joined(found, ("levels", max(index - 1, 0)), f"storey {index}")
    return Band(index=index, slices=tuple(found), openings=())


def _clipped(one: Slice, low: float, high: float) -> Iterable[Slice]:
    """What of a slice lies between two levels."""
    cuts = {one.x0, one.x1}
    for level in (low, high):
        for y0, y1 in ((one.base0, one.base1), (one.top0, one.top1)):
            if (y0 - level) * (y1 - level) < 0:
                cuts.add(one.x0 + (one.x1 - one.x0) * (level - y0) / (y1 - y0))
    for x0, x1 in pairwise(sorted(cuts)):
        part = one.between(x0, x1)
        cut = Slice(x0, x1, max(part.base0, low), max(part.base1, low), min(part.top0, high), min(part.top1, high))
        if x1 - x0 > NEAR and cut.top0 >= cut.base0 - NEAR and cut.top1 >= cut.base1 - NEAR and cut.open:
            yield cut


def _home(one: Opening, at: int, bands: Sequence[Band]) -> int:
    """The storey that an opening lies in."""
    for band in bands:
        if one.x <= band.x0 + NEAR or one.right >= band.x1 - NEAR:
            continue
        met = [piece for piece in band.slices if piece.x1 > one.x and piece.x0 < one.right]
        inside = all(
            piece.base(x) <= one.y + NEAR and piece.top(x) >= one.top - NEAR
            for piece in met for x in (max(piece.x0, one.x), min(piece.x1, one.right))
        )  # fmt: skip
        if inside:
            return band.index
    raise _refused(("openings", at), "opening_outside", f"“{one.name}” does not lie within one storey",
                   "inside the outline, between two levels, off both ends")  # fmt: skip


def _standing(post: Post, at: int, bands: Sequence[Band], held: Sequence[Sequence[Opening]]) -> int:
    """The storey that a post stands in."""
    where = sentence("a post from {a} to {b}", a=(post.x / 1000, "length"), b=(post.right / 1000, "length"))
    if not 0 <= post.band < len(bands):
        raise _refused(("posts", at, "band"), "no_storey", where, f"storeys 1 to {len(bands)}")
    band = bands[post.band]
    if post.x < band.x0 - NEAR or post.right > band.x1 + NEAR:
        raise _refused(
            ("posts", at, "x"), "post_outside", composed("{it} stands beyond the ends", it=where), "within its storey"
        )
    met = next((one for one in held[post.band] if post.x < one.right - NEAR and post.right > one.x + NEAR), None)
    if met is not None:
        raise _refused(
            ("posts", at, "x"),
            "post_in_opening",
            composed("{it} stands in “{name}”", it=where, name=met.name),
            "beside it",
        )
    return post.band
