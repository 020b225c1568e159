"""The page of a build-up's moisture says what its verdict says, month by month, in the units of the project."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from reports.test_specification import pdf_text
from si_units import left_in

from nimble_shell.core.basis.stations import direction_at
from nimble_shell.core.climate import MONTHS
from nimble_shell.core.moisture.verdict.verdict import Verdict, judge_alone
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.shell.decisions import OpenDecision
from nimble_shell.core.shell.project import Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.reports import moisture_sheet as module
from nimble_shell.services.bench import station_of
from nimble_shell.services.decisions import Register
from nimble_shell.services.sheets import moisture_sheet
from nimble_shell.store import NotFound, Stored

PROJECT = campus()
LAB = PROJECT.buildings[0]
USED = [
    (building.id, element.assembly_id)
    for building in PROJECT.buildings
    for element in building.elements
    if element.assembly_id is not None
]


@pytest.fixture
def page(monkeypatch: pytest.MonkeyPatch) -> dict[str, dict[str, Any]]:
    """Sections of the page that is drawn last, by heading."""
    held: dict[str, dict[str, Any]] = {}

    def drawn(_heading: Any, _svg: str, _caption: str, sections: Any, _cautions: Any) -> bytes:
        held.clear()
        held.update({one["head"]: one for one in sections})
        return b"%PDF"

    monkeypatch.setattr(module, "page_pdf", drawn)
    return held


def draw(building_id: str, assembly_id: str, project: Project = PROJECT, joints: Any = ()) -> Verdict:
    building = next(one for one in project.buildings if one.id == building_id)
    assembly = next(one for one in project.assemblies if one.id == assembly_id)
    direction = direction_at(station_of(building, assembly_id))
    verdict = judge_alone(assembly, project.catalogue, project.basis, direction)
    stored = Stored(project=project, slots={}, revision=1, changed_at="2026-11-01T00:00:00+00:00")
    moisture_sheet(stored, building_id, assembly_id, verdict, joints, None)
    return verdict


def test_what_is_open_in_the_building_stands_on_the_page_as_in_the_register() -> None:
    text = sentence("Roof has a clear R of {v1}", v1=(4.2, "resistance"))
    one = OpenDecision(key="a", matter="R", state="open", step=2, station="B", id="e1", text=text)
    element = next(one for one in LAB.elements if one.assembly_id)
    verdict = judge_alone(PROJECT.assemblies[0], PROJECT.catalogue, PROJECT.basis)
    stored = Stored(project=PROJECT, slots={}, revision=1, changed_at="2026-11-01T00:00:00+00:00")
    args = (stored, LAB.id, str(element.assembly_id), verdict, (), None)
    said = pdf_text(moisture_sheet(*args, Register(decisions=(one,), waiting=0)))
    assert "Open in the building" in said
    assert "B2: Roof has a clear R of 4.2 m²·K/W." in said
    assert "Open in the building" not in pdf_text(moisture_sheet(*args))


@pytest.mark.parametrize(("building_id", "assembly_id"), USED)
def test_passing_and_failing_are_said_as_judged(
    page: dict[str, dict[str, Any]], building_id: str, assembly_id: str
) -> None:
    verdict = draw(building_id, assembly_id)
    text = " ".join(page["Verdict"]["items"])
    assert ("It fails by" in text) is not verdict.passes
    assert ("It passes" in text) is verdict.passes
    if verdict.phi_fails is not None:
        assert f"{100 * verdict.phi_fails:.0f} %" in text


def test_every_month_has_a_row_with_its_air(page: dict[str, dict[str, Any]]) -> None:
    draw("main-laboratory", "wall-w-a")
    rows = page["Month by month"]["rows"]
    assert sorted(row[0] for row in rows) == sorted(MONTHS)
    assert all(len(row) == len(page["Month by month"]["columns"]) for row in rows)
    assert all("°C" in row[1] and "%" in row[1] for row in rows)


def test_joints_of_the_build_up_stand_with_their_own_verdicts(page: dict[str, dict[str, Any]]) -> None:
    fails = Verdict(passes=False, reason="leak", phi_fails=0.3, phi_room=0.45)
    never = Verdict(passes=True, reason="", phi_fails=None, phi_room=0.45)
    draw("main-laboratory", "wall-w-a", joints=[("Seam", fails), ("Corner", never)])
    assert page["Joints of this build-up"]["items"] == [
        "Seam: fails by room air through the joint, at a room of 30 % (now 45 %)",
        "Corner: passes, up to a room at 95 %",
    ]


def test_a_run_that_was_not_made_is_said_not_to_be_there(page: dict[str, dict[str, Any]]) -> None:
    draw("main-laboratory", "wall-w-a")
    assert page["By the hour"]["items"] == ["Not run as saved, or not kept: run it on the sheet."]


def test_a_rule_of_ratio_is_named_only_where_the_basis_has_one(page: dict[str, dict[str, Any]]) -> None:
    for share, said in ((None, "none in the Basis"), (0.2, "at most 20.0 %")):
        limits = replace(PROJECT.basis.limits, inside_share=share)
        draw("main-laboratory", "wall-w-a", replace(PROJECT, basis=replace(PROJECT.basis, limits=limits)))
        assert said in page["Rule of ratio"]["items"][0]


def test_an_inch_pound_project_has_no_si_unit_on_it(page: dict[str, dict[str, Any]]) -> None:
    schools = replace(PROJECT.basis.schools, units="IP")
    draw("main-laboratory", "roof-r-a", replace(PROJECT, basis=replace(PROJECT.basis, schools=schools)))
    lines = [
        text
        for one in page.values()
        for text in one.get("items", [cell for row in one.get("rows", []) for cell in row])
    ]
    assert lines
    assert left_in("\n".join(lines)) == []


def test_a_build_up_that_is_gone_has_no_page() -> None:
    stored = Stored(project=PROJECT, slots={}, revision=1, changed_at="")
    verdict = Verdict(passes=True, reason="", phi_fails=None, phi_room=0.45)
    with pytest.raises(NotFound):
        moisture_sheet(stored, LAB.id, "gone", verdict, (), None)
