"""Own materials as CSV, out and in; every error with its line."""

from __future__ import annotations

import re
import typing
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any, Literal

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.core.materials.material import MouldClass, SealingSurface, Wood
from nimble_shell.formats.csv_text import Table, read_table, write_table

_TEXTS = ("name", "source")
_NUMBERS = ("lambda", "lambda_fresh", "rho", "c", "mu", "mu_dry", "sd", "sd_moist", "emissivity", "w80", "w_f", "A_w",
            "lambda_moist", "w_fresh", "cost", "carbon")  # fmt: skip
_WORDS: dict[str, tuple[str, ...]] = {
    "mould": typing.get_args(MouldClass), "wood": typing.get_args(Wood), "surface": typing.get_args(SealingSurface),
}  # fmt: skip
_YES_NO = ("feeds_mould", "wets", "takes_up")
COLUMNS = ("key", "like", "name", "family", *_NUMBERS, *_WORDS, *_YES_NO, "stock", "source")
_NEEDED = ("key", "name", "lambda", "rho", "c")  #: of a material that is not like another one
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
    "ground": "earth",
    "membrane": "membrane",
}
_SAID: dict[bool | None, str] = {None: "", True: "yes", False: "no"}


def write_materials(materials: Sequence[Material]) -> bytes:
    """A CSV file of materials.

    λ in W/(m·K), ρ and water in kg/m³, c in J/(kg·K), A_w in kg/(m²·s^0.5), s_d and stock in m, separated by blanks;
    an empty cell is what is not known.
    """
    return write_table(COLUMNS, [[_cell(material, column) for column in COLUMNS] for material in materials])


def _cell(material: Material, column: str) -> float | str:
    if column == "like":
        return ""
    if column == "stock":
        return " ".join(f"{d:g}" for d in material.stock)
    value = getattr(material, _field(column))
    if column in _YES_NO:
        return _SAID[value]
    return "" if value is None else value


def _field(column: str) -> str:
    return "lambda_" if column == "lambda" else column


def read_materials(content: bytes) -> tuple[Material, ...]:
    """Materials of a CSV file; all lines or none. A line like a shipped material has its values where a cell is empty.

    Raises
    ------
    DomainError
        With the line of everything that is wrong.
    """
    table = read_table(content)
    where = {column: table.column((column.casefold(),)) for column in COLUMNS}
    needed = ("key",) if where["like"] is not None else _NEEDED
    missing = [column for column in needed if where[column] is None]
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
        cells = {column: row[at].strip() for column, at in where.items() if at is not None}
        own = Collector()
        _check_key(cells["key"], line, seen, own)
        values = _values(cells, table, own)
        if not own.issues:
            try:
                found.append(_material(cells, values))
            except DomainError as error:
                own.add(error.issues)
        if own.issues:
            check.add(DomainError(*own.issues).under("line", line).issues)
    check.refuse()
    return tuple(found)


def _check_key(key: str, line: int, seen: dict[str, int], check: Collector) -> None:
    check.check(bool(re.fullmatch(r"[A-Za-z0-9_-]{1,64}", key)), ("key",), "key_unusable", f"“{key}” cannot be a key",
                "letters, digits, - and _, up to 64")  # fmt: skip
    check.check(key not in CATALOGUE, ("key",), "material_shipped", f"“{key}” is a shipped material",
                "give your own material another key; shipped ones are never overridden")  # fmt: skip
    check.check(key not in seen, ("key",), "material_twice", f"“{key}” stands in line {seen.get(key, 0)} already",
                "give each a key of its own")  # fmt: skip
    seen[key] = line


def _values(cells: Mapping[str, str], table: Table, check: Collector) -> dict[str, Any]:
    """What the cells of a line say, by field; what is empty is not among it."""
    like = cells.get("like", "")
    check.check(not like or like in CATALOGUE, ("like",), "unknown_material", f"there is no shipped material “{like}”",
                "name one of the catalogue by its key, or leave it empty")  # fmt: skip
    found: dict[str, Any] = {column: cells[column] for column in _TEXTS if cells.get(column)}
    for column in _NUMBERS:
        text = cells.get(column, "")
        value = table.number(text) if text else None
        good = value is not None or (not text and (bool(like) or column not in _NEEDED))
        check.check(good, (column,), "not_a_number", f"{column} is “{text}”", "write a number")
        if value is not None:
            found[_field(column)] = value
    for column, words in (*_WORDS.items(), *((column, ("yes", "no")) for column in _YES_NO)):
        text = cells.get(column, "")
        check.check(not text or text in words, (column,), "unknown_word", f"{column} is “{text}”",
                    f"one of {', '.join(words)}, or empty")  # fmt: skip
        if text:
            found[column] = text == "yes" if column in _YES_NO else text
    stock = [table.number(part) for part in cells.get("stock", "").split()]
    check.check(None not in stock, ("stock",), "not_a_number", f"stock is “{cells.get('stock', '')}”",
                "thicknesses in m, separated by blanks")  # fmt: skip
    if stock:
        found["stock"] = tuple(stock)
    family = cells.get("family", "")
    check.check(not family or family in _HATCH, ("family",), "unknown_family", f"there is no family “{family}”",
                f"one of {', '.join(_HATCH)}")  # fmt: skip
    if family in _HATCH:
        found |= {"family": family, "hatch": _HATCH[family]}
    return found


def _material(cells: Mapping[str, str], values: dict[str, Any]) -> Material:
    rates: Literal["CSV file"] = "CSV file"
    like = CATALOGUE.get(cells.get("like", ""))
    if like is None:
        start = {"name": "", "family": "panel", "hatch": _HATCH["panel"]}
        return Material(**(start | values), key=cells["key"], rates=rates)
    if values.get("family", like.family) == like.family:
        values.pop("hatch", None)  # drawn as what it is like
    return replace(like, **values, key=cells["key"], rates=rates)
