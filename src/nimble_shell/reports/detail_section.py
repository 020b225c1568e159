"""A solved joint or fixing as SVG for paper: to scale, hatched, lines of one temperature, seals. In mm on paper."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.joints.drawing import Drawing, visible
from nimble_shell.core.joints.shown import lying, lying_answer
from nimble_shell.core.joints.solved import SolvedJoint
from nimble_shell.core.quantities import show
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.reports.section import Drawing as Drawn
from nimble_shell.reports.section import definitions
from nimble_shell.reports.svg import INK, PAPER, Tag, path, sheet, tag, text

Floats = NDArray[np.floating]

SCALES = (1, 2, 2.5, 5, 10, 20, 25, 50)
_WIDTH, _HEIGHT, _EDGE = 170.0, 104.0, 12.0
_STEP = 5.0  #: between lines of one temperature [K]
_SEALS = {"bead": "●", "gasket": "■", "tape": "━", "foam": "○", "lap": "╱", "drain": "▽"}


def detail_section(drawing: Drawing, solved: SolvedJoint, critical: float, units: UnitSystem) -> Drawn:
    """Draw a solved joint or fixing.

    Parameters
    ----------
    drawing : Drawing
    solved : SolvedJoint
    critical : float
        Surface temperature whose line is drawn bold. [°C]
    units : {"SI", "IP"}
        Of the printed temperatures.
    """
    shown, answer = lying(drawing), lying_answer(drawing, solved)
    x0, y0, x1, y1 = shown.view
    room_x, room_y = _WIDTH - 2 * _EDGE, _HEIGHT - 4
    fits = (s for s in SCALES if 1000 * (x1 - x0) / s <= room_x and 1000 * (y1 - y0) / s <= room_y)
    scale = next(fits, SCALES[-1])
    left = (_WIDTH - 1000 * (x1 - x0) / scale) / 2

    def at(x: float, y: float) -> tuple[float, float]:
        return left + 1000 * (x - x0) / scale, 2 + 1000 * (y1 - y) / scale

    (a, top), (b, bottom) = at(x0, y1), at(x1, y0)
    height = bottom + 2
    frame = {"x": a, "y": top, "width": b - a, "height": bottom - top}
    parts = [tag("rect", **frame, fill=PAPER)]
    for shape, rings in visible(shown):
        outline = "".join("M" + "L".join("{:.2f} {:.2f}".format(*at(*point)) for point in ring) + "Z" for ring in rings)
        fill = "none" if shape.fill is None else f"url(#{shape.fill.hatch})"
        pen = 0.5 if shape.part else 0.25
        parts.append(tag("path", d=outline, fill=PAPER, fill_rule="evenodd"))
        parts.append(path(outline, pen, fill=fill, fill_rule="evenodd"))
    field = answer.field
    for number, level in enumerate(_levels(field.theta)):
        row = top + 5 + 4.4 * (number % 3)  # neighbours' numbers stand at different heights
        parts += _iso(field.xy, field.theta, field.triangles, level, at, 0.22, label=level, row=row, units=units,
                      within=(a, top, b, bottom))  # fmt: skip
    parts += _iso(field.xy, field.theta, field.triangles, critical, at, 0.6, label=None, row=top, units=units,
                  within=(a, top, b, bottom))  # fmt: skip
    for number, mark in enumerate(shown.marks, 1):
        x, y = at(*mark.at)
        parts.append(tag("circle", cx=x, cy=y, r=1.7, fill=PAPER, stroke=INK, stroke_width=0.3))
        parts.append(text(str(number), x, y + 0.8, size=2.3))
    x, y = at(answer.coldest.at[0], answer.coldest.at[1])
    said = f"{show(answer.coldest.min, 'temperature', units)} {'°C' if units == 'SI' else '°F'}"
    side = -1 if x + 16 > b else 1
    parts += [path(f"M{x:.2f} {y:.2f}l{side * 4} -4", 0.3),
              tag("circle", cx=x, cy=y, r=1, fill=PAPER, stroke=INK, stroke_width=0.4),
              _plate(said, x + side * (3.4 + 0.75 * len(said)), y - 5)]  # fmt: skip
    around = [tag("rect", **frame, fill="none", stroke=INK, stroke_width=0.4)]
    for words, edge in ((shown.sides[0], a - 2), (shown.sides[1], b + 4)):
        if words:
            turned = f"translate({edge:.2f} {(top + bottom) / 2:.2f}) rotate(-90)"
            around.append(tag("text", words, transform=turned, font_size=2.9, fill=INK, text_anchor="middle"))
    clip = tag("clipPath", tag("rect", **frame), id="view")
    return Drawn(sheet(_WIDTH, height, [definitions(), clip, tag("g", *parts, clip_path="url(#view)"), *around]), scale)


def seals_drawn(drawing: Drawing) -> list[str]:
    """What each numbered mark of the drawing is."""
    return [f"{number} {mark.kind}" for number, mark in enumerate(drawing.marks, 1)]


def _levels(theta: Floats) -> Iterator[float]:
    low, high = float(theta.min()), float(theta.max())
    level = np.ceil(low / _STEP) * _STEP
    while level < high:
        if low + 0.3 < level < high - 0.3:
            yield float(level)
        level += _STEP


def _iso(
    xy: Floats, theta: Floats, triangles: NDArray[np.integer], level: float, at: object, pen: float, *,
    label: float | None, row: float, units: UnitSystem, within: tuple[float, float, float, float],
) -> list[Tag]:  # fmt: skip
    """A line of one temperature: where it crosses the sides of triangles."""
    values = theta[triangles] - level
    values = np.where(values == 0, 1e-12, values)
    ends = []
    for i, j in ((0, 1), (1, 2), (2, 0)):
        crossed = values[:, i] * values[:, j] < 0
        with np.errstate(divide="ignore", invalid="ignore"):
            t = values[:, i] / (values[:, i] - values[:, j])
            place = xy[triangles[:, i]] + t[:, None] * (xy[triangles[:, j]] - xy[triangles[:, i]])
        ends.append(np.where(crossed[:, None], place, np.nan))
    every = np.stack(ends, axis=1)
    known = np.isfinite(every[..., 0])
    two = known.sum(axis=1) == 2
    pairs = every[two][known[two]].reshape(-1, 2, 2)
    if not len(pairs):
        return []
    assert callable(at)
    pieces, best, spot = [], np.inf, None
    x0, y0, x1, y1 = within
    for p, q in pairs:
        (ax, ay), (bx, by) = at(*p), at(*q)
        if max(ax, bx) < x0 or min(ax, bx) > x1 or max(ay, by) < y0 or min(ay, by) > y1:
            continue
        pieces.append(f"M{ax:.2f} {ay:.2f}L{bx:.2f} {by:.2f}")
        away = abs(ay - row)
        if away < best and x0 + 5 < ax < x1 - 5:
            best, spot = away, (ax, max(ay, y0 + 3))
    found = [path("".join(pieces), pen, stroke_linecap="round")]
    if label is not None and spot is not None:
        found.append(_plate(show(label, "temperature", units, decimals=0), *spot))
    return found if pieces else []


def _plate(words: str, x: float, y: float) -> Tag:
    wide = 1.7 * len(words) + 1.2
    return tag("g", tag("rect", x=x - wide / 2, y=y - 1.8, width=wide, height=3.6, fill=PAPER),
               text(words, x, y + 0.95, size=2.6))  # fmt: skip
