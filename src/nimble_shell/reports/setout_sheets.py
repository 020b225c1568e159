"""Set-out drawings as PDF to scale, labels of panels, and nesting sheets."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from typing import Any

from nimble_shell.reports.page import typeset
from nimble_shell.reports.setout_svg import FaceDrawing, PaperFace, face_svg
from nimble_shell.reports.svg import INK, Tag, path, sheet, tag, text
from nimble_shell.reports.written import Written, cleaned

CAUTIONS = (
    "Bearing, headers, anchors, hold-downs and lifting points are the engineer's; where they are drawn, they are drawn "
    "as entered.",
    "Set out on site from the building's own lines; measure again before anything is cut.",
)
SHOP_CAUTIONS = ("Lengths are net. Check the first piece of each kind against its drawing before the rest is cut.",)
_WIDE = 178.0  #: of a drawing of a bar [mm]
_BOARD = 84.0  #: of a drawing of a board [mm]


@dataclass(frozen=True, slots=True, kw_only=True)
class PaperHeading:
    """The names around the sheets of a building."""

    project: str
    building: str
    footer: str
    written: Written


@dataclass(frozen=True, slots=True, kw_only=True)
class PaperTable:
    """A table under a drawing."""

    head: str
    columns: tuple[str, ...]
    rows: Sequence[tuple[str, ...]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Label:
    """Of a panel; all of it is set as it stands."""

    mark: str
    up: str
    hand: str
    size: str
    carry: str
    edges: str
    place: str
    outline: tuple[tuple[float, float], ...]  #: from its lower left corner [m]
    holes: tuple[tuple[tuple[float, float], ...], ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class PaperBar:
    """A bar or a board to be drawn. Lengths in m."""

    words: str
    length: float
    width: float = 0.0  #: of a board
    parts: tuple[tuple[str, float, float, float, float], ...]  #: name, from the left, from below, length, width
    cut: tuple[bool, float] | None = None  #: the first through cut of a board: across its length or not, and where


@dataclass(frozen=True, slots=True, kw_only=True)
class PaperPage:
    """A drawing with what stands round it."""

    mark: str
    title: str
    caption: str
    drawing: FaceDrawing
    tables: Sequence[PaperTable]


def pages_pdf(heading: PaperHeading, pages: Sequence[PaperPage], title: str, cautions: Sequence[str]) -> bytes:
    """A page for each drawing, to scale, with its caption and its tables."""
    told = [
        {
            "mark": cleaned(one.mark), "title": cleaned(one.title), "caption": cleaned(one.caption),
            "scale": f"1:{one.drawing.scale:g}", "svg": one.drawing.svg,
            "tables": [{**asdict(each), "rows": [[cleaned(cell) for cell in row] for row in each.rows]}
                       for each in one.tables if each.rows],
        } for one in pages
    ]  # fmt: skip
    return typeset("faces.typ", {**_names(heading, title), "pages": told, "cautions": list(cautions)}, "")


def faces_pdf(
    heading: PaperHeading, faces: Sequence[tuple[PaperFace, str, Sequence[PaperTable]]], title: str
) -> bytes:  # fmt: skip
    """A page for each face."""
    pages = [
        PaperPage(mark=paper.face.mark, title=paper.name, caption=caption, tables=tables,
                  drawing=face_svg(paper, heading.written))
        for paper, caption, tables in faces
    ]  # fmt: skip
    return pages_pdf(heading, pages, title, CAUTIONS)


def labels_pdf(heading: PaperHeading, labels: Sequence[Label]) -> bytes:
    """Ten labels on each sheet, in set order."""
    rows = [
        {**{key: cleaned(value) for key, value in asdict(one).items() if isinstance(value, str)}, "svg": _shape(one)}
        for one in labels
    ]
    return typeset("labels.typ", {**_names(heading, "Labels"), "labels": rows}, "")


def nesting_pdf(heading: PaperHeading, sections: Sequence[tuple[str, str, Sequence[PaperBar]]]) -> bytes:
    """Bars and boards, drawn with their pieces."""
    drawn = [
        {"head": cleaned(head), "caption": cleaned(caption),
         "drawings": [{"svg": _drawn(one, heading.written), "words": cleaned(one.words)} for one in bars]}
        for head, caption, bars in sections
    ]  # fmt: skip
    data = {**_names(heading, "What comes out of which bar and board"), "sections": drawn,
            "cautions": list(SHOP_CAUTIONS)}  # fmt: skip
    return typeset("nesting.typ", data, "")


def _names(heading: PaperHeading, title: str) -> dict[str, Any]:
    return {"project": cleaned(heading.project), "building": cleaned(heading.building), "title": cleaned(title),
            "footer": heading.footer}  # fmt: skip


def _shape(one: Label) -> str:
    """The panel as it stands, with its openings, as large as the label has room for."""
    wide, high = max(x for x, _ in one.outline), max(y for _, y in one.outline)
    per = min(42.0 / wide, 24.0 / high)

    def ring(points: Sequence[tuple[float, float]], pen: float) -> Tag:
        return path("M" + "L".join(f"{0.3 + x * per:.2f} {0.3 + (high - y) * per:.2f}" for x, y in points) + "Z", pen)

    inside = [ring(one.outline, 0.35), *(ring(hole, 0.2) for hole in one.holes)]
    return sheet(wide * per + 0.6, high * per + 0.6, inside)


def _drawn(one: PaperBar, written: Written) -> str:
    """A bar along the page, or a board with its long side along it."""
    per = (_WIDE if not one.width else _BOARD) / one.length
    high = one.width * per if one.width else 5.0
    inside = [tag("rect", x=0.2, y=0.2, width=one.length * per, height=high, fill="#E3E5E8", stroke=INK,
                  stroke_width=0.25)]  # fmt: skip
    for name, x, y, length, width in one.parts:
        tall = width * per if one.width else high
        inside.append(tag("rect", x=0.2 + x * per, y=0.2 + (y * per if one.width else 0.0), width=length * per,
                          height=tall, fill="#FFFFFF", stroke=INK, stroke_width=0.18))  # fmt: skip
        words = f"{name} {written.length(length)}" if not one.width else name
        if length * per > 1.15 * len(words):
            inside.append(text(words, 0.2 + (x + length / 2) * per, 0.9 + (y * per if one.width else 0.0) + tall / 2,
                               size=1.9))  # fmt: skip
    if one.cut is not None:
        across, at = one.cut
        d = f"M{0.2 + at * per:.2f} 0.2v{high:.2f}" if across else f"M0.2 {0.2 + at * per:.2f}h{one.length * per:.2f}"
        inside.append(path(d, 0.6, stroke_dasharray="2 1"))
    return sheet(one.length * per + 0.6, high + 0.6, inside)
