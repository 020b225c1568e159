"""A form wall in courses as SVG for paper, to scale: corner blocks by hand, cuts, bucks, lintels, dimensions."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from nimble_shell.core.setout.courses.drawn import DrawnCourse, Lintel
from nimble_shell.core.setout.courses.run import Run
from nimble_shell.reports.setout_svg import FaceDrawing, scaled
from nimble_shell.reports.svg import GREY, Tag, path, sheet, tag, text
from nimble_shell.reports.written import Written, length_text

_LEFT, _TOP, _LOW, _SMALL = 16.0, 9.0, 16.0, 2.0
_FILLS = {"corner": "#DCD5C5", "cut": "#EDEAE2", "whole": "#FFFFFF"}


@dataclass(frozen=True, slots=True, kw_only=True)
class PaperWall:
    """A wall of a run with its courses. mm."""

    run: Run
    wall: int
    courses: Sequence[DrawnCourse]
    lintels: Sequence[Lintel]


def wall_svg(paper: PaperWall, written: Written) -> FaceDrawing:
    """Seen from outside, along the outer face of the form, at the largest usual scale."""
    wide, high = paper.run.walls[paper.wall].length, paper.run.height
    scale = scaled(wide, high)
    page = _Page(paper, written, scale)
    return FaceDrawing(sheet(wide / scale + 2 * _LEFT, high / scale + _TOP + _LOW, page.all()), scale)


class _Page:
    def __init__(self, paper: PaperWall, written: Written, scale: float) -> None:
        self.paper, self.written, self.scale = paper, written, scale
        self.wide, self.high = paper.run.walls[paper.wall].length, paper.run.height
        self.x: Callable[[float], float] = lambda x: _LEFT + x / scale
        self.y: Callable[[float], float] = lambda y: _TOP + (self.high - y) / scale

    def all(self) -> Iterable[Tag]:
        for n, one in enumerate(self.paper.courses, 1):
            yield from self._course(n, one)
        stack = self.paper.run.stacks.get(self.paper.run.walls[self.paper.wall].name)
        if stack is not None:
            yield path(f"M{self.x(stack):.2f} {_TOP - 3:.2f}V{self.y(0) + 2:.2f}", 0.6, stroke_dasharray="3 1")
            yield text("stack joint", self.x(stack), _TOP - 4, size=_SMALL)
        for lintel in self.paper.lintels:
            yield self._box(
                lintel.x0, lintel.y + 20, lintel.x1, lintel.y + lintel.height - 20, 0.35, "none", dash="2 1.2"
            )
        for hole in self.paper.run.of(self.paper.wall):
            yield self._box(hole.x, hole.y, hole.right, hole.top, 0.5, "#FFFFFF")
            yield text(hole.name, self.x((hole.x + hole.right) / 2), self.y((hole.y + hole.top) / 2), size=2.6)
        yield from self._dimensions()

    def _course(self, n: int, one: DrawnCourse) -> Iterable[Tag]:
        low, high = one.of.bottom, one.of.top
        middle = self.y((low + high) / 2) + 0.8
        yield text(str(n), self.x(0) - 4, middle, size=_SMALL)
        ends = ((0.0, one.left, one.left_hand), (self.wide - one.right, self.wide, one.right_hand))
        for x0, x1, hand in ends:
            if hand is not None:
                yield self._box(x0, low, x1, high, 0.3, _FILLS["corner"])
                yield text(hand[0].upper(), self.x((x0 + x1) / 2), middle, size=_SMALL)
        for each in one.blocks:
            yield self._box(each.x0, low, each.x1, high, 0.2, _FILLS["cut" if each.cut else "whole"])
            words = self._length(each.x1 - each.x0)
            if each.cut and (each.x1 - each.x0) / self.scale > 1.2 * len(words):
                yield text(words, self.x((each.x0 + each.x1) / 2), middle, size=1.8)
        if one.bond is not None:
            yield text(self._length(one.bond), self.x(self.wide) + 7, self.y(low) + 0.8, size=1.8)

    def _box(self, x0: float, y0: float, x1: float, y1: float, pen: float, fill: str, dash: str = "") -> Tag:
        more = {"stroke_dasharray": dash} if dash else {}
        return tag("rect", x=self.x(x0), y=self.y(y1), width=(x1 - x0) / self.scale, height=(y1 - y0) / self.scale,
                   fill=fill, stroke="#1B2530", stroke_width=pen, **more)  # fmt: skip

    def _dimensions(self) -> Iterable[Tag]:
        edges = [0.0, *(x for one in self.paper.run.of(self.paper.wall) for x in (one.x, one.right)), self.wide]
        y = self.y(0) + 8
        for a, b in pairwise(edges):
            if b - a > 1:
                yield path(f"M{self.x(a):.2f} {y:.2f}H{self.x(b):.2f}M{self.x(a) - 0.8:.2f} {y + 0.8:.2f}l1.6 -1.6"
                           f"M{self.x(b) - 0.8:.2f} {y + 0.8:.2f}l1.6 -1.6", 0.15, stroke=GREY)  # fmt: skip
                yield text(self._length(b - a), self.x((a + b) / 2), y - 1, size=1.8)

    def _length(self, length: float) -> str:
        return length_text(length / 1000, self.written.units)
