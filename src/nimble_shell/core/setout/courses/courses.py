"""All walls of a run in courses: pieces, cuts, what is bought, corner blocks by their hands."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nimble_shell.core.progress import report
from nimble_shell.core.setout.courses.laying import Laid, NoLaying, lay, patterns_of, share
from nimble_shell.core.setout.courses.run import NEAR, Run, check_run

_SECONDS = 20.0  #: for all walls together [s]
_SHARING = 2.0  #: for what is bought [s]


@dataclass(frozen=True, slots=True, kw_only=True)
class Counts:
    """Blocks of one height."""

    full: int
    cut: int
    bought: int  #: whole ones, and those that the cuts come out of
    left: int  #: corner blocks, by their hand
    right: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Coursed:
    """A run laid out."""

    walls: tuple[Laid, ...]
    whole: Counts
    half: Counts
    offcut: float  #: of all that is bought, what is not laid [mm]

    @property
    def pieces(self) -> int:
        return self.whole.full + self.whole.cut + self.half.full + self.half.cut

    @property
    def cuts(self) -> int:
        return self.whole.cut + self.half.cut

    @property
    def bought(self) -> int:
        return self.whole.bought + self.half.bought

    @property
    def proved(self) -> bool:
        return all(one.proved for one in self.walls)

    @property
    def bound(self) -> int:
        return sum(one.bound for one in self.walls)


def lay_run(run: Run) -> Coursed | NoLaying:
    """Every wall of a run. Raises DomainError, Stopped."""
    check_run(run)
    walls = list[Laid]()
    for n in range(len(run.walls)):
        report(n, len(run.walls))
        found = lay(run, n, _SECONDS / len(run.walls))
        if isinstance(found, NoLaying):
            return found
        walls.append(found)
    walls = list(share(run, walls, _SHARING))
    whole, half = (_counts(run, walls, half=half) for half in (False, True))
    laid = sum(b - a for wall in walls for course in wall.courses for a, b in course)
    offcut = (whole.bought + half.bought) * run.block.length - laid
    return Coursed(walls=tuple(walls), whole=whole, half=half, offcut=offcut)


def _counts(run: Run, walls: Sequence[Laid], *, half: bool) -> Counts:
    own = [one.index for one in run.courses() if one.half == half]
    lengths = [b - a for wall in walls for n in own for a, b in wall.courses[n]]
    cuts = [one for one in lengths if one < run.block.length - NEAR]
    hands = Counter(run.hand(n, turn) for n in own for _, _, turn in run.corners())
    full = len(lengths) - len(cuts)
    return Counts(full=full, cut=len(cuts), bought=full + blocks_for(cuts, run.block.length), left=hands["left"],
                  right=hands["right"])  # fmt: skip


def blocks_for(cuts: Sequence[float], length: float) -> int:
    """Least number of blocks that cuts come out of, without a kerf."""
    from scipy.optimize import Bounds, LinearConstraint, milp

    kinds = Counter((False, round(one, 6)) for one in cuts)
    if not kinds:
        return 0
    patterns = patterns_of(list(kinds), length)
    held = np.array([[pattern.count(kind) for pattern in patterns] for kind in kinds], dtype=float)
    found = milp(np.ones(len(patterns)), constraints=LinearConstraint(held, np.array(list(kinds.values())), np.inf),
                 integrality=np.ones(len(patterns), dtype=int), bounds=Bounds(0, np.inf),
                 options={"time_limit": _SECONDS, "mip_rel_gap": 0.0})  # fmt: skip
    return round(float(np.asarray(found.x).sum()))
