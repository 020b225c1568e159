"""One table of dimensions: for each, the unit shown in SI and in inch-pound, the factor and the usual decimals."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import DomainError, Issue

UnitSystem = Literal["SI", "IP"]
UNIT_SYSTEMS: tuple[UnitSystem, ...] = ("SI", "IP")

_INCH = 0.0254  #: [m], exact
_FOOT = 0.3048  #: [m], exact
_BTU = 1055.05585262  #: [J], International Table
_POUND = 0.45359237  #: [kg], exact
_RANKINE = 5.0 / 9.0  #: [K per °F]
_HOUR = 3600.0  #: [s]
_PERM = 5.7213e-11  #: [kg/(s·m²·Pa)], at 0 °C


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit as printed: SI value = shown value / per_si - offset."""

    symbol: str
    per_si: float  #: shown units in one SI unit
    decimals: int
    offset: float = 0.0  #: added to the shown value, for °F


@dataclass(frozen=True, slots=True)
class Dimension:
    """A kind of quantity with the unit each system shows it in."""

    si: Unit
    ip: Unit


DIMENSIONS: dict[str, Dimension] = {
    "length": Dimension(Unit("mm", 1000.0, 1), Unit("in", 1 / _INCH, 3)),
    "height": Dimension(Unit("m", 1.0, 0), Unit("ft", 1 / _FOOT, 0)),
    "distance": Dimension(Unit("m", 1.0, 2), Unit("ft", 1 / _FOOT, 2)),
    "area": Dimension(Unit("m²", 1.0, 1), Unit("ft²", 1 / _FOOT**2, 0)),
    "volume": Dimension(Unit("m³", 1.0, 1), Unit("ft³", 1 / _FOOT**3, 0)),
    "resistance": Dimension(Unit("m²·K/W", 1.0, 2), Unit("h·ft²·°F/Btu", _BTU / (_HOUR * _FOOT**2 * _RANKINE), 1)),
    "transmittance": Dimension(Unit("W/(m²·K)", 1.0, 3), Unit("Btu/(h·ft²·°F)", _HOUR * _FOOT**2 * _RANKINE / _BTU, 4)),
    "conductivity": Dimension(
        Unit("W/(m·K)", 1.0, 3), Unit("Btu·in/(h·ft²·°F)", _HOUR * _FOOT**2 * _RANKINE / (_BTU * _INCH), 3)
    ),
    "linear": Dimension(Unit("W/(m·K)", 1.0, 4), Unit("Btu/(h·ft·°F)", _HOUR * _FOOT * _RANKINE / _BTU, 4)),
    "coupling": Dimension(Unit("W/K", 1.0, 1), Unit("Btu/(h·°F)", _HOUR * _RANKINE / _BTU, 1)),
    "flux": Dimension(Unit("W/m²", 1.0, 2), Unit("Btu/(h·ft²)", _HOUR * _FOOT**2 / _BTU, 2)),
    "temperature": Dimension(Unit("°C", 1.0, 1), Unit("°F", 1.8, 1, 32.0)),
    "difference": Dimension(Unit("K", 1.0, 1), Unit("°F", 1.8, 1)),
    "pressure": Dimension(Unit("Pa", 1.0, 0), Unit("in. w.c.", 1 / 249.08891, 3)),
    "surface_mass": Dimension(Unit("kg/m²", 1.0, 1), Unit("psf", _FOOT**2 / _POUND, 2)),
    "condensate": Dimension(Unit("g/m²", 1000.0, 0), Unit("oz/ft²", 16 * _FOOT**2 / _POUND, 3)),
    "condensate_line": Dimension(Unit("g/m", 1000.0, 1), Unit("oz/ft", 16 * _FOOT / _POUND, 3)),
    "vapour_content": Dimension(Unit("g/m³", 1000.0, 2), Unit("gr/ft³", 7000 * _FOOT**3 / _POUND, 2)),
    "joint_flow": Dimension(Unit("m³/(h·m)", 1.0, 3), Unit("cfm/ft", 1 / (60 * _FOOT**2), 3)),
    "vapour_rate": Dimension(Unit("kg/d", 86400.0, 1), Unit("lb/d", 86400.0 / _POUND, 1)),
    "air_flow": Dimension(Unit("m³/h", 3600.0, 0), Unit("cfm", 60 / _FOOT**3, 0)),
    "density": Dimension(Unit("kg/m³", 1.0, 0), Unit("pcf", _FOOT**3 / _POUND, 1)),
    "air_layer": Dimension(Unit("m", 1.0, 2), Unit("ft", 1 / _FOOT, 2)),
    "permeance": Dimension(Unit("ng/(s·m²·Pa)", 1e12, 1), Unit("perm", 1 / _PERM, 2)),
    "share": Dimension(Unit("%", 100.0, 1), Unit("%", 100.0, 1)),
    "opening_area": Dimension(Unit("mm²/m", 1e6, 0), Unit("in²/ft", _FOOT / _INCH**2, 3)),
    "cost": Dimension(Unit("per m²", 1.0, 2), Unit("per ft²", _FOOT**2, 2)),
    "carbon": Dimension(Unit("kg/m²", 1.0, 1), Unit("lb/ft²", _FOOT**2 / _POUND, 2)),
    "energy": Dimension(Unit("kWh/(m²·a)", 1.0, 1), Unit("kBtu/(ft²·a)", 3.6e6 / (1000 * _BTU) * _FOOT**2, 2)),
    "years": Dimension(Unit("a", 1.0, 1), Unit("a", 1.0, 1)),
    "hours": Dimension(Unit("h", 1.0, 1), Unit("h", 1.0, 1)),
    "capacity": Dimension(Unit("kJ/(m²·K)", 1e-3, 1), Unit("Btu/(ft²·°F)", _FOOT**2 * _RANKINE / _BTU, 2)),
    "count_per_area": Dimension(Unit("1/m²", 1.0, 1), Unit("1/ft²", _FOOT**2, 2)),
    "specific_heat": Dimension(Unit("J/(kg·K)", 1.0, 0), Unit("Btu/(lb·°F)", _POUND * _RANKINE / _BTU, 3)),
    "steel_area": Dimension(Unit("mm²/m", 1e6, 0), Unit("in²/ft", _FOOT / _INCH**2, 3)),
    "area_flow": Dimension(Unit("m³/(m²·h)", 3600.0, 2), Unit("ft³/(ft²·h)", 3600 / _FOOT, 2)),
    "load": Dimension(Unit("kN/m²", 1.0, 2), Unit("psf", 1000 * _FOOT**2 / (_POUND * 9.80665), 1)),
    "speed": Dimension(Unit("m/s", 1.0, 1), Unit("mph", _HOUR / (5280 * _FOOT), 1)),
    "energy_price": Dimension(Unit("per kWh", 1.0, 3), Unit("per kBtu", 1000 * _BTU / 3.6e6, 4)),
    "energy_carbon": Dimension(Unit("kg CO₂e/kWh", 1.0, 2), Unit("lb CO₂e/kBtu", 1000 * _BTU / (3.6e6 * _POUND), 3)),
    "volume_cost": Dimension(Unit("per m³", 1.0, 0), Unit("per ft³", _FOOT**3, 2)),
    "carbon_share": Dimension(Unit("kg/kg", 1.0, 2), Unit("lb/lb", 1.0, 2)),
    "heat_flow": Dimension(Unit("W", 1.0, 1), Unit("Btu/h", _HOUR / _BTU, 1)),
    "line_flow": Dimension(Unit("W/m", 1.0, 1), Unit("Btu/(h·ft)", _HOUR * _FOOT / _BTU, 1)),
    "mass": Dimension(Unit("kg", 1.0, 0), Unit("lb", 1 / _POUND, 0)),
    "floor_area": Dimension(Unit("m²/m", 1.0, 3), Unit("ft²/ft", 1 / _FOOT, 3)),
    "leak_flow": Dimension(Unit("m³/h", 1.0, 0), Unit("cfm", 1 / (60 * _FOOT**3), 0)),
    "leak_surface": Dimension(Unit("m³/(h·m²)", 1.0, 2), Unit("cfm/ft²", 1 / (60 * _FOOT), 3)),
    "leak_area": Dimension(Unit("cm²", 1.0, 0), Unit("in²", 1e-4 / _INCH**2, 1)),
    "air_change": Dimension(Unit("1/h", 1.0, 2), Unit("1/h", 1.0, 2)),
    "fan_power": Dimension(Unit("W/(m³/h)", 1.0, 2), Unit("W/cfm", 60 * _FOOT**3, 2)),
    "moisture_rate": Dimension(Unit("kg/h", 1.0, 2), Unit("lb/h", 1 / _POUND, 2)),
    "heat": Dimension(Unit("kWh", 1.0, 0), Unit("kBtu", 3.6e6 / (1000 * _BTU), 0)),
    "soil_capacity": Dimension(Unit("MJ/(m³·K)", 1e-6, 2), Unit("Btu/(ft³·°F)", _FOOT**3 * _RANKINE / _BTU, 1)),
    "small_pressure": Dimension(Unit("Pa", 1.0, 1), Unit("in. w.c.", 1 / 249.08891, 3)),
    "force": Dimension(Unit("kN", 1e-3, 2), Unit("lbf", 1 / (_POUND * 9.80665), 0)),
    "rise": Dimension(Unit("m/h", 1.0, 2), Unit("ft/h", 1 / _FOOT, 2)),
    "slope": Dimension(Unit("mm/m", 1000.0, 1), Unit("in/ft", 12.0, 3)),
    "angle": Dimension(Unit("°", 1.0, 1), Unit("°", 1.0, 1)),
    "ratio": Dimension(Unit("", 1.0, 3), Unit("", 1.0, 3)),
}

_NUMBER = re.compile(r"^\s*([+\-−]?\d[\d\u2009\u202f ]*(?:\.\d+)?(?:[eE][+-]?\d+)?|[+\-−]?\.\d+)\s*(.*?)\s*$")


def unit_for(dimension: str, system: UnitSystem) -> Unit:
    """The unit a system shows a dimension in.

    Raises
    ------
    KeyError
        If there is no such dimension.
    """
    both = DIMENSIONS[dimension]
    return both.si if system == "SI" else both.ip


def show(value: float, dimension: str, system: UnitSystem, *, decimals: int | None = None) -> str:
    """A value as printed, without its unit: true minus sign, thin space in thousands, decimal point.

    Parameters
    ----------
    value : float
        In SI (temperatures in °C).
    dimension : str
        A key of DIMENSIONS.
    system : {"SI", "IP"}
    decimals : int, optional
        Digits after the point; the dimension's usual number if not given.
    """
    unit = unit_for(dimension, system)
    text = f"{value * unit.per_si + unit.offset:,.{unit.decimals if decimals is None else decimals}f}"
    if float(text.replace(",", "")) == 0.0:
        text = text.lstrip("-")
    return text.replace(",", "\u2009").replace("-", "−")


def parse(text: str, dimension: str, system: UnitSystem) -> float:
    """What a person wrote, in SI. A unit written out wins over the system.

    Raises
    ------
    DomainError
        If it is no number, or its unit is not one of the dimension's.
    """
    unit = unit_for(dimension, system)
    found = _NUMBER.match(text.replace(",", ".") if text.count(",") == 1 and "." not in text else text)
    if not found:
        raise DomainError(_unreadable(text, unit))
    number = float(re.sub(r"[\u2009\u202f ]", "", found[1]).replace("−", "-"))
    if found[2]:
        units = {u.symbol: u for u in (DIMENSIONS[dimension].si, DIMENSIONS[dimension].ip)}
        if found[2] not in units:
            raise DomainError(_unreadable(text, unit))
        unit = units[found[2]]
    return (number - unit.offset) / unit.per_si


def _unreadable(text: str, unit: Unit) -> Issue:
    return Issue(
        path=(),
        code="quantity_unreadable",
        message=f"“{text}” cannot be read as a quantity in {unit.symbol or 'plain numbers'}",
        hint=f"write a number, optionally followed by {unit.symbol}" if unit.symbol else "write a number",
    )
