"""What a fan in the door measured: a line through its points, ISO 9972."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.special import stdtrit

from nimble_shell.core.airflow.density import P_STANDARD, RHO_STANDARD, density
from nimble_shell.core.airflow.leakage import leak_area
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.working import Given, Num, apply, exp, named, plain, value_of

Direction = Literal["depressurise", "pressurise"]
Remark = Literal["baseline", "exponent", "low_point", "points", "r2", "range"]
_LEAST = 3  #: points of a line with a spread
_CLAUSE = "ISO 9972:2015"


@dataclass(frozen=True, slots=True, kw_only=True)
class FanSet:
    """Readings one after the other in one direction."""

    direction: Direction
    theta_i: float  #: [°C]
    theta_e: float
    before: tuple[float, ...]  #: with the fan closed, inside less outside [Pa]
    after: tuple[float, ...]
    points: tuple[tuple[float, float], ...]  #: inside less outside, flow through the fan [Pa, m³/h]


@dataclass(frozen=True, slots=True, kw_only=True)
class FanLine:
    """The line through a set."""

    baseline: Num  #: [Pa]
    C_env: Num  #: [m³/(h·Paⁿ)]
    C_L: Num  #: at standard air [m³/(h·Paⁿ)]
    C_L_95: tuple[Num, Num]  #: between which it lies with 95 %
    n: Num
    n_95: tuple[Num, Num]
    r2: float
    q50: Num  #: [m³/h]
    q50_95: tuple[Num, Num]
    remarks: tuple[Remark, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class FanFigures:
    """A test of one or more sets."""

    sets: tuple[FanLine, ...]
    q50: Num  #: mean of the sets [m³/h]
    n50: Num  #: [1/h]
    qE50: Num  #: [m³/(h·m²)]
    qF50: Num
    ELA4: Num  #: mean of the sets [cm²]


def fan_test(
    sets: Sequence[FanSet], V: float, A_E: float, A_F: float, p_bar: float = P_STANDARD, given: Given = plain
) -> FanFigures:
    """Leakage by measurement.

    Parameters
    ----------
    sets : sequence of FanSet
    V, A_E, A_F : float
        Inner volume [m³], envelope [m²] and floor [m²].
    p_bar : float
        Pressure of the air. [Pa]
    given : Given
        `plain` for figures, `traced` for working.

    Raises
    ------
    DomainError
        If a point lies on the wrong side of the baseline, or fewer than three are there.

    References
    ----------
    .. [1] ISO 9972:2015, 6.1 to 6.4 and annex C (uncertainty).
    """
    check = Collector()
    for at, one in enumerate(sets):
        try:
            _sided(one)
        except DomainError as error:
            check.add(error.under("sets", at).issues)
    check.refuse()
    lines = tuple(_line(one, str(at), p_bar, given) for at, one in enumerate(sets, 1))
    count = float(len(lines))
    q50 = named(sum((one.q50 for one in lines), 0.0) / count, "q50", "leakage at 50 Pa", "m³/h", "mean of the sets")
    areas = [leak_area(one.C_L, value_of(one.n), given, f"ELA4_{at}") for at, one in enumerate(lines, 1)]
    sizes = [given(size, name, text, unit, "of the shape, or entered")
             for size, name, text, unit in ((V, "V", "inner volume", "m³"), (A_E, "A_E", "envelope", "m²"),
                                            (A_F, "A_F", "floor", "m²"))]  # fmt: skip
    names = (("n50", "changes of air at 50 Pa", "1/h"), ("qE50", "leakage over the envelope", "m³/(h·m²)"),
             ("qF50", "leakage over the floor", "m³/(h·m²)"))  # fmt: skip
    n50, qE50, qF50 = (named(q50 / size, symbol, text, unit, f"{_CLAUSE}, 6.4")
                       for size, (symbol, text, unit) in zip(sizes, names, strict=True))  # fmt: skip
    return FanFigures(sets=lines, q50=q50, n50=n50, qE50=qE50, qF50=qF50,
                      ELA4=named(sum(areas, 0.0) / count, "ELA4", "effective leakage area", "cm²",
                                 "mean of the sets"))  # fmt: skip


def baseline_of(one: FanSet) -> float:
    """Pressure without the fan: the mean of the means before and after. [Pa]"""
    return (float(np.mean(one.before)) + float(np.mean(one.after))) / 2


def _sided(one: FanSet) -> None:
    """Every point on its side of the baseline, and enough of them."""
    baseline, sign = baseline_of(one), -1.0 if one.direction == "depressurise" else 1.0
    check = Collector()
    for at, (reading, _) in enumerate(one.points):
        check.check(sign * (reading - baseline) > 0, ("points", at), "wrong_side",
                    sentence("{v} lies on the other side of the baseline of {b}", v=(reading, "pressure"),
                             b=(baseline, "pressure")),
                    "inside less outside, with its sign")  # fmt: skip
    check.check(len(one.points) >= _LEAST, ("points",), "too_few_points", f"{len(one.points)} points make no line",
                f"at least {_LEAST}, better seven")  # fmt: skip
    check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class _Fit:
    """A straight line by least squares, unweighted."""

    n: float
    log_C: float
    r2: float
    s_n: float  #: standard deviation of n
    T: float  #: Student's, 97.5 %
    mean_x: float
    mean_xx: float
    S_xx: float
    N: int

    def around(self, x: float) -> float:
        """Half width of the 95 % range of the line at x, in logarithms."""
        return self.T * self.s_n * math.sqrt((self.N - 1) / self.N * self.S_xx + (x - self.mean_x) ** 2)


def _fit(x: np.ndarray, y: np.ndarray) -> _Fit:
    N = len(x)
    dx, dy = x - x.mean(), y - y.mean()
    S_xx, S_yy, S_xy = (float(np.sum(a * b)) / (N - 1) for a, b in ((dx, dx), (dy, dy), (dx, dy)))
    if S_xx <= 0:
        raise DomainError(Issue(path=("points",), code="one_pressure", message="all points have one pressure",
                                hint="readings at several pressures"))  # fmt: skip
    n = S_xy / S_xx
    spread = max(S_yy - n * S_xy, 0.0) / (N - 2)
    r2 = 1.0 if S_yy <= 0 else S_xy**2 / (S_xx * S_yy)
    return _Fit(n=n, log_C=float(y.mean() - n * x.mean()), r2=r2, s_n=math.sqrt(spread / S_xx),
                T=float(stdtrit(N - 2, 0.975)), mean_x=float(x.mean()), mean_xx=float(np.mean(x * x)), S_xx=S_xx,
                N=N)  # fmt: skip


def _line(one: FanSet, key: str, p_bar: float, given: Given) -> FanLine:
    out = one.direction == "depressurise"
    baseline = baseline_of(one)
    rho_i, rho_e = density(one.theta_i, p_bar), density(one.theta_e, p_bar)
    ratio = value_of(rho_i / rho_e if out else rho_e / rho_i)
    dp = np.array([abs(reading - baseline) for reading, _ in one.points])
    q = np.array([flow for _, flow in one.points]) * ratio
    fit = _fit(np.log(dp), np.log(q))
    counted = "least squares through the logarithms of all points"
    offset = given(baseline, f"p_0{key}", f"baseline, set {key}", "Pa", "mean of the means before and after")
    n = given(fit.n, f"n_{key}", f"exponent, set {key}", "", f"{_CLAUSE}, 6.2, {counted}")
    log_C = given(
        fit.log_C, f"ln_C_{key}", f"logarithm of the coefficient, set {key}", "", f"{_CLAUSE}, 6.2, {counted}"
    )
    C_env = named(exp(log_C), f"C_env_{key}", f"coefficient as measured, set {key}", "m³/(h·Paⁿ)", f"{_CLAUSE}, 6.2")
    rho = given(value_of(rho_e if out else rho_i), f"rho_{key}", f"air that passes the shell, set {key}", "kg/m³",
                "by its temperature and pressure")  # fmt: skip
    C_L = named(
        C_env * exp((1 - n) * apply("log", rho / RHO_STANDARD)),
        f"C_L_{key}",
        f"coefficient of standard air, set {key}",
        "m³/(h·Paⁿ)",
        f"{_CLAUSE}, 6.3, C_env·(ρ/ρ₀)^(1 − n)",
    )
    fifty = math.log(50.0)
    q50 = named(C_L * exp(n * fifty), f"q50_{key}", f"leakage at 50 Pa, set {key}", "m³/h", f"{_CLAUSE}, 6.4, C_L·50ⁿ")
    half_C = fit.T * fit.s_n * math.sqrt(fit.mean_xx)
    return FanLine(
        baseline=offset, C_env=C_env, C_L=C_L, n=n, q50=q50, r2=fit.r2,
        C_L_95=_band(C_L, half_C, f"C_L_{key}", "m³/(h·Paⁿ)", given),
        q50_95=_band(q50, fit.around(fifty), f"q50_{key}", "m³/h", given),
        n_95=(n - fit.T * fit.s_n, n + fit.T * fit.s_n),
        remarks=_remarks(one, fit, dp, baseline),
    )  # fmt: skip


def _band(middle: Num, half: float, symbol: str, unit: str, given: Given) -> tuple[Num, Num]:
    width = given(half, f"w_{symbol}", "half width of the 95 % range, in logarithms", "", f"{_CLAUSE}, annex C")
    low = named(middle * exp(-1 * width), f"{symbol}_low", "lower end of the 95 % range", unit, f"{_CLAUSE}, annex C")
    high = named(middle * exp(width), f"{symbol}_high", "upper end of the 95 % range", unit, f"{_CLAUSE}, annex C")
    return low, high


def _remarks(one: FanSet, fit: _Fit, dp: np.ndarray, baseline: float) -> tuple[Remark, ...]:
    """What the standard does not accept, or takes for a weak test."""
    calm = max(
        (
            abs(sum(some) / len(some))
            for values in (one.before, one.after)
            for some in ([v for v in values if v > 0], [v for v in values if v < 0])
            if some
        ),
        default=0.0,
    )
    said: dict[Remark, bool] = {
        "baseline": calm > 5,
        "exponent": not 0.5 <= fit.n <= 1,
        "low_point": float(dp.min()) < max(10.0, 5 * abs(baseline)),
        "points": fit.N < 5,
        "r2": fit.r2 < 0.98,
        "range": float(dp.max()) < 50,
    }
    return tuple(sorted(name for name, true in said.items() if true))
