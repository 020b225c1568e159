"""Editions of answers: they change with what an answer can depend on, and with nothing else."""

from __future__ import annotations

import importlib.metadata
import sys
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest

from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.moisture.hourly.transport import run
from nimble_shell.services import edition as module
from nimble_shell.services.edition import edition, edition_of, imports, reach


class TestReach:
    @pytest.mark.parametrize("solve", [solve_joint, solve_fixing, run])
    def test_of_a_question_is_the_core_and_nothing_around_it(self, solve: object) -> None:
        found = reach(solve.__module__)
        assert solve.__module__ in found
        assert {name.split(".")[1] for name in found if name.count(".")} == {"core"}

    def test_goes_through_what_is_imported_by_what_is_imported(self) -> None:
        found = reach("nimble_shell.core.fixings.solved")
        assert "nimble_shell.core.joints.solved" in imports("nimble_shell.core.fixings.solved")
        assert imports("nimble_shell.core.joints.solved") & {one for one in found if ".conduction" in one}

    def test_a_joint_does_not_depend_on_moisture_nor_on_words(self) -> None:
        assert not [one for one in reach("nimble_shell.core.joints.solved") if ".moisture" in one or ".reports" in one]
        assert "nimble_shell.core.moisture.hourly.kernel" in reach("nimble_shell.services.hours")

    def test_a_module_that_is_not_there_imports_nothing(self) -> None:
        assert imports("nimble_shell.core.nowhere") == frozenset()


class TestAnEdition:
    @pytest.fixture
    def rooms(self, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
        """Three small modules: `question` reads `rule` from inside of a function, `beside` is read by nobody."""
        home = tmp_path / f"rooms_of_{tmp_path.name}"  # another name in each test: Python keeps a package it has seen
        home.mkdir()
        (home / "__init__.py").write_text("")
        (home / "question.py").write_text(f"def solve():\n    from {home.name}.rule import ONE\n    return ONE\n")
        (home / "rule.py").write_text("import numpy\nONE = numpy.float64(1)\n")
        (home / "beside.py").write_text("TWO = 2\n")
        monkeypatch.setattr(sys, "path", [str(tmp_path), *sys.path])
        monkeypatch.setattr(module, "_OWN", home.name)
        return home

    @staticmethod
    def of(rooms: Path) -> str:
        for held in (edition_of, imports, module._source):
            held.cache_clear()
        return edition_of(f"{rooms.name}.question")

    @pytest.fixture(autouse=True)
    def clean(self) -> Iterator[None]:
        yield
        for held in (edition_of, imports, module._source):
            held.cache_clear()

    def test_is_the_same_twice(self, rooms: Path) -> None:
        assert self.of(rooms) == self.of(rooms)

    def test_changes_with_a_rule_that_is_read(self, rooms: Path) -> None:
        before = self.of(rooms)
        (rooms / "rule.py").write_text("import numpy\nONE = numpy.float64(2)\n")
        assert self.of(rooms) != before

    def test_not_with_a_module_that_nobody_reads(self, rooms: Path) -> None:
        before = self.of(rooms)
        (rooms / "beside.py").write_text("TWO = 3\n")
        assert self.of(rooms) == before

    def test_changes_with_the_version_of_a_library_and_only_of_one_that_is_used(
        self, rooms: Path, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        before, told = self.of(rooms), importlib.metadata.version
        monkeypatch.setattr(importlib.metadata, "version", lambda name: "9" if name == "scipy" else told(name))
        assert self.of(rooms) == before
        monkeypatch.setattr(importlib.metadata, "version", lambda name: "9" if name == "numpy" else told(name))
        assert self.of(rooms) != before

    def test_is_that_of_the_module_a_function_stands_in(self) -> None:
        assert edition(solve_joint) == edition_of(solve_joint.__module__) != edition(run)


def test_two_threads_find_editions_at_once() -> None:
    """As the first requests of a window do; what was found before is forgotten, so that both read every source."""
    names = ["nimble_shell.core.joints.solved", "nimble_shell.core.fixings.solved"] * 4
    imports.cache_clear()
    edition_of.cache_clear()
    with ThreadPoolExecutor(8) as threads:
        found = list(threads.map(edition_of, names))
    assert found[:2] * 4 == found
