"""Degree hours of a climate: what heating and cooling have to make up for through one W/K."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.climate.invented import MONTH_DAYS, WARMEST_HOUR
from nimble_shell.core.climate.monthly import MonthlyClimate

FloatArray = NDArray[np.float64]


def heating_degree_hours(climate: MonthlyClimate, theta_i: float, heated_below: float) -> float:
    """Difference to the room summed over the hours that are colder than the heating limit and than the room. [K·h/a]

    Parameters
    ----------
    climate : MonthlyClimate
    theta_i : float
        Room temperature. [°C]
    heated_below : float
        Outdoor temperature below which it is heated. [°C] A room that is cooler still is heated below its own: above it
        heat flows in, which is no need of heating.

    Notes
    -----
    In each month and hour of the day the temperature is taken as normally distributed about the mean day with the
    stated scatter: E[(θ_i − θ)·1(θ < L)] = (θ_i − μ)·Φ(z) + σ·φ(z) with z = (L − μ)/σ, exactly; L is the lower of the
    limit and θ_i.
    """
    mean, sigma = _mean_days(climate)
    below, density = _normal((min(heated_below, theta_i) - mean) / sigma)
    return _year((theta_i - mean) * below + sigma * density)


def cooling_degree_hours(climate: MonthlyClimate, theta_i: float) -> float:
    """Difference to the room summed over the hours that are warmer than it. [K·h/a]

    Parameters
    ----------
    climate : MonthlyClimate
    theta_i : float
        Room temperature that is kept by cooling. [°C]

    Notes
    -----
    Air temperature only: sun on the surface is not in it. E[(θ − θ_i)⁺] of the same distribution as for heating.
    """
    mean, sigma = _mean_days(climate)
    below, density = _normal((theta_i - mean) / sigma)
    return _year((mean - theta_i) * (1 - below) + sigma * density)


def _mean_days(climate: MonthlyClimate) -> tuple[FloatArray, FloatArray]:
    """The mean day of each month, shape (12, 24), and the scatter about it. [°C], [K]"""
    day = np.cos(2 * np.pi * (np.arange(24) - WARMEST_HOUR) / 24)
    mean = np.array(climate.theta_e)[:, None] + np.array(climate.swing)[:, None] / 2 * day
    return mean, np.maximum(np.array(climate.sigma), 1e-6)[:, None]


def _normal(z: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Distribution and density of the standard normal."""
    below = np.array([0.5 * math.erfc(-one / math.sqrt(2)) for one in z.ravel()]).reshape(z.shape)
    return below, np.exp(-(z**2) / 2) / math.sqrt(2 * math.pi)


def _year(expected: FloatArray) -> float:
    return float((expected * np.array(MONTH_DAYS)[:, None]).sum())
