"""Faces cut into panels as a DXF drawing in mm: panels with marks, joints, openings and dimensions, by layers."""

from __future__ import annotations

import io
from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import Any

from nimble_shell.core.setout.elevation import bands_of
from nimble_shell.core.setout.panels import SetOut
from nimble_shell.reports.setout_svg import PaperFace
from nimble_shell.reports.written import cleaned

#: Layer, colour by its index, and pen. [1/100 mm]
LAYERS = {"FACE": (7, 50), "PANELS": (8, 25), "MARKS": (7, 18), "SPLINES": (3, 35), "POSTS": (1, 70),
          "OPENINGS": (5, 35), "LEVELS": (7, 35), "PLATES": (3, 25),
          "ANCHORS": (6, 35), "FITTINGS": (4, 25), "DIMENSIONS": (8, 13)}  # fmt: skip
_STYLE = "SETOUT"
_GAP = 2500.0  #: between faces [mm]
_TEXT = 125.0


def faces_dxf(faces: Sequence[PaperFace]) -> bytes:
    """All faces side by side in model space, each on its own ground line."""
    from ezdxf import units  # one and a half seconds that no other start needs
    from ezdxf._options import options
    from ezdxf.filemanagement import new

    options.write_fixed_meta_data_for_testing = True  # the same drawing is the same file
    drawing = new("R2010", setup=["linetypes"])
    drawing.units = units.MM
    for name, (colour, pen) in LAYERS.items():
        drawing.layers.add(name, color=colour, lineweight=pen)
    style = drawing.dimstyles.duplicate_entry("Standard", _STYLE)
    # Of metres and with a factor of 100 as it comes; here a millimetre is a millimetre.
    for key, value in {"dimtxt": _TEXT, "dimexe": 60, "dimexo": 60, "dimgap": 40, "dimdec": 0, "dimtad": 1,
                       "dimlfac": 1, "dimzin": 8, "dimtsz": 60}.items():  # fmt: skip
        style.set_dxf_attrib(key, value)
    space, x = drawing.modelspace(), 0.0
    for face in faces:
        _face(space, face, x)
        x += max(one[0] for one in face.face.elevation.outline) + _GAP
    written = io.StringIO()
    drawing.write(written)
    return written.getvalue().encode()


def _face(space: Any, paper: PaperFace, x: float) -> None:
    face = paper.face

    def ring(points: Sequence[tuple[float, float]], layer: str) -> None:
        space.add_lwpolyline([(x + a, b) for a, b in points], close=True, dxfattribs={"layer": layer})

    def line(a: tuple[float, float], b: tuple[float, float], layer: str) -> None:
        space.add_line((x + a[0], a[1]), (x + b[0], b[1]), dxfattribs={"layer": layer})

    def text(words: str, at: tuple[float, float], height: float = _TEXT) -> None:
        from ezdxf.enums import TextEntityAlignment

        made = space.add_text(cleaned(words), height=height, dxfattribs={"layer": "MARKS"})
        made.set_placement((x + at[0], at[1]), align=TextEntityAlignment.MIDDLE_CENTER)

    outline = face.elevation.outline
    wide, high = max(a for a, _ in outline), max(b for _, b in outline)
    ring(outline, "FACE")
    text(face.mark, (wide / 2, high + 600), 2 * _TEXT)
    for one in face.elevation.openings:
        ring([(one.x, one.y), (one.right, one.y), (one.right, one.top), (one.x, one.top)], "OPENINGS")
        text(one.name, (one.x + one.w / 2, one.y + one.h / 2))
    for level in face.elevation.levels:
        line((0.0, level), (wide, level), "LEVELS")
    if not isinstance(face.found, SetOut):
        return
    for marked in face.panels:
        piece = marked.panel.piece
        ring(piece.outline, "PANELS")
        text(marked.mark, ((piece.x0 + piece.x1) / 2, piece.y1 - 200 if piece.square else (piece.y0 + piece.y1) / 2))
    for member in face.members():
        line((member.x, member.base), (member.x, member.top), "POSTS" if member.post else "SPLINES")
    _built(paper, ring, line, text)
    lowest = [0.0, *(one for layer in face.found.bands[0][:1] for one in layer.joints), wide]
    edges = [end for one in face.elevation.openings for end in (one.x, one.right)]
    for row, places in ((-400.0, lowest), (-800.0, sorted({0.0, wide, *edges}))):
        for a, b in pairwise(places):
            space.add_linear_dim(base=(x, row), p1=(x + a, 0.0), p2=(x + b, 0.0), dimstyle=_STYLE,
                                 dxfattribs={"layer": "DIMENSIONS"}).render()  # fmt: skip


def _built(paper: PaperFace, ring: Callable[..., None], line: Callable[..., None], text: Callable[..., None]) -> None:
    """Posts under loads, plates piece by piece, anchors, sensors and sockets."""
    face = paper.face
    for post in face.elevation.posts:
        base, top = bands_of(face.elevation)[post.band].at(post.x + post.w / 2)
        ring([(post.x, base), (post.right, base), (post.right, top), (post.x, top)], "POSTS")
    for plate in paper.plates:
        for a, b in pairwise((plate.x0, *plate.butts, plate.x1)):
            line((a, plate.y(a)), (b, plate.y(b)), "PLATES")
    for anchor in paper.anchors:
        line((anchor.x, anchor.y), (anchor.x, anchor.y - 180), "ANCHORS")
        line((anchor.x - 50, anchor.y - 180), (anchor.x + 50, anchor.y - 180), "ANCHORS")
    for each in paper.fitted:
        ring([(each.x - 35, each.y - 35), (each.x + 35, each.y - 35), (each.x + 35, each.y + 35),
              (each.x - 35, each.y + 35)], "FITTINGS")  # fmt: skip
        text(each.of.name, (each.x, each.y + 110), 0.6 * _TEXT)
