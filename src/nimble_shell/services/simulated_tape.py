"""A steel tape that reads a laid-down panel: a stand-in, so that laydown can be tried without one.

Its panels are racked and its readings err a little, always the same for a mark.
"""

from __future__ import annotations

import hashlib
import math
from collections.abc import Sequence

from nimble_shell.core.shop.laydown import FOUR

_RACK = 9.0  #: greatest push of the upper corners sideways [mm]
_READS = 0.5  #: whole steps that it is read in [mm]


def tape_readings(mark: str, corners: Sequence[tuple[float, float]]) -> tuple[float, ...]:
    """Four sides in order, then both diagonals, of a panel that lies on the bed as it was put together. [mm]"""
    assert len(corners) == FOUR
    drawn = hashlib.sha256(mark.encode()).digest()
    push = (drawn[0] / 127.5 - 1) * _RACK
    middle = sum(y for _, y in corners) / FOUR
    lies = [(x + (push if y > middle else 0.0), y) for x, y in corners]
    pairs = [(0, 1), (1, 2), (2, 3), (3, 0), (0, 2), (1, 3)]
    return tuple(_read(math.dist(lies[a], lies[b])) for a, b in pairs)


def _read(length: float) -> float:
    return round(length / _READS) * _READS


def block_reading(wall: str, course: int, at: int, nominal: float) -> float:
    """Length of a foam block as it came: mostly a little short, always the same for a place. [mm]"""
    drawn = hashlib.sha256(f"{wall}/{course}/{at}".encode()).digest()
    return _read(nominal - 5.0 + drawn[0] / 255 * 6.0)
