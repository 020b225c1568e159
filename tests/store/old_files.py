"""Database files as earlier programs left them: one campus of two buildings, an edit done and one undone, by revision."""

from __future__ import annotations

import json
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine

from nimble_shell.core.basis.basis import Basis
from nimble_shell.formats.project import BasisDoc
from nimble_shell.store.database import FILE, MIGRATIONS

REVISIONS = ("0001", "0002", "0003", "0004", "0005", "0006")
_LAST_OF_DOCUMENTS = "0005"  #: from the next on everything is a thing
PROJECT = "old"


def layer(one: str, d: float) -> dict[str, Any]:
    """A layer as every revision knew it."""
    return {"id": one, "material": "osb", "d": d, "lambda": None, "air": None, "members": [], "studied": one == "l1"}


def assembly(one: str, d: float) -> dict[str, Any]:
    return {
        "id": one,
        "name": f"Wall {one}",
        "system": "sip",
        "note": "",
        "layers": [layer("l1", d), layer("l2", 0.02)],
    }


def building(one: str, area: float) -> dict[str, Any]:
    element = {"id": "e1", "station": "D", "name": "Wall", "area": area, "assembly_id": "w1", "origin": "", "U": None}
    return {"id": one, "name": f"Building {one}", "use": "", "asked_H": None, "elements": [element]}


def write_old(folder: Path, revision: str) -> None:
    """A file of that revision. Edits: building b from 10 to 20 m², w1 from 10 to 15 mm, then w2 removed and undone."""
    folder.mkdir(parents=True)
    file = folder / FILE
    _upgrade(file, min(revision, _LAST_OF_DOCUMENTS))
    with closing(sqlite3.connect(file)) as db:
        (_first if revision == "0001" else _documents)(db)
        for number, (kind, target, before, after, state) in enumerate(_CHANGES, 2):
            row = db.execute("INSERT INTO change (project_id, number, at, who, zone, text, state) VALUES (?,?,?,?,?,?,?)",
                             (PROJECT, number, "2026", "this computer", "D2", f"edit {number}", state)).lastrowid  # fmt: skip
            db.execute("INSERT INTO change_piece (change_row, position, kind, target, before, after) VALUES (?,0,?,?,?,?)",
                       (row, kind, target, json.dumps(before), after and json.dumps(after)))  # fmt: skip
        db.commit()
    _upgrade(file, revision)


def _upgrade(file: Path, revision: str) -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    engine = create_engine(f"sqlite:///{file}")
    with engine.connect() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
        connection.commit()
    engine.dispose()


_CHANGES: tuple[tuple[str, str, Any, Any, str], ...] = (
    ("building", "b", building("b", 10.0), building("b", 20.0), "done"),
    ("assembly", "w1", assembly("w1", 0.010), assembly("w1", 0.015), "done"),
    ("assembly", "w2", assembly("w2", 0.030), None, "undone"),
)


def _basis() -> str:
    return BasisDoc.from_core(Basis()).model_dump_json(by_alias=True)


def _documents(db: sqlite3.Connection) -> None:
    db.execute("INSERT INTO project (id, name, basis, materials, version, revision, created_at, changed_at) "
               "VALUES (?, 'Old', ?, '[]', 1, 5, '2026', '2026')", (PROJECT, _basis()))  # fmt: skip
    for at, (one, area) in enumerate((("a", 30.0), ("b", 20.0))):
        db.execute("INSERT INTO building (project_id, id, position, version, document) VALUES (?,?,?,?,?)",
                   (PROJECT, one, at, 2, json.dumps(building(one, area))))  # fmt: skip
    for at, (one, d) in enumerate((("w1", 0.015), ("w2", 0.030), ("w3", 0.040))):
        db.execute("INSERT INTO assembly (project_id, id, position, version, document) VALUES (?,?,?,?,?)",
                   (PROJECT, one, at, 3, json.dumps(assembly(one, d))))  # fmt: skip


def _first(db: sqlite3.Connection) -> None:
    db.execute("INSERT INTO project (id, name, basis, version, revision, created_at, changed_at) "
               "VALUES (?, 'Old', ?, 1, 5, '2026', '2026')", (PROJECT, _basis()))  # fmt: skip
    for at, (one, area) in enumerate((("a", 30.0), ("b", 20.0))):
        db.execute("INSERT INTO building (project_id, id, position, version, name, use) VALUES (?,?,?,2,?,'')",
                   (PROJECT, one, at, f"Building {one}"))  # fmt: skip
        db.execute("INSERT INTO shell_element (project_id, building_id, id, position, station, name, area, assembly_id, "
                   "origin) VALUES (?,?,'e1',0,'D','Wall',?,'w1','')", (PROJECT, one, area))  # fmt: skip
    for at, (one, d) in enumerate((("w1", 0.015), ("w2", 0.030), ("w3", 0.040))):
        db.execute("INSERT INTO assembly (project_id, id, position, version, name, system, note) VALUES (?,?,?,3,?,'sip','')",
                   (PROJECT, one, at, f"Wall {one}"))  # fmt: skip
        for n, (name, thick) in enumerate((("l1", d), ("l2", 0.02))):
            db.execute("INSERT INTO layer (project_id, assembly_id, id, position, material, d, studied) "
                       "VALUES (?,?,?,?,'osb',?,?)", (PROJECT, one, name, n, thick, name == "l1"))  # fmt: skip
