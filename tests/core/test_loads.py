"""Loads and energy: walls that answer a day, the day's load, the cold day's, the year's need."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from replaying import replay

from nimble_shell.core.errors import DomainError
from nimble_shell.core.loads.cooling_day import (
    HOURS,
    CoolingCase,
    DayElement,
    DayWindow,
    SunnyDay,
    cooling_day,
    peak_working,
    swing,
)
from nimble_shell.core.loads.energy import Aperture, EnergyCase, Measure, MonthOutside, degree_hours, energy, rank
from nimble_shell.core.loads.heating import HeatingCase, heating_load
from nimble_shell.core.loads.periodic_walls import MassLayer, MassWall, answers
from nimble_shell.core.sun.overhang import Overhang
from nimble_shell.core.sun.position import Day
from nimble_shell.core.working import derive, traced, value_of

FOAM = MassLayer(d=0.16, lambda_=0.035, rho=18.0, c=1450.0)
CONCRETE = MassLayer(d=0.14, lambda_=2.0, rho=2400.0, c=1000.0)
BOARD = MassLayer(d=0.0125, lambda_=0.25, rho=800.0, c=1000.0)
HEAVY = MassWall(layers=(CONCRETE, FOAM), Rsi=0.13, Rse=0.04)
LIGHT = MassWall(layers=(BOARD, FOAM, BOARD), Rsi=0.13, Rse=0.04)
SUNNY = SunnyDay(latitude=44.0, day=Day(month=7, day=15))
DAY = CoolingCase(
    theta_i=25.0, theta_e=swing(23.0, 7.0, 15.0), sun=SUNNY, q_air=50.0,
    elements=(DayElement(id="wall", A=80.0, wall=HEAVY, azimuth=180.0, alpha=0.6),
              DayElement(id="partition", A=30.0, wall=MassWall(layers=(BOARD, MassLayer(R=0.5)), Rsi=0.13, adiabatic=True),
                         beyond="adiabatic"),
              DayElement(id="slab", A=50.0, wall=HEAVY, beyond=14.0)),
    windows=(DayWindow(id="south", A=6.0, U=0.9, g=0.5, F_F=0.7, azimuth=180.0, w=1.8, h=1.3,
                       overhang=Overhang(depth=0.7, gap=0.25)),),
    convective=(100.0,) * HOURS, radiant=(150.0,) * HOURS,
)  # fmt: skip
COLD = HeatingCase(theta_i=20.0, theta_e=-12.0, theta_mean=7.0, H_D=60.0, H_g=10.0, V=300.0, n50=1.0, e=0.05, A_F=120.0,
                   q_mech=120.0, eta=0.75, rule=100.0)  # fmt: skip
MONTHS = tuple(MonthOutside(theta_e=9.0 - 10.0 * math.cos(2 * math.pi * m / 12), sun=300.0 + 200.0 * math.sin(math.pi * m / 12))
               for m in range(12))  # fmt: skip
YEAR = EnergyCase(theta_i=20.0, months=MONTHS, H_tr=90.0, H_ve=25.0, C_m=8e6, A_F=120.0, gains=250.0)


# --- walls ------------------------------------------------------------------------------------------------------


@given(st.floats(0.01, 0.5), st.floats(0.02, 2.5), st.floats(10.0, 2500.0))
def test_a_layer_is_its_halves(d: float, lambda_: float, rho: float) -> None:
    whole = MassLayer(d=d, lambda_=lambda_, rho=rho, c=1000.0)
    half = replace(whole, d=d / 2)
    one, two = answers(
        [MassWall(layers=(whole,), Rsi=0.13, Rse=0.04), MassWall(layers=(half, half), Rsi=0.13, Rse=0.04)]
    ).Y_ie
    assert one == pytest.approx(two, rel=1e-9)


def test_transmittance_is_the_same_both_ways_and_the_mean_is_U() -> None:
    back = MassWall(layers=tuple(reversed(LIGHT.layers)), Rsi=LIGHT.Rse, Rse=LIGHT.Rsi)
    found = answers([LIGHT, back])
    assert found.Y_ie[0] == pytest.approx(found.Y_ie[1])
    assert found.Y_ii[:, 0].real == pytest.approx([1 / LIGHT.R] * 2)


def test_no_thickness_overflows() -> None:
    thick = answers([MassWall(layers=(replace(CONCRETE, d=400.0),), Rsi=0.13, Rse=0.04)])
    assert np.all(np.isfinite(thick.Y_ii))
    assert np.all(np.abs(thick.Y_ie[0, 1:]) == 0)


def test_a_closed_back_stores_and_lets_nothing_pass() -> None:
    closed = answers([MassWall(layers=(CONCRETE,), Rsi=0.13, adiabatic=True), MassWall(layers=(MassLayer(R=1.0),), Rsi=0.13,
                      adiabatic=True)])  # fmt: skip
    assert np.all(closed.Y_ie == 0)
    capacity = 0.14 * 2400.0 * 1000.0 * 2 * math.pi / 86400
    assert abs(closed.Y_ii[0, 1]) < capacity
    assert np.all(closed.Y_ii[1] == 0)


# --- the hot day ------------------------------------------------------------------------------------------------


def test_the_parts_are_the_load_and_its_mean_is_steady() -> None:
    found = cooling_day(DAY)
    assert np.sum(list(found.parts.values()), axis=0) == pytest.approx(found.load)
    still = replace(DAY, sun=None)
    steady = 80 / HEAVY.R * (23 - 25) + 50 / HEAVY.R * (14 - 25) + (50 / 3 + 6 * 0.9) * (23 - 25) + 100
    radiant = 150 * (1 - 0.13 * (80 / HEAVY.R + 50 / HEAVY.R) / 160)
    assert cooling_day(still).mean == pytest.approx(steady + radiant)


def test_left_alone_the_room_is_where_nothing_has_to_be_taken_away() -> None:
    """At the mean of the free temperature as set-point the mean load is none."""
    free = cooling_day(DAY).free
    assert cooling_day(replace(DAY, theta_i=float(free.mean()))).mean == pytest.approx(0.0, abs=1e-9)


def test_mass_delays_and_dampens() -> None:
    def inner(wall: MassWall) -> np.ndarray:
        alone = replace(DAY, windows=(), q_air=0.0, sun=None, convective=(0.0,) * HOURS, radiant=(0.0,) * HOURS,
                        elements=(DayElement(id="wall", A=100.0, wall=wall),))  # fmt: skip
        return cooling_day(alone).load

    light, heavy = inner(LIGHT), inner(HEAVY)
    assert np.ptp(heavy) < np.ptp(light)
    assert int(heavy.argmax()) > int(light.argmax())


def test_an_overhang_takes_sun_away_and_no_sun_is_no_gain() -> None:
    bare = replace(DAY, windows=(replace(DAY.windows[0], overhang=None),))
    assert cooling_day(DAY).solar.sum() < cooling_day(bare).solar.sum()
    assert cooling_day(replace(DAY, sun=None)).solar.sum() == 0
    roof = replace(DAY, windows=(replace(DAY.windows[0], tilt=20.0),))
    assert cooling_day(roof).solar.sum() > cooling_day(bare).solar.sum()


def test_a_peak_opens_to_its_parts() -> None:
    found = cooling_day(DAY)
    shown = peak_working(found, 60.0, 80.0)
    assert replay(shown["peak"]) == pytest.approx(found.peak)
    assert replay(shown["ratio"]) == pytest.approx(4800 / found.peak)


@pytest.mark.parametrize(
    "case",
    [
        replace(DAY, elements=()),
        replace(DAY, elements=(DayElement(id="w", A=1.0, wall=MassWall(layers=(), Rsi=0.0)),)),
        replace(DAY, elements=(DAY.elements[1],), windows=(), q_air=0.0),
    ],
)
def test_a_room_without_a_way_for_heat_is_refused(case: CoolingCase) -> None:
    with pytest.raises(DomainError):
        cooling_day(case)


# --- the cold day -----------------------------------------------------------------------------------------------


def test_the_cold_days_load_is_its_sum() -> None:
    found = heating_load(COLD)
    assert value_of(found.total) == pytest.approx(60 * 32 + 1.45 * 10 * 13 + (2 * 300 * 0.05 + 30) / 3 * 32)
    assert value_of(found.ratio or 0.0) == pytest.approx(12000 / value_of(found.total))
    assert value_of(heating_load(replace(COLD, q_min=100.0)).q) == 100
    warm = heating_load(replace(COLD, theta_e=20.0, theta_mean=20.0))
    assert warm.ratio is None


# --- the year ---------------------------------------------------------------------------------------------------


def test_without_gains_the_need_is_the_degree_hours() -> None:
    bare = replace(YEAR, gains=0.0, months=tuple(replace(one, sun=0.0) for one in MONTHS))
    assert value_of(energy(bare).Q_nd) == pytest.approx(115 * degree_hours(bare))


@settings(max_examples=40)
@given(st.floats(0.0, 1e7), st.floats(1e5, 1e9))
def test_the_use_of_gains_lies_between_nothing_and_all_and_falls(gains: float, C_m: float) -> None:
    found = energy(replace(YEAR, gains=gains, C_m=C_m))
    more = energy(replace(YEAR, gains=gains * 1.5 + 1, C_m=C_m))
    for less, one in zip(more.months, found.months, strict=True):
        assert one.eta is not None
        assert less.eta is not None
        assert 0 <= value_of(less.eta) <= value_of(one.eta) * (1 + 1e-12) <= 1 + 1e-12
        assert value_of(one.Q_nd) >= 0


def test_at_equal_gains_and_losses_the_use_has_no_gap() -> None:
    """γ = 1 from below, at it and from above."""
    january = MONTHS[0]
    lost = 115.0 * (20.0 - january.theta_e)
    found = [
        value_of(energy(replace(YEAR, gains=lost - january.sun + one)).months[0].eta or 0.0)
        for one in (-1e-4, 0.0, 1e-4)
    ]
    assert found[0] == pytest.approx(found[1], abs=1e-6)
    assert found[2] == pytest.approx(found[1], abs=1e-6)


def test_the_ground_by_months_takes_the_place_of_its_mean() -> None:
    flow = tuple(12.0 * (20.0 - one.theta_e) for one in MONTHS)
    by_month = replace(YEAR, H_ground=12.0, ground_flow=flow)
    assert value_of(energy(by_month).Q_nd) == pytest.approx(value_of(energy(YEAR).Q_nd))
    assert value_of(energy(by_month).tau) == value_of(energy(YEAR).tau)


def test_a_month_that_loses_nothing_needs_nothing() -> None:
    hot = replace(YEAR, months=(replace(MONTHS[0], theta_e=30.0), *MONTHS[1:]))
    january = energy(hot).months[0]
    assert (january.eta, value_of(january.Q_nd)) == (None, 0.0)
    with pytest.raises(DomainError):
        energy(replace(YEAR, H_tr=0.0, H_ve=0.0))


def test_measures_rank_by_what_they_save_for_their_money() -> None:
    found = rank(YEAR, [Measure(id="dear", cost=1000.0, H_tr=80.0, H_ve=25.0), Measure(id="free", cost=0.0, H_tr=89.0, H_ve=25.0),
                        Measure(id="cheap", cost=100.0, H_tr=88.0, H_ve=25.0)])  # fmt: skip
    assert [one.id for one in found] == ["free", "cheap", "dear"]
    assert found[0].dH_per_cost is None
    assert all(one.dQ > 0 for one in found)


def test_what_apertures_collect() -> None:
    assert Aperture(orientation="S", A=2.0, g=0.5, F_F=0.7, F_sh=0.8).sunlit == pytest.approx(2 * 0.5 * 0.7 * 0.8 * 0.9)


def test_every_figure_opens_to_a_working_that_gives_it() -> None:
    year, cold = energy(replace(YEAR, H_ground=12.0, ground_flow=(100.0,) * 12), traced), heating_load(COLD, traced)
    eta = year.months[0].eta
    for one in (year.tau, year.a, year.Q_nd, year.per_area, year.degree_kKh, eta, year.months[6].Q_nd, cold.total,
                cold.per_area, cold.ground, cold.ratio):  # fmt: skip
        assert one is not None
        assert replay(derive(one)) == pytest.approx(value_of(one))
