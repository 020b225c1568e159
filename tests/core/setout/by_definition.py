"""Partitions as the rules say them, with polygons of a library and every subset of joints tried: slow, and plain."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import combinations, pairwise

import shapely

from nimble_shell.core.setout.elevation import Elevation, Opening
from nimble_shell.core.setout.partition import Sum
from nimble_shell.core.setout.rules import Objective, Rules

NEAR = 1e-6
LEAST = 1e-4  #: what is smaller is none [mm²]


@dataclass
class Storey:
    shape: shapely.Polygon
    openings: list[Opening]
    strips: dict[tuple[float, float], Sum | None] = field(default_factory=dict)  #: known under the rules of a case
    members: dict[float, float] = field(default_factory=dict)

    @property
    def ends(self) -> tuple[float, float]:
        x0, _, x1, _ = self.shape.bounds
        return x0, x1


def storeys(elevation: Elevation) -> list[Storey]:
    whole = shapely.Polygon(elevation.outline)
    edges = (-1e6, *elevation.levels, 1e6)
    found = [Storey(whole & shapely.box(-1e6, low, 1e6, high), []) for low, high in pairwise(edges)]
    for one in elevation.openings:
        home = next(each for each in found if each.shape.buffer(1e-5).covers(box(one)))
        home.openings.append(one)
    return found


def box(one: Opening) -> shapely.Polygon:
    return shapely.box(one.x, one.y, one.x + one.w, one.y + one.h)


def legal_joint(x: float, storey: Storey, rules: Rules) -> bool:
    x0, x1 = storey.ends
    if not x0 + NEAR < x < x1 - NEAR:
        return False
    edges = [edge for one in storey.openings for edge in (one.x, one.right)]
    at_edge = any(abs(x - edge) <= NEAR for edge in edges)
    k = (x - rules.origin) / rules.step
    on_grid = abs(k - round(k)) * rules.step <= NEAR
    if at_edge:
        return rules.joint_at_edge
    if not on_grid or any(abs(x - edge) < rules.edge_clear - NEAR for edge in edges):
        return False
    return rules.at_opening == "cut" or not any(one.x < x < one.right for one in storey.openings)


def parts(storey: Storey, u: float, v: float) -> list[shapely.Polygon]:
    left = (storey.shape & shapely.box(u, -1e6, v, 1e6)).difference(
        shapely.union_all([box(o) for o in storey.openings])
    )
    found = list(left.geoms) if left.geom_type != "Polygon" else [left]
    return [one for one in found if one.geom_type == "Polygon" and one.area > LEAST]


def strip_sum(storey: Storey, u: float, v: float, rules: Rules) -> Sum | None:
    """What a strip adds, or nothing where it breaks a rule."""
    met = [one for one in storey.openings if one.x < v - NEAR and one.right > u + NEAR]
    bay = any(abs(one.x - u) <= NEAR and abs(one.right - v) <= NEAR for one in met)
    pieces = parts(storey, u, v)
    if bay and rules.at_opening == "inside":
        return None
    if not bay:
        if v - u < rules.min_strip - NEAR or (met and rules.at_opening == "bay"):
            return None
        if rules.at_opening != "cut" and (len(pieces) != 1 or any(from_base_to_top(storey, one) for one in met)):
            return None
    load = 0.0 if bay or rules.at_opening == "cut" else sum(one.mass for one in met)
    waste = 0.0
    for piece in pieces:
        x0, y0, x1, y1 = piece.bounds
        w, h = x1 - x0, y1 - y0
        if h < rules.min_piece - NEAR:
            return None
        if rules.max_mass is not None and piece.area * 1e-6 * rules.mass_per_m2 + load > rules.max_mass + NEAR:
            return None
        ways = [(w, h), (h, w)] if bay else [(w, h)]
        if rules.blanks is None:
            if not any(a <= (rules.max_width or 0) + NEAR and b <= (rules.max_length or 0) + NEAR for a, b in ways):
                return None
            continue
        blanks = [
            one.width * (b if one.length is None else one.length) for one in rules.blanks for a, b in ways
            if a <= one.width + NEAR and (one.length is None or b <= one.length + NEAR)
        ]  # fmt: skip
        if not blanks:
            return None
        waste += (min(blanks) - piece.area) * 1e-6
    return Sum(panels=len(pieces), off_module=int(not bay and off_module(v - u, rules)), waste=waste)


def from_base_to_top(storey: Storey, one: Opening) -> bool:
    over = storey.shape & shapely.box(one.x, -1e6, one.right, 1e6)
    return bool(over.difference(box(one)).area <= LEAST)


def off_module(width: float, rules: Rules) -> bool:
    if rules.bale is not None:
        bale = rules.bale
        return not any(
            n * (bale.length - bale.tight) + bale.frame <= width + NEAR and width <= n * bale.length + bale.frame + NEAR
            for n in range(1, 200)
        )
    widths = rules.module_widths or ((rules.cover,) if rules.layout == "cover" else ())
    return bool(widths) and not any(abs(width - one) <= NEAR for one in widths)


def layer_sum(storey: Storey, joints: Sequence[float], rules: Rules) -> Sum | None:
    ends = (storey.ends[0], *joints, storey.ends[1])
    total = Sum()
    for n, (u, v) in enumerate(pairwise(ends)):
        if rules.layout == "cover":
            cover = rules.cover or 0.0
            inner = 0 < n < len(ends) - 2
            if v - u > cover + NEAR or (inner and abs(v - u - cover) > NEAR):
                return None
        if (u, v) not in storey.strips:
            storey.strips[u, v] = strip_sum(storey, u, v, rules)
        found = storey.strips[u, v]
        if found is None:
            return None
        total += found
    for x in joints:
        if x not in storey.members:
            storey.members[x] = member(storey, x)
        total += Sum(members=1, member_length=storey.members[x])
    return total


def member(storey: Storey, x: float) -> float:
    """Where both neighbours of a joint stand: just left and just right of it. [m]"""
    low, high = [], []
    for near in (x - 1e-4, x + 1e-4):
        line = storey.shape & shapely.LineString([(near, -1e6), (near, 1e6)])
        _, y0, _, y1 = line.bounds
        low.append(y0)
        high.append(y1)
    crossed = sum(one.h for one in storey.openings if one.x + NEAR < x < one.right - NEAR)
    return (min(high) - max(low) - crossed) / 1000


def subsets(joints: Sequence[float]) -> Iterator[tuple[float, ...]]:
    for count in range(len(joints) + 1):
        yield from combinations(joints, count)


def cost(total: Sum, objective: Objective) -> tuple[float, ...]:
    if objective.weights is not None:
        return (sum(weight * getattr(total, term) for term, weight in objective.weights.items()),)
    return tuple(round(getattr(total, term), 6) for term in objective.order)


def best_cost(storey: Storey, rules: Rules, objective: Objective) -> tuple[float, ...] | None:
    """Of one storey by trying everything."""
    x0, x1 = storey.ends
    grid = [rules.origin + k * rules.step for k in range(int((x0 - rules.origin) // rules.step) - 1,
                                                         int((x1 - rules.origin) // rules.step) + 2)]  # fmt: skip
    edges = [edge for one in storey.openings for edge in (one.x, one.right)]
    places = sorted({x for x in (*grid, *edges) if legal_joint(x, storey, rules)})
    layers = [(some, found) for some in subsets(places) if (found := layer_sum(storey, some, rules)) is not None]
    if rules.layers == 1:
        return min((cost(found, objective) for _, found in layers), default=None)
    return min(
        (
            cost(a + b, objective) for one, a in layers for other, b in layers
            if all(abs(x - y) >= rules.stagger - NEAR for x in one for y in other)
        ),
        default=None,
    )  # fmt: skip
