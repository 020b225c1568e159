"""Moisture by month over the API."""

from __future__ import annotations

from typing import Any

import pytest
from api.test_studies import V1, ask, at
from fastapi.testclient import TestClient


def test_a_build_up_through_the_year(client: TestClient, campus: str) -> None:
    found = ask(client, campus, "moisture", at(client, campus, "pump-house", "wall-w-f"))
    assert found["verdict"] == "dries"
    assert len(found["months"]) == 12
    plane = found["wet"][0]
    assert plane["peak"] == pytest.approx(max(plane["M"]))
    assert sum(plane["g"]) == pytest.approx(0, abs=1e-9)
    assert found["peak"] <= plane["limit"]
    assert found["months"][found["critical"]]["required"] == max(m["required"] or -9 for m in found["months"])


def test_a_draft_is_judged_before_it_is_saved(client: TestClient, campus: str) -> None:
    body = at(client, campus, "pump-house", "wall-w-f")
    thin: dict[str, Any] = {
        **body,
        "assembly": {**body["assembly"], "layers": body["assembly"]["layers"][:2], "fixings": []},
    }
    drafted, saved = (ask(client, campus, "moisture", one) for one in (thin, body))
    assert drafted["x"][-1] < saved["x"][-1]
    assert ask(client, campus, "moisture", body) == saved


def test_surfaces_stand_worst_first_and_say_what_is_not_known(client: TestClient, campus: str) -> None:
    found = client.get(f"{V1}/projects/{campus}/buildings/main-laboratory/surfaces").json()
    known = [one["f_rsi"] - one["asked"] for one in found["surfaces"] if one["f_rsi"] is not None]
    assert known == sorted(known)
    assert all(one["why_not"] for one in found["surfaces"] if one["f_rsi"] is None)
    assert {one["station"] for one in found["surfaces"]} >= {"B", "D"}
    assert found["required"] > 0
    assert client.get(f"{V1}/projects/{campus}/buildings/nowhere/surfaces").status_code == 404
