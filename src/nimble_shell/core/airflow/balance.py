"""One zone in the balance of its air: stack, wind and fans; and a fire that must not be drawn back."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from nimble_shell.core.airflow.density import P_STANDARD, density
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working import Given, Num, apply, exp, named, plain, value_of

GRAVITY = 9.81  #: [m/s²]
_CLAUSE = "mass balance of one zone"


@dataclass(frozen=True, slots=True, kw_only=True)
class AirPath:
    """A leak, or an opening."""

    id: str
    z: float  #: its height [m]
    C: float  #: [m³/(h·Paⁿ)]
    n: float  #: 0.5…1
    cp: float = 0.0  #: of the wind


@dataclass(frozen=True, slots=True, kw_only=True)
class Fan:
    """Moves a volume, whatever the pressure."""

    id: str
    kind: Literal["supply", "extract"]
    q: float  #: [m³/h]


@dataclass(frozen=True, slots=True, kw_only=True)
class Flue:
    """Of a fire that takes its air from the room."""

    z: float  #: where it opens into the room [m]
    limit: float  #: how far the room may lie below the outside there [Pa]


@dataclass(frozen=True, slots=True, kw_only=True)
class Makeup:
    """An opening that would let in what is drawn out."""

    z: float  #: [m]
    cp: float = 0.0
    Cd: float = 0.6


@dataclass(frozen=True, slots=True, kw_only=True)
class Zone:
    """A room, or a house with its doors open."""

    theta_i: float  #: [°C]
    theta_e: float
    paths: tuple[AirPath, ...]
    wind: float = 0.0  #: [m/s]
    p_bar: float = P_STANDARD  #: [Pa]
    fans: tuple[Fan, ...] = ()
    flue: Flue | None = None
    makeup: Makeup | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Draught:
    """What a flue feels."""

    depressurisation: Num  #: [Pa]
    ok: bool
    allowed_extract: Num  #: by all fans together, at the limit [m³/h]
    makeup_A: Num | None  #: opening that keeps the limit; None where air would leave by it [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class BalanceFigures:
    """The balance."""

    p_int: Num  #: inside less outside, at z = 0 without wind [Pa]
    neutral_z: Num | None  #: height at which there is no difference; None where inside is as warm as outside [m]
    flows: Mapping[str, Num]  #: of each path, inwards positive [kg/s]
    q_in: Num  #: air from outside [m³/h]
    draught: Draught | None


def balance(zone: Zone, given: Given = plain) -> BalanceFigures:
    """Inner pressure at which as much air comes in as goes out, and the flows at it.

    Parameters
    ----------
    zone : Zone
        With at least one path.
    given : Given
        `plain` for figures, `traced` for working.

    Raises
    ------
    DomainError
        If air has no path.

    Notes
    -----
    A path carries the density of the side its air comes from. The sum of flows falls strictly with the inner
    pressure, so that there is one answer; it is found by bracketing.

    References
    ----------
    .. [1] EN 16798-7:2017, 6.4: pressures by stack and wind, mass balance of a zone.
    """
    if not zone.paths:
        raise DomainError(Issue(path=("paths",), code="no_path", message="air has no path through the shell",
                                hint="at least one leak"))  # fmt: skip
    air = _Air(zone, given)
    p_int = given(_root(zone), "p_int", "inside less outside at the ground", "Pa", f"{_CLAUSE}: the sum of flows is 0")
    flows = {one.id: air.flow(one, p_int, f"{at}") for at, one in enumerate(zone.paths, 1)}
    supply = air.fans("supply")
    inwards = sum((one for one in flows.values() if value_of(one) > 0), 0.0) + supply
    neutral = None
    if zone.theta_i != zone.theta_e:
        neutral = named(-1 * p_int / (air.lift * GRAVITY), "z_n", "neutral plane", "m", "−p/((ρ_e − ρ_i)·g)")
    return BalanceFigures(
        p_int=p_int, neutral_z=neutral, flows=flows,
        q_in=named(inwards * 3600 / air.rho_e, "q_in", "air from outside", "m³/h", _CLAUSE),
        draught=None if zone.flue is None else _draught(zone, zone.flue, air, p_int, given),
    )  # fmt: skip


class _Air:
    """Air on both sides, and what it does at a path."""

    def __init__(self, zone: Zone, given: Given) -> None:
        self.given, self.zone = given, zone
        theta_i = given(zone.theta_i, "theta_i", "room", "°C", "of the room")
        theta_e = given(zone.theta_e, "theta_e", "outside", "°C", "of the climate")
        self.rho_i = named(density(theta_i, zone.p_bar), "rho_i", "air inside", "kg/m³", "ideal gas")
        self.rho_e = named(density(theta_e, zone.p_bar), "rho_e", "air outside", "kg/m³", "ideal gas")
        self.lift = self.rho_e - self.rho_i
        wind = given(zone.wind, "v_w", "wind", "m/s", "of the site")
        self.wind = named(0.5 * self.rho_e * wind * wind, "p_w", "pressure of the wind", "Pa", "½·ρ_e·v²")

    def difference(self, z: float, cp: float, p: Num, key: str) -> Num:
        """Outside less inside at a height. [Pa]"""
        height = self.given(z, f"z_{key}", "its height", "m", "of the shape, or entered")
        shape = self.given(cp, f"c_p{key}", "its wind coefficient", "", "of the site, or entered")
        return named(shape * self.wind - p - self.lift * GRAVITY * height, f"dp_{key}", "outside less inside there",
                     "Pa", "c_p·½ρ_e·v² − p − (ρ_e − ρ_i)·g·z")  # fmt: skip

    def flow(self, path: AirPath, p: Num, key: str) -> Num:
        """Through a path, inwards positive. [kg/s]"""
        dp = self.difference(path.z, path.cp, p, key)
        C = self.given(path.C, f"C_{key}", f"coefficient of {path.id}", "m³/(h·Paⁿ)", "of the leakage, or entered")
        n = self.given(path.n, f"n_{key}", f"exponent of {path.id}", "", "of the leakage, or entered")
        if not value_of(dp):
            return self.given(0.0, f"m_{key}", f"through {path.id}", "kg/s", "no difference there")
        into = value_of(dp) > 0
        size, rho = (dp, self.rho_e) if into else (-1 * dp, self.rho_i)
        amount = rho * C / 3600 * exp(n * apply("log", size))
        return named(amount if into else -1 * amount, f"m_{key}", f"through {path.id}", "kg/s",
                     f"ρ·C·|Δp|ⁿ/3600, {'in' if into else 'out'}wards")  # fmt: skip

    def fans(self, kind: Literal["supply", "extract"]) -> Num:
        """Of all fans of a kind. [kg/s]"""
        q = self.given(sum(one.q for one in self.zone.fans if one.kind == kind), f"q_{kind[:3]}", f"{kind} by fans",
                       "m³/h", "of the ventilation")  # fmt: skip
        rho = self.rho_e if kind == "supply" else self.rho_i
        return named(rho * q / 3600, f"m_{kind[:3]}", f"{kind} by fans", "kg/s", "ρ·q/3600")


def _root(zone: Zone) -> float:
    from scipy.optimize import brentq  # not for every start

    air = _Air(zone, plain)
    fans = value_of(air.fans("supply")) - value_of(air.fans("extract"))
    z, C, n, cp = (np.array([getattr(one, name) for one in zone.paths]) for name in ("z", "C", "n", "cp"))
    rho_e, rho_i = value_of(air.rho_e), value_of(air.rho_i)
    without = cp * value_of(air.wind) - (rho_e - rho_i) * GRAVITY * z

    def excess(p: float) -> float:
        dp = without - p
        return float(np.sum(np.where(dp > 0, rho_e, -rho_i) * C / 3600 * np.abs(dp) ** n)) + fans

    reach = 1.0
    while excess(-reach) < 0 or excess(reach) > 0:
        reach *= 4
    found = float(brentq(excess, -reach, reach, xtol=1e-13, rtol=8.9e-16, maxiter=500))
    # Where hardly anything moves, the root is where a path has no difference: a step beside it is a flow already.
    tried: list[float] = [found, *(float(one) for one in without)]
    return min(tried, key=lambda p: abs(excess(p)))


def _draught(zone: Zone, flue: Flue, air: _Air, p_int: Num, given: Given) -> Draught:
    z = given(flue.z, "z_fl", "height of the flue's opening", "m", "entered")
    stack = air.lift * GRAVITY * z
    below = named(-1 * (p_int + stack), "dp_fl", "room below the outside at the flue", "Pa", "−(p + (ρ_e − ρ_i)·g·z)")
    limit = given(flue.limit, "dp_lim", "limit of the appliance", "Pa", "its maker, entered")
    p_limit = named(-1 * limit - stack, "p_lim", "inner pressure at the limit", "Pa", "depressurisation = limit")
    paths = [air.flow(one, p_limit, f"{at}l") for at, one in enumerate(zone.paths, 1)]
    M = named(sum(paths, 0.0) + air.fans("supply"), "M_lim", "air that comes in at the limit", "kg/s", _CLAUSE)
    allowed = M * 3600 / air.rho_i if value_of(M) > 0 else given(0.0, "none", "nothing comes in", "m³/h", _CLAUSE)
    return Draught(
        depressurisation=below, ok=value_of(below) <= flue.limit,
        allowed_extract=named(allowed, "q_all", "extract that keeps the limit", "m³/h", "M·3600/ρ_i"),
        makeup_A=None if zone.makeup is None else _makeup(zone.makeup, air, p_limit, M, given),
    )  # fmt: skip


def _makeup(opening: Makeup, air: _Air, p_limit: Num, M: Num, given: Given) -> Num | None:
    lacking = air.fans("extract") - M
    if value_of(lacking) <= 0:
        return given(0.0, "A_mk", "make-up opening", "m²", "the leaks bring enough")
    dp = air.difference(opening.z, opening.cp, p_limit, "mk")
    if value_of(dp) <= 0:
        return None
    Cd = given(opening.Cd, "C_d", "discharge coefficient", "", "of a plain opening")
    return named(lacking / (Cd * apply("sqrt", 2 * air.rho_e * dp)), "A_mk", "make-up opening", "m²",
                 "(extract − M)/(C_d·√(2·ρ_e·Δp))")  # fmt: skip
