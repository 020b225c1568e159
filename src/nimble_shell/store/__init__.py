"""SQLite through SQLAlchemy: rows, repositories, the change log, migrations and backups. Rows never leave this room."""

from nimble_shell.store.answers import AnswerRepository
from nimble_shell.store.database import Database, default_data_dir
from nimble_shell.store.errors import NotFound, Stale, StoreError
from nimble_shell.store.projects import Change, Heading, Listed, Piece, ProjectRepository, Stored
from nimble_shell.store.standards import JointStandardRepository, Kept, StandardRepository, Use
from nimble_shell.store.targets import TargetSetRepository

__all__ = [
    "AnswerRepository",
    "Change",
    "Database",
    "Heading",
    "JointStandardRepository",
    "Kept",
    "Listed",
    "NotFound",
    "Piece",
    "ProjectRepository",
    "Stale",
    "StandardRepository",
    "StoreError",
    "Stored",
    "TargetSetRepository",
    "Use",
    "default_data_dir",
]
