"""The database file: where it lies, how it is opened, migrated and backed up."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from platformdirs import user_data_path
from sqlalchemy import create_engine, event, text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from nimble_shell.store.errors import StoreError, explained

FILE = "nimble-shell.sqlite"
MIGRATIONS = Path(__file__).parent / "migrations"
HEAD = "0006"  #: the newest migration
DAY = 86_400  #: [s]
BUSY_MS = 10_000  #: how long a writer waits for another


def default_data_dir() -> Path:
    """Where user data lives when no folder is named, after the platform's own custom."""
    return user_data_path("nimble-shell", appauthor=False)


class Database:
    """One SQLite file in WAL mode with foreign keys on."""

    def __init__(self, folder: Path, *, busy_ms: int = BUSY_MS) -> None:
        self.folder = folder
        self.file = folder / FILE
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise StoreError(
                "folder_unusable", f"The data folder {folder} cannot be made: {error}.", "Name another with --data DIR."
            ) from error
        self._engine = create_engine(f"sqlite:///{self.file}", connect_args={"timeout": busy_ms / 1000})

        @event.listens_for(self._engine, "connect")
        def _prepare(connection: sqlite3.Connection, _record: Any) -> None:
            connection.isolation_level = None  # we say BEGIN ourselves
            for pragma in ("journal_mode=WAL", "foreign_keys=ON", "synchronous=FULL", f"busy_timeout={busy_ms}"):
                connection.execute(f"PRAGMA {pragma}")

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A session that sees one moment of the database."""
        with self._session("BEGIN") as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """A transaction: all of it is durable when the block ends, or none of it happened."""
        with self._session("BEGIN IMMEDIATE") as session:
            yield session
            session.flush()
            session.connection().exec_driver_sql("COMMIT")

    @contextmanager
    def _session(self, begin: str) -> Iterator[Session]:
        try:
            with self._engine.connect() as connection:
                connection.exec_driver_sql(begin)
                try:
                    with Session(bind=connection, expire_on_commit=False) as session:
                        yield session
                finally:
                    if connection.connection.driver_connection.in_transaction:  # type: ignore[union-attr]
                        connection.exec_driver_sql("ROLLBACK")
        except DBAPIError as error:
            known = explained(error)
            if known is None:
                raise
            raise known from error

    def migrate(self, scripts: Path = MIGRATIONS) -> Path | None:
        """Bring the file to this program's schema, with a backup before anything changes.

        Parameters
        ----------
        scripts : Path
            Folder of the migrations.

        Returns
        -------
        Path or None
            The backup, if one was made.

        Raises
        ------
        StoreError
            If the file is damaged, or was written by a newer program.
        """
        if scripts == MIGRATIONS and self._is_current():
            return None
        # Only a file that has to change pays for the import of the migration tool.
        from alembic import command
        from alembic.config import Config
        from alembic.runtime.migration import MigrationContext
        from alembic.script import ScriptDirectory

        config = Config()
        config.set_main_option("script_location", str(scripts))
        script = ScriptDirectory.from_config(config)
        try:
            with self._engine.connect() as connection:
                connection.exec_driver_sql("PRAGMA quick_check")
                current = MigrationContext.configure(connection).get_current_revision()
                head = script.get_current_head()
                if current == head:
                    return None
                if current is not None and current not in {revision.revision for revision in script.walk_revisions()}:
                    raise StoreError(
                        "database_newer", "The database was written by a newer version of Nimble Shell.",
                        "Start the newer version, or name another folder with --data DIR.",
                    )  # fmt: skip
                backup = self.backup("before-migration") if current is not None else None
                connection.exec_driver_sql("BEGIN IMMEDIATE")
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
                connection.exec_driver_sql("COMMIT")
                return backup
        except DBAPIError as error:
            known = explained(error)
            if known is None:
                raise
            raise known from error

    def _is_current(self) -> bool:
        """Whether the file is whole and of this program's schema."""
        try:
            with self._engine.connect() as connection:
                connection.exec_driver_sql("PRAGMA quick_check")
                return connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar() == HEAD
        except DBAPIError:
            return False

    def backup(self, reason: str) -> Path:
        """Copy the whole database, consistently, into the backups folder."""
        folder = self.folder / "backups"
        folder.mkdir(exist_ok=True)
        stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S-%f")
        target = folder / f"{stamp}-{reason}.sqlite"
        with sqlite3.connect(self.file) as source, sqlite3.connect(target) as copy:
            source.backup(copy)
        source.close()
        copy.close()
        return target

    def backup_daily(self, keep: int = 10) -> Path | None:
        """A backup unless one of the last day is there; the newest `keep` daily ones stay.

        Returns
        -------
        Path or None
            The backup, if one was made.
        """
        kept = sorted((self.folder / "backups").glob("*-daily.sqlite"))
        if kept and datetime.now(UTC).timestamp() - kept[-1].stat().st_mtime < DAY:
            return None
        made = self.backup("daily")
        for old in [*kept, made][:-keep]:
            old.unlink(missing_ok=True)
        return made

    def check(self) -> None:
        """Read something, so that a damaged or locked file is found now. Raises StoreError."""
        with self.read() as session:
            session.execute(text("SELECT count(*) FROM project"))

    def close(self) -> None:
        self._engine.dispose()
