"""A build-up by the hour: balanced, repeating, and moved by what should move it."""

from __future__ import annotations

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly.life import Life, Seasons
from nimble_shell.core.moisture.hourly.outdoors import Exposure
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.progress import Stopped, watched

BASIS = Basis()
TWO = Life(years=2)


@cache
def found(system: str, life: Life = TWO) -> Seasons:
    direction: Direction = "up" if system.endswith("roof") else "down" if system == "slab" else "horizontal"
    coarse = replace(life, coarse=True)  # fewer cells say as much of these
    return seasons(wall(system), CATALOGUE, BASIS, coarse, direction)


@cache
def wall(system: str) -> Assembly:
    return SYSTEMS[system].assembly("w", system)


@pytest.mark.parametrize("system", ["sip", "metal-panel", "mesh-mortar"])
def test_water_and_heat_are_balanced_and_every_figure_is_one(system: str) -> None:
    one = found(system)
    assert abs(one.balance_error) < 1e-9
    assert one.heat_error < 1e-6
    assert one.came_in == pytest.approx(float((one.water[-1] - one.water[0]).sum()), abs=1e-9)
    for values in (one.theta, one.phi, one.water, one.mould, one.wood_share):
        assert np.isfinite(values).all()
    assert one.phi.max() <= 1
    assert len(one.water) == 365 * one.years + 1
    assert len(one.mould) == 365 * one.years
    assert one.theta.shape == one.phi.shape == one.w.shape == (len(one.hours), len(one.x))
    assert (np.diff(one.x) > 0).all()


def test_a_wall_that_dries_comes_to_the_same_year_from_wherever_it_began() -> None:
    wet, dry = (found("sip", Life(years=4, phi_0=phi)) for phi in (0.95, 0.5))
    assert wet.repeats
    assert dry.repeats
    assert wet.water[-1].sum() == pytest.approx(dry.water[-1].sum(), rel=0.02)
    assert wet.water[0].sum() > 1.5 * dry.water[0].sum()
    assert wet.worst_wood[1] == pytest.approx(dry.worst_wood[1], rel=0.03)


def test_a_leak_wets_the_outer_skin_and_the_tighter_joint_does_so_less() -> None:
    roof = [
        found("sip-roof", Life(years=2, leakage=leakage, height=3.5, exposure=Exposure(tilt=55)))
        for leakage in (0.0, 0.1, 0.9)
    ]
    shares = [one.worst_wood[1] for one in roof]
    assert shares == sorted(shares)
    assert shares[2] > 0.20 > shares[0]
    assert roof[2].worst_mould[1] > roof[0].worst_mould[1]


def test_fresh_concrete_dries_through_its_foam_and_says_when() -> None:
    life = Life(years=2, fresh=True)
    fresh, dry = found("mesh-mortar", life), found("mesh-mortar")
    assert fresh.water[0].sum() > 2 * dry.water[0].sum()
    days = dict(fresh.dry_after)
    mortar = [at for at, layer in enumerate(wall("mesh-mortar").layers) if layer.material == "structural-mortar"]
    assert set(mortar) <= set(days)
    assert all(day is None or day > 10 for at, day in days.items() if at in mortar)
    assert dry.dry_after == ()


def test_a_wetter_room_wets_and_a_still_gap_keeps_the_cladding_wet() -> None:
    plain, damp = (found("cassette", Life(years=1, damper=more)) for more in (0.0, 0.2))
    last = plain.last
    assert damp.water[last].sum(axis=1).mean() > plain.water[last].sum(axis=1).mean()
    still = found("cassette", Life(years=1, gap=0.0))
    assert still.worst_wood[1] != pytest.approx(plain.worst_wood[1], rel=1e-3)


def test_a_slab_on_the_ground_is_run_and_says_what_is_taken_for_the_ground() -> None:
    one = found("slab", Life(years=1))
    assert any("ground below" in note for note in one.notes)
    assert one.theta[-100:, -1].min() > -5


def test_what_has_no_data_is_named_and_nothing_else_is() -> None:
    bare = replace(CATALOGUE["osb"], key="own-board", name="Own board", w80=None, w_f=None, A_w=None)
    own = {**CATALOGUE, "own-board": bare}
    sip = wall("sip")
    layers = tuple(replace(one, material="own-board") if one.material == "osb" else one for one in sip.layers)
    swapped = seasons(replace(sip, layers=layers), own, BASIS, Life(years=1))
    assert swapped.notes == ("Own board has no sorption data: derived from its density as panel",)
    assert found("sip").notes == ()


def test_hours_are_told_and_a_run_is_stopped_between_months() -> None:
    told: list[tuple[int, int]] = []

    def watch(done: int, of: int) -> None:
        told.append((done, of))
        if done > 3000:
            raise Stopped

    with watched(watch), pytest.raises(Stopped):
        seasons(wall("metal-panel"), CATALOGUE, BASIS, Life(years=3))
    assert told[0] == (0, 3 * 8760)
    assert 3000 < told[-1][0] < 4500


@pytest.mark.parametrize(
    "change", [{"years": 0}, {"years": 11}, {"phi_0": 0.0}, {"phi_0": 1.2}, {"gap": -1.0}, {"damper": 2.0},
               {"leakage": -0.1}]
)  # fmt: skip
def test_a_life_out_of_range_is_refused(change: dict[str, float]) -> None:
    with pytest.raises(DomainError):
        Life(**change)  # type: ignore[arg-type]


def test_a_leak_wets_the_layer_that_is_named() -> None:
    leaks, plain = (found("cassette", Life(years=1, leakage=leakage, height=3.5)) for leakage in (9.0, 0.0))
    named, warm = (found("cassette", Life(years=1, leakage=9.0, height=3.5, leak_layer=at)) for at in (5, 3))
    assert wall("cassette").layers[5].material == "wood-fibre-board"  # its outer skin
    assert named.water == pytest.approx(leaks.water)
    assert named.water[-1, 5] > plain.water[-1, 5]
    assert warm.water[:, 5].max() < leaks.water[:, 5].max()  # room air leaves little where it stays warm
    with pytest.raises(DomainError, match="outside of the ventilated gap"):
        seasons(wall("cassette"), CATALOGUE, BASIS, Life(years=1, leakage=1.0, leak_layer=8))
    with pytest.raises(DomainError, match="innermost"):
        Life(leak_layer=0)


def test_effects_are_left_out_one_by_one() -> None:
    plain = found("sip", Life(years=1))
    still = found("sip", Life(years=1, without=("storage",)))
    assert still.water[0].sum() < 0.01 * plain.water[0].sum()
    shaded = found("sip", Life(years=1, without=("sun",)))
    assert shaded.theta[:, -1].mean() != pytest.approx(plain.theta[:, -1].mean(), abs=0.05)


def test_sixty_below_is_run_without_a_figure_that_is_none() -> None:
    climate = replace(BASIS.climate, theta_e=tuple(theta - 50 for theta in BASIS.climate.theta_e))
    polar = seasons(wall("sip"), CATALOGUE, replace(BASIS, climate=climate), Life(years=1))
    assert polar.theta.min() < -60
    assert np.isfinite(polar.phi).all()
    assert abs(polar.balance_error) < 1e-9
