"""What one window is told of one project: in order, once, and no more after it is gone."""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from typing import Any

import pytest

from nimble_shell.core.shell.project import Project
from nimble_shell.services import watching
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.services.solver_queue import SolverQueue
from nimble_shell.services.watching import Answered, Changed, Event, Gone, Under, Watching

PATIENCE = 10.0  #: [s]


@pytest.fixture(autouse=True)
def quick(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(watching, "LOOK", 0.02)
    monkeypatch.setattr(watching, "REST", 0.05)


@pytest.fixture
def queue() -> SolverQueue:
    return SolverQueue(workers=0)


@pytest.fixture
def project(projects: ProjectService) -> str:
    return projects.create("Watched").project.id


def renamed(projects: ProjectService, project: str, name: str) -> None:
    def change(stored: Any) -> Project:
        found: Project = stored.project
        return Project(id=found.id, name=name, basis=found.basis, units=found.units, buildings=found.buildings,
                       assemblies=found.assemblies, materials=found.materials)  # fmt: skip

    projects.edit(project, change, ChangeNote(text=f"called {name}"))


def told(watch: Watching, count: int, then: dict[int, Callable[[], None]] | None = None) -> list[Event]:
    """The first events of a stream; after so many of them something is done."""

    async def collect() -> list[Event]:
        found: list[Event] = []
        stream = watch.events()
        try:
            while len(found) < count:
                found.append(await asyncio.wait_for(anext(stream), PATIENCE))
                act = (then or {}).get(len(found))
                if act is not None:
                    await asyncio.to_thread(act)
        except StopAsyncIteration:
            pass
        await stream.aclose()
        return found

    return asyncio.run(collect())


def test_first_comes_the_revision_as_it_stands(queue: SolverQueue, projects: ProjectService, project: str) -> None:
    (first,) = told(Watching(queue, projects, project, "w"), 1)
    assert first == Changed(projects.revision(project))


def test_a_change_is_told_with_its_revision(queue: SolverQueue, projects: ProjectService, project: str) -> None:
    begun = projects.revision(project)
    found = told(Watching(queue, projects, project, "w"), 2, {1: lambda: renamed(projects, project, "Again")})
    assert found == [Changed(begun), Changed(begun + 1)]


def test_several_changes_at_once_are_told_as_the_newest(
    queue: SolverQueue, projects: ProjectService, project: str
) -> None:
    def thrice() -> None:
        for name in "abc":
            renamed(projects, project, name)

    found = told(Watching(queue, projects, project, "w"), 2, {1: thrice})
    newest = found[-1]
    assert isinstance(newest, Changed)
    assert newest.revision <= projects.revision(project)


def test_a_change_of_another_project_is_none(queue: SolverQueue, projects: ProjectService, project: str) -> None:
    other = projects.create("Another").project.id

    def both() -> None:
        renamed(projects, other, "x")
        renamed(projects, project, "y")

    found = told(Watching(queue, projects, project, "w"), 2, {1: both})
    assert found[1] == Changed(projects.revision(project))


def test_an_answer_is_told_with_how_many_are_left(queue: SolverQueue, projects: ProjectService, project: str) -> None:
    def answered() -> None:
        queue.generation += 1
        for listener in queue._listeners:
            listener("key")

    found = told(Watching(queue, projects, project, "w"), 2, {1: answered})
    assert found[1] == Answered(waiting=0)


def test_how_far_its_own_questions_are_is_told_and_of_others_nothing(
    queue: SolverQueue, projects: ProjectService, project: str
) -> None:
    def asks() -> None:
        queue.ask(abs, -1.0, ticket="other.1")
        queue.ask(abs, -2.0, ticket="w.1")

    _, under = told(Watching(queue, projects, project, "w"), 2, {1: asks})
    assert isinstance(under, Under)
    assert list(under.tickets) == ["w.1"]
    assert under.tickets["w.1"].waiting == 1


def test_a_stopped_question_leaves_the_list(queue: SolverQueue, projects: ProjectService, project: str) -> None:
    queue.ask(abs, -3.0, ticket="w.2")
    found = told(Watching(queue, projects, project, "w"), 3, {2: lambda: queue.cancel("w.2") and None})
    assert found[1] == Under({"w.2": queue.progress("w.2")}) or isinstance(found[1], Under)
    assert found[2] == Under({})


def test_a_project_that_is_gone_ends_the_stream(queue: SolverQueue, projects: ProjectService, project: str) -> None:
    found = told(Watching(queue, projects, project, "w"), 9, {1: lambda: projects.delete(project)})
    assert found[-1] == Gone()
    assert len(found) == 2


def test_who_left_is_told_nothing_and_costs_nothing(queue: SolverQueue, projects: ProjectService, project: str) -> None:
    before = len(queue._listeners)
    told(Watching(queue, projects, project, "w"), 1)
    assert len(queue._listeners) == before
