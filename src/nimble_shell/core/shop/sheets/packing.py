"""One packing by a rule: parts in a given order, each into the free rectangle that suits it best, compiled.

A part lies in the lower left corner of a free rectangle; two through cuts part it from the rest, one of them across
the whole rectangle. So every packing comes apart by through cuts, whatever the order and the rules.
"""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

FITS = 4  #: rules of the rectangle: least area left, least short side left, least long side left, lowest then leftmost
SPLITS = 4  #: of the whole cut: along the shorter rest, along the longer, the larger piece larger, the smaller larger
_NEAR = 1e-6
Ints = NDArray[np.int64]
Floats = NDArray[np.float64]


@njit(cache=True)
def pack(  # noqa: C901  # a compiled kernel reads best in one piece
    order: Ints, width: Floats, height: Floats, turn: NDArray[np.bool_], needed: int,
    sheet_w: Floats, sheet_h: Floats, left: Ints, wish: Ints, kerf: float, trim: float, fit: int, split: int,
    own: Ints, where: Floats, turned: NDArray[np.bool_], kinds: Ints, free: Floats,
) -> tuple[int, int]:  # fmt: skip
    """Place parts; what is behind `needed` in the order opens no sheet.

    Parameters
    ----------
    order : array, shape (n,)
        Parts by their number in `width`, `height` and `turn`.
    left : array, shape (kinds,)
        Sheets that may still be opened; is used up.
    wish : array, shape (any, kinds)
        In which order sheet kinds are tried when the nth sheet is opened (the last row holds on).
    own, where, turned : arrays, shapes (n,), (n, 2), (n,)
        Filled: sheet of each place in the order (−1: nowhere), its corner, whether it is turned.
    kinds : array
        Filled: kind of each sheet.
    free : array, shape (any, 5)
        Filled: sheet, x, y, w, h of what is left.

    Returns
    -------
    Sheets, and free rectangles; sheets −1 where a needed part found no place.
    """
    sheets, rests = 0, 0
    for n in range(len(order)):
        part = order[n]
        best, best_second, at, flip = 1e300, 1e300, -1, False
        own[n] = -1
        for way in range(2):
            if way == 1 and (not turn[part] or width[part] == height[part]):
                break
            w = width[part] if way == 0 else height[part]
            h = height[part] if way == 0 else width[part]
            for r in range(rests):
                fw, fh = free[r, 3] - w, free[r, 4] - h
                if fw < -_NEAR or fh < -_NEAR:
                    continue
                if fit == 0:
                    score, second = free[r, 3] * free[r, 4] - w * h, min(fw, fh)
                elif fit == 1:
                    score, second = min(fw, fh), max(fw, fh)
                elif fit == 2:
                    score, second = max(fw, fh), min(fw, fh)
                else:
                    score, second = free[r, 0] * 1e7 + free[r, 2], free[r, 1]
                if score < best or (score == best and second < best_second):
                    best, best_second, at, flip = score, second, r, way == 1
        if at < 0:
            if n >= needed:
                continue
            row = min(sheets, len(wish) - 1)
            chosen = -1
            for k in wish[row]:
                inner_w, inner_h = sheet_w[k] - 2 * trim, sheet_h[k] - 2 * trim
                upright = width[part] <= inner_w + _NEAR and height[part] <= inner_h + _NEAR
                lying = turn[part] and height[part] <= inner_w + _NEAR and width[part] <= inner_h + _NEAR
                if left[k] > 0 and (upright or lying):
                    chosen = k
                    flip = not upright or (
                        lying
                        and fit == 1
                        and inner_w - height[part] < min(inner_w - width[part], inner_h - height[part])
                    )
                    break
            if chosen < 0:
                return -1, rests
            left[chosen] -= 1
            kinds[sheets] = chosen
            free[rests, 0], free[rests, 1], free[rests, 2] = sheets, trim, trim
            free[rests, 3], free[rests, 4] = sheet_w[chosen] - 2 * trim, sheet_h[chosen] - 2 * trim
            at = rests
            rests += 1
            sheets += 1
        w = height[part] if flip else width[part]
        h = width[part] if flip else height[part]
        sheet, x, y, fw, fh = free[at, 0], free[at, 1], free[at, 2], free[at, 3], free[at, 4]
        own[n], where[n, 0], where[n, 1], turned[n] = int(sheet), x, y, flip
        rests -= 1
        for c in range(5):
            free[at, c] = free[rests, c]
        rest_w, rest_h = fw - w - kerf, fh - h - kerf
        if split == 0:
            upright = rest_w >= rest_h
        elif split == 1:
            upright = rest_w < rest_h
        elif split == 2:
            upright = max(rest_w * fh, w * rest_h) >= max(rest_h * fw, h * rest_w)
        else:
            upright = max(rest_w * fh, w * rest_h) < max(rest_h * fw, h * rest_w)
        # upright: the whole cut stands beside the part, what is right of it keeps the whole height
        if rest_w > _NEAR:
            free[rests, 0], free[rests, 1], free[rests, 2] = sheet, x + w + kerf, y
            free[rests, 3], free[rests, 4] = rest_w, fh if upright else h
            rests += 1
        if rest_h > _NEAR:
            free[rests, 0], free[rests, 1], free[rests, 2] = sheet, x, y + h + kerf
            free[rests, 3], free[rests, 4] = w if upright else fw, rest_h
            rests += 1
    return sheets, rests
