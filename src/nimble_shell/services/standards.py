"""Practice standards: keep a build-up, use it elsewhere, see where it is used, take an update on purpose."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly, StandardRef
from nimble_shell.core.assemblies.difference import Difference, differences
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Material
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.standard import Standard, own_materials
from nimble_shell.services.projects import ChangeNote, ProjectService, new_id, now, with_element
from nimble_shell.store import Database, Heading, Kept, NotFound, Piece, StandardRepository, Stored, Use


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer:
    """A newer version of the standard that a build-up was taken from."""

    kept: Kept[Standard]
    differences: tuple[Difference, ...]  #: from the build-up as it is to the newest version


class StandardService:
    """One method per thing a user can do with standards; each is one transaction."""

    def __init__(self, database: Database, projects: ProjectService) -> None:
        self._database, self._projects = database, projects

    def all(self) -> list[tuple[Kept[Standard], list[Use]]]:
        """Every standard with where it is used."""
        with self._database.read() as session:
            standards = StandardRepository(session)
            uses = standards.uses()
            return [(kept, uses.get(kept.standard.id, [])) for kept in standards.all()]

    def keep(
        self, project_id: str, assembly_id: str, place: ShellPart, *, reason: str, source: str, trusted_since: str
    ) -> Stored:
        """Keep a build-up as a standard: a new one, or the next version of the one it was taken from.

        Raises DomainError, NotFound.
        """
        stored = self._projects.load(project_id)
        assembly = _assembly(stored.project, assembly_id)
        ref = assembly.standard
        with self._database.write() as session:
            standards = StandardRepository(session)
            version = 1 if ref is None else standards.newest(ref.id).standard.version + 1
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
        note = ChangeNote(text=f"{assembly.name} kept as a standard, version {version}")
        return self._projects.save_assembly(project_id, marked, stored.versions[f"assembly/{assembly_id}"], note)

    def use(self, project_id: str, building_id: str, element_id: str, standard_id: str, note: ChangeNote) -> Stored:
        """Give an element of the shell a copy of a standard. Raises DomainError, NotFound, Stale."""
        stored = self._projects.load(project_id)
        with self._database.read() as session:
            standard = StandardRepository(session).newest(standard_id).standard
        building = next((b for b in stored.project.buildings if b.id == building_id), None)
        if building is None:
            raise NotFound("building", building_id)
        element = next((e for e in building.elements if e.id == element_id), None)
        if element is None:
            raise NotFound("element", element_id)
        assembly = standard.copy(new_id(), standard.assembly.name)
        changed = with_element(building, replace(element, assembly_id=assembly.id))
        return self._projects.apply(
            project_id,
            [
                *_missing_materials(stored, standard.materials),
                Piece(kind="assembly", target=assembly.id, value=assembly),
                Piece(kind="building", target=building.id, value=changed,
                      expect=stored.versions[f"building/{building.id}"]),
            ],
            note,
        )  # fmt: skip

    def offer(self, project_id: str, assembly_id: str) -> Offer | None:
        """The newest version of a build-up's standard and what it would change; None without one, or if it is that.

        Raises NotFound.
        """
        stored = self._projects.load(project_id)
        assembly = _assembly(stored.project, assembly_id)
        if assembly.standard is None:
            return None
        with self._database.read() as session:
            try:
                kept = StandardRepository(session).newest(assembly.standard.id)
            except NotFound:
                return None
        catalogue = {**stored.project.catalogue, **{m.key: m for m in kept.standard.materials}}
        changes = tuple(differences(assembly, kept.standard.assembly, catalogue))
        if kept.standard.version == assembly.standard.version and not changes:
            return None
        return Offer(kept=kept, differences=changes)

    def take(self, project_id: str, assembly_id: str, version: int, note: ChangeNote) -> Stored:
        """Put the newest version in a build-up's place, as one undoable change. Raises NotFound, Stale."""
        stored = self._projects.load(project_id)
        assembly = _assembly(stored.project, assembly_id)
        if assembly.standard is None:
            raise NotFound("standard", assembly_id)
        with self._database.read() as session:
            standard = StandardRepository(session).newest(assembly.standard.id).standard
        piece = Piece(
            kind="assembly", target=assembly_id, value=standard.copy(assembly_id, assembly.name), expect=version
        )
        return self._projects.apply(project_id, [*_missing_materials(stored, standard.materials), piece], note)

    def withdraw(self, standard_id: str, *, again: bool = False) -> None:
        """No longer offer a standard, or offer it again. What uses it keeps its build-up. Raises NotFound."""
        with self._database.write() as session:
            StandardRepository(session).withdraw(standard_id, None if again else now())

    def bring_in(self, standards: Sequence[Standard]) -> int:
        """Store standards from a file; one that is known gets a next version if it differs. The number stored."""
        stored = 0
        with self._database.write() as session:
            repository = StandardRepository(session)
            known = {kept.standard.id: kept.standard for kept in repository.all()}
            for standard in standards:
                before = known.get(standard.id)
                if before is not None and replace(standard, version=before.version) == before:
                    continue
                version = 1 if before is None else before.version + 1
                repository.add(replace(standard, version=version), now())
                session.flush()
                known[standard.id] = replace(standard, version=version)
                stored += 1
        return stored


def _assembly(project: Project, assembly_id: str) -> Assembly:
    found = next((assembly for assembly in project.assemblies if assembly.id == assembly_id), None)
    if found is None:
        raise NotFound("assembly", assembly_id)
    return found


def _missing_materials(stored: Stored, materials: tuple[Material, ...]) -> list[Piece]:
    """A change of the project's own materials, if a standard brings some it does not have.

    Raises
    ------
    DomainError
        If the project has another material under the same key: neither is overridden.
    """
    own = {material.key: material for material in stored.project.materials}
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
    if not missing:
        return []
    project = stored.project
    heading = Heading(name=project.name, basis=project.basis, materials=(*project.materials, *missing))
    return [Piece(kind="basis", target="", value=heading, expect=stored.versions["basis"])]
