"""Projects as the core knows them, with the change log that makes every step undoable."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Literal

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.materials import Material
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.formats.project import AssemblyDoc, BasisDoc, BuildingDoc, MaterialDoc
from nimble_shell.store.errors import NotFound, Stale
from nimble_shell.store.rows import AssemblyRow, BuildingRow, ChangeRow, PieceRow, ProjectRow

Kind = Literal["basis", "building", "assembly"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Heading:
    """What a project is called and rests on: the thing that the kind "basis" stands for."""

    name: str
    basis: Basis
    materials: tuple[Material, ...] = ()


Thing = Heading | Building | Assembly


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """A thing to be put in place, or taken away where `value` is None."""

    kind: Kind
    target: str
    value: Thing | None
    expect: int | None = None  #: version the editor read; None for a thing that is new


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """One entry of the change log."""

    number: int
    at: str
    who: str
    zone: str
    text: str
    state: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Stored:
    """A project as it stands, with the versions an editor has to name."""

    project: Project
    versions: dict[str, int]  #: "basis", "building/ID", "assembly/ID"
    revision: int
    undo: Change | None
    redo: Change | None
    changed_at: str


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
    """Reads and writes whole things of a project inside one session."""

    def __init__(self, session: Session) -> None:
        self._db = session

    def all(self) -> list[Listed]:
        """Every project, deleted ones included, newest change first."""
        rows = self._db.scalars(select(ProjectRow).order_by(ProjectRow.changed_at.desc())).all()
        return [
            Listed(id=row.id, name=row.name, buildings=self._count(BuildingRow, row.id),
                   assemblies=self._count(AssemblyRow, row.id), changed_at=row.changed_at,
                   deleted=row.deleted_at is not None)
            for row in rows
        ]  # fmt: skip

    def exists(self, project_id: str) -> bool:
        return self._db.get(ProjectRow, project_id) is not None

    def revision(self, project_id: str) -> int:
        """What counts every change of a project. Raises NotFound."""
        return self._row(project_id).revision

    def get(self, project_id: str) -> Stored:
        """The project as it stands. Raises NotFound."""
        row = self._row(project_id)
        heading = self._heading(row)
        buildings = self._db.scalars(
            select(BuildingRow).where(BuildingRow.project_id == project_id).order_by(BuildingRow.position)
        ).all()  # fmt: skip
        assemblies = self._db.scalars(
            select(AssemblyRow).where(AssemblyRow.project_id == project_id).order_by(AssemblyRow.position)
        ).all()  # fmt: skip
        versions = {"basis": row.version}
        versions |= {f"building/{b.id}": b.version for b in buildings}
        versions |= {f"assembly/{a.id}": a.version for a in assemblies}
        project = Project(
            id=row.id, name=heading.name, basis=heading.basis, materials=heading.materials,
            buildings=tuple(_from_json("building", b.document) for b in buildings),
            assemblies=tuple(_from_json("assembly", a.document) for a in assemblies),
        )  # fmt: skip
        return Stored(project=project, versions=versions, revision=row.revision, undo=self._next(project_id, "done"),
                      redo=self._next(project_id, "undone"), changed_at=row.changed_at)  # fmt: skip

    def add(self, project: Project, at: str) -> None:
        """A new project, whole; nothing to undo before it."""
        self._db.add(
            ProjectRow(id=project.id, name=project.name, basis=_basis_json(project.basis), version=1, revision=1,
                       materials=_materials_json(project.materials), created_at=at, changed_at=at, deleted_at=None)
        )  # fmt: skip
        self._db.flush()
        for building in project.buildings:
            self._put(project.id, "building", building.id, building, 1)
        for assembly in project.assemblies:
            self._put(project.id, "assembly", assembly.id, assembly, 1)

    def set_deleted(self, project_id: str, at: str | None) -> None:
        """Move a project to the bin, or bring it back (`at` None). Raises NotFound."""
        row = self._db.get(ProjectRow, project_id)
        if row is None:
            raise NotFound("project", project_id)
        row.deleted_at = at

    def apply(self, project_id: str, pieces: Sequence[Piece], *, text: str, zone: str, who: str, at: str) -> None:
        """Put pieces in place as one undoable change.

        Raises
        ------
        NotFound
            If the project or a thing to be changed is not there.
        Stale
            If a thing was changed since the version named.
        """
        row = self._row(project_id)
        row.revision += 1
        row.changed_at = at
        written: list[PieceRow] = []
        for position, piece in enumerate(pieces):
            before = self._json(project_id, piece.kind, piece.target)
            self._expect(project_id, piece, exists=before is not None)
            self._put(project_id, piece.kind, piece.target, piece.value, row.revision)
            after = _to_json(piece.value)
            written.append(
                PieceRow(position=position, kind=piece.kind, target=piece.target, before=before, after=after)
            )
        undone = (ChangeRow.project_id == project_id) & (ChangeRow.state == "undone")
        self._db.execute(update(ChangeRow).where(undone).values(state="dropped"))
        self._db.add(
            ChangeRow(project_id=project_id, number=row.revision, at=at, who=who, zone=zone, text=text, state="done",
                      pieces=written)
        )  # fmt: skip

    def step(self, project_id: str, direction: Literal["undo", "redo"], number: int, at: str) -> Change:
        """Take back the newest change, or do the last undone one again.

        Raises
        ------
        NotFound
            If there is nothing to undo or redo.
        Stale
            If the change named is not the one whose turn it is.
        """
        row = self._row(project_id)
        change = self._next_row(project_id, "done" if direction == "undo" else "undone")
        if change is None:
            raise NotFound("change", direction)
        if change.number != number:
            raise Stale("change", direction, number, change.number)
        row.revision += 1
        row.changed_at = at
        pieces = change.pieces[::-1] if direction == "undo" else change.pieces
        for piece in pieces:
            text = piece.before if direction == "undo" else piece.after
            value = None if text is None else _from_json(piece.kind, text)
            self._put(project_id, piece.kind, piece.target, value, row.revision)
        change.state = "undone" if direction == "undo" else "done"
        return _change(change)

    def changes(self, project_id: str, limit: int) -> list[Change]:
        """The change log, newest first. Raises NotFound."""
        self._row(project_id)
        rows = self._db.scalars(
            select(ChangeRow).where(ChangeRow.project_id == project_id).order_by(ChangeRow.number.desc()).limit(limit)
        )
        return [_change(row) for row in rows]

    def before_last(self, stored: Stored) -> Project | None:
        """The project as it was before its newest change; None if there is nothing to take back."""
        row = self._next_row(stored.project.id, "done")
        if row is None:
            return None
        project = stored.project
        for piece in reversed(row.pieces):
            value = None if piece.before is None else _from_json(piece.kind, piece.before)
            project = _with(project, piece.kind, piece.target, value)
        return project

    def _row(self, project_id: str) -> ProjectRow:
        row = self._db.get(ProjectRow, project_id)
        if row is None or row.deleted_at is not None:
            raise NotFound("project", project_id)
        return row

    def _heading(self, row: ProjectRow) -> Heading:
        return Heading(name=row.name, basis=_basis(row.basis), materials=_materials(row.materials))

    def _count(self, table: type[BuildingRow] | type[AssemblyRow], project_id: str) -> int:
        return self._db.scalar(select(func.count()).select_from(table).where(table.project_id == project_id)) or 0

    def _next_row(self, project_id: str, state: str) -> ChangeRow | None:
        newest_first = ChangeRow.number.desc() if state == "done" else ChangeRow.number.asc()
        here = (ChangeRow.project_id == project_id) & (ChangeRow.state == state)
        return self._db.scalars(select(ChangeRow).where(here).order_by(newest_first).limit(1)).first()

    def _next(self, project_id: str, state: str) -> Change | None:
        row = self._next_row(project_id, state)
        return _change(row) if row else None

    def _expect(self, project_id: str, piece: Piece, *, exists: bool) -> None:
        if piece.expect is None:
            if exists:
                raise Stale(piece.kind, piece.target, 0, self._version(project_id, piece))
            return
        if not exists:
            raise NotFound(piece.kind, piece.target)
        current = self._version(project_id, piece)
        if current != piece.expect:
            raise Stale(piece.kind, piece.target, piece.expect, current)

    def _version(self, project_id: str, piece: Piece) -> int:
        if piece.kind == "basis":
            return self._row(project_id).version
        row = self._thing(project_id, piece.kind, piece.target)
        return row.version if row else 0

    def _thing(self, project_id: str, kind: str, target: str) -> BuildingRow | AssemblyRow | None:
        if kind == "building":
            return self._db.get(BuildingRow, (project_id, target))
        return self._db.get(AssemblyRow, (project_id, target))

    def _json(self, project_id: str, kind: str, target: str) -> str | None:
        if kind == "basis":
            return _to_json(self._heading(self._row(project_id)))
        row = self._thing(project_id, kind, target)
        return row.document if row else None

    def _put(self, project_id: str, kind: str, target: str, value: Thing | None, version: int) -> None:
        if isinstance(value, Heading):
            row = self._row(project_id)
            row.name, row.basis, row.version = value.name, _basis_json(value.basis), version
            row.materials = _materials_json(value.materials)
            return
        thing = self._thing(project_id, kind, target)
        document = _to_json(value)
        if document is None:
            if thing is not None:
                self._db.delete(thing)
                self._db.flush()
            return
        if thing is None:
            table = BuildingRow if kind == "building" else AssemblyRow
            last = self._db.scalar(select(func.max(table.position)).where(table.project_id == project_id))
            thing = table(project_id=project_id, id=target, position=0 if last is None else last + 1)
            self._db.add(thing)
        thing.version, thing.document = version, document
        self._db.flush()


def _change(row: ChangeRow) -> Change:
    return Change(number=row.number, at=row.at, who=row.who, zone=row.zone, text=row.text, state=row.state)


@lru_cache(maxsize=64)
def _basis(text: str) -> Basis:
    basis: Basis = BasisDoc.model_validate_json(text).to_core()
    return basis


@lru_cache(maxsize=64)
def _materials(text: str) -> tuple[Material, ...]:
    return tuple(MaterialDoc.model_validate(one).to_core() for one in json.loads(text))


def _basis_json(basis: Basis) -> str:
    return BasisDoc.from_core(basis).model_dump_json(by_alias=True)


def _materials_json(materials: tuple[Material, ...]) -> str:
    return json.dumps([MaterialDoc.from_core(material).to_wire() for material in materials])


def _to_json(value: Thing | None) -> str | None:
    if value is None:
        return None
    if isinstance(value, Heading):
        both = {
            "basis": json.loads(_basis_json(value.basis)),
            "materials": json.loads(_materials_json(value.materials)),
        }
        return json.dumps({"name": value.name, **both})
    document = BuildingDoc.from_core(value) if isinstance(value, Building) else AssemblyDoc.from_core(value)
    return document.model_dump_json(by_alias=True)


@lru_cache(maxsize=4096)
def _from_json(kind: str, text: str) -> Any:
    """The core value of a document; the same text gives the same object, so that caches of results hit."""
    if kind == "basis":
        held = json.loads(text)
        materials = tuple(MaterialDoc.model_validate(one).to_core() for one in held.get("materials", []))
        return Heading(name=held["name"], basis=BasisDoc.model_validate(held["basis"]).to_core(), materials=materials)
    document = BuildingDoc if kind == "building" else AssemblyDoc
    return document.model_validate_json(text).to_core()


def _with(project: Project, kind: str, target: str, value: Thing | None) -> Project:
    if isinstance(value, Heading):
        return replace(project, name=value.name, basis=value.basis, materials=value.materials)
    if kind == "building":
        return replace(project, buildings=_exchanged(project.buildings, target, value))
    return replace(project, assemblies=_exchanged(project.assemblies, target, value))


def _exchanged(things: tuple[Any, ...], target: str, value: Thing | None) -> tuple[Any, ...]:
    at = next((index for index, thing in enumerate(things) if thing.id == target), len(things))
    return (*things[:at], *(() if value is None else (value,)), *things[at + 1 :])
