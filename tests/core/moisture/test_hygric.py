"""Sorption, liquid and vapour curves of the catalogue, and weather, sun and mould by published points."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.site import Site
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.core.materials.derived import Hygric, hygric_of, mould_class
from nimble_shell.core.moisture.hourly.hygric import liquid, phi_of, sorption, stuff_of
from nimble_shell.core.moisture.hourly.mould import CLASSES, critical_humidity, mould_index
from nimble_shell.core.moisture.hourly.outdoors import Exposure, outdoors, saturation, sun_on


@pytest.mark.parametrize("key", list(CATALOGUE))
def test_every_material_of_the_catalogue_has_curves_that_rise(key: str) -> None:
    stuff, note = stuff_of(CATALOGUE[key], 0.02)
    assert not note
    assert stuff.sorption is not None
    phis, ws = zip(*stuff.sorption, strict=True)
    assert list(phis) == sorted(phis)
    assert list(ws) == sorted(ws)
    assert ws[0] == 0
    assert all(mu > 0 for _, mu in stuff.mu)


def test_a_curve_goes_through_its_three_points() -> None:
    one = Hygric(w80=75, w_f=420, A=0.004)
    curve = sorption(one)
    assert dict(curve)[0.8] == pytest.approx(75)
    assert dict(curve)[1.0] == pytest.approx(420)
    assert phi_of(curve, 75) == pytest.approx(0.8)
    assert phi_of(curve, 1e4) == 1
    flows = liquid(one)
    assert flows is not None
    assert flows[1][1] == pytest.approx(3.8 * (0.004 / 420) ** 2)
    assert flows[1][1] / flows[0][1] == pytest.approx(1000)
    assert liquid(replace(one, A=0.0)) is None


def test_a_material_without_data_is_derived_and_says_so() -> None:
    own = Material(key="own", name="Own spruce", family="timber", hatch="timber", lambda_=0.12, rho=450, c=1600)
    found, note = hygric_of(own)
    assert found is not None
    assert found.w80 == pytest.approx(0.15 * own.rho)
    assert "derived from its density" in note
    strange = replace(own, family="felt")
    assert hygric_of(strange)[0] is None
    assert "taken not to store" in hygric_of(strange)[1]
    assert hygric_of(CATALOGUE["steel"]) == (None, "")


def test_fresh_water_lies_above_what_air_leaves_and_below_saturation() -> None:
    wet = [material for material in CATALOGUE.values() if material.w_fresh]
    assert len(wet) == 10
    for material in wet:
        one, _ = hygric_of(material)
        assert one is not None
        assert one.w80 < material.w_fresh < one.w_f


def test_the_hours_have_the_months_of_the_basis_on_both_sides() -> None:
    basis = Basis()
    found = outdoors(basis, Exposure(absorptance=0.0, tilt=180), 0.04)
    ends = np.cumsum([0, 31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]) * 24
    for month in range(12):
        hours = slice(ends[month], ends[month + 1])
        assert found.theta_air[hours].mean() == pytest.approx(basis.climate.theta_e[month], abs=0.01)
    assert found.theta_e == pytest.approx(found.theta_air)  # looks down, sees no sky, takes no sun
    assert (found.p_e <= saturation(found.theta_air)).all()
    assert (found.p_i <= saturation(found.theta_i)).all()


def test_the_sun_stands_where_it_does() -> None:
    basis = Basis(site=Site(latitude=46))
    walls = {facing: sun_on(basis, Exposure(azimuth=facing)).sum() / 1000 for facing in (0.0, 90.0, 180.0, 270.0)}
    assert walls[180.0] > walls[90.0] > walls[0.0]
    assert walls[90.0] == pytest.approx(walls[270.0], rel=0.01)
    flat = sun_on(basis, Exposure(tilt=0))
    assert 1000 < flat.sum() / 1000 < 1700
    assert flat[0] == 0  # at night
    assert flat.argmax() % 24 in (11, 12)
    south = Basis(site=Site(latitude=-46))
    assert sun_on(south, Exposure(azimuth=0)).sum() > sun_on(south, Exposure(azimuth=180)).sum()
    # The same plane, said twice.
    assert sun_on(basis, Exposure(tilt=0, azimuth=0)) == pytest.approx(sun_on(basis, Exposure(tilt=0, azimuth=90)))


def test_a_dark_surface_is_warmer_by_day_and_every_one_colder_by_night() -> None:
    dark, light = (outdoors(Basis(), Exposure(tilt=0, absorptance=a), 0.04) for a in (0.9, 0.2))
    assert (dark.theta_e >= light.theta_e).all()
    night = dark.sun == 0
    assert (dark.theta_e[night] < dark.theta_air[night]).all()
    wet = outdoors(Basis(), Exposure(rain=120.0), 0.04)
    assert wet.rain.sum() * 3600 == pytest.approx(120.0)


@pytest.mark.parametrize("change", [{"azimuth": -1.0}, {"tilt": 200.0}, {"absorptance": 1.5}, {"rain": -1.0}])
def test_an_exposure_out_of_range_is_refused(change: dict[str, float]) -> None:
    with pytest.raises(DomainError):
        Exposure(**change)


def test_mould_on_pine_takes_the_time_it_takes() -> None:
    # At 20 °C and 97 % the first growth (index 1) is there after exp(−0.68 ln T − 13.9 ln RH + 66.02) weeks.
    weeks = float(np.exp(-0.68 * np.log(20) - 13.9 * np.log(97) + 66.02))
    hours = int(7 * 24 * weeks * 1.2)
    still = np.full((hours, 1), 20.0), np.full((hours, 1), 0.97)
    index = mould_index(*still, ["very sensitive"])[:, 0]
    assert index[int(7 * 24 * weeks) - 1] == pytest.approx(1.0, rel=0.03)
    assert (np.diff(index) > 0).all()
    slower = mould_index(*still, ["medium resistant"])[:, 0]
    sawn, moderate, dried = (
        mould_index(*still, ["sensitive"], surface=one)[:, 0] for one in ("sawn", "moderate", "kiln dried")
    )
    grown = (sawn > 0) & (dried < 0.5)  # far from its end, growth is in the ratio of the rates
    assert dried[grown] / sawn[grown] == pytest.approx(np.exp(0.33), rel=0.02)
    assert np.all((moderate >= sawn) & (dried >= moderate))
    assert slower[-1] < 0.2 * index[-1]


def test_the_index_stops_at_what_the_humidity_allows_and_nothing_grows_below_the_critical_one() -> None:
    hours = 24 * 365 * 3
    moist = mould_index(np.full((hours, 1), 20.0), np.full((hours, 1), 0.90), ["very sensitive"])[:, 0]
    over = (80 - 90) / (80 - 100)
    assert moist[-1] == pytest.approx(1 + 7 * over - 2 * over**2, rel=0.05)
    for theta, phi in ((20.0, 0.79), (-5.0, 0.99), (60.0, 0.99)):
        still = mould_index(np.full((500, 1), theta), np.full((500, 1), phi), ["very sensitive"])
        assert still.max() == 0
    assert critical_humidity(np.array([0.0]), CLASSES["sensitive"])[0] == pytest.approx(100)
    assert critical_humidity(np.array([20.0, 30.0]), CLASSES["resistant"]).tolist() == [85.0, 85.0]


def test_the_clock_of_decline_begins_anew_after_an_hour_of_growth() -> None:
    theta = np.full((60, 1), 20.0)
    dry = np.full((60, 1), 0.5)
    index = mould_index(theta, dry, ["very sensitive"], start=3.0)[:, 0]
    assert index[5] == pytest.approx(3 - 6 * 0.00133)
    assert index[23] == pytest.approx(index[5])  # from the sixth hour to a day nothing
    assert index[24] == pytest.approx(index[5] - 0.000667)
    dry[30] = 0.99
    again = mould_index(theta, dry, ["very sensitive"], start=3.0)[:, 0]
    assert again[36] == pytest.approx(again[30] - 6 * 0.00133)
    over = mould_index(theta, np.full((60, 1), 1.3), ["very sensitive"])  # above saturation counts as saturation
    assert over == pytest.approx(mould_index(theta, np.full((60, 1), 1.0), ["very sensitive"]))


def test_classes_follow_what_a_surface_is_made_of() -> None:
    kinds = {key: mould_class(CATALOGUE[key]) for key in ("softwood", "osb", "concrete", "steel", "mineral-wool-035")}
    assert kinds == {"softwood": "very sensitive", "osb": "sensitive", "concrete": "medium resistant",
                     "steel": "resistant", "mineral-wool-035": "medium resistant"}  # fmt: skip
