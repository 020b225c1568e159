"""Moisture by month: laws that hold for any wall, an independent solution by events, and what is refused."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.moisture.monthly.condensation import Month, MonthlyLayer, planes_of, year
from nimble_shell.core.moisture.monthly.surface import critical_month, f_rsi_required
from nimble_shell.references.moisture import COLD, WET_WALL, by_events

PLIES = st.builds(
    MonthlyLayer,
    d=st.floats(0.001, 0.3),
    R=st.floats(0.0, 4.0),
    sd=st.one_of(st.just(0.0), st.floats(0.01, 100.0), st.just(float("inf"))),
)


@st.composite
def years(draw: st.DrawFn) -> list[Month]:
    mean, swing = draw(st.floats(-10, 20)), draw(st.floats(0, 20))
    damp, inside = draw(st.floats(0.4, 0.95)), draw(st.floats(0.3, 0.8))
    theta = [mean - swing * float(np.cos(2 * np.pi * at / 12)) for at in range(12)]
    return [Month(theta_e=one, phi_e=damp, theta_i=20.0, phi_i=inside) for one in theta]


@settings(max_examples=80, deadline=None)
@given(st.lists(PLIES, min_size=1, max_size=6), years())
def test_water_is_kept_and_no_plane_is_above_saturation(plies: list[MonthlyLayer], months: list[Month]) -> None:
    found = year(planes_of(plies, 0.13, 0.04), months)
    assert (found.M >= 0).all()
    assert np.isfinite(found.p).all()
    assert (found.p[:, 1:-1] <= found.p_sat[:, 1:-1] * (1 + 1e-9)).all()
    wet = found.M > 1e-9
    assert found.p[:, 1:-1][wet] == pytest.approx(found.p_sat[:, 1:-1][wet], rel=1e-9)
    assert found.g.sum(axis=0) == pytest.approx(found.left, abs=1e-9)
    # What condenses is what flows in less what flows out.
    for month, days in enumerate((31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)):
        flow = 2e-10 * -np.diff(found.p[month]) / found.planes.sd * 86400 * days
        assert found.g[month].sum() == pytest.approx(flow[0] - flow[-1], abs=1e-6 * max(1.0, float(np.abs(flow).max())))


@settings(max_examples=25, deadline=None)
@given(years(), st.floats(0.2, 20.0))
def test_it_agrees_with_constant_rates_between_events(months: list[Month], outer: float) -> None:
    planes = planes_of([*WET_WALL[:-1], replace(WET_WALL[-1], sd=outer)], 0.13, 0.04)
    found = year(planes, months)
    true = by_events(planes, months, found.start or 0)
    assert found.M.sum(axis=1) == pytest.approx(true.sum(axis=1), abs=0.01 * max(float(true.sum(axis=1).max()), 1e-3))


def test_one_plane_dries_while_another_is_still_wetted() -> None:
    found = year(planes_of(WET_WALL, 0.13, 0.04), COLD)
    assert len(found.wet) >= 2
    assert any((row[found.wet] > 1e-6).any() and (row[found.wet] < -1e-6).any() for row in found.g)


@pytest.mark.parametrize("turn", range(12))
def test_the_calendar_does_not_matter_to_what_dries(turn: int) -> None:
    planes = planes_of([replace(ply, sd=ply.sd / (4 if at == 4 else 1)) for at, ply in enumerate(WET_WALL)], 0.13, 0.04)
    mild = [replace(m, phi_i=0.4) for m in COLD]
    straight, turned = year(planes, mild), year(planes, mild[turn:] + mild[:turn])
    assert straight.dries
    assert straight.peak > 0.001
    # Months keep the length of their place in the calendar, so that days differ a little.
    assert turned.peak == pytest.approx(straight.peak, rel=0.1)
    assert turned.start is not None
    assert (turned.start + turn) % 12 == straight.start


def test_what_does_not_dry_in_a_year_says_so() -> None:
    tight = planes_of([*WET_WALL[:-1], replace(WET_WALL[-1], sd=1000.0)], 0.13, 0.04)
    found = year(tight, [replace(m, phi_i=0.7) for m in COLD])
    assert not found.dries
    assert found.left.sum() > 0.1


def test_coarse_slices_miss_what_condenses_inside_of_foam() -> None:
    plies = [MonthlyLayer(d=0.2, R=5.7, sd=1.0), MonthlyLayer(d=0.001, R=0.0, sd=3.0)]
    fine, coarse = (year(planes_of(plies, 0.13, 0.04, max_R), COLD) for max_R in (0.25, 100.0))
    assert fine.peak > 1.05 * coarse.peak or len(fine.wet) > len(coarse.wet)


def test_a_single_layer_and_a_dry_wall_have_no_wet_plane() -> None:
    one = year(planes_of([MonthlyLayer(d=0.1, R=0.2, sd=5.0)], 0.13, 0.04), COLD)
    assert one.wet.size == 0
    assert one.start is None
    dry = year(planes_of(WET_WALL, 0.13, 0.04), [replace(m, phi_i=0.1) for m in COLD])
    assert dry.peak == 0
    assert dry.dries


@pytest.mark.parametrize(("change", "code"), [
    ({"phi_i": 0.0}, "humidity_out_of_range"), ({"phi_e": 1.2}, "humidity_out_of_range"),
    ({"theta_e": -120.0}, "temperature_not_physical"),
])  # fmt: skip
def test_months_that_cannot_be_are_refused(change: dict[str, float], code: str) -> None:
    with pytest.raises(DomainError) as refused:
        year(planes_of(WET_WALL, 0.13, 0.04), [replace(COLD[0], **change), *COLD[1:]])
    assert refused.value.issues[0].code == code
    assert refused.value.issues[0].path[:2] == ("months", 0)


def test_minus_sixty_and_a_foil_are_computed() -> None:
    arctic = [replace(m, theta_e=-60.0) for m in COLD]
    found = year(planes_of([*WET_WALL, MonthlyLayer(d=0.0, R=0.0, sd=float("inf"))], 0.13, 0.04), arctic)
    assert np.isfinite(found.M).all()
    assert found.peak > 0


def test_slices_without_end_are_refused() -> None:
    with pytest.raises(DomainError, match="slices are asked for"):
        planes_of(WET_WALL, 0.13, 0.04, 1e-6)
    with pytest.raises(DomainError, match="no layer"):
        planes_of([], 0.13, 0.04)


def test_the_factor_asked_for_rises_with_humidity_and_the_critical_month_need_not_be_the_coldest() -> None:
    required = [f_rsi_required(replace(COLD[0], phi_i=phi)) for phi in (0.3, 0.4, 0.5, 0.6)]
    assert required == sorted(required, key=lambda one: one or 0.0)
    autumn = replace(COLD[9], phi_i=0.75)
    months = [*COLD[:9], autumn, *COLD[10:]]
    assert critical_month([f_rsi_required(m) for m in months]) == 9
    assert f_rsi_required(replace(COLD[0], theta_e=19.8)) is None
    assert critical_month([None] * 12) is None
