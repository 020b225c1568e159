"""Neutral pours, lifts, orders and drifts through the command line, and every way their files can be wrong."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner, Result

from nimble_shell.cli import app
from nimble_shell.references.setout import case

VERBS = {"pour_wall": "pour", "lift_roof_panel": "lift", "lift_order": "lift", "drift": "setout", "courses_l": "setout"}


def run(tmp_path: Path, verb: str, given: Any) -> Result:
    file = tmp_path / "case.json"
    file.write_text(json.dumps(given))
    return CliRunner().invoke(app, [verb, str(file)])


def answer(tmp_path: Path, verb: str, given: Any) -> Any:
    done = run(tmp_path, verb, given)
    assert done.exit_code == 0, done.stderr
    return json.loads(done.stdout)


def alike(found: Any, expected: Any) -> bool:
    """All of what is expected, numbers as near as the format says."""
    if isinstance(expected, dict):
        return all(
            alike(found[key], value) for key, value in expected.items() if key not in ("note", "sequence_example")
        )
    if isinstance(expected, list):
        return len(found) == len(expected) and all(alike(a, b) for a, b in zip(found, expected, strict=True))
    if isinstance(expected, float):
        return found == pytest.approx(expected, rel=1e-6, abs=1e-6)
    return bool(found == expected)


@pytest.mark.parametrize("name", VERBS)
def test_a_case_is_answered_as_its_reference_says(tmp_path: Path, name: str) -> None:
    given = case(name)
    found = answer(tmp_path, VERBS[name], given)
    free = ("trims", "rasps", "drift_after", "bought_bound", "bought_most")
    reference = {key: value for key, value in given["reference"].items() if key not in free}
    assert alike(found, reference)


def test_what_is_not_asked_for_is_left_out(tmp_path: Path) -> None:
    bare = {"kind": "lift", "outline": [[0, 0], [1000, 0], [1000, 1000], [0, 1000]], "layers": [{"d": 100, "rho": 100}]}
    assert set(answer(tmp_path, "lift", bare)) == {"mass_kg", "cg"}
    wind = {**bare, "wind": {"speed_m_s": 10, "cf": 1.2, "closed": False}}
    assert set(answer(tmp_path, "lift", wind)["wind"]) == {"area_m2", "force_N"}
    pour = {key: value for key, value in case("pour_wall")["case"].items() if key not in ("lifts", "braces", "lean")}
    assert "lifts" not in answer(tmp_path, "pour", pour)


def test_no_way_is_no_bad_file(tmp_path: Path) -> None:
    pour = copy.deepcopy(case("pour_wall")["case"])
    pour["lifts"]["max_lift_m"] = 0.3
    pour["braces"]["height"] = 9000
    found = answer(tmp_path, "pour", pour)
    assert found["lifts"]["status"] == "infeasible"
    assert found["braces"] == {"status": "outside_table"}
    drift = {**case("drift")["case"], "max_trim": 0, "tolerance": 1}
    found = answer(tmp_path, "setout", drift)
    assert found["status"] == "infeasible"
    assert found["drift_before"]
    tasks = [{"id": "a", "hold": False, "hours": 1, "after": []},
             {"id": "b", "hold": False, "hours": 1, "after": [{"id": "a", "wait_h": 5, "within_h": 2}]}]  # fmt: skip
    assert answer(tmp_path, "lift", {"kind": "order", "tasks": tasks})["status"] == "infeasible"
    tasks[0]["after"] = [{"id": "b"}]
    ring = answer(tmp_path, "lift", {"kind": "order", "tasks": tasks})
    assert (ring["acyclic"], sorted(ring["cycle"]), ring["total_h"]) == (False, ["a", "b"], None)


def test_two_picks_tilt_and_a_low_one_is_refused(tmp_path: Path) -> None:
    given = {"kind": "lift", "outline": [[0, 0], [2000, 0], [2000, 3000], [0, 3000]],
             "layers": [{"d": 20, "rho": 600}, {"d": 180, "rho": 20}],
             "picks": [[400, 3000, 100], [1600, 3000, 100]], "hook": {"height": 1500}}  # fmt: skip
    found = answer(tmp_path, "lift", given)
    z = (20 * 600 * 10 + 180 * 20 * 110) / (20 * 600 + 180 * 20)
    assert found["cg"][2] == pytest.approx(z)
    assert found["tension_N"] == found["tension_max_N"]
    assert found["tilt_deg"] < 0, "the heavy skin is the inner one"
    low = {**given, "picks": [[400, 1000, 100], [1600, 1000, 100]]}
    assert run(tmp_path, "lift", low).exit_code == 2


BAD: list[tuple[str, list[str | int], Any]] = [
    ("pour_wall", ["C1"], None), ("pour_wall", ["T"], -20), ("pour_wall", ["pour_height_m"], 3.0),
    ("pour_wall", ["rate_m_h"], 0), ("pour_wall", ["formula"], "C"), ("pour_wall", ["lifts", "joints_m", 0], 9.0),
    ("pour_wall", ["braces", "table", 0, 0], 9999), ("pour_wall", ["lean", "per_m"], 1000),
    ("pour_wall", ["colour"], "red"), ("lift_roof_panel", ["picks", 0], [1, 2]),
    ("lift_roof_panel", ["hook"], {"height": 1, "min_angle_deg": 60}), ("lift_roof_panel", ["hook"], {}),
    ("lift_roof_panel", ["crane", "table", 1, 0], 5), ("lift_roof_panel", ["crane", "table", 1, 1], 901),
    ("lift_roof_panel", ["layers"], []), ("lift_roof_panel", ["outline", 1], [0, 4000]),
    ("lift_roof_panel", ["people", "min"], 0), ("lift_order", ["tasks", 0, "hours"], -1),
    ("lift_order", ["tasks", 1, "after", 0, "id"], "nobody"), ("lift_order", ["proposed", 0], "tape"),
    ("lift_order", ["proposed", 0], "nobody"), ("lift_order", ["tasks", 1, "id"], "tape"),
    ("courses_l", ["block", "increment"], 500), ("courses_l", ["run", "walls", 2, "turn"], "out"),
    ("courses_l", ["openings", 0, "wall"], "Z"), ("courses_l", ["openings", 0, "x"], 3500),
    ("courses_l", ["first_long"], "left"), ("courses_l", ["stack_joints"], [{"wall": "A", "x": 9000}]),
    ("drift", ["sheets", 0], 0), ("drift", ["courses", 0], [1200]), ("drift", ["step"], 0), ("drift", ["thickness"], "1"),
]  # fmt: skip


@pytest.mark.parametrize(("name", "path", "value"), BAD)
def test_a_bad_file_says_where(tmp_path: Path, name: str, path: list[str | int], value: Any) -> None:
    given = copy.deepcopy(case(name)["case"])
    at: Any = given
    for key in path[:-1]:
        at = at[key]
    if value is None:
        del at[path[-1]]
    else:
        at[path[-1]] = value
    done = run(tmp_path, VERBS[name], given)
    assert done.exit_code == 2
    assert done.stdout == ""
    assert str(path[0]) in done.stderr


@pytest.mark.parametrize(
    ("verb", "kind"), [("pour", "lift"), ("lift", "pour"), ("setout", "bars"), ("shop", "courses")]
)
def test_a_kind_under_another_verb_is_named(tmp_path: Path, verb: str, kind: str) -> None:
    done = run(tmp_path, verb, {"kind": kind})
    assert done.exit_code == 2
    assert kind in done.stderr


def test_a_piece_longer_than_a_day_is_refused(tmp_path: Path) -> None:
    good = answer(tmp_path, "lift", {"kind": "site_time", "minutes": [180, 180, 180], "day_h": 8, "setup_h": 1})
    assert good == {"days": 2, "last_day_h": 3.0, "pieces_per_day": [2, 1]}
    bad = run(tmp_path, "lift", {"kind": "site_time", "minutes": [180, 480], "day_h": 8, "setup_h": 1})
    assert bad.exit_code == 2
    assert "minutes" in bad.stderr
