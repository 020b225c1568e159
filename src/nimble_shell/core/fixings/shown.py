"""A solved cell as it is looked at: whole, where one half of it was solved."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from nimble_shell.core.conduction.field import Field
from nimble_shell.core.conduction.section import Point
from nimble_shell.core.joints.drawing import Drawing, Shape
from nimble_shell.core.joints.solved import SolvedJoint


def whole(drawing: Drawing, solved: SolvedJoint) -> tuple[Drawing, SolvedJoint]:
    """Both sides of the axis; every shape of a cell begins at it."""
    across = 0 if drawing.kind == "axisymmetric" else 1
    x0, y0, x1, y1 = drawing.view
    view = (-x1, y0, x1, y1) if across == 0 else (x0, -y1, x1, y1)
    shapes = tuple(_both_sides(shape, across) for shape in drawing.shapes)
    field = solved.field
    other = field.xy.copy()
    other[:, across] *= -1
    both = Field(
        xy=np.concatenate([field.xy, other]),
        theta=np.concatenate([field.theta, field.theta]),
        triangles=np.concatenate([field.triangles, field.triangles + len(field.xy)]),
    )
    return replace(drawing, shapes=shapes, view=view), replace(solved, field=both)


def _both_sides(shape: Shape, across: int) -> Shape:
    far = max(point[across] for point in shape.ring)

    def moved(point: Point) -> Point:
        if point[across] > 0:
            return point
        return (-far, point[1]) if across == 0 else (point[0], -far)

    return replace(shape, ring=tuple(moved(point) for point in shape.ring))
