"""Panels on the hook: weight and balance by their layers, slings so that each hangs as it is set, crane, wind, people.

Plane statics of a rigid panel. Rigging, ground under the crane and the lift plan stay with the lift supervisor.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.face import Face
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.site.choices import LiftChoices
from nimble_shell.core.site.crane import CraneUse, crane_use, speed_at, turning, weight_force, wind_force
from nimble_shell.core.site.slings import Slung, hung, slung
from nimble_shell.core.site.weight import Body, Hole, Place, Weight, weight_of
from nimble_shell.core.site.weight import Layer as Weighed

_M, _UPRIGHT, _NEAR = 1000.0, 90.0, 1e-9
_AIR = 1.25  #: [kg/m³]
ANGLES = (0.0, 15.0, 30.0, 45.0, 60.0, 75.0, 90.0)  #: at which the pull of turning is told [°]


@dataclass(frozen=True, slots=True, kw_only=True)
class Lifted:
    """One panel. Lengths in mm from its lower left corner and its inside."""

    mark: str
    body: Body
    weight: Weight
    pitch: float  #: at which it hangs [°]
    picks: tuple[Place, ...]
    slung: Slung | None
    problem: str  #: why it cannot hang like that
    tilt: float | None  #: out of plumb, upright on two picks [°]
    radius: float  #: [m]
    crane: CraneUse | None  #: None while no table is entered
    use: float | None  #: of the practice's share of the table
    people: int
    wants_crane: bool
    area: float  #: that the wind sees [m²]
    force: float  #: of the wind at the limit of speed [N]
    calm: float | None  #: wind at which people on lines hold it no more; None where nobody said [m/s]
    turn: tuple[float, ...]  #: upright pull at its upper picks, at each of ANGLES, standing up about its lower edge [N]


def lifted(
    one: Marked, face: FaceSetOut, shape: Face | None, assembly: Assembly, catalogue: Catalogue,
    choices: LiftChoices, rules: SetOutChoices,
) -> Lifted:  # fmt: skip
    """A panel of a face.

    Parameters
    ----------
    shape : Face, optional
        Where the face is in space, for the radius from where the crane stands.
    rules : SetOutChoices
        What people carry.
    """
    body = body_of(one, face, assembly, catalogue)
    weight = weight_of(body)
    pitch = face.pitch if face.kind == "roof" else 0.0 if face.kind == "floor" else _UPRIGHT
    picks = picks_of(body, weight, pitch, choices)
    load = weight_force(weight.mass, choices.dynamic)
    held, problem = None, ""
    try:
        if pitch >= _UPRIGHT - _NEAR and max(y for _, y, _ in picks) <= weight.at[1] + _NEAR:
            raise DomainError(Issue(path=("drop",), code="below_the_centre",
                                    message="its picks lie below the centre of gravity: it would turn over",
                                    hint="picks nearer to its upper edge"))  # fmt: skip
        held = slung(picks, weight.at, pitch, load, height=None, angle=choices.angle)
    except DomainError as error:
        problem = error.issues[0].message
    radius, crane = carried(one, face, shape, choices)
    area, tall = body.gross, max(y for _, y in body.outline)
    calm = None if choices.limit is None else speed_at(choices.limit, area, choices.cf, _AIR)
    pick = (tall - choices.drop * _M, weight.at[2])
    return Lifted(
        mark=one.mark, body=body, weight=weight, pitch=pitch, picks=picks, slung=held, problem=problem,
        tilt=_tilt(picks, weight, pitch), radius=radius, crane=crane,
        use=None if crane is None or crane.use is None else crane.use / choices.share,
        people=rules.people(weight.mass), wants_crane=rules.wants_crane(weight.mass), area=area,
        force=wind_force(area, choices.wind, choices.cf, _AIR), calm=calm,
        turn=tuple(turning(load, (weight.at[1], weight.at[2]), pick, angle) for angle in ANGLES),
    )  # fmt: skip


def carried(one: Marked, face: FaceSetOut, shape: Face | None, choices: LiftChoices) -> tuple[float, CraneUse | None]:
    """How far off it is set, and what the crane's table says to that; None while no table is entered. [m]"""
    table = [(row.radius, row.mass) for row in choices.table]
    radius = _radius(one, face, shape, choices)
    load = one.panel.mass * choices.dynamic + choices.rigging
    return radius, crane_use(table, radius, load) if table else None


def body_of(one: Marked, face: FaceSetOut, assembly: Assembly, catalogue: Catalogue) -> Body:
    """A panel as it leaves the shop: its layers with their members spread, openings with what is fitted into them."""
    piece = one.panel.piece
    shop = [layer for layer in assembly.layers if layer.fitted == "shop"] or list(assembly.layers)
    share = 1 / face.rules.rules.layers
    layers = tuple(Weighed(d=layer.d * _M * share, rho=density_of(layer, catalogue)) for layer in shop)
    held = [each for each in face.elevation.openings if piece.x0 <= each.x and each.right <= piece.x1
            and piece.y0 <= each.y and each.top <= piece.y1]  # fmt: skip
    bare = Body(
        outline=tuple((x - piece.x0, y - piece.y0) for x, y in piece.outline), layers=layers,
        openings=tuple(Hole(x=each.x - piece.x0, y=each.y - piece.y0, w=each.w, h=each.h) for each in held),
    )  # fmt: skip
    fitted = max(0.0, one.panel.mass - weight_of(bare).mass)
    of = fitted / sum(each.mass for each in held) if any(each.mass for each in held) else 0.0
    return replace(bare, openings=tuple(
        replace(hole, mass=each.mass * of) for hole, each in zip(bare.openings, held, strict=True)
    ))  # fmt: skip


def density_of(layer: Layer, catalogue: Catalogue) -> float:
    """With its members spread over it. [kg/m³]"""
    mean = rho = catalogue[layer.material].rho if layer.material in catalogue else 0.0
    for one in layer.members:
        share = one.share if one.share is not None else (one.width or 0.0) / (one.centres or 1.0)
        mean += share * (catalogue[one.material].rho - rho) if one.material in catalogue else 0.0
    return mean


def picks_of(body: Body, weight: Weight, pitch: float, choices: LiftChoices) -> tuple[Place, ...]:
    """Two below the upper edge of what stands, over its balance; four on the upper face of what lies or slopes."""
    high = max(y for _, y in body.outline)
    thick = sum(one.d for one in body.layers)
    low, drop = min(y for _, y in body.outline), choices.drop * _M

    def ends(y: float) -> tuple[float, float]:
        xs = _across(body, y)
        reach = (1 - 2 * choices.pick) * (xs[1] - xs[0]) / 2
        middle = weight.at[0]
        left = max(xs[0], middle - reach)
        right = min(xs[1], middle + reach)
        return left, right

    if pitch >= _UPRIGHT - _NEAR:
        left, right = ends(weight.at[1])
        level = min(_top(body, left), _top(body, right)) - drop
        return (left, level, weight.at[2]), (right, level, weight.at[2])
    reach = (1 - 2 * choices.pick) * (high - low) / 2
    top, foot = min(high, weight.at[1] + reach), max(low, weight.at[1] - reach)
    (a, b), (c, d) = ends(foot), ends(top)
    return (a, foot, thick), (b, foot, thick), (d, top, thick), (c, top, thick)


def _across(body: Body, y: float) -> tuple[float, float]:
    """From where to where a panel reaches at a height; all of it where it does not."""
    found = list[float]()
    for (x0, y0), (x1, y1) in zip(body.outline, (*body.outline[1:], body.outline[0]), strict=True):
        if min(y0, y1) <= y <= max(y0, y1) and abs(y1 - y0) > _NEAR:
            found.append(x0 + (x1 - x0) * (y - y0) / (y1 - y0))
    every = [x for x, _ in body.outline]
    return (min(found), max(found)) if len(found) > 1 else (min(every), max(every))


def _top(body: Body, x: float) -> float:
    """Upper edge of a panel over a place."""
    found = [y0 + (y1 - y0) * (x - x0) / (x1 - x0)
             for (x0, y0), (x1, y1) in zip(body.outline, (*body.outline[1:], body.outline[0]), strict=True)
             if min(x0, x1) <= x <= max(x0, x1) and abs(x1 - x0) > _NEAR]  # fmt: skip
    return max(found, default=max(y for _, y in body.outline))


def _tilt(picks: Sequence[Place], weight: Weight, pitch: float) -> float | None:
    if pitch < _UPRIGHT - _NEAR or len(picks) != 2 or abs(picks[0][1] - picks[1][1]) > _NEAR:
        return None
    rise = picks[0][1] - weight.at[1]
    return None if rise <= _NEAR else math.degrees(math.atan((weight.at[2] - picks[0][2]) / rise))


def _radius(one: Marked, face: FaceSetOut, shape: Face | None, choices: LiftChoices) -> float:
    """From where the crane stands to where the panel is set, in plan. [m]"""
    if choices.stand is None or shape is None:
        return choices.radius
    x, y = place_of(one, face, shape)
    return math.dist((x, y), choices.stand)


def place_of(one: Marked, face: FaceSetOut, shape: Face) -> tuple[float, float]:
    """Of the middle of a panel in plan. [m]"""
    piece, (u0, v0) = one.panel.piece, face.shift
    right, up, _ = shape.axes
    at = (shape.origin + right * (u0 + (piece.x0 + piece.x1) / 2 / _M)
          + up * (v0 + (piece.y0 + piece.y1) / 2 / _M))  # fmt: skip
    return float(at[0]), float(at[1])


def side_view(lift: Lifted) -> tuple[tuple[tuple[float, float], ...], tuple[tuple[float, float], ...]]:
    """As it hangs, seen along its length: outline of its thickness, and picks with the hook last. [mm]"""
    low, high = min(y for _, y in lift.body.outline), max(y for _, y in lift.body.outline)
    thick = sum(one.d for one in lift.body.layers)
    box = [(0.0, low, 0.0), (0.0, high, 0.0), (0.0, high, thick), (0.0, low, thick)]
    outline = tuple((float(at[1]), float(at[2])) for at in (hung(one, lift.pitch) for one in box))
    picks = tuple((float(at[1]), float(at[2])) for at in (hung(one, lift.pitch) for one in lift.picks))
    return outline, picks
