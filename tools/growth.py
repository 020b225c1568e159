"""The growth figure of `./nimble bench`: time over unknowns, both axes by tens, as a drawing in the house's ink."""

from __future__ import annotations

import math
from dataclasses import dataclass

_W, _H, _LEFT, _TOP = 560, 320, 60, 16
_X, _Y = (3.7, 6.3), (-2.0, 2.0)  #: powers of ten shown


@dataclass(frozen=True, slots=True, kw_only=True)
class Series:
    """One solver's points: unknowns and seconds."""

    name: str
    points: list[tuple[int, float]]


def drawn(series: list[Series]) -> str:
    """An SVG with a line for each solver, and one along which time grows as the unknowns do."""
    parts = [f'<svg xmlns="http://www.w3.org/2000/svg" width="{_W + 90}" height="{_H + 60}" '
             'font-family="sans-serif" font-size="12">',
             f'<rect width="{_W + 90}" height="{_H + 60}" fill="#F6F2E9"/>']  # fmt: skip
    for power in range(4, 7):
        x, foot = _x(10**power), _TOP + _H
        parts.append(f'<path d="M{x:.1f} {_TOP}V{foot}" stroke="#C9C2B0"/>'
                     f'<text x="{x:.1f}" y="{foot + 18}" text-anchor="middle">10{_raised(power)}</text>')  # fmt: skip
    for power in range(-2, 3):
        y = _y(10.0**power)
        parts.append(f'<path d="M{_LEFT} {y:.1f}H{_W}" stroke="#C9C2B0"/>'
                     f'<text x="{_LEFT - 6}" y="{y + 4:.1f}" text-anchor="end">{10.0**power:g} s</text>')  # fmt: skip
    start = series[0].points[0]
    end = 1_000_000
    linear = start[1] * end / start[0]
    parts.append(f'<path d="M{_x(start[0]):.1f} {_y(start[1]):.1f}L{_x(end):.1f} {_y(linear):.1f}" '
                 f'stroke="#7D796A" stroke-dasharray="4 4"/><text x="{_x(end) + 6:.1f}" y="{_y(linear) + 4:.1f}" '
                 'fill="#575F68">in proportion</text>')  # fmt: skip
    for number, one in enumerate(series):
        places = [(_x(unknowns), _y(seconds)) for unknowns, seconds in one.points]
        path = "L".join(f"{x:.1f} {y:.1f}" for x, y in places)
        colour = ("#1A655D", "#1B2530")[number % 2]
        parts.append(f'<path d="M{path}" fill="none" stroke="{colour}" stroke-width="2"/>')
        parts += [f'<circle cx="{x:.1f}" cy="{y:.1f}" r="3.5" fill="#FDFBF5" stroke="{colour}" stroke-width="2"/>'
                  for x, y in places]  # fmt: skip
        parts.append(f'<text x="{places[-1][0] - 8:.1f}" y="{places[-1][1] - 10:.1f}" text-anchor="end" '
                     f'fill="{colour}">{one.name}</text>')  # fmt: skip
    parts.append(f'<text x="{_W}" y="{_TOP + _H + 36}" text-anchor="end">unknowns of one solution</text></svg>')
    return "\n".join(parts)


def _x(unknowns: float) -> float:
    return _LEFT + (math.log10(unknowns) - _X[0]) / (_X[1] - _X[0]) * (_W - _LEFT)


def _y(seconds: float) -> float:
    return _TOP + (_Y[1] - math.log10(seconds)) / (_Y[1] - _Y[0]) * _H


def _raised(power: int) -> str:
    return "".join("⁰¹²³⁴⁵⁶⁷⁸⁹"[int(digit)] for digit in str(power))
