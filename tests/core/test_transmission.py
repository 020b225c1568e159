"""ISO 13789: sums that lose nothing, spaces between inside and outside, glazing and its break-even."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from replaying import replay

from nimble_shell.core.errors import DomainError
from nimble_shell.core.transmission.glazing import GlazedWall, resistance_at, share_at
from nimble_shell.core.transmission.rows import (
    AreaRow,
    FixedSpace,
    JointRow,
    PointRow,
    Transmission,
    UnheatedSpace,
    WindowRow,
)
from nimble_shell.core.transmission.sums import sums
from nimble_shell.core.working import derive, traced, value_of

LOFT = UnheatedSpace(id="loft", elements=((60.0, 2.0),), joints=((20.0, 0.1),), V=90.0, n_ue=3.0)
HOUSE = Transmission(
    areas=(AreaRow(id="north", A=40.0, U=0.2, group="wall"), AreaRow(id="south", A=30.0, U=0.2, group="wall"),
           AreaRow(id="ceiling", A=50.0, U=0.15, to="loft", group="roof"), AreaRow(id="party", A=30.0, U=0.4, to="heated")),
    windows=(WindowRow(id="panes", A=1.8, U=0.9, n=6, L_install=0.12, group="wall"),),
    joints=(JointRow(id="corner", l=20.0, psi=-0.05, group="wall"), JointRow(id="eave", l=24.0, psi=0.06, group="roof")),
    points=(PointRow(id="screws", n=400, chi=0.0015, group="roof"),), spaces=(LOFT,), H_ground=9.0, air_q=60.0,
)  # fmt: skip
WALL = GlazedWall(A=60.0, U_wall=0.15, H_other=1.5, w=1.2, h=1.4, U_w=0.85, psi=0.03)


def test_the_parts_are_the_whole() -> None:
    found = sums(HOUSE)
    b = (120 + 2 + 90) / (120 + 2 + 90 + 50 * 0.15)
    assert found.b["loft"] == pytest.approx(b)
    assert value_of(found.H_D) == pytest.approx(70 * 0.2 + 6 * (1.8 * 0.9 + 0.12) - 1.0 + 24 * 0.06 + 400 * 0.0015)
    assert value_of(found.H_U) == pytest.approx(b * 7.5)
    assert sum(value_of(one) for one in found.shares.values() if one is not None) == pytest.approx(1.0, abs=1e-14)
    assert found.groups["wall"].R_clear == pytest.approx(5.0)
    assert value_of(found.groups["wall"].R_whole) == pytest.approx(70 / (14.0 - 1.0 + 0.72))
    assert set(found.groups) == {"wall", "roof"}


def test_a_neighbour_as_warm_as_we_are_takes_nothing() -> None:
    without = replace(HOUSE, areas=HOUSE.areas[:-1])
    assert sums(HOUSE).H == sums(without).H


@given(st.floats(0.0, 500.0), st.floats(0.0, 20.0), st.floats(0.01, 5.0))
def test_b_lies_between_nothing_and_all(outward: float, changes: float, U: float) -> None:
    loft = UnheatedSpace(id="loft", elements=((outward, 1.0),) if outward else (), V=50.0, n_ue=changes)
    found = sums(Transmission(areas=(AreaRow(id="ceiling", A=40.0, U=U, to="loft"),), spaces=(loft,)))
    assert 0 <= value_of(found.b["loft"]) < 1


def test_b_passes_one_towards_a_colder_space_and_turns_towards_a_hotter_one() -> None:
    def b(theta: float) -> float:
        one = Transmission(areas=(AreaRow(id="wall", A=10.0, U=0.5, to="store"),), theta_i=20.0, theta_e=0.0,
                           spaces=(FixedSpace(id="store", theta=theta),))  # fmt: skip
        return value_of(sums(one).b["store"])

    assert b(-20.0) == pytest.approx(2.0)
    assert b(20.0) == 0
    assert b(30.0) == pytest.approx(-0.5)


def test_every_sum_opens_to_a_working_that_gives_it() -> None:
    live, shown = sums(HOUSE), sums(HOUSE, traced)
    for name in ("H_D", "H_g", "H_U", "H_tr", "H_ve", "H"):
        assert replay(derive(getattr(shown, name))) == pytest.approx(value_of(getattr(live, name)))
    for name, share in shown.shares.items():
        assert share is not None
        assert replay(derive(share)) == pytest.approx(value_of(live.shares[name] or 0.0)), name
    for name, group in shown.groups.items():
        assert replay(derive(group.R_with_windows)) == pytest.approx(value_of(live.groups[name].R_with_windows))


def test_what_cannot_be_summed_is_refused() -> None:
    lost = replace(HOUSE, areas=(AreaRow(id="wall", A=10.0, U=0.2, to="attic"),))
    cold = replace(HOUSE, spaces=(*HOUSE.spaces, FixedSpace(id="store", theta=5.0)))
    gaining = replace(HOUSE, joints=(JointRow(id="corner", l=900.0, psi=-0.5, group="wall"),))
    for building, code in ((lost, "unknown_space"), (cold, "missing"), (gaining, "nothing_lost"),
                           (replace(cold, theta_i=5.0, theta_e=5.0), "no_difference")):  # fmt: skip
        with pytest.raises(DomainError) as refused:
            sums(building)
        assert refused.value.issues[0].code == code


def test_a_building_that_loses_nothing_has_no_shares() -> None:
    assert set(sums(Transmission()).shares.values()) == {None}


@given(st.floats(0.0, 1.0))
def test_the_share_at_a_resistance_leads_back_to_it(share: float) -> None:
    R = value_of(resistance_at(WALL, share))
    found = share_at(WALL, R)
    assert found is not None
    assert value_of(found) == pytest.approx(share, abs=1e-9)


def test_a_resistance_that_no_share_has_is_none() -> None:
    assert share_at(WALL, 50.0) is None
    assert share_at(WALL, 0.1) is None
    assert share_at(replace(WALL, U_w=0.15, psi=0.0), 3.0) is None
    with pytest.raises(DomainError, match="lose nothing"):
        resistance_at(replace(WALL, H_other=-50.0), 0.2)
