"""The half-space of EN 15026, annex A, by its similarity: everything depends on x/√t, so that no time step is taken.

Initially 20 °C and 50 %; from the start on the surface has 30 °C and 95 %. With η = x/√t the equations of heat and
moisture become ordinary ones, solved by collocation with functions of the material written out here once more.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.integrate import solve_bvp

FloatArray = NDArray[np.float64]

FAR = 6e-3  #: η taken as infinite [m/√s]
START, SURFACE = (20.0, 0.5), (30.0, 0.95)
_RV, _LATENT, _CW = 461.5, 2.5e6, 4180.0
_TOLERANCE = 1e-6


def _suction(theta: FloatArray, phi: FloatArray) -> FloatArray:
    found: FloatArray = -1000 * _RV * (theta + 273.15) * np.log(phi)
    return found


def water(theta: FloatArray, phi: FloatArray) -> FloatArray:
    """w [kg/m³] at θ [°C] and φ."""
    found: FloatArray = 146 / (1 + (8e-8 * _suction(theta, phi)) ** 1.6) ** 0.375
    return found


def _slopes(eta: FloatArray, y: FloatArray) -> FloatArray:
    """Derivatives of θ, ln φ, moisture flow·√t and heat flow·√t by ln(η + η₀)."""
    theta, phi, g, q = y[0], np.exp(np.minimum(y[1], -1e-9)), y[2], y[3]
    T = theta + 273.15
    p_sat = 610.5 * np.exp(17.269 * theta / (237.3 + theta))
    p_theta = phi * p_sat * 17.269 * 237.3 / (237.3 + theta) ** 2
    s = _suction(theta, phi)
    w = water(theta, phi)
    w_s = -146 * 0.375 * (1 + (8e-8 * s) ** 1.6) ** -1.375 * 1.6 * 8e-8 * (8e-8 * s) ** 0.6
    dry = 1 - w / 146
    delta = 26.1e-6 / (200 * _RV * T) * dry / (0.503 * dry**2 + 0.497)
    u = w - 73
    K = np.exp(-39.2619 + 0.0704 * u - 1.7420e-4 * u**2 - 2.7953e-6 * u**3 - 1.1566e-7 * u**4 + 2.5969e-9 * u**5)
    lambda_ = 1.5 + 15.8e-3 * w
    s_theta, s_log = s / T, -1000 * _RV * T  # by θ and by ln φ
    # g = −δ(p_θ θ' + p ℓ') + K(s_θ θ' + s_ℓ ℓ') and q = −λ θ' + L·(its vapour part) for θ' and ℓ' = (ln φ)'
    a, b = -delta * p_theta + K * s_theta, -delta * phi * p_sat + K * s_log
    c, d = -lambda_ - _LATENT * delta * p_theta, -_LATENT * delta * phi * p_sat
    det = a * d - b * c
    theta_x, log_x = (g * d - q * b) / det, (a * q - c * g) / det
    w_x = w_s * (s_theta * theta_x + s_log * log_x)
    found: FloatArray = np.vstack([theta_x, log_x, eta / 2 * w_x, (1.824e6 + _CW * w) * eta / 2 * theta_x])
    return found


@dataclass(frozen=True, slots=True, eq=False)
class Similar:
    """θ and w against x/√t."""

    eta: FloatArray
    theta: FloatArray
    w: FloatArray

    def at(self, x: float, seconds: float) -> tuple[float, float]:
        """θ [°C] and w [kg/m³] at a depth [m] and time [s]."""
        eta = x / np.sqrt(seconds)
        return float(np.interp(eta, self.eta, self.theta)), float(np.interp(eta, self.eta, self.w))


def solved() -> Similar:
    """The profile.

    Raises
    ------
    RuntimeError
        If the collocation does not settle.
    """
    eta_0 = 1e-6  # η = η₀·(eᶻ − 1): fine at the surface, where moisture is, and far out for heat
    z = np.linspace(0, np.log(FAR / eta_0 + 1), 400)

    def slopes(z: FloatArray, y: FloatArray) -> FloatArray:
        eta = eta_0 * np.expm1(z)
        found: FloatArray = _slopes(eta, y * scale[:, None]) * (eta + eta_0) / scale[:, None]
        return found

    def ends(a: FloatArray, b: FloatArray) -> FloatArray:
        return np.array([
            a[0] * scale[0] - SURFACE[0], (a[1] * scale[1] - log_surface), b[0] * scale[0] - START[0],
            b[1] * scale[1] - np.log(START[1]),
        ])  # fmt: skip

    scale = np.array([10.0, 0.1, 1e-4, 1e4])
    eta = eta_0 * np.expm1(z)
    guess = np.zeros((4, len(z)))
    found = None
    for share in np.linspace(0.2, 1.0, 9):  # the surface is made wetter step by step
        log_surface = np.log(START[1]) + share * np.log(SURFACE[1] / START[1])
        if found is None:
            guess[0] = START[0] + 10 * np.exp(-eta / 1e-3)
            guess[1] = np.log(START[1]) + (log_surface - np.log(START[1])) * np.exp(-eta / 5e-6)
            guess[2] = 1e-5 * np.exp(-eta / 5e-6)
            guess[3] = 1e4 * np.exp(-eta / 1e-3)
            guess /= scale[:, None]
        found = solve_bvp(slopes, ends, z, guess, tol=_TOLERANCE if share == 1 else 1e-3, max_nodes=100_000)
        if not found.success:
            raise RuntimeError(found.message)
        z, guess = found.x, found.y
    theta, log_phi = guess[0] * scale[0], guess[1] * scale[1]
    return Similar(eta_0 * np.expm1(z), theta, water(theta, np.exp(log_phi)))
