"""A project is its things: taken apart and put together it is the same, and one changed leaves the others as they are."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.project import Project
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.things import (
    BASIS,
    HEADING,
    KINDS,
    ROOTS,
    Heading,
    Key,
    compose,
    groups,
    held_by,
    holder_of,
    put_thing,
    read_thing,
    value_at,
)

PROJECT = campus()


def things(project: Project) -> dict[Key, Any]:
    found: dict[Key, Any] = {HEADING: Heading(name=project.name), BASIS: project.basis}
    for kind, owner, values in groups(project):
        for value in values:
            found[Key(kind, owner, KINDS[kind].id_of(value))] = KINDS[kind].bare(value)
    return found


ALL = things(PROJECT)


class TestTheRegistry:
    def test_every_kind_says_what_it_is_called_on_screens(self) -> None:
        assert all(kind.words for kind in KINDS.values())
        assert len({kind.words for kind in KINDS.values()}) == len(KINDS)

    def test_what_a_kind_holds_is_a_kind(self) -> None:
        for kind in KINDS.values():
            assert set(kind.holds.values()) <= set(KINDS)

    def test_every_kind_hangs_in_one_place(self) -> None:
        held = [part for kind in KINDS.values() for part in kind.holds.values()]
        assert sorted([*ROOTS.values(), *held, "project", "basis"]) == sorted(KINDS)

    @pytest.mark.parametrize(
        ("key", "holders"),
        [
            (Key("joint", "hall", "j1"), (Key("building", "", "hall"),)),
            (Key("fixing", "w1", "f1"), (Key("assembly", "", "w1"),)),
            (Key("building", "", "hall"), ()),
            (BASIS, ()),
        ],
    )
    def test_who_holds_a_thing(self, key: Key, holders: tuple[Key, ...]) -> None:
        assert holder_of(key) == holders


class TestTakingApart:
    def test_put_together_it_is_the_same_project(self) -> None:
        assert compose(PROJECT.id, ALL) == PROJECT

    @pytest.mark.parametrize("kind", KINDS)
    def test_every_thing_is_written_and_read_again(self, kind: str) -> None:
        mine = [value for key, value in ALL.items() if key.kind == kind]
        for value in mine:
            assert read_thing(kind, KINDS[kind].to_json(value)) == value

    def test_the_same_text_is_the_same_object(self) -> None:
        key, value = next((key, value) for key, value in ALL.items() if key.kind == "element")
        text = KINDS[key.kind].to_json(value)
        assert read_thing(key.kind, text) is read_thing(key.kind, text)

    def test_the_same_things_are_the_same_whole_and_another_one_makes_another(self) -> None:
        first, again = compose("a", ALL), compose("b", ALL)
        assert all(one is two for one, two in zip(first.buildings, again.buildings, strict=True))
        assert all(one is two for one, two in zip(first.assemblies, again.assemblies, strict=True))
        key = next(key for key in ALL if key.kind == "element")
        changed = compose("a", {**ALL, key: replace(ALL[key], name="Another")})
        for one, two in zip(first.buildings, changed.buildings, strict=True):
            assert (one is two) == (one.id != key.owner)

    def test_a_bare_thing_holds_nothing(self) -> None:
        building = ALL[Key("building", "", "main-laboratory")]
        assert (building.elements, building.joints) == ((), ())
        assert held_by(PROJECT, Key("building", "", "main-laboratory"), building) == PROJECT.buildings[0]

    def test_a_document_of_a_holder_does_not_repeat_what_it_holds(self) -> None:
        text = KINDS["building"].to_json(ALL[Key("building", "", "main-laboratory")])
        assert "elements" not in text
        assert "joints" not in text

    @pytest.mark.parametrize("key", [key for key in ALL if key.kind != "material"][::7])
    def test_every_thing_is_found_where_it_hangs(self, key: Key) -> None:
        assert value_at(PROJECT, key) == ALL[key]

    def test_what_is_not_there_is_nothing(self) -> None:
        for key in (
            Key("element", "main-laboratory", "no"),
            Key("element", "nowhere", "e1"),
            Key("assembly", "", "no"),
        ):
            assert value_at(PROJECT, key) is None


class TestPutting:
    ELEMENT = Key("element", "main-laboratory", "e2")

    def test_one_thing_changes_that_one_and_its_holder(self) -> None:
        found = put_thing(PROJECT, self.ELEMENT, replace(ALL[self.ELEMENT], area=500.0))
        assert value_at(found, self.ELEMENT).area == 500.0
        before, after = things(PROJECT), things(found)
        assert [key for key in before if before[key] != after[key]] == [self.ELEMENT]
        assert all(a is b for a, b in zip(PROJECT.buildings[1:], found.buildings[1:], strict=True))

    def test_a_new_thing_stands_behind_its_siblings(self) -> None:
        new = replace(ALL[self.ELEMENT], id="new")
        found = put_thing(PROJECT, Key("element", "main-laboratory", "new"), new)
        assert found.buildings[0].elements[-1] == new

    def test_none_takes_it_away_and_leaves_the_order(self) -> None:
        found = put_thing(PROJECT, self.ELEMENT, None)
        ids = [one.id for one in PROJECT.buildings[0].elements]
        assert [one.id for one in found.buildings[0].elements] == [one for one in ids if one != "e2"]

    def test_name_and_basis_are_things_too(self) -> None:
        assert put_thing(PROJECT, HEADING, Heading(name="Other")).name == "Other"
        basis = replace(PROJECT.basis, targets=replace(PROJECT.basis.targets, R_wall=3.0))
        assert put_thing(PROJECT, BASIS, basis).basis == basis

    @pytest.mark.parametrize(
        "key", [Key("joint", "nowhere", "j1"), Key("fixing", "nowhere", "f1"), Key("nothing", "", "x")]
    )
    def test_where_nothing_would_hold_it_is_told(self, key: Key) -> None:
        with pytest.raises(DomainError) as caught:
            put_thing(PROJECT, key, next(iter(PROJECT.buildings[0].joints)))
        assert caught.value.issues[0].code == "no_such_thing"

    def test_a_project_that_would_not_hold_together_is_refused(self) -> None:
        with pytest.raises(DomainError):
            put_thing(PROJECT, self.ELEMENT, replace(ALL[self.ELEMENT], assembly_id="gone"))


@pytest.mark.parametrize(
    ("key", "text"), [(BASIS, "basis"), (Key("building", "", "hall"), "building/hall"), (Key("joint", "hall", "j3"), "joint/hall/j3")]
)  # fmt: skip
def test_a_key_is_written_as_a_path(key: Key, text: str) -> None:
    assert str(key) == text
