"""The sun: its place against the almanac's plain facts, shadows against a count of rays, days against their sums."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nimble_shell.core.sun.clear_sky import ClearSky
from nimble_shell.core.sun.overhang import INFINITE, Overhang, SunWindow, at_moment, best_depth, shaded, sun_day
from nimble_shell.core.sun.position import Clock, Day, declination, equation_of_time, on_plane, solar_time, sun_at

SKY = ClearSky()
JULY, JANUARY = Day(month=7, day=15), Day(month=1, day=15)


def test_the_year_has_its_turns() -> None:
    highest = max((declination(Day(month=6, day=n)), n) for n in range(15, 28))
    assert math.degrees(highest[0]) == pytest.approx(23.45, abs=0.02)
    assert 20 <= highest[1] <= 22
    assert math.degrees(declination(Day(month=3, day=21))) == pytest.approx(0.0, abs=0.5)
    assert equation_of_time(Day(month=11, day=3)) == pytest.approx(16.4, abs=0.2)


@given(st.floats(-89.0, 89.0), st.integers(1, 12))
def test_at_solar_noon_the_sun_stands_in_the_meridian(latitude: float, month: int) -> None:
    day = Day(month=month, day=15)
    sun = sun_at(latitude, day, 12.0)
    assert math.sin(float(sun.azimuth)) == pytest.approx(0.0, abs=1e-9)
    assert float(sun.altitude) == pytest.approx(math.pi / 2 - abs(math.radians(latitude) - declination(day)), abs=1e-9)


def test_the_clock_is_not_the_sun() -> None:
    assert solar_time(JULY, 12.0) == 12.0
    assert solar_time(JULY, 12.0, Clock(longitude=15.0, utc_offset=1.0)) == pytest.approx(
        12 + equation_of_time(JULY) / 60
    )


@settings(max_examples=40)
@given(st.floats(0.05, 2.5), st.floats(0.0, 1.0), st.floats(0.0, 3.0), st.floats(90.0, 270.0), st.floats(6.0, 18.0))
def test_a_shadow_is_what_rays_find(depth: float, gap: float, extend: float, azimuth: float, hour: float) -> None:
    """Points of the window whose ray to the sun meets the plate, on a grid of 120 × 120."""
    window = SunWindow(azimuth=azimuth, w=1.6, h=1.2, overhang=Overhang(depth=depth, gap=gap, extend=extend))
    sun = sun_at(44.0, JULY, np.array([hour]))
    plane = on_plane(sun, azimuth)
    if not plane.on[0] or math.cos(plane.gamma[0]) < 0.02:
        return
    across, down = np.meshgrid((np.arange(120) + 0.5) / 120 * 1.6, (np.arange(120) + 0.5) / 120 * 1.2)
    rise = math.tan(sun.altitude[0]) / math.cos(plane.gamma[0])
    out = (gap + down) / rise
    along = across - out * math.tan(plane.gamma[0])
    hit = (out <= depth) & (along >= -extend) & (along <= 1.6 + extend)
    assert float(shaded(window, sun, plane)[0]) == pytest.approx(hit.mean(), abs=0.02)


def test_an_endless_plate_shades_no_less_than_one_with_ends() -> None:
    hours = np.linspace(6.5, 17.5, 45)
    sun = sun_at(44.0, JULY, hours)
    plane = on_plane(sun, 180.0)
    shares = [shaded(SunWindow(azimuth=180.0, w=1.5, h=1.3, overhang=Overhang(depth=0.6, gap=0.2, extend=one)), sun, plane)
              for one in (0.0, 0.5, 2.0, INFINITE)]  # fmt: skip
    for less, more in zip(shares, shares[1:], strict=False):
        assert np.all(less[plane.on] <= more[plane.on] + 1e-12)


def test_a_day_is_symmetric_east_and_west_and_dark_in_the_polar_night() -> None:
    east, west = (sun_day(SunWindow(azimuth=one, w=1.0, h=1.0), 44.0, JULY, SKY) for one in (80.0, 280.0))
    assert east.H_beam == pytest.approx(west.H_beam, rel=1e-9)
    assert east.beam_share == 1.0
    dark = sun_day(SunWindow(azimuth=180.0, w=1.0, h=1.0), 80.0, JANUARY, SKY)
    assert (dark.sun_hours, dark.H_beam, dark.H_diffuse, dark.beam_share) == (0, 0, 0, None)
    pole = sun_day(SunWindow(azimuth=180.0, w=1.0, h=1.0), 90.0, JULY, SKY)
    assert pole.sun_hours == pytest.approx(12.0, abs=0.1)
    assert math.isfinite(pole.H_beam)


def test_the_best_depth_shades_in_summer_and_lets_the_winter_in() -> None:
    summer, winter = (Day(month=7, day=1), 12.0), (Day(month=12, day=21), 12.0)
    window = SunWindow(azimuth=180.0, w=1.8, h=1.3, overhang=Overhang(depth=0.0, gap=0.25, extend=INFINITE))
    found = best_depth(window, 44.0, summer, winter)
    assert found.feasible
    assert found.d_max is not None
    for depth in (found.d_min, found.d_max):
        built = SunWindow(azimuth=180.0, w=1.8, h=1.3, overhang=Overhang(depth=depth, gap=0.25, extend=INFINITE))
        assert at_moment(built, 44.0, *summer).shaded == pytest.approx(1.0)
        assert at_moment(built, 44.0, *winter).shaded == pytest.approx(0.0, abs=1e-9)
    north = best_depth(SunWindow(azimuth=0.0, w=1.0, h=1.0), 44.0, summer, winter)
    assert (north.d_min, north.d_max, north.feasible) == (0.0, None, True)
