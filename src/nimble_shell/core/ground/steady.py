"""Heat into the ground over a year, ISO 13370."""

from __future__ import annotations

import math
from dataclasses import dataclass

from nimble_shell.core.ground.floor import (
    EdgeFoam,
    GroundFloor,
    HeatedBasement,
    Slab,
    Suspended,
    UnheatedBasement,
    check,
)
from nimble_shell.core.working import Given, Num, apply, named, plain, value_of

_PI = math.pi
_AS_ENTERED = "of the ground floor, as entered"


@dataclass(frozen=True, slots=True, kw_only=True)
class GroundFigures:
    """Of the year's mean. What a kind of floor does not have is None."""

    B: Num  #: characteristic dimension [m]
    d_t: Num  #: equivalent thickness of the floor, of the ground below a suspended one [m]
    U: Num  #: [W/(m²·K)]
    H_g: Num  #: with the junction of wall and floor, but of a heated basement with its own walls [W/K]
    U_0: Num | None = None  #: of a slab without its edge [W/(m²·K)]
    psi_ge: Num | None = None  #: of the edge that counts [W/(m·K)]
    edge: EdgeFoam | None = None  #: it
    d_edge: Num | None = None  #: what it adds to the equivalent thickness [m]
    U_g: Num | None = None  #: of the ground below a suspended floor [W/(m²·K)]
    U_x: Num | None = None  #: of the walls and vents below it [W/(m²·K)]
    d_w: Num | None = None  #: equivalent thickness of basement walls [m]
    U_bf: Num | None = None  #: of a basement's floor [W/(m²·K)]
    U_bw: Num | None = None  #: of its walls [W/(m²·K)]


def ground_figures(floor: GroundFloor, given: Given = plain) -> GroundFigures:
    """Transmittance and heat transfer coefficient of a floor to the ground.

    Parameters
    ----------
    floor : GroundFloor
        One of its four kinds.
    given : Given
        `plain` for figures, `traced` for working.

    Raises
    ------
    DomainError
        If nothing resists the flow.

    References
    ----------
    .. [1] ISO 13370:2017, 7.1 and 7.2 (slab), annex B (edges), 7.3 (suspended), 7.4 and 7.5 (basements).
    """
    check(floor)
    lambda_, A, P = _soil(floor, given), _area(floor, given), _perimeter(floor, given)
    B = named(A / (0.5 * P), "B", "characteristic dimension", "m", "ISO 13370:2017, 7.1, A/(0.5·P)")
    match floor:
        case Slab():
            return _slab(floor, given, lambda_, A, P, B)
        case Suspended():
            return _suspended(floor, given, lambda_, A, P, B)
        case HeatedBasement() | UnheatedBasement():
            return _basement(floor, given, lambda_, A, P, B)
    raise TypeError(f"{type(floor).__name__} is no kind of floor")


def _soil(floor: GroundFloor, given: Given) -> Num:
    return given(floor.lambda_, "lambda_s", "conductivity of the soil", "W/(m·K)", _AS_ENTERED)


def _area(floor: GroundFloor, given: Given) -> Num:
    return given(floor.A, "A_g", "area on the ground", "m²", "of the shape, or entered")


def _perimeter(floor: GroundFloor, given: Given) -> Num:
    return given(floor.P, "P", "exposed perimeter", "m", "of the shape, or entered")


def _thickness(floor: GroundFloor, given: Given, lambda_: Num, R: float, symbol: str = "R_f") -> Num:
    w = given(floor.w, "w", "thickness of the walls above", "m", _AS_ENTERED)
    R_si = given(floor.Rsi, "R_si", "film at the floor", "m²·K/W", "ISO 6946:2017, table 7, downward")
    R_se = given(floor.Rse, "R_se", "outer film", "m²·K/W", "ISO 6946:2017, table 7")
    text = "resistance of the floor" if symbol == "R_f" else "resistance of what lies on the ground"
    upon = given(R, symbol, text, "m²·K/W", _AS_ENTERED)
    return named(w + lambda_ * (R_si + upon + R_se), "d_t", "equivalent thickness", "m",
                 "ISO 13370:2017, 7.2, w + λ·(R_si + R_f + R_se)")  # fmt: skip


def _of_soil(lambda_: Num, B: Num, d: Num, symbol: str, text: str, clause: str) -> Num:
    """Soil with a floor of an equivalent thickness on it, by how well it is insulated."""
    if value_of(d) < value_of(B):
        found = 2 * lambda_ / (_PI * B + d) * apply("log", _PI * B / d + 1)
        clause += ", d < B"
    else:
        found = lambda_ / (0.457 * B + d)
        clause += ", d ≥ B"
    return named(found, symbol, text, "W/(m²·K)", clause)


def _to_ground(A: Num, U: Num, P: Num, psi: Num) -> Num:
    return named(A * U + P * psi, "H_g", "heat transfer to the ground", "W/K", "ISO 13370:2017, 6, A·U + P·ψ")


def _junction(floor: GroundFloor, given: Given) -> Num:
    return given(floor.psi, "psi_g", "junction of wall and floor", "W/(m·K)", "of the joint, or entered")


def _slab(floor: Slab, given: Given, lambda_: Num, A: Num, P: Num, B: Num) -> GroundFigures:
    d_t = _thickness(floor, given, lambda_, floor.Rf)
    U_0 = _of_soil(lambda_, B, d_t, "U_0", "transmittance without its edge", "ISO 13370:2017, 7.2")
    psi_ge: Num = 0.0
    edge = added = None
    for n, foam in enumerate(floor.edges, 1):
        one, d = _edge(foam, n, given, lambda_, d_t)
        if edge is None or value_of(one) < value_of(psi_ge):
            psi_ge, edge, added = one, foam, d
    U = U_0 if edge is None else U_0 + 2 * psi_ge / B
    U = named(U, "U_ground", "transmittance of the slab", "W/(m²·K)", "ISO 13370:2017, annex B, U₀ + 2ψ_ge/B")
    return GroundFigures(B=B, d_t=d_t, U=U, H_g=_to_ground(A, U, P, _junction(floor, given)), U_0=U_0, psi_ge=psi_ge,
                         edge=edge, d_edge=added)  # fmt: skip


def _edge(foam: EdgeFoam, n: int, given: Given, lambda_: Num, d_t: Num) -> tuple[Num, Num]:
    """ψ of an edge, and its thickness as soil."""
    d_n = given(foam.d, f"d_{n}", "thickness of the edge foam", "m", _AS_ENTERED)
    own = given(foam.lambda_, f"lambda_{n}", "conductivity of the edge foam", "W/(m·K)", _AS_ENTERED)
    reach = given(foam.reach, f"D_{n}", "reach of the edge foam", "m",
                  "its width" if foam.kind == "horizontal" else "twice its depth")  # fmt: skip
    d = named(lambda_ * (d_n / own - d_n / lambda_), f"d_e{n}", "equivalent thickness it adds", "m",
              "ISO 13370:2017, annex B, λ·(R_n − d_n/λ)")  # fmt: skip
    bare, covered = apply("log", reach / d_t + 1), apply("log", reach / (d_t + d) + 1)
    psi = named(-1 * lambda_ / _PI * (bare - covered), f"psi_ge{n}", "edge insulation", "W/(m·K)",
                f"ISO 13370:2017, annex B, {foam.kind}")  # fmt: skip
    return psi, d


def _suspended(floor: Suspended, given: Given, lambda_: Num, A: Num, P: Num, B: Num) -> GroundFigures:
    d_g = _thickness(floor, given, lambda_, floor.Rg, "R_g")
    U_g = _of_soil(lambda_, B, d_g, "U_gr", "transmittance of the ground below", "ISO 13370:2017, 7.3")
    h = given(floor.h, "h_f", "height of the floor above the ground", "m", _AS_ENTERED)
    U_w = given(floor.U_w, "U_wu", "transmittance of the walls below the floor", "W/(m²·K)", _AS_ENTERED)
    eps = given(floor.eps, "eps", "vents, per perimeter", "m²/m", _AS_ENTERED)
    v = given(floor.v, "v", "wind of the year", "m/s", _AS_ENTERED)
    f_w = given(floor.f_w, "f_w", "shelter from the wind", "", _AS_ENTERED)
    U_x = named(2 * h * U_w / B + 1450 * eps * v * f_w / B, "U_x", "walls and vents below the floor", "W/(m²·K)",
                "ISO 13370:2017, 7.3, 2h·U_w/B + 1450·ε·v·f_w/B")  # fmt: skip
    U_f = given(floor.U_f, "U_f", "transmittance of the floor", "W/(m²·K)", _AS_ENTERED)
    U = named(1 / (1 / U_f + 1 / (U_g + U_x)), "U_ground", "transmittance of the suspended floor", "W/(m²·K)",
              "ISO 13370:2017, 7.3, 1/U = 1/U_f + 1/(U_g + U_x)")  # fmt: skip
    return GroundFigures(B=B, d_t=d_g, U=U, H_g=_to_ground(A, U, P, _junction(floor, given)), U_g=U_g, U_x=U_x)


def _basement(
    floor: HeatedBasement | UnheatedBasement, given: Given, lambda_: Num, A: Num, P: Num, B: Num
) -> GroundFigures:
    d_t = _thickness(floor, given, lambda_, floor.Rf)
    z = given(floor.z, "z_b", "depth of the basement floor", "m", _AS_ENTERED)
    deep = named(d_t + z / 2, "d_tz", "equivalent thickness at that depth", "m", "ISO 13370:2017, 7.4, d_t + z/2")
    U_bf = _of_soil(lambda_, B, deep, "U_bf", "transmittance of the basement floor", "ISO 13370:2017, 7.4")
    R_si = given(floor.Rsi_wall, "R_siw", "film at the basement walls", "m²·K/W", "ISO 6946:2017, table 7, sideways")
    R_w = given(floor.Rw, "R_w", "resistance of the basement walls", "m²·K/W", _AS_ENTERED)
    R_se = given(floor.Rse, "R_se", "outer film", "m²·K/W", "ISO 6946:2017, table 7")
    d_w = named(lambda_ * (R_si + R_w + R_se), "d_w", "equivalent thickness of the basement walls", "m",
                "ISO 13370:2017, 7.4, λ·(R_si + R_w + R_se)")  # fmt: skip
    d = d_w if value_of(d_w) < value_of(d_t) else d_t
    U_bw = named(
        2 * lambda_ / (_PI * z) * (1 + 0.5 * d / (d + z)) * apply("log", z / d_w + 1),
        "U_bw",
        "transmittance of the basement walls",
        "W/(m²·K)",
        "ISO 13370:2017, 7.4, d the less of d_t and d_w",
    )
    below = A * U_bf + z * P * U_bw
    if isinstance(floor, HeatedBasement):
        psi = _junction(floor, given)
        H_g = named(below + P * psi, "H_g", "heat transfer to the ground", "W/K",
                    "ISO 13370:2017, 7.4, A·U_bf + z·P·U_bw + P·ψ")  # fmt: skip
        U = named(below / (A + z * P), "U_ground", "mean transmittance of the basement", "W/(m²·K)",
                  "ISO 13370:2017, 7.4")  # fmt: skip
    else:
        U_f = given(floor.U_f, "U_f", "transmittance of the floor above", "W/(m²·K)", _AS_ENTERED)
        above = cellar_outside(floor, given, P)
        U = named(1 / (1 / U_f + A / (below + above)), "U_ground", "transmittance through the cellar", "W/(m²·K)",
                  "ISO 13370:2017, 7.5")  # fmt: skip
        H_g = _to_ground(A, U, P, _junction(floor, given))
    return GroundFigures(B=B, d_t=d_t, U=U, H_g=H_g, d_w=d_w, U_bf=U_bf, U_bw=U_bw)


def cellar_outside(floor: UnheatedBasement, given: Given, P: Num) -> Num:
    """From a cellar to the outside, through its walls above the ground and by its air. [W/K]"""
    h = given(floor.h, "h_w", "height of its walls above the ground", "m", _AS_ENTERED)
    U_w = given(floor.U_w, "U_wa", "transmittance of those walls", "W/(m²·K)", _AS_ENTERED)
    n = given(floor.n, "n_b", "changes of its air", "1/h", _AS_ENTERED)
    V = given(floor.V, "V_b", "its air", "m³", _AS_ENTERED)
    return named(h * P * U_w + 0.33 * n * V, "H_be", "cellar to the outside", "W/K",
                 "ISO 13370:2017, 7.5, h·P·U_w + 0.33·n·V")  # fmt: skip
