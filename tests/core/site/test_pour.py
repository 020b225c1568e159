"""Pressure by both schools at their joins, rates and heights by trying, lifts and braces by brute force, lean by cosines."""

from __future__ import annotations

import itertools
import math
import random
from dataclasses import replace

import pytest

from nimble_shell.core.shop.handling import G
from nimble_shell.core.site.lifts import brace_spacing, lean, lifts
from nimble_shell.core.site.pressure import (
    Pour,
    SchoolA,
    SchoolB,
    greatest_height,
    greatest_rate,
    least_temperature,
    pressure,
)

A = Pour(school=SchoolA(C1=1.0, C2=0.45), member="wall", density=2400, temperature=12, form_height=2.8, height=2.8,
         rate=1.2)  # fmt: skip
B = replace(A, school=SchoolB(Cw=1.0, Cc=1.2), temperature=20)


def test_the_first_school_by_hand() -> None:
    K = (36 / 28) ** 2
    reach = math.sqrt(1.2)
    by_hand = 2400 * G / 1000 * (reach + 0.45 * K * math.sqrt(2.8 - reach))
    assert pressure(A).value == pytest.approx(by_hand, rel=1e-12)
    assert pressure(A).governs == "formula"
    assert pressure(replace(A, rate=9.0)) == pressure(replace(A, rate=50.0))
    assert pressure(replace(A, rate=9.0)).governs == "hydrostatic"


def test_the_second_school_joins_where_it_says() -> None:
    """Minimum, formula for slow and for fast pours, hydrostatic above 4.5 m/h; a column never changes its formula."""
    warm = 20 + 17.8
    assert pressure(replace(B, rate=0.1)).value == pytest.approx(30.0)
    assert pressure(replace(B, rate=0.1)).governs == "minimum"
    slow, fast = (
        replace(B, rate=2.1 - 1e-9, form_height=9.0, height=4.2),
        replace(B, rate=2.1, form_height=9.0, height=4.2),
    )
    assert pressure(slow).value == pytest.approx(1.2 * (7.2 + 785 * 2.1 / warm), rel=1e-8)
    assert pressure(fast).value == pytest.approx(1.2 * (7.2 + 1156 / warm + 244 * 2.1 / warm), rel=1e-8)
    tall = replace(slow, height=4.3)
    assert pressure(tall).value == pytest.approx(1.2 * (7.2 + 1156 / warm + 244 * 2.1 / warm), rel=1e-8)
    assert pressure(replace(tall, rate=4.5 + 1e-9)).value == pytest.approx(2400 * G / 1000 * 4.3)
    column = replace(tall, member="column", rate=3.0)
    assert pressure(column).value == pytest.approx(1.2 * (7.2 + 785 * 3.0 / warm))
    shallow = replace(B, rate=0.1, height=0.5)
    assert (pressure(shallow).governs, pressure(shallow).value) == ("hydrostatic", pytest.approx(2400 * G / 1000 * 0.5))


@pytest.mark.parametrize("seed", range(40))
def test_the_greatest_rate_and_height_are_where_it_just_holds(seed: int) -> None:
    chance = random.Random(seed)
    high = chance.uniform(1.5, 7.0)
    school = (SchoolA(C1=chance.choice([1.0, 1.5]), C2=chance.choice([0.3, 0.45, 0.6])) if seed % 2
              else SchoolB(Cw=1.0, Cc=chance.choice([1.0, 1.2, 1.4])))  # fmt: skip
    pour = Pour(school=school, member=chance.choice(["wall", "column"]), density=2400, temperature=chance.uniform(5, 30),
                form_height=high, height=chance.uniform(0.5, 1.0) * high, rate=chance.uniform(0.2, 5.0))  # fmt: skip
    rated = chance.uniform(15.0, 90.0)
    rates = [0.001 * n for n in range(1, 12_000)]
    good = [one for one in rates if pressure(replace(pour, rate=one)).value <= rated]
    found = greatest_rate(pour, rated)
    if found is None:
        assert len(good) == len(rates)
    else:
        assert found == pytest.approx(max(good, default=0.0), abs=2e-3)
    heights = [high * n / 4000 for n in range(1, 4001)]
    best = max((one for one in heights if pressure(replace(pour, height=one)).value <= rated), default=0.0)
    assert greatest_height(pour, rated) == pytest.approx(best, abs=2e-3 * high)


@pytest.mark.parametrize("seed", range(40))
def test_no_other_day_joints_are_fewer_or_more_even(seed: int) -> None:
    chance = random.Random(seed)
    height, most = 3.0, chance.uniform(0.6, 2.5)
    joints = sorted({round(chance.uniform(0.1, 2.9), 1) for _ in range(chance.randint(1, 7))})
    every = [
        (len(some) + 1, max(b - a for a, b in itertools.pairwise([0.0, *some, height])))
        for count in range(len(joints) + 1) for some in itertools.combinations(joints, count)
    ]  # fmt: skip
    legal = [one for one in every if one[1] <= most + 1e-12]
    found = lifts(joints, height, most)
    if not legal:
        assert found is None
    else:
        assert found is not None
        assert (len(found.levels), found.greatest) == pytest.approx(min(legal))
        assert found.levels[-1] == height


def test_spacing_is_linear_in_the_table_and_not_known_outside() -> None:
    table = [(2400.0, 2400.0), (3600.0, 1800.0)]
    assert brace_spacing(table, 2800.0) == pytest.approx(2200.0)
    assert brace_spacing(table, 2400.0) == 2400.0
    assert brace_spacing(table, 3600.0) == 1800.0
    assert brace_spacing(table, 2000.0) is None
    assert brace_spacing(table, 4000.0) is None


def test_lean_by_the_law_of_cosines() -> None:
    found = lean(2800.0, 3.0, 1900.0, 1500.0)
    assert found.top == pytest.approx(8.4)
    theta = math.pi / 2 - math.asin(8.4 / 2800)
    by_hand = math.sqrt(1900**2 + 1500**2 - 2 * 1900 * 1500 * math.cos(theta)) - math.hypot(1900, 1500)
    assert found.brace == pytest.approx(by_hand)
    assert found.brace < 0


@pytest.mark.parametrize("school", [SchoolA(C1=1.0, C2=0.45), SchoolB(Cw=1.0, Cc=1.2)])
@pytest.mark.parametrize("rated", [30.0, 40.0, 55.0])
def test_colder_concrete_than_told_presses_too_much_and_that_does_not(school: SchoolA | SchoolB, rated: float) -> None:
    pour = Pour(school=school, member="wall", density=2400, temperature=10, form_height=3.0, height=2.4, rate=1.2)
    found = least_temperature(pour, rated, -15.0, 60.0)
    if found is None:
        assert pressure(replace(pour, temperature=60.0)).value > rated
        return
    assert pressure(replace(pour, temperature=found)).value <= rated + 1e-6
    if found > -15.0:
        assert pressure(replace(pour, temperature=found - 0.01)).value > rated
