"""Thickness study of one layer: what every thickness gives, and the exact thickness that reaches what is asked."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import brentq

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.figures import clear_wall_R, surroundings, wall_figures
from nimble_shell.core.assemblies.films import Direction
from nimble_shell.core.assemblies.resistance import resistances
from nimble_shell.core.assemblies.resolve import resolve
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.shell.basis import Basis
from nimble_shell.core.working import Derivation, Given, Num, derive, named, plain, traced, value_of

THINNEST, THICKEST = 0.005, 1.0  #: range searched for the crossing [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class StudyPoint:
    """The wall at one thickness of the studied layer; SI."""

    d: float
    R_nominal: float
    R_clear: float
    U_clear: float
    thickness: float  #: whole wall [m]
    weight: float  #: [kg/m²]
    cost: float  #: example rates, per m²
    carbon: float  #: [kg CO₂e/m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Study:
    """A sweep of one layer's thickness."""

    layer: int  #: index from inside
    present: StudyPoint
    curve: tuple[StudyPoint, ...]  #: evenly spaced, for drawing
    stock: tuple[StudyPoint, ...]  #: at the thicknesses kept in stock
    asked: float | None  #: asked clear-wall R [m²·K/W]
    d_asked: float | None  #: thickness at which the wall reaches it; None if nothing is asked or none reaches it [m]
    why_not: str = ""  #: why there is no such thickness


def thickness_study(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    *,
    asked: float | None,
    layer: int | None = None,
    direction: Direction = "horizontal",
    points: int = 25,
) -> Study:
    """Sweep the thickness of the core.

    Parameters
    ----------
    assembly : Assembly
    catalogue : mapping of key to Material
    basis : Basis
    asked : float or None
        Clear-wall R wanted, by the method in use. [m²·K/W]
    layer : int, optional
        Index of the layer to study; the core if not given.
    direction : {"horizontal", "up", "down"}
    points : int
        Points of the curve.

    Raises
    ------
    DomainError
        If the assembly has no core and no layer was named, or the layer is an air gap.
    """
    index = studied_layer(assembly, layer)
    material = catalogue[assembly.layers[index].material]
    present_d = assembly.layers[index].d
    stock = sorted(material.stock)
    low = min([present_d, *stock]) * 0.6
    high = max([present_d, *stock]) * 1.2
    at = _Sweep(assembly, catalogue, basis, index, direction)
    d_asked, why_not = None, ""
    if asked is not None:
        found, why_not = crossing(assembly, catalogue, basis, index, asked, direction)
        if found is not None:
            d_asked = value_of(found)
            high = max(high, min(d_asked * 1.1, THICKEST))
    return Study(
        layer=index,
        present=at(present_d),
        curve=tuple(at(float(d)) for d in np.linspace(low, high, points)),
        stock=tuple(at(d) for d in stock),
        asked=asked,
        d_asked=d_asked,
        why_not=why_not,
    )


def studied_layer(assembly: Assembly, layer: int | None = None) -> int:
    """The index of the layer to study: the one named, or the core.

    Raises
    ------
    DomainError
        If there is none, or it is an air gap.
    """
    index = assembly.core_index if layer is None else layer
    if index is None or not 0 <= index < len(assembly.layers) or not assembly.layers[index].material:
        raise DomainError(
            Issue(
                path=("layers",),
                code="no_core",
                message="no layer of material is marked as core",
                hint="mark the layer whose thickness is to be studied",
            )
        )
    return index


def crossing(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    layer: int,
    asked: float,
    direction: Direction = "horizontal",
    *,
    given: Given = plain,
) -> tuple[Num | None, str]:
    """Exact thickness at which the clear-wall R is what is asked.

    Parameters
    ----------
    assembly : Assembly
    catalogue : mapping of key to Material
    basis : Basis
    layer : int
        Index of the layer whose thickness is sought.
    asked : float
        Clear-wall R wanted. [m²·K/W]
    direction : {"horizontal", "up", "down"}
    given : Given
        `plain` for the figure, `traced` for its working.

    Returns
    -------
    tuple of (float, Traced or None, str)
        Thickness [m], or None with the reason.

    Notes
    -----
    Clear-wall R rises with the thickness; the root is found by Brent's method to 1e-13 m and polished by one Newton
    step, which is the step the working shows.
    """

    def R(d: float, numbers: Given = plain) -> Num:
        return clear_wall_R(assembly.with_thickness(layer, d), catalogue, basis, direction=direction, given=numbers)

    def excess(d: float) -> float:
        return value_of(R(d)) - asked

    if excess(THINNEST) >= 0:
        return None, f"the rest of the wall reaches it with {1000 * THINNEST:g} mm of this layer"
    if excess(THICKEST) < 0:
        return None, f"even {1000 * THICKEST:g} mm of this layer are {-excess(THICKEST):.2f} m²·K/W short"
    root = float(brentq(excess, THINNEST, THICKEST, xtol=1e-13, rtol=1e-14))
    h = 1e-6
    gain = (excess(root + h) - excess(root - h)) / (2 * h)
    name = catalogue[assembly.layers[layer].material].name
    start = given(root, f"d_{layer + 1}", f"thickness, {name}", "m", "entered")
    wanted = given(asked, "R_asked", "asked clear-wall resistance", "m²·K/W", "Basis")
    slope = given(gain, "slope", "gain of R with thickness there", "m·K/W", "central difference over 2 µm")
    found = start + (wanted - R(root, given)) / slope
    clause = f"one Newton step from d_{layer + 1}, the root of R(d) = R_asked by Brent's method"
    return named(found, "d_core", "thickness that reaches what is asked", "m", clause), ""


def crossing_working(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, asked: float, direction: Direction = "horizontal"
) -> Derivation:
    """The working of the exact core thickness: R at the root found, and the last Newton step.

    Raises
    ------
    DomainError
        If no thickness reaches what is asked.
    """
    found, why = crossing(assembly, catalogue, basis, studied_layer(assembly), asked, direction, given=traced)
    if found is None:
        raise DomainError(
            Issue(
                path=("figure",),
                code="no_crossing",
                message=f"no thickness reaches {asked:g} m²·K/W: {why}",
                hint="change the core, the members or what is asked",
            )
        )
    return derive(found)


class _Sweep:
    """The wall at another thickness, by the light path: totals and sums only."""

    def __init__(
        self, assembly: Assembly, catalogue: Catalogue, basis: Basis, layer: int, direction: Direction
    ) -> None:
        self.assembly, self.catalogue, self.basis, self.layer = assembly, catalogue, basis, layer
        self.around = surroundings(basis, direction)
        self.direction = direction
        now = wall_figures(assembly, catalogue, basis, "winter", direction=direction).figures
        self.now = {key: value_of(now[key].number) for key in ("thickness", "weight", "cost", "carbon")}
        self.d_now = assembly.layers[layer].d
        own = assembly.layers[layer]
        shares = own.shares()
        pieces = [(own.material, 1 - sum(shares))] + [(m.material, f) for m, f in zip(own.members, shares, strict=True)]
        self.per_metre = {"weight": 0.0, "cost": 0.0, "carbon": 0.0}
        for key, f in pieces:
            material = catalogue[key]
            self.per_metre["weight"] += f * material.rho
            self.per_metre["cost"] += f * material.cost
            self.per_metre["carbon"] += f * material.rho * material.carbon

    def __call__(self, d: float) -> StudyPoint:
        wall = self.assembly.with_thickness(self.layer, d)
        resolved = resolve(wall, self.catalogue, self.around)
        R = value_of(clear_wall_R(wall, self.catalogue, self.basis, direction=self.direction))
        nominal = value_of(resistances(resolved.element).nominal)
        more = d - self.d_now
        return StudyPoint(
            d=d,
            R_nominal=nominal,
            R_clear=R,
            U_clear=1 / R,
            thickness=self.now["thickness"] + more,
            **{key: self.now[key] + more * rate for key, rate in self.per_metre.items()},
        )
