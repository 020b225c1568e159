"""Every thing of a project gets a row of its own; the change log speaks of things, and of who did what."""

import hashlib
import json
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"

TEXT, INTEGER, REAL = sa.String(), sa.Integer(), sa.Float()
#: What a document holds that becomes things of their own, as of this revision.
_HOLDS = {"building": {"elements": "element", "joints": "joint"}, "assembly": {"fixings": "fixing"}}
_LOCAL = ("local", "this computer")

Thing = tuple[str, str, str]  # kind, owner, id


def _need(name: str, kind: sa.types.TypeEngine[Any], *, primary_key: bool = False) -> sa.Column[Any]:
    return sa.Column(name, kind, nullable=False, primary_key=primary_key)


def _text(document: Any) -> str:
    return json.dumps(document, ensure_ascii=False, separators=(",", ":"))


def _things(kind: str, one: str, document: dict[str, Any], position: float) -> dict[Thing, tuple[str, float]]:
    """A whole document as things, each with its text and position."""
    if kind == "basis":
        found = {
            ("project", "", ""): (_text({"name": document["name"]}), 0.0),
            ("basis", "", ""): (_text(document["basis"]), 0.0),
        }
        for at, material in enumerate(document.get("materials", [])):
            found["material", "", material["key"]] = (_text(material), float(at))
        return found
    bare = {key: value for key, value in document.items() if key not in _HOLDS.get(kind, {})}
    found = {(kind, "", one): (_text(bare), position)}
    for name, held in _HOLDS.get(kind, {}).items():
        for at, part in enumerate(document.get(name, [])):
            found[held, one, part["id"]] = (_text(part), float(at))
    return found


def _rows(statement: str, **values: Any) -> list[Any]:
    return list(op.get_bind().execute(sa.text(statement), values).mappings())


def upgrade() -> None:
    op.create_table(
        "thing",
        *(_need(name, TEXT, primary_key=True) for name in ("project_id", "kind", "owner", "id")),
        _need("position", REAL),
        _need("revision", INTEGER),
        _need("digest", TEXT),
        sa.Column("document", TEXT),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
    )
    op.create_table(
        "change_item",
        _need("row", INTEGER, primary_key=True),
        _need("change_row", INTEGER),
        *(_need(name, TEXT) for name in ("kind", "owner", "id")),
        sa.Column("before", TEXT),
        sa.Column("after", TEXT),
        sa.Column("position_before", REAL),
        sa.Column("position_after", REAL),
        sa.ForeignKeyConstraint(["change_row"], ["change.row"], ondelete="CASCADE"),
    )
    op.create_index("change_item_by_change", "change_item", ["change_row"])
    for row in _rows("SELECT * FROM project"):
        document = {"name": row["name"], "basis": json.loads(row["basis"]), "materials": json.loads(row["materials"])}
        _write(row["id"], row["version"], _things("basis", "", document, 0.0))
    positions: dict[tuple[str, str, str], float] = {}
    for table in ("building", "assembly"):
        for row in _rows(f"SELECT * FROM {table} ORDER BY project_id, position"):
            positions[row["project_id"], table, row["id"]] = float(row["position"])
            things = _things(table, row["id"], json.loads(row["document"]), float(row["position"]))
            _write(row["project_id"], row["version"], things)
    pieces = "SELECT c.project_id, p.* FROM change_piece p JOIN change c ON c.row = p.change_row ORDER BY p.row"
    for row in _rows(pieces):
        position = positions.get((row["project_id"], row["kind"], row["target"]))
        _log(row, position)
    op.drop_index("change_piece_by_owner", "change_piece")
    for table in ("change_piece", "building", "assembly"):
        op.drop_table(table)
    op.add_column("change", sa.Column("actor", TEXT, nullable=False, server_default=_LOCAL[0]))
    for column in ("basis", "materials", "version"):
        op.drop_column("project", column)


def _write(project_id: str, revision_: int, things: dict[Thing, tuple[str, float]]) -> None:
    for (kind, owner, one), (text, position) in things.items():
        op.get_bind().execute(
            sa.text(
                "INSERT INTO thing (project_id, kind, owner, id, position, revision, digest, document) "
                "VALUES (:project_id, :kind, :owner, :id, :position, :revision, :digest, :document)"
            ),
            {"project_id": project_id, "kind": kind, "owner": owner, "id": one, "position": position,
             "revision": revision_, "digest": hashlib.sha256(text.encode()).hexdigest(), "document": text},
        )  # fmt: skip


def _log(row: Any, position: float | None) -> None:
    """A piece of the old log as items: only what it changed."""
    before, after = (
        {} if text is None else _things(row["kind"], row["target"], json.loads(text), -1.0)
        for text in (row["before"], row["after"])
    )
    for kind, owner, one in {**before, **after}:
        was, now = before.get((kind, owner, one)), after.get((kind, owner, one))
        if was == now:
            continue
        root = kind in ("building", "assembly")
        places = [None if side is None else position if root else side[1] for side in (was, now)]
        op.get_bind().execute(
            sa.text(
                "INSERT INTO change_item (change_row, kind, owner, id, before, after, position_before, position_after) "
                "VALUES (:change_row, :kind, :owner, :id, :before, :after, :position_before, :position_after)"
            ),
            {"change_row": row["change_row"], "kind": kind, "owner": owner, "id": one, "before": was and was[0],
             "after": now and now[0], "position_before": places[0], "position_after": places[1]},
        )  # fmt: skip
