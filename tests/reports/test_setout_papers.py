"""Set-out drawings to scale, labels, nesting sheets and the workbook, each read back by somebody else's reader."""

from __future__ import annotations

import io
import re
from dataclasses import replace
from typing import cast
from xml.etree import ElementTree as ET

import pytest
from openpyxl import load_workbook
from reports.test_detail_sheet import pages

from nimble_shell.core.quantities.units import UnitSystem
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.courses.courses import Coursed
from nimble_shell.core.setout.courses.drawn import courses_drawn
from nimble_shell.core.shell.coursed import course_building
from nimble_shell.core.shell.measured import MeasuredBuilding, measured
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.demo.heron_flats import campus as heron_flats
from nimble_shell.reports.courses_svg import PaperWall, wall_svg
from nimble_shell.reports.setout_svg import face_svg
from nimble_shell.reports.workbook import SheetTable, workbook
from nimble_shell.reports.written import Written
from nimble_shell.services import course_papers, shop_papers
from nimble_shell.services.courses import course_sheet
from nimble_shell.services.projects import ProjectService

LAB = "main-laboratory"


def building_of(project: Project, one: str = LAB) -> MeasuredBuilding:
    found = measured(project, next(each for each in project.buildings if each.id == one))
    assert isinstance(found, MeasuredBuilding)
    return found


@pytest.mark.parametrize("building", ["main-laboratory", "sample-cold-store", "bunkhouse"])
@pytest.mark.parametrize("units", ["SI", "IP"])
def test_a_face_is_drawn_to_the_scale_it_states(building: str, units: str) -> None:
    project = heron_flats()
    found = building_of(project, building)
    for paper in shop_papers.paper_faces(found, set_out_building(project, found)):
        drawn = face_svg(paper, Written(cast("UnitSystem", units)))
        root = ET.fromstring(drawn.svg)
        outline = root[0].attrib["d"]
        xs = [float(x) for x, _ in re.findall(r"([-\d.]+) ([-\d.]+)", outline)]
        wide = max(x for x, _ in paper.face.elevation.outline)
        assert max(xs) - min(xs) == pytest.approx(wide / drawn.scale, abs=0.02)
        bar = [one for one in root if one.tag.endswith("rect")][-1]
        assert float(bar.attrib["width"]) == pytest.approx((1000 if units == "SI" else 914.4) / drawn.scale, abs=1e-3)
        said = {one.text for one in root if one.tag.endswith("text")}
        wide_enough = [one for one in paper.face.panels if one.panel.piece.width / drawn.scale >= 9]
        assert {one.mark for one in wide_enough} <= said


def test_a_face_that_cannot_be_set_out_says_so_on_paper() -> None:
    project = heron_flats()
    found = replace(building_of(project), setout=SetOutChoices(heaviest=5.0))
    papers = shop_papers.paper_faces(found, set_out_building(project, found))
    assert all("cannot be set out" in face_svg(paper, Written("SI")).svg for paper in papers)


def test_papers_name_every_panel(projects: ProjectService, campus: str) -> None:
    stored = projects.load(campus)
    found = set_out_building(stored.project, building_of(stored.project))
    marks = [one.mark for face in found.faces for one in face.panels]
    for pdf in (shop_papers.drawings_pdf(stored, LAB), shop_papers.labels(stored, LAB)):
        assert pdf.startswith(b"%PDF")
        text = pages(pdf)
        assert not text or all(mark in text for mark in marks)
    drawn = pages(shop_papers.drawings_pdf(stored, LAB))
    assert not drawn or all(said in drawn for said in ("1:50", "AB1", "Hold points", "HF-W1", "the engineer's"))


def test_nesting_sheets_hold_every_bar_and_board(projects: ProjectService, campus: str) -> None:
    stored = projects.load(campus)
    text = pages(shop_papers.nesting(stored, "sample-cold-store"))
    assert not text or "What comes out of which bar and board" in text


def test_the_workbook_is_read_by_another_reader(projects: ProjectService, campus: str) -> None:
    stored = projects.load(campus)
    content = shop_papers.lists_xlsx(stored, LAB)
    assert content == shop_papers.lists_xlsx(stored, LAB), "the same file twice"
    book = load_workbook(io.BytesIO(content))
    assert book.sheetnames == ["Panels", "Pieces", "Bars", "Works", "Hold points"]
    rows = list(book["Panels"].iter_rows(values_only=True))
    found = set_out_building(stored.project, building_of(stored.project))
    panels = [one.panel for face in found.faces for one in face.panels]
    assert len(rows) - 1 == len(panels)
    works = list(book["Works"].iter_rows(values_only=True))
    assert {"recess", "bevel", "box", "chase", "sensor", "cable way"} == {row[1] for row in works[1:]}
    area = rows[0].index("area, m²")
    assert sum(cast("float", row[area]) for row in rows[1:]) == pytest.approx(
        sum(one.piece.area for one in panels) * 1e-6, abs=1e-3
    )


def test_a_text_in_a_cell_stays_a_text() -> None:
    """What begins like a formula, a link or a number is none of them."""
    given = ("=1+1", "http://127.0.0.1/", "007", "+1")
    book = load_workbook(io.BytesIO(workbook([SheetTable("One", ("a", "b", "c", "d"), [given])])))
    assert [one.value for one in book["One"][2]] == list(given)
    assert all(one.data_type == "s" and one.hyperlink is None for one in book["One"][2])


@pytest.mark.parametrize("units", ["SI", "IP"])
def test_every_form_wall_is_a_page_with_its_cuts_bucks_and_lifts(
    projects: ProjectService, campus: str, units: str
) -> None:
    stored = projects.load(campus)
    schools = replace(stored.project.basis.schools, units=cast("UnitSystem", units))
    stored = replace(stored, project=replace(stored.project, basis=replace(stored.project.basis, schools=schools)))
    text = pages(course_papers.courses_pdf(stored, "boat-workshop"))
    walls = [wall for run in course_sheet(stored.project, "boat-workshop").runs for wall in run.walls]
    assert not text or all(f"Form wall {wall.mark}" in text for wall in walls)
    if not text:
        return  # nobody reads it here
    assert "hanger LH-2" in text
    assert ("kN/m²" in text) == (units == "SI")
    assert ("psf" in text) == (units == "IP")


def test_a_form_wall_is_drawn_to_the_scale_it_states() -> None:
    project = heron_flats()
    for one in course_building(project, building_of(project, "boat-workshop")):
        assert isinstance(one.found, Coursed)
        for n, wall in enumerate(one.of.run.walls):
            drawn = courses_drawn(one.of.run, n, one.found.walls[n])
            found = wall_svg(PaperWall(run=one.of.run, wall=n, courses=drawn, lintels=()), Written("SI"))
            boxes = [each for each in ET.fromstring(found.svg).iter() if each.tag.endswith("rect")]
            widths = [float(each.get("width", "0")) * found.scale for each in boxes]
            blocks = [block.x1 - block.x0 for course in drawn for block in course.blocks]
            legs = [leg for course in drawn for leg in (course.left, course.right) if leg]
            assert sum(widths) == pytest.approx(
                sum(blocks) + sum(legs) + sum(each.w for each in one.of.run.of(n)), abs=1.0
            )
            assert wall.length / found.scale < 376
