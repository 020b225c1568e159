"""The one writer of SVG: every text and attribute is escaped here, so that nothing from a file becomes markup."""

from __future__ import annotations

from collections.abc import Iterable
from xml.etree import ElementTree as ET

from nimble_shell.reports.written import cleaned

INK, GREY, PAPER = "#1B2530", "#575F68", "#FFFFFF"
Tag = ET.Element


def tag(name: str, *inside: Tag | str, **attributes: float | str) -> Tag:
    """An element. `stroke_width` is written stroke-width; lengths in mm on paper are rounded to 1/1000."""
    found = Tag(name, {key.replace("_", "-"): _written(value) for key, value in attributes.items()})
    for one in inside:
        if isinstance(one, str):
            found.text = cleaned(one)
        else:
            found.append(one)
    return found


def text(words: str, x: float, y: float, *, anchor: str = "middle", size: float = 2.9) -> Tag:
    """A text in ink at a place."""
    return tag("text", words, x=x, y=y, font_size=size, fill=INK, text_anchor=anchor)


def path(d: str, pen: float, **more: float | str) -> Tag:
    """A line in ink; `d` is SVG path data of the program's own."""
    look: dict[str, float | str] = {"fill": "none", "stroke": INK, "stroke_width": pen}
    return tag("path", d=d, **(look | more))


def sheet(width: float, height: float, inside: Iterable[Tag]) -> str:
    """The drawing as a document of its own. [mm]"""
    root = tag("svg", *inside, xmlns="http://www.w3.org/2000/svg", viewBox=f"0 0 {_written(width)} {_written(height)}",
               width=f"{_written(width)}mm", height=f"{_written(height)}mm", font_family="Spline Sans")  # fmt: skip
    return ET.tostring(root, encoding="unicode")


def _written(value: float | str) -> str:
    return cleaned(value) if isinstance(value, str) else f"{value:.3f}".rstrip("0").rstrip(".")
