"""Venting by height: it agrees with the balance of a zone, and the day with open vents keeps its heat balance."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from replaying import replay
from scipy.optimize import brentq

from nimble_shell.core.airflow.balance import AirPath, Zone, balance
from nimble_shell.core.airflow.density import density
from nimble_shell.core.airflow.venting import Vents, stack_flow, stack_flows
from nimble_shell.core.loads.cooling_day import AIR, CoolingCase, DayElement, cooling_day, swing
from nimble_shell.core.loads.periodic_walls import MassLayer, MassWall
from nimble_shell.core.loads.vented_day import vented_day
from nimble_shell.core.working import derive, traced, value_of

VENTS = Vents(low=0.8, high=0.5, rise=4.0)
CONCRETE = MassLayer(d=0.2, lambda_=2.0, rho=2300.0, c=1000.0)
FOAM = MassLayer(d=0.1, lambda_=0.035, rho=20.0, c=1450.0)
HOT = CoolingCase(
    theta_i=25.0,
    theta_e=swing(24.0, 7.0, 15.0),
    elements=(DayElement(id="wall", A=120.0, wall=MassWall(layers=(CONCRETE, FOAM), Rsi=0.13, Rse=0.04)),),
    q_air=60.0,
    convective=tuple(1500.0 if 8 <= hour < 18 else 200.0 for hour in range(24)),
)


@pytest.mark.parametrize(("theta_i", "theta_e"), [(26.0, 14.0), (30.0, 29.0), (21.0, -10.0)])
def test_the_flow_is_that_of_the_balance_of_a_zone(theta_i: float, theta_e: float) -> None:
    def path(name: str, z: float, A: float, theta: float) -> AirPath:
        rho = value_of(density(theta))
        return AirPath(id=name, z=z, C=3600 * VENTS.Cd * A * (2 / rho) ** 0.5, n=0.5)

    paths = (path("low", 0.5, VENTS.low, theta_e), path("high", 0.5 + VENTS.rise, VENTS.high, theta_i))
    found = balance(Zone(theta_i=theta_i, theta_e=theta_e, paths=paths))
    assert value_of(stack_flow(VENTS, theta_i, theta_e)) == pytest.approx(value_of(found.q_in), rel=1e-9)


def test_its_working_gives_it() -> None:
    theta_i, theta_e = traced(26.0, "theta_i", "room", "°C", "entered"), traced(15.0, "theta_e", "air", "°C", "entered")
    working = derive(stack_flow(VENTS, theta_i, theta_e, traced))
    assert replay(working) == pytest.approx(value_of(stack_flow(VENTS, 26.0, 15.0)), rel=1e-12)


@pytest.mark.parametrize("vents", [VENTS, replace(VENTS, low=0.0), replace(VENTS, high=0.0), replace(VENTS, rise=0.0)])
def test_nothing_flows_where_it_is_no_colder_outside_or_an_opening_lacks(vents: Vents) -> None:
    assert stack_flow(vents, 24.0, 24.0 if vents.there else 10.0) == 0.0


def test_many_moments_at_once_are_as_each_of_them() -> None:
    theta_i, theta_e = np.array([26.0, 21.0, 20.0, 18.0]), np.array([14.0, -10.0, 20.0, 25.0])
    each = [value_of(stack_flow(VENTS, float(i), float(e))) for i, e in zip(theta_i, theta_e, strict=True)]
    assert stack_flows(VENTS, theta_i, theta_e) == pytest.approx(each, rel=1e-12)


def test_every_hour_keeps_its_heat_balance_and_no_hour_is_warmer_than_without_vents() -> None:
    alone = cooling_day(HOT)
    found = vented_day(HOT, alone, VENTS)
    let_go = np.fft.irfft(alone.Y * np.fft.rfft(found.theta), 24)
    by_air = found.q / AIR * (found.theta - np.array(HOT.theta_e))
    assert let_go + by_air == pytest.approx(alone.load + HOT.theta_i * alone.Y[0].real, abs=1e-5)
    assert (found.theta <= alone.free + 1e-9).all()
    assert (found.q[np.array(HOT.theta_e) >= found.theta] == 0).all()
    assert found.q[found.hour] == found.q.max() > 0


def test_more_opening_is_never_warmer_and_the_least_changes_nothing() -> None:
    alone = cooling_day(HOT)
    highest = [vented_day(HOT, alone, replace(VENTS, low=A, high=A)).theta.max() for A in (1e-9, 0.1, 1.0, 10.0)]
    assert highest == sorted(highest, reverse=True)
    assert highest[0] == pytest.approx(alone.free.max(), abs=1e-4)


def test_a_day_without_swing_is_the_steady_balance() -> None:
    steady = replace(HOT, theta_e=(10.0,) * 24, convective=(2000.0,) * 24)
    alone = cooling_day(steady)
    UA = alone.Y[0].real

    def surplus(theta: float) -> float:
        return 2000.0 - (UA + value_of(stack_flow(VENTS, theta, 10.0)) / AIR) * (theta - 10.0)

    expected = brentq(surplus, 10.0, 200.0, xtol=1e-12)
    assert vented_day(steady, alone, VENTS).theta == pytest.approx(expected, abs=1e-8)
