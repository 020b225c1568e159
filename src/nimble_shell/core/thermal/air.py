"""Resistance of an unventilated air layer from its depth, faces and the direction of heat flow."""

from __future__ import annotations

from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.working import Num, named, value_of
from nimble_shell.core.working.traced import power

_SIGMA = 5.670374419e-8  #: Stefan-Boltzmann constant [W/(m²·K⁴)]
_KELVIN = 273.15
#: Convection in still layers for a difference up to 5 K: floor [W/(m²·K)] (ISO 6946:2017, table D.1).
_CONVECTION: dict[Direction, float] = {"horizontal": 1.25, "up": 1.95}
LARGEST_DEPTH = 0.300  #: the procedure holds up to this depth [m]

A_V_SMALL = 500e-6  #: openings up to this make a layer unventilated [m²/m]
A_V_LARGE = 1500e-6  #: openings from this on make it well ventilated [m²/m]


def air_layer_resistance(
    d: Num,
    emissivity_1: Num,
    emissivity_2: Num,
    *,
    direction: Direction = "horizontal",
    theta_m: float = 10.0,
    tag: str = "",
) -> Num:
    """Thermal resistance of an unventilated air layer. [m²·K/W]

    Parameters
    ----------
    d : float or Traced
        Depth in the direction of heat flow. [m]
    emissivity_1, emissivity_2 : float or Traced
        Hemispherical emissivities of the two faces. [-]
    direction : {"horizontal", "up", "down"}
        Direction of heat flow.
    theta_m : float
        Mean temperature of the layer. [°C]
    tag : str
        Suffix of the symbols in the working.

    Notes
    -----
    R = 1/(h_a + h_r), for a temperature difference of at most 5 K across the layer.

    References
    ----------
    .. [1] ISO 6946:2017, annex D, D.2 and table D.1.
    """
    conduction = 0.025 / d
    if direction == "down":
        moving = 0.12 * power(d, -0.44)
        h_a = moving if value_of(moving) >= value_of(conduction) else conduction
    else:
        floor = _CONVECTION[direction]
        h_a = conduction if value_of(conduction) >= floor else floor
    h_a = named(h_a, f"h_a{tag}", "convection and conduction in the air layer", "W/(m²·K)", "ISO 6946:2017, table D.1")
    exchange = named(
        1 / (1 / emissivity_1 + 1 / emissivity_2 - 1),
        f"E{tag}",
        "intersurface emittance",
        "",
        "ISO 6946:2017, D.2",
    )
    h_r = named(
        exchange * (4 * _SIGMA * (theta_m + _KELVIN) ** 3),
        f"h_r{tag}",
        "radiation across the air layer",
        "W/(m²·K)",
        "ISO 6946:2017, D.2, h_r = E·4σT³",
    )
    return named(1 / (h_a + h_r), f"R_{tag}", "resistance of the air layer", "m²·K/W", "ISO 6946:2017, D.2")
