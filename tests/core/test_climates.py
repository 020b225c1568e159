"""Invented climates keep their formula as months and as hours; degree hours are those of the hours."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.climate import (
    INVENTED,
    MonthlyClimate,
    cooling_degree_hours,
    heating_degree_hours,
    hourly_temperature,
)
from nimble_shell.core.climate.invented import MONTH_DAYS
from nimble_shell.core.errors import DomainError

CLIMATES = [climate.monthly() for climate in INVENTED.values()]


def months(hours: np.ndarray) -> list[np.ndarray]:
    ends = np.cumsum((0, *MONTH_DAYS)) * 24
    return [hours[ends[m] : ends[m + 1]] for m in range(12)]


@pytest.mark.parametrize("climate", CLIMATES, ids=lambda one: str(one.name))
def test_the_hours_have_the_months_means_and_ranges(climate: MonthlyClimate) -> None:
    for month, hours in enumerate(months(hourly_temperature(climate))):
        assert hours.mean() == pytest.approx(climate.theta_e[month], abs=0.05)
        mean_day = hours.reshape(-1, 24).mean(axis=0)
        assert np.ptp(mean_day) == pytest.approx(climate.swing[month], rel=0.1)
        assert int(np.argmax(mean_day)) == pytest.approx(15, abs=1)


@pytest.mark.parametrize("climate", CLIMATES, ids=lambda one: str(one.name))
@pytest.mark.parametrize(("theta_i", "limit"), [(20.0, 15.0), (22.0, 12.0)])
def test_degree_hours_agree_with_a_sum_over_the_hours(climate: MonthlyClimate, theta_i: float, limit: float) -> None:
    hours = hourly_temperature(climate)
    summed = float(np.where(hours < limit, theta_i - hours, 0).sum())
    # the hours' weather is not quite normal: within 2 % and 300 K·h
    assert heating_degree_hours(climate, theta_i, limit) == pytest.approx(summed, rel=0.02, abs=300)
    warm = float(np.maximum(hours - 25, 0).sum())
    assert cooling_degree_hours(climate, 25.0) == pytest.approx(warm, rel=0.02, abs=300)


@pytest.mark.parametrize("climate", CLIMATES, ids=lambda one: str(one.name))
@pytest.mark.parametrize("theta_i", [12.0, 8.0, 5.0, 0.0, -5.0])
def test_a_room_below_the_heating_limit_is_heated_below_its_own_temperature(
    climate: MonthlyClimate, theta_i: float
) -> None:
    found = heating_degree_hours(climate, theta_i, 15.0)
    summed = float(np.maximum(theta_i - hourly_temperature(climate), 0).sum())
    assert found == pytest.approx(summed, rel=0.04, abs=300)
    # what flows in less what flows out is the mean difference of the year, exactly
    mean = float(np.dot(climate.theta_e, np.array(MONTH_DAYS) * 24))
    assert cooling_degree_hours(climate, theta_i) - found == pytest.approx(mean - 8760 * theta_i, abs=1e-6)


@given(st.floats(-30, 30), st.floats(-10, 25))
def test_degree_hours_are_never_negative_and_grow_with_the_room(theta_i: float, limit: float) -> None:
    for climate in CLIMATES:
        found = heating_degree_hours(climate, theta_i, limit)
        assert 0 <= found <= heating_degree_hours(climate, theta_i + 0.5, limit)
        assert cooling_degree_hours(climate, theta_i) >= 0


def test_without_scatter_and_range_degree_hours_are_exact() -> None:
    flat = MonthlyClimate(
        name="flat", source="", theta_e=(5.0,) * 12, phi_e=(0.7,) * 12, swing=(0.0,) * 12, sigma=(0.0,) * 12
    )
    assert heating_degree_hours(flat, 20.0, 15.0) == pytest.approx(15 * 8760)
    assert heating_degree_hours(flat, 20.0, 4.0) == pytest.approx(0, abs=1e-6)
    assert cooling_degree_hours(flat, 2.0) == pytest.approx(3 * 8760)


@pytest.mark.parametrize("change", [{"swing": (50.0,) * 12}, {"sigma": (-1.0,) * 12}])
def test_scatter_that_no_place_has_is_refused(change: dict[str, tuple[float, ...]]) -> None:
    with pytest.raises(DomainError) as refused:
        MonthlyClimate(name="x", source="", theta_e=(5.0,) * 12, phi_e=(0.7,) * 12, **change)
    assert refused.value.issues[0].code == "scatter_out_of_range"
