"""Where a sheet is cut first: a through cut that parts what lies on it in two."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from nimble_shell.core.shop.sheets.stock import NEAR, Cutting, Sheet


@dataclass(frozen=True, slots=True, kw_only=True)
class FirstCut:
    """Its nearer edge. [mm]"""

    upright: bool  #: at one x, over the whole height; else at one y
    at: float


def first_cut(sheet: Sheet, cutting: Cutting) -> FirstCut | None:
    """None where nothing has to be cut off what lies alone on its sheet."""
    placed = cutting.placed
    for upright in (False, True):
        at = _parted((one.x, one.x + one.w) if upright else (one.y, one.y + one.h) for one in placed)
        if at is not None:
            return FirstCut(upright=upright, at=at)
    if len(placed) != 1:
        return None
    one = placed[0]
    if sheet.h - one.y - one.h > NEAR:
        return FirstCut(upright=False, at=one.y + one.h)
    return FirstCut(upright=True, at=one.x + one.w) if sheet.w - one.x - one.w > NEAR else None


def _parted(stretches: Iterable[tuple[float, float]]) -> float | None:
    """The first place that no stretch crosses and that has some on both sides."""
    ordered = sorted(stretches)
    reached = ordered[0][1]
    for low, high in ordered[1:]:
        if low >= reached - NEAR:
            return reached
        reached = max(reached, high)
    return None
