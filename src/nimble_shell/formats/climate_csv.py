"""Twelve months from CSV: a header, then one line a month. Separator, decimal comma and encoding are recognised."""

from __future__ import annotations

from nimble_shell.core.climate import MonthlyClimate
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.formats.csv_text import Table, read_table

#: Column → words it may be called by.
_NAMES = {
    "theta": ("temperature", "theta", "theta_e", "t", "te", "mean temperature"),
    "phi": ("humidity", "phi", "phi_e", "rh", "relative humidity"),
    "swing": ("swing", "daily range", "range"),
    "sigma": ("sigma", "scatter", "standard deviation"),
}


def read_climate(content: bytes, name: str) -> MonthlyClimate:
    """A monthly climate from a CSV file: temperature in °C, humidity in % or as a share, swing and scatter in K.

    Raises
    ------
    DomainError
        Naming the line and column of everything that is wrong.
    """
    table = read_table(content)
    columns = {key: table.column(words) for key, words in _NAMES.items()}
    missing = [key for key in ("theta", "phi") if columns[key] is None]
    if missing:
        words = {"theta": "temperature", "phi": "humidity"}
        raise DomainError(
            Issue(
                path=("line", table.header_line),
                code="column_missing",
                message=f"no column for {' and '.join(words[key] for key in missing)}",
                hint="name the columns temperature and humidity; swing and sigma are optional",
            )
        )
    if len(table.rows) != 12:
        raise DomainError(
            Issue(
                path=("line", table.header_line),
                code="not_twelve_months",
                message=f"there are {len(table.rows)} lines of data",
                hint="one line for each month, January first",
            )
        )
    check = Collector()
    found = {key: _values(table, at, check) for key, at in columns.items() if at is not None}
    check.refuse()
    if max(found["phi"]) > 1.5:
        found["phi"] = [value / 100 for value in found["phi"]]
    extra = {key: tuple(found[key]) for key in ("swing", "sigma") if key in found}
    return MonthlyClimate(
        name=name, source="CSV file", theta_e=tuple(found["theta"]), phi_e=tuple(found["phi"]), **extra
    )


def _values(table: Table, column: int, check: Collector) -> list[float]:
    values: list[float] = []
    for line, row in table.rows:
        value = table.number(row[column])
        check.check(
            value is not None,
            ("line", line),
            "not_a_number",
            f"“{row[column]}” in line {line} is no number",
            "write a number",
        )
        values.append(0.0 if value is None else value)
    return values
