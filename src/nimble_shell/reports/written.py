"""Values as a page writes them: in the project's units, with their symbol."""

from __future__ import annotations

import re
from dataclasses import dataclass

from nimble_shell.core.quantities import format_feet_inches, show, unit_for
from nimble_shell.core.quantities.units import UnitSystem

#: C0 and C1 control characters, which no typesetter takes.
_CONTROL = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f\ud800-\udfff]")


def length_text(metres: float, units: UnitSystem) -> str:
    """A dimension as printed: mm, or feet and inches."""
    if units == "IP":
        return format_feet_inches(metres)
    return f"{1000 * metres:.1f}".removesuffix(".0")


@dataclass(frozen=True, slots=True)
class Written:
    """Writes values in one system of units; all are given in SI."""

    units: UnitSystem

    def number(self, value: float, dimension: str, decimals: int | None = None) -> str:
        """Without its unit."""
        return show(value, dimension, self.units, decimals=decimals)

    def symbol(self, dimension: str) -> str:
        return unit_for(dimension, self.units).symbol

    def full(self, value: float, dimension: str, decimals: int | None = None) -> str:
        """With its unit."""
        return f"{self.number(value, dimension, decimals)} {self.symbol(dimension)}".rstrip()

    def length(self, metres: float) -> str:
        """A dimension with its unit: mm, or feet and inches."""
        return length_text(metres, self.units) + (" mm" if self.units == "SI" else "")


def sentence_case(text: str) -> str:
    """With a capital letter and a full stop."""
    return f"{text[0].upper()}{text[1:]}" + ("" if text.endswith(".") else ".")


def cleaned(text: str) -> str:
    """Without what no typesetter takes."""
    return _CONTROL.sub("", text)
