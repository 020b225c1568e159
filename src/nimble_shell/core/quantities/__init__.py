"""Units at the edges: what people write and read, in SI and inch-pound. Inside, everything is SI.

`parse_length("7' 10 3/8\\"")` → metres; `show(5.42, "resistance", "IP")` → "30.8". The table of dimensions is in
`units`; lengths have a module of their own, for feet, inches and fractions.
"""

from nimble_shell.core.quantities.lengths import format_feet_inches, parse_length
from nimble_shell.core.quantities.units import (
    DIMENSIONS,
    UNIT_SYSTEMS,
    Dimension,
    Unit,
    parse,
    show,
    unit_for,
)

__all__ = [
    "DIMENSIONS",
    "UNIT_SYSTEMS",
    "Dimension",
    "Unit",
    "format_feet_inches",
    "parse",
    "parse_length",
    "show",
    "unit_for",
]
