"""The command line: projects out and in, and verify."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path

import pytest
from typer.testing import CliRunner

from nimble_shell.cli import app
from nimble_shell.core.working import value_of
from nimble_shell.demo import plant
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services import compute
from nimble_shell.services.bench import consequence
from nimble_shell.services.fixings import solved_here
from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Database


def invoke(*words: str | Path) -> tuple[int, str, str]:
    done = CliRunner().invoke(app, [str(word) for word in words])
    return done.exit_code, done.stdout, done.stderr


def test_a_project_goes_out_and_comes_in_elsewhere(tmp_path: Path) -> None:
    database = Database(tmp_path / "here")
    database.migrate()
    plant(ProjectService(database))
    database.close()
    assert invoke("export", "heron-flats", tmp_path / "out.json", "--data", tmp_path / "here")[0] == 0
    code, said, _ = invoke("import", tmp_path / "out.json", "--data", tmp_path / "there")
    assert (code, said.strip()) == (0, "heron-flats")
    assert invoke("export", "heron-flats", tmp_path / "again.json", "--data", tmp_path / "there")[0] == 0
    assert (tmp_path / "again.json").read_bytes() == (tmp_path / "out.json").read_bytes()


def test_a_file_that_is_refused_exits_2_with_the_place(tmp_path: Path) -> None:
    (tmp_path / "bad.json").write_text('{"format": "nimble-shell-project", "version": 9}')
    code, _, said = invoke("import", tmp_path / "bad.json", "--data", tmp_path / "data")
    assert code == 2
    assert json.loads(said)["errors"][0]["pointer"] == "#/version"


def test_a_project_that_is_not_there_exits_2(tmp_path: Path) -> None:
    code, _, said = invoke("export", "nothing", tmp_path / "out.json", "--data", tmp_path / "data")
    assert code == 2
    assert json.loads(said)["errors"][0]["code"] == "project_not_found"


def test_verify_prints_its_comparisons_and_their_report(tmp_path: Path) -> None:
    code, said, _ = invoke("verify", "elements", "conduction", "--report", tmp_path / "report.md")
    assert code == 0
    assert "0 outside their tolerance" in said
    assert (tmp_path / "report.md").read_text().count("\n|") > 40
    code, _, said = invoke("verify", "elementals")
    assert (code, json.loads(said)["errors"][0]["code"]) == (2, "unknown_subject")


def test_a_project_file_is_computed_without_a_server(tmp_path: Path) -> None:
    database = Database(tmp_path / "here")
    database.migrate()
    service = ProjectService(database)
    whole = campus()
    project = replace(whole, buildings=whole.buildings[:1], assemblies=whole.assemblies[:3])
    service.bring_in(project)
    file = tmp_path / "out.json"
    invoke("export", "heron-flats", file, "--data", tmp_path / "here")
    code, said, _ = invoke("compute", file, "--at", "0")
    found = json.loads(said)
    assert code == 0
    assert [building["name"] for building in found["buildings"]] == ["Main Laboratory"]
    laboratory = found["buildings"][0]
    stored = solved_here(service.load("heron-flats").project)
    ledger = consequence(stored, None, "main-laboratory").now.ledger
    assert laboratory["H"] == value_of(ledger.H or 0.0)
    wall = next(one for one in laboratory["elements"] if one["name"] == "Wall W-A")
    assert wall["build_up"]["figures"]["U_clear"] == pytest.approx(wall["U"])
    assert wall["build_up"]["core_asked"] > 0.185
    assert {"code": "target_missed", "weight": "decision"} in wall["build_up"]["remarks"]
    assert next(one for one in laboratory["elements"] if one["name"] == "Windows")["build_up"] is None
    assert laboratory["not_counted"]
    database.close()


def test_a_project_file_that_cannot_be_computed_exits_2_and_nothing_is_solved(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(compute, "solved_here", None)
    file = tmp_path / "bad.json"
    file.write_text("[]")
    assert invoke("compute", file)[0] == 2
    database = Database(tmp_path / "here")
    database.migrate()
    plant(ProjectService(database))
    database.close()
    invoke("export", "heron-flats", file, "--data", tmp_path / "here")
    code, _, said = invoke("compute", file, "--at", "spring")
    assert code == 2
    assert json.loads(said)["errors"][0]["code"] == "unknown_condition"
