"""Projects as edited: who is told, what is refused and where, what a window does not know yet, and starts of build-ups."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.project import Project
from nimble_shell.demo import PROJECT_ID
from nimble_shell.formats.things import HEADING, Heading, Key
from nimble_shell.services.projects import MOST_HELD, ChangeNote, Edit, ProjectService, element_of, expect
from nimble_shell.store import Crossed, NotFound, Stale, Stored

NOTE = ChangeNote(text="a change")
PLANTED = 2  #: revision of the demo: as brought in, and one change
WALL = Key("assembly", "", "wall-w-a")


@pytest.fixture
def stored(projects: ProjectService, campus: str) -> Stored:
    return projects.load(campus)


def wall_of(project: Project) -> Any:
    return next(one for one in project.assemblies if one.id == WALL.id)


def named(projects: ProjectService, name: str) -> Stored:
    return projects.put(PROJECT_ID, [Edit(key=HEADING, value=Heading(name=name), read=10**6)], NOTE)


@pytest.mark.usefixtures("campus")
class TestBeingTold:
    def test_of_every_change_until_that_is_ended(self, projects: ProjectService) -> None:
        heard: list[str] = []
        end = projects.listen(heard.append)
        number = named(projects, "One").undo
        assert number is not None
        projects.step(PROJECT_ID, "undo", number.number)
        assert heard == [PROJECT_ID] * 2
        end()
        named(projects, "Two")
        end()  # a second time ends nothing else
        assert len(heard) == 2

    def test_not_of_one_that_was_refused(self, projects: ProjectService) -> None:
        heard: list[str] = []
        projects.listen(heard.append)
        with pytest.raises(DomainError):
            named(projects, "")
        assert heard == []

    def test_a_deleted_project_is_a_change_and_comes_back_as_it_was(self, projects: ProjectService) -> None:
        heard: list[str] = []
        projects.listen(heard.append)
        before = projects.load(PROJECT_ID).project
        projects.delete(PROJECT_ID)
        assert heard == [PROJECT_ID]
        assert [one.deleted for one in projects.all()] == [True]
        assert projects.restore(PROJECT_ID).project == before


class TestWhatIsHeld:
    def test_is_the_same_value_until_somebody_changes_it(self, projects: ProjectService, campus: str) -> None:
        first = projects.load(campus).project
        assert projects.load(campus).project is first
        named(projects, "Other")
        assert projects.load(campus).project.name == "Other"

    def test_is_not_what_a_failed_change_would_have_made(self, projects: ProjectService, campus: str) -> None:
        def change(found: Stored) -> Project:
            raise RuntimeError("half way")

        with pytest.raises(RuntimeError):
            projects.edit(campus, change, NOTE)
        assert projects.load(campus).revision == PLANTED

    def test_does_not_grow_without_end(self, projects: ProjectService) -> None:
        for number in range(MOST_HELD + 3):
            projects.load(projects.create(f"P{number}").project.id)
        assert len(projects._held) <= MOST_HELD

    def test_another_service_on_the_same_database_sees_the_change(self, projects: ProjectService, campus: str) -> None:
        other = ProjectService(projects._database)
        other.load(campus)
        named(projects, "Elsewhere")
        assert other.load(campus).project.name == "Elsewhere"


class TestExpecting:
    def test_what_is_as_it_was_read(self, stored: Stored) -> None:
        expect(stored, WALL, stored.revision)

    def test_not_what_is_gone(self, stored: Stored) -> None:
        with pytest.raises(NotFound):
            expect(stored, Key("assembly", "", "gone"), 1)

    def test_not_what_was_to_be_new_and_is_there(self, stored: Stored) -> None:
        with pytest.raises(Stale):
            expect(stored, WALL, None)
        expect(stored, Key("assembly", "", "new"), None)

    def test_what_it_holds_counts_only_for_all_of_it(self, projects: ProjectService, stored: Stored) -> None:
        joint = Key("joint", "main-laboratory", "j1")
        value = next(one for one in stored.project.buildings[0].joints if one.id == "j1")
        after = projects.put(PROJECT_ID, [Edit(key=joint, value=replace(value, length=99.0), read=PLANTED)], NOTE)
        building = Key("building", "", "main-laboratory")
        expect(after, building, PLANTED, whole=False)
        with pytest.raises(Stale):
            expect(after, building, PLANTED)


@pytest.mark.usefixtures("campus")
class TestEdits:
    def test_several_are_one_change(self, projects: ProjectService) -> None:
        wall = wall_of(projects.load(PROJECT_ID).project)
        edits = [
            Edit(key=HEADING, value=Heading(name="Both"), read=PLANTED),
            Edit(key=WALL, value=replace(wall, note="seen"), read=PLANTED),
        ]
        after = projects.put(PROJECT_ID, edits, NOTE)
        assert (after.project.name, wall_of(after.project).note, after.revision) == ("Both", "seen", PLANTED + 1)
        assert projects.changes(PROJECT_ID)[0].text == NOTE.text

    def test_of_which_one_is_refused_change_nothing_and_say_which(self, projects: ProjectService) -> None:
        key = Key("joint", "main-laboratory", "j1")
        edits = [
            Edit(key=HEADING, value=Heading(name="Both"), read=PLANTED),
            Edit(key=WALL, value=None, read=PLANTED),  # in use
        ]
        with pytest.raises(DomainError) as caught:
            projects.put(PROJECT_ID, edits, NOTE)
        assert caught.value.issues[0].path[:3] == ("items", 1, "document")
        assert projects.load(PROJECT_ID).revision == PLANTED
        assert key in projects.load(PROJECT_ID).slots

    def test_a_window_is_told_what_it_does_not_know_yet(self, projects: ProjectService) -> None:
        assert projects.delta(PROJECT_ID, PLANTED).written == ()
        named(projects, "Newer")
        wall = wall_of(projects.load(PROJECT_ID).project)
        projects.put(PROJECT_ID, [Edit(key=WALL, value=replace(wall, note="x"), read=PLANTED + 1)], NOTE)
        assert {one.key for one in projects.delta(PROJECT_ID, PLANTED).written} == {HEADING, WALL}
        assert {one.key for one in projects.delta(PROJECT_ID, PLANTED + 1).written} == {WALL}

    def test_undo_is_of_the_change_that_was_seen(self, projects: ProjectService) -> None:
        seen = named(projects, "One").undo
        named(projects, "Two")
        assert seen is not None
        with pytest.raises((Stale, Crossed)):
            projects.step(PROJECT_ID, "undo", seen.number)
        assert projects.load(PROJECT_ID).project.name == "Two"


@pytest.mark.usefixtures("campus")
class TestStarting:
    def start(self, projects: ProjectService, element: str, system: str, values: Any = None) -> Stored:
        return projects.start_assembly(PROJECT_ID, "main-laboratory", element, system, values or {}, NOTE)

    def test_gives_the_element_a_build_up_of_the_system(self, projects: ProjectService) -> None:
        after = self.start(projects, "e2", "icf")
        building, element = element_of(after.project, "main-laboratory", "e2")
        made = next(one for one in after.project.assemblies if one.id == element.assembly_id)
        assert made.system == "icf"
        assert made.name == f"{building.name}: {element.name}"
        assert wall_of(after.project) is not None  # the former one stays

    def test_refuses_a_system_of_another_place(self, projects: ProjectService) -> None:
        with pytest.raises(DomainError, match="is a roof, not a wall"):
            self.start(projects, "e2", "sip-roof")

    def test_refuses_what_there_is_not(self, projects: ProjectService) -> None:
        with pytest.raises(DomainError) as caught:
            self.start(projects, "e2", "log-cabin")
        assert all(key in caught.value.issues[0].hint for key in SYSTEMS)
        with pytest.raises(NotFound):
            self.start(projects, "e99", "icf")

    def test_a_value_out_of_range_is_named_where_it_was_typed(self, projects: ProjectService) -> None:
        key = SYSTEMS["sip"].parameters[0].key
        with pytest.raises(DomainError) as caught:
            self.start(projects, "e2", "sip", {key: 1e6})
        assert caught.value.issues[0].path[0] == "values"


@pytest.mark.usefixtures("campus")
class TestOwnMaterials:
    def test_one_like_another_has_all_of_it_but_key_name_and_the_origin_of_its_rates(
        self, projects: ProjectService
    ) -> None:
        after = projects.add_material_like(PROJECT_ID, "osb", NOTE).project
        own, shipped = after.materials[-1], after.catalogue["osb"]
        assert own.key.startswith("own-")
        assert replace(own, key=shipped.key, name=shipped.name, rates=shipped.rates) == shipped

    def test_not_like_one_that_there_is_not(self, projects: ProjectService) -> None:
        with pytest.raises(DomainError, match="there is no material"):
            projects.add_material_like(PROJECT_ID, "unobtainium", NOTE)

    def test_taken_again_under_the_same_key_they_change_in_place(self, projects: ProjectService) -> None:
        own = projects.add_material_like(PROJECT_ID, "osb", NOTE).project.materials[-1]
        with pytest.raises(DomainError) as refused:  # what would be replaced is told first
            projects.take_materials(PROJECT_ID, (replace(own, name="Renamed"),), NOTE)
        assert [one.code for one in refused.value.issues] == ["would_replace"]
        after = projects.take_materials(PROJECT_ID, (replace(own, name="Renamed"),), NOTE, instead=True).project
        assert [one.name for one in after.materials if one.key == own.key] == ["Renamed"]
