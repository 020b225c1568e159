"""The pages of a joint and of a fixing: drawn section with its field, figures, seals, assumptions, cautions."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from nimble_shell.core.fixings.cell import Cell
from nimble_shell.core.fixings.shown import whole
from nimble_shell.core.fixings.solved import SolvedFixing
from nimble_shell.core.joints.drawing import SYSTEMS, Drawing
from nimble_shell.core.joints.sealing.seals import Sealing
from nimble_shell.core.joints.solved import SolvedJoint
from nimble_shell.core.moisture.verdict.verdict import JudgedJoint
from nimble_shell.core.quantities import show, unit_for
from nimble_shell.core.quantities.sentence import quantity_text
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.thermal.films import R_SI_SURFACE
from nimble_shell.reports.detail_section import detail_section, seals_drawn
from nimble_shell.reports.specification import cleaned

_HERE = Path(__file__).parent


@dataclass(frozen=True, slots=True, kw_only=True)
class PageHeading:
    """The names around a page."""

    project: str
    building: str
    zone: str
    title: str
    kind: str  #: family and variant, or the build-up
    units: UnitSystem
    critical: float  #: surface temperature at 80 % of the room's air [°C]
    f_rsi_asked: float | None
    revision: int
    changed_at: str
    edition: str


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


def joint_pdf(page: JointPage) -> bytes:
    """The page of a joint as PDF, A4."""
    units = page.heading.units
    dimension = "coupling" if page.point else "linear"
    unit = unit_for(dimension, units).symbol
    symbol = "χ" if page.point else "ψ"
    rows = [
        [f"{symbol}, {name} dimensions{', in use' if name == page.system else ''}",
         f"{show(page.psi[name], dimension, units, decimals=4)} {unit}"] for name in SYSTEMS
    ]  # fmt: skip
    rows.append(
        ["error of it, estimated", f"±{show(max(page.solved.error, 1e-5), dimension, units, decimals=5)} {unit}"]
    )
    for (a, b), value in page.solved.coupling.items():
        rows.append([f"coupling {a} to {b}", f"{show(value, dimension, units, decimals=4)} {unit}"])
    if page.solved.certain is not None and not page.point:
        low, high = page.solved.certain
        rows.append(
            [
                "it certainly lies",
                f"{show(low, dimension, units, decimals=4)} to {show(high, dimension, units, decimals=4)} {unit}",
            ]
        )
    rows += _surface_rows(page.heading, page.solved)
    if page.length > 0:
        count = f"{page.length:g} pieces" if page.point else quantity_text(page.length, "distance", units)
        loss = show(page.psi[page.system] * page.length, "coupling", units)
        rows.append([f"heat loss of {count}", f"{loss} {unit_for('coupling', units).symbol}"])
    against = [
        [one.name, f"{show(one.U, 'transmittance', units)} {unit_for('transmittance', units).symbol}",
         *(quantity_text(one.lengths[at], "distance", units) for at in range(3))] for one in page.drawing.references
    ]  # fmt: skip
    sealing = page.sealing
    least, most = sealing.leakage
    sections: list[dict[str, Any]] = [
        {"head": "Figures", "columns": ["", "value"], "rows": rows},
        {"head": "Measured against", "columns": ["plane element", "U", "internal", "overall", "external"],
         "rows": against},
        items("Seals, in the order of work", [
            _step(step.text, step.kind, ", ".join(step.carries), left_out=step.key in sealing.omitted)
            for step in sealing.steps
        ], numbered=True),
        items("Lines of control", [
            *(f"{line}: {state}" for line, state in sealing.lines),
            f"air leak grade {sealing.grade}: {show(least, 'joint_flow', units)} to "
            f"{quantity_text(most, 'joint_flow', units)} at 50 Pa",
            *([f"marks on the drawing: {', '.join(seals_drawn(page.drawing))}"] if page.drawing.marks else []),
        ]),
        *([items("Moisture, by the months", _moisture(page.judged, page.heading.units))] if page.judged else []),
        items("To decide and to know", [one.text for one in sealing.findings]),
        items("Assumptions", [
            "ψ = L2D − Σ U·l of the same layers (ISO 10211:2017, 12); surface temperatures with R_si "
            f"{quantity_text(R_SI_SURFACE, 'resistance', units)}.",
            *(f"{one[0].upper()}{one[1:]}." for one in page.drawing.assumptions),
        ]),
    ]  # fmt: skip
    return _pdf(page.heading, page.drawing, page.solved, sections, (
        "What is covered is inspected before it is covered.",
        "The bottom flange of a window drains: it is never sealed.",
    ))  # fmt: skip


def _moisture(judged: JudgedJoint, units: UnitSystem) -> list[str]:
    verdict, year, safe = judged
    said = {"surface": "Its inner surface fails", "leak": "Room air wets the outer skin"}
    found = [f"{said.get(verdict.reason, 'It passes')}, " + (
        "up to a room at 95 %." if verdict.phi_fails is None
        else f"at the room's {100 * verdict.phi_room:.0f} %; the limit is {100 * verdict.phi_fails:.0f} %."
    )]  # fmt: skip
    if year is not None:
        line = unit_for("condensate_line", units).symbol
        held, limit = (show(one, "condensate_line", units) for one in (year.peak, year.limit))
        found.append(f"Room air leaves at most {held} {line} on the outer skin, of {limit} {line}: {year.reason}.")
        found.append("It is wet without any leakage." if safe is None
                     else f"Safe up to {show(safe, 'joint_flow', units)} {unit_for('joint_flow', units).symbol} "
                     "at 50 Pa.")  # fmt: skip
    found.append("Months alone; mould, decay and damage are for a licensed reviewer to judge.")
    return found


def fixing_pdf(page: FixingPage) -> bytes:
    """The page of a group of fixings as PDF, A4."""
    units, cell, chi = page.heading.units, page.cell, page.solved.chi
    coupling = unit_for("coupling", units).symbol
    U, R = unit_for("transmittance", units).symbol, unit_for("resistance", units).symbol
    number = show(cell.per_area, "count_per_area", units, decimals=2)
    rows = [
        ["χ, solved", f"{show(chi, 'coupling', units, decimals=5)} {coupling}"],
        ["error of it, estimated", f"±{show(max(page.solved.error, 1e-6), 'coupling', units, decimals=6)} {coupling}"],
        ["by the approximate formula", f"{show(cell.chi_approximate, 'coupling', units, decimals=5)} {coupling}"],
        ["solved over approximate", f"{chi / cell.chi_approximate:.2f}"],
        ["number", f"{number} {unit_for('count_per_area', units).symbol}"],
        ["ΔU = n·χ", f"{show(chi * cell.per_area, 'transmittance', units, decimals=4)} {U}"],
        ["clear-wall R without this group", f"{show(page.R_without, 'resistance', units, decimals=3)} {R}"],
        ["clear-wall R with every group", f"{show(page.R_all, 'resistance', units, decimals=3)} {R}"],
        [f"pieces on {show(page.area, 'area', units)} {unit_for('area', units).symbol}",
         f"{page.area * cell.per_area:.0f}"],
        *_surface_rows(page.heading, page.solved.field),
    ]  # fmt: skip
    drawing, field = whole(cell.drawing, page.solved.field)
    sections: list[dict[str, Any]] = [
        {"head": "Figures", "columns": ["", "value"], "rows": rows},
        items("The group", [page.shank, *(f"{one[0].upper()}{one[1:]}." for one in cell.says)]),
        items("Assumptions", [
            f"Solved as {cell.method}; members of the build-up and its other groups are left out of the cell.",
            "χ = L3D − U·A of the same layers (ISO 10211:2017, 12.4); the formula is that of ISO 6946:2017, annex F, "
            "its limits of use left aside.",
        ]),
    ]  # fmt: skip
    return _pdf(page.heading, drawing, field, sections, page.cautions)


def _surface_rows(heading: PageHeading, solved: SolvedJoint) -> list[list[str]]:
    symbol = unit_for("temperature", heading.units).symbol
    rows = [["coldest inner surface", f"{show(solved.coldest.min, 'temperature', heading.units)} {symbol}"]]
    if solved.f_rsi is not None:
        asked = "" if heading.f_rsi_asked is None else f", asked {heading.f_rsi_asked:.2f}"
        rows.append(["temperature factor f_Rsi", f"{solved.f_rsi:.3f}{asked}"])
    return rows


def _step(text: str, kind: str, carries: str, *, left_out: bool) -> str:
    words = cleaned(text) + (f" ({carries})" if carries else "")
    return f"LEFT OUT: {words}" if left_out else words if kind == "work" else f"{kind}: {words}"


def items(head: str, texts: Sequence[str], *, numbered: bool = False) -> dict[str, Any]:
    """A section of a page that is a list."""
    return {"head": head, "items": list(texts), "numbered": numbered}


def _pdf(
    heading: PageHeading, drawing: Drawing, solved: SolvedJoint, sections: list[dict[str, Any]], cautions: Sequence[str]
) -> bytes:  # fmt: skip
    """The page of a solved drawing."""
    drawn = detail_section(drawing, solved, heading.critical, heading.units)
    symbol = unit_for("temperature", heading.units).symbol
    inside, outside = (show(solved.temperatures[env], "temperature", heading.units) for env in ("inside", "outside"))
    caption = (
        f"{'Plan' if drawing.plan else 'Cut'}, scale 1:{drawn.scale:g}. Lines of one temperature every "
        f"{quantity_text(5.0, 'difference', heading.units)} "
        f"at {outside} {symbol} outside, {inside} {symbol} inside; bold: "
        f"{show(heading.critical, 'temperature', heading.units)} {symbol}, room air at 80 % on a surface."
    )
    return page_pdf(heading, drawn.svg, caption, sections, cautions)


def page_pdf(
    heading: PageHeading, svg: str, caption: str, sections: list[dict[str, Any]], cautions: Sequence[str]
) -> bytes:  # fmt: skip
    """A page as PDF, A4: a drawing, then tables and lists. The text travels as data, never as markup."""
    data = {
        "project": cleaned(heading.project),
        "building": cleaned(heading.building),
        "zone": heading.zone,
        "title": cleaned(heading.title),
        "kind": cleaned(heading.kind),
        "caption": caption,
        "sections": [one for one in sections if one.get("items") or one.get("rows")],
        "cautions": list(cautions),
        "footer": f"revision {heading.revision} · saved {heading.changed_at[:16].replace('T', ' ')} UTC · "
        f"catalogue {heading.edition}",
    }
    import typst  # not for every start

    pdf: bytes = typst.compile(
        str(_HERE / "detail.typ"),
        font_paths=[str(_HERE / "fonts")],
        ignore_system_fonts=True,
        sys_inputs={"data": json.dumps(data), "drawing": svg},
    )
    return pdf
