"""Where to refine, and how far the last solution may still be from the true one."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import DomainError, Issue

FloatArray = NDArray[np.float64]

_BULK = 0.8  #: share of the energy of the curved part that the refined intervals hold


def chosen(energies: Sequence[FloatArray]) -> list[NDArray[np.bool_]]:
    """The fewest intervals, over all directions, that hold the bulk of the energy."""
    every = np.concatenate(energies)
    order = np.argsort(-every)
    held = np.cumsum(every[order])
    count = int(np.searchsorted(held, _BULK * held[-1])) + 1
    picked = np.zeros(len(every), dtype=bool)
    picked[order[:count]] = True
    return np.split(picked, np.cumsum([len(part) for part in energies])[:-1])


def halved(lines: FloatArray, which: NDArray[np.bool_]) -> FloatArray:
    """Grid lines with the chosen intervals halved."""
    middle = (lines[:-1] + lines[1:]) / 2
    return np.sort(np.concatenate([lines, middle[which]]))


def check_size(lines: Sequence[FloatArray], most: int, where: str) -> None:
    """Refuse a model whose corners alone ask for more cells than may be solved.

    Raises
    ------
    DomainError
        Naming the count.
    """
    count = float(np.prod([float(len(line) - 1) for line in lines]))
    if count > most:
        raise DomainError(Issue(path=(where,), code="too_many_cells",
                                message=f"the corners of the model ask for {count:,.0f} cells; {most:,} can be solved",
                                hint="leave out detail smaller than matters, or cut the model in parts"))  # fmt: skip


def _changes(history: Sequence[FloatArray]) -> tuple[float, float]:
    """Largest changes of the step before the last and of the last, relative to the largest value."""
    size = np.max(np.abs(history[-1]))
    before, last = (float(np.max(np.abs(history[n] - history[n - 1])) / size) for n in (-2, -1))
    return before, last


def error_of(history: Sequence[FloatArray]) -> float:
    """Relative error of the last of several solutions, from the changes between them.

    The changes fall like a geometric series; what is left of it is added up at the ratio seen last, which is not taken
    as less than a half: a small change after a large one may be chance.
    """
    if len(history) < 3:
        return float("inf")
    before, last = _changes(history)
    ratio = float(np.clip(last / before, 0.5, 0.9)) if before > 0 else 0.5
    return max(last, before * ratio) * ratio / (1 - ratio)


def limit_of(history: Sequence[FloatArray]) -> tuple[FloatArray, float]:
    """Where the solutions go if their changes fall on as they do, and how far that may be from the true one, relative.

    The limit is the last solution and what is left of a geometric series at the ratio seen last. What is uncertain of
    it is at least half of that rest, and more where the ratio itself moves from step to step.
    """
    last = history[-1]
    if len(history) < 3:
        return last, float("inf")
    before, now = _changes(history)
    if before <= 0:
        return last, 0.0
    seen = now / before
    ratio = float(np.clip(seen, 0.2, 0.75))
    rest = (last - history[-2]) * ratio / (1 - ratio)
    doubt = 0.5
    if len(history) > 3 and seen > 0:
        earlier, _ = _changes(history[:-1])
        doubt = abs(seen - before / earlier) / (ratio * (1 - ratio)) + 0.15 if earlier > 0 else 1.0
    doubt = 1.0 if seen > ratio else float(np.clip(doubt, 0.5, 1.0))
    return last + rest, doubt * float(np.max(np.abs(rest)) / np.max(np.abs(last)))


def extrapolated(history: Sequence[FloatArray]) -> FloatArray:
    """The limit of the solutions if their changes go on falling like a geometric series."""
    if len(history) < 3:
        return history[-1]
    before, last = _changes(history)
    ratio = float(np.clip(last / before, 0.0, 0.8)) if before > 0 else 0.0
    limit: FloatArray = history[-1] + (history[-1] - history[-2]) * ratio / (1 - ratio)
    return limit
