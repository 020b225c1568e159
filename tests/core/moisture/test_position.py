"""The control plane through the section: the largest safe share is safe, and a little more is not."""

from __future__ import annotations

import pytest

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.climate.saturation import p_sat
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.monthly.element import months_of
from nimble_shell.core.moisture.monthly.position import positions
from nimble_shell.core.working import value_of

SYSTEMS_TRIED = ["sip", "cassette", "icf", "straw-bale", "bead-cassette"]


@pytest.mark.parametrize("system", SYSTEMS_TRIED)
def test_room_air_has_80_percent_at_the_largest_safe_share_in_the_month_that_asks_most(system: str) -> None:
    basis = Basis()
    for one in positions(SYSTEMS[system].assembly("w", system), CATALOGUE, basis):
        assert 0 < one.safe < one.condenses < 1
        assert one.month is not None
        _, phi = one.at(one.x_safe)
        assert phi == pytest.approx(0.8, abs=0.01)
        assert one.at(one.x_safe + 0.02)[1] > phi
        # At the exact share, by the month's own numbers.
        month = months_of(basis)[one.month]
        theta = one.theta[0] + (one.theta[-1] - one.theta[0]) * one.safe
        assert month.p_i / value_of(p_sat(float(theta))) == pytest.approx(0.8, rel=1e-9)


def test_the_field_and_the_members_are_looked_at_and_the_members_ask_for_less_inside() -> None:
    field, *members = positions(SYSTEMS["cassette"].assembly("w", "w"), CATALOGUE, Basis())
    assert field.section == "field"
    assert {"stud", "batten"} <= {one.section for one in members}
    stud = next(one for one in members if one.section == "stud")
    assert stud.now is not None
    assert field.now is not None
    assert stud.now > field.now


def test_a_more_humid_room_leaves_less_inside_and_a_dry_one_all() -> None:
    wall = SYSTEMS["cassette"].assembly("w", "w")
    safe = [
        positions(wall, CATALOGUE, Basis(indoor=Indoor(phi_heating=phi)))[0].safe for phi in (0.3, 0.45, 0.6)
    ]  # fmt: skip
    assert safe == sorted(safe, reverse=True)
    arid = positions(wall, CATALOGUE, Basis(indoor=Indoor(phi_heating=0.01, phi_cooling=0.01)))[0]
    assert arid.safe == 1


def test_without_a_control_plane_there_is_a_limit_and_no_place() -> None:
    found = positions(SYSTEMS["straw-bale"].assembly("w", "w"), CATALOGUE, Basis())[0]
    assert found.layer is None
    assert found.now is None
    assert found.x_safe > 0
