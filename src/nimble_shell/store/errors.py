"""What can go wrong with stored work; each error says what happened and what to do."""

from __future__ import annotations

import sqlite3

from sqlalchemy.exc import DBAPIError


class NotFound(LookupError):
    """Something is not there, or no longer."""

    def __init__(self, kind: str, identifier: str) -> None:
        super().__init__(f"{kind} {identifier} is not there")
        self.kind, self.identifier = kind, identifier


class Stale(RuntimeError):
    """Somebody saved a newer version in between."""

    def __init__(self, kind: str, identifier: str, have: int, current: int) -> None:
        super().__init__(f"{kind} {identifier} is at version {current}, not {have}")
        self.kind, self.identifier, self.have, self.current = kind, identifier, have, current


class Crossed(RuntimeError):
    """A change cannot be taken back: somebody has changed the same thing since."""

    def __init__(self, change: str, kind: str, who: str, newer: str) -> None:
        super().__init__(f"“{change}” cannot be taken back: its {kind} was changed since")
        self.change, self.kind, self.who, self.newer = change, kind, who, newer


class NotKept(RuntimeError):
    """What was to be written would not have been read again as it is: a fault of the program's own."""

    def __init__(self, key: str) -> None:
        super().__init__(f"{key} would not be read again as it was written; nothing was saved")


class StoreError(RuntimeError):
    """The database cannot be read or written right now."""

    def __init__(self, code: str, message: str, hint: str) -> None:
        super().__init__(message)
        self.code, self.message, self.hint = code, message, hint


#: The way out of a file that cannot be used.
BACKUP = "Put a backup in its place: nimble-shell backups lists them, nimble-shell restore takes one."
#: SQLite's primary result codes in our words: code, message, way out.
KNOWN = {
    sqlite3.SQLITE_FULL: ("disk_full", "The disk is full, so nothing was saved.",
                          "Make room on the disk that holds the data folder, then do the edit again."),
    sqlite3.SQLITE_BUSY: ("database_locked", "Another program is holding the database, so nothing was saved.",
                          "Wait a moment and do the edit again; close other programs that have the database open."),
    sqlite3.SQLITE_READONLY: ("database_readonly", "The database may not be written, so nothing was saved.",
                              "Check the permissions of the data folder."),
    sqlite3.SQLITE_CORRUPT: ("database_corrupt", "The database file is damaged.",
                             BACKUP),
    sqlite3.SQLITE_NOTADB: ("database_corrupt", "The database file is not a database.",
                            BACKUP),
    sqlite3.SQLITE_IOERR: ("disk_error", "The disk did not answer, so nothing was saved.",
                           "Check the disk that holds the data folder, then do the edit again."),
    sqlite3.SQLITE_CANTOPEN: ("database_missing", "The database file cannot be opened.",
                              "Check that the data folder exists and may be written."),
}  # fmt: skip


def explained(error: DBAPIError) -> StoreError | None:
    """A database failure in words a user can act on; None for a fault of our own."""
    code = getattr(error.orig, "sqlite_errorcode", None)
    known = KNOWN.get(code & 0xFF) if isinstance(code, int) else None
    return StoreError(*known) if known else None
