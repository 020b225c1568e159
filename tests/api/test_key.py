"""Nothing on this machine reads or writes without the key that the printed address brings."""

from __future__ import annotations

import stat
from collections.abc import Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from nimble_shell.api.key import cookie_of, key_in
from nimble_shell.api.main import create_app
from nimble_shell.services.solver_queue import SolverQueue
from nimble_shell.store import Database

KEY = "a-key-of-this-test"
HERE = "http://127.0.0.1:8722"
NAME = cookie_of(8722)


@pytest.fixture
def locked(database: Database, tmp_path: Path) -> Iterator[TestClient]:
    web = tmp_path / "web"
    web.mkdir()
    (web / "index.html").write_text("<p>the board</p>")
    app = create_app(database, web, SolverQueue(workers=0), key=KEY)
    with TestClient(app, HERE, follow_redirects=False) as client:
        yield client


@pytest.mark.parametrize("method", ["GET", "POST", "DELETE", "OPTIONS"])
@pytest.mark.parametrize("path", ["/api/v1/projects", "/api/v1/openapi.json", "/api/v1/projects/x/events", "/api/none"])
@pytest.mark.parametrize(
    "headers",
    [{}, {"Authorization": "Bearer guess"}, {"Authorization": KEY}, {"Cookie": f"{NAME}=guess"},
     {"Cookie": f"{cookie_of(1)}={KEY}"}, {"Cookie": f"{NAME}="}, {"Authorization": "Bearer "},
     {"Authorization": "Bearer caf\u00e9".encode("latin-1").decode("latin-1")}],
)  # fmt: skip
def test_without_the_key_nothing_is_told(locked: TestClient, method: str, path: str, headers: dict[str, str]) -> None:
    raw = [(name.encode(), value.encode("latin-1")) for name, value in headers.items()]
    answer = locked.request(method, path, headers=raw)
    assert answer.status_code == 401
    assert answer.headers["content-type"] == "application/problem+json"
    assert "address that the program printed" in answer.json()["hint"]


@pytest.mark.parametrize("headers", [{"Authorization": f"Bearer {KEY}"}, {"Cookie": f"other=1; {NAME}={KEY}"}])
def test_with_it_all_goes_on(locked: TestClient, headers: dict[str, str]) -> None:
    assert locked.get("/api/v1/projects", headers=headers).status_code == 200
    assert locked.post("/api/v1/projects", json={"name": "x"}, headers=headers).status_code == 201
    assert "the board" in locked.get("/heron-flats/x/D2", headers=headers).text


def test_the_printed_address_lets_a_window_in_and_loses_its_key(locked: TestClient) -> None:
    answer = locked.get(f"/heron-flats/main/D2?view=day&key={KEY}")
    assert (answer.status_code, answer.headers["location"]) == (303, "/heron-flats/main/D2?view=day")
    cookie = answer.headers["set-cookie"].lower()
    assert "httponly" in cookie
    assert "samesite=strict" in cookie
    assert locked.get(answer.headers["location"]).status_code == 200  # the client has the cookie now
    again = locked.get("/?key=old")
    assert (again.status_code, again.headers["location"]) == (303, "/")


@pytest.mark.parametrize("address", ["/", "/heron-flats", "/heron-flats?key=", "/?key=guess", "/index.html"])
def test_a_page_without_it_says_what_to_open(locked: TestClient, address: str) -> None:
    answer = locked.get(address)
    assert answer.status_code == 401
    assert "printed when it started" in answer.text
    assert "set-cookie" not in answer.headers


def test_a_redirect_stays_on_this_machine(locked: TestClient) -> None:
    target = locked.get(f"//evil.example/x?key={KEY}").headers["location"]
    assert target.startswith("/")
    assert not target.startswith("//")


def test_a_folder_keeps_its_key_for_its_owner(tmp_path: Path) -> None:
    key = key_in(tmp_path)
    assert len(key) >= 32
    assert key_in(tmp_path) == key
    assert stat.S_IMODE((tmp_path / "window.key").stat().st_mode) == 0o600
    (tmp_path / "window.key").write_text("")
    assert key_in(tmp_path) not in ("", key)
