"""Joints over the API: drawn, solved by workers, swept, counted once, and refused in words."""

from __future__ import annotations

import base64
import time
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from editing import write
from fastapi.testclient import TestClient
from patience import let_it_solve

from nimble_shell.api.decision_routes import way_out
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.shell.decisions import WayOut
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.solver_queue import SolverQueue

V1 = "/api/v1"
SEAM: dict[str, Any] = {
    "id": "j", "station": "D", "name": "Seams", "family": "seam", "variant": "double lumber",
    "roles": [{"role": "wall", "assembly_id": "wall-w-a"}], "length": 100.0,
}  # fmt: skip


def ask(client: TestClient, campus: str, what: str, body: dict[str, Any], status: int = 200) -> Any:
    reply = client.post(f"{V1}/projects/{campus}/{what}", json=body)
    assert reply.status_code == status, reply.text
    return reply.json()


def with_joints(client: TestClient, campus: str, joints: list[dict[str, Any]], building: int = 0) -> dict[str, Any]:
    project = client.get(f"{V1}/projects/{campus}").json()
    one = project["project"]["buildings"][building]
    version = project["versions"][f"building/{one['id']}"]
    reply = write(client, campus, "building", {**one, "joints": joints}, version)
    assert reply.status_code == 200, reply.text
    return one


def ledger(client: TestClient, campus: str, building: str) -> dict[str, Any]:
    for _ in range(300):
        found = client.get(f"{V1}/projects/{campus}/buildings/{building}/ledger").json()["now"]
        if not found["pending"]:
            return dict(found)
        let_it_solve(client)
    raise AssertionError(found["pending"])


def test_every_family_is_offered_with_what_can_be_turned(client: TestClient) -> None:
    found = client.get(f"{V1}/joint-families").json()
    assert [one["key"] for one in found] == list(FAMILIES)
    for family in found:
        assert family["variants"]
        for variant in family["variants"]:
            assert variant["suits"]
            for one in variant["parameters"]:
                assert one["kind"] != "number" or one["least"] <= one["start"] <= one["most"]


def test_a_joint_is_solved_and_can_be_drawn(solving: TestClient, campus: str) -> None:
    found = ask(solving, campus, "joint", {"joint": SEAM, "accuracy": "final"})
    solved, drawing = found["solved"], found["drawing"]
    assert solved["psi_out"]["external"] == pytest.approx(0.0261, abs=0.0005)
    low, high = solved["certain"]
    assert low <= solved["coupling"]["inside|outside"] <= high * (1 + 1e-7)
    assert sum(solved["heat_flow"].values()) == pytest.approx(0, abs=1e-6)
    xy = np.frombuffer(base64.b64decode(solved["field"]["xy"]), "<f4").reshape(-1, 2)
    theta = np.frombuffer(base64.b64decode(solved["field"]["theta"]), "<f4")
    triangles = np.frombuffer(base64.b64decode(solved["field"]["triangles"]), "<u4")
    assert len(theta) == len(xy)
    assert triangles.max() < len(xy)
    assert theta.min() >= solved["temperatures"]["outside"] - 1e-3
    assert {shape["part"] for shape in drawing["shapes"]} >= {"spline"}
    assert drawing["values"] == {"width": 0.038, "timber": "softwood"}


def test_another_variant_takes_the_parameters_it_has(solving: TestClient, campus: str) -> None:
    joint = {**SEAM, "values": [{"key": "width", "number": 0.05}, {"key": "timber", "word": "lvl"}]}
    found = ask(solving, campus, "joint-drawing", {"joint": joint, "variant": "single lumber"})
    assert found["drawing"]["values"] == {"width": 0.05, "timber": "lvl"}
    block = ask(solving, campus, "joint-drawing", {"joint": joint, "variant": "block"})
    assert block["drawing"]["values"]["width"] == 0.150  # 50 mm lie out of its range
    assert found["solved"] is None


def test_a_sweep_goes_through_the_answer_and_says_where_there_is_none(solving: TestClient, campus: str) -> None:
    alone = ask(solving, campus, "joint", {"joint": SEAM})["solved"]["psi_out"]["external"]
    points = ask(solving, campus, "joint-sweep", {"joint": SEAM, "key": "width", "values": [0.03, 0.038, 5.0]})[
        "points"
    ]
    assert points[0]["psi"] < points[1]["psi"]
    assert points[1]["psi"] == pytest.approx(alone, rel=1e-9)
    assert points[2]["psi"] is None
    assert "5.0" in points[2]["why_not"]


def test_the_ledger_counts_a_joint_once(solving: TestClient, campus: str) -> None:
    one = with_joints(solving, campus, [])
    bare = ledger(solving, campus, one["id"])
    assert (bare["joints"], bare["H_joints"]) == ([], None)
    assert bare["share_joints"] == pytest.approx(bare["H_fixings"] / bare["H"])
    with_joints(solving, campus, [SEAM])
    found = ledger(solving, campus, one["id"])
    (line,) = found["joints"]
    assert line["H"] == pytest.approx(line["psi"] * 100.0)
    wall = next(each for each in found["lines"] if each["station"] == "D")
    before = next(each for each in bare["lines"] if each["station"] == "D")
    assert wall["U"] < before["U"]  # the splines' share of the area is left to the joint
    assert found["H"] == pytest.approx(sum(each["H"] for each in found["lines"]) + line["H"])
    assert found["share_joints"] == pytest.approx((line["H"] + found["H_fixings"]) / found["H"])
    steps = ask(solving, campus, "working", {"building_id": one["id"], "figure": "H_shell"})["steps"]
    sources = " ".join(step["source"] for step in steps)
    assert "% of “spline” of" in sources
    assert "members in the place of solved joints are theirs" in sources
    assert steps[-1]["value"] == pytest.approx(found["H"])


def test_a_changed_build_up_changes_its_joint(solving: TestClient, campus: str) -> None:
    first = ask(solving, campus, "joint", {"joint": SEAM})["solved"]["psi_out"]["external"]
    project = solving.get(f"{V1}/projects/{campus}").json()
    wall = next(one for one in project["project"]["assemblies"] if one["id"] == "wall-w-a")
    for layer in wall["layers"]:
        layer["d"] = 0.285 if layer["studied"] else layer["d"]
    assert write(solving, campus, "assembly", wall, project["revision"]).status_code == 200
    assert ask(solving, campus, "joint", {"joint": SEAM})["solved"]["psi_out"]["external"] < 0.9 * first


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"family": "weld"}, "unknown_family"),
        ({"variant": "glued"}, "unknown_variant"),
        ({"roles": [{"role": "wall", "assembly_id": "gone"}]}, "build_up_missing"),
        ({"roles": []}, "build_up_missing"),
        ({"values": [{"key": "width", "number": -1}]}, "parameter_out_of_range"),
        ({"values": [{"key": "width"}]}, "value_unclear"),
        ({"values": [{"key": "nothing", "number": 1}]}, "unknown_parameter"),
        ({"length": -3}, "length_out_of_range"),
        ({"variant": "single lumber", "roles": [{"role": "wall", "assembly_id": "wall-w-b"}]}, None),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_its_place(
    solving: TestClient, campus: str, change: dict[str, Any], code: str | None
) -> None:
    reply = solving.post(f"{V1}/projects/{campus}/joint", json={"joint": {**SEAM, **change}})
    if code is None:  # a joint of another system is unusual, not impossible
        assert reply.status_code == 200
        return
    assert reply.status_code == 422
    assert code in [error["code"] for error in reply.json()["errors"]]


def test_a_joint_whose_build_up_is_gone_is_named_and_the_rest_counts(solving: TestClient, campus: str) -> None:
    lost = {**SEAM, "id": "lost", "name": "Lost", "roles": [{"role": "wall", "assembly_id": "gone"}]}
    one = with_joints(solving, campus, [SEAM, lost])
    for _ in range(100):
        found = solving.get(f"{V1}/projects/{campus}/buildings/{one['id']}/ledger").json()["now"]
        if not found["pending"]:
            break
        let_it_solve(solving)
    assert "Lost" not in " ".join(found["pending"])  # nobody waits for what will not come
    assert "Lost: the build-up “gone” is gone" in found["missing"]
    assert found["H"] is not None


def test_the_desk_solves_a_question_once_and_what_is_looked_at_first(solving: TestClient, campus: str) -> None:
    queue: SolverQueue = solving.app.state.joints.queue  # type: ignore[attr-defined]
    body = {"joint": {**SEAM, "values": [{"key": "width", "number": 0.0412}]}}
    first = ask(solving, campus, "joint", body)
    begun, others = time.perf_counter(), queue.waiting
    again = ask(solving, campus, "joint", body)
    assert again == first
    assert queue.waiting <= others
    assert time.perf_counter() - begun < 5


def test_without_workers_nothing_is_solved_and_the_ledger_still_answers(client: TestClient, campus: str) -> None:
    one = with_joints(client, campus, [SEAM])
    found = client.get(f"{V1}/projects/{campus}/buildings/{one['id']}/ledger").json()["now"]
    assert found["pending"] == ["Seams", "Roof R-A: long panel screws"]
    assert found["H"] is not None
    assert found["H_joints"] is None


def test_a_joint_is_kept_listed_exported_and_brought_in(client: TestClient, campus: str) -> None:
    with_joints(client, campus, [SEAM])
    place = f"{V1}/projects/{campus}/buildings/main-laboratory/joints/j"
    assert client.get(f"{place}/offer").json() is None
    reply = client.post(f"{place}/standard", json={"reason": "dry", "source": "log"})
    assert reply.status_code == 201, reply.text
    (listed,) = client.get(f"{V1}/joint-standards").json()
    assert (listed["version"], listed["reason"], len(listed["uses"])) == (1, "dry", 1)
    file = client.get(f"{V1}/standards.json").json()
    assert [one["id"] for one in file["joints"]] == [listed["id"]]
    file["joints"][0]["reason"] = "dry, and again"
    assert client.post(f"{V1}/standards/import", json=file).json() == {"stored": 1}
    offer = client.get(f"{place}/offer").json()
    assert (offer["standard"]["version"], offer["differences"]) == (2, [])
    version = client.get(f"{V1}/projects/{campus}").json()["versions"]["building/main-laboratory"]
    body = {"text": "taken", "zone": "D3", "standard_id": listed["id"], "version": version}
    assert client.post(f"{place}/offer", json=body).status_code == 200
    assert client.get(f"{place}/offer").json() is None
    assert client.post(f"{V1}/joint-standards/{listed['id']}/withdrawal", json={}).status_code == 204
    assert client.get(f"{V1}/joint-standards").json()[0]["withdrawn"]
    assert client.post(f"{place}/standard", json={"reason": " "}).status_code == 422
    assert client.get(f"{V1}/projects/{campus}/buildings/main-laboratory/joints/none/offer").status_code == 404
    assert client.post(f"{V1}/standards/import", json={**file, "joints": 3}).json()["errors"][0]["code"] == "not_a_list"


def test_the_difference_of_two_variants_is_where_they_differ(solving: TestClient, campus: str) -> None:
    found = ask(solving, campus, "joint-difference", {"joint": {**SEAM, "other": "block"}})
    assert found["high"] > 1  # the room side of a block spline is warmer than that of lumber
    xy = np.frombuffer(base64.b64decode(found["field"]["xy"]), "<f4").reshape(-1, 2)
    theta = np.frombuffer(base64.b64decode(found["field"]["theta"]), "<f4")
    triangles = np.frombuffer(base64.b64decode(found["field"]["triangles"]), "<u4")
    far = np.abs(xy[:, 1]) > 0.8
    assert np.abs(theta[far]).max() < 0.05
    assert triangles.max() < len(xy)
    same = ask(solving, campus, "joint-difference", {"joint": {**SEAM, "other": "double lumber"}})
    assert max(-same["low"], same["high"]) < 1e-3
    problem = ask(solving, campus, "joint-difference", {"joint": SEAM}, 422)
    assert problem["errors"][0]["code"] == "nothing_to_compare"


def test_the_walk_says_every_stop_and_the_register_reads_the_same_breaks(client: TestClient, campus: str) -> None:
    building = f"/api/v1/projects/{campus}/buildings/main-laboratory"
    walk = client.get(f"{building}/walk").json()
    assert walk["breaks"] == sum(state == "broken" for stop in walk["stops"] for state in stop["lines"].values())
    ridge = next(stop for stop in walk["stops"] if stop["kind"] == "joint" and stop["left_out"])
    open_ = client.get(f"{building}/decisions").json()["decisions"]
    (same,) = [one for one in open_ if one["key"] == f"broken-{ridge['station']}-{ridge['id']}"]
    assert len(same["ways"]) == len(ridge["left_out"])
    assert all(way["note"] == way["text"] for way in same["ways"])  # none of them has a value in it
    assert all(way["thing"]["kind"] == "joint" and way["thing"]["id"] == ridge["id"] for way in same["ways"])


def test_a_drier_room_is_written_to_its_building_and_nothing_else_of_it(
    client: TestClient, campus: str, projects: ProjectService
) -> None:
    stored = projects.load(campus)
    lab = stored.project.buildings[0]
    drier = replace(stored.project.basis.indoor, added=-0.02)
    thing = way_out(WayOut(text="a drier room", changed=replace(lab, indoor=drier)), lab.id).thing
    assert thing is not None
    items = [{**thing.model_dump(), "read": stored.revision}]
    assert client.post(f"/api/v1/projects/{campus}/edit", json={"text": "drier", "items": items}).status_code == 200
    after = projects.load(campus).project
    assert after.buildings[0] == replace(lab, indoor=drier)
    assert after.buildings[1:] == stored.project.buildings[1:]
