"""Seams between panels until they are set out: a line at each whole module, from the left end of a face."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from nimble_shell.core.geometry.face import Face, FloatArray
from nimble_shell.core.held import Held

_LEAST = 1e-3  #: what is left of a module, or of a seam, and counts for none [m]
_LINES: Held[FloatArray] = Held(4096)  #: another thickness moves one side of a face, and leaves the seams of the other


def seam_lines(face: Face, flat: FloatArray, module: float) -> FloatArray:
    """Upright seams of a face, up the slope of a roof, as (u, v0, v1) each: (seams, 3). [m]

    Parameters
    ----------
    face : Face
        Its openings interrupt them; one that only touches an opening goes on.
    flat : FloatArray
        Its outline, (corners, 2), as a system of dimensions has it. [m]
    module : float
        [m]
    """
    more = (flat.tobytes(), module)
    held = _LINES.get((face.openings,), *more)
    return _LINES.put((face.openings,), _seam_lines(face, flat, module), *more) if held is None else held


def _seam_lines(face: Face, flat: FloatArray, module: float) -> FloatArray:
    corners = flat.tolist()  # of a face there are few, and of its lines: arrays would take longer
    left, right = min(x for x, _ in corners), max(x for x, _ in corners)
    found: list[tuple[float, float, float]] = []
    for n in range(1, int((right - left - _LEAST) / module) + 1):
        u = left + n * module
        holes = sorted((one.v, one.v + one.h) for one in face.openings if one.u < u < one.u + one.w)
        found += [(u, low, high) for low, high in _within(_crossed(corners, u), holes) if high - low > _LEAST]
    made = np.array(found).reshape(-1, 3)
    made.flags.writeable = False
    return made


def _crossed(corners: Sequence[tuple[float, float]], u: float) -> list[float]:
    """Heights at which an upright line crosses an outline, from below. [m]"""
    found = []
    x, y = corners[-1]
    for x1, y1 in corners:
        if (x <= u) != (x1 <= u):  # an upright side is crossed by no upright line
            found.append(y + (u - x) / (x1 - x) * (y1 - y))
        x, y = x1, y1
    return sorted(found)


def _within(heights: Sequence[float], holes: Sequence[tuple[float, float]]) -> Iterator[tuple[float, float]]:
    """What of an upright line lies in an outline that it crosses at these heights, and in no opening. [m]"""
    for low, high in zip(heights[::2], heights[1::2], strict=True):
        at = low
        for start, end in holes:
            if start < high and end > at:
                yield at, min(start, high)
                at = max(at, end)
        yield at, high
