"""A solver queue without workers that knows what a test says."""

from __future__ import annotations

from concurrent.futures import Future
from typing import Any

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.services.solver_queue import SolverQueue, key_of


class Answering(SolverQueue):
    """Nothing is ever solved here: it has been told, or it waits."""

    def __init__(self) -> None:
        super().__init__(workers=0)
        self.asked: list[str] = []
        self.questions: list[tuple[Any, ...]] = []  #: what each was asked of
        self.fails = ""

    def ask(self, solve: Any, *args: Any, **more: Any) -> Future[Any]:
        self.asked.append(solve.__qualname__)
        self.questions.append(args)
        if self.fails:
            future: Future[Any] = Future()
            future.set_exception(DomainError(Issue(path=(), code="no", message=self.fails, hint="")))
            return future
        return super().ask(solve, *args, **more)

    def tell(self, solve: Any, args: tuple[Any, ...], answer: Any) -> None:
        """From now on this is the answer."""
        self.answers.hold(key_of(solve, *args), answer)
        self.generation += 1
