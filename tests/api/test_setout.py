"""Set-out over the API: faces of panels, joints that are pinned, better places of openings, and what is refused."""

from __future__ import annotations

from typing import Any

import pytest
from editing import write
from fastapi.testclient import TestClient

from nimble_shell.demo.heron_flats import campus as heron_flats

V1 = "/api/v1"
LAB = "main-laboratory"


def at(project: str, what: str = "setout", one: str = LAB) -> str:
    return f"{V1}/projects/{project}/buildings/{one}/{what}"


def face(found: dict[str, Any], mark: str) -> dict[str, Any]:
    return next(one for one in found["faces"] if one["mark"] == mark)


@pytest.mark.parametrize("building", [one.id for one in heron_flats().buildings])
def test_every_face_is_panels_or_says_why_not(client: TestClient, campus: str, building: str) -> None:
    found = client.get(at(campus, one=building)).json()
    assert len(found["faces"]) + len(found["others"]) > 0
    assert all(one["reason"] for one in found["others"])
    for one in found["faces"]:
        assert bool(one["reason"]) == (one["sum"] is None)
        if one["sum"] is None:
            continue
        assert len(one["panels"]) == one["sum"]["panels"]
        assert len(one["joints"]) == one["sum"]["members"]
        marks = [each["mark"] for each in one["panels"]]
        assert len(set(marks)) == len(marks)
        gross = _area(one["outline"])
        openings = sum(each["w"] * each["h"] for each in one["openings"])
        assert sum(each["area"] for each in one["panels"]) == pytest.approx((gross - openings) * one["layers"])


def _area(points: list[list[float]]) -> float:
    ends = [*points[1:], points[0]]
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, ends, strict=True))) / 2


def test_a_pinned_joint_stays_and_the_rest_goes_round_it(client: TestClient, campus: str) -> None:
    found = client.get(at(campus)).json()
    wall = face(found, "C")
    upper = sorted((one["u"], one["u"] + one["w"]) for one in wall["openings"] if one["v"] > wall["levels"][0])
    u = (upper[0][1] + upper[1][0]) / 2 + 0.0137
    choices = {**found["choices"], "pins": [{"face": wall["face"], "u": u, "storey": 1}]}
    drawn = client.post(at(campus, "setout/face"), json={"face": wall["face"], "choices": choices}).json()
    pinned = [one for one in drawn["joints"] if one["pinned"]]
    assert [round(one["u"], 5) for one in pinned] == [round(u, 5)]
    order = found["choices"]["order"][:3]
    assert [drawn["sum"][term] for term in order] >= [wall["sum"][term] for term in order], "no pin makes it better"


def test_a_pin_in_an_opening_says_why_it_cannot_stand(client: TestClient, campus: str) -> None:
    found = client.get(at(campus)).json()
    wall = next(one for one in found["faces"] if one["openings"])
    opening = wall["openings"][0]
    storey = sum(opening["v"] > level for level in wall["levels"])
    pin = {"face": wall["face"], "u": opening["u"] + opening["w"] / 2, "storey": storey}
    asked = {"face": wall["face"], "choices": {**found["choices"], "pins": [pin]}}
    drawn = client.post(at(campus, "setout/face"), json=asked).json()
    assert drawn["sum"] is None
    assert "no joint can stand" in drawn["reason"]


def test_an_opening_that_stands_better_says_how_far_and_what_is_saved(client: TestClient, campus: str) -> None:
    found = client.get(at(campus)).json()
    order = [term for term in found["choices"]["order"] if term != "waste"]
    moved = 0
    for wall in found["faces"]:
        for move in client.get(at(campus, "setout/moves"), params={"face": wall["face"]}).json():
            saved = {"panels": move["panels"], "members": move["joints"], "off_module": move["off_module"]}
            first = next(saved[term] for term in order if saved[term])
            assert first < 0, "what counts most is what is saved"
            openings = next(one for one in client.get(f"{V1}/projects/{campus}").json()["project"]["buildings"]
                            if one["id"] == LAB)["openings"]  # fmt: skip
            changed = [{**one, "u": one["u"] + move["by"]} if one["id"] == move["opening"] else one for one in openings]
            asked = {"face": wall["face"], "openings": changed}
            there = client.post(at(campus, "setout/face"), json=asked).json()
            assert there["sum"]["panels"] - wall["sum"]["panels"] == move["panels"]
            assert there["sum"]["members"] - wall["sum"]["members"] == move["joints"]
            moved += 1
    assert moved


def test_timber_and_seams_come_from_the_set_out(client: TestClient, campus: str) -> None:
    found = client.get(at(campus)).json()
    walls = [one for one in found["faces"] if one["kind"] == "wall"]
    row = next(one for one in found["thermal"] if one["assembly"] == walls[0]["assembly"])
    assert row["seams"] == pytest.approx(sum(one["sum"]["member_length"] for one in walls))
    assert row["area"] == pytest.approx(sum(each["area"] for one in walls for each in one["panels"]))
    assert row["timber"] > row["timber_assumed"], "posts and headers are more than was assumed"
    assert row["R"] < row["R_assumed"]


@pytest.mark.parametrize(
    ("asked", "status"),
    [
        ({"face": "nowhere"}, 422),
        ({"face": "", "choices": {"order": []}}, 422),
        ({"face": "x", "choices": {"order": ["waste", "panels"]}}, 422),
        ({"face": "x", "choices": {"longest": 900.0}}, 422),
        ({"face": "x", "colour": 1}, 422),
    ],
)
def test_what_is_wrong_is_refused(client: TestClient, campus: str, asked: Any, status: int) -> None:
    reply = client.post(at(campus, "setout/face"), json=asked)
    assert reply.status_code == status
    assert reply.json()["errors"][0]["detail"]


def test_one_click_makes_the_set_out_the_source(client: TestClient, campus: str) -> None:
    """Timber of the walls and lengths of their seams come from the set-out, and go back."""
    before = client.get(f"{V1}/projects/{campus}").json()
    lab = next(one for one in before["project"]["buildings"] if one["id"] == LAB)
    sheet = client.get(at(campus)).json()
    U = _transmittance(client, campus)
    changed = {**lab, "setout": {**lab["setout"], "counts": True}}
    assert write(client, campus, "building", changed, before["revision"]).status_code == 200
    after = client.get(at(campus)).json()
    assert after["choices"]["counts"]
    assert after["thermal"] == sheet["thermal"], "what is assumed stays beside it"
    walls = next(one for one in sheet["thermal"] if one["seams"] < one["seams_assumed"])
    shape = client.post(at(campus, "shape"), json={}).json()["now"]
    seams = sum(
        one["length"]["external"] if isinstance(one["length"], dict) else one["length"]
        for one in shape["edges"]
        if one["kind"] in ("seam", "roof_seam")
    )
    assert seams == pytest.approx(sum(one["seams"] for one in sheet["thermal"]))
    assert walls["R"] != walls["R_assumed"]
    assert _transmittance(client, campus) != U


def _transmittance(client: TestClient, project: str) -> dict[str, float]:
    lines = client.get(at(project, "ledger")).json()["now"]["lines"]
    return {one["element_id"]: one["U"] for one in lines}


def test_the_same_walls_in_other_ways(client: TestClient, campus: str) -> None:
    rows = client.get(at(campus, "setout/compared")).json()
    drawn = next(one for one in rows if one["now"])
    sheet = client.get(at(campus)).json()
    walls = [one for one in sheet["faces"] if one["kind"] == "wall"]
    assert drawn["panels"] == sum(len(one["panels"]) for one in walls)
    assert drawn["joints"] == pytest.approx(sum(one["sum"]["member_length"] for one in walls))
    assert drawn["R"] == pytest.approx(next(one["R"] for one in sheet["thermal"] if one["name"] == drawn["name"]))
    assert f"module-{drawn['module']:g}" not in {one["key"] for one in rows}, "its own module is what is drawn"
    wide = next(one for one in rows if one["key"] == "module-2.4")
    assert wide["panels"] < drawn["panels"]
    assert wide["timber"] < drawn["timber"]
    site = next(one for one in rows if one["key"] == "site-framing")
    assert (site["module"], site["panels"]) == (None, 0)
    assert any(one["reason"] for one in rows), "a module narrower than an opening says so"
