"""SQLite through SQLAlchemy: rows, repositories, the change log, migrations and backups. Rows never leave this room."""

from nimble_shell.store.database import Database, default_data_dir
from nimble_shell.store.errors import NotFound, Stale, StoreError
from nimble_shell.store.projects import Change, Listed, Piece, ProjectRepository, Stored

__all__ = [
    "Change",
    "Database",
    "Listed",
    "NotFound",
    "Piece",
    "ProjectRepository",
    "Stale",
    "StoreError",
    "Stored",
    "default_data_dir",
]
