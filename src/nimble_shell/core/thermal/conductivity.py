"""Conductivity that changes with temperature: mean value over a span, and its exact integral.

A table λ(θ) is linear between its rows and held at its ends, so its integral Λ(θ) = ∫ λ dθ is piecewise quadratic
and rises everywhere: the temperature behind a layer follows from the flux by an exact inversion (Kirchhoff's
transformation), with no slicing and no mean temperature.
"""

from __future__ import annotations

import itertools
import math
from bisect import bisect_left, bisect_right

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.materials import ConductivityTable
from nimble_shell.core.working import Num, value_of

FloatArray = NDArray[np.float64]


def conductivity_at(table: ConductivityTable, theta: Num) -> Num:
    """λ at a temperature, linear in the table and held at its ends.

    Parameters
    ----------
    table : sequence of (θ, λ)
        [°C], [W/(m·K)], rising in θ.
    theta : float or Traced
        Temperature. [°C]

    Returns
    -------
    float or Traced
        Thermal conductivity. [W/(m·K)]
    """
    at = value_of(theta)
    if at <= table[0][0]:
        return table[0][1]
    if at >= table[-1][0]:
        return table[-1][1]
    right = bisect_right(table, (at, math.inf))
    (t0, l0), (t1, l1) = table[right - 1], table[right]
    return l0 + (theta - t0) * ((l1 - l0) / (t1 - t0))


def mean_conductivity(table: ConductivityTable, theta_a: Num, theta_b: Num) -> Num:
    """Mean of λ over the span between two temperatures, exact for the table. [W/(m·K)]

    Parameters
    ----------
    table : sequence of (θ, λ)
        [°C], [W/(m·K)], rising in θ.
    theta_a, theta_b : float or Traced
        The two face temperatures, in either order. [°C]
    """
    a, b = (theta_a, theta_b) if value_of(theta_a) <= value_of(theta_b) else (theta_b, theta_a)
    low, high = value_of(a), value_of(b)
    if high - low < 1e-9:
        return conductivity_at(table, a)
    # Conductivity is linear between these stops, so the trapezium is exact.
    stops: list[Num] = [a, *(t for t, _ in table if low < t < high), b]
    area: Num = 0.0
    for left, right in itertools.pairwise(stops):
        area = area + (conductivity_at(table, left) + conductivity_at(table, right)) * (right - left) / 2
    return area / (b - a)


def mean_conductivities(table: ConductivityTable, theta_a: FloatArray, theta_b: FloatArray) -> FloatArray:
    """Mean of λ over the span between two temperatures, for whole arrays. [W/(m·K)]

    Parameters
    ----------
    table : sequence of (θ, λ)
        [°C], [W/(m·K)], rising in θ.
    theta_a, theta_b : ndarray
        The two face temperatures. [°C]
    """
    knots, values = (np.array(column) for column in zip(*table, strict=True))
    spent = np.concatenate([[0.0], np.cumsum((values[1:] + values[:-1]) / 2 * np.diff(knots))])

    def integral(theta: FloatArray) -> FloatArray:
        at = np.clip(np.searchsorted(knots, theta, side="right") - 1, 0, len(knots) - 1)
        here = np.interp(theta, knots, values)
        left = np.where(theta < knots[0], here, values[at])
        return np.asarray(spent[at] + (left + here) / 2 * (theta - knots[at]))

    span = theta_b - theta_a
    flat = np.abs(span) < 1e-6
    middle = np.interp((theta_a + theta_b) / 2, knots, values)
    return np.where(flat, middle, (integral(theta_b) - integral(theta_a)) / np.where(flat, 1.0, span))


def theta_behind(table: ConductivityTable, theta: float, q: float, d: float) -> float:
    """Temperature on the far face of a layer that carries a flux. [°C]

    Parameters
    ----------
    table : sequence of (θ, λ)
        [°C], [W/(m·K)], rising in θ.
    theta : float
        Temperature of the near face. [°C]
    q : float
        Flux towards the far face. [W/m²]
    d : float
        Thickness. [m]
    """
    left = q * d  # ∫ λ dθ still to be spent [W/m]; positive falls, negative rises
    falls = left > 0
    step, left = (-1 if falls else 1), abs(left)
    ahead = bisect_left(table, (theta,)) - 1 if falls else bisect_right(table, (theta, math.inf))
    lambda_ = float(value_of(conductivity_at(table, theta)))
    while 0 <= ahead < len(table):
        knot, there = table[ahead]
        span = abs(knot - theta)
        slope = (there - lambda_) / span
        spent = (lambda_ + slope * span / 2) * span
        if spent >= left:
            # λ·x + slope·x²/2 = left, in the form that stays exact for a vanishing slope
            return theta + step * 2 * left / (lambda_ + math.sqrt(max(lambda_**2 + 2 * slope * left, 0.0)))
        left -= spent
        theta, lambda_, ahead = knot, there, ahead + step
    return theta + step * left / lambda_
