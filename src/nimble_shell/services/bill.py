"""The bill of a building: what is bought of every system, from its shape, its set-out and its joints."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.sealing.seals import Sealing
from nimble_shell.core.quantities.units import unit_for
from nimble_shell.core.setout.courses.laying import NoLaying
from nimble_shell.core.shell.coursed import LaidRun, cast_layers, course_building
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.pouring import poured
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.wetting import MORTARED, PLASTERED
from nimble_shell.core.shop.bill import BillChoices, BillRow, bought, pieces
from nimble_shell.core.shop.filling import is_filled
from nimble_shell.formats.csv_text import write_table
from nimble_shell.reports.workbook import Cell, SheetTable, workbook
from nimble_shell.services.courses import course_sheet
from nimble_shell.services.joints import drawn, sealing
from nimble_shell.services.setout import SetOutDraft, set_out_sheet
from nimble_shell.services.shop_panels import assemblies_of, filling_of
from nimble_shell.services.wet import wet_sheet
from nimble_shell.services.whole_shell import shaped

COLUMNS = (
    "group",
    "what",
    "thickness",
    "where",
    "net",
    "unit",
    "waste, %",
    "ordered",
    "sold by",
    "pieces",
    "price",
    "cost",
    "state",
)
_DIGITS = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class Bill:
    """Of a building."""

    choices: BillChoices
    rows: tuple[BillRow, ...]
    cost: float | None  #: of all rows; None while one has no price or lacks a part
    so_far: float  #: of those that are known
    priceless: int  #: rows without a price
    lacking: tuple[str, ...]  #: faces and walls that no row has


def bill_of(project: Project, building_id: str) -> Bill:
    """Raises DomainError, NotFound, Stopped."""
    building = shaped(project, building_id)
    choices, sheet = building.bill, set_out_sheet(project, building_id, SetOutDraft())
    laid = course_building(project, building)
    unlaid = tuple(wall.mark for one in laid if isinstance(one.found, NoLaying) for wall in one.of.walls)
    rows = [
        *_layers(project, building, choices), *_joints(project, building, choices),
        *_panels(project, building_id, sheet.screws, sheet.boxes, choices, whole=not sheet.lacking),
        *_forms(project, building, laid, choices, whole=not unlaid),
        *_wet(project, building_id, choices, whole=not sheet.lacking),
    ]  # fmt: skip
    costs = [one.cost for one in rows]
    return Bill(
        choices=choices, rows=tuple(rows), cost=None if None in costs else sum(one or 0.0 for one in costs),
        so_far=sum(one for one in costs if one is not None), priceless=sum(one.price is None for one in rows),
        lacking=(*sheet.lacking, *unlaid),
    )  # fmt: skip


def _layers(project: Project, building: MeasuredBuilding, choices: BillChoices) -> Iterator[BillRow]:
    """Every layer of every build-up by its net area, at the catalogue's or the practice's rate."""
    of = assemblies_of(project, building)
    amounts = defaultdict[tuple[str, float], float](float)
    where = defaultdict[tuple[str, float], list[str]](list)
    for element in building.elements:
        assembly = of.get(element.id)
        if assembly is None:
            continue
        net = max(0.0, element.area - (building.opened(element.id) or 0.0))
        elsewhere = _elsewhere(project, assembly)
        for n, layer in enumerate(assembly.layers):
            if n not in elsewhere and layer.material in project.catalogue:
                key = (layer.material, layer.d)
                amounts[key] += net
                if element.name not in where[key]:
                    where[key].append(element.name)
    for (material, d), area in sorted(amounts.items()):
        known = project.catalogue[material]
        row = bought(f"layer|{material}|{d:g}", "Layers", known.name, ", ".join(where[material, d]), area, "area",
                     choices, waste=choices.layers, price=known.cost * d if known.cost else None)  # fmt: skip
        yield replace(row, thick=d)


def _elsewhere(project: Project, assembly: Assembly) -> set[int]:
    """Layers that a row of their own counts: forms with their concrete, mortar, plaster on straw, blown beads."""
    core = assembly.core_index
    if core is None:
        return set()
    form = cast_layers(assembly, project.catalogue)
    if form:
        return form
    if assembly.system in (*MORTARED, *PLASTERED):
        return {core - 1, core + 1}
    return {core} if is_filled(assembly) else set()


def _joints(project: Project, building: MeasuredBuilding, choices: BillChoices) -> Iterator[BillRow]:
    """Sealant, tape and foam by the schedules of the joints, less what is left out."""
    beads, tapes, foams = (defaultdict[str, float](float) for _ in range(3))
    ends = defaultdict[str, int](int)
    sections = {one.key: one.pieces for one in building.shape.edges}
    for joint in building.joints:
        found = _sealed(project, joint.id, building)
        for step in () if found is None else found.steps:
            if step.key in joint.omitted or joint.length <= 0:
                continue
            if step.kind == "bead":
                beads[joint.sealant] += joint.length * step.beads
            elif step.kind == "tape":
                tapes[joint.tape] += joint.length
                ends[joint.tape] += sum(sections.get(key, 1) for key in joint.follows) or 1
            elif step.kind == "foam":
                foams[step.text] += joint.length
    for name, length in sorted(beads.items()):
        volume = length * math.pi * choices.bead**2 / 4
        yield bought(f"sealant|{name}", "Seals", f"{name} sealant", "beads of the joints", volume, "volume", choices,
                     waste=choices.sealing, sold=choices.tube, of="tube")  # fmt: skip
    for name, length in sorted(tapes.items()):
        yield bought(f"tape|{name}", "Seals", name, "seams of the joints", length + ends[name] * choices.overlap,
                     "distance", choices, waste=choices.sealing, sold=choices.roll, of="roll")  # fmt: skip
    for name, length in sorted(foams.items()):
        yield bought(f"foam|{name}", "Seals", name, "joints", length, "distance", choices, waste=choices.sealing,
                     sold=choices.can, of="can")  # fmt: skip


def _sealed(project: Project, joint_id: str, building: MeasuredBuilding) -> Sealing | None:
    joint = next(one for one in building.joints if one.id == joint_id)
    try:
        return sealing(project, joint, drawn(project, joint))
    except DomainError:
        return None  # said by the joint


def _panels(
    project: Project, building_id: str, screws: int | None, boxes: int | None, choices: BillChoices, *, whole: bool
) -> Iterator[BillRow]:
    if screws is not None and boxes is not None:
        yield BillRow(key="screws", group="Panels", what="screws in skins", where="panels", net=float(screws),
                      dimension="ratio", waste=0.0, sold=None, of="box", count=boxes,
                      price=choices.price("screws"), whole=whole)  # fmt: skip
    for one in filling_of(project, building_id):
        yield BillRow(key=f"beads|{one.assembly}", group="Panels", what="beads, blown", where=one.name, net=one.blown,
                      dimension="volume", waste=0.0, sold=None, of="bag", count=one.bags,
                      price=choices.price(f"beads|{one.assembly}"), whole=not one.lacking)  # fmt: skip


def _forms(
    project: Project, building: MeasuredBuilding, laid: Sequence[LaidRun], choices: BillChoices, *, whole: bool
) -> Iterator[BillRow]:
    if not laid:
        return
    runs = course_sheet(project, building.id).runs
    straight = sum(one.whole.bought for one in runs if one.whole)
    halves = sum(one.half.bought for one in runs if one.half)
    marks = ", ".join(wall.mark for one in runs for wall in one.walls)
    yield pieces("block", "Forms", "straight blocks", marks, straight, choices, whole_=whole)
    if halves:
        yield pieces("half", "Forms", "half blocks", marks, halves, choices, whole_=whole)
    if building.forms.corners == "factory":
        for hand in ("left", "right"):
            count = sum(getattr(one.whole, hand) + getattr(one.half, hand) for one in runs if one.whole and one.half)
            yield pieces(f"corner|{hand}", "Forms", f"corner blocks, {hand} hand", marks, count, choices, whole_=whole)
    else:
        corners = [one.corners for one in runs if one.corners]
        yield pieces("corner|site", "Forms", "blocks for mitred corners", marks, sum(one.blocks for one in corners),
                     choices, whole_=whole)  # fmt: skip
        yield bought("corner|foam", "Forms", "foam along mitres", marks, sum(one.foam for one in corners), "distance",
                     choices, waste=choices.sealing, sold=choices.can, of="can", whole_=whole)  # fmt: skip
    boards = sum(_boards(one, building.forms.buck * 1000) for one in laid) / 1000
    if boards:
        yield bought("buck", "Forms", "boards of bucks", marks, boards, "distance", choices, waste=choices.layers,
                     sold=max(building.shop.bars), of="bar")  # fmt: skip
    of = assemblies_of(project, building)
    cast = next((one.material for run in laid for one in of[run.of.zone].layers
                 if one.material and project.catalogue[one.material].family == "concrete"), "")  # fmt: skip
    yield bought("concrete", "Forms", "concrete", marks, sum(poured(one.of, building.pour).volume for one in laid),
                 "volume", choices, waste=building.pour.waste,
                 price=(project.catalogue[cast].cost or None) if cast else None)  # fmt: skip


def _boards(one: LaidRun, thick: float) -> float:
    """Head and sill over the whole width, jambs between them; what stands on the foot has no sill. [mm]"""
    total = 0.0
    for hole in one.of.run.openings:
        across = 2 if hole.y > 0 else 1
        total += across * hole.w + 2 * (hole.h - across * thick)
    return total


def _wet(project: Project, building_id: str, choices: BillChoices, *, whole: bool) -> Iterator[BillRow]:
    sheet = wet_sheet(project, building_id)
    for one in sheet.mortar:
        yield bought(f"mortar|{one.assembly}", "Wet trades", "structural mortar, sprayed", one.name, one.volume.order,
                     "volume", choices, whole_=whole)  # fmt: skip
        mesh = one.splice + one.corners + one.diagonal_area
        yield bought(f"mesh|{one.assembly}", "Wet trades", "splice, corner and diagonal mesh", one.name, mesh, "area",
                     choices, sold=choices.mesh, of="roll", whole_=whole)  # fmt: skip
        if one.dowels:
            yield pieces(f"dowels|{one.assembly}", "Wet trades", "dowels, as the engineer stated", one.name,
                         one.dowels, choices, whole_=whole)  # fmt: skip
    for plastered in sheet.plaster:
        for part in plastered.needed.needed:
            yield BillRow(key=f"plaster|{part.name}", group="Wet trades", what=f"{part.name} of the plaster",
                          where=plastered.name, net=part.litres / 1000, dimension="volume", waste=0.0, sold=None,
                          of="" if part.bags is None else "bag", count=part.bags,
                          price=choices.price(f"plaster|{part.name}"), whole=whole)  # fmt: skip
        yield bought(f"straw|{plastered.assembly}", "Wet trades", "straw rolls", plastered.name, plastered.rolls,
                     "distance", choices, waste=choices.sealing, whole_=whole)  # fmt: skip
    for board in sheet.boards:
        yield bought(f"joint-foam|{board.assembly}", "Wet trades", "foam and mesh in joints of boards", board.name,
                     board.joints, "distance", choices, waste=choices.sealing, sold=choices.can, of="can",
                     whole_=whole)  # fmt: skip
        yield bought(f"edge-tape|{board.assembly}", "Wet trades", "tape on edges of boards", board.name, board.edges,
                     "distance", choices, waste=choices.sealing, sold=choices.roll, of="roll",
                     whole_=whole)  # fmt: skip


def bill_csv(project: Project, building_id: str) -> bytes:
    """As CSV, in the project's units. Raises DomainError, NotFound, Stopped."""
    return write_table(COLUMNS, _rows(project, bill_of(project, building_id)))


def bill_xlsx(project: Project, building_id: str) -> bytes:
    """As a workbook, in the project's units. Raises DomainError, NotFound, Stopped."""
    found = bill_of(project, building_id)
    total = SheetTable("Sum", ("what", "value"), [
        ("cost" if found.cost is not None else "cost so far", round(found.so_far, 2)),
        ("rows without a price", found.priceless), ("lacking", ", ".join(found.lacking)),
    ])  # fmt: skip
    return workbook([SheetTable("Quantities", COLUMNS, _rows(project, found)), total])


def _rows(project: Project, found: Bill) -> list[Sequence[Cell]]:
    rows: list[Sequence[Cell]] = []
    size = unit_for("length", project.basis.schools.units)
    for one in found.rows:
        unit = unit_for(one.dimension, project.basis.schools.units)
        sold = one.of if one.sold is None or one.dimension == "ratio" else (
            f"{one.of} of {one.sold * unit.per_si:.6g} {unit.symbol}")  # fmt: skip
        per = 1.0 if one.count is not None else 1 / unit.per_si
        rows.append((
            one.group, one.what, None if one.thick is None else f"{one.thick * size.per_si:.6g} {size.symbol}",
            one.where, round(one.net * unit.per_si, _DIGITS), unit.symbol,
            round(100 * one.waste, 1), round(one.ordered * unit.per_si, _DIGITS), sold, one.count,
            None if one.price is None else round(one.price * per, 4), None if one.cost is None else round(one.cost, 2),
            "" if one.whole else "so far",
        ))  # fmt: skip
    return rows
