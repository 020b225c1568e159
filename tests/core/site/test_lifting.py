"""Panels of the campus on their hooks: statics closed, balances under the hook, and the same mass everywhere."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from nimble_shell.core.shell.coursed import runs_of
from nimble_shell.core.shell.lifting import Lifted, body_of
from nimble_shell.core.shell.pouring import gross_area, poured, tie_columns
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.core.site.choices import CraneRow
from nimble_shell.core.site.slings import hung
from nimble_shell.core.site.weight import weight_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.lifts import lifts_of
from nimble_shell.services.whole_shell import shaped

CAMPUS = campus()
BUILDINGS = ("main-laboratory", "seed-barn", "bunkhouse", "sample-cold-store", "pump-house")


def lifts(building: str) -> list[tuple[float, Lifted]]:
    found = shaped(CAMPUS, building)
    return [(one.panel.mass, lift) for _, one, lift in lifts_of(CAMPUS, found, set_out_building(CAMPUS, found))]


@pytest.mark.parametrize("building", BUILDINGS)
def test_every_panel_that_hangs_is_in_balance_under_its_hook_and_weighs_what_the_set_out_says(building: str) -> None:
    hanging = 0
    for mass, one in lifts(building):
        assert one.weight.mass == pytest.approx(mass, rel=1e-9)
        if one.slung is None:
            assert one.problem
            continue
        hanging += 1
        load = one.weight.mass * 1.1 * 9.81
        over = hung(one.weight.at, one.pitch)
        force = np.zeros(3)
        moment = np.zeros(3)
        for pick, leg, angle, pull in zip(one.picks, one.slung.legs, one.slung.angles, one.slung.tension, strict=True):
            at = hung(pick, one.pitch)
            rise = leg * math.sin(math.radians(angle))
            hook = np.array([*over[:2], at[2] + rise])
            way = (hook - at) / np.linalg.norm(hook - at)
            force += pull * way
            moment += np.cross(at - over, pull * way)
        assert force[2] == pytest.approx(load, rel=1e-9)
        if len(one.picks) == 4:
            assert np.abs(force[:2]).max() <= 1e-9 * load
            assert np.abs(moment).max() <= 1e-9 * load * 1000  # of its weight at a metre
        assert min(one.slung.angles) == pytest.approx(60.0)
    assert hanging


def test_one_crane_table_says_how_far_each_panel_can_be_carried() -> None:
    building = shaped(CAMPUS, "seed-barn")
    table = (CraneRow(radius=4.0, mass=2000.0), CraneRow(radius=12.0, mass=500.0))
    near = replace(building, lifting=replace(building.lifting, table=table, radius=4.0))
    found = set_out_building(CAMPUS, building)
    for _, _, lift in lifts_of(CAMPUS, near, found):
        assert lift.crane is not None
        load = lift.weight.mass * 1.1 + 40.0
        expected = 4.0 + 8.0 * (2000.0 - load) / 1500.0 if load > 500 else 12.0
        assert lift.crane.max_radius == pytest.approx(expected if load <= 2000 else None)
        assert lift.crane.ok == (load <= 2000)


def test_a_panels_mass_is_that_of_its_layers_over_its_net_area() -> None:
    building = shaped(CAMPUS, "main-laboratory")
    found = set_out_building(CAMPUS, building)
    of = {one.id: next(a for a in CAMPUS.assemblies if a.id == one.assembly_id) for one in building.elements
          if one.assembly_id}  # fmt: skip
    face = found.faces[0]
    for one in face.panels:
        body = body_of(one, face, of[face.zone], CAMPUS.catalogue)
        per_m2 = sum(layer.d * layer.rho for layer in body.layers) / 1000
        plain = weight_of(replace(body, openings=tuple(replace(each, mass=0.0) for each in body.openings)))
        assert plain.mass == pytest.approx(per_m2 * body.net, rel=1e-9)


def test_concrete_of_a_run_is_that_of_its_lifts_and_no_lift_presses_more_than_is_rated() -> None:
    building = shaped(CAMPUS, "boat-workshop")
    for run in runs_of(CAMPUS, building):
        found = poured(run, replace(building.pour, in_lifts=True))
        assert sum(one.volume for one in found.lifts) == pytest.approx(found.volume, rel=1e-9)
        assert found.greatest is not None
        assert building.pour.rated is not None
        assert found.greatest <= building.pour.rated + 1e-9
        joints = {round(one, 6) for one in found.joints}
        assert all(round(one.high, 6) in joints for one in found.lifts[:-1])
        walls = sum(one.length for one in run.run.walls) / 1000
        most = walls * run.run.height / 1000 * run.form.core
        assert 0 < found.volume <= most


def test_picks_below_the_balance_would_let_it_turn_over() -> None:
    building = shaped(CAMPUS, "main-laboratory")
    low = replace(building, lifting=replace(building.lifting, drop=2.0))
    problems = {lift.problem for _, _, lift in lifts_of(CAMPUS, low, set_out_building(CAMPUS, building))
                if lift.pitch == 90}  # fmt: skip
    assert any("turn over" in one for one in problems)


def test_braces_stand_clear_of_openings_and_of_tie_screws() -> None:
    building = shaped(CAMPUS, "boat-workshop")
    for run in runs_of(CAMPUS, building):
        for n, one in enumerate(poured(run, building.pour).braces):
            for at in one.at:
                assert all(abs(at - tie) >= building.pour.tie_clear - 1e-9 for tie in tie_columns(run, n))
                for hole in run.run.of(n):
                    assert not hole.x / 1000 - 0.15 + 1e-9 < at < hole.right / 1000 + 0.15 - 1e-9
            gaps = [b - a for a, b in zip(one.at, one.at[1:], strict=False)]
            assert not gaps or (one.spacing is not None and max(gaps) <= one.spacing + 1e-9)


def test_a_gable_has_the_area_that_its_widths_sum_up_to() -> None:
    building = shaped(CAMPUS, "boat-workshop")
    gables = [one for one in runs_of(CAMPUS, building) if one.gable]
    assert gables
    for run in gables:
        high, count = run.run.height, 4000
        heights = [(n + 0.5) * high / count for n in range(count)]
        spans = [run.run.at(y) for y in heights]
        widths = sum(span[1] - span[0] for span in spans if span is not None) * high / count
        assert gross_area(run) == pytest.approx(widths * 1e-6, rel=1e-5)
