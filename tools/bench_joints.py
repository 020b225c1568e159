"""Joints in `./nimble bench`: against assembly and direct solution by scikit-fem at equal error; and growth."""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np
from skfem import Basis, BilinearForm, ElementTriP2, FacetBasis, LinearForm, MeshTri, asm, solve
from skfem.helpers import dot, grad

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.conduction.elements import NEAR
from nimble_shell.core.conduction.mesh import first_grid
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import refined
from nimble_shell.core.joints import FAMILIES
from nimble_shell.core.joints.bound import section_of
from nimble_shell.core.joints.solved import quickly
from nimble_shell.core.joints.stack import stack_of
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.shell.basis import Basis as ShellBasis

NONE = np.zeros((0, 2))
CASES = (("seam", "double lumber", "sip"), ("corner", "lumber", "sip"), ("floor line", "deck on core", "icf"),
         ("opening", "timber buck", "icf"), ("corner", "skin through", "metal-panel"))  # fmt: skip
TARGET = 0.005  #: error of L2D at working accuracy


def section(family: str, variant: str, system: str) -> Section:
    wall = stack_of(SYSTEMS[system].assembly("w", system), CATALOGUE, ShellBasis(), owned=frozenset({"seam"}))
    drawing = FAMILIES[family].drawing(variant, {"wall": wall}, CATALOGUE)
    return section_of(drawing, {"inside": 1.0, "outside": 0.0}, "iso6946")


def by_scikit_fem(one: Section, refinements: int) -> float:
    """L2D on the same first lines, every cell halved so many times: quadratic triangles, direct solution."""
    grid = first_grid(one)
    mesh = MeshTri.init_tensor(grid.x, grid.y)
    for _ in range(refinements):
        mesh = mesh.refined()
    middle = mesh.p[:, mesh.t].mean(axis=1)
    lambda_ = np.full(mesh.t.shape[1], np.nan)
    for region in one.regions:
        xs, ys = np.array(region.ring).T
        inside = (middle[0] > xs.min()) & (middle[0] < xs.max()) & (middle[1] > ys.min()) & (middle[1] < ys.max())
        lambda_[inside] = np.nan if region.lambda_ is None else region.lambda_
    mesh = mesh.restrict(np.nonzero(np.isfinite(lambda_))[0])
    lambda_ = lambda_[np.isfinite(lambda_)]
    basis = Basis(mesh, ElementTriP2())
    stiffness = BilinearForm(lambda u, v, w: w.k * dot(grad(u), grad(v)))
    per_point = np.repeat(lambda_[:, None], basis.X.shape[1], axis=1)
    A = asm(stiffness, basis, k=per_point)
    b = np.zeros(A.shape[0])
    own = 0.0
    film = BilinearForm(lambda u, v, w: w.h * u * v)
    load = LinearForm(lambda v, w: w.h * v)
    for piece in one.pieces:
        low, high = np.minimum(piece.a, piece.b) - NEAR, np.maximum(piece.a, piece.b) + NEAR
        facets = mesh.facets_satisfying(
            lambda x, low=low, high=high: (  # type: ignore[misc]
                (x[0] > low[0]) & (x[0] < high[0]) & (x[1] > low[1]) & (x[1] < high[1])
            ),
            boundaries_only=True,
        )
        edge = FacetBasis(mesh, ElementTriP2(), facets=facets)
        A = A + asm(film, edge, h=1 / piece.R_s)
        if piece.env == "inside":
            own_load = asm(load, edge, h=1 / piece.R_s)
            b += own_load
            own += float(own_load.sum())
    u = solve(A, b)
    return own - float(b @ u)


def timed(call: Callable[[], float], runs: int = 3) -> tuple[float, float]:
    """The least time of several runs [s], and the answer."""
    best, answer = np.inf, np.nan
    for _ in range(runs):
        start = time.perf_counter()
        answer = call()
        best = min(best, time.perf_counter() - start)
    return best, answer


def main() -> None:
    print(f"joints at {100 * TARGET:g} % of L2D, against scikit-fem with quadratic triangles and a direct solution")
    for case in CASES:
        one = section(*case)
        true = float(refined(one, NONE, target=2e-5, most=300_000).fields.G[0, 0])
        ours, found = timed(lambda one=one: float(quickly(one)[0].fields.G[0, 0]))  # type: ignore[misc]
        error = abs(found - true) / true
        theirs, other = np.inf, np.nan
        for refinements in range(4):
            theirs, other = timed(lambda one=one, n=refinements: by_scikit_fem(one, n), 2)  # type: ignore[misc]
            if abs(other - true) / true <= max(error, 1e-4):
                break
        words = f"{theirs / ours:4.1f} × faster" if theirs > ours else f"{ours / theirs:4.1f} × slower"
        print(f"  {', '.join(case):36s} {1000 * ours:5.0f} ms, error {error:.1e}; "
              f"there {1000 * theirs:5.0f} ms, error {abs(other - true) / true:.1e}: {words}")  # fmt: skip


def halved_all(lines: np.ndarray) -> np.ndarray:
    """Every interval halved."""
    return np.sort(np.concatenate([lines, (lines[1:] + lines[:-1]) / 2]))
