"""Surfaces of a building in their order, and moisture of a draft where it stands."""

from __future__ import annotations

from dataclasses import replace

import pytest
from services.solved_joints import figures_of

from nimble_shell.core.moisture.monthly.element import months_of
from nimble_shell.core.moisture.monthly.surface import f_rsi_required
from nimble_shell.core.shell.decisions import RankedSurface
from nimble_shell.core.shell.project import Project
from nimble_shell.core.thermal.figures import surface_factor
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.joints import KnownJoint, joint_in
from nimble_shell.services.moisture import positions_of, surface_ranking, through_the_year
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.store import NotFound

PROJECT = campus()
LAB = PROJECT.buildings[0]
WALL = next(one for one in PROJECT.assemblies if one.id == "wall-w-a")


def known(joint_id: str, f_rsi: float | None, why: str = "") -> KnownJoint:
    solved = None if f_rsi is None else figures_of(0.1, f_rsi)
    return KnownJoint(joint=joint_in(LAB, joint_id), solved=solved, takes=(), point=False, why_not=why)


def named(joints: list[KnownJoint], project: Project = PROJECT) -> dict[str, RankedSurface]:
    return {one.id: one for one in surface_ranking(project, LAB.id, joints).surfaces}


class TestTheRanking:
    def test_has_every_element_with_a_build_up_and_every_joint(self) -> None:
        found = named([known("j1", 0.9), known("j2", None)])
        built = {one.id for one in LAB.elements if one.assembly_id is not None}
        assert set(found) == built | {"j1", "j2"}
        assert {key for key, one in found.items() if one.joint} == {"j1", "j2"}

    def test_the_least_margin_stands_first_and_what_has_none_last(self) -> None:
        found = surface_ranking(PROJECT, LAB.id, [known("j1", 0.2), known("j2", None), known("j3", 0.99)]).surfaces
        assert (found[0].id, found[-1].id) == ("j1", "j2")
        margins = [one.margin for one in found if one.margin is not None]
        assert margins == sorted(margins)

    def test_says_of_a_joint_why_it_has_no_factor(self) -> None:
        found = named([known("j1", None), known("j2", None, "its build-up is gone")])
        assert (found["j1"].why_not, found["j2"].why_not) == ("being solved", "its build-up is gone")
        assert found["j1"].phi_fails is None

    def test_an_element_has_the_factor_of_its_clear_section(self) -> None:
        wall = next(one for one in LAB.elements if one.assembly_id == WALL.id)
        assert named([])[wall.id].f_rsi == surface_factor(WALL, PROJECT.catalogue, PROJECT.basis)

    def test_asks_what_the_critical_month_asks(self) -> None:
        found = surface_ranking(PROJECT, LAB.id, [])
        asked = [f_rsi_required(month) for month in months_of(PROJECT.basis)]
        assert found.critical is not None
        assert found.required == asked[found.critical] == max(one for one in asked if one is not None)

    def test_the_air_at_which_a_surface_fails_grows_with_its_factor(self) -> None:
        fails = [named([known("j1", f)])["j1"].phi_fails for f in (0.5, 0.7, 0.9)]
        assert all(one is not None for one in fails)
        assert fails == sorted(fails)  # type: ignore[type-var]

    def test_a_surface_just_at_what_is_asked_has_no_margin_left(self) -> None:
        required, target = surface_ranking(PROJECT, LAB.id, []).required, PROJECT.basis.targets.f_rsi
        assert required is not None
        assert target is not None
        assert named([known("j1", target)])["j1"].margin == pytest.approx(0.0, abs=1e-12)  # the Basis is stricter here
        lenient = replace(PROJECT, basis=replace(PROJECT.basis, targets=replace(PROJECT.basis.targets, f_rsi=None)))
        assert named([known("j1", required)], lenient)["j1"].margin == pytest.approx(0.0, abs=1e-12)

    def test_a_moister_room_asks_more(self) -> None:
        indoor = replace(PROJECT.basis.indoor, phi_heating=0.6, phi_cooling=0.7)
        moist = replace(PROJECT, basis=replace(PROJECT.basis, indoor=indoor))
        first, second = (surface_ranking(one, LAB.id, []).required for one in (PROJECT, moist))
        assert first is not None
        assert second is not None
        assert second > first

    def test_of_no_building_is_not_found(self) -> None:
        with pytest.raises(NotFound):
            surface_ranking(PROJECT, "nowhere", [])


class TestADraft:
    def test_is_judged_where_it_stands(self) -> None:
        roof = next(one for one in PROJECT.assemblies if one.id == "roof-r-a")
        here = PlacedDraft(building_id=LAB.id, assembly=roof)
        elsewhere = replace(here, assembly=replace(roof, id="unused"))
        assert here.station(PROJECT) == "B"
        assert through_the_year(PROJECT, here) != through_the_year(PROJECT, elsewhere)

    def test_has_positions_of_its_control_plane_in_every_layer_it_may_lie_in(self) -> None:
        found = positions_of(PROJECT, PlacedDraft(building_id=LAB.id, assembly=WALL))
        assert found
        assert len(set(found)) == len(found)

    def test_in_no_building_is_not_found(self) -> None:
        with pytest.raises(NotFound):
            through_the_year(PROJECT, PlacedDraft(building_id="nowhere", assembly=WALL))
