"""Where the vapour-control plane may lie: the rule of ratio beside what temperature and humidity are there."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import MOULD
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.climate.saturation import p_sat_of
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.moisture.monthly.condensation import Month
from nimble_shell.core.moisture.monthly.element import months_of
from nimble_shell.core.moisture.monthly.surface import LEAST_SPAN, largest_share
from nimble_shell.core.thermal.control import vapour_plane
from nimble_shell.core.thermal.section import resolved_section, surroundings
from nimble_shell.core.working import Given, Num, value_of

FloatArray = NDArray[np.float64]
_PLACES = 61  #: along the section


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Position:
    """Places of the control plane in one section of a build-up, from its inner to its outer face."""

    section: str  #: "field", or the member it goes through
    layer: int | None  #: whose inner face is the plane now; None without one
    x_now: float | None  #: [m]
    x: FloatArray  #: [m]
    share: FloatArray  #: of the thermal resistance inside of the place, without films, 0…1
    thickness: FloatArray  #: share of the thickness, 0…1
    theta: FloatArray  #: in the month that asks most of the place [°C]
    phi: FloatArray  #: of room air there, 0…1; 1 where it condenses
    month: int | None  #: that asks most; None if none does
    safe: float  #: largest share with which room air stays below 80 % there, in every month
    condenses: float  #: largest share with which it does not condense
    x_safe: float  #: [m]

    @property
    def now(self) -> float | None:
        """Share inside of the plane now."""
        return None if self.x_now is None else float(np.interp(self.x_now, self.x, self.share))

    def at(self, x: float) -> tuple[float, float]:
        """Temperature [°C] and relative humidity at a place. [m]"""
        return float(np.interp(x, self.x, self.theta)), float(np.interp(x, self.x, self.phi))


def positions(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction = "horizontal"
) -> tuple[Position, ...]:
    """The field of a build-up, and each member's section, as the control plane moves through them.

    Raises
    ------
    DomainError
        If the build-up cannot be resolved.

    Notes
    -----
    The room's air is taken to reach the plane: what lies inside of it is open, or pierced. A member changes the
    resistance of its own layer; heat that runs sideways is left out, so a metal member says too little of the danger.

    References
    ----------
    .. [1] ISO 13788:2012, 5.3, for a plane inside instead of the surface.
    """
    resolved = resolved_section(assembly, catalogue, surroundings(basis.schools, direction)).resolved
    element, layers = resolved.element, resolved.element.layers
    films = value_of(element.R_si), value_of(element.R_se)
    d = np.array([value_of(layer.d) for layer in layers])
    field = np.array([value_of(layer.resistance()) for layer in layers])
    plane = vapour_plane(assembly, resolved.counted)
    months = months_of(basis, assembly.outside)
    found = [_position("field", plane, d, field, films, months)]
    for at, layer in enumerate(layers):
        for member, part in zip(assembly.layers[at].members, layer.parts[1:], strict=True):
            R = field.copy()
            R[at] = value_of(part.R) if part.R is not None else d[at] / value_of(part.lambda_ or 1.0)
            found.append(_position(member.name, plane, d, R, films, months))
    return tuple(found)


def _position(
    section: str, plane: int | None, d: FloatArray, R: FloatArray, films: tuple[float, float],
    months: tuple[Month, ...],
) -> Position:  # fmt: skip
    faces, crossed = np.r_[0.0, np.cumsum(d)], np.r_[0.0, np.cumsum(R)]
    total, R_f = crossed[-1] + sum(films), crossed[-1]
    x = np.unique(np.r_[np.linspace(0, faces[-1], _PLACES), faces])
    share = np.interp(x, faces, crossed) / R_f
    asks = [month for month in range(12) if months[month].theta_i - months[month].theta_e >= LEAST_SPAN]

    def largest(phi: float) -> dict[int, float]:
        """Of the share inside, by month."""
        return {at: value_of(largest_share(months[at], phi, total, films[0], R_f)) for at in asks}

    safe = largest(MOULD)
    month = min(safe, key=lambda at: safe[at]) if safe else None
    theta, phi = np.full(len(x), np.nan), np.zeros(len(x))
    if month is not None:
        one = months[month]
        theta = one.theta_i - (one.theta_i - one.theta_e) * (films[0] + share * R_f) / total
        phi = np.minimum(one.p_i / p_sat_of(np.asarray(theta)), 1.0)
    limit = float(np.clip(min(safe.values(), default=1.0), 0, 1))
    dew = float(np.clip(min(largest(1.0).values(), default=1.0), 0, 1))
    return Position(
        section=section, layer=plane, x_now=None if plane is None else float(faces[plane]), x=x, share=share,
        thickness=x / faces[-1], theta=np.nan_to_num(theta), phi=phi, month=month, safe=limit, condenses=dew,
        x_safe=float(np.interp(limit * R_f, crossed, faces)),
    )  # fmt: skip


def share_working(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction, month: int, given: Given
) -> Num:
    """The largest safe share in the field of a build-up in one month, with its working. Raises DomainError."""
    element = resolved_section(assembly, catalogue, surroundings(basis.schools, direction)).resolved.element
    R_f = sum(value_of(layer.resistance()) for layer in element.layers)
    R_si, R_se = value_of(element.R_si), value_of(element.R_se)
    return largest_share(months_of(basis, assembly.outside)[month], MOULD, R_f + R_si + R_se, R_si, R_f, given)
