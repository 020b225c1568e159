"""The neutral set-out file: walls through the command line, and every way a file can be wrong."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner, Result

from nimble_shell.cli import app
from nimble_shell.references.setout import CASES, case


def run(tmp_path: Path, given: Any) -> Result:
    file = tmp_path / "case.json"
    file.write_text(json.dumps(given))
    return CliRunner().invoke(app, ["setout", str(file)])


@pytest.mark.parametrize("name", CASES)
def test_a_wall_runs_from_its_file_and_every_part_of_the_answer_is_there(tmp_path: Path, name: str) -> None:
    given = case(name)
    done = run(tmp_path, given)
    assert done.exit_code == 0, done.stderr
    found = json.loads(done.stdout)
    assert found["status"] == "optimal"
    for term, expected in given["reference"]["objective"].items():
        assert found["objective"][term] == pytest.approx(expected, abs=1e-6)
    assert found["bound"] == found["objective"][given["case"]["objective"][0]]
    assert set(found["objective"]) == {"panels", "off_module", "members", "member_length", "waste"}
    assert found.get("what_if") == given["reference"].get("what_if")
    assert len(found["panels"]) == found["objective"]["panels"]
    assert found["splines"]["count"] + found["posts"]["count"] == found["objective"]["members"]
    for one in found["panels"]:
        assert set(one) == {"band", "layer", "x0", "x1", "y0", "y1", "outline", "holes", "area_m2", "mass_kg"}


def test_what_has_no_solution_is_an_answer(tmp_path: Path) -> None:
    given = case("panels_sip")["case"]
    given["rules"] |= {"at_opening": "inside", "max_mass_kg": 5}
    done = run(tmp_path, given)
    assert done.exit_code == 0
    found = json.loads(done.stdout)
    assert found["status"] == "infeasible"
    assert found["reason"]
    assert found["what_if"] == {"panels_now": None, "panels_best": None, "min_move": None}


def test_weights_are_summed(tmp_path: Path) -> None:
    given = case("panels_sip")["case"]
    given["objective"] = {"panels": 10.0, "waste": 1.0}
    found = json.loads(run(tmp_path, given).stdout)
    terms = found["objective"]
    assert found["bound"] == pytest.approx(10 * terms["panels"] + terms["waste"])


def changed(*path: Any, to: Any) -> dict[str, Any]:
    """The first wall with one thing changed; a missing one where it is changed to ellipsis."""
    given: Any = copy.deepcopy(case("panels_sip")["case"])
    at = given
    for step in path[:-1]:
        at = at[step]
    if to is ...:
        del at[path[-1]]
    else:
        at[path[-1]] = to
    found: dict[str, Any] = given
    return found


@pytest.mark.parametrize(
    ("path", "to", "pointer"),
    [
        (("colour",), "red", "/colour"),
        (("wall",), ..., "/wall"),
        (("wall", "outline"), [[0, 0], [1, 0]], "/wall/outline"),
        (("wall", "outline"), [[0, 0], [0, 2700], [7200, 2700], [7200, 0]], "/wall/outline"),
        (("wall", "outline", 0, 0), "0", "/wall/outline/0/0"),
        (("wall", "levels"), [9000], "/wall/levels/0"),
        (("wall", "pitch_deg"), 90, "/wall/pitch_deg"),
        (("openings", 0, "w"), 0, "/openings/0/w"),
        (("openings", 0, "x"), 7000, "/openings/0"),
        (("openings", 0, "x"), 4000, "/openings/1/x"),
        (("openings", 1, "name"), "W1", "/openings/1/name"),
        (("openings", 0, "mass_kg"), -1, "/openings/0/mass_kg"),
        (("rules", "step"), 0, "/rules/step"),
        (("rules", "step"), 1e-6, "/rules/step"),
        (("rules", "layout"), "cover", "/rules/cover"),
        (("rules", "layout"), "diagonal", "/rules/layout"),
        (("rules", "joint_at_edge"), 1, "/rules/joint_at_edge"),
        (("rules", "blanks"), None, "/rules/max_width"),
        (("rules", "blanks"), [], "/rules/blanks"),
        (("rules", "blanks"), [[None, 2700]], "/rules/blanks/0/0"),
        (("rules", "max_width"), 1200, "/rules/max_width"),
        (("rules", "layers"), 3, "/rules/layers"),
        (("rules", "max_mass_kg"), 0, "/rules/max_mass_kg"),
        (("rules", "bale"), {"length": 900, "tight": 900, "frame": 0}, "/rules/bale/tight"),
        (("objective",), [], "/objective"),
        (("objective",), ["panels", "panels"], "/objective/1"),
        (("objective",), ["waste", "panels"], "/objective/0"),
        (("objective",), {}, "/objective/panels"),
        (("objective",), ["beauty"], "/objective"),
        (("what_if", "opening"), "W9", "/what_if/opening"),
        (("what_if", "move_step"), 0, "/what_if/move_step"),
        (("what_if", "move_step"), 1e-9, "/what_if/move_step"),
        (("kind",), "courses", ""),
    ],
)  # fmt: skip
def test_what_is_wrong_is_told_with_its_place(tmp_path: Path, path: tuple[Any, ...], to: Any, pointer: str) -> None:
    done = run(tmp_path, changed(*path, to=to))
    assert done.exit_code == 2
    assert done.stdout == ""
    errors = json.loads(done.stderr)["errors"]
    assert any(one["pointer"].removeprefix("#").startswith(pointer) for one in errors), errors
    assert all(one["detail"] and one["hint"] is not None for one in errors)
