"""Joints in `./nimble bench`: against assembly and direct solution by scikit-fem at equal error; and growth."""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np
from skfem import Basis, BilinearForm, ElementTriP2, FacetBasis, LinearForm, MeshTri, asm, solve
from skfem.helpers import dot, grad

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis as ShellBasis
from nimble_shell.core.conduction.elements import NEAR
from nimble_shell.core.conduction.mesh import GROWTH, first_grid
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import refined, solve_mesh
from nimble_shell.core.joints.bound import section_of
from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.solved import COARSE, quickly
from nimble_shell.core.joints.stack import stack_of
from nimble_shell.core.materials import CATALOGUE

NONE = np.zeros((0, 2))
CASES = (("seam", "double lumber", "sip"), ("corner", "lumber", "sip"), ("floor line", "deck on core", "icf"),
         ("opening", "timber buck", "icf"), ("corner", "skin through", "metal-panel"))  # fmt: skip
TARGET = 0.005  #: error of L2D at working accuracy


def section(family: str, variant: str, system: str) -> Section:
    wall = stack_of(SYSTEMS[system].assembly("w", system), CATALOGUE, ShellBasis(), owned=frozenset({"seam"}))
    drawing = FAMILIES[family].drawing(variant, {"wall": wall}, CATALOGUE)
    return section_of(drawing, {"inside": 1.0, "outside": 0.0}, "iso6946")


def mesh_of_scikit_fem(one: Section, growth: float, refinements: int) -> tuple[MeshTri, np.ndarray]:
    """One of our first grids with every cell halved so many times, without the voids; and λ of its triangles."""
    grid = first_grid(one, growth)
    mesh = MeshTri.init_tensor(grid.x, grid.y)
    for _ in range(refinements):
        mesh = mesh.refined()
    middle = mesh.p[:, mesh.t].mean(axis=1)
    lambda_ = np.full(mesh.t.shape[1], np.nan)
    for region in one.regions:
        xs, ys = np.array(region.ring).T
        inside = (middle[0] > xs.min()) & (middle[0] < xs.max()) & (middle[1] > ys.min()) & (middle[1] < ys.max())
        lambda_[inside] = np.nan if region.lambda_ is None else region.lambda_
    return mesh.restrict(np.nonzero(np.isfinite(lambda_))[0]), lambda_[np.isfinite(lambda_)]


def by_scikit_fem(one: Section, mesh: MeshTri, lambda_: np.ndarray) -> float:
    """L2D by quadratic triangles: assembly and a direct solution."""
    basis = Basis(mesh, ElementTriP2())
    stiffness = BilinearForm(lambda u, v, w: w.k * dot(grad(u), grad(v)))
    per_point = np.repeat(lambda_[:, None], basis.X.shape[1], axis=1)
    A = asm(stiffness, basis, k=per_point)
    b = np.zeros(A.shape[0])
    own = 0.0
    film = BilinearForm(lambda u, v, w: w.h * u * v)
    load = LinearForm(lambda v, w: w.h * v)
    for segment in one.segments:
        low, high = np.minimum(segment.a, segment.b) - NEAR, np.maximum(segment.a, segment.b) + NEAR
        facets = mesh.facets_satisfying(
            lambda x, low=low, high=high: (x[0] > low[0]) & (x[0] < high[0]) & (x[1] > low[1]) & (x[1] < high[1]),
            boundaries_only=True,
        )
        edge = FacetBasis(mesh, ElementTriP2(), facets=facets)
        A = A + asm(film, edge, h=1 / segment.R_s)
        if segment.env == "inside":
            own_load = asm(load, edge, h=1 / segment.R_s)
            b += own_load
            own += float(own_load.sum())
    u = solve(A, b)
    return own - float(b @ u)


def timed(call: Callable[[], float], runs: int = 5) -> tuple[float, float]:
    """The least time of several runs [s], and the answer."""
    best, answer = np.inf, np.nan
    for _ in range(runs):
        start = time.perf_counter()
        answer = call()
        best = min(best, time.perf_counter() - start)
    return best, answer


def least_of_scikit_fem(one: Section, true: float, error: float) -> tuple[float, float, float]:
    """Assembly and solution [s], the same with its mesh [s], and error, of what is as near and soonest there."""
    found = []
    for growth in (COARSE, GROWTH):
        for refinements in range(4):
            meshing, _ = timed(lambda n=refinements, g=growth: float(mesh_of_scikit_fem(one, g, n)[0].nelements))  # type: ignore[misc]
            mesh, lambda_ = mesh_of_scikit_fem(one, growth, refinements)
            solving, answer = timed(lambda m=mesh, k=lambda_: by_scikit_fem(one, m, k))  # type: ignore[misc]
            off = abs(answer - true) / true
            if off <= 1.01 * error:
                found.append((solving, meshing + solving, off))
                break
    return min(found)


def main() -> None:
    print(f"joints at {100 * TARGET:g} % of L2D, against scikit-fem with quadratic triangles and a direct solution;")
    print("  first assembly and solution on the grid of that error, then from the drawing to an answer with its bounds")
    for case in CASES:
        one = section(*case)
        true = float(refined(one, NONE, target=2e-5, most=300_000).fields.G[0, 0])
        whole, value = timed(lambda one=one: float(quickly(one)[0].fields.G[0, 0]))  # type: ignore[misc]
        mesh = quickly(one)[0].fields.space.mesh
        ours, _ = timed(lambda one=one, mesh=mesh: float(solve_mesh(one, mesh).G[0, 0]))  # type: ignore[misc]
        error = abs(value - true) / true
        theirs, with_mesh, other = least_of_scikit_fem(one, true, max(error, 1e-4))
        print(f"  {', '.join(case):36s} {1000 * ours:5.1f} ms, error {error:.1e}; there {1000 * theirs:5.1f} ms, "
              f"error {other:.1e}: {theirs / ours:4.1f} ×; in all {1000 * whole:4.0f} ms, there "
              f"{1000 * with_mesh:4.0f} ms: {with_mesh / whole:4.1f} ×")  # fmt: skip


def halved_all(lines: np.ndarray) -> np.ndarray:
    """Every interval halved."""
    return np.sort(np.concatenate([lines, (lines[1:] + lines[:-1]) / 2]))
