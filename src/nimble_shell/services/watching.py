"""What a window is told without asking: changes made elsewhere, answers that came in, how far its questions are."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from dataclasses import dataclass

from nimble_shell.services.projects import ProjectService
from nimble_shell.services.solver_queue import Progress, SolverQueue
from nimble_shell.store import NotFound

LOOK = 0.25  #: while something is under way, it is looked at this often [s]
REST = 1.0  #: else; what another process writes is seen after this at the latest [s]


@dataclass(frozen=True, slots=True)
class Changed:
    """The project has a newer revision than the window was told of."""

    revision: int


@dataclass(frozen=True, slots=True)
class Gone:
    """The project was moved to the bin."""


@dataclass(frozen=True, slots=True)
class Answered:
    """Something was answered; `waiting` questions are left."""

    waiting: int


@dataclass(frozen=True, slots=True)
class Under:
    """How far the questions of the window's tickets are."""

    tickets: dict[str, Progress]


Event = Changed | Gone | Answered | Under


class Watching:
    """One window on one project."""

    def __init__(self, queue: SolverQueue, service: ProjectService, project_id: str, window: str) -> None:
        self._queue, self._service = queue, service
        self._project, self._window = project_id, window

    async def events(self) -> AsyncIterator[Event]:
        """What happens from now on; first the revision as it stands, so that nothing is missed between two streams."""
        stirred = asyncio.Event()
        loop = asyncio.get_running_loop()

        def stir(_: object) -> None:
            loop.call_soon_threadsafe(stirred.set)

        ends = [self._queue.listen(stir), self._service.listen(stir)]
        try:
            revision, generation, under = -1, self._queue.generation, Under({})
            while True:
                stirred.clear()
                try:
                    now = await asyncio.to_thread(self._service.revision, self._project)
                except NotFound:
                    yield Gone()
                    return
                if now != revision:
                    revision = now
                    yield Changed(now)
                if self._queue.generation != generation:
                    generation = self._queue.generation
                    yield Answered(self._queue.waiting)
                at = Under(self._queue.under(self._window))
                if at != under:
                    under = at
                    yield at
                await _either(stirred, LOOK if at.tickets else REST)
        finally:
            for end in ends:
                end()


async def _either(stirred: asyncio.Event, seconds: float) -> None:
    """Wait until something stirs, at most so long; what comes at once is told together."""
    try:
        await asyncio.wait_for(stirred.wait(), seconds)
        await asyncio.sleep(LOOK / 5)
    except TimeoutError:
        return
