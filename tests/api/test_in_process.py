"""The bench times an application that is asked in process: it answers there as it does over a connection."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.formats.project import AssemblyDoc
from tools.in_process import InProcess


@pytest.mark.parametrize(
    ("project", "change", "status"),
    [
        ("", {}, 200),
        ("", {"layers": []}, 422),
        ("", {"name": "x" * 40_000}, 422),  # too long for the loop: it is read in a thread
        ("none", {}, 404),
    ],
)
def test_the_answer_is_that_of_a_connection(
    client: TestClient, campus: str, sip: Assembly, project: str, change: dict[str, Any], status: int
) -> None:
    drawn = {**AssemblyDoc.from_core(sip).to_wire(), "id": "wall-w-a", **change}
    body = {"building_id": "main-laboratory", "condition": "0", "assembly": drawn}
    path = f"/api/v1/projects/{project or campus}/bench"
    assert client.post(path, json=body).status_code == status
    with InProcess(client.app) as application:
        assert [application.post(path, body) for _ in range(2)] == [status, status]
