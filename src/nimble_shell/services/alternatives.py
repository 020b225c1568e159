"""Another build-up in the place of an element's own: the joints that met the former one meet it now."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.stations import PARTS
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.store import NotFound

_MOST_NAME = 80


def in_place(project: Project, building: Building, element: ShellElement, assembly_id: str) -> Project:
    """The project with a build-up of it in an element's place.

    Joints of the building follow where no other element of it keeps the former build-up.

    Raises
    ------
    NotFound
        If the project has no such build-up.
    DomainError
        If it is of another part of the shell.
    """
    assembly = next((one for one in project.assemblies if one.id == assembly_id), None)
    if assembly is None:
        raise NotFound("assembly", assembly_id)
    system, part = SYSTEMS.get(assembly.system), PARTS.get(element.station)
    if system is not None and system.place != part:
        raise DomainError(Issue(path=("assembly_id",), code="wrong_place",
                                message=f"{assembly.name} is a {system.place}, not a {part}",
                                hint="choose a build-up of this part of the shell"))  # fmt: skip
    former = element.assembly_id
    elements = tuple(
        replace(one, assembly_id=assembly_id) if one.id == element.id else one for one in building.elements
    )
    joints = building.joints
    if former is not None and former not in {one.assembly_id for one in elements}:
        joints = tuple(
            replace(joint, roles=tuple(
                replace(role, assembly_id=assembly_id) if role.assembly_id == former else role for role in joint.roles
            )) if former in joint.assembly_ids else joint
            for joint in joints
        )  # fmt: skip
    changed = replace(building, elements=elements, joints=joints)
    return replace(project, buildings=tuple(changed if one.id == building.id else one for one in project.buildings))


def duplicated(project: Project, building: Building, element: ShellElement, new_id: str) -> Project:
    """The project with a copy of an element's build-up in its place; the former one stays, to be compared with.

    Raises
    ------
    NotFound
        If the element has none.
    """
    own = next((one for one in project.assemblies if one.id == element.assembly_id), None)
    if own is None:
        raise NotFound("assembly", element.assembly_id or "")
    copy = replace(own, id=new_id, name=_name(own, {one.name for one in project.assemblies}))
    return in_place(replace(project, assemblies=(*project.assemblies, copy)), building, element, new_id)


def _name(own: Assembly, taken: set[str]) -> str:
    """The first name that is free: "Wall W-A, alternative", then with a number."""
    number = 1
    while True:
        ending = ", alternative" if number == 1 else f", alternative {number}"
        name = own.name[: _MOST_NAME - len(ending)] + ending
        if name not in taken:
            return name
        number += 1
