"""Lines along which heat flows, followed through a field when somebody looks at it."""

from __future__ import annotations

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.conduction.field import Field

FloatArray = NDArray[np.float64]

_STEPS = 160  #: of a line
_STRIDE = 0.02  #: of a line, as a part of the field's larger extent


def heat_flow_lines(field: Field, starts: FloatArray) -> list[FloatArray]:
    """Lines down the slope of the temperature.

    Parameters
    ----------
    field : Field
    starts : ndarray
        Where they begin, shape (n, 2). [m]

    Returns
    -------
    list of ndarray
        Points of each, shape (n, 2). [m]
    """
    if not len(starts):
        return []
    corners = field.xy[field.triangles]
    gradients = _gradients(corners)
    steepest = np.linalg.norm(gradients, axis=2).max(axis=1)
    slope = np.einsum("ma,mad->md", field.theta[field.triangles], gradients)
    size = np.linalg.norm(slope, axis=1)
    triangles = shapely.STRtree(shapely.polygons(corners))
    step = _STRIDE * float(np.ptp(field.xy, axis=0).max())
    lines = [[start] for start in starts]
    here, going = starts.copy(), np.arange(len(starts))
    for _ in range(_STEPS):
        rows, found = triangles.query(shapely.points(here[going]), predicate="intersects")
        rows, first = np.unique(rows, return_index=True)  # on a shared side any of its triangles will do
        going, triangle = going[rows], found[first]
        if not len(going):
            break
        falls = size[triangle] >= 1e-9
        going, triangle = going[falls], triangle[falls]
        stride = np.clip(0.4 / steepest[triangle], 0.25 * step, step)
        here[going] -= slope[triangle] / size[triangle, None] * stride[:, None]
        for at in going:
            lines[at].append(here[at].copy())
    return [np.array(line) for line in lines if len(line) > 1]


def _gradients(corners: FloatArray) -> FloatArray:
    """Gradients of the barycentric coordinates of triangles, shape (m, 3, 2). [1/m]"""
    d = np.roll(corners, -1, axis=1) - np.roll(corners, 1, axis=1)  # the side opposite to each corner, backwards
    one, other = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    double = one[:, 0] * other[:, 1] - other[:, 0] * one[:, 1]
    return np.stack([d[..., 1], -d[..., 0]], axis=-1) / double[:, None, None]
