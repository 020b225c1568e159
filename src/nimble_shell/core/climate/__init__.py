"""Outdoor and indoor conditions, and the saturation of air."""

from nimble_shell.core.climate.monthly import MONTHS, MonthlyClimate, cold_continental
from nimble_shell.core.climate.saturation import p_sat, theta_at_saturation

__all__ = ["MONTHS", "MonthlyClimate", "cold_continental", "p_sat", "theta_at_saturation"]
