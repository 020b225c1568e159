"""What a solved section looks like: temperatures to draw, flow through each segment, a bound."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import sparse

from nimble_shell.core.conduction.elements import (
    Space,
    barycentric_gradients,
    edge_masses,
    edge_nodes,
    shape_slopes,
)
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import Fields, factored

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Field:
    """Temperatures at points, and triangles between them in which they are all but linear."""

    xy: FloatArray  #: shape (n, 2) [m]
    theta: NDArray[np.float32]  #: shape (n,), as fine as a drawing needs it [°C]
    triangles: NDArray[np.int32]  #: shape (m, 3)


def drawn(space: Space, theta: FloatArray) -> Field:
    """Every quadratic triangle as four linear ones. θ [°C] at the unknowns."""
    a, b, c, bc, ca, ab = space.nodes.T
    parts = [np.stack(corners, axis=1) for corners in ((a, ab, ca), (ab, b, bc), (ca, bc, c), (ab, bc, ca))]
    return Field(xy=space.places, theta=theta.astype(np.float32), triangles=np.concatenate(parts).astype(np.int32))


def flows_by_segment(section: Section, fields: Fields, theta: FloatArray) -> FloatArray:
    """Heat into the section through each segment that has a film, nan for the others. [W/m] or [W]

    Parameters
    ----------
    section : Section
    fields : Fields
        The section, solved.
    theta : ndarray
        Temperatures at the unknowns. [°C]
    """
    space = fields.space
    mesh = space.mesh
    segment = fields.segment_of
    found = np.full(len(section.segments), np.nan)
    for at, one in enumerate(section.segments):
        if one.R_s <= 0:
            continue
        on = mesh.outer[segment == at]
        masses = edge_masses(space, on)
        warmer = section.temperatures[one.env] - theta[edge_nodes(space, on)]
        found[at] = float(np.einsum("nab,nb->", masses, warmer)) / one.R_s
    return found


def surface_trace(fields: Fields, env: int, theta: FloatArray) -> FloatArray:
    """Temperatures along an environment's surface: x, y [m] and θ [°C] at both ends and the middle, shape (n, 3, 3)."""
    nodes = edge_nodes(fields.space, fields.edges[env])[:, [0, 2, 1]]
    return np.concatenate([fields.space.places[nodes], theta[nodes][..., None]], axis=-1)


def line_starts(fields: Fields, warm: int, theta: FloatArray, count: int = 16) -> FloatArray:
    """Places just inside of an environment's surface between which flows the same heat, shape (count, 2). [m]"""
    mesh = fields.space.mesh
    edges = fields.edges[warm]
    owner = np.nonzero(np.isin(mesh.edge_of, edges))
    order = np.argsort(mesh.edge_of[owner])
    triangle = owner[0][order]
    edges = mesh.edge_of[owner][order]
    gradients, _ = barycentric_gradients(mesh)
    ends = mesh.xy[mesh.edges[edges]]
    middle, along = ends.mean(axis=1), ends[:, 1] - ends[:, 0]
    centre = mesh.xy[mesh.triangles[triangle]].mean(axis=1)
    normal = np.stack([along[:, 1], -along[:, 0]], axis=1)
    normal *= np.sign(np.einsum("nd,nd->n", normal, middle - centre))[:, None]  # outward, as long as the edge
    middles = shape_slopes(np.full(3, 1 / 3))
    slope = np.einsum("na,ab,nbd->nd", theta[fields.space.nodes[triangle]], middles, gradients[triangle])
    inward = np.maximum(mesh.lambda_[triangle] * np.einsum("nd,nd->n", slope, normal), 0.0)
    sums = np.cumsum(inward)
    if sums[-1] <= 0:
        return np.zeros((0, 2))
    wanted = (np.arange(count) + 0.5) / count * sums[-1]
    chosen = np.searchsorted(sums, wanted)
    found: FloatArray = middle[chosen] + 1e-3 * (centre[chosen] - middle[chosen])
    return found


def lower_bound(section: Section, fields: Fields) -> float | None:
    """A coupling of two environments that the true one is certainly not below. [W/(m·K)]; None where it does not apply.

    Notes
    -----
    On the same triangles, unknowns at edge middles only (Crouzeix–Raviart): the flux of that solution is constant in
    each triangle and passes every edge unchanged, so it is in equilibrium, and by Thomson's principle its complementary
    energy bounds the coupling from below. The conforming solution's energy bounds it from above.

    References
    ----------
    .. [1] M. Crouzeix, P.-A. Raviart, RAIRO 7 (1973) 33–75; L. D. Marini, SIAM J. Numer. Anal. 22 (1985) 493–496.
    """
    mesh = fields.space.mesh
    plain = len(section.temperatures) == 2 and not fields.touching and not fields.space.axisymmetric
    if not plain or any(region.table for region in section.regions):
        return None
    gradients, area = barycentric_gradients(mesh)
    middles = -2 * gradients  # of the function that is 1 in the middle of the side opposite to each corner
    blocks = (area * mesh.lambda_)[:, None, None] * np.einsum("mad,mbd->mab", middles, middles)
    count = len(mesh.edges)
    rows, columns = np.repeat(mesh.edge_of, 3, axis=1).ravel(), np.tile(mesh.edge_of, (1, 3)).ravel()
    A = sparse.coo_matrix((blocks.ravel(), (rows, columns)), shape=(count, count)).tocsc()
    segment = fields.segment_of
    bound = segment >= 0
    edges = mesh.outer[bound]
    R = np.array([one.R_s for one in section.segments])[segment[bound]]
    length = np.linalg.norm(np.diff(mesh.xy[mesh.edges[edges]], axis=1)[:, 0], axis=1)
    first = next(iter(section.temperatures))
    warm = np.array([float(one.env == first) for one in section.segments])[segment[bound]]
    film = np.zeros(count)
    right = np.zeros(count)
    filmed = R > 0
    film[edges[filmed]] = length[filmed] / R[filmed]
    right[edges[filmed]] = film[edges[filmed]] * warm[filmed]
    A = A + sparse.diags(film)
    u = np.zeros(count)
    fixed = np.zeros(count, dtype=bool)
    fixed[edges[~filmed]] = True
    u[edges[~filmed]] = warm[~filmed]
    free = ~fixed
    inner = A if free.all() else A[free][:, free].tocsc()
    u[free] = factored(inner)((right - A @ u)[free])
    # The heat that the environment at 1 gives: through films, and into prescribed edges.
    through = float((film[edges] * (warm - u[edges]) * warm).sum())
    prescribed = edges[~filmed][warm[~filmed] > 0]
    return through + float((A @ u)[prescribed].sum())
