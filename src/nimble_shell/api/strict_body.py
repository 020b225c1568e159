"""Bodies are read as files are: strictly, and long ones off the event loop."""

from __future__ import annotations

from collections.abc import Callable, Coroutine
from typing import Any

from fastapi import Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.routing import APIRoute
from starlette.exceptions import HTTPException

from nimble_shell.formats import strict_json

_SHORT = 32_768  #: of a body that is read before a thread would have taken it [bytes]


class NotReadable(HTTPException):
    """A body that is no JSON, with the place."""

    def __init__(self, reason: str) -> None:
        super().__init__(422, reason)


class StrictRequest(Request):
    """A request whose JSON has one meaning."""

    async def json(self) -> Any:
        if not hasattr(self, "_json"):
            content = await self.body()
            try:
                if len(content) <= _SHORT:
                    self._json = strict_json.read(content)
                else:
                    self._json = await run_in_threadpool(strict_json.read, content)
            except strict_json.NotJson as error:
                raise NotReadable(str(error)) from error
        return self._json


class StrictRoute(APIRoute):
    """A route that reads its body so."""

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        handler = super().get_route_handler()

        async def strict(request: Request) -> Response:
            return await handler(StrictRequest(request.scope, request.receive))

        return strict
