"""The tables. Things that are only ever read and written whole are JSON documents, the same as in project files."""

from __future__ import annotations

from sqlalchemy import CheckConstraint, ForeignKeyConstraint, Index, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    """All tables."""


class ProjectRow(Base):
    """A project; its Basis is one JSON document, for it is only ever read and written whole."""

    __tablename__ = "project"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    basis: Mapped[str]  # JSON, as in the project file
    materials: Mapped[str]  # JSON list, as in the project file
    version: Mapped[int]  # of name, basis and materials
    revision: Mapped[int]  # counts every change of the project; versions are taken from it
    created_at: Mapped[str]
    changed_at: Mapped[str]
    deleted_at: Mapped[str | None]


class BuildingRow(Base):
    """A building as its JSON document: it is only ever read and written whole."""

    __tablename__ = "building"
    __table_args__ = (ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),)
    project_id: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    version: Mapped[int]
    document: Mapped[str]  # JSON, as in the project file


class AssemblyRow(Base):
    """A build-up as its JSON document."""

    __tablename__ = "assembly"
    __table_args__ = (ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),)
    project_id: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    version: Mapped[int]
    document: Mapped[str]  # JSON, as in the project file


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
    who: Mapped[str]
    zone: Mapped[str]
    text: Mapped[str]
    state: Mapped[str]
    pieces: Mapped[list[PieceRow]] = relationship(order_by="PieceRow.position", cascade="all, delete-orphan")


class PieceRow(Base):
    """What a change did to one thing: its JSON before and after; NULL where it was not there."""

    __tablename__ = "change_piece"
    __table_args__ = (ForeignKeyConstraint(["change_row"], ["change.row"], ondelete="CASCADE"),)
    row: Mapped[int] = mapped_column(primary_key=True)
    change_row: Mapped[int]
    position: Mapped[int]
    kind: Mapped[str]  # basis, building or assembly
    target: Mapped[str]
    before: Mapped[str | None]
    after: Mapped[str | None]


class AnswerRow(Base):
    """An answer that took long, by what was asked; it can be solved again, so the oldest may go."""

    __tablename__ = "answer"
    key: Mapped[str] = mapped_column(primary_key=True)
    kind: Mapped[str]
    body: Mapped[bytes]
    asked_at: Mapped[str]
