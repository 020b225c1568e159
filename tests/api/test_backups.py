"""Earlier states of the data: a list, a look inside, and a project brought back beside what there is."""

from __future__ import annotations

from fastapi.testclient import TestClient

from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.store import Database
from nimble_shell.store.backups import make

V1 = "/api/v1"


def kept(database: Database, reason: str = "daily") -> str:
    return make(database.file, reason).name


def test_there_is_none_at_first(client: TestClient) -> None:
    assert client.get(f"{V1}/backups").json() == []


def test_every_backup_says_what_lies_in_it(client: TestClient, database: Database, campus: str) -> None:
    first = kept(database)
    client.post(f"{V1}/projects", json={"name": "Later"})
    second = kept(database, "before-migration")
    newest, oldest = client.get(f"{V1}/backups").json()
    assert [newest["name"], oldest["name"]] == [second, first]
    assert [newest["reason"], oldest["reason"]] == ["before-migration", "daily"]
    assert [one["id"] for one in oldest["projects"]] == [campus]
    assert {one["name"] for one in newest["projects"]} >= {"Later"}
    assert newest["size"] > 1000
    assert newest["made_at"].startswith("20")


def test_what_was_in_the_bin_is_not_offered(client: TestClient, database: Database, campus: str) -> None:
    client.delete(f"{V1}/projects/{campus}")
    kept(database)
    (one,) = client.get(f"{V1}/backups").json()
    assert one["projects"] == []


def test_a_project_comes_back_beside_what_it_has_become(
    client: TestClient, database: Database, projects: ProjectService, campus: str
) -> None:
    name = kept(database)
    before = projects.load(campus)
    building = before.project.buildings[0]
    projects.edit(campus, lambda stored: stored.project.__class__(**{
        **{field: getattr(stored.project, field) for field in stored.project.__dataclass_fields__},
        "buildings": stored.project.buildings[1:],
    }), ChangeNote(text="one building less"))  # fmt: skip
    answer = client.post(f"{V1}/backups/{name}/projects/{campus}")
    assert answer.status_code == 201
    back = answer.json()["project"]
    assert back["id"] != campus
    assert back["name"].startswith(f"{before.project.name}, as of 20")
    assert back["buildings"][0]["id"] == building.id
    assert building.id not in {one.id for one in projects.load(campus).project.buildings}
    again = projects.load(back["id"]).project
    assert (again.buildings, again.assemblies, again.basis) == (
        before.project.buildings, before.project.assemblies, before.project.basis,
    )  # fmt: skip


def test_the_backup_itself_stays_as_it_is(client: TestClient, database: Database, campus: str) -> None:
    name = kept(database)
    file = database.folder / "backups" / name
    content = file.read_bytes()
    client.post(f"{V1}/backups/{name}/projects/{campus}")
    assert file.read_bytes() == content
    assert not file.with_name(f"{name}-wal").exists()


def test_what_is_not_there_is_told(client: TestClient, database: Database, campus: str) -> None:
    name = kept(database)
    assert client.post(f"{V1}/backups/none.sqlite/projects/{campus}").status_code == 404
    assert client.post(f"{V1}/backups/{name}/projects/nobody").status_code == 404
    assert client.post(f"{V1}/backups/..%2Fx/projects/{campus}").status_code in (404, 422)


def test_a_damaged_backup_is_listed_with_the_reason_and_not_brought_back(
    client: TestClient, database: Database, campus: str
) -> None:
    name = kept(database)
    file = database.folder / "backups" / name
    file.write_bytes(b"no database" + file.read_bytes()[11:])
    (one,) = client.get(f"{V1}/backups").json()
    assert one["projects"] == []
    assert one["why_not"]
    answer = client.post(f"{V1}/backups/{name}/projects/{campus}")
    assert answer.status_code >= 400
    assert one["why_not"] in str(answer.json())
