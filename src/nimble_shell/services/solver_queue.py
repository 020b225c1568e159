"""The solver queue: questions that take long are solved in worker processes, once for everybody who asks them."""

from __future__ import annotations

import hashlib
import heapq
import itertools
import logging
import os
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import dataclass, field
from functools import partial
from typing import Any, TypeVar

from nimble_shell.core.errors import DomainError, NotConverged
from nimble_shell.core.progress import Stopped
from nimble_shell.services.answers import Answers
from nimble_shell.services.edition import edition
from nimble_shell.services.searches import Searches
from nimble_shell.services.workers import Outcome, Worker, Workers

log = logging.getLogger(__name__)

T = TypeVar("T")
_MOST_REFUSED = 1024  #: questions that are known to have no answer
_TRIES = 2  #: of a question whose worker ends
_BACKGROUND = ""  #: the ticket of what nobody looks at


class WorkerLost(RuntimeError):
    """The workers that solved a question ended before they answered, again and again."""

    def __init__(self) -> None:
        super().__init__("the process that solved this ended twice; nothing was changed")


def key_of(solve: Callable[..., Any], *args: Any) -> str:
    """One string for one question, and for the sources that answer it.

    Equal arguments have one: they are values that are written out alike (numbers, texts, tuples, mappings in one order
    and frozen dataclasses of these), whether or not their parts are the same objects.
    """
    asked = (edition(solve), solve.__qualname__, args)
    return hashlib.sha256(repr(asked).encode()).hexdigest()


def warm() -> int:
    """What a worker does first, so that no question waits for the libraries or for what is compiled."""
    from nimble_shell.core.moisture.hourly import warm as moisture

    moisture.warm()
    return os.getpid()


@dataclass(frozen=True, slots=True, kw_only=True)
class Progress:
    """How far the questions of a ticket are."""

    waiting: int  #: not begun
    grids: int  #: grids that the one being solved has tried, or hours or sets it has run; 0 where none is
    unknowns: int  #: of its grid, or hours or sets that it is asked in all


class SolverQueue:
    """Solves in worker processes; a question asked twice is solved once, and what somebody looks at comes first.

    Long questions never hold every worker: while they do, one more worker is there for short ones. Without workers
    questions are kept and never answered.
    """

    def __init__(self, workers: int = 2, answers: Answers | None = None) -> None:
        self.answers = answers or Answers()
        self.searches = Searches(self._tell)
        self._most = workers
        self._workers = Workers(workers + 1)
        self._lock = threading.RLock()
        self._asked: dict[str, _Question] = {}
        self._waiting: list[tuple[int, int, _Question]] = []
        self._number = itertools.count()
        self._refused: OrderedDict[str, Exception] = OrderedDict()
        self._listeners: list[Callable[[str], None]] = []
        self._stopped = False
        self.generation = 0  #: counts what was answered or refused, so that what rests on answers knows it is old

    def start(self) -> None:
        """Start the workers, so that the first question finds them warm."""
        with self._lock:
            if self._stopped:
                return
            begun = [self._workers.add() for _ in range(self._most - self._workers.count)]
            for worker in begun:
                self._workers.ask(worker, warm, (), lambda _: self._next())

    def stop(self) -> None:
        """Stop the workers; what is waiting or running is dropped."""
        with self._lock:
            self._stopped = True
            dropped = list(self._asked.values())
            self._asked.clear()
            self._waiting.clear()
        for question in dropped:
            question.answer_all(error=Stopped())
        self.searches.stop()
        self._workers.end()

    def listen(self, listener: Callable[[str], None]) -> Callable[[], None]:
        """Be told the key of all that is answered or refused from now on, and the ticket of every search that begins.

        Call what is returned to end that.
        """
        with self._lock:
            self._listeners.append(listener)
        return lambda: self._listeners.remove(listener) if listener in self._listeners else None

    def known(self, key: str) -> Any:
        """An answer that is there already, else None."""
        return self.answers.get(key)

    def figures(self, key: str) -> Any:
        """The figures of an answer that is there already, without its fields; else None."""
        return self.answers.figures(key)

    def refused(self, key: str) -> bool:
        """Whether a question is known to have no answer."""
        with self._lock:
            return key in self._refused

    def ask(
        self, solve: Callable[..., T], *args: Any, looked_at: bool = True, ticket: str = _BACKGROUND, long: bool = False
    ) -> Future[T]:
        """An answer, at once or later. The future raises DomainError where it cannot be solved.

        Parameters
        ----------
        solve : callable
            A function of a module, without state; it runs in a worker.
        args
            What it is asked of; equal arguments have one answer.
        looked_at : bool
            Whether somebody waits for it on a screen; such questions are solved before the others.
        ticket : str
            By which its progress is asked, and by which who asked lets go of it.
        long : bool
            Whether it takes many seconds: such questions leave room for others.
        """
        key = key_of(solve, *args)
        future: Future[T] = Future()
        found = self.answers.get(key)
        if found is not None:
            future.set_result(found)
            return future
        rank = 0 if looked_at else 1
        with self._lock:
            if key in self._refused:
                future.set_exception(self._refused[key])
                return future
            question = self._asked.get(key)
            if question is None:
                question = self._asked[key] = _Question(key, solve, args, long=long)
            waiting = None if looked_at else question.future_of(ticket)
            if waiting is not None:
                return waiting
            question.waiters.append((ticket, future))
            if rank < question.rank and question.worker is None:
                question.rank = rank  # put again before where it was; the later entry is passed over
                heapq.heappush(self._waiting, (rank, next(self._number), question))
        self._next()
        return future

    def progress(self, ticket: str) -> Progress:
        """How far the questions of a ticket are, or what is searched under it."""
        search = self.searches.under.get(ticket)
        with self._lock:
            own = [one for one in self._asked.values() if one.is_of(ticket)]
            if search is not None:
                return Progress(waiting=len(own), grids=search.done, unknowns=search.of)
            at = next((one.worker for one in own if one.worker is not None), None)
            grids, unknowns = (0, 0) if at is None else self._workers.reported(at)
            return Progress(waiting=sum(one.worker is None for one in own), grids=grids, unknowns=unknowns)

    def under(self, window: str) -> dict[str, Progress]:
        """How far the questions of a window's tickets are; their names begin with its own."""
        with self._lock:
            asked = {ticket for question in self._asked.values() for ticket, _ in question.waiters}
            tickets = {one for one in asked.union(list(self.searches.under)) if one.startswith(f"{window}.")}
            return {ticket: self.progress(ticket) for ticket in sorted(tickets)}

    def cancel(self, ticket: str) -> int:
        """Let go of the questions of a ticket, and end what is searched under it: who waits for them is told so.

        A question that nobody else waits for ends: at once where it waits, before its next grid where it is solved.
        """
        stopped: list[Future[Any]] = []
        with self._lock:
            own = [one for one in self._asked.values() if one.is_of(ticket)]
            for one in own:
                stopped += one.let_go(ticket)
                if not one.waiters:
                    self._asked.pop(one.key)
                    one.dropped = True
                    if one.worker is not None:
                        self._workers.stop(one.worker)
        for future in stopped:
            _settle(future, error=Stopped())
        return len(own) + self.searches.cancel(ticket)

    @property
    def waiting(self) -> int:
        """Questions that have no answer yet."""
        with self._lock:
            return len(self._asked)

    def futures(self) -> list[Future[Any]]:
        """One future of every question that has no answer yet."""
        with self._lock:
            return [one.waiters[0][1] for one in self._asked.values() if one.waiters]

    @property
    def processes(self) -> list[int]:
        """Process numbers of the workers."""
        return self._workers.processes

    def _next(self) -> None:
        """Hand questions to workers that are idle, the most wanted first."""
        while True:
            with self._lock:
                if self._stopped or self._most == 0 or not self._waiting:
                    return
                worker, question = self._pair()
                if worker is None or question is None:
                    return
                question.worker = worker
                question.tries += 1
                self._workers.ask(
                    worker,
                    question.solve,
                    question.args,
                    partial(self._answered, question),
                )

    def _pair(self) -> tuple[Worker | None, _Question | None]:
        """A worker and the question it may take; long ones leave the last worker to short ones."""
        while self._waiting and not self._waiting[0][2].waits:
            heapq.heappop(self._waiting)
        if not self._waiting:
            return None, None
        while self._workers.count < self._most:
            self._workers.add()
        at_long = sum(one.long for one in self._asked.values() if one.worker is not None)
        at = 0
        if at_long >= self._most:
            short = [n for n, (_, _, one) in enumerate(self._waiting) if one.waits and not one.long]
            if not short:
                return None, None
            at = min(short, key=lambda n: self._waiting[n][:2])
            if self._workers.idle() is None and self._workers.count <= self._most:
                self._workers.add()
        worker = self._workers.idle()
        if worker is None:
            return None, None
        question = self._waiting.pop(at)[2]
        heapq.heapify(self._waiting)
        return worker, question

    def _answered(self, question: _Question, outcome: Outcome) -> None:
        good = outcome.error is None and not outcome.lost
        if good:  # before it is no longer asked: who asks in between finds it
            self.answers.hold(question.key, outcome.value, outcome.size)
        with self._lock:
            question.worker = None
            if outcome.lost and not question.dropped and question.tries < _TRIES:
                heapq.heappush(self._waiting, (question.rank, next(self._number), question))
                again = True
            else:
                again = False
                if self._asked.get(question.key) is question:
                    self._asked.pop(question.key)
        if not again:
            self._settle(question, outcome)
        self._next()
        if good:  # nobody waits for the disk, and no worker stands still
            self.answers.keep(question.key, question.solve.__qualname__, outcome.value, outcome.took)

    def _settle(self, question: _Question, outcome: Outcome) -> None:
        error: Exception | None = WorkerLost() if outcome.lost else outcome.error
        if isinstance(error, DomainError | NotConverged):  # it would not go better a second time
            with self._lock:
                self._refused[question.key] = error
                while len(self._refused) > _MOST_REFUSED:
                    self._refused.popitem(last=False)
        if error is None or question.key in self._refused:
            self.generation += 1
            self._tell(question.key)
        question.answer_all(outcome.value, error)

    def _tell(self, key: str) -> None:
        for listener in list(self._listeners):
            listener(key)


@dataclass(slots=True, eq=False)
class _Question:
    """One question, from being asked to being answered, with everybody who waits for it."""

    key: str
    solve: Callable[..., Any]
    args: tuple[Any, ...]
    long: bool = False
    rank: int = 2
    tries: int = 0
    worker: Worker | None = None  #: while it is solved
    dropped: bool = False
    waiters: list[tuple[str, Future[Any]]] = field(default_factory=list)

    @property
    def waits(self) -> bool:
        """Whether it is still to be solved."""
        return self.worker is None and not self.dropped

    def is_of(self, ticket: str) -> bool:
        return any(one == ticket for one, _ in self.waiters)

    def future_of(self, ticket: str) -> Future[Any] | None:
        return next((future for one, future in self.waiters if one == ticket), None)

    def let_go(self, ticket: str) -> list[Future[Any]]:
        """Take away who waits under a ticket."""
        gone = [future for one, future in self.waiters if one == ticket]
        self.waiters = [(one, future) for one, future in self.waiters if one != ticket]
        return gone

    def answer_all(self, value: Any = None, error: Exception | None = None) -> None:
        for _, future in self.waiters:
            _settle(future, value, error)


def _settle(future: Future[Any], value: Any = None, error: Exception | None = None) -> None:
    if future.done() or not future.set_running_or_notify_cancel():
        return
    if error is None:
        future.set_result(value)
    else:
        future.set_exception(error)
