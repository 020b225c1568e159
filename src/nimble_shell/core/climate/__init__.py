"""Outdoor and indoor conditions, and the saturation of air."""

from nimble_shell.core.climate.degree_hours import cooling_degree_hours, heating_degree_hours
from nimble_shell.core.climate.invented import INVENTED, cold_continental, hourly_temperature
from nimble_shell.core.climate.monthly import MONTHS, MonthlyClimate
from nimble_shell.core.climate.saturation import p_sat, theta_at_saturation

__all__ = [
    "INVENTED",
    "MONTHS",
    "MonthlyClimate",
    "cold_continental",
    "cooling_degree_hours",
    "heating_degree_hours",
    "hourly_temperature",
    "p_sat",
    "theta_at_saturation",
]
