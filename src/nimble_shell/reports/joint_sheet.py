"""The page of a joint: drawn section with its field, figures, seals in their order, assumptions, cautions."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from nimble_shell.core.joints.drawing import SYSTEMS, Drawing
from nimble_shell.core.joints.sealing.seals import Sealing
from nimble_shell.core.joints.solved import SolvedJoint
from nimble_shell.core.moisture.verdict.verdict import JudgedJoint
from nimble_shell.core.quantities.sentence import quantity_text
from nimble_shell.core.thermal.films import R_SI_OPENING, R_SI_SURFACE
from nimble_shell.reports.detail_section import seals_drawn
from nimble_shell.reports.page import PageHeading, items, solved_pdf, surface_rows, table
from nimble_shell.reports.written import Written, cleaned, sentence_case

_CAUTIONS = (
    "What is covered is inspected before it is covered.",
    "The bottom flange of a window drains: it is never sealed.",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class JointPage:
    """A solved joint with its seals."""

    heading: PageHeading
    drawing: Drawing
    solved: SolvedJoint
    psi: dict[str, float]  #: of what goes outside, by dimension system [W/(m·K)] or [W/K]
    system: str  #: dimension system in use
    length: float  #: [m] or pieces
    point: bool
    sealing: Sealing
    judged: JudgedJoint | None = None  #: room air through it, where that was judged


def joint_pdf(page: JointPage) -> bytes:
    """The page as PDF, A4."""
    written = page.heading.written
    sections = [
        table("Figures", ("", "value"), [*_psi_rows(page, written), *surface_rows(page.heading, page.solved),
                                         *_loss_rows(page, written)]),
        table("Measured against", ("plane element", "U", "internal", "overall", "external"),
              list(_reference_rows(page.drawing, written))),
        items("Seals, in the order of work", _steps(page.sealing), numbered=True),
        items("Lines of control", _lines(page, written)),
        *([items("Moisture, by the months", _moisture(page.judged, written))] if page.judged else []),
        items("To decide and to know", [one.text for one in page.sealing.findings]),
        items("Assumptions", [
            "ψ = L2D − Σ U·l of the same layers (ISO 10211:2017, 12); surface temperatures with R_si "
            f"{quantity_text(R_SI_OPENING, 'resistance', written.units)} on glazing, frames and doors, "
            f"{quantity_text(R_SI_SURFACE, 'resistance', written.units)} elsewhere.",
            *map(sentence_case, page.drawing.assumptions),
        ]),
    ]  # fmt: skip
    return solved_pdf(page.heading, page.drawing, page.solved, sections, _CAUTIONS)


def _psi_rows(page: JointPage, written: Written) -> Iterator[list[str]]:
    dimension, symbol = ("coupling", "χ") if page.point else ("linear", "ψ")
    for name in SYSTEMS:
        used = ", in use" if name == page.system else ""
        yield [f"{symbol}, {name} dimensions{used}", written.full(page.psi[name], dimension, 4)]
    yield ["error of it, estimated", f"±{written.full(max(page.solved.error, 1e-5), dimension, 5)}"]
    for (a, b), value in page.solved.coupling.items():
        yield [f"coupling {a} to {b}", written.full(value, dimension, 4)]
    if page.solved.certain is not None and not page.point:
        low, high = page.solved.certain
        yield ["it certainly lies", f"{written.number(low, dimension, 4)} to {written.full(high, dimension, 4)}"]


def _loss_rows(page: JointPage, written: Written) -> Iterator[list[str]]:
    if page.length > 0:
        count = f"{page.length:g} pieces" if page.point else quantity_text(page.length, "distance", written.units)
        yield [f"heat loss of {count}", written.full(page.psi[page.system] * page.length, "coupling")]


def _reference_rows(drawing: Drawing, written: Written) -> Iterator[list[str]]:
    for one in drawing.references:
        lengths = (quantity_text(one.lengths[at], "distance", written.units) for at in range(len(SYSTEMS)))
        yield [one.name, written.full(one.U, "transmittance"), *lengths]


def _steps(sealing: Sealing) -> list[str]:
    found = []
    for step in sealing.steps:
        words = cleaned(step.text) + (f" ({', '.join(step.carries)})" if step.carries else "")
        if step.key in sealing.omitted:
            words = f"LEFT OUT: {words}"
        elif step.kind != "work":
            words = f"{step.kind}: {words}"
        found.append(words)
    return found


def _lines(page: JointPage, written: Written) -> list[str]:
    least, most = page.sealing.leakage
    drawn = [f"marks on the drawing: {', '.join(seals_drawn(page.drawing))}"] if page.drawing.marks else []
    return [
        *(f"{line}: {state}" for line, state in page.sealing.lines),
        f"air leak grade {page.sealing.grade}: {written.number(least, 'joint_flow')} to "
        f"{quantity_text(most, 'joint_flow', written.units)} at 50 Pa",
        *drawn,
    ]


def _moisture(judged: JudgedJoint, written: Written) -> list[str]:
    verdict, year, safe = judged
    said = {"surface": "Its inner surface fails", "leak": "Room air wets the outer skin"}
    limit = (
        "up to a room at 95 %."
        if verdict.phi_fails is None
        else f"at the room's {100 * verdict.phi_room:.0f} %; the limit is {100 * verdict.phi_fails:.0f} %."
    )
    found = [f"{said.get(verdict.reason, 'It passes')}, {limit}"]
    if year is not None:
        held, most = (written.full(one, "condensate_line") for one in (year.peak, year.limit))
        found.append(f"Room air leaves at most {held} on the outer skin, of {most}: {year.reason}.")
        found.append(
            "It is wet without any leakage."
            if safe is None
            else f"Safe up to {written.full(safe, 'joint_flow')} at 50 Pa."
        )
    found.append("Months alone; mould, decay and damage are for a licensed reviewer to judge.")
    return found
