"""The shape over the API: drafts, a project from one sheet, schedules and files of others."""

from __future__ import annotations

import base64
import csv
import io
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

V1 = "/api/v1"
LAB = "main-laboratory"
FILES = Path(__file__).parents[1] / "formats"


def building(client: TestClient, project: str, one: str = LAB) -> dict[str, Any]:
    found = client.get(f"{V1}/projects/{project}").json()["project"]["buildings"]
    return next(each for each in found if each["id"] == one)


def at(project: str, what: str, one: str = LAB) -> str:
    return f"{V1}/projects/{project}/buildings/{one}/{what}"


def encoded(path: Path) -> str:
    return base64.b64encode(path.read_bytes()).decode()


def test_a_draft_is_answered_beside_what_stands_and_nothing_is_saved(client: TestClient, campus: str) -> None:
    body = building(client, campus)["bodies"][0]
    wider = {**body, "outline": [[0, 0], [12, 0], [12, 8.7], [0, 8.7]]}
    found = client.post(at(campus, "shape"), json={"bodies": [wider]}).json()
    now, before = ({one["id"]: one["value"] for one in found[key]["areas"]} for key in ("now", "before"))
    assert now["e5"] == pytest.approx(12 * 8.7)
    assert before["e5"] == pytest.approx(12 * 8.4)
    assert found["consequence"]["preview"]
    (side,) = [one for one in found["now"]["sides"] if one["side"] == 1]
    assert (side["fit"]["whole"], side["quarters"]) == (7, 1)
    assert side["fit"]["left_over"] == pytest.approx(0.3)
    assert side["fit"]["closes"] == pytest.approx([8.4, 9.6])
    assert building(client, campus)["bodies"][0] == body
    assert client.post(at(campus, "shape"), json={}).json()["before"] is None


@pytest.mark.parametrize(
    ("outline", "code"),
    [
        ([[0, 0], [12, 8.4], [12, 0], [0, 8.4]], "footprint_crosses"),
        ([[0, 0], [12, 0], [12, 0], [0, 8.4]], "side_out_of_range"),
        ([[0, 0], [12000, 0], [12000, 8400], [0, 8400]], "side_out_of_range"),
        ([[0, 0], [12, 0]], "too_few_corners"),
    ],
)
def test_a_plan_that_closes_nothing_is_refused_where_it_is(
    client: TestClient, campus: str, outline: list[list[float]], code: str
) -> None:
    body = {**building(client, campus)["bodies"][0], "outline": outline}
    answer = client.post(at(campus, "shape"), json={"bodies": [body]})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["code"] == code
    assert answer.json()["errors"][0]["pointer"].startswith("#/bodies/0/outline")


def test_openings_that_leave_or_overlap_are_refused(client: TestClient, campus: str) -> None:
    openings = building(client, campus)["openings"]
    for change, code in (({"u": 11.5}, "opening_outside"), ({"u": 3.0}, "openings_overlap")):
        moved = [{**one, **change} if one["id"] == "w1" else one for one in openings]
        answer = client.post(at(campus, "shape"), json={"openings": moved})
        assert answer.status_code == 422
        assert code in {one["code"] for one in answer.json()["errors"]}


def test_a_body_and_its_openings_are_edited_one_by_one(client: TestClient, campus: str) -> None:
    opening = {**building(client, campus)["openings"][0], "u": 1.3}
    revision = client.get(f"{V1}/projects/{campus}").json()["revision"]
    item = {"kind": "opening", "owner": LAB, "id": opening["id"], "read": revision, "document": opening}
    answer = client.post(f"{V1}/projects/{campus}/edit", json={"text": "moved", "zone": "1", "items": [item]})
    assert [one["kind"] for one in answer.json()["things"]] == ["opening"]
    orphan = {**item, "document": {**opening, "body": "gone"}, "read": answer.json()["revision"]}
    refused = client.post(f"{V1}/projects/{campus}/edit", json={"text": "moved", "zone": "1", "items": [orphan]})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["code"] == "unknown_side"


def test_a_project_begins_with_its_whole_shell(client: TestClient) -> None:
    asked = {"name": "Shore", "plan": "L", "wide": 9.0, "arm": 5.0, "form": "hip", "storeys": [2.7, 2.6]}
    made = client.post(f"{V1}/projects/begin", json=asked)
    assert made.status_code == 201
    (found,) = made.json()["project"]["buildings"]
    families = {one["family"] for one in found["joints"]}
    assert families >= {"hip", "valley", "ridge", "eave", "corner", "inner corner", "floor line", "base", "opening"}
    assert all(one["length"] == 0 for one in found["joints"])
    shape = client.post(at(made.json()["project"]["id"], "shape", found["id"]), json={}).json()
    assert all(one["joint"] for one in shape["now"]["edges"])
    glass = next(one["value"] for one in shape["now"]["areas"] if one["id"] == "windows")
    assert glass == pytest.approx((0.2 * 12 + 0.1 * (42 - 12)) * 5.3, rel=0.02)


@pytest.mark.parametrize(
    ("change", "pointer"),
    [({"plan": "U", "arm": 7.0}, "footprint"), ({"wall": "sip-roof"}, "wall"), ({"glazing": [0.9]}, "glazing"),
     ({"ridge": -1.0}, "ridge"), ({"storeys": [40.0]}, "storeys"), ({"points": [[0, 0], [9, 9]]}, "footprint")],
)  # fmt: skip
def test_a_beginning_is_refused_at_its_field(client: TestClient, change: dict[str, Any], pointer: str) -> None:
    answer = client.post(f"{V1}/projects/begin", json={"name": "Shore", **change})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["pointer"].startswith(f"#/{pointer}")


def test_joints_for_each_edge_and_quantities_given_back(client: TestClient, campus: str) -> None:
    note = {"text": "all", "zone": "1"}
    assert client.post(at(campus, "shape/joints", "bunkhouse"), json=note).status_code == 200
    found = client.post(at(campus, "shape", "bunkhouse"), json={}).json()["now"]
    assert all(one["joint"] for one in found["edges"])
    elements = [{**one, "area": 50.0} for one in building(client, campus)["elements"]]
    revision = client.get(f"{V1}/projects/{campus}").json()["revision"]
    items = [{"kind": "element", "owner": LAB, "id": one["id"], "read": revision, "document": one} for one in elements]
    client.post(f"{V1}/projects/{campus}/edit", json={"text": "typed", "zone": "1", "items": items})
    assert client.post(at(campus, "shape/followed"), json=note).status_code == 200
    assert all(one["area"] == 0 for one in building(client, campus)["elements"])


def test_a_schedule_goes_out_and_in_again_and_a_wrong_one_changes_nothing(client: TestClient, campus: str) -> None:
    before = building(client, campus)["openings"]
    content = base64.b64encode(client.get(at(campus, "openings.csv")).content).decode()
    body = {"content": content, "text": "schedule", "zone": "1"}
    assert client.post(at(campus, "openings/csv"), json=body).status_code == 200
    assert building(client, campus)["openings"] == before
    added = "wall,mark,width [mm],height [mm],sill [mm],from left [mm]\nEast,W99,600,600,900,6500\n"
    body["content"] = base64.b64encode(added.encode()).decode()
    assert client.post(at(campus, "openings/csv"), json=body).status_code == 200
    (new,) = [one for one in building(client, campus)["openings"] if one["mark"] == "W99"]
    assert (new["side"], new["u"], new["zone"]) == (1, 6.5, "e3")
    body["content"] = base64.b64encode(added.replace("East", "Attic").encode()).decode()
    answer = client.post(at(campus, "openings/csv"), json=body)
    assert answer.status_code == 422
    assert "line 2, column wall" in answer.json()["errors"][0]["detail"]
    assert len(building(client, campus)["openings"]) == len(before) + 1


def test_a_model_is_read_and_its_walls_find_their_sides(client: TestClient, campus: str) -> None:
    path = next((FILES / "reading" / "ifc").glob("i1_*"))
    found = client.post(at(campus, "reading"), json={"name": path.name, "content": encoded(path)}).json()
    assert {one["name"]: one["side"] for one in found["walls"]}["W-east"] == ""  # 6.6 m against 8.4 m
    assert found["unit"] == "mm"
    asked = next((FILES / "reading" / "dxf").glob("a4_*"))
    answer = client.post(at(campus, "reading"), json={"name": asked.name, "content": encoded(asked)})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["proposed"] == "mm"


@pytest.mark.parametrize(("units", "symbol", "factor"), [("SI", "m²", 1.0), ("IP", "ft²", 1 / 0.3048**2)])
def test_quantities_go_out_in_the_units_of_the_project(
    client: TestClient, campus: str, units: str, symbol: str, factor: float
) -> None:
    held = client.get(f"/api/v1/projects/{campus}").json()
    basis = held["project"]["basis"]
    document = {**basis, "schools": {**basis["schools"], "units": units}}
    item = {"kind": "basis", "owner": "", "id": "", "read": held["revision"], "document": document}
    edit = {"text": "units", "zone": "1", "items": [item]}
    assert client.post(f"/api/v1/projects/{campus}/edit", json=edit).status_code == 200
    content = client.get(at(campus, "quantities.csv")).content
    rows = list(csv.DictReader(io.StringIO(content.decode())))
    sheet = client.post(at(campus, "shape"), json={}).json()["now"]
    walls = next(one for one in rows if one["what"] == "element" and one["name"] == "Wall W-A")
    assert (walls["unit"], walls["from"]) == (symbol, "derived")
    assert float(walls["value"]) == pytest.approx(sheet["areas"][1]["value"] * factor, abs=1e-3)
    south = [one for one in rows if one["what"] == "face" and one["name"] == "b1.1"]
    assert {one["quantity"]: float(one["value"]) for one in south}["bearing"] == 180
    assert sum(1 for one in rows if one["what"] == "opening" and one["quantity"] == "width") == 20
    assert any("B'" in one["quantity"] for one in rows)


def test_a_model_draws_a_building_that_has_no_shape_and_what_is_taken_knows_its_file(
    client: TestClient, campus: str
) -> None:
    held = client.get(f"/api/v1/projects/{campus}").json()
    elements = [
        {"id": "e1", "station": "B", "name": "Roof", "assembly_id": "roof-r-a"},
        {"id": "e2", "station": "D", "name": "Walls", "assembly_id": "wall-w-a"},
        {"id": "e3", "station": "E", "name": "Windows", "U": 0.9},
        {"id": "e5", "station": "H", "name": "Slab", "U": 0.2},
    ]
    known = {one["id"] for one in held["project"]["assemblies"]}
    for one in elements:
        if one.get("assembly_id") not in known:
            one.pop("assembly_id", None)
    empty = {"id": "hut", "name": "Hut", "elements": elements}
    item = {"kind": "building", "owner": "", "id": "hut", "read": None, "document": empty}
    saved = client.post(f"/api/v1/projects/{campus}/edit", json={"text": "hut", "zone": "1", "items": [item]})
    assert saved.status_code == 200, saved.text
    path = next((FILES / "reading" / "ifc").glob("i1_*"))
    file = {"name": path.name, "content": encoded(path)}
    found = client.post(at(campus, "reading", "hut"), json=file).json()
    assert found["body"]["outline"][1] == pytest.approx([9.6, 0.0])
    assert sorted(len(one["openings"]) for one in found["walls"] if one["side"]) == [0, 2, 2, 3]
    opening = found["walls"][0]["openings"][0]
    openings = [{"id": "r1", "body": "b1", "side": int(found["walls"][0]["side"][-1]), "zone": "e3", "source": path.name,
                 **{key: opening[key] for key in ("u", "sill", "w", "h", "kind")}}]  # fmt: skip
    draft = {"bodies": [found["body"]], "openings": openings, "north": found["north"]}
    sheet = client.post(at(campus, "shape", "hut"), json=draft).json()["now"]
    areas = {one["id"]: one for one in sheet["areas"]}
    assert (areas["e2"]["origin"], areas["e2"]["source"]) == ("read", path.name)
    draft["bodies"] = [{**found["body"], "storeys": [3.0], "source": ""}]
    changed = client.post(at(campus, "shape", "hut"), json=draft).json()["now"]["areas"]
    assert {one["id"]: one["origin"] for one in changed}["e2"] == "derived"


def test_a_newer_file_says_what_it_has_otherwise(client: TestClient, campus: str) -> None:
    path = next((FILES / "reading" / "ifc").glob("i1_*"))
    found = client.post(at(campus, "reading"), json={"name": path.name, "content": encoded(path)}).json()
    assert found["body"] is None
    assert any("its plan has" in one for one in found["differences"])


def test_layers_of_a_drawing_are_told_and_chosen(client: TestClient, campus: str) -> None:
    path = next((FILES / "reading" / "dxf").glob("a1_*"))
    asked = {"name": path.name, "content": encoded(path)}
    found = client.post(at(campus, "reading"), json=asked).json()
    openings = next(one["name"] for one in found["layers"] if one["holds"] == "openings")
    chosen = client.post(at(campus, "reading"), json={**asked, "layers": {openings: "nothing"}}).json()
    assert [len(one["openings"]) for one in chosen["walls"]] == [0]
    wrong = client.post(at(campus, "reading"), json={**asked, "layers": {openings: "roofs"}})
    assert wrong.status_code == 422
