"""The practice's own sets of targets, every version kept."""

from __future__ import annotations

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nimble_shell.core.basis.targets import Targets, TargetSet
from nimble_shell.formats.project import TargetsDoc
from nimble_shell.store.errors import NotFound
from nimble_shell.store.rows import TargetSetRow


class TargetSetRepository:
    """Reads and writes sets of targets inside one session."""

    def __init__(self, session: Session) -> None:
        self._db = session

    def all(self) -> list[TargetSet]:
        """The newest version of each that is still offered, by name."""
        newest: dict[str, TargetSetRow] = {}
        for row in self._db.scalars(select(TargetSetRow).order_by(TargetSetRow.name, TargetSetRow.version)):
            newest[row.name] = row
        return [
            TargetSet(row.name, TargetsDoc.model_validate_json(row.document).to_core())
            for row in newest.values()
            if row.withdrawn_at is None
        ]

    def add(self, name: str, targets: Targets, at: str) -> None:
        """A new set, or a next version of the one of that name."""
        last = self._db.scalar(select(func.max(TargetSetRow.version)).where(TargetSetRow.name == name)) or 0
        document = TargetsDoc.from_core(targets).model_dump_json(by_alias=True)
        self._db.add(TargetSetRow(name=name, version=last + 1, document=document, saved_at=at, withdrawn_at=None))

    def withdraw(self, name: str, at: str) -> None:
        """No longer offer a set; projects that took it keep their targets. Raises NotFound."""
        rows = self._db.scalars(select(TargetSetRow).where(TargetSetRow.name == name)).all()
        if not rows:
            raise NotFound("set of targets", name)
        for row in rows:
            row.withdrawn_at = at
