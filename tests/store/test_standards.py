"""Practice standards: kept with their reason, used elsewhere, offered with a difference, never changed in silence."""

from __future__ import annotations

from dataclasses import replace

import pytest
from pydantic import ValidationError

from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import Material
from nimble_shell.core.shell.standard import Standard
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.standards import read_standards, write_standards
from nimble_shell.formats.things import Key
from nimble_shell.services.projects import ChangeNote, Edit, ProjectService
from nimble_shell.services.standards import StandardService
from nimble_shell.store import Database, NotFound, Stale, Stored

NOTE = ChangeNote(text="standard used", zone="D2")
OWN = Material(key="own-foam", name="Own foam", family="foam", hatch="foam", lambda_=0.03, rho=30, c=1450)


@pytest.fixture
def standards(database: Database, projects: ProjectService) -> StandardService:
    return StandardService(database, projects)


@pytest.fixture
def stored(projects: ProjectService) -> Stored:
    return projects.bring_in(campus())


def keep(standards: StandardService, reason: str = "dry for ten years") -> Stored:
    return standards.keep("heron-flats", "wall-w-a", "wall", reason=reason, source="log", trusted_since="2014")


def test_a_standard_is_kept_used_elsewhere_and_found_again(
    standards: StandardService, projects: ProjectService, stored: Stored
) -> None:
    kept = keep(standards)
    ref = next(a for a in kept.project.assemblies if a.id == "wall-w-a").standard
    assert ref is not None
    other = projects.bring_in(replace(campus(), id="other", name="Other"))
    used = standards.use(other.project.id, "pump-house", "e3", ref.id, NOTE)
    element = next(e for b in used.project.buildings if b.id == "pump-house" for e in b.elements if e.id == "e3")
    copy = next(a for a in used.project.assemblies if a.id == element.assembly_id)
    assert (copy.standard, copy.name) == (ref, "Wall W-A")
    ((listed, uses),) = standards.all()
    assert (listed.standard.reason, listed.standard.trusted_since) == ("dry for ten years", "2014")
    assert {use.project for use in uses} == {"Heron Flats Field Laboratory", "Other"}
    assert used.undo is not None
    assert projects.step(other.project.id, "undo", used.undo.number).project == other.project


def test_an_update_is_offered_with_its_differences_and_taken_on_purpose(
    standards: StandardService, projects: ProjectService, stored: Stored
) -> None:
    ref = next(a for a in keep(standards).project.assemblies if a.id == "wall-w-a").standard
    assert ref is not None
    used = standards.use("heron-flats", "pump-house", "e3", ref.id, NOTE)
    copy = next(a for a in used.project.assemblies if a.standard == ref and a.id != "wall-w-a")
    assert standards.offer("heron-flats", copy.id) is None
    now = projects.load("heron-flats")
    wall = next(a for a in now.project.assemblies if a.id == "wall-w-a")
    projects.save_assembly("heron-flats", wall.with_thickness(3, 0.235), now.versions["assembly/wall-w-a"], NOTE)
    keep(standards, "thicker")
    before = projects.load("heron-flats")
    assert next(a for a in before.project.assemblies if a.id == copy.id) == copy  # never silently
    offer = standards.offer("heron-flats", copy.id)
    assert offer is not None
    assert offer.kept.standard.version == 2
    assert [(one.before, one.after) for one in offer.differences] == [(0.14, 0.235)]
    with pytest.raises(Stale):
        standards.take("heron-flats", copy.id, 1, NOTE)
    taken = standards.take("heron-flats", copy.id, before.versions[f"assembly/{copy.id}"], NOTE)
    after = next(a for a in taken.project.assemblies if a.id == copy.id)
    assert (after.layers[3].d, after.name, after.standard and after.standard.version) == (0.235, copy.name, 2)
    assert standards.offer("heron-flats", copy.id) is None
    assert taken.undo is not None
    undone = projects.step("heron-flats", "undo", taken.undo.number)
    assert next(a for a in undone.project.assemblies if a.id == copy.id) == copy


def test_a_withdrawn_standard_stays_with_who_uses_it(
    standards: StandardService, projects: ProjectService, stored: Stored
) -> None:
    kept = keep(standards)
    ref = next(a for a in kept.project.assemblies if a.id == "wall-w-a").standard
    assert ref is not None
    standards.withdraw(ref.id)
    assert standards.all()[0][0].withdrawn
    assert projects.load("heron-flats").project == kept.project
    standards.withdraw(ref.id, again=True)
    assert not standards.all()[0][0].withdrawn
    with pytest.raises(NotFound):
        standards.withdraw("none")


def test_a_standard_without_a_reason_is_refused(standards: StandardService, stored: Stored) -> None:
    with pytest.raises(DomainError) as refused:
        keep(standards, " ")
    assert refused.value.issues[0].code == "reason_missing"
    assert standards.all() == []


def test_own_materials_travel_with_a_standard_and_override_none(
    standards: StandardService, projects: ProjectService, stored: Stored
) -> None:
    wall = next(a for a in stored.project.assemblies if a.id == "wall-w-a")
    core = replace(wall.layers[3], material="own-foam")
    wall = replace(wall, layers=(*wall.layers[:3], core, *wall.layers[4:]))
    projects.take_materials("heron-flats", (OWN,), NOTE)
    projects.save_assembly("heron-flats", wall, stored.versions["assembly/wall-w-a"], NOTE)
    ref = next(a for a in keep(standards).project.assemblies if a.id == "wall-w-a").standard
    assert ref is not None
    other = projects.bring_in(replace(campus(), id="other"))
    used = standards.use("other", "pump-house", "e3", ref.id, NOTE)
    assert used.project.materials == (OWN,)
    third = projects.bring_in(replace(campus(), id="third", materials=(replace(OWN, lambda_=0.05),)))
    with pytest.raises(DomainError) as refused:
        standards.use("third", "pump-house", "e3", ref.id, NOTE)
    assert refused.value.issues[0].code == "material_differs"
    assert projects.load("third").project == third.project
    assert other.project.materials == ()


def test_a_material_in_use_cannot_be_taken_away(projects: ProjectService, stored: Stored) -> None:
    saved = projects.take_materials("heron-flats", (OWN,), NOTE)
    wall = next(a for a in saved.project.assemblies if a.id == "wall-w-a")
    changed = replace(wall, layers=(*wall.layers[:3], replace(wall.layers[3], material="own-foam"), *wall.layers[4:]))
    used = projects.save_assembly("heron-flats", changed, saved.versions["assembly/wall-w-a"], NOTE)
    with pytest.raises(DomainError) as refused:
        projects.put("heron-flats", [Edit(key=Key("material", "", OWN.key), value=None, read=used.revision)], NOTE)
    assert refused.value.issues[0].code == "in_use"
    assert "Wall W-A" in refused.value.issues[0].message
    with pytest.raises(DomainError) as refused:
        projects.take_materials("heron-flats", (replace(OWN, key="osb"),), NOTE)
    assert refused.value.issues[0].code == "material_shipped"
    assert projects.load("heron-flats").project == used.project


def test_standards_go_out_and_come_in_once(
    standards: StandardService, projects: ProjectService, stored: Stored
) -> None:
    keep(standards)
    ((kept, _),) = standards.all()
    file = write_standards([kept.standard], [])
    assert read_standards(file) == ([kept.standard], [])
    assert standards.bring_in(read_standards(file)[0]) == 0
    changed = replace(kept.standard, reason="measured again", version=7)
    assert standards.bring_in([changed]) == 1
    assert standards.all()[0][0].standard == replace(changed, version=2)


@pytest.mark.parametrize("content", [None, [], {"format": "other"}, {"format": "nimble-shell-standards", "version": 2},
                                     {"format": "nimble-shell-standards", "version": 1, "standards": {}}])  # fmt: skip
def test_what_is_no_file_of_standards_is_refused(content: object) -> None:
    with pytest.raises((DomainError, ValidationError)):
        read_standards(content)


def test_a_bad_standard_in_a_file_is_named(standards: StandardService, stored: Stored) -> None:
    keep(standards)
    file = write_standards([standards.all()[0][0].standard], [])
    file["standards"][0]["assembly"]["layers"][3]["d"] = -1
    with pytest.raises(DomainError) as refused:
        read_standards(file)
    assert refused.value.issues[0].path == ("standards", 0, "assembly", "layers", 3, "d")


def test_a_standard_value_has_a_version(stored: Stored) -> None:
    with pytest.raises(DomainError) as refused:
        Standard(id="s", version=0, place="wall", assembly=stored.project.assemblies[0], reason="x")
    assert refused.value.issues[0].code == "version_not_positive"
