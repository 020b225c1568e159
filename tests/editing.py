"""Edits of a project over the API, as a script would make them."""

from __future__ import annotations

from typing import Any

from fastapi.testclient import TestClient
from httpx2 import Response


def write(
    client: TestClient, project: str, kind: str, document: dict[str, Any] | None, read: int | None, *, one: str = "",
    owner: str = "", text: str = "an edit", zone: str = "",
) -> Response:  # fmt: skip
    """Write one thing of a project; a document that names what it holds stands for all of that."""
    known = one or (document or {}).get("key" if kind == "material" else "id", "")
    item = {"kind": kind, "owner": owner, "id": known, "read": read, "document": document}
    return client.post(f"/api/v1/projects/{project}/edit", json={"text": text, "zone": zone, "items": [item]})


def document(delta: dict[str, Any], kind: str, one: str = "") -> Any:
    """A thing's document out of an answer; KeyError where the answer does not tell of it."""
    found = [thing for thing in delta["things"] if thing["kind"] == kind and thing["id"] == one]
    if not found:
        raise KeyError(f"{kind} {one} among {[(thing['kind'], thing['id']) for thing in delta['things']]}")
    return found[0]["document"]
