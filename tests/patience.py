"""Waiting for what is solved in workers: for the answers themselves, not for some time."""

from __future__ import annotations

from concurrent.futures import wait

from fastapi.testclient import TestClient

from nimble_shell.services.solver_queue import SolverQueue

PATIENCE = 120  #: a loaded machine solves slowly [s]


def let_it_solve(client: TestClient) -> None:
    """Until one of the open questions of an API's queue has its answer, or none is open."""
    queue: SolverQueue = client.app.state.queue  # type: ignore[attr-defined]
    wait(queue.futures(), timeout=PATIENCE, return_when="FIRST_COMPLETED")
