"""At one place: the temperature at a depth, and the R at a groove chased into a layer."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.thermal.conductivity import mean_conductivity, theta_behind
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.thermal.section import of_school, resolved_section, surroundings
from nimble_shell.core.thermal.temperature import steady_state, temperatures_by_share
from nimble_shell.core.working import Given, Num, named, plain, value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Chase:
    """A groove cut into a layer from its inner face."""

    R_there: Num  #: through the groove's bottom, clear of members [m²·K/W]
    R_clear: Num  #: of the wall with grooves over the stated share of its area [m²·K/W]
    R_without: Num  #: of the wall without [m²·K/W]


def temperature_at(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    depth: float,
    condition_key: str,
    direction: Direction = "horizontal",
    *,
    given: Given = plain,
) -> Num:
    """Temperature of the field at a depth from the inner face: of a pipe, or of the bottom of a box. [°C]

    Parameters
    ----------
    depth : float
        From the inner face. [m]
    condition_key : str
        Month "0" … "11", "winter" or "summer".
    given : Given
        `plain` for the figure, `traced` for its working.

    Raises
    ------
    DomainError
        If the depth lies outside of the counted layers.
    """
    moment = condition(basis, condition_key)
    resolved = resolved_section(assembly, catalogue, surroundings(basis.schools, direction), given=given).resolved
    whole = sum(layer.d for layer in assembly.layers[: resolved.counted])
    if not 0 <= depth <= whole:
        raise DomainError(
            Issue(
                path=("depth",),
                code="depth_outside",
                message=sentence("depth is {v1}", v1=(depth, "length")),
                hint=sentence("from 0 to {v1}: what lies beyond a ventilated gap is outside", v1=(whole, "length")),
            )
        )
    state = steady_state(resolved.element, moment.theta_i, moment.theta_e, given=given)
    faces = temperatures_by_share(resolved.element, state)
    left = depth
    for number, layer in enumerate(assembly.layers[: resolved.counted]):
        if left <= layer.d or number == resolved.counted - 1:
            part = resolved.element.layers[number].parts[0]
            into = given(min(left / layer.d, 1.0), "s", "share of the layer crossed", "", "entered depth")
            crossed = resolved.element.layers[number].resistance() * into
            if part.table and part.R is None:
                x, q = resolved.element.layers[number].d * into, value_of(state.q)
                behind = theta_behind(part.table, value_of(faces[number]), q, value_of(x))
                there = given(behind, "theta_there", "temperature there", "°C", "exact inversion of ∫ λ dθ")
                crossed = x / named(
                    mean_conductivity(part.table, faces[number], there),
                    "lambda_crossed",
                    "mean conductivity from the face to there",
                    "W/(m·K)",
                    "(1/Δθ)·∫ λ dθ over the λ(θ) table",
                )
            clause = "ISO 13788:2012, 6.3: θ falls with the resistance crossed"
            return named(faces[number] - state.q * crossed, "theta_x", "temperature at that depth", "°C", clause)
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
    *,
    given: Given = plain,
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
    given : Given
        `plain` for figures, `traced` for working.

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
                message=sentence("the chase is {v1} deep", v1=(depth, "length")),
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
    totals = resolved_section(cut, catalogue, surroundings(basis.schools, direction), given=given, prefix="cut").totals
    without = clear_wall_R(assembly, catalogue, basis, direction=direction, given=given)
    part = given(share, "f_cut", "area of chases over the wall's", "", "entered")
    mean = 1 / (part / of_school(totals, basis.schools) + (1 - part) / without)
    return Chase(
        R_there=totals.nominal,
        R_clear=named(mean, "R_cut_wall", "clear wall with chases", "m²·K/W", "parallel mean of both"),
        R_without=without,
    )
