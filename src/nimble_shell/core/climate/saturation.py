"""Saturation vapour pressure after ISO 13788: over water above 0 °C, over ice below."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.working import Num, apply, exp, value_of

FloatArray = NDArray[np.float64]
_P0 = 610.5  #: saturation pressure at 0 °C [Pa]


def p_sat(theta: Num) -> Num:
    """Saturation vapour pressure.

    Parameters
    ----------
    theta : float or Traced
        Temperature. [°C]

    Returns
    -------
    float or Traced
        Pressure, over water from 0 °C up and over ice below. [Pa]

    References
    ----------
    .. [1] ISO 13788:2012, annex E, formulae (E.7) and (E.8).
    """
    a, b = (17.269, 237.3) if value_of(theta) >= 0 else (21.875, 265.5)
    return _P0 * exp(a * theta / (b + theta))


def p_sat_of(theta: FloatArray) -> FloatArray:
    """The same of many temperatures at once; see `p_sat`. [Pa]"""
    warm = theta >= 0
    a, b = np.where(warm, 17.269, 21.875), np.where(warm, 237.3, 265.5)
    found: FloatArray = _P0 * np.exp(a * theta / (b + theta))
    return found


def theta_at_saturation(p: float) -> float:
    """Temperature at which a vapour pressure saturates the air; see `saturated_at`. [°C]"""
    return value_of(saturated_at(p))


def saturated_at(p: Num) -> Num:
    """Temperature at which a vapour pressure saturates the air (dew or frost point). [°C]

    Parameters
    ----------
    p : float or Traced
        Vapour pressure, above zero. [Pa]

    References
    ----------
    .. [1] ISO 13788:2012, annex E, formulae (E.9) and (E.10).
    """
    a, b = (17.269, 237.3) if value_of(p) >= _P0 else (21.875, 265.5)
    x = apply("log", p / _P0)
    return b * x / (a - x)
