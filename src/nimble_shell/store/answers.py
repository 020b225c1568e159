"""Answers that took long, kept by what was asked."""

from __future__ import annotations

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from nimble_shell.store.rows import AnswerRow

MOST = 120  #: kept of each kind, the last asked


class AnswerRepository:
    """Reads and writes answers inside one session."""

    def __init__(self, session: Session) -> None:
        self._db = session

    def body(self, key: str) -> bytes | None:
        """An answer, or nothing."""
        row = self._db.get(AnswerRow, key)
        return None if row is None else row.body

    def put(self, key: str, kind: str, body: bytes, at: str) -> None:
        """Keep an answer; those asked longest ago go."""
        self._db.merge(AnswerRow(key=key, kind=kind, body=body, asked_at=at))
        self._db.flush()
        newest = select(AnswerRow.key).where(AnswerRow.kind == kind).order_by(AnswerRow.asked_at.desc()).limit(MOST)
        self._db.execute(delete(AnswerRow).where(AnswerRow.kind == kind, AnswerRow.key.not_in(newest)))
