"""A joint solved: ψ in three dimension systems, surface factor, flows, the error and what is certain."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.basis.schools import FilmSchool
from nimble_shell.core.conduction.coldest import Watched, watched
from nimble_shell.core.conduction.field import (
    Field,
    drawn,
    flows_by_segment,
    line_starts,
    lower_bound,
    surface_trace,
)
from nimble_shell.core.conduction.limit import extrapolated
from nimble_shell.core.conduction.result import Extremes
from nimble_shell.core.conduction.section import Section
from nimble_shell.core.conduction.solve import Solved, begun, once_more, refined
from nimble_shell.core.joints.bound import judged, section_of
from nimble_shell.core.joints.drawing import SYSTEMS, Drawing, System

FloatArray = NDArray[np.float64]
Accuracy = Literal["working", "final"]

PSI_ERROR = 0.0003  #: of ψ at final accuracy [W/(m·K)]
F_ERROR: dict[Accuracy, float] = {"working": 0.003, "final": 0.001}
L2D_ERROR: dict[Accuracy, float] = {"working": 0.005, "final": 0.002}
_MOST: dict[Accuracy, int] = {"working": 120_000, "final": 160_000}
_MOST_CERTAIN = 12_000  #: unknowns at which the search for a narrower interval ends
COARSE = 8.0  #: of intervals, where the bounds tell whether the grid is good enough
_NOWHERE = np.zeros((0, 2))
Pair = tuple[str, str]


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class JointFigures:
    """Figures of a joint. Per metre for sections; per piece for bodies of revolution, where ψ is χ in W/K."""

    coupling: dict[Pair, float]  #: L2D of each pair of environments [W/(m·K)]
    psi: dict[Pair, dict[System, float]]  #: [W/(m·K)]
    error: float  #: of every coupling, estimated [W/(m·K)]
    certain: tuple[float, float] | None  #: the coupling lies between these; where the bound applies [W/(m·K)]
    heat_flow: dict[str, float]  #: into the section from each environment [W/m]
    balance: float  #: sum of flows over the largest
    f_rsi: float | None  #: of the inner surface with the films that it is judged by
    f_error: float | None  #: of it, estimated; None if not known [-]
    coldest: Extremes  #: of that surface [°C], [m]
    temperatures: Mapping[str, float]  #: [°C]
    unknowns: int


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class SolvedJoint(JointFigures):
    """The figures with the field they were read from; some megabytes."""

    field: Field
    trace: FloatArray  #: inner surface: x, y [m], θ [°C] at both ends and the middle of each edge, shape (n, 3, 3)
    segments: tuple[tuple[str, tuple[float, float], tuple[float, float], float], ...]  #: env, ends [m], flow [W/m]
    starts: FloatArray  #: of lines of heat flow, shape (n, 2); at final accuracy only [m]

    @property
    def figures(self) -> JointFigures:
        """The figures alone, to be held for long."""
        return JointFigures(**{one.name: getattr(self, one.name) for one in fields(JointFigures)})


def solve_joint(
    drawing: Drawing,
    temperatures: Mapping[str, float],
    school: FilmSchool = "iso6946",
    accuracy: Accuracy = "final",
) -> SolvedJoint:
    """Solve a joint.

    Parameters
    ----------
    drawing : Drawing
    temperatures : mapping
        Of each environment, "inside" among them. [°C]
    school : {"iso6946", "north_american"}
    accuracy : {"working", "final"}
        0.5 % of L2D, certain where bounds apply, or 0.2 % and 0.0003 W/(m·K) of ψ.

    Raises
    ------
    DomainError
        If the drawing cannot be solved.

    Notes
    -----
    ψ = L2D − Σ U·l with U of the same plies. At final accuracy L2D is the limit that the grids go to, with its
    estimated error; of two environments the interval in which it certainly lies is given as well.

    References
    ----------
    .. [1] ISO 10211:2017, 9 and 12; ISO 14683:2017, annex B (dimension systems).
    """
    section = section_of(drawing, temperatures, school)
    if accuracy == "working":
        found, certain = quickly(section)
    else:
        found = extrapolated(section, target=L2D_ERROR["final"], absolute=PSI_ERROR, most=_MOST["final"])
        certain = None if found.low is None else (found.low, float(found.fields.G[0, 0]))
    return told(drawing, section, surface_of(drawing, section, found, accuracy), certain,
                lines=accuracy == "final")  # fmt: skip


def surface_of(drawing: Drawing, section: Section, found: Solved, accuracy: Accuracy) -> Watched:
    """A solved section of a drawing with its inner surface, by the films that it is judged by."""
    return watched(section, judged(drawing, section), "inside", found, target=F_ERROR[accuracy], most=_MOST[accuracy])


def told(
    drawing: Drawing,
    section: Section,
    surface: Watched,
    certain: tuple[float, float] | None,
    *,
    lines: bool,
) -> SolvedJoint:
    """What a solved section of a drawing says; with lines of heat flow if wanted."""
    envs = tuple(section.temperatures)
    found, fields = surface.solved, surface.solved.fields
    T = np.array([section.temperatures[env] for env in envs])
    theta = fields.theta @ T
    flows = fields.G @ (T - T.mean())
    G = fields.G if found.limit is None else found.limit
    if certain is not None and found.limit is not None:  # the limit is an estimate, the bounds are not
        G = G * float(np.clip(-G[0, 1], *certain) / -G[0, 1])
    coupling = {(envs[i], envs[j]): float(-G[i, j]) for i in range(len(envs)) for j in range(i + 1, len(envs))}
    inside = envs.index("inside")
    by_segment = flows_by_segment(section, fields, theta)
    segments = tuple(
        (segment.env, segment.a, segment.b, float(flow))
        for segment, flow in zip(section.segments, by_segment, strict=True)
    )
    return SolvedJoint(
        coupling=coupling,
        psi={pair: psi_of(drawing, pair, value) for pair, value in coupling.items()},
        error=float(found.error * np.abs(np.diag(G)).max()),
        certain=certain,
        heat_flow={env: float(flow) for env, flow in zip(envs, flows, strict=True)},
        balance=float(abs(flows.sum()) / max(np.abs(flows).max(), 1e-12)),
        f_rsi=_factor(surface.extremes, section),
        f_error=surface.error,
        coldest=surface.extremes,
        temperatures=section.temperatures,
        field=drawn(fields.space, theta),
        trace=surface_trace(fields, inside, theta),
        segments=segments,
        starts=line_starts(fields, inside, theta) if lines else _NOWHERE,
        unknowns=fields.space.size,
    )


def quickly(section: Section) -> tuple[Solved, tuple[float, float] | None]:
    """The coarsest grid whose bounds say that it is good enough; by estimate where there are no bounds."""
    target, most = L2D_ERROR["working"], _MOST["working"]
    found = begun(section, most, COARSE)
    while True:
        low = lower_bound(section, found.fields)
        if low is None:
            return refined(section, _NOWHERE, target=target, most=most), None
        high = float(found.fields.G[0, 0])
        if (high - low) / 2 <= target * high:
            return replace(found, error=(high - low) / 2 / high), (low, high)
        if found.fields.space.size > _MOST_CERTAIN / 2:  # strong contrasts: the estimate is there sooner
            found = refined(section, _NOWHERE, target=target, most=most)
            return found, (max(low, lower_bound(section, found.fields) or low), float(found.fields.G[0, 0]))
        found = once_more(section, found)


def psi_of(drawing: Drawing, pair: Pair, L2D: float) -> dict[System, float]:
    """ψ, or χ, of what a coupling is beyond the plane elements. [W/(m·K)] or [W/K]"""
    own = [one for one in drawing.references if set(one.envs) == set(pair)]
    return {system: L2D - sum(one.U * one.lengths[at] for one in own) for at, system in enumerate(SYSTEMS)}


def _factor(coldest: Extremes, section: Section) -> float | None:
    """Temperature factor of the critical inner surface: the coldest, or in a cooled room the warmest."""
    inside, outside = section.temperatures["inside"], section.temperatures.get("outside")
    if outside is None or abs(inside - outside) < 1e-9:
        return None
    return ((coldest.min if inside > outside else coldest.max) - outside) / (inside - outside)
