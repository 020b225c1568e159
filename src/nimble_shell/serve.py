"""Start the server: data folder, migration, port, and the address to open."""

from __future__ import annotations

import logging
import os
import shutil
import socket
from pathlib import Path

import uvicorn

from nimble_shell.api.key import ASKED, key_in
from nimble_shell.api.main import create_app
from nimble_shell.demo import PROJECT_ID, plant
from nimble_shell.services.joint_standards import JointStandardService
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.standards import StandardService
from nimble_shell.store import Database, FolderLock, StoreError, default_data_dir

HOST = "127.0.0.1"
DEFAULT_PORT = 8722


class CannotStart(Exception):
    """The server cannot start: the step, why, and what to do."""

    def __init__(self, step: str, why: str, fix: str) -> None:
        super().__init__(f"nimble: step '{step}' stopped.\n  why: {why}\n  do:  {fix}")


def web_folder() -> Path | None:
    """The built front end: named by the launcher, or lying beside the package."""
    named = os.environ.get("NIMBLE_SHELL_WEB")
    folder = Path(named) if named else Path(__file__).parent / "web"
    return folder if (folder / "index.html").is_file() else None


def open_database(folder: Path, *, anew: bool = False) -> Database:
    """The database in a folder, looked at and brought to this program's schema. Raises CannotStart."""
    try:
        database = Database(folder)
        backup = database.migrate(anew=anew)
        database.check()
    except StoreError as error:
        raise CannotStart("database", f"{error.message} ({folder})", error.hint) from error
    if backup is not None:
        print(f"The database was brought up to date; its former state is in {backup}")
    return database


def run(
    data: Path | None, port: int, *, demo: bool, fresh: bool = False, anew: bool = False, locked: bool = True
) -> None:
    """Serve until stopped. Raises CannotStart."""
    listener = listen(port)
    address = f"http://{HOST}:{listener.getsockname()[1]}"
    folder = data or (default_data_dir() / "demo" if demo else default_data_dir())
    lock = _taken(folder, address) if not fresh else None
    if fresh:
        _taken(folder, address).release()
        _set_aside(folder)
        lock = _taken(folder, address)
    database = open_database(folder, anew=anew or fresh)
    _back_up(database)
    service = ProjectService(database)
    if demo and PROJECT_ID not in {listed.id for listed in service.all()}:
        plant(service, StandardService(database, service), JointStandardService(database, service))
    web = web_folder()
    if web is None:
        raise CannotStart("front end", "the built front end is missing", "start with ./nimble demo or ./nimble serve")
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(levelname)s %(name)s %(message)s")
    key = _key(folder) if locked else None
    app = create_app(database, web, key=key)
    server = uvicorn.Server(uvicorn.Config(app, log_level="warning", server_header=False))
    path = f"/{PROJECT_ID}" if demo else "/"
    print(f"Nimble Shell is ready: {address}{path}{'' if key is None else f'?{ASKED}={key}'}", flush=True)
    print(f"Data lie in {folder}. Stop with Ctrl C.", flush=True)
    try:
        server.run(sockets=[listener])
    finally:
        database.close()
        if lock is not None:
            lock.release()


def _taken(folder: Path, address: str) -> FolderLock:
    """The folder, for this server alone. Raises CannotStart."""
    lock = FolderLock(folder)
    try:
        folder.mkdir(parents=True, exist_ok=True)
        lock.take(f"the server at {address}")
    except OSError as error:
        fix = "name another with --data DIR"
        raise CannotStart("data folder", f"the data folder {folder} cannot be made: {error}", fix) from error
    except StoreError as error:
        raise CannotStart("data folder", f"{error.message} ({folder})", error.hint) from error
    return lock


def _key(folder: Path) -> str:
    try:
        return key_in(folder)
    except OSError as error:
        fix = "let its owner write there, or let every program of this machine in: --no-key"
        raise CannotStart("key", f"the key in {folder} cannot be kept: {error}", fix) from error


def _back_up(database: Database) -> None:
    """A backup a day; a full disk is no reason not to start."""
    try:
        database.backup_daily()
    except (OSError, StoreError) as error:
        print(f"No backup was made: {error}")


def listen(port: int) -> socket.socket:
    """A socket at a port of this machine, any free one for 0. Raises CannotStart."""
    # Named as TCP, as asyncio switches Nagle's waiting off for no other socket: each answer would come 40 ms late.
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((HOST, port))
    except (OSError, OverflowError) as error:
        listener.close()
        fix = f"stop what uses it, or name another: --port {port + 1 if port < 65535 else DEFAULT_PORT}"
        raise CannotStart("port", f"port {port} on {HOST} cannot be used: {error}", fix) from error
    return listener


def _set_aside(folder: Path) -> None:
    """Make room for a fresh demo; the former data are kept beside it."""
    if not (folder / "nimble-shell.sqlite").exists():
        return
    number = 1
    while (kept := folder.with_name(f"{folder.name}-before-{number}")).exists():
        number += 1
    shutil.move(folder, kept)
    print(f"The former demo data are in {kept}")
