"""The working of a run gives what the run says, from its own formulas."""

from __future__ import annotations

import pytest
from web.board import evaluated

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly.life import Life, Seasons
from nimble_shell.core.moisture.hourly.outdoors import Exposure
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.moisture.hourly.working import run_working

ROOF = SYSTEMS["sip-roof"].assembly("w", "W")


@pytest.fixture(scope="module")
def leaky() -> Seasons:
    life = Life(years=1, leakage=0.9, height=3.5, exposure=Exposure(tilt=55), coarse=True)
    return seasons(ROOF, CATALOGUE, Basis(), life, "up")


def test_water_in_wood_is_that_of_its_wettest_day(leaky: Seasons) -> None:
    steps = run_working(leaky, ROOF, CATALOGUE)["wood"].steps
    assert steps[-1].value == pytest.approx(leaky.worst_wood[1], rel=1e-12)
    layer = ROOF.layers[leaky.wood[leaky.worst_wood[0]]]
    assert CATALOGUE[layer.material].rho in [step.value for step in steps]


def test_the_mould_index_is_the_day_before_and_its_growth(leaky: Seasons) -> None:
    steps = {step.symbol: step for step in run_working(leaky, ROOF, CATALOGUE)["mould"].steps}
    at, most = leaky.worst_mould
    day = int(leaky.mould[:, at].argmax())
    assert steps["M_most"].value == pytest.approx(most)
    assert steps["M_before"].value == pytest.approx(leaky.mould[day - 1, at])
    assert steps["dM_day"].value > 0


def test_the_balance_is_what_the_run_says_of_itself(leaky: Seasons) -> None:
    steps = run_working(leaky, ROOF, CATALOGUE)["balance"].steps
    assert steps[-1].value == pytest.approx(leaky.balance_error, abs=1e-9)
    assert sum(step.symbol.endswith("_end") for step in steps) == len(ROOF.layers)


def test_every_working_is_evaluated_to_its_figure(leaky: Seasons) -> None:
    for found in run_working(leaky, ROOF, CATALOGUE).values():
        plain = [{"symbol": one.symbol, "formula": one.formula, "value": one.value} for one in found.steps]
        assert evaluated(plain) == pytest.approx(found.steps[-1].value, abs=1e-12)


def test_what_is_not_judged_has_none() -> None:
    slab = SYSTEMS["slab"].assembly("s", "S")
    run = seasons(slab, CATALOGUE, Basis(), Life(years=1, coarse=True), "down")
    assert set(run_working(run, slab, CATALOGUE)) == {"balance"} | ({"wood"} if run.wood else set()) | (
        {"mould"} if run.places else set()
    )
