"""Joints of a shape's edges against the ones they have to agree with."""

from __future__ import annotations

import math

import pytest
from core.joints.test_families import T, drawing

from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.solved import SolvedJoint, solve_joint
from nimble_shell.core.parameters import Value


def solved(family: str, variant: str, system: str, **values: Value) -> SolvedJoint:
    return solve_joint(drawing(FAMILIES[family], variant, system, values), T, accuracy="working")


def psi(found: SolvedJoint, by: str = "external") -> float:
    return found.psi["inside", "outside"][by]


def test_a_verge_is_a_level_eave_and_so_is_a_high_eave_without_pitch() -> None:
    level = solved("eave", "flush", "sip", pitch=0.0)
    assert psi(solved("verge", "flush", "sip")) == pytest.approx(psi(level), rel=1e-9)
    assert psi(solved("high eave", "flush", "sip", pitch=0.0)) == pytest.approx(psi(level), rel=1e-9)


def test_a_high_eave_goes_on_from_the_eave_through_the_level_one() -> None:
    """ψ over the pitch has no step where the roof turns from falling to rising outwards."""
    below, above = solved("eave", "flush", "sip", pitch=0.5), solved("high eave", "flush", "sip", pitch=0.5)
    level = solved("eave", "flush", "sip", pitch=0.0)
    assert psi(below) + psi(above) == pytest.approx(2 * psi(level), abs=1e-3)


@pytest.mark.parametrize("pitch", [20.0, 35.0])
def test_a_hip_is_a_ridge_of_the_angle_that_its_planes_have(pitch: float) -> None:
    leaning = math.degrees(math.acos(math.cos(math.radians(pitch)) ** 2) / 2)
    hip, ridge = solved("hip", "panel to panel", "sip-roof", pitch=pitch), solved(
        "ridge", "panel to panel", "sip-roof", pitch=leaning)  # fmt: skip
    assert psi(hip) == pytest.approx(psi(ridge), rel=1e-9)
    # Its inner faces lie deeper in the warm: a valley is the warmer of both, and gains what the hip loses.
    valley = solved("valley", "panel to panel", "sip-roof", pitch=pitch)
    assert (valley.f_rsi or 0) > (hip.f_rsi or 0)
    assert psi(valley) > psi(hip)


def test_inner_and_outer_corner_of_one_wall_lie_either_side_of_nought() -> None:
    """By outer dimensions an outer corner counts too much area, an inner one too little."""
    outer, inner = solved("corner", "plain", "masonry"), solved("inner corner", "plain", "masonry")
    assert psi(outer) < 0 < psi(inner)
    assert (inner.f_rsi or 0) > (outer.f_rsi or 0)


def test_a_lined_parapet_loses_less_and_a_higher_one_no_more_than_a_fin_can() -> None:
    bare, lined = solved("parapet", "bare", "icf"), solved("parapet", "lined", "icf")
    assert psi(lined) < psi(bare)
    assert (lined.f_rsi or 0) > (bare.f_rsi or 0)
    high, higher = (solved("parapet", "bare", "icf", height=one) for one in (0.9, 1.2))
    assert psi(higher) - psi(high) < 0.02 * abs(psi(high))


def test_a_change_of_build_up_into_itself_is_none() -> None:
    """Two walls of one kind, the plate as thin as it goes: what is left is the plate's."""
    found = solved("change", "outer faces", "cassette", plate=0.01)
    assert abs(psi(found)) < 0.02


def test_a_roof_seam_is_the_walls_seam_with_heat_going_up() -> None:
    roof, wall = solved("roof seam", "block", "sip-roof"), solved("seam", "block", "sip-roof")
    assert psi(roof) == pytest.approx(psi(wall), abs=2e-3)
    assert FAMILIES["roof seam"].roles == ("roof",)
