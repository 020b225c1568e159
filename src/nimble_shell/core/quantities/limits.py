"""What a physical value can be at all: wide enough for every material, narrow enough that sums stay numbers."""

from __future__ import annotations

import math

from nimble_shell.core.errors import Collector, Path
from nimble_shell.core.quantities.sentence import sentence

Limits = tuple[float, float]

CONDUCTIVITY: Limits = (1e-6, 1e4)  #: [W/(m·K)]
DENSITY: Limits = (1e-3, 3e4)  #: [kg/m³]
SPECIFIC_HEAT: Limits = (1.0, 2e4)  #: [J/(kg·K)]
VAPOUR_FACTOR: Limits = (0.01, 1e9)  #: μ [-]
AIR_LAYER: Limits = (0.0, 1e6)  #: s_d [m]
PRICE: Limits = (0.0, 1e7)  #: [currency per m³]
CARBON: Limits = (-10.0, 1e4)  #: stored carbon counts below zero [kg CO₂e/kg]
TEMPERATURE: Limits = (-273.15, 2000.0)  #: [°C]
STOCK: Limits = (1e-5, 3.0)  #: of thicknesses that are kept [m]


def within(
    check: Collector, value: float, limits: Limits, path: Path, code: str, what: str, dimension: str = ""
) -> None:
    """Note a value outside of its limits, or that is no number."""
    low, high = limits
    if math.isfinite(value) and low <= value <= high:  # asked first: sentences of good values would cost the most
        return
    if dimension:
        check.check(False, path, code, sentence(f"{what} is {{v1}}", v1=(value, dimension)),
                    sentence("it lies from {v1} to {v2}", v1=(low, dimension), v2=(high, dimension)))  # fmt: skip
    else:
        check.check(False, path, code, f"{what} is {value:g}", f"it lies from {low:g} to {high:,.0f}")
