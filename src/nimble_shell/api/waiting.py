"""Requests that wait for the solver queue or a search: a client that leaves lets go of its question."""

from __future__ import annotations

import asyncio
import uuid
from collections.abc import Callable
from concurrent.futures import Future
from functools import partial
from typing import Annotated, TypeVar

from fastapi import Depends, Request

from nimble_shell.core.progress import Stopped
from nimble_shell.services.solver_queue import SolverQueue

T = TypeVar("T")
_LOOK = 1.0  #: how often it is seen whether the client is still there [s]


class Waiting:
    """Waits for answers on behalf of one request."""

    def __init__(self, request: Request) -> None:
        self._request = request
        self._queue: SolverQueue = request.app.state.queue

    async def __call__(self, future: Future[T], ticket: str) -> T:
        """The answer. Raises what the future raises, and Stopped where the client has left."""
        waited = asyncio.wrap_future(future)
        while True:
            done, _ = await asyncio.wait({waited}, timeout=_LOOK)
            if done:
                return waited.result()
            if ticket and await self._request.is_disconnected():
                self._queue.cancel(ticket)
                raise Stopped

    async def search(self, work: Callable[[str], T], ticket: str) -> T:
        """What work in a thread of this process returns; it is told its ticket. Raises what it raises, and Stopped."""
        own = ticket or uuid.uuid4().hex
        return await self(self._queue.searches.begin(own, partial(work, own)), own)


async def _waiting(request: Request) -> Waiting:
    return Waiting(request)


Wait = Annotated[Waiting, Depends(_waiting)]
