"""Couplings by the limit that finer and finer grids go to."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from nimble_shell.core.conduction.field import lower_bound
from nimble_shell.core.conduction.refinement import limit_of
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import Solved, begun, once_more, refined

_DOUBT = 1.5  #: times the estimate that the error of the limit is said to be
_LEAST = 1e-5  #: that it is at least said to be [W/(m·K)]
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
    the limit is taken. What is said is more than the estimate by a half, up to what was asked for.

    Where prescribed temperatures meet, or regions have λ(θ), the couplings of the last grid stand for the limit.
    """
    found = begun(section, most)
    if found.fields.touching or any(region.table for region in section.regions):
        return refined(section, np.zeros((0, 2)), target=target, absolute=absolute, most=most)
    history = [found.fields.G]
    while True:
        limit, error = limit_of(history)
        size = float(np.abs(limit).max())
        last = found.fields.space.size * 2 > most
        low = None
        if last or (error <= target and error * size <= absolute):  # else the bound cannot make it good
            low = lower_bound(section, found.fields)
            if low is not None:
                error = max(error, _OF_THE_GAP * (float(found.fields.G[0, 0]) - low) / size)
        if error <= target and error * size <= absolute:
            said = min(_DOUBT * error + _LEAST / size, target, absolute / size)
            return replace(found, limit=limit, error=said, low=low)
        if last:
            return replace(found, limit=limit, error=_DOUBT * error, low=low)
        found = once_more(section, found)
        history.append(found.fields.G)
