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
from nimble_shell.references.shell import CASES, at_path, leaves
from nimble_shell.references.shell import case as building
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


#: What the format allows beside a relative error, by the last name of a figure.
ALLOWED = {"incidence": 0.05, "altitude": 0.05, "declination": 0.05, "azimuth": 0.1, "sun_hours": 0.06, "lit_hours": 0.06,
           "shaded": 0.004, "load": 4.0, "theta": 0.03, "p_int": 0.01, "phi_i": 0.002}  # fmt: skip


@pytest.mark.parametrize("name", CASES)
def test_a_building_runs_from_its_file_and_every_leaf_of_it_is_there(tmp_path: Path, name: str) -> None:
    given = building(name)
    done = run(tmp_path, given)
    assert done.exit_code == 0
    found = json.loads(done.stdout)
    for path, expected in leaves(given["reference"]["result"]):
        ours = at_path(found, path)
        if isinstance(expected, bool | str) or expected is None:
            assert ours == expected, path
        else:
            last = next(step for step in reversed(path) if isinstance(step, str))
            assert ours == pytest.approx(expected, rel=1e-3, abs=ALLOWED.get(last, 1e-9)), path


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


def changed(case: dict[str, Any], path: str, value: Any) -> dict[str, Any]:
    """A case with one value set, added, or (…) taken away."""
    made = copy.deepcopy(case)
    *steps, last = (int(step) if step.isdigit() else step for step in path.split("/"))
    at: Any = made
    for step in steps:
        at = at[step]
    if value is ...:
        del at[last]
    elif isinstance(at, list) and last == len(at):
        at.append(value)
    else:
        at[last] = value
    return made


AIR, GROUND, SUN, GABLE = (building(name)["case"] for name in CASES[:4])
SPACES = {"kind": "shell", "transmission": {"elements": [{"id": "e", "A": 10, "U": 0.2, "to": "loft"}], "theta_i": 20,
                                            "theta_e": 0, "spaces": [{"id": "loft", "kind": "fixed", "theta": 5}]}}  # fmt: skip
#: A case, where it is changed, to what, and what is pointed at where that is another place.
WRONG: list[tuple[dict[str, Any], str, Any, str]] = [
    (GROUND, "ground/0/lambda", 0, ""),
    (GROUND, "ground/0/lambda", ..., ""),
    (GROUND, "ground/0/type", "raft", "ground/0"),
    (GROUND, "ground/1/id", "slab", "ground/1"),
    (GROUND, "ground/0/P", ..., ""),
    (GROUND, "ground/0/rho_c", ..., ""),
    (GROUND, "ground/0/geometry", "external", "ground/0/A"),
    (GROUND, "ground/2/edge/0/D", -1, ""),
    (GROUND, "ground/4/U_f", 0.3, ""),
    (GROUND, "ground/5/n", -0.1, ""),
    (GROUND, "ground/0/year/tau", 13, ""),
    (GABLE, "ground/0/geometry", "internal", ""),
    (GABLE, "transmission/elements/0/face", "Q", ""),
    (GABLE, "transmission/elements/0/U", 0, ""),
    (GABLE, "transmission/elements/0/A", 12.0, "transmission/elements/0/face"),
    (GABLE, "transmission/elements/1/id", "S", "transmission/elements/1"),
    (GABLE, "transmission/elements/0/to", "loft", ""),
    (GABLE, "transmission/windows/0/window", "round", ""),
    (GABLE, "transmission/windows/1/U", ..., ""),
    (GABLE, "transmission/joints/0/joint", "hip", ""),
    (GABLE, "transmission/joints/2/at", "ground", ""),
    (GABLE, "transmission/points/0/n", -1, ""),
    (GABLE, "transmission/ground/0", "cellar", ""),
    (GABLE, "transmission/colour", 1, ""),
    (SPACES, "transmission/theta_i", ..., ""),
    (SPACES, "transmission/theta_e", 20, ""),
    (SPACES, "transmission/spaces/0/kind", "warm", "transmission/spaces/0"),
    (AIR, "leakage/grades/taped", [0.2, 0.1, 0.3], ""),
    (AIR, "leakage/grades/taped", [0.1, 0.2], ""),
    (AIR, "leakage/joints/0/grade", "welded", ""),
    (AIR, "leakage/joints/1/id", "sill", "leakage/joints/1"),
    (AIR, "leakage/areas/0/q", [3, 2, 1], ""),
    (AIR, "leakage/n", 0.4, ""),
    (AIR, "leakage/V", ..., ""),
    (AIR, "leakage/V", 0, ""),
    (AIR, "blower_door/sets/0/points/2", [44.9, 225.0], ""),
    (AIR, "blower_door/sets/0/points", [[-60, 280], [-50, 250]], ""),
    (AIR, "blower_door/sets/1/direction", "both", ""),
    (AIR, "balance/wind", 61, ""),
    (AIR, "balance/paths/0/n", 1.1, ""),
    (AIR, "balance/paths/0/C", 0, ""),
    (AIR, "balance/paths", [], ""),
    (AIR, "balance/flue", ..., ""),
    (AIR, "ventilation/modes/0/share", 0.4, "ventilation/modes"),
    (AIR, "ventilation/q_person", ..., ""),
    (AIR, "ventilation/theta_i", ..., ""),
    (AIR, "ventilation/eta_t", 1.2, ""),
    (SUN, "sun/latitude", 91, ""),
    (SUN, "sun/positions/0/day", 31, ""),
    (SUN, "sun/longitude", ..., ""),
    (SUN, "sun/windows/0/overhang/gap", -0.1, ""),
    (SUN, "sun/clear_sky", ..., ""),
    (SUN, "sun/windows/0/overhang/extend", "endless", ""),
    (SUN, "cooling_day/elements/0/back", "cold", ""),
    (SUN, "cooling_day/elements/3/back/theta", "cold", ""),
    (SUN, "sun/windows/1/days/0/month", 13, ""),
    (SUN, "cooling_day/theta_e", [20] * 23, ""),
    (SUN, "cooling_day/elements/0/layers/0/rho", ..., ""),
    (SUN, "cooling_day/elements/0/layers/0/R", 1.0, "cooling_day/elements/0/layers/0/d"),
    (SUN, "cooling_day/elements/0/azimuth", ..., ""),
    (SUN, "cooling_day/windows/0/w", ..., ""),
    (SUN, "cooling_day/gains/radiant", [1, 2], ""),
    (SUN, "cooling_day/sun/clear_sky", ..., ""),
    (SUN, "cooling_day/windows/1/id", "s", "cooling_day/windows/1"),
    (SUN, "glazing/ratios/1", 1.2, ""),
    (SUN, "glazing/unit/U_w", ..., ""),
    (GABLE, "heating_load/theta_mean", ..., ""),
    (GABLE, "transmission", ..., "heating_load/H_D"),
    (GABLE, "energy/months", [], ""),
    (GABLE, "energy/apertures/0/orientation", "NE", ""),
    (GABLE, "energy/ground_flow/0", "cellar", ""),
    (GABLE, "energy/measures/0/cost", -1, ""),
    (GABLE, "energy/measures/1/id", "better seal", "energy/measures/1"),
    (GABLE, "energy/measures/2/changes/1/element", "roof", ""),
    (GABLE, "energy/measures/2/changes/1/U", ..., ""),
    (GABLE, "energy/measures/0/changes/0", {}, "energy/measures/0/changes/0/air_q"),
]


@pytest.mark.parametrize(
    ("case", "path", "value", "pointer"), WRONG, ids=[f"{one[1]}-{n}" for n, one in enumerate(WRONG)]
)
def test_every_block_tells_what_is_wrong_at_its_place(
    tmp_path: Path, case: dict[str, Any], path: str, value: Any, pointer: str
) -> None:
    done = run(tmp_path, changed(case, path, value))
    assert done.exit_code == 2, done.stdout[:200]
    assert f"#/{pointer or path}" in {one["pointer"] for one in json.loads(done.stderr)["errors"]}
