"""A whole building: worked cases of every block, and what has a closed form or a solution of another kind."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator
from importlib.resources import files
from typing import Any

import numpy as np

from nimble_shell.core.airflow.balance import AirPath, Fan, Zone, balance
from nimble_shell.core.airflow.density import RHO_STANDARD, density
from nimble_shell.core.airflow.fan_test import FanSet, fan_test
from nimble_shell.core.conduction.section import Region, Section, SurfaceSegment
from nimble_shell.core.conduction.solution import solve
from nimble_shell.core.ground.floor import EdgeFoam, Slab
from nimble_shell.core.ground.steady import ground_figures
from nimble_shell.core.loads.cooling_day import CoolingCase, DayElement, cooling_day, swing
from nimble_shell.core.loads.energy import DAYS, EnergyCase, MonthOutside, energy
from nimble_shell.core.loads.periodic_walls import MassLayer, MassWall
from nimble_shell.core.sun.position import Day, sun_at
from nimble_shell.core.transmission.rows import AreaRow, JointRow, Transmission, UnheatedSpace
from nimble_shell.core.transmission.sums import sums
from nimble_shell.core.working import value_of
from nimble_shell.formats import neutral_shell
from nimble_shell.references.rows import Row

CASES = ("shell_air", "shell_ground_windows", "shell_sun_day", "shell_gable_house", "shell_L_split_level")
_RELATIVE = 1e-5  #: of each figure of a worked case; they are printed with nine digits
_SECOND_SOURCE = "worked a second time by another method"


def case(name: str) -> dict[str, Any]:
    """A case with its reference."""
    found: dict[str, Any] = json.loads(files("nimble_shell.references").joinpath("cases", f"{name}.json").read_text())
    return found


def rows() -> list[Row]:
    """References of a whole building."""
    return [*_worked(), *_slabs(), *_sums(), *_air(), *_sun(), *_days(), *_year()]


def leaves(value: Any, path: tuple[str | int, ...] = ()) -> Iterator[tuple[tuple[str | int, ...], Any]]:
    """Every value of a document with its place."""
    if isinstance(value, dict):
        for key, one in value.items():
            yield from leaves(one, (*path, key))
    elif isinstance(value, list):
        for at, one in enumerate(value):
            yield from leaves(one, (*path, at))
    else:
        yield path, value


def at_path(document: Any, path: tuple[str | int, ...]) -> Any:
    """The value at a place of a document."""
    for step in path:
        document = document[step]
    return document


def _worked() -> Iterator[Row]:
    """Of each block the figure that lies furthest off."""
    for name in CASES:
        given = case(name)
        ours = neutral_shell.compute(neutral_shell.read(given["case"]))
        for block, expected in given["reference"]["result"].items():
            both = [(path, one, at_path(ours[block], path)) for path, one in leaves(expected)
                    if isinstance(one, int | float) and not isinstance(one, bool)]  # fmt: skip
            path, reference, mine = max(both, key=lambda one: abs(one[1] - one[2]) / max(abs(one[1]), 1e-3))
            place = " ".join(str(step) for step in path)
            words = name.removeprefix("shell_").replace("_", " ")
            yield Row(name=f"{words}, {block}: furthest of {len(both)}, {place}",
                      source=_SECOND_SOURCE, reference=float(reference), ours=float(mine),
                      tolerance=_RELATIVE * max(abs(reference), 1e-3))  # fmt: skip


#: What finite volumes find of a strip of floor over what ISO 13370 says, at most.
SLAB_BAND, EDGE_BAND = (-0.05, 0.01), (-0.08, 0.04)


def _slabs() -> Iterator[Row]:
    """Strips of floor, 5 to 10 m wide, bare to well insulated, beside a solution in finite volumes."""
    for width, Rf in ((5.0, 0.0), (5.0, 1.0), (8.0, 3.0), (10.0, 5.0)):
        strip = Slab(A=width, P=2.0, w=0.3, lambda_=2.0, Rf=Rf)
        ours, solved = value_of(ground_figures(strip).U), solved_strip(strip)
        yield _within(f"strip of {width:g} m with R {Rf:g}: U", solved, ours, SLAB_BAND)
    for kind, D in (("horizontal", 1.0), ("vertical", 0.6)):
        edge = EdgeFoam(kind="horizontal" if kind == "horizontal" else "vertical", D=D, d=0.08, lambda_=0.035)
        strip = Slab(A=8.0, P=2.0, w=0.3, lambda_=2.0, Rf=0.5, edges=(edge,))
        yield _within(f"the same with {kind} foam at its edge: U", solved_strip(strip),
                      value_of(ground_figures(strip).U), EDGE_BAND)  # fmt: skip


def _within(name: str, solved: float, ours: float, band: tuple[float, float]) -> Row:
    """Ours within a band round what was solved."""
    low, high = (solved * (1 + one) for one in band)
    return Row(name=name, source=f"finite volumes, band {band[0]:.0%} to {band[1]:+.0%}".replace("-", "−"),
               reference=(low + high) / 2, ours=ours, tolerance=(high - low) / 2)  # fmt: skip


def solved_strip(strip: Slab) -> float:
    """U of half a strip of floor with soil to 25 m beside and below it. [W/(m²·K)]"""
    half, far = strip.A / 2, 25.0
    soil = Region(ring=((0.0, -far), (half + strip.w + far, -far), (half + strip.w + far, 0.0), (0.0, 0.0)),
                  lambda_=strip.lambda_)  # fmt: skip
    foams = tuple(Region(ring=_edge(one, half), lambda_=one.lambda_) for one in strip.edges)
    surface = (
        SurfaceSegment(a=(0.0, 0.0), b=(half, 0.0), env="inside", R_s=strip.Rsi + strip.Rf),
        SurfaceSegment(a=(half + strip.w, 0.0), b=(half + strip.w + far, 0.0), env="outside", R_s=strip.Rse),
    )
    found = solve(Section(regions=(soil, *foams), segments=surface, temperatures={"inside": 1.0, "outside": 0.0}),
                  np.empty((0, 2)))  # fmt: skip
    flow = found.heat_flow["inside"]
    assert flow is not None
    return flow / half


def _edge(foam: EdgeFoam, half: float) -> tuple[tuple[float, float], ...]:
    """Level foam lies under the floor along its edge, upright foam along the wall's inner face."""
    wide, deep = (foam.D, foam.d) if foam.kind == "horizontal" else (foam.d, foam.D)
    return ((half - wide, -deep), (half, -deep), (half, 0.0), (half - wide, 0.0))


def _sums() -> Iterator[Row]:
    space = UnheatedSpace(id="loft", elements=((60.0, 2.0),), V=90.0, n_ue=3.0)
    found = sums(Transmission(
        areas=(AreaRow(id="wall", A=120.0, U=0.2), AreaRow(id="ceiling", A=50.0, U=0.15, to="loft"),
               AreaRow(id="glass", A=14.0, U=0.9, glazing=True)),
        joints=(JointRow(id="corner", l=24.0, psi=-0.03), JointRow(id="sill", l=30.0, psi=0.06)),
        spaces=(space,), H_ground=9.0, air_q=60.0,
    ))  # fmt: skip
    shares = sum(value_of(one) for one in found.shares.values() if one is not None)
    yield Row(
        name="shares of a building's loss, together", source="invariant", reference=1.0, ours=shares, tolerance=1e-12
    )
    yield Row(name="b of a loft", source="closed form", reference=210.0 / 217.5, ours=value_of(found.b["loft"]),
              tolerance=1e-12)  # fmt: skip


def _air() -> Iterator[Row]:
    paths = tuple(AirPath(id=str(n), z=0.7 * n, C=3.0 + n, n=0.5 + 0.08 * n, cp=0.6 - 0.25 * n) for n in range(6))
    zone = Zone(theta_i=21.0, theta_e=-9.0, wind=5.0, paths=paths, fans=(Fan(id="hood", kind="extract", q=150.0),))
    drawn = value_of(density(21.0)) * 150 / 3600
    yield Row(name="balance of a zone: mass that is left over [kg/s]", source="invariant", reference=0.0,
              ours=sum(value_of(one) for one in balance(zone).flows.values()) - drawn, tolerance=1e-12)  # fmt: skip
    high = (AirPath(id="low", z=0.0, C=5.0, n=0.65), AirPath(id="high", z=6.0, C=5.0, n=0.65))
    level = balance(Zone(theta_i=20.0, theta_e=20.0 - 1e-6, paths=high)).neutral_z
    yield Row(name="neutral plane between two equal leaks [m]", source="symmetry", reference=3.0,
              ours=float("nan") if level is None else value_of(level), tolerance=1e-4)  # fmt: skip
    line = fan_test([_exact("depressurise"), _exact("pressurise")], 300.0, 340.0, 120.0)
    for one, what in ((line.sets[0], "depressurised"), (line.sets[1], "pressurised")):
        yield Row(name=f"fan test of a power law, {what}: exponent", source="closed form", reference=0.63,
                  ours=value_of(one.n), tolerance=1e-10)  # fmt: skip
        yield Row(name=f"fan test of a power law, {what}: coefficient", source="closed form", reference=17.0,
                  ours=value_of(one.C_L), tolerance=1e-8)  # fmt: skip


def _exact(direction: Any) -> FanSet:
    """Readings that lie on 17·Δp^0.63 of standard air."""
    out = direction == "depressurise"
    rho_i, rho_e = value_of(density(20.0)), value_of(density(3.0))
    passing, fan = (rho_e, rho_e / rho_i) if out else (rho_i, rho_i / rho_e)
    C_env = 17.0 * (passing / RHO_STANDARD) ** (0.63 - 1)
    pressures = (12.0, 20.0, 30.0, 40.0, 50.0, 60.0)
    points = tuple(((-dp if out else dp) - 0.4, C_env * dp**0.63 * fan) for dp in pressures)
    return FanSet(direction=direction, theta_i=20.0, theta_e=3.0, before=(-0.4,), after=(-0.4,), points=points)


def _sun() -> Iterator[Row]:
    day = Day(month=4, day=9)
    hours = np.linspace(0.5, 6.0, 12)
    morning, evening = sun_at(47.0, day, 12 - hours), sun_at(47.0, day, 12 + hours)
    yield Row(name="sun: altitude before and after noon, most apart [rad]", source="symmetry", reference=0.0,
              ours=float(np.abs(morning.altitude - evening.altitude).max()), tolerance=1e-12)  # fmt: skip
    yield Row(name="sun: azimuths before and after noon, most off a turn [rad]", source="symmetry", reference=0.0,
              ours=float(np.abs(morning.azimuth + evening.azimuth - 2 * math.pi).max()), tolerance=1e-9)  # fmt: skip


def _days() -> Iterator[Row]:
    """Without mass the hour's load is the hour's temperature; with it the mean stays, and the swing is dampened."""
    bare = MassWall(layers=(MassLayer(R=4.0),), Rsi=0.13, Rse=0.04)
    heavy = MassWall(layers=(MassLayer(d=0.2, lambda_=2.0, rho=2400.0, c=1000.0), MassLayer(R=3.9)), Rsi=0.13, Rse=0.04)
    outside = swing(24.0, 8.0, 15.0)
    for name, wall in (("massless wall", bare), ("heavy wall", heavy)):
        case_ = CoolingCase(theta_i=25.0, theta_e=outside, elements=(DayElement(id="wall", A=100.0, wall=wall),))
        found = cooling_day(case_)
        yield Row(name=f"{name}: mean load [W]", source="steady state", reference=100.0 / wall.R * (24.0 - 25.0),
                  ours=found.mean, tolerance=1e-9)  # fmt: skip
        if wall is bare:
            yield Row(name=f"{name}: load at 15:00 [W]", source="closed form", reference=100.0 / wall.R * (32.0 - 25.0),
                      ours=float(found.load[15]), tolerance=1e-9)  # fmt: skip


def _year() -> Iterator[Row]:
    months = tuple(MonthOutside(theta_e=9.0 - 11.0 * math.cos(2 * math.pi * m / 12), sun=0.0) for m in range(12))
    found = energy(EnergyCase(theta_i=20.0, months=months, H_tr=90.0, H_ve=25.0, C_m=8e6, A_F=120.0))
    reference = sum(0.024 * days * max(0.0, 20.0 - one.theta_e) for one, days in zip(months, DAYS, strict=True)) * 115.0
    yield Row(name="year without gains: need [kWh]", source="degree hours", reference=reference,
              ours=value_of(found.Q_nd), tolerance=1e-8)  # fmt: skip
