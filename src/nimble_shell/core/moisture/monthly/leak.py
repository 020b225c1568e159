"""Room air through a joint: what it leaves on the outer skin, what dries there, and how tight is tight enough."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.damp import AirDrive, DampLimits
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.moisture.monthly.condensation import DAYS, Carried, Month, Planes, Year, year
from nimble_shell.core.moisture.monthly.element import limit_beside
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.working import Given, Num, named, plain, power, value_of

FloatArray = NDArray[np.float64]
R_V = 461.5  #: of water vapour [J/(kg·K)]
TESTED_AT = 50.0  #: of the leakages of joints [Pa]
_STACK = 101325 / 287.05 * 9.80665  #: g·p/R of dry air [K·Pa/m]
_LEAST, _MOST = 1e-4, 50.0  #: leakages between which the largest safe one is sought [m³/(h·m)]
_NEAR = 1.002  #: the found one is within this ratio of the true one


@dataclass(frozen=True, slots=True, kw_only=True)
class Leak:
    """A joint that leaks, and the place in its build-up where the air comes to the cold."""

    leakage: float  #: at 50 Pa [m³/(h·m)]
    height: float  #: above the level where inside and outside press alike [m]
    plane: int  #: of the planes; between slices


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class LeakYear:
    """Twelve months at the joint line, January first. Per metre of joint."""

    year: Year
    plane: int
    pressure: FloatArray  #: across the joint, outwards [Pa]
    flow: FloatArray  #: through the joint, outwards [m³/(h·m)]
    carried: FloatArray  #: left by the air, or taken by it where negative [kg/m]
    gained: FloatArray  #: net of what dries [kg/m]
    held: FloatArray  #: at the end of each month [kg/m]
    limit: float  #: [kg/m]
    reason: str  #: of the limit

    @property
    def peak(self) -> float:
        """[kg/m]"""
        return float(self.held.max())

    @property
    def left(self) -> float:
        """When the year is over. [kg/m]"""
        return float(self.held[(self.year.start or 0) - 1])

    @property
    def safe(self) -> bool:
        """Whether it holds no more than it may, and is dry when the year is over."""
        return self.peak <= self.limit and self.left <= 1e-9


def skin_plane(assembly: Assembly, planes: Planes, counted: int) -> int:
    """The plane between slices where air that came through the core meets the outer skin: the core's outer face.

    Raises
    ------
    DomainError
        If nothing lies outside of the core.
    """
    core = next((at for at, layer in enumerate(assembly.layers[:counted]) if layer.studied), None)
    if core is None:
        core = max(range(counted), key=lambda at: assembly.layers[at].d)
    own = np.nonzero(planes.layer == core)[0]
    plane = int(own[-1]) + 1
    if plane >= len(planes.x) - 1:
        raise DomainError(Issue(path=("layers", core), code="no_outer_skin",
                                message=f"nothing of “{assembly.name}” lies outside of its core",
                                hint="its outer skin or sheathing is what gets wet"))  # fmt: skip
    return plane


def pressure(theta_i: float, theta_e: float, height: float, drive: AirDrive) -> float:
    """Of the room over the outside at a height: stack, wind on the lee, and fan. [Pa]

    References
    ----------
    .. [1] Hydrostatics of two columns of ideal gas: g·p/R·h·(1/T_e − 1/T_i).
    """
    return value_of(pressed(theta_i, theta_e, height, drive))


def pressed(theta_i: Num, theta_e: Num, height: float, drive: AirDrive, given: Given = plain) -> Num:
    """The same with its working."""
    h = given(height, "h", "height above the neutral level", "m", "Basis: air through joints")
    wind = given(drive.wind, "Deltap_wind", "wind, outwards on the lee", "Pa", "Basis: air through joints")
    fan = given(drive.fan, "Deltap_fan", "fan, room over outside", "Pa", "Basis: air through joints")
    stack = named(_STACK * h * (1 / (theta_e + 273.15) - 1 / (theta_i + 273.15)), "Deltap_stack", "stack", "Pa",
                  "two columns of ideal gas, g·p/R·h·(1/T_e − 1/T_i)")  # fmt: skip
    return named(stack + wind + fan, "Deltap", "pressure across the joint, outwards", "Pa", "sum")


def flow(leakage: float, dp: float, exponent: float) -> float:
    """Through a metre of joint, in the direction of the pressure. [m³/(h·m)]

    References
    ----------
    .. [1] ISO 9972:2015, 6.4, q = C·Δp^n.
    """
    return value_of(flown(leakage, dp, exponent))


def flown(leakage: Num, dp: Num, exponent: float) -> Num:
    """The same with its working."""
    outwards = value_of(dp) >= 0
    share = power((dp if outwards else 0 - dp) / TESTED_AT, exponent)
    return named(leakage * share if outwards else 0 - leakage * share, "q", "air through the joint, outwards",
                 "m³/(h·m)", "ISO 9972:2015, 6.4, q₅₀·(Δp/50)^n")  # fmt: skip


def conductance(V: FloatArray, theta: FloatArray, drive: AirDrive) -> FloatArray:
    """From the air that moves, of temperature θ [°C], to what it reaches, per area of it. [kg/(m²·s·Pa)]"""
    return np.asarray(drive.reaching * np.abs(V) / 3600 / drive.strip / (R_V * (theta + 273.15)), dtype=float)


def leak_month(month: Month, leak: Leak, drive: AirDrive, p_skin: float, days: int, given: Given = plain) -> Num:
    """What the air leaves at the skin in a month, or takes where negative, with its working. [kg/m]

    Parameters
    ----------
    p_skin : float
        Vapour pressure at the skin, of `leak_year`. [Pa]
    days : int
        Of the month.
    """
    inside = given(month.theta_i, "theta_i", "room in the month", "°C", "Basis: indoor regime")
    outside = given(month.theta_e, "theta_e", "outside, mean of the month", "°C", "Basis: climate")
    leakage = given(leak.leakage, "q_50", "leakage of the joint at 50 Pa", "m³/(h·m)", "seals as scheduled, or tried")
    V = flown(leakage, pressed(inside, outside, leak.height, drive, given), drive.exponent)
    outwards = value_of(V) >= 0
    theta, p_from = (inside, month.p_i) if outwards else (outside, month.p_e)
    p_air = given(p_from, "p_air", "vapour pressure of the air that comes", "Pa",
                  "room, ISO 13788 annex E" if outwards else "outside: the pressure is inwards")  # fmt: skip
    p = given(p_skin, "p_skin", "vapour pressure at the skin, mean of the month", "Pa",
              "the month's complementarity problem: at most saturation")  # fmt: skip
    reaching = given(drive.reaching, "x", "share of the air that cools down to the skin", "", "Basis")
    seconds = given(86400.0 * days, "t", "length of the month", "s", f"{days} days")
    moved = V if outwards else 0 - V
    return named(reaching * moved / 3600 / (R_V * (theta + 273.15)) * (p_air - p) * seconds, "m", "left by the air",
                 "kg/m", "x·q/(R_v·T)·(p_air − p_skin)·t, R_v of water vapour")  # fmt: skip


def leak_year(
    assembly: Assembly, catalogue: Catalogue, planes: Planes, months: tuple[Month, ...], leak: Leak,
    drive: AirDrive, damp: DampLimits,
) -> LeakYear:  # fmt: skip
    """The outer skin along a joint that leaks, through the year.

    Parameters
    ----------
    planes : Planes
        Of the build-up beside the joint.
    months : tuple of Month
    leak : Leak
    drive : AirDrive
    damp : DampLimits

    Raises
    ------
    DomainError
        If the leak is not physical.

    Notes
    -----
    A share of the air, `drive.reaching`, cools down to the outer skin and leaves there what it cannot carry on; where
    the pressure is inwards the same share comes from outside, and dries. The skin is wet over `drive.strip`. Both are
    conductances from the air's vapour pressure to the plane's, V/(R_v·T) with V where its volume was measured, in the
    complementarity problem of the months: what is gained and what dries stand in their order, and nothing is lost.
    The skin's temperature is that of the build-up: the air's own heat is left out, which is on the safe side.

    References
    ----------
    .. [1] ISO 13788:2012, 6.4 to 6.6, with a source at one plane.
    """
    check = Collector()
    check.check(0 <= leak.leakage <= 1000, ("leakage",), "leakage_out_of_range",
                sentence("leakage is {v1}", v1=(leak.leakage, "joint_flow")), "from 0 to 1000")  # fmt: skip
    check.check(1 <= leak.plane <= len(planes.x) - 2, ("plane",), "plane_outside", f"plane {leak.plane}",
                "between two slices")  # fmt: skip
    check.refuse()
    count = len(planes.sd) - 1
    G, p = np.zeros((12, count)), np.zeros((12, count))
    dp = np.array([pressure(m.theta_i, m.theta_e, leak.height, drive) for m in months])
    through = np.array([flow(leak.leakage, float(one), drive.exponent) for one in dp])
    from_room = through >= 0
    theta = np.where(from_room, [m.theta_i for m in months], [m.theta_e for m in months])
    G[:, leak.plane - 1] = conductance(through, theta, drive)
    p[:, leak.plane - 1] = np.where(from_room, [m.p_i for m in months], [m.p_e for m in months])
    found = year(planes, months, carried=Carried(G=G, p=p))
    seconds = 86400.0 * np.array(DAYS)
    at_plane = leak.plane - 1
    carried = G[:, at_plane] * (p[:, at_plane] - found.p[:, leak.plane]) * seconds * drive.strip
    beside = [assembly.layers[int(planes.layer[leak.plane - side])] for side in (1, 0)]
    limit, reason = limit_beside(beside, catalogue, damp)
    return LeakYear(
        year=found, plane=leak.plane, pressure=dp, flow=through, carried=carried,
        gained=found.g[:, at_plane] * drive.strip, held=found.M[:, at_plane] * drive.strip,
        limit=limit * drive.strip, reason=reason,
    )  # fmt: skip


def largest_safe(
    assembly: Assembly, catalogue: Catalogue, planes: Planes, months: tuple[Month, ...], leak: Leak,
    drive: AirDrive, damp: DampLimits,
) -> float | None:  # fmt: skip
    """The largest leakage at 50 Pa with which the joint is safe [m³/(h·m)]; None where it is wet without any.

    Notes
    -----
    Found by halving: the answer is safe, and 0.2 % more is not. The largest that is sought is 50 m³/(h·m).
    """

    def safe(leakage: float) -> bool:
        tried = Leak(leakage=leakage, height=leak.height, plane=leak.plane)
        return leak_year(assembly, catalogue, planes, months, tried, drive, damp).safe

    low, high = _LEAST, _MOST
    if safe(high):
        return high
    if not safe(low):
        return None
    while high / low > _NEAR:
        middle = math.sqrt(low * high)
        low, high = (middle, high) if safe(middle) else (low, middle)
    return low
