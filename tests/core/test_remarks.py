"""Every warning can be triggered and cleared; none comes unasked."""

from __future__ import annotations

import re
from dataclasses import replace

from nimble_shell.core.assemblies.assembly import Assembly, Layer, Member
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.criteria import Handling
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.basis.targets import Targets
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.remarks.remarks import remarks
from nimble_shell.core.studies.thickness import thickness_study
from nimble_shell.core.thermal.figures import wall_figures


def said(assembly: Assembly, basis: Basis | None = None, condition: str = "0") -> dict[str, Remark]:
    basis = basis or Basis()
    found = wall_figures(assembly, CATALOGUE, basis, condition)
    study = None
    if assembly.core_index is not None:
        study = thickness_study(assembly, CATALOGUE, basis, asked=basis.targets.R_wall)
    return {
        remark.code: remark for remark in remarks(assembly, CATALOGUE, basis, found, study, asked=basis.targets.R_wall)
    }


def test_a_remark_fills_every_place_it_leaves() -> None:
    """Whatever is asked of a system, each {name} in what it says has its value, and each value its place."""
    hard = Basis(handling=Handling(crane=False, people=2, access=0.6), targets=Targets(R_wall=9.0))
    seen: set[str] = set()
    for system in SYSTEMS.values():
        for basis in (Basis(), hard, replace(hard, indoor=Indoor(phi_heating=0.65))):
            for remark in said(system.assembly("w", "W"), basis).values():
                seen.add(remark.code)
                places = set(re.findall(r"\{(\w+)\}", remark.text + remark.clears))
                assert places == {one.name for one in remark.values}, remark.code
                assert "{{" not in remark.text + remark.clears
    assert "carried_by_hand" in seen
    assert len(seen) > 5


def wall(*layers: Layer) -> Assembly:
    return Assembly(id="w", name="W", system="", layers=layers)


def board(d: float = 0.0125) -> Layer:
    return Layer(id="board", material="gypsum-board", d=d)


def foam(d: float = 0.2, **more: object) -> Layer:
    return Layer(id="foam", material="eps-035", d=d, studied=True, **more)  # type: ignore[arg-type]


def render() -> Layer:
    return Layer(id="render", material="thin-render", d=0.008)


def test_a_missed_target_is_a_decision_with_its_way_out() -> None:
    sip = SYSTEMS["sip"].assembly("w", "W")
    missed = said(sip, Basis(targets=Targets(R_wall=5.6)))["target_missed"]
    assert missed.weight == "decision"
    values = {one.name: one.value for one in missed.values}
    assert 0.30 < values["short"] < 0.33
    assert values["stock"] == 0.235
    assert 0.19 < values["core"] < 0.20
    assert "{core}" in missed.clears
    assert "target_missed" not in said(sip, Basis(targets=Targets(R_wall=5.2)))
    assert "target_missed" not in said(sip)


def test_metal_through_insulation_is_cautioned_and_plastic_is_not() -> None:
    steel, plastic = (SYSTEMS["icf"].assembly("w", "W", {"web": web}) for web in ("steel", "plastic"))
    assert "metal_through_insulation" in said(steel)
    assert "metal_through_insulation" not in said(plastic)


def test_limits_too_far_apart_put_the_combined_method_out_of_its_range() -> None:
    stud = Member(name="steel stud", material="steel", share=0.005)
    bare = wall(board(), foam(members=(stud,)), replace(foam(0.1), id="more", studied=False), render())
    assert "combined_out_of_range" in said(bare)
    assert "combined_out_of_range" not in said(wall(board(), foam(), render()))


def test_dew_in_the_section_is_cautioned_when_the_tight_layer_is_outside() -> None:
    sheet = Layer(id="sheet", material="vapour-sheet", d=0.0005)
    humid = Basis(indoor=Indoor(phi_heating=0.6))
    outside, inside = wall(board(), foam(), sheet, render()), wall(board(), sheet, foam(), render())
    assert said(outside, humid)["dew_in_section"].values[0].value > 0
    assert "dew_in_section" not in said(inside, humid)


def test_bare_foam_is_cautioned_on_the_side_it_faces() -> None:
    assert {"foam_exposed_inside", "foam_exposed_outside"} <= said(wall(foam())).keys()
    assert not {"foam_exposed_inside", "foam_exposed_outside"} & said(wall(board(), foam(), render())).keys()


def test_unusual_values_are_remarked_not_refused() -> None:
    odd = wall(board(0.2), foam(lambda_entered=0.010), render())
    found = said(odd)
    assert found["unusual_thickness"].layer == 0
    assert found["unusual_conductivity"].layer == 1


def test_a_lossy_member_is_named_with_its_number() -> None:
    lossy = said(SYSTEMS["sip"].assembly("w", "W"))["lossy_member"]
    assert "4.2 times" in lossy.text
