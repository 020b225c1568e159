"""Projects: list, open, edit, undo, bring in and take out."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import PARTS
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Material
from nimble_shell.core.parameters import Value
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.formats.things import KINDS, Key, held_by, put_thing
from nimble_shell.services.alternatives import duplicated, in_place
from nimble_shell.services.clock import now
from nimble_shell.services.removal import Users, refuse_material_in_use, refuse_unit_in_use, without_assembly
from nimble_shell.store import Actor, Change, Database, Listed, NotFound, ProjectRepository, Stale, Stored, Written

MOST_HELD = 32  #: projects kept in memory as read
LOCAL = Actor("local", "this computer")  #: until accounts exist


@dataclass(frozen=True, slots=True, kw_only=True)
class ChangeNote:
    """How a change is called in the log: in words, and where; and who does it."""

    text: str
    zone: str = ""
    actor: Actor = LOCAL


@dataclass(frozen=True, slots=True, kw_only=True)
class Edit:
    """A thing as it is to be, or None to take it away; and the revision the editor read."""

    key: Key
    value: Any
    read: int | None = None  #: None for a thing that is new
    bare: bool = True  #: what it holds stays as it is; else the value stands for all of it


def new_id() -> str:
    """An identifier nobody else has."""
    return uuid.uuid4().hex[:16]


class ProjectService:
    """One method per thing a user can do to a project; each is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database
        self._held: dict[str, Stored] = {}
        self._with_steps: dict[tuple[str, str], Stored] = {}  #: the same, with what an actor can undo and redo
        self._listeners: list[Callable[[str], None]] = []

    def listen(self, listener: Callable[[str], None]) -> Callable[[], None]:
        """Be told the id of every project that is changed from now on; call what is returned to end that."""
        self._listeners.append(listener)
        return lambda: self._listeners.remove(listener) if listener in self._listeners else None

    def _changed(self, project_id: str) -> None:
        for listener in list(self._listeners):
            listener(project_id)

    def revision(self, project_id: str) -> int:
        """What counts every change of a project. Raises NotFound."""
        with self._database.read() as session:
            return ProjectRepository(session).revision(project_id)

    def all(self) -> list[Listed]:
        with self._database.read() as session:
            return ProjectRepository(session).all()

    def load(self, project_id: str, actor: Actor = LOCAL) -> Stored:
        """Raises NotFound."""
        with self._database.read() as session:
            projects = ProjectRepository(session)
            stored = self._at(projects, project_id)
            known = self._with_steps.get((project_id, actor.id))
            if known is None or known.revision != stored.revision:
                known = self._with_steps[project_id, actor.id] = projects.with_steps(stored, actor)
            return known

    def _at(self, projects: ProjectRepository, project_id: str) -> Stored:
        """Every change raises the revision, so a project of the same revision need not be read again."""
        revision = projects.revision(project_id)
        held = self._held.get(project_id)
        if held is None or held.revision != revision:
            stored = projects.get(project_id)
            held = self._hold(replace(stored, before=projects.before_last(stored)))
        return held

    def _hold(self, stored: Stored) -> Stored:
        if len(self._held) >= MOST_HELD:
            self._held.clear()
            self._with_steps.clear()
        self._held[stored.project.id] = stored
        return stored

    def create(self, name: str) -> Stored:
        """A new project with one building and nothing decided. Raises DomainError."""
        first = Building(id=new_id(), name="Building 1")
        return self.bring_in(Project(id=new_id(), name=name, basis=Basis(), buildings=(first,)))

    def bring_in(self, project: Project) -> Stored:
        """Store a whole project, under a new id if its own is taken. Raises DomainError."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            if projects.exists(project.id):
                project = replace(project, id=new_id())
            return projects.add(project, now())

    def delete(self, project_id: str) -> None:
        """Move to the bin. Raises NotFound."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            projects.revision(project_id)
            projects.set_deleted(project_id, now())
        self._changed(project_id)

    def restore(self, project_id: str) -> Stored:
        """Bring back from the bin. Raises NotFound."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            projects.set_deleted(project_id, None)
            return projects.with_steps(projects.get(project_id), LOCAL)

    def edit(self, project_id: str, change: Callable[[Stored], Project], note: ChangeNote) -> Stored:
        """Make another project of the stored one, as one undoable change.

        Parameters
        ----------
        change : callable
            Gets the project as it stands in the transaction that writes it, and returns what it is to be.

        Raises
        ------
        DomainError, NotFound, Stale
            As `change` raises them, or if what it returns does not hold together.
        """
        with self._database.write() as session:
            after = self.edit_in(ProjectRepository(session), project_id, change, note)
        self._hold(after)  # only once it is written: the transaction could still have failed
        self._changed(project_id)
        return after

    def edit_in(
        self, projects: ProjectRepository, project_id: str, change: Callable[[Stored], Project], note: ChangeNote
    ) -> Stored:
        """The same, inside a transaction that writes something else, too."""
        stored = self._at(projects, project_id)
        after = projects.become(stored, change(stored), text=note.text, zone=note.zone, actor=note.actor, at=now())
        return projects.with_steps(after, note.actor)

    def put(self, project_id: str, edits: list[Edit], note: ChangeNote) -> Stored:
        """Change, add or take away single things. Raises DomainError, NotFound, Stale."""

        def change(stored: Stored) -> Project:
            project = stored.project
            for at, edit in enumerate(edits):
                try:
                    project = _edited(stored, project, edit)
                except DomainError as error:
                    raise error.under("items", at, "document") from error
            return project

        return self.edit(project_id, change, note)

    def take_materials(
        self, project_id: str, materials: tuple[Material, ...], note: ChangeNote, *, instead: bool = False
    ) -> Stored:
        """Add own materials; those of the same key are changed if they may be taken instead.

        Raises DomainError, with what would be changed where that was not said, and NotFound.
        """

        def change(stored: Stored) -> Project:
            known = {one.key: one for one in stored.project.materials}
            other = [one for one in materials if known.get(one.key, one) != one]
            if other and not instead:
                raise DomainError(*(
                    Issue(path=("materials", one.key), code="would_replace",
                          message=f"“{known[one.key].name}” ({one.key}) would become “{one.name}”",
                          hint="say that they are to be replaced, or give them keys of their own")
                    for one in other))  # fmt: skip
            return replace(stored.project, materials=tuple((known | {one.key: one for one in materials}).values()))

        return self.edit(project_id, change, note)

    def add_material_like(self, project_id: str, like: str, note: ChangeNote) -> Stored:
        """An own material that begins as a copy of one of the catalogue. Raises DomainError, NotFound."""

        def change(stored: Stored) -> Project:
            project = stored.project
            found = project.catalogue.get(like)
            if found is None:
                raise DomainError(Issue(path=("like",), code="unknown_material",
                                        message=f"there is no material “{like}”",
                                        hint="choose one of the catalogue"))  # fmt: skip
            own = replace(found, key=f"own-{new_id()[:6]}", name=f"{found.name}, own"[:80], rates="entered")
            return replace(project, materials=(*project.materials, own))

        return self.edit(project_id, change, note)

    def save_assembly(self, project_id: str, assembly: Assembly, version: int, note: ChangeNote) -> Stored:
        """A build-up with all that it holds. Raises DomainError, NotFound, Stale."""
        key = Key("assembly", "", assembly.id)
        return self.put(project_id, [Edit(key=key, value=assembly, read=version, bare=False)], note)

    def start_assembly(
        self,
        project_id: str,
        building_id: str,
        element_id: str,
        system: str,
        values: Mapping[str, Value],
        note: ChangeNote,
    ) -> Stored:
        """Give an element of the shell a build-up of a system, as one change. Raises DomainError, NotFound."""
        if system not in SYSTEMS:
            raise DomainError(Issue(path=("system",), code="unknown_system", message=f"there is no system “{system}”",
                                    hint=f"one of {', '.join(SYSTEMS)}"))  # fmt: skip

        def change(stored: Stored) -> Project:
            building, element = element_of(stored.project, building_id, element_id)
            part = PARTS.get(element.station)
            if SYSTEMS[system].place != part:
                raise DomainError(Issue(path=("system",), code="wrong_place",
                                        message=f"{SYSTEMS[system].name} is a {SYSTEMS[system].place}, not a {part}",
                                        hint="choose a system of this station"))  # fmt: skip
            try:
                assembly = SYSTEMS[system].assembly(new_id(), f"{building.name}: {element.name}"[:80], values)
            except DomainError as error:
                raise error.under("values") from error
            return with_assembly(stored.project, building, element, assembly)

        return self.edit(project_id, change, note)

    def use_assembly(
        self, project_id: str, building_id: str, element_id: str, assembly_id: str | None, note: ChangeNote
    ) -> Stored:
        """Put another build-up, or a copy of its own, in an element's place. Raises DomainError, NotFound."""

        def change(stored: Stored) -> Project:
            building, element = element_of(stored.project, building_id, element_id)
            if assembly_id is None:
                return duplicated(stored.project, building, element, new_id())
            return in_place(stored.project, building, element, assembly_id)

        return self.edit(project_id, change, note)

    def remove_assembly(
        self, project_id: str, assembly_id: str, version: int, note: ChangeNote, users: Users = "refuse"
    ) -> Stored:
        """Take a build-up away; what uses it stands in the way, or goes along. Raises DomainError, NotFound, Stale."""

        def change(stored: Stored) -> Project:
            expect(stored, Key("assembly", "", assembly_id), version)
            return without_assembly(stored.project, assembly_id, users)

        return self.edit(project_id, change, note)

    def step(self, project_id: str, direction: Literal["undo", "redo"], number: int, actor: Actor = LOCAL) -> Stored:
        """Take back or do again the actor's change with this number. Raises DomainError, NotFound, Stale, Crossed."""
        with self._database.write() as session:
            projects = ProjectRepository(session)
            after = projects.with_steps(projects.step(project_id, direction, number, actor, now()), actor)
        self._changed(project_id)
        return after

    def changes(self, project_id: str, limit: int = 200) -> list[Change]:
        """Newest first. Raises NotFound."""
        with self._database.read() as session:
            return ProjectRepository(session).log(project_id).all(limit)

    def delta(self, project_id: str, since: int, actor: Actor = LOCAL) -> Delta:
        """The project, and every thing that was written after a revision. Raises NotFound."""
        with self._database.read() as session:
            projects = ProjectRepository(session)
            stored = projects.with_steps(self._at(projects, project_id), actor)
            return Delta(stored=stored, written=tuple(projects.written(project_id, since)))


@dataclass(frozen=True, slots=True, kw_only=True)
class Delta:
    """What a window that held an older revision does not know yet."""

    stored: Stored
    written: tuple[Written, ...]


def _edited(stored: Stored, project: Project, edit: Edit) -> Project:
    expect(stored, edit.key, edit.read, whole=not edit.bare or edit.value is None)
    if edit.value is None and edit.key.kind == "assembly":
        return without_assembly(project, edit.key.id, "refuse")
    if edit.value is None and edit.key.kind == "material":
        refuse_material_in_use(project, edit.key.id)
    if edit.value is None and edit.key.kind == "unit":
        refuse_unit_in_use(project, edit.key.id)
    value = edit.value
    if value is not None and edit.bare and KINDS[edit.key.kind].holds:
        value = held_by(project, edit.key, value)
    return put_thing(project, edit.key, value)


def expect(stored: Stored, key: Key, read: int | None, *, whole: bool = True) -> None:
    """Refuse to change a thing that somebody has changed since the editor read it.

    Parameters
    ----------
    read : int or None
        Revision of the project that the editor saw; None for a thing that is to be new.
    whole : bool
        Whether what the thing holds counts, too.

    Raises
    ------
    NotFound, Stale
        If it is gone, or newer, or there although it was to be new.
    """
    there = key in stored.slots
    if read is None:
        if there:
            raise Stale(key.kind, key.id, 0, stored.slots[key].revision)
        return
    if not there:
        raise NotFound(key.kind, key.id)
    current = stored.versions[str(key)] if whole else stored.slots[key].revision
    if current > read:
        raise Stale(key.kind, key.id, read, current)


def element_of(project: Project, building_id: str, element_id: str) -> tuple[Building, ShellElement]:
    """Raises NotFound."""
    building = next((one for one in project.buildings if one.id == building_id), None)
    if building is None:
        raise NotFound("building", building_id)
    element = next((one for one in building.elements if one.id == element_id), None)
    if element is None:
        raise NotFound("element", element_id)
    return building, element


def with_assembly(project: Project, building: Building, element: ShellElement, assembly: Assembly) -> Project:
    """The project with a build-up added, in the place of an element's former one."""
    changed = replace(element, assembly_id=assembly.id)
    elements = tuple(changed if one.id == element.id else one for one in building.elements)
    buildings = tuple(replace(one, elements=elements) if one is building else one for one in project.buildings)
    return replace(project, assemblies=(*project.assemblies, assembly), buildings=buildings)
