"""Two ways to build a joint, point by point: how much warmer the second is."""

from __future__ import annotations

import numpy as np
import shapely

from nimble_shell.core.conduction.field import Field
from nimble_shell.core.joints.bound import solid_of
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.solved import SolvedJoint

_NEAR = 1e-6  #: a point this near to a surface belongs to what is solid [m]


def warmer(first: tuple[Drawing, SolvedJoint], second: tuple[Drawing, SolvedJoint]) -> Field:
    """Temperature of the second less that of the first, in the second's triangles. [K]

    Parameters
    ----------
    first, second : (Drawing, SolvedJoint)
        Two variants in the same place, at the same temperatures outside and inside.

    Notes
    -----
    Triangles that the first has no material under are left out.
    """
    field = second[1].field
    from scipy.interpolate import LinearNDInterpolator  # not for every start

    before = LinearNDInterpolator(first[1].field.xy, first[1].field.theta)(field.xy)
    solid = shapely.buffer(solid_of(first[0]), _NEAR)
    shapely.prepare(solid)
    before[~shapely.contains_xy(solid, *field.xy.T)] = np.nan
    change = field.theta - before
    known = np.isfinite(change[field.triangles]).all(axis=1)
    return Field(xy=field.xy, theta=np.nan_to_num(change), triangles=field.triangles[known])
