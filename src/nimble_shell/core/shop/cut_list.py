"""What a panel is made of in the shop: skins, core, and timber with its cuts. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.setout.elevation import NEAR, Opening, bands_of
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.setout.panels import SetOut
from nimble_shell.core.setout.plates import LINES, Line, Plate, butted, plates_of
from nimble_shell.core.setout.points import NoPoint

LUMBER = 38.0  #: one piece of framing lumber
POST = 2 * LUMBER  #: what stands beside an opening
_STAGGER = 600.0  #: butt joints of one plate from those of the next
_LEAST_BOARD = 0.003  #: what is thinner is no board [m]
_SHEET_METAL = 0.7  #: of a trim
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
    bevel: float = 0.0  #: of both ends of a board or block through its thickness, off square [°]
    shaped: bool = False  #: whether it is no rectangle

    @property
    def key(self) -> str:
        """What it is called from one set-out to the next."""
        return f"{self.panel} {self.name}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Timbers:
    """What of a build-up's core stands at seams and plates."""

    seam: float = 0.0  #: width of what stands at a joint
    plates: int = 0  #: one below, the others above
    material: str = ""
    depth: float = 0.0  #: of the core

    @property
    def section(self) -> tuple[float, float]:
        return LUMBER, self.depth


def timbers_of(assembly: Assembly) -> Timbers:
    """Of a build-up; nothing where its panels come as they are, or have no timber in them."""
    if assembly.core_index is None:
        return Timbers()
    core = assembly.layers[assembly.core_index]
    of = {one.joint: one for one in reversed(core.members)}
    seam, plate, stud = of.get("seam"), of.get("plate"), of.get("stud")
    first = plate or stud or seam
    if first is None or (seam is not None and seam.material == "steel"):
        return Timbers(depth=core.d * 1000)
    plates = 0 if plate is None else max(1, round((plate.width or 0.0) * 1000 / LUMBER))
    return Timbers(seam=(seam.width or 0.0) * 1000 if seam is not None else 0.0, plates=plates,
                   material=first.material, depth=core.d * 1000)  # fmt: skip


def pieces_of_face(face: FaceSetOut, assembly: Assembly, catalogue: Catalogue, stock: float) -> tuple[Piece, ...]:
    """Of all panels of a face, in their order; none where it could not be set out. Plates run on over several panels.

    Parameters
    ----------
    stock : float
        Longest bar that plates are cut from.
    """
    if not isinstance(face.found, SetOut):
        return ()
    make = PanelCuts(face, assembly, catalogue, stock)
    return tuple(piece for one in face.panels for piece in make.pieces(one))


def face_plates(face: FaceSetOut, plates: int, stock: float) -> tuple[tuple[int, Plate | NoPoint, Plate], ...]:
    """Every plate of a face: which of its line it is from 0, butted and as it runs.

    Butt joints keep clear of joints between panels, and of those in the plate below.
    """
    if not isinstance(face.found, SetOut) or not plates:
        return ()
    found: list[tuple[int, Plate | NoPoint, Plate]] = []
    each: tuple[tuple[Line, int], ...] = (("bottom", 1), ("top", max(1, plates - 1)))
    for band, layers in zip(bands_of(face.elevation), face.found.bands, strict=True):
        joints = [x for layer in layers for x in layer.joints]
        for line, several in each:
            for run in plates_of(band, line):
                last: tuple[float, ...] = ()
                for n in range(several):
                    made = butted(run, stock, joints, face.rules.rules.edge_clear, last, _STAGGER)
                    last = () if isinstance(made, NoPoint) else made.butts
                    found.append((n, made, run))
    return tuple(found)


class PanelCuts:
    """Panels of one face, whose build-up they share."""

    def __init__(self, face: FaceSetOut, assembly: Assembly, catalogue: Catalogue, stock: float) -> None:
        self.face = face
        core = assembly.core_index
        self.core: Layer | None = None if core is None else assembly.layers[core]
        shop = [one for one in assembly.layers if one.fitted == "shop" and one is not self.core]
        self.boards = [one for one in shop if one.d > _LEAST_BOARD and catalogue[one.material].family in _BOARDS]
        members = () if self.core is None else self.core.members
        self.seam = next((one for one in members if one.joint == "seam"), None)
        self.stud = next((one for one in members if one.joint == "stud"), None)
        self.timbers = timbers_of(assembly)
        self.edges = [end for each in face.elevation.openings for end in (each.x, each.right)]
        self.joints = {(one.band, one.x) for one in face.members()}
        self.plates = face_plates(face, self.timbers.plates, stock)
        self.lines = {(band.index, line): plates_of(band, line) for band in bands_of(face.elevation) for line in LINES}

    def pieces(self, one: Marked) -> Iterator[Piece]:
        piece, mark = one.panel.piece, one.mark
        w, h, bevel = piece.width, piece.height, self.face.pitch
        shaped = not piece.square
        if self.core is None or not self.timbers.material:
            thick = sum(layer.d for layer in self.boards) * 1000 + (self.core.d * 1000 if self.core else 0.0)
            material = self.core.material if self.core else self.boards[0].material if self.boards else ""
            yield Piece(panel=mark, name="panel", stuff="panel", material=material, section=(thick, 0.0), length=h,
                        width=w, shaped=shaped, bevel=bevel)  # fmt: skip
            if self.seam is not None and self.seam.material == "steel":
                yield from self._trims(one)
            return
        for n, layer in enumerate(self.boards):
            name = ("skin, inside", "skin, outside")[n] if len(self.boards) == 2 else f"board {n + 1}"
            yield Piece(panel=mark, name=name, stuff="sheet", material=layer.material, section=(layer.d * 1000, 0.0),
                        length=h, width=w, shaped=shaped, bevel=bevel)  # fmt: skip
        left, right, low, high = self.recesses(one)
        yield Piece(panel=mark, name="core", stuff="block", material=self.core.material, bevel=bevel,
                    section=(self.core.d * 1000, 0.0), length=h - low - high, width=w - left - right,
                    shaped=shaped)  # fmt: skip
        yield from self._plates(one)
        yield from self._timber(one, h - low - high)

    def _plates(self, one: Marked) -> Iterator[Piece]:
        """Those whose left end lies in this panel; they run on into the next ones."""
        piece = one.panel.piece
        number = {"bottom": 0, "top": 0}
        for _, made, run in self.plates:
            plate = run if isinstance(made, NoPoint) else made
            starts = (plate.x0, *plate.butts)
            for n, (x, length) in enumerate(zip(starts, plate.pieces, strict=True)):
                if plate.band != one.panel.band or not piece.x0 - NEAR <= x < piece.x1 - NEAR:
                    continue
                if one.panel.layer or not piece.y0 - NEAR <= plate.y(x) <= piece.y1 + NEAR:
                    continue
                number[plate.line] += 1
                again = f" {number[plate.line]}" if number[plate.line] > 1 else ""
                angle = 90.0 - abs(plate.slope)
                ends = (angle if n == 0 else 90.0, angle if n == len(plate.pieces) - 1 else 90.0)
                yield Piece(
                    panel=one.mark, name=f"{plate.line} plate{again}", stuff="bar",
                    material=self.timbers.material, section=self.timbers.section, length=length, ends=ends,
                )  # fmt: skip

    def _timber(self, one: Marked, inner: float) -> Iterator[Piece]:
        piece, mark, material, section = one.panel.piece, one.mark, self.timbers.material, self.timbers.section

        def bar(name: str, length: float, count: int, of: str = "") -> Piece:
            return Piece(panel=mark, name=name, stuff="bar", material=of or material, section=section, length=length,
                         count=count)  # fmt: skip

        if self.stud is not None and self.stud.centres:
            studs = math.ceil(piece.width / (self.stud.centres * 1000) - NEAR) + 1
            yield bar("stud", inner, studs, self.stud.material)
        if (one.panel.band, piece.x1) in self.joints:
            if any(abs(piece.x1 - end) <= NEAR for end in self.edges):
                yield bar("post", inner, 2)
            elif self.timbers.seam and self.seam is not None:
                yield bar("spline", inner, max(1, round(self.timbers.seam / LUMBER)), self.seam.material)
        for n, post in enumerate(self.face.elevation.posts, 1):
            if post.band == one.panel.band and piece.x0 - NEAR <= post.x and post.right <= piece.x1 + NEAR:
                yield bar(f"entered post {n}", inner, max(1, round(post.w / LUMBER)))
        for each in self._held(one):
            if each.top < piece.y1 - NEAR:
                yield bar(f"header over {each.name}", each.w + 2 * self.face.rules.rules.header_bearing, 2)
            yield bar(f"jamb of {each.name}", each.h, 2)
            if each.y > piece.y0 + NEAR:
                yield bar(f"sill of {each.name}", each.w, 1)

    def _held(self, one: Marked) -> list[Opening]:
        """Openings that lie in a panel, or that a panel above them spans."""
        piece = one.panel.piece
        return [
            each for each in self.face.elevation.openings
            if piece.x0 - NEAR <= each.x and each.right <= piece.x1 + NEAR
            and piece.y0 < each.top < piece.y1 + NEAR
        ]  # fmt: skip

    def _trims(self, one: Marked) -> Iterator[Piece]:
        """Round an opening of metal panels, from the panel that its left edge lies in."""
        piece = one.panel.piece
        for each in self.face.elevation.openings:
            if piece.x0 <= each.x < piece.x1 and piece.y0 < each.top and each.y < piece.y1:
                for name, length, count in (("head trim", each.w, 1), ("sill trim", each.w, int(each.y > piece.y0)),
                                            ("jamb trim", each.h, 2)):  # fmt: skip
                    if count:
                        yield Piece(panel=one.mark, name=f"{name} of {each.name}", stuff="bar", material="steel",
                                    section=(_SHEET_METAL, self.timbers.depth), length=length, count=count)  # fmt: skip

    def recesses(self, one: Marked) -> tuple[float, float, float, float]:
        """How far the core stands back from the skins at the left, the right, below and above."""
        piece, plates = one.panel.piece, self.timbers.plates

        def beside(x: float) -> float:
            if (one.panel.band, x) not in self.joints:
                return LUMBER if plates else 0.0  # an end post at a corner
            if not any(abs(x - end) <= NEAR for end in self.edges):
                return self.timbers.seam / 2
            return 0.0 if _spans(self.face, one, x) else POST

        def borders(line: Line, y: float) -> bool:
            runs = self.lines[one.panel.band, line]
            return any(abs(run.y(x) - y) <= NEAR for run in runs for x in _inside(run, piece.x0, piece.x1))

        low = LUMBER if plates and borders("bottom", piece.y0) else 0.0
        high = LUMBER * max(1, plates - 1) if plates and borders("top", piece.y1) else 0.0
        return beside(piece.x0), beside(piece.x1), low, high


def _spans(face: FaceSetOut, one: Marked, x: float) -> bool:
    """Whether a panel lies over or under the opening that ends here, whose post stands in its neighbour."""
    middle = (one.panel.piece.x0 + one.panel.piece.x1) / 2
    return any(
        each.x < middle < each.right and x in (each.x, each.right) for each in face.elevation.openings
    )  # fmt: skip


def _inside(plate: Plate, x0: float, x1: float) -> Sequence[float]:
    a, b = max(plate.x0, x0), min(plate.x1, x1)
    return (a, b) if b > a + NEAR else ()
