"""Air for people: how much is required, what its recovery is worth, and what it does to the room's humidity."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.airflow.density import P_STANDARD
from nimble_shell.core.climate.saturation import p_sat, saturated_at
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working import Given, Num, named, plain, value_of

Governing = Literal["persons", "extract", "minimum"]
_WHOLE = 1e-6  #: that shares of time may miss 1 by
_AIR = 3.0  #: q/3 W/K for q in m³/h
_RHO = 1.2  #: of air, where its heat is 1200 J/(m³·K) [kg/m³]


@dataclass(frozen=True, slots=True, kw_only=True)
class Mode:
    """How a unit runs for a part of the time."""

    share: float  #: of the time, 0…1
    factor: float  #: of its design flow


@dataclass(frozen=True, slots=True, kw_only=True)
class AirState:
    """Outside."""

    theta_e: float  #: [°C]
    phi_e: float  #: 0…1


@dataclass(frozen=True, slots=True, kw_only=True)
class Ventilation:
    """What is asked of the air, and what moves it. A requirement that is None is not made."""

    persons: float | None = None
    q_person: float = 0.0  #: [m³/h]
    A_F: float | None = None  #: [m²]
    q_area: float = 0.0  #: [m³/(h·m²)]
    extract: tuple[float, ...] = ()  #: of kitchens and baths [m³/h]
    n_min: float | None = None  #: [1/h]
    V: float = 0.0  #: [m³]
    q_mech: float | None = None  #: by design; that required where none is given [m³/h]
    modes: tuple[Mode, ...] = ()  #: always at its design flow without any
    eta_t: float = 0.0  #: recovery of heat
    eta_x: float = 0.0  #: recovery of moisture
    q_inf: float = 0.0  #: by leaks [m³/h]
    sfp: float | None = None  #: of both fans [W/(m³/h)]
    theta_i: float | None = None  #: [°C]
    moisture: float = 0.0  #: set free in the rooms [kg/h]


@dataclass(frozen=True, slots=True, kw_only=True)
class RoomAir:
    """The room at a state outside."""

    theta_supply: Num  #: [°C]
    x_e: Num  #: [kg/kg]
    x_i: Num
    phi_i: Num  #: not clipped
    dew_point: Num | None  #: None of air without vapour [°C]


@dataclass(frozen=True, slots=True, kw_only=True)
class AirFigures:
    """What it comes to."""

    q_required: Num  #: [m³/h]
    governing: Governing | None
    needs: Mapping[Governing, Num]  #: each of the requirements [m³/h]
    q_mean: Num
    H_ve: Num  #: [W/K]
    H_ve_without: Num  #: without recovery
    saved: Num
    fan_W: Num | None


def air_figures(air: Ventilation, given: Given = plain) -> AirFigures:
    """Air required, moved, and the heat that goes with it.

    Raises
    ------
    DomainError
        If the shares of the modes do not add to 1, or nothing says how much air there is.

    References
    ----------
    .. [1] EN 16798-1:2019, 6.3 and annex B: by persons and floor; ISO 13789:2017, 9: heat with recovery.
    """
    modes = air.modes or (Mode(share=1.0, factor=1.0),)
    if abs(sum(one.share for one in modes) - 1) > _WHOLE:
        raise DomainError(Issue(path=("modes",), code="shares_not_whole",
                                message=f"the shares of time add to {sum(one.share for one in modes):g}",
                                hint="shares that add to 1"))  # fmt: skip
    needs = _needs(air, given)
    if not needs and air.q_mech is None:
        raise DomainError(
            Issue(
                path=("persons",),
                code="missing",
                message="nothing says how much air is needed",
                hint="persons with the air of one, extract, a least change, or the flow by design",
            )
        )
    governing: Governing | None = None
    for one, need in needs.items():
        if governing is None or value_of(need) > value_of(needs[governing]):
            governing = one
    required = needs[governing] if governing else given(0.0, "q_none", "nothing is required", "m³/h", "none entered")
    required = named(required, "q_required", "air required", "m³/h", "the greatest of the requirements")
    q_0 = required if air.q_mech is None else given(air.q_mech, "q_mech", "air by design", "m³/h", "entered")
    running = given(
        sum(one.share * one.factor for one in modes), "k_run", "mean of its run modes", "", "Σ share·factor"
    )
    q_mean = named(q_0 * running, "q_mean", "air moved, mean", "m³/h", "q·Σ share·factor")
    q_inf = given(air.q_inf, "q_inf", "infiltration", "m³/h", "of the leakage, or entered")
    eta = given(air.eta_t, "eta_t", "recovery of heat", "", "of the unit, entered")
    H = named((q_mean * (1 - eta) + q_inf) / _AIR, "H_ve", "air, with recovery", "W/K", "ISO 13789:2017, 9")
    without = named((q_mean + q_inf) / _AIR, "H_ve0", "air, without recovery", "W/K", "ISO 13789:2017, 9")
    fan = None
    if air.sfp is not None:
        sfp = given(air.sfp, "sfp", "power of the fans for their flow", "W/(m³/h)", "of the unit, entered")
        cubes = given(sum(one.share * one.factor**3 for one in modes), "k_fan", "mean of the cubes of its run modes",
                      "", "Σ share·factor³")  # fmt: skip
        fan = named(q_0 * sfp * cubes, "P_fan", "fans, mean", "W", "q·sfp·Σ share·factor³")
    return AirFigures(q_required=required, governing=governing, needs=needs, q_mean=q_mean, H_ve=H,
                      H_ve_without=without, saved=named(without - H, "H_saved", "recovered", "W/K", "the difference"),
                      fan_W=fan)  # fmt: skip


def _needs(air: Ventilation, given: Given) -> dict[Governing, Num]:
    found: dict[Governing, Num] = {}
    if air.persons is not None or (air.A_F is not None and air.q_area):
        persons = given(air.persons or 0.0, "N_pers", "persons", "", "entered")
        each = given(air.q_person, "q_pers", "air of a person", "m³/h", "EN 16798-1, or the local code")
        floor = given(air.A_F or 0.0, "A_F", "floor", "m²", "of the shape, or entered")
        area = given(air.q_area, "q_floor", "air by floor", "m³/(h·m²)", "EN 16798-1, or the local code")
        found["persons"] = named(persons * each + floor * area, "q_by_persons", "air by persons and floor", "m³/h",
                                 "EN 16798-1:2019, annex B")  # fmt: skip
    if air.extract:
        found["extract"] = given(sum(air.extract), "q_extract", "extract of kitchens and baths", "m³/h", "Σ, entered")
    if air.n_min is not None:
        n = given(air.n_min, "n_min", "least change of air", "1/h", "of the local code, entered")
        V = given(air.V, "V", "air volume", "m³", "of the shape, or entered")
        found["minimum"] = named(n * V, "q_by_change", "least change of air", "m³/h", "n·V")
    return found


def room_air(air: Ventilation, q_mean: Num, states: Sequence[AirState], given: Given = plain) -> list[RoomAir]:
    """Supply temperature and humidity of the room at states of the air outside.

    Parameters
    ----------
    air : Ventilation
        With the temperature of its room.
    q_mean : Num
        Air that is moved. [m³/h]
    states : sequence of AirState

    Raises
    ------
    DomainError
        If the room has no temperature, or nothing carries its moisture away.
    """
    if air.theta_i is None:
        raise DomainError(Issue(path=("theta_i",), code="missing", message="the room has no temperature",
                                hint="give theta_i"))  # fmt: skip
    eta_x = given(air.eta_x, "eta_x", "recovery of moisture", "", "of the unit, entered")
    q_inf = given(air.q_inf, "q_inf", "infiltration", "m³/h", "of the leakage, or entered")
    q_dry = named(
        q_mean * (1 - eta_x) + q_inf, "q_dry", "air that carries moisture away", "m³/h", "q·(1 − η_x) + q_inf"
    )
    if air.moisture and not value_of(q_dry) > 0:
        raise DomainError(Issue(path=("moisture_kg_h",), code="nothing_carries",
                                message="no air carries the moisture of the rooms away",
                                hint="less recovery of moisture, or some infiltration"))  # fmt: skip
    return [_room(air, air.theta_i, q_dry, one, str(n), given) for n, one in enumerate(states, 1)]


def _room(air: Ventilation, warm: float, q_dry: Num, state: AirState, key: str, given: Given) -> RoomAir:
    theta_i = given(warm, "theta_i", "room", "°C", "of the room")
    theta_e = given(state.theta_e, f"theta_e{key}", "outside", "°C", "of the climate")
    phi_e = given(state.phi_e, f"phi_e{key}", "humidity outside", "", "of the climate")
    eta = given(air.eta_t, "eta_t", "recovery of heat", "", "of the unit, entered")
    supply = named(theta_e + eta * (theta_i - theta_e), f"theta_sup{key}", "supply air", "°C", "θ_e + η_t·(θ_i − θ_e)")
    p_e = named(phi_e * p_sat(theta_e), f"p_e{key}", "vapour outside", "Pa", "ISO 13788:2012, annex E")
    x_e = named(
        0.622 * p_e / (P_STANDARD - p_e), f"x_e{key}", "moisture of the air outside", "kg/kg", "0.622·p/(101325 − p)"
    )
    x_i = x_e
    if air.moisture:
        freed = given(air.moisture, "G_w", "moisture set free", "kg/h", "entered")
        x_i = x_e + freed / (_RHO * q_dry)
    x_i = named(x_i, f"x_i{key}", "moisture of the room's air", "kg/kg", "x_e + G/(1.2·q_dry)")
    p_i = named(P_STANDARD * x_i / (0.622 + x_i), f"p_i{key}", "vapour of the room", "Pa", "101325·x/(0.622 + x)")
    phi_i = named(p_i / p_sat(theta_i), f"phi_i{key}", "humidity of the room", "", "p_i/p_sat(θ_i)")
    dew = None
    if value_of(p_i) > 0:
        dew = named(saturated_at(p_i), f"theta_dp{key}", "dew point of the room", "°C", "ISO 13788:2012, annex E")
    return RoomAir(theta_supply=supply, x_e=x_e, x_i=x_i, phi_i=phi_i, dew_point=dew)
