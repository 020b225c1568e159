"""Nothing that a file says becomes markup on a page."""

from __future__ import annotations

import json
from xml.etree import ElementTree

import pytest
from planted import MARK, planted
from reports.test_specification import pdf_text

from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.demo.heron_flats import campus as campus_of
from nimble_shell.formats.project import FORMAT, ProjectDoc, ProjectFile
from nimble_shell.reports.detail_section import detail_section
from nimble_shell.reports.svg import sheet, tag
from nimble_shell.services import sheets
from nimble_shell.services.joints import drawn
from nimble_shell.services.projects import ProjectService


def campus_file() -> dict[str, object]:
    document = ProjectFile(format=FORMAT, version=1, project=ProjectDoc.from_core(campus_of()))
    loaded: dict[str, object] = json.loads(document.model_dump_json(by_alias=True))
    return loaded


def test_every_page_of_a_planted_project_is_as_it_was(projects: ProjectService) -> None:
    file, names = planted(campus_file())
    assert {"name", "source", "reason"} <= names
    assert not {"hatch", "material", "station", "key"} & names
    stored = projects.bring_in(sheets.read_project_file(file))
    for building in stored.project.buildings:
        for element in building.elements:
            if element.assembly_id:
                text = pdf_text(sheets.specification(stored, building.id, element.assembly_id, "0")[1])
                assert "planted()" in text.replace("\n", "")
    joint = stored.project.buildings[0].joints[0]
    found = drawn(stored.project, joint)
    solved = solve_joint(found.drawing, found.temperatures, accuracy="working")
    svg = detail_section(found.drawing, solved, 12.0, "SI").svg
    assert not [one for one in ElementTree.fromstring(svg).iter() if one.get("id") == "planted"]
    assert sheets.joint_sheet(stored, building.id, joint, found, solved, None).startswith(b"%PDF")


def test_a_hatch_is_a_word_of_a_list() -> None:
    file = campus_file()
    file["project"]["materials"] = [{"key": "own-a", "name": "A", "family": "foam", "hatch": 'x)" onload="', "lambda": 0.03,
                                     "rho": 20, "c": 1450}]  # type: ignore[index]  # fmt: skip
    with pytest.raises((DomainError, ValueError), match="hatch"):
        sheets.read_project_file(file)


def test_the_writer_escapes_texts_and_attributes() -> None:
    drawing = sheet(10, 10, [tag("text", MARK + "\x07", font_family=MARK)])
    (_, text) = ElementTree.fromstring(drawing).iter()
    assert (text.text, text.get("font-family")) == (MARK, MARK)
