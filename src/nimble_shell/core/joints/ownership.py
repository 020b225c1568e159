"""Whose a member is: the area's share, until a joint stands in its place and takes over as much as stands there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import shapely

from nimble_shell.core.assemblies.assembly import Assembly, JointPlace, Member, nominal_share
from nimble_shell.core.joints.drawing import SNAP, Drawing
from nimble_shell.core.joints.families.family import Lines, Owned
from nimble_shell.core.joints.stack import Stack

#: Of the plates over a wall's height, those at its foot: one piece of lumber of three, or one box of two.
_FOOT = {"straw-bale": 1 / 2}
_FOOT_USUAL = 1 / 3
_NOTHING = 1e-9  #: of a share that is left, rounding alone
_MEMBERS = ("timber", "panel", "metal")  #: families of materials that members are of


@dataclass(frozen=True, slots=True, kw_only=True)
class Taken:
    """What a joint has taken over of a build-up's members at a place."""

    assembly_id: str
    place: JointPlace
    lines: float | None  #: members whose place it takes; None where only what it draws says it
    drawn: float  #: width of what it draws in the build-up's core [m]
    length: float  #: of the joint [m]

    def area(self, member: Member) -> float:
        """Of the members, on the face: by count where the width of one is known, else by what is drawn. [m²]"""
        if self.lines is not None and member.width is not None:
            return self.lines * member.width * self.length
        return self.drawn * self.length


def taken_by(owned: Owned, assembly_id: str, stack: Stack, drawing: Drawing, length: float) -> Taken:
    """What a joint takes over of a build-up, over its length. [m]"""
    return Taken(
        assembly_id=assembly_id,
        place=owned.place,
        lines=_lines(owned.lines, stack.system),
        drawn=_drawn_width(drawing, stack),
        length=length,
    )


def left_in(assembly: Assembly, area: float, taken: Sequence[Taken]) -> Assembly:
    """The build-up with the members that its joints have left to the area.

    Parameters
    ----------
    assembly : Assembly
    area : float
        Of the building's elements that have this build-up, net of openings. [m²]
    taken : sequence of Taken
        Over all joints; those of other build-ups do not count.

    Returns
    -------
    Assembly
        Itself where nothing is taken; a member of which all is taken is gone.

    Notes
    -----
    A wall of area A with members of share f has f·A of them. A joint of length l that stands in the place of n members
    of width b takes n·b·l; the rest stays with the area. More than there is cannot be taken.
    """
    own = [one for one in taken if one.assembly_id == assembly.id and one.length > 0]
    if not own or area <= 0:
        return assembly
    layers = []
    for layer in assembly.layers:
        members = tuple(left for left in (_left(member, area, own) for member in layer.members) if left is not None)
        layers.append(layer if members == layer.members else replace(layer, members=members))
    return assembly if all(a is b for a, b in zip(layers, assembly.layers, strict=True)) else replace(
        assembly, layers=tuple(layers)
    )  # fmt: skip


def _left(member: Member, area: float, taken: Sequence[Taken]) -> Member | None:
    gone = sum(one.area(member) for one in taken if one.place == member.joint) if member.joint else 0.0
    if gone <= 0:
        return member
    rest = 1 - gone / (nominal_share(member) * area)
    if rest < _NOTHING:
        return None
    if member.share is not None:
        return replace(member, share=member.share * rest)
    return replace(member, width=(member.width or 0.0) * rest)


def _lines(lines: Lines, system: str) -> float | None:
    if lines == "drawn":
        return None
    foot = _FOOT.get(system, _FOOT_USUAL)
    return {"foot": foot, "head": 1 - foot}[lines] if isinstance(lines, str) else lines


def _drawn_width(drawing: Drawing, stack: Stack) -> float:
    """Of the members that are drawn, as if each went through the whole core. [m]"""
    seen: shapely.Geometry = shapely.Polygon()
    for shape in drawing.shapes:
        ring = shapely.Polygon(shape.ring)
        is_member = shape.part and not shape.opening and shape.fill is not None and shape.fill.family in _MEMBERS
        seen = (shapely.union if is_member else shapely.difference)(seen, ring, grid_size=SNAP)
    a, b = stack.core_span
    return float(seen.area) / (b - a)
