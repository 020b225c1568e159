"""Temperatures with λ(θ): one flux through everything, exact where an integral is known."""

from __future__ import annotations

import numpy as np
import pytest
from core.strategies import elements, temperature
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.integrate import quad

from nimble_shell.core.errors import DomainError
from nimble_shell.core.thermal.conductivity import conductivity_at, mean_conductivity, theta_behind
from nimble_shell.core.thermal.element import Element, ElementLayer, Part
from nimble_shell.core.thermal.temperature import steady_state
from nimble_shell.core.working import value_of

TABLE = ((-20.0, 0.0285), (-10.0, 0.027), (0.0, 0.0255), (10.0, 0.025), (25.0, 0.0266), (40.0, 0.0285))


@given(elements(tables=True), temperature, temperature)
def test_one_flux_crosses_every_layer_and_both_films(element: Element, theta_i: float, theta_e: float) -> None:
    assume(abs(theta_i - theta_e) > 0.1)
    state = steady_state(element, theta_i, theta_e)
    q = value_of(state.q)
    faces = [value_of(theta) for theta in state.theta]
    assert (theta_i - faces[0]) / value_of(element.R_si) == pytest.approx(q, rel=1e-9)
    assert (faces[-1] - theta_e) / value_of(element.R_se) == pytest.approx(q, rel=1e-6, abs=1e-9)
    for layer, a, b in zip(element.layers, faces, faces[1:], strict=False):
        part = layer.parts[0]
        assert part.lambda_ is not None
        lambda_ = value_of(mean_conductivity(part.table, a, b)) if part.table else value_of(part.lambda_)
        assert lambda_ * (a - b) / value_of(layer.d) == pytest.approx(q, rel=1e-6, abs=1e-9)


@given(elements(tables=True), temperature, temperature)
def test_temperatures_run_from_one_side_to_the_other(element: Element, theta_i: float, theta_e: float) -> None:
    faces = [value_of(theta) for theta in steady_state(element, theta_i, theta_e).theta]
    fall = -np.diff([theta_i, *faces, theta_e])
    assert np.all(fall * np.sign(theta_i - theta_e or 1) >= -1e-9)


@given(elements(), temperature, temperature)
def test_constant_conductivity_has_one_resistance_at_all_temperatures(
    element: Element, theta_i: float, theta_e: float
) -> None:
    plain = sum(value_of(layer.resistance()) for layer in element.layers)
    total = plain + value_of(element.R_si) + value_of(element.R_se)
    assert value_of(steady_state(element, theta_i, theta_e).R) == pytest.approx(total, rel=1e-9)


@given(st.floats(min_value=-40, max_value=60), st.floats(min_value=-40, max_value=60))
def test_the_mean_conductivity_is_the_integral(a: float, b: float) -> None:
    assume(abs(a - b) > 0.01)
    stops = [theta for theta, _ in TABLE if min(a, b) < theta < max(a, b)]
    integral, _ = quad(
        lambda theta: value_of(conductivity_at(TABLE, theta)), min(a, b), max(a, b), points=stops or None
    )
    assert value_of(mean_conductivity(TABLE, a, b)) == pytest.approx(integral / abs(a - b), rel=1e-9)


@given(
    st.floats(min_value=-40, max_value=60),
    st.floats(min_value=-40, max_value=40),
    st.floats(min_value=0.01, max_value=0.4),
)
def test_the_face_behind_carries_the_same_flux(theta: float, q: float, d: float) -> None:
    behind = theta_behind(TABLE, theta, q, d)
    assume(abs(behind - theta) > 1e-6)
    lambda_ = value_of(mean_conductivity(TABLE, theta, behind))
    assert lambda_ * (theta - behind) / d == pytest.approx(q, rel=1e-8)


def test_conductivity_linear_in_temperature_has_its_known_flux() -> None:
    a, b, d = 0.030, 0.0002, 0.1  # q = (a + b·θm)·Δθ/d
    part = Part(lambda_=a, table=((-60.0, a - 60 * b), (60.0, a + 60 * b)))
    element = Element(layers=(ElementLayer(name="foam", d=d, parts=(part,)),), R_si=0.0, R_se=0.0)
    assert value_of(steady_state(element, 20, -10).q) == pytest.approx((a + b * 5) * 30 / d, rel=1e-12)


def test_eps_is_better_in_winter_and_aged_polyurethane_need_not_be() -> None:
    def R(table: tuple[tuple[float, float], ...], theta_e: float) -> float:
        layer = ElementLayer(name="core", d=0.2, parts=(Part(lambda_=table[3][1], table=table),))
        return value_of(steady_state(Element(layers=(layer,), R_si=0.13, R_se=0.04), 20, theta_e).R)

    eps = tuple(
        (theta, 0.035 * f) for theta, f in ((-20.0, 0.88), (-10.0, 0.92), (0.0, 0.96), (10.0, 1.0), (40.0, 1.125))
    )
    assert R(eps, -20) > R(eps, 10) > R(eps, 40)
    assert R(TABLE, -40) < R(TABLE, 0)


def test_equal_temperatures_still_have_a_resistance() -> None:
    layer = ElementLayer(name="core", d=0.1, parts=(Part(lambda_=0.025, table=TABLE),))
    state = steady_state(Element(layers=(layer,), R_si=0.13, R_se=0.04), 10, 10)
    assert value_of(state.q) == 0
    assert value_of(state.R) == pytest.approx(0.17 + 0.1 / 0.025)


@pytest.mark.parametrize(("theta_i", "theta_e", "path"), [(-300, 0, "Ti"), (20, float("nan"), "Te"), (20, 1e9, "Te")])
def test_temperatures_beyond_physics_are_refused(theta_i: float, theta_e: float, path: str) -> None:
    element = Element(layers=(ElementLayer(name="a", d=0.1, parts=(Part(lambda_=1.0),)),), R_si=0.1, R_se=0.1)
    with pytest.raises(DomainError) as refused:
        steady_state(element, theta_i, theta_e)
    assert refused.value.issues[0].path == (path,)


def test_a_wall_that_does_not_resist_is_refused() -> None:
    element = Element(layers=(ElementLayer(name="nothing", parts=(Part(R=0.0),)),), R_si=0.0, R_se=0.0)
    with pytest.raises(DomainError) as refused:
        steady_state(element, 20, 0)
    assert refused.value.issues[0].code == "nothing_resists"
