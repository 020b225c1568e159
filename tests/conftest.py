"""Shared ground: a wall, a Basis, a database on a temporary file, and an API client on it."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from nimble_shell.api.main import create_app
from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.demo import PROJECT_ID, plant
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.solver_queue import SolverQueue
from nimble_shell.store import Database

# Shared machines are slow and noisy: no deadline per example, and the same examples on every run.
settings.register_profile("nimble", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("nimble")

HERE = "http://127.0.0.1"


@pytest.fixture
def basis() -> Basis:
    return Basis()


@pytest.fixture
def sip() -> Assembly:
    return SYSTEMS["sip"].assembly("wall", "SIP wall")


@pytest.fixture
def database(tmp_path: Path) -> Iterator[Database]:
    database = Database(tmp_path / "data", busy_ms=200)
    database.migrate()
    yield database
    database.close()


@pytest.fixture
def projects(database: Database) -> ProjectService:
    return ProjectService(database)


@pytest.fixture
def client(database: Database) -> TestClient:
    """An API whose joints wait to be solved for ever."""
    return TestClient(create_app(database, queue=SolverQueue(workers=0)), HERE, raise_server_exceptions=False)


@pytest.fixture(scope="session")
def queue() -> Iterator[SolverQueue]:
    queue = SolverQueue(workers=1)
    yield queue
    queue.stop()


@pytest.fixture
def solving(database: Database, queue: SolverQueue) -> TestClient:
    """An API whose joints are solved."""
    return TestClient(create_app(database, queue=queue), HERE, raise_server_exceptions=False)


@pytest.fixture
def campus(projects: ProjectService) -> str:
    """The demo campus, stored; its id."""
    plant(projects)
    return PROJECT_ID
