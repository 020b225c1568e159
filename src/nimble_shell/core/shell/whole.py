"""What no part of a project can see alone: materials that are missing, shapes that do not close."""

from __future__ import annotations

from nimble_shell.core.assemblies.assembly import check_materials
from nimble_shell.core.errors import Collector, DomainError
from nimble_shell.core.shell.measured import measured
from nimble_shell.core.shell.project import Project


def check_whole(project: Project) -> None:
    """Refuse a project with a part that cannot be computed.

    Raises
    ------
    DomainError
        With the path of everything that is missing, or of what does not close.
    """
    check = Collector()
    for at, assembly in enumerate(project.assemblies):
        try:
            check_materials(assembly, project.catalogue)
        except DomainError as error:
            check.add(error.under("assemblies", at).issues)
    for at, building in enumerate(project.buildings):
        try:
            building.check_places({one.id for one in project.units})
            measured(project, building)
        except DomainError as error:
            check.add(error.under("buildings", at).issues)
    check.refuse()
