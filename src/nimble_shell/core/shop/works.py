"""What is worked into a panel's core and skins before its timber goes in. Lengths in mm."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.elevation import NEAR
from nimble_shell.core.setout.entered import Sensor, Socket, Way
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.shop.cut_list import PanelCuts

Kind = Literal["recess", "bevel", "box", "chase", "sensor", "cable way"]
_BOX = (70.0, 70.0, 50.0)  #: of a socket: wide, high, deep
_CHASE = 30.0  #: of a chase, wide and deep
_CABLE = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Work:
    """One cut, along an edge of a panel or from a place in it; u and v from its lower left corner."""

    panel: str
    kind: Kind
    where: str  #: edge, or the identity of what it is for
    u: float = 0.0
    v: float = 0.0
    length: float
    wide: float = 0.0
    deep: float = 0.0
    angle: float = 0.0  #: off square [°]


@dataclass(frozen=True, slots=True)
class Placed:
    """A sensor or a socket on the elevation of its face."""

    of: Sensor | Socket
    x: float
    y: float

    def within(self, one: Marked) -> bool:
        """Whether it is in a panel; on a joint it is in the right one, in the first layer of two."""
        piece = one.panel.piece
        inside = piece.x0 - NEAR <= self.x < piece.x1 - NEAR and piece.y0 - NEAR <= self.y <= piece.y1 + NEAR
        return inside and one.panel.layer == 0


def fittings_of(face: FaceSetOut, choices: SetOutChoices) -> tuple[Placed, ...]:
    """Sensors and sockets that are entered for a face."""
    every: tuple[Sensor | Socket, ...] = (*choices.sensors, *choices.sockets)
    return tuple(Placed(one, one.u * 1000, one.v * 1000) for one in every if one.face == face.face)


def works_of(cuts: PanelCuts, one: Marked, placed: Sequence[Placed]) -> Iterator[Work]:
    """Recesses for splines, posts and plates, bevels at pitch, boxes and chases, sensors with their cable ways."""
    piece, mark, depth = one.panel.piece, one.mark, cuts.timbers.depth
    if cuts.timbers.material:
        edges = zip(("left", "right", "bottom", "top"), cuts.recesses(one), strict=True)
        for edge, deep in edges:
            if deep > NEAR:
                along = piece.height if edge in ("left", "right") else piece.width
                yield Work(panel=mark, kind="recess", where=edge, length=along, wide=depth, deep=deep)
    if cuts.face.pitch:
        for edge in ("bottom", "top"):
            yield Work(panel=mark, kind="bevel", where=edge, length=piece.width, angle=cuts.face.pitch)
    for each in placed:
        if each.within(one):
            yield from _fitted(one, each)


def _fitted(one: Marked, each: Placed) -> Iterator[Work]:
    piece, of = one.panel.piece, each.of
    u, v = each.x - piece.x0, each.y - piece.y0
    run = {"up": piece.height - v, "down": v, "left": u, "right": piece.width - u}[of.way]
    if isinstance(of, Socket):
        wide, _, deep = _BOX
        yield Work(panel=one.mark, kind="box", where=of.name, u=u, v=v, length=wide, wide=wide, deep=deep)
        yield Work(panel=one.mark, kind="chase", where=_words(of.way), u=u, v=v, length=run, wide=_CHASE, deep=_CHASE)
        return
    yield Work(panel=one.mark, kind="sensor", where=of.name, u=u, v=v, length=_CABLE, wide=_CABLE, deep=of.depth * 1000)
    yield Work(panel=one.mark, kind="cable way", where=_words(of.way), u=u, v=v, length=run, wide=_CABLE,
               deep=of.depth * 1000)  # fmt: skip


def _words(way: Way) -> str:
    return {"up": "to the top", "down": "to the bottom", "left": "to the left", "right": "to the right"}[way]
