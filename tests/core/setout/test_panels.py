"""Elevations cut into panels: to the optimum that trying everything finds, with every rule kept."""

from __future__ import annotations

import random
from dataclasses import replace
from itertools import pairwise
from typing import Any

import pytest
import shapely
from core.setout.by_definition import best_cost, cost, layer_sum, legal_joint, storeys

from nimble_shell.core.errors import DomainError
from nimble_shell.core.setout.elevation import Elevation, Opening, bands_of, pitched
from nimble_shell.core.setout.panels import NoWay, SetOut, set_out, what_if
from nimble_shell.core.setout.rules import TERMS, Bale, Blank, Objective, Rules

PLAIN = Rules(layout="free", step=300.0, joint_at_edge=True, at_opening="either", edge_clear=100.0, min_strip=200.0,
              blanks=(Blank(width=1200.0, length=3000.0),))  # fmt: skip
FEWEST = Objective(order=("panels", "members", "waste"))


def outline(chance: random.Random) -> tuple[tuple[float, float], ...]:
    """Level, raked, a gable, or with steps in base and top."""
    L = chance.choice([2400.0, 2700.0, 3300.0, 3600.0])
    kind = chance.choice(["level", "raked", "gable", "steps"])
    if kind == "level":
        return ((0, 0), (L, 0), (L, 2700), (0, 2700))
    if kind == "raked":
        return ((0, 0), (L, 0), (L, 2900), (0, 2300))
    if kind == "gable":
        return ((0, 0), (L, 0), (L, 2100), (L / 2, 2800), (0, 2100))
    return ((0, 0), (L / 2 + 100, 0), (L / 2 + 100, 300), (L, 300), (L, 2400), (L / 3, 2400), (L / 3, 2700), (0, 2700))


def openings(chance: random.Random, L: float) -> tuple[Opening, ...]:
    found, x = [], 150.0 * chance.randint(1, 6)
    for n in range(chance.randint(0, 2)):
        w = 150.0 * chance.randint(3, 7)
        y = chance.choice([0.0, 300.0, 900.0])
        if x + w >= L:
            break
        found.append(Opening(name=f"O{n}", x=x, y=y, w=w, h=chance.choice([1200.0, 1800.0, 2100.0 - y]), mass=40.0))
        x += w + 150.0 * chance.randint(2, 6)
    return tuple(found)


def case(seed: int) -> tuple[Elevation, Rules, Objective]:
    chance = random.Random(seed)
    shape = outline(chance)
    L = max(x for x, _ in shape)
    layout = chance.choice(["free", "free", "cover"])
    sheets = chance.choice([None, (Blank(width=1200.0, length=3000.0),),
                            (Blank(width=900.0, length=None), Blank(width=1250.0, length=2700.0))])  # fmt: skip
    rules = Rules(
        layout=layout,  # type: ignore[arg-type]  # one of them
        cover=chance.choice([600.0, 900.0]) if layout == "cover" else None,
        step=chance.choice([300.0, 400.0]),
        origin=chance.choice([0.0, 50.0]),
        joint_at_edge=chance.random() < 0.6,
        at_opening=chance.choice(["inside", "cut"] if layout == "cover" else ["inside", "bay", "either", "cut"]),  # type: ignore[arg-type]
        edge_clear=chance.choice([0.0, 100.0, 150.0]),
        min_strip=chance.choice([0.0, 300.0]),
        min_piece=chance.choice([0.0, 0.0, 250.0]),
        blanks=sheets,
        max_width=1250.0 if sheets is None else None,
        max_length=3000.0 if sheets is None else None,
        mass_per_m2=25.0,
        max_mass=chance.choice([None, None, 90.0]),
        module_widths=chance.choice([(), (600.0, 1200.0)]),
        bale=None,
    )
    if not rules.module_widths and chance.random() < 0.4:
        rules = replace(rules, bale=Bale(length=500.0, tight=20.0, frame=100.0))
    order = chance.choice([("panels", "members", "waste"), ("off_module", "panels"), ("members", "waste"), ("waste",),
                           ("panels", "off_module", "member_length")])  # fmt: skip
    return Elevation(outline=shape, openings=openings(chance, L)), rules, Objective(order=order)  # type: ignore[arg-type]


@pytest.mark.parametrize("start", range(0, 240, 40))
def test_the_optimum_is_what_trying_everything_finds(start: int) -> None:
    looked = none = 0
    for seed in range(start, start + 40):
        elevation, rules, objective = case(seed)
        try:
            found = set_out(elevation, rules, objective)
        except DomainError:
            continue
        (storey,) = storeys(elevation)
        expected = best_cost(storey, rules, objective)
        looked += 1
        if expected is None:
            none += 1
            assert isinstance(found, NoWay), seed
            continue
        assert isinstance(found, SetOut), seed
        ((layer,),) = found.bands
        assert all(legal_joint(x, storey, rules) for x in layer.joints), seed
        again = layer_sum(storey, layer.joints, rules)
        assert again is not None, seed
        for term in TERMS:
            assert getattr(found.sum, term) == pytest.approx(getattr(again, term), abs=1e-6), (seed, term)
        assert cost(again, objective) == pytest.approx(expected, abs=2e-6), seed
    assert looked > 15
    assert none < looked


@pytest.mark.parametrize("seed", range(12))
def test_two_layers_keep_apart_at_the_least_cost(seed: int) -> None:
    chance = random.Random(seed)
    wall = Elevation(outline=((0, 0), (2400, 0), (2400, 2500), (0, 2700)), openings=openings(chance, 2400.0))
    rules = replace(
        PLAIN, layers=2, stagger=chance.choice([200.0, 300.0, 500.0]), at_opening=chance.choice(["either", "cut"])
    )  # type: ignore[arg-type]  # one of them
    try:
        found = set_out(wall, rules, FEWEST)
    except DomainError:
        return
    (storey,) = storeys(wall)
    expected = best_cost(storey, rules, FEWEST)
    if expected is None:
        assert isinstance(found, NoWay)
        return
    assert isinstance(found, SetOut)
    ((one, other),) = found.bands
    assert all(abs(x - y) >= rules.stagger - 1e-6 for x in one.joints for y in other.joints)
    assert cost(found.sum, FEWEST) == pytest.approx(expected, abs=2e-6)


@pytest.mark.parametrize("start", range(0, 120, 60))
def test_panels_and_openings_are_the_wall(start: int) -> None:
    for seed in range(start, start + 60):
        elevation, rules, objective = case(seed)
        try:
            found = set_out(elevation, rules, objective)
        except DomainError:
            continue
        if not isinstance(found, SetOut):
            continue
        whole = shapely.Polygon(elevation.outline).area - sum(one.w * one.h for one in elevation.openings)
        assert sum(one.piece.area for one in found.panels) == pytest.approx(whole, rel=1e-9), seed
        sizes = {one.name: one.w * one.h for one in elevation.openings}
        for one in found.panels:
            ring = shapely.Polygon(one.piece.outline)
            assert ring.is_valid or one.piece.holes == (), seed
            assert ring.exterior.is_ccw
            assert ring.area - sum(sizes[name] for name in one.piece.holes) == pytest.approx(one.piece.area), seed
            assert ring.bounds == pytest.approx((one.piece.x0, one.piece.y0, one.piece.x1, one.piece.y1))


def test_a_mirrored_and_a_shifted_wall_cost_the_same() -> None:
    for seed in range(60):
        elevation, rules, objective = case(seed)
        rules = replace(rules, origin=0.0, step=300.0)
        L = max(x for x, _ in elevation.outline)
        if L % 300:
            continue
        mirrored = Elevation(
            outline=tuple((L - x, y) for x, y in reversed(elevation.outline)),
            openings=tuple(replace(one, x=L - one.right) for one in elevation.openings),
        )
        shifted = Elevation(
            outline=tuple((x + 900.0, y - 500.0) for x, y in elevation.outline),
            openings=tuple(replace(one, x=one.x + 900.0, y=one.y - 500.0) for one in elevation.openings),
        )
        try:
            found = [set_out(one, rules, objective) for one in (elevation, mirrored, shifted)]
        except DomainError:
            continue
        sums = [cost(one.sum, objective) if isinstance(one, SetOut) else None for one in found]
        assert sums[0] == sums[1] == sums[2], seed


def test_storeys_are_cut_along_their_levels_and_set_out_alone() -> None:
    wall = Elevation(outline=((0, 0), (3000, 0), (3000, 5400), (0, 5400)), levels=(2700.0,),
                     openings=(Opening(name="W", x=900, y=3300, w=600, h=1200),))  # fmt: skip
    found = set_out(wall, PLAIN, FEWEST)
    assert isinstance(found, SetOut)
    assert [band.index for band in bands_of(wall)] == [0, 1]
    alone = set_out(Elevation(outline=((0, 0), (3000, 0), (3000, 2700), (0, 2700))), PLAIN, FEWEST)
    assert isinstance(alone, SetOut)
    assert found.bands[0] == alone.bands[0]
    assert found.bottom == pytest.approx(6.0)
    assert found.headers == pytest.approx(0.6)


def test_a_roof_is_as_long_as_its_pitch_makes_it() -> None:
    flat = Elevation(outline=((0, 0), (3000, 0), (3000, 2000), (0, 2000)))
    steep = pitched(flat, 60.0)
    found = set_out(steep, replace(PLAIN, blanks=(Blank(width=1200.0, length=None),)), FEWEST)
    assert isinstance(found, SetOut)
    assert sum(one.piece.area for one in found.panels) == pytest.approx(12e6)
    assert found.splines.length == pytest.approx(2 * 4.0)


def test_an_opening_that_is_moved_saves_a_panel() -> None:
    wall = Elevation(outline=((0, 0), (3600, 0), (3600, 2700), (0, 2700)),
                     openings=(Opening(name="D", x=1000, y=0, w=900, h=2100),))  # fmt: skip
    rules = replace(PLAIN, at_opening="inside", joint_at_edge=False, edge_clear=150.0, step=1200.0, min_strip=300.0)
    found = what_if(wall, rules, FEWEST, "D", 600.0, 50.0)
    counts = {}
    for k in range(-12, 13):
        moved = replace(wall, openings=(replace(wall.openings[0], x=1000 + 50.0 * k),))
        there = set_out(moved, rules, FEWEST)
        counts[50.0 * k] = there.sum.panels if isinstance(there, SetOut) else None
    known = [count for count in counts.values() if count is not None]
    assert found.now == counts[0.0]
    assert found.best == min(known)
    assert found.least == min(abs(way) for way, count in counts.items() if count == found.best)


@pytest.mark.parametrize(
    ("wall", "code"),
    [
        (Elevation(outline=((0, 0), (0, 2000), (2000, 2000), (2000, 0))), "not_an_outline"),
        (Elevation(outline=((0, 0), (2000, 0), (2000, 500), (500, 500), (500, 900), (2000, 900), (2000, 2000),
                            (0, 2000))), "not_in_one"),
        (Elevation(outline=((0, 0), (3000, 0), (3000, 2000), (0, 2000)), levels=(2500.0,)), "level_outside"),
        (Elevation(outline=((0, 0), (3000, 0), (3000, 2000), (0, 2000)),
                   openings=(Opening(name="W", x=2500, y=0, w=800, h=900),)), "opening_outside"),
        (Elevation(outline=((0, 0), (3000, 0), (3000, 2000), (0, 2000)),
                   openings=(Opening(name="A", x=500, y=0, w=500, h=900), Opening(name="B", x=1000, y=950, w=500, h=900))),
         "openings_meet"),
    ],
)  # fmt: skip
def test_what_is_no_elevation_is_refused_with_its_place(wall: Elevation, code: str) -> None:
    with pytest.raises(DomainError) as refused:
        bands_of(wall)
    assert refused.value.issues[0].code == code


def test_no_way_says_where_no_strip_goes_on() -> None:
    wide = Elevation(outline=((0, 0), (4000, 0), (4000, 2700), (0, 2700)),
                     openings=(Opening(name="Gate", x=1000, y=0, w=2000, h=2100),))  # fmt: skip
    found = set_out(wide, replace(PLAIN, at_opening="inside"), FEWEST)
    assert isinstance(found, NoWay)
    assert (
        "“Gate” from 1 000 mm to 3 000 mm: no panel is wider than 1 200 mm, 2 100 mm would do"
        in found.reason.replace("\N{THIN SPACE}", " ")
    )


def test_two_layers_that_must_meet_at_an_opening_say_so() -> None:
    door = Elevation(outline=((0, 0), (3000, 0), (3000, 2700), (0, 2700)),
                     openings=(Opening(name="D", x=1200, y=0, w=900, h=2100),))  # fmt: skip
    rules = replace(PLAIN, at_opening="bay", layers=2, stagger=200.0)
    assert isinstance(set_out(door, replace(rules, layers=1), FEWEST), SetOut)
    found = set_out(door, rules, FEWEST)
    assert isinstance(found, NoWay)
    assert "cannot keep 200 mm apart" in found.reason


def test_strips_follow_one_another_without_a_gap() -> None:
    found = set_out(Elevation(outline=((0, 0), (9000, 0), (9000, 2700), (0, 2700))), PLAIN, FEWEST)
    assert isinstance(found, SetOut)
    assert all(a.piece.x1 == b.piece.x0 for a, b in pairwise(found.panels))


BLANKS = (Blank(width=1200.0, length=2800.0), Blank(width=2400.0, length=2800.0))


@pytest.mark.parametrize(
    ("change", "openings", "high", "said"),
    [
        ({"mass_per_m2": 20.0, "max_mass": 5.0}, (), 2700.0, "heaviest panel may have 5 kg, 17 kg would do"),
        ({}, (), 3100.0, "no panel is longer than 2 800 mm, 3 100 mm would do"),
        ({"at_opening": "inside"}, (("O1", 700.0, 3000.0),), 2700.0, "no panel is wider than 2 400 mm, 3 200 mm would do"),
        ({"step": 150.0, "joint_at_edge": False, "at_opening": "inside", "edge_clear": 400.0},
         (("O1", 600.0, 1500.0), ("O2", 2400.0, 1500.0)), 2700.0, "keeps 400 mm from openings and posts, 150 mm would do"),
    ],
)  # fmt: skip
def test_what_cannot_be_set_out_names_the_rule_that_binds_and_what_would_do(
    change: dict[str, Any], openings: tuple[tuple[str, float, float], ...], high: float, said: str
) -> None:
    given = Elevation(
        outline=((0, 0), (4500, 0), (4500, high), (0, high)),
        openings=tuple(Opening(name=name, x=x, y=900.0, w=w, h=1200.0) for name, x, w in openings),
    )
    rules = Rules(**{"layout": "free", "step": 300.0, "joint_at_edge": True, "at_opening": "either",
                     "edge_clear": 150.0, "min_strip": 300.0, "blanks": BLANKS, **change})  # fmt: skip
    found = set_out(given, rules, Objective(order=("panels",)))
    assert isinstance(found, NoWay)
    assert said in found.reason.replace("\N{THIN SPACE}", " "), found.reason
