"""Version 1 of the API, `/api/v1/…`: backups."""

from __future__ import annotations

from fastapi import APIRouter

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.api.ground import REFUSALS, BackupName, Backups, Id
from nimble_shell.api.strict_body import StrictRoute

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


@router.get("/backups")
def list_backups(service: Backups) -> list[s.BackupOut]:
    """Every backup of the data, newest first, with the projects that lie in it."""
    return [views.backup(one) for one in service.all()]


@router.post("/backups/{name}/projects/{project_id}", status_code=201)
def bring_back(name: BackupName, project_id: Id, service: Backups) -> s.ProjectOut:
    """A project as a backup has it, as a project of its own; what there is stays as it is."""
    return views.project(service.bring_back(name, project_id))
