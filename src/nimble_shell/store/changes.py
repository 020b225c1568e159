"""The change log: what was done to which things, by whom, and how it is taken back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from sqlalchemy import select, update
from sqlalchemy.orm import Session

from nimble_shell.formats.things import Key, read_thing
from nimble_shell.store.errors import Crossed, NotFound, Stale
from nimble_shell.store.rows import ChangeItemRow, ChangeRow, ThingRow

Direction = Literal["undo", "redo"]


@dataclass(frozen=True, slots=True)
class Actor:
    """Who edits: undo and redo walk what one actor did."""

    id: str
    name: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Change:
    """One entry of the change log."""

    number: int
    at: str
    who: str
    zone: str
    text: str
    state: str


@dataclass(frozen=True, slots=True)
class Put:
    """A thing as text: what is written into its row; None takes it away."""

    key: Key
    text: str | None
    position: float | None


class ChangeLog:
    """The log of one project, inside one session."""

    def __init__(self, session: Session, project_id: str) -> None:
        self._db, self._project = session, project_id

    def record(
        self, number: int, items: Sequence[ChangeItemRow], *, actor: Actor, text: str, zone: str, at: str
    ) -> None:  # fmt: skip
        """A change that was done; what the actor had undone can no longer be done again."""
        undone = (ChangeRow.project_id == self._project) & (ChangeRow.state == "undone") & (ChangeRow.actor == actor.id)
        self._db.execute(update(ChangeRow).where(undone).values(state="dropped"))
        self._db.add(
            ChangeRow(project_id=self._project, number=number, at=at, actor=actor.id, who=actor.name, zone=zone,
                      text=text, state="done", items=list(items))
        )  # fmt: skip

    def next(self, actor: Actor, direction: Direction) -> Change | None:
        """What the actor would take back, or do again."""
        row = self._next(actor, direction)
        return None if row is None else _change(row)

    def newest(self) -> ChangeRow | None:
        """The newest change that is done, by whoever did it."""
        here = (ChangeRow.project_id == self._project) & (ChangeRow.state == "done")
        return self._db.scalars(select(ChangeRow).where(here).order_by(ChangeRow.number.desc()).limit(1)).first()

    def all(self, limit: int) -> list[Change]:
        """The log, newest first."""
        rows = select(ChangeRow).where(ChangeRow.project_id == self._project).order_by(ChangeRow.number.desc())
        return [_change(row) for row in self._db.scalars(rows.limit(limit))]

    def turn(self, actor: Actor, direction: Direction, number: int) -> tuple[Change, list[Put]]:
        """Mark a change undone or done again, and say what has to be written for it.

        Raises
        ------
        NotFound
            If the actor has nothing to undo or redo.
        Stale
            If the change named is not the one whose turn it is.
        Crossed
            If somebody has changed one of its things since.
        """
        row = self._next(actor, direction)
        if row is None:
            raise NotFound("change", direction)
        if row.number != number:
            raise Stale("change", direction, number, row.number)
        puts = []
        for item in row.items[::-1] if direction == "undo" else row.items:
            now, then = (item.after, item.before) if direction == "undo" else (item.before, item.after)
            key = Key(item.kind, item.owner, item.id)
            if not self._is(key, now):
                raise self._crossed(row, key)
            puts.append(Put(key, then, item.position_before if direction == "undo" else item.position_after))
        row.state = "undone" if direction == "undo" else "done"
        return _change(row), puts

    def _next(self, actor: Actor, direction: Direction) -> ChangeRow | None:
        state, order = ("done", ChangeRow.number.desc()) if direction == "undo" else ("undone", ChangeRow.number.asc())
        here = (ChangeRow.project_id == self._project) & (ChangeRow.state == state) & (ChangeRow.actor == actor.id)
        return self._db.scalars(select(ChangeRow).where(here).order_by(order).limit(1)).first()

    def _is(self, key: Key, text: str | None) -> bool:
        """Whether a thing stands as a change left it."""
        row = self._db.get(ThingRow, (self._project, key.kind, key.owner, key.id))
        found = None if row is None else row.document
        if found is None or text is None:
            return found is None and text is None
        return found == text or read_thing(key.kind, found) == read_thing(key.kind, text)

    def _crossed(self, row: ChangeRow, key: Key) -> Crossed:
        later = (
            select(ChangeRow)
            .join(ChangeItemRow, ChangeItemRow.change_row == ChangeRow.row)
            .where(ChangeRow.project_id == self._project, ChangeRow.number > row.number, ChangeRow.state == "done",
                   ChangeItemRow.kind == key.kind, ChangeItemRow.owner == key.owner, ChangeItemRow.id == key.id)
            .order_by(ChangeRow.number.desc())
        )  # fmt: skip
        newer = self._db.scalars(later).first()
        return Crossed(row.text, key.kind, newer.who if newer else "", newer.text if newer else "")


def _change(row: ChangeRow) -> Change:
    return Change(number=row.number, at=row.at, who=row.who, zone=row.zone, text=row.text, state=row.state)
