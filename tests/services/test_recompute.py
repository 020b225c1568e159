"""Everything a project rests on, asked in rounds until nothing is left; and a project file without a server."""

from __future__ import annotations

from concurrent.futures import Future
from dataclasses import replace
from typing import Any

import pytest

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shell.project import Project
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.bench import bench, consequence
from nimble_shell.services.compute import compute_project
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.recompute import Recompute
from nimble_shell.services.solver_queue import SolverQueue, key_of
from nimble_shell.store import Stored


class AtOnce(SolverQueue):
    """Solves nothing: every question is refused, in the round in which it is asked."""

    def __init__(self) -> None:
        super().__init__(workers=0)
        self.open: dict[str, tuple[str, Future[Any]]] = {}
        self.rounds: list[list[str]] = []

    def ask(self, solve: Any, *args: Any, **more: Any) -> Future[Any]:
        key = key_of(solve, *args)
        if self.refused(key):
            future: Future[Any] = Future()
            future.set_exception(self._refused[key])
            return future
        return self.open.setdefault(key, (solve.__qualname__, Future()))[1]

    @property
    def waiting(self) -> int:
        return len(self.open)

    def futures(self) -> list[Future[Any]]:
        """Hand them out answered: refused, one and all."""
        asked, self.open = self.open, {}
        self.rounds.append([name for name, _ in asked.values()])
        for key, (_, future) in asked.items():
            error = DomainError(Issue(path=(), code="no", message="not here", hint=""))
            self._refused[key] = error
            future.set_exception(error)
        self.generation += 1
        return [future for _, future in asked.values()]


@pytest.fixture
def stored(projects: ProjectService) -> Stored:
    project = campus()
    return projects.bring_in(Project(id="two", name="Two", basis=project.basis, units=project.units,
                                     materials=project.materials, assemblies=project.assemblies,
                                     buildings=project.buildings[:2]))  # fmt: skip


class TestARecompute:
    def test_asks_for_every_kind_and_ends(self, stored: Stored) -> None:
        queue = AtOnce()
        whole = Recompute(queue, stored)
        whole.run()
        assert {"solve_fixing", "solve_joint", "judge_alone"} <= set(queue.rounds[0])
        assert whole.total == sum(len(one) for one in queue.rounds)
        assert whole.refused == whole.total

    def test_asks_nothing_twice(self, stored: Stored) -> None:
        queue = AtOnce()
        Recompute(queue, stored).run()
        rounds = len(queue.rounds)
        Recompute(queue, stored).run()
        assert len(queue.rounds) == rounds

    def test_tells_how_far_it_is_and_ends_at_its_end(self, stored: Stored) -> None:
        told: list[tuple[int, int]] = []
        whole = Recompute(AtOnce(), stored)
        whole.run(lambda done, of: told.append((done, of)))
        assert [done for done, _ in told] == sorted(done for done, _ in told)
        assert all(done <= of for done, of in told)
        assert told[-1] == (whole.total, whole.total)


@pytest.fixture(scope="module")
def project() -> Project:
    """Two of the buildings, one of them with fixings that are solved."""
    whole = campus()
    used = {element.assembly_id for building in whole.buildings[:2] for element in building.elements}
    assemblies = tuple(one for one in whole.assemblies if one.id in used)
    return replace(whole, buildings=whole.buildings[:2], assemblies=assemblies)


@pytest.fixture(scope="module")
def found(project: Project) -> dict[str, Any]:
    return compute_project(project, "winter")


class TestAProjectFile:
    def test_comes_to_what_the_screens_show(self, project: Project, found: dict[str, Any]) -> None:
        assert [one["id"] for one in found["buildings"]] == [one.id for one in project.buildings]
        first = found["buildings"][0]
        wall = next(one for one in project.assemblies if one.id == "wall-w-a")
        shown = bench(wall, project.catalogue, project.basis, "winter").wall.figures["R_clear"]
        assert first["elements"][1]["build_up"]["figures"]["R_clear"] == pytest.approx(value_of(shown.number))
        assert first["H"] == pytest.approx(sum(one["H"] for one in first["elements"]))

    def test_counts_fixings_as_solved(self, project: Project, found: dict[str, Any]) -> None:
        plain = consequence(project, None, "main-laboratory").now.ledger
        assert found["buildings"][0]["H"] != value_of(plain.H)  # the roof's screws are solved, not approximate

    def test_names_what_has_no_U_and_what_is_not_counted(self, found: dict[str, Any]) -> None:
        assert all(one["not_counted"] for one in found["buildings"])
        for building in found["buildings"]:
            without = [one for one in building["elements"] if one["U"] is None]
            assert len([one for one in building["missing"] if "no joint" not in one]) == len(without)
