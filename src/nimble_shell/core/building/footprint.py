"""Footprints: the outline of a body in plan, from a few lengths or from points."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Literal

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.quantities.sentence import sentence

FloatArray = NDArray[np.float64]
Point = tuple[float, float]
Outline = tuple[Point, ...]
Plan = Literal["rectangle", "L", "T", "U"]

LEAST_SIDE, MOST_SIDE = 0.3, 300.0  #: of a side of a building [m]
_SQUARE = 1e-6  #: cosine up to which a corner is square


def footprint(plan: Plan, long: float, wide: float, arm: float = 0.0, depth: float = 0.0) -> Outline:
    """A plan from its lengths, anticlockwise from the south-west corner.

    Parameters
    ----------
    plan : {"rectangle", "L", "T", "U"}
    long, wide : float
        Of the rectangle round it, along x and y. [m]
    arm : float
        How wide an arm is: of an L the northern one at the west, of a T the one in the middle, of a U both. [m]
    depth : float
        How far the arms reach beyond the rest. [m]

    Raises
    ------
    DomainError
        If the arms leave nothing, or do not fit.
    """
    if plan == "rectangle":
        return checked(((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)))
    check, arms = Collector(), 2 if plan == "U" else 1
    check.check(arm > 0 and arms * arm < long, ("arm",), "arm_too_wide",
                sentence("an arm is {v} wide", v=(arm, "length")),
                sentence("above 0, all of them below {v}", v=(long, "length")))  # fmt: skip
    check.check(0 < depth < wide, ("depth",), "arm_too_deep", sentence("an arm reaches {v} out", v=(depth, "length")),
                sentence("above 0 and below {v}", v=(wide, "length")))  # fmt: skip
    check.refuse()
    low = wide - depth
    if plan == "L":
        return checked(((0.0, 0.0), (long, 0.0), (long, low), (arm, low), (arm, wide), (0.0, wide)))
    if plan == "U":
        return checked(((0.0, 0.0), (long, 0.0), (long, wide), (long - arm, wide), (long - arm, low), (arm, low),
                        (arm, wide), (0.0, wide)))  # fmt: skip
    a, b = (long - arm) / 2, (long + arm) / 2
    return checked(((0.0, 0.0), (long, 0.0), (long, low), (b, low), (b, wide), (a, wide), (a, low), (0.0, low)))


def checked(points: Sequence[Point]) -> Outline:
    """An outline in order, anticlockwise, without its first point again at the end.

    Raises
    ------
    DomainError
        If it has fewer than three corners, crosses itself, or has a side that none of a building is.
    """
    found = [(float(x), float(y)) for x, y in points]
    if len(found) > 1 and math.dist(found[0], found[-1]) == 0:
        found.pop()
    if len(found) < 3:
        raise DomainError(Issue(path=("footprint",), code="too_few_corners",
                                message=f"{len(found)} points close no plan",
                                hint="give three corners or more"))  # fmt: skip
    check = Collector()
    for n, (p, q) in enumerate(pairwise([*found, found[0]])):
        side = math.dist(p, q)
        check.check(LEAST_SIDE <= side <= MOST_SIDE, ("footprint", n), "side_out_of_range",
                    sentence(f"side {n + 1} is {{v}} long", v=(side, "distance")),
                    sentence("{v1} to {v2}; was it drawn in millimetres and read as metres?",
                             v1=(LEAST_SIDE, "distance"), v2=(MOST_SIDE, "distance")))  # fmt: skip
    check.refuse()
    check.check(bool(shapely.is_valid(shapely.Polygon(found))), ("footprint",), "footprint_crosses",
                "the plan crosses or touches itself", "give its corners in order")  # fmt: skip
    check.refuse()
    return tuple(found) if shapely.is_ccw(shapely.LinearRing(found)) else tuple(found[::-1])


def inward(outline: Outline) -> tuple[FloatArray, FloatArray]:
    """Of each side a unit vector into the plan, and how far the side lies along it: (sides, 2), (sides,) [m]."""
    a = np.array(outline)
    along = np.roll(a, -1, axis=0) - a
    normal = np.column_stack([-along[:, 1], along[:, 0]]) / np.linalg.norm(along, axis=1)[:, None]
    return normal, (a * normal).sum(axis=1)


def is_square(outline: Outline) -> bool:
    """Whether every corner is square."""
    normal, _ = inward(outline)
    return bool((np.abs((normal * np.roll(normal, 1, axis=0)).sum(axis=1)) < _SQUARE).all())


def is_convex(outline: Outline) -> bool:
    """Whether no corner is re-entrant."""
    normal, _ = inward(outline)
    before = np.roll(normal, 1, axis=0)
    return bool((before[:, 0] * normal[:, 1] - before[:, 1] * normal[:, 0] > -_SQUARE).all())


def plan_area(outline: Sequence[tuple[float, float]]) -> float:
    """Area within a plan. [m²]"""
    ends = [*outline[1:], outline[0]]
    return abs(sum(a * d - b * c for (a, b), (c, d) in zip(outline, ends, strict=True))) / 2
