"""The same optimum by an integer programme over strips of the definition, and with joints that have to be."""

from __future__ import annotations

import random
from dataclasses import replace

import numpy as np
import pytest
from core.setout.by_definition import Storey, layer_sum, legal_joint, member, storeys, strip_sum, subsets
from scipy.optimize import Bounds, LinearConstraint, milp

from nimble_shell.core.errors import DomainError
from nimble_shell.core.setout.elevation import Elevation, Opening, Post
from nimble_shell.core.setout.panels import NoWay, Pin, SetOut, set_out
from nimble_shell.core.setout.rules import Blank, Objective, Rules

RULES = Rules(layout="free", step=150.0, joint_at_edge=True, at_opening="either", edge_clear=150.0, min_strip=300.0,
              blanks=(Blank(width=1200.0, length=2800.0), Blank(width=2400.0, length=2800.0)),
              module_widths=(1200.0, 2400.0))  # fmt: skip
WEIGHTS = {"panels": 100.0, "off_module": 10.0, "members": 3.0, "waste": 1.0}


def wall(chance: random.Random, length: float) -> Elevation:
    openings, x = [], 300.0
    while x + 2600 < length:
        w = 150.0 * chance.randint(4, 10)
        openings.append(Opening(name=f"O{len(openings)}", x=x, y=chance.choice([0.0, 900.0]), w=w, h=1350.0))
        x += w + 150.0 * chance.randint(4, 14) + 37.5 * chance.randint(0, 1)
    return Elevation(outline=((0, 0), (length, 0), (length, 2700), (0, 2700)), openings=tuple(openings))


def by_programme(storey: Storey) -> float:
    """A flow of one from end to end over legal strips, in whole numbers."""
    x0, x1 = storey.ends
    edges = [edge for one in storey.openings for edge in (one.x, one.right)]
    grid = np.arange(x0, x1, RULES.step)
    places = [x0, *sorted({x for x in (*grid, *edges) if legal_joint(x, storey, RULES)}), x1]
    arcs, costs = [], []
    for i, u in enumerate(places):
        for j in range(i + 1, len(places)):
            v = places[j]
            found = strip_sum(storey, u, v, RULES) if v - u <= 2400.0 + 1e-6 or edges else None
            if found is not None:
                inner = v < x1
                arcs.append((i, j))
                costs.append(WEIGHTS["panels"] * found.panels + WEIGHTS["off_module"] * found.off_module
                             + WEIGHTS["waste"] * found.waste + WEIGHTS["members"] * inner)  # fmt: skip
    balance = np.zeros((len(places), len(arcs)))
    for n, (i, j) in enumerate(arcs):
        balance[i, n], balance[j, n] = 1, -1
    flow = np.zeros(len(places))
    flow[0], flow[-1] = 1, -1
    solved = milp(costs, constraints=LinearConstraint(balance, flow, flow), integrality=np.ones(len(costs), dtype=int),
                  bounds=Bounds(0, 1))  # fmt: skip
    assert solved.x is not None
    return float(solved.fun)


@pytest.mark.parametrize("seed", range(4))
def test_an_integer_programme_finds_the_same(seed: int) -> None:
    given = wall(random.Random(seed), 7200.0)
    found = set_out(given, RULES, Objective(weights=WEIGHTS))  # type: ignore[arg-type]  # words of terms
    assert isinstance(found, SetOut)
    ours = sum(weight * getattr(found.sum, term) for term, weight in WEIGHTS.items())
    assert ours == pytest.approx(by_programme(storeys(given)[0]), abs=1e-6)


@pytest.mark.parametrize("seed", range(12))
def test_no_way_round_a_pin_is_better(seed: int) -> None:
    """Of all subsets of joints that hold the pinned one, which need not lie on the grid."""
    chance = random.Random(seed)
    rules = replace(RULES, step=600.0)
    given = wall(chance, 4200.0)
    storey = storeys(given)[0]
    pin = 1013.0 + 300 * chance.randint(0, 8)
    edges = [edge for one in storey.openings for edge in (one.x, one.right)]
    free = all(abs(pin - edge) >= rules.edge_clear for edge in edges)
    free &= not any(one.x < pin < one.right for one in storey.openings)
    found = set_out(given, rules, Objective(order=("panels", "members")), [Pin(0, pin)])
    if not free:
        assert isinstance(found, NoWay)
        assert "no joint can stand" in found.reason
        return
    grid = [600.0 * n for n in range(1, 7)]
    places = sorted({pin, *(x for x in (*grid, *edges) if legal_joint(x, storey, rules))})
    every = (layer_sum(storey, some, rules) for some in subsets(places) if pin in some)
    best = min(((one.panels, one.members) for one in every if one is not None), default=None)
    if best is None:
        assert isinstance(found, NoWay)
        return
    assert isinstance(found, SetOut)
    assert pin in found.bands[0][0].joints
    assert (found.sum.panels, found.sum.members) == best
    assert found.sum.member_length == pytest.approx(sum(member(storey, x) for x in found.bands[0][0].joints))


def lopsided(joints: tuple[float, ...], length: float) -> int:
    return sum(all(abs(length - x - other) > 1e-6 for other in joints) for x in joints)


@pytest.mark.parametrize("order", [("lopsided", "panels"), ("panels", "lopsided"), ("members", "lopsided", "waste")])
@pytest.mark.parametrize("seed", range(6))
def test_no_subset_of_joints_mirrors_itself_better(seed: int, order: tuple[str, ...]) -> None:
    rules = replace(RULES, step=700.0, mirrored=True)
    given = wall(random.Random(100 + seed), 4400.0)
    storey, length = storeys(given)[0], 4400.0
    edges = [edge for one in storey.openings for edge in (one.x, one.right)]
    grid = [700.0 * n for n in range(1, 7)]
    turned = replace(rules, origin=length)  # the grid as it lies from the right end
    both = {x for x in (*grid, *edges) if legal_joint(x, storey, rules)}
    both |= {length - x for x in grid if legal_joint(length - x, storey, turned)}
    places = sorted(both)
    every = [(one, layer_sum(storey, one, rules)) for one in subsets(places)]
    best = min(
        tuple(lopsided(some, length) if term == "lopsided" else getattr(found, term) for term in order)
        for some, found in every if found is not None
    )  # fmt: skip
    answer = set_out(given, rules, Objective(order=order))  # type: ignore[arg-type]  # words of terms
    assert isinstance(answer, SetOut)
    assert answer.sum.lopsided == lopsided(answer.bands[0][0].joints, length)
    assert tuple(getattr(answer.sum, term) for term in order) == pytest.approx(best)


@pytest.mark.parametrize("seed", range(6))
def test_no_subset_of_joints_stands_better_on_the_storey_below(seed: int) -> None:
    rules = replace(RULES, step=600.0)
    chance = random.Random(200 + seed)
    lower, upper = wall(chance, 4200.0), wall(chance, 4200.0)
    raised = tuple(replace(one, name=f"U{one.name}", y=one.y + 2700.0) for one in upper.openings)
    given = Elevation(outline=((0, 0), (4200, 0), (4200, 5400), (0, 5400)), openings=(*lower.openings, *raised),
                      levels=(2700.0,))  # fmt: skip
    answer = set_out(given, rules, Objective(order=("panels", "astray", "members")))
    assert isinstance(answer, SetOut)
    below, (above,) = answer.bands[0][0].joints, answer.bands[1]
    storey = storeys(given)[1]
    edges = [edge for one in storey.openings for edge in (one.x, one.right)]
    grid = [600.0 * n for n in range(1, 7)]
    places = sorted({x for x in (*grid, *edges) if legal_joint(x, storey, rules)})
    best = min(
        (found.panels, sum(all(abs(x - one) > 1e-6 for one in below) for x in some), found.members)
        for some in subsets(places) if (found := layer_sum(storey, some, rules)) is not None
    )  # fmt: skip
    assert (above.sum.panels, above.sum.astray, above.sum.members) == best


def test_no_joint_comes_into_a_post_and_one_may_stand_at_its_edge() -> None:
    """The best joint of the plain wall lies in the post: beside it there are the edge, or what keeps clear."""
    given = Elevation(outline=((0, 0), (2400, 0), (2400, 2700), (0, 2700)))
    rules = replace(RULES, blanks=(Blank(width=1200.0, length=2800.0),))
    plain = set_out(given, rules, Objective(order=("panels", "members")))
    assert isinstance(plain, SetOut)
    assert plain.bands[0][0].joints == (1200.0,)
    held = set_out(replace(given, posts=(Post(0, 1162.0, 76.0),)), rules, Objective(order=("panels", "members")))
    assert isinstance(held, SetOut)
    for x in held.bands[0][0].joints:
        assert x in (1162.0, 1238.0) or x <= 1162.0 - 150 or x >= 1238.0 + 150
    assert held.sum.panels == 3
    inside = replace(given, posts=(Post(0, 2380.0, 76.0),))
    with pytest.raises(DomainError, match="beyond the ends"):
        set_out(inside, rules, Objective(order=("panels",)))
