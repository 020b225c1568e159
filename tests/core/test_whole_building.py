"""A whole building: nothing lost between its ledger and its sums, the ground in both, and what its plant is told."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.errors import DomainError
from nimble_shell.core.shell.cut import cut_across
from nimble_shell.core.shell.decisions import _plant
from nimble_shell.core.shell.facings import by_orientation, facings_of
from nimble_shell.core.shell.glazed import orientations, shadings
from nimble_shell.core.shell.leaks import JointLeak
from nimble_shell.core.shell.measured import MeasuredBuilding, measured
from nimble_shell.core.shell.on_ground import on_ground, year_of
from nimble_shell.core.shell.plant import (
    Buffer,
    Fire,
    FreshAir,
    Ground,
    Loads,
    MeasurePrice,
    Plant,
    Tightness,
)
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.whole_building import WholeBuilding, whole_building
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus
from nimble_shell.services.whole_shell import known_of, summed_up

CAMPUS = campus()
LAB, BARN, PUMP = "main-laboratory", "seed-barn", "pump-house"


def shaped(name: str, project: Project = CAMPUS, **changes: object) -> MeasuredBuilding:
    """A building of the campus, its plant changed part by part."""
    own = next(one for one in project.buildings if one.id == name)
    found = measured(project, replace(own, plant=replace(own.plant, **changes)))  # type: ignore[arg-type]  # parts by name
    assert isinstance(found, MeasuredBuilding)
    return found


def whole(name: str = LAB, project: Project = CAMPUS, **changes: object) -> WholeBuilding:
    return summed_up(project, shaped(name, project, **changes), ())


@pytest.mark.parametrize("building", CAMPUS.buildings, ids=lambda one: one.id)
def test_ledger_and_sums_are_one(building: Building) -> None:
    made = shaped(building.id)
    found, known = summed_up(CAMPUS, made, ()), known_of(CAMPUS, made, (), ())
    assert known.ledger.H is not None
    assert value_of(found.sums.H_tr) == pytest.approx(value_of(known.ledger.H), rel=1e-9)
    hung = sum(one.H for one in found.losses if one.H is not None)
    assert hung == pytest.approx(value_of(found.sums.H), rel=1e-9)
    shares = [value_of(one) for one in found.sums.shares.values() if one is not None]
    assert sum(shares) == pytest.approx(1.0)


def test_a_slab_is_counted_with_its_ground_in_both() -> None:
    found = whole()
    assert found.ground is not None
    line = next(one for one in known_of(CAMPUS, shaped(LAB), (), ()).ledger.lines if one.station == "H")
    assert line.U_kind == "with the ground"
    assert line.H is not None
    assert value_of(line.H) == pytest.approx(value_of(found.ground.figures.H_g), rel=1e-6)
    deeper = whole(ground=Ground(edge_depth=1.2))
    bare = whole(ground=Ground())
    assert value_of(deeper.sums.H_g) < value_of(bare.sums.H_g)


def test_walls_in_the_ground_make_a_basement() -> None:
    pump = shaped(PUMP)
    found = on_ground(pump, Ground(), dict.fromkeys((one.id for one in pump.elements), 2.0))
    assert found is not None
    assert found.figures.U_bw is not None
    assert set(found.transmittances) == {*found.floors, *found.walls}
    assert on_ground(pump, Ground(), {}) is None


def test_the_first_harmonic_of_a_cosine_is_it() -> None:
    outside = [8.0 - 11.0 * np.cos(2 * np.pi * (m - 1.5) / 12) for m in range(1, 13)]
    year = year_of(replace(Basis().climate, theta_e=tuple(outside)), [20.0] * 12)
    assert (year.theta_e, year.theta_e_amplitude, year.tau) == pytest.approx((8.0, 11.0, 1.5))
    assert year.theta_i_amplitude == pytest.approx(0.0, abs=1e-9)


def test_an_unheated_space_without_figures_is_outside_and_with_them_warmer() -> None:
    open_, closed = (whole(BARN, buffer=one) for one in (Buffer(), Buffer(H_outwards=10.0, V=30.0, n=0.5)))
    assert closed.sums.b != {}
    assert value_of(closed.sums.H_tr) < value_of(open_.sums.H_tr)


def test_faces_look_where_they_look() -> None:
    lab = shaped(LAB)
    facings = facings_of(lab)
    assert {one.azimuth for one in facings if one.tilt == 90} == {0, 90, 180, 270}
    turned = facings_of(measured(CAMPUS, replace(lab.as_stored(), north=30.0)))  # type: ignore[arg-type]  # it has a shape
    assert {one.azimuth for one in turned if one.tilt == 90} == {30, 120, 210, 300}
    panes = known_of(CAMPUS, lab, (), ()).panes
    assert sum(by_orientation(panes).values()) == pytest.approx(lab.shape.takeoff.openings.area)


def test_leaks_hang_at_their_stations_and_edges_without_a_joint_leak_too() -> None:
    lab = shaped(LAB, tightness=Tightness(services=10))
    sealed = [JointLeak(id="j1", name="Ridge", station="A", length=12.0, q=(0.1, 0.4))]
    known = replace(known_of(CAMPUS, lab, (), ()), leaks=sealed)
    found = whole_building(lab, CAMPUS.basis, known)
    by = {one.id: found.leaks.items[one.id] for one in found.leak_rows}
    assert [value_of(q) for q in by["joint-j1"]] == pytest.approx([1.2, 2.4, 4.8])
    assert [value_of(q) for q in by["services"]] == pytest.approx([5, 15, 40])
    workshop = whole("boat-workshop")
    assert any(one.name.endswith("no joint yet") for one in workshop.leak_rows)


def test_a_hood_draws_and_a_flue_says_how_far() -> None:
    calm = whole(fire=Fire())
    assert calm.drawn is None
    hood = whole(fire=Fire(hood=300.0, flue=True, limit=4.0))
    assert hood.drawn is not None
    assert hood.drawn.draught is not None
    assert not hood.drawn.draught.ok
    assert value_of(hood.drawn.draught.allowed_extract) < 300


def test_the_room_follows_the_month_and_its_air() -> None:
    found = whole(air=FreshAir(persons=4, moisture=0.4))
    damp = whole(air=FreshAir(persons=4, moisture=0.8))
    assert len(found.rooms) == 12
    for dry, wet in zip(found.rooms, damp.rooms, strict=True):
        assert value_of(wet.phi_i) > value_of(dry.phi_i)


def test_mass_moves_the_hot_day_and_shade_lowers_it() -> None:
    light, heavy = (whole(loads=Loads(inner_mass=one)) for one in (0.0, 300e3))
    assert np.ptp(heavy.cooling.free) < np.ptp(light.cooling.free)
    assert heavy.cooling.free.mean() == pytest.approx(light.cooling.free.mean(), abs=0.5)  # radiation falls elsewhere
    shaded = whole(loads=Loads(shade=0.3, overhang=0.8))
    assert shaded.cooling.peak < light.cooling.peak
    assert shaded.cooling.solar.sum() < light.cooling.solar.sum()


def test_the_cold_day_is_that_of_its_sums() -> None:
    found = whole()
    basis = CAMPUS.basis
    cold = basis.indoor.theta_heating - basis.site.theta_winter
    assert value_of(found.heating.transmission) == pytest.approx(value_of(found.sums.H_D) * cold)


def test_the_section_closes_and_is_as_wide_as_the_plan() -> None:
    section = cut_across(shaped(LAB))
    assert section.width == pytest.approx(8.4)
    assert section.floors == pytest.approx((3.04,))
    ends = [tuple(np.round(point, 6)) for face in section.faces for point in face.outer]
    assert all(ends.count(one) == 2 for one in ends)


def test_glass_lowers_the_wall_and_the_break_even_is_on_its_curve() -> None:
    known = known_of(CAMPUS, shaped(LAB), (), ())
    found = orientations(known.facings, known.panes, known.ledger, 3.0)
    assert [one.azimuth for one in found] == [0, 90, 180, 270, None]
    for one in found:
        assert list(one.curve) == sorted(one.curve, reverse=True)
        assert one.break_even is not None
        assert np.interp(one.break_even, np.arange(13) / 20, one.curve) == pytest.approx(3.0, rel=0.02)
    north, south = (next(one for one in shadings(known.panes, Loads(overhang=0.8), 54.0) if one.azimuth == azimuth)
                    for azimuth in (0.0, 180.0))  # fmt: skip
    assert south.summer is not None
    assert south.winter is not None
    assert south.summer < south.winter
    assert north.winter is None


@pytest.mark.parametrize(
    ("changes", "keys"),
    [
        ({"tightness": Tightness(n50_asked=0.05)}, {"n50"}),
        ({"fire": Fire(hood=400.0, flue=True)}, {"draught"}),
        ({"air": FreshAir(apart=1.0)}, {"apart"}),
        ({"ground": Ground(frost=1.2, footing=0.6)}, {"frost"}),
        ({"ground": Ground(frost=1.2, footing=0.6, edge_width=1.0)}, set()),
        ({"ground": Ground(gas_pipe="no", gas_membrane="yes")}, {"gas-pipe"}),
        ({}, set()),
    ],
)
def test_what_its_plant_misses_is_open(changes: dict[str, object], keys: set[str]) -> None:
    usual: dict[str, object] = {"tightness": Tightness(), "fire": Fire(), "air": FreshAir(), "ground": Ground()}
    made = shaped(LAB, **(usual | changes))
    assert {one.key for one in _plant(made, summed_up(CAMPUS, made, ()))} == keys


@pytest.mark.parametrize(
    ("part", "field", "value"),
    [
        (Ground, "lambda_", 0.0), (Ground, "rho_c", 1.0), (Ground, "edge_depth", -0.1), (Ground, "edge_d", 0.0),
        (Ground, "edge_lambda", 5.0), (Tightness, "n50_asked", 0.0), (Tightness, "exponent", 0.4),
        (Tightness, "openings", (2.0, 1.0, 3.0)), (Tightness, "services", -1), (Tightness, "shelter_e", 0.0),
        (FreshAir, "eta_t", 1.2), (FreshAir, "persons", -1.0), (FreshAir, "apart", -1.0), (FreshAir, "q_design", -5.0),
        (Fire, "wind", 61.0), (Fire, "limit", 0.0), (Fire, "hood", -1.0), (Fire, "flue_z", 90.0),
        (Loads, "overhang_gap", -0.1), (Loads, "rule_heating", 0.0), (Loads, "shade", 1.5), (Loads, "gains", -3.0),
        (Buffer, "V", -1.0), (MeasurePrice, "cost", -1.0), (Plant, "floor_area", 0.0),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field(part: type, field: str, value: object) -> None:
    more = {"key": "core"} if part is MeasurePrice else {}
    with pytest.raises(DomainError) as refused:
        part(**{field: value}, **more)
    assert refused.value.issues[0].path[-1] in (field, field.rstrip("_"))
