"""The wall's section as SVG for paper: outside on the left, to scale, hatched, dimensioned. Lengths in mm on paper."""

from __future__ import annotations

from dataclasses import dataclass
from xml.sax.saxutils import escape

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities import format_feet_inches, show
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.thermal.figures import Profile
from nimble_shell.reports.hatches import HATCHES

SCALES = (1, 2, 2.5, 5, 10, 20)
_WIDTH, _HEIGHT, _TOP, _LEFT = 170.0, 92.0, 14.0, 16.0
_BODY = 46.0
_PX = 0.24  #: mm on paper for one hatch px
_INK, _GREY = "#1B2530", "#575F68"


@dataclass(frozen=True, slots=True)
class Drawing:
    """An SVG and the scale it was drawn at."""

    svg: str
    scale: float


def length_text(metres: float, units: UnitSystem) -> str:
    """A dimension as printed: mm, or feet and inches."""
    if units == "IP":
        return format_feet_inches(metres)
    return f"{1000 * metres:.1f}".removesuffix(".0")


def wall_section(assembly: Assembly, catalogue: Catalogue, profile: Profile, units: UnitSystem) -> Drawing:
    """Draw the section with dimensions, layer numbers (1 is innermost) and the temperature line."""
    room = _WIDTH - _LEFT - 20
    scale = next((s for s in SCALES if 1000 * assembly.thickness / s <= room), SCALES[-1])
    width = 1000 * assembly.thickness / scale
    left = _LEFT + (room - width) / 2
    outer_edge = [left]
    for layer in reversed(assembly.layers):
        outer_edge.append(outer_edge[-1] + 1000 * layer.d / scale)
    body: list[str] = []
    names = list(reversed(list(enumerate(assembly.layers, 1))))
    for (number, layer), x0, x1 in zip(names, outer_edge, outer_edge[1:], strict=False):
        hatch = catalogue[layer.material].hatch if layer.material else ""
        body.append(_rect(x0, x1, "#FFFFFF"))
        if hatch:
            body.append(_rect(x0, x1, f"url(#{hatch})"))
        body.append(_number(number, (x0 + x1) / 2, 6.0 if (number % 2) else 10.5))
        body.append(_line((x0 + x1) / 2, _TOP - (5.9 if number % 2 else 1.4), (x0 + x1) / 2, _TOP, 0.12))
        for member, share in zip(layer.members, layer.shares(), strict=True):
            if member.run == "vertical" or not layer.material:
                depth = max(2.0, _BODY * share)
                base = _TOP + _BODY - depth - 3
                body.append(
                    f'<rect x="{x0:.3f}" y="{base:.3f}" width="{x1 - x0:.3f}" height="{depth:.3f}" fill="none" '
                    f'stroke="{_GREY}" stroke-width=".15" stroke-dasharray="1.2 .8"/>'
                )
    body += _dimensions(assembly, outer_edge, units)
    body += _temperatures(profile, left + width, scale, units)
    body.append(_text("outside", left - 2, _TOP + _BODY / 2, anchor="end"))
    body.append(_text("inside", left + width + 2, _TOP + 5, anchor="start"))
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {_WIDTH} {_HEIGHT}" width="{_WIDTH}mm" '
        f'height="{_HEIGHT}mm" font-family="Spline Sans">{definitions()}{"".join(body)}</svg>'
    )
    return Drawing(svg, scale)


def definitions() -> str:
    tiles = []
    for name, hatch in HATCHES.items():
        strokes = "".join(
            f'<path d="{one.d}" fill="none" stroke="{_GREY}" stroke-width="{one.pen}"/>' for one in hatch.strokes
        )
        dots = "".join(f'<circle cx="{dot.x}" cy="{dot.y}" r="{dot.r}" fill="{_GREY}"/>' for dot in hatch.dots)
        tiles.append(
            f'<pattern id="{name}" width="{hatch.width}" height="{hatch.height}" patternUnits="userSpaceOnUse" '
            f'patternTransform="scale({_PX})"><g opacity="{hatch.opacity}">{strokes}{dots}</g></pattern>'
        )
    return f"<defs>{''.join(tiles)}</defs>"


def _dimensions(assembly: Assembly, edges: list[float], units: UnitSystem) -> list[str]:
    y = _TOP + _BODY + 7
    parts = [_line(edges[0], y, edges[-1], y, 0.15), _line(edges[0], y + 12, edges[-1], y + 12, 0.15)]
    low = False
    for layer, x0, x1 in zip(reversed(assembly.layers), edges, edges[1:], strict=False):
        low = x1 - x0 < 9 and not low
        parts.append(_text(length_text(layer.d, units), (x0 + x1) / 2, y + (4.2 if low else -1.2), size=2.7))
    for x in edges:
        parts += [_line(x, y - 2, x, y + 2, 0.12), _line(x - 0.9, y + 0.9, x + 0.9, y - 0.9, 0.25)]
    for x in (edges[0], edges[-1]):
        parts += [_line(x, y + 2, x, y + 14, 0.12), _line(x - 0.9, y + 12.9, x + 0.9, y + 11.1, 0.25)]
    parts.append(
        _text(f"{length_text(assembly.thickness, units)} overall", (edges[0] + edges[-1]) / 2, y + 10.8, size=2.9)
    )
    return parts


def _temperatures(profile: Profile, inner: float, scale: float, units: UnitSystem) -> list[str]:
    low, high = profile.condition.theta_e, profile.condition.theta_i
    low, high = min(low, high), max(low, high)
    span = max(high - low, 1.0)

    def at(theta: float) -> float:
        return _TOP + _BODY - 4 - (theta - low) / span * (_BODY - 8)

    points = " ".join(f"{inner - 1000 * plane.x / scale:.3f},{at(plane.theta):.3f}" for plane in profile.curve)
    parts = [
        f'<polyline points="{points}" fill="none" stroke="#FFFFFF" stroke-width="1.1"/>',
        f'<polyline points="{points}" fill="none" stroke="{_INK}" stroke-width=".5"/>',
    ]
    symbol = "°C" if units == "SI" else "°F"
    for plane, dx, anchor in ((profile.planes[0], 2.0, "start"), (profile.planes[-1], -1.5, "end")):
        x = inner - 1000 * plane.x / scale
        y = at(plane.theta)
        parts.append(f'<circle cx="{x:.3f}" cy="{y:.3f}" r=".7" fill="#FFFFFF" stroke="{_INK}" stroke-width=".3"/>')
        text = f"{show(plane.theta, 'temperature', units)} {symbol}"
        if anchor == "start":
            parts.append(_text(text, x + dx, y + 4.5, anchor=anchor, size=2.7))
        else:
            parts.append(_text(text, x + dx, y - 1.5, anchor=anchor, size=2.7))
    return parts


def _rect(x0: float, x1: float, fill: str) -> str:
    return (
        f'<rect x="{x0:.3f}" y="{_TOP}" width="{x1 - x0:.3f}" height="{_BODY}" fill="{fill}" stroke="{_INK}" '
        'stroke-width=".3"/>'
    )


def _line(x0: float, y0: float, x1: float, y1: float, pen: float) -> str:
    return f'<path d="M{x0:.3f} {y0:.3f}L{x1:.3f} {y1:.3f}" stroke="{_INK}" stroke-width="{pen}"/>'


def _text(text: str, x: float, y: float, *, anchor: str = "middle", size: float = 2.9) -> str:
    return (
        f'<text x="{x:.3f}" y="{y:.3f}" font-size="{size}" fill="{_INK}" text-anchor="{anchor}">{escape(text)}</text>'
    )


def _number(number: int, x: float, y: float) -> str:
    return f'<circle cx="{x:.3f}" cy="{y:.3f}" r="2" fill="#FFFFFF" stroke="{_INK}" stroke-width=".2"/>' + _text(
        str(number), x, y + 0.95, size=2.6
    )
