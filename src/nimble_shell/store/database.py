"""The database file: where it lies, how it is opened, migrated and backed up."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from platformdirs import user_data_path
from sqlalchemy import create_engine, event, text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from nimble_shell.store.backups import backups, make, make_daily, restore
from nimble_shell.store.errors import StoreError, explained
from nimble_shell.store.inspect import HEAD, look

FILE = "nimble-shell.sqlite"
MIGRATIONS = Path(__file__).parent / "migrations"
LEAST_SQLITE = (3, 37, 0)  #: WAL that survives power cuts, dropped columns, strict checks; of 2021
BUSY_MS = 10_000  #: how long a writer waits for another


def default_data_dir() -> Path:
    """Where user data lives when no folder is named, after the platform's own custom."""
    return user_data_path("nimble-shell", appauthor=False)


def _refuse_an_old_library() -> None:
    if sqlite3.sqlite_version_info < LEAST_SQLITE:
        least = ".".join(map(str, LEAST_SQLITE))
        raise StoreError(
            "sqlite_too_old",
            f"The database library of this Python is SQLite {sqlite3.sqlite_version}; at least {least} is needed.",
            "Use a newer Python, or a newer SQLite below it.",
        )


class Database:
    """One SQLite file in WAL mode with foreign keys on."""

    def __init__(self, folder: Path, *, busy_ms: int = BUSY_MS) -> None:
        _refuse_an_old_library()
        self.folder = folder
        self.file = folder / FILE
        try:
            folder.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise StoreError(
                "folder_unusable", f"The data folder {folder} cannot be made: {error}.", "Name another with --data DIR."
            ) from error
        self._identity: tuple[int, int] | None = None
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
            self._refuse_another_file()
            with self._engine.connect() as connection:
                connection.exec_driver_sql(begin)
                try:
                    with Session(bind=connection, expire_on_commit=False) as session:
                        yield session
                finally:
                    driver = connection.connection.driver_connection
                    if driver is not None and driver.in_transaction:
                        connection.exec_driver_sql("ROLLBACK")
        except DBAPIError as error:
            known = explained(error)
            if known is None:
                raise
            raise known from error

    def migrate(self, scripts: Path = MIGRATIONS, *, anew: bool = False) -> Path | None:
        """Look whether the file is whole, and bring it to this program's schema, with a backup before anything changes.

        Parameters
        ----------
        scripts : Path
            Folder of the migrations.
        anew : bool
            Begin an empty database although there are backups of one that is gone.

        Returns
        -------
        Path or None
            The backup, if one was made.

        Raises
        ------
        StoreError
            If the file is damaged, lost, of a newer program or of another one.
        """
        revision = self._looked_at(anew)
        if scripts == MIGRATIONS and revision == HEAD:
            return None
        # Only a file that has to change pays for the import of the migration tool.
        from alembic import command
        from alembic.config import Config

        config = Config()
        config.set_main_option("script_location", str(scripts))
        backup = make(self.file, "before-migration") if revision is not None else None
        try:
            with self._engine.connect() as connection:
                connection.exec_driver_sql("BEGIN IMMEDIATE")
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
                connection.exec_driver_sql("COMMIT")
        except DBAPIError as error:
            raise explained(error) or StoreError(
                "database_corrupt", f"The database could not be brought up to date: {error.orig}.",
                "It was left as it was. Restore a backup: nimble-shell backups lists them.",
            ) from error  # fmt: skip
        self._identity = self._stat()
        return backup

    def _looked_at(self, anew: bool) -> str | None:
        """The schema's revision of a file that is whole; None where there is nothing yet. Raises StoreError."""
        if self.file.exists() or self.file.is_symlink():
            found = look(self.file).revision
            if found is not None:
                return found
        kept = [one for one in backups(self.folder) if one.contents is not None]
        if kept and not anew:
            newest = kept[0]
            state = "empty" if self.file.exists() else "gone"
            raise StoreError(
                "database_lost",
                f"The database file is {state}, but there are {len(kept)} backups, the newest of {newest.made_at}.",
                f"Take it: nimble-shell restore {newest.name} --data {self.folder}. To begin anew: --anew.",
            )
        return None

    def backup_daily(self, keep: int = 10) -> Path | None:
        """A backup unless there is one of the last day. Raises StoreError."""
        return make_daily(self.file, keep)

    def restore(self, name: str) -> None:
        """Put a backup in the file's place and go on with it. Raises StoreError."""
        self._engine.dispose()
        restore(self.file, name)
        self._identity = None
        self.migrate()
        self._identity = self._stat()

    def _stat(self) -> tuple[int, int] | None:
        try:
            found = self.file.stat()
        except OSError:
            return None
        return found.st_dev, found.st_ino

    def _refuse_another_file(self) -> None:
        """The file that was opened must still lie there: what is written into one that was replaced is lost."""
        now = self._stat()
        if self._identity is None:
            self._identity = now
        elif now != self._identity:
            state = "is gone" if now is None else "was replaced by another one"
            raise StoreError("database_replaced", f"The database file {state} while the server runs.",
                             "Stop the server and start it again; nothing more is written until then.")  # fmt: skip

    def check(self) -> None:
        """Read something, so that a damaged or locked file is found now. Raises StoreError."""
        with self.read() as session:
            session.execute(text("SELECT count(*) FROM project"))

    def close(self) -> None:
        self._engine.dispose()
