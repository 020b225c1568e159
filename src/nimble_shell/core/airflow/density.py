"""Density of dry air."""

from __future__ import annotations

from nimble_shell.core.working import Num

P_STANDARD = 101325.0  #: [Pa]


def density(theta: Num, p: float = P_STANDARD) -> Num:
    """Of air at a temperature and pressure. [°C], [Pa] → [kg/m³]"""
    return p / (287.055 * (theta + 273.15))


RHO_STANDARD = P_STANDARD / (287.055 * 293.15)  #: at 20 °C [kg/m³]
