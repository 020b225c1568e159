"""Everything a project rests on, solved: joints, fixings and verdicts of every building, with progress."""

from __future__ import annotations

from collections.abc import Callable

from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joints import JointResults
from nimble_shell.services.solver_queue import SolverQueue
from nimble_shell.services.verdicts import VerdictResults
from nimble_shell.store import Stored


class Recompute:
    """Asks for all that is not known, in rounds: verdicts of leaks rest on solved joints."""

    def __init__(self, queue: SolverQueue, stored: Stored) -> None:
        self._queue, self._stored = queue, stored
        self._joints, self._fixings, self._verdicts = JointResults(queue), FixingResults(queue), VerdictResults(queue)
        self.total = 0  #: questions so far
        self.refused = 0  #: of them without an answer

    def run(self, progress: Callable[[int, int], None] | None = None) -> None:
        """Until nothing is left to be asked. `progress` is told how many are done, of how many."""
        while True:
            asked = self._ask()
            if not asked:
                return
            before, self.total = self.total, self.total + asked
            for done, future in enumerate(self._queue.futures(), before + 1):
                error = future.exception()
                self.refused += error is not None
                if progress is not None:
                    progress(min(done, self.total), self.total)

    def _ask(self) -> int:
        """Ask for everything; how many questions that were."""
        self._fixings.owned(self._stored)
        for building in self._stored.project.buildings:
            known = self._joints.known(self._stored.project, building)
            self._verdicts.building(self._fixings.owned(self._stored), building, known)
        return self._queue.waiting
