"""Condensation and drying inside an element, month by month (ISO 13788, 6): several wet planes, mass kept."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.lapack import dgtsv

from nimble_shell.core.climate.saturation import p_sat, p_sat_of
from nimble_shell.core.errors import Collector, NotConverged
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.thermal.vapour import DELTA_0
from nimble_shell.core.working import value_of

FloatArray = NDArray[np.float64]

DAYS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)
MAX_R = 0.25  #: of a slice, ISO 13788:2012, 6.1 [m²·K/W]
LEAST_SD, MOST_SD = 1e-4, 1e5  #: of a layer: what opens more, and what is tighter, counts as this [m]
_MOST_YEARS = 2
_After = Callable[[int, "FloatArray"], "tuple[FloatArray, FloatArray]"]
_DRY = 1e-9  #: a stock below this is none [kg/m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Month:
    """Means of one month."""

    theta_e: float  #: [°C]
    phi_e: float  #: 0…1
    theta_i: float  #: [°C]
    phi_i: float  #: 0…1

    @property
    def p_e(self) -> float:
        """Vapour pressure outside. [Pa]"""
        return self.phi_e * value_of(p_sat(self.theta_e))

    @property
    def p_i(self) -> float:
        """Vapour pressure inside. [Pa]"""
        return self.phi_i * value_of(p_sat(self.theta_i))


@dataclass(frozen=True, slots=True, kw_only=True)
class MonthlyLayer:
    """What a layer is to the monthly method."""

    d: float  #: [m]; 0 for a given resistance
    R: float  #: [m²·K/W]
    sd: float  #: [m]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Planes:
    """Faces of slices, from the inner to the outer face: n slices, n + 1 planes."""

    x: FloatArray  #: [m]
    R: FloatArray  #: from the inside air, films included [m²·K/W]
    R_total: float  #: [m²·K/W]
    sd: FloatArray  #: of each slice, shape (n,) [m]
    layer: NDArray[np.int64]  #: of each slice, shape (n,)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Year:
    """Twelve months of an element, January first; g and M at the planes between slices, shape (12, n − 1)."""

    planes: Planes
    start: int | None  #: month in which condensation begins, 0 for January; None if there is none
    g: FloatArray  #: condensed in the month, negative where it dries [kg/m²]
    M: FloatArray  #: stock at the end of the month [kg/m²]
    theta: FloatArray  #: at every plane, shape (12, n + 1) [°C]
    p: FloatArray  #: mean over the month, at every plane, shape (12, n + 1) [Pa]
    p_sat: FloatArray  #: at every plane, shape (12, n + 1) [Pa]
    left: FloatArray  #: stock when the year is over, at the planes between slices [kg/m²]

    @property
    def wet(self) -> NDArray[np.int64]:
        """Planes between slices that are wet in any month."""
        return np.nonzero((self.M > _DRY).any(axis=0) | (self.g > _DRY).any(axis=0))[0]

    @property
    def peak(self) -> float:
        """The most that all planes hold together at the end of a month. [kg/m²]"""
        return float(self.M.sum(axis=1).max(initial=0.0))

    @property
    def dries(self) -> bool:
        """Nothing is left when the year is over."""
        return bool(self.left.sum() <= _DRY)


def planes_of(plies: Sequence[MonthlyLayer], R_si: float, R_se: float, max_R: float = MAX_R) -> Planes:
    """Slices of no more resistance than wanted.

    Raises
    ------
    DomainError
        If a layer is not physical, or the slices would be more than can be meant.

    References
    ----------
    .. [1] ISO 13788:2012, 6.1.
    """
    check = Collector()
    check.check(bool(plies), ("layers",), "no_layers", "there is no layer", "give at least one")
    check.check(
        max_R > 0,
        ("max_R",),
        "slice_not_positive",
        sentence("max_R is {v1}", v1=(max_R, "resistance")),
        "0.25 is usual",
    )
    for at, ply in enumerate(plies):
        check.check(
            ply.R >= 0,
            ("layers", at),
            "resistance_negative",
            sentence("R is {v1}", v1=(ply.R, "resistance")),
            "zero or above",
        )
        check.check(
            ply.sd >= 0,
            ("layers", at),
            "sd_negative",
            sentence("s_d is {v1}", v1=(ply.sd, "distance")),
            "zero or above",
        )
    check.check(
        R_si >= 0 and R_se >= 0 and R_si + R_se + sum(ply.R for ply in plies) > 0,
        ("films",), "nothing_resists", "the total resistance is not above zero", "give a layer or film a resistance",
    )  # fmt: skip
    check.refuse()
    counts = [max(1, int(np.ceil(ply.R / max_R - 1e-9))) for ply in plies]
    check.check(sum(counts) <= 2000, ("max_R",), "too_many_slices", f"{sum(counts)} slices are asked for",
                "a larger max_R makes fewer")  # fmt: skip
    check.refuse()
    R, x, sd, layer = [R_si], [0.0], [], []
    for at, (ply, count) in enumerate(zip(plies, counts, strict=True)):
        for _ in range(count):
            R.append(R[-1] + ply.R / count)
            x.append(x[-1] + ply.d / count)
            sd.append(float(np.clip(ply.sd, LEAST_SD, MOST_SD)) / count)
            layer.append(at)
    return Planes(x=np.array(x), R=np.array(R), R_total=R[-1] + R_se, sd=np.array(sd), layer=np.array(layer))


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Carried:
    """Vapour that air brings to planes, by month: conductance to a pressure elsewhere, shape (12, n − 1)."""

    G: FloatArray  #: [kg/(s·m²·Pa)]
    p: FloatArray  #: of the air where it comes from [Pa]


def year(planes: Planes, months: Sequence[Month], delta_0: float = DELTA_0, carried: Carried | None = None) -> Year:
    """Condensation and drying over the year, from the month in which it begins.

    Parameters
    ----------
    planes : Planes
    months : sequence of Month
        Twelve, January first.
    carried : Carried, optional
        Vapour that moving air adds to, or takes from, the planes between slices.

    Notes
    -----
    The stock M of every plane and its mean saturation deficit u = p_sat − p obey, month by month, M ≥ 0, u ≥ 0 and
    M·u = 0 (a linear complementarity problem with an M-matrix): water is at saturation while it is there, the line of
    vapour pressure is redrawn between wet planes, and no more dries than is there. The stock is carried on: the year
    begins with a month in which something condenses and before which nothing was left, if there is one.

    References
    ----------
    .. [1] ISO 13788:2012, 6.4 to 6.6.
    """
    _check(months, delta_0)
    theta = np.array([m.theta_i - (m.theta_i - m.theta_e) * planes.R / planes.R_total for m in months])
    limit = p_sat_of(theta)
    count = len(planes.sd) - 1
    empty = np.zeros((12, max(count, 0)))
    if count < 1:
        p = np.array([[m.p_i, m.p_e] for m in months])
        return Year(planes=planes, start=None, g=empty, M=empty, theta=theta, p=p, p_sat=limit, left=empty[0])
    ends = [(m.p_i, m.p_e) for m in months]
    bands, onto = _bands(planes.sd), np.zeros(count)
    months_bands = [bands] * 12
    months_onto = [onto] * 12
    if carried is not None:
        months_bands = [bands + np.outer([0, 1, 0], row) for row in carried.G / delta_0]
        months_onto = list(carried.G * carried.p / delta_0)

    def after(month: int, stock: FloatArray) -> tuple[FloatArray, FloatArray]:
        b = months_onto[month].copy()
        b[0] += ends[month][0] / planes.sd[0]
        b[-1] += ends[month][1] / planes.sd[-1]
        return _month(months_bands[month], b, limit[month, 1:-1], stock, delta_0 * 86400 * DAYS[month])

    begins = [bool((after(month, np.zeros(count))[0] > _DRY).any()) for month in range(12)]
    first = next((m for m in range(12) if begins[m] and not begins[m - 1]), 0 if all(begins) else None)
    start = first
    if first is not None:
        start = _start(after, count, first)
    M, g, p = np.zeros((12, count)), np.zeros((12, count)), np.zeros((12, count + 2))
    stock = np.zeros(count)
    for month in range(start or 0, (start or 0) + 12):
        m = month % 12
        before, (stock, inner) = stock, after(m, stock)
        M[m], g[m] = stock, stock - before
        p[m] = [ends[m][0], *inner, ends[m][1]]
    return Year(planes=planes, start=start, g=g, M=M, theta=theta, p=p, p_sat=limit, left=stock)


def _check(months: Sequence[Month], delta_0: float) -> None:
    check = Collector()
    check.check(len(months) == 12, ("months",), "not_twelve_months", f"there are {len(months)} months",
                "give twelve, January first")  # fmt: skip
    check.check(delta_0 > 0, ("delta_0",), "permeability_not_positive", f"δ₀ is {delta_0}", "above zero")
    for at, month in enumerate(months):
        for name, phi in (("phi_e", month.phi_e), ("phi_i", month.phi_i)):
            check.check(0 < phi <= 1, ("months", at, name), "humidity_out_of_range", f"relative humidity is {phi}",
                        "above 0 and up to 1")  # fmt: skip
        for name, theta in (("Te", month.theta_e), ("Ti", month.theta_i)):
            if not -90 <= theta <= 100:  # asked first: a sentence for every good month would cost more than the rest
                range_ = sentence("from {v1} to {v2}", v1=(-90.0, "temperature"), v2=(100.0, "temperature"))
                check.check(False, ("months", at, name), "temperature_not_physical",
                            sentence("temperature is {v1}", v1=(theta, "temperature")), range_)  # fmt: skip
    check.refuse()


def _start(after: _After, count: int, first: int) -> int:
    """The month with condensation before which a second year has the least left; the first such month from `first`."""
    stock, left, gains = np.zeros(count), np.zeros(12), np.zeros(12, dtype=bool)
    for month in range(first, first + 12 * _MOST_YEARS):
        before, (stock, _) = stock, after(month % 12, stock)
        left[month % 12] = before.sum()
        gains[month % 12] = bool((stock - before > _DRY).any())
    able = [month % 12 for month in range(first, first + 12) if gains[month % 12]]
    return min(able, key=lambda month: (round(float(left[month]), 9), (month - first) % 12)) if able else first


def _bands(sd: FloatArray) -> FloatArray:
    """Three bands of the matrix that gives what flows out of the planes between slices, per unit of δ₀. [1/m]"""
    one = 1 / sd
    bands = np.zeros((3, len(sd) - 1))
    bands[0, 1:] = -one[1:-1]
    bands[1] = one[:-1] + one[1:]
    bands[2, :-1] = -one[1:-1]
    return bands


def _month(
    bands: FloatArray, b: FloatArray, limit: FloatArray, stock: FloatArray, factor: float
) -> tuple[FloatArray, FloatArray]:
    """Stocks at the end of a month [kg/m²] and the mean vapour pressures [Pa] between slices.

    With K the matrix in `bands`, b what comes from beyond the planes and c = δ₀·t, M = M₀ + c·(b − K p). The active
    set is found by the signs of M and u; K being an M-matrix it settles after few steps.
    """
    right = stock / factor + b
    wet = stock > 0
    for _ in range(len(limit) + 20):
        upper, diagonal, lower = bands[0, 1:].copy(), bands[1].copy(), bands[2, :-1].copy()
        diagonal[wet] = 1.0
        upper[wet[:-1]] = 0.0
        lower[wet[1:]] = 0.0
        p = _tridiagonal(lower, diagonal, upper, np.where(wet, limit, right))
        M = factor * (right - _times(bands, p))
        M[~wet] = 0.0
        now = np.where(wet, M > 0, p > limit * (1 + 1e-13))
        if (now == wet).all():
            return M, p
        wet = now
    raise NotConverged(len(limit) + 20, float(np.abs(M).max()))


def _tridiagonal(lower: FloatArray, diagonal: FloatArray, upper: FloatArray, right: FloatArray) -> FloatArray:
    """The solution of a system of three bands; by LAPACK itself, as what checks it costs more than it."""
    if len(diagonal) == 1:
        return right / diagonal
    found: FloatArray = dgtsv(lower, diagonal, upper, right, 1, 1, 1, 1)[3]
    return found


def _times(bands: FloatArray, p: FloatArray) -> FloatArray:
    found: FloatArray = bands[1] * p
    found[:-1] += bands[0, 1:] * p[1:]
    found[1:] += bands[2, :-1] * p[:-1]
    return found
