"""ISO 13786 against a run in time, and the fastener correction by hand."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.sparse import diags
from scipy.sparse.linalg import splu

from nimble_shell.core.errors import DomainError
from nimble_shell.core.thermal.element import Element, ElementLayer, Part
from nimble_shell.core.thermal.fasteners import Fasteners, fastener_correction
from nimble_shell.core.thermal.periodic import periodic

CONCRETE = ElementLayer(name="concrete", d=0.15, parts=(Part(lambda_=2.3, rho=2350, c=1000),))
EPS = ElementLayer(name="eps", d=0.1, parts=(Part(lambda_=0.035, rho=20, c=1450),))
STRAW = ElementLayer(name="straw", d=0.45, parts=(Part(lambda_=0.06, rho=110, c=2000),))


def element(*layers: ElementLayer) -> Element:
    return Element(layers=layers, R_si=0.13, R_se=0.04)


def in_time(wall: Element, period_h: float, cells: int = 120) -> complex:
    """Inside flux per outside temperature swing, from a finite-volume run over many periods."""
    C, R = [], [float(wall.R_si)]  # type: ignore[arg-type]
    for layer in wall.layers:
        part = layer.parts[0]
        n = cells
        dx = float(layer.d) / n  # type: ignore[arg-type]
        assert part.lambda_ is not None
        assert part.rho is not None
        assert part.c is not None
        half = dx / 2 / float(part.lambda_)  # type: ignore[arg-type]
        for _ in range(n):
            R[-1] += half
            C.append(part.rho * part.c * dx)
            R.append(half)
    R[-1] += float(wall.R_se)  # type: ignore[arg-type]
    G, steps = 1 / np.array(R), 1440
    dt = period_h * 3600 / steps
    heat = np.array(C) / dt
    main = heat + 0.5 * (G[:-1] + G[1:])
    left = splu(diags([main, -0.5 * G[1:-1], -0.5 * G[1:-1]], [0, 1, -1], format="csc"))  # type: ignore[arg-type, list-item]
    T = np.zeros(len(C))
    angle = 2 * np.pi * np.arange(steps + 1) / steps
    flux = np.zeros(steps, dtype=float)
    for _period in range(20):
        for step in range(steps):
            right = (heat - 0.5 * (G[:-1] + G[1:])) * T
            right[:-1] += 0.5 * G[1:-1] * T[1:]
            right[1:] += 0.5 * G[1:-1] * T[:-1]
            right[-1] += 0.5 * G[-1] * (np.cos(angle[step]) + np.cos(angle[step + 1]))
            T = left.solve(right)
            flux[step] = G[0] * T[0]
    return complex(2 / steps * np.sum(flux * np.exp(-1j * angle[1:])))


@pytest.mark.parametrize(
    "wall", [element(CONCRETE), element(CONCRETE, EPS), element(EPS, CONCRETE)], ids=["concrete", "outside", "inside"]
)
def test_the_matrix_agrees_with_a_run_in_time(wall: Element) -> None:
    response = in_time(wall, 24)
    found = periodic(wall, 24)
    assert pytest.approx(abs(response), rel=2e-3) == found.Y12
    lag = (-np.angle(response) * 24 / (2 * np.pi)) % 24
    assert found.lag_h == pytest.approx(lag, abs=0.03)


def test_a_lag_beyond_half_a_day_is_not_folded_back() -> None:
    thick = element(STRAW, STRAW)
    assert periodic(thick, 24).lag_h > 24
    assert 12 < periodic(element(STRAW), 24).lag_h < 24


@given(st.floats(min_value=0.02, max_value=0.4))
def test_a_very_slow_swing_is_the_steady_state(d: float) -> None:
    slab = ElementLayer(name="slab", d=d, parts=(Part(lambda_=1.5, rho=2000, c=900),))
    found = periodic(element(slab), 24 * 3650)
    assert found.decrement == pytest.approx(1, abs=1e-3)
    assert pytest.approx(1 / (0.17 + d / 1.5), rel=1e-3) == found.Y12


def test_order_matters_to_the_capacities_but_not_to_the_transmittance() -> None:
    mass_inside, mass_outside = periodic(element(CONCRETE, EPS), 24), periodic(element(EPS, CONCRETE), 24)
    turned = Element(layers=(EPS, CONCRETE), R_si=0.04, R_se=0.13)
    back = periodic(turned, 24)
    there = periodic(Element(layers=(CONCRETE, EPS), R_si=0.13, R_se=0.04), 24)
    assert mass_inside.kappa_i > 5 * mass_outside.kappa_i
    assert pytest.approx(there.Y12, rel=1e-9) == back.Y12
    assert back.kappa_e == pytest.approx(there.kappa_i, rel=1e-9)


def test_what_has_no_heat_capacity_is_refused() -> None:
    with pytest.raises(DomainError) as refused:
        periodic(element(ElementLayer(name="x", d=0.1, parts=(Part(lambda_=1.0),))), 24)
    assert refused.value.issues[0].path == ("layers", 0)
    with pytest.raises(DomainError):
        periodic(element(CONCRETE), 0)


def test_the_fastener_correction_is_the_formula() -> None:
    wall = element(CONCRETE, EPS)
    pins = Fasteners(n=4, lambda_=17, A=2.8e-5, d0=0.1, d1=0.1, layer=1)
    R_1, R_tot = 0.1 / 0.035, 0.17 + 0.15 / 2.3 + 0.1 / 0.035
    assert fastener_correction(wall, pins) == pytest.approx(0.8 * 17 * 2.8e-5 * 4 / 0.1 * (R_1 / R_tot) ** 2, rel=1e-12)


def test_plastic_fasteners_need_no_correction_and_recessed_ones_less() -> None:
    wall = element(CONCRETE, EPS)
    base = {"n": 4.0, "A": 2.8e-5, "d0": 0.1, "layer": 1}
    assert fastener_correction(wall, Fasteners(lambda_=0.25, d1=0.1, **base)) == 0  # type: ignore[arg-type]
    full, recessed = (fastener_correction(wall, Fasteners(lambda_=17, d1=d1, **base)) for d1 in (0.1, 0.06))  # type: ignore[arg-type]
    assert recessed == pytest.approx(full * 0.6**3, rel=1e-12)


def test_a_fastener_in_no_layer_is_refused() -> None:
    with pytest.raises(DomainError) as refused:
        fastener_correction(element(EPS), Fasteners(n=-1, lambda_=17, A=1e-5, d0=0.1, d1=0.1, layer=7))
    assert {issue.path for issue in refused.value.issues} == {("fasteners", "n"), ("fasteners", "layer")}
