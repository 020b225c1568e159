"""Pages of joints and fixings: to scale, with field, figures and seals, and nobody's text taken for markup."""

from __future__ import annotations

import shutil
import subprocess
from dataclasses import replace
from xml.etree import ElementTree

import pytest

from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.fixings.shown import whole
from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.shown import lying, lying_answer
from nimble_shell.core.joints.solved import SolvedJoint, solve_joint
from nimble_shell.core.moisture.verdict.verdict import judge_joint
from nimble_shell.core.shell.decisions import OpenDecision
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.reports.detail_section import SCALES, detail_section
from nimble_shell.services import sheets
from nimble_shell.services.decisions import Register
from nimble_shell.services.fixings import LookedAtFixing
from nimble_shell.services.joints import drawn
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.services.verdicts import leak_question

SVG = "{http://www.w3.org/2000/svg}"
PROJECT = campus()
_UNDECIDED = OpenDecision(
    key="b", matter="joint", state="unknown", step=3, station="E", id="j1", text="Jamb #raw[x]: air undecided"
)
#: What is open in a building.
DECIDED = Register(decisions=(_UNDECIDED,), waiting=2)


def answered(project: Project, building: Building, name: str) -> tuple[Drawing, SolvedJoint]:
    joint = next(one for one in building.joints if one.name == name)
    found = drawn(project, joint)
    return found.drawing, solve_joint(found.drawing, found.temperatures, accuracy="working")


def of(key: str) -> Building:
    return next(one for one in PROJECT.buildings if one.id == key)


@pytest.mark.parametrize(
    ("building", "name"),
    [("main-laboratory", "Wall seams"), ("main-laboratory", "Eave"), ("bunkhouse", "Ventilation pipe")],
)
def test_a_joint_is_drawn_to_scale_with_its_field(building: str, name: str) -> None:
    drawing, solved = answered(PROJECT, of(building), name)
    found = detail_section(drawing, solved, 12.0, "SI")
    root = ElementTree.fromstring(found.svg)
    assert found.scale in SCALES
    x0, _, x1, _ = lying(drawing).view
    (window,) = [one for one in root.iter(f"{SVG}rect") if one.get("stroke-width") == "0.4"]
    assert float(window.get("width", "0")) == pytest.approx(1000 * (x1 - x0) / found.scale, abs=0.02)
    texts = [text.text for text in root.iter(f"{SVG}text")]
    assert {"outside", "inside"} <= set(texts)
    assert {"−20", "10"} <= set(texts)
    bold = [one for one in root.iter(f"{SVG}path") if one.get("stroke-linecap") and one.get("stroke-width") == "0.6"]
    assert len(bold) == 1


def test_a_body_of_revolution_lies_with_its_outside_to_the_left() -> None:
    drawing, solved = answered(PROJECT, of("bunkhouse"), "Ventilation pipe")
    turned, answer = lying(drawing), lying_answer(drawing, solved)
    assert turned.view[0] < 0 < turned.view[2]
    left = answer.field.theta[answer.field.xy[:, 0] < turned.view[0] + 0.07]
    right = answer.field.theta[answer.field.xy[:, 0] > -0.01]
    assert left.mean() < right.mean()
    assert answer.coldest.at == solved.coldest.at[::-1]


def pages(pdf: bytes) -> str:
    tool = shutil.which("pdftotext")
    if tool is None:
        return ""
    return subprocess.run([tool, "-", "-"], input=pdf, capture_output=True, check=True).stdout.decode()


def test_a_joint_has_a_page_with_figures_and_seals(projects: ProjectService, campus: str) -> None:
    stored = projects.load(campus)
    building = next(one for one in stored.project.buildings if one.id == "main-laboratory")
    joint = replace(next(one for one in building.joints if one.family == "ridge"), name="Ridge #strong[x] \x07 $y$")
    found = drawn(stored.project, joint)
    solved = solve_joint(found.drawing, found.temperatures, accuracy="working")
    judged = judge_joint(*leak_question(stored.project, joint, solved.f_rsi).args)
    pdf = sheets.joint_sheet(stored, building.id, joint, found, solved, judged, DECIDED)
    assert pdf.startswith(b"%PDF")
    text = pages(pdf)
    said_of_it = (
        "Open in the building",
        "E3: Jamb #raw[x]: air undecided.",
        "2 joints and verdicts are",
        "#strong[x]",
        "A3",
        "LEFT OUT",
        "air leak grade",
        "in use",
        "f_Rsi",
        "Room air wets the outer skin",
    )
    for said in said_of_it if text else ():
        assert said in text


@pytest.mark.parametrize("kind", ["dowel", "web", "bracket"])
def test_a_group_of_fixings_has_a_page(projects: ProjectService, campus: str, kind: str) -> None:
    stored = projects.load(campus)
    project = stored.project
    wall = next(one for one in project.assemblies if one.id == "wall-w-b")
    core = next(layer.id for layer in wall.layers if layer.studied)
    fixing = started(kind, wall, core, "f9")
    wall = replace(wall, fixings=(fixing,))
    cell = cell_of(wall, fixing, project.catalogue, project.basis)
    solved = solve_fixing(cell, {"inside": 20.0, "outside": -10.0}, accuracy="working")
    at = PlacedDraft(building_id="boat-workshop", assembly=wall)
    looked = LookedAtFixing(cell=cell, fixing=fixing, solved=None)  # type: ignore[arg-type]
    pdf = sheets.fixing_sheet(stored, at, looked, solved, DECIDED)
    assert pdf.startswith(b"%PDF")
    text = pages(pdf)
    for said in (
        ("Open in the building", "E3: Jamb #raw[x]: air undecided.", "D4", "solved over approximate", "engineer")
        if text
        else ()
    ):
        assert said in text
    both, field = whole(cell.drawing, solved.field)
    shown = lying(both)
    assert shown.view[1] == -shown.view[3]
    assert len(field.field.theta) == 2 * len(solved.field.field.theta)
