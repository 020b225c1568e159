"""A manufactured solution in two materials: the order at which temperatures and flows converge."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray
from scipy.sparse.linalg import spsolve

from nimble_shell.core.conduction.elements import (
    Space,
    assembled,
    barycentric_gradients,
    conductances,
    shape_functions,
    shape_slopes,
)
from nimble_shell.core.conduction.mesh import Grid, build
from nimble_shell.core.conduction.section import Region, Section, SurfaceSegment
from nimble_shell.references.rows import Row

FloatArray = NDArray[np.float64]

#: A rule of degree 5 with seven points: barycentric coordinates and weights that sum to 1 (Radon 1948).
_A, _B = (6 - math.sqrt(15)) / 21, (6 + math.sqrt(15)) / 21
_POINTS = np.array(
    [[1 / 3] * 3, *([1 - 2 * a if at == n else a for n in range(3)] for a in (_A, _B) for at in range(3))]
)
_WEIGHTS = np.array([0.225] + [(155 - math.sqrt(15)) / 1200] * 3 + [(155 + math.sqrt(15)) / 1200] * 3)
_LAMBDA = (1.0, 3.0)


def rows() -> Iterator[Row]:
    """Orders of quadratic triangles on the unit square, λ 1 to its left and 3 to its right."""
    coarse, fine = (_errors(n) for n in (8, 16))
    for name, order, at in (("temperature", 3.0, 0), ("heat flux", 2.0, 1)):
        yield Row(name=f"two materials, order of the {name}", source="manufactured: sin πx · sin πy", reference=order,
                  ours=math.log2(coarse[at] / fine[at]), tolerance=0.1)  # fmt: skip


def _errors(cells: int) -> tuple[float, float]:
    """Errors of θ and of λ∇θ in the mean square, on a square of so many cells each way."""
    square = Section(
        regions=tuple(
            Region(ring=((x, 0), (x + 0.5, 0), (x + 0.5, 1), (x, 1)), lambda_=lambda_)
            for x, lambda_ in zip((0.0, 0.5), _LAMBDA, strict=True)
        ),
        segments=(SurfaceSegment(a=(0, 0), b=(1, 0), env="all round", R_s=0.0),),
        temperatures={"all round": 0.0},
    )
    lines = np.linspace(0, 1, cells + 1)
    space = Space(mesh=build(square, Grid(x=lines, y=lines)), axisymmetric=False)
    mesh = space.mesh
    gradients, area = barycentric_gradients(mesh)
    corners = mesh.xy[mesh.triangles]
    b = np.zeros(space.size)
    for L, weight in zip(_POINTS, _WEIGHTS, strict=True):
        x, y = np.einsum("a,mad->dm", L, corners)
        source = mesh.lambda_ * 2 * math.pi**2 * np.sin(math.pi * x) * np.sin(math.pi * y)
        np.add.at(b, space.nodes, (weight * area * source)[:, None] * shape_functions(L))
    places = space.places
    free = np.nonzero(((places > 1e-9) & (places < 1 - 1e-9)).all(axis=1))[0]
    theta = np.zeros(space.size)
    theta[free] = spsolve(assembled(space, (space.nodes, conductances(space)))[free][:, free], b[free])
    values = theta[space.nodes]
    squares = np.zeros(2)
    for L, weight in zip(_POINTS, _WEIGHTS, strict=True):
        x, y = np.einsum("a,mad->dm", L, corners)
        exact = np.sin(math.pi * x) * np.sin(math.pi * y)
        slope = math.pi * np.stack(
            [np.cos(math.pi * x) * np.sin(math.pi * y), np.sin(math.pi * x) * np.cos(math.pi * y)], axis=1
        )
        found = np.einsum("ma,ab,mbd->md", values, shape_slopes(L), gradients)
        off = mesh.lambda_[:, None] * (found - slope)
        squares += [
            float(weight * (area * (values @ shape_functions(L) - exact) ** 2).sum()),
            float(weight * (area * (off**2).sum(axis=1)).sum()),
        ]
    return float(np.sqrt(squares[0])), float(np.sqrt(squares[1]))
