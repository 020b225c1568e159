"""Quadratic triangles: conductances, surface films, and the directional parts of the energy that steer refinement."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import sparse

from nimble_shell.core.conduction.mesh import Mesh

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

#: Six points of the symmetric rule of degree 4: barycentric coordinates and weights that sum to 1 (Dunavant 1985).
_A, _B = 0.445948490915965, 0.091576213509771
_POINTS = np.array([[1 - 2 * a if at == n else a for n in range(3)] for a in (_A, _B) for at in range(3)])
_WEIGHTS = np.array([0.223381589678011] * 3 + [0.109951743655322] * 3)
#: A point nearer to a triangle than this lies in it. [m]
NEAR = 4e-8
_AT_ONCE = 64  #: points that are looked for together
#: Three Gauss points of an edge, on 0…1.
_LINE = np.array([0.5 - np.sqrt(0.15), 0.5, 0.5 + np.sqrt(0.15)])
_LINE_WEIGHTS = np.array([5.0, 8.0, 5.0]) / 18


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Space:
    """Unknowns at corners and edge middles."""

    mesh: Mesh
    axisymmetric: bool

    @property
    def size(self) -> int:
        return len(self.mesh.xy) + len(self.mesh.edges)

    @property
    def nodes(self) -> IntArray:
        """Unknowns of each triangle: corners, then middles opposite to them, shape (m, 6)."""
        return np.hstack([self.mesh.triangles, len(self.mesh.xy) + self.mesh.edge_of])

    @property
    def places(self) -> FloatArray:
        """Where the unknowns are, shape (size, 2). [m]"""
        a, b = self.mesh.edges.T
        middles = (self.mesh.xy[a] + self.mesh.xy[b]) / 2
        return np.vstack([self.mesh.xy, middles])


def shape_functions(L: FloatArray) -> FloatArray:
    """Values of the six shape functions at barycentric coordinates, shape (…, 6)."""
    corner = L * (2 * L - 1)
    middle = 4 * np.stack([L[..., 1] * L[..., 2], L[..., 2] * L[..., 0], L[..., 0] * L[..., 1]], axis=-1)
    return np.concatenate([corner, middle], axis=-1)


def shape_slopes(L: FloatArray) -> FloatArray:
    """Derivatives of the shape functions by the barycentric coordinates, shape (…, 6, 3)."""
    found = np.zeros((*L.shape[:-1], 6, 3))
    for at in range(3):
        found[..., at, at] = 4 * L[..., at] - 1
        for other in range(3):
            if other != at:
                found[..., 3 + at, other] = 4 * L[..., 3 - at - other]
    return found


def _moments() -> FloatArray:
    """∫ L_r ∂N_a/∂L_i ∂N_b/∂L_j over a triangle of unit area, as rows (r, i, j) and columns (a, b)."""
    slopes = shape_slopes(_POINTS)
    found: FloatArray = np.einsum("q,qr,qai,qbj->rijab", _WEIGHTS, _POINTS, slopes, slopes).reshape(27, 36)
    return found


_MOMENTS = _moments()
_EVEN: FloatArray = _MOMENTS.reshape(3, 9, 36).sum(axis=0)  #: where the integrand is of one size at all corners


def barycentric_gradients(mesh: Mesh) -> tuple[FloatArray, FloatArray]:
    """Gradients of the barycentric coordinates, shape (m, 3, 2) [1/m], and areas, shape (m,) [m²]."""
    p = mesh.xy[mesh.triangles]
    d = np.roll(p, -1, axis=1) - np.roll(p, 1, axis=1)  # the side opposite to each corner, backwards
    double = (p[:, 1, 0] - p[:, 0, 0]) * (p[:, 2, 1] - p[:, 0, 1]) - (p[:, 2, 0] - p[:, 0, 0]) * (
        p[:, 1, 1] - p[:, 0, 1]
    )
    gradients = np.stack([d[..., 1], -d[..., 0]], axis=-1) / double[:, None, None]
    return gradients, double / 2


def conductances(space: Space) -> FloatArray:
    """Blocks of ∫ λ ∇u·∇v per metre of length or for the whole circle, shape (m, 6, 6). [W/(m·K)] or [W/K]"""
    mesh = space.mesh
    gradients, area = barycentric_gradients(mesh)
    products = (area * mesh.lambda_)[:, None, None] * (gradients @ gradients.transpose(0, 2, 1))
    if not space.axisymmetric:
        even: FloatArray = (products.reshape(-1, 9) @ _EVEN).reshape(-1, 6, 6)
        return even
    size = 2 * np.pi * mesh.xy[mesh.triangles][:, :, 0]  # of the integrand at each corner
    weighted = (size[:, :, None] * products.reshape(-1, 1, 9)).reshape(-1, 27)
    return (weighted @ _MOMENTS).reshape(-1, 6, 6)


def assembled(space: Space, *parts: tuple[IntArray, FloatArray]) -> sparse.csc_matrix:
    """Blocks added into one matrix, each part with the unknowns of its blocks."""
    rows = np.concatenate([np.repeat(nodes, nodes.shape[1], axis=1).ravel() for nodes, _ in parts])
    columns = np.concatenate([np.tile(nodes, (1, nodes.shape[1])).ravel() for nodes, _ in parts])
    values = np.concatenate([blocks.ravel() for _, blocks in parts])
    return sparse.coo_matrix((values, (rows, columns)), shape=(space.size, space.size)).tocsc()


def edge_nodes(space: Space, edges: IntArray) -> IntArray:
    """Unknowns of edges: both ends and the middle, shape (n, 3)."""
    return np.column_stack([space.mesh.edges[edges], len(space.mesh.xy) + edges])


def edge_masses(space: Space, edges: IntArray) -> FloatArray:
    """Blocks of ∫ u v along edges, shape (n, 3, 3). [m], or [m²] for the whole circle"""
    ends = space.mesh.xy[space.mesh.edges[edges]]
    length = np.linalg.norm(ends[:, 1] - ends[:, 0], axis=1)
    blocks = np.zeros((len(edges), 3, 3))
    for t, weight in zip(_LINE, _LINE_WEIGHTS, strict=True):
        N = np.array([(1 - t) * (1 - 2 * t), t * (2 * t - 1), 4 * t * (1 - t)])
        factor = weight * length
        if space.axisymmetric:
            factor = factor * 2 * np.pi * (ends[:, 0, 0] * (1 - t) + ends[:, 1, 0] * t)
        blocks += factor[:, None, None] * np.outer(N, N)
    return blocks


def indicators(space: Space, theta: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Energy of the curved part of the solution in each triangle, by direction, shape (m,) each.

    The quadratic part of a solution is what linear elements would miss; where it is large the next order is, too.
    """
    mesh = space.mesh
    gradients, area = barycentric_gradients(mesh)
    values = theta[space.nodes]
    corner = values[:, :3]
    bulge = values[:, 3:] - (np.roll(corner, -1, axis=1) + np.roll(corner, 1, axis=1)) / 2
    parts = np.zeros((2, len(area)))
    corners = mesh.xy[mesh.triangles][:, :, 0]
    for L, weight in zip(_POINTS, _WEIGHTS, strict=True):
        curved = np.einsum("mb,mbd->md", bulge @ shape_slopes(L)[3:], gradients)
        factor = weight * area * mesh.lambda_
        if space.axisymmetric:
            factor = factor * 2 * np.pi * (corners @ L)
        parts += factor * (curved**2).T
    return parts[0], parts[1]


def value_at(space: Space, theta: FloatArray, points: FloatArray) -> FloatArray:
    """The solution at points, nan outside of the section. Points [m], values in theta's unit."""
    mesh = space.mesh
    gradients, _ = barycentric_gradients(mesh)
    steepness = np.hypot(gradients[..., 0], gradients[..., 1])
    offset = 1 / 3 - np.einsum("mad,md->ma", gradients, mesh.centres)
    nodes = space.nodes
    found = np.full(len(points), np.nan)
    for start in range(0, len(points), _AT_ONCE):
        some = points[start : start + _AT_ONCE]
        L = np.einsum("mad,pd->pma", gradients, some) + offset
        a, b, c = np.moveaxis(L / steepness, 2, 0)
        distance = np.minimum(np.minimum(a, b), c)  # to the nearest side, negative outside [m]
        best = np.argmax(distance, axis=1)
        rows = np.arange(len(some))
        values = np.einsum("pa,pa->p", shape_functions(L[rows, best]), theta[nodes[best]])
        found[start : start + _AT_ONCE] = np.where(distance[rows, best] > -NEAR, values, np.nan)
    return found
