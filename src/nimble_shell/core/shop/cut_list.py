"""What a panel is made of in the shop: skins, core, and timber with its cuts. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.setout.elevation import NEAR
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.setout.panels import SetOut

LUMBER = 38.0  #: one piece of framing lumber
_LEAST_BOARD = 0.003  #: what is thinner is no board [m]
_BOARDS = frozenset({"panel", "fibre", "foam", "timber"})  #: families of what is cut from sheets
Stuff = Literal["bar", "sheet", "block", "panel"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """One piece, or several that are alike."""

    panel: str  #: its mark
    name: str
    stuff: Stuff
    material: str  #: key of the catalogue
    section: tuple[float, float]  #: of a bar its two sides; of others their thickness, and nought
    length: float  #: along its grain
    width: float = 0.0  #: of a sheet or block, across it
    count: int = 1
    ends: tuple[float, float] = (90.0, 90.0)  #: angles that a bar is cut at [°]
    shaped: bool = False  #: whether it is no rectangle

    @property
    def key(self) -> str:
        """What it is called from one set-out to the next."""
        return f"{self.panel} {self.name}"


def pieces_of_face(face: FaceSetOut, assembly: Assembly, catalogue: Catalogue) -> tuple[Piece, ...]:
    """Of all panels of a face, in their order; none where it could not be set out."""
    if not isinstance(face.found, SetOut):
        return ()
    make = _Panel(face, assembly, catalogue)
    return tuple(piece for one in face.panels for piece in make.pieces(one))


class _Panel:
    def __init__(self, face: FaceSetOut, assembly: Assembly, catalogue: Catalogue) -> None:
        self.face = face
        core = assembly.core_index
        self.core: Layer | None = None if core is None else assembly.layers[core]
        shop = [one for one in assembly.layers if one.fitted == "shop" and one is not self.core]
        self.boards = [one for one in shop if one.d > _LEAST_BOARD and catalogue[one.material].family in _BOARDS]
        members = () if self.core is None else self.core.members
        self.seam = next((one for one in members if one.joint == "seam"), None)
        self.plate = next((one for one in members if one.joint == "plate"), None)
        self.stud = next((one for one in members if one.joint == "stud"), None)
        bands = face.found.bands if isinstance(face.found, SetOut) else ()
        self.joints = {(band, x) for band, layers in enumerate(bands) for one in layers for x in one.joints}

    def pieces(self, one: Marked) -> Iterator[Piece]:
        piece, mark = one.panel.piece, one.mark
        w, h = piece.width, piece.height
        shaped = not piece.square
        if self.core is None or self._is_one():
            thick = sum(layer.d for layer in self.boards) * 1000 + (self.core.d * 1000 if self.core else 0.0)
            material = self.core.material if self.core else self.boards[0].material if self.boards else ""
            yield Piece(panel=mark, name="panel", stuff="panel", material=material, section=(thick, 0.0), length=h,
                        width=w, shaped=shaped)  # fmt: skip
            return
        for n, layer in enumerate(self.boards):
            name = ("skin, inside", "skin, outside")[n] if len(self.boards) == 2 else f"board {n + 1}"
            yield Piece(panel=mark, name=name, stuff="sheet", material=layer.material, section=(layer.d * 1000, 0.0),
                        length=h, width=w, shaped=shaped)  # fmt: skip
        plates = 0 if self.plate is None else max(1, round((self.plate.width or 0.0) * 1000 / LUMBER))
        yield Piece(panel=mark, name="core", stuff="block", material=self.core.material,
                    section=(self.core.d * 1000, 0.0), length=h - plates * LUMBER, width=w, shaped=shaped)  # fmt: skip
        yield from self._timber(one, plates, w, h)

    def _is_one(self) -> bool:
        """Whether it comes as a whole: metal skins on their core, and what has no timber in it."""
        return (self.seam is not None and self.seam.material == "steel") or not (self.plate or self.stud or self.seam)

    def _timber(self, one: Marked, plates: int, w: float, h: float) -> Iterator[Piece]:
        assert self.core is not None
        piece, mark, depth = one.panel.piece, one.mark, self.core.d * 1000
        material = (self.plate or self.stud or self.seam).material  # type: ignore[union-attr]  # one of them is there
        section = (LUMBER, depth)
        slope = _slope(one)
        if plates:
            yield Piece(panel=mark, name="bottom plate", stuff="bar", material=material, section=section, length=w)
            along = w / math.cos(math.radians(slope))
            angle = 90.0 - abs(slope)
            yield Piece(panel=mark, name="top plate", stuff="bar", material=material, section=section, length=along,
                        count=max(1, plates - 1), ends=(angle, angle))  # fmt: skip
        inner = h - plates * LUMBER
        if self.stud is not None and self.stud.centres:
            studs = math.ceil(w / (self.stud.centres * 1000) - NEAR) + 1
            yield Piece(panel=mark, name="stud", stuff="bar", material=self.stud.material, section=section,
                        length=inner, count=studs)  # fmt: skip
        if (one.panel.band, piece.x1) in self.joints:
            yield from self._at_joint(mark, piece.x1, material, section, inner)
        for each in self.face.elevation.openings:
            if piece.x0 - NEAR <= each.x and each.right <= piece.x1 + NEAR and piece.y0 < each.top < piece.y1 - NEAR:
                bearing = self.face.rules.rules.header_bearing
                yield Piece(panel=mark, name=f"header over {each.name}", stuff="bar", material=material,
                            section=section, length=each.w + 2 * bearing, count=2)  # fmt: skip

    def _at_joint(
        self, mark: str, x: float, material: str, section: tuple[float, float], length: float
    ) -> Iterator[Piece]:
        """What stands at a panel's right edge goes with it: a post where an opening ends there, else a spline."""
        edges = [end for each in self.face.elevation.openings for end in (each.x, each.right)]
        if any(abs(x - end) <= NEAR for end in edges):
            yield Piece(
                panel=mark, name="post", stuff="bar", material=material, section=section, length=length, count=2
            )
        elif self.seam is not None and self.seam.width:
            pieces = max(1, round(self.seam.width * 1000 / LUMBER))
            yield Piece(panel=mark, name="spline", stuff="bar", material=self.seam.material, section=section,
                        length=length, count=pieces)  # fmt: skip


def _slope(one: Marked) -> float:
    """Of its top edge, where that is one line. [°]"""
    piece = one.panel.piece
    top = [(x, y) for x, y in piece.outline if y > (piece.y0 + piece.y1) / 2]
    ends = [min(top, default=None), max(top, default=None)]
    if ends[0] is None or ends[1] is None or ends[1][0] - ends[0][0] <= NEAR:
        return 0.0
    return math.degrees(math.atan2(ends[1][1] - ends[0][1], ends[1][0] - ends[0][0]))
