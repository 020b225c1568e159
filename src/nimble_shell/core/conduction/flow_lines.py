"""Lines along which heat flows, followed through a field when somebody looks at it."""

from __future__ import annotations

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.conduction.elements import shape_slopes
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
    nodes = field.quadratic
    corners = field.xy[nodes[:, :3]]
    gradients = _gradients(corners)
    steepness = np.linalg.norm(gradients, axis=2)
    centre, values = corners.mean(axis=1), field.theta[nodes]
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
        L = 1 / 3 + np.einsum("nad,nd->na", gradients[triangle], here[going] - centre[triangle])
        along = np.einsum("na,nab->nb", values[triangle], shape_slopes(L))
        slope = np.einsum("nb,nbd->nd", along, gradients[triangle])
        size = np.linalg.norm(slope, axis=1)
        falls = size >= 1e-9
        going, triangle, slope, size = going[falls], triangle[falls], slope[falls], size[falls]
        stride = np.clip(0.7 / steepness[triangle].max(axis=1), 0.25 * step, step)
        here[going] -= slope / size[:, None] * stride[:, None]
        for at in going:
            lines[at].append(here[at].copy())
    return [np.array(line) for line in lines if len(line) > 1]


def _gradients(corners: FloatArray) -> FloatArray:
    """Gradients of the barycentric coordinates of triangles, shape (m, 3, 2). [1/m]"""
    d = np.roll(corners, -1, axis=1) - np.roll(corners, 1, axis=1)  # the side opposite to each corner, backwards
    one, other = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    double = one[:, 0] * other[:, 1] - other[:, 0] * one[:, 1]
    return np.stack([d[..., 1], -d[..., 0]], axis=-1) / double[:, None, None]
