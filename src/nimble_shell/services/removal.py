"""Removing what is in use: refused with its users named, or they go along."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.shell.project import Project
from nimble_shell.store import NotFound

Users = Literal["refuse", "take along"]
_MOST_NAMED = 12


def users_of_assembly(project: Project, assembly_id: str) -> tuple[str, ...]:
    """Elements and joints that use a build-up, in words."""
    found = []
    for building in project.buildings:
        found += [f"{building.name}: {one.name}" for one in building.elements if one.assembly_id == assembly_id]
        found += [f"{building.name}: {one.name}" for one in building.joints if assembly_id in one.assembly_ids]
    return tuple(found)


def without_assembly(project: Project, assembly_id: str, users: Users) -> Project:
    """The project without a build-up: its elements are free again, its joints go.

    Raises
    ------
    NotFound
        If there is none.
    DomainError
        If it is used and the users are to stand in the way.
    """
    if assembly_id not in {assembly.id for assembly in project.assemblies}:
        raise NotFound("assembly", assembly_id)
    used = users_of_assembly(project, assembly_id)
    if used and users == "refuse":
        raise DomainError(
            _in_use("build-up", used, "remove it together with them: elements lose it, joints go; or exchange it there")
        )
    buildings = []
    for building in project.buildings:
        elements = tuple(
            replace(one, assembly_id=None) if one.assembly_id == assembly_id else one for one in building.elements
        )
        joints = tuple(one for one in building.joints if assembly_id not in one.assembly_ids)
        same = elements == building.elements and len(joints) == len(building.joints)
        buildings.append(building if same else replace(building, elements=elements, joints=joints))
    assemblies = tuple(one for one in project.assemblies if one.id != assembly_id)
    return replace(project, assemblies=assemblies, buildings=tuple(buildings))


def refuse_material_in_use(project: Project, key: str) -> None:
    """Refuse to remove an own material that build-ups are made of.

    Raises
    ------
    DomainError
        With its users.
    """
    used = tuple(_users_of_material(project, key))
    if used:
        raise DomainError(_in_use("material", used, "choose another material there first"))


def refuse_unit_in_use(project: Project, unit_id: str) -> None:
    """Refuse to remove a type of window or door that openings name.

    Raises
    ------
    DomainError
        With its users.
    """
    used = tuple(f"{building.name}: {one.mark or one.id}" for building in project.buildings
                 for one in building.openings if one.unit == unit_id)  # fmt: skip
    if used:
        raise DomainError(_in_use("type", used, "give these openings another type first"))


def _users_of_material(project: Project, key: str) -> Iterator[str]:
    for assembly in project.assemblies:
        keys = {layer.material for layer in assembly.layers}
        keys |= {member.material for layer in assembly.layers for member in layer.members}
        keys |= {layer.substitution.asked for layer in assembly.layers if layer.substitution is not None}
        keys |= {material for fixing in assembly.fixings for material in fixing.materials}
        if key in keys:
            yield assembly.name


def _in_use(what: str, used: tuple[str, ...], hint: str) -> Issue:
    named = ", ".join(used[:_MOST_NAMED]) + (f" and {len(used) - _MOST_NAMED} more" if len(used) > _MOST_NAMED else "")
    return Issue(path=(), code="in_use", message=f"the {what} is used by {named}", hint=hint)
