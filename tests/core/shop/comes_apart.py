"""Whether rectangles of a sheet can be parted by through cuts, from the definition of one."""

from __future__ import annotations

from collections.abc import Sequence

Box = tuple[float, float, float, float]  #: x0, y0, x1, y1
NEAR = 1e-6


def comes_apart(boxes: Sequence[Box], kerf: float) -> bool:
    """A cut stands or lies between two groups, a kerf apart; each group then comes apart by itself."""
    if len(boxes) <= 1:
        return True
    for low, high in ((0, 2), (1, 3)):
        ordered = sorted(boxes, key=lambda box: box[low])
        reached = ordered[0][high]
        for n in range(1, len(ordered)):
            if ordered[n][low] >= reached + kerf - NEAR:
                return comes_apart(ordered[:n], kerf) and comes_apart(ordered[n:], kerf)
            reached = max(reached, ordered[n][high])
    return False
