"""SQLite through SQLAlchemy: rows, repositories, the change log, migrations and backups. Rows never leave this room."""

from nimble_shell.store.answers import AnswerRepository
from nimble_shell.store.backups import Backup, backup_named, backups, restore
from nimble_shell.store.changes import Actor, Change
from nimble_shell.store.database import Database, default_data_dir
from nimble_shell.store.differences import Slot
from nimble_shell.store.errors import Crossed, NotFound, NotKept, Stale, StoreError
from nimble_shell.store.inspect import ProjectThere
from nimble_shell.store.lock import FolderLock
from nimble_shell.store.projects import Listed, ProjectRepository, Stored, Written
from nimble_shell.store.standards import JointStandardRepository, Kept, StandardRepository, StandardVersions, Use
from nimble_shell.store.targets import TargetSetRepository

__all__ = [
    "Actor",
    "AnswerRepository",
    "Backup",
    "Change",
    "Crossed",
    "Database",
    "FolderLock",
    "JointStandardRepository",
    "Kept",
    "Listed",
    "NotFound",
    "NotKept",
    "ProjectRepository",
    "ProjectThere",
    "Slot",
    "Stale",
    "StandardRepository",
    "StandardVersions",
    "StoreError",
    "Stored",
    "TargetSetRepository",
    "Use",
    "Written",
    "backup_named",
    "backups",
    "default_data_dir",
    "restore",
]
