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
    left, right = float(flat[:, 0].min()), float(flat[:, 0].max())
    lines = np.array([left + n * module for n in range(1, int((right - left - _LEAST) / module) + 1)])
    found: list[tuple[float, float, float]] = []
    for u, heights in zip(lines.tolist(), _crossed(flat, lines), strict=True):
        holes = sorted((one.v, one.v + one.h) for one in face.openings if one.u < u < one.u + one.w)
        found += [(u, low, high) for low, high in _within(heights, holes) if high - low > _LEAST]
    made = np.array(found).reshape(-1, 3)
    made.flags.writeable = False
    return made


def _crossed(flat: FloatArray, lines: FloatArray) -> list[list[float]]:
    """Heights at which each of several upright lines crosses an outline, from below. [m]"""
    (x, y), (x1, y1), u = flat.T, np.concatenate([flat[1:], flat[:1]]).T, lines[:, None]
    crossed = (x <= u) != (x1 <= u)
    steep = np.where(x1 == x, 1.0, x1 - x)  # an upright side is crossed by no upright line
    heights = np.sort(np.where(crossed, y + (u - x) / steep * (y1 - y), np.inf), axis=1)
    return [row[:n] for row, n in zip(heights.tolist(), crossed.sum(axis=1).tolist(), strict=True)]


def _within(heights: Sequence[float], holes: Sequence[tuple[float, float]]) -> Iterator[tuple[float, float]]:
    """What of an upright line lies in an outline that it crosses at these heights, and in no opening. [m]"""
    for low, high in zip(heights[::2], heights[1::2], strict=True):
        at = low
        for start, end in holes:
            if start < high and end > at:
                yield at, min(start, high)
                at = max(at, end)
        yield at, high
