"""Projects: list, open, edit, undo, bring in and take out."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly, check_materials
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import PARTS
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Material
from nimble_shell.core.parameters import Value
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.store import Change, Database, Heading, Listed, NotFound, Piece, ProjectRepository, Stored

MOST_HELD = 32  #: projects kept in memory as read
LOCAL_USER = "this computer"  #: until accounts exist


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangeNote:
    """How a change is called in the log: in words, and where."""

    text: str
    zone: str = ""


def new_id() -> str:
    """An identifier nobody else has."""
    return uuid.uuid4().hex[:16]


class ProjectService:
    """One method per thing a user can do to a project; each is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._held: dict[str, tuple[Stored, Project | None]] = {}

    def all(self) -> list[Listed]:
        with self._database.read() as session:
            return ProjectRepository(session).all()

    def load(self, project_id: str) -> Stored:
        """Raises NotFound."""
        return self.load_with_before(project_id)[0]

    def load_with_before(self, project_id: str) -> tuple[Stored, Project | None]:
        """The project, and as it was before its newest change. Raises NotFound.

        Every change raises the revision, so a project of the same revision need not be read again.
        """
        with self._database.read() as session:
            projects = ProjectRepository(session)
            revision = projects.revision(project_id)
            held = self._held.get(project_id)
            if held is None or held[0].revision != revision:
                stored = projects.get(project_id)
                held = (stored, projects.before_last(stored))
                if len(self._held) >= MOST_HELD:
                    self._held.clear()
                self._held[project_id] = held
            return held

    def create(self, name: str) -> Stored:
        """A new project with one building and nothing decided. Raises DomainError."""
        first = Building(id=new_id(), name="Building 1")
        return self.bring_in(Project(id=new_id(), name=name, basis=Basis(), buildings=(first,)))

    def bring_in(self, project: Project) -> Stored:
        """Store a whole project, under a new id if its own is taken. Raises DomainError."""
        for index, assembly in enumerate(project.assemblies):
            try:
                check_materials(assembly, project.catalogue)
            except DomainError as error:
                raise error.under("assemblies", index) from error
        with self._database.write() as session:
            projects = ProjectRepository(session)
            if projects.exists(project.id):
                project = replace(project, id=new_id())
            projects.add(project, now())
            return projects.get(project.id)

    def delete(self, project_id: str) -> None:
        """Move to the bin. Raises NotFound."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            projects.get(project_id)
            projects.set_deleted(project_id, now())

    def restore(self, project_id: str) -> Stored:
        """Bring back from the bin. Raises NotFound."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            projects.set_deleted(project_id, None)
            return projects.get(project_id)

    def save_basis(self, project_id: str, name: str, basis: Basis, version: int, note: ChangeNote) -> Stored:
        """Raises DomainError, NotFound, Stale."""
        if not 0 < len(name.strip()) <= 80:
            raise DomainError(Issue(path=("name",), code="name_length", message=f"the name has {len(name)} letters",
                                    hint="a name has 1 to 80"))  # fmt: skip
        value = Heading(name=name, basis=basis, materials=self.load(project_id).project.materials)
        return self.apply(project_id, [Piece(kind="basis", target="", value=value, expect=version)], note)

    def save_materials(
        self, project_id: str, materials: tuple[Material, ...], version: int, note: ChangeNote
    ) -> Stored:
        """Change the project's own materials. Raises DomainError, NotFound, Stale."""
        project = self.load(project_id).project
        changed = replace(project, materials=materials)
        for index, assembly in enumerate(changed.assemblies):
            try:
                check_materials(assembly, changed.catalogue)
            except DomainError as error:
                raise error.under("assemblies", index) from error
        value = Heading(name=project.name, basis=project.basis, materials=materials)
        return self.apply(project_id, [Piece(kind="basis", target="", value=value, expect=version)], note)

    def add_material_like(self, project_id: str, like: str, version: int, note: ChangeNote) -> Stored:
        """An own material that begins as a copy of one of the catalogue. Raises DomainError, NotFound, Stale."""
        project = self.load(project_id).project
        found = project.catalogue.get(like)
        if found is None:
            raise DomainError(Issue(path=("like",), code="unknown_material", message=f"there is no material “{like}”",
                                    hint="choose one of the catalogue"))  # fmt: skip
        own = replace(found, key=f"own-{new_id()[:6]}", name=f"{found.name}, own"[:80], rates="entered")
        return self.save_materials(project_id, (*project.materials, own), version, note)

    def save_building(self, project_id: str, building: Building, version: int | None, note: ChangeNote) -> Stored:
        """Change a building, or add one (`version` None). Raises DomainError, NotFound, Stale."""
        known = {assembly.id for assembly in self.load(project_id).project.assemblies}
        for index, element in enumerate(building.elements):
            if element.assembly_id is not None and element.assembly_id not in known:
                path = ("elements", index, "assembly_id")
                raise DomainError(Issue(path=path, code="unknown_assembly",
                                        message=f"there is no build-up “{element.assembly_id}”",
                                        hint="name one of the project's build-ups"))  # fmt: skip
        return self.apply(
            project_id, [Piece(kind="building", target=building.id, value=building, expect=version)], note
        )

    def remove_building(self, project_id: str, building_id: str, version: int, note: ChangeNote) -> Stored:
        """Raises NotFound, Stale."""
        return self.apply(project_id, [Piece(kind="building", target=building_id, value=None, expect=version)], note)

    def save_assembly(self, project_id: str, assembly: Assembly, version: int, note: ChangeNote) -> Stored:
        """Raises DomainError, NotFound, Stale."""
        check_materials(assembly, self.load(project_id).project.catalogue)
        return self.apply(
            project_id, [Piece(kind="assembly", target=assembly.id, value=assembly, expect=version)], note
        )

    def start_assembly(
        self,
        project_id: str,
        building_id: str,
        element_id: str,
        system: str,
        values: Mapping[str, Value],
        note: ChangeNote,
    ) -> Stored:
        """Give an element of the shell a build-up of a system, as one change. Raises DomainError, NotFound, Stale."""
        if system not in SYSTEMS:
            raise DomainError(Issue(path=("system",), code="unknown_system", message=f"there is no system “{system}”",
                                    hint=f"one of {', '.join(SYSTEMS)}"))  # fmt: skip
        stored = self.load(project_id)
        building = next((b for b in stored.project.buildings if b.id == building_id), None)
        if building is None:
            raise NotFound("building", building_id)
        element = next((e for e in building.elements if e.id == element_id), None)
        if element is None:
            raise NotFound("element", element_id)
        place = PARTS.get(element.station)
        if SYSTEMS[system].place != place:
            raise DomainError(Issue(path=("system",), code="wrong_place",
                                    message=f"{SYSTEMS[system].name} is a {SYSTEMS[system].place}, not a {place}",
                                    hint="choose a system of this station"))  # fmt: skip
        try:
            assembly = SYSTEMS[system].assembly(new_id(), f"{building.name}: {element.name}"[:80], values)
        except DomainError as error:
            raise error.under("values") from error
        changed = with_element(building, replace(element, assembly_id=assembly.id))
        pieces = [
            Piece(kind="assembly", target=assembly.id, value=assembly),
            Piece(
                kind="building", target=building.id, value=changed, expect=stored.versions[f"building/{building.id}"]
            ),
        ]
        return self.apply(project_id, pieces, note)

    def remove_assembly(self, project_id: str, assembly_id: str, version: int, note: ChangeNote) -> Stored:
        """Take a build-up away, also from the elements that use it. Raises NotFound, Stale."""
        stored = self.load(project_id)
        pieces = [Piece(kind="assembly", target=assembly_id, value=None, expect=version)]
        for building in stored.project.buildings:
            freed = tuple(
                replace(e, assembly_id=None) if e.assembly_id == assembly_id else e for e in building.elements
            )
            if freed != building.elements:
                expect = stored.versions[f"building/{building.id}"]
                value = replace(building, elements=freed)
                pieces.append(Piece(kind="building", target=building.id, value=value, expect=expect))
        return self.apply(project_id, pieces, note)

    def step(self, project_id: str, direction: Literal["undo", "redo"], number: int) -> Stored:
        """Take back or do again the change with this number. Raises NotFound, Stale."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            projects.step(project_id, direction, number, now())
            return projects.get(project_id)

    def changes(self, project_id: str, limit: int = 200) -> list[Change]:
        """Newest first. Raises NotFound."""
        with self._database.read() as session:
            return ProjectRepository(session).changes(project_id, limit)

    def apply(self, project_id: str, pieces: Sequence[Piece], note: ChangeNote) -> Stored:
        """Put pieces in place as one undoable change. Raises NotFound, Stale."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            projects.apply(project_id, pieces, text=note.text, zone=note.zone, who=LOCAL_USER, at=now())
            return projects.get(project_id)


def with_element(building: Building, element: ShellElement) -> Building:
    """The building with one element exchanged."""
    return replace(building, elements=tuple(element if e.id == element.id else e for e in building.elements))


def now() -> str:
    """The moment, as it is stored."""
    return datetime.now(UTC).isoformat(timespec="seconds")
