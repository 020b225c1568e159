"""Another build-up in an element's place: what met the former one meets it now, and nothing else changes."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.alternatives import duplicated, in_place
from nimble_shell.services.joints import building_in
from nimble_shell.services.projects import element_of
from nimble_shell.store import NotFound

PROJECT = campus()
HOUSE = "main-laboratory"
BUILDING = building_in(PROJECT, HOUSE)
WALL = next(one for one in BUILDING.elements if one.station == "D" and one.assembly_id == "wall-w-a")


def test_joints_of_the_building_follow_and_those_of_others_do_not() -> None:
    after = in_place(PROJECT, BUILDING, WALL, "wall-w-b")
    building, element = element_of(after, HOUSE, WALL.id)
    assert element.assembly_id == "wall-w-b"
    met = [joint for joint in BUILDING.joints if "wall-w-a" in joint.assembly_ids]
    assert met
    assert all("wall-w-a" not in joint.assembly_ids for joint in building.joints)
    for before, now in zip(BUILDING.joints, building.joints, strict=True):
        assert replace(now, roles=before.roles) == before
        if before not in met:
            assert now is before
    assert [one for one in after.buildings if one.id != HOUSE] == [one for one in PROJECT.buildings if one.id != HOUSE]
    assert after.assemblies is PROJECT.assemblies


def test_joints_stay_where_another_element_keeps_the_former_one() -> None:
    twin = replace(WALL, id="twin")
    building = replace(BUILDING, elements=(*BUILDING.elements, twin))
    project = replace(PROJECT, buildings=tuple(building if one.id == HOUSE else one for one in PROJECT.buildings))
    after = building_in(in_place(project, building, WALL, "wall-w-b"), HOUSE)
    assert after.joints == BUILDING.joints


def test_a_copy_is_the_same_build_up_under_another_name() -> None:
    after = duplicated(PROJECT, BUILDING, WALL, "copy")
    own = next(one for one in PROJECT.assemblies if one.id == "wall-w-a")
    copy = after.assemblies[-1]
    assert replace(copy, id=own.id, name=own.name) == own
    assert copy.name == f"{own.name}, alternative"
    assert own in after.assemblies
    again = duplicated(after, building_in(after, HOUSE), element_of(after, HOUSE, WALL.id)[1], "more")
    assert again.assemblies[-1].name == f"{own.name}, alternative, alternative"
    back = in_place(after, building_in(after, HOUSE), element_of(after, HOUSE, WALL.id)[1], own.id)
    twice = duplicated(back, building_in(back, HOUSE), element_of(back, HOUSE, WALL.id)[1], "third")
    assert twice.assemblies[-1].name == f"{own.name}, alternative 2"
    assert len(duplicated(replace(PROJECT, assemblies=tuple(
        replace(one, name="x" * 80) if one.id == own.id else one for one in PROJECT.assemblies
    )), BUILDING, WALL, "long").assemblies[-1].name) == 80  # fmt: skip


def test_a_roof_is_no_wall_and_what_is_not_there_is_told() -> None:
    with pytest.raises(DomainError) as refused:
        in_place(PROJECT, BUILDING, WALL, "roof-r-a")
    assert refused.value.issues[0].code == "wrong_place"
    with pytest.raises(NotFound):
        in_place(PROJECT, BUILDING, WALL, "nothing")
    with pytest.raises(NotFound):
        duplicated(PROJECT, BUILDING, replace(WALL, assembly_id=None), "copy")
