"""The API through the application on a real SQLite file: what a window can do, and what it is told."""

from __future__ import annotations

from typing import Any

import pytest
from editing import document, write
from fastapi.testclient import TestClient

from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.working import value_of
from nimble_shell.formats.project import AssemblyDoc, BasisDoc

V1 = "/api/v1"


def project(client: TestClient, project_id: str) -> dict[str, Any]:
    reply = client.get(f"{V1}/projects/{project_id}")
    assert reply.status_code == 200
    body: dict[str, Any] = reply.json()
    return body


def bench(client: TestClient, project_id: str, assembly: dict[str, Any], **more: Any) -> Any:
    body = {"building_id": "main-laboratory", "condition": "0", "assembly": assembly, **more}
    return client.post(f"{V1}/projects/{project_id}/bench", json=body)


def test_the_bench_gives_the_cores_own_figures(client: TestClient, campus: str) -> None:
    held = project(client, campus)["project"]
    assembly = held["assemblies"][0]
    found = bench(client, campus, assembly).json()
    core = wall_figures(
        AssemblyDoc.model_validate(assembly).to_core(), CATALOGUE, BasisDoc.model_validate(held["basis"]).to_core(), "0"
    )
    assert {key: figure["value"] for key, figure in found["figures"].items()} == {
        key: value_of(figure.number) for key, figure in core.figures.items()
    }
    assert found["remarks"][0]["weight"] == "decision"
    assert found["study"]["d_asked"] > 0.185


def test_a_draft_previews_in_the_ledger_and_saves_nothing(client: TestClient, campus: str) -> None:
    before = project(client, campus)
    draft = before["project"]["assemblies"][0]
    draft["layers"][3]["d"] = 0.285
    found = bench(client, campus, draft).json()["consequence"]
    assert found["preview"] is True
    assert found["now"]["H"] < found["before"]["H"]
    assert project(client, campus)["revision"] == before["revision"]


def test_after_a_save_the_ledger_tells_what_undo_would_take_back(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    draft = held["project"]["assemblies"][0]
    draft["layers"][3]["d"] = 0.235
    read = held["versions"]["assembly/wall-w-a"]
    saved = write(client, campus, "assembly", draft, read, text="Core 185 to 235 mm", zone="D2").json()
    assert saved["undo"]["text"] == "Core 185 to 235 mm"
    ledger = client.get(f"{V1}/projects/{campus}/buildings/main-laboratory/ledger").json()
    assert ledger["preview"] is False
    assert ledger["now"]["R_effective"] > ledger["before"]["R_effective"]
    undone = client.post(f"{V1}/projects/{campus}/undo", json={"number": saved["undo"]["number"]}).json()
    assert document(undone, "assembly", "wall-w-a")["layers"][3]["d"] == 0.185
    redone = client.post(f"{V1}/projects/{campus}/redo", json={"number": undone["redo"]["number"]}).json()
    assert document(redone, "assembly", "wall-w-a")["layers"][3]["d"] == 0.235
    texts = [change["text"] for change in client.get(f"{V1}/projects/{campus}/changes").json()]
    assert texts[0] == "Core 185 to 235 mm"


def test_the_second_window_is_told(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    draft = held["project"]["assemblies"][0]
    read = held["versions"]["assembly/wall-w-a"]
    assert write(client, campus, "assembly", {**draft, "note": "mine"}, read).status_code == 200
    second = write(client, campus, "assembly", {**draft, "note": "theirs"}, read)
    assert second.status_code == 409
    assert second.headers["content-type"] == "application/problem+json"
    assert second.json()["errors"][0]["code"] == "stale"
    assert "nothing was overwritten" in second.json()["hint"]


@pytest.mark.parametrize("figure", ["R_clear", "R_winter_clear", "weight", "d_core", "spare_at_4", "f_rsi"])
def test_working_ends_in_the_shown_figure(client: TestClient, campus: str, figure: str) -> None:
    assembly = project(client, campus)["project"]["assemblies"][0]
    body = {"building_id": "main-laboratory", "condition": "0", "figure": figure, "assembly": assembly}
    steps = client.post(f"{V1}/projects/{campus}/working", json=body).json()["steps"]
    found = bench(client, campus, assembly).json()
    shown = found["study"]["d_asked"] if figure == "d_core" else found["figures"][figure]["value"]
    assert steps[-1]["value"] == pytest.approx(shown, rel=1e-12)


@pytest.mark.parametrize("figure", ["H_shell", "R_effective", "f_rsi_lowest", "H_e2"])
def test_working_of_the_ledger_ends_in_its_cell(client: TestClient, campus: str, figure: str) -> None:
    body = {"building_id": "main-laboratory", "figure": figure}
    steps = client.post(f"{V1}/projects/{campus}/working", json=body).json()["steps"]
    ledger = client.get(f"{V1}/projects/{campus}/buildings/main-laboratory/ledger").json()["now"]
    shown = {
        "H_shell": ledger["H"],
        "R_effective": ledger["R_effective"],
        "f_rsi_lowest": ledger["lowest"]["f_rsi"],
        "H_e2": ledger["lines"][1]["H"],
    }
    assert steps[-1]["value"] == pytest.approx(shown[figure], rel=1e-12)


def test_a_basis_change_reaches_every_figure(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    assembly, basis = held["project"]["assemblies"][0], held["project"]["basis"]
    before = bench(client, campus, assembly).json()
    basis["schools"]["bridged"] = "isothermal"
    basis["indoor"]["theta_heating"] = 22.0
    assert write(client, campus, "basis", basis, held["revision"]).status_code == 200
    after = bench(client, campus, assembly).json()
    assert after["figures"]["R_clear"]["value"] == after["figures"]["R_isothermal"]["value"]
    assert after["profile"]["condition"]["theta_i"] == 22.0
    assert after["consequence"]["now"]["H"] > before["consequence"]["now"]["H"]


def test_export_and_import_lose_nothing(client: TestClient, campus: str) -> None:
    exported = client.get(f"{V1}/projects/{campus}/file")
    assert "attachment" in exported.headers["content-disposition"]
    brought = client.post(f"{V1}/projects/import", json=exported.json())
    assert brought.status_code == 201
    copy = brought.json()["project"]["id"]
    again = client.get(f"{V1}/projects/{copy}/file").json()
    again["project"]["id"] = campus
    assert again == exported.json()


def test_the_shelf_holds_what_ships(client: TestClient) -> None:
    shipped = client.get(f"{V1}/shipped").json()
    assert len(shipped["materials"]) >= 60
    assert {system["kind"] for system in shipped["systems"]} == set(range(1, 13))
    assert {system["place"] for system in shipped["systems"]} == {"wall", "roof", "floor"}
    assert all(material["hatch"] in shipped["hatches"] for material in shipped["materials"])


def test_a_new_project_begins_with_one_building(client: TestClient) -> None:
    made = client.post(f"{V1}/projects", json={"name": "A <b>bold</b> name & more"})
    assert made.status_code == 201
    assert made.json()["project"]["name"] == "A <b>bold</b> name & more"
    assert len(made.json()["project"]["buildings"]) == 1
    building = made.json()["project"]["buildings"][0]
    ledger = client.get(f"{V1}/projects/{made.json()['project']['id']}/buildings/{building['id']}/ledger").json()
    assert ledger["now"]["H"] is None


def test_an_empty_building_can_be_filled_and_started(client: TestClient) -> None:
    made = client.post(f"{V1}/projects", json={"name": "New"}).json()
    project_id, building = made["project"]["id"], made["project"]["buildings"][0]
    building["elements"] = [{"id": "w", "station": "D", "name": "Wall", "area": 80.0}]
    assert write(client, project_id, "building", building, made["revision"]).status_code == 200
    start = {
        "building_id": building["id"],
        "element_id": "w",
        "system": "icf",
        "text": "ICF",
        "values": {"outer": 0.102},
    }
    begun = client.post(f"{V1}/projects/{project_id}/assemblies", json=start)
    assert begun.status_code == 201
    kinds = {one["kind"]: one for one in begun.json()["things"]}
    assert set(kinds) == {"assembly", "fixing", "element"} - ({"fixing"} - set(kinds))
    assert kinds["assembly"]["document"]["system"] == "icf"
    assert kinds["element"]["document"]["assembly_id"] == kinds["assembly"]["id"]


def test_a_deleted_project_is_told_and_can_be_brought_back(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    assert client.delete(f"{V1}/projects/{campus}").status_code == 204
    draft = {**held["project"]["assemblies"][0], "note": "too late"}
    late = write(client, campus, "assembly", draft, 2)
    assert late.status_code == 404
    assert late.json()["errors"][0]["code"] == "project_not_found"
    assert "bring it back" in late.json()["hint"]
    assert client.post(f"{V1}/projects/{campus}/restore").status_code == 200
    assert write(client, campus, "assembly", draft, 2).status_code == 200


def test_removals_go_by_version_and_name_their_users(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    removal = {"version": held["versions"]["assembly/wall-w-c"], "text": "gone"}
    address = f"{V1}/projects/{campus}/assemblies/wall-w-c/removal"
    refused = client.post(address, json=removal)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["code"] == "in_use"
    assert "Bunkhouse: Window jambs" in refused.json()["errors"][0]["detail"]
    gone = client.post(address, json={**removal, "users": "take along"}).json()
    assert document(gone, "assembly", "wall-w-c") is None
    assert project(client, campus)["revision"] == held["revision"] + 1
    stale = write(client, campus, "building", None, 1, one="bunkhouse")
    assert stale.status_code == 409
    assert write(client, campus, "building", None, 1, one="shed").status_code == 404


def test_a_save_answers_what_it_wrote_and_what_the_window_missed(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    joint = held["project"]["buildings"][0]["joints"][0]
    one = write(client, campus, "joint", {**joint, "length": 5.0}, held["revision"], owner="main-laboratory")
    assert [(each["kind"], each["id"]) for each in one.json()["things"]] == [("joint", joint["id"])]
    assert len(one.content) < 2500
    other = held["project"]["buildings"][1]["elements"][0]
    item = {"kind": "element", "owner": "boat-workshop", "id": other["id"], "read": held["revision"],
            "document": {**other, "area": 99.0}}  # fmt: skip
    body = {"text": "area", "items": [item]}
    late = client.post(f"{V1}/projects/{campus}/edit", params={"since": held["revision"]}, json=body).json()
    assert {each["kind"] for each in late["things"]} == {"joint", "element"}
    assert client.get(f"{V1}/projects/{campus}/delta", params={"since": late["revision"]}).json()["things"] == []


def test_two_joints_of_a_building_are_edited_side_by_side(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    first, second = held["project"]["buildings"][0]["joints"][:2]
    for joint in (first, second):
        reply = write(client, campus, "joint", {**joint, "length": 7.0}, held["revision"], owner="main-laboratory")
        assert reply.status_code == 200
    again = write(client, campus, "joint", {**first, "length": 8.0}, held["revision"], owner="main-laboratory")
    assert again.status_code == 409


def test_an_edit_is_refused_whole_and_at_its_place(client: TestClient, campus: str) -> None:
    held = project(client, campus)
    element = held["project"]["buildings"][0]["elements"][0]
    items = [
        {"kind": "element", "owner": "main-laboratory", "id": element["id"], "read": held["revision"],
         "document": {**element, "area": 50.0}},
        {"kind": "element", "owner": "main-laboratory", "id": "e2", "read": held["revision"],
         "document": {**element, "id": "e2", "area": -1.0}},
    ]  # fmt: skip
    refused = client.post(f"{V1}/projects/{campus}/edit", json={"text": "areas", "items": items})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["pointer"] == "#/items/1/document/area"
    assert project(client, campus) == held
    for item, code in (
        ({"kind": "storey", "id": "x", "document": {}}, "unknown_kind"),
        (
            {"kind": "element", "owner": "none", "id": "e2", "document": items[1]["document"] | {"area": 1.0}},
            "no_such_thing",
        ),
        ({"kind": "element", "owner": "main-laboratory", "id": "e9", "document": element}, "id_differs"),
    ):
        reply = client.post(f"{V1}/projects/{campus}/edit", json={"text": "x", "items": [item]})
        assert (reply.status_code, reply.json()["errors"][0]["code"]) == (422, code)


def test_a_system_is_previewed_with_some_of_its_parameters(client: TestClient) -> None:
    start = next(one for one in client.get(f"{V1}/shipped").json()["systems"] if one["key"] == "icf")
    thicker = client.post(f"{V1}/systems/icf/preview", json={"values": {"outer": 0.15}}).json()
    assert thicker["figures"]["thickness"] == pytest.approx(start["figures"]["thickness"] + 0.08)
    assert thicker["figures"]["R_clear"] > start["figures"]["R_clear"] + 1.5
    assert client.post(f"{V1}/systems/icf/preview", json={"values": {}}).json()["figures"] == start["figures"]
    refused = client.post(f"{V1}/systems/icf/preview", json={"values": {"outer": 9.0}})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["pointer"].endswith("/values/outer")
    assert client.post(f"{V1}/systems/nothing/preview", json={}).status_code == 404
