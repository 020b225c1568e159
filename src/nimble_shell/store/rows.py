"""The tables. Things that are only ever read and written whole are JSON documents, the same as in project files."""

from __future__ import annotations

from sqlalchemy import CheckConstraint, ForeignKeyConstraint, Index, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    """All tables."""


class ProjectRow(Base):
    """A project; what it holds are its things."""

    __tablename__ = "project"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]  # as its heading has it, for the list
    revision: Mapped[int]  # counts every change of the project; revisions of things are taken from it
    created_at: Mapped[str]
    changed_at: Mapped[str]
    deleted_at: Mapped[str | None]


class ThingRow(Base):
    """A thing of a project as its JSON document: read, written, logged and locked on its own.

    The row of a removed thing stays: other windows learn from it that it is gone, and undo where it stood.
    """

    __tablename__ = "thing"
    __table_args__ = (ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),)
    project_id: Mapped[str] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(primary_key=True)  # of formats.things.KINDS
    owner: Mapped[str] = mapped_column(primary_key=True)  # id of the thing that holds it; empty for the project
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[float]  # among those of one kind and owner
    revision: Mapped[int]  # of the project, when it was written last
    digest: Mapped[str]  # of the document
    document: Mapped[str | None]  # JSON, as in the project file, without the things it holds; NULL once it is removed


class Version(Base):
    """A version of what the practice keeps; the newest is the one offered. Withdrawn ones stay for who uses them."""

    __abstract__ = True

    id: Mapped[str] = mapped_column(primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[str]  # JSON, as in a file of standards
    saved_at: Mapped[str]
    withdrawn_at: Mapped[str | None]


class StandardRow(Version):
    """A version of a practice standard of a build-up."""

    __tablename__ = "standard"


class JointStandardRow(Version):
    """A version of a practice standard of a joint."""

    __tablename__ = "joint_standard"


class TargetSetRow(Base):
    """One version of a set of targets of the practice; the newest is the one offered."""

    __tablename__ = "target_set"
    name: Mapped[str] = mapped_column(primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[str]  # JSON, as in the project file
    saved_at: Mapped[str]
    withdrawn_at: Mapped[str | None]


class ChangeRow(Base):
    """One undoable step. `state`: done, undone, or dropped when a new edit took the place of what was undone."""

    __tablename__ = "change"
    __table_args__ = (
        ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        UniqueConstraint("project_id", "number"),
        CheckConstraint("state IN ('done', 'undone', 'dropped')", name="state_known"),
        Index("change_by_state", "project_id", "state", "number"),
    )
    row: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[str]
    number: Mapped[int]
    at: Mapped[str]
    actor: Mapped[str]  # id of who did it, and who may take it back
    who: Mapped[str]  # as the log shows it
    zone: Mapped[str]
    text: Mapped[str]
    state: Mapped[str]
    items: Mapped[list[ChangeItemRow]] = relationship(order_by="ChangeItemRow.row", cascade="all, delete-orphan")


class ChangeItemRow(Base):
    """What a change did to one thing: document and position before and after; NULL where it was not there."""

    __tablename__ = "change_item"
    __table_args__ = (
        ForeignKeyConstraint(["change_row"], ["change.row"], ondelete="CASCADE"),
        Index("change_item_by_change", "change_row"),
    )
    row: Mapped[int] = mapped_column(primary_key=True)
    change_row: Mapped[int]
    kind: Mapped[str]
    owner: Mapped[str]
    id: Mapped[str]
    before: Mapped[str | None]
    after: Mapped[str | None]
    position_before: Mapped[float | None]
    position_after: Mapped[float | None]


class AnswerRow(Base):
    """An answer that took long, by what was asked; it can be solved again, so the oldest may go."""

    __tablename__ = "answer"
    key: Mapped[str] = mapped_column(primary_key=True)
    kind: Mapped[str]
    body: Mapped[bytes]
    figures: Mapped[bytes | None]  #: of it, where it has more than figures
    asked_at: Mapped[str]
