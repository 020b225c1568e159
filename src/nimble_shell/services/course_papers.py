"""Form walls on paper: every wall in courses to scale, its cuts, bucks, what is cast in, how its run is filled."""

from __future__ import annotations

from collections import Counter

from nimble_shell.core.quantities.sentence import in_units
from nimble_shell.core.setout.courses.courses import Coursed
from nimble_shell.core.setout.courses.drawn import DrawnCourse, courses_drawn, lintels
from nimble_shell.core.setout.courses.laying import NoLaying
from nimble_shell.core.shell.coursed import LaidRun, course_building
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.pouring import poured
from nimble_shell.reports.courses_svg import PaperWall, wall_svg
from nimble_shell.reports.setout_sheets import PaperHeading, PaperPage, PaperTable, pages_pdf
from nimble_shell.reports.written import Written
from nimble_shell.services.courses import CastRow, course_sheet
from nimble_shell.services.shop_papers import heading_of
from nimble_shell.services.whole_shell import shaped
from nimble_shell.store import Stored

CAUTIONS = (
    "Lintels, bars, bearing, anchors and what is cast in are a licensed engineer's; here they stand as entered.",
    "What forms and bracing take is their supplier's to say. Look at bars, bucks, sleeves, string line and holds "
    "before concrete comes.",
)
_M = 1000.0


def courses_pdf(stored: Stored, building_id: str) -> bytes:
    """Every wall on a page of its own. Raises DomainError, NotFound, Stopped."""
    project, building = stored.project, shaped(stored.project, building_id)
    heading, sheet = heading_of(stored, building), course_sheet(project, building_id)
    pages = [
        _page(heading, building, one, n, [row for row in sheet.cast if row.wall == one.of.walls[n].id])
        for one in course_building(project, building) for n in range(len(one.of.walls))
    ]  # fmt: skip
    return pages_pdf(heading, pages, f"Courses of {building.name}", CAUTIONS)


def _page(heading: PaperHeading, building: MeasuredBuilding, one: LaidRun, n: int, cast: list[CastRow]) -> PaperPage:
    run, written = one.of.run, heading.written
    drawn = courses_drawn(run, n, one.found.walls[n]) if isinstance(one.found, Coursed) else []
    bearing = building.forms.bearing * _M
    paper = PaperWall(run=run, wall=n, courses=drawn, lintels=lintels(run, n, bearing))
    return PaperPage(
        mark=one.of.walls[n].mark, title=f"Form wall {one.of.walls[n].mark}", caption=_caption(building, one, written),
        drawing=wall_svg(paper, written), tables=[*_cuts(drawn, written), *_holes(one, n, bearing, written),
                                                  *_cast(cast, written), *_lifts(building, one, written)],
    )  # fmt: skip


def _caption(building: MeasuredBuilding, one: LaidRun, written: Written) -> str:
    if isinstance(one.found, NoLaying):
        return f"Cannot be laid: {in_units(one.found.reason, written.units)}"
    forms = building.forms
    return (
        f"Seen from outside, along the outer face of the form. Block {written.length(forms.block)} × "
        f"{written.length(forms.height)}, webs at {written.length(forms.web)}; courses count from the foot; "
        "at the right the least bond of each bed."
    )


def _cuts(drawn: list[DrawnCourse], written: Written) -> list[PaperTable]:
    cuts = Counter((round(block.x1 - block.x0, 1), block.webs) for course in drawn for block in course.blocks
                   if block.cut)  # fmt: skip
    rows = [(written.length(length / _M), str(count), str(webs))
            for (length, webs), count in sorted(cuts.items(), reverse=True)]  # fmt: skip
    whole = sum(not block.cut for course in drawn for block in course.blocks)
    return [PaperTable(head=f"Cuts; whole blocks {whole}", columns=("length", "pieces", "webs"), rows=rows)]


def _holes(one: LaidRun, n: int, bearing: float, written: Written) -> list[PaperTable]:
    over = {each.opening: each for each in lintels(one.of.run, n, bearing)}
    rows = []
    for hole in one.of.run.of(n):
        lintel = over.get(hole.name)
        bears = "to the top" if lintel is None else written.length((lintel.x1 - lintel.x0) / _M)
        rows.append((hole.name, f"{written.length(hole.w / _M)} × {written.length(hole.h / _M)}",
                     written.length(hole.x / _M), written.length(hole.y / _M), bears))  # fmt: skip
    return [PaperTable(head="Bucks", columns=("of", "width × height", "from the left", "sill", "lintel"), rows=rows)]


def _cast(cast: list[CastRow], written: Written) -> list[PaperTable]:
    rows = [(f"{one.kind} {one.name}".strip(), str(one.course or "–"), str(one.lift or "–"), str(len(one.at)),
             written.length(one.z), one.by) for one in cast]  # fmt: skip
    return [PaperTable(head="Cast in", columns=("what", "course", "lift", "pieces", "above the foot", "by"), rows=rows)]


def _lifts(building: MeasuredBuilding, one: LaidRun, written: Written) -> list[PaperTable]:
    rows = [(str(n), written.full(lift.high, "distance"), written.full(lift.pressure, "load", 1),
             written.full(lift.volume, "volume", 2))
            for n, lift in enumerate(poured(one.of, building.pour).lifts, 1)]  # fmt: skip
    return [PaperTable(head="Lifts of its run", columns=("lift", "up to", "pressure", "concrete"), rows=rows)]
