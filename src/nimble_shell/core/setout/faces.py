"""Faces of a shape as elevations that are cut into panels. Shapes are in m, elevations in mm."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.errors import DomainError
from nimble_shell.core.geometry.face import Face, FloatArray
from nimble_shell.core.setout.choices import JointPin, SetOutChoices
from nimble_shell.core.setout.elevation import NEAR, Elevation, Opening, Post, bands_of
from nimble_shell.core.setout.panels import NoWay, Panel, Pin, SetOut, set_out
from nimble_shell.core.setout.rules import Objective, Rules
from nimble_shell.core.setout.systems import PanelRules

_FINE = 2  #: figures behind the point of a mm
_LETTERS = "ABCDEGHJKLMNPQTUVWXYZ"  #: of walls; none that reads as a number, a floor or a roof


@dataclass(frozen=True, slots=True, kw_only=True)
class Marked:
    """A panel with its mark."""

    mark: str  #: "A-03": face and order
    panel: Panel


@dataclass(frozen=True, slots=True)
class SetMember:
    """A spline, or a post where an opening ends. [mm]"""

    band: int
    layer: int
    x: float
    base: float
    top: float
    post: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class FaceSetOut:
    """A face cut into panels, or why it is not."""

    face: str
    mark: str
    kind: str
    zone: str  #: element that it counts with
    elevation: Elevation
    shift: tuple[float, float]  #: of the elevation's zero from the face's own u and v [m]
    rules: PanelRules
    openings: tuple[str, ...]  #: ids of the elevation's, which bear their marks
    pitch: float = 0.0  #: of a roof [°]
    pins: tuple[JointPin, ...]
    found: SetOut | NoWay
    panels: tuple[Marked, ...]

    def members(self) -> list[SetMember]:
        """Splines and posts of all storeys and layers, from below, then left to right."""
        if isinstance(self.found, NoWay):
            return []
        edges = [x for one in self.elevation.openings for x in (one.x, one.right)]
        return [
            SetMember(band.index, layer, x, *band.at(x), post=any(abs(x - edge) <= NEAR for edge in edges))
            for band, layers in zip(bands_of(self.elevation), self.found.bands, strict=True)
            for layer, own in enumerate(layers) for x in own.joints
        ]  # fmt: skip


def elevation_of(
    face: Face, flat: FloatArray, levels: Sequence[float], masses: Mapping[str, float], marks: Mapping[str, str]
) -> tuple[Elevation, tuple[float, float]]:
    """A face with its lower left corner at (0, 0), and where that is on the face.

    Parameters
    ----------
    flat : array, shape (corners, 2)
        Its outline in its plane, anticlockwise. [m]
    levels : sequence
        Heights of joints between storeys. [m]
    masses : mapping of opening id to float
        Of what stands in it. [kg]
    marks : mapping of opening id to str
        What it is called; where several of the face are called the same, their ids are.
    """
    several = Counter(marks.get(one.id, one.id) for one in face.openings)
    names = {one.id: mark if several[mark := marks.get(one.id, one.id)] == 1 else one.id for one in face.openings}
    u0, v0 = float(flat[:, 0].min()), float(flat[:, 1].min())
    low, high = v0, float(flat[:, 1].max())
    return (
        Elevation(
            outline=tuple((_mm(u - u0), _mm(v - v0)) for u, v in flat.tolist()),
            openings=tuple(
                Opening(name=names[one.id], x=_mm(one.u - u0), y=_mm(one.v - v0), w=_mm(one.w), h=_mm(one.h),
                        mass=masses.get(one.id, 0.0))
                for one in face.openings
            ),
            levels=tuple(_mm(one - v0) for one in sorted(levels) if low + 0.1 < one < high - 0.1),
        ),
        (u0, v0),
    )  # fmt: skip


def _mm(length: float) -> float:
    return round(length * 1000, _FINE)


def set_out_face(
    face: Face,
    mark: str,
    elevation: Elevation,
    shift: tuple[float, float],
    rules: PanelRules,
    choices: SetOutChoices,
    pitch: float = 0.0,
) -> FaceSetOut:
    """A face by its rules, round posts and what is pinned. What cannot be set out says why."""
    posts = tuple(
        Post(one.storey, _mm(one.u - one.width / 2), _mm(one.width)) for one in choices.posts if one.face == face.id
    )  # fmt: skip
    elevation = replace(elevation, posts=posts)
    mirrored = "lopsided" in choices.order and rules.rules.layers == 1
    rules = replace(rules, rules=replace(rules.rules, mirrored=mirrored))
    pins = tuple(one for one in choices.pins if one.face == face.id)
    found = _found(elevation, rules.rules, choices, _at(pins))
    panels = () if isinstance(found, NoWay) else tuple(
        Marked(mark=f"{mark}-{n:02d}", panel=one) for n, one in enumerate(_in_order(found.panels), 1)
    )  # fmt: skip
    return FaceSetOut(
        face=face.id, mark=mark, kind=face.kind, zone=face.zone, elevation=elevation, shift=shift, rules=rules,
        openings=tuple(one.id for one in face.openings), pins=pins, pitch=pitch, found=found, panels=panels,
    )  # fmt: skip


def set_out_again(face: FaceSetOut, elevation: Elevation, choices: SetOutChoices) -> SetOut | NoWay:
    """The face by another elevation, round the same pins."""
    return _found(elevation, face.rules.rules, choices, _at(face.pins))


def set_out_unpinned(face: FaceSetOut, choices: SetOutChoices) -> SetOut | NoWay:
    """The face with every joint free."""
    return _found(face.elevation, face.rules.rules, choices, ())


def module_in(face: FaceSetOut) -> float:
    """Width that its panels would best have. [mm]"""
    widths = face.rules.rules.module_widths
    return widths[0] if widths else face.rules.rules.widest


def _at(pins: Sequence[JointPin]) -> tuple[Pin, ...]:
    return tuple(Pin(band=one.storey, x=_mm(one.u)) for one in pins)


def _found(elevation: Elevation, rules: Rules, choices: SetOutChoices, pins: tuple[Pin, ...]) -> SetOut | NoWay:
    try:
        return set_out(elevation, rules, Objective(order=choices.order), pins)
    except DomainError as error:
        return NoWay(reason=error.issues[0].message)


def _in_order(panels: Sequence[Panel]) -> list[Panel]:
    """From below, then left to right, the lower of two pieces first."""
    return sorted(panels, key=lambda one: (one.band, one.layer, one.piece.x0, one.piece.y0))


def face_marks(faces: Sequence[Face]) -> dict[str, str]:
    """A letter for each wall in order; roofs and floors by their number."""
    found: dict[str, str] = {}
    walls = roofs = floors = 0
    for one in faces:
        if one.kind == "wall":
            round_, at = divmod(walls, len(_LETTERS))
            found[one.id] = _LETTERS[at] + (str(round_ + 1) if round_ else "")
            walls += 1
        elif one.kind == "roof":
            roofs += 1
            found[one.id] = f"R{roofs}"
        else:
            floors += 1
            found[one.id] = f"F{floors}"
    return found
