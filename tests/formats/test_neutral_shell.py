"""The neutral shell file: the houses through the command line, and every way a file can be wrong."""

from __future__ import annotations

import copy
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner, Result

from nimble_shell.cli import app
from nimble_shell.references.geometry import HOUSES, house
from nimble_shell.references.windows import case as window_case


def run(tmp_path: Path, case: Any) -> Result:
    file = tmp_path / "case.json"
    file.write_text(json.dumps(case))
    return CliRunner().invoke(app, ["shell", str(file)])


@pytest.mark.parametrize("name", HOUSES)
def test_a_house_runs_from_its_file_and_every_leaf_of_it_is_there(tmp_path: Path, name: str) -> None:
    given = house(name)
    done = run(tmp_path, given)
    assert done.exit_code == 0

    def compare(expected: Any, found: Any, path: str) -> None:
        if isinstance(expected, dict):
            for key, one in expected.items():
                compare(one, found[key], f"{path}/{key}")
        else:
            assert found == pytest.approx(expected, rel=5e-4), path

    compare(given["reference"]["result"], json.loads(done.stdout), "#")


def test_blocks_that_are_still_to_come_are_named_and_the_rest_is_answered(tmp_path: Path) -> None:
    done = run(tmp_path, {**house(HOUSES[0])["case"], "energy": {}, "sun": {}})
    assert done.exit_code == 0
    assert "not computed yet: sun, energy" in done.stderr


def set_to(*path: str | int, value: Any) -> Callable[[dict[str, Any]], None]:
    def change(case: dict[str, Any]) -> None:
        at: Any = case["geometry"]
        for step in path[:-1]:
            at = at[step]
        at[path[-1]] = value

    return change


def without(*path: str | int) -> Callable[[dict[str, Any]], None]:
    def change(case: dict[str, Any]) -> None:
        at: Any = case["geometry"]
        for step in path[:-1]:
            at = at[step]
        del at[path[-1]]

    return change


@pytest.mark.parametrize(
    ("change", "pointer"),
    [
        (without("faces", 0, "azimuth"), "#/geometry/faces/0/azimuth"),
        (set_to("faces", 0, "azimuth", value="180"), "#/geometry/faces/0/azimuth"),
        (set_to("faces", 0, "kind", value="wal"), "#/geometry/faces/0"),
        (set_to("faces", 0, "openings", 0, "colour", value=1), "#/geometry/faces/0/openings/0/colour"),
        (set_to("faces", 5, "pitch", value=90), "#/geometry/faces/5/pitch"),
        (set_to("faces", 0, "thickness", value=-0.1), "#/geometry/faces/0/thickness"),
        (set_to("faces", 0, "outline", value=[[0, 0], [8, 0], [0, 2.4], [8, 2.4]]), "#/geometry/faces/0/outline"),
        (set_to("faces", 0, "openings", 0, "u", value=7.5), "#/geometry/faces/0/openings/0"),
        (set_to("faces", 0, "openings", 1, "u", value=1.2), "#/geometry/faces/0/openings/1"),
        (set_to("faces", 0, "openings", 1, "id", value="s1"), "#/geometry/faces/0/openings/1"),
        (set_to("faces", 1, "id", value="S"), "#/geometry/faces/1"),
        (without("faces", 3), "#/geometry/faces/0"),
        (set_to("partitions", 0, "faces", 1, value="Q"), "#/geometry/partitions/0/faces/1"),
        (set_to("dimensions", value="internal"), "#/geometry/dimensions"),
        (set_to("rooms", value=3), "#/geometry/rooms"),
    ],
)
def test_what_is_wrong_is_told_at_its_place(tmp_path: Path, change: Callable[[Any], None], pointer: str) -> None:
    case = copy.deepcopy(house(HOUSES[0])["case"])
    change(case)
    done = run(tmp_path, case)
    assert done.exit_code == 2
    assert pointer in {one["pointer"] for one in json.loads(done.stderr)["errors"]}


def test_a_file_that_asks_nothing_is_refused(tmp_path: Path) -> None:
    assert run(tmp_path, {"kind": "shell"}).exit_code == 2
    assert run(tmp_path, {"kind": "wall", "layers": []}).exit_code == 2


def windows(change: Callable[[Any], None] = lambda _: None) -> dict[str, Any]:
    given = copy.deepcopy(window_case()["case"])
    change(given["windows"])
    return dict(given)


def test_windows_stand_alone_in_a_file(tmp_path: Path) -> None:
    done = run(tmp_path, windows())
    assert done.exit_code == 0
    expected = window_case()["reference"]["result"]["windows"]
    found = json.loads(done.stdout)
    assert set(found) == {"windows"}
    for unit, figures in expected.items():
        assert {key: found["windows"][unit][key] for key in figures} == pytest.approx(figures, rel=1e-6)


@pytest.mark.parametrize(
    ("change", "pointer"),
    [
        (lambda w: w[0].update(w=0), "#/windows/0/w"),
        (lambda w: w[0].pop("glass"), "#/windows/0/glass"),
        (lambda w: w[0]["frame"].update(U=-1), "#/windows/0/frame/U"),
        (lambda w: w[0]["glass"].update(g=1.2), "#/windows/0/glass/g"),
        (lambda w: w[0].update(colour="red"), "#/windows/0/colour"),
        (lambda w: w[1].update(id=w[0]["id"]), "#/windows/1"),
        (lambda w: w[2]["panels"][0].update(row=4), "#/windows/2/panels/0"),
        (lambda w: w[0]["frame"].update(left=1.0, right=0.6), "#/windows/0/frame"),
        (lambda w: w[0]["mullions"][0].update(x=0.05), "#/windows/0/mullions/0"),
    ],
)
def test_a_window_that_cannot_be_is_told_at_its_place(
    tmp_path: Path, change: Callable[[Any], None], pointer: str
) -> None:
    done = run(tmp_path, windows(change))
    assert done.exit_code == 2
    assert pointer in {one["pointer"] for one in json.loads(done.stderr)["errors"]}
