"""The queue where joints and fixings are solved: worker processes, and answers kept by what was asked."""

from __future__ import annotations

import hashlib
import heapq
import itertools
import multiprocessing
import multiprocessing.connection
import os
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import BrokenExecutor, CancelledError, Future, ProcessPoolExecutor
from dataclasses import dataclass, field
from typing import Any, TypeVar

from nimble_shell import __version__
from nimble_shell.core.errors import DomainError, NotConverged
from nimble_shell.core.progress import Stopped, watched

T = TypeVar("T")
_MOST_KEPT = 256  #: answers in memory, the least used forgotten first


def key_of(solve: Callable[..., Any], *args: Any) -> str:
    """One string for one question, and for this version of the program.

    Equal arguments have one: they are values that are written out alike (numbers, texts, tuples, mappings in one order
    and frozen dataclasses of these), whether or not their parts are the same objects.
    """
    asked = (__version__, solve.__qualname__, args)
    return hashlib.sha256(repr(asked).encode()).hexdigest()


#: What a worker tells the server: grids and unknowns of each place at the queue; and what the server tells it.
_reported: Any = None
_stop: Any = None


def take_place(reported: Any, stop: Any) -> None:
    """First of all a worker takes what it shares with the server, and ends with it."""
    global _reported, _stop
    _reported, _stop = reported, stop
    follow_parent()


def work(place: int, solve: Callable[..., T], args: tuple[Any, ...]) -> T:
    """A question solved in a worker, at one place of the queue."""

    def watch(grids: int, unknowns: int) -> None:
        _reported[2 * place], _reported[2 * place + 1] = grids, unknowns
        if _stop[place]:
            raise Stopped

    with watched(watch):
        return solve(*args)


@dataclass(frozen=True, slots=True, kw_only=True)
class Progress:
    """How far the questions of a ticket are."""

    waiting: int  #: not begun
    grids: int  #: grids that the one being solved has tried, or hours it has run; 0 where none is
    unknowns: int  #: of its grid, or hours it is asked in all


def warm() -> int:
    """What a worker does first, so that no question waits for the libraries or for what is compiled."""
    from nimble_shell.core.moisture.hourly import warm as moisture

    moisture.warm()
    return os.getpid()


def follow_parent() -> None:
    """A worker ends with the server that started it, also when that one was killed."""
    parent = multiprocessing.parent_process()
    if parent is None:
        return

    def watch() -> None:
        multiprocessing.connection.wait([parent.sentinel])
        os._exit(1)

    threading.Thread(target=watch, daemon=True).start()


class SolverQueue:
    """Solves in worker processes; a question asked twice is solved once, and what somebody looks at comes first.

    Without workers questions are kept and never answered.
    """

    def __init__(self, workers: int = 2) -> None:
        self._workers = workers
        self._pool: ProcessPoolExecutor | None = None
        self._lock = threading.Lock()
        self._kept: OrderedDict[str, Any] = OrderedDict()
        self._asked: dict[str, _Question] = {}
        self._waiting: list[tuple[int, int, _Question]] = []
        self._number = itertools.count()
        self._context = multiprocessing.get_context("spawn")
        self._reported = self._context.Array("i", 2 * max(workers, 1), lock=False)
        self._stop = self._context.Array("b", max(workers, 1), lock=False)
        self._free = list(range(workers))
        self._refused: OrderedDict[str, Exception] = OrderedDict()
        self._stopped = False

    def start(self) -> None:
        """Start the workers, so that the first question finds them warm."""
        if self._workers == 0:
            return
        with self._lock:
            pool = self._started()
        for _ in range(self._workers):
            pool.submit(warm)

    def stop(self) -> None:
        """Stop the workers; what is waiting or running is dropped."""
        with self._lock:
            self._stopped = True
            pool, self._pool = self._pool, None
            dropped, self._waiting, self._free = self._waiting, [], []
            self._asked.clear()
        for _, _, question in dropped:
            question.future.cancel()
        if pool is not None:
            pool.shutdown(wait=False, cancel_futures=True)

    def known(self, key: str) -> Any:
        """An answer that is there already, else None."""
        with self._lock:
            found = self._kept.get(key)
            if found is not None:
                self._kept.move_to_end(key)
            return found

    def ask(
        self, solve: Callable[..., T], *args: Any, looked_at: bool = True, ticket: str = "", keep: bool = True
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
            By which its progress is asked, and by which it is stopped.
        keep : bool
            Whether the answer stays in memory; large ones are kept elsewhere by who asks.
        """
        key = key_of(solve, *args)
        rank = 0 if looked_at else 1
        with self._lock:
            if key in self._kept:
                done: Future[T] = Future()
                done.set_result(self._kept[key])
                return done
            if key in self._refused:
                refused: Future[T] = Future()
                refused.set_exception(self._refused[key])
                return refused
            question = self._asked.get(key)
            if question is None:
                question = _Question(key, solve, args, Future(), keep=keep)
                self._asked[key] = question
            if ticket:
                question.tickets.add(ticket)
            if question.rank <= rank or question.begun:
                return question.future
            question.rank = rank  # put again before where it was; the later entry is passed over
            heapq.heappush(self._waiting, (rank, next(self._number), question))
        self._next()
        return question.future

    def refused(self, key: str) -> bool:
        """Whether a question is known to have no answer."""
        with self._lock:
            return key in self._refused

    def progress(self, ticket: str) -> Progress:
        """How far the questions of a ticket are."""
        with self._lock:
            own = [one for one in self._asked.values() if ticket in one.tickets]
            at = next((one.place for one in own if one.begun), None)
            grids, unknowns = (0, 0) if at is None else (self._reported[2 * at], self._reported[2 * at + 1])
            return Progress(waiting=sum(not one.begun for one in own), grids=grids, unknowns=unknowns)

    def cancel(self, ticket: str) -> int:
        """Stop the questions of a ticket: those that wait at once, one that is solved before its next grid."""
        with self._lock:
            own = [one for one in self._asked.values() if ticket in one.tickets]
            for one in own:
                if one.begun:
                    self._stop[one.place] = 1
                else:
                    one.begun = True  # passed over in the queue
                    self._asked.pop(one.key)
        for one in own:
            if one.place < 0 and one.future.set_running_or_notify_cancel():
                one.future.set_exception(Stopped())
        return len(own)

    @property
    def waiting(self) -> int:
        """Questions that have no answer yet."""
        with self._lock:
            return len(self._asked)

    def _next(self) -> None:
        """Hand questions to workers that are free, the most wanted first."""
        while True:
            with self._lock:
                if self._stopped or not self._free or not self._waiting:
                    return
                _, _, question = heapq.heappop(self._waiting)
                if question.begun:
                    continue
                question.begun = True
                question.place = place = self._free.pop()
                self._reported[2 * place] = self._reported[2 * place + 1] = self._stop[place] = 0
                working = self._started().submit(work, place, question.solve, question.args)
            working.add_done_callback(lambda found, question=question: self._answered(question, found))  # type: ignore[misc]

    def _started(self) -> ProcessPoolExecutor:
        if self._pool is None:
            # A fresh interpreter: a fork would copy the server's threads and open database.
            self._pool = ProcessPoolExecutor(
                max_workers=self._workers,
                mp_context=self._context,
                initializer=take_place,
                initargs=(self._reported, self._stop),
            )
        return self._pool

    def _answered(self, question: _Question, working: Future[Any]) -> None:
        error = CancelledError() if working.cancelled() else working.exception()
        with self._lock:
            if not self._stopped:
                self._free.append(question.place)
            self._asked.pop(question.key, None)
            if error is None and question.keep:
                self._kept[question.key] = working.result()
                while len(self._kept) > _MOST_KEPT:
                    self._kept.popitem(last=False)
            elif isinstance(error, DomainError | NotConverged):  # it would not go better a second time
                self._refused[question.key] = error
                while len(self._refused) > _MOST_KEPT:
                    self._refused.popitem(last=False)
            if isinstance(error, BrokenExecutor):
                self._pool = None  # a worker was killed: the next question starts new ones
        if question.future.set_running_or_notify_cancel():
            if error is None:
                question.future.set_result(working.result())
            else:
                question.future.set_exception(error)
        self._next()


@dataclass(slots=True, eq=False)
class _Question:
    """One question, from being asked to being answered."""

    key: str
    solve: Callable[..., Any]
    args: tuple[Any, ...]
    future: Future[Any]
    rank: int = 2
    begun: bool = False
    place: int = -1  #: at the queue, while it is solved
    tickets: set[str] = field(default_factory=set)
    keep: bool = True
