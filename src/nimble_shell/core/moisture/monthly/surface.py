"""The inner surface: which temperature factor the months ask for (ISO 13788, 5)."""

from __future__ import annotations

from collections.abc import Sequence

from nimble_shell.core.basis.condition import MOULD
from nimble_shell.core.climate.saturation import p_sat, saturated_at
from nimble_shell.core.moisture.monthly.condensation import Month
from nimble_shell.core.working import Given, Num, named, plain, value_of

LEAST_SPAN = 0.5  #: inside less outside; months nearer than that say nothing of the surface [K]


def surface_limit(month: Month) -> float:
    """Relative humidity that a surface may have: that of mould, in a room that freezes only saturation."""
    return MOULD if month.theta_i > 0 else 1.0


def f_rsi_required(month: Month, phi_surface: float | None = None) -> float | None:
    """Temperature factor at which the surface has just its limit, or `phi_surface`; None if θ_i ≈ θ_e.

    References
    ----------
    .. [1] ISO 13788:2012, 5.3.
    """
    if month.theta_i - month.theta_e < LEAST_SPAN:
        return None
    return value_of(required_factor(month, phi_surface))


def required_factor(month: Month, phi_surface: float | None = None, given: Given = plain) -> Num:
    """The same in a month that asks for it, with its working."""
    inside, outside, p_i = air_of(month, given)
    limit = given(
        phi_surface or surface_limit(month), "phi_s", "humidity that the surface may have", "", "ISO 13788:2012, 5.3"
    )
    colder = named(saturated_at(p_i / limit), "theta_s", "coldest surface that keeps below it", "°C",
                   "ISO 13788:2012, 5.3, θ at which p_i/φ_s saturates")  # fmt: skip
    return named((colder - outside) / (inside - outside), "f_required", "surface factor asked", "",
                 "ISO 13788:2012, 5.3, (θ_s − θ_e)/(θ_i − θ_e)")  # fmt: skip


def air_of(month: Month, given: Given) -> tuple[Num, Num, Num]:
    """Temperatures inside and outside [°C], and the room's vapour pressure [Pa]."""
    inside = given(month.theta_i, "theta_i", "room in the month", "°C", "Basis: indoor regime")
    outside = given(month.theta_e, "theta_e", "outside, mean of the month", "°C", "Basis: climate")
    humid = given(month.phi_i, "phi_i", "relative humidity of the room", "", "Basis: indoor regime")
    p_i = named(humid * p_sat(inside), "p_i", "vapour pressure of the room", "Pa", "φ_i·p_sat(θ_i), ISO 13788, annex E")
    return inside, outside, p_i


def phi_at_failure(month: Month, f_rsi: float, phi_surface: float | None = None) -> float | None:
    """Relative humidity of the room, 0…1, at which a surface of this factor has just its limit; None if θ_i ≈ θ_e.

    References
    ----------
    .. [1] ISO 13788:2012, 5.3, solved for the room.
    """
    if month.theta_i - month.theta_e < LEAST_SPAN:
        return None
    return min(value_of(failing_humidity(month, f_rsi, phi_surface)), 1.0)


def failing_humidity(month: Month, f_rsi: float, phi_surface: float | None = None, given: Given = plain) -> Num:
    """The same in a month that asks for it, with its working; above 1 where even saturated air is no danger."""
    inside, outside, _ = air_of(month, given)
    f = given(f_rsi, "f_Rsi", "surface factor", "", "computed with the R_si of surfaces that are judged")
    limit = given(phi_surface or surface_limit(month), "phi_s", "humidity that the surface may have", "",
                  "ISO 13788:2012, 5.3")  # fmt: skip
    surface = named(outside + f * (inside - outside), "theta_si", "surface in the month", "°C", "θ_e + f·(θ_i − θ_e)")
    return named(limit * p_sat(surface) / p_sat(inside), "phi_fails", "room humidity at which it fails", "",
                 "ISO 13788:2012, 5.3, φ_s·p_sat(θ_si)/p_sat(θ_i)")  # fmt: skip


def largest_share(month: Month, phi: float, total: float, R_si: float, R_f: float, given: Given = plain) -> Num:
    """Share of the resistance inside of a plane where room air has just the humidity `phi`; may lie outside of 0…1.

    Parameters
    ----------
    total, R_si, R_f : float
        Of the build-up with films, of the inner film, and of the build-up without films. [m²·K/W]

    References
    ----------
    .. [1] ISO 13788:2012, 5.3, for a plane inside instead of the surface.
    """
    inside, outside, p_i = air_of(month, given)
    limit = given(phi, "phi_p", "humidity that room air may have at the plane", "", "ISO 13788:2012, 5.3")
    R_T = given(total, "R_T", "resistance with films", "m²·K/W", "computed")
    film = given(R_si, "R_si", "inner film", "m²·K/W", "ISO 6946")
    field = given(R_f, "R_f", "resistance without films", "m²·K/W", "computed")
    plane = named(saturated_at(p_i / limit), "theta_p", "coldest that the plane may be", "°C",
                  "θ at which p_i/φ_p saturates")  # fmt: skip
    return named(((inside - plane) / (inside - outside) * R_T - film) / field, "share_safe",
                 "largest share of R inside", "", "θ falls with the resistance that is crossed")  # fmt: skip


def outer_factor_required(month: Month) -> float | None:
    """Factor of the outer surface, (θ_se − θ_i)/(θ_e − θ_i), at which outside air is at its dew point there.

    None unless heat flows inwards: then the outer surface is the critical one, as around a cold room.

    References
    ----------
    .. [1] ISO 13788:2012, 5.3, with the sides changed and saturation as the limit.
    """
    if month.theta_e - month.theta_i < LEAST_SPAN:
        return None
    dew = value_of(saturated_at(month.p_e))
    return (dew - month.theta_i) / (month.theta_e - month.theta_i)


def critical_month(required: Sequence[float | None]) -> int | None:
    """The month that asks for the largest factor, 0 for January; None if none asks for any."""
    asked = [(value, -at) for at, value in enumerate(required) if value is not None]
    return -max(asked)[1] if asked else None
