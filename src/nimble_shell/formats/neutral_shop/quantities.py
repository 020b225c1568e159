"""Quantities of the neutral shop case: what is ordered for a wall, item by item."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shop.bars.stock import NoBars
from nimble_shell.core.shop.quantities.buck import buck
from nimble_shell.core.shop.quantities.concrete import Run, Turn, Waffle, concrete
from nimble_shell.core.shop.quantities.lines import Bead, ScrewLine, Shape, screws, sealant, tape
from nimble_shell.core.shop.quantities.wet import Ingredient, Rib, beads, mortar, plaster
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive, Share, each, one_of
from nimble_shell.formats.strict import Strict

Below1 = Annotated[float, Field(ge=0, lt=1)]
Count = Annotated[int, Field(strict=True, ge=1, le=1_000_000)]
Whole = Annotated[int, Field(strict=True, ge=0, le=1_000_000)]
Two = Annotated[list[Positive], Field(min_length=2, max_length=2)]


class OpeningCase(Strict):
    w: Positive
    h: Positive
    count: Count = 1


class WallCase(Strict):
    name: str
    length: Positive
    turn: Turn


class RunCase(Strict):
    closed: StrictBool
    walls: Annotated[list[WallCase], Field(min_length=1)]


class WaffleCase(Strict):
    a: Positive
    b: Positive
    web: NotNegative
    v: Two
    h: Two


class ConcreteCase(Strict):
    type: Literal["icf_concrete"]
    run: RunCase
    height: Positive
    foam_out: NotNegative
    core: Positive
    openings: list[OpeningCase]
    waste: NotNegative
    truck_m3: Positive
    waffle: WaffleCase | None = None


class RibCase(Strict):
    pitch: Positive | None = None
    depth: NotNegative | None = None
    top: NotNegative | None = None
    bottom: NotNegative | None = None
    wave: NotNegative | None = None


class FaceCase(Strict):
    cover: NotNegative
    rib: RibCase | None = None


class MortarCase(Strict):
    type: Literal["mortar"]
    area_m2: Positive
    faces: Annotated[list[FaceCase], Field(min_length=1)]
    openings: list[OpeningCase]
    reveal: NotNegative
    reveal_thickness: NotNegative
    loss: Below1


class RollsCase(Strict):
    length_m: NotNegative
    gap: NotNegative
    depth: NotNegative
    share: Share


class IngredientCase(Strict):
    name: str
    ratio: Positive
    density: Positive
    bag_kg: Positive | None


class PlasterCase(Strict):
    type: Literal["plaster"]
    area_m2: Positive
    openings: list[OpeningCase]
    faces: Annotated[list[NotNegative], Field(min_length=1)]
    bond: NotNegative
    rolls: RollsCase | None = None
    parts: Annotated[list[IngredientCase], Field(min_length=1)]
    yield_: Positive = Field(alias="yield")
    batch_l: Positive


class BeadsCase(Strict):
    type: Literal["beads"]
    area_m2: Positive
    depth: Positive
    timber: Below1
    settlement: Below1
    bag_l: Positive
    density: Positive


class BeadCase(Strict):
    round: Positive | None = None
    triangle: Two | None = None
    square: Two | None = None


class SealantCase(Strict):
    type: Literal["sealant"]
    length_m: NotNegative
    passes: Annotated[int, Field(strict=True, ge=1)]
    bead: BeadCase
    waste: NotNegative
    tube_ml: Positive


class TapeCase(Strict):
    type: Literal["tape"]
    length_m: NotNegative
    ends: Whole
    overlap: NotNegative
    roll_m: Positive


class LineCase(Strict):
    length: Positive
    spacing: Positive
    end: NotNegative


class ScrewsCase(Strict):
    type: Literal["screws"]
    panels: Whole
    lines: list[LineCase]
    box: Count


class BuckCase(Strict):
    type: Literal["buck"]
    unit_w: Positive
    unit_h: Positive
    shim: NotNegative
    head: NotNegative
    jamb: NotNegative
    sill: NotNegative
    stock: Positive
    kerf: NotNegative


Item = Annotated[
    ConcreteCase | MortarCase | PlasterCase | BeadsCase | SealantCase | TapeCase | ScrewsCase | BuckCase,
    Field(discriminator="type"),
]


class QuantitiesCase(Strict):
    kind: Literal["quantities"] = "quantities"
    items: list[Item]


def compute(case: QuantitiesCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """

    def of(item: Any, path: tuple[str | int, ...]) -> dict[str, Any]:
        try:
            return _BY_TYPE[item.type](item)
        except DomainError as error:
            raise error.under(*path) from None

    return {"items": each(case.items, of, "items")}


def _concrete(one: ConcreteCase) -> dict[str, Any]:
    run = Run(lengths=tuple(wall.length for wall in one.run.walls), turns=tuple(wall.turn for wall in one.run.walls),
              closed=one.run.closed)  # fmt: skip
    try:
        run.check()
    except DomainError as error:
        raise error.under("run") from None
    waffle = None if one.waffle is None else _waffle(one.waffle)
    openings = [(opening.w, opening.h, opening.count) for opening in one.openings]
    found = concrete(run, one.height, one.foam_out, one.core, openings, one.waste, one.truck_m3, waffle)
    return {"centre_m": found.centre * 1e-3, "net_m2": found.net * 1e-6, "volume_m3": found.volume,
            "order_m3": found.order, "trucks": found.trucks}  # fmt: skip


def _waffle(one: WaffleCase) -> Waffle:
    return Waffle(a=one.a, b=one.b, web=one.web, v=(one.v[0], one.v[1]), h=(one.h[0], one.h[1]))


def _net(area: float, openings: Sequence[OpeningCase]) -> float:
    """Area less openings. [m²]"""
    net = area - sum(one.w * one.h * one.count for one in openings) * 1e-6
    if net < 0:
        raise DomainError(Issue(path=("openings",), code="too_large", message="the openings are larger than the wall",
                                hint="check their sizes"))  # fmt: skip
    return net


def _mortar(one: MortarCase) -> dict[str, Any]:
    perimeter = sum(2 * (opening.w + opening.h) * opening.count for opening in one.openings) * 1e-3
    faces = [(face.cover, None if face.rib is None else _rib(face.rib, at)) for at, face in enumerate(one.faces)]
    found = mortar(_net(one.area_m2, one.openings), faces, perimeter, one.reveal, one.reveal_thickness, one.loss)
    return {"volume_m3": found.volume, "order_m3": found.order}


def _rib(one: RibCase, at: int) -> Rib:
    path = ("faces", at, "rib")
    if one.wave is not None:
        for name in ("pitch", "depth", "top", "bottom"):
            if getattr(one, name) is not None:
                raise DomainError(Issue(path=(*path, name), code="told_twice", message=f"“{name}” beside “wave”",
                                        hint="leave one of them out"))  # fmt: skip
        return Rib(depth=one.wave)
    for name in ("pitch", "depth", "top", "bottom"):
        one_of(one, [name], *path)
    return Rib(pitch=one.pitch or 0.0, depth=one.depth or 0.0, top=one.top or 0.0, bottom=one.bottom or 0.0)


def _plaster(one: PlasterCase) -> dict[str, Any]:
    volume = _net(one.area_m2, one.openings) * sum(thick + one.bond for thick in one.faces) * 1e-3
    if one.rolls is not None:
        volume += one.rolls.length_m * one.rolls.gap * one.rolls.depth * one.rolls.share * 1e-6
    parts = [Ingredient(name=part.name, ratio=part.ratio, density=part.density, bag=part.bag_kg) for part in one.parts]
    found = plaster(volume, parts, one.yield_, one.batch_l)
    needed = [
        {"name": part.name, "litres_per_batch": part.litres_per_batch, "litres": part.litres, "bags": part.bags}
        for part in found.needed
    ]
    return {"volume_m3": found.volume, "batches": found.batches, "parts": needed}


def _beads(one: BeadsCase) -> dict[str, Any]:
    found = beads(one.area_m2, one.depth, one.timber, one.settlement, one.bag_l, one.density)
    return {"cavity_m3": found.cavity, "blown_m3": found.blown, "bags": found.bags, "mass_kg": found.mass}


def _sealant(one: SealantCase) -> dict[str, Any]:
    shapes: tuple[Shape, ...] = ("round", "triangle", "square")
    shape = next(name for name in shapes if name == one_of(one.bead, shapes, "bead"))
    size = getattr(one.bead, shape)
    bead = Bead(shape=shape, a=size) if shape == "round" else Bead(shape=shape, a=size[0], b=size[1])
    volume, tubes = sealant(one.length_m, one.passes, bead, one.waste, one.tube_ml)
    return {"volume_ml": volume, "tubes": tubes}


def _tape(one: TapeCase) -> dict[str, Any]:
    length, rolls = tape(one.length_m, one.ends, one.overlap, one.roll_m)
    return {"tape_m": length, "rolls": rolls}


def _screws(one: ScrewsCase) -> dict[str, Any]:
    lines = [ScrewLine(length=line.length, spacing=line.spacing, end=line.end) for line in one.lines]
    per_panel, total, boxes = screws(one.panels, lines, one.box)
    return {"per_panel": per_panel, "screws": total, "boxes": boxes}


def _buck(one: BuckCase) -> dict[str, Any]:
    found = buck((one.unit_w, one.unit_h), one.shim, one.head, one.jamb, one.sill, one.stock, one.kerf)
    if isinstance(found, NoBars):
        raise DomainError(Issue(path=("stock",), code="too_short", message=found.reason, hint="a longer stock"))
    return {
        "rough_w": found.rough[0], "rough_h": found.rough[1], "opening_w": found.opening[0],
        "opening_h": found.opening[1], "boards": list(found.boards), "board_m": sum(found.boards) * 1e-3,
        "bars": found.bars,
    }  # fmt: skip


_BY_TYPE: dict[str, Callable[[Any], dict[str, Any]]] = {
    "icf_concrete": _concrete, "mortar": _mortar, "plaster": _plaster, "beads": _beads, "sealant": _sealant,
    "tape": _tape, "screws": _screws, "buck": _buck,
}  # fmt: skip
