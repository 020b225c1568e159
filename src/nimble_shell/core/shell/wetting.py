"""Mortar and plaster of a building's panels: volumes, coats, mesh, wires, dowels, batches, beds. Lengths in m."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.panels import SetOut
from nimble_shell.core.setout.strips import M2
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shop.quantities.counts import whole
from nimble_shell.core.shop.quantities.wet import Ingredient, Mortar, Plaster, Rib, mortar, plaster
from nimble_shell.core.shop.wet_choices import WetChoices
from nimble_shell.core.site.casting import Cast, ToCast, cast_plan, clock

_M = 1000.0
MORTARED, PLASTERED, BOARDED = ("mesh-mortar", "mesh-mortar-roof"), ("straw-bale",), ("straw-board",)
_MONTH = 30  #: days, to look a month's mean up


@dataclass(frozen=True, slots=True, kw_only=True)
class MortaredFaces:
    """All faces of one build-up of mesh-and-mortar panels."""

    assembly: str
    name: str
    area: float  #: of panels [m²]
    covers: tuple[float, float]  #: of mortar inside and outside
    rib: float
    reveal: float  #: depth of a reveal
    perimeter: float  #: of all openings
    volume: Mortar
    passes: tuple[int, int]  #: coats inside and outside
    waits: float  #: between the first coat and the last [h]
    splice: float  #: mesh over seams [m²]
    corners: float
    diagonals: int
    diagonal_area: float
    wires: int
    dowels: int | None  #: None while nobody has stated a pattern
    trims: int  #: panels off the module


@dataclass(frozen=True, slots=True, kw_only=True)
class PlasteredFaces:
    """All faces of one build-up of plastered straw."""

    assembly: str
    name: str
    area: float
    coats: tuple[float, float]
    straw: float  #: [m³]
    rolls: float  #: length of joints between panels
    plates: float  #: box plates at foot and head
    frames: int  #: infill frames at openings
    frame_length: float
    needed: Plaster
    panels: tuple[ToCast, ...]
    plan: tuple[Cast, ...] | None
    loose: int  #: panels that are no whole number of bales


@dataclass(frozen=True, slots=True, kw_only=True)
class BoardedFaces:
    """Straw boards in two layers."""

    assembly: str
    name: str
    area: float
    layers: int
    joints: float  #: foamed and meshed, of all layers
    edges: float  #: taped round faces and openings
    grooves: int  #: for services, as entered


def mortared(
    building: MeasuredBuilding, faces: Sequence[FaceSetOut], assembly: Assembly, choices: WetChoices
) -> MortaredFaces:
    """Of one build-up."""
    core = assembly.core_index or 0
    foam = assembly.layers[core]
    inner, outer = assembly.layers[core - 1].d, assembly.layers[core + 1].d
    area, rib, found = _area(faces), foam.rib, [one.found for one in faces if isinstance(one.found, SetOut)]
    openings = [each for one in faces for each in one.elevation.openings]
    perimeter = sum(2 * (each.w + each.h) for each in openings) / _M
    reveal = inner + foam.d + outer
    sides = [(cover * _M, Rib(depth=rib * _M / 2) if rib else None) for cover in (inner, outer)]
    seams = sum(one.splines.length + one.posts.length for one in found)
    zones = {face.zone for face in faces}
    edges = [one.length.external for one in building.shape.edges
             if one.kind in ("corner_out", "corner_in") and zones.intersection(one.elements)]  # fmt: skip
    bottom = sum(one.bottom for one, face in zip(found, faces, strict=False) if face.kind == "wall")
    passes = (_passes(inner, choices), _passes(outer, choices))
    per_m2 = sum(one.n or 0.0 for one in assembly.fixings if one.kind == "wire")
    return MortaredFaces(
        assembly=assembly.id, name=assembly.name, area=area, covers=(inner, outer), rib=rib, reveal=reveal,
        perimeter=perimeter, passes=passes, waits=(max(passes) - 1) * choices.wait,
        volume=mortar(area, sides, perimeter, reveal * _M, outer * _M, choices.loss),
        splice=seams * 2 * choices.lap * 2, corners=sum(edges) * 2 * choices.corner * 2, diagonals=8 * len(openings),
        diagonal_area=8 * len(openings) * choices.diagonal * choices.strip, wires=whole(per_m2 * area),
        dowels=None if choices.dowel is None else choices.dowel_faces * _dowels(bottom, choices.dowel),
        trims=sum(one.sum.off_module for one in found),
    )  # fmt: skip


def _passes(cover: float, choices: WetChoices) -> int:
    return max(1, math.ceil(cover / choices.coat - 1e-9))


def _dowels(length: float, spacing: float) -> int:
    return math.ceil(length / spacing - 1e-9) + 1 if length > 0 else 0


def plastered(faces: Sequence[FaceSetOut], assembly: Assembly, choices: WetChoices, basis: Basis) -> PlasteredFaces:
    """Of one build-up."""
    core = assembly.core_index or 0
    bale, inner, outer = assembly.layers[core], assembly.layers[core - 1].d, assembly.layers[core + 1].d
    area, found = _area(faces), [one.found for one in faces if isinstance(one.found, SetOut)]
    rolls = sum(one.splines.length + one.posts.length for one in found)
    openings = [each for one in faces for each in one.elevation.openings]
    volume = area * (inner + outer + 2 * choices.bond) + rolls * choices.gap * bale.d * choices.roll
    panels = tuple(ToCast(one.mark, one.panel.piece.area * M2 * (max(inner, outer) + choices.bond))
                   for face in faces for one in face.panels)  # fmt: skip
    parts = [Ingredient(name=one.name, ratio=one.ratio, density=one.density, bag=one.bag) for one in choices.mix]
    return PlasteredFaces(
        assembly=assembly.id, name=assembly.name, area=area, coats=(inner, outer), straw=area * bale.d, rolls=rolls,
        plates=sum(one.bottom + one.top for one in found), frames=len(openings),
        frame_length=sum(2 * (one.w + one.h) for one in openings) / _M,
        needed=plaster(volume, parts, choices.yields, choices.batch * _M), panels=panels,
        plan=cast_plan(panels, beds=choices.beds, turn=choices.turn, cure=choices.cure, per_day=choices.mixer,
                       warm=lambda day: temperature(day, choices, basis) >= choices.cold),
        loose=sum(one.sum.off_module for one in found),
    )  # fmt: skip


def boarded(building: MeasuredBuilding, faces: Sequence[FaceSetOut], assembly: Assembly) -> BoardedFaces:
    """Of one build-up."""
    found = [one.found for one in faces if isinstance(one.found, SetOut)]
    openings = [each for one in faces for each in one.elevation.openings]
    layers = max((one.rules.rules.layers for one in faces), default=1)
    outline = sum(_round(one.elevation.outline) for one in faces)
    mine = {one.face for one in faces}
    return BoardedFaces(
        assembly=assembly.id, name=assembly.name, area=_area(faces) / layers, layers=layers,
        joints=sum(one.splines.length + one.posts.length for one in found),
        edges=layers * (outline + sum(2 * (one.w + one.h) for one in openings) / _M),
        grooves=sum(one.face in mine for one in building.setout.sockets),
    )  # fmt: skip


def _area(faces: Sequence[FaceSetOut]) -> float:
    return sum(one.panel.piece.area for face in faces for one in face.panels) * M2


def _round(outline: Sequence[tuple[float, float]]) -> float:
    return sum(math.dist(a, b) for a, b in zip(outline, (*outline[1:], outline[0]), strict=True)) / _M


def temperature(day: int, choices: WetChoices, basis: Basis) -> float:
    """Mean of a day of the casting: as read, else the month's. [°C]"""
    if day < len(choices.days):
        return choices.days[day]
    return float(basis.climate.theta_e[(choices.month - 1 + day // _MONTH) % 12])


@dataclass(frozen=True, slots=True, kw_only=True)
class Clocked:
    """A panel on its bed as it was logged."""

    panel: str
    cast: int
    turn: int | None  #: earliest
    lift: int | None
    lifted: int | None
    counted: int  #: warm days of the cure that had gone by when it was lifted, or on the last day read
    still: int  #: days on which the clock stood still


def clocked(choices: WetChoices, basis: Basis) -> Iterator[Clocked]:
    """Every panel that was cast."""

    def warm(day: int) -> bool:
        return temperature(day, choices, basis) >= choices.cold

    for one in choices.cast:
        turn = clock(one.cast, choices.turn, warm)
        lift = None if turn is None else clock(turn, choices.cure, warm)
        until = one.lifted if one.lifted is not None else max(len(choices.days) - 1, one.cast)
        days = range((one.cast if turn is None else turn) + 1, until + 1)
        yield Clocked(panel=one.panel, cast=one.cast, turn=turn, lift=lift, lifted=one.lifted,
                      counted=sum(warm(day) for day in days),
                      still=sum(not warm(day) for day in range(one.cast + 1, until + 1)))  # fmt: skip
