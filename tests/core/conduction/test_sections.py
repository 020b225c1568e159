"""Sections: closed forms, invariants, and what happens to sections that cannot be solved."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nimble_shell.core.conduction.mesh import build, first_grid, graded
from nimble_shell.core.conduction.section import Region, Section, SurfaceSegment
from nimble_shell.core.conduction.solution import solve
from nimble_shell.core.conduction.solve import solve_on
from nimble_shell.core.errors import DomainError

NOWHERE = np.empty((0, 2))


def rect(x0: float, y0: float, x1: float, y1: float, lambda_: float | None) -> Region:
    return Region(ring=((x0, y0), (x1, y0), (x1, y1), (x0, y1)), lambda_=lambda_)


def slab(
    *more: Region, temperatures: dict[str, float] | None = None, R_s: tuple[float, float] = (0.13, 0.04)
) -> Section:
    return Section(
        regions=(rect(0, 0, 1, 0.2, 0.04), *more),
        segments=(
            SurfaceSegment(a=(0, 0), b=(1, 0), env="in", R_s=R_s[0]),
            SurfaceSegment(a=(0, 0.2), b=(1, 0.2), env="out", R_s=R_s[1]),
        ),
        temperatures=temperatures or {"in": 20.0, "out": -10.0},
    )


def test_a_slab_gives_its_resistance_and_straight_temperatures() -> None:
    R = 0.13 + 5.0 + 0.04
    found = solve(slab(), np.array([(0.5, 0.0), (0.3, 0.1), (0.9, 0.2), (0.5, 0.5)]))
    assert found.coupling[("in", "out")] == pytest.approx(1 / R, rel=1e-10)
    inside = 20 - 30 * 0.13 / R
    assert found.points[:3] == pytest.approx([inside, 20 - 30 * 2.63 / R, -10 + 30 * 0.04 / R], abs=1e-9)
    assert math.isnan(found.points[3])
    assert found.f_rsi == pytest.approx(1 - 0.13 / R, abs=1e-10)
    assert found.balance is not None
    assert found.balance < 1e-9


def test_prescribed_surfaces_pass_the_same_flow_as_thin_films() -> None:
    exact = solve(slab(rect(0.4, 0, 0.5, 0.2, 0.5), R_s=(0, 0)), NOWHERE, target=1e-4).coupling[("in", "out")]
    thin = solve(slab(rect(0.4, 0, 0.5, 0.2, 0.5), R_s=(1e-7, 1e-7)), NOWHERE, target=1e-4).coupling[("in", "out")]
    assert exact == pytest.approx(thin, rel=2e-4)


def test_three_environments_see_each_other_the_same_both_ways_and_take_up_what_they_give() -> None:
    section = Section(
        regions=(rect(0, 0, 1, 0.2, 0.04), rect(0.4, 0.2, 0.6, 0.8, 0.5), rect(0.45, 0.0, 0.5, 0.2, 1.5)),
        segments=(
            SurfaceSegment(a=(0, 0), b=(1, 0), env="out", R_s=0.04),
            SurfaceSegment(a=(0, 0.2), b=(0.4, 0.2), env="room", R_s=0.13),
            SurfaceSegment(a=(0.4, 0.2), b=(0.4, 0.8), env="room", R_s=0.13),
            SurfaceSegment(a=(0.6, 0.2), b=(1, 0.2), env="stairs", R_s=0.13),
            SurfaceSegment(a=(0.6, 0.2), b=(0.6, 0.8), env="stairs", R_s=0.13),
        ),
        temperatures={"out": -5.0, "room": 21.0, "stairs": 12.0},
    )
    G = solve_on(section, first_grid(section)).G
    assert pytest.approx(G.T, abs=1e-11) == G
    assert G.sum(axis=1) == pytest.approx(0, abs=1e-10)
    found = solve(section, NOWHERE)
    assert found.balance is not None
    assert found.balance < 1e-8
    assert found.f_rsi is None
    assert all(value is not None and value > 0 for value in found.coupling.values())
    assert found.heat_flow["room"] == pytest.approx(
        found.coupling[("out", "room")] * 26 + found.coupling[("room", "stairs")] * 9, rel=1e-9
    )


@settings(max_examples=12, deadline=None)
@given(lambda_=st.floats(0.02, 200), x=st.floats(0.1, 0.6), w=st.floats(0.005, 0.3))
def test_more_conductivity_never_lowers_the_coupling_and_temperatures_stay_between(
    lambda_: float, x: float, w: float
) -> None:
    plain = solve(slab(rect(x, 0.05, x + w, 0.2, lambda_)), NOWHERE)
    more = solve(slab(rect(x, 0.05, x + w, 0.2, lambda_ * 2)), NOWHERE)
    assert more.coupling[("in", "out")] >= plain.coupling[("in", "out")] * (1 - 2e-3)
    for place in plain.surface.values():
        assert -10 - 1e-9 <= place.min <= place.max <= 20 + 1e-9


def test_refinement_lowers_the_coupling_of_a_conforming_solution() -> None:
    section = slab(rect(0.45, 0, 0.55, 0.15, 2.0))
    grid, found = first_grid(section), []
    for _ in range(3):
        found.append(-solve_on(section, grid).G[0, 1])
        grid = grid.refined(np.ones(len(grid.x) - 1, dtype=bool), np.ones(len(grid.y) - 1, dtype=bool))
    assert found[0] > found[1] > found[2]


def test_the_error_reported_covers_the_error_made() -> None:
    section = slab(rect(0.45, 0, 0.55, 0.15, 2.0), rect(0.55, 0.1, 0.7, 0.15, 50.0))
    true = solve(section, NOWHERE, target=1e-4).coupling[("in", "out")]
    for target in (5e-3, 2e-3, 1e-3):
        found = solve(section, NOWHERE, target=target)
        assert found.estimated_error <= target
        assert abs(found.coupling[("in", "out")] / true - 1) <= found.estimated_error + 1e-4


def test_a_void_is_out_of_the_section_and_its_edge_passes_no_heat() -> None:
    found = solve(slab(rect(0.0, 0.05, 0.5, 0.15, None)), np.array([(0.2, 0.1)]))
    assert math.isnan(found.points[0])
    assert found.coupling[("in", "out")] < 1 / 5.17
    # a segment that runs through the void counts only where there is material
    open_ = solve(slab(rect(0.0, 0.1, 0.5, 0.2, None)), NOWHERE).coupling[("in", "out")]
    assert 0.5 / 5.17 < open_ < 1 / 5.17


def test_a_tapered_piece_is_solved_on_its_slope() -> None:
    # Two prescribed rays of a sector: circular isotherms' dual; L = λ·ln(r2/r1)/angle on arcs drawn as polygons.
    angle, r1, r2, n = math.pi / 2, 0.5, 1.0, 12
    arcs = [[(r * math.cos(a), r * math.sin(a)) for a in np.linspace(0, angle, n + 1)] for r in (r1, r2)]
    section = Section(
        regions=(Region(ring=(*arcs[1], *reversed(arcs[0])), lambda_=0.5),),
        segments=(
            SurfaceSegment(a=(r1, 0), b=(r2, 0), env="a", R_s=0.0),
            SurfaceSegment(a=(0, r1), b=(0, r2), env="b", R_s=0.0),
        ),
        temperatures={"a": 0.0, "b": 1.0},
    )
    found = solve(section, NOWHERE, target=1e-3).coupling[("a", "b")]
    assert found == pytest.approx(0.5 * math.log(r2 / r1) / angle, rel=1e-2)  # 12 chords lie inside the arcs


def test_triangles_fill_the_section_once() -> None:
    ring = ((0.0, 0.0), (1.0, 0.1), (0.9, 0.7), (0.2, 0.5))
    section = Section(regions=(Region(ring=ring, lambda_=1.0), rect(0.4, 0.2, 0.6, 0.4, None)),
                      segments=(SurfaceSegment(a=ring[0], b=ring[1], env="a", R_s=0.1),), temperatures={"a": 0.0})  # fmt: skip
    mesh = build(section, first_grid(section))
    p = mesh.xy[mesh.triangles]
    u, v = p[:, 1] - p[:, 0], p[:, 2] - p[:, 0]
    areas = (u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]) / 2
    shoelace = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)) / 2
    assert areas.min() > 0
    assert areas.sum() == pytest.approx(shoelace - 0.04, rel=1e-6)


def test_grid_lines_grow_gently() -> None:
    lines = graded(np.array([0.0, 0.001, 0.5, 2.0]), 0.05)
    d = np.diff(lines)
    assert {0.0, 0.001, 0.5, 2.0} <= set(np.round(lines, 9))
    assert d[np.searchsorted(lines, 0.499999)] <= 0.0500001
    assert max(np.max(d[1:] / d[:-1]), np.max(d[:-1] / d[1:])) <= 2.5001


def test_prescribed_temperatures_that_meet_have_no_finite_flow() -> None:
    section = Section(
        regions=(rect(0, 0, 1, 1, 1.0),),
        segments=(
            SurfaceSegment(a=(0, 1), b=(1, 1), env="hot", R_s=0),
            SurfaceSegment(a=(0, 0), b=(0, 1), env="cold", R_s=0),
        ),
        temperatures={"hot": 1.0, "cold": 0.0},
    )
    found = solve(section, np.array([(0.5, 0.5)]), target=1e-3)
    assert found.heat_flow == {"hot": None, "cold": None}
    assert found.balance is None
    assert 0 < found.points[0] < 1


@pytest.mark.parametrize("contrast", [1e5, 1e-5])
def test_a_contrast_of_hundred_thousand_is_solved(contrast: float) -> None:
    found = solve(slab(rect(0.45, 0.02, 0.5, 0.18, 0.04 * contrast)), NOWHERE)
    assert found.estimated_error <= 0.002
    assert found.balance is not None
    assert found.balance < 1e-6


BAD: list[tuple[str, dict[str, object]]] = [
    ("nothing_solid", {"regions": (rect(0, 0, 1, 1, None),)}),
    ("region_without_size", {"regions": (rect(0, 0, 1, 1, 1.0), rect(0, 0, 0, 1, 1.0))}),
    ("conductivity_not_positive", {"regions": (rect(0, 0, 1, 1, -1.0), rect(0, 0, 1, 1, 1.0))}),
    ("polygon_crosses_itself", {"regions": (Region(ring=((0, 0), (1, 1), (1, 0), (0.2, 1)), lambda_=1.0),)}),
    ("too_few_corners", {"regions": (Region(ring=((0, 0), (1, 1)), lambda_=1.0),)}),
    ("radius_negative", {"kind": "axisymmetric", "regions": (rect(-1, 0, 1, 1, 1.0),)}),
    ("no_boundaries", {"segments": ()}),
    ("film_out_of_range", {"segments": (SurfaceSegment(a=(0, 0), b=(1, 0), env="in", R_s=-0.1),)}),
    ("piece_without_length", {"segments": (SurfaceSegment(a=(0, 0), b=(0, 0), env="in", R_s=0.1),)}),
    ("unknown_environment", {"segments": (SurfaceSegment(a=(0, 0), b=(1, 0), env="attic", R_s=0.1),)}),
    ("environment_meets_nothing", {"segments": (SurfaceSegment(a=(0, 5), b=(1, 5), env="in", R_s=0.1),)}),
    ("nothing_solid", {"regions": (rect(0, 0, 1, 1, 1.0), rect(-1, -1, 2, 2, None))}),
    ("part_without_environment", {"regions": (rect(0, 0, 1, 1, 1.0), rect(3, 3, 4, 4, 1.0))}),
    ("too_many_cells", {"regions": tuple(rect(x / 999, x / 999, 1, 1, 1.0) for x in range(999))}),
]  # fmt: skip


@pytest.mark.parametrize(("code", "change"), BAD, ids=[code for code, _ in BAD])
def test_what_cannot_be_solved_is_refused_by_name(code: str, change: dict[str, object]) -> None:
    given: dict[str, object] = {
        "regions": (rect(0, 0, 1, 1, 1.0),),
        "segments": (SurfaceSegment(a=(0, 0), b=(1, 0), env="in", R_s=0.1),),
        "temperatures": {"in": 20.0},
    }
    with pytest.raises(DomainError) as refused:
        solve(Section(**(given | change)), NOWHERE)  # type: ignore[arg-type]
    assert code in {issue.code for issue in refused.value.issues}


def test_refinement_stops_at_the_most_unknowns_and_says_what_it_reached() -> None:
    section = slab(rect(0.45, 0, 0.55, 0.15, 2.0))
    found = solve(section, NOWHERE, target=1e-9, most=4000)
    assert found.unknowns < 4000 * 1.2
    assert found.estimated_error > 1e-9
    assert math.isinf(solve(section, NOWHERE, most=4 * 200).estimated_error)
    with pytest.raises(DomainError, match="can be solved"):
        solve(section, NOWHERE, most=40)
