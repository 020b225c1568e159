"""Venting by height: air that rises out of a high opening and is followed by air through a low one."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.airflow.balance import GRAVITY
from nimble_shell.core.airflow.density import density
from nimble_shell.core.working import Given, Num, apply, named, plain, value_of

_CLAUSE = "mass balance of two openings, without wind"


@dataclass(frozen=True, slots=True, kw_only=True)
class Vents:
    """Two openings one above the other."""

    low: float  #: free area [m²]
    high: float  #: free area [m²]
    rise: float  #: from the middle of the one to that of the other [m]
    Cd: float = 0.6

    @property
    def there(self) -> bool:
        """Whether air can pass; one opening alone counts for nothing."""
        return self.low > 0 and self.high > 0 and self.rise > 0


def stack_flow(vents: Vents, theta_i: Num, theta_e: Num, given: Given = plain) -> Num:
    """Air that comes in from outside; none where it is not colder there. [m³/h]

    Parameters
    ----------
    vents : Vents
    theta_i, theta_e : float
        Of the room and outside. [°C]
    given : Given
        `plain` for figures, `traced` for working.

    Notes
    -----
    What goes in goes out, C_d·A₁·√(2ρ_e·Δp₁) = C_d·A₂·√(2ρ_i·Δp₂), and both share the lift of the column:
    Δp₁ + Δp₂ = (ρ_e − ρ_i)·g·h.
    """
    if not vents.there or value_of(theta_i) <= value_of(theta_e):
        return given(0.0, "q_v", "air through the vents", "m³/h", "closed, or no colder outside")
    low = given(vents.low, "A_1", "low opening", "m²", "entered")
    high = given(vents.high, "A_2", "high opening", "m²", "entered")
    rise = given(vents.rise, "h", "rise between them", "m", "entered")
    Cd = given(vents.Cd, "C_d", "discharge of an opening", "", "sharp edged")
    rho_i = named(density(theta_i), "rho_i", "air inside", "kg/m³", "ideal gas")
    rho_e = named(density(theta_e), "rho_e", "air outside", "kg/m³", "ideal gas")
    lift = named((rho_e - rho_i) * GRAVITY * rise, "dp", "lift of the column", "Pa", "(ρ_e − ρ_i)·g·h")
    both = 1 / (low * low * rho_e) + 1 / (high * high * rho_i)
    m = named(Cd * apply("sqrt", 2 * lift / both), "m_v", "air in and out", "kg/s", _CLAUSE)
    return named(3600 * m / rho_e, "q_v", "air through the vents", "m³/h", "3600·m/ρ_e")


def stack_flows(vents: Vents, theta_i: NDArray[np.float64], theta_e: NDArray[np.float64]) -> NDArray[np.float64]:
    """`stack_flow` at many moments at once, without working. [°C], [°C] → [m³/h]"""
    of_each: Any = density
    rho_i, rho_e = of_each(theta_i), of_each(theta_e)
    lift = np.maximum(rho_e - rho_i, 0.0) * GRAVITY * vents.rise
    both = 1 / (vents.low**2 * rho_e) + 1 / (vents.high**2 * rho_i)
    found: NDArray[np.float64] = 3600 * vents.Cd * np.sqrt(2 * lift / both) / rho_e
    return found
