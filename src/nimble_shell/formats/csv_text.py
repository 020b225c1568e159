"""CSV as people have it: commas, semicolons or tabs; decimal commas; any usual encoding; a byte order mark."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue

_ENCODINGS = ("utf-8-sig", "cp1252")
_SEPARATORS = (";", "\t", ",")


@dataclass(frozen=True, slots=True, kw_only=True)
class Table:
    """Header and rows, each with its line number in the file."""

    header: tuple[str, ...]
    header_line: int
    rows: tuple[tuple[int, tuple[str, ...]], ...]
    decimal_comma: bool

    def column(self, words: Sequence[str]) -> int | None:
        """The column called by one of the words, without regard to case or unit in brackets."""
        plain = [cell.split("[")[0].split("(")[0].strip().casefold() for cell in self.header]
        return next((at for at, cell in enumerate(plain) if cell in words), None)

    def number(self, text: str) -> float | None:
        """A cell as a finite number; None if it is none."""
        cleaned = text.strip().replace("\u2009", "").replace("\u00a0", "").replace("−", "-")
        if self.decimal_comma:
            cleaned = cleaned.replace(",", ".")
        try:
            value = float(cleaned)
        except ValueError:
            return None
        return value if math.isfinite(value) else None


def decode(content: bytes) -> str:
    """Text of a file in UTF-8, UTF-16 with its mark, or the western code page.

    Raises
    ------
    DomainError
        If it is no text.
    """
    if content[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return content.decode("utf-16", errors="replace")
    if b"\x00" in content[:4096]:
        raise DomainError(
            Issue(
                path=("line", 1), code="not_a_text", message="the file holds no text", hint="save it as text, in UTF-8"
            )
        )
    for encoding in _ENCODINGS:
        try:
            return content.decode(encoding)
        except UnicodeDecodeError:
            continue
    return content.decode("latin-1")


def read_table(content: bytes) -> Table:
    """The table of a CSV file; empty lines are passed over.

    Raises
    ------
    DomainError
        If it is empty, or a line has another number of columns than the header; with the line.
    """
    lines = [(n, line) for n, line in enumerate(decode(content).splitlines(), 1) if line.strip()]
    if not lines:
        raise DomainError(
            Issue(
                path=("line", 1),
                code="file_empty",
                message="the file is empty",
                hint="give a header and one line for each entry",
            )
        )
    separator = max(_SEPARATORS, key=lambda mark: lines[0][1].count(mark))
    parsed = [
        (n, tuple(cell.strip() for cell in next(csv.reader(io.StringIO(line), delimiter=separator))))
        for n, line in lines
    ]
    header_line, header = parsed[0]
    wrong = [
        Issue(
            path=("line", n),
            code="wrong_column_count",
            message=f"line {n} has {len(row)} columns, the header {len(header)}",
            hint=f"separate the columns with “{separator}”, and put texts that hold it in quotes",
        )
        for n, row in parsed[1:]
        if len(row) != len(header)
    ]
    if wrong:
        raise DomainError(*wrong[:20])
    return Table(header=header, header_line=header_line, rows=tuple(parsed[1:]), decimal_comma=separator != ",")


def write_table(header: Sequence[str], rows: Sequence[Sequence[object]]) -> bytes:
    """A CSV file in UTF-8 with commas; a cell that a spreadsheet would take for a formula gets a mark before it."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(header)
    writer.writerows([[_harmless(cell) for cell in row] for row in rows])
    return out.getvalue().encode()


def _harmless(cell: object) -> object:
    return f"'{cell}" if isinstance(cell, str) and cell[:1] in ("=", "+", "-", "@", "\t", "\r") else cell
