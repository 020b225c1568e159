"""Projects whose areas and lengths are typed, as they were before a building had a shape."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.shell.measured import measured
from nimble_shell.core.shell.project import Building, Project


def typed(project: Project) -> Project:
    """The project with every quantity of its shapes typed in their place."""
    return replace(project, buildings=tuple(_typed(project, one) for one in project.buildings))


def _typed(project: Project, building: Building) -> Building:
    found = measured(project, building)
    joints = tuple(replace(one, follows=()) for one in found.joints)
    return replace(building, elements=found.elements, joints=joints, bodies=(), openings=())
