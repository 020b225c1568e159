"""The studies over the API: figures of the core, null where there is none, refusals in words."""

from __future__ import annotations

import base64
from typing import Any

import pytest
from editing import document, write
from fastapi.testclient import TestClient

from nimble_shell.core.materials import CATALOGUE
from nimble_shell.formats.materials_csv import write_materials

V1 = "/api/v1"


def at(client: TestClient, campus: str, building: str = "main-laboratory", wall: str = "wall-w-a") -> dict[str, Any]:
    assemblies = client.get(f"{V1}/projects/{campus}").json()["project"]["assemblies"]
    return {"building_id": building, "assembly": next(one for one in assemblies if one["id"] == wall)}


def ask(client: TestClient, campus: str, what: str, body: dict[str, Any], status: int = 200) -> Any:
    reply = client.post(f"{V1}/projects/{campus}/{what}", json=body)
    assert reply.status_code == status, reply.text
    return reply.json()


@pytest.mark.parametrize(
    ("of", "figure", "symbol"),
    [
        ({"kind": "day", "month": 6, "rise": 8}, "Y12", "Y12"),
        ({"kind": "claim", "R": 5, "d": 0.16, "theta": 24, "age": "fresh"}, "remains", "share_left"),
        ({"kind": "probe", "depth": 0.1}, "coldest", "theta_x"),
        ({"kind": "probe", "chase_layer": 2, "chase_depth": 0.005, "chase_share": 0.1}, "R_clear", "R_cut_wall"),
        ({"kind": "variant", "core": "pir-core", "d": 0.2}, "payback", "t_payback"),
        ({"kind": "side", "leader": "wall-w-b"}, "R_clear", "R_clear"),
    ],
)
def test_a_figure_of_a_study_shows_its_working(
    client: TestClient, campus: str, of: dict[str, Any], figure: str, symbol: str
) -> None:
    body = {**at(client, campus), "of": of, "figure": figure}
    steps = ask(client, campus, "study-working", body)["steps"]
    assert steps[-1]["symbol"] == symbol
    assert all(step["source"] and step["text"] for step in steps)
    refusal = ask(client, campus, "study-working", {**body, "figure": "wishful"}, 422)
    assert refusal["errors"][0]["code"] == "unknown_figure"


def test_the_foam_decision_starts_from_the_systems_own_cores(client: TestClient, campus: str) -> None:
    found = ask(client, campus, "variants", at(client, campus))
    assert len(found["cores"]) == 8
    own = found["cores"][0]
    assert own["core"] == "eps-graphite"
    assert own["d"][own["present"]] == 0.185
    assert own["columns"]["payback"][own["present"]] is None
    assert found["cheapest"] is not None
    assert found["swings"][0]["money"]
    body = {**at(client, campus), "cores": ["wood-fibre-flex"]}
    assert [one["core"] for one in ask(client, campus, "variants", body)["cores"]] == [
        "eps-graphite",
        "wood-fibre-flex",
    ]
    assert ask(client, campus, "variants", {**body, "cores": ["none"]}, 422)["errors"][0]["code"] == "unknown_material"


def test_build_ups_are_brought_to_the_first_ones_R_or_thickness(client: TestClient, campus: str) -> None:
    body = {"building_id": "main-laboratory", "sides": ["wall-w-a", "wall-w-c", "site-framed-reference"]}
    drawn = ask(client, campus, "compare", body)["sides"]
    assert len({side["figures"]["R_clear"] for side in drawn}) == 3
    equal = ask(client, campus, "compare", {**body, "mode": "equal R"})["sides"]
    assert [side["figures"]["R_clear"] for side in equal] == pytest.approx(
        [drawn[0]["figures"]["R_clear"]] * 3, abs=1e-6
    )
    thick = ask(client, campus, "compare", {**body, "mode": "equal thickness"})["sides"]
    assert [side["figures"]["thickness"] for side in thick] == pytest.approx([drawn[0]["figures"]["thickness"]] * 3)
    far = {**body, "sides": ["wall-w-d", "wall-w-b"], "mode": "equal thickness"}
    assert (
        "thickness is"
        in ask(client, campus, "compare", {**far, "building_id": "sample-cold-store"})["sides"][1]["why_not"]
    )
    assert ask(client, campus, "compare", {**body, "sides": ["wall-w-a"]}, 422)["errors"][0]["code"] == "two_to_four"
    ask(client, campus, "compare", {**body, "sides": ["wall-w-a", "nothing"]}, 404)


def test_a_claim_a_day_and_a_probe_are_answered_and_refused(client: TestClient, campus: str) -> None:
    place = at(client, campus)
    found = ask(client, campus, "claim", {**place, "R": 7.0, "d": 0.185, "theta": 24, "age": "fresh"})
    assert 0 < found["remains"] < 1
    assert ask(client, campus, "claim", {**place, "R": 0, "d": 0.185}, 422)["errors"][0]["pointer"] == "#/R"
    day = ask(client, campus, "day", {**place, "month": 6, "rise": 15})
    assert len(day["outside"]) == 25
    ask(client, campus, "day", {**place, "month": 12}, 422)
    probe = ask(
        client, campus, "probe", {**place, "depth": 0.06, "chase_layer": 3, "chase_depth": 0.04, "chase_share": 0.02}
    )
    assert probe["winter"] < probe["coldest"]
    assert probe["chase"]["R_clear"] < probe["chase"]["R_without"]
    nominal = ask(client, campus, "bench", {**place, "condition": "0"})["figures"]["R_nominal"]["value"]
    assert probe["chase"]["R_there"] == pytest.approx(nominal - 0.04 / 0.031)
    assert ask(client, campus, "probe", {**place, "depth": 2}, 422)["errors"][0]["code"] == "depth_outside"


def test_a_substitution_is_recomputed(client: TestClient, campus: str) -> None:
    body = {**at(client, campus, "sample-cold-store", "wall-w-d"), "condition": "0"}
    found = ask(client, campus, "bench", body)
    assert found["R_asked_materials"] > found["figures"]["R_clear"]["value"]
    assert "substitution_open" in {remark["code"] for remark in found["remarks"]}


def test_the_planted_mistakes_are_found(client: TestClient, campus: str) -> None:
    def codes(building: str, wall: str) -> set[str]:
        found = ask(client, campus, "bench", {**at(client, campus, building, wall), "condition": "0"})
        return {remark["code"] for remark in found["remarks"]}

    assert "target_missed" in codes("main-laboratory", "wall-w-a")
    assert "services_pierce_air_line" in codes("bunkhouse", "wall-w-c")
    assert "points_between_metal" in codes("sample-cold-store", "roof-r-d")
    assert "target_missed" in codes("pump-house", "wall-w-f")
    assert client.get(f"{V1}/projects/{campus}").json()["derived"]["findings"]["snow"] == "needs an engineer"


def test_every_build_up_of_the_campus_has_figures_and_a_sheet(client: TestClient, campus: str) -> None:
    held = client.get(f"{V1}/projects/{campus}").json()["project"]
    used = [(b["id"], e["assembly_id"]) for b in held["buildings"] for e in b["elements"] if e["assembly_id"]]
    assert len(used) == len(held["assemblies"])
    for building, wall in used:
        found = ask(client, campus, "bench", {**at(client, campus, building, wall), "condition": "winter"})
        assert found["figures"]["R_clear"]["value"] > 1
        path = f"{V1}/projects/{campus}/assemblies/{wall}/sheet.pdf"
        assert client.get(path, params={"building_id": building}).content.startswith(b"%PDF")


def test_a_system_starts_only_where_it_belongs(client: TestClient, campus: str) -> None:
    start = {"building_id": "pump-house", "element_id": "e3", "system": "sip-roof", "text": ""}
    reply = client.post(f"{V1}/projects/{campus}/assemblies", json=start)
    assert reply.status_code == 422
    assert reply.json()["errors"][0]["code"] == "wrong_place"


def test_own_materials_go_in_by_csv_and_by_hand(client: TestClient, campus: str) -> None:
    held = client.get(f"{V1}/projects/{campus}").json()
    good = "key,name,family,lambda,rho,c,cost\nown-a,Own A,foam,0.03,30,1450,200\n"
    body = {"text": "CSV", "content": base64.b64encode(good.encode()).decode()}
    saved = client.post(f"{V1}/projects/{campus}/materials/csv", json=body).json()
    assert document(saved, "material", "own-a")["lambda"] == 0.03
    assert saved["derived"]["catalogue"][-1]["key"] == "own-a"
    assert "Own A" in client.get(f"{V1}/projects/{campus}/materials.csv").text
    every = client.get(f"{V1}/projects/{campus}/materials.csv", params={"every": True}).content
    assert every.count(b"\r\n") == len(CATALOGUE) + 2
    shipped = base64.b64encode(write_materials([CATALOGUE["osb"]])).decode()
    refused = client.post(f"{V1}/projects/{campus}/materials/csv", json={**body, "content": shipped})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["pointer"] == "#/line/2/key"
    renamed = {**document(saved, "material", "own-a"), "name": "Renamed"}
    assert write(client, campus, "material", renamed, held["revision"]).status_code == 409
    assert write(client, campus, "material", renamed, saved["revision"]).json()["things"][0]["document"] == renamed


def test_the_practices_rates_reach_the_figures(client: TestClient, campus: str) -> None:
    held = client.get(f"{V1}/projects/{campus}").json()
    before = ask(client, campus, "bench", {**at(client, campus), "condition": "0"})["figures"]["cost"]["value"]
    basis = held["project"]["basis"]
    basis["rates"] = [{"material": "eps-graphite", "cost": 270.0, "stock": [0.2]}]
    assert write(client, campus, "basis", basis, held["revision"]).status_code == 200
    after = ask(client, campus, "bench", {**at(client, campus), "condition": "0"})
    share = 1 - sum(after["shares"][3][1:])
    assert after["figures"]["cost"]["value"] - before == pytest.approx(0.185 * share * 135.0)
    assert [point["d"] for point in after["study"]["stock"]] == [0.2]
    basis["rates"] = [{"material": "eps-graphite", "cost": -1}]
    held = client.get(f"{V1}/projects/{campus}").json()
    bad = write(client, campus, "basis", basis, held["revision"])
    assert bad.json()["errors"][0]["code"] == "rate_negative"


def test_a_climate_file_is_read_and_a_wrong_one_names_its_line(client: TestClient) -> None:
    rows = "\n".join(f"{theta};80" for theta in range(12))
    text = base64.b64encode(f"temperature;humidity\n{rows}".encode()).decode()
    found = client.post(f"{V1}/weather", json={"name": "here.csv", "content": text}).json()
    assert found["climate"]["theta_e"] == [float(theta) for theta in range(12)]
    bad = client.post(f"{V1}/weather", json={"name": "x.epw", "content": base64.b64encode(b"LOCATION,x").decode()})
    assert bad.status_code == 422
    assert bad.json()["errors"][0]["pointer"].startswith("#/line/")


def test_standards_over_the_api(client: TestClient, campus: str) -> None:
    kept = client.post(f"{V1}/projects/{campus}/assemblies/wall-w-a/standard", json={"place": "wall", "reason": "good"})
    assert kept.status_code == 201
    (standard,) = client.get(f"{V1}/standards").json()
    assert standard["uses"][0]["name"] == "Wall W-A"
    use = {"building_id": "pump-house", "element_id": "e3", "standard_id": standard["id"], "text": "used"}
    assert client.post(f"{V1}/projects/{campus}/standards", json=use).status_code == 201
    assert client.get(f"{V1}/projects/{campus}/assemblies/wall-w-a/offer").json() is None
    file = client.get(f"{V1}/standards.json").json()
    assert client.post(f"{V1}/standards/import", json=file).json() == {"stored": 0}
    assert client.post(f"{V1}/standards/{standard['id']}/withdrawal", json={}).status_code == 204
    assert client.get(f"{V1}/standards").json()[0]["withdrawn"] is True
    assert client.post(f"{V1}/standards/none/withdrawal", json={}).status_code == 404
