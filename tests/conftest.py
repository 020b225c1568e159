"""Shared ground: a wall, a Basis, a database on a temporary file, and an API client on it."""

from __future__ import annotations

import gc
import shutil
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


def pytest_collection_finish() -> None:
    """What was read up to here stays to the end: it is not looked through for garbage again and again.

    What is made from here on is looked through less often: there is memory enough.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


@pytest.fixture
def basis() -> Basis:
    return Basis()


@pytest.fixture
def sip() -> Assembly:
    return SYSTEMS["sip"].assembly("wall", "SIP wall")


@pytest.fixture(scope="session")
def empty_folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data folder as the first start makes it, to be copied: every migration run once, not for each test."""
    folder = tmp_path_factory.mktemp("empty") / "data"
    database = Database(folder)
    database.migrate()
    database.close()
    return folder


@pytest.fixture(scope="session")
def planted_folder(tmp_path_factory: pytest.TempPathFactory, empty_folder: Path) -> Path:
    """The same with the demo campus in it."""
    folder = tmp_path_factory.mktemp("planted") / "data"
    shutil.copytree(empty_folder, folder)
    database = Database(folder)
    plant(ProjectService(database))
    database.close()
    return folder


@pytest.fixture
def database(tmp_path: Path, request: pytest.FixtureRequest) -> Iterator[Database]:
    made = "planted_folder" if "campus" in request.fixturenames else "empty_folder"
    shutil.copytree(request.getfixturevalue(made), tmp_path / "data")
    database = Database(tmp_path / "data", busy_ms=200)
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
def campus(database: Database) -> str:
    """The demo campus, stored from the start; its id."""
    return PROJECT_ID
