"""The project file: a published schema, and nothing lost on the way out and in."""

from __future__ import annotations

import json
from typing import Any

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer, Member
from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.project import Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats import problems
from nimble_shell.formats.project import FORMAT, AssemblyDoc, ProjectDoc, ProjectFile, json_schema
from nimble_shell.services.sheets import read_project_file


def file_of(project: Project) -> dict[str, Any]:
    document = ProjectFile(format=FORMAT, version=1, project=ProjectDoc.from_core(project))
    loaded: dict[str, Any] = json.loads(document.model_dump_json(by_alias=True))
    return loaded


def test_the_campus_survives_the_way_out_and_in() -> None:
    project = campus()
    assert read_project_file(file_of(project)) == project


def test_the_file_obeys_the_published_schema() -> None:
    schema = json_schema()
    jsonschema.Draft202012Validator.check_schema(schema)
    jsonschema.validate(file_of(campus()), schema)
    broken = file_of(campus())
    broken["project"]["buildings"][0]["roof"] = "thatch"
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(broken, schema)


members = st.builds(
    Member,
    name=st.text(min_size=1, max_size=10),
    material=st.sampled_from(["softwood", "lvl"]),
    run=st.sampled_from(["vertical", "horizontal"]),
    share=st.floats(min_value=0.001, max_value=0.2),
)
solids = st.builds(
    Layer,
    id=st.uuids().map(lambda uuid: uuid.hex),
    material=st.sampled_from(["osb", "eps-035", "brick"]),
    d=st.floats(min_value=1e-4, max_value=3),
    lambda_entered=st.none() | st.floats(min_value=1e-3, max_value=900),
    members=st.lists(members, max_size=3).map(tuple),
)
gaps = st.builds(
    Layer,
    id=st.uuids().map(lambda uuid: uuid.hex),
    d=st.floats(min_value=1e-4, max_value=3),
    air=st.builds(AirGap, ventilation=st.sampled_from(["unventilated", "well"]), A_v=st.floats(0, 1)),
)


@given(
    st.lists(solids | gaps, min_size=1, max_size=12, unique_by=lambda layer: layer.id),
    st.text(min_size=1, max_size=100).filter(lambda name: bool(name.strip())),
)
def test_any_assembly_comes_back_as_it_was(layers: list[Layer], name: str) -> None:
    assembly = Assembly(id="w", name=name, system="", layers=tuple(layers))
    text = AssemblyDoc.from_core(assembly).model_dump_json(by_alias=True)
    assert AssemblyDoc.model_validate_json(text).to_core() == assembly


def test_the_wire_says_lambda() -> None:
    assembly = Assembly(
        id="w", name="W", system="", layers=(Layer(id="1", material="osb", d=0.01, lambda_entered=0.12),)
    )
    assert AssemblyDoc.from_core(assembly).to_wire()["layers"][0]["lambda"] == 0.12


@pytest.mark.parametrize(
    ("spoil", "pointer", "code"),
    [
        (lambda file: file.update(format="something"), "#/format", "not_a_project_file"),
        (lambda file: file.pop("format"), "#/format", "not_a_project_file"),
        (lambda file: file.update(version=2), "#/version", "file_newer"),
        (lambda file: file.update(version="1"), "#/version", "unknown_version"),
        (lambda file: file.pop("project"), "#/project", "missing"),
        (lambda file: file["project"].update(extra=1), "#/project/extra", "unknown_key"),
        (lambda file: file["project"]["basis"]["climate"]["phi_e"].__setitem__(2, 1.4), "#/project/basis/climate/phi_e/2", "humidity_out_of_range"),
        (lambda file: file["project"]["assemblies"][0]["layers"][3].update(d=-0.1), "#/project/assemblies/0/layers/3/d", "thickness_not_positive"),
        (lambda file: file["project"]["buildings"][0]["elements"][1].update(assembly_id="gone"), "#/project/buildings/0/elements/1/assembly_id", "unknown_assembly"),
        (lambda file: file["project"]["buildings"].append(file["project"]["buildings"][0]), "#/project/buildings", "id_taken"),
        (lambda file: file["project"].update(id="../../etc"), "#/project/id", "string_pattern_mismatch"),
    ],
)  # fmt: skip
def test_a_broken_file_is_refused_with_its_place(spoil: Any, pointer: str, code: str) -> None:
    file = file_of(campus())
    spoil(file)
    with pytest.raises((DomainError, ValidationError)) as refused:
        read_project_file(file)
    problem = problems.of(refused.value)  # type: ignore[arg-type]
    assert (pointer, code) in [(error.pointer, error.code) for error in problem.errors]


@pytest.mark.parametrize("content", [None, [], "text", 3, {}])
def test_what_is_no_project_file_at_all_is_refused(content: Any) -> None:
    with pytest.raises(DomainError) as refused:
        read_project_file(content)
    assert refused.value.issues[0].code == "not_a_project_file"
