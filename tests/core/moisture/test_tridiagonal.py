"""The months' own solver against the dense one, and saturation of many temperatures against that of each."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.climate.saturation import p_sat, p_sat_of
from nimble_shell.core.errors import DomainError
from nimble_shell.core.moisture.monthly.condensation import Month, _check, _tridiagonal
from nimble_shell.core.working import value_of


@given(st.integers(1, 30), st.integers(0, 2**31))
def test_three_bands_are_solved_as_the_whole_matrix_is(count: int, seed: int) -> None:
    rng = np.random.default_rng(seed)
    lower, upper = -rng.uniform(0, 1, count - 1), -rng.uniform(0, 1, count - 1)
    diagonal = 2.0 + rng.uniform(0, 1, count)
    right = rng.normal(size=count)
    dense = np.diag(diagonal) + np.diag(upper, 1) + np.diag(lower, -1)
    found = _tridiagonal(lower.copy(), diagonal.copy(), upper.copy(), right.copy())
    assert found == pytest.approx(np.linalg.solve(dense, right), rel=1e-10, abs=1e-12)


@given(st.lists(st.floats(-60, 80), min_size=1, max_size=40))
def test_saturation_of_many_is_that_of_each(theta: list[float]) -> None:
    found = p_sat_of(np.array(theta))
    assert found == pytest.approx([value_of(p_sat(one)) for one in theta], rel=1e-14)


def test_it_goes_through_the_freezing_point_without_a_step() -> None:
    below, at, above = p_sat_of(np.array([-1e-9, 0.0, 1e-9]))
    assert below == pytest.approx(at, rel=1e-8)
    assert above == pytest.approx(at, rel=1e-8)


def months(**changed: float) -> list[Month]:
    one = Month(theta_e=5.0, phi_e=0.8, theta_i=20.0, phi_i=0.5)
    return [Month(**{**{name: getattr(one, name) for name in ("theta_e", "phi_e", "theta_i", "phi_i")}, **changed}),
            *[one] * 11]  # fmt: skip


@pytest.mark.parametrize(
    ("changed", "name"), [({"theta_e": -120.0}, "Te"), ({"theta_i": 130.0}, "Ti"), ({"phi_e": 0.0}, "phi_e")]
)
def test_a_month_that_cannot_be_is_named(changed: dict[str, float], name: str) -> None:
    with pytest.raises(DomainError) as caught:
        _check(months(**changed), 2e-10)
    assert caught.value.issues[0].path == ("months", 0, name)


def test_months_that_can_be_pass() -> None:
    _check(months(), 2e-10)
