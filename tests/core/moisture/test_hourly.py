"""Moisture by the hour: balances, orders of convergence, each term, limits, and what is refused."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.moisture.hourly import cell_state
from nimble_shell.core.moisture.hourly.probe import at
from nimble_shell.core.moisture.hourly.transport import (
    Boundaries,
    Films,
    Grid,
    Run,
    RunOptions,
    Slab,
    Stuff,
    cells,
    run,
)
from nimble_shell.core.progress import Stopped, watched
from nimble_shell.references.moisture import LINEAR, constant, saturated, uptake

WOOD = Stuff(
    rho=650.0, c=1700.0, lambda_=0.13, lambda_w=3e-4, mu=((0.25, 200.0), (0.85, 60.0)),
    sorption=((0.0, 0.0), (0.2, 20.0), (0.5, 52.0), (0.8, 80.0), (0.95, 140.0), (1.0, 500.0)),
    Dw=((0.0, 1e-14), (80.0, 1e-13), (500.0, 5e-10)),
)  # fmt: skip
FOAM = Stuff(rho=18.0, c=1450.0, lambda_=0.035, mu=((0.5, 50.0),))
PLASTER = Stuff(
    rho=800.0, c=1000.0, lambda_=0.2, mu=((0.5, 8.0),), sorption=((0.0, 0.0), (0.8, 8.0), (0.95, 20.0), (1.0, 300.0)),
    Dw=((0.0, 1e-10), (300.0, 1e-7)),
)  # fmt: skip
WALL = (Slab(stuff=PLASTER, d=0.0125), Slab(stuff=WOOD, d=0.011), Slab(stuff=FOAM, d=0.1), Slab(stuff=WOOD, d=0.011))
HOURS = np.arange(8760)


def weather(hours: int = 8760, phi_i: float = 0.5) -> Boundaries:
    t = HOURS[:hours]
    theta = 5 - 12 * np.cos(2 * np.pi * t / 8760) - 5 * np.cos(2 * np.pi * t / 24)
    p = np.array([0.8 * saturated(float(one)) for one in theta])
    return Boundaries(theta_e=theta, p_e=p, theta_i=np.full(hours, 20.0), p_i=np.full(hours, phi_i * saturated(20.0)))


def total(found: Run) -> float:
    return float(found.totals[-1].sum())


def test_a_year_keeps_water_and_heat_and_stays_within_its_bounds() -> None:
    found = run(WALL, Films(), weather(), 15.0, 0.6, 8760)
    assert abs(found.balance_error) < 1e-9
    assert abs(found.heat_balance_error) < 1e-6 * float(np.abs(found.entered[:, 1]).max())
    assert np.isfinite(found.theta).all()
    assert (found.phi > 0).all()
    assert (found.phi <= 1).all()
    assert found.theta.min() > -13
    assert found.theta.max() < 23
    # What is carried by the sums of flows is what the cells' humidity says.
    w = np.bincount(found.grid.layer, weights=found.w[-1] * found.grid.dx, minlength=len(WALL))
    assert w == pytest.approx(found.totals[-1], abs=2e-4)


def test_the_start_is_forgotten() -> None:
    thin = (Slab(stuff=PLASTER, d=0.0125),)
    dry, wet = (run(thin, Films(), weather(), 15.0, phi, 2000, RunOptions(keep=[2000])) for phi in (0.2, 0.95))
    assert total(dry) == pytest.approx(total(wet), rel=1e-3)


def test_uptake_nears_the_series_by_the_second_power_of_the_cells() -> None:
    hours, d, slab = 48, 0.04, Slab(stuff=LINEAR, d=0.04)
    true, _ = uptake(d, hours)
    p = saturated(20.0)
    errors = []
    for n in (10, 20, 40):
        grid = Grid(dx=np.full(n, d / n), layer=np.zeros(n, dtype=np.int64))
        found = run([slab], Films(prescribed=True), constant(20.0, 0.8 * p, 20.0, 0.8 * p), 20.0, 0.4, hours,
                    RunOptions(keep=[], grid=grid, tolerance=1e-3))  # fmt: skip
        errors.append(abs(total(found) - float(found.totals[0].sum()) - true))
    assert math.log2(errors[0] / errors[1]) > 1.7
    assert math.log2(errors[1] / errors[2]) > 1.6


def test_errors_fall_with_the_tolerance_of_a_step() -> None:
    exact, *others = (
        run(WALL, Films(), weather(), 20.0, 0.9, 60, RunOptions(keep=[60], tolerance=tolerance))
        for tolerance in (0.005, 0.05, 0.5, 5.0)
    )
    errors = [float(np.abs(one.theta[0] - exact.theta[0]).max()) for one in others]
    assert errors[0] < errors[1] <= errors[2]
    assert all(error < tolerance for error, tolerance in zip(errors, (0.05, 0.5, 5.0), strict=True))
    assert others[0].steps > others[2].steps


def test_without_liquid_a_wet_brick_dries_far_more_slowly() -> None:
    wet = Stuff(rho=1700.0, c=850.0, lambda_=0.6, mu=((0.5, 12.0),), sorption=((0.0, 0.0), (0.9, 10.0), (1.0, 300.0)),
                Dw=((0.0, 1e-10), (300.0, 1e-6)))  # fmt: skip
    with_liquid, without = (run([Slab(stuff=one, d=0.2)], Films(), weather(), 15.0, 0.999, 1500, RunOptions(keep=[]))
                            for one in (wet, replace(wet, Dw=None)))  # fmt: skip
    lost = [float(one.totals[0].sum()) - total(one) for one in (with_liquid, without)]
    assert lost[0] > 1.5 * lost[1] > 0


def test_a_drying_surface_is_cooled_by_what_evaporates() -> None:
    slab = Slab(stuff=replace(PLASTER, mu=((0.5, 5.0),)), d=0.02)
    air = constant(20.0, 0.4 * saturated(20.0), 20.0, 0.4 * saturated(20.0))
    found = run([slab], Films(), air, 20.0, 1.0, 24, RunOptions(keep=[12, 24]))
    assert found.phi.max(axis=1).min() > 0.9
    assert found.theta[0].max() < 17.0  # while water comes to the surface as fast as it leaves
    assert found.theta[0].max() < found.theta[1].max() < 20.0
    # A body whose temperature has come to rest takes up no heat but what its water carries away.
    later = run([slab], Films(), air, 20.0, 1.0, 48, RunOptions(keep=[48]))
    sensible = later.entered[:, 1].sum() - found.entered[:, 1].sum()
    latent = cell_state.LATENT * (later.entered[:, 0].sum() - found.entered[:, 0].sum())
    assert latent < -1e5
    assert abs(sensible) < 0.05 * abs(latent)


def test_a_leak_wets_and_a_vented_layer_dries() -> None:
    climate = weather()
    leaking = replace(climate, leak_G=np.full(8760, 2e-11), leak_p=np.full(8760, 1500.0))
    dry = run(WALL, Films(), climate, 15.0, 0.6, 2000, RunOptions(keep=[]))
    wet = run(WALL, Films(), leaking, 15.0, 0.6, 2000, RunOptions(leak_layer=3))
    vented = (*WALL[:-1], replace(WALL[-1], vent=5e-4))
    aired = run(vented, Films(), leaking, 15.0, 0.6, 2000, RunOptions(keep=[], leak_layer=3))
    assert total(wet) > total(aired) > total(dry) - 0.5
    at = int(np.nonzero(wet.grid.layer == 3)[0][0])
    p = wet.phi[:, at] * np.array([saturated(float(theta)) for theta in wet.theta[:, at]])
    assert wet.entered[2, 0] == pytest.approx(float((2e-11 * (1500 - p)).sum()) * 3600, rel=0.01)
    assert abs(aired.balance_error) < 1e-9


def test_a_leak_of_dry_air_dries() -> None:
    climate = weather()
    dried = replace(climate, leak_G=np.full(8760, 2e-9), leak_p=np.full(8760, 200.0))
    plain, aired = (
        run(WALL, Films(), one, 15.0, 0.9, 1000, RunOptions(keep=[], leak_layer=3)) for one in (climate, dried)
    )
    assert aired.totals[-1][3] < 0.8 * plain.totals[-1][3]
    assert aired.entered[2, 0] < 0 == plain.entered[2, 0]


def test_rain_wets_until_the_surface_is_full() -> None:
    rained = replace(weather(), rain=np.where(HOURS % 48 < 6, 1e-4, 0.0))
    dry, wet = (run(WALL, Films(), one, 10.0, 0.7, 500, RunOptions(keep=[])) for one in (weather(), rained))
    assert total(wet) > total(dry) + 0.1
    assert abs(wet.balance_error) < 1e-9


def test_a_foil_stops_vapour_and_metal_conducts() -> None:
    foil = Stuff(rho=2700.0, c=900.0, lambda_=160.0, mu=((0.5, float("inf")),))
    closed = run(
        [WALL[0], Slab(stuff=foil, d=0.001), *WALL[1:]],
        Films(),
        weather(phi_i=0.7),
        15.0,
        0.6,
        1500,
        RunOptions(keep=[]),
    )
    open_ = run(WALL, Films(), weather(phi_i=0.7), 15.0, 0.6, 1500, RunOptions(keep=[]))
    assert closed.totals[-1][-1] < open_.totals[-1][-1]


@settings(max_examples=15, deadline=None)
@given(st.floats(-60, 40), st.floats(0.01, 1.0), st.floats(0.05, 1.0), st.sampled_from([WALL, WALL[::-1], WALL[:1]]))
def test_no_weather_brings_what_is_not_a_number(
    theta: float, phi: float, start: float, slabs: tuple[Slab, ...]
) -> None:
    air = constant(theta, phi * saturated(theta), 20.0, 0.6 * saturated(20.0))
    found = run(slabs, Films(), air, 20.0, start, 300)
    assert np.isfinite(found.theta).all()
    assert np.isfinite(found.w).all()
    assert abs(found.balance_error) < 1e-9


def test_places_between_cells_at_interfaces_and_surfaces() -> None:
    steady = run([Slab(stuff=FOAM, d=0.1), Slab(stuff=FOAM, d=0.1)], Films(), constant(-10.0, 200.0, 20.0, 1000.0),
                 5.0, 0.4, 400, RunOptions(keep=[400]))  # fmt: skip
    R = 1 / 8 + 0.2 / 0.035 + 1 / 25
    for x in (0.0, 0.0003, 0.05, 0.1, 0.2):
        crossed = 1 / 8 + x / 0.035
        assert float(at(steady, x).theta[0]) == pytest.approx(20 - 30 * crossed / R, abs=0.02)
    with pytest.raises(DomainError, match=r"x is 0\.3 m"):
        at(steady, 0.3)


def test_a_run_is_told_of_and_stopped() -> None:
    told: list[int] = []

    def watch(done: int, _: int) -> None:
        told.append(done)
        if done >= 730:
            raise Stopped

    with watched(watch), pytest.raises(Stopped):
        run(WALL, Films(), weather(), 15.0, 0.6, 8760, RunOptions(keep=[]))
    assert told == [0, 730]


REFUSED = {
    "thickness_not_positive": {"slabs": (replace(WALL[0], d=0.0),)},
    "mu_not_positive": {"slabs": (Slab(stuff=replace(FOAM, mu=((0.5, 0.0),)), d=0.1),)},
    "sorption_not_rising": {"slabs": (Slab(stuff=replace(WOOD, sorption=((0.0, 5.0), (1.0, 1.0))), d=0.1),)},
    "rows_not_rising": {"slabs": (Slab(stuff=replace(WOOD, Dw=((5.0, 1e-9), (5.0, 1e-9))), d=0.1),)},
    "hours_missing": {"boundaries": constant(float("nan"), 500.0, 20.0, 1000.0)},
    "temperature_not_physical": {"boundaries": constant(-200.0, 5.0, 20.0, 1000.0)},
    "pressure_negative": {"boundaries": constant(0.0, -5.0, 20.0, 1000.0)},
    "hours_out_of_range": {"hours": 0},
    "film_not_positive": {"films": Films(h_i=0.0)},
}


@pytest.mark.parametrize("code", REFUSED)
def test_what_cannot_be_is_refused(code: str) -> None:
    given_ = {"slabs": WALL, "films": Films(), "boundaries": weather(24), "hours": 24} | REFUSED[code]
    with pytest.raises(DomainError) as refused:
        run(given_["slabs"], given_["films"], given_["boundaries"], 20.0, 0.5, given_["hours"])  # type: ignore[arg-type]
    assert code in {issue.code for issue in refused.value.issues}


def test_more_cells_than_can_be_meant_are_refused() -> None:
    with pytest.raises(DomainError, match="cells"):
        cells(WALL, 1e-6, 1.0, 1e-6)
