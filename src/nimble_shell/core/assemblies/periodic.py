"""Dynamic behaviour of the field of an element under a sinusoidal swing, ISO 13786."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.element import Element
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working import value_of

_Complex = NDArray[np.complex128]

_STEPS = 400  #: frequencies from near zero up to the wanted one, along which the phase is followed


@dataclass(frozen=True, slots=True, kw_only=True)
class Periodic:
    """Periodic characteristics for one period."""

    Y12: float  #: modulus of the periodic thermal transmittance [W/(m²·K)]
    decrement: float  #: Y12 over U
    lag_h: float  #: the inside flux lags the outside temperature by this [h]
    kappa_i: float  #: areal heat capacity, inside [J/(m²·K)]
    kappa_e: float  #: areal heat capacity, outside [J/(m²·K)]


def periodic(element: Element, period_h: float) -> Periodic:
    """Periodic transmittance, decrement, lag and areal heat capacities of the field, films included.

    Parameters
    ----------
    element : Element
        Layers with a conductivity need ρ and c.
    period_h : float
        Period of the swing. [h]

    Raises
    ------
    DomainError
        If a layer lacks ρ or c, or the period is not positive.

    Notes
    -----
    Z = Z_se·Z_N…Z_1·Z_si takes (θ, q) from inside to outside. Y12 = −1/Z12, κ = (T/2π)·|(Z11 − 1)/Z12| and with Z22
    outside. A lag can exceed half a period, so the phase is followed from the steady state (lag 0) up in frequency.

    References
    ----------
    .. [1] ISO 13786:2017, 7.2 (layer matrix), 7.3 (component), 6.4 and 6.5 (characteristics).
    """
    if not 0 < period_h < 1e6:
        raise DomainError(
            Issue(
                path=("periodic", "period_h"),
                code="period_not_positive",
                message=f"period is {period_h} h",
                hint="24 for a day",
            )
        )
    omega = 2 * np.pi / (period_h * 3600)
    Z = _transfer(element, np.linspace(omega / _STEPS, omega, _STEPS))
    Z11, Z12, Z22 = Z[-1, 0, 0], Z[-1, 0, 1], Z[-1, 1, 1]
    phase = float(np.unwrap(np.angle(-Z[:, 0, 1]))[-1])
    R = value_of(element.R_si) + sum(value_of(layer.resistance()) for layer in element.layers) + value_of(element.R_se)
    Y12 = float(1 / abs(Z12))
    return Periodic(
        Y12=Y12,
        decrement=Y12 * R,
        lag_h=phase * period_h / (2 * np.pi),
        kappa_i=float(abs((Z11 - 1) / Z12) / omega),
        kappa_e=float(abs((Z22 - 1) / Z12) / omega),
    )


def _transfer(element: Element, omega: NDArray[np.float64]) -> _Complex:
    Z = _resistance_matrix(value_of(element.R_si), omega)
    for index, layer in enumerate(element.layers):
        part = layer.parts[0]
        if part.R is not None:
            Z = _resistance_matrix(value_of(part.R), omega) @ Z
            continue
        if part.rho is None or part.c is None:
            raise DomainError(
                Issue(
                    path=("layers", index),
                    code="no_heat_capacity",
                    message=f"layer “{layer.name}” has no density or specific heat",
                    hint="give rho in kg/m³ and c in J/(kg·K)",
                )
            )
        assert part.lambda_ is not None
        d, lambda_ = value_of(layer.d), value_of(part.lambda_)
        gamma = d * np.sqrt(1j * omega * part.rho * part.c / lambda_)
        one = np.cosh(gamma)
        Z = _matrices(one, -d / lambda_ * np.sinh(gamma) / gamma, -lambda_ / d * gamma * np.sinh(gamma), one) @ Z
    return _resistance_matrix(value_of(element.R_se), omega) @ Z


def _resistance_matrix(R: float, omega: NDArray[np.float64]) -> _Complex:
    one: _Complex = np.ones_like(omega, dtype=np.complex128)
    return _matrices(one, -R * one, np.zeros_like(one), one)


def _matrices(a: _Complex, b: _Complex, c: _Complex, d: _Complex) -> _Complex:
    return np.stack([np.stack([a, b], axis=-1), np.stack([c, d], axis=-1)], axis=-2)
