"""Projects as the core knows them, read and written thing by thing."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace

from sqlalchemy import bindparam, func, select
from sqlalchemy.orm import Session

from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.whole import check_whole
from nimble_shell.formats.things import BASIS, HEADING, KINDS, Heading, Key, compose, groups, holder_of, read_thing
from nimble_shell.store.changes import Actor, Change, ChangeLog, Direction, Put
from nimble_shell.store.differences import ChangeItem, Slot, differences
from nimble_shell.store.errors import NotFound, NotKept, StoreError
from nimble_shell.store.rows import ChangeItemRow, ProjectRow, ThingRow

#: Asked with every request, and put together once.
_REVISION = select(ProjectRow.revision).where(ProjectRow.id == bindparam("project"), ProjectRow.deleted_at.is_(None))


@dataclass(frozen=True, slots=True, kw_only=True)
class Stored:
    """A project as it stands, with the revision of every thing of it."""

    project: Project
    slots: Mapping[Key, Slot]
    revision: int
    changed_at: str
    before: Project | None = field(default=None, compare=False, repr=False)  #: before its newest change; None without
    undo: Change | None = field(default=None, compare=False)  #: of the actor who asked
    redo: Change | None = field(default=None, compare=False)

    @property
    def versions(self) -> dict[str, int]:
        """When each thing was written last, by its key; of one that holds others the newest of all."""
        found: dict[str, int] = {}
        for key, slot in self.slots.items():
            for one in (key, *holder_of(key)):
                found[str(one)] = max(slot.revision, found.get(str(one), 0))
        return found


@dataclass(frozen=True, slots=True)
class Written:
    """A thing as it was written last; without a document it was removed."""

    key: Key
    revision: int
    position: float
    document: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Listed:
    """A project in the list."""

    id: str
    name: str
    buildings: int
    assemblies: int
    changed_at: str
    deleted: bool


class ProjectRepository:
    """Reads and writes projects inside one session."""

    def __init__(self, session: Session) -> None:
        self._db = session

    def all(self) -> list[Listed]:
        """Every project, deleted ones included, newest change first."""
        counted = (
            select(ThingRow.project_id, ThingRow.kind, func.count())
            .where(ThingRow.document.is_not(None))
            .group_by(ThingRow.project_id, ThingRow.kind)
        )
        counts = {(project, kind): number for project, kind, number in self._db.execute(counted)}
        rows = self._db.scalars(select(ProjectRow).order_by(ProjectRow.changed_at.desc())).all()
        return [
            Listed(id=row.id, name=row.name, buildings=counts.get((row.id, "building"), 0),
                   assemblies=counts.get((row.id, "assembly"), 0), changed_at=row.changed_at,
                   deleted=row.deleted_at is not None)
            for row in rows
        ]  # fmt: skip

    def exists(self, project_id: str) -> bool:
        return self._db.get(ProjectRow, project_id) is not None

    def revision(self, project_id: str) -> int:
        """What counts every change of a project. Raises NotFound."""
        found = self._db.scalar(_REVISION, {"project": project_id})
        if found is None:
            raise NotFound("project", project_id)
        return found

    def get(self, project_id: str) -> Stored:
        """The project as it stands. Raises NotFound."""
        row = self._row(project_id)
        try:
            return self._composed(row)
        except (ValueError, KeyError) as error:  # ValidationError and DomainError are ValueErrors
            raise StoreError(
                "project_unreadable", f"The project “{row.name}” cannot be read: {str(error).splitlines()[0]}.",
                "Other projects can be used. A backup may have it whole: nimble-shell backups.",
            ) from error  # fmt: skip

    def _composed(self, row: ProjectRow) -> Stored:
        things, slots = self._things(row.id)
        return Stored(project=compose(row.id, things), slots=slots, revision=row.revision, changed_at=row.changed_at)

    def log(self, project_id: str) -> ChangeLog:
        """Its change log. Raises NotFound."""
        self._row(project_id)
        return ChangeLog(self._db, project_id)

    def with_steps(self, stored: Stored, actor: Actor) -> Stored:
        """The same, with what the actor can undo and redo."""
        log = ChangeLog(self._db, stored.project.id)
        return replace(stored, undo=log.next(actor, "undo"), redo=log.next(actor, "redo"))

    def add(self, project: Project, at: str) -> Stored:
        """A new project, whole; nothing to undo before it. Raises DomainError."""
        items = [ChangeItem(HEADING, Heading(name=project.name), 0.0), ChangeItem(BASIS, project.basis, 0.0)]
        for kind, owner, values in groups(project):
            of = KINDS[kind]
            items += [
                ChangeItem(Key(kind, owner, of.id_of(one)), of.bare(one), float(n)) for n, one in enumerate(values)
            ]
        puts = [_put(item) for item in items]
        # As it will be read: what is worked out to check it is then worked out for whoever opens it.
        check_whole(compose(project.id, {one.key: read_thing(one.key.kind, one.text or "") for one in puts}))
        self._db.add(ProjectRow(id=project.id, name=project.name, revision=1, created_at=at, changed_at=at,
                                deleted_at=None))  # fmt: skip
        self._db.flush()
        self._db.add_all(_row_of(project.id, one) for one in puts)  # nothing stands there yet to be asked for
        self._db.flush()
        return self.get(project.id)

    def set_deleted(self, project_id: str, at: str | None) -> None:
        """Move a project to the bin, or bring it back (`at` None). Raises NotFound."""
        row = self._db.get(ProjectRow, project_id)
        if row is None:
            raise NotFound("project", project_id)
        row.deleted_at = at

    def become(self, stored: Stored, after: Project, *, text: str, zone: str, actor: Actor, at: str) -> Stored:
        """Write what turns the stored project into another one, as one undoable change; nothing if nothing differs.

        Raises
        ------
        DomainError
            If what is written could not be read again as a whole.
        """
        check_whole(after)
        row = self._row(stored.project.id)
        items = differences(stored.project, stored.slots, after, row.revision + 1)
        if not items:
            return stored
        row.revision += 1
        row.changed_at = at
        row.name = after.name
        puts = [_put(item) for item in items]
        written = [self._write(after.id, put, row.revision) for put in puts]
        ChangeLog(self._db, after.id).record(row.revision, written, actor=actor, text=text, zone=zone, at=at)
        self._db.flush()
        slots = _moved(stored.slots, puts, row.revision)
        return Stored(project=after, slots=slots, revision=row.revision, changed_at=at, before=stored.project)

    def step(self, project_id: str, direction: Direction, number: int, actor: Actor, at: str) -> Stored:
        """Take back an actor's newest change, or do the last undone one again.

        Raises
        ------
        NotFound, Stale, Crossed
            As `ChangeLog.turn`.
        DomainError
            If the project would no longer hold together.
        """
        row = self._row(project_id)
        row.revision += 1
        row.changed_at = at
        for put in ChangeLog(self._db, project_id).turn(actor, direction, number)[1]:
            self._write(project_id, put, row.revision)
        self._db.flush()
        found = self._composed(row)
        check_whole(found.project)
        row.name = found.project.name
        return found

    def written(self, project_id: str, since: int) -> list[Written]:
        """Every thing that was written after a revision, removed ones included."""
        here = (ThingRow.project_id == project_id) & (ThingRow.revision > since)
        rows = self._db.scalars(select(ThingRow).where(here).order_by(ThingRow.kind, ThingRow.owner, ThingRow.position))
        return [Written(Key(row.kind, row.owner, row.id), row.revision, row.position, row.document) for row in rows]

    def before_last(self, stored: Stored) -> Project | None:
        """The project as it was before its newest change; None if there is nothing to take back."""
        newest = ChangeLog(self._db, stored.project.id).newest()
        if newest is None:
            return None
        things, slots = self._things(stored.project.id)
        for item in newest.items:
            key = Key(item.kind, item.owner, item.id)
            if item.before is None:
                things.pop(key, None)
            else:
                things[key] = read_thing(item.kind, item.before)
                slots[key] = Slot(item.position_before or 0.0, 0)
        in_order = sorted(things, key=lambda key: slots[key].position)
        return compose(stored.project.id, {key: things[key] for key in in_order})

    def _things(self, project_id: str) -> tuple[dict[Key, object], dict[Key, Slot]]:
        """Every thing and where it stands, in order."""
        columns = (ThingRow.kind, ThingRow.owner, ThingRow.id, ThingRow.position, ThingRow.revision, ThingRow.document)
        here = (ThingRow.project_id == project_id) & ThingRow.document.is_not(None)
        rows = select(*columns).where(here).order_by(ThingRow.position, ThingRow.id)
        things: dict[Key, object] = {}
        slots: dict[Key, Slot] = {}
        for kind, owner, one, position, revision, document in self._db.execute(rows):
            key = Key(kind, owner, one)
            things[key], slots[key] = read_thing(kind, document), Slot(position, revision)
        return things, slots

    def _row(self, project_id: str) -> ProjectRow:
        row = self._db.get(ProjectRow, project_id)
        if row is None or row.deleted_at is not None:
            raise NotFound("project", project_id)
        return row

    def _write(self, project_id: str, put: Put, revision: int) -> ChangeItemRow:
        """Put a thing in its row; what that did, for the log."""
        key = put.key
        row = self._db.get(ThingRow, (project_id, key.kind, key.owner, key.id))
        item = ChangeItemRow(kind=key.kind, owner=key.owner, id=key.id, before=row.document if row else None,
                             position_before=row.position if row and row.document else None, after=put.text,
                             position_after=None if put.text is None else put.position)  # fmt: skip
        if row is None:
            row = ThingRow(project_id=project_id, kind=key.kind, owner=key.owner, id=key.id)
            self._db.add(row)
        if put.text is not None or row.position is None:
            row.position = self._last(project_id, key) + 1 if put.position is None else put.position
        row.revision, row.document, row.digest = revision, put.text, _digest(put.text)
        return item

    def _last(self, project_id: str, key: Key) -> float:
        here = (ThingRow.project_id == project_id) & (ThingRow.kind == key.kind) & (ThingRow.owner == key.owner)
        return self._db.scalar(select(func.max(ThingRow.position)).where(here)) or 0.0


def _digest(text: str | None) -> str:
    return "" if text is None else hashlib.sha256(text.encode()).hexdigest()


def _row_of(project_id: str, put: Put) -> ThingRow:
    """A thing of a new project."""
    key = put.key
    return ThingRow(project_id=project_id, kind=key.kind, owner=key.owner, id=key.id, position=put.position, revision=1,
                    document=put.text, digest=_digest(put.text))  # fmt: skip


def _put(item: ChangeItem) -> Put:
    """An item as text, which gives the same value when it is read again.

    Raises
    ------
    NotKept
        If it does not: a document has lost a field on the way.
    """
    if item.value is None:
        return Put(item.key, None, item.position)
    text = KINDS[item.key.kind].to_json(item.value)
    if read_thing(item.key.kind, text) != item.value:
        raise NotKept(str(item.key))
    return Put(item.key, text, item.position)


def _moved(slots: Mapping[Key, Slot], puts: Iterable[Put], revision: int) -> dict[Key, Slot]:
    found = dict(slots)
    for put in puts:
        if put.text is None:
            found.pop(put.key, None)
        else:
            found[put.key] = Slot(put.position or 0.0, revision)
    return found
