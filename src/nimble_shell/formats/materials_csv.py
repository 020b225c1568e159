"""Own materials as CSV, out and in; every error with its line."""

from __future__ import annotations

import re
from collections.abc import Sequence

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.formats.csv_text import read_table, write_table

COLUMNS = (
    "key",
    "name",
    "family",
    "lambda",
    "lambda_fresh",
    "rho",
    "c",
    "mu",
    "sd",
    "emissivity",
    "cost",
    "carbon",
    "stock",
    "source",
)
_NEEDED = ("key", "name", "lambda", "rho", "c")
_HATCH = {
    "foam": "foam",
    "fibre": "fibre",
    "panel": "board",
    "timber": "timber",
    "concrete": "concrete",
    "masonry": "masonry",
    "render": "board",
    "metal": "steel",
    "plastic": "steel",
    "glass": "glass",
    "fill": "gravel",
    "membrane": "membrane",
}


def write_materials(materials: Sequence[Material]) -> bytes:
    """A CSV file of materials; λ in W/(m·K), ρ in kg/m³, c in J/(kg·K), s_d and stock in m, separated by blanks."""
    rows = [
        [
            m.key,
            m.name,
            m.family,
            m.lambda_,
            _or_empty(m.lambda_fresh),
            m.rho,
            m.c,
            m.mu,
            _or_empty(m.sd),
            m.emissivity,
            m.cost,
            m.carbon,
            " ".join(f"{d:g}" for d in m.stock),
            m.source,
        ]
        for m in materials
    ]
    return write_table(COLUMNS, rows)


def read_materials(content: bytes) -> tuple[Material, ...]:
    """Materials of a CSV file; all lines or none.

    Raises
    ------
    DomainError
        With the line of everything that is wrong.
    """
    table = read_table(content)
    where = {column: table.column((column,)) for column in COLUMNS}
    missing = [column for column in _NEEDED if where[column] is None]
    if missing:
        raise DomainError(
            Issue(
                path=("line", table.header_line),
                code="column_missing",
                message=f"there is no column {', '.join(missing)}",
                hint=f"the columns are {', '.join(COLUMNS)}",
            )
        )
    check = Collector()
    seen: dict[str, int] = {}
    found: list[Material] = []
    for line, row in table.rows:
        cells = {column: row[at] for column, at in where.items() if at is not None}
        key = cells["key"]
        check.check(
            bool(re.fullmatch(r"[A-Za-z0-9_-]{1,64}", key)),
            ("line", line, "key"),
            "key_unusable",
            f"“{key}” cannot be a key",
            "letters, digits, - and _, up to 64",
        )
        check.check(
            key not in CATALOGUE,
            ("line", line, "key"),
            "material_shipped",
            f"“{key}” is a shipped material",
            "give your own material another key; shipped ones are never overridden",
        )
        check.check(
            key not in seen,
            ("line", line, "key"),
            "material_twice",
            f"“{key}” stands in line {seen.get(key, 0)} already",
            "give each a key of its own",
        )
        seen[key] = line
        numbers: dict[str, float | None] = {}
        for column in ("lambda", "lambda_fresh", "rho", "c", "mu", "sd", "emissivity", "cost", "carbon"):
            text = cells.get(column, "").strip()
            value = table.number(text) if text else None
            check.check(
                value is not None or (not text and column not in _NEEDED),
                ("line", line, column),
                "not_a_number",
                f"{column} is “{text}”",
                "write a number",
            )
            numbers[column] = value
        stock = [table.number(part) for part in cells.get("stock", "").split()]
        check.check(
            None not in stock,
            ("line", line, "stock"),
            "not_a_number",
            f"stock is “{cells.get('stock', '')}”",
            "thicknesses in m, separated by blanks",
        )
        family = cells.get("family", "").strip() or "panel"
        check.check(
            family in _HATCH,
            ("line", line, "family"),
            "unknown_family",
            f"there is no family “{family}”",
            f"one of {', '.join(_HATCH)}",
        )
        if check.issues:
            continue
        try:
            found.append(_material(cells, numbers, family, tuple(d for d in stock if d is not None)))
        except DomainError as error:
            check.add(error.under("line", line).issues)
    check.refuse()
    return tuple(found)


def _material(
    cells: dict[str, str], numbers: dict[str, float | None], family: str, stock: tuple[float, ...]
) -> Material:
    def or_start(column: str, start: float) -> float:
        value = numbers[column]
        return start if value is None else value

    return Material(
        key=cells["key"],
        name=cells["name"],
        family=family,
        hatch=_HATCH[family],
        lambda_=or_start("lambda", 0.0),
        lambda_fresh=numbers["lambda_fresh"],
        rho=or_start("rho", 0.0),
        c=or_start("c", 0.0),
        mu=or_start("mu", 1.0),
        sd=numbers["sd"],
        emissivity=or_start("emissivity", 0.9),
        cost=or_start("cost", 0.0),
        carbon=or_start("carbon", 0.0),
        stock=stock,
        source=cells.get("source", ""),
        rates="CSV file",
    )


def _or_empty(value: float | None) -> float | str:
    return "" if value is None else value
