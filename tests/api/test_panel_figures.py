"""What panels leave open, how their figures are made, and what a tape, a filler and a maker are told."""

from __future__ import annotations

import io
from typing import Any

import pytest
from editing import write
from fastapi.testclient import TestClient
from openpyxl import load_workbook

V1 = "/api/v1"
LAB = "main-laboratory"


def at(project: str, what: str, one: str = LAB) -> str:
    return f"{V1}/projects/{project}/buildings/{one}/{what}"


def change(client: TestClient, project: str, building: str, part: str, **values: Any) -> Any:
    found = client.get(f"{V1}/projects/{project}").json()
    one = next(each for each in found["project"]["buildings"] if each["id"] == building)
    return write(client, project, "building", {**one, part: {**one[part], **values}}, found["revision"])


def open_in(client: TestClient, project: str, building: str) -> dict[str, dict[str, Any]]:
    found = client.get(f"{V1}/projects/{project}/buildings/{building}/decisions").json()
    return {one["key"]: one for one in found["decisions"] if one["matter"] == "set-out"}


def work(client: TestClient, project: str, figure: str, of: str, one: str = LAB) -> Any:
    answer = client.post(at(project, "panel-working", one), json={"figure": figure, "of": of})
    assert answer.status_code == 200, answer.text
    return answer.json()["steps"]


def test_every_figure_opens_to_a_working_that_ends_in_it(client: TestClient, campus: str) -> None:
    found = client.get(at(campus, "setout")).json()
    for face in found["faces"]:
        steps = work(client, campus, "joints", face["face"])
        assert steps[-1]["value"] == pytest.approx(face["sum"]["member_length"])
        assert work(client, campus, "plates", face["face"])[-1]["value"] == pytest.approx(face["bottom"] + face["top"])
        assert work(client, campus, "waste", face["face"])[-1]["value"] == pytest.approx(face["sum"]["waste"])
    panel = found["faces"][0]["panels"][3]
    assert work(client, campus, "mass", panel["mark"])[-1]["value"] == pytest.approx(panel["mass"])
    card = client.get(at(campus, "shop/panel"), params={"mark": panel["mark"]}).json()
    assert work(client, campus, "turn", panel["mark"])[-1]["value"] == pytest.approx(card["weight"]["turn"])
    for row in found["thermal"]:
        assert work(client, campus, "R", row["assembly"])[-1]["value"] == pytest.approx(row["R"])
        assert work(client, campus, "timber", row["assembly"])[-1]["value"] == pytest.approx(row["timber"])
    for asked in ({"figure": "sum", "of": "b1.1"}, {"figure": "joints", "of": "b9.9"}, {"figure": "mass", "of": "Z-1"}):
        answer = client.post(at(campus, "panel-working"), json=asked)
        assert answer.status_code == 422, answer.text


def test_every_edge_of_a_panel_says_what_is_built_there(client: TestClient, campus: str) -> None:
    found = client.get(at(campus, "setout")).json()["faces"]
    wall, roof = found[0], next(one for one in found if one["kind"] == "roof")
    first, last = wall["panels"][0], wall["panels"][5]
    assert (first["left"], first["right"]) == ("Outer corners: lumber", "post")
    assert (last["left"], last["right"]) == ("spline", "Outer corners: lumber")
    assert first["foot"] == "Wall on slab: no edge foam"
    assert first["head"] == "", "between storeys"
    assert wall["panels"][-1]["head"] == "Eave: overhang"
    assert {one["head"] for one in roof["panels"]} == {"Ridge: panel to panel"}
    assert {one["foot"] for one in roof["panels"]} == {"Eave: overhang"}


def test_beads_open_to_their_working(client: TestClient, campus: str) -> None:
    (roof, *_) = client.get(at(campus, "shop/filling", "bunkhouse")).json()
    steps = work(client, campus, "beads", roof["assembly"], "bunkhouse")
    assert steps[-1]["value"] == pytest.approx(roof["blown"])
    assert sum(one["blown"] for one in roof["panels"]) == pytest.approx(roof["blown"])
    assert roof["bags"] == -(-roof["blown"] // 0.25)
    assert client.get(at(campus, "shop/filling")).json() == []


def test_mistakes_of_the_campus_stand_in_the_register_until_they_are_mended(client: TestClient, campus: str) -> None:
    lab, store, beds = (open_in(client, campus, one) for one in (LAB, "sample-cold-store", "bunkhouse"))
    assert (lab["square-B-06"]["step"], lab["square-B-06"]["view"]) == (8, "laydown")
    assert store["pins-b1.1"]["text"] == "Face A: its pinned joints cost 1 panel"
    assert "There is no crane" in beds["by-hand"]["text"]
    way = store["pins-b1.1"]["ways"][0]["thing"]
    revision = client.get(f"{V1}/projects/{campus}").json()["revision"]
    assert write(client, campus, way["kind"], way["document"], revision).status_code == 200
    assert open_in(client, campus, "sample-cold-store") == {}
    assert change(client, campus, "bunkhouse", "setout", crane=True).status_code == 200
    assert "by-hand" not in open_in(client, campus, "bunkhouse")
    assert change(client, campus, LAB, "shop", tolerance=0.01).status_code == 200
    assert "square-B-06" not in open_in(client, campus, LAB)


def test_what_meets_a_joint_or_cannot_be_set_out_is_open(client: TestClient, campus: str) -> None:
    bad = [{"name": "HD9", "kind": "hold_down", "face": "b1.2", "at": [1.2]}]
    assert change(client, campus, LAB, "setout", anchors=bad).status_code == 200
    found = open_in(client, campus, LAB)
    assert "HD9" in found["anchors-b1.2"]["text"]
    assert change(client, campus, LAB, "setout", heaviest=5.0).status_code == 200
    assert {"face-b1.1", "face-b1.roof1"} <= set(open_in(client, campus, LAB))


def test_a_sum_that_lacks_a_face_says_so(client: TestClient, campus: str) -> None:
    """A joint is pinned beyond a roof: nothing over all faces is told as whole."""
    beyond = [{"face": "b1.roof1", "u": 99.0, "storey": 0}]
    before = client.get(at(campus, "setout")).json()
    assert (before["lacking"], before["screws"]) == ([], sum(one["screws"] for one in before["faces"]))
    assert change(client, campus, LAB, "setout", pins=beyond).status_code == 200
    after = client.get(at(campus, "setout")).json()
    assert after["lacking"] == ["R1"]
    assert (after["screws"], after["boxes"]) == (None, None)
    assert client.get(at(campus, "shop")).json()["lacking"] == ["R1"]
    book = load_workbook(io.BytesIO(client.get(at(campus, "lists.xlsx")).content))
    assert [row[0] for row in book["Lacking"].iter_rows(min_row=2, values_only=True)] == ["R1"]
    assert change(client, campus, "bunkhouse", "setout", pins=beyond).status_code == 200
    (roof, *_) = client.get(at(campus, "shop/filling", "bunkhouse")).json()
    assert roof["lacking"] == ["R1"]


def test_the_tape_reads_what_lies_on_the_bed(client: TestClient, campus: str) -> None:
    """Always the same, racked: its readings contradict one another by no more than a tape errs."""
    read = client.post(at(campus, "shop/tape"), json={"panel": "D-06"}).json()["read"]
    assert read == client.post(at(campus, "shop/tape"), json={"panel": "D-06"}).json()["read"]
    said = client.post(at(campus, "shop/laydown"), json={"panel": "D-06", "read": read, "tolerance": 0.003}).json()
    assert not said["misread"]
    assert said["ok"] == (said["worst"] <= 0.003)
    assert client.post(at(campus, "shop/tape"), json={"panel": "A-01"}).status_code == 200
    assert client.post(at(campus, "shop/tape"), json={"panel": "B-08"}).status_code == 422
    assert client.post(at(campus, "shop/tape"), json={"panel": "none"}).status_code == 422


@pytest.mark.parametrize(
    ("file", "kind", "begins"),
    [
        ("setout.pdf", "application/pdf", b"%PDF"),
        ("labels.pdf", "application/pdf", b"%PDF"),
        ("nesting.pdf", "application/pdf", b"%PDF"),
        ("lists.xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", b"PK"),
        ("setout.svg?face=b1.1", "image/svg+xml", b"<svg"),
    ],
)
def test_papers_come_as_files(client: TestClient, campus: str, file: str, kind: str, begins: bytes) -> None:
    answer = client.get(at(campus, file, "sample-cold-store"))
    assert answer.status_code == 200
    assert answer.headers["content-type"].startswith(kind)
    assert "attachment" in answer.headers["content-disposition"]
    assert answer.content.startswith(begins)
    assert client.get(at(campus, "setout.svg"), params={"face": "none"}).status_code == 422
