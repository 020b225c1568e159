"""Own materials as CSV, out and in; every error with its line."""

from __future__ import annotations

import re
import typing
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.core.materials.material import Hatching, MouldClass, SealingSurface, Wood
from nimble_shell.formats.csv_text import Table, read_table, write_table
from nimble_shell.formats.document import LONGEST

_TEXTS = ("name", "source", "rates")
_NUMBERS = ("lambda", "lambda_fresh", "rho", "c", "mu", "mu_dry", "sd", "sd_moist", "emissivity", "w80", "w_f", "A_w",
            "lambda_moist", "w_fresh", "cost", "carbon")  # fmt: skip
_WORDS: dict[str, tuple[str, ...]] = {
    "hatch": typing.get_args(Hatching),
    "mould": typing.get_args(MouldClass), "wood": typing.get_args(Wood), "surface": typing.get_args(SealingSurface),
}  # fmt: skip
_YES_NO = ("feeds_mould", "wets", "takes_up")
COLUMNS = ("key", "like", "name", "family", *_NUMBERS, *_WORDS, *_YES_NO, "lambda_T", "usual", "stock", "source",
           "rates")  # fmt: skip
_NEEDED = ("key", "name", "lambda", "rho", "c")  #: of a material that is not like another one
_HATCH: dict[str, Hatching] = {
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
_LISTS: tuple[tuple[str, Callable[[int], bool], str], ...] = (
    ("stock", lambda _: False, "thicknesses in m, separated by blanks"),
    ("usual", lambda count: count not in (0, 2), "the least and the most in m, separated by a blank"),
    ("lambda_T", lambda count: count % 2 == 1, "°C/λ, pairs separated by blanks"),
)
_SAID: dict[bool | None, str] = {None: "", True: "yes", False: "no"}


def write_materials(materials: Sequence[Material]) -> bytes:
    """A CSV file of materials.

    λ in W/(m·K), ρ and water in kg/m³, c in J/(kg·K), A_w in kg/(m²·s^0.5), s_d, stock and usual range in m, separated
    by blanks; lambda_T as pairs of °C and W/(m·K) with a slash between. An empty cell is what is not known. What is
    written is read back the same.
    """
    return write_table(COLUMNS, [[_cell(material, column) for column in COLUMNS] for material in materials])


def _cell(material: Material, column: str) -> float | str:
    if column == "like":
        return ""
    if column in ("stock", "usual"):
        return " ".join(repr(d) for d in getattr(material, column) or ())
    if column == "lambda_T":
        return " ".join(f"{theta!r}/{lambda_!r}" for theta, lambda_ in material.lambda_T)
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
        cells = {column: row[at] for column, at in where.items() if at is not None}
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
    for column in (*_TEXTS, "family"):
        check.check(len(cells.get(column, "")) <= LONGEST, (column,), "too_long",
                    f"{column} has {len(cells.get(column, '')):,} letters", f"up to {LONGEST:,}")  # fmt: skip
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
    for column, wrong, hint in _LISTS:
        text = cells.get(column, "")
        listed = [table.number(part) for part in text.replace("/", " ").split()]
        check.check(None not in listed and not wrong(len(listed)), (column,), "not_a_number",
                    f"{column} is “{text}”", hint)  # fmt: skip
        if listed:
            found[column] = tuple(zip(listed[::2], listed[1::2], strict=False)) if "/" in hint else tuple(listed)
    family = cells.get("family", "")
    check.check(
        not family or family in _HATCH or "hatch" in found,
        ("family",),
        "unknown_family",
        f"there is no family “{family}”",
        f"one of {', '.join(_HATCH)}; or say in the column hatch how it is drawn",
    )
    if family:
        found["family"] = family
    return found


def _material(cells: Mapping[str, str], values: dict[str, Any]) -> Material:
    start: dict[str, Any] = {"key": cells["key"], "rates": "CSV file"}
    like = CATALOGUE.get(cells.get("like", ""))
    family = values.get("family", "panel" if like is None else like.family)
    if like is None or family != like.family:  # else drawn as what it is like
        start["hatch"] = _HATCH.get(family, "board")
    if like is not None:
        return replace(like, **(start | values))
    return Material(**({"name": "", "family": family} | start | values))
