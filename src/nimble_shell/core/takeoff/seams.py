"""Seams between panels until they are set out: a line at each whole module, from the left end of a face."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from nimble_shell.core.geometry.face import Face, FloatArray

_LEAST = 1e-3  #: what is left of a module, or of a seam, and counts for none [m]


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
    left, right = float(flat[:, 0].min()), float(flat[:, 0].max())
    ends = np.roll(flat, -1, axis=0)
    found: list[tuple[float, float, float]] = []
    for n in range(1, int((right - left - _LEAST) / module) + 1):
        u = left + n * module
        found += [(u, low, high) for low, high in _within(face, flat, ends, u) if high - low > _LEAST]
    return np.array(found).reshape(-1, 3)


def _within(face: Face, flat: FloatArray, ends: FloatArray, u: float) -> Iterator[tuple[float, float]]:
    """Where an upright line lies in an outline and in no opening. [m]"""
    crossed = (flat[:, 0] <= u) != (ends[:, 0] <= u)
    a, b = flat[crossed], ends[crossed]
    heights = np.sort(a[:, 1] + (u - a[:, 0]) / (b[:, 0] - a[:, 0]) * (b[:, 1] - a[:, 1])).tolist()
    holes = sorted((one.v, one.v + one.h) for one in face.openings if one.u < u < one.u + one.w)
    for low, high in zip(heights[::2], heights[1::2], strict=True):
        at = low
        for start, end in holes:
            if start < high and end > at:
                yield at, min(start, high)
                at = max(at, end)
        yield at, high
