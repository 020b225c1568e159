"""Films go by the way the heat flows: up through roofs, but down where the room is the colder side."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.flow import direction_in, flows_inwards
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.joints.bound import section_of
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.stack import stack_of
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.studies.sweep import Sweep
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.bench import consequence
from nimble_shell.services.joints import drawn

CAMPUS = campus()
STORE = CAMPUS.within("sample-cold-store")
ROOF = next(one for one in CAMPUS.assemblies if one.id == "roof-r-d")
#: The same foam in every season, so that films alone move R.
PLAIN = {key: replace(one, lambda_T=()) for key, one in CATALOGUE.items()}


def R(basis: Basis, season: str, direction: str) -> float:
    bare = replace(ROOF, fixings=())
    found = wall_figures(bare, PLAIN, basis, "winter", direction=direction)  # type: ignore[arg-type]
    return value_of(found.figures[f"R_{season}"].number)


def test_a_cold_store_s_heat_flows_down_through_its_roof_and_up_through_its_floor() -> None:
    assert flows_inwards(STORE.basis)
    assert not flows_inwards(CAMPUS.basis)
    assert [direction_in(STORE.basis, at) for at in ("B", "D", "H")] == ["down", "horizontal", "up"]
    assert [direction_in(CAMPUS.basis, at) for at in ("B", "D", "H")] == ["up", "horizontal", "down"]


def test_a_season_takes_the_films_of_its_own_flow() -> None:
    warm = replace(CAMPUS.basis, site=replace(CAMPUS.basis.site, theta_summer=35.0))
    mild = replace(CAMPUS.basis, site=replace(CAMPUS.basis.site, theta_summer=20.0))
    assert condition(warm, "summer").theta_i < 35.0
    assert R(warm, "summer", "up") == pytest.approx(R(warm, "winter", "up") + 0.07)
    assert R(mild, "summer", "up") == pytest.approx(R(mild, "winter", "up"))
    # In the store winter may be colder outside than the room: then alone heat flows up.
    store = replace(STORE.basis, site=replace(STORE.basis.site, theta_winter=-20.0))
    assert R(store, "summer", "down") == pytest.approx(R(store, "winter", "down") + 0.07)


def test_a_sweep_of_a_season_is_the_single_wall() -> None:
    warm = replace(CAMPUS.basis, site=replace(CAMPUS.basis.site, theta_summer=35.0))
    sweep = Sweep(ROOF, CATALOGUE, warm, "up")
    d = ROOF.layers[ROOF.core_index or 0].d
    swept = sweep.season(np.array([d]), "summer").nominal
    alone = wall_figures(ROOF, CATALOGUE, warm, "winter", direction="up").figures["R_summer"].number
    assert float(np.asarray(swept)[0]) == pytest.approx(value_of(alone), rel=1e-9)


def test_the_ledger_and_the_joints_of_a_cold_store_have_the_same_films() -> None:
    building = next(one for one in CAMPUS.buildings if one.id == "sample-cold-store")
    line = next(one for one in consequence(CAMPUS, None, building.id).now.ledger.lines if one.station == "B")
    figures = wall_figures(ROOF, CAMPUS.catalogue, STORE.basis, "winter", direction="down").figures
    assert line.U is not None
    assert value_of(line.U) == pytest.approx(value_of(figures["U_clear"].number))
    assert all(drawn(STORE, joint).drawing.inwards for joint in building.joints)


def test_a_ceiling_of_a_joint_has_the_film_of_heat_that_comes_down() -> None:
    stacks = {"roof": stack_of(ROOF, CATALOGUE, Basis(schools=Schools()), "up")}
    ridge = FAMILIES["ridge"].drawing("panel to panel", stacks, CATALOGUE)  # type: ignore[arg-type]
    T = {"inside": 20.0, "outside": 0.0}
    for inwards, R_si in ((False, 0.10), (True, 0.17)):
        section = section_of(replace(ridge, inwards=inwards), T, "iso6946")
        assert {one.R_s for one in section.segments if one.env == "inside"} == {R_si}
