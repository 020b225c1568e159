"""The parts of the solution by themselves: elements, refinement, error estimate, flows."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.conduction.elements import (
    Space,
    assembled,
    conductances,
    edge_masses,
    edge_nodes,
    indicators,
    shape_functions,
    value_at,
)
from nimble_shell.core.conduction.mesh import Mesh, build, first_grid
from nimble_shell.core.conduction.refinement import check_size, chosen, error_of, extrapolated, halved
from nimble_shell.core.conduction.result import Extremes, Result, flows_of
from nimble_shell.core.conduction.section import Region, Section, SurfaceSegment
from nimble_shell.core.errors import DomainError


def mesh_of(lambda_: float = 2.0) -> Mesh:
    ring = ((0.1, 0.0), (1.1, 0.2), (0.9, 0.8), (0.2, 0.6))
    section = Section(
        regions=(Region(ring=ring, lambda_=lambda_),),
        segments=(SurfaceSegment(a=ring[0], b=ring[1], env="a", R_s=0.1),),
        temperatures={"a": 0.0},
    )
    return build(section, first_grid(section))


def area_of(mesh: Mesh) -> float:
    p = mesh.xy[mesh.triangles]
    u, v = p[:, 1] - p[:, 0], p[:, 2] - p[:, 0]
    return float((u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]).sum() / 2)


@given(a=st.floats(0, 1), b=st.floats(0, 1))
def test_shape_functions_sum_to_one_and_are_one_at_their_own_node(a: float, b: float) -> None:
    L = np.array([a, (1 - a) * b, (1 - a) * (1 - b)])
    assert shape_functions(L).sum() == pytest.approx(1)
    nodes = np.array([[1, 0, 0], [0, 1, 0], [0, 0, 1], [0, 0.5, 0.5], [0.5, 0, 0.5], [0.5, 0.5, 0]])
    assert shape_functions(nodes) == pytest.approx(np.eye(6))


@pytest.mark.parametrize("slope", [(1.0, 0.0), (0.0, 1.0), (3.0, -2.0)])
def test_a_straight_field_has_the_energy_of_its_slope(slope: tuple[float, float]) -> None:
    space = Space(mesh=mesh_of(), axisymmetric=False)
    theta = space.places @ np.array(slope)
    energy = theta @ (assembled(space, (space.nodes, conductances(space))) @ theta)
    assert energy == pytest.approx(2.0 * (slope[0] ** 2 + slope[1] ** 2) * area_of(space.mesh), rel=1e-10)
    along_x, along_y = indicators(space, theta)
    assert along_x.sum() + along_y.sum() == pytest.approx(0, abs=1e-12)


def test_a_quadratic_field_is_met_exactly() -> None:
    # u = x² − y²: |∇u|² = 4(x² + y²), whose integral over a triangle is exact at the middles of its sides.
    space = Space(mesh=mesh_of(1.0), axisymmetric=False)
    x, y = space.places.T
    theta = x**2 - y**2
    p = space.mesh.xy[space.mesh.triangles]
    middles = (p + np.roll(p, 1, axis=1)) / 2
    u, v = p[:, 1] - p[:, 0], p[:, 2] - p[:, 0]
    areas = (u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]) / 2
    exact = (4 * (middles**2).sum(axis=2).mean(axis=1) * areas).sum()
    assert theta @ (assembled(space, (space.nodes, conductances(space))) @ theta) == pytest.approx(exact, rel=1e-10)
    # inside a section, a harmonic field is in balance at every unknown that is not on its edge
    residual = assembled(space, (space.nodes, conductances(space))) @ theta
    edge = np.unique(edge_nodes(space, space.mesh.outer))
    inner = np.setdiff1d(np.arange(space.size), edge)
    assert np.abs(residual[inner]).max() < 1e-10
    points = np.array([(0.5, 0.4), (0.3, 0.3)])
    assert value_at(space, theta, points) == pytest.approx(points[:, 0] ** 2 - points[:, 1] ** 2, abs=1e-12)


def test_the_masses_of_an_edge_add_up_to_its_length_or_to_the_area_it_sweeps() -> None:
    mesh = mesh_of()
    ends = mesh.xy[mesh.edges[mesh.outer]]
    length = np.linalg.norm(ends[:, 1] - ends[:, 0], axis=1)
    flat = edge_masses(Space(mesh=mesh, axisymmetric=False), mesh.outer).sum(axis=(1, 2))
    round_ = edge_masses(Space(mesh=mesh, axisymmetric=True), mesh.outer).sum(axis=(1, 2))
    assert flat == pytest.approx(length)
    assert round_ == pytest.approx(2 * math.pi * ends[:, :, 0].mean(axis=1) * length)  # Pappus


def test_the_fewest_intervals_that_hold_the_bulk_are_chosen() -> None:
    x, y = chosen([np.array([10.0, 0.1, 5.0]), np.array([0.2, 4.0])])
    assert x.tolist() == [True, False, True]
    assert y.tolist() == [False, True]
    assert halved(np.array([0.0, 1.0, 3.0]), np.array([False, True])).tolist() == [0.0, 1.0, 2.0, 3.0]


@given(
    ratio=st.floats(0.05, 0.85), limit=st.floats(0.1, 100), size=st.floats(-0.3, 0.3).filter(lambda d: abs(d) > 1e-3)
)
def test_a_geometric_series_is_summed_and_its_error_covered(ratio: float, limit: float, size: float) -> None:
    history = [np.array([limit * (1 + size * ratio**n)]) for n in range(4)]
    error = abs(limit - history[-1][0]) / history[-1][0]
    assert error_of(history) >= error * (1 - 1e-9)
    if ratio <= 0.79:
        assert extrapolated(history)[0] == pytest.approx(limit, rel=1e-9)


def test_an_error_needs_three_solutions() -> None:
    one = np.array([1.0])
    assert math.isinf(error_of([one, one]))
    assert error_of([one, one, one]) == 0
    assert extrapolated([one])[0] == 1


def test_a_model_too_large_names_its_count() -> None:
    check_size([np.zeros(11), np.zeros(11)], 100, "regions")
    with pytest.raises(DomainError, match="ask for 110 cells"):
        check_size([np.zeros(11), np.zeros(12)], 100, "regions")


def test_flows_follow_from_couplings_and_meeting_temperatures_have_none() -> None:
    G = np.array([[3.0, -1.0, -2.0], [-1.0, 1.5, -0.5], [-2.0, -0.5, 2.5]])
    T = np.array([20.0, 0.0, 10.0])
    flows, coupling = flows_of(("a", "b", "c"), G, T, frozenset())
    assert flows == pytest.approx({"a": 40.0, "b": -25.0, "c": -15.0})
    assert coupling == {("a", "b"): 1.0, ("a", "c"): 2.0, ("b", "c"): 0.5}
    flows, coupling = flows_of(("a", "b", "c"), G, T, frozenset({(0, 1)}))
    assert (flows["a"], flows["b"], coupling[("a", "b")]) == (None, None, None)
    assert flows["c"] == pytest.approx(-15.0)


def test_the_temperature_factor_is_that_of_the_warmer_side() -> None:
    def side(low: float) -> Extremes:
        return Extremes(min=low, at=(0.0, 0.0), max=low + 1, at_max=(1.0, 0.0))

    found = Result(
        temperatures={"out": -10.0, "in": 20.0},
        heat_flow={"out": -5.0, "in": 5.0},
        coupling={("out", "in"): 1 / 6},
        points=np.empty(0),
        surface={"out": side(-9.5), "in": side(14.0)},
        estimated_error=0.001,
        unknowns=10,
        steps=3,
    )
    assert found.f_rsi == pytest.approx(0.8)
    assert found.balance == 0
