"""What an hourly run says of a place: between cells, at interfaces and at both surfaces."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.moisture.hourly import cell_state
from nimble_shell.core.moisture.hourly.transport import Run, tables_of
from nimble_shell.core.quantities.sentence import sentence

FloatArray = NDArray[np.float64]
_WITHIN = 1e-9  #: a place this far outside of a face lies on it [m]


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Trace:
    """One place, at the hours the run has kept."""

    theta: FloatArray  #: [°C]
    phi: FloatArray  #: 0…1
    w: FloatArray  #: of the layer whose cell the place lies in [kg/m³]


def at(run: Run, x: float) -> Trace:
    """The state at a place; at an interface, w is that of the layer towards inside.

    Parameters
    ----------
    x
        From the inner face. [m]

    Raises
    ------
    DomainError
        If the place lies outside of the element.

    Notes
    -----
    Linear between the middles of cells of one layer. At faces temperature follows the resistances beside it, and
    vapour pressure the vapour resistances.
    """
    faces = np.r_[0.0, np.cumsum(run.grid.dx)]
    if not -_WITHIN <= x <= faces[-1] + _WITHIN:
        raise DomainError(
            Issue(
                path=("x",),
                code="place_outside",
                message=sentence("x is {v1} of {v2}", v1=(x, "distance"), v2=(faces[-1], "distance")),
                hint="from 0 at the inner face",
            )
        )
    n = len(run.grid.dx)
    j = int(np.clip(np.searchsorted(faces, x - _WITHIN) - 1, 0, n - 1))
    middle = (faces[j] + faces[j + 1]) / 2
    k = j + 1 if x > middle else j - 1
    if 0 <= k < n and run.grid.layer[k] == run.grid.layer[j]:
        share = (x - middle) / ((run.grid.dx[j] + run.grid.dx[k]) / 2 * (1 if k > j else -1))
        between = [one[:, j] + share * (one[:, k] - one[:, j]) for one in (run.theta, run.phi, run.w)]
        return Trace(theta=between[0], phi=between[1], w=between[2])
    face = _face(run, j, outer=k > j)
    share = abs(x - middle) / (run.grid.dx[j] / 2)
    own = np.stack([run.theta[:, j], run.phi[:, j], run.w[:, j]])
    found = own + share * (face - own)
    return Trace(theta=found[0], phi=found[1], w=found[2])


def _face(run: Run, j: int, *, outer: bool) -> FloatArray:
    """θ, φ and w on one face of a cell, shape (3, hours)."""
    stuff, mat = tables_of(run.slabs)
    k = j + 1 if outer else j - 1
    films = run.films.array()
    a, b = np.zeros((1, cell_state.COLUMNS)), np.zeros((1, cell_state.COLUMNS))
    found = np.zeros((3, len(run.theta)))
    for at_hour, hour in enumerate(run.hours):
        own = mat[run.grid.layer[j]]
        cell_state.state(run.theta[at_hour, j], run.phi[at_hour, j], own, stuff, a, 0)
        cell_state.transport(own, stuff, a, 0)
        Gh, Gv = 2 * a[0, 12] / run.grid.dx[j], 2 * a[0, 13] / run.grid.dx[j]
        if 0 <= k < len(run.grid.dx):
            other = mat[run.grid.layer[k]]
            cell_state.state(run.theta[at_hour, k], run.phi[at_hour, k], other, stuff, b, 0)
            cell_state.transport(other, stuff, b, 0)
            other_h, other_v = 2 * b[0, 12] / run.grid.dx[k], 2 * b[0, 13] / run.grid.dx[k]
            theta, p = b[0, 11], b[0, 0]
        else:
            bounds = run.boundaries[(hour - 1) % len(run.boundaries)]
            theta, p = (bounds[0], bounds[1]) if outer else (bounds[2], bounds[3])
            h, beta = (films[2], films[3]) if outer else (films[0], films[1])
            other_h, other_v = (h, beta) if h > 0 else (1e12, 1e3)
        theta_f = (Gh * a[0, 11] + other_h * theta) / (Gh + other_h)
        p_f = (Gv * a[0, 0] + other_v * p) / (Gv + other_v)
        phi_f = min(p_f / cell_state.saturation(theta_f)[0], 1.0)
        cell_state.state(theta_f, phi_f, own, stuff, b, 0)
        found[:, at_hour] = theta_f, phi_f, b[0, 3]
    return found
