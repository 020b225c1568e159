"""Couplings by the limit that finer and finer grids go to."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from nimble_shell.core.conduction.field import lower_bound
from nimble_shell.core.conduction.refinement import limit_of
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import Solved, begun, once_more, refined

_OF_THE_GAP = 0.06  #: of the gap between the bounds, that the error is at least said to be


def extrapolated(section: Section, *, target: float, absolute: float, most: int) -> Solved:
    """Refine until the limit of the couplings is known well enough: fewer unknowns than until they stand still.

    Parameters
    ----------
    target
        Error of the limit, relative to the largest coupling.
    absolute
        The same, not relative. [W/(m·K)]
    most
        Unknowns at which refinement stops.

    Notes
    -----
    Changes can be small for a while where a detail is not refined yet. Where the bound from below applies, the error is
    therefore not stated below a share of the gap between the bounds; the true one was seen at 0.10 to 0.15 of it before
    the limit is taken.

    Where prescribed temperatures meet, or regions have λ(θ), the couplings of the last grid stand for the limit.
    """
    found = begun(section, most)
    if found.fields.touching or any(region.table for region in section.regions):
        return refined(section, np.zeros((0, 2)), target=target, absolute=absolute, most=most)
    history = [found.fields.G]
    while True:
        limit, error = limit_of(history)
        low = lower_bound(section, found.fields)
        if low is not None:
            gap = float(found.fields.G[0, 0]) - low
            error = max(error, _OF_THE_GAP * gap / float(np.abs(limit).max()))
        found = replace(found, limit=limit, error=error, low=low)
        good = error <= target and error * float(np.abs(limit).max()) <= absolute
        if good or found.fields.space.size * 2 > most:
            return found
        found = once_more(section, found)
        history.append(found.fields.G)
