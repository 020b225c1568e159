"""Steady conduction in a section, refined until its couplings stand still (ISO 10211:2017, 9 and annex C)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
import qdldl
from numpy.typing import NDArray
from scipy import sparse
from scipy.sparse.csgraph import connected_components
from scipy.sparse.linalg import LinearOperator, cg

from nimble_shell.core.conduction.elements import (
    NEAR,
    Space,
    assembled,
    conductances,
    edge_masses,
    edge_nodes,
    indicators,
    value_at,
)
from nimble_shell.core.conduction.mesh import GROWTH, Grid, Mesh, build, first_grid
from nimble_shell.core.conduction.refinement import check_size, chosen, error_of
from nimble_shell.core.conduction.result import Extremes
from nimble_shell.core.conduction.section import Point, Section, SurfaceSegment
from nimble_shell.core.errors import DomainError, Issue, NotConverged
from nimble_shell.core.progress import report

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]
#: Gives temperatures for what flows into the unknowns that are not prescribed.
Solver = Callable[[FloatArray], FloatArray]

MOST_UNKNOWNS = 400_000
_PER_CELL = 4  #: unknowns of a cell of two triangles, in a large grid
_MOST_ROUNDS = 40  #: of λ(θ); each gains a digit or two
_STILL = 1e-6  #: change of any temperature at which they end [K]
_LED, _MOST_LED = 1e-9, 200  #: residual, relative, and steps of a solution led by another one
_EARN_BACK = 1e-11  #: heat missing from the balance from which a second step is worth it, relative
_MOST_LOST = 1e-5  #: heat that may be missing from the balance of a direct solution, relative


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Fields:
    """One mesh, solved: the field of each environment at 1 and the others at 0."""

    space: Space
    edges: tuple[IntArray, ...]  #: of each environment
    segment_of: IntArray  #: which segment each outer edge lies on, −1 for none
    theta: FloatArray  #: shape (unknowns, environments)
    G: FloatArray  #: heat into the section through i per kelvin of j, shape (environments, environments)
    touching: frozenset[tuple[int, int]]  #: pairs of prescribed temperatures that meet in a point
    solver: Solver  #: of the same mesh, for films that differ a little
    system: System  #: that was solved


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Solved:
    """A section on the mesh that was fine enough."""

    fields: Fields
    grid: Grid
    error: float  #: relative, of the couplings; inf if not known
    steps: int  #: grids solved
    limit: FloatArray | None = None  #: couplings that the grids go to, as `Fields.G`; the error is then theirs
    low: float | None = None  #: what the coupling is certainly not below, where that is known [W/(m·K)]
    before: tuple[Fields, Grid] | None = None  #: on the last grid but one


def refined(
    section: Section,
    points: FloatArray,
    *,
    target: float = 0.002,
    absolute: float = np.inf,
    most: int = MOST_UNKNOWNS,
) -> Solved:
    """Solve on finer and finer grids until the couplings stand still.

    Parameters
    ----------
    points
        Temperatures to be watched where a flow is unbounded, shape (n, 2). [m]
    target
        Error of the couplings, relative to the largest of an environment to all others.
    absolute
        The same, not relative. [W/(m·K)]
    most
        Unknowns at which refinement stops.

    Notes
    -----
    Where regions have λ(θ), the last grid is solved again with λ at each triangle's own temperature until the
    temperatures stand still; couplings are then those at the given temperatures, of two environments.
    """
    first = begun(section, most)
    grid, fields = first.grid, first.fields
    T = np.array(list(section.temperatures.values()))
    watched = points if len(points) else fields.space.mesh.centres
    history = [_measures(fields, T, watched)]
    error, before = np.inf, None
    while error > target or error * float(np.abs(history[-1]).max()) > absolute:
        finer = grid.refined(*_columns_and_rows(fields, grid))
        if (len(finer.x) - 1) * (len(finer.y) - 1) > most // _PER_CELL:
            break
        report(len(history) + 1, (len(finer.x) - 1) * (len(finer.y) - 1) * _PER_CELL)
        before = (fields, grid)
        grid, fields = finer, solve_on(section, finer)
        history.append(_measures(fields, T, watched))
        error = error_of(history)
    if any(region.table for region in section.regions):
        fields = _at_own_temperature(section, fields, T)
    return Solved(fields=fields, grid=grid, error=float(error), steps=len(history), before=before)


def begun(section: Section, most: int = MOST_UNKNOWNS, growth: float = GROWTH) -> Solved:
    """The section on its first grid; the error is not known."""
    grid = first_grid(section, growth)
    check_size([grid.x, grid.y], most // _PER_CELL, "regions")
    report(1, (len(grid.x) - 1) * (len(grid.y) - 1) * _PER_CELL)
    return Solved(fields=solve_on(section, grid), grid=grid, error=np.inf, steps=1)


def once_more(section: Section, found: Solved) -> Solved:
    """The next finer grid; its error is at most what the couplings moved by."""
    grid = found.grid.refined(*_columns_and_rows(found.fields, found.grid))
    report(found.steps + 1, (len(grid.x) - 1) * (len(grid.y) - 1) * _PER_CELL)
    fields = solve_on(section, grid)
    before, now = np.diag(found.fields.G), np.diag(fields.G)
    moved = float(np.abs(now - before).max() / np.abs(now).max())
    return Solved(fields=fields, grid=grid, error=min(found.error, max(moved, 1e-9)), steps=found.steps + 1,
                  before=(found.fields, found.grid))  # fmt: skip


def once_more_for(section: Section, found: Solved, place: Point) -> Solved:
    """A grid that is finer for the temperature at a place; the couplings keep the error they had. [m]"""
    grid = found.grid.refined(*_columns_and_rows_for(found.fields, found.grid, place))
    report(found.steps + 1, (len(grid.x) - 1) * (len(grid.y) - 1) * _PER_CELL)
    fields = solve_on(section, grid)
    return replace(found, fields=fields, grid=grid, steps=found.steps + 1, before=(found.fields, found.grid))


def _at_own_temperature(section: Section, fields: Fields, T: FloatArray) -> Fields:
    """The same grid with λ(θ) at the mean temperature of every triangle.

    Raises
    ------
    NotConverged
        If the temperatures do not stand still.
    """
    theta = fields.theta @ T
    change = np.inf
    for _ in range(_MOST_ROUNDS):
        mesh = fields.space.mesh
        middle = theta[mesh.triangles].mean(axis=1)
        lambda_ = mesh.lambda_.copy()
        for at, region in enumerate(section.regions):
            if region.table:
                own = mesh.region == at
                knots, values = np.array(region.table).T
                lambda_[own] = np.interp(middle[own], knots, values)
        fields = solve_mesh(section, replace(mesh, lambda_=lambda_))
        before, theta = theta, fields.theta @ T
        change = float(np.abs(theta - before).max())
        if change < _STILL:
            return fields
    raise NotConverged(_MOST_ROUNDS, change)


def solve_on(section: Section, grid: Grid) -> Fields:
    """Solve on one grid, without refinement."""
    return solve_mesh(section, build(section, grid))


def solve_mesh(section: Section, mesh: Mesh) -> Fields:
    """Solve on a mesh, whose λ count; the section gives segments, films and environments."""
    space = Space(mesh=mesh, axisymmetric=section.kind == "axisymmetric")
    found = _system(section, space)
    A, b, share = found.A, found.b, found.share
    free = found.free
    theta, right = share.copy(), (b - A @ share)[free, :-1]  # the fields add up to 1: the last one is the rest
    inner = A if len(free) == len(theta) else A[free][:, free].tocsc()
    solver = factored(inner)
    theta[free, :-1] = solver(right)
    G, lost = _flows(found, theta)
    if lost > _EARN_BACK:  # slivers and contrasts cost digits; a second step earns them back
        theta[free, :-1] += solver(right - inner @ theta[free, :-1])
        G, lost = _flows(found, theta)
    if not lost < _MOST_LOST:
        raise NotConverged(1, lost)
    return Fields(space=space, edges=found.edges, segment_of=found.segment_of, theta=theta, G=G,
                  touching=found.touching, solver=solver, system=found)  # fmt: skip


def _flows(system: System, theta: FloatArray) -> tuple[FloatArray, float]:
    """Heat through each environment per kelvin of each, and the share of it that is lost; completes the last field."""
    theta[:, -1] = 1 - theta[:, :-1].sum(axis=1)
    A, b, share = system.A, system.b, system.share
    G = np.diag(system.own) - b.T @ theta + share.T @ (A @ theta - b)  # films, and what prescribed unknowns take up
    return G, float(np.abs(G.sum(axis=0)).max() / np.abs(G).max())  # of what each environment at 1 gives


def with_films(section: Section, fields: Fields) -> FloatArray:
    """Temperatures at the unknowns of solved fields, with the films of a section that differs by nothing else. [°C]

    Conjugate gradients at the section's own temperatures, led by the factors of the fields: a few steps.

    Raises
    ------
    NotConverged
        If the residual does not fall.
    """
    space, system = fields.space, fields.system
    R = np.array([segment.R_s for segment in section.segments])[fields.segment_of[fields.segment_of >= 0]]
    other = np.nonzero(system.R != R)[0]
    nodes = edge_nodes(space, system.on[other])
    films = edge_masses(space, system.on[other]) * (1 / R[other] - 1 / system.R[other])[:, None, None]
    A = system.A + assembled(space, (nodes, films))
    b = system.b.copy()
    np.add.at(b, (nodes, system.env[other][:, None]), films.sum(axis=2))
    T = np.array(list(section.temperatures.values()))
    theta: FloatArray = fields.theta @ T
    free = system.free
    inner = A if len(free) == len(theta) else A[free][:, free].tocsc()
    prescribed = system.share @ T
    right = (b @ T - A @ prescribed)[free]
    lead = LinearOperator(inner.shape, matvec=fields.solver)
    theta[free], unfinished = cg(inner, right, x0=theta[free], rtol=_LED, maxiter=_MOST_LED, M=lead)
    if unfinished:
        raise NotConverged(_MOST_LED, float(np.linalg.norm(inner @ theta[free] - right)))
    return theta


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class System:
    """The equations A·θ = b of a mesh with its surfaces bound."""

    A: sparse.csc_matrix
    b: FloatArray  #: shape (unknowns, environments)
    own: FloatArray  #: heat through the films of each environment per kelvin of it
    share: FloatArray  #: of each environment in prescribed unknowns; zero where they are free
    touching: frozenset[tuple[int, int]]
    edges: tuple[IntArray, ...]
    segment_of: IntArray
    on: IntArray  #: edges that are bound
    env: IntArray  #: environment of each
    R: FloatArray  #: surface resistance of each [m²·K/W]

    @property
    def free(self) -> IntArray:
        """Unknowns that are not prescribed."""
        return np.nonzero(~self.share.any(axis=1))[0]


def _system(section: Section, space: Space) -> System:
    mesh, envs = space.mesh, tuple(section.temperatures)
    segment_of = segments_of_edges(mesh, section.segments)
    env_of = np.array([envs.index(segment.env) for segment in section.segments])
    bound = segment_of >= 0
    edges = tuple(mesh.outer[bound][env_of[segment_of[bound]] == at] for at in range(len(envs)))
    _check_bound(section, mesh, edges)
    R = np.array([segment.R_s for segment in section.segments])[segment_of[bound]]
    b, own = np.zeros((space.size, len(envs))), np.zeros(len(envs))
    filmed = R > 0
    on = mesh.outer[bound][filmed]
    films = edge_masses(space, on) / R[filmed][:, None, None]
    A = assembled(space, (space.nodes, conductances(space)), (edge_nodes(space, on), films))
    env = env_of[segment_of[bound][filmed]]
    np.add.at(b, (edge_nodes(space, on), env[:, None]), films.sum(axis=2))
    np.add.at(own, env, films.sum(axis=(1, 2)))
    share, touching = _prescribed(space, mesh.outer[bound][~filmed], env_of[segment_of[bound][~filmed]], len(envs))
    return System(A=A, b=b, own=own, share=share, touching=touching, edges=edges, segment_of=segment_of,
                  on=mesh.outer[bound], env=env_of[segment_of[bound]], R=R)  # fmt: skip


def factored(A: sparse.csc_matrix) -> Solver:
    """The factors of a symmetric positive definite matrix.

    Raises
    ------
    NotConverged
        If the contrasts in it leave no digits.
    """
    try:
        solve = qdldl.Solver(A).solve
    except RuntimeError as error:  # a pivot is zero
        raise NotConverged(1, np.inf) from error
    return lambda right: solve(right) if right.ndim == 1 else np.column_stack([solve(one) for one in right.T])


def _prescribed(
    space: Space, edges: IntArray, env: IntArray, count: int
) -> tuple[FloatArray, frozenset[tuple[int, int]]]:
    """Values of unknowns on surfaces without a film, zero elsewhere; where several meet, their mean."""
    share = np.zeros((space.size, count))
    nodes = edge_nodes(space, edges)
    for at in range(count):
        share[np.unique(nodes[env == at]), at] = 1
    total = share.sum(axis=1, keepdims=True)
    meeting = share[total[:, 0] > 1]
    pairs = {(i, j) for row in meeting for i in np.nonzero(row)[0] for j in np.nonzero(row)[0] if i < j}
    return share / np.maximum(total, 1), frozenset((int(i), int(j)) for i, j in pairs)


def segments_of_edges(mesh: Mesh, segments: tuple[SurfaceSegment, ...]) -> IntArray:
    """Which segment each outer edge lies on, −1 for none; a later segment takes the place of an earlier one."""
    a, b = (np.array([getattr(segment, end) for segment in segments]) for end in "ab")
    length = np.hypot(*(b - a).T)
    along = (b - a) / length[:, None]
    across = np.column_stack([-along[:, 1], along[:, 0]])
    on = np.ones((len(mesh.outer), len(segments)), dtype=bool)
    for end in mesh.edges[mesh.outer].T:
        u, v = ((mesh.xy[end] @ way.T - (a * way).sum(axis=1)) for way in (along, across))
        on &= (np.abs(v) < NEAR) & (u > -NEAR) & (u < length + NEAR)
    last = len(segments) - 1 - np.argmax(on[:, ::-1], axis=1)
    return np.where(on.any(axis=1), last, -1)


def _check_bound(section: Section, mesh: Mesh, edges: tuple[IntArray, ...]) -> None:
    for env, own in zip(section.temperatures, edges, strict=True):
        if not len(own):
            raise DomainError(Issue(path=("boundaries",), code="environment_meets_nothing",
                                    message=f"no segment of “{env}” lies on the outer surface of the section",
                                    hint="the ends of a segment must lie on the edge of a region"))  # fmt: skip
    joined = sparse.coo_matrix(
        (np.ones(len(mesh.edges)), (mesh.edges[:, 0], mesh.edges[:, 1])), shape=(len(mesh.xy),) * 2
    )
    count, part = connected_components(joined, directed=False)
    reached = np.zeros(count, dtype=bool)
    reached[part[mesh.edges[np.concatenate(edges)][:, 0]]] = True
    if not reached.all():
        x, y = mesh.xy[~reached[part]][0] * 1000
        raise DomainError(Issue(path=("regions",), code="part_without_environment",
                                message=f"the part at ({x:.6g}, {y:.6g}) mm touches no environment",
                                hint="its temperature is open: bind it, join it, or leave it out"))  # fmt: skip


def _columns_and_rows(fields: Fields, grid: Grid) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Which intervals of the grid to halve: those that hold most of the energy of the curved part."""
    if fields.touching:  # the energy where they meet is without bound and says nothing about the rest
        return np.ones(len(grid.x) - 1, dtype=bool), np.ones(len(grid.y) - 1, dtype=bool)
    middle = fields.space.mesh.centres
    by_x, by_y = np.zeros(len(grid.x) - 1), np.zeros(len(grid.y) - 1)
    # The fields add up to 1 everywhere: of two environments both are curved alike.
    every = fields.theta.T if fields.theta.shape[1] > 2 else fields.theta.T[:1]
    for theta in every:
        along_x, along_y = indicators(fields.space, theta)
        np.add.at(by_x, np.clip(np.searchsorted(grid.x, middle[:, 0]) - 1, 0, len(by_x) - 1), along_x)
        np.add.at(by_y, np.clip(np.searchsorted(grid.y, middle[:, 1]) - 1, 0, len(by_y) - 1), along_y)
    columns, rows = chosen([by_x, by_y])
    return columns, rows


def _columns_and_rows_for(fields: Fields, grid: Grid, place: Point) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Which intervals to halve for the temperature at a place: where the field is curved and the place feels it.

    The place's own cells are left out, as a window closes in on them; what it feels is the answer to heat put in there.
    """
    space = fields.space
    heat = np.zeros(space.size)
    heat[np.argmin(np.hypot(*(space.places - place).T))] = 1.0
    felt = np.zeros(space.size)
    felt[fields.system.free] = fields.solver(heat[fields.system.free])
    weights = [np.sqrt(a * b) for a, b in zip(
        indicators(space, fields.theta[:, 0]), indicators(space, felt), strict=True)]  # fmt: skip
    middle = space.mesh.centres
    own = np.ones(len(middle), dtype=bool)
    energies = []
    for axis, lines in enumerate((grid.x, grid.y)):
        at = np.clip(np.searchsorted(lines, middle[:, axis]) - 1, 0, len(lines) - 2)
        low, high = np.searchsorted(lines, [place[axis] - NEAR, place[axis] + NEAR])
        own &= (at >= low - 1) & (at < max(high, low + 1))
        energies.append((at, np.zeros(len(lines) - 1)))
    for (at, total), weight in zip(energies, weights, strict=True):
        np.add.at(total, at[~own], weight[~own])
    columns, rows = chosen([total for _, total in energies])
    return columns, rows


def _measures(fields: Fields, T: FloatArray, watched: FloatArray) -> FloatArray:
    """What has to stand still, as shares of 1: couplings, or temperatures where the flow is unbounded."""
    if not fields.touching:
        return np.diag(fields.G)
    span = max(float(np.ptp(T)), 1e-12)
    return 1 + np.nan_to_num(value_at(fields.space, fields.theta @ T, watched)) / span


def extremes(fields: Fields, env: int, theta: FloatArray) -> Extremes:
    """Coldest and warmest place of an environment's surface, of the temperatures at the unknowns."""
    nodes = np.unique(edge_nodes(fields.space, fields.edges[env]))
    low, high = nodes[np.argmin(theta[nodes])], nodes[np.argmax(theta[nodes])]
    places = fields.space.places
    return Extremes(
        min=float(theta[low]),
        at=tuple(map(float, places[low])),
        max=float(theta[high]),
        at_max=tuple(map(float, places[high])),
    )
