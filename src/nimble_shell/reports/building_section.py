"""A building cut across, as a page shows it."""

from __future__ import annotations

from nimble_shell.core.shell.cut import BuildingSection
from nimble_shell.reports.svg import path, sheet, text
from nimble_shell.reports.written import Written

_WIDE, _MARGIN = 174.0, 4.0  #: of the drawing on the page [mm]


def building_section(section: BuildingSection, written: Written, tall: float) -> tuple[str, float]:
    """The building cut across, from its shape, as SVG, and its round scale, 1 to so many; `tall` in mm."""
    points = [point for face in section.faces for point in (*face.outer, *face.inner)]
    left, right = (pick(u for u, _ in points) for pick in (min, max))
    low, high = min(min(z for _, z in points), section.ground or 0.0), max(z for _, z in points)
    need = max((right - left) * 1000 / (_WIDE - 2 * _MARGIN), (high - low) * 1000 / (tall - 2 * _MARGIN))
    scale = next((one for one in (20, 50, 75, 100, 125, 150, 200, 250, 500, 1000) if one >= need), 2000)

    def at(point: tuple[float, float]) -> str:
        u, z = point
        return f"{_WIDE / 2 + (u - (left + right) / 2) * 1000 / scale:.2f} {_MARGIN + (high - z) * 1000 / scale:.2f}"

    inside = [
        path(f"M{at(face.outer[0])}L{at(face.outer[1])}L{at(face.inner[1])}L{at(face.inner[0])}Z", 0.35)
        for face in section.faces
    ]
    inner = [u for face in section.faces if face.kind == "wall" for u, _ in face.inner]
    inside += [path(f"M{at((min(inner), z))}L{at((max(inner), z))}", 0.5) for z in section.floors if inner]
    if section.ground is not None:
        inside.append(path(f"M{at((left - 1.2, section.ground))}L{at((right + 1.2, section.ground))}", 0.7))
    inside.append(text(written.length(section.width), _WIDE / 2, tall - 1.5))
    return sheet(_WIDE, tall, inside), float(scale)
