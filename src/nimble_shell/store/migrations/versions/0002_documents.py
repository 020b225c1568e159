"""Buildings and build-ups become documents; own materials and practice standards come in."""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"

_LAYERS = """SELECT * FROM layer WHERE project_id = :project_id AND assembly_id = :id ORDER BY position"""
_MEMBERS = """SELECT * FROM member WHERE layer_row = :row ORDER BY position"""
_ELEMENTS = """SELECT * FROM shell_element WHERE project_id = :project_id AND building_id = :id ORDER BY position"""


def _rows(statement: str, **values: Any) -> list[Any]:
    return list(op.get_bind().execute(sa.text(statement), values).mappings())


def _layer(row: Any) -> dict[str, Any]:
    air = None if row["ventilation"] is None else {"ventilation": row["ventilation"], "A_v": row["A_v"]}
    members = [
        {key: member[key] for key in ("name", "material", "run", "share", "width", "centres")}
        for member in _rows(_MEMBERS, row=row["row"])
    ]
    return {
        **{key: row[key] for key in ("id", "material", "d", "lambda")},
        "air": air,
        "members": members,
        "studied": bool(row["studied"]),
    }


def _documents(table: str) -> list[tuple[str, str, str]]:
    found = []
    for row in _rows(f"SELECT * FROM {table}"):
        where = {"project_id": row["project_id"], "id": row["id"]}
        if table == "assembly":
            document = {key: row[key] for key in ("id", "name", "system", "note")}
            document["layers"] = [_layer(layer) for layer in _rows(_LAYERS, **where)]
        else:
            document = {key: row[key] for key in ("id", "name", "use", "asked_H")}
            document["elements"] = [
                {
                    **{key: element[key] for key in ("id", "station", "name", "area", "assembly_id", "origin")},
                    "U": element["U_entered"],
                }
                for element in _rows(_ELEMENTS, **where)
            ]
        found.append((row["project_id"], row["id"], json.dumps(document)))
    return found


def upgrade() -> None:
    for table, gone in (("assembly", ("name", "system", "note")), ("building", ("name", "use", "asked_H"))):
        documents = _documents(table)
        op.add_column(table, sa.Column("document", sa.String(), nullable=False, server_default="{}"))
        for project_id, thing_id, document in documents:
            op.get_bind().execute(
                sa.text(f"UPDATE {table} SET document = :document WHERE project_id = :project_id AND id = :id"),
                {"document": document, "project_id": project_id, "id": thing_id},
            )
        for column in gone:
            op.drop_column(table, column)
    for table in ("member", "layer", "shell_element"):
        op.drop_table(table)
    op.add_column("project", sa.Column("materials", sa.String(), nullable=False, server_default="[]"))
    op.create_table(
        "standard",
        sa.Column("id", sa.String(), nullable=False, primary_key=True),
        sa.Column("version", sa.Integer(), nullable=False, primary_key=True),
        sa.Column("document", sa.String(), nullable=False),
        sa.Column("saved_at", sa.String(), nullable=False),
        sa.Column("withdrawn_at", sa.String()),
    )
