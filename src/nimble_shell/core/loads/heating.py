"""Heating load at design, EN 12831 simplified to one zone."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.working import Given, Num, named, plain, value_of

_CLAUSE = "EN 12831-1:2017, simplified"


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatingCase:
    """A building on its coldest days."""

    theta_i: float  #: [°C]
    theta_e: float  #: by design [°C]
    theta_mean: float  #: outside, mean of the year [°C]
    H_D: float  #: to the outside, through unheated spaces and to fixed ones [W/K]
    H_g: float  #: into the ground [W/K]
    V: float  #: [m³]
    n50: float  #: [1/h]
    e: float  #: shelter
    A_F: float  #: [m²]
    f_g1: float = 1.45  #: for the swing of the year
    eps: float = 1.0  #: for the height above ground
    q_mech: float = 0.0  #: [m³/h]
    eta: float = 0.0  #: recovery of heat
    q_min: float = 0.0  #: [m³/h]
    f_RH: float = 0.0  #: for heating up again [W/m²]
    rule: float | None = None  #: what is taken by floor area without a calculation [W/m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatingFigures:
    """The load. [W]"""

    transmission: Num
    ground: Num
    q: Num  #: air to be warmed [m³/h]
    ventilation: Num
    reheat: Num
    total: Num
    per_area: Num  #: [W/m²]
    rule_total: Num | None
    ratio: Num | None  #: of the rule to the load


def heating_load(case: HeatingCase, given: Given = plain) -> HeatingFigures:
    """Design heating load of a building as one zone, and beside it the rule by floor area.

    References
    ----------
    .. [1] EN 12831-1:2017, 6.3: transmission, ground, air by leakage and fans, reheat.
    """
    theta_i = given(case.theta_i, "theta_i", "room", "°C", "of the room")
    theta_e = given(case.theta_e, "theta_e", "outside, by design", "°C", "of the site")
    mean = given(case.theta_mean, "theta_m", "outside, mean of the year", "°C", "of the climate")
    H_D = given(case.H_D, "H_D", "to the outside and through spaces", "W/K", "ISO 13789, of the whole")
    H_g = given(case.H_g, "H_g", "into the ground", "W/K", "ISO 13370, of the whole")
    f_g1 = given(case.f_g1, "f_g1", "for the swing of the year", "", "EN 12831-1:2017, annex B")
    difference = named(theta_i - theta_e, "dtheta", "difference by design", "K", "θ_i − θ_e")
    transmission = named(H_D * difference, "Phi_T", "transmission", "W", f"{_CLAUSE}, H·(θ_i − θ_e)")
    ground = named(f_g1 * H_g * (theta_i - mean), "Phi_g", "into the ground", "W", f"{_CLAUSE}, f_g1·H_g·(θ_i − θ_m)")
    q = _air(case, given)
    ventilation = named(q / 3.0 * difference, "Phi_V", "air", "W", f"{_CLAUSE}, q/3·(θ_i − θ_e)")
    A_F = given(case.A_F, "A_F", "floor", "m²", "of the shape, or entered")
    again = given(case.f_RH, "f_RH", "for heating up again", "W/m²", "entered; 0 where the room is kept warm")
    reheat = named(A_F * again, "Phi_RH", "heating up again", "W", f"{_CLAUSE}, A_F·f_RH")
    total = named(transmission + ground + ventilation + reheat, "Phi_HL", "heating load", "W", f"{_CLAUSE}, their sum")
    rule_total = ratio = None
    if case.rule is not None:
        rule = given(case.rule, "rule", "rule by floor area", "W/m²", "entered")
        rule_total = named(rule * A_F, "Phi_rule", "the same by the rule", "W", "rule·A_F")
        ratio = named(rule_total / total, "ratio", "rule over load", "", "Φ_rule/Φ_HL") if value_of(total) > 0 else None
    return HeatingFigures(transmission=transmission, ground=ground, q=q, ventilation=ventilation, reheat=reheat,
                          total=total, per_area=named(total / A_F, "phi_HL", "heating load over the floor", "W/m²",
                                                      "Φ_HL/A_F"), rule_total=rule_total, ratio=ratio)  # fmt: skip


def _air(case: HeatingCase, given: Given) -> Num:
    V = given(case.V, "V", "inner volume", "m³", "of the shape, or entered")
    n50 = given(case.n50, "n50", "changes of air at 50 Pa", "1/h", "of the leakage, or entered")
    e = given(case.e, "e_sh", "shelter", "", "EN 12831-1:2017, annex B")
    eps = given(case.eps, "eps_h", "height above ground", "", "EN 12831-1:2017, annex B")
    q_mech = given(case.q_mech, "q_mech", "air by fans", "m³/h", "of the ventilation")
    eta = given(case.eta, "eta", "recovery of heat", "", "of the unit")
    q_min = given(case.q_min, "q_min", "least air", "m³/h", "of the ventilation, or entered")
    drawn = named(2 * V * n50 * e * eps + (1 - eta) * q_mech, "q_drawn", "leaks and fans", "m³/h",
                  "2·V·n50·e·ε + (1 − η)·q_mech")  # fmt: skip
    more = drawn if value_of(drawn) >= value_of(q_min) else q_min
    return named(more, "q_V", "air to be warmed", "m³/h", "the greater of leaks with fans and the least air")
