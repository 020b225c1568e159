"""What stands before every request: who may ask and write, how much may come in, in whose units an answer is said."""

from __future__ import annotations

from typing import Any
from urllib.parse import unquote

import pytest
from fastapi.testclient import TestClient

from nimble_shell.api.ground import attachment
from nimble_shell.api.problems import LARGEST_BODY

V1 = "/api/v1"


@pytest.mark.parametrize("host", ["127.0.0.1", "127.0.0.1:8722", "localhost:1", "[::1]:8722"])
def test_the_machines_own_names_are_served(client: TestClient, host: str) -> None:
    assert client.get(f"{V1}/projects", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    "host", ["evil.example", "evil.example:8722", "127.0.0.1.evil.example", "localhost.evil:80", "testserver", ""]
)
def test_another_name_for_this_machine_is_not(client: TestClient, host: str) -> None:
    answer = client.get(f"{V1}/projects", headers={"Host": host})
    assert answer.status_code == 421
    assert answer.headers["content-type"].startswith("application/problem+json")


@pytest.mark.parametrize(
    ("method", "origin", "status"),
    [
        ("POST", None, 201),
        ("POST", "http://127.0.0.1", 201),
        ("POST", "http://evil.example", 403),
        ("POST", "null", 403),
        ("GET", "http://evil.example", 200),  # it cannot read the answer; the browser sees to that
    ],
)
def test_only_the_programs_own_pages_may_write(
    client: TestClient, method: str, origin: str | None, status: int
) -> None:
    headers = {} if origin is None else {"Origin": origin}
    body: dict[str, Any] = {"json": {"name": "x"}} if method == "POST" else {}
    assert client.request(method, f"{V1}/projects", headers=headers, **body).status_code == status


def test_a_flood_is_refused_before_it_is_read(client: TestClient) -> None:
    answer = client.post(f"{V1}/projects", content=b"{}", headers={"Content-Length": str(LARGEST_BODY + 1)})
    assert answer.status_code == 413


@pytest.mark.parametrize("path", [f"{V1}/projects", f"{V1}/nothing", f"{V1}/projects/none", "/"])
def test_every_answer_tells_the_browser_what_it_may_do(client: TestClient, path: str) -> None:
    headers = client.get(path).headers
    assert "default-src 'none'" in headers["content-security-policy"]
    assert "unsafe" not in headers["content-security-policy"]
    assert headers["x-content-type-options"] == "nosniff"
    assert headers["referrer-policy"] == "no-referrer"


class TestUnits:
    """A sentence with values in it is said in the units of who reads it."""

    @staticmethod
    def refusal(client: TestClient, campus: str, system: str | None) -> str:
        project = client.get(f"{V1}/projects/{campus}").json()["project"]
        wall = dict(project["assemblies"][0])
        wall["layers"] = [{**one, "d": 42.0} if one["studied"] else one for one in wall["layers"]]
        body = {"building_id": project["buildings"][0]["id"], "condition": "winter", "assembly": wall}
        headers = {} if system is None else {"X-Units": system}
        answer = client.post(f"{V1}/projects/{campus}/bench", json=body, headers=headers)
        assert answer.status_code == 422
        first = answer.json()["errors"][0]
        return f"{first['detail']} {first['hint']}"

    def test_are_those_that_the_request_names(self, client: TestClient, campus: str) -> None:
        assert " mm" in self.refusal(client, campus, "SI") or " m" in self.refusal(client, campus, "SI")
        said = self.refusal(client, campus, "IP")
        assert " mm" not in said
        assert " in" in said or '"' in said or " ft" in said

    @pytest.mark.parametrize("system", [None, "", "furlongs"])
    def test_are_si_where_nobody_names_any_that_is_known(
        self, client: TestClient, campus: str, system: str | None
    ) -> None:
        assert self.refusal(client, campus, system) == self.refusal(client, campus, "SI")

    def test_of_one_request_do_not_stay_for_the_next(self, client: TestClient, campus: str) -> None:
        before = self.refusal(client, campus, "SI")
        self.refusal(client, campus, "IP")
        assert self.refusal(client, campus, "SI") == before


@pytest.mark.parametrize(
    ("name", "plain", "whole"),
    [
        ("Wall W-A.pdf", "Wall-W-A.pdf", "Wall W-A.pdf"),
        ("Дом у озера.json", "nimble-shell.json", "Дом у озера.json"),
        ("雪の壁 2.pdf", "2.pdf", "雪の壁 2.pdf"),
        ("../../etc/passwd.pdf", "etc-passwd.pdf", "etc-passwd.pdf"),
        ('a"; filename="b.exe.csv', "a-filename-b.exe.csv", "a-; filename=-b.exe.csv"),
        ("line\r\nSet-Cookie: x.csv", "line-Set-Cookie-x.csv", "line-Set-Cookie- x.csv"),
        (" . .csv", "nimble-shell.csv", "nimble-shell.csv"),
        ("half \ud83d.csv", "half.csv", "half ?.csv"),
    ],
)
def test_a_download_keeps_its_name_and_nothing_else_comes_of_it(name: str, plain: str, whole: str) -> None:
    told = attachment(b"", "text/csv", name).headers["content-disposition"]
    first, second, third = told.split("; ", 2)
    assert (first, second) == ("attachment", f'filename="{plain}"')
    assert third.isascii()
    assert unquote(third.removeprefix("filename*=UTF-8''")) == whole


def test_whole_projects_are_packed_and_answers_to_an_edit_are_not(client: TestClient, campus: str) -> None:
    whole = client.get(f"{V1}/projects/{campus}")
    assert whole.headers["content-encoding"] == "gzip"
    assert len(whole.content) > 65_536
    ledger = client.get(f"{V1}/projects/{campus}/buildings/main-laboratory/ledger")
    assert "content-encoding" not in ledger.headers
