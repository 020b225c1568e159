"""What stands before every request: who may ask, how much may come in, and what the browser may do with the answer."""

from __future__ import annotations

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from nimble_shell.api.problems import respond
from nimble_shell.formats.problems import Problem

LARGEST_BODY = 16 * 1024 * 1024  #: [bytes]
LOCAL_NAMES = frozenset({"127.0.0.1", "localhost", "[::1]", "testserver"})
_HEADERS = {
    "Content-Security-Policy": "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; "
    "font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


class _TooLarge(Exception):
    """The body passed the limit while it was read."""


class Guard:
    """Refuses foreign hosts and origins and oversized bodies; sets the security headers."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def guarded_send(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in _HEADERS.items():
                    headers.setdefault(name, value)
            await send(message)

        headers = Headers(scope=scope)
        problem = _refusal(scope["method"], headers)
        if problem is not None:
            await respond(problem)(scope, receive, guarded_send)
            return
        taken = 0
        answering = False

        async def counted_receive() -> Message:
            nonlocal taken
            message = await receive()
            taken += len(message.get("body", b""))
            if taken > LARGEST_BODY:
                raise _TooLarge
            return message

        async def noting_send(message: Message) -> None:
            nonlocal answering
            answering = True
            await guarded_send(message)

        try:
            await self.app(scope, counted_receive, noting_send)
        except _TooLarge:
            if not answering:
                await respond(_too_large())(scope, receive, guarded_send)


def _refusal(method: str, headers: Headers) -> Problem | None:
    host = headers.get("host", "")
    if _name(host) not in LOCAL_NAMES:
        return Problem(title="This address is not served", status=421, hint="Open the address the program printed.")
    origin = headers.get("origin")
    if method not in ("GET", "HEAD", "OPTIONS") and origin is not None and origin.partition("://")[2] != host:
        return Problem(title="Another site may not write here", status=403, hint="Open the program's own address.")
    length = headers.get("content-length", "0")
    if length.isdecimal() and int(length) > LARGEST_BODY:
        return _too_large()
    return None


def _name(host: str) -> str:
    return host.rpartition(":")[0] if host.rpartition(":")[2].isdecimal() else host


def _too_large() -> Problem:
    size = LARGEST_BODY // 1024**2
    return Problem(title=f"The file is larger than {size} MB", status=413,
                   hint="A project file is rarely over 5 MB; check which file it is. Nothing was changed.")  # fmt: skip
