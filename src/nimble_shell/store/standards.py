"""Practice standards, every version kept."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.shell.standard import Standard
from nimble_shell.formats.project import AssemblyDoc
from nimble_shell.formats.standards import StandardDoc
from nimble_shell.store.errors import NotFound
from nimble_shell.store.rows import AssemblyRow, ProjectRow, StandardRow


@dataclass(frozen=True, slots=True, kw_only=True)
class Kept:
    """The newest version of a standard, and whether it is still offered."""

    standard: Standard
    saved_at: str
    withdrawn: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Use:
    """A build-up that was taken from a standard."""

    project_id: str
    project: str
    assembly_id: str
    assembly: str
    version: int


class StandardRepository:
    """Reads and writes standards inside one session."""

    def __init__(self, session: Session) -> None:
        self._db = session

    def all(self) -> list[Kept]:
        """The newest version of each, withdrawn ones included, by name."""
        newest: dict[str, StandardRow] = {}
        for row in self._db.scalars(select(StandardRow).order_by(StandardRow.version)):
            newest[row.id] = row
        return sorted((_kept(row) for row in newest.values()), key=lambda kept: kept.standard.assembly.name)

    def newest(self, standard_id: str) -> Kept:
        """Raises NotFound."""
        found = select(StandardRow).where(StandardRow.id == standard_id).order_by(StandardRow.version.desc())
        row = self._db.scalars(found.limit(1)).first()
        if row is None:
            raise NotFound("standard", standard_id)
        return _kept(row)

    def add(self, standard: Standard, at: str) -> None:
        """A new version; the newest again if it was withdrawn."""
        document = StandardDoc.from_core(standard).model_dump_json(by_alias=True)
        self._db.add(
            StandardRow(id=standard.id, version=standard.version, document=document, saved_at=at, withdrawn_at=None)
        )

    def withdraw(self, standard_id: str, at: str | None) -> None:
        """No longer offer a standard, or offer it again (`at` None); what uses it keeps it. Raises NotFound."""
        rows = self._db.scalars(select(StandardRow).where(StandardRow.id == standard_id)).all()
        if not rows:
            raise NotFound("standard", standard_id)
        for row in rows:
            row.withdrawn_at = at

    def uses(self) -> dict[str, list[Use]]:
        """Where standards are used, by standard."""
        found: dict[str, list[Use]] = {}
        rows = select(AssemblyRow, ProjectRow.name).join(ProjectRow, ProjectRow.id == AssemblyRow.project_id)
        for row, project in self._db.execute(rows.where(ProjectRow.deleted_at.is_(None))):
            assembly: Assembly = AssemblyDoc.model_validate_json(row.document).to_core()
            if assembly.standard is not None:
                use = Use(project_id=row.project_id, project=project, assembly_id=assembly.id, assembly=assembly.name,
                          version=assembly.standard.version)  # fmt: skip
                found.setdefault(assembly.standard.id, []).append(use)
        return found


def _kept(row: StandardRow) -> Kept:
    standard: Standard = StandardDoc.model_validate_json(row.document).to_core()
    return Kept(standard=standard, saved_at=row.saved_at, withdrawn=row.withdrawn_at is not None)
