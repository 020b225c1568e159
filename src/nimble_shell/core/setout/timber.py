"""What a set-out puts between its panels, and what that is of the wall: timber, seams, plates. Lengths in m."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly, Layer, Member
from nimble_shell.core.setout.elevation import Elevation, bands_of
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.panels import SetOut
from nimble_shell.core.setout.strips import M2

LUMBER = 0.038  #: one piece of framing lumber [m]
_FRAME = frozenset({"seam", "plate", "stud", "frame"})
_HEADER = 0.185  #: height of a header, where nobody has entered one [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Timber:
    """Of faces that are one build-up."""

    area: float = 0.0  #: of panels [m²]
    panels: int = 0
    splines: float = 0.0  #: their length [m]
    posts: float = 0.0
    bottom: float = 0.0
    top: float = 0.0
    headers: float = 0.0
    entered: float = 0.0  #: seen area of posts under loads [m²]
    through: int = 0  #: screws through the core

    def __add__(self, other: Timber) -> Timber:
        return Timber(**{name: getattr(self, name) + getattr(other, name) for name in self.__slots__})

    @property
    def seams(self) -> float:
        """All joints between panels, at posts too. [m]"""
        return self.splines + self.posts

    @property
    def at_openings(self) -> float:
        """Seen area of posts and headers, those under loads among them. [m²]"""
        return self.posts * 2 * LUMBER + self.headers * _HEADER + self.entered


def timber_of(faces: Iterable[FaceSetOut]) -> Timber:
    """Of all faces that could be set out."""
    total = Timber()
    for one in faces:
        found = one.found
        if isinstance(found, SetOut):
            total += Timber(
                area=sum(panel.piece.area for panel in found.panels) * M2 / one.rules.rules.layers,
                panels=len(found.panels), splines=found.splines.length, posts=found.posts.length,
                bottom=found.bottom, top=found.top, headers=found.headers, entered=_entered(one.elevation),
            )  # fmt: skip
    return total


def _entered(elevation: Elevation) -> float:
    """Seen area of entered posts. [m²]"""
    bands = bands_of(elevation)
    return sum(post.w * bands[post.band].member(post.x + post.w / 2) / 1000 for post in elevation.posts)


def from_set_out(assembly: Assembly, timber: Timber) -> Assembly:
    """A build-up whose members at seams, plates and openings are as many as they are set out.

    Members keep their widths; what changes is how far apart they are. A seam that no member stands in stays without.
    Posts and headers become a member of their own, and with them the second stud of each seam between cassettes,
    unless the build-up has a member for frames already. Screws through the core are as many as were counted.
    """
    if timber.area <= 0:
        return assembly
    layers = tuple(_layer(one, timber) if one.members else one for one in assembly.layers)
    fixings = tuple(
        replace(one, n=timber.through / timber.area, across=None, along=None)
        if one.kind == "screw" and timber.through and one.n != 0 else one
        for one in assembly.fixings
    )  # fmt: skip
    return replace(assembly, layers=layers, fixings=fixings)


def _layer(layer: Layer, timber: Timber) -> Layer:
    placed = {one.joint for one in layer.members}
    if not placed & {"seam", "plate", "stud", "frame"}:
        return layer
    members = [changed for one in layer.members if (changed := _member(one, timber)) is not None]
    doubled = timber.seams * LUMBER if "stud" in placed and "seam" not in placed else 0.0
    share = (timber.at_openings + doubled) / timber.area
    if share > 0 and "frame" not in placed:
        members.append(Member(name="posts and headers", material=layer.members[0].material, share=min(share, 0.9),
                              joint="frame"))  # fmt: skip
    return replace(layer, members=tuple(members))


def _member(member: Member, timber: Timber) -> Member | None:
    """None where there is no such member in the set-out."""
    if member.joint == "frame" and member.share is not None:
        share = timber.at_openings / timber.area
        return replace(member, share=min(share, 0.9)) if share > 0 else None
    if member.width is None or member.joint not in ("seam", "plate"):
        return member
    if member.joint == "seam":
        return (
            None
            if timber.splines <= 0
            else replace(member, centres=_centres(member.width, timber.area / timber.splines))
        )
    pieces = max(1.0, member.width / LUMBER)  # one below, the others above: over the height of a panel, all of them
    plates = timber.bottom + (pieces - 1) * timber.top
    if plates <= 0:
        return None
    return replace(member, centres=_centres(member.width, timber.area * pieces / plates))


def _centres(width: float, centres: float) -> float:
    """Within what a member can be."""
    return min(20.0, max(centres, width * 1.01))


def framed_layer(assembly: Assembly) -> Layer | None:
    """The layer that has most members."""
    framed = [one for one in assembly.layers if framing(one)]
    return max(framed, key=_share, default=None)


def framed_share(assembly: Assembly) -> float | None:
    """Of that layer's area; None where nothing is framed."""
    layer = framed_layer(assembly)
    return None if layer is None else _share(layer)


def framing(layer: Layer) -> list[Member]:
    """Members that are a frame; not what is empty or runs through besides."""
    return [one for one in layer.members if one.joint in _FRAME]


def _share(layer: Layer) -> float:
    whole = 1.0
    for one in framing(layer):
        whole *= 1 - (one.share if one.share is not None else (one.width or 0.0) / (one.centres or 1.0))
    return 1 - whole
