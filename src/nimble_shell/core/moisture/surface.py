"""The inner surface: which temperature factor the months ask for (ISO 13788, 5)."""

from __future__ import annotations

from collections.abc import Sequence

from nimble_shell.core.climate.saturation import p_sat, theta_at_saturation
from nimble_shell.core.moisture.monthly import Month
from nimble_shell.core.working import value_of

LEAST_SPAN = 0.5  #: inside less outside; months nearer than that say nothing of the surface [K]
MOULD = 0.8  #: relative humidity of the surface above which mould may grow


def f_rsi_required(month: Month, phi_surface: float = MOULD) -> float | None:
    """Temperature factor at which the surface has just the relative humidity `phi_surface`; None if θ_i ≈ θ_e.

    References
    ----------
    .. [1] ISO 13788:2012, 5.3.
    """
    span = month.theta_i - month.theta_e
    if span < LEAST_SPAN:
        return None
    return (theta_at_saturation(month.p_i / phi_surface) - month.theta_e) / span


def phi_at_failure(month: Month, f_rsi: float, phi_surface: float = MOULD) -> float | None:
    """Relative humidity of the room, 0…1, at which a surface of this factor has just `phi_surface`; None if θ_i ≈ θ_e.

    References
    ----------
    .. [1] ISO 13788:2012, 5.3, solved for the room.
    """
    span = month.theta_i - month.theta_e
    if span < LEAST_SPAN:
        return None
    surface = month.theta_e + f_rsi * span
    return min(phi_surface * value_of(p_sat(surface)) / value_of(p_sat(month.theta_i)), 1.0)


def critical_month(required: Sequence[float | None]) -> int | None:
    """The month that asks for the largest factor, 0 for January; None if none asks for any."""
    asked = [(value, -at) for at, value in enumerate(required) if value is not None]
    return -max(asked)[1] if asked else None
