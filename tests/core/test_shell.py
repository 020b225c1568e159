"""Basis, buildings and the ledger."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.indoor import CLASSES, Indoor
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.basis.site import Site
from nimble_shell.core.basis.targets import Targets
from nimble_shell.core.climate import MonthlyClimate, cold_continental, p_sat, theta_at_saturation
from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.ledger import NOT_COUNTED, shell_ledger
from nimble_shell.core.shell.project import Building, Project, ShellElement
from nimble_shell.core.working import value_of


def element(
    number: int, station: str, area: float, U: float | None = None, assembly: str | None = None
) -> ShellElement:
    return ShellElement(
        id=str(number), station=station, name=f"e{number}", area=area, U_entered=U, assembly_id=assembly
    )  # type: ignore[arg-type]


def year(theta: float = 5.0, phi: float = 0.8) -> MonthlyClimate:
    return MonthlyClimate(name="flat", source="", theta_e=(theta,) * 12, phi_e=(phi,) * 12)


@pytest.mark.parametrize(
    ("make", "code", "path"),
    [
        (lambda: year(phi=1.01), "humidity_out_of_range", ("phi_e", 0)),
        (lambda: year(phi=0.0), "humidity_out_of_range", ("phi_e", 0)),
        (lambda: year(theta=90.0), "temperature_not_on_earth", ("theta_e", 0)),
        (lambda: year(theta=float("nan")), "temperature_not_on_earth", ("theta_e", 0)),
        (lambda: MonthlyClimate(name="", source="", theta_e=(1.0,), phi_e=(0.5,) * 12), "not_twelve_months", ("theta_e",)),
        (lambda: Site(latitude=91), "latitude_out_of_range", ("latitude",)),
        (lambda: Site(theta_winter=30, theta_summer=-20), "seasons_swapped", ("theta_winter",)),
        (lambda: Indoor(phi_heating=1.2), "humidity_out_of_range", ("phi_heating",)),
        (lambda: Indoor(theta_cooling=99), "temperature_out_of_range", ("theta_cooling",)),
        (lambda: Targets(R_wall=-1), "target_out_of_range", ("R_wall",)),
        (lambda: Targets(f_rsi=1.5), "target_out_of_range", ("f_rsi",)),
        (lambda: Schools(label_mean=400), "temperature_out_of_range", ("label_mean",)),
        (lambda: element(1, "D", -5), "area_out_of_range", ("area",)),
        (lambda: element(1, "D", 5, U=-1), "transmittance_not_positive", ("U",)),
        (lambda: Building(id="b", name=""), "name_length", ("name",)),
        (lambda: Building(id="b", name="B", elements=(element(1, "D", 9), element(1, "B", 9))), "element_id_taken", ("elements",)),
        (lambda: Building(id="b", name="B", elements=(element(1, "D", 9), element(2, "E", 10))), "openings_exceed_walls", ("elements",)),
        (
            lambda: Project(id="p", name="P", basis=Basis(), buildings=(Building(id="b", name="B", elements=(element(1, "D", 9, assembly="x"),)),)),
            "unknown_assembly",
            ("buildings", 0, "elements", 0, "assembly_id"),
        ),
    ],
)  # fmt: skip
def test_what_no_site_has_is_refused(make: Callable[[], object], code: str, path: tuple[object, ...]) -> None:
    with pytest.raises(DomainError) as refused:
        make()
    assert (code, path) in [(issue.code, issue.path) for issue in refused.value.issues]


def test_a_refused_month_is_named() -> None:
    with pytest.raises(DomainError, match="March"):
        MonthlyClimate(name="", source="", theta_e=(0.0,) * 12, phi_e=(0.5, 0.5, 1.5, *(0.5,) * 9))


def test_a_condition_takes_the_indoor_regime_of_its_month() -> None:
    basis = Basis()
    january, july = condition(basis, "0"), condition(basis, "6")
    assert (january.theta_i, july.theta_i) == (basis.indoor.theta_heating, basis.indoor.theta_cooling)
    assert january.theta_e == basis.climate.theta_e[0]
    assert condition(basis, "winter").theta_e == basis.site.theta_winter
    assert condition(basis, "summer").phi_e == basis.climate.phi_e[6]


@pytest.mark.parametrize("key", ["12", "-1", "spring", "", "²"])
def test_a_moment_that_is_none_is_refused(key: str) -> None:
    with pytest.raises(DomainError) as refused:
        condition(Basis(), key)
    assert refused.value.issues[0].code == "unknown_condition"


def test_the_invented_climate_is_its_formula() -> None:
    climate = cold_continental()
    assert climate.coldest == 0
    assert climate.theta_e[0] == -8.1
    assert sum(climate.theta_e) / 12 == pytest.approx(6.4, abs=0.05)


@given(st.floats(min_value=-40, max_value=60))
def test_the_dew_point_of_saturated_air_is_its_temperature(theta: float) -> None:
    assert theta_at_saturation(value_of(p_sat(theta))) == pytest.approx(theta, abs=1e-9)


@given(st.floats(min_value=-40, max_value=59.9))
def test_saturation_rises_everywhere(theta: float) -> None:
    assert value_of(p_sat(theta + 0.1)) > value_of(p_sat(theta))


def test_openings_are_taken_off_the_walls_in_proportion() -> None:
    building = Building(
        id="b",
        name="B",
        elements=(
            element(1, "D", 100, 0.2),
            element(2, "D", 50, 0.3),
            element(3, "E", 30, 1.0),
            element(4, "B", 80, 0.1),
        ),
    )
    ledger = shell_ledger(building, {})
    assert [value_of(line.area) for line in ledger.lines] == pytest.approx([80, 40, 30, 80])
    assert ledger.H is not None
    assert value_of(ledger.H) == pytest.approx(80 * 0.2 + 40 * 0.3 + 30 + 8)
    assert ledger.R_effective is not None
    assert value_of(ledger.R_effective) == pytest.approx(230 / 66)


def test_what_is_not_known_is_named_and_never_counted_as_zero() -> None:
    building = Building(id="b", name="B", elements=(element(1, "D", 100), element(2, "B", 50, 0.2)))
    ledger = shell_ledger(building, {})
    assert ledger.missing == ("Wall: e1",)
    assert ledger.lines[0].H is None
    assert value_of(ledger.area) == 50
    assert ledger.not_counted == NOT_COUNTED
    assert "joints" in NOT_COUNTED[0]
    empty = shell_ledger(Building(id="b", name="B", elements=(element(1, "D", 100),)), {})
    assert empty.H is None
    assert empty.R_effective is None


@given(st.floats(min_value=0.05, max_value=2), st.floats(min_value=0.05, max_value=2))
def test_a_better_wall_never_loses_more(U_one: float, U_other: float) -> None:
    building = Building(id="b", name="B", elements=(element(1, "D", 100, assembly="w"), element(2, "B", 50, 0.2)))
    one, other = (shell_ledger(building, {"w": U}) for U in (U_one, U_other))
    assert one.H is not None
    assert other.H is not None
    assert one.R_effective is not None
    assert other.R_effective is not None
    assert (value_of(one.H) <= value_of(other.H)) == (U_one <= U_other)
    assert (value_of(one.R_effective) >= value_of(other.R_effective)) == (U_one <= U_other)


def test_a_room_follows_its_class_or_its_vapour_and_air() -> None:
    fixed = Indoor()
    assert fixed.in_month(-5.0, 0.8) == (20.0, 0.45)
    classes = [Indoor(regime=name).in_month(-5.0, 0.8)[1] for name in CLASSES]
    assert classes == sorted(classes)
    p_e, limit = 0.8 * value_of(p_sat(-5.0)), value_of(p_sat(20.0))
    assert classes[2] == pytest.approx((p_e + 810) / limit)
    half = Indoor(regime="class 3").in_month(10.0, 0.8)[1]
    assert half == pytest.approx((0.8 * value_of(p_sat(10.0)) + 405) / limit)
    # 6 kg a day into 90 m³ an hour: 2.78 g/m³ more than outside.
    wet = Indoor(regime="production").in_month(-5.0, 0.8)[1]
    excess = 6 / 24 / 90
    assert wet == pytest.approx((p_e / (461.5 * 268.15) + excess) * 461.5 * 293.15 / limit)
    assert Indoor(added=0.05).in_month(-5.0, 0.8)[1] == pytest.approx(0.50)
    assert Indoor(added=0.05).in_month(20.0, 0.6)[1] == 0.55  # not in warm months


def test_a_class_counts_with_the_standard_s_margin_where_the_basis_says_so_and_it_is_said() -> None:
    p_e, limit = 0.8 * value_of(p_sat(-5.0)), value_of(p_sat(20.0))
    for margin, factor in ((False, 1.0), (True, 1.1)):
        room = Indoor(regime="class 2", class_margin=margin)
        assert room.in_month(-5.0, 0.8)[1] == pytest.approx((p_e + factor * 540.0) / limit)
        assert f"Δp with{'' if margin else 'out'} the margin of 1.1" in room.humidity_from
    fixed = Indoor(class_margin=True)
    assert fixed.in_month(-5.0, 0.8) == Indoor().in_month(-5.0, 0.8)
    assert "margin" not in fixed.humidity_from


@pytest.mark.parametrize("change", [{"regime": "class 9"}, {"production": -1.0}, {"ventilation": 0.0}, {"added": 2.0}])
def test_a_regime_that_cannot_be_is_refused(change: dict[str, Any]) -> None:
    with pytest.raises(DomainError):
        Indoor(**change)
