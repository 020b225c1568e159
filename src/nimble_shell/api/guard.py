"""What stands before every request: who may ask, how much may come in, and what the browser may do with the answer."""

from __future__ import annotations

from starlette.datastructures import Headers, MutableHeaders, QueryParams
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from nimble_shell.api.key import ASKED, NOT_LET_IN, admitted, let_in
from nimble_shell.api.problems import LARGEST_BODY, respond, too_large
from nimble_shell.formats.problems import Problem
from nimble_shell.formats.reader import read_in

LOCAL_NAMES = frozenset({"127.0.0.1", "localhost", "[::1]"})
_HEADERS = {
    "Content-Security-Policy": "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; "
    "font-src 'self'; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


class Guard:
    """Refuses foreign hosts and origins, who brings no key and announced floods; sets the security headers.

    Without a key everybody on this machine is let in.
    """

    def __init__(self, app: ASGIApp, key: str | None = None) -> None:
        self.app, self._key = app, key

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
        read_in(
            headers.get("x-units", "") or QueryParams(scope["query_string"]).get("units", "")
        )  # links have no header
        problem = _refusal(scope["method"], headers)
        if problem is not None:
            await respond(problem)(scope, receive, guarded_send)
            return
        if self._key is not None and (_brings_key(scope) or not admitted(scope, headers, self._key)):
            api = scope["path"].startswith("/api/")
            answer = respond(NOT_LET_IN) if api else let_in(scope, headers, self._key)
            await answer(scope, receive, guarded_send)
            return
        await self.app(scope, receive, guarded_send)


def _brings_key(scope: Scope) -> bool:
    """Whether it is a page whose address still has the key in it, which is taken out of sight."""
    return not scope["path"].startswith("/api/") and ASKED in QueryParams(scope["query_string"])


def _refusal(method: str, headers: Headers) -> Problem | None:
    host = headers.get("host", "")
    if _name(host) not in LOCAL_NAMES:
        return Problem(title="This address is not served", status=421, hint="Open the address the program printed.")
    origin = headers.get("origin")
    if method not in ("GET", "HEAD", "OPTIONS") and origin is not None and origin.partition("://")[2] != host:
        return Problem(title="Another site may not write here", status=403, hint="Open the program's own address.")
    length = headers.get("content-length", "0")
    if length.isdecimal() and int(length) > LARGEST_BODY:
        return too_large()
    return None


def _name(host: str) -> str:
    return host.rpartition(":")[0] if host.rpartition(":")[2].isdecimal() else host
