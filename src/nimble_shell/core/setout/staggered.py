"""Two layers of joints that keep apart: a shortest path over pairs of joints, which is exact."""

from __future__ import annotations

import numpy as np

from nimble_shell.core.setout.elevation import NEAR
from nimble_shell.core.setout.partition import NEVER, Costs, Layer, layer_at
from nimble_shell.core.setout.rules import Objective
from nimble_shell.core.setout.strips import BandStrips


def best_pair(strips: BandStrips, objective: Objective) -> tuple[Layer, Layer] | None:
    """Both layers together; None where none are legal.

    A state is the last joint of each layer, the lower one first; it is always the lower one that goes on. So a new
    joint only ever meets the last one of the other layer, and every pair is looked at once.
    """
    x, n = strips.x, len(strips.x)
    found = [None, *(strips.to(j) for j in range(1, n))]
    wide = max((j - one.first for j, one in enumerate(found) if one is not None), default=1)
    costs, lengths = Costs(objective, strips), strips.member_length
    step, step_part = np.full((n, wide + 1), NEVER, dtype=np.int64), np.zeros((n, wide + 1))
    for j, one in enumerate(found):
        if one is None:
            continue
        i = np.arange(one.first, one.first + len(one.legal))
        more, beside = costs.of(
            {"panels": one.panels, "off_module": one.off_module, "members": int(j < n - 1),
             "member_length": float(lengths[j]), "waste": one.waste, "lopsided": 0, "astray": 0}
        )  # fmt: skip
        step[i, j - i] = np.where(one.legal, more, NEVER)
        step_part[i, j - i] = beside
    whole, part = np.full((n, wide + 1), NEVER, dtype=np.int64), np.full((n, wide + 1), np.inf)
    came = np.full((n, wide + 1, 2), -1)
    whole[0, 0], part[0, 0] = 0, 0.0
    for low in range(n - 1):
        for highs in ([low], list(range(low + 1, min(low + wide, n - 1) + 1))):
            high = np.array([h for h in highs if whole[low, h - low] < NEVER])
            to = low + np.flatnonzero(step[low] < NEVER)
            if not len(high) or not len(to):
                continue
            h, k = np.meshgrid(high, to, indexing="ij")
            apart = (h == 0) | (h == n - 1) | (k == n - 1) | (np.abs(x[h] - x[k]) >= strips.rules.stagger - NEAR)
            at, off = np.minimum(h, k), np.maximum(h, k) - np.minimum(h, k)
            apart &= off <= wide
            h, k, at, off = h[apart], k[apart], at[apart], off[apart]
            cost = whole[low, h - low] + step[low, k - low]
            beside_ = part[low, h - low] + step_part[low, k - low]
            better = (cost < whole[at, off]) | ((cost == whole[at, off]) & (beside_ < part[at, off]))
            h, at, off = h[better], at[better], off[better]
            whole[at, off], part[at, off] = cost[better], beside_[better]
            came[at, off, 0], came[at, off, 1] = low, h
    if whole[n - 1, 0] >= NEVER:
        return None
    moves = _moves(came, n)
    ends: list[list[int]] = [[0], [0]]
    for to_ in moves:
        ends[0 if ends[0][-1] <= ends[1][-1] else 1].append(to_)
    return layer_at(strips, ends[0]), layer_at(strips, ends[1])


def _moves(came: np.typing.NDArray[np.int64], n: int) -> list[int]:
    """Where the lower one goes, time after time."""
    low, off, moves = n - 1, 0, []
    while (low, off) != (0, 0):
        before_low, before_high = (int(one) for one in came[low, off])
        pair = [low, low + off]
        pair.remove(before_high)
        moves.append(pair[0])
        low, off = before_low, before_high - before_low
    return moves[::-1]
