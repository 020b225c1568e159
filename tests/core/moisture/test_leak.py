"""Air through joints: hydrostatics, what it leaves, what dries, and how tight is tight enough."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.damp import AirDrive, DampLimits
from nimble_shell.core.climate.saturation import p_sat
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.monthly.condensation import DAYS
from nimble_shell.core.moisture.monthly.element import element_planes, months_of
from nimble_shell.core.moisture.monthly.leak import (
    R_V,
    Leak,
    LeakYear,
    flow,
    largest_safe,
    leak_year,
    pressure,
    skin_plane,
)
from nimble_shell.core.working import value_of

BASIS = Basis()
ROOF = SYSTEMS["sip-roof"].assembly("r", "roof")
PLANES, COUNTED = element_planes(ROOF, CATALOGUE, BASIS, "up")
PLANE = skin_plane(ROOF, PLANES, COUNTED)


def ridge(leakage: float, drive: AirDrive | None = None, damp: DampLimits | None = None) -> LeakYear:
    leak = Leak(leakage=leakage, height=3.5, plane=PLANE)
    return leak_year(
        ROOF, CATALOGUE, PLANES, months_of(BASIS), leak, drive or BASIS.air, damp or BASIS.damp
    )  # fmt: skip


def test_the_stack_is_the_difference_of_two_columns_of_air() -> None:
    drive = AirDrive(wind=0.0, fan=0.0)
    heavy, light = (101325 / (287.05 * (theta + 273.15)) for theta in (-10.0, 20.0))
    assert pressure(20.0, -10.0, 4.0, drive) == pytest.approx((heavy - light) * 9.80665 * 4.0, rel=1e-12)
    assert pressure(20.0, 20.0, 4.0, drive) == pytest.approx(0, abs=1e-12)
    assert pressure(20.0, -10.0, -4.0, drive) < 0
    assert pressure(20.0, 20.0, 4.0, replace(drive, wind=1.0, fan=-3.0)) == pytest.approx(-2.0)


def test_a_joint_leaks_what_was_tested_at_the_pressure_it_was_tested_at() -> None:
    assert flow(0.7, 50.0, 0.65) == pytest.approx(0.7)
    assert flow(0.7, -50.0, 0.65) == pytest.approx(-0.7)
    assert flow(0.7, 4.0, 0.5) == pytest.approx(0.7 * math.sqrt(4 / 50))
    assert flow(0.0, 4.0, 0.65) == 0


def test_the_air_meets_the_cold_at_the_outer_skin() -> None:
    inner, outer = (ROOF.layers[int(PLANES.layer[PLANE - side])].material for side in (1, 0))
    assert (inner, outer) == (next(one.material for one in ROOF.layers if one.studied), "osb")


def test_without_a_leak_the_year_is_that_of_the_build_up_and_with_one_nothing_is_lost() -> None:
    assert ridge(0.0).carried == pytest.approx(np.zeros(12))
    leaky = ridge(0.9)
    # What the plane gained is what the air brought and what diffusion took, month by month.
    p, sd = leaky.year.p, PLANES.sd
    net = np.array([
        2e-10 * ((p[m, PLANE - 1] - p[m, PLANE]) / sd[PLANE - 1] - (p[m, PLANE] - p[m, PLANE + 1]) / sd[PLANE])
        for m in range(12)
    ])  # fmt: skip
    diffused = net * 86400 * np.array(DAYS) * BASIS.air.strip
    assert leaky.gained == pytest.approx(leaky.carried + diffused, abs=1e-12)
    assert leaky.held.max() > 0.1


def test_a_wet_skin_takes_what_the_air_has_above_saturation_there() -> None:
    january = ridge(0.9)
    month = months_of(BASIS)[0]
    theta = january.year.theta[0, PLANE]
    V = BASIS.air.reaching * january.flow[0] / 3600
    left = V * (month.p_i - value_of(p_sat(float(theta)))) / (R_V * (month.theta_i + 273.15)) * 86400 * 31
    assert january.carried[0] == pytest.approx(left, rel=1e-9)


def test_more_leakage_is_wetter_and_inward_air_dries() -> None:
    peaks = [ridge(leakage).peak for leakage in (0.1, 0.3, 0.9, 2.7)]
    assert peaks == sorted(peaks)
    assert peaks[0] < peaks[-1]
    sucked = ridge(0.9, replace(BASIS.air, fan=-20.0))
    assert sucked.peak == pytest.approx(0, abs=1e-9)
    assert (sucked.flow < 0).all()


def test_the_largest_safe_leakage_passes_and_a_little_more_does_not() -> None:
    leak = Leak(leakage=1.0, height=3.5, plane=PLANE)
    found = largest_safe(ROOF, CATALOGUE, PLANES, months_of(BASIS), leak, BASIS.air, BASIS.damp)
    assert found is not None
    assert ridge(found).safe
    assert not ridge(1.01 * found).safe
    strict = DampLimits(board=0.01)
    tighter = largest_safe(ROOF, CATALOGUE, PLANES, months_of(BASIS), leak, BASIS.air, strict)
    assert tighter is not None
    assert tighter < found


def test_what_is_not_physical_is_refused() -> None:
    with pytest.raises(DomainError, match="leakage is −1"):
        ridge(-1.0)
    with pytest.raises(DomainError, match="plane 0"):
        leak_year(ROOF, CATALOGUE, PLANES, months_of(BASIS), Leak(leakage=1, height=0, plane=0), BASIS.air, BASIS.damp)
    core = next(at for at, one in enumerate(ROOF.layers) if one.studied)
    bare = replace(ROOF, layers=ROOF.layers[: core + 1])
    planes, counted = element_planes(bare, CATALOGUE, BASIS, "up")
    with pytest.raises(DomainError, match="outside of its core"):
        skin_plane(bare, planes, counted)
    for change in ({"reaching": 0.0}, {"strip": 0.0}, {"exponent": 0.3}, {"wind": 500.0}, {"ridge": 100.0}):
        with pytest.raises(DomainError):
            AirDrive(**change)
    with pytest.raises(DomainError, match="leaks more than the grade before") as refused:
        AirDrive(leakages=((2.0, 6.0), (0.3, 0.9), (0.1, 0.3), (0.03, 0.5)))
    assert refused.value.issues[0].path == ("leakages", 3)
    for change in ({"plane": 0.0}, {"wood": 1.0}, {"mould": 7.0}):
        with pytest.raises(DomainError):
            DampLimits(**change)
