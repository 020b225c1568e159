"""Every odd database file ends in a clear sentence; backups are looked into, kept while good, and put back."""

from __future__ import annotations

import os
import shutil
import socket
import sqlite3
import time
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

import pytest
from typer.testing import CliRunner

from nimble_shell.cli import app
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Database, FolderLock, StoreError, backups
from nimble_shell.store.database import FILE

Spoil = Callable[[Path], None]


@pytest.fixture(scope="module")
def whole(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A good file with the campus in it, its journal closed."""
    folder = tmp_path_factory.mktemp("whole")
    database = Database(folder)
    database.migrate()
    ProjectService(database).bring_in(campus())
    database.close()
    with closing(sqlite3.connect(folder / FILE)) as connection:
        connection.execute("PRAGMA journal_mode=DELETE")
    return folder / FILE


def sql(*statements: str) -> Spoil:
    def spoil(file: Path) -> None:
        with closing(sqlite3.connect(file, isolation_level=None)) as connection:
            connection.execute("PRAGMA foreign_keys=OFF")
            for statement in statements:
                connection.execute(statement)

    return spoil


def content(make: Callable[[bytes], bytes]) -> Spoil:
    return lambda file: file.write_bytes(make(file.read_bytes())) and None


def instead(make: Callable[[Path], object]) -> Spoil:
    def spoil(file: Path) -> None:
        file.unlink()
        make(file)

    return spoil


def foreign(file: Path) -> None:
    with closing(sqlite3.connect(file)) as connection:
        connection.execute("CREATE TABLE bookmarks (url TEXT)")
        connection.commit()


def listening(file: Path) -> None:
    with closing(socket.socket(socket.AF_UNIX)) as listener:
        here = Path.cwd()
        os.chdir(file.parent)
        try:
            listener.bind(file.name)
        finally:
            os.chdir(here)


#: What was done to the file, and what is said of it.
ODD: dict[str, tuple[Spoil, str]] = {
    "text": (content(lambda _: b"this is not a database" * 400), "database_corrupt"),
    "one byte": (content(lambda _: b"S"), "database_corrupt"),
    "zeros": (content(lambda old: bytes(len(old))), "database_corrupt"),
    "header only": (content(lambda old: old[:100]), "database_corrupt"),
    "half": (content(lambda old: old[: len(old) // 2]), "database_corrupt"),
    "half a page": (content(lambda old: old[:2048]), "database_corrupt"),
    "upside down": (content(lambda old: old[::-1]), "database_corrupt"),
    "five pages overwritten": (content(lambda old: old[:8192] + b"\xa5" * 20480 + old[28672:]), "database_corrupt"),
    "first page overwritten": (content(lambda old: old[:16] + b"\xa5" * 4080 + old[4096:]), "database_corrupt"),
    "gzip": (content(lambda old: b"\x1f\x8b" + old), "database_corrupt"),
    "json": (content(lambda _: b'{"format": "nimble-shell-project"}'), "database_corrupt"),
    "another program's": (instead(foreign), "database_foreign"),
    "another program's versions": (
        instead(sql("CREATE TABLE alembic_version (version_num TEXT)", "INSERT INTO alembic_version VALUES ('abc')")),
        "database_foreign",
    ),
    "newer": (sql("UPDATE alembic_version SET version_num = '9999'"), "database_newer"),
    "no version": (sql("DELETE FROM alembic_version"), "database_corrupt"),
    "two versions": (sql("INSERT INTO alembic_version VALUES ('0005')"), "database_corrupt"),
    "no things": (sql("DROP TABLE thing"), "database_corrupt"),
    "no answers": (sql("DROP TABLE answer"), "database_corrupt"),
    "no change log": (sql("DROP TABLE change"), "database_corrupt"),
    "a column less": (sql("ALTER TABLE project DROP COLUMN changed_at"), "database_corrupt"),
    "an old version's number on a new file": (
        sql("UPDATE alembic_version SET version_num = '0002'"),
        "database_corrupt",
    ),
    "a folder": (instead(Path.mkdir), "database_no_file"),
    "a pipe": (instead(lambda file: os.mkfifo(file)), "database_no_file"),
    "a socket": (instead(listening), "database_no_file"),
    "a link to itself": (instead(lambda file: file.symlink_to(file)), "database_unreadable"),
    "a link to nowhere": (instead(lambda file: file.symlink_to(file.parent / "nowhere")), "database_missing"),
}


@pytest.mark.parametrize("odd", ODD)
def test_an_odd_file_is_named_and_left_as_it_is(tmp_path: Path, whole: Path, odd: str) -> None:
    file = tmp_path / FILE
    shutil.copyfile(whole, file)
    spoil, code = ODD[odd]
    spoil(file)
    before = file.read_bytes() if file.is_file() else None
    database = Database(tmp_path)
    with pytest.raises(StoreError) as refused:
        database.migrate()
    database.close()
    assert refused.value.code == code
    assert refused.value.hint
    if odd != "an old version's number on a new file":  # which is opened for writing before that is seen
        assert before is None or file.read_bytes() == before
    done = CliRunner().invoke(app, ["export", "heron-flats", str(tmp_path / "out.json"), "--data", str(tmp_path)])
    assert done.exit_code == 1
    assert done.stderr.startswith("nimble: step 'database' stopped.")
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize(
    "spoiled",
    ["UPDATE thing SET document = '{' WHERE kind = 'joint'", "DELETE FROM thing WHERE kind = 'basis'",
     "UPDATE thing SET kind = 'storey' WHERE kind = 'element'", "DELETE FROM thing WHERE kind = 'assembly'",
     "UPDATE thing SET document = replace(document, '\"area\":', '\"areal\":') WHERE kind = 'element'"],
)  # fmt: skip
def test_a_project_that_cannot_be_read_leaves_the_others_usable(tmp_path: Path, whole: Path, spoiled: str) -> None:
    shutil.copyfile(whole, tmp_path / FILE)
    sql(spoiled)(tmp_path / FILE)
    database = Database(tmp_path)
    database.migrate()
    service = ProjectService(database)
    other = service.create("Another")
    with pytest.raises(StoreError) as refused:
        service.load("heron-flats")
    assert refused.value.code == "project_unreadable"
    assert "Heron Flats" in refused.value.message
    assert service.load(other.project.id).project == other.project
    database.close()


def good(folder: Path, whole: Path) -> Database:
    shutil.copyfile(whole, folder / FILE)
    database = Database(folder)
    database.migrate()
    return database


def test_a_damaged_file_does_not_push_out_good_backups(tmp_path: Path, whole: Path) -> None:
    database = good(tmp_path, whole)
    made = [database.backup_daily(keep=3) for _ in range(1)]
    for _ in range(4):
        newest = max((tmp_path / "backups").iterdir())
        os.utime(newest, (0, 0))
        made.append(database.backup_daily(keep=3))
    database.close()
    before = {one.name for one in backups(tmp_path)}
    assert len(before) == 3
    for kept in (tmp_path / "backups").iterdir():
        os.utime(kept, (0, 0))
    ODD["five pages overwritten"][0](tmp_path / FILE)
    broken = Database(tmp_path)
    with pytest.raises(StoreError):
        broken.backup_daily(keep=3)
    broken.close()
    assert {one.name for one in backups(tmp_path)} == before
    assert all(one.contents is not None for one in backups(tmp_path))


def test_backups_that_are_not_good_do_not_count(tmp_path: Path, whole: Path) -> None:
    database = good(tmp_path, whole)
    first = database.backup_daily(keep=2)
    assert first is not None
    ODD["half"][0](first)
    second = database.backup_daily(keep=2)
    assert second is not None
    seen = {one.name: one.contents is not None for one in backups(tmp_path)}
    assert seen == {first.name: False, second.name: True}
    assert [one.why_not for one in backups(tmp_path) if one.contents is None] != [""]
    database.close()


def test_a_backup_from_the_future_does_not_stop_the_daily_one(tmp_path: Path, whole: Path) -> None:
    database = good(tmp_path, whole)
    made = database.backup_daily()
    assert made is not None
    late = time.time() + 40 * 86_400
    os.utime(made, (late, late))
    assert database.backup_daily() is not None
    future = made.with_name("29990101-000000-000000-daily.sqlite")
    made.rename(future)
    for one in (tmp_path / "backups").iterdir():
        if one != future:
            one.unlink()
    assert database.backup_daily() is not None
    database.close()


@pytest.mark.parametrize("lost", [Path.unlink, lambda file: file.write_bytes(b"")])
def test_a_lost_file_beside_backups_offers_them(tmp_path: Path, whole: Path, lost: Callable[[Path], object]) -> None:
    database = good(tmp_path, whole)
    made = database.backup_daily()
    database.close()
    assert made is not None
    lost(tmp_path / FILE)
    again = Database(tmp_path)
    with pytest.raises(StoreError) as refused:
        again.migrate()
    assert refused.value.code == "database_lost"
    assert f"restore {made.name}" in refused.value.hint
    listed = CliRunner().invoke(app, ["backups", "--data", str(tmp_path)])
    assert "1 projects: Heron Flats Field Laboratory" in listed.stdout
    done = CliRunner().invoke(app, ["restore", made.name, "--data", str(tmp_path)])
    assert done.exit_code == 0, done.stderr
    again.migrate()
    assert ProjectService(again).load("heron-flats").project == campus()
    again.close()


def test_beginning_anew_is_said_on_purpose(tmp_path: Path, whole: Path) -> None:
    database = good(tmp_path, whole)
    database.backup_daily()
    database.close()
    (tmp_path / FILE).unlink()
    again = Database(tmp_path)
    again.migrate(anew=True)
    assert ProjectService(again).all() == []
    again.close()


def test_what_a_restore_replaces_is_kept(tmp_path: Path, whole: Path) -> None:
    database = good(tmp_path, whole)
    made = database.backup_daily()
    assert made is not None
    service = ProjectService(database)
    later = service.create("Later")
    database.restore(made.name)
    assert [one.id for one in service.all()] == ["heron-flats"]
    kept = next(one for one in backups(tmp_path) if one.reason == "before-restore")
    assert kept.contents is not None
    assert later.project.name in {one.name for one in kept.contents.projects}
    for name, code in (("none.sqlite", "no_such_backup"), ("../" + FILE, "no_such_backup")):
        with pytest.raises(StoreError) as refused:
            database.restore(name)
        assert refused.value.code == code
    database.close()


def test_a_second_server_is_told_who_has_the_folder(tmp_path: Path) -> None:
    first, second = FolderLock(tmp_path), FolderLock(tmp_path)
    first.take("the server at http://127.0.0.1:8722")
    with pytest.raises(StoreError) as refused:
        second.take("another")
    assert refused.value.code == "folder_taken"
    assert "http://127.0.0.1:8722" in refused.value.message
    first.release()
    second.take("another")
    second.release()


@pytest.mark.parametrize("replaced", [True, False])
def test_a_file_replaced_under_a_running_server_is_noticed(tmp_path: Path, whole: Path, replaced: bool) -> None:
    database = good(tmp_path, whole)
    service = ProjectService(database)
    service.all()
    (tmp_path / FILE).unlink()
    if replaced:
        shutil.copyfile(whole, tmp_path / "other")
        (tmp_path / "other").rename(tmp_path / FILE)
    for attempt in (service.all, lambda: service.create("New")):
        with pytest.raises(StoreError) as refused:
            attempt()
        assert refused.value.code == "database_replaced"
    database.close()
