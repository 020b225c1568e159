"""Moisture: the half-space of EN 15026, diffusion and steady flow by formula, months by events."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.climate.saturation import p_sat
from nimble_shell.core.moisture.hourly import cell_state
from nimble_shell.core.moisture.hourly.probe import at
from nimble_shell.core.moisture.hourly.transport import (
    BENCHMARK,
    Boundaries,
    Films,
    Run,
    RunOptions,
    Slab,
    Stuff,
    cells,
    run,
)
from nimble_shell.core.moisture.monthly.condensation import DAYS, Month, MonthlyLayer, Planes, planes_of, year
from nimble_shell.core.working import value_of
from nimble_shell.references import benchmark_moisture
from nimble_shell.references.rows import Row

FloatArray = NDArray[np.float64]
_HOUR = 3600.0


def saturated(theta: float) -> float:
    return value_of(p_sat(theta))


def constant(theta_e: float, p_e: float, theta_i: float, p_i: float) -> Boundaries:
    """Boundaries that stand still."""
    e, pe, i, pi = (np.array([value]) for value in (theta_e, p_e, theta_i, p_i))
    return Boundaries(theta_e=e, p_e=pe, theta_i=i, p_i=pi)


def half_space(days: tuple[int, ...], finest: float = 0.0004, growth: float = 1.05) -> Run:
    """The benchmark by hours; the wet surface is the inner one."""
    slab = Slab(stuff=BENCHMARK, d=20.0)
    (far, far_phi), (near, near_phi) = benchmark_moisture.START, benchmark_moisture.SURFACE
    climate = constant(far, far_phi * saturated(far), near, near_phi * saturated(near))
    return run([slab], Films(prescribed=True), climate, far, far_phi, 24 * max(days),
               RunOptions(keep=[24 * day for day in days], grid=cells([slab], finest, growth, 1.0)))  # fmt: skip


def _benchmark_rows() -> list[Row]:
    true, days = benchmark_moisture.solved(), (7, 30, 365)
    ours, found = half_space(days), []
    for number, day in enumerate(days):
        for x in (0.01, 0.02, 0.04, 0.06, 0.1):
            _, w = true.at(x, 86400 * day)
            found.append(Row(name=f"EN 15026: w at {x:g} m after {day} days", source="similarity, collocation",
                             reference=w, ours=float(at(ours, x).w[number]), tolerance=0.3))  # fmt: skip
        for x in (0.5, 1.0, 2.0, 4.0):
            theta, _ = true.at(x, 86400 * day)
            found.append(Row(name=f"EN 15026: θ at {x:g} m after {day} days", source="similarity, collocation",
                             reference=theta, ours=float(at(ours, x).theta[number]), tolerance=0.02))  # fmt: skip
    found.append(Row(name="EN 15026: heat gained less heat let in, of all", source="balance", reference=0.0,
                     ours=ours.heat_balance_error / ours.heat_gained, tolerance=1e-6))  # fmt: skip
    found.append(Row(name="EN 15026: water gained less water let in [kg/m²]", source="balance", reference=0.0,
                     ours=ours.balance_error, tolerance=1e-6))  # fmt: skip
    return found


#: Stores in proportion to φ, has no liquid, and conducts so well that its temperature stands still.
LINEAR = Stuff(rho=1000.0, c=1000.0, lambda_=1000.0, mu=((0.5, 20.0),), sorption=((0.0, 0.0), (1.0, 50.0)))


def uptake(d: float, hours: int, stuff: Stuff = LINEAR) -> tuple[float, float]:
    """Water taken up by a slab whose surfaces step from 40 to 80 %: by the Fourier series and ours. [kg/m²]"""
    p = saturated(20.0)
    D = cell_state.air_permeability(20.0) / 20 * p / 50
    t = hours * _HOUR
    rest = sum(
        8 / (math.pi * (2 * n + 1)) ** 2 * math.exp(-D * t * (math.pi * (2 * n + 1) / d) ** 2) for n in range(200)
    )
    slab = Slab(stuff=stuff, d=d)
    ours = run(
        [slab],
        Films(prescribed=True),
        constant(20.0, 0.8 * p, 20.0, 0.8 * p),
        20.0,
        0.4,
        hours,
        RunOptions(keep=[], grid=cells([slab], 0.0003, 1.1, 0.002)),
    )
    return 0.4 * 50 * d * (1 - rest), float(ours.totals[-1].sum() - ours.totals[0].sum())


def _diffusion_rows() -> list[Row]:
    found = []
    for hours in (24, 240, 2400):
        true, ours = uptake(0.04, hours)
        found.append(Row(name=f"diffusion: taken up after {hours} h [kg/m²]", source="Fourier series",
                         reference=true, ours=ours, tolerance=0.003 * true))  # fmt: skip
    return found


def _steady_rows() -> list[Row]:
    """Three layers that store nothing, at one temperature: pressure falls with s_d, as by month."""
    layers = ((0.012, 8.0), (0.15, 60.0), (0.012, 50.0))
    slabs = [Slab(stuff=Stuff(rho=100.0, c=1000.0, lambda_=0.1, mu=((0.5, mu),)), d=d) for d, mu in layers]
    p = saturated(10.0)
    ours = run(
        slabs, Films(prescribed=True), constant(10.0, 0.5 * p, 10.0, 0.7 * p), 10.0, 0.6, 500, RunOptions(keep=[500])
    )
    plies = [MonthlyLayer(d=d, R=d / 0.1, sd=d * mu) for d, mu in layers]
    month = Month(theta_e=10.0, phi_e=0.5, theta_i=10.0, phi_i=0.7)
    by_month = year(planes_of(plies, 0.0, 0.0, 100.0), [month] * 12)
    return [
        Row(name=f"steady vapour at {x:g} m: by hour and by month [Pa]", source="p falls with s_d",
            reference=float(by_month.p[0, plane]), ours=float(at(ours, x).phi[0]) * p, tolerance=0.05)
        for x, plane in ((0.012, 1), (0.162, 2))
    ]  # fmt: skip


def by_events(planes: Planes, months: list[Month], start: int, delta_0: float = 2e-10) -> FloatArray:
    """Stocks at the ends of twelve months from `start`, by constant rates between events; January first. [kg/m²]"""
    theta = np.array([m.theta_i - (m.theta_i - m.theta_e) * planes.R / planes.R_total for m in months])
    n = len(planes.sd) - 1
    one = delta_0 / planes.sd
    K = np.diag(one[:-1] + one[1:]) - np.diag(one[1:-1], 1) - np.diag(one[1:-1], -1)
    M, found = np.zeros(n), np.zeros((12, n))
    for month in range(start, start + 12):
        m = months[month % 12]
        limit = np.array([saturated(float(t)) for t in theta[month % 12, 1:-1]])
        b = np.zeros(n)
        b[0] += one[0] * m.p_i
        b[-1] += one[-1] * m.p_e
        left = 86400.0 * DAYS[month % 12]
        while left > 1e-6:
            wet = M > 1e-15
            for _ in range(4 * n):
                A, right = K.copy(), b.copy()
                A[wet], right[wet] = np.eye(n)[wet], limit[wet]
                p = np.linalg.solve(A, right)
                rate = np.where(wet, b - K @ p, 0.0)
                over = ~wet & (p > limit * (1 + 1e-12))
                gone = wet & (M <= 1e-15) & (rate < 0)
                if not over.any() and not gone.any():
                    break
                wet = (wet | over) & ~gone
            falling = np.nonzero((rate < 0) & (M > 1e-15))[0]
            step = min([left, *(M[falling] / -rate[falling])])
            M = np.maximum(M + rate * step, 0.0)
            M[M < 1e-15] = 0.0
            left -= step
        found[month % 12] = M
    return found


#: An OSB-skinned wall that is tight outside, in a cold climate: several planes wet, drying one after another.
COLD = [
    Month(theta_e=theta, phi_e=0.85 - 0.12 * math.sin(math.pi * at / 11), theta_i=20.0, phi_i=0.55)
    for at, theta in enumerate((-12, -10, -4, 3, 10, 15, 18, 16, 11, 5, -3, -9))
]
WET_WALL = [
    MonthlyLayer(d=0.011, R=0.085, sd=0.5),
    MonthlyLayer(d=0.07, R=2.0, sd=0.4),
    MonthlyLayer(d=0.001, R=0.01, sd=1.5),
    MonthlyLayer(d=0.07, R=2.0, sd=0.4),
    MonthlyLayer(d=0.011, R=0.085, sd=4.0),
]


def _monthly_rows() -> list[Row]:
    one = planes_of([MonthlyLayer(d=0.1, R=2.5, sd=1.0), MonthlyLayer(d=0.02, R=0.1, sd=5.0)], 0.13, 0.04, 100.0)
    cold = Month(theta_e=-10.0, phi_e=0.8, theta_i=20.0, phi_i=0.5)
    warm = Month(theta_e=20.0, phi_e=0.4, theta_i=20.0, phi_i=0.4)
    found = year(one, [cold, *[warm] * 11])
    limit = saturated(20 - 30 * (0.13 + 2.5) / (0.13 + 2.6 + 0.04))
    rate = 2e-10 * ((cold.p_i - limit) / 1.0 - (limit - cold.p_e) / 5.0)
    rows = [
        Row(name="one plane: condensed in January [kg/m²]", source="ISO 13788, 6.5, by hand",
            reference=rate * 86400 * 31, ours=float(found.g[0, 0]), tolerance=1e-9),
        Row(name="one plane: dried in February [kg/m²]", source="ISO 13788, 6.6, by hand",
            reference=-min(rate * 86400 * 31, 2e-10 * (saturated(20.0) - warm.p_e) * 1.2 * 86400 * 28),
            ours=float(found.g[1, 0]), tolerance=1e-9),
    ]  # fmt: skip
    planes = planes_of(WET_WALL, 0.13, 0.04)
    ours = year(planes, COLD)
    true = by_events(planes, COLD, ours.start or 0)
    for month in (0, 2, 4, 5, 10):
        rows.append(Row(name=f"several planes: stock at the end of month {month + 1} [kg/m²]",
                        source="constant rates between events", reference=float(true[month].sum()),
                        ours=float(ours.M[month].sum()), tolerance=1e-3 * float(true.sum(axis=1).max())))  # fmt: skip
    return rows


def rows() -> list[Row]:
    """Moisture by month and by hour."""
    return [*_monthly_rows(), *_steady_rows(), *_diffusion_rows(), *_benchmark_rows()]
