"""Weights by adding up, statics closed, slings by hand, crane, turning, order of work by trying, drift by trying."""

from __future__ import annotations

import itertools
import math
import random

import numpy as np
import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.setout.drift import DriftCase, mend
from nimble_shell.core.site.crane import crane_use, people, speed_at, turning, wind_force
from nimble_shell.core.site.order import After, Task, cycle_of, plan_of, site_time, violations
from nimble_shell.core.site.slings import hung, slung
from nimble_shell.core.site.weight import Body, Hole, Layer, Stick, weight_of

OUTLINE = ((0.0, 0.0), (2400.0, 0.0), (2400.0, 4000.0), (0.0, 4000.0))


def test_weight_and_centre_of_layers_holes_units_and_sticks() -> None:
    body = Body(
        outline=OUTLINE,
        layers=(Layer(d=12, rho=600), Layer(d=200, rho=20), Layer(d=10, rho=1000, region=((0, 0), (2400, 0), (2400, 400), (0, 400)))),
        openings=(Hole(x=400, y=1000, w=1000, h=1200, mass=40.0, z=150.0),),
        members=(Stick(a=(0, 0), b=(2400, 0), per_m=4.0, z=112.0),),
    )  # fmt: skip
    full, gone, strip = 2.4 * 4.0, 1.0 * 1.2, 2.4 * 0.4
    parts = [
        ((full - gone) * 0.012 * 600, 6.0), ((full - gone) * 0.2 * 20, 112.0), (strip * 0.01 * 1000, 217.0),
        (40.0, 150.0), (2.4 * 4.0, 112.0),
    ]  # fmt: skip
    found = weight_of(body)
    mass = sum(one for one, _ in parts)
    assert found.mass == pytest.approx(mass)
    assert found.at[2] == pytest.approx(sum(one * z for one, z in parts) / mass)
    skins_y = (full * 2000 - gone * 1600) / (full - gone)
    y = (parts[0][0] * skins_y + parts[1][0] * skins_y + parts[2][0] * 200 + 40 * 1600 + 0) / mass
    assert found.at[1] == pytest.approx(y)
    assert (body.gross, body.net) == pytest.approx((full, full - gone))


@pytest.mark.parametrize("seed", range(30))
def test_pulls_hold_the_load_in_all_three_ways(seed: int) -> None:
    """ΣF = 0 and, as all forces meet in the hook over the centre, ΣM = 0; no state with one leg slack is beyond the most."""
    chance = random.Random(seed)
    picks = [(x + chance.uniform(-200, 200), y + chance.uniform(-200, 200), 222.0)
             for x, y in ((400, 700), (2000, 700), (2000, 3300), (400, 3300))]  # fmt: skip
    centre, pitch, load = (1200.0, 2000.0, 111.0), chance.choice([0.0, 25.0, 40.0]), 2000.0
    found = slung(picks, centre, pitch, load, height=None, angle=55.0)
    hook_z = hung(picks[0], pitch)[2] + found.legs[0] * math.sin(math.radians(found.angles[0]))
    hook = np.array([*hung(centre, pitch)[:2], hook_z])
    ways = [hook - hung(one, pitch) for one in picks]
    assert [float(np.linalg.norm(one)) for one in ways] == pytest.approx(found.legs)
    total = sum(pull * way / np.linalg.norm(way) for pull, way in zip(found.tension, ways, strict=True))
    assert total == pytest.approx([0.0, 0.0, load], abs=1e-6)
    moments = sum(np.cross(hung(one, pitch) - hung(centre, pitch), pull * way / np.linalg.norm(way))
                  for one, pull, way in zip(picks, found.tension, ways, strict=True))  # fmt: skip
    assert moments == pytest.approx([0.0, 0.0, 0.0], abs=1e-4 * load)
    assert min(found.angles) == pytest.approx(55.0)
    least = np.linalg.lstsq(np.array([way / np.linalg.norm(way) for way in ways]).T, [0, 0, load], rcond=None)[0]
    assert found.tension == pytest.approx(least)
    assert all(most is not None and most >= 0 for most in found.tension_max)
    assert sum(most or 0.0 for most in found.tension_max) >= sum(found.tension) - 1e-6


def test_two_legs_share_the_load_by_their_distance() -> None:
    found = slung(
        [(600, 4000, 111), (1800, 4000, 111)], (1000.0, 2000.0, 111.0), 90.0, 900.0, height=1000.0, angle=None
    )
    up = [pull * math.sin(math.radians(angle)) for pull, angle in zip(found.tension, found.angles, strict=True)]
    assert up == pytest.approx([600.0, 300.0])
    with pytest.raises(DomainError, match="over one another"):
        slung([(600, 0, 0), (600, 100, 0)], (600.0, 50.0, 0.0), 90.0, 1.0, height=100.0, angle=None)


def test_the_crane_is_linear_between_its_rows() -> None:
    table = [(5.0, 900.0), (10.0, 400.0), (20.0, 100.0)]
    use = crane_use(table, 8.0, 300.0)
    assert (use.capacity, use.use, use.ok) == pytest.approx((600.0, 0.5, True))
    assert use.max_radius == pytest.approx(10 + 10 / 3)
    far = crane_use(table, 25.0, 50.0)
    assert (far.capacity, far.use, far.ok, far.max_radius) == (None, None, False, 20.0)
    assert crane_use(table, 5.0, 1000.0).max_radius is None


def test_wind_turning_and_people_by_hand() -> None:
    force = wind_force(10.0, 12.0, 1.3, 1.25)
    assert force == pytest.approx(0.5 * 1.25 * 144 * 1.3 * 10)
    assert speed_at(force, 10.0, 1.3, 1.25) == pytest.approx(12.0)
    assert turning(1000.0, (2000.0, 100.0), (4000.0, 100.0), 0.0) == pytest.approx(500.0)
    upright = turning(1000.0, (2000.0, 100.0), (4000.0, 0.0), 60.0)
    assert upright == pytest.approx(1000 * (1000 - 100 * math.sin(math.pi / 3)) / 2000)
    assert (people(50.0, 25.0, 1), people(50.1, 25.0, 1), people(10.0, 25.0, 2)) == (2, 3, 2)


def every_start(tasks: list[Task], most: int) -> list[dict[str, int]]:
    ids = [one.id for one in tasks]
    hours = {one.id: one.hours for one in tasks}
    good = []
    for starts in itertools.product(range(most + 1), repeat=len(ids)):
        at = dict(zip(ids, starts, strict=True))
        if all(at[one.id] >= at[each.id] + hours[each.id] + each.wait
               and (each.within is None or at[one.id] <= at[each.id] + hours[each.id] + each.within)
               for one in tasks for each in one.after):  # fmt: skip
            good.append(at)
    return good


@pytest.mark.parametrize("seed", range(40))
def test_no_start_is_earlier_and_what_is_critical_cannot_move(seed: int) -> None:
    chance = random.Random(seed)
    tasks = []
    for n in range(4):
        after = tuple(After(id=f"t{k}", wait=chance.choice([0, 0, 1]), within=chance.choice([None, None, 1, 2]))
                      for k in range(n) if chance.random() < 0.5)  # fmt: skip
        tasks.append(Task(id=f"t{n}", hours=chance.randint(0, 2), after=after))
    every, plan = every_start(tasks, 9), plan_of(tasks)
    if not every:
        assert plan is None
        return
    assert plan is not None
    earliest = {key: min(one[key] for one in every) for key in every[0]}
    assert dict(plan.earliest) == pytest.approx(earliest)
    hours = {one.id: one.hours for one in tasks}
    total = max(earliest[key] + hours[key] for key in earliest)
    assert plan.total == total
    kept = [one for one in every if all(one[key] + hours[key] <= total for key in one)]
    floats = {key: max(one[key] for one in kept) - earliest[key] for key in earliest}
    assert plan.critical == tuple(sorted(key for key, slack in floats.items() if slack == 0))


def test_cycles_and_broken_orders_are_named() -> None:
    ring = [Task(id="a", hours=1, after=(After(id="c"),)), Task(id="b", hours=1, after=(After(id="a"),)),
            Task(id="c", hours=1, after=(After(id="b"),)), Task(id="d", hours=1)]  # fmt: skip
    assert set(cycle_of(ring) or ()) == {"a", "b", "c"}
    line = [
        Task(id="a", hours=1),
        Task(id="b", hours=1, after=(After(id="a"),)),
        Task(id="c", hours=1, after=(After(id="b"),)),
    ]
    assert cycle_of(line) is None
    assert violations(line, ["b", "a"]) == (("b", "a"),)
    assert violations(line, ["c"]) == (("c", "b"),)


def test_pieces_are_not_carried_over_night() -> None:
    one = site_time([3.0, 3.0, 3.0], 8.0, 1.0, 1, 2)
    assert (one.days, one.per_day, one.last_day) == (4, (2, 1), 3.0)
    two = site_time([3.0, 3.0, 3.0, 3.0, 6.0], 8.0, 1.0, 2, 0)
    assert (two.days, two.per_day, two.last_day) == (2, (4, 1), 6.0)


@pytest.mark.parametrize("seed", range(25))
def test_no_other_trims_and_rasps_are_fewer(seed: int) -> None:
    chance = random.Random(seed)
    n, m = 3, chance.randint(1, 2)
    case = DriftCase(
        nominal=1200.0, sheets=tuple(1200.0 + chance.choice([-1.0, 0.0, 1.0]) for _ in range(n)),
        courses=tuple(tuple(1200.0 + chance.choice([-2.0, -1.0, 0.0, 1.0, 2.0]) for _ in range(n)) for _ in range(m)),
        tolerance=1.0, step=1.0, max_trim=2.0, thickness=200.0,
    )  # fmt: skip
    best = None
    caps = [max(0, int(one - 1200)) for course in case.courses for one in course]
    for trims in itertools.product(range(3), repeat=n):
        for rasps in itertools.product(*(range(cap + 1) for cap in caps)):
            good = True
            for c, course in enumerate(case.before):
                drift = [course[k] + sum(trims[: k + 1]) - sum(rasps[c * n : c * n + k + 1]) for k in range(n)]
                good &= all(abs(one) <= 1.0 for one in drift)
            if good:
                value = (sum(one > 0 for one in trims), sum(one > 0 for one in rasps), sum(trims) + sum(rasps))
                best = value if best is None else min(best, value)
    found = mend(case)
    if best is None:
        assert found is None
    else:
        assert found is not None
        assert found.proved
        assert found.counts == pytest.approx(best)
        assert all(abs(one) <= 1.0 + 1e-9 for course in found.after for one in course)
