"""A core at many thicknesses, with the panels that go with it: resolved once, every thickness in one array.

The arithmetic is that of one wall.
"""

from __future__ import annotations

from typing import cast

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.flow import direction_of_flow, over_the_year
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, Issue, NotConverged
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.thermal.amounts import wall_amounts
from nimble_shell.core.thermal.conductivity import mean_conductivities
from nimble_shell.core.thermal.films import Season
from nimble_shell.core.thermal.resistance import Resistances, Swept, totals
from nimble_shell.core.thermal.resolve import Age, fixings_transmittance
from nimble_shell.core.thermal.section import of_school, resolved_section, surroundings, totals_by_method, with_points
from nimble_shell.core.working import Num, value_of

FloatArray = NDArray[np.float64]

THINNEST, THICKEST = 0.005, 1.0  #: range of thicknesses that are swept [m]
_ROUNDS = 80  #: of the fixed point for λ(θ); each gains about two digits
_CLOSE = 1e-13  #: relative change of resistance at which it ends


class Sweep:
    """The wall with another thickness of its core. Resistances in m²·K/W, thicknesses in m.

    Raises
    ------
    DomainError
        If no layer that counts is marked as core.
    """

    def __init__(self, assembly: Assembly, catalogue: Catalogue, basis: Basis, direction: Direction) -> None:
        self.assembly, self.catalogue, self.basis = assembly, catalogue, basis
        self.layer, self.direction = studied_layer(assembly), direction
        self.resolved = resolved_section(assembly, catalogue, surroundings(basis.schools, direction)).resolved
        counted = len(self.resolved.element.layers)
        self._over = {at: over for at, over in assembly.panels.items() if at < counted}
        self._d_now = assembly.layers[self.layer].d
        now = wall_amounts(assembly, catalogue)
        other = self._d_now * (1.25 if self._d_now < 1 else 0.75)
        there = wall_amounts(assembly.with_core(other), catalogue)
        self._now = {key: value_of(value) for key, value in now.items()}
        self._per_metre = {key: (value_of(there[key]) - self._now[key]) / (other - self._d_now) for key in now}

    def label(self, d: float | FloatArray, age: Age = "aged") -> Resistances:
        """Totals at one thickness or at each of an array, at the label's mean temperature."""
        if age == "aged":
            return totals_by_method(self.resolved, swept=self._swept(d))
        fresh = resolved_section(
            self.assembly, self.catalogue, surroundings(self.basis.schools, self.direction, age)
        ).resolved
        return totals_by_method(fresh, swept=self._swept(d))

    def clear(self, d: float) -> float:
        """Clear-wall R by the school in use."""
        return value_of(of_school(self.label(d), self.basis.schools))

    def season(self, d: FloatArray, season: Season) -> Resistances:
        """Totals at the season's design temperatures, λ(θ) solved through the field of every wall at once.

        Raises
        ------
        NotConverged
            If the temperatures were not found.

        Notes
        -----
        Fixed point of resistance, flux and temperatures; λ changes slowly with θ, so it contracts fast.
        """
        moment = condition(self.basis, season)
        outwards = over_the_year(self.basis, self.direction)
        direction = direction_of_flow(outwards, moment.theta_i, moment.theta_e)
        resolved = resolved_section(
            self.assembly, self.catalogue, surroundings(self.basis.schools, direction, season=season)
        ).resolved
        element = resolved.element
        R_si, R_se = value_of(element.R_si), value_of(element.R_se)
        mean_d = [np.full_like(d, value_of(layer.d)) for layer in element.layers]
        for at, one in self.mean(d).items():
            mean_d[at] = one
        R = np.array(
            [
                _plain(layer.resistance(0, cast("float", one))) + 0 * d
                for layer, one in zip(element.layers, mean_d, strict=True)
            ]
        )
        for _ in range(_ROUNDS):
            q = (moment.theta_i - moment.theta_e) / (R_si + R.sum(axis=0) + R_se)
            crossed = R_si + np.concatenate([np.zeros((1, len(d))), np.cumsum(R, axis=0)])
            theta = moment.theta_i - q * crossed
            last = R.copy()
            for at, layer in enumerate(element.layers):
                part = layer.parts[0]
                if part.table and part.R is None:
                    R[at] = mean_d[at] / mean_conductivities(part.table, theta[at], theta[at + 1])
            change = float(np.max(np.abs(R - last) / np.maximum(R, 1e-12)))
            if change < _CLOSE:
                break
        else:
            raise NotConverged(_ROUNDS, change)
        table = [
            [
                cast("Num", R[at]),
                *(layer.resistance(part, cast("float", mean_d[at])) for part in range(1, len(layer.parts))),
            ]
            for at, layer in enumerate(element.layers)
        ]
        bridged = totals(element, table)
        swept = {at: cast("float", one) for at, one in self.mean(d).items()}
        return with_points(
            bridged, fixings_transmittance(resolved, bridged.nominal, swept, R_layers=[one[0] for one in table])
        )

    def mean(self, d: FloatArray) -> dict[int, FloatArray]:
        """Mean thickness of every layer that is swept, by its index. [m]"""
        return {at: over * d - self.resolved.hollows[at] for at, over in self._over.items()}

    def _swept(self, d: float | FloatArray) -> Swept:
        return {at: cast("float", over * d) for at, over in self._over.items()}

    def amounts(self, d: FloatArray) -> dict[str, FloatArray]:
        """Thickness, weight, cost and carbon, which are linear in the thickness; units of `wall_amounts`."""
        return {key: self._now[key] + (d - self._d_now) * rate for key, rate in self._per_metre.items()}


def studied_layer(assembly: Assembly) -> int:
    """The index of the core.

    Raises
    ------
    DomainError
        If no layer of material is marked as core, or it lies outside of a well-ventilated gap.
    """
    index = assembly.core_index
    cut = next((i for i, layer in enumerate(assembly.layers) if layer.air and layer.air.ventilation == "well"), None)
    if index is None or not assembly.layers[index].material or (cut is not None and index > cut):
        raise DomainError(
            Issue(
                path=("layers",),
                code="no_core",
                message="no layer that counts is marked as core",
                hint="mark the layer whose thickness is to be studied",
            )
        )
    return index


def possible(assembly: Assembly) -> tuple[float, float]:
    """Least and most thickness of a core: its own and its panels' lie between `THINNEST` and `THICKEST`. [m]"""
    panels = assembly.panels.items()
    return (
        max((assembly.layers[at].rib + THINNEST) / over for at, over in panels),
        THICKEST / max(over for _, over in panels),
    )


def _plain(number: Num) -> FloatArray:
    return np.asarray(value_of(number), dtype=float)
