"""The neutral shop file: every kind through the command line, and every way a file can be wrong."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import pytest
from core.shop.comes_apart import comes_apart
from typer.testing import CliRunner, Result

from nimble_shell.cli import app
from nimble_shell.references.setout import case


def run(tmp_path: Path, given: Any) -> Result:
    file = tmp_path / "case.json"
    file.write_text(json.dumps(given))
    return CliRunner().invoke(app, ["shop", str(file)])


def answer(tmp_path: Path, given: Any) -> Any:
    done = run(tmp_path, given)
    assert done.exit_code == 0, done.stderr
    return json.loads(done.stdout)


def item(tmp_path: Path, **given: Any) -> Any:
    return answer(tmp_path, {"kind": "quantities", "items": [given]})["items"][0]


def test_bars(tmp_path: Path) -> None:
    given = case("shop_bars")
    found = answer(tmp_path, given)
    assert (found["status"], found["objective"]) == ("optimal", given["reference"]["objective"])
    for bar in found["bars"]:
        assert set(bar) == {"section", "length", "offcut", "times", "lengths", "remnant"}
        rest = bar["length"] - sum(bar["lengths"]) - 3 * len(bar["lengths"])
        assert bar["remnant"] == pytest.approx(max(0.0, rest))


def test_sheets(tmp_path: Path) -> None:
    given = case("shop_sheets")
    found = answer(tmp_path, given)
    expected, parts = (
        given["reference"],
        {one["name"]: one for one in (*given["case"]["parts"], *given["case"]["fillers"])},
    )
    assert found["objective"]["cost"] <= expected["cost_most"] + 1e-6
    assert found["objective"]["fillers"] >= expected["fillers_least"]
    assert found["bound"] <= expected["best_cost"] + 1e-6
    for sheet in found["sheets"]:
        boxes = [(x, y, x + w, y + h) for x, y, w, h in sheet["offcuts"]]
        for one in sheet["parts"]:
            w, h = parts[one["name"]]["w"], parts[one["name"]]["h"]
            w, h = (h, w) if one["turned"] else (w, h)
            boxes.append((one["x"], one["y"], one["x"] + w, one["y"] + h))
        assert comes_apart(boxes, given["case"]["kerf"])


def test_what_has_no_solution_is_an_answer(tmp_path: Path) -> None:
    bars, sheets = case("shop_bars")["case"], case("shop_sheets")["case"]
    bars["pieces"][0]["length"] = 9000
    sheets["parts"][0]["w"] = 1300
    load = {"kind": "loading", "pieces": [{"name": "a", "length": 9000, "thickness": 1, "mass_kg": 1}],
            "truck": {"stacks": 1, "max_height": 1, "max_mass_kg": 1, "max_length": 1, "overhang": 0}}  # fmt: skip
    for given in (bars, sheets, load):
        found = answer(tmp_path, given)
        assert found["status"] == "infeasible"
        assert found["reason"]


def test_loading(tmp_path: Path) -> None:
    pieces = [{"name": name, "length": 3000, "thickness": 200, "mass_kg": 100} for name in "abcde"]
    truck = {"stacks": 1, "max_height": 600, "max_mass_kg": 3500, "max_length": 6000, "overhang": 0}
    found = answer(tmp_path, {"kind": "loading", "pieces": pieces, "truck": truck})
    assert (found["bound"], found["objective"]) == (2, {"trucks": 2})
    assert found["trucks"] == [[["c", "b", "a"]], [["e", "d"]]]


def test_laydown(tmp_path: Path) -> None:
    given = {"kind": "laydown", "outline": [[0, 0], [4000, 0], [4000, 3000], [0, 3000]]}
    found = answer(tmp_path, given)
    assert found["diagonals"] == {"0-2": 5000.0, "1-3": 5000.0}
    assert found["area_m2"] == 12.0
    assert "check" not in found
    measured = {"sides": [4000, 3000, 4000, 3000], "diagonals": [5002, 4998]}
    assert "ok" not in answer(tmp_path, {**given, "measured": measured})["check"]
    check = answer(tmp_path, {**given, "measured": measured, "tolerance": 2})["check"]
    assert (check["rack_mm"], check["worst_mm"], check["ok"]) == (2.0, 2.0, True)


def test_quantities_by_hand(tmp_path: Path) -> None:
    opening = {"w": 1000, "h": 2000, "count": 2}
    face = {"cover": 30, "rib": {"pitch": 80, "depth": 20, "top": 30, "bottom": 50}}
    mortar = item(tmp_path, type="mortar", area_m2=24, faces=[face, {"cover": 40, "rib": {"wave": 20}}],
                  openings=[opening], reveal=150, reveal_thickness=20, loss=0.2)  # fmt: skip
    assert mortar["volume_m3"] == pytest.approx(20 * (0.040 + 0.050) + 12 * 0.15 * 0.02)
    assert mortar["order_m3"] == pytest.approx(mortar["volume_m3"] / 0.8)
    beads = item(tmp_path, type="beads", area_m2=100, depth=300, timber=0.1, settlement=0.04, bag_l=250, density=25)
    assert beads["blown_m3"] == pytest.approx(27 / 0.96)
    assert (beads["bags"], beads["mass_kg"]) == (113, pytest.approx(28.125 * 25))
    assert item(tmp_path, type="tape", length_m=90, ends=10, overlap=100, roll_m=25) == {"tape_m": 91.0, "rolls": 4}
    line = {"length": 2600, "spacing": 300, "end": 100}
    assert item(tmp_path, type="screws", panels=7, lines=[line, {**line, "length": 100}], box=100) == {
        "per_panel": 11, "screws": 77, "boxes": 1,
    }  # fmt: skip


def test_a_buck_of_a_window_and_of_a_door(tmp_path: Path) -> None:
    given = {"type": "buck", "unit_w": 1200, "unit_h": 1400, "shim": 10, "head": 40, "jamb": 40, "sill": 40,
             "stock": 4800, "kerf": 4}  # fmt: skip
    window = item(tmp_path, **given)
    assert (window["rough_w"], window["rough_h"], window["opening_w"], window["opening_h"]) == (1220, 1420, 1300, 1500)
    assert window["boards"] == [1420, 1420, 1300, 1300]
    assert (window["board_m"], window["bars"]) == (pytest.approx(5.44), 2)
    door = item(tmp_path, **{**given, "sill": 0})
    assert (door["rough_h"], door["opening_h"], door["boards"]) == (1410, 1450, [1410, 1410, 1300])


BARS, SHEETS = case("shop_bars")["case"], case("shop_sheets")["case"]
LAY = {"kind": "laydown", "outline": [[0, 0], [4000, 0], [4000, 3000], [0, 3000]],
       "measured": {"sides": [4000, 3000, 4000, 3000], "diagonals": [5000, 5000]}, "tolerance": 2}  # fmt: skip
LOAD = {"kind": "loading", "pieces": [{"name": "a", "length": 1, "thickness": 1, "mass_kg": 1}],
        "truck": {"stacks": 1, "max_height": 1, "max_mass_kg": 1, "max_length": 1, "overhang": 0}}  # fmt: skip
RING = {"kind": "quantities", "items": [
    {"type": "icf_concrete", "run": {"closed": True, "walls": [{"name": str(n), "length": 9000, "turn": "out"} for n in range(4)]},
     "height": 3000, "foam_out": 75, "core": 150, "openings": [], "waste": 0.05, "truck_m3": 8},
]}  # fmt: skip


@pytest.mark.parametrize(
    ("given", "path", "to", "pointer"),
    [
        (BARS, ("colour",), "red", "/colour"),
        (BARS, ("kerf",), ..., "/kerf"),
        (BARS, ("kerf",), -1, "/kerf"),
        (BARS, ("kerf",), "3", "/kerf"),
        (BARS, ("stock", 0, "length"), 0, "/stock/0/length"),
        (BARS, ("offcuts", 0, "count"), ..., "/offcuts/0/count"),
        (BARS, ("pieces", 0, "section"), "x", "/pieces/0/section"),
        (BARS, ("pieces", 0, "count"), 1.5, "/pieces/0/count"),
        (BARS, ("pieces", 0, "count"), 0, "/pieces/0/count"),
        (BARS, ("objective",), [], "/objective"),
        (BARS, ("objective",), ["cost", "cost"], "/objective/1"),
        (BARS, ("objective", 0), "beauty", "/objective/0"),
        (SHEETS, ("sheets",), [], "/sheets"),
        (SHEETS, ("edge_trim",), 600, "/sheets/0"),
        (SHEETS, ("parts", 0, "turn"), 1, "/parts/0/turn"),
        (SHEETS, ("parts", 0, "count"), 10**6, "/parts/0/count"),
        (SHEETS, ("parts", 1, "w"), 0, "/parts/1/w"),
        (LAY, ("outline",), [[0, 0], [1, 1]], "/outline"),
        (LAY, ("outline",), [[0, 0], [1, 1], [2, 2]], "/outline"),
        (LAY, ("outline",), [[0, 0], [4000, 0], [0, 3000]], "/measured"),
        (LAY, ("measured", "diagonals", 0), 9000, "/measured"),
        (LAY, ("measured", "sides"), [1, 2, 3], "/measured/sides"),
        (LOAD, ("pieces",), [*LOAD["pieces"], *LOAD["pieces"]], "/pieces/1"),
        (LOAD, ("truck", "stacks"), 0, "/truck/stacks"),
        (RING, ("items", 0, "type"), "gold", "/items/0"),
        (RING, ("items", 0, "run", "walls", 1, "length"), 9002, "/items/0/run/walls"),
        (RING, ("items", 0, "run", "walls", 1, "turn"), None, "/items/0/run/walls/1/turn"),
        (RING, ("items", 0, "openings"), [{"w": 1e6, "h": 1e6}], "/items/0/openings"),
        (RING, ("items", 0, "truck_m3"), 0, "truck_m3"),
        (BARS, ("kind",), "panels", "#"),
        (BARS, ("kind",), ..., "/kind"),
    ],
)  # fmt: skip
def test_a_bad_file_is_refused_at_its_place(
    tmp_path: Path, given: Any, path: tuple[Any, ...], to: Any, pointer: str
) -> None:
    given = copy.deepcopy(given)
    at = given
    for step in path[:-1]:
        at = at[step]
    if to is ...:
        del at[path[-1]]
    else:
        at[path[-1]] = to
    done = run(tmp_path, given)
    assert done.exit_code == 2
    assert done.stdout == ""
    errors = json.loads(done.stderr)["errors"]
    assert any(pointer in one["pointer"] for one in errors), errors
    assert all(one["detail"] and one["hint"] for one in errors)
