"""Air: leaks and what a fan finds of them, a zone in balance, air for people."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from replaying import replay

from nimble_shell.core.airflow.balance import AirPath, Fan, Flue, Makeup, Zone, balance
from nimble_shell.core.airflow.density import density
from nimble_shell.core.airflow.fan_test import FanSet, fan_test
from nimble_shell.core.airflow.leakage import Infiltration, LeakItem, Leaky, leak_figures
from nimble_shell.core.airflow.ventilation import AirState, Mode, Ventilation, air_figures, room_air
from nimble_shell.core.errors import DomainError
from nimble_shell.core.working import derive, traced, value_of

HOUSE = Leaky(V=300.0, A_E=340.0, A_F=120.0, n=0.65,
              items=(LeakItem(id="sill", amount=44.0, unit="m", q=(0.05, 0.1, 0.2)),
                     LeakItem(id="windows", amount=8.0, unit="", q=(1.0, 2.5, 5.0))))  # fmt: skip
SET = FanSet(direction="depressurise", theta_i=20.0, theta_e=4.0, before=(-1.0,), after=(-0.6,),
             points=tuple((-0.8 - dp, 20.0 * dp**0.62 * (1 + 0.01 * (-1) ** n))
                          for n, dp in enumerate((11.0, 20.0, 30.0, 40.0, 50.0, 60.0))))  # fmt: skip
ROOM = Zone(theta_i=20.0, theta_e=-5.0, wind=3.0, fans=(Fan(id="hood", kind="extract", q=200.0),),
            paths=(AirPath(id="low", z=0.5, C=10.0, n=0.65, cp=0.4), AirPath(id="high", z=5.5, C=8.0, n=0.6, cp=-0.4)),
            flue=Flue(z=0.5, limit=4.0), makeup=Makeup(z=0.4))  # fmt: skip
AIR = Ventilation(persons=4.0, q_person=25.0, extract=(60.0, 40.0), n_min=0.3, V=300.0, eta_t=0.8, eta_x=0.4, q_inf=12.0,
                  sfp=0.4, theta_i=20.0, moisture=0.3,
                  modes=(Mode(share=0.5, factor=0.5), Mode(share=0.5, factor=1.0)))  # fmt: skip


# --- leakage ----------------------------------------------------------------------------------------------------


def test_leaks_add_up_and_the_largest_is_named() -> None:
    found = leak_figures(HOUSE)
    assert [value_of(one) for one in found.q50] == pytest.approx([10.2, 24.4, 48.8])
    assert found.largest == "windows"
    assert value_of(found.n50[1]) == pytest.approx(24.4 / 300)
    assert value_of(found.C[1]) * 50**0.65 == pytest.approx(24.4)


def test_fans_out_of_balance_keep_leaks_from_blowing() -> None:
    even = leak_figures(replace(HOUSE, infiltration=Infiltration(e=0.05)))
    assert value_of(even.q_inf[1]) == pytest.approx(24.4 / 20)
    drawn = leak_figures(replace(HOUSE, infiltration=Infiltration(e=0.05, q_extract=40.0)))
    assert value_of(drawn.q_inf[1]) < value_of(even.q_inf[1]) / 10
    tight = leak_figures(replace(HOUSE, items=()))
    assert tight.largest is None
    assert [value_of(one) for one in tight.q_inf] == [0, 0, 0]


def test_three_values_rise_or_are_refused() -> None:
    with pytest.raises(DomainError, match="do not rise"):
        leak_figures(replace(HOUSE, items=(LeakItem(id="sill", amount=1.0, unit="m", q=(1.0, 0.5, 2.0)),)))


# --- the fan in the door ----------------------------------------------------------------------------------------


@given(st.floats(1.0, 400.0), st.floats(0.5, 1.0), st.floats(-15.0, 30.0))
def test_readings_on_a_power_law_give_it_back(C: float, n: float, theta_e: float) -> None:
    ratio = value_of(density(theta_e)) / value_of(density(20.0))
    points = tuple((dp, C * dp**n / ratio) for dp in (12.0, 25.0, 40.0, 55.0, 61.0))
    line = fan_test([FanSet(direction="pressurise", theta_i=20.0, theta_e=20.0 if theta_e == 20 else theta_e, before=(0.0,),
                            after=(0.0,), points=tuple((dp, q * ratio * ratio) for dp, q in points))], 1.0, 1.0, 1.0).sets[0]  # fmt: skip
    assert value_of(line.n) == pytest.approx(n, abs=1e-9)
    assert value_of(line.n_95[1]) - value_of(line.n_95[0]) < 1e-6
    assert line.r2 == pytest.approx(1.0)


def test_the_range_holds_the_line_and_widens_with_scatter() -> None:
    line = fan_test([SET], 300.0, 340.0, 120.0).sets[0]
    low, high = (value_of(one) for one in line.q50_95)
    assert low < value_of(line.q50) < high
    calm = replace(SET, points=tuple((dp, q / (1 + 0.01 * (-1) ** n)) for n, (dp, q) in enumerate(SET.points)))
    still = fan_test([calm], 300.0, 340.0, 120.0).sets[0]
    assert value_of(still.q50_95[1]) - value_of(still.q50_95[0]) < 1e-6 * (high - low)


@pytest.mark.parametrize(
    ("change", "remark"),
    [
        ({"before": (-7.0, -5.5)}, "baseline"),
        ({"points": ((-3.0, 30.0), (-20.8, 120.0), (-30.8, 160.0), (-40.8, 190.0), (-60.8, 240.0))}, "low_point"),
        ({"points": SET.points[:4]}, "points"),
        ({"points": (*SET.points[:4], (-45.8, 214.0))}, "range"),
        ({"points": tuple((dp, q**0.5) for dp, q in SET.points)}, "exponent"),
        ({"points": tuple((dp, q * (1.4 if n % 2 else 0.6)) for n, (dp, q) in enumerate(SET.points))}, "r2"),
    ],
)
def test_a_weak_test_says_why(change: dict[str, object], remark: str) -> None:
    line = fan_test([replace(SET, **change)], 300.0, 340.0, 120.0).sets[0]  # type: ignore[arg-type]  # of any field
    assert remark in line.remarks
    assert list(line.remarks) == sorted(line.remarks)


def test_a_point_on_the_wrong_side_is_told_by_its_place() -> None:
    wrong = replace(SET, points=(*SET.points[:2], (12.0, 90.0), *SET.points[2:]))
    with pytest.raises(DomainError) as refused:
        fan_test([SET, wrong], 300.0, 340.0, 120.0)
    assert [one.path for one in refused.value.issues] == [("sets", 1, "points", 2)]
    for points in (SET.points[:2], SET.points[:1] * 4):
        with pytest.raises(DomainError):
            fan_test([replace(SET, points=points)], 300.0, 340.0, 120.0)


# --- balance ----------------------------------------------------------------------------------------------------


@settings(max_examples=60)
@given(
    st.lists(st.tuples(st.floats(0, 12), st.floats(0.01, 80), st.floats(0.5, 1), st.floats(-1, 1)), min_size=1, max_size=6),
    st.floats(-30, 45), st.floats(0, 20), st.floats(0, 900), st.floats(0, 900),
)  # fmt: skip
def test_as_much_air_comes_in_as_goes_out(
    paths: list[tuple[float, float, float, float]], theta_e: float, wind: float, supply: float, extract: float
) -> None:
    zone = Zone(theta_i=20.0, theta_e=theta_e, wind=wind,
                paths=tuple(AirPath(id=str(n), z=z, C=C, n=exponent, cp=cp) for n, (z, C, exponent, cp) in enumerate(paths)),
                fans=(Fan(id="in", kind="supply", q=supply), Fan(id="out", kind="extract", q=extract)))  # fmt: skip
    flows = [value_of(one) for one in balance(zone).flows.values()]
    moved = value_of(density(theta_e)) * supply / 3600 - value_of(density(20.0)) * extract / 3600
    scale = sum(map(abs, flows)) + supply + extract
    assert sum(flows) + moved == pytest.approx(0.0, abs=1e-9 * max(scale, 1e-3))


@pytest.mark.parametrize("extract", [0.0, 4e-226])
def test_no_air_moves_through_one_path_alone(extract: float) -> None:
    """Exactly none: its flow goes with the root of the difference, so that any slip there would show."""
    zone = Zone(theta_i=20.0, theta_e=0.0, wind=0.0, paths=(AirPath(id="0", z=0.0, C=1.0, n=0.5, cp=0.0),),
                fans=(Fan(id="out", kind="extract", q=extract),))  # fmt: skip
    assert [value_of(one) for one in balance(zone).flows.values()] == [0.0]


def test_warm_air_leaves_at_the_top() -> None:
    still = balance(replace(ROOM, wind=0.0, fans=(), flue=None, makeup=None))
    assert value_of(still.flows["low"]) > 0 > value_of(still.flows["high"])
    assert still.neutral_z is not None
    assert 0.5 < value_of(still.neutral_z) < 5.5
    assert balance(replace(ROOM, theta_e=20.0)).neutral_z is None


def test_the_allowed_extract_keeps_the_limit_and_so_does_the_opening() -> None:
    found = balance(ROOM).draught
    assert found is not None
    assert not found.ok
    allowed = value_of(found.allowed_extract)
    at_limit = balance(replace(ROOM, fans=(Fan(id="hood", kind="extract", q=allowed),))).draught
    assert at_limit is not None
    assert value_of(at_limit.depressurisation) == pytest.approx(4.0, abs=1e-6)
    assert found.makeup_A is not None
    area = value_of(found.makeup_A)
    opening = AirPath(id="opening", z=0.4, C=3600 * 0.6 * area * (2 / value_of(density(-5.0))) ** 0.5, n=0.5)
    opened = balance(replace(ROOM, paths=(*ROOM.paths, opening))).draught
    assert opened is not None
    assert value_of(opened.depressurisation) == pytest.approx(4.0, abs=1e-6)


def test_leaks_that_bring_enough_need_no_opening_and_some_cannot_help() -> None:
    wide = replace(ROOM, paths=tuple(replace(one, C=500.0) for one in ROOM.paths), flue=Flue(z=0.5, limit=8.0))
    found = balance(wide).draught
    assert found is not None
    assert found.ok
    assert found.makeup_A == 0
    high = balance(replace(ROOM, makeup=Makeup(z=60.0))).draught
    assert high is not None
    assert high.makeup_A is None
    with pytest.raises(DomainError, match="no path"):
        balance(replace(ROOM, paths=()))


# --- ventilation ------------------------------------------------------------------------------------------------


def test_the_greatest_need_governs() -> None:
    assert air_figures(AIR).governing == "persons"
    assert air_figures(replace(AIR, extract=(90.0, 60.0))).governing == "extract"
    assert air_figures(replace(AIR, n_min=0.6)).governing == "minimum"
    given_air = air_figures(replace(AIR, q_mech=200.0))
    assert value_of(given_air.q_mean) == pytest.approx(150.0)
    with pytest.raises(DomainError, match="how much air"):
        air_figures(Ventilation())
    with pytest.raises(DomainError, match="shares"):
        air_figures(replace(AIR, modes=(Mode(share=0.5, factor=1.0),)))


def test_recovery_saves_its_share_and_fans_cost_the_cube() -> None:
    found = air_figures(AIR)
    assert value_of(found.saved) == pytest.approx(0.8 * value_of(found.q_mean) / 3)
    assert value_of(found.fan_W or 0.0) == pytest.approx(100 * 0.4 * (0.5 * 0.125 + 0.5))


@given(st.floats(-20.0, 30.0), st.floats(0.0, 1.0), st.floats(0.0, 0.95))
def test_the_room_is_as_damp_as_its_balance(theta_e: float, phi_e: float, eta_x: float) -> None:
    air = replace(AIR, eta_x=eta_x)
    moved = air_figures(air).q_mean
    room = room_air(air, moved, [AirState(theta_e=theta_e, phi_e=phi_e)])[0]
    carried = 1.2 * (value_of(moved) * (1 - eta_x) + air.q_inf) * (value_of(room.x_i) - value_of(room.x_e))
    assert carried == pytest.approx(air.moisture)
    assert room.dew_point is not None
    if value_of(room.phi_i) < 1:
        assert value_of(room.dew_point) < 20.0


def test_moisture_that_nothing_carries_away_is_refused() -> None:
    shut = replace(AIR, eta_x=1.0, q_inf=0.0)
    for air in (shut, replace(AIR, theta_i=None)):
        with pytest.raises(DomainError):
            room_air(air, air_figures(air).q_mean, [AirState(theta_e=0.0, phi_e=0.8)])
    dry = room_air(replace(AIR, moisture=0.0), 100.0, [AirState(theta_e=0.0, phi_e=0.0)])[0]
    assert dry.dew_point is None


# --- working ----------------------------------------------------------------------------------------------------


def test_every_figure_opens_to_a_working_that_gives_it() -> None:
    leaks, tests, zone, air = (leak_figures(HOUSE, traced), fan_test([SET], 300.0, 340.0, 120.0, given=traced),
                               balance(ROOM, traced), air_figures(AIR, traced))  # fmt: skip
    room = room_air(AIR, air.q_mean, [AirState(theta_e=-5.0, phi_e=0.8)], traced)[0]
    draught = zone.draught
    assert draught is not None
    shown = [*leaks.q50, *leaks.n50, *leaks.ELA4, *leaks.q_inf, tests.q50, tests.n50, tests.ELA4, *tests.sets[0].q50_95,
             zone.p_int, zone.neutral_z, *zone.flows.values(), zone.q_in, draught.depressurisation, draught.allowed_extract,
             draught.makeup_A, air.q_required, air.H_ve, air.saved, air.fan_W, room.phi_i, room.dew_point,
             room.theta_supply]  # fmt: skip
    for one in shown:
        assert one is not None
        assert replay(derive(one)) == pytest.approx(value_of(one))
