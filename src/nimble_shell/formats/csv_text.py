"""CSV as people have it: commas, semicolons or tabs; decimal commas; any usual encoding; a byte order mark."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue

_ENCODINGS = ("utf-8-sig", "cp1252")
_SEPARATORS = (";", "\t", ",")
_FORMULA = ("=", "+", "-", "@", "\t", "\r")  #: what a spreadsheet begins to calculate at


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
    text = decode(content).removeprefix("\ufeff")
    head = next((line for line in text.splitlines() if line.strip()), "")
    separator = max(_SEPARATORS, key=lambda mark: head.count(mark))
    parsed = list(_rows(text, separator))
    if not parsed:
        raise DomainError(
            Issue(
                path=("line", 1),
                code="file_empty",
                message="the file is empty",
                hint="give a header and one line for each entry",
            )
        )
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


def _rows(text: str, separator: str) -> Iterator[tuple[int, tuple[str, ...]]]:
    """The rows with the line that each begins in; a quoted text may run over several."""
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator)
    line = 1
    while True:
        try:
            row = next(reader, None)
        except csv.Error as error:
            raise DomainError(Issue(path=("line", line), code="cell_unreadable", message=f"line {line}: {error}",
                                    hint="check the quotes, and that no cell is longer than 131,072 letters"))\
                from error  # fmt: skip
        if row is None:
            return
        if any(cell.strip() for cell in row):
            yield line, tuple(_plain(cell.strip()) for cell in row)
        line = reader.line_num + 1


def write_table(header: Sequence[str], rows: Sequence[Sequence[object]]) -> bytes:
    """A CSV file in UTF-8 with commas; a cell that a spreadsheet would take for a formula gets a mark before it.

    `read_table` takes the mark off again.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(header)
    writer.writerows([[_harmless(cell) for cell in row] for row in rows])
    return out.getvalue().encode()


def _harmless(cell: object) -> object:
    text = cell if isinstance(cell, str) else ""
    return f"'{text}" if text[:1] in _FORMULA or (text[:1] == "'" and text[1:2] in (*_FORMULA, "'")) else cell


def _plain(cell: str) -> str:
    return cell[1:] if cell[:1] == "'" and cell[1:2] in (*_FORMULA, "'") else cell
