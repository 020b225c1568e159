"""An application asked as a server asks it, with no client and no connection in between."""

from __future__ import annotations

import asyncio
import json
from types import TracebackType
from typing import Any

from starlette.types import ASGIApp, Message, Scope


class InProcess:
    """One event loop that an application answers in."""

    def __init__(self, app: ASGIApp) -> None:
        self._app, self._loop = app, asyncio.new_event_loop()

    def __enter__(self) -> InProcess:
        return self

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, at: TracebackType | None) -> None:
        self._loop.run_until_complete(self._loop.shutdown_default_executor())
        self._loop.close()

    def post(self, path: str, body: Any) -> int:
        """The status of an answer, once all of it is there."""
        return self._loop.run_until_complete(self._post(path, json.dumps(body).encode()))

    async def _post(self, path: str, content: bytes) -> int:
        answered: list[Message] = []
        left = [{"type": "http.request", "body": content, "more_body": False}]

        async def receive() -> Message:
            return left.pop() if left else {"type": "http.disconnect"}

        async def send(message: Message) -> None:
            answered.append(message)

        headers = {"host": "127.0.0.1", "content-type": "application/json", "content-length": str(len(content)),
                   "accept-encoding": "gzip"}  # fmt: skip
        scope: Scope = {
            "type": "http", "asgi": {"version": "3.0"}, "http_version": "1.1", "method": "POST", "scheme": "http",
            "path": path, "raw_path": path.encode(), "query_string": b"", "client": ("127.0.0.1", 1),
            "server": ("127.0.0.1", 80), "headers": [(key.encode(), one.encode()) for key, one in headers.items()],
        }  # fmt: skip
        await self._app(scope, receive, send)
        return int(answered[0]["status"])
