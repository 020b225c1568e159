"""Every generator gives a valid wall over its whole range, and refuses beyond it."""

from __future__ import annotations

import math
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.module import module_of
from nimble_shell.core.assemblies.systems import SYSTEMS, System
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.parameters import Choice, Parameter
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.systems import panel_rules
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.working import value_of


@st.composite
def chosen(draw: st.DrawFn) -> tuple[System, dict[str, Any]]:
    system = draw(st.sampled_from(list(SYSTEMS.values())))
    values: dict[str, Any] = {}
    for parameter in system.parameters:
        if isinstance(parameter, Choice):
            values[parameter.key] = draw(st.sampled_from(parameter.options))
        else:
            values[parameter.key] = draw(st.floats(min_value=parameter.least, max_value=parameter.most))
    return system, values


def weight_by_hand(wall: Assembly) -> float:
    """Layers, members, mortar in the ribs and points, with none of the product's own sums."""
    total = 0.0
    for at, layer in enumerate(wall.layers):
        shares = layer.shares()
        solid = layer.d - layer.rib / 2
        if layer.material:
            total += solid * (1 - sum(shares)) * CATALOGUE[layer.material].rho
        total += sum(solid * share * CATALOGUE[m.material].rho for m, share in zip(layer.members, shares, strict=True))
        if layer.rib:
            total += layer.rib / 2 * CATALOGUE[wall.layers[at + 1].material].rho
    for fixing in wall.fixings:
        layer = next(one for one in wall.layers if one.id == fixing.layer)
        length = layer.d + fixing.inner + fixing.outer
        total += fixing.n * math.pi * fixing.diameter**2 / 4 * length * CATALOGUE[fixing.material].rho
        for plate in (fixing.head, fixing.foot):
            if plate is not None:
                total += fixing.n * math.pi * plate.size**2 / 4 * plate.t * CATALOGUE[plate.material].rho
        if fixing.sleeve is not None:
            ring = math.pi / 4 * (fixing.sleeve**2 - fixing.diameter**2)
            total += fixing.n * ring * (fixing.depth or layer.d) * CATALOGUE[fixing.sleeve_material].rho
    return total


def test_all_twelve_kinds_are_there_each_in_its_places() -> None:
    assert {system.kind for system in SYSTEMS.values()} == set(range(1, 13))
    assert {system.place for system in SYSTEMS.values()} == {"wall", "roof", "floor"}
    for system in SYSTEMS.values():
        assert set(system.cores) <= set(CATALOGUE)
        wall = system.assembly("w", "W")
        assert any("heat" in layer.control for layer in wall.layers)
        assert system.name
        assert system.anatomy


def test_masonry_puts_its_insulation_where_it_is_told() -> None:
    def order(where: str) -> list[str]:
        wall = SYSTEMS["masonry"].assembly("w", "W", {"where": where})
        return ["insulation" if layer.material == "eps-graphite" else "leaf" for layer in wall.layers
                if layer.material in ("eps-graphite", "concrete-block", "brick")]  # fmt: skip

    assert order("outside") == ["leaf", "insulation"]
    assert order("inside") == ["insulation", "leaf"]
    assert order("cavity") == ["leaf", "insulation", "leaf"]
    assert order("combined") == ["insulation", "leaf", "insulation"]


def test_settled_beads_lose_what_the_empty_part_lets_through() -> None:
    full, settled = (SYSTEMS["bead-cassette"].assembly("w", "W", {"settlement": s}) for s in (0.0, 0.03))
    R = [value_of(wall_figures(w, CATALOGUE, Basis(), "0").figures["R_clear"].number) for w in (full, settled)]
    assert R[1] < 0.75 * R[0]


def test_bales_on_edge_resist_more_for_their_thickness_than_flat_ones() -> None:
    flat, edge = (SYSTEMS["straw-bale"].assembly("w", "W", {"laid": laid, "bale": 0.4}) for laid in ("flat", "on edge"))
    R = [value_of(wall_figures(w, CATALOGUE, Basis(), "0").figures["R_nominal"].number) for w in (flat, edge)]
    assert R[1] > R[0]


@given(chosen())
def test_every_wall_a_generator_makes_can_be_calculated(made: tuple[System, dict[str, Any]]) -> None:
    system, values = made
    wall = system.assembly("w", "W", values)
    direction = {"wall": "horizontal", "roof": "up", "floor": "down"}[system.place]
    found = wall_figures(wall, CATALOGUE, Basis(), "0", direction=direction).figures  # type: ignore[arg-type]
    assert value_of(found["thickness"].number) == pytest.approx(sum(layer.d for layer in wall.layers))
    assert value_of(found["weight"].number) == pytest.approx(weight_by_hand(wall))
    assert value_of(found["R_nominal"].number) > value_of(found["R_clear"].number) * (1 - 1e-12)
    assert wall.core_index is not None


@pytest.mark.parametrize("system", SYSTEMS.values(), ids=lambda system: str(system.key))
def test_parameters_beyond_their_range_are_refused(system: System) -> None:
    for parameter in system.parameters:
        if isinstance(parameter, Parameter):
            bad: list[Any] = [parameter.least - 1, parameter.most + 1, "wide"]
        else:
            bad = ["something else", 3.0]
        for value in bad:
            with pytest.raises(DomainError) as refused:
                system.assembly("w", "W", {parameter.key: value})
            assert refused.value.issues[0].code == "parameter_out_of_range"
            assert refused.value.issues[0].path == (parameter.key,)


def test_an_unknown_parameter_is_refused_by_name() -> None:
    with pytest.raises(DomainError) as refused:
        SYSTEMS["sip"].assembly("w", "W", {"colour": "blue"})
    assert refused.value.issues[0].code == "unknown_parameter"


def test_lumber_splines_cost_what_they_cost() -> None:
    def R(spline: str) -> float:
        wall = SYSTEMS["sip"].assembly("w", "W", {"spline": spline})
        return value_of(wall_figures(wall, CATALOGUE, Basis(), "0").figures["R_clear"].number)

    assert R("double lumber") < R("single lumber") < R("block") == R("surface")


def test_every_system_carries_its_cautions_and_names_who_decides() -> None:
    for system in SYSTEMS.values():
        text = " ".join(system.cautions)
        assert "engineer" in text
        assert len(system.cautions) >= 4


def test_every_system_of_panels_has_a_module_and_rules() -> None:
    """A misspelt key would leave a system unset without a word: those of panels are named here once more."""
    built_in_place = {"icf", "icf-one-sided", "masonry", "slab", "site-framing", "loft"}
    for key, system in SYSTEMS.items():
        assembly = system.assembly("a", system.name)
        of_panels = key not in built_in_place
        assert (module_of(assembly) is not None) == of_panels, key
        assert (panel_rules(assembly, 20.0, SetOutChoices()) is not None) == of_panels, key
