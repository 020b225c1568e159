"""A building on its hot day: the masses of its build-ups, its windows by where they look, its people and things."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.loads.cooling_day import HOURS, CoolingCase, DayElement, DayWindow, SunnyDay, swing
from nimble_shell.core.loads.periodic_walls import MassLayer, MassWall, answers
from nimble_shell.core.shell.plant import Loads
from nimble_shell.core.sun.overhang import Overhang
from nimble_shell.core.sun.position import Day
from nimble_shell.core.thermal.element import Element
from nimble_shell.core.working import value_of

_BOARD = MassLayer(d=0.0, lambda_=0.25, rho=900.0, c=1000.0)  #: what inner walls and floors are taken for
_INNER = 2.0  #: their surface over the floor
_DAY = 2 * math.pi / 86400  #: [1/s]


@dataclass(frozen=True, slots=True, kw_only=True)
class Facing:
    """A piece of an element, by where it looks and what lies beyond."""

    element: str
    name: str
    area: float  #: net [m²]
    azimuth: float  #: from north [°]
    tilt: float  #: 0 up, 90 a wall, 180 a floor [°]
    to: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Pane:
    """Units of one type that look one way."""

    unit: str  #: name of the type; empty of none
    element: str
    azimuth: float  #: from north [°]
    tilt: float  #: 90 in a wall [°]
    w: float  #: of one [m]
    h: float
    n: int
    U: float  #: [W/(m²·K)]
    solar: float  #: total solar transmittance with the frame, 0…1

    @property
    def area(self) -> float:
        """Of all of them. [m²]"""
        return self.n * self.w * self.h


def mass_wall(element: Element) -> MassWall:
    """The field of an element, with its mass. A layer without ρ or c counts by its resistance alone."""
    layers = []
    for layer in element.layers:
        part = layer.parts[0]
        if part.lambda_ is None or part.rho is None or part.c is None:
            layers.append(MassLayer(R=value_of(layer.resistance())))
        else:
            layers.append(MassLayer(d=value_of(layer.d), lambda_=value_of(part.lambda_), rho=part.rho, c=part.c))
    return MassWall(layers=tuple(layers), Rsi=value_of(element.R_si), Rse=value_of(element.R_se))


def stored(walls: Sequence[tuple[float, MassWall]], loads: Loads, A_F: float) -> float:
    """Heat that areas of walls, and what stands within, store for a kelvin of a day's swing. [J/K]

    References
    ----------
    .. [1] ISO 13786:2017, 6.5: κ = (T/2π)·|(Z₁₁ − 1)/Z₁₂| for the inner side.
    """
    if not walls:
        return loads.inner_mass * A_F
    found = answers([wall for _, wall in walls])
    kappa = abs(found.Y_ie[:, 1] - found.Y_ii[:, 1]) / _DAY
    return float(sum(A * one for (A, _), one in zip(walls, kappa, strict=True))) + loads.inner_mass * A_F


def hottest(basis: Basis) -> int:
    """The month of the hot day, from 0."""
    return max(range(12), key=lambda month: basis.climate.theta_e[month])


def cooling_case(
    basis: Basis, loads: Loads, facings: Sequence[Facing], wall_of: Mapping[str, MassWall], panes: Sequence[Pane], *,
    H_rest: float, q_air: float, persons: float, A_F: float, sunny: bool = True,
) -> CoolingCase:  # fmt: skip
    """The building on a clear day of its hottest month.

    Parameters
    ----------
    basis : Basis
    loads : Loads
    facings : sequence of Facing
        Opaque areas.
    wall_of : mapping of element id to MassWall
    panes : sequence of Pane
    H_rest : float
        What joints, fixings and members add to the fields of the walls, without mass. [W/K]
    q_air : float
        Air from outside, at its temperature. [m³/h]
    persons : float
    A_F : float
        [m²]
    sunny : bool
        Whether the sun shines.

    Notes
    -----
    The day reaches the site's summer temperature at its highest, and swings as the days of that month do. What
    touches the ground feels the mean of the year.
    """
    month = hottest(basis)
    amplitude = basis.climate.swing[month] / 2
    ground = sum(basis.climate.theta_e) / 12
    elements = [
        DayElement(id=f"{n} {one.name}", A=one.area, wall=wall_of[one.element], azimuth=one.azimuth, tilt=one.tilt,
                   alpha=loads.alpha if one.to == "outside" and one.tilt < 180 else 0.0,
                   beyond=ground if one.to == "ground" else "outside")
        for n, one in enumerate(facings, 1) if one.element in wall_of
    ]  # fmt: skip
    if loads.inner_mass > 0:
        deep = loads.inner_mass / _INNER / (_BOARD.rho * _BOARD.c)
        inner = MassWall(layers=(MassLayer(d=deep, lambda_=_BOARD.lambda_, rho=_BOARD.rho, c=_BOARD.c),), Rsi=0.13,
                         adiabatic=True)  # fmt: skip
        elements.append(DayElement(id="Inner walls and floors", A=_INNER * A_F, wall=inner, beyond="adiabatic"))
    plate = Overhang(depth=loads.overhang, gap=loads.overhang_gap, extend=0.5) if loads.overhang > 0 else None
    windows = [
        DayWindow(id=f"{n} {one.unit or 'glass'}", A=one.area, U=one.U, g=one.solar, F_F=1.0, F_c=loads.shade,
                  azimuth=one.azimuth, tilt=one.tilt, w=one.w, h=one.h, overhang=plate)
        for n, one in enumerate(panes, 1)
    ]  # fmt: skip
    if abs(H_rest) > 1e-9:
        windows.append(DayWindow(id="joints, fixings and members", A=1.0, U=H_rest, g=0.0, F_F=0.0))
    given = persons * loads.persons_W + loads.gains * A_F
    return CoolingCase(
        theta_i=basis.indoor.theta_cooling, theta_e=swing(basis.site.theta_summer - amplitude, amplitude, 15.0),
        elements=tuple(elements), windows=tuple(windows), q_air=q_air,
        sun=SunnyDay(latitude=basis.site.latitude, day=Day(month=month + 1, day=15)) if sunny else None,
        convective=(given / 2,) * HOURS, radiant=(given / 2,) * HOURS,
    )  # fmt: skip
