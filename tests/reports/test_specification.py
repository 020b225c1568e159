"""The specification sheet: what a reader needs is on it, and nobody's text is taken for markup."""

from __future__ import annotations

import shutil
import subprocess
from dataclasses import replace
from xml.etree import ElementTree

import pytest
from fastapi.testclient import TestClient

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.shell.decisions import OpenDecision
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.reports.hatches import HATCHES
from nimble_shell.reports.section import SCALES, wall_section
from nimble_shell.reports.written import length_text
from nimble_shell.services.decisions import Register
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.services.sheets import specification

SVG = "{http://www.w3.org/2000/svg}"


def drawn(assembly: Assembly, units: UnitSystem = "SI") -> tuple[ElementTree.Element, float]:
    profile = wall_figures(assembly, CATALOGUE, Basis(), "0").profile
    drawing = wall_section(assembly, CATALOGUE, profile, units)
    return ElementTree.fromstring(drawing.svg), drawing.scale


@pytest.mark.parametrize("system", sorted(SYSTEMS))
def test_the_section_is_to_scale_with_outside_on_the_left(system: str) -> None:
    wall = SYSTEMS[system].assembly("w", "W")
    root, scale = drawn(wall)
    slabs = [r for r in root.iter(f"{SVG}rect") if r.get("fill") == "#FFFFFF" and r.get("stroke-width") == "0.3"]
    widths = [float(slab.get("width", "0")) for slab in slabs]
    assert widths == pytest.approx([1000 * layer.d / scale for layer in reversed(wall.layers)], abs=1e-3)
    starts = [float(slab.get("x", "0")) for slab in slabs]
    assert starts == sorted(starts)
    assert scale in SCALES


def test_every_layer_carries_its_dimension_and_the_whole_its_sum() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    for units in ("SI", "IP"):
        texts = [text.text for text in drawn(wall, units)[0].iter(f"{SVG}text")]  # type: ignore[arg-type]
        for layer in wall.layers:
            assert length_text(layer.d, units) in texts  # type: ignore[arg-type]
        assert f"{length_text(wall.thickness, units)} overall" in texts  # type: ignore[arg-type]


def test_every_hatch_used_is_defined() -> None:
    root, _ = drawn(SYSTEMS["icf"].assembly("w", "W"))
    defined = {pattern.get("id") for pattern in root.iter(f"{SVG}pattern")}
    used = {r.get("fill", "")[5:-1] for r in root.iter(f"{SVG}rect") if r.get("fill", "").startswith("url(")}
    assert used <= defined == set(HATCHES)


def test_a_thick_wall_takes_a_smaller_scale() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    assert wall.core_index is not None
    assert drawn(wall.with_thickness(wall.core_index, 2.5))[1] > drawn(wall)[1]


def pdf_text(pdf: bytes) -> str:
    if shutil.which("pdftotext") is None:
        pytest.fail("pdftotext is missing: the set-up installs poppler-utils")
    done = subprocess.run(["pdftotext", "-layout", "-", "-"], input=pdf, capture_output=True, check=True)
    return done.stdout.decode()


def test_the_sheet_says_kind_and_method_of_every_R(projects: ProjectService, campus: str) -> None:
    stored = projects.load(campus)
    name, pdf = specification(stored, "main-laboratory", "wall-w-a", "0")
    assert name == "Wall W-A"
    assert pdf.startswith(b"%PDF-")
    text = pdf_text(pdf)
    figures = wall_figures(stored.project.assemblies[0], CATALOGUE, stored.project.basis, "0").figures
    for key in ("nominal", "parallel", "isothermal", "combined", "winter", "summer"):
        assert f"{figures[f'R_{key}'].number:.2f}" in text, key
    for words in (
        "nominal, as labelled", "combined limits", "EPS with graphite", "not counted", "scale 1:2.5", "324 overall",
        "Softwood, spline, 76 at 1200", "licensed engineer", "local codes", "short of the asked",
        "Labelled conductivities at 10.0 °C mean", "Structural insulated panel",
    ):  # fmt: skip
        assert words in text, words


def test_what_is_open_in_the_building_stands_on_the_sheet_as_in_the_register(
    projects: ProjectService, campus: str
) -> None:
    stored = projects.load(campus)
    text = sentence("Roof has a clear R of {v1}, asked {v2}", v1=(4.2, "resistance"), v2=(5.6, "resistance"))
    decisions = (
        OpenDecision(key="a", matter="R", state="open", step=2, station="B", id="e1", text=text),
        OpenDecision(
            key="b", matter="joint", state="unknown", step=3, station="E", id="j1", text="Jamb: air undecided"
        ),
    )
    for waiting, words in ((0, None), (1, "One joint or verdict is"), (7, "7 joints and verdicts are")):
        found = Register(decisions=decisions, waiting=waiting)
        page = " ".join(pdf_text(specification(stored, "main-laboratory", "wall-w-a", "0", found)[1]).split())
        assert "Open in the building" in page
        assert "B2: Roof has a clear R of 4.2 m²·K/W, asked 5.6 m²·K/W." in page
        assert "E3: Jamb: air undecided." in page
        assert ("still being found out" in page) == (words is not None)
        assert words is None or words in page
    assert "Open in the building" not in pdf_text(specification(stored, "main-laboratory", "wall-w-a", "0")[1])
    basis = replace(stored.project.basis, schools=replace(stored.project.basis.schools, units="IP"))
    inches = replace(stored, project=replace(stored.project, basis=basis))
    page = pdf_text(specification(inches, "main-laboratory", "wall-w-a", "0", found)[1])
    assert "B2: Roof has a clear R of 23.8 h·ft²·°F/Btu" in " ".join(page.split())


def test_inch_pound_changes_the_sheet(projects: ProjectService, campus: str) -> None:
    stored = projects.load(campus)
    basis = replace(stored.project.basis, schools=Schools(units="IP", films="north_american"))
    changed = replace(stored, project=replace(stored.project, basis=basis))
    text = pdf_text(specification(changed, "main-laboratory", "wall-w-a", "0")[1])
    assert "h·ft²·°F/Btu" in text
    assert '7 5/16"' in text
    assert "North American" in text


@pytest.mark.parametrize(
    "name", ["#set page(width: 1pt)", "<script>alert(1)</script>", "$ x $ *bold* _it_ \\", "]#panic()["]
)
def test_a_name_with_markup_is_printed_as_it_is(projects: ProjectService, campus: str, name: str) -> None:
    stored = projects.load(campus)
    wall = replace(stored.project.assemblies[0], name=name)
    saved = projects.save_assembly(campus, wall, stored.versions["assembly/wall-w-a"], ChangeNote(text="name"))
    assert name in pdf_text(specification(saved, "main-laboratory", "wall-w-a", "0")[1])


def test_control_characters_do_not_break_the_sheet(projects: ProjectService, campus: str) -> None:
    stored = projects.load(campus)
    wall = replace(stored.project.assemblies[0], name="bell\x07 and null\x00")
    saved = projects.save_assembly(campus, wall, stored.versions["assembly/wall-w-a"], ChangeNote(text="name"))
    assert "bell and null" in pdf_text(specification(saved, "main-laboratory", "wall-w-a", "0")[1])


def test_the_sheet_comes_over_the_api_with_a_harmless_file_name(client: TestClient, campus: str) -> None:
    path = f"/api/v1/projects/{campus}/assemblies/wall-w-a/sheet.pdf"
    reply = client.get(path, params={"building_id": "main-laboratory"})
    assert reply.headers["content-type"] == "application/pdf"
    assert reply.headers["content-disposition"] == (
        "attachment; filename=\"Wall-W-A.pdf\"; filename*=UTF-8''Wall%20W-A.pdf"
    )
    assert client.get(path, params={"building_id": "nowhere"}).status_code == 404
    assert client.get(path, params={"building_id": "main-laboratory", "condition": "spring"}).status_code == 422
    assert client.get(path.replace("wall-w-a", "none"), params={"building_id": "main-laboratory"}).status_code == 404
