"""Runs of form blocks out of the walls of a shape: which walls hang together, their corners, bucks and stack joints.

Shapes are in m, runs in mm. Where a footing steps or another body begins a run has a free end; what rises above the
lowest eaves is a gable of its own.
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import shapely

from nimble_shell.core.geometry.face import MEET, Face, FloatArray
from nimble_shell.core.setout.courses.choices import FormChoices
from nimble_shell.core.setout.courses.run import NEAR, Block, Run, RunWall, WallOpening
from nimble_shell.core.windows.unit import UnitType

_MM, _FINE = 1000.0, 2
_SLIVER = 1e-3  #: of a gable [m²]
_SQUARE = 1e-6
End = Literal["corner", "step", "tee", "goes on", "free"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Form:
    """The form within a build-up. [m]"""

    foam_out: float
    core: float
    foam_in: float
    beyond: float  #: of the build-up outside of the form
    one_sided: bool

    @property
    def thickness(self) -> float:
        return self.foam_out + self.core + self.foam_in


@dataclass(frozen=True, slots=True, kw_only=True)
class Filling:
    """What an opening is filled with, and what goes round that: shim, flashing and buck. [m]"""

    name: str
    side: float
    head: float
    sill: float
    fin: bool = False  #: whether a fin fastens it: then the buck ends flush with the form's outer face


def filling(name: str, unit: UnitType | None, choices: FormChoices) -> Filling:
    """Of a type of unit; where an opening has none, with the usual shim and flashing."""
    if unit is None:
        more = choices.round_unit
        return Filling(name=name, side=more, head=more, sill=more)
    side = unit.shim + choices.buck
    return Filling(name=name, side=side, head=side, sill=side + unit.flashing, fin=unit.fin)


@dataclass(frozen=True, slots=True, kw_only=True)
class FormWall:
    """A wall of a run with where it is on the shape."""

    id: str  #: of the first of its faces
    mark: str
    faces: tuple[str, ...]
    u: float  #: of its left end on the face [m]
    openings: tuple[str, ...]  #: ids, in the order of the run's openings on it
    left: End
    right: End
    off: float  #: that its length lies off the web grid; nought on it [mm]


@dataclass(frozen=True, slots=True, kw_only=True)
class FormRun:
    """Walls that hang together, of one build-up."""

    id: str
    zone: str
    form: Form
    base: float  #: height of its foot [m]
    run: Run
    walls: tuple[FormWall, ...]
    gable: bool = False


@dataclass(frozen=True, slots=True)
class _Piece:
    """One wall of one build-up, from its left end: outline in the face's own plane. [m]"""

    faces: tuple[Face, ...]
    shape: shapely.Polygon
    left: FloatArray  #: in space
    right: FloatArray

    @property
    def id(self) -> str:
        return self.faces[0].id

    @property
    def base(self) -> float:
        return float(self.shape.bounds[1])

    @property
    def level(self) -> float:
        """Up to where it is as wide as at its foot: the lowest place of its upper edge."""
        left, low, right, high = self.shape.bounds
        at = {min(max(u + by, left + MEET), right - MEET)
              for u, _ in shapely.get_coordinates(self.shape.exterior).tolist() for by in (-MEET, MEET)}  # fmt: skip
        upright = (shapely.intersection(self.shape, shapely.LineString([(u, low), (u, high)])) for u in at)
        return round(float(min(one.bounds[3] for one in upright)), 2 * _FINE)

    @property
    def u(self) -> float:
        return float(self.shape.bounds[0])


def form_runs(
    faces: Sequence[Face], flats: Sequence[FloatArray], forms: Mapping[str, Form], choices: FormChoices,
    marks: Mapping[str, str], fillings: Mapping[str, Filling],
) -> list[FormRun]:  # fmt: skip
    """All runs of walls whose build-ups are forms.

    Parameters
    ----------
    faces, flats : sequences
        Of a shape, and their outlines by external dimensions. [m]
    forms : mapping of zone to Form
    marks : mapping of face id to str
    fillings : mapping of opening id to Filling
        What each is called and what goes round it.
    """
    found = list[FormRun]()
    several = Counter(one.name for one in fillings.values())
    told = {key: one if several[one.name] == 1 else replace(one, name=key) for key, one in fillings.items()}
    every = [face for face in faces if face.kind == "wall"]
    for zone, form in forms.items():
        pieces = list(_pieces([(f, flat) for f, flat in zip(faces, flats, strict=True)
                               if f.kind == "wall" and f.zone == zone]))  # fmt: skip
        for chain, closed in _chains(pieces):
            found += _runs(chain, closed, zone, form, choices, marks, told, every)
    return found


def _pieces(faces: Sequence[tuple[Face, FloatArray]]) -> Iterator[_Piece]:
    """Faces on one side of a body together: what lies below the ground and above it is one wall."""
    sides = defaultdict[tuple[str, ...], list[tuple[Face, FloatArray]]](list)
    for face, flat in faces:
        sides[tuple(face.id.split(".")[:2])].append((face, flat))
    for several in sides.values():
        whole = shapely.union_all([shapely.Polygon(flat) for _, flat in several], grid_size=1e-6)
        for shape in shapely.get_parts(whole):
            mine = tuple(face for face, flat in several
                         if shapely.intersection(shape, shapely.Polygon(flat)).area > _SLIVER)  # fmt: skip
            if mine and shape.area > _SLIVER:
                right, up, _ = mine[0].axes
                at = mine[0].origin + up * shape.bounds[1]
                yield _Piece(mine, shape, at + right * shape.bounds[0], at + right * shape.bounds[2])


def _chains(pieces: Sequence[_Piece]) -> Iterator[tuple[list[_Piece], bool]]:
    """Pieces that go on round a square corner on one level, left to right; and whether they close."""
    after = {n: next((k for k, other in enumerate(pieces) if k != n and _round_corner(one, other)), None)
             for n, one in enumerate(pieces)}  # fmt: skip
    has_before = {k for k in after.values() if k is not None}
    seen = set[int]()
    for begin in [*(n for n in after if n not in has_before), *after]:
        if begin in seen:
            continue
        chain, at = list[int](), begin
        while at not in seen:
            seen.add(at)
            chain.append(at)
            following = after[at]
            if following is None:
                break
            at = following
        yield [pieces[n] for n in chain], after[chain[-1]] == begin


def _round_corner(one: _Piece, other: _Piece) -> bool:
    if float(np.abs(one.right - other.left).max()) >= MEET:
        return False
    if abs(float(one.faces[0].axes[2] @ other.faces[0].axes[2])) >= _SQUARE:
        return False
    low, high = sorted((one.level - one.base, other.level - other.base))
    return low > high / 2  # much lower than its neighbour, it is a run of its own


def _runs(
    chain: Sequence[_Piece], closed: bool, zone: str, form: Form, choices: FormChoices, marks: Mapping[str, str],
    fillings: Mapping[str, Filling], every: Sequence[Face],
) -> Iterator[FormRun]:  # fmt: skip
    """One run up to its lowest eaves, and a gable for each wall that rises above them."""
    turns = [_turn(chain[n], chain[(n + 1) % len(chain)]) for n in range(len(chain))]
    if not closed:
        turns[-1] = None
    top, base = min(one.level for one in chain), chain[0].base
    several = Counter(mark for piece in chain for mark in [marks[piece.id]])
    called = [f"{marks[piece.id]}" + (f" {n + 1}" if several[marks[piece.id]] > 1 else "")
              for n, piece in enumerate(chain)]  # fmt: skip
    block = Block(length=choices.block * _MM, height=choices.height * _MM,
                  half_height=None if choices.half is None else choices.half * _MM, thickness=form.thickness * _MM,
                  increment=choices.web * _MM, min_cut=choices.min_cut * _MM, long=choices.long * _MM,
                  short=choices.short * _MM)  # fmt: skip
    walls, openings, lengths = list[RunWall](), list[WallOpening](), list[float]()
    shifts = list[float]()
    for n, piece in enumerate(chain):
        before = turns[n - 1] if closed or n else None
        shift = _inset(before, form)
        lengths.append(_mm(piece.shape.bounds[2] - piece.shape.bounds[0] - shift - _inset(turns[n], form)))
        shifts.append(piece.u + shift)
        walls.append(RunWall(name=called[n], length=lengths[-1], turn=turns[n]))
    of_wall = list[tuple[str, ...]]()
    for piece, mark, shift in zip(chain, called, shifts, strict=True):
        found = list(_bucks(piece, shift, mark, fillings, base, top))
        openings += [one for _, one in found]
        of_wall.append(tuple(key for key, _ in found))
    ends = _ends(chain, closed, turns, every)
    run = Run(block=block, bond=choices.bond * _MM, height=_mm(top - base), first_long=choices.first_long,
              closed=closed, walls=tuple(walls), openings=tuple(openings), webs=True)  # fmt: skip
    offs = [_off(run, n) for n in range(len(walls))]
    run = replace(run, stacks=_stacks(run, [one.id for one in chain], offs, choices))
    yield FormRun(id=chain[0].id, zone=zone, form=form, base=base, run=run, walls=tuple(
        FormWall(id=piece.id, mark=mark, faces=tuple(one.id for one in piece.faces), u=shift, openings=keys,
                 left=left, right=right, off=off)
        for piece, mark, shift, keys, (left, right), off in zip(chain, called, shifts, of_wall, ends, offs, strict=True)
    ))  # fmt: skip
    for piece, mark, shift, length in zip(chain, called, shifts, lengths, strict=True):
        yield from _gable(piece, f"{mark}, gable", shift, form, fillings,
                          replace(run, openings=(), stacks={}, walls=(RunWall(name=mark, length=length, turn=None),)),
                          zone, top)  # fmt: skip


def _inset(turn: str | None, form: Form) -> float:
    """What a wall is shorter along the form's outer face than by external dimensions, at one end. [m]"""
    return form.beyond if turn == "out" else -form.beyond if turn == "in" else 0.0


def _turn(one: _Piece, other: _Piece) -> Literal["out", "in"] | None:
    """Which way the run turns at a piece's right end."""
    right, ahead = one.faces[0].axes[0], other.faces[0].axes[0]
    return "out" if float(right[0] * ahead[1] - right[1] * ahead[0]) > 0 else "in"


def _bucks(
    piece: _Piece, shift: float, wall: str, fillings: Mapping[str, Filling], low: float, high: float
) -> Iterator[tuple[str, WallOpening]]:
    """Concrete openings that begin between two heights: units with what goes round them; a door has no sill."""
    box = piece.shape.buffer(1e-4)
    for face in piece.faces:
        for one in face.openings:
            inside = box.covers(shapely.box(one.u, one.v, one.u + one.w, one.v + one.h))
            if not inside or not low - MEET <= one.v < high - MEET:
                continue
            of = fillings[one.id]
            foot = one.v if one.v - piece.base < MEET else one.v - of.sill
            yield one.id, WallOpening(name=of.name, wall=wall, x=_mm(one.u - of.side - shift),
                                      y=max(0.0, _mm(foot - low)), w=_mm(one.w + 2 * of.side),
                                      h=_mm(one.v + one.h + of.head - max(foot, low)))  # fmt: skip


def _ends(
    chain: Sequence[_Piece], closed: bool, turns: Sequence[str | None], every: Sequence[Face]
) -> list[tuple[End, End]]:
    found = list[tuple[End, End]]()
    for n, piece in enumerate(chain):
        left: End = "corner" if closed or n else _free(piece, piece.left, every)
        right: End = "corner" if turns[n] is not None else _free(piece, piece.right, every)
        found.append((left, right))
    return found


def _free(piece: _Piece, at: FloatArray, every: Sequence[Face]) -> End:
    """What a wall ends at: another one that goes on beside it, on its level or a step off; one that passes."""
    own, right = {one.id for one in piece.faces}, piece.faces[0].axes[0]
    for face in every:
        if face.id in own:
            continue
        ahead, _, normal = face.axes
        flat = face.flat
        low, high = float(flat[:, 0].min()), float(flat[:, 0].max())
        along = float((at - face.origin) @ ahead)
        beside = abs(float((at - face.origin) @ normal)) < MEET
        if not beside or not low - MEET <= along <= high + MEET:
            continue
        if abs(float(ahead @ right)) > 1 - _SQUARE:
            return "goes on" if abs(float(flat[:, 1].min()) - piece.base) < MEET else "step"
        if low + MEET < along < high - MEET:
            return "tee"
    return "free"


def _off(run: Run, wall: int) -> float:
    """How far the length between legs lies off the web grid; the same in all courses."""
    legs = run.legs(wall, 0)
    left = (run.walls[wall].length - legs.left - legs.right) / run.block.increment
    off = (left - round(left)) * run.block.increment
    return off if abs(off) > NEAR * run.block.increment + 1e-3 else 0.0


def with_openings(of: FormRun, openings: tuple[WallOpening, ...], choices: FormChoices) -> FormRun:
    """The run with other openings; stack joints that nobody entered go where they are clear of them."""
    moved = replace(of.run, openings=openings, stacks={})
    offs = [one.off for one in of.walls]
    return replace(of, run=replace(moved, stacks=_stacks(moved, [one.id for one in of.walls], offs, choices)))


def _stacks(run: Run, ids: Sequence[str], offs: Sequence[float], choices: FormChoices) -> dict[str, float]:
    """Where somebody put them; else one on each wall that is off the grid, as far from everything as it can be."""
    entered = {one.wall: one.u * _MM for one in choices.stacks}
    found = {}
    for n, wall in enumerate(run.walls):
        if ids[n] in entered:
            found[wall.name] = entered[ids[n]]
        elif offs[n]:
            place = _clear_place(run, n)
            if place is not None:
                found[wall.name] = place
    return found


def _clear_place(run: Run, wall: int) -> float | None:
    """In the middle of the widest stretch between legs and openings, on the web grid of its left end; None if none."""
    legs = [run.legs(wall, course) for course in (0, 1)]
    low = max(one.left for one in legs)
    high = run.walls[wall].length - max(one.right for one in legs)
    edges = [low, *(x for one in run.of(wall) for x in (one.x, one.right)), high]
    widest = max(((b - a, a, b) for a, b in zip(edges[::2], edges[1::2], strict=True)), default=(0.0, 0.0, 0.0))
    if widest[0] < 2 * run.block.min_cut:
        return None
    start = legs[0].left
    place = start + round(((widest[1] + widest[2]) / 2 - start) / run.block.increment) * run.block.increment
    inside = widest[1] + run.block.min_cut <= place <= widest[2] - run.block.min_cut
    return place if inside else (widest[1] + widest[2]) / 2


def _gable(
    piece: _Piece, mark: str, shift: float, form: Form, fillings: Mapping[str, Filling], run: Run,
    zone: str, top: float,
) -> Iterator[FormRun]:  # fmt: skip
    """What of a wall rises above the run's eaves, laid on its web grid."""
    high, length = piece.shape.bounds[3], run.walls[0].length
    if high <= top + MEET:
        return
    rest = shapely.intersection(piece.shape, shapely.box(shift, top, shift + length / _MM, high))
    if rest.area <= _SLIVER or not isinstance(rest, shapely.Polygon):
        return
    outline = tuple((_mm(u - shift), _mm(z - top)) for u, z in shapely.get_coordinates(rest.exterior)[:-1].tolist())
    key = f"{piece.id}.gable"
    bucks = list(_bucks(piece, shift, mark, fillings, top, high))
    alone = replace(run, block=replace(run.block, half_height=None), height=_mm(rest.bounds[3] - top), closed=False,
                    raked=outline, walls=(RunWall(name=mark, length=length, turn=None),),
                    openings=tuple(one for _, one in bucks))  # fmt: skip
    yield FormRun(id=key, zone=zone, form=form, base=top, run=alone, gable=True, walls=(
        FormWall(id=key, mark=mark, faces=tuple(one.id for one in piece.faces), u=shift,
                 openings=tuple(one for one, _ in bucks), left="free", right="free", off=0.0),
    ))  # fmt: skip


def _mm(length: float) -> float:
    return round(length * _MM, _FINE)
