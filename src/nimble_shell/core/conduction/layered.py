"""Linear solution of a layered body with something small in it: conjugate gradients that begin where layers end.

The layers alone have an exact, cheap inverse on a grid of planes: eigenvectors along two axes, a tridiagonal system
along the third. What is in them, a fixing, is few cells; they and their neighbours have a sparse factorisation. One
after the other they all but invert the whole, whatever the contrast and the grading.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy import sparse
from scipy.linalg import eigh
from scipy.linalg.lapack import dpttrf, dpttrs
from scipy.sparse.linalg import SuperLU, splu

from nimble_shell.core.errors import NotConverged

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

_SAME = 1e-9  #: links that differ by less are the layers' own, relative
_FILLER = 0.03  #: conductivity given to voids in the layers' inverse [W/(m·K)]
_MOST_STEPS = 150
_MOST_SHARE = 0.3  #: the same, of all solid cells
_MOST_OWN = 40_000  #: cells that may differ from the layers


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Network:
    """Conductances between neighbouring cells of a grid, and to what has a given temperature. [W/K]"""

    sizes: tuple[FloatArray, FloatArray, FloatArray]  #: of the cells along each axis [m]
    lambda_: FloatArray  #: shape (nx, ny, nz), nan for void [W/(m·K)]
    links: tuple[FloatArray, FloatArray, FloatArray]  #: along each axis, one shorter than the grid along it
    ground: FloatArray  #: shape (nx, ny, nz)

    @property
    def diagonal(self) -> FloatArray:
        total = self.ground.copy()
        for axis, g in enumerate(self.links):
            low, high = both(total, axis)
            low += g
            high += g
        return total

    def times(self, u: FloatArray, diagonal: FloatArray) -> FloatArray:
        """The heat that leaves every cell at temperatures u. [W]"""
        out = diagonal * u
        for axis, g in enumerate(self.links):
            (out_low, out_high), (low, high) = both(out, axis), both(u, axis)
            out_low -= g * high
            out_high -= g * low
        return out


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Layers:
    """The inverse of the layers alone. The axis across them is the second."""

    x: FloatArray  #: eigenvectors along the first axis, shape (nx, nx)
    z: FloatArray
    factors: tuple[FloatArray, FloatArray]  #: of the lines across, one after the other

    def solve(self, r: FloatArray) -> FloatArray:
        """Temperatures for sources r. [W]"""
        nx, ny, nz = r.shape
        turned = np.tensordot(self.x.T, r, axes=(1, 0)) @ self.z  # (nx, ny, nz)
        lines = np.ascontiguousarray(turned.transpose(0, 2, 1)).ravel()
        lines, _ = dpttrs(*self.factors, lines)
        back = lines.reshape(nx, nz, ny).transpose(0, 2, 1) @ self.z.T
        found: FloatArray = np.tensordot(self.x, back, axes=(1, 0))
        return found


def both(values: NDArray[Any], axis: int) -> tuple[NDArray[Any], NDArray[Any]]:
    """The cells before and after each plane between two cells."""
    low, high = [slice(None)] * 3, [slice(None)] * 3
    low[axis], high[axis] = slice(None, -1), slice(1, None)
    return values[tuple(low)], values[tuple(high)]


def layered(network: Network) -> Layered | None:
    """The network, ready to be solved; None where too much of it is not layered along its second axis."""
    solid = np.isfinite(network.lambda_)
    background = _background(network)
    own = np.nonzero(_touched(network, background, solid).ravel())[0]
    if len(own) > min(_MOST_OWN, _MOST_SHARE * solid.sum()) or not solid[-1, :, -1].any():
        return None
    return Layered(network, background, own)


class Layered:
    """A network of layers with little else in it, ready to be solved for several sources."""

    def __init__(self, network: Network, background: Background, own: IntArray) -> None:
        self.network = network
        self.solid = np.isfinite(network.lambda_)
        self.diagonal = np.where(self.solid, network.diagonal, 1.0)
        self.layers = _inverse(network, background)
        self.own = own
        self.factors: SuperLU | None = None
        if len(own):
            block = _block(network, self.diagonal, own)
            self.factors = splu(block, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0,
                                options={"SymmetricMode": True})  # fmt: skip

    def solve(self, b: FloatArray, tolerance: float) -> FloatArray:
        """Temperatures for a heat source in every cell. [W]; voids stay at zero.

        Raises
        ------
        NotConverged
            If the residual does not fall.
        """
        u, r = np.zeros_like(b), b.copy()
        size = float(np.linalg.norm(b))
        if size == 0:
            return u
        z = self._precondition(r)
        p, rz = z, float(np.vdot(r, z))
        for _ in range(_MOST_STEPS):
            Ap = self.network.times(p, self.diagonal)
            step = rz / float(np.vdot(p, Ap))
            u += step * p
            r -= step * Ap
            if float(np.linalg.norm(r)) <= tolerance * size:
                return u
            z = self._precondition(r)
            rz, before = float(np.vdot(r, z)), rz
            p = z + rz / before * p
        raise NotConverged(_MOST_STEPS, float(np.linalg.norm(r)) / size)

    def _precondition(self, r: FloatArray) -> FloatArray:
        """What is in the layers, the layers, and what is in them again: symmetric."""
        z = self._inside(r)
        rest = r - self.network.times(z, self.diagonal)
        z += np.where(self.solid, self.layers.solve(rest), 0.0)
        return z + self._inside(r - self.network.times(z, self.diagonal))

    def _inside(self, r: FloatArray) -> FloatArray:
        found = np.zeros_like(r)
        if self.factors is not None:
            found.ravel()[self.own] = self.factors.solve(r.ravel()[self.own])
        return found


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Background:
    """The layers, per area across and per width along."""

    along: FloatArray  #: λ·h of every layer [W/K]
    across: FloatArray  #: between layers [W/(m²·K)]
    ground: FloatArray  #: [W/(m²·K)]


def _background(network: Network) -> Background:
    """What stands in the corner farthest from the origin, where no fixing is."""
    hx, hy, hz = network.sizes
    area = float(hx[-1] * hz[-1])
    lambda_ = network.lambda_[-1, :, -1]
    void = ~np.isfinite(lambda_)
    ground = network.ground[-1, :, -1] / area
    ground = np.where(void, np.maximum(ground, _FILLER), ground)
    return Background(
        along=np.where(void, _FILLER, lambda_) * hy,
        across=network.links[1][-1, :, -1] / area,
        ground=ground,
    )


def _inverse(network: Network, layers: Background) -> Layers:
    hx, hy, hz = network.sizes
    mu_x, x = _modes(hx)
    mu_z, z = _modes(hz)
    ny = len(hy)
    d = layers.ground.copy()
    d[:-1] += layers.across
    d[1:] += layers.across
    modes = (mu_x[:, None] + mu_z[None, :])[..., None] * layers.along + d
    e = np.zeros((len(hx), len(hz), ny))
    e[..., :-1] = -layers.across
    factor_d, factor_e, info = dpttrf(modes.ravel(), e.ravel()[:-1])
    if info != 0:
        raise NotConverged(0, float(info))
    return Layers(x=x, z=z, factors=(factor_d, factor_e))


def _modes(h: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Eigenvalues and vectors of links between cells of sizes h, against the sizes."""
    g = 2 / (h[:-1] + h[1:])
    K = np.diag(np.r_[g, 0.0] + np.r_[0.0, g]) - np.diag(g, 1) - np.diag(g, -1)
    mu, vectors = eigh(K, np.diag(h))
    return np.maximum(mu, 0.0), vectors


def _touched(network: Network, layers: Background, solid: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Solid cells with a link that is not the layers' own."""
    hx, _, hz = network.sizes
    own = (
        (2 / (hx[:-1] + hx[1:]))[:, None, None] * layers.along[None, :, None] * hz[None, None, :],
        hx[:, None, None] * layers.across[None, :, None] * hz[None, None, :],
        hx[:, None, None] * layers.along[None, :, None] * (2 / (hz[:-1] + hz[1:]))[None, None, :],
    )
    found = np.abs(network.ground - hx[:, None, None] * layers.ground[None, :, None] * hz[None, None, :]) > _SAME * (
        network.ground + 1e-30
    )
    for axis, (g, expected) in enumerate(zip(network.links, own, strict=True)):
        other = np.abs(g - expected) > _SAME * expected
        low, high = both(found, axis)
        low |= other
        high |= other
    touched: NDArray[np.bool_] = found & solid
    return touched


def _block(network: Network, diagonal: FloatArray, own: IntArray) -> sparse.csc_matrix:
    number = np.full(diagonal.size, -1)
    number[own] = np.arange(len(own))
    placed: NDArray[Any] = number.reshape(diagonal.shape)
    each = np.arange(len(own))
    rows: list[IntArray] = [each]
    columns: list[IntArray] = [each]
    values: list[FloatArray] = [diagonal.ravel()[own]]
    for axis, g in enumerate(network.links):
        low, high = both(placed, axis)
        linked = (low >= 0) & (high >= 0) & (g > 0)
        a, b = low[linked], high[linked]
        rows += [a, b]
        columns += [b, a]
        values += [-g[linked], -g[linked]]
    return sparse.coo_matrix(
        (np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), shape=(len(own),) * 2
    ).tocsc()
