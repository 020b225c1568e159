"""Heat that a building needs over a year, by months, and which change brings most for its money.

ISO 13790 monthly method, one zone.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working import Given, Num, apply, exp, named, plain, value_of

DAYS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
_CLAUSE = "ISO 13790:2008"


@dataclass(frozen=True, slots=True, kw_only=True)
class Aperture:
    """What lets sun in."""

    orientation: str
    A: float  #: [m²]
    g: float
    F_F: float  #: glass of the whole
    F_sh: float = 1.0  #: what shade leaves
    F_w: float = 0.9  #: for the sun's slant

    @property
    def sunlit(self) -> float:
        """Effective collecting area. [m²]"""
        return self.A * self.g * self.F_F * self.F_sh * self.F_w


@dataclass(frozen=True, slots=True, kw_only=True)
class MonthOutside:
    """A month."""

    theta_e: float  #: [°C]
    sun: float  #: through all apertures, mean [W]


@dataclass(frozen=True, slots=True, kw_only=True)
class EnergyCase:
    """A building over a year."""

    theta_i: float  #: [°C]
    months: tuple[MonthOutside, ...]  #: twelve
    H_tr: float  #: with the ground [W/K]
    H_ve: float  #: [W/K]
    C_m: float  #: heat that its mass stores [J/K]
    A_F: float  #: [m²]
    H_ground: float = 0.0  #: of H_tr, what `ground_flow` stands for month by month [W/K]
    ground_flow: tuple[float, ...] | None = None  #: of twelve months [W]
    gains: float = 0.0  #: of people and things, mean [W]
    beside: float = 0.0  #: of the sun in an unheated space, what reaches the rooms, mean [W]
    a0: float = 1.0
    tau0: float = 15.0  #: [h]


@dataclass(frozen=True, slots=True, kw_only=True)
class MonthFigures:
    """A month's balance. [kWh]"""

    Q_ht: Num  #: lost
    Q_gn: Num  #: gained
    eta: Num | None  #: of the gains, what is of use; None of a month that loses nothing
    Q_nd: Num  #: needed


@dataclass(frozen=True, slots=True, kw_only=True)
class EnergyFigures:
    """A year's."""

    tau: Num  #: time constant [h]
    a: Num
    months: tuple[MonthFigures, ...]
    Q_nd: Num  #: [kWh]
    per_area: Num  #: [kWh/m²]
    degree_kKh: Num  #: [kK·h]


def energy(case: EnergyCase, given: Given = plain) -> EnergyFigures:
    """Heating need of a year.

    Raises
    ------
    DomainError
        If the building loses nothing.

    References
    ----------
    .. [1] ISO 13790:2008, 7.2.1.1 and 12.2.1.1: use of gains by their ratio to the losses and the time constant.
    """
    if case.H_tr + case.H_ve <= 0:
        raise DomainError(Issue(path=("H_tr",), code="nothing_lost", message="the building loses nothing",
                                hint="transmission and air that are more than nothing"))  # fmt: skip
    H_tr = given(case.H_tr, "H_tr", "transmission", "W/K", "ISO 13789, of the whole")
    H_ve = given(case.H_ve, "H_ve", "air", "W/K", "of the whole")
    C_m = given(case.C_m, "C_m", "heat that the mass stores for a kelvin", "J/K", "of the build-ups, or entered")
    tau = named(C_m / 3600 / (H_tr + H_ve), "tau", "time constant", "h", f"{_CLAUSE}, 12.2.1.3, C/3600/H")
    a_0 = given(case.a0, "a_0", "exponent without mass", "", f"{_CLAUSE}, table 9")
    tau_0 = given(case.tau0, "tau_0", "time constant it is measured by", "h", f"{_CLAUSE}, table 9")
    a = named(a_0 + tau / tau_0, "a_H", "exponent", "", f"{_CLAUSE}, 12.2.1.1, a₀ + τ/τ₀")
    months = tuple(_month(case, m, H_tr, H_ve, a, given) for m in range(12))
    Q_nd = named(sum((one.Q_nd for one in months), 0.0), "Q_nd", "heating need of the year", "kWh", "Σ of the months")
    A_F = given(case.A_F, "A_F", "floor", "m²", "of the shape, or entered")
    degrees = given(degree_hours(case), "degree_kKh", "degree hours", "kK·h", "Σ max(0, θ_i − θ_e)·t")
    return EnergyFigures(
        tau=tau,
        a=a,
        months=months,
        Q_nd=Q_nd,
        degree_kKh=degrees,
        per_area=named(Q_nd / A_F, "q_nd", "heating need over the floor", "kWh/m²", "Q_nd/A_F"),
    )


def degree_hours(case: EnergyCase) -> float:
    """Of the year, below the room's temperature. [kK·h]"""
    return sum(max(0.0, case.theta_i - one.theta_e) * 0.024 * days
               for one, days in zip(case.months, DAYS, strict=True))  # fmt: skip


def _month(case: EnergyCase, m: int, H_tr: Num, H_ve: Num, a: Num, given: Given) -> MonthFigures:
    one, key = case.months[m], str(m + 1)
    t = given(0.024 * DAYS[m], f"t_{key}", f"hours of month {key}", "kh", "24·days/1000")
    theta_i = given(case.theta_i, "theta_i", "room", "°C", "of the room")
    theta_e = given(one.theta_e, f"theta_e{key}", f"outside, month {key}", "°C", "of the climate")
    if case.ground_flow is None:
        lost = (H_tr + H_ve) * (theta_i - theta_e) * t
    else:
        H_g = given(case.H_ground, "H_g", "of it into the ground", "W/K", "ISO 13370, counted month by month instead")
        flow = given(case.ground_flow[m], f"Phi_g{key}", f"into the ground, month {key}", "W", "ISO 13370, annex H")
        lost = (H_tr - H_g + H_ve) * (theta_i - theta_e) * t + flow * t
    Q_ht = named(lost, f"Q_ht{key}", f"lost in month {key}", "kWh", f"{_CLAUSE}, 7.2.1.3")
    inner = given(case.gains, "Phi_int", "gains of people and things", "W", "entered")
    if case.beside:
        inner += given(case.beside, "Phi_u", "sun of the unheated space", "W", f"{_CLAUSE}, 7.2.1.3, (1 − b)·Φ")
    sun = given(one.sun, f"Phi_sol{key}", f"sun through all glass, month {key}", "W", "Σ A·g·F_F·F_sh·F_w·I")
    Q_gn = named((inner + sun) * t, f"Q_gn{key}", f"gained in month {key}", "kWh", f"{_CLAUSE}, 7.2.1.3")
    if value_of(Q_ht) <= 0:
        none = given(0.0, f"Q_nd{key}", f"needed in month {key}", "kWh", "nothing is lost in it")
        return MonthFigures(Q_ht=Q_ht, Q_gn=Q_gn, eta=None, Q_nd=none)
    eta = _use(Q_gn, Q_ht, a, key, given)
    need = Q_ht - eta * Q_gn
    if value_of(need) < 0:
        need = given(0.0, f"Q_none{key}", "more is gained than lost", "kWh", "a need is not negative")
    return MonthFigures(
        Q_ht=Q_ht,
        Q_gn=Q_gn,
        eta=eta,
        Q_nd=named(need, f"Q_nd{key}", f"needed in month {key}", "kWh", f"{_CLAUSE}, 7.2.1.1"),
    )


_EVEN = 1e-9  #: of γ beside 1, where both sides of the fraction vanish


def _use(Q_gn: Num, Q_ht: Num, a: Num, key: str, given: Given) -> Num:
    """Share of the gains that is of use: (1 − γ^a)/(1 − γ^(a + 1)), written so that no power overflows."""
    symbol, text, clause = f"eta_{key}", f"use of the gains, month {key}", f"{_CLAUSE}, 12.2.1.1"
    if value_of(Q_gn) <= 0:
        return given(1.0, symbol, text, "", "without gains")
    gamma = named(Q_gn / Q_ht, f"gamma_{key}", f"gains over losses, month {key}", "", clause)
    if abs(value_of(gamma) - 1) < _EVEN:
        return named(a / (a + 1), symbol, text, "", f"{clause}, γ = 1")
    if value_of(gamma) < 1:
        rest = exp(a * apply("log", gamma))
        return named((1 - rest) / (1 - rest * gamma), symbol, text, "", f"{clause}, (1 − γ^a)/(1 − γ^(a + 1))")
    rest = exp(-1 * a * apply("log", gamma))
    return named((1 - rest) / (gamma - rest), symbol, text, "", f"{clause}, (1 − γ^a)/(1 − γ^(a + 1)), over γ^a")


@dataclass(frozen=True, slots=True, kw_only=True)
class Measure:
    """A change, by what it makes of the heat transfer."""

    id: str
    cost: float
    H_tr: float  #: with it alone [W/K]
    H_ve: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Ranked:
    """What a measure brings by itself."""

    id: str
    dH: float  #: fall of transmission and air [W/K]
    dQ: float  #: fall of the heating need [kWh]
    dH_per_cost: float | None  #: None of what costs nothing


def rank(case: EnergyCase, measures: Sequence[Measure]) -> list[Ranked]:
    """Measures by what they save for their money, the most first; what costs nothing and saves leads."""
    before = value_of(energy(case).Q_nd)
    found = []
    for one in measures:
        dH, dQ = fall(case, before, one.H_tr, one.H_ve)
        found.append(Ranked(id=one.id, dH=dH, dQ=dQ, dH_per_cost=dH / one.cost if one.cost else None))
    return sorted(
        found, key=lambda one: -(math.copysign(math.inf, one.dH) if one.dH_per_cost is None else one.dH_per_cost)
    )


def fall(case: EnergyCase, before: float, H_tr: float, H_ve: float) -> tuple[float, float]:
    """Fall of the heat transfer [W/K] and of the heating need [kWh] if it were so instead."""
    after = value_of(energy(replace(case, H_tr=H_tr, H_ve=H_ve)).Q_nd)
    return case.H_tr + case.H_ve - H_tr - H_ve, before - after
