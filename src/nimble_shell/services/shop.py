"""The shop sheet: what is cut for which panel, out of which bar, in the order that trucks ask for it."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.progress import report
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.core.shop.bars.nest import nest
from nimble_shell.core.shop.bars.stock import Nested, NoBars, Saw, Stock
from nimble_shell.core.shop.choices import ShopChoices
from nimble_shell.core.shop.cut_list import Piece, Stuff, pieces_of_face
from nimble_shell.core.shop.filling import is_filled
from nimble_shell.core.shop.laydown import FOUR, Check, check, laydown, measured_of
from nimble_shell.core.shop.loading import Load, NoLoad, Truck, load
from nimble_shell.core.shop.sheets.first_cut import first_cut
from nimble_shell.core.shop.sheets.stock import Cut, Cutting, NoSheets, Part, Sheet
from nimble_shell.core.shop.sheets.stock import Saw as SheetSaw
from nimble_shell.services.shop_panels import PanelWeight, assemblies_of, weights_of
from nimble_shell.services.whole_shell import shaped

State = Literal["left", "cut", "older"]
_M = 1000.0
_SAME = 0.05  #: lengths that differ by no more are one [mm]
PACKER, MOST_PACKERS = 0.6, 400  #: length of a packing strip [m], and how many are looked for
_SHEETS = ((1.25, 2.5), (1.25, 3.0), (2.5, 3.6), (2.5, 6.0), (2.5, 7.3))  #: raw boards [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopPiece:
    """A line of the cut list. [m]"""

    key: str
    panel: str
    name: str
    stuff: Stuff
    material: str  #: what it is called
    thick: float
    deep: float  #: of a bar; else nought
    length: float
    width: float
    count: int
    ends: tuple[float, float]  #: [°]
    bevel: float  #: [°]
    shaped: bool
    state: State
    was: float | None  #: what was cut instead, where the set-out has changed since [m]
    truck: int  #: from 0
    bar: int | None  #: number of the bar that it comes out of, from 0


@dataclass(frozen=True, slots=True, kw_only=True)
class BarDrawn:
    """A bar with what is still to be cut out of it. [m]"""

    length: float
    offcut: bool
    pieces: tuple[str, ...]  #: keys, longest first
    lengths: tuple[float, ...]
    remnant: float
    kept: bool  #: whether it goes to the rack


@dataclass(frozen=True, slots=True, kw_only=True)
class Section:
    """Bars of one section."""

    material: str
    thick: float  #: [m]
    deep: float
    bars: tuple[BarDrawn, ...]
    stock: float  #: length of all bars [m]
    waste: float  #: [m]
    fewer: int  #: bars that could be spared at most; 0 where it is proved
    reason: str  #: why they cannot be cut


@dataclass(frozen=True, slots=True, kw_only=True)
class Truckload:
    """Stacks of marks from the bottom up."""

    stacks: tuple[tuple[str, ...], ...]
    mass: float  #: [kg]
    height: float  #: of the highest stack [m]
    length: float  #: of the longest piece [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Diagonal:
    """Between two corners. [m]"""

    a: int
    b: int
    length: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Laid:
    """A panel that is no rectangle, laid down to be checked. [m]"""

    panel: str
    corners: tuple[tuple[float, float], ...]
    sides: tuple[float, ...]
    diagonals: tuple[Diagonal, ...]
    angles: tuple[float, ...]  #: [°]


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopSheet:
    """Of a building."""

    choices: ShopChoices
    pieces: tuple[ShopPiece, ...]  #: in the order they are cut
    next: int | None  #: the first that is not cut yet
    sections: tuple[Section, ...]
    trucks: tuple[Truckload, ...]
    no_truck: str  #: why the panels cannot be brought
    laid: tuple[Laid, ...]
    weights: tuple[PanelWeight, ...]  #: of all panels, in set order
    lacking: tuple[str, ...]  #: marks of faces that cannot be set out, which nothing here has
    filled: bool  #: whether beads are blown into any of them
    left: int  #: pieces that are still to be cut


@dataclass(frozen=True, slots=True, kw_only=True)
class BoardPart:
    """A part on its board. [m]"""

    panel: str
    x: float
    y: float
    w: float
    h: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SheetDrawn:
    """A raw board with its parts. [m]"""

    w: float
    h: float
    parts: tuple[BoardPart, ...]
    first_upright: bool  #: whether the first cut is at one x
    first_at: float | None  #: None where nothing is to be cut


@dataclass(frozen=True, slots=True, kw_only=True)
class Boards:
    """Boards of one material and thickness."""

    material: str
    thick: float  #: [m]
    sheets: tuple[SheetDrawn, ...]
    area: float  #: of raw boards [m²]
    used: float  #: of it in panels [m²]
    bound: float  #: no way takes less [m²]
    reason: str


def shop_sheet(project: Project, building_id: str) -> ShopSheet:
    """The shop of a building. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    found, of = set_out_building(project, building), assemblies_of(project, building)
    faces = found.faces
    pieces = _cut_list(project, building, faces)
    trucks, no_truck, truck_of = _trucks(building, faces, _thicknesses(project, building))
    ordered = _in_cut_order(pieces, trucks)
    states = {one.key: _state(one, building.shop) for one in ordered}
    left = [one for one in ordered if states[one.key][0] != "cut"]
    names = {key: project.catalogue[key].name for key in {one.material for one in ordered} if key in project.catalogue}
    sections, bar_of = _sections(left, building.shop, names)
    lines = tuple(
        ShopPiece(
            key=one.key, panel=one.panel, name=one.name, stuff=one.stuff,
            material=names.get(one.material, one.material),
            thick=one.section[0] / _M, deep=one.section[1] / _M, length=one.length / _M, width=one.width / _M,
            count=one.count, ends=one.ends, bevel=one.bevel, shaped=one.shaped,
            state=states[one.key][0], was=states[one.key][1],
            truck=truck_of.get(one.panel, 0), bar=bar_of.get(one.key),
        )
        for one in ordered
    )  # fmt: skip
    return ShopSheet(
        choices=building.shop, pieces=lines,
        next=next((n for n, one in enumerate(lines) if one.state != "cut"), None), sections=sections, trucks=trucks,
        no_truck=no_truck, laid=tuple(_laid(faces)),
        weights=tuple(weights_of(building, faces, found.masses, of)),
        lacking=found.lacking, filled=any(is_filled(of[one.zone]) for one in faces if one.panels),
        left=sum(one.count for one in lines if one.state != "cut"),
    )  # fmt: skip


def laydown_check(project: Project, building_id: str, panel: str, read: Sequence[float]) -> Check:
    """What a tape read on a panel: four sides, then both diagonals. Raises DomainError, NotFound. [m]"""
    building = shaped(project, building_id)
    faces = set_out_building(project, building).faces
    one = next((each for face in faces for each in face.panels if each.mark == panel), None)
    if one is None or len(one.panel.piece.outline) != FOUR:
        raise DomainError(Issue(path=("panel",), code="not_four", message=f"“{panel}” is no panel of four corners",
                                hint="choose one of those that are laid down"))  # fmt: skip
    return check(laydown(one.panel.piece.outline), measured_of([value * _M for value in read]))


def boards_of(project: Project, building_id: str) -> tuple[Boards, ...]:
    """Skins and boards of all panels, cut from raw boards by through cuts. Raises DomainError, NotFound, Stopped."""
    building = shaped(project, building_id)
    faces = set_out_building(project, building).faces
    by_board: dict[tuple[str, float], list[Piece]] = defaultdict(list)
    for one in _cut_list(project, building, faces):
        if one.stuff == "sheet":
            by_board[one.material, one.section[0]].append(one)
    boards = []
    for n, ((material, thick), several) in enumerate(by_board.items()):
        report(n, len(by_board))
        name = project.catalogue[material].name if material in project.catalogue else material
        boards.append(_boards(name, thick, several, building.shop))
    return tuple(boards)


def _boards(name: str, thick: float, pieces: Sequence[Piece], shop: ShopChoices) -> Boards:
    alike = Counter((round(one.width, 1), round(one.length, 1), one.panel) for one in pieces for _ in range(one.count))
    parts = [Part(name=panel, w=w, h=h, count=n, turn=False) for (w, h, panel), n in alike.items()]
    sheets = [Sheet(name=f"{w:g} × {h:g}", w=w * _M, h=h * _M, cost=w * h) for w, h in _SHEETS]
    used = sum(one.w * one.h * one.count for one in parts) * 1e-6
    # Strips for packing under plates and behind joints come out of what the boards leave.
    strips = [Part(name="packer", w=shop.packers * _M, h=PACKER * _M, count=MOST_PACKERS, turn=True)]
    fillers = tuple(strips) if shop.packers > 0 else ()
    answer = _cut(tuple(parts), tuple(sheets), SheetSaw(kerf=shop.kerf * _M), fillers)
    if isinstance(answer, NoSheets):
        return Boards(material=name, thick=thick / _M, sheets=(), area=0.0, used=used, bound=0.0, reason=answer.reason)
    drawn = tuple(_sheet(sheets[one.sheet], one, (*parts, *fillers)) for one in answer.cuttings)
    return Boards(material=name, thick=thick / _M, sheets=drawn, area=answer.cost, used=used, bound=answer.bound,
                  reason="")  # fmt: skip


def _sheet(sheet: Sheet, cutting: Cutting, parts: Sequence[Part]) -> SheetDrawn:
    first = first_cut(sheet, cutting)
    return SheetDrawn(
        w=sheet.w / _M, h=sheet.h / _M, first_upright=first is not None and first.upright,
        first_at=None if first is None else first.at / _M,
        parts=tuple(BoardPart(panel=parts[one.part].name, x=one.x / _M, y=one.y / _M, w=one.w / _M, h=one.h / _M)
                    for one in cutting.placed),
    )  # fmt: skip


@lru_cache(maxsize=64)
def _cut(
    parts: tuple[Part, ...], sheets: tuple[Sheet, ...], saw: SheetSaw, fillers: tuple[Part, ...]
) -> Cut | NoSheets:
    from nimble_shell.core.shop.sheets.cut import cut  # brings a compiler, which no start needs

    return cut(parts, sheets, saw, fillers)


def _cut_list(project: Project, building: MeasuredBuilding, faces: Iterable[FaceSetOut]) -> list[Piece]:
    of = assemblies_of(project, building)
    found: list[Piece] = []
    for face in faces:
        assembly = of.get(face.zone)
        if assembly is not None:
            found += pieces_of_face(face, assembly, project.catalogue, max(building.shop.bars) * _M)
    return found


def _trucks(
    building: MeasuredBuilding, faces: Sequence[FaceSetOut], thick: Mapping[str, float]
) -> tuple[tuple[Truckload, ...], str, dict[str, int]]:
    """Panels in set order: face after face, as they are numbered."""
    shop, loads = building.shop, list[Load]()
    for face in faces:
        for one in face.panels:
            piece = one.panel.piece
            loads.append(Load(name=one.mark, length=max(piece.width, piece.height),
                              thickness=thick[face.zone] * _M, mass=one.panel.mass))  # fmt: skip
    truck = Truck(stacks=shop.truck_stacks, max_height=shop.truck_height * _M, max_mass=shop.truck_mass,
                  max_length=shop.truck_length * _M, overhang=shop.overhang * _M)  # fmt: skip
    found = load(loads, truck)
    if isinstance(found, NoLoad):
        return (), found.reason, {}
    trucks, truck_of = list[Truckload](), dict[str, int]()
    for n, stacks in enumerate(found.trucks):
        held = [loads[at] for stack in stacks for at in stack]
        truck_of |= {one.name: n for one in held}
        trucks.append(Truckload(
            stacks=tuple(tuple(loads[at].name for at in stack) for stack in stacks if stack),
            mass=sum(one.mass for one in held), length=max(one.length for one in held) / _M,
            height=max(sum(loads[at].thickness for at in stack) for stack in stacks) / _M,
        ))  # fmt: skip
    return tuple(trucks), "", truck_of


def _thicknesses(project: Project, building: MeasuredBuilding) -> dict[str, float]:
    """Of each element's panels: from the first layer that is fitted in the shop to the last. [m]"""
    assemblies = {one.id: one for one in project.assemblies}
    found = {}
    for element in building.elements:
        assembly = assemblies.get(element.assembly_id or "")
        if assembly is not None:
            shop = [n for n, one in enumerate(assembly.layers) if one.fitted == "shop" or n == assembly.core_index]
            ends = (min(shop), max(shop)) if shop else (0, len(assembly.layers) - 1)
            found[element.id] = sum(one.d for one in assembly.layers[ends[0] : ends[1] + 1])
    return found


def _in_cut_order(pieces: Sequence[Piece], trucks: Sequence[Truckload]) -> list[Piece]:
    """Truck after truck; on each what lies lowest, and is set last, is made first."""
    place: dict[str, tuple[int, int]] = {}
    for n, truck in enumerate(trucks):
        marks = sorted(mark for stack in truck.stacks for mark in stack)
        place |= {mark: (n, -at) for at, mark in enumerate(marks)}
    return sorted(pieces, key=lambda one: place.get(one.panel, (0, 0)))


def _state(piece: Piece, shop: ShopChoices) -> tuple[State, float | None]:
    done = next((one for one in shop.cut if one.key == piece.key), None)
    if done is None:
        return "left", None
    same = (
        abs(done.length * _M - piece.length) <= _SAME and abs(done.width * _M - piece.width) <= _SAME
        and done.count == piece.count
    )  # fmt: skip
    return ("cut", None) if same else ("older", done.length)


def _sections(
    pieces: Sequence[Piece], shop: ShopChoices, names: dict[str, str]
) -> tuple[tuple[Section, ...], dict[str, int]]:
    """What is left of each section, nested anew."""
    by_section: dict[tuple[str, tuple[float, float]], list[Piece]] = defaultdict(list)
    for one in pieces:
        if one.stuff == "bar":
            by_section[one.material, one.section].append(one)
    sections, bar_of = [], dict[str, int]()
    for (material, section), several in by_section.items():
        counts = Counter[float]()
        for one in several:
            counts[round(one.length, 1)] += one.count
        rack = tuple(
            Stock(length=one.length * _M, cost=0.0, count=one.count, offcut=True) for one in shop.rack
            if (round(one.thick * _M, 1), round(one.deep * _M, 1)) == (round(section[0], 1), round(section[1], 1))
        )  # fmt: skip
        stock = (*rack, *(Stock(length=one * _M, cost=one * _M) for one in shop.bars))
        saw = Saw(kerf=shop.kerf * _M, end_trim=shop.end_trim * _M, keep=shop.keep * _M)
        answer = _nested(tuple(counts), tuple(counts.values()), stock, saw)
        sections.append(_section(names.get(material, material), section, several, answer, saw, bar_of))
    return tuple(sections), bar_of


@lru_cache(maxsize=256)
def _nested(lengths: tuple[float, ...], counts: tuple[int, ...], stock: tuple[Stock, ...], saw: Saw) -> Nested | NoBars:
    return nest(lengths, counts, stock, saw, ("cost", "bars"))


def _section(name: str, section: tuple[float, float], pieces: Sequence[Piece], answer: Nested | NoBars, saw: Saw,
             bar_of: dict[str, int]) -> Section:  # fmt: skip
    thick, deep = section[0] / _M, section[1] / _M
    if isinstance(answer, NoBars):
        return Section(material=name, thick=thick, deep=deep, bars=(), stock=0.0, waste=0.0, fewer=0,
                       reason=answer.reason)  # fmt: skip
    waiting: dict[float, list[str]] = defaultdict(list)
    for one in pieces:
        waiting[round(one.length, 1)] += [one.key] * one.count
    bars = list[BarDrawn]()
    for bar in answer.bars:
        for _ in range(bar.times):
            keys = tuple(waiting[length].pop(0) for length in bar.lengths)
            for key in keys:
                bar_of.setdefault(key, len(bars))
            bars.append(BarDrawn(
                length=bar.length / _M, offcut=bar.offcut, pieces=keys, lengths=tuple(one / _M for one in bar.lengths),
                remnant=bar.remnant / _M, kept=saw.kept(bar.remnant) > 0,
            ))  # fmt: skip
    shortest = min(one.length for one in answer.bars) if answer.bars else 1.0
    fewer = 0 if answer.proved else int((answer.sum.cost - answer.bound) / shortest) + 1
    return Section(material=name, thick=thick, deep=deep, bars=tuple(bars), stock=sum(one.length for one in bars),
                   waste=answer.sum.waste / _M, fewer=fewer, reason="")  # fmt: skip


def _laid(faces: Iterable[FaceSetOut]) -> Iterable[Laid]:
    """Panels whose blanks are no rectangles; notches for openings are cut after it."""
    for face in faces:
        for one in face.panels:
            piece = one.panel.piece
            if piece.square:
                continue
            asked = laydown(piece.outline)
            yield Laid(
                panel=one.mark, corners=tuple((x / _M, y / _M) for x, y in piece.outline),
                sides=tuple(side / _M for side in asked.sides), angles=asked.angles,
                diagonals=tuple(Diagonal(a=i, b=j, length=length / _M) for (i, j), length in asked.diagonals.items()),
            )  # fmt: skip
