"""Answers that took long, kept by what was asked, up to so many bytes."""

from __future__ import annotations

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from nimble_shell.store.rows import AnswerRow

MOST = 96 * 1024**2  #: of all answers together [bytes]
_ROOM = 0.9  #: where they are more, as many go as leave this share


class AnswerRepository:
    """Reads and writes answers inside one session."""

    def __init__(self, session: Session) -> None:
        self._db = session

    def body(self, key: str) -> bytes | None:
        """An answer, or nothing."""
        return self._db.scalar(select(AnswerRow.body).where(AnswerRow.key == key))

    def figures(self, key: str) -> bytes | None:
        """Figures of an answer, or the answer itself where it has nothing more; or nothing."""
        figures = func.coalesce(AnswerRow.figures, AnswerRow.body)
        return self._db.scalar(select(figures).where(AnswerRow.key == key))

    def put(self, key: str, kind: str, body: bytes, at: str, figures: bytes | None = None, most: int = MOST) -> None:
        """Keep an answer; those asked longest ago go once there are too many bytes."""
        self._db.merge(AnswerRow(key=key, kind=kind, body=body, figures=figures, asked_at=at))
        self._db.flush()
        size = func.length(AnswerRow.body)
        if (self._db.scalar(select(func.sum(size))) or 0) <= most:
            return
        left, kept = _ROOM * most, []
        for one, length in self._db.execute(select(AnswerRow.key, size).order_by(AnswerRow.asked_at.desc())):
            left -= length
            if left < 0 and one != key:
                break
            kept.append(one)
        self._db.execute(delete(AnswerRow).where(AnswerRow.key.not_in(kept)))
