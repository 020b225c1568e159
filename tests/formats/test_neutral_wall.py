"""The neutral wall case: what it gives, and what it refuses, by name and place."""

from __future__ import annotations

import json
from copy import deepcopy
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from nimble_shell.cli import app

WALL: dict[str, Any] = {
    "kind": "wall",
    "layers": [
        {"name": "concrete", "d": 0.2, "lambda": 1.8, "rho": 2400, "c": 1000},
        {"name": "eps", "d": 0.1, "lambda_T": [[-10, 0.031], [10, 0.033], [40, 0.037]], "rho": 20, "c": 1450},
        {"name": "air", "R": 0.18},
        {
            "name": "frame",
            "d": 0.1,
            "rho": 50,
            "c": 1000,
            "parts": [{"f": 0.9, "lambda": 0.04}, {"f": 0.1, "lambda": 0.13}],
        },
    ],
    "films": {"Rsi": 0.13, "Rse": 0.04},
    "temperatures": [{"name": "winter", "Ti": 20, "Te": -10}, {"name": "summer", "Ti": 24, "Te": 32}],
    "fasteners": {"n": 4, "lambda": 17, "A": 2.8e-5, "d0": 0.1, "d1": 0.1, "layer": 1},
    "periodic": {"period_h": 24},
}


def run(case: Any, tmp_path: Path) -> tuple[int, Any]:
    """Exit code, and the JSON of standard output or standard error."""
    file = tmp_path / "case.json"
    file.write_text(case if isinstance(case, str) else json.dumps(case), encoding="utf-8")
    done = CliRunner().invoke(app, ["wall", str(file)])
    return done.exit_code, json.loads(done.stdout if done.exit_code == 0 else done.stderr)


def changed(**change: Any) -> dict[str, Any]:
    return {**deepcopy(WALL), **change}


def test_the_answer_has_every_part_of_the_format(tmp_path: Path) -> None:
    code, found = run(WALL, tmp_path)
    assert code == 0
    assert list(found) == ["R", "U", "error_e", "at", "delta_U_f", "periodic"]
    assert set(found["R"]) == set(found["U"]) == {"nominal", "parallel", "isothermal", "combined"}
    assert found["R"]["nominal"] == pytest.approx(0.17 + 0.2 / 1.8 + 0.1 / 0.033 + 0.18 + 0.1 / 0.04)
    assert len(found["at"]["winter"]["theta"]) == 5
    assert found["at"]["winter"]["U"] == pytest.approx(1 / found["at"]["winter"]["R"])
    assert set(found["periodic"]) == {"Y12", "decrement", "lag_h", "kappa_i", "kappa_e"}


def test_a_reference_file_is_taken_with_its_wrapping(tmp_path: Path) -> None:
    assert run({"case": WALL, "reference": {}}, tmp_path) == run(WALL, tmp_path)


def test_what_is_optional_may_be_left_out(tmp_path: Path) -> None:
    code, found = run({key: WALL[key] for key in ("kind", "layers", "films")}, tmp_path)
    assert code == 0
    assert set(found) == {"R", "U", "error_e"}


@pytest.mark.parametrize(
    ("case", "pointer", "code"),
    [
        (changed(colour="red"), "#/colour", "unknown_key"),
        (changed(layers=[{"d": 0.1, "lambda": 1.0, "lamda": 2.0}]), "#/layers/0/lamda", "unknown_key"),
        (changed(films={"Rsi": 0.13}), "#/films/Rse", "missing"),
        (changed(films={"Rsi": 0.13, "Rse": "0.04"}), "#/films/Rse", "not_a_number"),
        (changed(films={"Rsi": True, "Rse": 0.04}), "#/films/Rsi", "not_a_number"),
        (changed(films={"Rsi": -0.13, "Rse": 0.04}), "#/films/Rsi", "film_out_of_range"),
        (changed(layers=[]), "#/layers", "no_layers"),
        (changed(layers=[{"d": 0.0, "lambda": 1.0}]), "#/layers/0/d", "thickness_not_positive"),
        (changed(layers=[{"d": -0.1, "lambda": 1.0}]), "#/layers/0/d", "thickness_not_positive"),
        (changed(layers=[{"d": 0.1, "lambda": 0}]), "#/layers/0/lambda", "conductivity_not_positive"),
        (changed(layers=[{"R": -0.1}]), "#/layers/0/R", "resistance_not_physical"),
        (changed(layers=[{"d": 0.1}]), "#/layers/0", "layer_incomplete"),
        (changed(layers=[{"d": 0.1, "lambda": 1.0, "R": 2.0}]), "#/layers/0", "layer_incomplete"),
        (changed(layers=[{"lambda": 1.0}]), "#/layers/0", "layer_incomplete"),
        (changed(layers=[{"d": 0.1, "parts": []}]), "#/layers/0/parts", "no_parts"),
        (changed(layers=[{"d": 0.1, "parts": [{"f": 1.0}]}]), "#/layers/0/parts/0", "part_incomplete"),
        (
            changed(layers=[{"d": 0.1, "parts": [{"f": 0.9, "lambda": 1}, {"f": 0.2, "lambda": 1}]}]),
            "#/layers/0/parts",
            "shares_not_whole",
        ),
        (changed(layers=[{"d": 0.1, "lambda_T": []}]), "#/layers/0/lambda_T", "empty_table"),
        (changed(layers=[{"d": 0.1, "lambda_T": [[10, 1], [0, 1]]}]), "#/layers/0/lambda_T", "temperatures_not_rising"),
        (
            changed(layers=[{"d": 0.1, "lambda_T": [[0, 1], [10, -1]]}]),
            "#/layers/0/lambda_T/1",
            "conductivity_not_positive",
        ),
        (changed(temperatures=[{"name": "x", "Ti": -400, "Te": 0}]), "#/temperatures/0/Ti", "temperature_not_physical"),
        (
            changed(temperatures=[{"name": "x", "Ti": 20, "Te": 0}] * 2),
            "#/temperatures/1/name",
            "name_taken",
        ),
        (changed(fasteners={**WALL["fasteners"], "layer": 9}), "#/fasteners/layer", "no_such_layer"),
        (changed(fasteners={**WALL["fasteners"], "n": -1}), "#/fasteners/n", "not_positive"),
        (changed(periodic={"period_h": -24}), "#/periodic/period_h", "period_not_positive"),
        (changed(layers=[{"d": 0.1, "lambda": 1.0}]) | {"fasteners": None}, "#/layers/0", "no_heat_capacity"),
        (changed(layers=[{"d": 0.1, "lambda": 1.0, "rho": -5, "c": 900}]), "#/layers/0/rho", "not_positive"),
        (changed(kind="section"), "#", "wrong_kind"),
        ("{", "#", "not_json"),
        ('{"kind": "wall", "layers": NaN}', "#", "not_json"),
        ("[1, 2]", "#", "not_an_object"),
        ("[" * 100_000, "#", "not_json"),
    ],
)
def test_a_bad_case_exits_2_and_names_place_reason_and_way_out(
    case: Any, pointer: str, code: str, tmp_path: Path
) -> None:
    exit_code, problem = run(case, tmp_path)
    assert exit_code == 2
    assert problem["status"] == 422
    assert (pointer, code) in [(error["pointer"], error["code"]) for error in problem["errors"]]
    assert all(error["detail"] and error["hint"] for error in problem["errors"])


def test_an_infinite_number_is_refused(tmp_path: Path) -> None:
    text = json.dumps(changed(layers=[{"d": 1.0, "lambda": 7.0}])).replace("7.0", "1e999")
    exit_code, problem = run(text, tmp_path)
    assert (exit_code, problem["errors"][0]["code"]) == (2, "not_finite")


def test_a_file_that_is_not_there_says_so(tmp_path: Path) -> None:
    done = CliRunner().invoke(app, ["wall", str(tmp_path / "none.json")])
    assert done.exit_code == 2
    assert json.loads(done.stderr)["errors"][0]["code"] == "file_unreadable"


def test_a_file_in_another_encoding_says_so(tmp_path: Path) -> None:
    file = tmp_path / "case.json"
    file.write_bytes('{"name": "Dämmung"}'.encode("latin-1"))
    done = CliRunner().invoke(app, ["wall", str(file)])
    (error,) = json.loads(done.stderr)["errors"]
    assert error["code"] == "not_json"
    assert "not in UTF-8: byte 0xe4 at line 1, column 12" in error["detail"]


def test_a_byte_order_mark_does_no_harm(tmp_path: Path) -> None:
    file = tmp_path / "case.json"
    file.write_text(json.dumps(WALL), encoding="utf-8-sig")
    assert CliRunner().invoke(app, ["wall", str(file)]).exit_code == 0
