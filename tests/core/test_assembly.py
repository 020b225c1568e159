"""What a designer may and may not put together, and what the physics sees of it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer, Member
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.schools import Schools
from nimble_shell.core.climate import p_sat
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.thermal.figures import clear_wall_R, wall_figures
from nimble_shell.core.thermal.resolve import resolve
from nimble_shell.core.thermal.section import surroundings
from nimble_shell.core.working import value_of


def layer(number: int, material: str, d: float, **more: object) -> Layer:
    return Layer(id=f"l{number}", material=material, d=d, **more)  # type: ignore[arg-type]


def air(number: int, d: float, ventilation: str = "unventilated", A_v: float = 1000e-6) -> Layer:
    return Layer(id=f"l{number}", d=d, air=AirGap(ventilation=ventilation, A_v=A_v))  # type: ignore[arg-type]


def wall(*layers: Layer) -> Assembly:
    return Assembly(id="w", name="Wall", system="", layers=layers)


def R(assembly: Assembly, basis: Basis | None = None) -> float:
    return value_of(clear_wall_R(assembly, CATALOGUE, basis or Basis()))


def figure(assembly: Assembly, key: str, basis: Basis | None = None) -> float:
    return value_of(wall_figures(assembly, CATALOGUE, basis or Basis(), "0").figures[key].number)


@pytest.mark.parametrize(
    ("make", "code"),
    [
        (lambda: layer(1, "osb", 0.0), "thickness_not_positive"),
        (lambda: layer(1, "osb", -0.011), "thickness_not_positive"),
        (lambda: layer(1, "osb", 3.1), "thickness_too_large"),
        (lambda: layer(1, "", 0.1), "material_unclear"),
        (lambda: Layer(id="1", material="osb", d=0.1, air=AirGap()), "material_unclear"),
        (lambda: layer(1, "osb", 0.1, lambda_entered=0.0), "conductivity_not_positive"),
        (lambda: Member(name="m", material="softwood"), "member_unclear"),
        (lambda: Member(name="m", material="softwood", share=0.1, width=0.1, centres=1.0), "member_unclear"),
        (lambda: Member(name="m", material="softwood", width=0.1), "member_unclear"),
        (lambda: Member(name="m", material="softwood", share=1.2), "share_out_of_range"),
        (lambda: Member(name="m", material="softwood", share=0.0), "share_out_of_range"),
        (lambda: Member(name="m", material="softwood", width=0.6, centres=0.5), "centres_out_of_range"),
        (lambda: Member(name="m", material="softwood", width=-0.1, centres=0.5), "width_out_of_range"),
        (lambda: AirGap(ventilation="slightly", A_v=400e-6), "openings_out_of_range"),
        (lambda: wall(), "no_layers"),
        (lambda: wall(layer(1, "osb", 0.01), layer(1, "osb", 0.01)), "layer_id_taken"),
        (lambda: wall(layer(1, "osb", 0.01, studied=True), layer(2, "osb", 0.01, studied=True)), "two_cores"),
        (lambda: replace(wall(layer(1, "osb", 0.01)), name="  "), "name_length"),
        (lambda: wall(*(layer(n, "osb", 0.01) for n in range(61))), "too_many_layers"),
        (
            lambda: layer(1, "osb", 0.1, members=tuple(Member(name=n, material="lvl", share=0.6) for n in "ab")),
            "shares_not_whole",
        ),
    ],
)  # fmt: skip
def test_what_cannot_be_built_is_refused(make: Callable[[], object], code: str) -> None:
    with pytest.raises(DomainError) as refused:
        make()
    assert code in {issue.code for issue in refused.value.issues}


def test_unknown_materials_are_all_named() -> None:
    odd = wall(layer(1, "unobtainium", 0.1), layer(2, "osb", 0.1, members=(Member(name="m", material="x", share=0.1),)))
    with pytest.raises(DomainError) as refused:
        R(odd)
    assert [issue.path for issue in refused.value.issues] == [
        ("layers", 0, "material"),
        ("layers", 1, "members", 0, "material"),
    ]


def test_a_well_ventilated_gap_ends_the_wall_thermally() -> None:
    inner = (layer(1, "gypsum-board", 0.0125), layer(2, "eps-035", 0.2))
    vented = wall(*inner, air(3, 0.04, "well"), layer(4, "brick", 0.1))
    still = 0.13 + 0.0125 / 0.25 + 0.2 / 0.035 + 0.13
    assert R(vented) == pytest.approx(still, rel=1e-12)
    assert wall_figures(vented, CATALOGUE, Basis(), "0").counted == 2


@given(st.sampled_from(["brick", "mineral-wool-035", "osb"]), st.floats(min_value=0.01, max_value=0.2))
def test_nothing_outside_of_a_ventilated_gap_changes_U_nor_does_U_rise_with_a_layer_inside_of_it(
    material: str, d: float
) -> None:
    base = (layer(1, "gypsum-board", 0.0125), layer(2, "eps-035", 0.2))
    vented = wall(*base, air(3, 0.04, "well"), layer(4, "brick", 0.1))
    more_outside = wall(*base, air(3, 0.04, "well"), layer(4, "brick", 0.1), layer(5, material, d))
    more_inside = wall(*base, layer(5, material, d), air(3, 0.04, "well"), layer(4, "brick", 0.1))
    assert R(more_outside) == R(vented)
    assert 1 / R(more_inside) < 1 / R(vented)


@given(st.floats(min_value=500.5e-6, max_value=1499.5e-6))
def test_a_slightly_ventilated_layer_lies_between_still_and_open(A_v: float) -> None:
    def of(gap: Layer) -> float:
        return R(wall(layer(1, "gypsum-board", 0.0125), layer(2, "eps-035", 0.1), gap, layer(4, "brick", 0.1)))

    still, opened, slight = of(air(3, 0.04)), of(air(3, 0.04, "well")), of(air(3, 0.04, "slightly", A_v))
    share = (A_v - 500e-6) / 1000e-6
    assert slight == pytest.approx(share * opened + (1 - share) * still, rel=1e-12)


def test_a_wall_open_on_the_inside_is_refused() -> None:
    with pytest.raises(DomainError) as refused:
        R(wall(air(1, 0.04, "well"), layer(2, "brick", 0.1)))
    assert refused.value.issues[0].code == "nothing_inside"


def test_vertical_members_stand_between_horizontal_ones() -> None:
    members = (
        Member(name="stud", material="softwood", width=0.05, centres=0.5),
        Member(name="plate", material="softwood", run="horizontal", width=0.3, centres=3.0),
    )
    shares = layer(1, "eps-035", 0.1, members=members).shares()
    assert shares == pytest.approx((0.1 * 0.9, 0.1))


def test_a_foil_face_makes_the_void_worth_more() -> None:
    def of(material: str) -> float:
        return R(
            wall(layer(1, "gypsum-board", 0.0125), air(2, 0.025), layer(3, material, 0.0005), layer(4, "osb", 0.01))
        )

    assert of("vapour-foil") > of("vapour-sheet") + 0.2


def test_an_entered_conductivity_replaces_the_label_and_bends_the_table() -> None:
    known = wall(layer(1, "eps-035", 0.2))
    entered = wall(layer(1, "eps-035", 0.2, lambda_entered=0.030))
    assert figure(entered, "R_nominal") == pytest.approx(0.17 + 0.2 / 0.030, rel=1e-12)
    warm = (figure(entered, "R_winter") - 0.17) / (figure(known, "R_winter") - 0.17)
    assert warm == pytest.approx(0.035 / 0.030, rel=1e-2)


def test_fresh_foam_is_better_than_aged_foam() -> None:
    aged = wall(layer(1, "pir-core", 0.12))
    assert figure(aged, "R_fresh") == pytest.approx(0.17 + 0.12 / 0.021, rel=1e-12)
    assert figure(aged, "R_fresh") > figure(aged, "R_nominal")
    assert "R_fresh" not in wall_figures(wall(layer(1, "osb", 0.1)), CATALOGUE, Basis(), "0").figures


def test_the_label_temperature_is_a_school() -> None:
    foam = wall(layer(1, "eps-035", 0.2))
    at_24 = Basis(schools=Schools(label_mean=24.0))
    assert figure(foam, "R_nominal", at_24) < figure(foam, "R_nominal")


def test_weight_cost_and_carbon_count_members_by_their_share() -> None:
    member = Member(name="stud", material="softwood", share=0.2)
    one = wall(layer(1, "eps-035", 0.1, members=(member,)))
    foam, wood = CATALOGUE["eps-035"], CATALOGUE["softwood"]
    assert figure(one, "weight") == pytest.approx(0.1 * (0.8 * foam.rho + 0.2 * wood.rho), rel=1e-12)
    assert figure(one, "cost") == pytest.approx(0.1 * (0.8 * foam.cost + 0.2 * wood.cost), rel=1e-12)
    carbon = 0.1 * (0.8 * foam.rho * foam.carbon + 0.2 * wood.rho * wood.carbon)
    assert figure(one, "carbon") == pytest.approx(carbon, rel=1e-12)


def test_resolving_keeps_the_order_inside_to_outside(sip: Assembly, basis: Basis) -> None:
    element = resolve(sip, CATALOGUE, surroundings(basis.schools, "horizontal")).element
    assert [layer.name for layer in element.layers][:2] == ["Gypsum-fibre board", "air layer"]
    assert len(element.layers) == 6


def test_vapour_pressure_falls_by_sd_and_films_do_not_resist(sip: Assembly, basis: Basis) -> None:
    found = wall_figures(sip, CATALOGUE, basis, "0").profile
    planes = found.planes
    moment = found.condition
    assert planes[0].p == pytest.approx(moment.phi_i * value_of(p_sat(moment.theta_i)), rel=1e-12)
    assert planes[-1].p == pytest.approx(moment.phi_e * value_of(p_sat(moment.theta_e)), rel=1e-12)
    sd_osb, sd_core = 30 * 0.011, 40 * 0.185
    fall = [a.p - b.p for a, b in zip(planes, planes[1:], strict=False)]
    assert fall[3] / fall[2] == pytest.approx(sd_core / sd_osb, rel=1e-9)


def test_the_closest_point_is_the_closest(sip: Assembly, basis: Basis) -> None:
    profile = wall_figures(sip, CATALOGUE, basis, "0").profile
    spare = [plane.p_sat - plane.p for plane in profile.curve]
    assert spare[profile.closest] == min(spare)
    assert profile.curve[0] == profile.planes[0]
    assert profile.curve[-1] == profile.planes[-1]
