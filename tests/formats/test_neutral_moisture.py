"""The neutral moisture cases: what they give, and what they refuse, by name and place."""

from __future__ import annotations

import json
from copy import deepcopy
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from nimble_shell.cli import app

MONTHS = [
    {"Te": theta, "phi_e": 0.8, "Ti": 20, "phi_i": 0.5} for theta in (-12, -10, -4, 3, 10, 15, 18, 16, 11, 5, -3, -9)
]
MONTHLY: dict[str, Any] = {
    "kind": "moisture_monthly",
    "layers": [
        {"name": "board", "d": 0.0125, "lambda": 0.21, "mu": 8},
        {"name": "osb", "d": 0.011, "lambda": 0.13, "mu": 50},
        {"name": "foam", "d": 0.14, "lambda": 0.035, "mu": 30},
        {"name": "osb", "d": 0.011, "lambda": 0.13, "mu": 200},
    ],
    "films": {"Rsi": 0.13, "Rse": 0.04},
    "months": MONTHS,
}
HOURLY: dict[str, Any] = {
    "kind": "moisture_hourly",
    "layers": [
        {"d": 0.1, "rho": 600, "c": 1600, "lambda": 0.13, "mu": [[0.3, 60], [0.9, 20]],
         "sorption": [[0, 0], [0.5, 50], [0.9, 100], [1, 400]], "Dw": [[0, 1e-14], [400, 1e-9]]},
        {"d": 0.1, "rho": 20, "c": 1450, "lambda": 0.035, "mu": 30, "sorption": None},
    ],
    "films": {"h_i": 8, "beta_i": 2.5e-8, "h_e": 25, "beta_e": 1.2e-7},
    "initial": {"theta": 20, "phi": 0.5},
    "climate": {"hours": [[-5, 350, 20, 1300], [-3, 360, 20, 1200]], "repeat": 24},
    "probes": [{"name": "middle", "x": 0.1}, {"name": "inner face", "x": 0}],
    "output_hours": [1, 24, 48, 500],
}  # fmt: skip


def run(case: Any, tmp_path: Path) -> tuple[int, Any]:
    """Exit code, and the JSON of standard output or standard error."""
    file = tmp_path / "case.json"
    file.write_text(json.dumps(case), encoding="utf-8")
    done = CliRunner().invoke(app, ["moisture", str(file)])
    return done.exit_code, json.loads(done.stdout if done.exit_code == 0 else done.stderr)


def changed(case: dict[str, Any], place: tuple[str | int, ...], value: Any) -> dict[str, Any]:
    copy = deepcopy(case)
    inner: Any = copy
    for key in place[:-1]:
        inner = inner[key]
    inner[place[-1]] = value
    return copy


def test_a_year_by_month(tmp_path: Path) -> None:
    code, found = run(MONTHLY, tmp_path)
    assert code == 0
    assert list(found) == ["start_month", "interfaces", "peak_Ma", "dries", "f_rsi", "f_rsi_required", "critical_month"]
    assert found["start_month"] == 11
    assert found["critical_month"] == 1
    R = 0.0125 / 0.21 + 0.022 / 0.13 + 0.14 / 0.035
    assert found["f_rsi"] == pytest.approx(1 - 0.25 / (0.29 + R))
    behind = found["interfaces"][-1]
    assert behind["x"] == pytest.approx(0.1635)
    for interface in found["interfaces"]:
        stock = [month["Ma"] for month in interface["months"]]
        for at, month in enumerate(interface["months"]):
            before = 0.0 if at == 10 else stock[at - 1]  # the year begins in November
            assert month["g"] == pytest.approx(month["Ma"] - before, abs=1e-12)
    sums = [sum(i["months"][at]["Ma"] for i in found["interfaces"]) for at in range(12)]
    assert found["peak_Ma"] == pytest.approx(max(sums))


def test_hours(tmp_path: Path) -> None:
    code, found = run(HOURLY, tmp_path)
    assert code == 0
    assert list(found) == ["probes", "layers", "balance_error", "steps", "seconds"]
    assert found["probes"]["middle"]["hour"] == [1, 24, 48]
    assert found["layers"]["start"] == pytest.approx([5.0, 0.0])
    assert abs(found["balance_error"]) < 1e-9
    assert found["probes"]["inner face"]["theta"][-1] > found["probes"]["middle"]["theta"][-1]


def test_a_constant_climate_is_the_same_as_its_hours(tmp_path: Path) -> None:
    hour = [-5, 350, 20, 1300]
    by_hour = changed(HOURLY, ("climate",), {"hours": [hour], "repeat": 30})
    constant = changed(HOURLY, ("climate",), {"constant": hour, "hours_total": 30})
    answers = [run(case, tmp_path)[1] for case in (by_hour, constant)]
    assert answers[0]["probes"] == answers[1]["probes"]


WRONG: dict[str, tuple[dict[str, Any], tuple[str | int, ...], Any, str]] = {
    "no vapour resistance": (MONTHLY, ("layers", 1, "mu"), None, "#/layers/1"),
    "μ of zero": (MONTHLY, ("layers", 1, "mu"), 0, "#/layers/1/mu"),
    "too humid": (MONTHLY, ("months", 3, "phi_i"), 1.3, "#/months/3/phi_i"),
    "eleven months": (MONTHLY, ("months",), MONTHS[:11], "#/months"),
    "unknown key": (MONTHLY, ("colour",), "red", "#/colour"),
    "other unknown key": (HOURLY, ("layers", 0, "colour"), "red", "#/layers/0/colour"),
    "no density": (HOURLY, ("layers", 1, "rho"), None, "#/layers/1"),
    "falling sorption": (HOURLY, ("layers", 0, "sorption"), [[0, 5], [1, 2]], "#/layers/0/sorption"),
    "above saturation": (HOURLY, ("initial", "phi"), 1.4, "#/initial/phi"),
    "two climates": (HOURLY, ("climate", "constant"), [0, 500, 20, 1000], "#/climate"),
    "an hour of three": (HOURLY, ("climate", "hours", 1), [0, 500, 20], "#/climate/hours/1/3"),
    "place outside": (HOURLY, ("probes", 1, "x"), 0.5, "#/probes/1/x"),
    "ten years kept": (HOURLY, ("climate",), {"constant": [0, 500, 20, 1000], "hours_total": 430_000}, "#/output_hours"),
}  # fmt: skip


@pytest.mark.parametrize("name", WRONG)
def test_what_is_wrong_is_named_with_its_place(name: str, tmp_path: Path) -> None:
    case, place, value, pointer = WRONG[name]
    case = changed(case, place, value)
    if name == "ten years kept":
        del case["output_hours"]
    code, problem = run(case, tmp_path)
    assert code == 2
    assert pointer in [error["pointer"] for error in problem["errors"]]
    assert all(error["hint"] for error in problem["errors"])


def test_a_kind_of_another_command_is_refused(tmp_path: Path) -> None:
    code, problem = run({**MONTHLY, "kind": "wall"}, tmp_path)
    assert code == 2
    assert "moisture_monthly" in problem["errors"][0]["hint"]
