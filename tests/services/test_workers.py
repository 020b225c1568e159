"""The queue survives its workers, and nobody stops what somebody else waits for."""

from __future__ import annotations

import os
import signal
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from services import probes

from nimble_shell.core.errors import DomainError
from nimble_shell.core.progress import Stopped
from nimble_shell.services.answers import Answers
from nimble_shell.services.solver_queue import SolverQueue, WorkerLost, key_of
from nimble_shell.store import AnswerRepository, Database, StoreError

PATIENCE = 60  # a loaded machine is slow [s]


def until(true: Callable[[], bool]) -> None:
    end = time.monotonic() + PATIENCE
    while not true():
        assert time.monotonic() < end, "it did not come to pass"
        time.sleep(0.02)


@pytest.fixture(scope="module")
def pair() -> Iterator[SolverQueue]:
    """A queue of two workers."""
    queue = SolverQueue(workers=2)
    yield queue
    queue.stop()


def test_an_idle_worker_that_was_killed_is_replaced(pair: SolverQueue) -> None:
    assert pair.ask(probes.squared, 3.0).result(PATIENCE) == 9.0
    before = pair.processes
    for number in before:
        os.kill(number, signal.SIGKILL)
    until(lambda: len(pair.processes) == len(before) and not set(before) & set(pair.processes))
    assert pair.ask(probes.squared, 4.0).result(PATIENCE) == 16.0


def test_a_question_whose_worker_dies_is_asked_once_more(pair: SolverQueue, tmp_path: Path) -> None:
    file = str(tmp_path / "once")
    assert pair.ask(probes.dies, file, 1).result(PATIENCE) == "answered at attempt 2"


def test_a_question_that_kills_every_worker_ends_in_an_error_and_the_others_go_on(
    pair: SolverQueue, tmp_path: Path
) -> None:
    deadly = pair.ask(probes.dies, str(tmp_path / "always"), 99)
    other = pair.ask(probes.slept, 0.2, "beside it")
    with pytest.raises(WorkerLost):
        deadly.result(PATIENCE)
    assert other.result(PATIENCE) == "beside it"
    assert pair.ask(probes.squared, 5.0).result(PATIENCE) == 25.0
    assert (tmp_path / "always").read_text() == "xx"


def test_stopping_in_one_tab_leaves_the_other_ones_question(pair: SolverQueue) -> None:
    one = pair.ask(probes.slept, 1.0, "shared", ticket="one")
    other = pair.ask(probes.slept, 1.0, "shared", ticket="other")
    until(lambda: pair.progress("one").grids > 0)
    assert pair.cancel("one") == 1
    with pytest.raises(Stopped):
        one.result(1)
    assert other.result(PATIENCE) == "shared"


def test_what_nobody_waits_for_any_more_is_stopped(pair: SolverQueue) -> None:
    future = pair.ask(probes.slept, 60.0, "nobody", ticket="gone")
    until(lambda: pair.progress("gone").grids > 0)
    begun = time.monotonic()
    pair.cancel("gone")
    with pytest.raises(Stopped):
        future.result(1)
    assert pair.ask(probes.squared, 6.0).result(PATIENCE) == 36.0
    assert time.monotonic() - begun < 50


def test_long_questions_leave_room_for_short_ones(pair: SolverQueue) -> None:
    long = [pair.ask(probes.slept, 20.0, f"long {n}", ticket="long", long=True) for n in range(4)]
    until(lambda: pair.progress("long").waiting == 2)
    assert pair.ask(probes.squared, 7.0).result(PATIENCE) == 49.0
    assert not any(one.done() for one in long)
    pair.cancel("long")


def test_a_refusal_is_remembered_and_an_answer_that_cannot_be_told_is_an_error(pair: SolverQueue) -> None:
    for _ in range(2):
        with pytest.raises(DomainError):
            pair.ask(probes.refuses, 1).result(PATIENCE)
    assert pair.refused(key_of(probes.refuses, 1))
    with pytest.raises(RuntimeError):
        pair.ask(probes.unspeakable).result(PATIENCE)
    assert pair.ask(probes.squared, 8.0).result(PATIENCE) == 64.0


def test_who_listens_is_told_of_every_answer(pair: SolverQueue) -> None:
    heard: list[str] = []
    end = pair.listen(heard.append)
    before = pair.generation
    pair.ask(probes.squared, 9.0).result(PATIENCE)
    end()
    pair.ask(probes.squared, 10.0).result(PATIENCE)
    assert heard == [key_of(probes.squared, 9.0)]
    assert pair.generation == before + 2


def test_a_long_answer_is_there_after_a_restart(database: Database) -> None:
    first = SolverQueue(workers=1, answers=Answers(database))
    assert first.ask(probes.slept, 0.1, "kept").result(PATIENCE) == "kept"
    assert first.ask(probes.squared, 2.0).result(PATIENCE) == 4.0
    first.stop()
    again = SolverQueue(workers=0, answers=Answers(database))
    assert again.ask(probes.slept, 0.1, "kept").result(0) == "kept"
    assert again.known(key_of(probes.squared, 2.0)) is None  # it is quicker to solve it again
    again.stop()


def test_a_full_disk_does_not_throw_an_answer_away(database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    def full(*_: object) -> None:
        raise StoreError("disk_full", "The disk is full.", "Make room.")

    monkeypatch.setattr(AnswerRepository, "put", full)
    queue = SolverQueue(workers=1, answers=Answers(database))
    assert queue.ask(probes.slept, 0.1, "given").result(PATIENCE) == "given"
    assert queue.known(key_of(probes.slept, 0.1, "given")) == "given"
    queue.stop()


def test_memory_and_table_are_bounded_by_bytes(database: Database) -> None:
    answers = Answers(database, most=5000)
    for number in range(20):
        answers.hold(f"k{number}", "x" * 1000, size=1000)
        answers.keep(f"k{number}", "kind", "x" * 1000, took=1.0)
    assert sum(key in answers._held for key in (f"k{n}" for n in range(20))) <= 5
    assert answers.get("k0") == "x" * 1000  # from the table
    with database.write() as session:
        for number in range(20):
            AnswerRepository(session).put(
                f"b{number:02}", "kind", b"y" * 1000, f"2026-01-01T00:00:{number:02}", most=8000
            )
        left = [n for n in range(20) if AnswerRepository(session).body(f"b{n:02}") is not None]
    assert len(left) <= 8
    assert left[-1] == 19
