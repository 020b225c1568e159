"""Where a wall is held down: places of an entered pattern, clear of splines, posts and joints. Lengths in mm."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.setout.elevation import NEAR, Band, bands_of
from nimble_shell.core.setout.entered import AnchorKind, Anchors
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.panels import NoWay
from nimble_shell.core.setout.plates import Plate, plates_of
from nimble_shell.core.setout.points import NoPoint, fewest_points

MEMBER = 38.0  #: half of what stands at a joint: a spline or a post of two pieces
_STEP = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Anchor:
    """One of them, at the foot of a face."""

    name: str
    kind: AnchorKind
    x: float
    y: float
    panel: str = ""  #: mark of the panel that covers it
    problem: str = ""  #: why it cannot stand there


@dataclass(frozen=True, slots=True, kw_only=True)
class NoAnchor:
    """A plate that a pattern does not go on."""

    name: str
    reason: str


def anchors_of(face: FaceSetOut, patterns: Sequence[Anchors]) -> tuple[Anchor | NoAnchor, ...]:
    """All patterns that are entered for a wall, along the bottom plates of its lowest storey."""
    if isinstance(face.found, NoWay) or face.kind != "wall":
        return ()
    band = bands_of(face.elevation)[0]
    found: list[Anchor | NoAnchor] = []
    for one in patterns:
        if one.face in ("", face.face):
            found += _placed(face, band, one) if one.at else _spaced(face, band, one)
    return tuple(found)


def _blocked(face: FaceSetOut, band: Band, clear: float) -> list[tuple[float, float, str]]:
    """What an anchor keeps clear of, with its name."""
    joints = [(one.x, "a post" if one.post else "a joint") for one in face.members() if one.band == band.index]
    at = [(x - MEMBER - clear, x + MEMBER + clear, name) for x, name in joints]
    return at + [(one.x - clear, one.right + clear, "a post") for one in band.posts]


def _spaced(face: FaceSetOut, band: Band, pattern: Anchors) -> Iterator[Anchor | NoAnchor]:
    blocked = _blocked(face, band, pattern.clear * 1000)
    for plate in plates_of(band, "bottom"):
        length, clear = plate.x1 - plate.x0, pattern.clear * 1000
        shifted = [(a - plate.x0, b - plate.x0) for a, b, _ in blocked]
        shifted += [(-clear - _STEP, clear), (length - clear, length + clear + _STEP)]  # nor at the ends of a plate
        found = fewest_points(length, end=min(pattern.end * 1000, length), spacing=(pattern.spacing or 0.0) * 1000,
                              step=_STEP, blocked=shifted)  # fmt: skip
        if isinstance(found, NoPoint):
            reason = sentence("no place from {a} to {b} keeps {c} from joints and posts",
                              a=((found.a + plate.x0) / 1000, "length"), b=((found.b + plate.x0) / 1000, "length"),
                              c=(pattern.clear, "length"))  # fmt: skip
            yield NoAnchor(name=pattern.name, reason=reason)
            continue
        for x in found:
            yield _anchor(face, plate, pattern, x + plate.x0)


def _placed(face: FaceSetOut, band: Band, pattern: Anchors) -> Iterator[Anchor | NoAnchor]:
    blocked = _blocked(face, band, pattern.clear * 1000)
    plates = plates_of(band, "bottom")
    for at in pattern.at:
        x = at * 1000
        plate = next((one for one in plates if one.x0 - NEAR <= x <= one.x1 + NEAR), None)
        if plate is None:
            yield NoAnchor(name=pattern.name, reason=sentence("no plate lies at {x}", x=(at, "length")))
            continue
        met = next((name for a, b, name in blocked if a + NEAR < x < b - NEAR), "")
        problem = sentence(f"{met} stands nearer than {{c}}", c=(pattern.clear, "length")) if met else ""
        yield _anchor(face, plate, pattern, x, problem)


def _anchor(face: FaceSetOut, plate: Plate, pattern: Anchors, x: float, problem: str = "") -> Anchor:
    over = next((one.mark for one in face.panels if one.panel.band == plate.band
                 and one.panel.piece.x0 - NEAR <= x <= one.panel.piece.x1 + NEAR), "")  # fmt: skip
    return Anchor(name=pattern.name, kind=pattern.kind, x=x, y=plate.y(x), panel=over, problem=problem)
