"""The wall's section as SVG for paper: outside on the left, to scale, hatched, dimensioned. Lengths in mm on paper."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities import show
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.thermal.figures import Profile
from nimble_shell.reports.hatches import HATCHES, Hatch
from nimble_shell.reports.svg import GREY, INK, PAPER, Tag, path, sheet, tag, text
from nimble_shell.reports.written import length_text

SCALES = (1, 2, 2.5, 5, 10, 20)
_WIDTH, _HEIGHT, _TOP, _LEFT = 170.0, 92.0, 14.0, 16.0
_BODY = 46.0
_PX = 0.24  #: mm on paper for one hatch px


@dataclass(frozen=True, slots=True)
class Drawing:
    """An SVG and the scale it was drawn at."""

    svg: str
    scale: float


def wall_section(assembly: Assembly, catalogue: Catalogue, profile: Profile, units: UnitSystem) -> Drawing:
    """Draw the section with dimensions, layer numbers (1 is innermost) and the temperature line."""
    room = _WIDTH - _LEFT - 20
    scale = next((s for s in SCALES if 1000 * assembly.thickness / s <= room), SCALES[-1])
    width = 1000 * assembly.thickness / scale
    left = _LEFT + (room - width) / 2
    outer_edge = [left]
    for layer in reversed(assembly.layers):
        outer_edge.append(outer_edge[-1] + 1000 * layer.d / scale)
    body: list[Tag] = []
    names = list(reversed(list(enumerate(assembly.layers, 1))))
    for (number, layer), x0, x1 in zip(names, outer_edge, outer_edge[1:], strict=False):
        hatch = catalogue[layer.material].hatch if layer.material else ""
        body.append(_rect(x0, x1, PAPER))
        if hatch:
            body.append(_rect(x0, x1, f"url(#{hatch})"))
        body.append(_number(number, (x0 + x1) / 2, 6.0 if (number % 2) else 10.5))
        body.append(_line((x0 + x1) / 2, _TOP - (5.9 if number % 2 else 1.4), (x0 + x1) / 2, _TOP, 0.12))
        for member, share in zip(layer.members, layer.shares(), strict=True):
            if member.run == "vertical" or not layer.material:
                depth = max(2.0, _BODY * share)
                base = _TOP + _BODY - depth - 3
                body.append(tag("rect", x=x0, y=base, width=x1 - x0, height=depth, fill="none", stroke=GREY,
                                stroke_width=0.15, stroke_dasharray="1.2 .8"))  # fmt: skip
    body += _dimensions(assembly, outer_edge, units)
    body += _temperatures(profile, left + width, scale, units)
    body.append(text("outside", left - 2, _TOP + _BODY / 2, anchor="end"))
    body.append(text("inside", left + width + 2, _TOP + 5, anchor="start"))
    return Drawing(sheet(_WIDTH, _HEIGHT, [definitions(), *body]), scale)


def definitions() -> Tag:
    """The hatches as patterns."""
    return tag("defs", *(_pattern(name, hatch) for name, hatch in HATCHES.items()))


def _pattern(name: str, hatch: Hatch) -> Tag:
    strokes = [path(one.d, one.pen, stroke=GREY) for one in hatch.strokes]
    dots = [tag("circle", cx=dot.x, cy=dot.y, r=dot.r, fill=GREY) for dot in hatch.dots]
    return tag("pattern", tag("g", *strokes, *dots, opacity=hatch.opacity), id=name, width=hatch.width,
               height=hatch.height, patternUnits="userSpaceOnUse", patternTransform=f"scale({_PX})")  # fmt: skip


def _dimensions(assembly: Assembly, edges: list[float], units: UnitSystem) -> list[Tag]:
    y = _TOP + _BODY + 7
    parts = [_line(edges[0], y, edges[-1], y, 0.15), _line(edges[0], y + 12, edges[-1], y + 12, 0.15)]
    low = False
    for layer, x0, x1 in zip(reversed(assembly.layers), edges, edges[1:], strict=False):
        low = x1 - x0 < 9 and not low
        parts.append(text(length_text(layer.d, units), (x0 + x1) / 2, y + (4.2 if low else -1.2), size=2.7))
    for x in edges:
        parts += [_line(x, y - 2, x, y + 2, 0.12), _line(x - 0.9, y + 0.9, x + 0.9, y - 0.9, 0.25)]
    for x in (edges[0], edges[-1]):
        parts += [_line(x, y + 2, x, y + 14, 0.12), _line(x - 0.9, y + 12.9, x + 0.9, y + 11.1, 0.25)]
    parts.append(
        text(f"{length_text(assembly.thickness, units)} overall", (edges[0] + edges[-1]) / 2, y + 10.8, size=2.9)
    )
    return parts


def _temperatures(profile: Profile, inner: float, scale: float, units: UnitSystem) -> list[Tag]:
    low, high = profile.condition.theta_e, profile.condition.theta_i
    low, high = min(low, high), max(low, high)
    span = max(high - low, 1.0)

    def at(theta: float) -> float:
        return _TOP + _BODY - 4 - (theta - low) / span * (_BODY - 8)

    points = " ".join(f"{inner - 1000 * plane.x / scale:.3f},{at(plane.theta):.3f}" for plane in profile.curve)
    parts = [tag("polyline", points=points, fill="none", stroke=colour, stroke_width=pen)
             for colour, pen in ((PAPER, 1.1), (INK, 0.5))]  # fmt: skip
    symbol = "°C" if units == "SI" else "°F"
    for plane, dx, anchor in ((profile.planes[0], 2.0, "start"), (profile.planes[-1], -1.5, "end")):
        x = inner - 1000 * plane.x / scale
        y = at(plane.theta)
        parts.append(tag("circle", cx=x, cy=y, r=0.7, fill=PAPER, stroke=INK, stroke_width=0.3))
        said = f"{show(plane.theta, 'temperature', units)} {symbol}"
        parts.append(text(said, x + dx, y + (4.5 if anchor == "start" else -1.5), anchor=anchor, size=2.7))
    return parts


def _rect(x0: float, x1: float, fill: str) -> Tag:
    return tag("rect", x=x0, y=_TOP, width=x1 - x0, height=_BODY, fill=fill, stroke=INK, stroke_width=0.3)


def _line(x0: float, y0: float, x1: float, y1: float, pen: float) -> Tag:
    return path(f"M{x0:.3f} {y0:.3f}L{x1:.3f} {y1:.3f}", pen)


def _number(number: int, x: float, y: float) -> Tag:
    return tag("g", tag("circle", cx=x, cy=y, r=2, fill=PAPER, stroke=INK, stroke_width=0.2),
               text(str(number), x, y + 0.95, size=2.6))  # fmt: skip
