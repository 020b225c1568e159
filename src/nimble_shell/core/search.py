"""The smallest step of a change that turns a verdict, where every look is a solution."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache


def smallest(
    count: int, quick: Callable[[int], bool], sure: Callable[[int], bool] | None = None, looks: int = 6
) -> int | None:
    """The first step from 1 to `count` that passes while the one before it fails; None where none is found.

    Parameters
    ----------
    count : int
        Steps; step 0 is as it is, and known to fail.
    quick : callable
        Whether a step passes, by a coarse solution.
    sure : callable, optional
        The same by the solution that counts; asked only about the answer and the step before it.
    looks : int
        Places that are looked at before the halving, evenly spread.

    Notes
    -----
    The places are looked at from the smallest on; then the steps between the last that fails and the first that passes
    are halved, and the answer is moved until it passes and its neighbour fails by the solution that counts. Where
    passing comes and goes between two places that both fail, it is not found.
    """
    if count < 1:
        return None
    quick = cache(quick)
    sure = quick if sure is None else cache(sure)
    below, above = 0, None
    for look in range(1, looks + 1):
        place = max(below + 1, round(count * look / looks))
        if place > count:
            break
        if quick(place):
            above = place
            break
        below = place
    if above is None:
        above = count
    while above - below > 1:
        middle = (below + above) // 2
        below, above = (below, middle) if quick(middle) else (middle, above)
    while not sure(above):
        above += 1
        if above > count:
            return None
    while above > 1 and sure(above - 1):
        above -= 1
    return above
