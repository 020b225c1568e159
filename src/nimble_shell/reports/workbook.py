"""Tables as a spreadsheet (XLSX): numbers stay numbers, and no text becomes a formula."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from nimble_shell.reports.written import cleaned

Cell = str | float | int | None
_WIDEST = 60  #: letters


@dataclass(frozen=True, slots=True)
class SheetTable:
    """One sheet of a workbook."""

    name: str  #: 31 letters at most
    columns: tuple[str, ...]
    rows: Sequence[Sequence[Cell]]


def workbook(tables: Sequence[SheetTable]) -> bytes:
    """Sheets with a frozen head and a filter over their columns. The same tables are the same file."""
    import xlsxwriter  # a quarter of a second that no other start needs

    written = io.BytesIO()
    made = xlsxwriter.Workbook(written, {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False,
                                         "strings_to_numbers": False})  # fmt: skip
    made.set_properties({"created": datetime(2000, 1, 1)})  # of no place: the same file each time
    head = made.add_format({"bold": True, "bottom": 1})
    for table in tables:
        sheet = made.add_worksheet(table.name)
        sheet.write_row(0, 0, table.columns, head)
        for n, row in enumerate(table.rows, 1):
            sheet.write_row(n, 0, [cleaned(one) if isinstance(one, str) else one for one in row])
        for n, column in enumerate(table.columns):
            longest = max([len(column), *(len(str(row[n])) for row in table.rows)])
            sheet.set_column(n, n, min(longest + 2, _WIDEST))
        sheet.freeze_panes(1, 0)
        sheet.autofilter(0, 0, max(len(table.rows), 1), len(table.columns) - 1)
    made.close()
    return written.getvalue()
