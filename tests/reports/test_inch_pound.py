"""No page of an inch-pound project has an SI unit on it."""

from __future__ import annotations

from dataclasses import replace

import pytest
from reports.test_specification import pdf_text
from si_units import left_in

from nimble_shell.core.basis.criteria import Handling
from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.moisture.verdict.verdict import judge_joint
from nimble_shell.demo.heron_flats import campus as campus_of
from nimble_shell.services import sheets
from nimble_shell.services.fixings import LookedAtFixing
from nimble_shell.services.joints import drawn
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.services.verdicts import leak_question
from nimble_shell.store import Stored


@pytest.fixture
def stored(projects: ProjectService) -> Stored:
    """The demo campus in inch-pound, its pieces carried by hand through a narrow gate."""
    project = campus_of()
    basis = replace(
        project.basis,
        schools=replace(project.basis.schools, units="IP"),
        handling=Handling(crane=False, people=2, access=1.0),
    )
    return projects.bring_in(replace(project, basis=basis))


def test_specification_sheets(stored: Stored) -> None:
    for building in stored.project.buildings:
        for assembly_id in {element.assembly_id for element in building.elements if element.assembly_id}:
            text = pdf_text(sheets.specification(stored, building.id, assembly_id, "0")[1])
            assert "h·ft²·°F/Btu" in text
            assert left_in(text) == [], assembly_id


def test_the_page_of_a_joint(stored: Stored) -> None:
    building = next(one for one in stored.project.buildings if one.id == "main-laboratory")
    joint = next(one for one in building.joints if one.family == "ridge")
    found = drawn(stored.project, joint)
    solved = solve_joint(found.drawing, found.temperatures, accuracy="working")
    judged = judge_joint(*leak_question(stored.project, joint, solved.f_rsi).args)
    text = pdf_text(sheets.joint_sheet(stored, building.id, joint, found, solved, judged))
    assert "Btu/(h·ft·°F)" in text
    assert left_in(text) == []


def test_the_page_of_fixings(stored: Stored) -> None:
    project = stored.project
    wall = next(one for one in project.assemblies if one.id == "wall-w-b")
    fixing = started("dowel", wall, next(layer.id for layer in wall.layers if layer.studied), "f9")
    wall = replace(wall, fixings=(fixing,))
    cell = cell_of(wall, fixing, project.catalogue, project.basis)
    solved = solve_fixing(cell, {"inside": 20.0, "outside": -10.0}, accuracy="working")
    looked = LookedAtFixing(cell=cell, fixing=fixing, solved=None)  # type: ignore[arg-type]
    at = PlacedDraft(building_id="boat-workshop", assembly=wall)
    assert left_in(pdf_text(sheets.fixing_sheet(stored, at, looked, solved))) == []
