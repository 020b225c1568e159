"""All quantities of a shape as CSV: one line a figure, in the units of the project, with where it comes from."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from nimble_shell.core.quantities.units import Unit, UnitSystem, unit_for
from nimble_shell.formats.csv_text import write_table

_DIGITS = 4  #: after the point
HEADER = ("what", "name", "quantity", "value", "unit", "from")


@dataclass(frozen=True, slots=True, kw_only=True)
class QuantityRow:
    """One figure of a shape."""

    what: str  #: face, element, joint, edge, opening, slab or building
    name: str
    quantity: str
    value: float  #: SI
    dimension: str  #: key of DIMENSIONS
    origin: str = "shape"


def write_quantities(rows: Iterable[QuantityRow], system: UnitSystem) -> bytes:
    """The table, in a system of units."""
    return write_table(HEADER, [_line(one, unit_for(one.dimension, system)) for one in rows])


def _line(row: QuantityRow, unit: Unit) -> tuple[str | float, ...]:
    value = round(row.value * unit.per_si, _DIGITS)
    return row.what, row.name, row.quantity, value, unit.symbol, row.origin
