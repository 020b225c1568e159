"""Screws of an entered pattern, counted on a set-out: along splines, posts and plates. Lengths in mm."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

from nimble_shell.core.setout.elevation import NEAR, bands_of
from nimble_shell.core.setout.entered import Screws
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.panels import NoWay
from nimble_shell.core.setout.plates import LINES, plates_of
from nimble_shell.core.shop.quantities.counts import whole
from nimble_shell.core.shop.quantities.lines import ScrewLine

_SKINS = 2


@dataclass(frozen=True, slots=True, kw_only=True)
class Screwed:
    """Of a face, or of several."""

    skins: int = 0  #: through skins into splines, posts and plates
    through: int = 0  #: through the core into what carries the plates

    def __add__(self, other: Screwed) -> Screwed:
        return Screwed(skins=self.skins + other.skins, through=self.through + other.through)

    def boxes(self, box: int) -> int:
        return whole(self.skins / box)


def screwed(face: FaceSetOut, pattern: Screws) -> Screwed:
    """Both skins of both panels at each spline or post, and of each panel along its plates."""
    if isinstance(face.found, NoWay):
        return Screwed()
    skins = through = 0
    for member in face.members():
        skins += 2 * _SKINS * _count(member.top - member.base, pattern.spacing, pattern.end)
    bands = bands_of(face.elevation)
    for band, layers in zip(bands, face.found.bands, strict=True):
        joints = [x for layer in layers for x in layer.joints]
        for plate in (one for line in LINES for one in plates_of(band, line)):
            inner = sorted(x for x in joints if plate.x0 + NEAR < x < plate.x1 - NEAR)
            ends = [plate.x0, *inner, plate.x1]
            for a, b in pairwise(ends):
                skins += _SKINS * _count((b - a) * plate.stretch, pattern.spacing, pattern.end)
                if pattern.through is not None:
                    through += _count((b - a) * plate.stretch, pattern.through, pattern.end)
    return Screwed(skins=skins, through=through)


def _count(length: float, spacing: float, end: float) -> int:
    return ScrewLine(length=length, spacing=spacing * 1000, end=end * 1000).count
