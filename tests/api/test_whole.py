"""The whole shell over the API: figures, working, measures, the page for the plant contractor, and what is refused."""

from __future__ import annotations

from typing import Any

import pytest
from editing import write
from fastapi.testclient import TestClient

V1 = "/api/v1"
LAB = "main-laboratory"


def at(project: str, what: str, one: str = LAB) -> str:
    return f"{V1}/projects/{project}/buildings/{one}/{what}"


def lab(client: TestClient, project: str) -> tuple[dict[str, Any], int]:
    found = client.get(f"{V1}/projects/{project}").json()
    return next(one for one in found["project"]["buildings"] if one["id"] == LAB), found["revision"]


def test_a_building_is_summed_up_and_says_what_is_still_to_come(client: TestClient, campus: str) -> None:
    found = client.get(at(campus, "whole")).json()
    assert not found["whole"]
    assert found["pending"]
    assert {one["kind"] for one in found["losses"]} >= {"areas", "joints", "glazing", "ground", "air"}
    assert any(one["H"] is None for one in found["losses"])
    assert len(found["cooling"]["load"]) == 24
    assert len(found["energy"]["months"]) == len(found["rooms"]) == 12
    assert found["sums"]["H"] == pytest.approx(sum(one["H"] or 0.0 for one in found["losses"]))


def test_a_figure_opens_its_working(client: TestClient, campus: str) -> None:
    named = client.get(at(campus, "whole")).json()
    assert "n50" in named["figures"]
    steps = client.post(at(campus, "whole-working"), json={"figure": "n50"}).json()["steps"]
    assert steps[-1]["value"] == pytest.approx(named["leaks"]["n50"][1])
    assert client.post(at(campus, "whole-working"), json={"figure": "gold"}).status_code == 422


def test_the_section_and_the_glazing_come_from_the_shape(client: TestClient, campus: str) -> None:
    assert client.get(at(campus, "section")).json()["width"] == pytest.approx(8.4)
    glazing = client.get(at(campus, "glazing")).json()
    assert [one["azimuth"] for one in glazing["orientations"]] == [0, 90, 180, 270, None]
    assert len(glazing["shadings"][0]["hours"]) == 12


def test_a_building_without_a_shape_is_told_what_to_do(client: TestClient, campus: str) -> None:
    own, revision = lab(client, campus)
    assert (
        write(client, campus, "building", {**own, "bodies": [], "openings": [], "faces": []}, revision).status_code
        == 200
    )
    for what in ("whole", "section", "glazing", "measures", "plant.pdf", "specification.pdf"):
        answer = client.get(at(campus, what))
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["code"] == "no_shape"


@pytest.mark.parametrize(
    ("part", "field", "value"),
    [
        ("tightness", "n50_asked", -0.1), ("fire", "wind", 61), ("loads", "overhang_gap", -0.2), ("air", "eta_t", 1.2),
        ("tightness", "exponent", 0.4), ("ground", "lambda", 0), ("tightness", "openings", [3, 2, 1]),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field_and_nothing_changes(
    client: TestClient, campus: str, part: str, field: str, value: Any
) -> None:
    own, revision = lab(client, campus)
    plant = {**own["plant"], part: {**own["plant"][part], field: value}}
    answer = write(client, campus, "building", {**own, "plant": plant}, revision)
    assert answer.status_code == 422
    assert any(one["pointer"].endswith(f"/plant/{part}/{field}") for one in answer.json()["errors"])
    assert lab(client, campus) == (own, revision)


def test_measures_wait_for_what_is_being_solved(client: TestClient, campus: str) -> None:
    found = client.get(at(campus, "measures")).json()
    assert found
    assert all(one["gains"] is None for one in found)
    together = client.post(at(campus, "measures/together"), json={"keys": [found[0]["key"]]}).json()
    assert together["gains"] is None
    assert client.post(at(campus, "measures/together"), json={"keys": ["gold"]}).status_code == 422
    assert client.post(at(campus, "measures/together"), json={"keys": []}).status_code == 422


def test_a_share_of_glass_is_so_far_while_what_the_walls_rest_on_is_being_solved(
    client: TestClient, campus: str
) -> None:
    found = client.get(at(campus, "glazing")).json()
    assert "Window jambs" in found["lacking"]
    own, revision = lab(client, campus)
    bare = {**own, "joints": [one for one in own["joints"] if one["station"] != "E"]}
    assert write(client, campus, "building", bare, revision).status_code == 200
    assert "a joint round the windows" in client.get(at(campus, "glazing")).json()["lacking"]


def test_a_measure_is_built_and_taken_back(client: TestClient, campus: str) -> None:
    before, _ = lab(client, campus)
    asked = {"text": "better recovery", "zone": "D7", "keys": ["recovery"]}
    assert client.post(at(campus, "measures/adoption"), json=asked).status_code == 200
    built, _ = lab(client, campus)
    assert built["plant"]["air"]["eta_t"] == 0.85
    number = client.get(f"{V1}/projects/{campus}").json()["undo"]["number"]
    assert client.post(f"{V1}/projects/{campus}/undo", json={"number": number}).status_code == 200
    assert lab(client, campus)[0] == before


def test_states_are_told_and_those_that_lack_a_part_say_what(client: TestClient, campus: str) -> None:
    found = client.post(at(campus, "states"), json={}).json()
    assert found[0]["key"] == "now"
    assert all(one["figures"] is None and one["why_not"] for one in found)
