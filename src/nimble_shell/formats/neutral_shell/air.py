"""Air of the neutral shell case: leakage, the fan in the door, the balance of a zone, ventilation."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.airflow.balance import AirPath, Fan, Flue, Makeup, Zone, balance
from nimble_shell.core.airflow.density import P_STANDARD
from nimble_shell.core.airflow.fan_test import FanLine, FanSet, fan_test
from nimble_shell.core.airflow.leakage import Infiltration, LeakItem, Leaky, Range, leak_figures
from nimble_shell.core.airflow.ventilation import AirState, Mode, Ventilation, air_figures, room_air
from nimble_shell.core.errors import Collector, Path
from nimble_shell.core.takeoff.takeoff import Takeoff
from nimble_shell.core.working import value_of
from nimble_shell.formats.neutral_shell.lengths import Dimensions, Named
from nimble_shell.formats.neutral_shell.values import (
    Exponent,
    NotNegative,
    Positive,
    Pressure,
    Share,
    Temperature,
    Three,
    Wind,
    each,
    missing,
    not_there,
    number,
    numbers,
    one_of,
    only_once,
    placed,
)
from nimble_shell.formats.strict import Number, Strict


class LeakJoint(Strict):
    id: str
    grade: str
    l: Positive | None = None  # noqa: E741 - as the format writes it
    joint: str | None = None
    at: str | None = None


class LeakPieces(Strict):
    id: str
    n: NotNegative
    q: Three


class LeakArea(Strict):
    id: str
    A: Positive
    q: Three


class InfiltrationCase(Strict):
    e: Positive = 0.07
    f: NotNegative = 15.0
    q_supply: NotNegative = 0.0
    q_extract: NotNegative = 0.0


class LeakageCase(Strict):
    V: Positive | None = None
    A_E: Positive | None = None
    A_F: Positive
    n: Exponent
    dimensions: Dimensions = "overall_internal"
    grades: dict[str, Three] = {}
    joints: list[LeakJoint] = []
    openings: list[LeakPieces] = []
    services: list[LeakPieces] = []
    areas: list[LeakArea] = []
    infiltration: InfiltrationCase = InfiltrationCase()


def answer_leakage(case: LeakageCase, takeoff: Takeoff | None) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    _check(case)
    if takeoff is None and (case.V is None or case.A_E is None):
        raise missing("leakage", "V" if case.V is None else "A_E")
    V = case.V if case.V is not None or takeoff is None else takeoff.volume.overall_internal
    A_E = case.A_E if case.A_E is not None or takeoff is None else takeoff.envelope
    assert V is not None and A_E is not None  # noqa: PT018 - told, or of the geometry
    sizes = Named(takeoff, case.dimensions)
    items = each(case.joints, lambda one, path: _joint(one, path, case, sizes), "leakage", "joints")
    items += [LeakItem(id=one.id, amount=one.n, unit="", q=_three(one.q)) for one in (*case.openings, *case.services)]
    items += [LeakItem(id=one.id, amount=one.A, unit="m²", q=_three(one.q)) for one in case.areas]
    found = leak_figures(Leaky(V=V, A_E=A_E, A_F=case.A_F, n=case.n, items=tuple(items),
                               infiltration=Infiltration(**case.infiltration.model_dump())))  # fmt: skip
    return {
        "items": {name: value_of(one[1]) for name, one in found.items.items()}, "largest": found.largest,
        **{name: _listed(getattr(found, name)) for name in ("q50", "n50", "qE50", "qF50", "C", "q_inf")},
        "ELA4_cm2": _listed(found.ELA4),
    }  # fmt: skip


def _check(case: LeakageCase) -> None:
    check = Collector()
    lists: dict[str, Sequence[LeakJoint | LeakPieces | LeakArea]] = {
        "joints": case.joints,
        "openings": case.openings,
        "services": case.services,
        "areas": case.areas,
    }
    seen: set[str] = set()
    for name, parts in lists.items():
        for at, one in enumerate(parts):
            check.check(one.id not in seen, ("leakage", name, at), "id_taken", f"“{one.id}” is there already",
                        "give every one an id of its own")  # fmt: skip
            seen.add(one.id)
            if not isinstance(one, LeakJoint):
                _rising(check, one.q, "leakage", name, at, "q")
    for key, values in case.grades.items():
        _rising(check, values, "leakage", "grades", key)
    check.refuse()


def _rising(check: Collector, values: list[float], *path: str | int) -> None:
    low, likely, high = values
    check.check(low <= likely <= high, path, "not_in_order", f"{low:g}, {likely:g}, {high:g} do not rise",
                "low, likely, high")  # fmt: skip


def _joint(one: LeakJoint, path: Path, case: LeakageCase, sizes: Named) -> LeakItem:
    if one.grade not in case.grades:
        raise not_there("grade", one.grade, *path, "grade")
    if one_of(one, ("l", "joint"), *path) == "joint":
        length = sizes.length(one.joint or "", one.at, *path)
    else:
        length = one.l or 0.0
    return LeakItem(id=one.id, amount=length, unit="m", q=_three(case.grades[one.grade]))


def _three(values: list[float]) -> tuple[float, float, float]:
    low, likely, high = values
    return low, likely, high


def _listed(values: Range | tuple[Any, Any]) -> list[float]:
    return [value_of(one) for one in values]


Readings = Annotated[list[Number], Field(min_length=1)]
Point = Annotated[list[Number], Field(min_length=2, max_length=2)]


class SetCase(Strict):
    direction: Literal["depressurise", "pressurise"]
    theta_i: Temperature
    theta_e: Temperature
    baseline_before: Readings
    baseline_after: Readings
    points: list[Point]


class BlowerDoorCase(Strict):
    V: Positive
    A_E: Positive
    A_F: Positive
    p_bar: Pressure = P_STANDARD
    sets: Annotated[list[SetCase], Field(min_length=1)]


def answer_blower_door(case: BlowerDoorCase) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    check = Collector()
    for at, one in enumerate(case.sets):
        for n, (_, q) in enumerate(one.points):
            check.check(q > 0, ("blower_door", "sets", at, "points", n, 1), "no_flow", "nothing flows at this point",
                        "a flow above 0")  # fmt: skip
    check.refuse()
    sets = [
        FanSet(
            direction=one.direction,
            theta_i=one.theta_i,
            theta_e=one.theta_e,
            before=tuple(one.baseline_before),
            after=tuple(one.baseline_after),
            points=tuple((dp, q) for dp, q in one.points),
        )
        for one in case.sets
    ]
    found = placed("blower_door", lambda: fan_test(sets, case.V, case.A_E, case.A_F, case.p_bar))
    return {"sets": [_line(one) for one in found.sets], **numbers(found, "q50", "n50", "qE50", "qF50"),
            "ELA4_cm2": number(found.ELA4)}  # fmt: skip


def _line(one: FanLine) -> dict[str, Any]:
    ranges = {name: _listed(getattr(one, name)) for name in ("C_L_95", "n_95", "q50_95")}
    return {
        **numbers(one, "baseline", "C_env", "C_L", "n", "q50"),
        **ranges,
        "r2": one.r2,
        "remarks": list(one.remarks),
    }


class PathCase(Strict):
    id: str
    z: Number
    C: Positive
    n: Exponent
    cp: Number = 0.0


class FanCase(Strict):
    id: str
    kind: Literal["supply", "extract"]
    q: NotNegative


class FlueCase(Strict):
    z: Number
    limit: NotNegative


class MakeupCase(Strict):
    z: Number
    cp: Number = 0.0
    Cd: Annotated[Number, Field(gt=0, le=1)] = 0.6


class BalanceCase(Strict):
    theta_i: Temperature
    theta_e: Temperature
    wind: Wind = 0.0
    p_bar: Pressure = P_STANDARD
    paths: Annotated[list[PathCase], Field(min_length=1)]
    fans: list[FanCase] = []
    flue: FlueCase | None = None
    makeup: MakeupCase | None = None


def answer_balance(case: BalanceCase) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    check = Collector()
    only_once(check, (one.id for one in case.paths), "balance", "paths")
    only_once(check, (one.id for one in case.fans), "balance", "fans")
    if case.makeup is not None and case.flue is None:
        check.add(missing("balance", "flue").issues)
    check.refuse()
    found = balance(Zone(
        theta_i=case.theta_i, theta_e=case.theta_e, wind=case.wind, p_bar=case.p_bar,
        paths=tuple(AirPath(**one.model_dump()) for one in case.paths),
        fans=tuple(Fan(**one.model_dump()) for one in case.fans),
        flue=None if case.flue is None else Flue(**case.flue.model_dump()),
        makeup=None if case.makeup is None else Makeup(**case.makeup.model_dump()),
    ))  # fmt: skip
    answer: dict[str, Any] = {**numbers(found, "p_int", "neutral_z", "q_in"),
                              "flows": {name: number(one) for name, one in found.flows.items()}}  # fmt: skip
    if found.draught is not None:
        answer["flue"] = {**numbers(found.draught, "depressurisation", "allowed_extract"), "ok": found.draught.ok}
        if case.makeup is not None:
            answer["flue"]["makeup_A"] = number(found.draught.makeup_A)
    return answer


class ModeCase(Strict):
    share: Share
    factor: NotNegative


class StateCase(Strict):
    theta_e: Annotated[Number, Field(ge=-90, le=60)]
    phi_e: Share


class VentilationCase(Strict):
    persons: NotNegative | None = None
    q_person: NotNegative | None = None
    A_F: Positive | None = None
    q_area: NotNegative | None = None
    extract: list[NotNegative] | None = None
    n_min: NotNegative | None = None
    V: Positive | None = None
    q_mech: NotNegative | None = None
    modes: list[ModeCase] = []
    eta_t: Share = 0.0
    eta_x: Share = 0.0
    q_inf: NotNegative = 0.0
    sfp: NotNegative | None = None
    theta_i: Annotated[Number, Field(ge=-90, le=60)] | None = None
    moisture_kg_h: NotNegative = 0.0
    states: list[StateCase] = []


def answer_ventilation(case: VentilationCase) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    for one, other in (("persons", "q_person"), ("q_area", "A_F"), ("n_min", "V")):
        if getattr(case, one) is not None and getattr(case, other) is None:
            raise missing("ventilation", other)
    if case.states and case.theta_i is None:
        raise missing("ventilation", "theta_i")
    air = Ventilation(
        persons=case.persons, q_person=case.q_person or 0.0, A_F=case.A_F, q_area=case.q_area or 0.0,
        extract=tuple(case.extract or ()), n_min=case.n_min, V=case.V or 0.0, q_mech=case.q_mech,
        modes=tuple(Mode(share=one.share, factor=one.factor) for one in case.modes), eta_t=case.eta_t, eta_x=case.eta_x,
        q_inf=case.q_inf, sfp=case.sfp, theta_i=case.theta_i, moisture=case.moisture_kg_h,
    )  # fmt: skip
    found = placed("ventilation", lambda: air_figures(air))
    answer: dict[str, Any] = {**numbers(found, "q_required", "q_mean", "H_ve", "H_ve_without", "saved"),
                              "governing": found.governing}  # fmt: skip
    if found.fan_W is not None:
        answer["fan_W"] = number(found.fan_W)
    if case.states:
        states = [AirState(theta_e=one.theta_e, phi_e=one.phi_e) for one in case.states]
        rooms = placed("ventilation", lambda: room_air(air, found.q_mean, states))
        answer["states"] = [numbers(one, "theta_supply", "x_e", "x_i", "phi_i", "dew_point") for one in rooms]
    return answer
