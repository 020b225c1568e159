"""Published and analytic references: every row of `verify`, and every case file through the command line."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from nimble_shell import references
from nimble_shell.cli import app

CASES = sorted((Path(__file__).parent / "cases").glob("*.json"))


@pytest.mark.parametrize("group", references.GROUPS)
def test_our_values_are_within_the_tolerance_of_the_references(group: str) -> None:
    rows = list(references.GROUPS[group]())
    assert rows
    assert [f"{row.name}: {row.reference} against {row.ours}" for row in rows if not row.good] == []


def test_the_table_tells_a_miss() -> None:
    bad = references.Row(name="x", source="made up", reference=1.0, ours=1.1, tolerance=0.01)
    assert not bad.good
    text = references.table([bad])
    assert "OUTSIDE" in text
    assert "1 comparisons, 1 outside" in text


@pytest.mark.parametrize("file", CASES, ids=lambda file: str(file.stem))
def test_a_case_file_gives_its_reference_through_the_command_line(file: Path) -> None:
    reference = json.loads(file.read_text())["reference"]
    run = CliRunner().invoke(app, ["wall", str(file)])
    assert run.exit_code == 0
    found: dict[str, Any] = json.loads(run.stdout)
    for group in ("R", "U", "at"):
        for key, value in reference.get(group, {}).items():
            assert found[group][key] == pytest.approx(value, abs=reference["tolerance"])
    for key in ("error_e", "delta_U_f"):
        if key in reference:
            assert found[key] == pytest.approx(reference[key], abs=reference["tolerance"])
