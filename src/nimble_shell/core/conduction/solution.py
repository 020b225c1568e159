"""A section solved: flows, couplings and temperatures, each with the error it carries."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.conduction.coldest import watched
from nimble_shell.core.conduction.elements import value_at
from nimble_shell.core.conduction.result import Extremes, Result, flows_of
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import MOST_UNKNOWNS, Solved, extremes, refined

FloatArray = NDArray[np.float64]

F_ERROR = 0.001  #: of the temperature factor [-]


def solve(section: Section, points: FloatArray, *, target: float = 0.002, most: int = MOST_UNKNOWNS) -> Result:
    """Solve to a relative error of every environment's coupling, and of two environments to that of f_Rsi.

    Parameters
    ----------
    points
        Where temperatures are wanted, shape (n, 2). [m]
    target
        Error of the couplings, relative to the largest of an environment to all others.
    most
        Unknowns at which refinement stops; the estimate then says what was reached.

    Raises
    ------
    DomainError
        If a part is bound to no environment, or an environment meets no surface.
    NotConverged
        If the equations lose heat, as with slivers of extreme contrast.
    """
    found, surface, f_error = _with_surface(section, refined(section, points, target=target, most=most), most)
    fields = found.fields
    T = np.array(list(section.temperatures.values()))
    flows, coupling = flows_of(tuple(section.temperatures), fields.G, T, fields.touching)
    theta = fields.theta @ T
    every = {env: extremes(fields, at, theta) for at, env in enumerate(section.temperatures)}
    return Result(
        temperatures=section.temperatures,
        heat_flow=flows,
        coupling=coupling,
        points=value_at(fields.space, theta, points),
        surface=every | surface,
        estimated_error=found.error,
        f_error=f_error,
        unknowns=fields.space.size,
        steps=found.steps,
    )


def _with_surface(section: Section, found: Solved, most: int) -> tuple[Solved, dict[str, Extremes], float | None]:
    """The section solved on, as long as the warmer side's surface asks for it."""
    T = section.temperatures
    if len(T) != 2 or found.fields.touching or len(set(T.values())) < 2:
        return found, {}, None
    warm = max(T, key=lambda env: T[env])
    seen = watched(section, section, warm, found, target=F_ERROR, most=most)
    return seen.solved, {warm: seen.extremes}, seen.error
