"""Verdicts: the margin is where it turns, and every advised change passes where one step less fails."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import direction_at
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.core.moisture.monthly.element import element_year
from nimble_shell.core.moisture.monthly.leak import Leak, leak_year
from nimble_shell.core.moisture.verdict import verdict as v
from nimble_shell.core.moisture.verdict.verdict import Advice, Verdict, at_humidity, judge, judge_joint, judged
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.joints import drawn, sealing

BASIS = Basis()
#: Tight outside, open inside: room air wets it every winter.
WRONG = Assembly(
    id="w", name="w", system="", layers=(
        Layer(id="1", material="gypsum-board", d=0.0125),
        Layer(id="2", material="mineral-wool-035", d=0.200, studied=True),
        Layer(id="3", material="osb", d=0.018),
        Layer(id="4", material="self-adhered", d=0.001),
        Layer(id="5", material="fibre-cement", d=0.010),
    ),
)  # fmt: skip


@pytest.fixture(scope="module")
def wrong() -> Verdict:
    return judge(WRONG, CATALOGUE, BASIS)


def changed(one: Advice, amount: float) -> tuple[Assembly, Basis, dict[str, Material]]:
    """The build-up with a change of a kind, of whatever size."""
    more = {**CATALOGUE}
    layers = WRONG.layers
    match one.kind:
        case "vapour":
            more["sheet"] = replace(CATALOGUE["vapour-sheet"], key="sheet", sd=amount, mu=amount / 0.0005)
            sheet = Layer(id="s", material="sheet", d=0.0005)
            layers = (layers[0], sheet, *layers[1:]) if amount else layers
        case "outside":
            layers = (*layers, Layer(id="o", material="stone-wool-board", d=amount)) if amount else layers
        case "core":
            layers = (layers[0], replace(layers[1], d=amount), *layers[2:])
        case "room":
            return WRONG, at_humidity(BASIS, amount), more
    return replace(WRONG, layers=layers), BASIS, more


def test_a_wall_that_is_tight_outside_fails_and_the_reason_is_named(wrong: Verdict) -> None:
    assert not wrong.passes
    assert wrong.reason in ("gathers", "too wet")
    assert wrong.margin is not None
    assert wrong.margin < 0
    assert {one.kind for one in wrong.advice} == {"vapour", "outside", "core", "gap", "room"}
    assert any(one.found for one in wrong.advice)


def test_every_advised_change_passes_and_one_step_less_fails(wrong: Verdict) -> None:
    checked = set()
    for one in wrong.advice:
        if not one.found or one.kind == "gap":
            continue
        assert not judged(element_year(*rearranged(one, one.amount)))
        assert judged(element_year(*rearranged(one, one.step)))
        checked.add(one.kind)
    assert "vapour" in checked
    assert "room" in checked


def rearranged(one: Advice, amount: float) -> tuple[Assembly, dict[str, Material], Basis]:
    assembly, basis, more = changed(one, amount)
    return assembly, more, basis


def test_a_ventilated_gap_is_a_step_of_its_own(wrong: Verdict) -> None:
    gap = next(one for one in wrong.advice if one.kind == "gap")
    opened = v._with_gap(WRONG, 1)
    assert gap.found == (not judged(element_year(opened, CATALOGUE, BASIS)))


@pytest.mark.parametrize("system", ["sip", "cassette", "icf", "mesh-mortar"])
def test_the_margin_of_what_passes_is_where_it_fails(system: str) -> None:
    wall = SYSTEMS[system].assembly("w", "w")
    found = judge(wall, CATALOGUE, BASIS)
    assert found.passes
    assert found.advice == ()
    assert found.phi_fails is not None
    assert judged(element_year(wall, CATALOGUE, at_humidity(BASIS, found.phi_fails)))
    assert not judged(element_year(wall, CATALOGUE, at_humidity(BASIS, found.phi_fails - v.POINT)))
    assert found.margin == pytest.approx(found.phi_fails - BASIS.indoor.phi_heating)


def test_a_joint_fails_by_its_surface_or_by_its_air_and_is_told_which_seal_is_enough() -> None:
    roof = SYSTEMS["sip-roof"].assembly("r", "r")
    cold, year, _ = judge_joint(roof, CATALOGUE, BASIS, "up", 0.01, 3.5, 0.4)
    assert cold.reason == "surface"
    assert year is not None
    open_, _, safe = judge_joint(roof, CATALOGUE, BASIS, "up", 6.0, 3.5, 0.95)
    assert open_.reason == "leak"
    seal = next(one for one in open_.advice if one.kind == "seal")
    assert seal.amount == safe
    assert safe is not None
    assert judge_joint(roof, CATALOGUE, BASIS, "up", safe, 3.5, 0.95)[0].passes
    leak = Leak(leakage=1.01 * safe, height=3.5, plane=year.plane)
    months = element_year(roof, CATALOGUE, BASIS, "up").months
    assert not leak_year(roof, CATALOGUE, year.year.planes, months, leak, BASIS.air, BASIS.damp).safe
    bare = replace(roof, layers=roof.layers[: (roof.core_index or 0) + 1], fixings=())
    assert judge_joint(bare, CATALOGUE, BASIS, "up", 6.0, 3.5, 0.95)[1] is None


def test_the_campus_is_judged_and_its_ridge_without_a_seal_is_found() -> None:
    project = campus()
    by_id = {one.id: one for one in project.assemblies}
    for building in project.buildings:
        for element in building.elements:
            if element.assembly_id is not None:
                one = judge(by_id[element.assembly_id], project.catalogue, project.basis, direction_at(element.station))
                assert one.passes, element.name
    laboratory = next(one for one in project.buildings if one.id == "main-laboratory")
    ridge = next(one for one in laboratory.joints if one.name == "Ridge")
    leakage = sealing(project, ridge, drawn(project, ridge)).leakage[1]
    height = project.basis.air.height("A")
    found, _, safe = judge_joint(by_id["roof-r-a"], project.catalogue, project.basis, "up", leakage, height, None)
    assert found.reason == "leak"
    assert safe is not None
    assert safe < 0.3
