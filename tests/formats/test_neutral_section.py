"""The neutral section file: the published cases through the command line, and every way a file can be wrong."""

from __future__ import annotations

import copy
import json
import math
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from nimble_shell.cli import app
from nimble_shell.references.conduction import published, rotated


def run(tmp_path: Path, case: Any) -> tuple[int, dict[str, Any]]:
    file = tmp_path / "case.json"
    file.write_text(json.dumps(case))
    done = CliRunner().invoke(app, ["section", str(file)])
    return done.exit_code, json.loads(done.stdout if done.exit_code == 0 else done.stderr)


@pytest.mark.parametrize("number", [1, 2, 4])
def test_a_published_case_runs_from_its_file(tmp_path: Path, number: int) -> None:
    code, found = run(tmp_path, published(number))
    assert code == 0
    assert set(found) == {
        "heat_flow",
        "coupling",
        "points",
        "surface",
        "f_rsi",
        "f_rsi_error",
        "estimated_error",
        "unknowns",
        "balance",
    }
    assert found["estimated_error"] <= 0.002
    reference = published(number)["reference"]
    for name, value in reference.get("points", {}).items():
        assert found["points"][name] == pytest.approx(value, abs=reference["tolerance_K"])


def test_a_turned_section_is_the_same_section(tmp_path: Path) -> None:
    _, straight = run(tmp_path, published(2)["case"])
    _, turned = run(tmp_path, rotated(published(2)["case"], 17.0))
    assert turned["heat_flow"]["inside"] == pytest.approx(straight["heat_flow"]["inside"], rel=0.002)
    for name, value in straight["points"].items():
        assert turned["points"][name] == pytest.approx(value, abs=0.02)
    assert turned["f_rsi"] == pytest.approx(straight["f_rsi"], abs=0.001)


def test_a_lagged_pipe_is_a_whole_circle(tmp_path: Path) -> None:
    case = {
        "kind": "section",
        "dimension": "axisymmetric",
        "rects": [{"x0": 20, "y0": 0, "x1": 60, "y1": 1000, "lambda": 0.04}],
        "boundaries": [
            {"x0": 20, "y0": 0, "x1": 20, "y1": 1000, "temperature": 60, "Rs": 0, "env": "pipe"},
            {"x0": 60, "y0": 0, "x1": 60, "y1": 1000, "temperature": 20, "Rs": 0.1, "env": "room"},
        ],
        "points": [{"name": "half", "x": 40, "y": 500}],
    }
    code, found = run(tmp_path, case)
    assert code == 0
    R = math.log(3) / (2 * math.pi * 0.04) + 0.1 / (2 * math.pi * 0.06)
    assert found["heat_flow"]["pipe"] == pytest.approx(40 / R, rel=0.002)
    drop = math.log(2) / (2 * math.pi * 0.04)
    assert found["points"]["half"] == pytest.approx(60 - 40 * drop / R, abs=0.02)


def test_a_point_outside_is_null_and_two_equal_environments_have_no_factor(tmp_path: Path) -> None:
    case = copy.deepcopy(published(2)["case"])
    case["points"] = [{"name": "far", "x": 9000, "y": 0}]
    for boundary in case["boundaries"]:
        boundary["temperature"] = 20
    code, found = run(tmp_path, case)
    assert code == 0
    assert found["points"] == {"far": None}
    assert found["f_rsi"] is None
    assert found["heat_flow"]["inside"] == pytest.approx(0, abs=1e-9)


BAD: list[tuple[str, str, dict[str, Any]]] = [
    ("rects/1/colour", "unknown_key", {"rects": {1: {"colour": "red"}}}),
    ("rects/0/lambda", "conductivity_not_positive", {"rects": {0: {"lambda": -1}}}),
    ("rects/0/x1", "not_a_number", {"rects": {0: {"x1": "500"}}}),
    ("rects/0", "region_without_size", {"rects": {0: {"x1": 0}}}),
    ("boundaries/0/Rs", "film_out_of_range", {"boundaries": {0: {"Rs": -0.1}}}),
    ("boundaries/1/temperature", "two_temperatures", {"boundaries": {1: {"env": "outside"}}}),
    ("boundaries/0", "wrong_dimension", {"boundaries": {0: {"z0": 0, "z1": 1}}}),
    ("points/1/name", "name_taken", {"points": {1: {"name": "A"}}}),
    ("boundaries", "environment_meets_nothing", {"boundaries": {0: {"y0": 30, "y1": 30}}}),
]


@pytest.mark.parametrize(("place", "code", "change"), BAD, ids=[f"{place}-{code}" for place, code, _ in BAD])
def test_a_bad_file_is_refused_at_its_place(tmp_path: Path, place: str, code: str, change: dict[str, Any]) -> None:
    case = copy.deepcopy(published(2)["case"])
    for name, items in change.items():
        for at, values in items.items():
            case[name][at] |= values
    exit_code, problem = run(tmp_path, case)
    assert exit_code == 2
    assert any(place in error["pointer"] and code in error["code"] for error in problem["errors"]), problem
    assert all(error["hint"] for error in problem["errors"])


@pytest.mark.parametrize(
    "change", [{"dimension": 4}, {"boxes": [{}]}, {"target_error": 0}, {"kind": "wall"}, {"boundaries": []}]
)
def test_a_file_of_the_wrong_form_is_refused(tmp_path: Path, change: dict[str, Any]) -> None:
    assert run(tmp_path, published(2)["case"] | change)[0] == 2
