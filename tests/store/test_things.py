"""Things of a project: written one by one, in their order, by several people, and read again as they were written."""

from __future__ import annotations

import random
from dataclasses import replace

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from shapeless import typed
from sqlalchemy import text

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.project import Project, ShellElement
from nimble_shell.core.shell.standard import Standard
from nimble_shell.demo.heron_flats import campus
from nimble_shell.formats.project import FixingDoc
from nimble_shell.formats.standards import read_standards, write_standards
from nimble_shell.formats.things import KINDS, Key, compose, groups, value_at
from nimble_shell.services.projects import LOCAL, ChangeNote, Edit, ProjectService
from nimble_shell.services.standards import StandardService
from nimble_shell.store import Actor, Crossed, Database, NotFound, NotKept, Stale, Stored
from nimble_shell.store.differences import positions

ANN, BEN = Actor("ann", "Ann"), Actor("ben", "Ben")


def note(actor: Actor = LOCAL, words: str = "an edit") -> ChangeNote:
    return ChangeNote(text=words, actor=actor)


def keys(project: Project) -> list[Key]:
    return [Key(kind, owner, KINDS[kind].id_of(one)) for kind, owner, values in groups(project) for one in values]


def test_a_project_is_its_things() -> None:
    project = campus()
    things = {key: value_at(project, key) for key in [Key("project"), Key("basis"), *keys(project)]}
    assert compose(project.id, things) == project
    assert len(things) > 80


def test_an_edit_writes_and_logs_one_small_document(projects: ProjectService, database: Database) -> None:
    stored = projects.bring_in(campus())
    joint = stored.project.buildings[0].joints[0]
    key = Key("joint", "main-laboratory", joint.id)
    projects.put(stored.project.id, [Edit(key=key, value=replace(joint, length=3.0), read=1)], note())
    with database.read() as session:
        rows = session.execute(text("SELECT kind, owner, id, length(before) + length(after) FROM change_item")).all()
    assert [row[:3] for row in rows] == [("joint", "main-laboratory", joint.id)]
    assert rows[0][3] < 2500


def test_what_would_not_be_read_again_is_not_written(projects: ProjectService) -> None:
    """A field that a document does not carry stops the edit; it used to be lost without a word."""
    stored = projects.bring_in(campus())
    lossy = type("LossyDoc", (FixingDoc,), {"to_core": lambda self: replace(FixingDoc.to_core(self), name="other")})
    kind = KINDS["fixing"]
    KINDS["fixing"] = replace(kind, document=lossy)
    try:
        wall = next(one for one in stored.project.assemblies if one.fixings)
        fixing = replace(wall.fixings[0], inner=0.0421)
        with pytest.raises(NotKept):
            projects.put(stored.project.id, [Edit(key=Key("fixing", wall.id, fixing.id), value=fixing, read=1)], note())
    finally:
        KINDS["fixing"] = kind
    assert projects.load(stored.project.id) == stored


def add(service: ProjectService, stored: Stored, one: str, actor: Actor = LOCAL) -> Stored:
    value = ShellElement(id=one, station="B", name=one, area=1.0)
    return service.put(stored.project.id, [Edit(key=Key("element", "pump-house", one), value=value)], note(actor))


def take(service: ProjectService, stored: Stored, one: str, actor: Actor = LOCAL) -> Stored:
    edit = Edit(key=Key("element", "pump-house", one), value=None, read=stored.revision)
    return service.put(stored.project.id, [edit], note(actor))


def names(stored: Stored) -> list[str]:
    pump_house = next(one for one in stored.project.buildings if one.id == "pump-house")
    return [element.id for element in pump_house.elements]


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=12)
@given(st.integers(0, 10**6))
def test_any_walk_of_additions_removals_and_undos_keeps_the_order(projects: ProjectService, seed: int) -> None:
    chance = random.Random(seed)
    now = projects.bring_in(replace(typed(campus()), id=f"p{len(projects.all())}"))
    done, undone = [names(now)], []
    for number in range(14):
        move = chance.choice(("add", "take", "undo", "undo", "redo"))
        if move == "add":
            now = add(projects, now, f"n{number}")
        elif move == "take" and len(done[-1]) > 1:
            now = take(projects, now, chance.choice(done[-1]))
        elif move == "undo" and now.undo is not None:
            now = projects.step(now.project.id, "undo", now.undo.number)
            undone.append(done.pop())
            assert names(now) == done[-1]
            continue
        elif move == "redo" and now.redo is not None:
            now = projects.step(now.project.id, "redo", now.redo.number)
            done.append(undone.pop())
            assert names(now) == done[-1]
            continue
        else:
            continue
        done, undone = [*done, names(now)], []


def test_positions_of_what_stays_are_kept_and_new_ones_fit_between() -> None:
    old = [("a", 0.0), ("b", 1.0), ("c", 2.0)]
    assert positions(old, ["a", "c"]) == {"a": 0.0, "c": 2.0}
    found = positions(old, ["x", "a", "y", "b", "c", "z"], 7)
    assert sorted(found, key=found.__getitem__) == ["x", "a", "y", "b", "c", "z"]
    assert [found[one] for one in "abc"] == [0.0, 1.0, 2.0]
    assert found["z"] > 3.0
    assert positions(old, ["c", "a", "b"]) == {"c": 0.0, "a": 1.0, "b": 2.0}
    crowded = [("a", 0.0), ("b", 1e-9)]
    assert positions(crowded, ["a", "x", "b"]) == {"a": 0.0, "x": 1.0, "b": 2.0}


def test_everybody_takes_back_their_own(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    add(projects, stored, "hers", ANN)
    now = add(projects, stored, "his", BEN)
    assert now.undo is not None
    assert now.undo.who == "Ben"
    hers = projects.load(stored.project.id, ANN)
    assert hers.undo is not None
    assert hers.undo.who == "Ann"
    back = projects.step(stored.project.id, "undo", hers.undo.number, ANN)
    assert "his" in names(back)
    assert "hers" not in names(back)
    assert projects.load(stored.project.id, BEN).redo is None
    with pytest.raises(NotFound):
        projects.step(stored.project.id, "undo", hers.undo.number, LOCAL)


def test_undo_never_crosses_a_newer_change_of_somebody_else(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    key = Key("element", "pump-house", "e1")
    value = value_at(stored.project, key)
    hers = projects.put(stored.project.id, [Edit(key=key, value=replace(value, area=5.0), read=1)], note(ANN, "five"))
    his = projects.put(
        stored.project.id, [Edit(key=key, value=replace(value, area=6.0), read=hers.revision)], note(BEN, "six")
    )
    assert hers.undo is not None
    with pytest.raises(Crossed) as crossed:
        projects.step(stored.project.id, "undo", hers.undo.number, ANN)
    assert (crossed.value.who, crossed.value.newer) == ("Ben", "six")
    assert projects.load(stored.project.id).project == his.project
    assert his.undo is not None
    projects.step(stored.project.id, "undo", his.undo.number, BEN)
    assert projects.step(stored.project.id, "undo", hers.undo.number, ANN).project == stored.project


def test_undo_of_what_others_rest_on_is_refused(projects: ProjectService) -> None:
    """A build-up that another one's element uses meanwhile does not vanish under it."""
    stored = projects.bring_in(campus())
    begun = projects.start_assembly(stored.project.id, "pump-house", "e2", "icf", {}, note(ANN))
    fresh = begun.project.assemblies[-1].id
    key = Key("element", "pump-house", "e3")
    used = replace(value_at(begun.project, key), assembly_id=fresh, U_entered=None)
    now = projects.put(stored.project.id, [Edit(key=key, value=used, read=begun.revision)], note(BEN))
    assert begun.undo is not None
    with pytest.raises(DomainError) as refused:
        projects.step(stored.project.id, "undo", begun.undo.number, ANN)
    assert refused.value.issues[0].code == "unknown_assembly"
    assert projects.load(stored.project.id) == now


def test_a_material_is_not_taken_from_under_a_build_up_that_is_being_saved(projects: ProjectService) -> None:
    stored = projects.add_material_like(projects.bring_in(campus()).project.id, "osb", note())
    own = stored.project.materials[0].key
    wall = stored.project.assemblies[0]
    drafted = replace(wall, layers=(replace(wall.layers[0], material=own), *wall.layers[1:]))
    projects.put(stored.project.id, [Edit(key=Key("material", "", own), value=None, read=stored.revision)], note())
    with pytest.raises(DomainError) as refused:
        projects.save_assembly(stored.project.id, drafted, stored.revision, note())
    assert refused.value.issues[0].code == "unknown_material"
    assert projects.load(stored.project.id).project.assemblies[0] == wall


def test_a_refused_standard_leaves_nothing_behind(database: Database, projects: ProjectService) -> None:
    """What is kept as a standard and the mark on the build-up are one transaction."""
    standards = StandardService(database, projects)
    stored = projects.bring_in(campus())
    broken = projects.edit_in

    def refuse(*args: object) -> Stored:
        broken(*args)  # type: ignore[arg-type]
        raise Stale("assembly", "wall-w-a", 1, 2)

    projects.edit_in = refuse  # type: ignore[method-assign]
    with pytest.raises(Stale):
        standards.keep(stored.project.id, "wall-w-a", "wall", reason="good", source="", trusted_since="")
    projects.edit_in = broken  # type: ignore[method-assign]
    assert standards.all() == []
    assert projects.load(stored.project.id) == stored


def test_a_standards_file_with_an_unknown_material_is_refused() -> None:
    wall = SYSTEMS["sip"].assembly("w", "Wall")
    file = write_standards([Standard(id="s", version=1, place="wall", assembly=wall, reason="good")], [])
    file["standards"][0]["assembly"]["layers"][0]["material"] = "unobtainium"
    with pytest.raises(DomainError) as refused:
        read_standards(file)
    assert refused.value.issues[0].code == "unknown_material"
    assert refused.value.issues[0].path[:2] == ("standards", 0)


def test_an_edit_that_changes_nothing_writes_nothing(projects: ProjectService) -> None:
    stored = projects.bring_in(campus())
    assert projects.save_assembly(stored.project.id, stored.project.assemblies[0], 1, note()).revision == 1
    assert projects.changes(stored.project.id) == []
