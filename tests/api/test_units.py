"""Types of windows and doors over the wire: what they come to, filling openings, and what stands in the way."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

LAB = "main-laboratory"


def project_of(client: TestClient, project: str) -> Any:
    return client.get(f"/api/v1/projects/{project}").json()["project"]


def building_of(client: TestClient, project: str) -> Any:
    return next(one for one in project_of(client, project)["buildings"] if one["id"] == LAB)


def unit_of(client: TestClient, project: str, unit: str) -> Any:
    return next(one for one in project_of(client, project)["units"] if one["id"] == unit)


def edit(client: TestClient, project: str, document: Any, unit: str, kind: str = "unit", owner: str = "") -> Any:
    revision = client.get(f"/api/v1/projects/{project}").json()["revision"]
    item = {"kind": kind, "owner": owner, "id": unit, "document": document, "read": revision}
    return client.post(f"/api/v1/projects/{project}/edit", json={"text": "type", "zone": "1", "items": [item]})


def test_types_are_answered_with_their_working_and_a_draft_in_its_place(client: TestClient, campus: str) -> None:
    found = client.post(f"/api/v1/projects/{campus}/units", json={}).json()["units"]
    laboratory = next(one for one in found if one["id"] == "laboratory")
    assert laboratory["openings"] == 10
    assert laboratory["other_size"] == 0
    assert laboratory["working"]["steps"][-1]["value"] == pytest.approx(laboratory["U"])
    assert laboratory["rough_w"] == pytest.approx(1.5 + 0.024)
    draft = {**unit_of(client, campus, "laboratory"), "w": 1.6, "glass": {"U": 1.1, "g": 0.6, "psi": 0.06}}
    drafted = client.post(f"/api/v1/projects/{campus}/units", json={"unit": draft}).json()["units"]
    after = next(one for one in drafted if one["id"] == "laboratory")
    assert after["U"] > laboratory["U"]
    assert after["other_size"] == 10
    assert unit_of(client, campus, "laboratory")["w"] == 1.5


def test_a_type_that_cannot_be_is_refused_at_its_field(client: TestClient, campus: str) -> None:
    draft = {**unit_of(client, campus, "store"), "columns": 9, "division": 0.4}
    refused = client.post(f"/api/v1/projects/{campus}/units", json={"unit": draft})
    assert refused.status_code == 422
    assert edit(client, campus, draft, "store").status_code == 422


def test_openings_take_the_size_of_their_type_and_one_undo_gives_it_back(client: TestClient, campus: str) -> None:
    before = building_of(client, campus)["openings"]
    body = {"text": "Store windows", "zone": "1", "openings": ["w1", "w10"], "unit": "store"}
    done = client.post(f"/api/v1/projects/{campus}/buildings/{LAB}/openings/unit", json=body)
    assert done.status_code == 200, done.text
    assert sorted(one["id"] for one in done.json()["things"] if one["kind"] == "opening") == ["w1", "w10"]
    after = {one["id"]: one for one in building_of(client, campus)["openings"]}
    old = next(one for one in before if one["id"] == "w1")
    assert (after["w1"]["w"], after["w1"]["h"], after["w1"]["unit"]) == (1.2, 1.0, "store")
    assert after["w1"]["u"] + 0.6 == pytest.approx(old["u"] + old["w"] / 2)
    assert (after["w1"]["sill"], after["w4"]["sill"]) == (pytest.approx(0.36), pytest.approx(3.4))
    newest = max(row["number"] for row in client.get(f"/api/v1/projects/{campus}/changes").json())
    assert client.post(f"/api/v1/projects/{campus}/undo", json={"number": newest}).status_code == 200
    assert building_of(client, campus)["openings"] == before


def test_a_type_in_use_stays_and_names_its_openings(client: TestClient, campus: str) -> None:
    refused = edit(client, campus, None, "gable")
    assert refused.status_code == 422
    assert "W9" in refused.text
    body = {"text": "No type", "zone": "1", "openings": ["w9", "w18"], "unit": ""}
    client.post(f"/api/v1/projects/{campus}/buildings/{LAB}/openings/unit", json=body)
    assert edit(client, campus, None, "gable").status_code == 200


def test_unknown_openings_and_types_are_refused(client: TestClient, campus: str) -> None:
    url = f"/api/v1/projects/{campus}/buildings/{LAB}/openings/unit"
    for openings, unit in ((["nothing"], "gable"), (["w1"], "nothing")):
        asked = {"text": "x", "zone": "1", "openings": openings, "unit": unit}
        assert client.post(url, json=asked).status_code == 404
    first = building_of(client, campus)["openings"][0]
    wrong = edit(client, campus, {**first, "unit": "nothing"}, "w1", kind="opening", owner=LAB)
    assert wrong.status_code == 422
    assert "nothing" in wrong.text


def test_joints_round_one_type_take_its_frame(client: TestClient) -> None:
    begun = client.post("/api/v1/projects/begin", json={"name": "Two rooms"}).json()["project"]
    building, window = begun["buildings"][0], begun["units"][0]
    changed = {**window, "deep": 0.1, "position": 0.2, "fin": True, "joints": [{"edge": "sill", "variant": "framed"}]}
    assert edit(client, begun["id"], changed, window["id"]).status_code == 200
    url = f"/api/v1/projects/{begun['id']}/buildings/{building['id']}/openings/joints"
    assert client.post(url, json={"text": "Joints as their units", "zone": "1"}).status_code == 200
    after = project_of(client, begun["id"])["buildings"][0]["joints"]
    sill = next(one for one in after if one["name"] == "Sills of windows")
    values = {one["key"]: one["number"] if one["number"] is not None else one["word"] for one in sill["values"]}
    assert (values["frame"], values["position"], values["fin"], values["edge"]) == (0.1, 0.2, "fin", "sill")


def test_a_declared_U_below_its_glass_is_said(client: TestClient, campus: str) -> None:
    unit = client.get(f"/api/v1/projects/{campus}").json()["project"]["units"][0]
    for declared, below in ((0.5, True), (0.9, False)):
        found = client.post(f"/api/v1/projects/{campus}/units", json={"unit": {**unit, "U_declared": declared}}).json()
        assert next(one for one in found["units"] if one["id"] == unit["id"])["below_glass"] is below
