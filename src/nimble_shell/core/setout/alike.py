"""Panels that are alike, and those that are one another's mirror image: a left hand and a right hand."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.setout.faces import Marked

Hand = Literal["", "left", "right"]
_ROUND = 1  #: figures behind the point of a mm that two panels are alike within
_Key = tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class Alike:
    """Of a panel: the number of its shape, from 1 in the order they are met, and its hand if it has one."""

    shape: int
    hand: Hand


def alike(panels: Sequence[tuple[str, Marked, tuple[tuple[float, ...], ...]]]) -> dict[str, Alike]:
    """Of each panel by its mark.

    Parameters
    ----------
    panels : sequence of (build-up, panel, holes)
        Holes as left, bottom, width and height. [mm]
    """
    seen: dict[tuple[str, _Key, _Key], int] = {}
    found = {}
    for build_up, one, holes in panels:
        own, other = (_turned(one, holes, mirrored=mirrored) for mirrored in (False, True))
        hand: Hand = "" if own == other else "left" if own < other else "right"
        key = (build_up, *min(own, other))
        found[one.mark] = Alike(seen.setdefault(key, len(seen) + 1), hand)
    return found


def _turned(one: Marked, holes: tuple[tuple[float, ...], ...], *, mirrored: bool) -> tuple[_Key, _Key]:
    piece = one.panel.piece

    def at(x: float, y: float) -> tuple[float, float]:
        return round(piece.x1 - x if mirrored else x - piece.x0, _ROUND), round(y - piece.y0, _ROUND)

    corners = sorted(at(x, y) for x, y in piece.outline)
    cut = sorted(corner for x, y, w, h in holes for corner in (at(x, y), at(x + w, y), at(x, y + h), at(x + w, y + h)))
    return tuple(corners), tuple(cut)
