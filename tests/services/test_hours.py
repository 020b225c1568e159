"""Runs by the hour as questions: what makes two of one, what is supposed, what may befall, and what makes the difference."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.hours import EFFECTS, FAN_YEARS, cause_of, fan, meant, question
from nimble_shell.services.studies import PlacedDraft

PROJECT = campus()
WALL = next(one for one in PROJECT.assemblies if one.id == "wall-w-a")
HERE = PlacedDraft(building_id="main-laboratory", assembly=WALL)


class TestAQuestion:
    def test_is_the_same_whatever_it_is_called_and_costs(self) -> None:
        renamed = replace(HERE, assembly=replace(WALL, name="another", note="n"))
        dearer = replace(
            PROJECT, name="x", basis=replace(PROJECT.basis, targets=replace(PROJECT.basis.targets, R_wall=1))
        )
        keys = {question(p, at, Life()).key for p in (PROJECT, dearer) for at in (HERE, renamed)}
        assert len(keys) == 1

    @pytest.mark.parametrize(
        "life", [Life(years=3), Life(phi_0=0.9), Life(leakage=0.1), Life(damper=0.05), Life(gap=0.0), Life(fresh=True)]
    )
    def test_is_another_one_with_another_life(self, life: Life) -> None:
        assert question(PROJECT, HERE, life).key != question(PROJECT, HERE, Life()).key

    def test_is_another_one_with_another_layer(self) -> None:
        core = WALL.core_index
        assert core is not None
        thicker = replace(HERE, assembly=WALL.with_thickness(core, 0.3))
        assert question(PROJECT, thicker, Life()).key != question(PROJECT, HERE, Life()).key

    def test_limits_of_damp_judge_a_run_and_do_not_make_another_one(self) -> None:
        strict = replace(PROJECT, basis=replace(PROJECT.basis, damp=replace(PROJECT.basis.damp, wood=0.18)))
        assert question(strict, HERE, Life()).key == question(PROJECT, HERE, Life()).key

    def test_carries_materials_that_a_search_may_add(self) -> None:
        asked = question(PROJECT, HERE, Life(), "xps-036")
        assert "xps-036" in asked.materials
        assert "xps-036" not in question(PROJECT, HERE, Life()).materials


class TestWhatIsMeant:
    @staticmethod
    def at(building: str, assembly: str) -> PlacedDraft:
        return PlacedDraft(building_id=building, assembly=next(one for one in PROJECT.assemblies if one.id == assembly))

    @pytest.mark.parametrize(
        ("building", "assembly", "tilt"),
        [("main-laboratory", "wall-w-a", 90), ("main-laboratory", "roof-r-a", 35), ("main-laboratory", "slab-s-a", 180),
         ("bunkhouse", "floor-f-c", 180)],
    )  # fmt: skip
    def test_follows_where_it_stands(self, building: str, assembly: str, tilt: float) -> None:
        assert meant(PROJECT, self.at(building, assembly)).exposure.tilt == tilt

    def test_has_the_height_that_presses_on_its_joints(self) -> None:
        assert meant(PROJECT, self.at("main-laboratory", "roof-r-a")).height == PROJECT.basis.air.height("B")

    @pytest.mark.parametrize(("assembly", "fresh"), [("wall-w-b", True), ("wall-w-h", True), ("slab-s-b", False)])
    def test_a_form_that_is_filled_in_a_month_brings_its_water_then(self, assembly: str, fresh: bool) -> None:
        life = meant(PROJECT, self.at("boat-workshop", assembly))
        assert (life.fresh, life.begins) == (fresh, 10)


class TestTheFan:
    LIFE = Life(phi_0=0.7, damper=0.02)

    def test_begins_as_meant_and_ends_with_everything_wrong(self) -> None:
        names = [name for name, _ in fan(self.LIFE)]
        assert names[0] == "as meant"
        assert names[-1] == "all at once"
        assert len(set(names)) == len(names) == 8

    def test_every_life_is_of_three_whole_years_on_fewer_cells(self) -> None:
        for _, life in fan(self.LIFE):
            assert (life.years, life.whole, life.coarse) == (FAN_YEARS, True, True)

    def test_each_differs_from_as_meant(self) -> None:
        meant_, *others = (life for _, life in fan(self.LIFE))
        assert all(one != meant_ for one in others)

    def test_what_was_supposed_stays_where_nothing_befalls_it(self) -> None:
        lives = dict(fan(self.LIFE))
        assert lives["gap blocked"].phi_0 == 0.7
        assert lives["gap blocked"].damper == 0.02
        assert lives["built in wet"].damper == 0.02

    def test_a_leak_that_is_worse_than_the_usual_one_is_kept(self) -> None:
        lives = dict(fan(replace(self.LIFE, leakage=5.0)))
        assert lives["a joint with one seal line"].leakage == 5.0
        assert lives["as meant"].leakage == 0.0


class TestTheCause:
    """Hours and months say different things: the effect without which the hours would agree with the months."""

    @pytest.mark.parametrize("fails", [True, False])
    @pytest.mark.parametrize("effect", EFFECTS)
    def test_is_the_one_whose_absence_turns_it(self, effect: str, fails: bool) -> None:
        without = {one: (not fails if one == effect else fails) for one in EFFECTS}
        assert cause_of(fails, without) == effect

    def test_is_several_where_none_turns_it_alone(self) -> None:
        assert cause_of(True, dict.fromkeys(EFFECTS, True)) == "several"
