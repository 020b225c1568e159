"""Practice standards of build-ups and of joints, every version kept."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.shell.standard import JointStandard, Standard
from nimble_shell.formats.standards import JointStandardDoc, StandardDoc
from nimble_shell.formats.things import read_thing
from nimble_shell.store.errors import NotFound
from nimble_shell.store.rows import JointStandardRow, ProjectRow, StandardRow, ThingRow, Version

S = TypeVar("S", Standard, JointStandard)


@dataclass(frozen=True, slots=True, kw_only=True)
class Kept(Generic[S]):
    """The newest version of a standard, and whether it is still offered."""

    standard: S
    saved_at: str
    withdrawn: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Use:
    """A build-up or a joint that was taken from a standard; a joint is known by its building's id and its own."""

    project_id: str
    project: str
    id: str
    name: str
    version: int


class StandardVersions(Generic[S]):
    """Reads and writes versions inside one session."""

    row: type[Version]
    document: type[StandardDoc] | type[JointStandardDoc]
    kind: str  #: of thing that is taken from one

    def __init__(self, session: Session) -> None:
        self._db = session

    def all(self) -> list[Kept[S]]:
        """The newest version of each, withdrawn ones included, by name."""
        newest: dict[str, Version] = {}
        for row in self._db.scalars(select(self.row).order_by(self.row.version)):
            newest[row.id] = row
        return sorted((self._kept(row) for row in newest.values()), key=lambda kept: kept.standard.name)

    def newest(self, standard_id: str) -> Kept[S]:
        """Raises NotFound."""
        found = select(self.row).where(self.row.id == standard_id).order_by(self.row.version.desc())
        row = self._db.scalars(found.limit(1)).first()
        if row is None:
            raise NotFound("standard", standard_id)
        return self._kept(row)

    def add(self, standard: S, at: str) -> None:
        """A new version; the newest again if it was withdrawn."""
        document = self.document.from_core(standard).model_dump_json(by_alias=True)
        self._db.add(
            self.row(id=standard.id, version=standard.version, document=document, saved_at=at, withdrawn_at=None)
        )

    def withdraw(self, standard_id: str, at: str | None) -> None:
        """No longer offer a standard, or offer it again (`at` None); what uses it keeps it. Raises NotFound."""
        rows = self._db.scalars(select(self.row).where(self.row.id == standard_id)).all()
        if not rows:
            raise NotFound("standard", standard_id)
        for row in rows:
            row.withdrawn_at = at

    def uses(self) -> dict[str, list[Use]]:
        """Where standards are used, by standard."""
        return _uses(self._db, self.kind)

    def _kept(self, row: Version) -> Kept[S]:
        standard: S = self.document.model_validate_json(row.document).to_core()
        return Kept(standard=standard, saved_at=row.saved_at, withdrawn=row.withdrawn_at is not None)


class StandardRepository(StandardVersions[Standard]):
    """Standards of build-ups."""

    row = StandardRow
    document = StandardDoc
    kind = "assembly"


class JointStandardRepository(StandardVersions[JointStandard]):
    """Standards of joints."""

    row = JointStandardRow
    document = JointStandardDoc
    kind = "joint"


def _uses(session: Session, kind: str) -> dict[str, list[Use]]:
    found: dict[str, list[Use]] = {}
    rows = (
        select(ThingRow, ProjectRow.name)
        .join(ProjectRow, ProjectRow.id == ThingRow.project_id)
        .where(ProjectRow.deleted_at.is_(None), ThingRow.kind == kind, ThingRow.document.is_not(None))
        .order_by(ThingRow.project_id, ThingRow.owner, ThingRow.position)
    )
    for row, project in session.execute(rows):
        thing: Assembly | ShellJoint = read_thing(kind, row.document or "")
        if thing.standard is None:
            continue
        owner = session.get(ThingRow, (row.project_id, "building", "", row.owner)) if row.owner else None
        building = owner and owner.document and read_thing("building", owner.document).name
        use = Use(
            project_id=row.project_id,
            project=project,
            id=f"{row.owner}/{thing.id}" if row.owner else thing.id,
            name=f"{building}, {thing.name}" if building else thing.name,
            version=thing.standard.version,
        )
        found.setdefault(thing.standard.id, []).append(use)
    return found
