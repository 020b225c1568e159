"""The whole building on paper: each loss at its station, in the reader's units, and never a part as whole."""

from __future__ import annotations

import shutil
import subprocess

import pytest
from fastapi.testclient import TestClient

V1 = "/api/v1"
REGISTER = V1 + "/projects/{}/buildings/main-laboratory/decisions"
needs_pdftotext = pytest.mark.skipif(shutil.which("pdftotext") is None, reason="pdftotext is not here")


def printed(client: TestClient, campus: str, units: str, what: str = "specification") -> str:
    answer = client.get(f"{V1}/projects/{campus}/buildings/main-laboratory/{what}.pdf", params={"units": units})
    assert answer.status_code == 200
    read = subprocess.run(["pdftotext", "-layout", "-", "-"], input=answer.content, capture_output=True, check=True)
    return read.stdout.decode()


@needs_pdftotext
def test_a_part_is_marked_and_what_lacks_is_named(client: TestClient, campus: str) -> None:
    text = printed(client, campus, "SI")
    assert "What it comes to, so far" in text
    assert "being solved" in text
    losses = text[text.index("Losses by station") : text.index("Walls and roofs")]
    assert "%" not in losses  # a share of a sum that lacks a part would be wrong
    found = client.get(f"{V1}/projects/{campus}/buildings/main-laboratory/whole").json()
    for loss in found["losses"]:
        assert loss["name"].split(",")[0] in losses
    assert f"{found['sums']['H']:.1f} W/K" in text
    assert f"{found['leaks']['n50'][1]:.2f}" in text
    for line in ("passive pipe", "membrane", "place for a fan", "frost, footing", "Open in the building"):
        assert line in text


@needs_pdftotext
def test_its_reader_chooses_the_units(client: TestClient, campus: str) -> None:
    text = printed(client, campus, "IP")
    assert "Btu" in text
    assert "W/K" not in text
    assert "m³" not in text
    assert "kWh" not in text


@needs_pdftotext
@pytest.mark.parametrize("units", ["SI", "IP"])
def test_the_plant_contractor_gets_one_page(client: TestClient, campus: str, units: str) -> None:
    text = printed(client, campus, units, "plant")
    assert text.count("\f") == 1
    assert "What the plant has to be, so far" in text
    assert "being solved: Ridge" in text
    states = [one["state"] for one in client.get(REGISTER.format(campus)).json()["decisions"]]
    assert f"{states.count('open')} open" in text
    assert f"{states.count('unknown')} nobody has said yet" in text
