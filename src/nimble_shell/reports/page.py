"""A page as PDF, A4: a drawing, then tables and lists, cautions, and where it comes from."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from nimble_shell.core.basis.condition import MOULD
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.solved import SolvedJoint
from nimble_shell.core.quantities.sentence import in_units
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.reports.detail_section import detail_section
from nimble_shell.reports.written import Written, cleaned

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
    open: tuple[str, ...] = ()  #: what is open in the building, each with its place; sentences

    @property
    def written(self) -> Written:
        """How it writes values."""
        return Written(self.units)


def items(head: str, texts: Sequence[str], *, numbered: bool = False) -> dict[str, Any]:
    """A section of a page that is a list."""
    return {"head": head, "items": list(texts), "numbered": numbered}


def table(head: str, columns: Sequence[str], rows: Sequence[Sequence[str]]) -> dict[str, Any]:
    """A section of a page that is a table."""
    return {"head": head, "columns": list(columns), "rows": [list(row) for row in rows]}


def surface_rows(heading: PageHeading, solved: SolvedJoint) -> list[list[str]]:
    """The inner surface of a solved drawing, as rows of figures."""
    rows = [["coldest inner surface", heading.written.full(solved.coldest.min, "temperature")]]
    if solved.f_rsi is not None:
        asked = "" if heading.f_rsi_asked is None else f", asked {heading.f_rsi_asked:.2f}"
        rows.append(["surface factor f_Rsi", f"{solved.f_rsi:.3f}{asked}"])
        if solved.f_error is not None:
            rows.append(["error of it, estimated", f"±{solved.f_error:.3f}"])
    return rows


def solved_pdf(
    heading: PageHeading, drawing: Drawing, solved: SolvedJoint, sections: list[dict[str, Any]], cautions: Sequence[str]
) -> bytes:  # fmt: skip
    """The page of a solved drawing, with its lines of one temperature."""
    drawn = detail_section(drawing, solved, heading.critical, heading.units)
    full = heading.written.full
    inside, outside, critical = (
        full(theta, "temperature")
        for theta in (solved.temperatures["inside"], solved.temperatures["outside"], heading.critical)
    )
    caption = (
        f"{'Plan' if drawing.plan else 'Cut'}, scale 1:{drawn.scale:g}. Lines of one temperature every "
        f"{full(5.0, 'difference')} at {outside} outside, {inside} inside; bold: {critical}, room air "
        f"at {full(MOULD, 'share', 0)} on a surface."
    )
    return page_pdf(heading, drawn.svg, caption, sections, cautions)


def page_pdf(
    heading: PageHeading, svg: str, caption: str, sections: list[dict[str, Any]], cautions: Sequence[str]
) -> bytes:  # fmt: skip
    """A page of a drawing; sections with nothing in them are left out."""
    decided = items("Open in the building", [cleaned(in_units(one, heading.units)) for one in heading.open])
    data = {
        "project": cleaned(heading.project),
        "building": cleaned(heading.building),
        "zone": heading.zone,
        "title": cleaned(heading.title),
        "kind": cleaned(heading.kind),
        "caption": caption,
        "sections": [one for one in (*sections, decided) if one.get("items") or one.get("rows")],
        "cautions": list(cautions),
        "footer": footer(heading.revision, heading.changed_at, heading.edition),
    }
    return typeset("detail.typ", data, svg)


def footer(revision: int, changed_at: str, edition: str) -> str:
    """What a page rests on."""
    return f"revision {revision} · saved {changed_at[:16].replace('T', ' ')} UTC · catalogue {edition}"


def typeset(template: str, data: Mapping[str, Any], svg: str) -> bytes:
    """PDF of a template. The text travels as data, never as markup."""
    import typst  # not for every start

    pdf: bytes = typst.compile(
        str(_HERE / template),
        font_paths=[str(_HERE / "fonts")],
        ignore_system_fonts=True,
        sys_inputs={"data": json.dumps(data), "drawing": svg},
    )
    return pdf
