"""What goes to the maker on paper and as tables: drawings of faces, labels, nesting sheets, one workbook."""

from __future__ import annotations

from collections.abc import Sequence

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.quantities.sentence import in_units
from nimble_shell.core.quantities.units import unit_for
from nimble_shell.core.setout.anchoring import Anchor, anchors_of
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.points import NoPoint
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import BuildingSetOut, set_out_building
from nimble_shell.core.shop.cut_list import face_plates
from nimble_shell.core.shop.works import fittings_of
from nimble_shell.reports.setout_sheets import (
    Label,
    PaperBar,
    PaperHeading,
    PaperTable,
    faces_pdf,
    labels_pdf,
    nesting_pdf,
)
from nimble_shell.reports.setout_svg import PaperFace, face_svg
from nimble_shell.reports.workbook import Cell, SheetTable, workbook
from nimble_shell.reports.written import Written
from nimble_shell.services.setout import SetOutDraft, set_out_sheet
from nimble_shell.services.setout_drawn import DrawnPanel, DrawnSetOut, SetOpening
from nimble_shell.services.shop import Boards, Section, boards_of, shop_sheet
from nimble_shell.services.shop_panels import every_work
from nimble_shell.services.whole_shell import shaped
from nimble_shell.store import Stored

_M = 1000.0
_KINDS = {"wall": "Wall", "roof": "Roof", "floor": "Floor"}
_DIGITS = 4  #: after the point of a cell


def paper_faces(building: MeasuredBuilding, found: BuildingSetOut) -> tuple[PaperFace, ...]:
    """Every face of panels with its plates, anchors and fittings."""
    names = {one.id: one.name for one in building.elements}
    of = {one.id: one.assembly_id or "" for one in building.elements}
    return tuple(_paper(building, one, f"{_KINDS[one.kind]} {one.mark}: {names.get(one.zone, '')}",
                        found.plates.get(of[one.zone], 0)) for one in found.faces)  # fmt: skip


def _paper(building: MeasuredBuilding, face: FaceSetOut, name: str, plates: int) -> PaperFace:
    made = [one for _, one, _ in face_plates(face, plates, max(building.shop.bars) * _M)]
    return PaperFace(
        face=face, name=name, plates=tuple(one for one in made if not isinstance(one, NoPoint)),
        anchors=tuple(one for one in anchors_of(face, building.setout.anchors) if isinstance(one, Anchor)),
        fitted=fittings_of(face, building.setout),
    )  # fmt: skip


def drawings_pdf(stored: Stored, building_id: str) -> bytes:
    """All faces to scale, a page each. Raises DomainError, NotFound."""
    project, building = stored.project, shaped(stored.project, building_id)
    heading, sheet = heading_of(stored, building), set_out_sheet(project, building_id, SetOutDraft())
    papers = paper_faces(building, set_out_building(project, building))
    pages = [
        (paper, _caption(drawn, heading.written), _tables(drawn, heading.written))
        for paper, drawn in zip(papers, sheet.faces, strict=True)
    ]
    return faces_pdf(heading, pages, f"Set-out of {building.name}")


def face_drawing(project: Project, building_id: str, face_id: str) -> str:
    """One face as SVG to scale. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    papers = paper_faces(building, set_out_building(project, building, only=face_id))
    if not papers:
        raise DomainError(Issue(path=("face",), code="not_of_panels", message=f"“{face_id}” is no face of panels",
                                hint="choose a face of panels"))  # fmt: skip
    return face_svg(papers[0], Written(project.basis.schools.units)).svg


def labels(stored: Stored, building_id: str) -> bytes:
    """A label for each panel, in set order. Raises DomainError, NotFound."""
    project, building = stored.project, shaped(stored.project, building_id)
    heading, sheet = heading_of(stored, building), set_out_sheet(project, building_id, SetOutDraft())
    shop = shop_sheet(project, building_id)
    truck = {mark: n + 1 for n, one in enumerate(shop.trucks) for stack in one.stacks for mark in stack}
    full = heading.written.full
    found = []
    for face in sheet.faces:
        for one in face.panels:
            carried = "crane" if one.crane else f"{one.people} {'person' if one.people == 1 else 'people'}"
            found.append(Label(
                mark=one.mark, up="eave" if face.kind == "roof" else "up", hand=f"{one.hand} hand" if one.hand else "",
                size=_size(one, heading.written), carry=f"{full(one.mass, 'mass', 0)}, {carried}",
                edges=f"left: {one.left}; right: {one.right}",
                place=f"truck {truck[one.mark]}" if one.mark in truck else "",
                outline=tuple((u - one.u0, v - one.v0) for u, v in one.outline),
                holes=tuple(_hole(each, one) for each in face.openings if _inside(each, one)),
            ))  # fmt: skip
    return labels_pdf(heading, found)


def nesting(stored: Stored, building_id: str) -> bytes:
    """Bars and boards with what is cut out of them. Raises DomainError, NotFound, Stopped."""
    project, building = stored.project, shaped(stored.project, building_id)
    heading = heading_of(stored, building)
    sections = [_bars(one, heading.written) for one in shop_sheet(project, building_id).sections]
    sections += [_boards(one, heading.written) for one in boards_of(project, building_id)]
    return nesting_pdf(heading, sections)


def lists_xlsx(stored: Stored, building_id: str) -> bytes:
    """Panels, pieces, bars, works and hold points as a workbook, in the project's units.

    Raises DomainError, NotFound.
    """
    project = stored.project
    sheet, shop = set_out_sheet(project, building_id, SetOutDraft()), shop_sheet(project, building_id)
    system = project.basis.schools.units
    length, area, mass = (unit_for(one, system) for one in ("length", "area", "mass"))

    def size(value: float) -> float:
        return round(value * length.per_si, _DIGITS)

    panels = SheetTable(
        "Panels", ("mark", "face", "storey", "layer", f"width, {length.symbol}", f"height, {length.symbol}",
                   f"area, {area.symbol}", f"mass, {mass.symbol}", "carried by", "openings", "left edge", "right edge",
                   "foot", "head", "alike", "hand", "on the module"),
        [(one.mark, face.mark, one.storey + 1, one.layer + 1, size(one.u1 - one.u0), size(one.v1 - one.v0),
          round(one.area * area.per_si, _DIGITS), round(one.mass * mass.per_si, 2),
          "crane" if one.crane else one.people, " ".join(one.openings), one.left, one.right, one.foot, one.head,
          one.shape, one.hand, "no" if one.off_module else "yes") for face in sheet.faces for one in face.panels],
    )  # fmt: skip
    pieces = SheetTable(
        "Pieces", ("truck", "panel", "piece", "count", "material", f"thickness, {length.symbol}",
                   f"depth, {length.symbol}", f"length, {length.symbol}", f"width, {length.symbol}",
                   "cut at, °", "cut at the other end, °", "bevel, °", "bar", "state"),
        [(one.truck + 1, one.panel, one.name, one.count, one.material, size(one.thick), size(one.deep),
          size(one.length), size(one.width), round(one.ends[0], 2), round(one.ends[1], 2), round(one.bevel, 2),
          None if one.bar is None else one.bar + 1, one.state) for one in shop.pieces],
    )  # fmt: skip
    bars: list[Sequence[Cell]] = [
        (section.material, size(section.thick), size(section.deep), n + 1, size(bar.length),
         "rack" if bar.offcut else "stock", " + ".join(f"{size(one):g}" for one in bar.lengths), size(bar.remnant))
        for section in shop.sections for n, bar in enumerate(section.bars)
    ]  # fmt: skip
    works: list[Sequence[Cell]] = [
        (mark, one.kind, one.where, size(one.u), size(one.v), size(one.length), size(one.wide), size(one.deep),
         round(one.angle, 2)) for mark, one in every_work(project, building_id)
    ]  # fmt: skip
    holds: list[Sequence[Cell]] = [(face.mark, one.panel, one.what) for face in sheet.faces for one in face.holds]
    lacking = [SheetTable("Lacking", ("face", "why it cannot be set out"), [
        (one.mark, in_units(one.reason, system)) for one in sheet.faces if one.sum is None
    ])] if sheet.lacking else []  # fmt: skip
    return workbook([
        *lacking, panels, pieces,
        SheetTable("Bars", ("material", f"thickness, {length.symbol}", f"depth, {length.symbol}", "bar",
                            f"length, {length.symbol}", "from", "pieces", f"left, {length.symbol}"), bars),
        SheetTable("Works", ("panel", "what", "where", f"from the left, {length.symbol}",
                             f"above its foot, {length.symbol}", f"length, {length.symbol}",
                             f"width, {length.symbol}", f"depth, {length.symbol}",
                             "off square, °"), works),
        SheetTable("Hold points", ("face", "before panel", "what is looked at"), holds),
    ])  # fmt: skip


def heading_of(stored: Stored, building: MeasuredBuilding) -> PaperHeading:
    """The names round the sheets of a building."""
    changed = stored.changed_at[:16].replace("T", " ")
    return PaperHeading(
        project=stored.project.name, building=building.name,
        footer=f"revision {stored.revision} · saved {changed} UTC · all lengths as built",
        written=Written(stored.project.basis.schools.units),
    )  # fmt: skip


def _inside(opening: SetOpening, one: DrawnPanel) -> bool:
    across = one.u0 < opening.u and opening.u + opening.w < one.u1
    return across and one.v0 < opening.v and opening.v + opening.h < one.v1


def _hole(opening: SetOpening, one: DrawnPanel) -> tuple[tuple[float, float], ...]:
    u, v = opening.u - one.u0, opening.v - one.v0
    return (u, v), (u + opening.w, v), (u + opening.w, v + opening.h), (u, v + opening.h)


def _size(one: DrawnPanel, written: Written) -> str:
    return f"{written.length(one.u1 - one.u0)} × {written.length(one.v1 - one.v0)}"


def _caption(drawn: DrawnSetOut, written: Written) -> str:
    if drawn.sum is None:
        return f"Seen from outside. Cannot be set out: {in_units(drawn.reason, written.units)}"
    return (
        f"Seen from outside: {drawn.words}; module {written.length(drawn.module)}. {drawn.sum.panels} panels, "
        f"{drawn.sum.off_module} off the module, {drawn.sum.members} joints, "
        f"{written.full(drawn.sum.member_length, 'distance')} of them."
    )


def _tables(drawn: DrawnSetOut, written: Written) -> list[PaperTable]:
    panels = [
        (one.mark, _size(one, written), written.full(one.mass, "mass", 0), " ".join(one.openings), one.left, one.right,
         f"{one.shape}{one.hand[:1].upper()}") for one in drawn.panels
    ]  # fmt: skip
    anchors = [
        (one.name, one.kind.replace("_", "-"), written.length(one.u), one.panel, in_units(one.problem, written.units))
        for one in drawn.anchors
    ]
    holds = [(one.panel, one.what) for one in drawn.holds]
    return [
        PaperTable(head="Panels", columns=("mark", "width × height", "mass", "holds", "left", "right", "alike"),
                   rows=panels),
        PaperTable(head="Anchors as entered", columns=("name", "kind", "from the left", "under", ""), rows=anchors),
        PaperTable(head="Hold points", columns=("before panel", "what is looked at"), rows=holds),
    ]  # fmt: skip


def _bars(one: Section, written: Written) -> tuple[str, str, list[PaperBar]]:
    drawn = []
    for n, bar in enumerate(one.bars, 1):
        x, parts = 0.0, []
        for key, length in zip(bar.pieces, bar.lengths, strict=True):
            parts.append((key.split(" ")[0], x, 0.0, length, 0.0))
            x += length
        rack = "from the rack, " if bar.offcut else ""
        drawn.append(PaperBar(
            words=f"bar {n}, {rack}{written.length(bar.length)}: "
                  + "; ".join(f"{key} {written.length(length)}"
                              for key, length in zip(bar.pieces, bar.lengths, strict=True))
                  + f"; left {written.length(bar.remnant)}",
            length=bar.length, parts=tuple(parts),
        ))  # fmt: skip
    head = f"{one.material}, {written.length(one.thick)} × {written.length(one.deep)}"
    more = "none fewer is possible" if not one.fewer else f"at most {one.fewer} fewer"
    return head, in_units(one.reason, written.units) or f"{len(one.bars)} bars, {more}", drawn


def _boards(one: Boards, written: Written) -> tuple[str, str, list[PaperBar]]:
    drawn = [
        PaperBar(
            words=f"board {n}, {written.length(board.h)} × {written.length(board.w)}: "
                  + ", ".join(part.panel for part in board.parts),
            length=board.h, width=board.w,
            parts=tuple((part.panel, part.y, part.x, part.h, part.w) for part in board.parts),
            cut=None if board.first_at is None else (not board.first_upright, board.first_at),
        )
        for n, board in enumerate(one.sheets, 1)
    ]  # fmt: skip
    full = written.full
    caption = in_units(one.reason, written.units) or (
        f"{len(one.sheets)} boards, {full(one.area, 'area')}; no way takes less than {full(one.bound, 'area')}"
    )
    return f"{one.material}, {written.length(one.thick)}", caption, drawn
