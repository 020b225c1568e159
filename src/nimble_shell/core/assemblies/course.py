"""How the solved χ of a group stands to the approximate one, over the thickness of the core."""

from __future__ import annotations

from typing import cast

import numpy as np

#: A ratio at each of some thicknesses: pairs of m and -, the thinnest first.
Course = tuple[tuple[float, float], ...]


def ratio_at(course: Course, d: float) -> float:
    """The ratio at a thickness, or at each of an array of them: straight between known ones, beyond them as there."""
    thicknesses, ratios = np.array(course).T
    found = np.interp(d, thicknesses, ratios)
    return float(found) if np.ndim(d) == 0 else cast("float", found)
