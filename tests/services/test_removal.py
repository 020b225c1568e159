"""Removing what is in use: refused with its users named, or they go along; never a project that cannot be read."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import Material
from nimble_shell.core.shell.project import Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.project import ProjectDoc
from nimble_shell.services.removal import refuse_material_in_use, users_of_assembly, without_assembly
from nimble_shell.store import NotFound

PROJECT = campus()
USED = [one.id for one in PROJECT.assemblies if users_of_assembly(PROJECT, one.id)]


def own(key: str) -> Material:
    return replace(PROJECT.catalogue["osb"], key=key, name=f"Own {key}")


def test_users_are_elements_and_joints_with_their_building() -> None:
    found = users_of_assembly(PROJECT, "wall-w-a")
    assert found[0].startswith("Main Laboratory: ")
    assert len(found) == 1 + sum(
        "wall-w-a" in joint.assembly_ids for building in PROJECT.buildings for joint in building.joints
    )


@pytest.mark.parametrize("assembly_id", USED)
def test_one_in_use_is_refused_with_every_user(assembly_id: str) -> None:
    with pytest.raises(DomainError) as caught:
        without_assembly(PROJECT, assembly_id, "refuse")
    (issue,) = caught.value.issues
    assert issue.code == "in_use"
    assert all(user in issue.message for user in users_of_assembly(PROJECT, assembly_id)[:12])


@pytest.mark.parametrize("assembly_id", USED)
def test_taken_along_nothing_that_is_left_rests_on_it(assembly_id: str) -> None:
    left = without_assembly(PROJECT, assembly_id, "take along")
    assert users_of_assembly(left, assembly_id) == ()
    assert assembly_id not in {one.id for one in left.assemblies}
    assert ProjectDoc.from_core(left).to_core() == left  # it can be written and read again
    before = {element.id for building in PROJECT.buildings for element in building.elements}
    assert before == {element.id for building in left.buildings for element in building.elements}  # elements stay


def test_what_does_not_use_it_is_the_same_object() -> None:
    left = without_assembly(PROJECT, "wall-w-a", "take along")
    assert all(a is b for a, b in zip(PROJECT.buildings[1:], left.buildings[1:], strict=True))


def test_one_that_nobody_uses_goes_without_a_question() -> None:
    spare = replace(PROJECT.assemblies[0], id="spare")
    project = replace(PROJECT, assemblies=(*PROJECT.assemblies, spare))
    assert without_assembly(project, "spare", "refuse") == PROJECT


def test_one_that_is_not_there_is_told() -> None:
    with pytest.raises(NotFound):
        without_assembly(PROJECT, "nobody", "take along")


class TestMaterials:
    @staticmethod
    def using(where: str) -> Project:
        """The campus with an own material somewhere in its first build-up."""
        first, *others = PROJECT.assemblies
        layers = list(first.layers)
        at = next(n for n, layer in enumerate(layers) if layer.members)
        if where == "layer":
            solid = next(n for n, layer in enumerate(layers) if layer.material)
            layers[solid] = replace(layers[solid], material="mine")
        elif where == "member":
            member, *rest = layers[at].members
            layers[at] = replace(layers[at], members=(replace(member, material="mine"), *rest))
        return replace(PROJECT, materials=(own("mine"),), assemblies=(replace(first, layers=tuple(layers)), *others))

    @pytest.mark.parametrize("where", ["layer", "member"])
    def test_one_in_use_is_refused_with_the_build_up(self, where: str) -> None:
        project = self.using(where)
        with pytest.raises(DomainError) as caught:
            refuse_material_in_use(project, "mine")
        assert project.assemblies[0].name in caught.value.issues[0].message

    def test_one_that_nothing_is_made_of_may_go(self) -> None:
        refuse_material_in_use(self.using("nowhere"), "mine")
