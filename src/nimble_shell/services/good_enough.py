"""The cheapest set of measures that reaches what is asked of a building, with its proof."""

from __future__ import annotations

import threading
from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import dataclass
from itertools import combinations, islice

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.progress import report
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.core.working import value_of
from nimble_shell.services.measures import MeasureResults, Outcome, Together, built_with, misses
from nimble_shell.services.next_steps import Measure, measures
from nimble_shell.services.whole_shell import shaped
from nimble_shell.store import Stored

_NEAR = 0.97  #: of what is lacking, from which on a set is re-run: together they save less than one by one
_LARGEST = 6  #: measures in a set
_MOST_TRIED = 8  #: cheaper sets that are re-run beside the one that was found
_LOOK = 0.25  #: while joints of a set are being solved, it is seen this often whether the search goes on [s]


@dataclass(frozen=True, slots=True, kw_only=True)
class Enough:
    """The cheapest set that reaches what is asked."""

    keys: tuple[str, ...] | None  #: None where no set of these does
    together: Together | None  #: that set; where there is none all of them at once
    without: tuple[tuple[str, tuple[str, ...]], ...]  #: leaving one out: its key, and what is missed then
    reached: bool  #: whether the building reaches it as it is
    tried: int


class GoodEnough:
    """One search. Every set is judged once all its joints and fixings are solved; that is asked for under a ticket."""

    def __init__(self, results: MeasureResults, stored: Stored, building_id: str, ticket: str) -> None:
        self._results, self._stored, self._id, self._ticket = results, stored, building_id, ticket
        self._building = shaped(stored.project, building_id)
        self._before = results.sum(stored, building_id, ticket)
        self._done, self._most, self._tried = 0, 0, 0

    def search(self) -> Enough:
        """The cheapest set found, proved by leaving out one after the other.

        Everything at once is re-run first: where that misses, no set reaches it. Of it the dearest are left out one by
        one, those without a rate before the others, as long as what is left reaches it; then cheaper sets are tried.

        Raises
        ------
        DomainError
            Of a sum that lacks a part: nothing is judged by it.
        Stopped
        """
        before, project = self._before, self._stored.project
        if not before.whole:
            raise _not_whole(before)
        if not misses(project, self._building, before):
            return Enough(keys=(), together=None, without=(), reached=True, tried=0)
        known = measures(project, self._building, before)
        self._most = 3 * len(known) + _MOST_TRIED  # alone; left out to find the set, and to prove it; tried beside it
        outcomes = [one for one in (self._alone(each) for each in known) if one.gains is not None]
        kept = _best_of_each(outcomes)
        self._tried += 1
        if self._missed(kept):
            return Enough(keys=None, together=self._at_once(kept), without=(), reached=False, tried=self._tried)
        for one in sorted(kept, key=_dearness, reverse=True):
            rest = [each for each in kept if each is not one]
            if rest and self._passes(rest):
                kept = rest
        gap, price = _gap(project, self._building, before), _price(kept)
        cheaper = (some for some in _by_cost(outcomes, gap) if _price(some) < price)
        kept = list(next((some for some in islice(cheaper, _MOST_TRIED) if self._passes(some)), kept))
        without = ((one.measure.key, self._missed([each for each in kept if each is not one])) for one in kept)
        return Enough(keys=tuple(one.measure.key for one in kept), together=self._at_once(kept),
                      without=tuple(without), reached=False, tried=self._tried)  # fmt: skip

    def _alone(self, one: Measure) -> Outcome:
        with suppress(DomainError):  # the outcome says why it cannot be
            self._settled(built_with(self._stored, [one]))
        return self._results.outcome(self._stored, self._id, one, self._before, self._ticket)

    def _at_once(self, some: Sequence[Outcome]) -> Together:
        chosen, singles = [one.measure for one in some], [one.gains for one in some]
        return self._results.of_chosen(self._stored, self._id, chosen, self._before, singles, self._ticket)

    def _passes(self, some: Sequence[Outcome]) -> bool:
        self._tried += 1
        try:
            return not self._missed(some)
        except DomainError:  # parts that go together alone do not always
            return False

    def _missed(self, some: Sequence[Outcome]) -> tuple[str, ...]:
        """What is asked and not reached with them. Raises DomainError where a part of them has no answer."""
        changed = built_with(self._stored, [one.measure for one in some])
        after = self._settled(changed)
        if not after.whole:
            raise _not_whole(after)
        return misses(changed.project, shaped(changed.project, self._id), after)

    def _settled(self, changed: Stored) -> WholeBuilding:
        """Summed up once nothing of it is being solved. Raises Stopped."""
        self._done += 1
        heard = threading.Event()
        end = self._results.queue.listen(lambda _: heard.set())
        try:
            while True:
                heard.clear()
                report(self._done, self._most)
                found = self._results.sum(changed, self._id, self._ticket)
                if not found.pending:
                    return found
                while not heard.wait(_LOOK):
                    report(self._done, self._most)
        finally:
            end()


def _not_whole(found: WholeBuilding) -> DomainError:
    return DomainError(
        Issue(
            path=(),
            code="not_whole",
            message=f"what the building comes to still lacks a part: {found.lacking[0]}",
            hint="ask again when it is there",
        )
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class _Gap:
    """What is still to be saved."""

    H_tr: float  #: [W/K]
    q50: float  #: [m³/h]

    def may_close(self, some: Sequence[Outcome]) -> bool:
        """Whether the sum of what they save alone comes near it."""
        gains = [one.gains for one in some if one.gains is not None]
        saved, sealed = sum(one.dH_tr for one in gains), sum(one.dq50 for one in gains)
        return saved >= _NEAR * self.H_tr and sealed >= self.q50  # leaks add up as they are


def _gap(project: Project, building: Building, found: WholeBuilding) -> _Gap:
    H = value_of(found.sums.H_tr)
    asked = [one for one in (building.asked_H, _H_of(project.basis.targets.R_shell, found)) if one is not None]
    n50 = building.plant.tightness.n50_asked
    q50 = 0.0 if n50 is None else value_of(found.leaks.q50[1]) - n50 * found.sizes.V
    return _Gap(H_tr=max([H - one for one in asked] + [0.0]), q50=max(q50, 0.0))


def _H_of(R: float | None, found: WholeBuilding) -> float | None:
    return None if R is None else found.A / R


def _by_cost(outcomes: Sequence[Outcome], gap: _Gap) -> Iterable[tuple[Outcome, ...]]:
    """Sets of measures that may be enough, the cheapest first; of one thing at most one change."""
    useful = [one for one in outcomes if one.gains is not None and (one.gains.dH > 0 or one.gains.dq50 > 0)]
    sets = [
        some for size in range(1, min(len(useful), _LARGEST) + 1) for some in combinations(useful, size)
        if len({(one.measure.kind, one.measure.id) for one in some}) == size and gap.may_close(some)
    ]  # fmt: skip
    return sorted(sets, key=_price)


def _price(some: Sequence[Outcome]) -> tuple[int, float]:
    """Of what has no rate as little as can be, as nobody knows what it costs; then the money."""
    return sum(one.measure.cost is None for one in some), sum(one.measure.cost or 0.0 for one in some)


def _dearness(one: Outcome) -> tuple[bool, float]:
    return one.measure.cost is None, one.measure.cost or 0.0


def _best_of_each(outcomes: Sequence[Outcome]) -> list[Outcome]:
    """Of each thing the change that saves most, leaks first."""
    best: dict[tuple[str, str], Outcome] = {}
    for one in outcomes:
        gains, thing = one.gains, ("joint" if one.measure.kind == "seal" else one.measure.kind, one.measure.id)
        if gains is None or not (gains.dH > 0 or gains.dq50 > 0):
            continue
        held = best.get(thing)
        if held is None or held.gains is None or (gains.dq50, gains.dH) > (held.gains.dq50, held.gains.dH):
            best[thing] = one
    return list(best.values())
