"""How a panel is moved: its weight, where that acts, who carries it, and what it takes to stand it up."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from nimble_shell.core.setout.elevation import Opening, Point
from nimble_shell.core.setout.faces import Marked
from nimble_shell.core.setout.strips import M2

G = 9.81  #: [m/s²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Handling:
    """Of one panel; u and v from its lower left corner. [mm]"""

    mass: float  #: [kg]
    u: float  #: of the centre of gravity
    v: float
    turn: float  #: at its top edge, to begin to stand it up about its lower one [N]


def centre_of(outline: Sequence[Point], holes: Sequence[Opening] = ()) -> tuple[float, float, float]:
    """Centroid of an outline less holes in it, and its area. [mm, mm, mm²]"""
    area = first_x = first_y = 0.0
    for (x0, y0), (x1, y1) in pairwise([*outline, outline[0]]):
        twice = x0 * y1 - x1 * y0
        area += twice / 2
        first_x += twice * (x0 + x1) / 6
        first_y += twice * (y0 + y1) / 6
    for one in holes:
        part = one.w * one.h
        area -= part
        first_x -= part * (one.x + one.w / 2)
        first_y -= part * (one.y + one.h / 2)
    return first_x / area, first_y / area, area


def handling_of(one: Marked, openings: Sequence[Opening], per_m2: float) -> Handling:
    """The panel with what is fitted into its holes.

    Parameters
    ----------
    openings : sequence
        Of its face.
    per_m2 : float
        Of the panel itself. [kg/m²]
    """
    piece = one.panel.piece
    holes = [each for each in openings if each.name in piece.holes]
    x, y, area = centre_of(piece.outline, holes)
    own = area * M2 * per_m2
    fitted = one.panel.mass - own  # of units in its openings
    held = [each for each in openings if piece.x0 <= each.x and each.right <= piece.x1] if fitted > 1e-6 else []
    weights = [(own, x, y), *((each.mass, each.x + each.w / 2, each.y + each.h / 2) for each in held)]
    mass = sum(weight for weight, _, _ in weights)
    u = sum(weight * at for weight, at, _ in weights) / mass - piece.x0 if mass else piece.width / 2
    v = sum(weight * at for weight, _, at in weights) / mass - piece.y0 if mass else piece.height / 2
    return Handling(mass=one.panel.mass, u=u, v=v, turn=one.panel.mass * G * v / piece.height)
