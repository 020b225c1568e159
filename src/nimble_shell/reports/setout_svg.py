"""A face cut into panels as SVG for paper, to scale: marks, members, plates, anchors, dimensions. mm on paper."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from nimble_shell.core.setout.anchoring import Anchor
from nimble_shell.core.setout.elevation import Opening, bands_of
from nimble_shell.core.setout.entered import Sensor
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.panels import SetOut
from nimble_shell.core.setout.plates import Plate
from nimble_shell.core.shop.works import Placed
from nimble_shell.reports.svg import GREY, INK, Tag, path, sheet, tag, text
from nimble_shell.reports.written import Written, length_text

SCALES = (20, 25, 50, 75, 100, 150, 200, 500)
_ROOM = (376.0, 188.0)  #: that a drawing has on its page
_LEFT, _TOP, _LOW = 14.0, 8.0, 26.0
_SMALL = 2.2


@dataclass(frozen=True, slots=True, kw_only=True)
class PaperFace:
    """A face with all that is drawn on it."""

    face: FaceSetOut
    name: str  #: "Wall A, north wall"
    plates: tuple[Plate, ...] = ()
    anchors: tuple[Anchor, ...] = ()
    fitted: tuple[Placed, ...] = ()


@dataclass(frozen=True, slots=True)
class FaceDrawing:
    """An SVG and the scale it was drawn at."""

    svg: str
    scale: float


def face_svg(paper: PaperFace, written: Written) -> FaceDrawing:
    """Seen from outside, at the largest usual scale that its page has room for."""
    outline = paper.face.elevation.outline
    wide, high = max(x for x, _ in outline), max(y for _, y in outline)
    scale = scaled(wide, high)
    page = _Page(paper, written, scale, high)
    svg = sheet(wide / scale + 2 * _LEFT, high / scale + _TOP + _LOW, page.all(wide))
    return FaceDrawing(svg, scale)


def scaled(wide: float, high: float) -> float:
    """The largest usual scale at which something fits its page. [mm]"""
    return next((one for one in SCALES if wide / one <= _ROOM[0] - 2 * _LEFT
                 and high / one <= _ROOM[1] - _TOP - _LOW), SCALES[-1])  # fmt: skip


class _Page:
    def __init__(self, paper: PaperFace, written: Written, scale: float, high: float) -> None:
        self.paper, self.face, self.written = paper, paper.face, written
        self.x: Callable[[float], float] = lambda x: _LEFT + x / scale
        self.y: Callable[[float], float] = lambda y: _TOP + (high - y) / scale
        self.scale = scale

    def all(self, wide: float) -> Iterable[Tag]:
        elevation, found = self.face.elevation, self.face.found
        yield self._ring(elevation.outline, 0.5)
        for one in self.face.panels:
            if one.panel.layer == 0:
                yield self._ring(one.panel.piece.outline, 0.18)
        for opening in elevation.openings:
            yield from self._opening(opening)
        for level in elevation.levels:
            yield self._line(0.0, level, wide, level, 0.4)
        if not isinstance(found, SetOut):
            yield text("cannot be set out", self.x(wide / 2), _TOP - 3)
            return
        for member in self.face.members():
            pen = 0.7 if member.post else 0.35
            yield self._line(member.x, member.base, member.x, member.top, pen,
                             **({"stroke_dasharray": "2 1.2"} if member.layer else {}))  # fmt: skip
        yield from self._posts()
        for plate in self.paper.plates:
            yield from self._butts(plate)
        for anchor in self.paper.anchors:
            yield self._anchor(anchor)
        for each in self.paper.fitted:
            yield from self._fitted(each)
        yield from self._marks()
        yield from self._dimensions(wide)
        yield from self._bar()

    def _ring(self, points: Sequence[tuple[float, float]], pen: float) -> Tag:
        return path("M" + "L".join(f"{self.x(x):.2f} {self.y(y):.2f}" for x, y in points) + "Z", pen)

    def _line(self, x0: float, y0: float, x1: float, y1: float, pen: float, **more: float | str) -> Tag:
        return path(f"M{self.x(x0):.2f} {self.y(y0):.2f}L{self.x(x1):.2f} {self.y(y1):.2f}", pen, **more)

    def _opening(self, one: Opening) -> Iterable[Tag]:
        yield self._ring([(one.x, one.y), (one.right, one.y), (one.right, one.top), (one.x, one.top)], 0.35)
        for x in (one.x, one.right):  # from the corners, short of the words in the middle
            for y in (one.y, one.top):
                inner = (x + 0.55 * (one.x + one.w / 2 - x), y + 0.55 * (one.y + one.h / 2 - y))
                yield self._line(x, y, *inner, 0.1, stroke=GREY)
        w, h = (length_text(side / 1000, self.written.units) for side in (one.w, one.h))
        size = f"{w} × {h}"
        middle = self.x(one.x + one.w / 2)
        yield text(one.name, middle, self.y(one.y + one.h / 2), size=_SMALL)
        if one.w / self.scale > 22:
            yield text(size, middle, self.y(one.y + one.h / 2) + 3, size=1.8)

    def _posts(self) -> Iterable[Tag]:
        bands = bands_of(self.face.elevation)
        for one in self.face.elevation.posts:
            base, top = bands[one.band].at(one.x + one.w / 2)
            yield self._ring([(one.x, base), (one.right, base), (one.right, top), (one.x, top)], 0.35)

    def _butts(self, plate: Plate) -> Iterable[Tag]:
        for x in plate.butts:
            y = self.y(plate.y(x))
            yield path(f"M{self.x(x) - 1:.2f} {y + 1.2:.2f}l2 -2.4M{self.x(x):.2f} {y - 1.2:.2f}v2.4", 0.35)

    def _anchor(self, one: Anchor) -> Tag:
        x, y = self.x(one.x), self.y(one.y)
        if one.kind == "hold_down":
            return path(f"M{x - 1.1:.2f} {y + 0.3:.2f}h2.2v3h-2.2z", 0.3, fill=INK)
        return path(f"M{x:.2f} {y + 0.3:.2f}v3.2M{x - 0.9:.2f} {y + 3.5:.2f}h1.8", 0.35)

    def _fitted(self, each: Placed) -> Iterable[Tag]:
        x, y = self.x(each.x), self.y(each.y)
        dx, dy = {"up": (0, -6), "down": (0, 6), "left": (-6, 0), "right": (6, 0)}[each.of.way]
        yield path(f"M{x:.2f} {y:.2f}l{dx} {dy}", 0.25, stroke_dasharray="1 0.8")
        if isinstance(each.of, Sensor):
            yield tag("circle", cx=x, cy=y, r=1.1, fill="none", stroke=INK, stroke_width=0.35)
        else:
            yield tag("rect", x=x - 1, y=y - 1, width=2, height=2, fill="none", stroke=INK, stroke_width=0.35)
        yield text(each.of.name, x + 1.8, y + 0.8, anchor="start", size=1.8)

    def _marks(self) -> Iterable[Tag]:
        for one in self.face.panels:
            piece = one.panel.piece
            if one.panel.layer or piece.width / self.scale < 9:
                continue
            middle = self.x((piece.x0 + piece.x1) / 2)
            top = self.y(piece.y1) + 4 if piece.square else self.y((piece.y0 + piece.y1) / 2)
            yield text(one.mark, middle, top, size=_SMALL)
            if piece.height / self.scale > 14:
                yield text(self.written.full(one.panel.mass, "mass", 0), middle, self.y(piece.y0) - 1.6, size=1.8)

    def _dimensions(self, wide: float) -> Iterable[Tag]:
        lowest = sorted({0.0, wide, *(one.x for one in self.face.members() if one.band == 0 and one.layer == 0)})
        edges = sorted({0.0, wide, *(end for one in self.face.elevation.openings for end in (one.x, one.right))})
        for row, places in ((10.0, lowest), (16.0, edges), (22.0, [0.0, wide])):
            y = self.y(0.0) + row
            for a, b in pairwise(places):
                xa, xb = self.x(a), self.x(b)
                yield path(f"M{xa:.2f} {y:.2f}H{xb:.2f}M{xa - 0.8:.2f} {y + 0.8:.2f}l1.6 -1.6"
                           f"M{xb - 0.8:.2f} {y + 0.8:.2f}l1.6 -1.6", 0.13)  # fmt: skip
                if xb - xa > 9:
                    yield text(length_text((b - a) / 1000, self.written.units), (xa + xb) / 2, y - 0.9, size=1.9)

    def _bar(self) -> Iterable[Tag]:
        """A metre, or three feet, to be measured on the paper."""
        long = 1000.0 if self.written.units == "SI" else 914.4
        yield tag("rect", x=_LEFT, y=1.2, width=long / self.scale, height=1.4, fill=INK)
        yield text(self.written.length(long / 1000), _LEFT + long / self.scale + 2, 2.8, anchor="start", size=_SMALL)
