"""Fixings over the API: started, solved by workers, swept, counted once and everywhere, refused in words."""

from __future__ import annotations

import time
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import pytest
from editing import write
from fastapi.testclient import TestClient
from patience import PATIENCE, let_it_solve

from nimble_shell.core.fixings.kinds import KINDS

V1 = "/api/v1"
ROOF, WALL = "roof-r-a", "wall-w-b"


def assembly(client: TestClient, campus: str, key: str) -> dict[str, Any]:
    project = client.get(f"{V1}/projects/{campus}").json()["project"]
    return dict(next(one for one in project["assemblies"] if one["id"] == key))


def ask(client: TestClient, campus: str, what: str, body: dict[str, Any], status: int = 200) -> Any:
    reply = client.post(f"{V1}/projects/{campus}/{what}", json=body)
    assert reply.status_code == status, reply.text
    return reply.json()


def at(client: TestClient, campus: str, key: str = ROOF, building: str = "main-laboratory") -> dict[str, Any]:
    return {"building_id": building, "assembly": assembly(client, campus, key)}


def save(client: TestClient, campus: str, changed: dict[str, Any]) -> None:
    version = client.get(f"{V1}/projects/{campus}").json()["versions"][f"assembly/{changed['id']}"]
    reply = write(client, campus, "assembly", changed, version)
    assert reply.status_code == 200, reply.text


def settled(client: TestClient, campus: str, building: str) -> dict[str, Any]:
    for _ in range(300):
        found = client.get(f"{V1}/projects/{campus}/buildings/{building}/ledger").json()["now"]
        if not any(":" in one for one in found["pending"]):
            return dict(found)
        let_it_solve(client)
    raise AssertionError(found["pending"])


def test_every_kind_is_offered_with_its_caution(client: TestClient) -> None:
    found = client.get(f"{V1}/fixing-kinds").json()
    assert [one["key"] for one in found["kinds"]] == list(KINDS)
    assert "engineer" in found["caution"]


def test_a_group_starts_and_is_solved_and_can_be_drawn(solving: TestClient, campus: str) -> None:
    here = at(solving, campus, WALL, "boat-workshop")
    layer = next(one["id"] for one in here["assembly"]["layers"] if one.get("studied"))
    for kind in ("dowel", "bracket", "web"):
        started = ask(solving, campus, "fixing-start", {**here, "kind": kind, "layer": layer, "fixing_id": "f9"})
        draft = {**here["assembly"], "fixings": [started]}
        found = ask(solving, campus, "fixing", {**here, "assembly": draft, "fixing_id": "f9", "accuracy": "final"})
        assert found["chi"] > found["error"] > 0
        assert found["delta_U"] == pytest.approx(found["chi"] * found["per_area"])
        assert found["ratio"] == pytest.approx(found["chi"] / found["chi_approximate"])
        assert found["count"] == pytest.approx(found["area"] * found["per_area"])
        x0, y0, x1, y1 = found["drawing"]["view"]
        assert x0 < x1
        assert y0 < y1
        assert found["drawing"]["sides"] == ["outside", "inside"]
        assert found["solved"]["field"]["triangles"]
        assert 1 / found["R_with"] - 1 / found["R_without"] == pytest.approx(found["delta_U"], rel=2e-2)


def test_a_solved_group_counts_everywhere(solving: TestClient, campus: str) -> None:
    here = at(solving, campus)
    (screws,) = here["assembly"]["fixings"]
    one = ask(solving, campus, "fixing", {**here, "fixing_id": screws["id"], "accuracy": "final"})
    found = settled(solving, campus, "main-laboratory")
    line = next(each for each in found["lines"] if each["station"] == "B")
    assert line["R"] == pytest.approx(one["R_all"], rel=1e-9)
    assert found["H_fixings"] == pytest.approx(one["H"], rel=1e-9)
    bench = ask(solving, campus, "bench", here)
    assert bench["figures"]["R_clear"]["value"] == pytest.approx(one["R_all"], rel=1e-9)
    assert bench["figures"]["delta_U_f"]["value"] == pytest.approx(one["delta_U"], rel=1e-6)
    assert "solved" in bench["figures"]["delta_U_f"]["text"]
    study = ask(solving, campus, "variants", here)
    assert study["cores"]
    steps = ask(solving, campus, "working", {**here, "figure": "delta_U_f"})["steps"]
    assert any("owned by the solved point" in step["source"] for step in steps)


def test_a_changed_group_keeps_its_last_ratio_until_it_is_solved(solving: TestClient, campus: str) -> None:
    settled(solving, campus, "main-laboratory")
    here = at(solving, campus)
    wall = here["assembly"]
    thicker = {**wall, "fixings": [{**wall["fixings"][0], "diameter": 0.0081}]}
    draft = ask(solving, campus, "bench", {**here, "assembly": thicker})
    assert "solved" in draft["figures"]["delta_U_f"]["text"]
    save(solving, campus, thicker)
    found = settled(solving, campus, "main-laboratory")
    own = ask(solving, campus, "fixing", {**here, "assembly": thicker, "fixing_id": "f1", "accuracy": "final"})
    assert found["H_fixings"] == pytest.approx(own["H"], rel=1e-9)


def test_solved_webs_take_the_place_of_their_share_of_the_area(solving: TestClient, campus: str) -> None:
    here = at(solving, campus, WALL, "boat-workshop")
    layer = next(one["id"] for one in here["assembly"]["layers"] if one.get("studied"))
    webs = ask(solving, campus, "fixing-start", {**here, "kind": "web", "layer": layer, "fixing_id": "f9"})
    save(solving, campus, {**here["assembly"], "fixings": [webs]})
    settled(solving, campus, "boat-workshop")
    body = {**here, "assembly": {**here["assembly"], "fixings": [webs]}}
    figures = ask(solving, campus, "bench", body)["figures"]
    assert figures["R_lost"]["value"] == pytest.approx(
        figures["R_nominal"]["value"] - 1 / (1 / figures["R_nominal"]["value"] + figures["delta_U_f"]["value"]),
        rel=1e-9,
    )


def test_closer_loses_more(solving: TestClient, campus: str) -> None:
    here = at(solving, campus)
    points = ask(solving, campus, "fixing-sweep", {**here, "fixing_id": "f1", "values": [0.9, 0.6, 0.3, 0.002]})[
        "points"
    ]
    known = [one["delta_U"] for one in points[:3]]
    assert known == sorted(known)
    assert points[3]["chi"] is None
    assert "its share of the wall" in points[3]["why_not"]


@pytest.mark.parametrize(
    ("what", "change", "code"),
    [
        ("fixing-start", {"kind": "rivet", "layer": "l1", "fixing_id": "f"}, "unknown_kind"),
        ("fixing-start", {"kind": "screw", "layer": "l99", "fixing_id": "f"}, "no_such_layer"),
        ("fixing", {"fixing_id": "f99"}, "no_such_fixing"),
        ("fixing-sweep", {"fixing_id": "f99", "values": [0.3]}, "no_such_fixing"),
    ],
)
def test_refused_in_words(client: TestClient, campus: str, what: str, change: dict[str, Any], code: str) -> None:
    problem = ask(client, campus, what, {**at(client, campus), **change}, 422)
    assert problem["errors"][0]["code"] == code


@pytest.mark.parametrize(
    "change",
    [{"n": 0}, {"diameter": -0.001}, {"n": None}, {"head": {"material": "steel", "size": 0, "t": 0.001}},
     {"sleeve": 0.02}, {"h": 0.1}, {"n": 1e9}, {"outer": 99}, {"material": "unobtainium"}],
)  # fmt: skip
def test_a_bad_group_is_refused_at_its_place(client: TestClient, campus: str, change: dict[str, Any]) -> None:
    here = at(client, campus)
    bad = {**here["assembly"], "fixings": [{**here["assembly"]["fixings"][0], **change}]}
    problem = ask(client, campus, "bench", {**here, "assembly": bad}, 422)
    assert all("fixings/0" in one["pointer"] for one in problem["errors"])


def test_nothing_is_left_of_a_ticket_that_nobody_has(client: TestClient) -> None:
    assert client.get(f"{V1}/solving/none").json() == {"waiting": 0, "grids": 0, "unknowns": 0}
    assert client.delete(f"{V1}/solving/none").json() == {"stopped": 0}


def test_who_waits_for_a_stopped_question_is_told_so(client: TestClient, campus: str) -> None:
    # Without workers the question waits for ever; another window stops it.
    with ThreadPoolExecutor() as pool:
        body = {**at(client, campus), "fixing_id": "f1", "ticket": "mine"}
        waiting = pool.submit(client.post, f"{V1}/projects/{campus}/fixing", json=body)
        until = time.monotonic() + PATIENCE
        while not client.get(f"{V1}/solving/mine").json()["waiting"]:
            assert time.monotonic() < until
        assert client.delete(f"{V1}/solving/mine").json() == {"stopped": 1}
        reply = waiting.result(timeout=20)
    assert reply.status_code == 409
    assert reply.json()["errors"][0]["code"] == "stopped"
