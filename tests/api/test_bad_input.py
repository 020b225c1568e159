"""Bad input is refused where it happened, in words, and never with a 500."""

from __future__ import annotations

import json
import sqlite3
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from editing import write
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from nimble_shell.api.main import create_app
from nimble_shell.api.problems import LARGEST_BODY
from nimble_shell.demo import plant
from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Database

V1 = "/api/v1"


def wall(client: TestClient, campus: str) -> dict[str, Any]:
    assembly: dict[str, Any] = client.get(f"{V1}/projects/{campus}").json()["project"]["assemblies"][0]
    return assembly


@pytest.mark.parametrize(
    ("change", "pointer", "code"),
    [
        ({"d": 0}, "/d", "thickness_not_positive"),
        ({"d": -0.14}, "/d", "thickness_not_positive"),
        ({"d": "thick"}, "/d", "not_a_number"),
        ({"lambda": 0}, "/lambda", "conductivity_not_positive"),
        ({"lambda": -1}, "/lambda", "conductivity_not_positive"),
        ({"members": [{"name": "m", "material": "softwood", "share": 1.4}]}, "/members/0/share", "share_out_of_range"),
        (
            {
                "members": [
                    {"name": "a", "material": "softwood", "share": 0.6},
                    {"name": "b", "material": "lvl", "share": 0.6},
                ]
            },
            "/members",
            "shares_not_whole",
        ),
        ({"material": "unobtainium"}, "/material", "unknown_material"),
        ({"colour": "blue"}, "/colour", "unknown_key"),
        ({"id": "../../x"}, "/id", "string_pattern_mismatch"),
    ],
)
def test_a_bad_layer_is_refused_at_its_place(
    client: TestClient, campus: str, change: dict[str, Any], pointer: str, code: str
) -> None:
    assembly = wall(client, campus)
    assembly["layers"][3].update(change)
    body = {"building_id": "main-laboratory", "condition": "0", "assembly": assembly}
    for reply, prefix in (
        (client.post(f"{V1}/projects/{campus}/bench", json=body), ""),
        (write(client, campus, "assembly", assembly, 2, one="wall-w-a"), ""),
    ):
        assert reply.status_code == 422
        assert reply.headers["content-type"] == "application/problem+json"
        errors = reply.json()["errors"]
        ends = [(error["pointer"].endswith(f"layers/3{pointer}"), error["code"]) for error in errors]
        assert (True, code) in ends, (prefix, errors)
        assert all(error["hint"] for error in errors)
    assert wall(client, campus)["layers"][3]["d"] == 0.185


@pytest.mark.parametrize("value", ["NaN", "Infinity", "-Infinity", "1e999"])
def test_numbers_that_are_none_are_refused(client: TestClient, campus: str, value: str) -> None:
    body = json.dumps({"building_id": "main-laboratory", "assembly": wall(client, campus)}).replace("0.185", value)
    reply = client.post(f"{V1}/projects/{campus}/bench", content=body, headers={"content-type": "application/json"})
    assert reply.status_code == 422


@pytest.mark.parametrize(
    "body", ["", "{", "[]", "null", "[" * 50_000, '{"format": "nimble-shell-project"}', '"\\ud800"']
)
def test_a_broken_import_is_refused_and_changes_nothing(client: TestClient, campus: str, body: str) -> None:
    before = client.get(f"{V1}/projects").json()
    reply = client.post(f"{V1}/projects/import", content=body, headers={"content-type": "application/json"})
    assert 400 <= reply.status_code < 500
    assert reply.json()["title"]
    assert client.get(f"{V1}/projects").json() == before


def test_a_humidity_over_100_percent_is_refused(client: TestClient, campus: str) -> None:
    held = client.get(f"{V1}/projects/{campus}").json()
    basis = held["project"]["basis"]
    basis["indoor"]["phi_heating"] = 1.2
    reply = write(client, campus, "basis", basis, held["revision"])
    assert reply.status_code == 422
    assert "120 %" in reply.json()["errors"][0]["detail"]


def test_200_megabytes_are_refused_by_their_announcement(client: TestClient) -> None:
    headers = {"content-type": "application/json", "content-length": str(200 * 1024**2)}
    reply = client.post(f"{V1}/projects/import", content=b"{}", headers=headers)
    assert reply.status_code == 413
    assert "Nothing was changed" in reply.json()["hint"]


def test_an_unannounced_flood_is_refused_as_it_comes(client: TestClient) -> None:
    def flood() -> Any:
        for _ in range(40):
            yield b" " * 1024**2

    reply = client.post(f"{V1}/projects/import", content=flood(), headers={"content-type": "application/json"})
    assert reply.status_code == 413
    assert LARGEST_BODY < 20 * 1024**2


def test_only_this_computer_is_served(client: TestClient, campus: str) -> None:
    assert client.get(f"{V1}/projects", headers={"host": "shell.example"}).status_code == 421
    foreign = client.post(f"{V1}/projects", json={"name": "x"}, headers={"origin": "http://evil.example"})
    assert foreign.status_code == 403
    own = client.post(f"{V1}/projects", json={"name": "x"}, headers={"origin": "http://127.0.0.1"})
    assert own.status_code == 201


def test_every_answer_carries_the_security_headers(client: TestClient) -> None:
    for reply in (client.get(f"{V1}/shipped"), client.get("/nowhere"), client.get("/", headers={"host": "x.example"})):
        policy = reply.headers["content-security-policy"]
        assert "default-src 'none'" in policy
        assert "unsafe" not in policy
        assert reply.headers["x-content-type-options"] == "nosniff"


@pytest.mark.parametrize(
    "path", ["/api/v1/projects/..%2f..%2fetc", "/../../etc/passwd", "/assets/../../pyproject.toml"]
)
def test_no_path_reaches_the_file_system(client: TestClient, path: str) -> None:
    reply = client.get(path)
    assert reply.status_code in (404, 422)
    assert "nimble-shell" not in reply.text


def test_a_full_disk_says_so_and_keeps_what_there_is(client: TestClient, database: Database, campus: str) -> None:
    held = client.get(f"{V1}/projects/{campus}").json()
    with database.read() as session:
        pages = session.execute(text("PRAGMA page_count")).scalar_one()
        session.connection().exec_driver_sql(f"PRAGMA max_page_count={pages}")
    exported = client.get(f"{V1}/projects/{campus}/file").json()
    replies = (client.post(f"{V1}/projects/import", json=exported) for _ in range(40))
    full = next(reply for reply in replies if reply.status_code != 201)
    assert full.status_code == 507
    assert full.json()["errors"][0]["code"] == "disk_full"
    assert client.get(f"{V1}/projects/{campus}").json() == held


def test_a_locked_database_says_so(client: TestClient, database: Database, campus: str) -> None:
    other = sqlite3.connect(database.file, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    reply = client.post(f"{V1}/projects", json={"name": "x"})
    other.execute("ROLLBACK")
    other.close()
    assert reply.status_code == 503
    assert reply.json()["errors"][0]["code"] == "database_locked"


def test_a_database_damaged_under_way_says_so(client: TestClient, database: Database, campus: str) -> None:
    database.close()
    for path in (database.file, Path(f"{database.file}-wal")):
        path.write_bytes(b"\x00garbage" * 2000)
    reply = client.get(f"{V1}/projects")
    assert reply.status_code == 503
    assert reply.json()["errors"][0]["code"] == "database_corrupt"


def test_a_fault_of_our_own_is_still_a_problem_in_words(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(ProjectService, "all", lambda self: 1 / 0)
    reply = client.get(f"{V1}/projects")
    assert reply.status_code == 500
    assert "Nothing was saved" in reply.json()["hint"]
    assert "ZeroDivision" not in reply.text


# --- anything at all --------------------------------------------------------------------------------------------


@pytest.fixture(scope="module")
def anything(tmp_path_factory: pytest.TempPathFactory) -> Any:
    """The API's own description, with the application behind it."""
    database = Database(tmp_path_factory.mktemp("any"))
    database.migrate()
    plant(ProjectService(database))
    yield schemathesis.openapi.from_asgi("/api/v1/openapi.json", create_app(database), headers={"Host": "127.0.0.1"})
    database.close()


def test_no_request_whatever_ends_in_a_server_error(anything: Any) -> None:
    operations = [found.ok() for found in anything.get_all_operations()]
    assert len(operations) >= 18

    @settings(max_examples=50, suppress_health_check=list(HealthCheck), deadline=None)
    @given(case=st.one_of([operation.as_strategy() for operation in operations]))
    def ask(case: schemathesis.Case) -> None:
        response = case.call(headers={"host": "127.0.0.1"})
        assert response.status_code < 500, response.text

    ask()
