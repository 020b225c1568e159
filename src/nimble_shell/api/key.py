"""Who may ask: a key that the printed address brings and a cookie keeps, so that nothing else here reads along.

A page of another address cannot send the cookie, and another user of the machine cannot read the file the key lies in.
"""

from __future__ import annotations

import os
import secrets
from pathlib import Path
from urllib.parse import parse_qsl, urlencode

from starlette.datastructures import Headers
from starlette.requests import cookie_parser
from starlette.responses import HTMLResponse, RedirectResponse, Response
from starlette.types import Scope

from nimble_shell.formats.problems import Problem

ASKED = "key"  #: of an address, its part that brings the key
NOT_LET_IN = Problem(
    title="This window is not let in",
    status=401,
    hint="Open the address that the program printed when it started; a script sends its key as a bearer token.",
)
_PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><title>Nimble Shell</title>
<main><h1>This window is not let in</h1>
<p>Open the address that Nimble Shell printed when it started. It ends in a key, so that no other program on this
machine reads your projects. What you had typed in another window is still there.</p></main></html>"""


def key_in(folder: Path) -> str:
    """The key of a data folder, made when it is first asked for; only the folder's owner may read it.

    It outlasts a start, so that windows left open go on when the server is started again.

    Raises
    ------
    OSError
        If it can be neither read nor written.
    """
    file = folder / "window.key"
    try:
        made = os.open(file, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
    except FileExistsError:
        kept = file.read_text().strip()
        if kept:
            return kept
        made = os.open(file, os.O_WRONLY | os.O_TRUNC, 0o600)
    key = secrets.token_urlsafe(24)
    with os.fdopen(made, "w") as written:
        written.write(key)
    return key


def cookie_of(port: int) -> str:
    """Its name: cookies are shared by all ports of a machine, so two servers need two."""
    return f"nimble-shell-{port}"


def admitted(scope: Scope, headers: Headers, key: str) -> bool:
    """Whether a request brings the key, by its cookie or its own header."""
    brought = [cookie_parser(headers.get("cookie", "")).get(cookie_of(_port(scope)), "")]
    scheme, _, token = headers.get("authorization", "").partition(" ")
    if scheme.lower() == "bearer":
        brought.append(token)
    return any(secrets.compare_digest(one.encode(), key.encode()) for one in brought)


def let_in(scope: Scope, headers: Headers, key: str) -> Response:
    """The answer to a page without a cookie, or with a key in its address: the cookie, or a word of why not."""
    asked = parse_qsl(scope["query_string"].decode("latin-1"))
    brought = next((value for name, value in asked if name == ASKED), "")
    known = secrets.compare_digest(brought.encode(), key.encode()) or admitted(scope, headers, key)
    if scope["method"] != "GET" or not known:
        return HTMLResponse(_PAGE, 401)
    rest = urlencode([pair for pair in asked if pair[0] != ASKED])
    path = "/" + scope["path"].lstrip("/")  # never an address of another machine
    answer = RedirectResponse(f"{path}?{rest}" if rest else path, 303)
    answer.set_cookie(cookie_of(_port(scope)), key, max_age=400 * 86400, httponly=True, samesite="strict")
    return answer


def _port(scope: Scope) -> int:
    server = scope.get("server")
    return int(server[1]) if server and server[1] else 0
