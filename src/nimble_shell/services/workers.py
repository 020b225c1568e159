"""Worker processes: each with a pipe of its own, so that one that dies takes nobody else's question along."""

from __future__ import annotations

import logging
import multiprocessing
import multiprocessing.connection
import os
import pickle
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from multiprocessing.connection import Connection
from multiprocessing.context import SpawnProcess
from typing import Any

from nimble_shell.core.progress import Stopped, watched

log = logging.getLogger(__name__)

_MOST_FAILURES = 5  #: in a row; then workers are only started for a question
_THREADS = ("OPENBLAS_NUM_THREADS", "MKL_NUM_THREADS", "OMP_NUM_THREADS")
_LIKELY = 4  #: workers that progress and stops have room for, at least


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """What came of a question: a value, or an error; lost where its worker ended before it could say."""

    value: Any = None
    error: Exception | None = None
    took: float = 0.0  #: [s]
    size: int = 0  #: of the value on its way [bytes]
    lost: bool = False


@dataclass(slots=True, eq=False)
class Worker:
    """One process, and what it is at."""

    slot: int
    process: SpawnProcess
    pipe: Connection
    done: Callable[[Outcome], None] | None = field(default=None)  #: None while it is idle


class Workers:
    """Hands questions to processes and their outcomes back. A worker that ends is replaced.

    Outcomes are told in a thread of the pool, one after the other.
    """

    def __init__(self, most: int) -> None:
        self._context = multiprocessing.get_context("spawn")  # a fork would copy the server's threads and database
        slots = max(most, _LIKELY)
        self._reported = self._context.Array("i", 2 * slots, lock=False)
        self._stops = self._context.Array("b", slots, lock=False)
        self._free = list(range(slots))[::-1]
        self._lock = threading.RLock()
        self._workers: list[Worker] = []
        self._woken, self._wake = self._context.Pipe(duplex=False)
        self._ended = False
        self._failures = 0  #: workers that ended since one of them last said anything
        self._thread: threading.Thread | None = None

    @property
    def count(self) -> int:
        with self._lock:
            return len(self._workers)

    @property
    def processes(self) -> list[int]:
        """Their process numbers."""
        with self._lock:
            return [worker.process.pid or 0 for worker in self._workers]

    def idle(self) -> Worker | None:
        """A worker that waits for a question."""
        with self._lock:
            return next((one for one in self._workers if one.done is None and one.process.is_alive()), None)

    def add(self) -> Worker:
        """One more worker."""
        with self._lock:
            slot = self._free.pop()
            here, there = self._context.Pipe()
            process = self._context.Process(
                target=_work, args=(slot, there, self._reported, self._stops), daemon=True, name=f"worker {slot}"
            )
            with _one_thread_each():
                process.start()
            there.close()
            worker = Worker(slot, process, here)
            self._workers.append(worker)
            if self._thread is None:
                self._thread = threading.Thread(target=self._listen, name="workers", daemon=True)
                self._thread.start()
        self._wake.send_bytes(b".")
        return worker

    def ask(
        self, worker: Worker, solve: Callable[..., Any], args: tuple[Any, ...], done: Callable[[Outcome], None]
    ) -> None:
        """Give an idle worker a question; `done` is told its outcome, once."""
        self._reported[2 * worker.slot] = self._reported[2 * worker.slot + 1] = self._stops[worker.slot] = 0
        worker.done = done
        try:
            worker.pipe.send((solve, args))
        except (BrokenPipeError, OSError):
            log.warning("%s had ended before it was asked", worker.process.name)  # the thread sees that, too

    def stop(self, worker: Worker) -> None:
        """What a worker is at ends before its next grid or month."""
        self._stops[worker.slot] = 1

    def reported(self, worker: Worker) -> tuple[int, int]:
        """How far a worker is: grids or hours done, and unknowns or hours in all."""
        return self._reported[2 * worker.slot], self._reported[2 * worker.slot + 1]

    def end(self) -> None:
        """End every worker; what they are at is lost without a word. What was answered is seen to before."""
        with self._lock:
            self._ended = True
            workers, self._workers = self._workers, []
        for worker in workers:
            worker.process.terminate()
        for worker in workers:
            worker.process.join(timeout=5)
            worker.pipe.close()
        if self._thread is not None:
            self._wake.send_bytes(b".")
            if self._thread is not threading.current_thread():
                self._thread.join(timeout=5)

    def _listen(self) -> None:
        while True:
            with self._lock:
                if self._ended:
                    return
                pipes = {worker.pipe: worker for worker in self._workers}
                ends = {worker.process.sentinel: worker for worker in self._workers}
            for ready in multiprocessing.connection.wait([self._woken, *pipes, *ends]):
                if ready is self._woken:
                    self._woken.recv_bytes()
                elif isinstance(ready, Connection):
                    self._hear(pipes[ready])
                else:
                    self._gone(ends[ready])  # type: ignore[index]  # what is ready is one of the three

    def _hear(self, worker: Worker) -> None:
        try:
            sent = worker.pipe.recv_bytes()
        except (EOFError, OSError):
            self._gone(worker)
            return
        outcome: Outcome = replace(pickle.loads(sent), size=len(sent))
        self._failures = 0
        done, worker.done = worker.done, None
        if done is not None:
            done(outcome)

    def _gone(self, worker: Worker) -> None:
        """A worker has ended by itself: another one takes its place, and who waits for it is told."""
        with self._lock:
            if self._ended or worker not in self._workers:
                return
            self._workers.remove(worker)
            self._free.append(worker.slot)
        worker.process.join(timeout=1)
        worker.pipe.close()
        log.warning("%s ended with %s and is replaced", worker.process.name, worker.process.exitcode)
        self._failures += 1
        if self._failures <= _MOST_FAILURES:
            self.add()
        done, worker.done = worker.done, None
        if done is not None:
            done(Outcome(lost=True))


def _work(slot: int, pipe: Connection, reported: Any, stops: Any) -> None:
    """In a worker: questions one after the other, until the server is gone."""
    _follow_parent()

    def watch(done: int, of: int) -> None:
        reported[2 * slot], reported[2 * slot + 1] = done, of
        if stops[slot]:
            raise Stopped

    while True:
        try:
            solve, args = pipe.recv()
        except (EOFError, OSError):
            return
        begun = time.perf_counter()
        try:
            with watched(watch):
                outcome = Outcome(value=solve(*args), took=time.perf_counter() - begun)
        except Exception as error:
            outcome = Outcome(error=error, took=time.perf_counter() - begun)
        _tell(pipe, outcome)


@contextmanager
def _one_thread_each() -> Iterator[None]:
    """What is started here has one thread for linear algebra: there is a worker for each core, and threads that wait
    for one another in all of them take twice the time. It is said by the environment, before NumPy is there."""
    before = dict(os.environ)
    os.environ.update(dict.fromkeys(_THREADS, "1") | {name: one for name, one in before.items() if name in _THREADS})
    try:
        yield
    finally:
        for name in _THREADS:
            if name not in before:
                del os.environ[name]


def _tell(pipe: Connection, outcome: Outcome) -> None:
    try:
        pipe.send(outcome)
    except (BrokenPipeError, ConnectionResetError):
        os._exit(1)
    except Exception as error:  # an error, or a value, that does not go through a pipe
        pipe.send(Outcome(error=RuntimeError(f"{type(error).__name__}: {error}"), took=outcome.took))


def _follow_parent() -> None:
    """A worker ends with the server that started it, also when that one was killed."""
    parent = multiprocessing.parent_process()
    if parent is None:
        return

    def watch() -> None:
        multiprocessing.connection.wait([parent.sentinel])
        os._exit(1)

    threading.Thread(target=watch, daemon=True).start()
