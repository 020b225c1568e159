"""Practice standards: keep a build-up, use it elsewhere, see where it is used, take an update on purpose."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.assemblies.assembly import Assembly, StandardRef
from nimble_shell.core.assemblies.difference import Difference, differences
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Material
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.standard import Standard, own_materials
from nimble_shell.formats.things import Key, put_thing
from nimble_shell.services.clock import now
from nimble_shell.services.practice_standards import Offer, PracticeStandards
from nimble_shell.services.projects import (
    ChangeNote,
    element_of,
    expect,
    new_id,
    with_assembly,
)
from nimble_shell.store import NotFound, ProjectRepository, StandardRepository, Stored


class StandardService(PracticeStandards[Standard]):
    """Of build-ups."""

    kept_in = StandardRepository

    def keep(
        self, project_id: str, assembly_id: str, place: ShellPart, *, reason: str, source: str, trusted_since: str
    ) -> Stored:
        """Keep a build-up as a standard: a new one, or the next version of the one it was taken from.

        Raises DomainError, NotFound.
        """
        with self._database.write() as session:
            standards, projects = StandardRepository(session), ProjectRepository(session)
            assembly = _assembly(projects.get(project_id).project, assembly_id)
            ref = assembly.standard
            version = 1 if ref is None else standards.newest(ref.id).standard.version + 1

            def kept(stored: Stored) -> Project:
                standard = Standard(
                    id=new_id() if ref is None else ref.id,
                    version=version,
                    place=place,
                    assembly=replace(assembly, standard=None),
                    materials=own_materials(assembly, stored.project.materials),
                    reason=reason,
                    source=source,
                    trusted_since=trusted_since,
                )
                standards.add(standard, now())
                marked = replace(assembly, standard=StandardRef(standard.id, version))
                return put_thing(stored.project, Key("assembly", "", assembly_id), marked)

            note = ChangeNote(text=f"{assembly.name} kept as a standard, version {version}")
            return self._projects.edit_in(projects, project_id, kept, note)

    def use(self, project_id: str, building_id: str, element_id: str, standard_id: str, note: ChangeNote) -> Stored:
        """Give an element of the shell a copy of a standard. Raises DomainError, NotFound, Stale."""
        standard = self.newest(standard_id)

        def used(stored: Stored) -> Project:
            building, element = element_of(stored.project, building_id, element_id)
            project = _with_materials(stored.project, standard.materials)
            return with_assembly(project, building, element, standard.copy(new_id(), standard.assembly.name))

        return self._projects.edit(project_id, used, note)

    def offer(self, project_id: str, assembly_id: str) -> Offer[Standard] | None:
        """The newest version of a build-up's standard and what it would change; None without one, or if it is that.

        Raises NotFound.
        """
        stored = self._projects.load(project_id)
        assembly = _assembly(stored.project, assembly_id)
        if assembly.standard is None:
            return None

        def changes(standard: Standard) -> list[Difference]:
            catalogue = {**stored.project.catalogue, **{one.key: one for one in standard.materials}}
            return differences(assembly, standard.assembly, catalogue)

        return self._offered(assembly.standard.id, assembly.standard.version, changes)

    def take(self, project_id: str, assembly_id: str, version: int, note: ChangeNote) -> Stored:
        """Put the newest version in a build-up's place, as one undoable change. Raises NotFound, Stale."""
        key = Key("assembly", "", assembly_id)

        def taken(stored: Stored) -> Project:
            expect(stored, key, version)
            assembly = _assembly(stored.project, assembly_id)
            if assembly.standard is None:
                raise NotFound("standard", assembly_id)
            standard = self.newest(assembly.standard.id)
            project = _with_materials(stored.project, standard.materials)
            return put_thing(project, key, standard.copy(assembly_id, assembly.name))

        return self._projects.edit(project_id, taken, note)


def _assembly(project: Project, assembly_id: str) -> Assembly:
    found = next((assembly for assembly in project.assemblies if assembly.id == assembly_id), None)
    if found is None:
        raise NotFound("assembly", assembly_id)
    return found


def _with_materials(project: Project, materials: tuple[Material, ...]) -> Project:
    """The project with the own materials that a standard brings along.

    Raises
    ------
    DomainError
        If the project has another material under the same key: neither is overridden.
    """
    own = {material.key: material for material in project.materials}
    for material in materials:
        if material.key in own and own[material.key] != material:
            raise DomainError(
                Issue(
                    path=("materials", material.key),
                    code="material_differs",
                    message=f"this project has another material “{material.key}”",
                    hint="rename one of the two; neither is overridden",
                )
            )
    missing = tuple(material for material in materials if material.key not in own)
    return replace(project, materials=(*project.materials, *missing)) if missing else project
