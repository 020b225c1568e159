"""At one place: the temperature at a depth, and the R at a groove chased into a layer."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.conductivity import theta_behind
from nimble_shell.core.assemblies.figures import clear_wall_R, of_school, surroundings, totals_by_method
from nimble_shell.core.assemblies.films import Direction
from nimble_shell.core.assemblies.resolve import resolve
from nimble_shell.core.assemblies.temperature import steady_state
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.shell.basis import Basis, condition
from nimble_shell.core.working import value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Chase:
    """A groove cut into a layer from its inner face."""

    R_there: float  #: through the groove's bottom, clear of members [m²·K/W]
    R_clear: float  #: of the wall with grooves over the stated share of its area [m²·K/W]
    R_without: float  #: of the wall without [m²·K/W]


def temperature_at(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    depth: float,
    condition_key: str,
    direction: Direction = "horizontal",
) -> float:
    """Temperature of the field at a depth from the inner face: of a pipe, or of the bottom of a box. [°C]

    Parameters
    ----------
    depth : float
        From the inner face. [m]
    condition_key : str
        Month "0" … "11", "winter" or "summer".

    Raises
    ------
    DomainError
        If the depth lies outside of the counted layers.
    """
    moment = condition(basis, condition_key)
    resolved = resolve(assembly, catalogue, surroundings(basis, direction))
    whole = sum(layer.d for layer in assembly.layers[: resolved.counted])
    if not 0 <= depth <= whole:
        raise DomainError(
            Issue(
                path=("depth",),
                code="depth_outside",
                message=f"depth is {1000 * depth:g} mm",
                hint=f"from 0 to {1000 * whole:g} mm: what lies beyond a ventilated gap is outside",
            )
        )
    state = steady_state(resolved.element, moment.theta_i, moment.theta_e)
    left = depth
    for number, layer in enumerate(assembly.layers[: resolved.counted]):
        if left <= layer.d or number == resolved.counted - 1:
            share = min(left / layer.d, 1.0)
            a, b = value_of(state.theta[number]), value_of(state.theta[number + 1])
            part = resolved.element.layers[number].parts[0]
            if part.table and part.R is None:
                return theta_behind(part.table, a, value_of(state.q), layer.d_mean * share)
            return a + (b - a) * share
        left -= layer.d
    raise AssertionError("a depth within the wall lies in one of its layers")


def chase(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    layer: int,
    depth: float,
    share: float,
    direction: Direction = "horizontal",
) -> Chase:
    """What a groove leaves of the R, there and over the wall. [m²·K/W]

    Parameters
    ----------
    layer : int
        Index from inside.
    depth : float
        Of the groove, less than the layer. [m]
    share : float
        Area of grooves over the wall's, 0…1.

    Raises
    ------
    DomainError
        If the groove is deeper than its layer, or the share is none.

    Notes
    -----
    What is put into the groove is not counted. The wall with grooves is the parallel mean of both.
    """
    if not 0 <= layer < len(assembly.layers) or not 0 < depth < assembly.layers[layer].d:
        raise DomainError(
            Issue(
                path=("chase_depth",),
                code="chase_too_deep",
                message=f"the groove is {1000 * depth:g} mm deep",
                hint="above 0 and less than the layer",
            )
        )
    if not 0 <= share <= 1:
        raise DomainError(
            Issue(
                path=("chase_share",),
                code="share_out_of_range",
                message=f"share is {100 * share:g} %",
                hint="from 0 to 100 %",
            )
        )
    cut = assembly.with_thickness(layer, assembly.layers[layer].d - depth)
    totals = totals_by_method(resolve(cut, catalogue, surroundings(basis, direction)))
    without = value_of(clear_wall_R(assembly, catalogue, basis, direction=direction))
    return Chase(
        R_there=value_of(totals.nominal),
        R_clear=1 / (share / value_of(of_school(totals, basis)) + (1 - share) / without),
        R_without=without,
    )
