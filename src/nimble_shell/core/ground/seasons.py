"""Heat into the ground month by month: the soil follows the seasons late and damped, ISO 13370 annex H."""

from __future__ import annotations

import math
from dataclasses import dataclass

from nimble_shell.core.ground.floor import GroundFloor, HeatedBasement, Slab, Suspended, UnheatedBasement
from nimble_shell.core.ground.steady import GroundFigures, cellar_outside
from nimble_shell.core.working import Given, Num, apply, exp, named, plain

_PI = math.pi
_YEAR = 3.15e7  #: [s], as printed in the clause
_CLAUSE = "ISO 13370:2017, annex H"


@dataclass(frozen=True, slots=True, kw_only=True)
class GroundSwing:
    """How a floor answers a swing of a year."""

    delta: Num  #: how deep the swing reaches [m]
    H_pi: Num  #: to one inside [W/K]
    H_pe: Num  #: to one outside [W/K]
    alpha: Num  #: how far the flow leads one inside [months]
    beta: Num  #: how far it lags one outside [months]


@dataclass(frozen=True, slots=True, kw_only=True)
class GroundYear:
    """Temperatures of a year as a mean and a swing. [°C, K]"""

    theta_i: float
    theta_i_amplitude: float
    theta_e: float
    theta_e_amplitude: float
    tau: float  #: the coldest month, January is 1


def ground_swing(floor: GroundFloor, figures: GroundFigures, given: Given = plain) -> GroundSwing:
    """Periodic heat transfer coefficients of a floor to the ground.

    Parameters
    ----------
    floor : GroundFloor
        With `rho_c` of its soil.
    figures : GroundFigures
        Of the same floor, of the same kind of numbers.
    given : Given
        `plain` for figures, `traced` for working.

    Raises
    ------
    ValueError
        If the soil has no heat capacity.

    Notes
    -----
    Beside a finite-volume solution they lie up to 30 % low where a basement wall is poorly insulated.

    References
    ----------
    .. [1] ISO 13370:2017, annex H: H.1 (δ), H.3 (α, β), H.4 to H.8 (kinds of floor).
    """
    if floor.rho_c is None:
        raise ValueError("the soil has no heat capacity")
    lambda_ = given(floor.lambda_, "lambda_s", "conductivity of the soil", "W/(m·K)", "of the ground floor, as entered")
    rho_c = given(floor.rho_c, "rho_c", "heat capacity of the soil", "J/(m³·K)", "of the ground floor, as entered")
    A = given(floor.A, "A_g", "area on the ground", "m²", "of the shape, or entered")
    P = given(floor.P, "P", "exposed perimeter", "m", "of the shape, or entered")
    delta = apply("sqrt", _YEAR * lambda_ / (_PI * rho_c))
    delta = named(delta, "delta", "depth that the year's swing reaches", "m", f"{_CLAUSE}, H.1")
    soil = _Soil(lambda_=lambda_, delta=delta, A=A, P=P)
    match floor:
        case Slab():
            H_pi, H_pe = _slab(soil, figures)
        case Suspended():
            H_pi, H_pe = _suspended(soil, floor, figures, given)
        case HeatedBasement():
            H_pi, H_pe = _heated(soil, floor, figures, given)
        case UnheatedBasement():
            H_pi, H_pe = _cellar(soil, floor, given, figures)
        case _:
            raise TypeError(f"{type(floor).__name__} is no kind of floor")
    alpha, beta = _lags(floor, soil, figures, given)
    return GroundSwing(
        delta=delta,
        H_pi=named(H_pi, "H_pi", "to a swing of the room", "W/K", _CLAUSE),
        H_pe=named(H_pe, "H_pe", "to a swing of the outside", "W/K", _CLAUSE),
        alpha=alpha,
        beta=beta,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class _Soil:
    lambda_: Num
    delta: Num
    A: Num
    P: Num

    def face(self, d: Num) -> Num:
        """F of H.2: what a swing at a surface behind an equivalent thickness takes up. [W/(m²·K)]"""
        ratio = self.delta / d
        return self.lambda_ / d * apply("sqrt", 2 / ((1 + ratio) * (1 + ratio) + 1))

    def rim(self, d: Num) -> Num:
        """How much of an edge's swing passes an equivalent thickness."""
        return apply("log", self.delta / d + 1)


def _slab(soil: _Soil, figures: GroundFigures) -> tuple[Num, Num]:
    d_t = figures.d_t
    H_pi = soil.A * soil.face(d_t)
    if figures.edge is None or figures.d_edge is None:
        return H_pi, 0.37 * soil.P * soil.lambda_ * soil.rim(d_t)
    share = named(exp(-1 * figures.edge.reach / soil.delta), "e_ge", "what passes beyond the edge foam", "",
                  f"{_CLAUSE}, exp(−D/δ)")  # fmt: skip
    rims = (1 - share) * soil.rim(d_t + figures.d_edge) + share * soil.rim(d_t)
    return H_pi, 0.37 * soil.P * soil.lambda_ * rims


def _suspended(soil: _Soil, floor: Suspended, figures: GroundFigures, given: Given) -> tuple[Num, Num]:
    assert figures.U_x is not None
    U_f = given(floor.U_f, "U_f", "transmittance of the floor", "W/(m²·K)", "of the ground floor, as entered")
    U_x, deep = figures.U_x, soil.lambda_ / soil.delta
    H_pi = soil.A / (1 / U_f + 1 / (deep + U_x))
    rim = 0.37 * soil.P * soil.lambda_ * soil.rim(figures.d_t)
    return H_pi, U_f * (rim + U_x * soil.A) / (deep + U_x + U_f)


def _depth(floor: HeatedBasement | UnheatedBasement, soil: _Soil, given: Given) -> tuple[Num, Num]:
    z = given(floor.z, "z_b", "depth of the basement floor", "m", "of the ground floor, as entered")
    return z, named(exp(-1 * z / soil.delta), "e_z", "what reaches that depth", "", f"{_CLAUSE}, exp(−z/δ)")


def _heated(soil: _Soil, floor: HeatedBasement, figures: GroundFigures, given: Given) -> tuple[Num, Num]:
    assert figures.d_w is not None
    z, share = _depth(floor, soil, given)
    H_pi = soil.A * soil.face(figures.d_t) + z * soil.P * soil.face(figures.d_w)
    rims = share * soil.rim(figures.d_t) + 2 * (1 - share) * soil.rim(figures.d_w)
    return H_pi, 0.37 * soil.P * soil.lambda_ * rims


def _cellar(soil: _Soil, floor: UnheatedBasement, given: Given, figures: GroundFigures) -> tuple[Num, Num]:
    z, share = _depth(floor, soil, given)
    U_f = given(floor.U_f, "U_f", "transmittance of the floor above", "W/(m²·K)", "of the ground floor, as entered")
    above = cellar_outside(floor, given, soil.P)
    S = named((soil.A + z * soil.P) * soil.lambda_ / soil.delta + above, "S_b", "from the cellar outwards", "W/K",
              f"{_CLAUSE}, H.8")  # fmt: skip
    H_pi = 1 / (1 / (soil.A * U_f) + 1 / S)
    rim = 0.37 * soil.P * soil.lambda_ * (2 - share) * soil.rim(figures.d_t)
    return H_pi, soil.A * U_f * (rim + above) / (S + soil.A * U_f)


def _lags(floor: GroundFloor, soil: _Soil, figures: GroundFigures, given: Given) -> tuple[Num, Num]:
    if isinstance(floor, Suspended | UnheatedBasement):
        late = 1.0 if isinstance(floor, UnheatedBasement) else 0.0
        return (given(0.0, "alpha", "lead of the flow on the room", "months", f"{_CLAUSE}, H.3"),
                given(late, "beta", "lag of the flow on the outside", "months", f"{_CLAUSE}, H.3"))  # fmt: skip
    d_t = figures.d_t
    alpha = 1.5 - 12 / (2 * _PI) * apply("atan2", d_t, d_t + soil.delta)
    beta = 1.5 - 0.42 * soil.rim(d_t)
    return (named(alpha, "alpha", "lead of the flow on the room", "months", f"{_CLAUSE}, H.3"),
            named(beta, "beta", "lag of the flow on the outside", "months", f"{_CLAUSE}, H.3"))  # fmt: skip


def monthly_flow(figures: GroundFigures, swing: GroundSwing, year: GroundYear, given: Given = plain) -> list[Num]:
    """Heat into the ground in each of twelve months. [W]

    References
    ----------
    .. [1] ISO 13370:2017, annex H, equation (H.2).
    """
    theta_i = given(year.theta_i, "theta_im", "room, mean of the year", "°C", "of the room")
    theta_e = given(year.theta_e, "theta_em", "outside, mean of the year", "°C", "of the climate")
    swing_i = given(year.theta_i_amplitude, "theta_ia", "swing of the room", "K", "of the room")
    swing_e = given(year.theta_e_amplitude, "theta_ea", "swing of the outside", "K", "of the climate")
    tau = given(year.tau, "tau_m", "the coldest month", "", "of the climate")
    steady = figures.H_g * (theta_i - theta_e)
    found: list[Num] = []
    for month in range(1, 13):
        inside = apply("cos", 2 * _PI * (month - tau + swing.alpha) / 12)
        outside = apply("cos", 2 * _PI * (month - tau - swing.beta) / 12)
        flow = steady - swing.H_pi * swing_i * inside + swing.H_pe * swing_e * outside
        found.append(named(flow, f"Phi_{month}", f"heat into the ground, month {month}", "W", f"{_CLAUSE}, (H.2)"))
    return found
