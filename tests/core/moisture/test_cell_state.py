"""What cells of the hourly calculation are made of: their slopes are those of their values, whatever the material."""

from __future__ import annotations

import numpy as np
import pytest

from nimble_shell.core.climate.saturation import p_sat
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly import cell_state as cells
from nimble_shell.core.moisture.hourly.hygric import stuff_of
from nimble_shell.core.moisture.hourly.transport import Slab, tables_of
from nimble_shell.core.working import value_of

MATERIALS = ("osb", "eps-035", "concrete", "stone-wool-board", "gypsum-board", "softwood")


def state_of(key: str, theta: float, phi: float) -> np.ndarray:
    slab = Slab(stuff=stuff_of(CATALOGUE[key], 0.1)[0], d=0.1)
    stuff, _ = tables_of([slab])
    P = np.zeros((1, cells.COLUMNS))
    cells.state(theta, phi, 0, stuff, P, 0)
    cells.transport(0, stuff, P, 0)
    return P[0]


@pytest.mark.parametrize("key", MATERIALS)
@pytest.mark.parametrize(("theta", "phi"), [(-5.0, 0.42), (5.0, 0.62), (20.0, 0.87), (35.0, 0.973)])
def test_slopes_are_those_of_the_values(key: str, theta: float, phi: float) -> None:
    at = state_of(key, theta, phi)
    for value, by_theta, by_phi in (
        (cells.PRESSURE, cells.PRESSURE_THETA, cells.PRESSURE_PHI),
        (cells.WATER, cells.WATER_THETA, cells.WATER_PHI),
        (cells.DRIVER, cells.DRIVER_THETA, cells.DRIVER_PHI),
    ):
        step = 1e-5
        numeric = (state_of(key, theta + step, phi)[value] - state_of(key, theta - step, phi)[value]) / (2 * step)
        assert at[by_theta] == pytest.approx(numeric, rel=1e-4, abs=1e-6)
        step = 1e-7
        numeric = (state_of(key, theta, phi + step)[value] - state_of(key, theta, phi - step)[value]) / (2 * step)
        least = 1e-13 if value == cells.DRIVER else 1e-5  # m²/s times kg/m³
        assert at[by_phi] == pytest.approx(numeric, rel=1e-4, abs=least)


@pytest.mark.parametrize("key", MATERIALS)
def test_vapour_pressure_is_humidity_times_saturation(key: str) -> None:
    for theta in (-10.0, 0.0, 25.0):
        at = state_of(key, theta, 0.5)
        assert at[cells.PRESSURE] == pytest.approx(0.5 * value_of(p_sat(theta)), rel=1e-12)


@pytest.mark.parametrize("key", MATERIALS)
def test_more_humidity_holds_more_water_and_conducts_no_worse(key: str) -> None:
    found = [state_of(key, 10.0, phi) for phi in np.linspace(0.05, 1.2, 24)]
    water = [one[cells.WATER] for one in found]
    assert water == sorted(water)
    conducts = [one[cells.CONDUCTIVITY] for one in found]
    assert conducts == sorted(conducts)
    assert all(one[cells.PERMEABILITY] > 0 for one in found)


def test_heat_is_stored_by_the_material_and_its_water() -> None:
    dry, wet = state_of("osb", 20.0, 0.05), state_of("osb", 20.0, 0.95)
    osb = CATALOGUE["osb"]
    assert dry[cells.CAPACITY] == pytest.approx(osb.rho * osb.c + cells.CW * dry[cells.WATER])
    assert wet[cells.CAPACITY] - dry[cells.CAPACITY] == pytest.approx(cells.CW * (wet[cells.WATER] - dry[cells.WATER]))


def test_what_does_not_store_holds_water_above_saturation_only() -> None:
    assert state_of("eps-035", 20.0, 0.99)[cells.WATER] < 1.0
    assert state_of("eps-035", 20.0, 1.01)[cells.WATER] == pytest.approx(
        state_of("eps-035", 20.0, 1.0)[cells.WATER] + 0.01 * cells.OVER, rel=1e-6
    )
