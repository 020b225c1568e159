"""Projects, buildings, assemblies and the change log."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None

TEXT, INTEGER, REAL = sa.String(), sa.Integer(), sa.Float()


def _need(name: str, kind: sa.types.TypeEngine[Any], *, primary_key: bool = False) -> sa.Column[Any]:
    return sa.Column(name, kind, nullable=False, primary_key=primary_key)


def upgrade() -> None:
    op.create_table(
        "project",
        _need("id", TEXT, primary_key=True),
        *(_need(name, TEXT) for name in ("name", "basis", "created_at", "changed_at")),
        _need("version", INTEGER),
        _need("revision", INTEGER),
        sa.Column("deleted_at", TEXT),
    )
    op.create_table(
        "building",
        _need("project_id", TEXT, primary_key=True),
        _need("id", TEXT, primary_key=True),
        _need("position", INTEGER),
        _need("version", INTEGER),
        _need("name", TEXT),
        _need("use", TEXT),
        sa.Column("asked_H", REAL),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
    )
    op.create_table(
        "shell_element",
        _need("row", INTEGER, primary_key=True),
        *(_need(name, TEXT) for name in ("project_id", "building_id", "id", "station", "name", "origin")),
        _need("position", INTEGER),
        _need("area", REAL),
        sa.Column("assembly_id", TEXT),
        sa.Column("U_entered", REAL),
        sa.ForeignKeyConstraint(
            ["project_id", "building_id"], ["building.project_id", "building.id"], ondelete="CASCADE"
        ),
        sa.CheckConstraint("area > 0", name="area_positive"),
        sa.CheckConstraint("station BETWEEN 'A' AND 'H'", name="station_known"),
    )
    op.create_table(
        "assembly",
        _need("project_id", TEXT, primary_key=True),
        _need("id", TEXT, primary_key=True),
        _need("position", INTEGER),
        _need("version", INTEGER),
        *(_need(name, TEXT) for name in ("name", "system", "note")),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
    )
    op.create_table(
        "layer",
        _need("row", INTEGER, primary_key=True),
        *(_need(name, TEXT) for name in ("project_id", "assembly_id", "id", "material")),
        _need("position", INTEGER),
        _need("d", REAL),
        sa.Column("lambda", REAL),
        sa.Column("ventilation", TEXT),
        sa.Column("A_v", REAL),
        _need("studied", sa.Boolean()),
        sa.ForeignKeyConstraint(
            ["project_id", "assembly_id"], ["assembly.project_id", "assembly.id"], ondelete="CASCADE"
        ),
        sa.CheckConstraint("d > 0", name="d_positive"),
        sa.CheckConstraint("(material = '') = (ventilation IS NOT NULL)", name="material_or_air"),
    )
    op.create_table(
        "member",
        _need("row", INTEGER, primary_key=True),
        _need("layer_row", INTEGER),
        _need("position", INTEGER),
        *(_need(name, TEXT) for name in ("name", "material", "run")),
        *(sa.Column(name, REAL) for name in ("share", "width", "centres")),
        sa.ForeignKeyConstraint(["layer_row"], ["layer.row"], ondelete="CASCADE"),
    )
    op.create_table(
        "change",
        _need("row", INTEGER, primary_key=True),
        _need("project_id", TEXT),
        _need("number", INTEGER),
        *(_need(name, TEXT) for name in ("at", "who", "zone", "text", "state")),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.UniqueConstraint("project_id", "number"),
        sa.CheckConstraint("state IN ('done', 'undone', 'dropped')", name="state_known"),
    )
    op.create_index("change_by_state", "change", ["project_id", "state", "number"])
    op.create_table(
        "change_piece",
        _need("row", INTEGER, primary_key=True),
        _need("change_row", INTEGER),
        _need("position", INTEGER),
        _need("kind", TEXT),
        _need("target", TEXT),
        sa.Column("before", TEXT),
        sa.Column("after", TEXT),
        sa.ForeignKeyConstraint(["change_row"], ["change.row"], ondelete="CASCADE"),
    )
    for table, columns in (
        ("shell_element", ["project_id", "building_id"]),
        ("layer", ["project_id", "assembly_id"]),
        ("member", ["layer_row"]),
        ("change_piece", ["change_row"]),
    ):
        op.create_index(f"{table}_by_owner", table, columns)
