"""What a database file is, looked at without changing it: whole, damaged, empty, newer, or not ours at all."""

from __future__ import annotations

import os
import sqlite3
import stat
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from pathlib import Path

from nimble_shell.store.errors import BACKUP, KNOWN, StoreError

HEAD = "0007"  #: the newest migration
EARLIER = ("0001", "0002", "0003", "0004", "0005", "0006")
_HEADER = b"SQLite format 3\x00"
#: Tables and columns without which nothing can be read.
_NEEDED = {
    "project": {"id", "name", "revision", "changed_at", "deleted_at"},
    "thing": {"project_id", "kind", "owner", "id", "position", "revision", "digest", "document"},
    "change": {"row", "project_id", "number", "actor", "who", "text", "state"},
    "change_item": {"row", "change_row", "kind", "owner", "id", "before", "after"},
    "standard": {"id", "version", "document"},
    "joint_standard": {"id", "version", "document"},
    "target_set": {"name", "version", "document"},
    "answer": {"key", "kind", "body", "figures"},
}


@dataclass(frozen=True, slots=True, kw_only=True)
class ProjectThere:
    """A project that lies in a file."""

    id: str
    name: str
    changed_at: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Contents:
    """What lies in a database file."""

    revision: str | None  #: of its schema; None for a file without anything in it
    projects: tuple[ProjectThere, ...]  #: newest change first, without those in the bin
    changed_at: str  #: of the newest change; empty without a project


def look(file: Path) -> Contents:
    """What lies in a file. It is opened for reading only, and left as it is.

    Raises
    ------
    StoreError
        If it is missing, no database, damaged, of a newer program, or another program's.
    """
    _refuse_what_is_no_file(file)
    if file.stat().st_size == 0:
        return Contents(revision=None, projects=(), changed_at="")
    with _reading(file) as connection:
        _refuse_damage(connection)
        tables = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        if not tables:
            return Contents(revision=None, projects=(), changed_at="")
        revision = _revision(connection, tables)
        if revision == HEAD:
            _refuse_missing(connection)
        rows = connection.execute(
            "SELECT id, name, changed_at FROM project WHERE deleted_at IS NULL ORDER BY changed_at DESC"
        ).fetchall()
        there = tuple(ProjectThere(id=str(id_), name=str(name), changed_at=str(at)) for id_, name, at in rows)
        return Contents(revision=revision, projects=there, changed_at=there[0].changed_at if there else "")


def _refuse_what_is_no_file(file: Path) -> None:
    try:
        mode = os.stat(file).st_mode
    except FileNotFoundError as error:
        raise StoreError("database_missing", f"There is no database file {file.name}.", BACKUP) from error
    except OSError as error:
        raise StoreError("database_unreadable", f"The database file cannot be reached: {error.strerror}.",
                         "Check the data folder, or name another with --data DIR.") from error  # fmt: skip
    if not stat.S_ISREG(mode):
        kind = "a folder" if stat.S_ISDIR(mode) else "no ordinary file"
        raise StoreError("database_no_file", f"{file.name} is {kind}.", "Move it away, or name another folder.")
    try:
        with file.open("rb") as opened:
            begin = opened.read(16)
    except OSError as error:
        raise StoreError("database_unreadable", f"The database file cannot be read: {error.strerror}.",
                         "Check its permissions.") from error  # fmt: skip
    if begin and begin != _HEADER:
        raise StoreError("database_corrupt", "The database file is not a database.", BACKUP)


@contextmanager
def _reading(file: Path) -> Iterator[sqlite3.Connection]:
    """A connection that cannot write; SQLite's failures in our words."""
    try:
        with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro", uri=True, timeout=10)) as connection:
            yield connection
    except sqlite3.Error as error:
        raise said(error) from error


def said(error: sqlite3.Error) -> StoreError:
    """A failure of SQLite in words a user can act on; what is not known by its code counts as damage."""
    code = getattr(error, "sqlite_errorcode", None)
    known = KNOWN.get(code & 0xFF) if isinstance(code, int) else None
    return StoreError(*(known or ("database_corrupt", f"The database file cannot be read: {error}.", BACKUP)))


def _refuse_damage(connection: sqlite3.Connection) -> None:
    found = [row[0] for row in connection.execute("PRAGMA quick_check(3)")]
    if found != ["ok"]:
        raise StoreError("database_corrupt", f"The database file is damaged ({'; '.join(map(str, found))}).", BACKUP)


def _revision(connection: sqlite3.Connection, tables: set[str]) -> str:
    if "alembic_version" not in tables:
        raise StoreError("database_foreign", "The database file belongs to another program.",
                         "Name another folder with --data DIR; this file was left as it is.")  # fmt: skip
    rows = connection.execute("SELECT version_num FROM alembic_version").fetchall()
    if len(rows) != 1:
        raise StoreError("database_corrupt", "The database file does not say which version it is of.", BACKUP)
    revision = str(rows[0][0])
    if revision != HEAD and revision not in EARLIER:
        if "project" not in tables:
            raise StoreError("database_foreign", "The database file belongs to another program.",
                             "Name another folder with --data DIR; this file was left as it is.")  # fmt: skip
        raise StoreError("database_newer", "The database was written by a newer version of Nimble Shell.",
                         "Start the newer version, or name another folder with --data DIR.")  # fmt: skip
    return revision


def _refuse_missing(connection: sqlite3.Connection) -> None:
    for table, columns in _NEEDED.items():
        known = {row[1] for row in connection.execute(f"PRAGMA table_info({table})")}
        missing = sorted(columns - known)
        if missing:
            what = f"no table {table}" if not known else f"no {', '.join(missing)} in {table}"
            raise StoreError("database_corrupt", f"The database file is incomplete: it has {what}.", BACKUP)
