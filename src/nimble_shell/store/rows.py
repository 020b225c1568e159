"""Rows and what they mean to the core."""

from __future__ import annotations

from sqlalchemy import CheckConstraint, ForeignKeyConstraint, Index, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer, Member
from nimble_shell.core.shell.project import Building, ShellElement


class Base(DeclarativeBase):
    """All tables."""


class ProjectRow(Base):
    """A project; its Basis is one JSON document, for it is only ever read and written whole."""

    __tablename__ = "project"
    id: Mapped[str] = mapped_column(primary_key=True)
    name: Mapped[str]
    basis: Mapped[str]  # JSON, as in the project file
    version: Mapped[int]  # of name and basis
    revision: Mapped[int]  # counts every change of the project; versions are taken from it
    created_at: Mapped[str]
    changed_at: Mapped[str]
    deleted_at: Mapped[str | None]


class BuildingRow(Base):
    __tablename__ = "building"
    __table_args__ = (ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),)
    project_id: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    version: Mapped[int]
    name: Mapped[str]
    use: Mapped[str]
    asked_H: Mapped[float | None]  # [W/K]
    elements: Mapped[list[ElementRow]] = relationship(order_by="ElementRow.position", cascade="all, delete-orphan")

    def to_core(self) -> Building:
        elements = tuple(row.to_core() for row in self.elements)
        return Building(id=self.id, name=self.name, use=self.use, elements=elements, asked_H=self.asked_H)

    def take(self, building: Building) -> None:
        self.name, self.use, self.asked_H = building.name, building.use, building.asked_H
        self.elements = [ElementRow.from_core(element, at) for at, element in enumerate(building.elements)]


class ElementRow(Base):
    __tablename__ = "shell_element"
    __table_args__ = (
        ForeignKeyConstraint(["project_id", "building_id"], ["building.project_id", "building.id"], ondelete="CASCADE"),
        CheckConstraint("area > 0", name="area_positive"),
        CheckConstraint("station BETWEEN 'A' AND 'H'", name="station_known"),
    )
    row: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[str]
    building_id: Mapped[str]
    id: Mapped[str]
    position: Mapped[int]
    station: Mapped[str]
    name: Mapped[str]
    area: Mapped[float]  # [m²]
    assembly_id: Mapped[str | None]
    U_entered: Mapped[float | None]  # [W/(m²·K)]
    origin: Mapped[str]

    def to_core(self) -> ShellElement:
        return ShellElement(
            id=self.id, station=self.station, name=self.name, area=self.area, assembly_id=self.assembly_id,  # type: ignore[arg-type]
            U_entered=self.U_entered, origin=self.origin,
        )  # fmt: skip

    @classmethod
    def from_core(cls, element: ShellElement, position: int) -> ElementRow:
        return cls(
            id=element.id, position=position, station=element.station, name=element.name, area=element.area,
            assembly_id=element.assembly_id, U_entered=element.U_entered, origin=element.origin,
        )  # fmt: skip


class AssemblyRow(Base):
    __tablename__ = "assembly"
    __table_args__ = (ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),)
    project_id: Mapped[str] = mapped_column(primary_key=True)
    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int]
    version: Mapped[int]
    name: Mapped[str]
    system: Mapped[str]
    note: Mapped[str]
    layers: Mapped[list[LayerRow]] = relationship(order_by="LayerRow.position", cascade="all, delete-orphan")

    def to_core(self) -> Assembly:
        layers = tuple(row.to_core() for row in self.layers)
        return Assembly(id=self.id, name=self.name, system=self.system, layers=layers, note=self.note)

    def take(self, assembly: Assembly) -> None:
        self.name, self.system, self.note = assembly.name, assembly.system, assembly.note
        self.layers = [LayerRow.from_core(layer, at) for at, layer in enumerate(assembly.layers)]


class LayerRow(Base):
    __tablename__ = "layer"
    __table_args__ = (
        ForeignKeyConstraint(["project_id", "assembly_id"], ["assembly.project_id", "assembly.id"], ondelete="CASCADE"),
        CheckConstraint("d > 0", name="d_positive"),
        CheckConstraint("(material = '') = (ventilation IS NOT NULL)", name="material_or_air"),
    )
    row: Mapped[int] = mapped_column(primary_key=True)
    project_id: Mapped[str]
    assembly_id: Mapped[str]
    id: Mapped[str]
    position: Mapped[int]  # 0 is the innermost layer
    material: Mapped[str]
    d: Mapped[float]  # [m]
    lambda_: Mapped[float | None] = mapped_column("lambda")  # entered, [W/(m·K)]
    ventilation: Mapped[str | None]
    A_v: Mapped[float | None]  # [m²/m]
    studied: Mapped[bool]
    members: Mapped[list[MemberRow]] = relationship(order_by="MemberRow.position", cascade="all, delete-orphan")

    def to_core(self) -> Layer:
        air = None
        if self.ventilation is not None and self.A_v is not None:
            air = AirGap(ventilation=self.ventilation, A_v=self.A_v)  # type: ignore[arg-type]
        return Layer(
            id=self.id, material=self.material, d=self.d, lambda_entered=self.lambda_, air=air,
            members=tuple(row.to_core() for row in self.members), studied=self.studied,
        )  # fmt: skip

    @classmethod
    def from_core(cls, layer: Layer, position: int) -> LayerRow:
        return cls(
            id=layer.id, position=position, material=layer.material, d=layer.d, lambda_=layer.lambda_entered,
            ventilation=layer.air and layer.air.ventilation, A_v=layer.air and layer.air.A_v, studied=layer.studied,
            members=[MemberRow.from_core(member, at) for at, member in enumerate(layer.members)],
        )  # fmt: skip


class MemberRow(Base):
    __tablename__ = "member"
    __table_args__ = (ForeignKeyConstraint(["layer_row"], ["layer.row"], ondelete="CASCADE"),)
    row: Mapped[int] = mapped_column(primary_key=True)
    layer_row: Mapped[int]
    position: Mapped[int]
    name: Mapped[str]
    material: Mapped[str]
    run: Mapped[str]
    share: Mapped[float | None]
    width: Mapped[float | None]  # [m]
    centres: Mapped[float | None]  # [m]

    def to_core(self) -> Member:
        return Member(
            name=self.name, material=self.material, run=self.run, share=self.share, width=self.width,  # type: ignore[arg-type]
            centres=self.centres,
        )  # fmt: skip

    @classmethod
    def from_core(cls, member: Member, position: int) -> MemberRow:
        return cls(
            position=position, name=member.name, material=member.material, run=member.run, share=member.share,
            width=member.width, centres=member.centres,
        )  # fmt: skip


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
