"""Total resistance of an element: through its field, and three ways with its bridges.

*nominal*: through the first part of every layer. *parallel*: every straight path from side to side on its own
(upper limit). *isothermal*: layers of uniform temperature in series (lower limit). *combined*: the mean of the two.
All are environment to environment, films included.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import product

from nimble_shell.core.thermal.element import Element, ElementLayer
from nimble_shell.core.working import Num, named, value_of

#: Beyond this ratio of upper to lower limit the combined method is outside its range (ISO 6946:2017, 6.7.2.1).
LARGEST_RATIO = 1.5


@dataclass(frozen=True, slots=True, kw_only=True)
class Resistances:
    """Total thermal resistances, films included [m²·K/W], and the combined method's largest relative error."""

    nominal: Num
    parallel: Num
    isothermal: Num
    combined: Num
    error_e: Num  #: half the spread of the limits over their mean, 0…1

    @property
    def in_range(self) -> bool:
        """Whether the combined method applies: the upper limit is at most 1.5 times the lower."""
        e = value_of(self.error_e)  # upper / lower is (1 + e)/(1 − e), whatever is added afterwards
        return 1 + e <= LARGEST_RATIO * (1 - e) * (1 + 1e-12)


Swept = Mapping[int, Num]  #: thicknesses to give to layers, by index [m]; arrays sweep them


def resistances(element: Element, key: str = "", swept: Swept | None = None) -> Resistances:
    """Total resistance of the element by each method.

    Parameters
    ----------
    element : Element
        Layers inside → outside with their films.
    key : str
        Suffix of the symbols, where one working holds the totals of two elements.
    swept : mapping of index to float, optional
        Layers and the thicknesses to give them. [m]

    Returns
    -------
    Resistances
        [m²·K/W]; traced where the element's numbers are.

    References
    ----------
    .. [1] ISO 6946:2017, 6.7.1 (homogeneous), 6.7.2.2 (combined), 6.7.2.3 (upper), 6.7.2.4 (lower), 6.7.2.5 (error).
    """
    given = swept or {}
    table = [
        [layer.resistance(part, given.get(at)) for part in range(len(layer.parts))]
        for at, layer in enumerate(element.layers)
    ]
    return totals(element, table, key)


def totals(element: Element, table: list[list[Num]], key: str = "") -> Resistances:
    """Totals from the resistance of every part of every layer, which may differ from the element's own. [m²·K/W]"""
    nominal = named(
        element.R_si + sum(row[0] for row in table) + element.R_se,
        f"R_nominal{key}",
        "total resistance through the field",
        "m²·K/W",
        "ISO 6946:2017, 6.7.1.2",
    )
    upper = _upper_limit(element, table, key)
    lower = _lower_limit(element, table, key)
    combined = named(
        (upper + lower) / 2,
        f"R_combined{key}",
        "total resistance, mean of the two limits",
        "m²·K/W",
        "ISO 6946:2017, 6.7.2.2",
    )
    error = named(
        (upper - lower) / (2 * combined),
        f"e{key}",
        "largest relative error of the combined method",
        "",
        "ISO 6946:2017, 6.7.2.5",
    )
    return Resistances(nominal=nominal, parallel=upper, isothermal=lower, combined=combined, error_e=error)


def transmittance(R: Num, symbol: str, text: str) -> Num:
    """U = 1/R. [W/(m²·K)]"""
    return named(1 / R, symbol, text, "W/(m²·K)", "ISO 6946:2017, 6.5.1, U = 1/R")


def _groups(element: Element) -> dict[str, list[int]]:
    """Bridged layers by crossing group; a layer without a group crosses all others."""
    groups: dict[str, list[int]] = {}
    for index, layer in enumerate(element.layers):
        if len(layer.parts) > 1:
            groups.setdefault(layer.group or f"\0{index}", []).append(index)
    return groups


def _upper_limit(element: Element, table: list[list[Num]], key: str) -> Num:
    groups = _groups(element)
    counts = [len(element.layers[members[0]].parts) for members in groups.values()]
    conductance: Num = 0.0
    for number, choice in enumerate(product(*(range(count) for count in counts)), 1):
        part_of = {index: part for part, members in zip(choice, groups.values(), strict=True) for index in members}
        share: Num = 1.0
        for part, members in zip(choice, groups.values(), strict=True):
            f = element.layers[members[0]].parts[part].f
            share = f if isinstance(share, float) and share == 1.0 else share * f
        path = element.R_si + sum(row[part_of.get(i, 0)] for i, row in enumerate(table)) + element.R_se
        if groups:
            words = ", ".join(_part_name(element.layers[i], part) for i, part in part_of.items())
            path = named(path, f"R_path{key}_{number}", f"path {number}: {words}", "m²·K/W", "ISO 6946:2017, 6.7.2.3")
        conductance = conductance + share / path
    return named(
        1 / conductance,
        f"R_parallel{key}",
        "total resistance, parallel paths (upper limit)",
        "m²·K/W",
        "ISO 6946:2017, 6.7.2.3",
    )


def _part_name(layer: ElementLayer, part: int) -> str:
    return f"{layer.name} ({'bridge' if part else 'field'})"


def _lower_limit(element: Element, table: list[list[Num]], key: str) -> Num:
    series: list[Num] = []
    for layer, row in zip(element.layers, table, strict=True):
        if len(row) == 1:
            series.append(row[0])
            continue
        conductance: Num = 0.0
        for part, R in zip(layer.parts, row, strict=True):
            conductance = conductance + part.f / R
        series.append(
            named(
                1 / conductance,
                f"R_{layer.tag}_plane",
                f"{layer.name}, as one isothermal layer",
                "m²·K/W",
                "ISO 6946:2017, 6.7.2.4",
            )
        )
    return named(
        element.R_si + sum(series) + element.R_se,
        f"R_isothermal{key}",
        "total resistance, isothermal planes (lower limit)",
        "m²·K/W",
        "ISO 6946:2017, 6.7.2.4",
    )
