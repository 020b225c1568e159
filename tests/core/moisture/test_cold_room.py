"""Rooms of buildings, heat that flows inwards, the ground below a floor, and what gathers slowly."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from nimble_shell.core.basis.damp import DampLimits
from nimble_shell.core.basis.stations import Station, direction_at
from nimble_shell.core.climate.saturation import p_sat
from nimble_shell.core.moisture.monthly.condensation import Month
from nimble_shell.core.moisture.monthly.element import ElementYear, below_floor, element_year, months_of
from nimble_shell.core.moisture.monthly.surface import f_rsi_required, outer_factor_required, surface_limit
from nimble_shell.core.moisture.verdict.verdict import changes, inwards_of, judge_alone, judged, sheet_of
from nimble_shell.core.shell.project import Project
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus

CAMPUS = campus()
STORE = CAMPUS.within("sample-cold-store")
ASSEMBLIES = {one.id: one for one in CAMPUS.assemblies}


def found(project: Project, assembly: str, station: Station = "D") -> ElementYear:
    direction = direction_at(station)
    return element_year(ASSEMBLIES[assembly], project.catalogue, project.basis, direction)


def test_a_building_has_its_own_room_or_that_of_the_basis() -> None:
    assert STORE.basis.indoor.theta_heating == -5.0
    assert STORE.basis.climate == CAMPUS.basis.climate
    assert CAMPUS.within("main-laboratory") is CAMPUS
    assert CAMPUS.within("nowhere") is CAMPUS


def test_the_outer_surface_is_asked_for_where_heat_flows_inwards() -> None:
    month = Month(theta_e=20.0, phi_e=0.7, theta_i=-5.0, phi_i=0.8)
    asked = outer_factor_required(month)
    assert asked is not None
    surface = month.theta_i + asked * (month.theta_e - month.theta_i)
    assert value_of(p_sat(surface)) == pytest.approx(0.7 * value_of(p_sat(20.0)), rel=1e-6)
    assert f_rsi_required(month) is None
    assert outer_factor_required(replace(month, theta_e=-20.0)) is None


def test_a_thin_skin_of_a_cold_room_is_wet_outside_and_a_thick_one_is_not() -> None:
    wall = ASSEMBLIES["wall-w-d"]
    core = wall.core_index
    assert core is not None
    thin = replace(
        wall, layers=tuple(replace(one, d=0.006) if at == core else one for at, one in enumerate(wall.layers))
    )
    bare = element_year(thin, STORE.catalogue, STORE.basis)
    assert not bare.outer_passes
    assert judged(bare) == "outer surface"
    assert found(STORE, "wall-w-d").outer_passes


def test_a_room_that_freezes_is_asked_for_frost_and_not_for_mould() -> None:
    cold, warm = (Month(theta_e=-15.0, phi_e=0.8, theta_i=theta, phi_i=0.8) for theta in (-5.0, 5.0))
    assert surface_limit(cold) == 1.0
    assert surface_limit(warm) == 0.8
    asked = f_rsi_required(cold)
    assert asked is not None
    surface = -15.0 + asked * 10.0
    assert value_of(p_sat(surface)) == pytest.approx(0.8 * value_of(p_sat(-5.0)), rel=1e-6)


def test_the_ground_swings_less_later_about_the_same_mean() -> None:
    air = np.array(CAMPUS.basis.climate.theta_e)
    ground = np.array(below_floor(CAMPUS.basis.climate.theta_e))
    assert ground.mean() == pytest.approx(air.mean())
    assert np.ptp(ground) == pytest.approx(0.25 * np.ptp(air))
    assert np.argmin(ground) == (np.argmin(air) + 1) % 12
    assert {month.phi_e for month in months_of(CAMPUS.basis, "ground")} == {0.99}


def test_vapour_control_on_the_cold_side_of_a_cold_slab_is_found_and_moved() -> None:
    year = found(STORE, "slab-s-d", "H")
    assert year.verdict == "gathers"
    assert found(CAMPUS, "slab-s-d", "H").verdict == "dry"
    slab = ASSEMBLIES["slab-s-d"]
    core = slab.core_index
    assert core is not None
    assert inwards_of(slab, STORE.basis)
    assert judge_alone(slab, STORE.catalogue, STORE.basis, "down").phi_fails == 0.0  # whatever the room
    kind, layer, _, steps = changes(slab, STORE.catalogue, inwards=True)[0]
    assert (kind, layer) == ("vapour", core + 1)
    passing = [
        sd for sd, changed in steps
        if not judged(element_year(changed, {**STORE.catalogue, **sheet_of(sd)}, STORE.basis, "down"))
    ]  # fmt: skip
    assert passing
    assert 1.0 not in passing


def test_what_gathers_slowly_passes_until_the_years_that_count_bring_it_to_its_limit() -> None:
    slow = found(STORE, "wall-w-d")
    assert slow.verdict == "slowly"
    assert not slow.year.dries
    worst = max(slow.wet, key=lambda one: one.left)
    years = (worst.limit - worst.peak) / worst.left + 1
    for factor, word in ((0.99, "slowly"), (1.01, "gathers")):
        damp = DampLimits(years=factor * years)
        basis = replace(STORE.basis, damp=damp)
        assert element_year(ASSEMBLIES["wall-w-d"], STORE.catalogue, basis).verdict == word
