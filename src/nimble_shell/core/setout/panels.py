"""A wall or roof elevation cut into panels: joints to the proven optimum, its pieces, splines, posts and plates."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise

from nimble_shell.core.errors import DomainError
from nimble_shell.core.quantities.sentence import composed, sentence
from nimble_shell.core.setout.binding import ways_out
from nimble_shell.core.setout.elevation import NEAR, Band, Elevation, Opening, bands_of
from nimble_shell.core.setout.mirrored import best_mirrored
from nimble_shell.core.setout.partition import Layer, Sum, best_layer
from nimble_shell.core.setout.pieces import Piece, pieces_of
from nimble_shell.core.setout.plates import LINES, plates_of
from nimble_shell.core.setout.rules import Objective, Rules, Term
from nimble_shell.core.setout.staggered import best_pair
from nimble_shell.core.setout.strips import M2, BandStrips, joints_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Panel:
    """One piece, and where it belongs."""

    band: int
    layer: int
    piece: Piece
    mass: float  #: [kg]


@dataclass(frozen=True, slots=True, kw_only=True)
class Members:
    """Splines or posts."""

    count: int = 0
    length: float = 0.0  #: [m]

    def __add__(self, other: Members) -> Members:
        return Members(count=self.count + other.count, length=self.length + other.length)


@dataclass(frozen=True, slots=True, kw_only=True)
class SetOut:
    """An elevation with its joints."""

    bands: tuple[tuple[Layer, ...], ...]  #: of each band its layers
    panels: tuple[Panel, ...]
    sum: Sum
    splines: Members
    posts: Members
    bottom: float  #: developed length of base lines [m]
    top: float
    headers: float  #: [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class NoWay:
    """Why there is no partition."""

    reason: str


@dataclass(frozen=True, slots=True, kw_only=True)
class WhatIf:
    """An opening moved both ways, the case solved again each time."""

    now: int | None  #: panels; None where it is infeasible
    best: int | None  #: least panels of all
    least: float | None  #: shortest move that has them [mm]


@dataclass(frozen=True, slots=True)
class Pin:
    """A joint that has to be."""

    band: int
    x: float  #: [mm]


def set_out(elevation: Elevation, rules: Rules, objective: Objective, pins: Sequence[Pin] = ()) -> SetOut | NoWay:
    """The best joints of every band and layer, those that are pinned among them.

    Storeys are set out from below; where joints are to stand on those below ("astray"), each storey is at its
    optimum over the one that it stands on. Two layers of boards keep apart and count no term of neighbours.

    Raises
    ------
    DomainError
        If the outline, a level or an opening is refused.
    """
    layers: list[tuple[Layer, ...]] = []
    bands = bands_of(elevation)
    for band in bands:
        own = [one for one in pins if one.band == band.index]
        missed = _missed(band, rules, own)
        if missed is not None:
            return NoWay(reason=missed)
        below = tuple(x for one in layers[-1] for x in one.joints) if layers else None
        found = _layers_of(band, rules, objective, tuple(own), below if "astray" in objective.order else None)
        if found is None:
            return NoWay(reason=why_not(BandStrips(band, rules, [one.x for one in own])))
        layers.append(found)
    panels = [panel for band, own in zip(bands, layers, strict=True) for panel in _panels(band, own, rules)]
    splines, posts = _members(bands, layers)
    bottom, top = _plates(bands)
    return SetOut(
        bands=tuple(layers), panels=tuple(panels), sum=sum((one.sum for own in layers for one in own), Sum()),
        splines=splines, posts=posts, bottom=bottom, top=top, headers=_headers(bands, rules),
    )  # fmt: skip


def what_if(elevation: Elevation, rules: Rules, objective: Objective, name: str, most: float, step: float) -> WhatIf:
    """The named opening moved by whole steps both ways; positions that are refused are passed over.

    Raises
    ------
    DomainError
        If the elevation is refused as it is.
    """
    now = set_out(elevation, rules, objective)
    found: list[tuple[int, float]] = []
    for k in range(-int((most + NEAR) // step), int((most + NEAR) // step) + 1):
        moved = tuple(replace(one, x=one.x + k * step) if one.name == name else one for one in elevation.openings)
        try:
            there = set_out(replace(elevation, openings=moved), rules, objective)
        except DomainError:
            continue
        if isinstance(there, SetOut):
            found.append((there.sum.panels, abs(k * step)))
    panels = now.sum.panels if isinstance(now, SetOut) else None
    best, least = min(found) if found else (None, None)
    return WhatIf(now=panels, best=best, least=least)


def why_not(strips: BandStrips) -> str:
    """Where joints can be reached and none goes on from there, and which rule alone stands in the way."""
    reached, x = {0}, strips.x
    for j in range(1, len(x)):
        found = strips.to(j)
        if any(legal and found.first + n in reached for n, legal in enumerate(found.legal)):
            reached.add(j)
    if len(x) - 1 in reached:
        apart = "one layer can be set out, but joints of both cannot keep {v} apart"
        return sentence(f"storey {strips.band.index + 1}: {apart}", v=_length(strips.rules.stagger))
    far = float(x[max(reached)])
    near = next((one for one in strips.band.openings if one.right > far and one.x - far < strips.rules.widest), None)
    beside = "" if near is None else f", beside “{near.name}” from {{a}} to {{b}}"
    where = sentence(
        f"storey {strips.band.index + 1}: no legal panel goes on from {{far}}{beside}", far=_length(far),
        **({} if near is None else {"a": _length(near.x), "b": _length(near.right)}),
    )  # fmt: skip
    out = ways_out(strips.band, strips.rules, tuple(strips.pins.tolist()))
    return where if out is None else composed("{where}: {out}", where=where, out=out)


def _length(mm: float) -> tuple[float, str]:
    return mm / 1000, "length"


def _missed(band: Band, rules: Rules, pins: Sequence[Pin]) -> str | None:
    """Why a pinned joint cannot stand where it is; None if all can."""
    if pins and rules.layers == 2:
        return "joints of two layers are found together: none of them can be pinned"
    for one in pins:
        legal = joints_of(band, rules, [one.x])[1:-1]
        if not (abs(legal - one.x) <= NEAR).any():
            clear = rules.edge_clear
            near = next((each for each in band.openings if each.x - clear < one.x < each.right + clear), None)
            stands = f"storey {band.index + 1}: no joint can stand at {{x}}: "
            if near is None:
                return sentence(stands + "it lies beyond the ends", x=_length(one.x))
            return sentence(f"{stands}it meets “{near.name}”, from {{a}} to {{b}}", x=_length(one.x),
                            a=_length(near.x), b=_length(near.right))  # fmt: skip
    return None


def _layers_of(
    band: Band, rules: Rules, objective: Objective, pins: tuple[Pin, ...], below: tuple[float, ...] | None
) -> tuple[Layer, ...] | None:
    """Storeys that did not change are not solved again."""
    if objective.weights is None:
        return _ordered(band, rules, objective.order, pins, below)
    return _layers(band, rules, objective, pins, below)


@lru_cache(maxsize=4096)
def _ordered(
    band: Band, rules: Rules, order: tuple[Term, ...], pins: tuple[Pin, ...], below: tuple[float, ...] | None
) -> tuple[Layer, ...] | None:
    return _layers(band, rules, Objective(order=order), pins, below)


def _layers(
    band: Band, rules: Rules, objective: Objective, pins: Sequence[Pin], below: tuple[float, ...] | None
) -> tuple[Layer, ...] | None:
    strips = BandStrips(band, rules, [one.x for one in pins], below)
    if rules.layers == 2:
        return best_pair(strips, objective)
    one = (best_mirrored if "lopsided" in objective.order else best_layer)(strips, objective)
    return None if one is None else (one,)


def is_bay(band: Band, x0: float, x1: float) -> bool:
    """Whether a strip is exactly as wide as an opening; what lies below and above it may be cut turned."""
    return any(abs(one.x - x0) <= NEAR and abs(one.right - x1) <= NEAR for one in band.openings)


def _panels(band: Band, layers: Sequence[Layer], rules: Rules) -> Iterable[Panel]:
    for n, layer in enumerate(layers):
        ends = (band.x0, *layer.joints, band.x1)
        for x0, x1 in pairwise(ends):
            bay = is_bay(band, x0, x1)
            held = [one for one in band.openings if x0 - NEAR <= one.x and one.right <= x1 + NEAR]
            load = 0.0 if bay or rules.at_opening == "cut" else sum(one.mass for one in held)
            for piece in pieces_of(band, x0, x1):
                yield Panel(band=band.index, layer=n, piece=piece, mass=piece.area * M2 * rules.mass_per_m2 + load)


def _members(bands: Sequence[Band], layers: Sequence[Sequence[Layer]]) -> tuple[Members, Members]:
    splines, posts = Members(), Members()
    for band, own in zip(bands, layers, strict=True):
        for x in (x for layer in own for x in layer.joints):
            member = Members(count=1, length=band.member(x))
            if any(abs(x - edge) <= NEAR for one in band.openings for edge in (one.x, one.right)):
                posts += member
            else:
                splines += member
    return splines, posts


def _plates(bands: Sequence[Band]) -> tuple[float, float]:
    """Lengths of base and top lines; what an opening takes of a line that it lies on is left out. [m]"""
    bottom, top = (
        sum(one.length for band in bands for one in plates_of(band, line)) / 1000 for line in LINES
    )  # fmt: skip
    return bottom, top


def _headers(bands: Sequence[Band], rules: Rules) -> float:
    return sum(
        one.w + 2 * rules.header_bearing for band in bands for one in band.openings if not _reaches_top(band, one)
    ) / 1000  # fmt: skip


def _reaches_top(band: Band, one: Opening) -> bool:
    return any(
        abs(piece.top(x) - one.top) <= NEAR
        for piece in band.slices for x in (max(piece.x0, one.x), min(piece.x1, one.right)) if piece.x0 <= x <= piece.x1
    )  # fmt: skip
