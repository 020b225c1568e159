"""The queue: how far a question is, and stopping it, begun or not."""

from __future__ import annotations

import time
from collections.abc import Iterator

import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.fixings.cell import Cell, cell_of
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.progress import Stopped
from nimble_shell.services.solver_queue import SolverQueue

PATIENCE = 60  # a loaded machine solves slowly [s]


def cell(d: float) -> Cell:
    """A bracket through so much insulation: several grids in space."""
    wall = SYSTEMS["masonry"].assembly("m", "M", {"insulation": d})
    return cell_of(wall, started("bracket", wall, wall.layers[wall.core_index or 0].id, "f"), CATALOGUE, Basis())


@pytest.fixture(scope="module")
def queue() -> Iterator[SolverQueue]:
    """One worker, and nobody else who asks it."""
    queue = SolverQueue(workers=1)
    yield queue
    queue.stop()


def args(d: float) -> tuple[Cell, dict[str, float], str, str]:
    return cell(d), {"inside": 20.0, "outside": -10.0}, "iso6946", "final"


def test_a_question_tells_how_far_it_is_and_is_stopped(queue: SolverQueue) -> None:
    future = queue.ask(solve_fixing, *args(0.151), ticket="t1")
    seen = []
    until = time.monotonic() + PATIENCE
    while queue.progress("t1").grids < 2 and time.monotonic() < until:
        time.sleep(0.01)
    seen.append(queue.progress("t1"))
    assert seen[0].grids >= 2
    assert seen[0].unknowns > 1000
    assert queue.cancel("t1") == 1
    with pytest.raises(Stopped):
        future.result(timeout=PATIENCE)
    assert queue.progress("t1").grids == 0
    # Asked again it is solved: being stopped is no answer.
    assert queue.ask(solve_fixing, *args(0.151)).result(timeout=PATIENCE).chi > 0


def test_one_that_waits_is_stopped_at_once_and_the_other_goes_on(queue: SolverQueue) -> None:
    first = queue.ask(solve_fixing, *args(0.152), ticket="first")
    second = queue.ask(solve_fixing, *args(0.153), ticket="second")
    assert queue.progress("second").waiting == 1
    assert queue.cancel("second") == 1
    with pytest.raises(Stopped):
        second.result(timeout=1)
    assert first.result(timeout=PATIENCE).chi > 0
    assert queue.cancel("nobody") == 0


def test_both_who_ask_the_same_have_one_answer(queue: SolverQueue) -> None:
    one, other = (queue.ask(solve_fixing, *args(0.154), ticket=ticket) for ticket in ("a", "b"))
    assert queue.waiting == 1
    assert one.result(timeout=PATIENCE) is other.result(timeout=PATIENCE)
