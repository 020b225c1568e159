"""What runs along a joint: sealant, tape and screws. Sizes in mm, lengths of joints in m."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.shop.quantities.counts import whole

Shape = Literal["round", "triangle", "square"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Bead:
    """Cross-section of sealant: a diameter, or two sides."""

    shape: Shape
    a: float
    b: float = 0.0

    @property
    def area(self) -> float:
        if self.shape == "round":
            return math.pi * self.a**2 / 4
        return self.a * self.b / (2 if self.shape == "triangle" else 1)


def sealant(length: float, passes: float, bead: Bead, waste: float, tube: float) -> tuple[float, int]:
    """Volume with waste, and tubes. [ml]"""
    volume = length * passes * bead.area * (1 + waste)
    return volume, whole(volume / tube)


def tape(length: float, ends: int, overlap: float, roll: float) -> tuple[float, int]:
    """Length with overlaps, and rolls. [m]"""
    total = length + ends * overlap / 1000
    return total, whole(total / roll)


@dataclass(frozen=True, slots=True, kw_only=True)
class ScrewLine:
    length: float
    spacing: float
    end: float  #: of the first and the last from the ends

    @property
    def count(self) -> int:
        return max(2, whole((self.length - 2 * self.end) / self.spacing) + 1)


def screws(panels: int, lines: Sequence[ScrewLine], box: int) -> tuple[int, int, int]:
    """Of a panel, of all, and boxes."""
    each = sum(one.count for one in lines)
    return each, each * panels, whole(each * panels / box)
