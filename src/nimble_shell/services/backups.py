"""Earlier states of the data: what lies in each backup, and a project of one brought back beside what there is."""

from __future__ import annotations

import shutil
import tempfile
from dataclasses import replace
from pathlib import Path

from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Backup, Database, NotFound, Stored, backup_named, backups
from nimble_shell.store.database import FILE

_MOST_NAME = 200


class BackupService:
    """Reads backups; none is changed, and what is open now stays as it is."""

    def __init__(self, database: Database, projects: ProjectService) -> None:
        self._folder, self._projects = database.folder, projects

    def all(self) -> list[Backup]:
        """Every backup, newest first, looked into."""
        return backups(self._folder)

    def bring_back(self, name: str, project_id: str) -> Stored:
        """A project as a backup has it, as a project of its own.

        Raises
        ------
        NotFound
            If there is no such backup, or no such project in it.
        StoreError
            If the backup cannot be used.
        """
        found = backup_named(self._folder, name)
        if found is None:
            raise NotFound("backup", name)
        found.check()
        with tempfile.TemporaryDirectory(prefix="nimble-shell-") as made:
            shutil.copyfile(found.file, Path(made) / FILE)
            database = Database(Path(made))
            try:
                database.migrate()
                project = ProjectService(database).load(project_id).project
            finally:
                database.close()
        stamp = found.made_at[:16].replace("T", " ")
        return self._projects.bring_in(replace(project, name=f"{project.name}, as of {stamp}"[:_MOST_NAME]))
