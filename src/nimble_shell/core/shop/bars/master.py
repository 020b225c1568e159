"""Which ways of cutting, and how often: linear and whole-numbered, one term of the objective after the other."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import NotConverged

Goal = Literal["missing", "cost", "bars", "waste"]
Floats = NDArray[np.float64]
_SECONDS = 5.0  #: for one question in whole numbers
_SLACK = 1e-7  #: of a term that is held, as a share


@dataclass(frozen=True, slots=True, kw_only=True)
class Kind:
    """Bars of one stock that are filled freely, or so that their remnant is kept: the latter pay for what they hold."""

    stock: int
    capacity: float  #: with a kerf more than is usable [mm]
    kept: bool
    fixed: dict[Goal, float]
    per_piece: Floats  #: waste with each piece, less its length [mm]; zeros unless kept


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """A pattern of one kind."""

    kind: int
    counts: tuple[int, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Duals:
    """What the linear answer pays: for each piece, each limited stock, and each term that is held."""

    least: float
    pieces: Floats
    stocks: Floats
    held: dict[Goal, float]


@dataclass(slots=True, kw_only=True)
class Master:
    """Pieces to be covered, and ways to do it.

    The pieces that are missing are a term of their own: it comes first where stock is limited.
    """

    demand: NDArray[np.int64]
    kinds: Sequence[Kind]
    limits: dict[int, int]  #: of each stock that has one
    held: dict[Goal, float] = field(default_factory=dict)  #: terms that may not rise any more
    ways: list[Way] = field(default_factory=list)
    _known: set[Way] = field(default_factory=set)

    def add(self, way: Way) -> bool:
        """Whether it is new."""
        if way in self._known or not any(way.counts):
            return False
        self._known.add(way)
        self.ways.append(way)
        return True

    def term(self, goal: Goal, way: Way) -> float:
        kind = self.kinds[way.kind]
        more = float(kind.per_piece @ np.array(way.counts)) if goal == "waste" and kind.kept else 0.0
        return kind.fixed[goal] + more

    def scale(self, goal: Goal) -> float:
        """Size of a term, so that the solver sees numbers about one."""
        return max([kind.fixed[goal] for kind in self.kinds] + [0.0]) or 1.0

    def linear(self, goal: Goal) -> Duals:
        """The linear answer over the ways there are: the first ones, or those of the term before, are an answer."""
        from scipy.optimize import linprog  # two seconds of a start that mostly does not need it

        costs, rows, most = self._system(goal)
        found = linprog(costs, A_ub=rows, b_ub=most, method="highs")
        if found.status != 0:
            raise NotConverged(int(found.nit), float("nan"))
        pays, scale, n = -np.asarray(found.ineqlin.marginals) * self.scale(goal), self.scale(goal), len(self.demand)
        limited = sorted(self.limits)
        stocks = np.zeros(1 + max([kind.stock for kind in self.kinds]))
        for at, stock in enumerate(limited):
            stocks[stock] = pays[n + at]
        return Duals(
            least=float(found.fun or 0.0) * scale, pieces=pays[:n], stocks=stocks,
            held={one: pays[n + len(limited) + at] / self.scale(one) for at, one in enumerate(self.held)},
        )  # fmt: skip

    def whole(self, goal: Goal, at_most: float | None = None) -> tuple[float, dict[Way, int]] | bool:
        """The best answer in whole numbers over the ways there are.

        Returns
        -------
        False where there is none, True where the time went by before that was known.
        """
        from scipy.optimize import Bounds, LinearConstraint, milp

        costs, rows, most = self._system(goal)
        if at_most is not None:
            rows, most = np.vstack([rows, costs]), np.append(most, at_most / self.scale(goal) + _SLACK)
        found = milp(
            costs, constraints=LinearConstraint(rows, ub=most), bounds=Bounds(0, np.inf),
            integrality=np.ones(len(costs), dtype=np.int64),
            options={"time_limit": _SECONDS, "mip_rel_gap": 0.0},
        )  # fmt: skip
        if found.x is None:
            return found.status != 2  # HiGHS: infeasible
        times = np.round(found.x[: len(self.ways)]).astype(int)
        chosen = {way: int(n) for way, n in zip(self.ways, times, strict=True) if n}
        missing = float(found.x[len(self.ways) :].round().sum())
        total = missing if goal == "missing" else sum(n * self.term(goal, way) for way, n in chosen.items())
        return total, chosen

    def _system(self, goal: Goal) -> tuple[Floats, Floats, Floats]:
        """Costs, and rows of what may not be passed: −pieces, limited stocks, held terms; missing pieces stand last."""
        n, count = len(self.demand), len(self.ways)
        short = goal == "missing"
        extra = n if short else 0
        costs = np.array([self.term(goal, way) / self.scale(goal) for way in self.ways] + [1.0] * extra)
        rows: list[Any] = []
        cover = np.zeros((n, count + extra))
        cover[:, :count] = -np.array([way.counts for way in self.ways], dtype=float).reshape(count, n).T
        if short:
            cover[:, count:] = -np.eye(n)
        rows.append(cover)
        most = [-self.demand.astype(float)]
        for stock in sorted(self.limits):
            rows.append([[float(self.kinds[way.kind].stock == stock) for way in self.ways] + [0.0] * extra])
            most.append(np.array([float(self.limits[stock])]))
        for one, value in self.held.items():
            scale = self.scale(one)
            rows.append([[self.term(one, way) / scale for way in self.ways] + [0.0] * extra])
            most.append(np.array([value / scale * (1 + _SLACK) + _SLACK]))
        return costs, np.vstack(rows), np.concatenate(most)
