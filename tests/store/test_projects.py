"""The change log: every step can be taken back, nothing is overwritten unseen."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.measured import MeasuredBuilding, measured
from nimble_shell.core.shell.project import Building, ShellElement
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.things import Key, value_at
from nimble_shell.services.projects import ChangeNote, Edit, ProjectService
from nimble_shell.store import Database, NotFound, ProjectRepository, Stale, Stored

NOTE = ChangeNote(text="an edit", zone="D2")
SHED = Key("building", "", "shed")


def thicker(service: ProjectService, stored: Stored, d: float) -> Stored:
    wall = stored.project.assemblies[0]
    index = wall.core_index
    assert index is not None
    version = stored.versions[f"assembly/{wall.id}"]
    return service.save_assembly(stored.project.id, wall.with_thickness(index, d), version, NOTE)


def test_what_is_stored_is_what_was_given(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    assert stored.project == campus()
    assert projects.load(stored.project.id).project == campus()


def test_the_second_writer_is_told_and_nothing_is_overwritten(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    mine = thicker(projects, stored, 0.2)
    with pytest.raises(Stale) as stale:
        thicker(projects, stored, 0.3)
    assert (stale.value.have, stale.value.current) == (1, mine.versions["assembly/wall-w-a"])
    assert projects.load(stored.project.id).project == mine.project


def test_other_things_can_be_saved_side_by_side(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    thicker(projects, stored, 0.2)
    basis = replace(stored.project.basis, targets=replace(stored.project.basis.targets, R_wall=6.0))
    saved = projects.put(
        stored.project.id,
        [
            Edit(key=Key("project"), value=replace(value_at(stored.project, Key("project")), name="Renamed"), read=1),
            Edit(key=Key("basis"), value=basis, read=stored.versions["basis"]),
        ],
        NOTE,
    )
    assert saved.project.name == "Renamed"
    assert saved.project.basis.targets.R_wall == 6.0


def test_undo_and_redo_walk_the_whole_way(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    states = [stored]
    for d in (0.2, 0.21, 0.22):
        states.append(thicker(projects, states[-1], d))
    now = states[-1]
    for before in reversed(states[:-1]):
        assert now.undo is not None
        now = projects.step(now.project.id, "undo", now.undo.number)
        assert now.project == before.project
    assert now.undo is None
    for after in states[1:]:
        assert now.redo is not None
        now = projects.step(now.project.id, "redo", now.redo.number)
        assert now.project == after.project
    assert now.redo is None


def test_a_new_edit_takes_the_place_of_what_was_undone(projects: ProjectService) -> None:
    stored = thicker(projects, projects.bring_in(campus()), 0.2)
    assert stored.undo is not None
    undone = projects.step(stored.project.id, "undo", stored.undo.number)
    edited = thicker(projects, undone, 0.25)
    assert edited.redo is None
    assert [change.state for change in projects.changes(stored.project.id)] == ["done", "dropped"]


def test_undo_names_the_change_it_means(projects: ProjectService) -> None:
    one = thicker(projects, projects.bring_in(campus()), 0.2)
    thicker(projects, one, 0.25)
    assert one.undo is not None
    with pytest.raises(Stale):
        projects.step(one.project.id, "undo", one.undo.number)


def test_nothing_to_undo_is_said(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    for direction in ("undo", "redo"):
        with pytest.raises(NotFound):
            projects.step(stored.project.id, direction, 1)  # type: ignore[arg-type]


def test_starting_a_wall_is_one_step_that_is_undone_in_one(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    begun = projects.start_assembly(stored.project.id, "pump-house", "e2", "icf", {"outer": 0.102}, NOTE)
    pump_house = next(b for b in begun.project.buildings if b.id == "pump-house")
    fresh = begun.project.assemblies[-1]
    assert pump_house.elements[1].assembly_id == fresh.id
    assert fresh.system == "icf"
    assert begun.undo is not None
    assert projects.step(stored.project.id, "undo", begun.undo.number).project == stored.project


def test_removing_a_build_up_in_use_is_refused_with_its_users(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    with pytest.raises(DomainError) as refused:
        projects.remove_assembly(stored.project.id, "wall-w-b", 1, NOTE)
    assert refused.value.issues[0].code == "in_use"
    assert "Boat Workshop: Footing" in refused.value.issues[0].message
    assert projects.load(stored.project.id) == stored


def test_a_build_up_goes_with_its_users_and_all_come_back_where_they_were(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    gone = projects.remove_assembly(stored.project.id, "wall-w-b", 1, NOTE, users="take along")
    assert all(e.assembly_id != "wall-w-b" for b in gone.project.buildings for e in b.elements)
    assert all("wall-w-b" not in j.assembly_ids for b in gone.project.buildings for j in b.joints)
    assert gone.undo is not None
    assert projects.step(stored.project.id, "undo", gone.undo.number).project == stored.project


def test_a_building_can_be_added_and_removed(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    fresh = Building(id="shed", name="Shed", elements=(ShellElement(id="e", station="B", name="Roof", area=9),))
    added = projects.put(stored.project.id, [Edit(key=SHED, value=fresh, bare=False)], NOTE)
    assert added.project.buildings[-1] == fresh
    gone = projects.put(stored.project.id, [Edit(key=SHED, value=None, read=added.versions["building/shed"])], NOTE)
    assert gone.project == stored.project
    with pytest.raises(NotFound):
        projects.put(stored.project.id, [Edit(key=SHED, value=None, read=1)], NOTE)


def test_a_new_thing_does_not_replace_one_that_is_there(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    with pytest.raises(Stale):
        first = stored.project.buildings[0]
        projects.put(stored.project.id, [Edit(key=Key("building", "", first.id), value=first, bare=False)], NOTE)


def test_before_the_newest_change_is_what_undo_would_bring(projects: ProjectService, database: Database) -> None:
    stored = projects.bring_in(campus())
    thicker(projects, stored, 0.2)
    assert projects.load(stored.project.id).before == stored.project
    again = ProjectService(database).load(stored.project.id)
    assert again.before == stored.project


def test_a_deleted_project_is_gone_until_it_is_restored(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    projects.delete(stored.project.id)
    with pytest.raises(NotFound):
        projects.load(stored.project.id)
    with pytest.raises(NotFound):
        thicker(projects, stored, 0.2)
    assert [listed.deleted for listed in projects.all()] == [True]
    assert projects.restore(stored.project.id).project == stored.project


def test_bringing_in_twice_makes_a_second_project(projects: ProjectService) -> None:
    one, other = projects.bring_in(campus()), projects.bring_in(campus())
    assert one.project.id != other.project.id
    assert replace(other.project, id=one.project.id) == one.project


def test_a_copy_finds_what_was_worked_out(projects: ProjectService, monkeypatch: pytest.MonkeyPatch) -> None:
    """Its shape is not measured again, neither as it comes in nor as it is opened."""
    drawn = [one for one in campus().buildings if one.bodies]
    projects.bring_in(campus())
    monkeypatch.setattr("nimble_shell.core.shell.measured.quantities", lambda *a, **k: pytest.fail("measured again"))
    copy = projects.bring_in(replace(campus(), id="copy"))
    for one in drawn:
        there = next(each for each in copy.project.buildings if each.id == one.id)
        assert isinstance(measured(copy.project, there), MeasuredBuilding)


def test_a_failed_write_leaves_nothing_behind(database: Database, projects: ProjectService) -> None:
    stored = projects.bring_in(campus())

    def half_an_edit() -> None:
        with database.write() as session:
            ProjectRepository(session).set_deleted(stored.project.id, "now")
            session.flush()
            raise RuntimeError("in the middle")

    with pytest.raises(RuntimeError):
        half_an_edit()
    assert projects.load(stored.project.id) == stored


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=15)
@given(st.lists(st.sampled_from(["edit", "undo", "redo"]), max_size=14))
def test_any_walk_of_edits_undos_and_redos_agrees_with_a_simple_stack(
    projects: ProjectService, walk: list[str]
) -> None:
    now = projects.bring_in(replace(campus(), id=f"p{len(projects.all())}"))
    project_id = now.project.id
    done, undone = [now.project], []
    for number, move in enumerate(walk):
        if move == "edit":
            now = thicker(projects, now, 0.1 + 0.001 * number)
            done, undone = [*done, now.project], []
        elif move == "undo" and now.undo is not None:
            now = projects.step(project_id, "undo", now.undo.number)
            undone.append(done.pop())
        elif move == "redo" and now.redo is not None:
            now = projects.step(project_id, "redo", now.redo.number)
            done.append(undone.pop())
        assert now.project == done[-1]
        assert (now.undo is None, now.redo is None) == (len(done) == 1, not undone)
