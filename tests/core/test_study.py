"""The thickness study: the crossing is exact, and a point of the curve is the wall itself."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import BridgedMethod, Schools
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.quantities.sentence import in_units, quantity_text
from nimble_shell.core.studies.sweep import THICKEST
from nimble_shell.core.studies.thickness import crossing, thickness_study
from nimble_shell.core.thermal.figures import clear_wall_R, wall_figures
from nimble_shell.core.working import value_of

METHODS: tuple[BridgedMethod, ...] = ("parallel", "isothermal", "combined")


@given(st.sampled_from(sorted(SYSTEMS)), st.sampled_from(METHODS), st.floats(min_value=4.5, max_value=12))
def test_the_crossing_reaches_exactly_what_is_asked(system: str, method: BridgedMethod, asked: float) -> None:
    wall = SYSTEMS[system].assembly("w", "W")
    basis = Basis(schools=Schools(bridged=method))
    found, why = crossing(wall, CATALOGUE, basis, asked)
    assert why == ""
    assert found is not None
    there = wall.with_core(value_of(found))
    assert value_of(clear_wall_R(there, CATALOGUE, basis)) == pytest.approx(asked, rel=1e-10)


@given(
    st.sampled_from(sorted(SYSTEMS)), st.floats(min_value=0.06, max_value=0.4), st.floats(min_value=4.5, max_value=12)
)
def test_how_thick_the_core_is_now_is_no_part_of_the_question(system: str, now: float, asked: float) -> None:
    wall, basis = SYSTEMS[system].assembly("w", "W"), Basis()
    found, why = crossing(wall, CATALOGUE, basis, asked)
    dragged, why_dragged = crossing(wall.with_core(now), CATALOGUE, basis, asked)
    assert found is not None
    assert dragged is not None
    assert value_of(dragged) == pytest.approx(value_of(found), abs=1e-12)
    assert why_dragged == why


def test_another_layer_another_basis_and_another_target_are(sip: Assembly, basis: Basis) -> None:
    first = sip.layers[0]
    thicker = replace(sip, layers=(replace(first, d=4 * first.d), *sip.layers[1:]))
    parallel = Basis(schools=Schools(bridged="parallel"))
    cases = [(sip, basis, 5.0), (thicker, basis, 5.0), (sip, parallel, 5.0), (sip, basis, 6.0)]
    found = [crossing(wall, CATALOGUE, of, asked)[0] for wall, of, asked in cases]
    plain, less, other, more = (value_of(one) for one in found if one is not None)
    assert less < plain < more
    assert other != plain


@pytest.mark.parametrize("system", sorted(SYSTEMS))
def test_every_point_of_the_study_is_the_wall_at_that_thickness(system: str) -> None:
    wall = SYSTEMS[system].assembly("w", "W")
    basis = Basis()
    study = thickness_study(wall, CATALOGUE, basis, asked=5.0)
    assert wall.core_index == study.layer
    for point in (study.present, *study.stock, *study.curve[::6]):
        alone = wall_figures(wall.with_core(point.d), CATALOGUE, basis, "0").figures
        for key in ("R_nominal", "R_clear", "U_clear", "thickness", "weight", "cost", "carbon"):
            assert getattr(point, key) == pytest.approx(value_of(alone[key].number), rel=1e-9), key


def test_the_curve_rises_and_covers_stock_and_crossing(sip: Assembly, basis: Basis) -> None:
    study = thickness_study(sip, CATALOGUE, basis, asked=12.0)
    values = [point.R_clear for point in study.curve]
    assert values == sorted(values)
    assert study.d_asked is not None
    assert study.curve[0].d < min(point.d for point in study.stock)
    assert study.curve[-1].d > study.d_asked


def test_nothing_asked_has_no_crossing(sip: Assembly, basis: Basis) -> None:
    study = thickness_study(sip, CATALOGUE, basis, asked=None)
    assert (study.d_asked, study.why_not) == (None, "")


def test_a_target_out_of_reach_says_how_far(sip: Assembly, basis: Basis) -> None:
    found, why = crossing(sip, CATALOGUE, basis, 49.0)
    assert found is None
    assert quantity_text(THICKEST, "length", "SI") in why
    assert quantity_text(THICKEST, "length", "IP") in in_units(why, "IP")
    assert "mm" not in in_units(why, "IP")
    assert "short" in why


def test_a_target_already_met_by_the_rest_says_so(sip: Assembly, basis: Basis) -> None:
    found, why = crossing(sip, CATALOGUE, basis, 0.5)
    assert found is None
    assert "rest of the wall" in why


def test_no_core_and_an_uncounted_core_are_refused(sip: Assembly, basis: Basis) -> None:
    bare = Assembly(id="w", name="W", system="", layers=(Layer(id="1", material="osb", d=0.1),))
    cladding_as_core = Assembly(
        id="w",
        name="W",
        system="",
        layers=tuple(
            Layer(
                id=layer.id, material=layer.material, d=layer.d, air=layer.air, studied=layer.material == "larch-boards"
            )
            for layer in sip.layers
        ),
    )
    for wall in (bare, cladding_as_core):
        with pytest.raises(DomainError) as refused:
            thickness_study(wall, CATALOGUE, basis, asked=5.0)
        assert refused.value.issues[0].code == "no_core"
