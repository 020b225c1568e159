"""Round the building: broken where seals are missing or services run through, undecided where nobody said."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.joints.sealing.schedules import schedule
from nimble_shell.core.joints.sealing.seals import Sealed, judge
from nimble_shell.core.joints.sealing.walk import Stop, build_up, joint, walk
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.joints import JointResults, continuity_walk
from nimble_shell.services.solver_queue import SolverQueue


def ridge(*omitted: str, decided: bool = True) -> Stop:
    steps = schedule("ridge", "panel to panel", system="sip-roof")
    sealing = judge(steps, Sealed(omitted=omitted, decided=decided), heat=True, surfaces=())
    return joint("A", "r", "Ridge", sealing)


def test_a_whole_joint_breaks_nothing_and_one_without_seals_breaks_air_and_vapour() -> None:
    assert walk([ridge()], ["B"]).breaks == ()
    broken = walk([ridge("bead-in", "foam", "tape-in")], ["B"]).breaks
    assert [(stop.name, line) for stop, line in broken] == [("Ridge", "air"), ("Ridge", "vapour")]
    assert {line for _, line in walk([ridge(decided=False)], ["B"]).undecided} == {"rain", "air", "vapour"}


def test_a_surface_colder_than_asked_breaks_the_heat_line_and_says_so() -> None:
    steps = schedule("ridge", "panel to panel", system="sip-roof")
    cold = joint("A", "r", "Ridge", judge(steps, Sealed(decided=True), heat=False, surfaces=()))
    assert dict(cold.lines)["heat"] == "broken"
    assert any("colder than the factor" in why for why in cold.why)


def test_services_in_the_air_layer_break_it() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    assert dict(build_up("D", "e", "Wall", wall).lines)["air"] == "continuous"
    through = tuple(replace(layer, services="air" in layer.control or layer.services) for layer in wall.layers)
    stop = build_up("D", "e", "Wall", replace(wall, layers=through))
    assert dict(stop.lines)["air"] == "broken"
    assert any("services run through" in why for why in stop.why)


def test_where_two_parts_meet_without_a_joint_every_line_is_undecided() -> None:
    found = walk([], ["B", "D", "H"])
    assert [stop.station for stop in found.stops] == ["A", "C", "H"]
    assert all(state == "undecided" for stop in found.stops for _, state in stop.lines)
    assert walk([], ["D"]).stops == ()
    assert [stop.kind for stop in walk([ridge()], ["B"]).stops] == ["joint"]


def test_the_campus_shows_its_planted_mistakes() -> None:
    project = campus()
    book = JointResults(SolverQueue(workers=0))
    broken: dict[str, set[str]] = {}
    for building in project.buildings:
        found = continuity_walk(project, building, book.known(project, building))
        broken[building.id] = {f"{stop.name}: {line}" for stop, line in found.breaks}
    assert {"Ridge: air", "Ridge: vapour"} <= broken["main-laboratory"]
    assert not broken["boat-workshop"]
