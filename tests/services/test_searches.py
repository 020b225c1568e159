"""Work in a thread of this process: told by its ticket, ended by it, and never left behind."""

from __future__ import annotations

import threading
from collections.abc import Iterator

import pytest

from nimble_shell.core.progress import Stopped, report
from nimble_shell.services.solver_queue import Progress, SolverQueue

PATIENCE = 10.0  #: [s]


@pytest.fixture
def queue() -> Iterator[SolverQueue]:
    queue = SolverQueue(workers=0)
    yield queue
    queue.stop()


class Steps:
    """Work of many steps, of which each waits until it is let go on."""

    def __init__(self) -> None:
        self.at, self.go = threading.Event(), threading.Semaphore(0)

    def __call__(self) -> str:
        for done in range(1, 100):
            report(done, 99)
            self.at.set()
            self.go.acquire(timeout=PATIENCE)
        return "through"


def test_a_search_is_told_by_its_ticket_and_ends_where_it_is_stopped(queue: SolverQueue) -> None:
    steps = Steps()
    future = queue.searches.begin("window.1", steps)
    assert steps.at.wait(PATIENCE)
    assert queue.under("window") == {"window.1": Progress(waiting=0, grids=1, unknowns=99)}
    assert queue.under("another") == {}
    assert queue.cancel("window.1") == 1
    steps.go.release(100)
    with pytest.raises(Stopped):
        future.result(PATIENCE)
    assert queue.under("window") == {}
    assert queue.cancel("window.1") == 0


def test_one_that_is_let_go_on_answers_and_another_is_not_touched_by_its_end(queue: SolverQueue) -> None:
    first, second = Steps(), Steps()
    one, other = (queue.searches.begin(f"w.{n}", each) for n, each in enumerate((first, second)))
    assert first.at.wait(PATIENCE)
    queue.cancel("w.0")
    first.go.release(100)
    second.go.release(100)
    with pytest.raises(Stopped):
        one.result(PATIENCE)
    assert other.result(PATIENCE) == "through"


def test_what_fails_tells_who_asked(queue: SolverQueue) -> None:
    def fails() -> None:
        raise ValueError("no")

    with pytest.raises(ValueError, match="no"):
        queue.searches.begin("w.1", fails).result(PATIENCE)
    assert queue.under("w") == {}


def test_nothing_is_left_running_when_the_queue_stops(queue: SolverQueue) -> None:
    steps = Steps()
    future = queue.searches.begin("w.1", steps)
    assert steps.at.wait(PATIENCE)
    queue.stop()
    steps.go.release(100)
    with pytest.raises(Stopped):
        future.result(PATIENCE)
