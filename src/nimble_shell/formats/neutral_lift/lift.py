"""A panel on a hook: weight, centre of gravity, slings, crane, wind, turning and people."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Annotated, Any, Literal

import shapely
from pydantic import Field

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.site.crane import crane_use, people, speed_at, turning, weight_force, wind_force
from nimble_shell.core.site.slings import FOUR, TWO, slung
from nimble_shell.core.site.weight import Body, Hole, Layer, Stick, Weight, weight_of
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive, one_of
from nimble_shell.formats.strict import Number, Strict

Corner = Annotated[list[Number], Field(min_length=2, max_length=2)]
Place = Annotated[list[Number], Field(min_length=3, max_length=3)]
Row = Annotated[list[NotNegative], Field(min_length=2, max_length=2)]
_UPRIGHT, _NEAR = 90.0, 1e-9


class OpeningCase(Strict):
    x: Number
    y: Number
    w: Positive
    h: Positive
    mass_kg: NotNegative = 0.0
    z: Number | None = None


class LayerCase(Strict):
    d: Positive
    rho: NotNegative
    region: Annotated[list[Corner], Field(min_length=3, max_length=1000)] | None = None


class MemberCase(Strict):
    start: Annotated[Corner, Field(alias="from")]
    to: Corner
    kg_per_m: NotNegative
    z: Number


class HookCase(Strict):
    height: Positive | None = None
    min_angle_deg: Annotated[Number, Field(gt=0, lt=90)] | None = None


class CraneCase(Strict):
    table: Annotated[list[Row], Field(min_length=1, max_length=1000)]
    radius_m: NotNegative


class WindCase(Strict):
    speed_m_s: NotNegative
    cf: NotNegative
    rho: Positive = 1.25
    closed: bool
    limit_N: Positive | None = None


class TurnCase(Strict):
    pivot: Corner
    pick: Corner
    angles_deg: Annotated[list[Annotated[Number, Field(ge=0, le=90)]], Field(max_length=10_000)]


class PeopleCase(Strict):
    kg_each: Positive
    least: Annotated[int, Field(strict=True, ge=1, le=1000, alias="min")] = 1


class LiftCase(Strict):
    kind: Literal["lift"] = "lift"
    outline: Annotated[list[Corner], Field(min_length=3, max_length=1000)]
    openings: Annotated[list[OpeningCase], Field(max_length=1000)] = []
    layers: Annotated[list[LayerCase], Field(min_length=1, max_length=1000)]
    members: Annotated[list[MemberCase], Field(max_length=10_000)] = []
    pitch_deg: Annotated[Number, Field(ge=0, le=90)] = _UPRIGHT
    picks: Annotated[list[Place], Field(min_length=2, max_length=4)] | None = None
    hook: HookCase | None = None
    rigging_kg: NotNegative = 0.0
    dynamic: Positive = 1.0
    crane: CraneCase | None = None
    wind: WindCase | None = None
    turn: TurnCase | None = None
    people: PeopleCase | None = None


def compute(case: LiftCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    _checked(case)
    body = Body(
        outline=tuple((x, y) for x, y in case.outline),
        layers=tuple(Layer(d=one.d, rho=one.rho, region=None if one.region is None
                           else tuple((x, y) for x, y in one.region)) for one in case.layers),
        openings=tuple(Hole(x=one.x, y=one.y, w=one.w, h=one.h, mass=one.mass_kg, z=one.z) for one in case.openings),
        members=tuple(Stick(a=(one.start[0], one.start[1]), b=(one.to[0], one.to[1]), per_m=one.kg_per_m, z=one.z)
                      for one in case.members),
    )  # fmt: skip
    weight = weight_of(body)
    answer: dict[str, Any] = {"mass_kg": weight.mass, "cg": list(weight.at)}
    if case.picks is not None:
        answer |= _slung(case, weight)
    if case.crane is not None:
        rows = [(radius, mass) for radius, mass in case.crane.table]
        use = crane_use(rows, case.crane.radius_m, weight.mass * case.dynamic + case.rigging_kg)
        answer["crane"] = {"load_kg": use.load, "capacity_kg": use.capacity, "use": use.use,
                           "max_radius_m": use.max_radius, "ok": use.ok}  # fmt: skip
    if case.wind is not None:
        answer["wind"] = _wind(case.wind, body)
    if case.turn is not None:
        answer["turn"] = {"force_N": _turned(case, case.turn, weight)}
    if case.people is not None:
        answer["people"] = people(weight.mass, case.people.kg_each, case.people.least)
    return answer


def _slung(case: LiftCase, weight: Weight) -> dict[str, Any]:
    hook = case.hook or HookCase()
    one_of(hook, ("height", "min_angle_deg"), "hook")
    picks = [(x, y, z) for x, y, z in case.picks or []]
    found = slung(picks, weight.at, case.pitch_deg, weight_force(weight.mass, case.dynamic),
                  height=hook.height, angle=hook.min_angle_deg)  # fmt: skip
    answer: dict[str, Any] = {
        "legs_mm": list(found.legs), "leg_angles_deg": list(found.angles), "tension_N": list(found.tension),
        "tension_max_N": list(found.tension_max),
    }  # fmt: skip
    level = len(picks) == TWO and picks[0][1:] == picks[1][1:] and case.pitch_deg == _UPRIGHT
    if level:
        rise = picks[0][1] - weight.at[1]
        if rise <= _NEAR:
            raise DomainError(Issue(path=("picks",), code="below_the_centre",
                                    message="both picks lie below the centre of gravity: it would turn over",
                                    hint="picks above the centre of gravity"))  # fmt: skip
        answer["tilt_deg"] = math.degrees(math.atan((weight.at[2] - picks[0][2]) / rise))
    return answer


def _wind(asked: WindCase, body: Body) -> dict[str, Any]:
    area = body.gross if asked.closed else body.net
    answer: dict[str, Any] = {"area_m2": area, "force_N": wind_force(area, asked.speed_m_s, asked.cf, asked.rho)}
    if asked.limit_N is not None:
        answer["speed_at_limit_m_s"] = speed_at(asked.limit_N, area, asked.cf, asked.rho)
    return answer


def _turned(case: LiftCase, asked: TurnCase, weight: Weight) -> list[float]:
    y, z = asked.pivot
    centre, pick = (weight.at[1] - y, weight.at[2] - z), (asked.pick[0] - y, asked.pick[1] - z)
    force = weight_force(weight.mass, case.dynamic)
    try:
        return [turning(force, centre, pick, angle) for angle in asked.angles_deg]
    except ZeroDivisionError:
        raise DomainError(Issue(path=("turn", "pick"), code="over_the_pivot", message="the pick stands over the pivot",
                                hint="a pick away from the pivot")) from None  # fmt: skip


def _checked(case: LiftCase) -> None:
    check = Collector()
    shape = shapely.Polygon(case.outline)
    check.check(shape.is_valid and shape.area > _NEAR, ("outline",), "not_an_outline",
                "its sides cross or enclose nothing", "a simple outline")  # fmt: skip
    for at, layer in enumerate(case.layers):
        if layer.region is not None:
            region = shapely.Polygon(layer.region)
            check.check(region.is_valid and region.area > _NEAR, ("layers", at, "region"), "not_an_outline",
                        "its sides cross or enclose nothing", "a simple outline")  # fmt: skip
    check.check(case.picks is None or len(case.picks) in (TWO, FOUR), ("picks",), "picks",
                f"{len(case.picks or [])} picks", "2 or 4")  # fmt: skip
    check.check(case.picks is None or case.hook is not None, ("hook",), "missing", "“hook” is missing",
                "picks ask for a hook")  # fmt: skip
    if case.crane is not None:
        rows = list(pairwise(case.crane.table))
        check.check(all(a[0] < b[0] for a, b in rows), ("crane", "table"), "not_rising", "radii that do not rise",
                    "rising radii")  # fmt: skip
        check.check(all(a[1] >= b[1] for a, b in rows), ("crane", "table"), "not_falling",
                    "capacities that do not fall", "falling capacities")  # fmt: skip
    check.refuse()
