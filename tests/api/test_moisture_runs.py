"""Moisture routes that ask the queue: verdicts, leaks, hours and the fan."""

from __future__ import annotations

import re
import subprocess
import time
from typing import Any

import numpy as np
import pytest
from api.test_studies import at
from fastapi.testclient import TestClient
from patience import let_it_solve
from si_units import left_in

from nimble_shell.services import hours

PROJECT = "/api/v1/projects/heron-flats"
PATIENCE = 120  # a loaded machine solves slowly [s]


@pytest.fixture
def planted(solving: TestClient, campus: str) -> TestClient:
    """An API whose questions are answered, with the demo campus stored."""
    assert campus == "heron-flats"
    return solving


def drafted(client: TestClient, assembly_id: str, building: str) -> dict[str, Any]:
    return at(client, "heron-flats", building, assembly_id)


def post(client: TestClient, path: str, body: dict[str, Any]) -> Any:
    answer = client.post(f"{PROJECT}/moisture{path}", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_the_largest_safe_share_of_a_build_up(planted: TestClient) -> None:
    found = post(planted, "/positions", drafted(planted, "wall-w-a", "main-laboratory"))
    field, *members = found["sections"]
    assert field["section"] == "field"
    assert len(members) >= 2
    assert 0 < field["now"] < field["safe"] < field["condenses"] < 1
    assert found["rule"] == 0.30
    lengths = {len(field[name]) for name in ("x", "share", "thickness", "theta", "phi")}
    assert len(lengths) == 1


def test_a_verdict_with_its_margin(planted: TestClient) -> None:
    found = post(planted, "/verdict", drafted(planted, "wall-w-a", "main-laboratory"))
    assert found["passes"] is True
    assert found["margin"] == found["phi_fails"] - found["phi_room"]
    assert found["advice"] == []


def test_the_ridge_without_a_seal_is_found_and_the_grade_that_is_safe_is_named(planted: TestClient) -> None:
    ridge = {"building_id": "main-laboratory", "joint_id": "j1"}
    found = post(planted, "/leak", ridge)
    assert found["grade"] == "open"
    assert found["verdict"]["passes"] is False
    assert found["verdict"]["reason"] in ("leak", "surface")
    assert found["peak"] > 10 * found["limit"]
    safe = found["largest_safe"]
    by_name = {one["name"]: one for one in found["grades"]}
    assert by_name[found["safe_grade"]]["high"] <= safe
    assert by_name[found["safe_grade"]]["safe"]
    assert not by_name["open"]["safe"]
    tight = post(planted, "/leak", {**ridge, "leakage": safe})
    assert tight["peak"] <= tight["limit"]
    assert len(tight["months"]) == 12
    january = tight["months"][0]
    assert january["v_room"] > january["v_skin"] > 0


def test_every_place_of_a_building_is_judged_in_time(planted: TestClient) -> None:
    until = time.monotonic() + PATIENCE
    while True:
        places = planted.get(f"{PROJECT}/buildings/seed-barn/verdicts").json()["places"]
        if all(one["verdict"] for one in places if not one["joint"]) or time.monotonic() > until:
            break
        let_it_solve(planted)
    assert all(one["verdict"] for one in places if not one["joint"])
    margins = [one["verdict"]["margin"] for one in places if one["verdict"] and one["verdict"]["margin"] is not None]
    assert margins == sorted(margins)


def test_hours_are_run_kept_and_shown_again_at_once(planted: TestClient) -> None:
    body = {**drafted(planted, "wall-w-d", "sample-cold-store"), "life": {"years": 2}, "ticket": "t-hours"}
    found = post(planted, "/hours", body)
    assert found["years"] in (1, 2)
    assert abs(found["balance_error"]) < 1e-9
    assert found["heat_error"] < 1e-6
    assert found["fails"] == ""
    days = 365 * found["years"]
    assert all(len(one) == days + 1 for one in found["water"])
    assert all(len(one["index"]) == days for one in found["mould"])
    raw = planted.get(f"/api/v1/moisture/hours/{found['key']}/field")
    states = np.frombuffer(raw.content, "<i2").reshape(found["hours"], 3, len(found["x"]))
    assert (np.abs(states[:, 0]) < 8000).all()
    assert states[:, 1].min() > 0
    assert states[:, 1].max() <= 10000
    assert states[:, 2].min() >= 0
    start = time.monotonic()
    assert post(planted, "/hours", body) == found
    assert time.monotonic() - start < 5
    other = dict(body, assembly={**body["assembly"], "name": "another name"})
    assert post(planted, "/hours", other)["key"] == found["key"]
    assert planted.get("/api/v1/moisture/hours/nothing/field").status_code == 404


def test_a_life_that_cannot_be_is_refused_at_its_place(planted: TestClient) -> None:
    body = drafted(planted, "wall-w-d", "sample-cold-store")
    for life, pointer in (
        ({"years": 0}, "years"), ({"years": 99}, "years"), ({"phi_0": 1.2}, "phi_0"), ({"tilt": 400}, "tilt"),
    ):  # fmt: skip
        answer = planted.post(f"{PROJECT}/moisture/hours", json={**body, "life": life})
        assert answer.status_code == 422
        assert pointer in answer.json()["errors"][0]["pointer"]
    gone = planted.post(f"{PROJECT}/moisture/leak", json={"building_id": "main-laboratory", "joint_id": "no"})
    assert gone.status_code == 404


def test_a_joint_whose_surface_fails_is_told_what_keeps_it_and_one_that_passes_is_not_searched(
    planted: TestClient,
) -> None:
    campus = planted.get(PROJECT).json()["project"]["buildings"]
    named = {joint["name"]: joint["id"] for one in campus if one["id"] == "bunkhouse" for joint in one["joints"]}
    asked = {"building_id": "bunkhouse", "joint_id": named["Ventilation pipe"]}
    found = post(planted, "/joint-surface", asked)
    assert found["f_rsi"] < found["required"]
    assert found["passes"] is False
    assert any(one["kind"] == "variant" and one["found"] for one in found["remedies"])
    good = next(joint for name, joint in named.items() if name != "Ventilation pipe")
    assert post(planted, "/joint-surface", {**asked, "joint_id": good})["remedies"] == []
    assert planted.post(f"{PROJECT}/moisture/joint-surface", json={**asked, "joint_id": "no"}).status_code == 404


def test_changes_are_searched_by_the_hour(planted: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(hours, "KINDS", ("vapour", "gap"))
    body = {**drafted(planted, "slab-s-d", "sample-cold-store"), "life": {"years": 1, "tilt": 180.0}}
    assert post(planted, "/hours", body)["fails"] == "gathers"
    (found,) = post(planted, "/hours/advice", body)["advice"]  # a floor has no gap to open
    assert found["kind"] == "vapour"
    assert found["found"]
    told = re.fullmatch(r"a vapour layer of s_d ([\d.]+) m on the warm side; s_d ([\d.]+) m still fails", found["text"])
    assert told
    assert 0 < float(told[2]) < float(told[1])


def test_the_page_of_a_build_up_has_its_verdict_its_joints_and_its_hours(planted: TestClient) -> None:
    path = f"{PROJECT}/buildings/sample-cold-store/build-ups/wall-w-d/moisture.pdf"
    before = text_of(planted.get(path).content)
    assert "It passes up to a room at 95 %" in before
    assert "Gathers slowly" in before
    assert "run it on the sheet" in before
    assert "licensed reviewer" in before
    post(planted, "/hours", drafted(planted, "wall-w-d", "sample-cold-store"))
    assert "Accepted by the hour" in text_of(planted.get(path).content)
    assert planted.get(path.replace("wall-w-d", "nothing")).status_code == 404


def test_the_page_of_a_build_up_in_inch_pound(planted: TestClient) -> None:
    file = planted.get(f"{PROJECT}/file").json()
    file["project"]["basis"]["schools"]["units"] = "IP"
    made = planted.post("/api/v1/projects/import", json=file).json()["project"]["id"]
    page = planted.get(f"/api/v1/projects/{made}/buildings/sample-cold-store/build-ups/wall-w-d/moisture.pdf")
    text = text_of(page.content)
    assert "°F" in text
    assert left_in(text) == []


@pytest.mark.parametrize("figure", ["f_required", "phi_fails", "share_safe"])
def test_figures_of_moisture_open_to_their_working(planted: TestClient, figure: str) -> None:
    body = {**drafted(planted, "wall-w-a", "main-laboratory"), "figure": figure}
    answer = planted.post(f"{PROJECT}/study-working", json={**body, "of": {"kind": "moisture", "month": 0}})
    assert answer.status_code == 200, answer.text
    steps = answer.json()["steps"]
    assert len(steps) > 4
    year = post(planted, "", drafted(planted, "wall-w-a", "main-laboratory"))
    field = post(planted, "/positions", drafted(planted, "wall-w-a", "main-laboratory"))["sections"][0]
    january = year["months"][0]
    shown = {"f_required": january["required"], "phi_fails": january["phi_fails"], "share_safe": field["safe"]}
    assert field["month"] == 0
    assert steps[-1]["value"] == pytest.approx(shown[figure], rel=1e-9)
    warm = planted.post(f"{PROJECT}/study-working", json={**body, "of": {"kind": "moisture", "month": 6}})
    assert warm.status_code in (200, 422)


def text_of(pdf: bytes) -> str:
    found = subprocess.run(["pdftotext", "-layout", "-", "-"], input=pdf, capture_output=True, check=True)
    return found.stdout.decode()


def working(client: TestClient, body: dict[str, Any], figure: str, of: dict[str, Any]) -> Any:
    return client.post(f"{PROJECT}/study-working", json={**body, "figure": figure, "of": of})


def test_the_margin_opens_to_what_was_found_on_both_sides(planted: TestClient) -> None:
    body = drafted(planted, "wall-w-a", "main-laboratory")
    verdict = post(planted, "/verdict", body)
    steps = working(planted, body, "margin", {"kind": "margin"}).json()["steps"]
    assert steps[-1]["value"] == pytest.approx(verdict["margin"])
    sides = next(step["source"] for step in steps if step["symbol"] == "phi_fails")
    assert "fails" in sides
    assert "passes" in sides
    store = drafted(planted, "wall-w-d", "sample-cold-store")
    refused = working(planted, store, "margin", {"kind": "margin"})
    assert refused.status_code == 422
    assert "95 %" in refused.text


@pytest.mark.parametrize("month", [0, 6])
def test_what_air_leaves_at_a_joint_opens_to_pressure_flow_and_vapour(planted: TestClient, month: int) -> None:
    body = drafted(planted, "roof-r-a", "main-laboratory")
    year = post(planted, "/leak", {"building_id": "main-laboratory", "joint_id": "j1", "leakage": 2.0})
    answer = working(planted, body, "carried", {"kind": "leak", "joint_id": "j1", "month": month, "leakage": 2.0})
    steps = answer.json()["steps"]
    assert steps[-1]["value"] == pytest.approx(year["months"][month]["carried"], rel=1e-9)
    values = {step["symbol"]: step["value"] for step in steps}
    assert values["Deltap"] == pytest.approx(year["months"][month]["pressure"])
    assert values["q"] == pytest.approx(year["months"][month]["flow"])
