"""One server for the processes that test side by side: what one of them has had solved is solved for all."""

from __future__ import annotations

import fcntl
import json
import os
import signal
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest

from tools.window import Server


class _Joined(Server):
    """A server that another process started."""

    def __init__(self, port: int, key: str) -> None:
        self.port, self.key = port, key


@contextmanager
def shared_server(factory: pytest.TempPathFactory) -> Iterator[Server]:
    """The first that asks starts it, the last that goes stops it."""
    base = factory.getbasetemp()
    folder = base.parent if "PYTEST_XDIST_WORKER" in os.environ else base
    with _state(folder) as known:
        if not known.get("users"):
            started = Server(Path(tempfile.mkdtemp(prefix="server", dir=folder)))
            known |= {"port": started.port, "key": started.key, "pid": started.process.pid, "users": 0}
        server = _Joined(known["port"], known["key"])
        known["users"] += 1
    yield server
    with _state(folder) as known:
        known["users"] -= 1
        if not known["users"]:
            os.kill(known["pid"], signal.SIGTERM)


@contextmanager
def _state(folder: Path) -> Iterator[dict]:  # type: ignore[type-arg]  # of the file
    """What is known of the server, while nobody else reads or writes it."""
    with (folder / "server.json").open("a+") as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        file.seek(0)
        known = json.loads(file.read() or "{}")
        yield known
        file.seek(0)
        file.truncate()
        file.write(json.dumps(known))
