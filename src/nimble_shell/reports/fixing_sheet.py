"""The page of a group of fixings: its cell with the field, χ beside the formula, and what is left of the build-up."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.fixings.cell import Cell
from nimble_shell.core.fixings.shown import whole
from nimble_shell.core.fixings.solved import SolvedFixing
from nimble_shell.reports.page import PageHeading, items, solved_pdf, surface_rows, table
from nimble_shell.reports.written import Written, sentence_case


@dataclass(frozen=True, slots=True, kw_only=True)
class FixingPage:
    """A solved group of fixings, and what it leaves of its build-up."""

    heading: PageHeading
    cell: Cell
    solved: SolvedFixing
    shank: str
    R_without: float  #: [m²·K/W]
    R_all: float
    area: float  #: [m²]
    cautions: tuple[str, ...]


def fixing_pdf(page: FixingPage) -> bytes:
    """The page as PDF, A4."""
    drawing, field = whole(page.cell.drawing, page.solved.field)
    rows = [*_figure_rows(page, page.heading.written), *surface_rows(page.heading, page.solved.field)]
    sections = [
        table("Figures", ("", "value"), rows),
        items("The group", [page.shank, *map(sentence_case, page.cell.says)]),
        items("Assumptions", [
            f"Solved as {page.cell.method}; members of the build-up and its other groups are left out of the cell.",
            "χ = L3D − U·A of the same layers (ISO 10211:2017, 11); the formula is that of ISO 6946:2017, annex F, "
            "its limits of use left aside.",
        ]),
    ]  # fmt: skip
    return solved_pdf(page.heading, drawing, field, sections, page.cautions)


def _figure_rows(page: FixingPage, written: Written) -> list[list[str]]:
    cell, chi, full = page.cell, page.solved.chi, written.full
    return [
        ["χ, solved", full(chi, "coupling", 5)],
        ["error of it, estimated", f"±{full(max(page.solved.error, 1e-6), 'coupling', 6)}"],
        ["by the approximate formula", full(cell.chi_approximate, "coupling", 5)],
        ["solved over approximate", f"{chi / cell.chi_approximate:.2f}"],
        ["number", full(cell.per_area, "count_per_area", 2)],
        ["ΔU = n·χ", full(chi * cell.per_area, "transmittance", 4)],
        ["clear-wall R without this group", full(page.R_without, "resistance", 3)],
        ["clear-wall R with every group", full(page.R_all, "resistance", 3)],
        [f"pieces on {full(page.area, 'area')}", f"{page.area * cell.per_area:.0f}"],
    ]
