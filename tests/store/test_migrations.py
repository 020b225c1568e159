"""Files of every earlier revision: nothing is lost, and what could be undone can be undone still."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from pathlib import Path

import pytest
from store.old_files import PROJECT, REVISIONS, write_old

from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.shell.project import Project
from nimble_shell.services.answers import Answers
from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Database, Stored
from nimble_shell.store.database import FILE


@pytest.fixture(params=REVISIONS)
def old(request: pytest.FixtureRequest, tmp_path: Path) -> ProjectService:
    write_old(tmp_path / "data", request.param)
    database = Database(tmp_path / "data")
    assert database.migrate() is not None
    return ProjectService(database)


def areas(project: Project) -> dict[str, float]:
    return {building.id: building.elements[0].area for building in project.buildings}


def thicknesses(project: Project) -> dict[str, float]:
    return {assembly.id: assembly.layers[0].d for assembly in project.assemblies}


def step(service: ProjectService, stored: Stored, direction: str) -> Stored:
    change = stored.undo if direction == "undo" else stored.redo
    assert change is not None
    return service.step(PROJECT, direction, change.number)  # type: ignore[arg-type]


def test_an_old_file_has_all_that_was_in_it(old: ProjectService) -> None:
    stored = old.load(PROJECT)
    assert stored.project.name == "Old"
    assert areas(stored.project) == {"a": 30.0, "b": 20.0}
    assert thicknesses(stored.project) == {"w1": 0.015, "w2": 0.030, "w3": 0.040}
    assert [layer.studied for layer in stored.project.assemblies[0].layers] == [True, False]
    assert [change.text for change in old.changes(PROJECT)] == ["edit 4", "edit 3", "edit 2"]


def test_what_was_done_before_is_undone_and_done_again(old: ProjectService) -> None:
    first = old.load(PROJECT)
    stored = step(old, first, "undo")
    assert thicknesses(stored.project)["w1"] == 0.010
    stored = step(old, stored, "undo")
    assert areas(stored.project) == {"a": 30.0, "b": 10.0}
    assert stored.undo is None
    for _ in range(2):
        stored = step(old, stored, "redo")
    assert stored.project == first.project


def test_what_was_undone_is_done_again_and_comes_back_in_its_place(old: ProjectService) -> None:
    first = old.load(PROJECT)
    stored = step(old, first, "redo")
    assert list(thicknesses(stored.project)) == ["w1", "w3"]
    assert step(old, stored, "undo").project == first.project


def test_answers_of_an_older_shape_are_solved_again_instead_of_being_read(tmp_path: Path) -> None:
    write_old(tmp_path / "data", "0006")
    with closing(sqlite3.connect(tmp_path / "data" / FILE)) as db:
        db.execute("INSERT INTO answer VALUES ('k', 'solve_joint', x'00', '2026')")
        db.commit()
    database = Database(tmp_path / "data")
    database.migrate()
    answers = Answers(database)
    assert answers.get("k") is None
    answers.keep("k", "life", Life(), took=1.0)
    assert Answers(database).get("k") == Life()
