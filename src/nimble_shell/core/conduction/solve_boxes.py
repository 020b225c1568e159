"""Steady conduction in boxes: finite volumes, multigrid, refined and extrapolated (ISO 10211:2017, 9)."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from itertools import product
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy import sparse
from scipy.sparse.csgraph import connected_components

from nimble_shell.core.conduction.boxes import BoxModel, Cells, Surface, cut, first_lines
from nimble_shell.core.conduction.refinement import check_size, chosen, error_of, extrapolated, halved
from nimble_shell.core.conduction.result import Extremes, Result, flows_of
from nimble_shell.core.errors import DomainError, Issue, NotConverged
from nimble_shell.core.progress import report

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

MOST_CELLS = 600_000
_NEAR = 1e-9  #: a point nearer to a cell than this lies in it [m]
_TOLERANCE = 1e-8  #: of the linear solution, relative; couplings are wrong by its square


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class CellFields:
    """One grid, solved: the field of each environment at 1 and the others at 0."""

    cells: Cells
    theta: FloatArray  #: shape (cells, environments)
    G: FloatArray  #: heat into the model through i per kelvin of j, shape (environments, environments)


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class SolvedCells:
    """A model on the grid that was fine enough."""

    fields: CellFields
    G: FloatArray  #: couplings that the grids go to, as `CellFields.G`
    error: float  #: relative, of the couplings; inf if not known
    steps: int  #: grids solved


def solve_boxes(model: BoxModel, points: FloatArray, *, target: float = 0.002, most: int = MOST_CELLS) -> Result:
    """Solve to a relative error of every environment's coupling.

    Couplings are extrapolated from the last grids: finite-volume values approach the true one from one side.

    Parameters
    ----------
    points
        Where temperatures are wanted, shape (n, 3). [m]
    target
        Error of the couplings, relative to the largest of an environment to all others.
    most
        Cells at which refinement stops; the estimate then says what was reached.

    Raises
    ------
    DomainError
        If a part is bound to no environment, or an environment meets no surface.
    NotConverged
        If the multigrid solution does not reach its tolerance.
    """
    found = refined_boxes(model, lambda _, error: error <= target, most=most)
    envs = tuple(model.temperatures)
    T = np.array([model.temperatures[env] for env in envs])
    flows, coupling = flows_of(envs, found.G, T, frozenset())
    cells, theta = found.fields.cells, found.fields.theta @ T
    return Result(
        temperatures=model.temperatures,
        heat_flow=flows,
        coupling=coupling,
        points=_values_at(cells, theta, points, model.temperatures),
        surface={env: extremes_of(cells, env, theta, model.temperatures[env]) for env in envs},
        estimated_error=found.error,
        unknowns=len(theta),
        steps=found.steps,
    )


def refined_boxes(model: BoxModel, good: Callable[[FloatArray, float], bool], *, most: int = MOST_CELLS) -> SolvedCells:
    """Solve on finer and finer grids until the couplings are good enough.

    Parameters
    ----------
    good
        Whether couplings [W/K] with a relative error will do.
    most
        Cells at which refinement stops.
    """
    envs = tuple(model.temperatures)
    lines = first_lines(model)
    check_size(lines, most, "boxes")
    report(1, _count(lines))
    fields = solve_cells(model, lines)
    history = [fields.G]
    error = float("inf")
    while not good(extrapolated(history), error):
        next_lines = _refined(fields, envs)
        if _count(next_lines) > most:
            break
        report(len(history) + 1, _count(next_lines))
        fields = solve_cells(model, next_lines)
        history.append(fields.G)
        error = float(error_of([np.diag(G) for G in history]) / 2)
    return SolvedCells(fields=fields, G=extrapolated(history), error=error, steps=len(history))


def _count(lines: list[FloatArray]) -> int:
    return math.prod(len(line) - 1 for line in lines)


def solve_cells(model: BoxModel, lines: list[FloatArray]) -> CellFields:
    """Solve on one grid, without refinement."""
    cells = cut(model, lines)
    envs = tuple(model.temperatures)
    _check_bound(cells, envs)
    A, b = assembled(cells, envs)
    _check_reached(cells, A, b)
    theta = _solved(A, b)
    return CellFields(cells=cells, theta=theta, G=np.diag(b.sum(axis=0)) - b.T @ theta)


def assembled(cells: Cells, envs: tuple[str, ...]) -> tuple[sparse.csr_matrix, FloatArray]:
    """Conductances between the solid cells, and what one kelvin of each environment gives to them. [W/K]"""
    count = int(cells.number.max()) + 1
    one, other, between = _links(cells)
    diagonal, b = np.zeros(count), np.zeros((count, len(envs)))
    for surface in cells.surfaces:
        number, g = cells.number[surface.cells], _surface_conductance(cells, surface)
        np.add.at(diagonal, number, g)
        np.add.at(b[:, envs.index(surface.env)], number, g)
    diagonal += np.bincount(one, between, count) + np.bincount(other, between, count)
    own = np.arange(count)
    A = sparse.coo_matrix(
        (
            np.concatenate([diagonal, -between, -between]),
            (np.concatenate([own, one, other]), np.concatenate([own, other, one])),
        ),
        shape=(count, count),
    ).tocsr()
    A.indices, A.indptr = A.indices.astype(np.int32), A.indptr.astype(np.int32)
    return A, b


def _solved(A: sparse.csr_matrix, b: FloatArray) -> FloatArray:
    """Fields of all environments; the last one is what is left of 1, since all of them at 1 give 1 everywhere."""
    import pyamg  # not for every start

    levels = pyamg.ruge_stuben_solver(A, max_coarse=200, CF="RS")
    theta = np.ones_like(b)
    for at in range(b.shape[1] - 1):
        residuals: list[float] = []
        theta[:, at] = levels.solve(b[:, at], tol=_TOLERANCE, accel="cg", maxiter=200, residuals=residuals)
        if residuals[-1] > 10 * _TOLERANCE * max(residuals[0], float(np.linalg.norm(b[:, at]))):
            raise NotConverged(len(residuals), residuals[-1])
        theta[:, -1] -= theta[:, at]
    return theta


def _areas(cells: Cells, axis: int) -> FloatArray:
    """Areas of the cells across an axis, ready to broadcast. [m²]"""
    first, second = (size for at, size in enumerate(cells.sizes) if at != axis)
    return first * second


def _links(cells: Cells) -> tuple[IntArray, IntArray, FloatArray]:
    """Neighbours, and the conductances between them. [W/K]"""
    found = []
    for axis in range(3):
        area = np.broadcast_to(_areas(cells, axis), cells.lambda_.shape)
        g = _pair(area, axis)[0] / _between_middles(cells, axis)
        both = np.isfinite(g)
        a, b = _pair(cells.number, axis)
        found.append((a[both], b[both], g[both]))
    one, other, between = zip(*found, strict=True)
    return np.concatenate(one), np.concatenate(other), np.concatenate(between)


def _pair(values: NDArray[Any], axis: int) -> tuple[NDArray[Any], NDArray[Any]]:
    """Values of the cells before and after each plane between two cells."""
    low = [slice(None)] * 3
    high = [slice(None)] * 3
    low[axis], high[axis] = slice(None, -1), slice(1, None)
    return values[tuple(low)], values[tuple(high)]


def _between_middles(cells: Cells, axis: int) -> FloatArray:
    """Resistances from middle to middle of neighbours, nan at voids. [m²·K/W]"""
    low, high = _pair(cells.sizes[axis] / (2 * cells.lambda_), axis)
    result: FloatArray = low + high
    return result


def _half_resistance(cells: Cells, surface: Surface) -> FloatArray:
    """From the middle of the cell to its surface. [m²·K/W]"""
    size: FloatArray = np.diff(cells.lines[surface.axis])[surface.cells[surface.axis]]
    return size / (2 * cells.lambda_[surface.cells])


def _surface_conductance(cells: Cells, surface: Surface) -> FloatArray:
    area = np.broadcast_to(_areas(cells, surface.axis), cells.lambda_.shape)[surface.cells]
    result: FloatArray = area / (_half_resistance(cells, surface) + surface.R_s)
    return result


def _surface_temperature(cells: Cells, surface: Surface, theta: FloatArray, env: float) -> FloatArray:
    half = _half_resistance(cells, surface)
    result: FloatArray = env + (theta[cells.number[surface.cells]] - env) * surface.R_s / (half + surface.R_s)
    return result


def _refined(fields: CellFields, envs: tuple[str, ...]) -> list[FloatArray]:
    """Grid planes with those intervals halved through which the flow turns most."""
    cells = fields.cells
    solid = cells.number >= 0
    energy = [np.zeros(len(line) - 1) for line in cells.lines]
    volume = cells.sizes[0] * cells.sizes[1] * cells.sizes[2]
    others = [tuple(at for at in range(3) if at != axis) for axis in range(3)]
    for at, env in enumerate(envs):
        theta = np.full(cells.number.shape, np.nan)
        theta[solid] = fields.theta[:, at]
        for axis in range(3):
            before, after = _pair(theta, axis)
            q = np.nan_to_num((before - after) / _between_middles(cells, axis))
            edge = [(1, 1) if d == axis else (0, 0) for d in range(3)]
            turn = np.diff(np.pad(q, edge), axis=axis)
            for surface in cells.surfaces:
                if surface.axis == axis:
                    own = 1.0 if surface.env == env else 0.0
                    turn[surface.cells] -= (own - theta[surface.cells]) / (
                        _half_resistance(cells, surface) + surface.R_s
                    )
            energy[axis] += np.nansum(turn**2 / cells.lambda_ * volume, axis=others[axis])
    return [halved(line, which) for line, which in zip(cells.lines, chosen(energy), strict=True)]


def _values_at(cells: Cells, theta: FloatArray, points: FloatArray, temperatures: Mapping[str, float]) -> FloatArray:
    """Temperatures at points, nan outside: straight lines from the middle of the cell to its faces."""
    faces = face_temperatures(cells, theta, temperatures)
    found = np.full(len(points), np.nan)
    for at, point in enumerate(points):
        for index in _cells_at(cells, point):
            middle = theta[cells.number[index]]
            found[at] = middle
            for axis in range(3):
                low, high = cells.lines[axis][index[axis]], cells.lines[axis][index[axis] + 1]
                share = (point[axis] - (low + high) / 2) / ((high - low) / 2)
                found[at] += abs(share) * (faces[axis][int(share > 0)][index] - middle)
            break
    return found


def _cells_at(cells: Cells, point: FloatArray) -> Iterator[tuple[int, int, int]]:
    """Solid cells that hold a point; several where it lies between them."""
    each = [
        np.nonzero((line[:-1] <= value + _NEAR) & (line[1:] >= value - _NEAR))[0]
        for line, value in zip(cells.lines, point, strict=True)
    ]
    for i, j, k in product(*each):
        if cells.number[i, j, k] >= 0:
            yield int(i), int(j), int(k)


def face_temperatures(
    cells: Cells, theta: FloatArray, temperatures: Mapping[str, float]
) -> list[tuple[FloatArray, FloatArray]]:
    """Temperatures of the low and high faces of all cells along each axis, nan for void."""
    grid = np.where(cells.number >= 0, theta[cells.number], np.nan)
    faces = []
    for axis in range(3):
        half = cells.sizes[axis] / (2 * cells.lambda_)
        (r1, r2), (t1, t2) = _pair(half, axis), _pair(grid, axis)
        between = (t1 * r2 + t2 * r1) / (r1 + r2)
        low, high = grid.copy(), grid.copy()  # an adiabatic face is as warm as the middle of its cell
        after, before = _pair(low, axis)[1], _pair(high, axis)[0]
        np.copyto(after, between, where=np.isfinite(between))
        np.copyto(before, between, where=np.isfinite(between))
        for surface in cells.surfaces:
            if surface.axis == axis:
                value = _surface_temperature(cells, surface, theta, temperatures[surface.env])
                (low, high)[surface.side][surface.cells] = value
        faces.append((low, high))
    return faces


def extremes_of(cells: Cells, env: str, theta: FloatArray, temperature: float) -> Extremes:
    """Coldest and warmest of the middles of an environment's cell faces."""
    values, places = [], []
    for surface in (surface for surface in cells.surfaces if surface.env == env):
        values.append(_surface_temperature(cells, surface, theta, temperature))
        place = np.stack([middle[index] for middle, index in zip(cells.middles, surface.cells, strict=True)], axis=1)
        place[:, surface.axis] = cells.lines[surface.axis][surface.cells[surface.axis] + surface.side]
        places.append(place)
    value, at = np.concatenate(values), np.concatenate(places)
    low, high = int(np.argmin(value)), int(np.argmax(value))
    return Extremes(
        min=float(value[low]), at=tuple(map(float, at[low])), max=float(value[high]), at_max=tuple(map(float, at[high]))
    )


def _check_bound(cells: Cells, envs: tuple[str, ...]) -> None:
    for env in envs:
        if not any(surface.env == env for surface in cells.surfaces):
            raise DomainError(Issue(path=("boundaries",), code="environment_meets_nothing",
                                    message=f"no face of “{env}” lies on the outer surface of the model",
                                    hint="a face must lie on the surface of a box"))  # fmt: skip


def _check_reached(cells: Cells, A: sparse.csr_matrix, b: FloatArray) -> None:
    count, part = connected_components(A, directed=False)
    reached = np.zeros(count, dtype=bool)
    reached[part[b.any(axis=1)]] = True
    if not reached.all():
        index = np.argwhere(cells.number >= 0)[np.nonzero(~reached[part])[0][0]]
        place = ", ".join(f"{middle[at] * 1000:.6g}" for middle, at in zip(cells.middles, index, strict=True))
        raise DomainError(Issue(path=("boxes",), code="part_without_environment",
                                message=f"the part at ({place}) mm touches no environment",
                                hint="its temperature is open: bind it, join it, or leave it out"))  # fmt: skip
