"""Backups: made, looked into, kept as long as they are good, and put back."""

from __future__ import annotations

import os
import shutil
import sqlite3
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from nimble_shell.store.errors import StoreError
from nimble_shell.store.inspect import Contents, look, said

FOLDER = "backups"
DAY = 86_400  #: [s]
_STAMP = "%Y%m%d-%H%M%S-%f"


@dataclass(frozen=True, slots=True, kw_only=True)
class Backup:
    """A copy of the database."""

    file: Path
    made_at: str
    reason: str  #: "daily", "before-migration", "before-restore", …
    size: int  #: [bytes]
    contents: Contents | None  #: None where it cannot be used
    why_not: str = ""

    @property
    def name(self) -> str:
        return self.file.name

    def check(self) -> None:
        """Raises StoreError if it cannot be used."""
        if self.contents is None:
            raise StoreError("backup_unusable", f"The backup {self.name} cannot be used: {self.why_not}",
                             "Take another one.")  # fmt: skip


def backups(folder: Path) -> list[Backup]:
    """Every backup of a data folder, newest first, looked into."""
    return sorted((_seen(file) for file in (folder / FOLDER).glob("*.sqlite")), key=lambda one: one.name, reverse=True)


def backup_named(folder: Path, name: str) -> Backup | None:
    """One of them, looked into."""
    return next((_seen(file) for file in (folder / FOLDER).glob("*.sqlite") if file.name == name), None)


def _seen(file: Path) -> Backup:
    stamp, _, reason = file.stem.rpartition("-")
    while reason and not stamp.replace("-", "").isdecimal():
        stamp, _, before = stamp.rpartition("-")
        reason = f"{before}-{reason}"
    try:
        made_at = datetime.strptime(stamp, _STAMP).replace(tzinfo=UTC).isoformat(timespec="seconds")
    except ValueError:
        made_at = ""
    try:
        return Backup(file=file, made_at=made_at, reason=reason, size=file.stat().st_size, contents=look(file))
    except StoreError as error:
        size = file.stat().st_size if file.exists() else 0
        return Backup(file=file, made_at=made_at, reason=reason, size=size, contents=None, why_not=error.message)


def make(source: Path, reason: str) -> Path:
    """Copy a whole database, consistently, beside it; the copy is looked into before it counts.

    Raises
    ------
    StoreError
        If the source cannot be read, or the copy is not good.
    """
    folder = source.parent / FOLDER
    folder.mkdir(exist_ok=True)
    target = folder / f"{datetime.now(UTC).strftime(_STAMP)}-{reason}.sqlite"
    begun = target.with_suffix(".part")
    try:
        with closing(sqlite3.connect(source)) as read, closing(sqlite3.connect(begun)) as copy:
            read.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
        look(begun)
        begun.rename(target)
    except sqlite3.Error as error:
        raise said(error) from error
    finally:
        begun.unlink(missing_ok=True)
    return target


def make_daily(source: Path, keep: int = 10) -> Path | None:
    """A backup unless a good one of the last day is there; of the daily ones the newest good `keep` stay.

    A backup that is dated in the future does not count as one of the last day, and none goes unless `keep` newer ones
    are good: a file that was damaged unseen must not push out what was good.
    """
    now = datetime.now(UTC)
    for file in _daily(source.parent):
        age = now.timestamp() - file.stat().st_mtime
        if 0 <= age < DAY and file.name < now.strftime(_STAMP) + "~" and _seen(file).contents is not None:
            return None
    made = make(source, "daily")
    good = 0
    for file in _daily(source.parent):
        if good >= keep:
            file.unlink(missing_ok=True)
        elif _seen(file).contents is not None:
            good += 1
    return made


def _daily(folder: Path) -> list[Path]:
    """Daily backups, newest first."""
    return sorted((folder / FOLDER).glob("*-daily.sqlite"), reverse=True)


def restore(source: Path, name: str) -> Path | None:
    """Put a backup in the place of the database; what stood there is kept among the backups.

    Parameters
    ----------
    source : Path
        The database file; nothing may have it open.
    name : str
        Of the backup.

    Returns
    -------
    Path or None
        Where the former file is now; None if there was none.

    Raises
    ------
    StoreError
        If there is no such backup, or it is not good.
    """
    found = backup_named(source.parent, name)
    if found is None:
        raise StoreError("no_such_backup", f"There is no backup {name}.", "See the list: nimble-shell backups.")
    found.check()
    begun = source.with_suffix(".restoring")
    shutil.copyfile(found.file, begun)
    with begun.open("rb+") as copied:
        os.fsync(copied.fileno())
    kept = _set_aside(source)
    begun.replace(source)
    return kept


def _set_aside(source: Path) -> Path | None:
    """The database with its journal, moved among the backups as it is."""
    if not source.exists():
        return None
    kept = source.parent / FOLDER / f"{datetime.now(UTC).strftime(_STAMP)}-before-restore.sqlite"
    for suffix in ("-wal", "-shm"):
        journal = source.with_name(source.name + suffix)
        if journal.exists():
            journal.replace(kept.with_name(kept.name + suffix))
    source.replace(kept)
    return kept
