"""A drawing as it is looked at: the outside to the left, also where a body of revolution was solved upright."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.conduction.section import Point
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.solved import SolvedJoint


def lying(drawing: Drawing) -> Drawing:
    """The drawing; a body of revolution with its axis along, below, and its inside to the right."""
    if drawing.kind == "plane":
        return drawing
    x0, y0, x1, y1 = drawing.view
    return replace(
        drawing,
        shapes=tuple(replace(shape, ring=tuple(map(_turned, shape.ring))) for shape in drawing.shapes),
        dims=tuple(replace(dim, a=_turned(dim.a), b=_turned(dim.b)) for dim in drawing.dims),
        marks=tuple(replace(mark, at=_turned(mark.at)) for mark in drawing.marks),
        view=(y0, x0, y1, x1),
    )


def lying_answer(drawing: Drawing, solved: SolvedJoint) -> SolvedJoint:
    """What is solved of a drawing, in the places where `lying` shows it."""
    if drawing.kind == "plane":
        return solved
    coldest = solved.coldest
    return replace(
        solved,
        field=replace(solved.field, xy=solved.field.xy[:, ::-1]),
        coldest=replace(coldest, at=coldest.at[::-1], at_max=coldest.at_max[::-1]),
        trace=solved.trace[..., [1, 0, 2]],
        starts=solved.starts[:, ::-1].copy(),
        segments=tuple((env, _turned(a), _turned(b), flow) for env, a, b, flow in solved.segments),
    )


def _turned(point: Point) -> Point:
    return (point[1], point[0])
