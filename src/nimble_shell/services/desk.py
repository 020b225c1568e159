"""The desk where joints are solved: worker processes, and answers kept by what was asked."""

from __future__ import annotations

import hashlib
import multiprocessing
import os
import pickle
import threading
from collections import OrderedDict
from collections.abc import Mapping
from concurrent.futures import Future, ProcessPoolExecutor

from nimble_shell import __version__
from nimble_shell.core.assemblies.films import FilmSchool
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.solved import Accuracy, SolvedJoint, solve_joint

_MOST_KEPT = 256  #: answers in memory, the least used forgotten first


def key_of(drawing: Drawing, temperatures: Mapping[str, float], school: FilmSchool, accuracy: Accuracy) -> str:
    """One string for one question, and for this version of the program."""
    asked = (__version__, drawing, sorted(temperatures.items()), school, accuracy)
    return hashlib.sha256(pickle.dumps(asked, protocol=5)).hexdigest()


def warm() -> int:
    """What a worker does first, so that no question waits for the libraries."""
    return os.getpid()


class JointDesk:
    """Solves in worker processes; a question asked twice is solved once."""

    def __init__(self, workers: int = 2) -> None:
        self._workers = workers
        self._pool: ProcessPoolExecutor | None = None
        self._lock = threading.Lock()
        self._kept: OrderedDict[str, SolvedJoint] = OrderedDict()
        self._running: dict[str, Future[SolvedJoint]] = {}

    def start(self) -> None:
        """Start the workers, so that the first question finds them warm."""
        with self._lock:
            pool = self._started()
        for _ in range(self._workers):
            pool.submit(warm)

    def stop(self) -> None:
        """Stop the workers; what is running is dropped."""
        with self._lock:
            pool, self._pool = self._pool, None
            self._running.clear()
        if pool is not None:
            pool.shutdown(wait=False, cancel_futures=True)

    def known(self, key: str) -> SolvedJoint | None:
        """An answer that is there already."""
        with self._lock:
            found = self._kept.get(key)
            if found is not None:
                self._kept.move_to_end(key)
            return found

    def ask(
        self, drawing: Drawing, temperatures: Mapping[str, float], school: FilmSchool, accuracy: Accuracy
    ) -> Future[SolvedJoint]:
        """An answer, at once or later. The future raises DomainError where the drawing cannot be solved."""
        key = key_of(drawing, temperatures, school, accuracy)
        with self._lock:
            if key in self._kept:
                done: Future[SolvedJoint] = Future()
                done.set_result(self._kept[key])
                return done
            running = self._running.get(key)
            if running is not None:
                return running
            future = self._started().submit(solve_joint, drawing, dict(temperatures), school, accuracy)
            self._running[key] = future
        future.add_done_callback(lambda found: self._keep(key, found))
        return future

    @property
    def waiting(self) -> int:
        """Questions that have no answer yet."""
        with self._lock:
            return len(self._running)

    def _started(self) -> ProcessPoolExecutor:
        if self._pool is None:
            # A fresh interpreter: a fork would copy the server's threads and open database.
            context = multiprocessing.get_context("spawn")
            self._pool = ProcessPoolExecutor(max_workers=self._workers, mp_context=context)
        return self._pool

    def _keep(self, key: str, future: Future[SolvedJoint]) -> None:
        with self._lock:
            self._running.pop(key, None)
            if future.cancelled() or future.exception() is not None:
                return
            self._kept[key] = future.result()
            while len(self._kept) > _MOST_KEPT:
                self._kept.popitem(last=False)
