"""The shop over the API: the cut list in truck order, bars of what is left, pieces that are cut, boards and laydown."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
from editing import write
from fastapi.testclient import TestClient

from nimble_shell.demo.heron_flats import campus as heron_flats

V1 = "/api/v1"
LAB = "main-laboratory"


def at(project: str, what: str = "shop", one: str = LAB) -> str:
    return f"{V1}/projects/{project}/buildings/{one}/{what}"


def change(client: TestClient, project: str, **shop: Any) -> int:
    found = client.get(f"{V1}/projects/{project}").json()
    lab = next(one for one in found["project"]["buildings"] if one["id"] == LAB)
    changed = {**lab, "shop": {**lab["shop"], **shop}}
    return write(client, project, "building", changed, found["revision"]).status_code


@pytest.mark.parametrize("building", [one.id for one in heron_flats().buildings])
def test_every_piece_has_its_bar_and_every_panel_its_truck(client: TestClient, campus: str, building: str) -> None:
    found = client.get(at(campus, one=building)).json()
    panels = client.get(at(campus, "setout", one=building)).json()
    marks = [one["mark"] for face in panels["faces"] for one in face["panels"]]
    assert {one["panel"] for one in found["pieces"]} == set(marks)
    loaded = [mark for truck in found["trucks"] for stack in truck["stacks"] for mark in stack]
    assert sorted(loaded) == sorted(marks)
    bars = sum(one["count"] for one in found["pieces"] if one["stuff"] == "bar")
    assert sum(len(bar["pieces"]) for section in found["sections"] for bar in section["bars"]) == bars
    assert all(not section["reason"] for section in found["sections"])
    for section in found["sections"]:
        asked = sum(one["length"] * one["count"] for one in found["pieces"]
                    if one["stuff"] == "bar" and (one["thick"], one["deep"]) == (section["thick"], section["deep"]))  # fmt: skip
        assert sum(sum(bar["lengths"]) for bar in section["bars"]) == pytest.approx(asked, abs=1e-3 * bars)
    assert found["next"] == (0 if marks else None)
    trucks = [one["truck"] for one in found["pieces"]]
    assert trucks == sorted(trucks), "truck after truck"


def test_what_is_cut_is_gone_and_an_older_set_out_is_told(client: TestClient, campus: str) -> None:
    found = client.get(at(campus)).json()
    first = next(one for one in found["pieces"] if one["stuff"] == "bar" and one["name"] == "bottom plate")
    done = {"key": first["key"], "length": first["length"], "width": first["width"], "count": first["count"]}
    assert change(client, campus, cut=[done]) == 200
    after = client.get(at(campus)).json()
    assert after["left"] == found["left"] - first["count"]
    assert next(one for one in after["pieces"] if one["key"] == first["key"])["state"] == "cut"
    before = sum(len(bar["pieces"]) for section in found["sections"] for bar in section["bars"])
    assert sum(len(bar["pieces"]) for section in after["sections"] for bar in section["bars"]) == before - 1
    assert change(client, campus, cut=[{**done, "length": done["length"] - 0.06}]) == 200
    older = next(one for one in client.get(at(campus)).json()["pieces"] if one["key"] == first["key"])
    assert (older["state"], older["was"]) == ("older", pytest.approx(first["length"] - 0.06))


def test_the_rack_is_tried_before_new_stock(client: TestClient, campus: str) -> None:
    found = client.get(at(campus)).json()
    section = found["sections"][0]
    rack = [{"length": 2.5, "thick": section["thick"], "deep": section["deep"], "count": 3}]
    assert change(client, campus, rack=rack) == 200
    after = client.get(at(campus)).json()["sections"][0]
    assert sum(bar["offcut"] for bar in after["bars"]) == 3
    new = [sum(bar["length"] for bar in one["bars"] if not bar["offcut"]) for one in (section, after)]
    assert new[1] < new[0]


def test_stock_shorter_than_a_piece_says_which(client: TestClient, campus: str) -> None:
    assert change(client, campus, bars=[1.0]) == 200
    found = client.get(at(campus)).json()["sections"][0]
    assert found["bars"] == []
    assert "longer than" in found["reason"]
    assert change(client, campus, bars=[]) == 422
    assert change(client, campus, truck_mass=1.0) == 422


def test_skins_come_out_of_raw_boards_and_packing_strips_out_of_what_is_left(client: TestClient, campus: str) -> None:
    assert change(client, campus, packers=0.1) == 200
    found = client.get(at(campus, "shop/boards")).json()
    assert found
    for one in found:
        assert one["bound"] <= one["area"] + 1e-9
        assert one["used"] <= one["bound"] + 1e-9
        parts = [part for sheet in one["sheets"] for part in sheet["parts"]]
        skins = [part for part in parts if part["panel"] != "packer"]
        assert sum(part["w"] * part["h"] for part in skins) == pytest.approx(one["used"])
        strips = [part for part in parts if part["panel"] == "packer"]
        assert strips
        assert all(sorted((part["w"], part["h"])) == pytest.approx([0.1, 0.6]) for part in strips)


def test_a_gable_panel_is_laid_down_and_checked(client: TestClient, campus: str) -> None:
    laid = client.get(at(campus)).json()["laid"]
    assert laid
    assert not {"A-04", "A-05"} & {one["panel"] for one in laid}, "a window in it leaves a rectangle"
    one = next(each for each in laid if len(each["sides"]) == 4)
    read = [*one["sides"], *(each["length"] for each in one["diagonals"])]
    asked = {"panel": one["panel"], "read": read, "tolerance": 0.003}
    good = client.post(at(campus, "shop/laydown"), json=asked).json()
    assert good["ok"]
    assert good["worst"] == pytest.approx(0.0, abs=1e-9)
    longer = client.post(
        at(campus, "shop/laydown"), json={**asked, "read": [*read[:4], read[4] + 0.008, read[5]]}
    ).json()
    assert not longer["ok"]
    assert longer["rack"] == pytest.approx(0.004)
    for wrong in ({**asked, "panel": "A-01x"}, {**asked, "read": read[:5]}, {**asked, "read": [*read[:5], 90.0]}):
        assert client.post(at(campus, "shop/laydown"), json=wrong).status_code == 422


@pytest.mark.parametrize("units", ["SI", "IP"])
def test_lists_go_out_as_csv_in_the_units_of_the_project(client: TestClient, campus: str, units: str) -> None:
    found = client.get(f"{V1}/projects/{campus}").json()
    basis = found["project"]["basis"]
    basis["schools"]["units"] = units
    assert write(client, campus, "basis", basis, found["revision"]).status_code == 200
    sheet = client.get(at(campus)).json()
    rows = list(csv.DictReader(io.StringIO(client.get(at(campus, "cut-list.csv")).content.decode("utf-8-sig"))))
    assert len(rows) == len(sheet["pieces"])
    per = 1000.0 if units == "SI" else 1 / 0.0254
    assert float(rows[0]["length"]) == pytest.approx(sheet["pieces"][0]["length"] * per, abs=1e-3)
    assert {row["unit"] for row in rows} == {"mm" if units == "SI" else "in"}
    panels = list(csv.DictReader(io.StringIO(client.get(at(campus, "panels.csv")).content.decode("utf-8-sig"))))
    assert {row["panel"] for row in rows} == {row["mark"] for row in panels}
    assert client.get(at(campus, "setout.dxf")).content.startswith(b"  0\nSECTION")
