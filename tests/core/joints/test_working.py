"""The working of a solved joint comes to the figures that are shown, and says how sure they are."""

from __future__ import annotations

import pytest

from nimble_shell.core.joints.drawing import SYSTEMS
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.joints.working import joint_working
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.bench import to_outside
from nimble_shell.services.joints import drawn

PROJECT = campus()
JOINTS = [(building.id, joint) for building in PROJECT.buildings for joint in building.joints]
CHOSEN = {joint.family: (building, joint) for building, joint in JOINTS}


@pytest.mark.parametrize("family", sorted(CHOSEN))
def test_every_figure_is_what_its_working_comes_to(family: str) -> None:
    building, joint = CHOSEN[family]
    found = drawn(PROJECT.within(building), joint)
    solved = solve_joint(found.drawing, found.temperatures, accuracy="working")
    for system in SYSTEMS:
        opened = joint_working(found.drawing, solved, system)
        assert opened["psi"].value == pytest.approx(to_outside(solved, system), abs=1e-12)
    assert opened["heat"].value == pytest.approx(solved.heat_flow["inside"], rel=1e-3, abs=1e-3)
    if solved.f_rsi is not None:
        assert opened["f_rsi"].value == pytest.approx(solved.f_rsi, rel=1e-12)
    coupling = next(step for step in opened["psi"].steps if step.text.startswith("coupling"))
    assert f"{solved.unknowns:,} unknowns" in coupling.source
    assert "balance" in coupling.source
