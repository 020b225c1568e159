"""Thickness study of one layer: what every thickness gives, and the exact thickness that reaches what is asked."""

from __future__ import annotations

from dataclasses import dataclass
from typing import cast

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction, misses
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.held import Held
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.studies.sweep import Sweep, possible, studied_layer
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.thermal.section import of_school
from nimble_shell.core.working import Derivation, Given, Num, derive, named, plain, traced, value_of

FloatArray = NDArray[np.float64]

_BRACKETS = 65  #: thicknesses between which it is looked for
_FOUND: Held[tuple[Num | None, str]] = Held(256)


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

    @property
    def met(self) -> bool:
        """Whether the layer as it is gives what is asked."""
        return not misses(self.present.R_clear, self.asked)


def thickness_study(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    *,
    asked: float | None,
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
    direction : {"horizontal", "up", "down"}
    points : int
        Points of the curve.

    Raises
    ------
    DomainError
        If the assembly has no core that counts.
    """
    index = studied_layer(assembly)
    present = assembly.layers[index].d
    stock = sorted(catalogue[assembly.layers[index].material].stock)
    thinnest, thickest = possible(assembly)
    low = max(0.6 * min([present, *stock]), thinnest)
    high = 1.2 * max([present, *stock])
    sweep = Sweep(assembly, catalogue, basis, direction)
    found, why_not = (None, "") if asked is None else crossing(assembly, catalogue, basis, asked, direction)
    d_asked = None if found is None else value_of(found)
    if d_asked is not None:
        high = max(high, min(d_asked * 1.1, thickest))
    every = _points(sweep, np.array([present, *stock, *np.linspace(low, high, points)]))
    return Study(
        layer=index,
        present=every[0],
        stock=every[1 : 1 + len(stock)],
        curve=every[1 + len(stock) :],
        asked=asked,
        d_asked=d_asked,
        why_not=why_not,
    )


def crossing(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
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
    studied_layer(assembly)
    # How thick the core is now is no part of the question: while it is dragged the answer stands.
    thickest = assembly.with_core(possible(assembly)[1])
    if given is not plain:
        return _crossing(thickest, catalogue, basis, asked, direction, given)
    parts, more = (catalogue, basis), (thickest, asked, direction)
    held = _FOUND.get(parts, *more)
    return _FOUND.put(parts, _crossing(thickest, catalogue, basis, asked, direction), *more) if held is None else held


def _crossing(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, asked: float, direction: Direction, given: Given = plain
) -> tuple[Num | None, str]:
    sweep = Sweep(assembly, catalogue, basis, direction)

    def excess(d: float) -> float:
        return sweep.clear(d) - asked

    layer = sweep.layer
    thinnest, thickest = possible(assembly)
    grid = np.linspace(thinnest, thickest, _BRACKETS)
    beyond = cast("FloatArray", of_school(sweep.label(grid), basis.schools)) - asked
    if beyond[0] >= 0:
        return None, sentence("the rest of the wall reaches it with {d} of this layer", d=(thinnest, "length"))
    if beyond[-1] < 0:
        return None, sentence(
            "even {d} of this layer are {R} short", d=(thickest, "length"), R=(float(-beyond[-1]), "resistance")
        )
    from scipy.optimize import brentq  # not for every start

    above = int(np.argmax(beyond >= 0))
    root = float(brentq(excess, grid[above - 1], grid[above], xtol=1e-13, rtol=1e-14))
    h = 1e-6
    gain = (excess(root + h) - excess(root - h)) / (2 * h)
    at_root = clear_wall_R(assembly.with_core(root), catalogue, basis, direction=direction, given=given)
    name = catalogue[assembly.layers[layer].material].name
    start = given(root, f"d_{layer + 1}", f"thickness, {name}", "m", "entered")
    wanted = given(asked, "R_asked", "asked clear-wall resistance", "m²·K/W", "Basis")
    slope = given(gain, "slope", "gain of R with thickness there", "m·K/W", "central difference over 2 µm")
    found = start + (wanted - at_root) / slope
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
    found, why = crossing(assembly, catalogue, basis, asked, direction, given=traced)
    if found is None:
        raise DomainError(
            Issue(
                path=("figure",),
                code="no_crossing",
                message=sentence(f"no thickness reaches {{v1}}: {why}", v1=(asked, "resistance")),
                hint="change the core, the members or what is asked",
            )
        )
    return derive(found)


def _points(sweep: Sweep, d: FloatArray) -> tuple[StudyPoint, ...]:
    totals = sweep.label(d)
    clear = cast("FloatArray", of_school(totals, sweep.basis.schools))
    nominal = cast("FloatArray", totals.nominal)
    columns = {"d": d, "R_nominal": nominal, "R_clear": clear, "U_clear": 1 / clear, **sweep.amounts(d)}
    rows = zip(*(one.tolist() for one in columns.values()), strict=True)
    return tuple(StudyPoint(**dict(zip(columns, row, strict=True))) for row in rows)
