"""Limits of couplings, bounds, λ(θ), flows by segment and lines of heat flow of solved sections."""

from __future__ import annotations

import math

import numpy as np
import pytest

from nimble_shell.core.conduction.field import drawn, flows_by_segment, line_starts, lower_bound, surface_trace
from nimble_shell.core.conduction.flow_lines import heat_flow_lines
from nimble_shell.core.conduction.limit import extrapolated
from nimble_shell.core.conduction.refinement import limit_of
from nimble_shell.core.conduction.section import Region, Section, SurfaceSegment
from nimble_shell.core.conduction.solve import begun, once_more, refined

NONE = np.zeros((0, 2))


def box(x0: float, y0: float, x1: float, y1: float) -> tuple[tuple[float, float], ...]:
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1))


def corner(R: float = 0.0) -> Section:
    """A square leg round a corner; with no films its coupling is 2·legs + 1 − (2/π)·ln 2 in units of λ."""
    legs = 3.0
    return Section(
        regions=(Region(ring=box(0, 0, 1 + legs, 1 + legs), lambda_=1.0),
                 Region(ring=box(1, 1, 1 + legs, 1 + legs), lambda_=None)),
        segments=(SurfaceSegment(a=(0, 0), b=(1 + legs, 0), env="e", R_s=R), SurfaceSegment(a=(0, 0), b=(0, 1 + legs), env="e", R_s=R),
                SurfaceSegment(a=(1, 1), b=(1 + legs, 1), env="i", R_s=R), SurfaceSegment(a=(1, 1), b=(1, 1 + legs), env="i", R_s=R)),
        temperatures={"e": 0.0, "i": 20.0},
    )  # fmt: skip


EXACT = 2 * 3.0 + 1 - 2 / math.pi * math.log(2)


def test_the_limit_is_nearer_than_the_grid_it_comes_from_and_within_its_error() -> None:
    found = extrapolated(corner(), target=2e-4, absolute=np.inf, most=200_000)
    assert found.limit is not None
    value = -found.limit[0, 1]
    assert abs(value - EXACT) <= found.error * EXACT
    assert abs(value - EXACT) < 0.5 * abs(-found.fields.G[0, 1] - EXACT)


def test_both_bounds_hold_the_exact_coupling_on_every_grid_and_close_in() -> None:
    found = begun(corner())
    widths = []
    for _ in range(5):
        low = lower_bound(corner(), found.fields)
        high = -float(found.fields.G[0, 1])
        assert low is not None
        assert low <= EXACT <= high + 1e-9
        widths.append(high - low)
        found = once_more(corner(), found)
    assert widths == sorted(widths, reverse=True)
    assert widths[-1] < 0.2 * widths[0]


def test_there_is_no_bound_where_it_would_not_hold() -> None:
    three = corner(0.1)
    segments = (*three.segments[:3], SurfaceSegment(a=(1, 1), b=(1, 4), env="n", R_s=0.1))
    other = Section(regions=three.regions, segments=segments, temperatures={"e": 0.0, "i": 20.0, "n": 10.0})
    assert lower_bound(other, begun(other).fields) is None
    round_body = Section(regions=three.regions, segments=three.segments, temperatures=three.temperatures,
                         kind="axisymmetric")  # fmt: skip
    assert lower_bound(round_body, begun(round_body).fields) is None


@pytest.mark.parametrize("ratio", [0.25, 0.4, 0.6])
def test_a_geometric_series_goes_to_its_limit(ratio: float) -> None:
    history = [np.array([1 + ratio**n]) for n in range(1, 6)]
    limit, error = limit_of(history)
    assert limit[0] == pytest.approx(1, abs=1e-12)
    assert 0 < error < ratio**5 * 1.1
    assert limit_of(history[:2])[1] == math.inf
    assert limit_of([np.ones(1)] * 3)[1] == 0


def test_conductivity_that_rises_with_temperature_has_its_exact_flow() -> None:
    """Kirchhoff: through a slab the flux is the mean of λ over the span of temperatures."""
    table = ((0.0, 0.02), (20.0, 0.06))
    slab = Section(
        regions=(Region(ring=box(0, 0, 0.2, 0.1), lambda_=0.04, table=table),),
        segments=(
            SurfaceSegment(a=(0, 0), b=(0, 0.1), env="e", R_s=0.0),
            SurfaceSegment(a=(0.2, 0), b=(0.2, 0.1), env="i", R_s=0.0),
        ),
        temperatures={"e": 0.0, "i": 20.0},
    )
    found = refined(slab, NONE, target=1e-6)
    T = np.array([0.0, 20.0])
    flow = float(found.fields.G[1] @ T)
    assert flow == pytest.approx(0.04 * 20 / 0.2 * 0.1, rel=2e-3)
    middle = np.abs(found.fields.space.places[:, 0] - 0.1) < 1e-9
    theta = (found.fields.theta @ T)[middle]
    # ∫ λ dθ is linear in x: 0.02 θ + 0.001 θ² = half of 0.8
    assert theta.mean() == pytest.approx((-0.02 + math.sqrt(0.02**2 + 4 * 0.001 * 0.4)) / 0.002, abs=0.05)


def test_flows_by_segment_add_up_and_lines_of_heat_flow_run_from_warm_to_cold() -> None:
    section = corner(0.1)
    found = refined(section, NONE)
    T = np.array([0.0, 20.0])
    theta = found.fields.theta @ T
    segments = flows_by_segment(section, found.fields, theta)
    assert segments.sum() == pytest.approx(0, abs=1e-6)
    assert segments[2] == pytest.approx(segments[3], rel=1e-6)
    assert segments[2] + segments[3] == pytest.approx(float(found.fields.G[1] @ (T - T.mean())), rel=1e-8)
    lines = heat_flow_lines(drawn(found.fields.space, theta), line_starts(found.fields, 1, theta, count=8))
    assert len(lines) == 8
    for line in lines:
        assert min(line[0]) >= 1 - 0.02
        assert min(line[-1]) < 0.1  # at an outer face
    field = drawn(found.fields.space, theta)
    assert len(field.triangles) == 4 * len(found.fields.space.mesh.triangles)
    trace = surface_trace(found.fields, 1, theta)
    assert trace[..., 2].max() < 20
    assert np.all(np.minimum(trace[..., 0], trace[..., 1]) == pytest.approx(1.0))
