"""A build-up through the year by month: its surface, the planes inside that get wet, and what they may hold."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from nimble_shell.core.assemblies.assembly import Assembly, Layer, Outside
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.damp import DampLimits
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.materials.derived import takes_up, wood_of
from nimble_shell.core.moisture.monthly.condensation import Month, MonthlyLayer, Planes, Year, planes_of, year
from nimble_shell.core.moisture.monthly.surface import (
    critical_month,
    f_rsi_required,
    outer_factor_required,
    phi_at_failure,
)
from nimble_shell.core.thermal.figures import surface_factor
from nimble_shell.core.thermal.films import R_SI_SURFACE
from nimble_shell.core.thermal.section import resolved_section, surroundings
from nimble_shell.core.thermal.vapour import diffusion_thicknesses
from nimble_shell.core.working import plain, value_of

GROUND_PHI = 0.99  #: relative humidity of the ground below a floor
_GROUND_SHARE, _GROUND_LATE = 0.25, 1  #: swing of that ground to the air's; months behind
_TRACE = 1e-5  #: less than this counts as none at a plane [kg/m²]


MonthlyOutcome = Literal["dry", "dries", "too wet", "slowly", "gathers"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Wet:
    """A plane between two layers, or inside of one, that is wet in some month."""

    plane: int  #: index into the year's planes
    x: float  #: from the inner face [m]
    inner: int  #: layer on its inner side
    outer: int  #: layer on its outer side
    limit: float  #: [kg/m²]
    reason: str  #: of the limit
    g: tuple[float, ...]  #: condensed in each month, January first [kg/m²]
    M: tuple[float, ...]  #: at the end of each month [kg/m²]
    left: float  #: when the year is over [kg/m²]

    @property
    def peak(self) -> float:
        return max(self.M)


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class ElementYear:
    """What the months say of a build-up."""

    months: tuple[Month, ...]
    year: Year
    counted: int  #: layers from inside that take part
    wet: tuple[Wet, ...]
    f_rsi: float
    required: tuple[float | None, ...]  #: of f_rsi, by month
    phi_fails: tuple[float | None, ...]  #: room humidity at which the surface has 80 %, by month
    critical: int | None
    f_outer: float  #: factor of the outer surface where heat flows inwards
    outer_required: tuple[float | None, ...]  #: of f_outer, by month
    years: float  #: that a slow gathering may go on, `DampLimits.years`

    @property
    def left(self) -> float:
        """Water of all planes when the year is over. [kg/m²]"""
        return float(self.year.left.sum())

    @property
    def surface_passes(self) -> bool:
        return all(one is None or self.f_rsi >= one for one in self.required)

    @property
    def outer_passes(self) -> bool:
        """Whether outside air stays above its dew point at the outer surface, in months when heat flows inwards."""
        return all(one is None or self.f_outer >= one for one in self.outer_required)

    @property
    def verdict(self) -> MonthlyOutcome:
        """One word for the planes inside; what gathers slowly does not come to its limit in the years that count."""
        if not self.wet:
            return "dry"
        if any(one.peak > one.limit for one in self.wet):
            return "too wet" if self.year.dries else "gathers"
        if self.year.dries:
            return "dries"
        return "gathers" if any(one.peak + one.left * (self.years - 1) > one.limit for one in self.wet) else "slowly"


def months_of(basis: Basis, outside: Outside = "air") -> tuple[Month, ...]:
    """The twelve months of the Basis, with its room; outside is the air, or the ground below a floor."""
    climate, found = basis.climate, []
    ground = below_floor(climate.theta_e)
    for at, (theta_e, phi_e) in enumerate(zip(climate.theta_e, climate.phi_e, strict=True)):
        theta_i, phi_i = basis.indoor.in_month(theta_e, phi_e)
        beyond = (ground[at], GROUND_PHI) if outside == "ground" else (theta_e, phi_e)
        found.append(Month(theta_e=beyond[0], phi_e=beyond[1], theta_i=theta_i, phi_i=phi_i))
    return tuple(found)


def below_floor(theta_e: Sequence[float]) -> tuple[float, ...]:
    """Months of the ground below a floor: a quarter of the air's swing, a month late. [°C]"""
    mean = float(np.mean(theta_e))
    return tuple(mean + _GROUND_SHARE * (theta_e[at - _GROUND_LATE] - mean) for at in range(len(theta_e)))


def element_year(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction = "horizontal"
) -> ElementYear:
    """A build-up through the year.

    Parameters
    ----------
    assembly : Assembly
        Layers inside → outside; first parts of bridged layers count.
    catalogue : mapping of key to Material
    basis : Basis
        Its climate and room.
    direction : Direction
        Of the heat flow.

    Raises
    ------
    DomainError
        If the build-up cannot be resolved.

    Notes
    -----
    Layers outside of a well-ventilated one take no part: the outside air is behind them. Vapour only, steady in each
    month; water that is stored, carried as liquid or by air through joints is not seen by this method.

    References
    ----------
    .. [1] ISO 13788:2012, 5 and 6.
    """
    planes, counted = element_planes(assembly, catalogue, basis, direction)
    months = months_of(basis, assembly.outside)
    found = year(planes, months)
    f_rsi = surface_factor(assembly, catalogue, basis, direction=direction)
    required = tuple(f_rsi_required(month) for month in months)
    return ElementYear(
        months=months,
        year=found,
        counted=counted,
        wet=tuple(
            _wet(assembly, catalogue, basis.damp, found, int(at)) for at in found.wet if found.M[:, at].max() > _TRACE
        ),
        f_rsi=f_rsi,
        required=required,
        phi_fails=tuple(phi_at_failure(month, f_rsi) for month in months),
        critical=critical_month(required),
        f_outer=1 - R_SI_SURFACE / (float(planes.R[-1]) + R_SI_SURFACE),
        outer_required=tuple(
            None if assembly.outside == "ground" else outer_factor_required(month) for month in months
        ),
        years=basis.damp.years,
    )


def element_planes(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction = "horizontal"
) -> tuple[Planes, int]:
    """The planes of a build-up, and how many layers from inside take part. Raises DomainError."""
    resolved = resolved_section(assembly, catalogue, surroundings(basis.schools, direction)).resolved
    sd = diffusion_thicknesses(assembly, catalogue, resolved.counted, plain)
    element = resolved.element
    plies = [
        MonthlyLayer(d=value_of(layer.d), R=value_of(layer.resistance()), sd=value_of(one))
        for layer, one in zip(element.layers, sd, strict=True)
    ]
    return planes_of(plies, value_of(element.R_si), value_of(element.R_se)), resolved.counted


def _wet(assembly: Assembly, catalogue: Catalogue, damp: DampLimits, found: Year, at: int) -> Wet:
    inner, outer = (int(found.planes.layer[at + side]) for side in (0, 1))
    limit, reason = limit_beside([assembly.layers[inner], assembly.layers[outer]], catalogue, damp)
    return Wet(
        plane=at + 1, x=float(found.planes.x[at + 1]), inner=inner, outer=outer, limit=limit, reason=reason,
        g=tuple(map(float, found.g[:, at])), M=tuple(map(float, found.M[:, at])), left=float(found.left[at]),
    )  # fmt: skip


def limit_beside(beside: list[Layer], catalogue: Catalogue, damp: DampLimits) -> tuple[float, str]:
    """What a plane may hold [kg/m²], and why: the least that the layers beside it allow."""
    found = [(damp.plane, "general limit at a plane")]
    for layer in beside:
        material = catalogue.get(layer.material or "")
        if material is None:
            continue
        if not takes_up(material):
            found.append((damp.beside_tight, f"{material.name} takes up no water"))
        share = {"solid": damp.timber, "board": damp.board}.get(wood_of(material), 0.0)
        if share:
            found.append((share * layer.d * material.rho, f"{100 * share:g} % of the mass of {material.name}"))
    return min(found)


def closest_to_saturation(found: Year) -> tuple[int, int, float]:
    """Month, plane and share of saturation where the inside of the element comes closest to condensing."""
    inner = found.p[:, 1:-1] / found.p_sat[:, 1:-1]
    if not inner.size:
        return 0, 0, 0.0
    month, plane = np.unravel_index(int(np.argmax(inner)), inner.shape)
    return int(month), int(plane) + 1, float(inner[month, plane])


@lru_cache(maxsize=64)
def factor_asked(basis: Basis) -> float | None:
    """Temperature factor that every inner surface has to keep: the stricter of the Basis and its worst month."""
    months = (f_rsi_required(month) for month in months_of(basis))
    return max((one for one in (basis.targets.f_rsi, *months) if one is not None), default=None)
