"""The opening schedule as CSV: one line an opening, or several alike; a unit in a column's head, or behind a length."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.building.body import LEAST_OPENING, MOST_OPENING
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.geometry.face import OpeningKind
from nimble_shell.core.quantities.lengths import parse_length
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.formats.csv_text import Table, read_table, write_table

_METRES = {"mm": 1e-3, "cm": 1e-2, "m": 1.0, "in": 0.0254, "ft": 0.3048}
#: Columns by what they are called.
_COLUMNS: dict[str, tuple[str, ...]] = {
    "wall": ("wall", "face", "side"), "mark": ("mark", "name", "no"), "kind": ("kind", "type"),
    "width": ("width", "w"), "height": ("height", "h"), "sill": ("sill", "sill height"),
    "left": ("from left", "left", "u"), "count": ("count", "number", "pieces"),
    "counted with": ("counted with", "element"), "unit": ("unit", "unit type"),
}  # fmt: skip
_NEEDED = ("wall", "mark", "width", "height", "sill", "left")
_KINDS: dict[str, OpeningKind] = {"window": "window", "door": "door", "": "window"}
_MOST = 200  #: pieces of one line
_BETWEEN = 0.3  #: openings of one line [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class ScheduleLine:
    """One opening of a schedule. [m]"""

    line: int
    wall: str
    mark: str
    kind: OpeningKind
    w: float
    h: float
    sill: float
    u: float
    counted_with: str = ""
    unit: str = ""  #: name of its type


def read_openings(content: bytes) -> tuple[ScheduleLine, ...]:
    """The openings of a schedule; a line with a count gives so many, one beside the other.

    Raises
    ------
    DomainError
        With every wrong cell, by line and column.
    """
    table = read_table(content)
    at = {key: table.column(words) for key, words in _COLUMNS.items()}
    missing = [key for key in _NEEDED if at[key] is None]
    if missing:
        raise DomainError(*(Issue(path=("line", table.header_line), code="column_missing",
                                  message=f"line {table.header_line}: no column for {key}",
                                  hint="name the columns wall, mark, kind, width, height, sill, from left, count")
                            for key in missing))  # fmt: skip
    check = Collector()
    found: list[ScheduleLine] = []
    for line, row in table.rows:
        cells = {key: row[place] if place is not None else "" for key, place in at.items()}
        found += _line(table, at, line, cells, check)
    check.refuse()
    return tuple(found)


def _line(
    table: Table, at: dict[str, int | None], line: int, cells: dict[str, str], check: Collector
) -> list[ScheduleLine]:
    before = len(check.issues)

    def length(key: str, least: float, most: float) -> float:
        place = at[key]
        value = _length(cells[key], "" if place is None else table.header[place], table)
        if value is None:
            _wrong(check, line, key, "not_a_length", f"“{cells[key]}” is not a number",
                   "write a length in the unit of its column, or with its own")  # fmt: skip
            return 0.0
        if not least <= value <= most:
            check.add([Issue(path=("line", line, key), code="out_of_range",
                             message=sentence(f"line {line}, column {key}: {{v}}", v=(value, "length")),
                             hint=sentence("{v1} to {v2}", v1=(least, "length"), v2=(most, "length")))])  # fmt: skip
        return value

    w, h = length("width", LEAST_OPENING, MOST_OPENING), length("height", LEAST_OPENING, MOST_OPENING)
    sill, u = length("sill", -MOST_OPENING, 100.0), length("left", 0.0, 300.0)
    kind = _KINDS.get(cells["kind"].strip().lower())
    if kind is None:
        _wrong(check, line, "kind", "unknown_kind", f"“{cells['kind']}” is no kind", "window or door")
    count = table.number(cells["count"]) if cells["count"].strip() else 1.0
    if count is None or count != int(count) or not 1 <= count <= _MOST:
        _wrong(check, line, "count", "count_unclear", f"“{cells['count']}” is no number of pieces", f"1 to {_MOST}")
    if len(check.issues) > before or kind is None or count is None:
        return []
    return [
        ScheduleLine(line=line, wall=cells["wall"], kind=kind, w=w, h=h, sill=sill, u=u + n * (w + _BETWEEN),
                     mark=cells["mark"] + (f"-{n + 1}" if n else ""), counted_with=cells["counted with"],
                     unit=cells["unit"])
        for n in range(int(count))
    ]  # fmt: skip


def _wrong(check: Collector, line: int, key: str, code: str, message: str, hint: str) -> None:
    check.add([Issue(path=("line", line, key), code=code, message=f"line {line}, column {key}: {message}", hint=hint)])


def _length(text: str, head: str, table: Table) -> float | None:
    """A cell in metres: by the unit in its head, else as it is written; without any unit in mm."""
    unit = re.search(r"[\[(]\s*(mm|cm|m|in|ft)\s*[\])]", head)
    number = table.number(text)
    if number is not None:
        return round(number * (_METRES[unit[1]] if unit else 1e-3), 9)
    try:
        return parse_length(text, "IP" if unit and unit[1] in ("in", "ft") else "SI")
    except DomainError:
        return None


def write_openings(rows: Sequence[ScheduleLine]) -> bytes:
    """A schedule that `read_openings` reads back."""
    header = ("wall", "mark", "kind", "width [mm]", "height [mm]", "sill [mm]", "from left [mm]", "count",
              "counted with", "unit")  # fmt: skip
    return write_table(header, [
        (one.wall, one.mark, one.kind, *(round(1e3 * value, 3) for value in (one.w, one.h, one.sill, one.u)), 1,
         one.counted_with, one.unit) for one in rows])  # fmt: skip
