"""The database file: migrated with a backup, durable, and honest about a full, locked or damaged disk."""

from __future__ import annotations

import os
import shutil
import signal
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import inspect, text

from nimble_shell.core.basis.basis import Basis
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.project import BasisDoc
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.store import Database, StoreError
from nimble_shell.store.database import MIGRATIONS
from nimble_shell.store.inspect import HEAD
from nimble_shell.store.rows import Base


def pragma(database: Database, name: str) -> object:
    with database.read() as session:
        return session.execute(text(f"PRAGMA {name}")).scalar()


def test_it_is_opened_as_the_store_promises(database: Database) -> None:
    assert pragma(database, "journal_mode") == "wal"
    assert pragma(database, "foreign_keys") == 1
    assert pragma(database, "synchronous") == 2


def test_the_migrations_make_exactly_the_rows_the_code_knows(database: Database) -> None:
    with database.read() as session:
        found = inspect(session.connection())
        for table in Base.metadata.sorted_tables:
            columns = {column["name"]: column["nullable"] for column in found.get_columns(table.name)}
            assert columns == {column.name: bool(column.nullable) for column in table.columns}, table.name
            keys = {tuple(key["constrained_columns"]) for key in found.get_foreign_keys(table.name)}
            assert keys == {tuple(key.column_keys) for key in table.foreign_key_constraints}, table.name


def test_a_second_start_migrates_nothing_and_backs_nothing_up(database: Database) -> None:
    assert database.migrate() is None
    assert not (database.folder / "backups").exists()


LATER = """
import sqlalchemy as sa
from alembic import op
revision, down_revision = "9999", "{head}"

def upgrade():
    op.add_column("project", sa.Column("client", sa.String(), nullable=False, server_default="nobody"))
    {then}
"""


def later_program(folder: Path, then: str = "") -> Path:
    """The migrations of a program one version on."""
    scripts = folder / f"migrations{len(then)}"
    shutil.copytree(MIGRATIONS, scripts, ignore=shutil.ignore_patterns("__pycache__"))
    (scripts / "versions" / "9999_later.py").write_text(LATER.format(then=then, head=HEAD))
    return scripts


def columns(file: Path) -> list[str]:
    with closing(sqlite3.connect(file)) as connection:
        return [row[1] for row in connection.execute("PRAGMA table_info(project)")]


def test_an_older_file_is_backed_up_before_it_is_migrated(tmp_path: Path) -> None:
    database = Database(tmp_path / "data")
    database.migrate()
    stored = ProjectService(database).bring_in(campus())
    backup = database.migrate(later_program(tmp_path))
    assert backup is not None
    assert "client" in columns(database.file)
    assert "client" not in columns(backup)
    assert ProjectService(database).load(stored.project.id).project == stored.project
    database.close()


def test_a_migration_that_fails_changes_nothing(tmp_path: Path) -> None:
    database = Database(tmp_path / "data")
    database.migrate()
    stored = ProjectService(database).bring_in(campus())
    with pytest.raises(RuntimeError, match="half way"):
        database.migrate(later_program(tmp_path, then="raise RuntimeError('half way')"))
    assert "client" not in columns(database.file)
    assert database.migrate() is None
    assert ProjectService(database).load(stored.project.id) == stored
    database.close()


def test_a_file_of_a_newer_program_is_left_alone(tmp_path: Path) -> None:
    database = Database(tmp_path / "data")
    database.migrate(later_program(tmp_path))
    with pytest.raises(StoreError) as refused:
        database.migrate()
    assert refused.value.code == "database_newer"
    database.close()


def test_a_damaged_file_is_named_with_the_way_out(tmp_path: Path) -> None:
    (tmp_path / "nimble-shell.sqlite").write_bytes(b"this is not a database" * 400)
    database = Database(tmp_path)
    with pytest.raises(StoreError) as refused:
        database.migrate()
    assert refused.value.code == "database_corrupt"
    assert "backups" in refused.value.hint
    database.close()


def test_a_locked_database_is_named_and_nothing_is_lost(database: Database, projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    other = sqlite3.connect(database.file, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    with pytest.raises(StoreError) as refused:
        projects.delete(stored.project.id)
    assert refused.value.code == "database_locked"
    other.execute("ROLLBACK")
    other.close()
    assert projects.load(stored.project.id) == stored


def test_a_full_disk_is_named_and_nothing_is_lost(database: Database, projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    with database.read() as session:
        pages = session.execute(text("PRAGMA page_count")).scalar_one()
        session.connection().exec_driver_sql(f"PRAGMA max_page_count={pages}")
    with pytest.raises(StoreError) as refused:
        for _ in range(50):
            projects.bring_in(campus())
    assert refused.value.code == "disk_full"
    assert projects.load(stored.project.id) == stored


def test_a_folder_that_cannot_be_made_is_named(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("in the way")
    with pytest.raises(StoreError) as refused:
        Database(tmp_path / "file" / "data")
    assert refused.value.code == "folder_unusable"


EDITOR = """
import sys
from pathlib import Path
from nimble_shell.demo.heron_flats import campus
from nimble_shell.core.basis.basis import Basis
from nimble_shell.formats.project import BasisDoc
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.store import Database
database = Database(Path(sys.argv[1]))
database.migrate()
service = ProjectService(database)
stored = service.bring_in(campus())
number = 0
while True:
    number += 1
    wall = stored.project.assemblies[0].with_thickness(3, 0.1 + number * 1e-6)
    stored = service.save_assembly(stored.project.id, wall, stored.versions["assembly/wall-w-a"], ChangeNote(text=str(number)))
    print(number, flush=True)
"""


@pytest.mark.parametrize("edits", [3, 11, 24])
def test_after_kill_9_every_acknowledged_edit_is_there(tmp_path: Path, edits: int) -> None:
    with subprocess.Popen([sys.executable, "-c", EDITOR, str(tmp_path)], stdout=subprocess.PIPE, text=True) as editor:
        assert editor.stdout is not None
        said = [int(editor.stdout.readline()) for _ in range(edits)]
        os.kill(editor.pid, signal.SIGKILL)
        said += [int(line) for line in editor.stdout.read().split()]
    database = Database(tmp_path)
    assert database.migrate() is None
    service = ProjectService(database)
    stored = service.load("heron-flats")
    changes = service.changes("heron-flats")
    assert said[-1] <= int(changes[0].text) <= said[-1] + 1
    assert stored.project.assemblies[0].layers[3].d == pytest.approx(0.1 + int(changes[0].text) * 1e-6, abs=1e-12)
    assert len(changes) == int(changes[0].text)
    service.save_assembly(
        "heron-flats", stored.project.assemblies[0], stored.versions["assembly/wall-w-a"], ChangeNote(text="goes on")
    )
    database.close()


def test_a_backup_a_day_is_kept_and_the_oldest_go(database: Database) -> None:
    first = database.backup_daily(keep=2)
    assert first is not None
    assert database.backup_daily(keep=2) is None
    made = []
    for _ in range(3):
        newest = sorted(first.parent.glob("*-daily.sqlite"))[-1]
        os.utime(newest, (0, 0))
        made.append(database.backup_daily(keep=2))
    assert sorted(first.parent.glob("*-daily.sqlite")) == made[-2:]
    with sqlite3.connect(str(made[-1])) as copy:
        assert copy.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    copy.close()


def test_the_newest_migration_is_the_one_a_start_looks_for() -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    assert ScriptDirectory.from_config(config).get_current_head() == HEAD


FIRST = """
INSERT INTO project VALUES ('p', 'Old', :basis, '2026-01-01', '2026-01-01', 3, 3, NULL);
INSERT INTO building VALUES ('p', 'b', 0, 1, 'Shed', 'tools', 12.5);
INSERT INTO shell_element VALUES (1, 'p', 'b', 'e1', 'D', 'Wall', 'leaflet', 0, 40.0, 'a', NULL);
INSERT INTO assembly VALUES ('p', 'a', 0, 2, 'Wall', 'sip', 'kept');
INSERT INTO layer VALUES (1, 'p', 'a', 'l1', 'gypsum-board', 0, 0.0125, 0.2, NULL, NULL, 0);
INSERT INTO layer VALUES (2, 'p', 'a', 'l2', '', 1, 0.045, NULL, 'slightly', 0.001, 0);
INSERT INTO layer VALUES (3, 'p', 'a', 'l3', 'eps-035', 2, 0.14, NULL, NULL, NULL, 1);
INSERT INTO member VALUES (1, 3, 0, 'stud', 'softwood', 'vertical', NULL, 0.045, 0.6);
"""


def test_what_the_first_schema_held_becomes_documents(tmp_path: Path) -> None:
    scripts = tmp_path / "migrations"
    shutil.copytree(MIGRATIONS, scripts, ignore=shutil.ignore_patterns("__pycache__", "000[2-9]*"))
    database = Database(tmp_path / "data")
    database.migrate(scripts)
    basis = BasisDoc.from_core(Basis()).model_dump_json(by_alias=True)
    with closing(sqlite3.connect(database.file, isolation_level=None)) as connection:
        connection.executescript(FIRST.replace(":basis", f"'{basis}'"))
    assert database.migrate() is not None
    project = ProjectService(database).load("p").project
    assert project.buildings[0].elements[0].origin == "leaflet"
    assert project.buildings[0].asked_H == 12.5
    board, air, core = project.assemblies[0].layers
    assert (board.lambda_entered, air.air.A_v if air.air else None, core.studied) == (0.2, 0.001, True)
    assert core.members[0].centres == 0.6
    assert project.assemblies[0].note == "kept"
    database.close()


def test_a_library_that_is_too_old_is_refused_by_its_version(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("sqlite3.sqlite_version_info", (3, 31, 1))
    monkeypatch.setattr("sqlite3.sqlite_version", "3.31.1")
    with pytest.raises(StoreError, match=r"SQLite 3\.31\.1; at least 3\.37"):
        Database(tmp_path)
