"""Ribs, points, control lines, substitutions, grooves, depths, claims and days."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.assemblies.assembly import Assembly, Declared, Fixing, Layer, Substitution
from nimble_shell.core.assemblies.difference import differences
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.criteria import Criterion, Handling
from nimble_shell.core.basis.targets import Limits
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.remarks.remarks import remarks
from nimble_shell.core.studies.claim import Claim, check_claim
from nimble_shell.core.studies.day import day
from nimble_shell.core.studies.probe import chase, temperature_at
from nimble_shell.core.thermal.control import continuity, share_inside
from nimble_shell.core.thermal.figures import WallFigures, wall_figures
from nimble_shell.core.working import value_of

BASIS = Basis()


def figures(wall: Assembly, basis: Basis = BASIS) -> WallFigures:
    return wall_figures(wall, CATALOGUE, basis, "0")


def R(wall: Assembly, kind: str = "clear") -> float:
    return value_of(figures(wall).figures[f"R_{kind}"].number)


def said(wall: Assembly, basis: Basis = BASIS) -> dict[str, Remark]:
    return {r.code: r for r in remarks(wall, CATALOGUE, basis, figures(wall, basis), None, asked=None)}


def layers(*made: Layer, fixings: tuple[Fixing, ...] = ()) -> Assembly:
    return Assembly(id="w", name="W", system="", layers=made, fixings=fixings)


def foam(d: float = 0.12, **more: object) -> Layer:
    return Layer(id="core", material="eps-035", d=d, studied=True, **more)  # type: ignore[arg-type]


def mortar(at: str) -> Layer:
    return Layer(id=at, material="structural-mortar", d=0.04)


# --- ribs and points --------------------------------------------------------------------------------------------


@given(st.floats(min_value=0.06, max_value=0.3), st.floats(min_value=0.0, max_value=0.05))
def test_ribs_count_with_their_mean_thickness_and_are_filled_by_the_neighbour(d: float, rib: float) -> None:
    ribbed = layers(mortar("i"), foam(d, rib=rib), mortar("o"))
    plain = layers(mortar("i"), foam(d - rib / 2), mortar("o"))
    assert R(ribbed) == pytest.approx(R(plain), rel=1e-12)
    weight = value_of(figures(ribbed).figures["weight"].number)
    assert weight == pytest.approx(value_of(figures(plain).figures["weight"].number) + rib / 2 * 2000)
    assert value_of(figures(ribbed).figures["thickness"].number) == pytest.approx(d + 0.08)


def test_points_follow_the_formula_and_leave_the_nominal_value_alone() -> None:
    wires = Fixing(id="f", name="wires", material="steel", n=60, diameter=0.003, layer="core")
    bare, tied = layers(mortar("i"), foam(), mortar("o")), layers(mortar("i"), foam(), mortar("o"), fixings=(wires,))
    R_1, R_tot = 0.12 / 0.035, R(bare)
    expected = 0.8 * 50 * (np.pi * 0.0015**2) * 60 / 0.12 * (R_1 / R_tot) ** 2
    found = figures(tied).figures
    assert value_of(found["delta_U_f"].number) == pytest.approx(expected, rel=1e-12)
    assert R(tied) == pytest.approx(1 / (1 / R(bare) + expected), rel=1e-12)
    assert R(tied, "nominal") == R(bare, "nominal")


def test_plastic_points_count_nothing_and_stainless_ones_a_third_of_steel() -> None:
    def lost(material: str) -> float:
        tie = Fixing(id="f", name="ties", material=material, n=5, diameter=0.004, layer="core")
        found = figures(layers(mortar("i"), foam(), mortar("o"), fixings=(tie,))).figures
        return value_of(found["delta_U_f"].number) if "delta_U_f" in found else 0.0

    assert lost("nylon") == 0.0
    assert lost("stainless-steel") == pytest.approx(lost("steel") * 17 / 50)


def test_points_outside_of_a_ventilated_gap_do_not_count() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    outer = wall.layers[-1].id
    far = replace(wall, fixings=(Fixing(id="f", name="nails", material="steel", n=20, diameter=0.003, layer=outer),))
    assert R(far) == R(wall)


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"n": 0}, "count_out_of_range"),
        ({"diameter": -1}, "diameter_out_of_range"),
        ({"layer": "none"}, "no_such_layer"),
    ],
)
def test_points_that_cannot_be_are_refused(change: dict[str, object], code: str) -> None:
    with pytest.raises(DomainError) as refused:
        layers(
            mortar("i"),
            foam(),
            fixings=(
                Fixing(
                    **{
                        "id": "f",
                        "name": "x",
                        "material": "steel",
                        "n": 4,
                        "diameter": 0.006,
                        "layer": "core",
                        **change,
                    }
                ),
            ),
        )  # type: ignore[arg-type]
    assert refused.value.issues[0].code == code


def test_a_rib_as_deep_as_its_layer_is_refused() -> None:
    with pytest.raises(DomainError) as refused:
        foam(0.05, rib=0.05)
    assert refused.value.issues[0].code == "rib_too_deep"


def test_ground_contact_has_no_outer_film() -> None:
    slab = SYSTEMS["slab"].assembly("s", "S")
    above = replace(slab, layers=slab.layers[:-1])
    assert R(above, "nominal") == pytest.approx(R(replace(above, outside="air"), "nominal") - 0.04)


def test_hardcore_below_a_floor_is_left_to_the_ground_and_a_fill_that_insulates_is_not() -> None:
    slab = SYSTEMS["slab"].assembly("s", "S")
    assert slab.layers[-1].material == "gravel"
    above = replace(slab, layers=slab.layers[:-1])
    assert R(slab, "nominal") == R(above, "nominal")
    in_air = replace(slab, outside="air")
    assert R(in_air, "nominal") == pytest.approx(R(above, "nominal") + 0.04 + 0.150 / 2.0)
    foamed = replace(slab, layers=(*above.layers, replace(slab.layers[-1], material="foam-glass-gravel")))
    assert R(foamed, "nominal") == pytest.approx(R(above, "nominal") + 0.150 / 0.085)


# --- control lines ----------------------------------------------------------------------------------------------


def test_the_strip_names_the_layers_of_each_line_and_what_is_undecided() -> None:
    wall = layers(Layer(id="a", material="osb", d=0.012, control=("air", "vapour")), foam(control=("heat",)))
    lines = {line.control: line for line in continuity(wall)}
    assert lines["air"].layers == (0,)
    assert lines["heat"].layers == (1,)
    assert lines["rain"].layers == ()
    assert "rain and the wind" in said(wall)["line_undecided"].text


def test_services_outside_of_the_air_line_are_told_and_inside_are_not() -> None:
    void = Layer(id="v", material="wood-fibre-flex", d=0.05, services=True)
    line = Layer(id="a", material="osb", d=0.012, control=("air",))
    assert "services_pierce_air_line" not in said(layers(void, line, foam()))
    outside = said(layers(line, replace(void, id="v2"), foam()))["services_pierce_air_line"]
    assert outside.layer == 1
    assert (
        "in the air line itself" in said(layers(replace(line, services=True), foam()))["services_pierce_air_line"].text
    )


def test_a_wettable_layer_between_two_tight_ones_is_told_with_both_values() -> None:
    sheet = Layer(id="s", material="vapour-sheet", d=0.0002)
    wood = Layer(id="w", material="osb", d=0.012)
    closed = layers(sheet, wood, Layer(id="o", material="self-adhered", d=0.0015))
    remark = said(closed)["wettable_between_tight"]
    assert (remark.layer, [value.value for value in remark.values]) == (1, [100.0, 200.0])
    assert "wettable_between_tight" not in said(layers(sheet, wood, Layer(id="o", material="wind-membrane", d=0.0005)))
    stone = Layer(id="w", material="mineral-wool-035", d=0.1)
    assert "wettable_between_tight" not in said(layers(sheet, stone, Layer(id="o", material="self-adhered", d=0.0015)))


def test_the_rule_of_ratio_counts_resistance_inside_of_the_vapour_plane() -> None:
    inside = Layer(id="i", material="wood-fibre-flex", d=0.06)
    plane = Layer(id="p", material="vapour-variable", d=0.0005, control=("vapour",))
    wall = layers(inside, plane, foam(0.12))
    found = figures(wall)
    share = share_inside(wall, list(found.R_layers))
    assert share is not None
    a, b, c = 0.06 / 0.038, 0.0005 / 0.33, 0.12 / 0.035
    assert share.share == pytest.approx(a / (a + b + c))
    basis = replace(BASIS, limits=Limits(inside_share=0.25))
    assert said(wall, basis)["inside_share_over_limit"].values[0].value == pytest.approx(share.share)
    assert "inside_share_over_limit" not in said(wall, replace(BASIS, limits=Limits(inside_share=0.5)))


def test_points_between_metal_and_between_wood_are_told_apart() -> None:
    assert "points_between_metal" in said(SYSTEMS["metal-panel"].assembly("w", "W"))
    assert "points_between_panels" in said(SYSTEMS["sip-roof"].assembly("w", "W"))
    assert "points_between_metal" not in said(SYSTEMS["mesh-mortar"].assembly("w", "W"))


def test_without_a_crane_the_largest_piece_follows_from_its_weight() -> None:
    wall = SYSTEMS["straw-bale"].assembly("w", "W")
    assert "carried_by_hand" not in said(wall)
    remark = said(wall, replace(BASIS, handling=Handling(crane=False, people=4, kg_per_person=25)))["carried_by_hand"]
    values = {value.name: value.value for value in remark.values}
    assert values["area"] == pytest.approx(100 / values["shop"])


@pytest.mark.parametrize("key", ["sip", "metal-panel", "cassette", "mesh-mortar"])
def test_a_piece_wider_than_the_way_is_remarked_on_where_its_width_is_known(key: str) -> None:
    wall = SYSTEMS[key].assembly("w", "W")
    seams = [m.centres for layer in wall.layers for m in layer.members if m.joint == "seam" and m.centres]
    assert "wider_than_access" not in said(wall, replace(BASIS, handling=Handling(access=3.0)))
    narrow = said(wall, replace(BASIS, handling=Handling(access=0.9)))
    assert ("wider_than_access" in narrow) == bool(seams)
    if seams:
        values = {value.name: value.value for value in narrow["wider_than_access"].values}
        assert values == {"module": max(seams), "access": 0.9}
        assert "wider_than_access" not in said(wall, replace(BASIS, handling=Handling(access=max(seams))))


# --- substitutions, declarations, differences ---------------------------------------------------------------------


def test_what_was_asked_can_be_recomputed_and_must_be_approved() -> None:
    delivered = layers(foam(0.12, substitution=Substitution(asked="pir-core", reason="out of stock")))
    assert R(delivered.as_asked()) == pytest.approx(
        R(layers(Layer(id="core", material="pir-core", d=0.12, studied=True)))
    )
    assert said(delivered)["substitution_open"].weight == "decision"
    approved = layers(foam(0.12, substitution=Substitution(asked="pir-core", approved="checker")))
    assert "substitution_open" not in said(approved)


def test_a_declared_class_needs_its_source() -> None:
    with pytest.raises(DomainError) as refused:
        Declared(kind="fire", value="B-s1,d0", source=" ")
    assert refused.value.issues[0].code == "source_missing"


def test_differences_name_what_changed_and_nothing_else() -> None:
    before = SYSTEMS["sip"].assembly("w", "W")
    assert differences(before, before, CATALOGUE) == []
    core = before.core_index
    assert core is not None
    after = before.with_thickness(core, 0.235)
    only = differences(before, after, CATALOGUE)
    assert [(one.what, one.before, one.after) for one in only] == [("thickness of EPS with graphite", 0.185, 0.235)]
    shorter = replace(before, layers=before.layers[1:])
    assert [one.what for one in differences(before, shorter, CATALOGUE)] == ["Gypsum-fibre board removed"]
    swapped = replace(before, layers=(before.layers[1], before.layers[0], *before.layers[2:]))
    assert [one.what for one in differences(before, swapped, CATALOGUE)] == ["order of the layers"]
    every = replace(after, layers=tuple(
        replace(layer, services=True, fitted="late", passes=2, control=("rain",), members=(), rib=0.005 if layer.d > 0.02 and layer.material else 0.0)
        for layer in after.layers
    ))  # fmt: skip
    words = " ".join(one.what for one in differences(before, every, CATALOGUE))
    for word in ("control lines", "fitting", "services", "rounds of work", "members", "profile"):
        assert word in words


# --- depth, groove, claim, day ------------------------------------------------------------------------------------


def test_temperature_at_a_face_is_the_profiles_and_between_faces_it_is_monotone() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W")
    planes = figures(wall).profile.planes
    for plane in planes:
        assert temperature_at(wall, CATALOGUE, BASIS, plane.x, "0") == pytest.approx(plane.theta, abs=1e-9)
    depths = np.linspace(0, planes[-1].x, 40)
    thetas = [temperature_at(wall, CATALOGUE, BASIS, float(depth), "0") for depth in depths]
    assert all(a > b for a, b in zip(thetas, thetas[1:], strict=False))


@pytest.mark.parametrize("depth", [-0.01, 0.5])
def test_a_depth_outside_of_the_wall_is_refused(depth: float) -> None:
    with pytest.raises(DomainError) as refused:
        temperature_at(SYSTEMS["sip"].assembly("w", "W"), CATALOGUE, BASIS, depth, "winter")
    assert refused.value.issues[0].code == "depth_outside"


def test_a_groove_leaves_the_thinner_wall_there_and_the_parallel_mean_over_all() -> None:
    wall = SYSTEMS["icf"].assembly("w", "W")
    found = chase(wall, CATALOGUE, BASIS, 1, 0.03, 0.05)
    thinner = wall.with_thickness(1, 0.04)
    assert found.R_there == pytest.approx(R(thinner, "nominal"))
    assert found.R_clear == pytest.approx(1 / (0.05 / R(thinner) + 0.95 / R(wall)))
    assert found.R_without == R(wall)
    with pytest.raises(DomainError) as refused:
        chase(wall, CATALOGUE, BASIS, 1, 0.07, 0.05)
    assert refused.value.issues[0].code == "chase_too_deep"


def test_a_claim_at_the_labels_own_terms_is_the_wall_with_that_conductivity() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W", {"core_material": "pir-core"})
    claim = Claim(R=0.14 / 0.021, d=0.14, theta=10, age="fresh")
    found = check_claim(wall, CATALOGUE, BASIS, claim)
    assert found.lambda_claimed == pytest.approx(0.021)
    assert found.lambda_aged == pytest.approx(0.025)  # the catalogue's own aging, 0.025 over 0.021
    by_hand = R(wall.with_thickness(3, 0.14))
    assert value_of(found.wall.figures["R_clear"].number) == pytest.approx(by_hand)
    assert found.remains == pytest.approx(by_hand / claim.R)


def test_a_warm_test_flatters_no_polystyrene_and_an_aged_claim_is_not_aged_again() -> None:
    wall = SYSTEMS["sip"].assembly("w", "W", {"core_material": "eps-035"})
    at_24 = check_claim(wall, CATALOGUE, BASIS, Claim(R=5.0, d=0.18, theta=24, age="aged"))
    assert at_24.lambda_aged < at_24.lambda_claimed  # it conducts less at 10 °C than at 24 °C
    assert check_claim(wall, CATALOGUE, BASIS, Claim(R=5.0, d=0.18, theta=10, age="aged")).lambda_aged == pytest.approx(
        0.036
    )


@pytest.mark.parametrize("month", [0, 6])
@pytest.mark.parametrize("system", ["sip", "icf-one-sided", "straw-bale"])
def test_mass_changes_the_peak_and_never_the_mean(system: str, month: int) -> None:
    found = day(SYSTEMS[system].assembly("w", "W"), CATALOGUE, BASIS, month, rise=20)
    assert np.mean(found.surface[:24]) == pytest.approx(np.mean(found.massless[:24]), abs=1e-9)
    assert found.peak_flux < found.peak_massless
    assert np.max(found.surface) <= np.max(found.massless)
    swing = np.ptp(found.surface) / np.ptp(found.massless)
    assert swing == pytest.approx(found.periodic.decrement, rel=0.02)


def test_the_verdict_says_when_mass_does_not_help() -> None:
    heavy, light = SYSTEMS["icf-one-sided"].assembly("w", "W"), SYSTEMS["metal-panel"].assembly("w", "W")
    assert day(heavy, CATALOGUE, BASIS, 6, rise=20).verdict == "evens out both ways"
    assert day(heavy, CATALOGUE, BASIS, 0).verdict == "delays, does not save"
    assert day(light, CATALOGUE, BASIS, 6, rise=20).verdict == "hardly any mass"
    still = replace(BASIS, climate=replace(BASIS.climate, swing=(1.0,) * 12))
    assert day(heavy, CATALOGUE, still, 6).verdict == "swing too small to matter"


# --- criteria -----------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("key", "site", "kit", "finding"),
    [
        ("snow", "2.0", "2.4", "inside"),
        ("snow", "3,2", "2.4", "needs an engineer"),
        ("snow", "", "2.4", "not stated"),
        ("exposure", "Open", "open", "inside"),
        ("exposure", "open", "sheltered", "needs an engineer"),
    ],
)
def test_the_kit_envelope_compares_what_was_written(key: str, site: str, kit: str, finding: str) -> None:
    assert Criterion(key=key, site=site, kit=kit).finding == finding  # type: ignore[arg-type]


def test_a_load_that_is_no_number_is_refused() -> None:
    with pytest.raises(DomainError) as refused:
        Criterion(key="snow", site="heavy")
    assert refused.value.issues[0].code == "criterion_not_a_number"
