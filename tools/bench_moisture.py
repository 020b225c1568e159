"""Moisture in `./nimble bench`: a year by month, years by hour, and accuracy against cost."""

from __future__ import annotations

import math
import multiprocessing
import time
from concurrent.futures import ProcessPoolExecutor

import numpy as np

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.moisture.hourly.transport import Boundaries, Films, Run, RunOptions, Slab, Stuff, cells, run
from nimble_shell.core.moisture.hourly.warm import warm
from nimble_shell.core.moisture.monthly.element import element_planes, element_year, months_of
from nimble_shell.core.moisture.monthly.leak import Leak, leak_year, skin_plane
from nimble_shell.core.moisture.verdict.verdict import judge
from nimble_shell.references.moisture import saturated
from nimble_shell.services.hours import fan

_WOOD = Stuff(
    rho=650.0, c=1700.0, lambda_=0.13, lambda_w=3e-4, mu=((0.25, 200.0), (0.85, 60.0)),
    sorption=((0.0, 0.0), (0.2, 20.0), (0.5, 52.0), (0.8, 80.0), (0.95, 140.0), (1.0, 500.0)),
    Dw=((0.0, 1e-14), (80.0, 1e-13), (500.0, 5e-10)),
)  # fmt: skip
_FOAM = Stuff(rho=18.0, c=1450.0, lambda_=0.035, mu=((0.5, 50.0),))
_PLASTER = Stuff(
    rho=800.0, c=1000.0, lambda_=0.2, mu=((0.5, 8.0),), sorption=((0.0, 0.0), (0.8, 8.0), (0.95, 20.0), (1.0, 300.0)),
    Dw=((0.0, 1e-10), (300.0, 1e-7)),
)  # fmt: skip
WALL = (Slab(stuff=_PLASTER, d=0.0125), Slab(stuff=_WOOD, d=0.011), Slab(stuff=_FOAM, d=0.165),
        Slab(stuff=_WOOD, d=0.011))  # fmt: skip


def weather() -> Boundaries:
    """An invented year: seasons, days, and a scatter that repeats after no day."""
    t = np.arange(8760)
    theta = 8 - 12 * np.cos(2 * np.pi * t / 8760) - 5 * np.cos(2 * np.pi * t / 24) + 3 * np.sin(t * 0.31)
    p = np.array([saturated(float(one)) for one in theta]) * np.clip(0.8 + 0.15 * np.sin(t * 0.01), 0, 1)
    return Boundaries(theta_e=theta, p_e=p, theta_i=np.full(8760, 20.0), p_i=1170 + 200 * np.sin(t * 0.26))


def timed(finest: float, growth: float, tolerance: float, years: int = 1) -> tuple[float, Run]:
    """Seconds of a warm run, the best of two, and what it found."""
    grid, climate, best = cells(WALL, finest, growth), weather(), math.inf
    for _ in range(2):
        start = time.perf_counter()
        found = run(
            WALL, Films(), climate, 20.0, 0.7, 8760 * years, RunOptions(keep=[], grid=grid, tolerance=tolerance)
        )
        best = min(best, time.perf_counter() - start)
    return best, found


def main() -> None:
    assembly = SYSTEMS["mesh-mortar"].assembly("w", "w")
    start = time.perf_counter()
    for _ in range(20):
        element_year(assembly, CATALOGUE, Basis())
    print(
        f"moisture by month: {50 * (time.perf_counter() - start):.1f} ms a build-up (part of the 50 ms of a live edit)"
    )
    run(WALL, Films(), weather(), 20.0, 0.7, 24, RunOptions(keep=[]))
    print("moisture by hour, warm")
    for finest, growth, years, asked in ((0.0005, 1.15, 1, 1.0), (0.001, 1.35, 1, 1.0), (0.001, 1.35, 5, 5.0)):
        seconds, found = timed(finest, growth, 1.0, years)
        print(f"  {years} year{'s' if years > 1 else ' '} {len(found.grid.dx):4d} cells: {seconds:5.2f} s "
              f"(asked: {asked:g} s), balance {found.balance_error:.0e} kg/m²")  # fmt: skip
    grid = cells(WALL, 0.0003, 1.12)
    true = run(WALL, Films(), weather(), 20.0, 0.7, 8760, RunOptions(keep=[], grid=grid, tolerance=0.4))
    print("  accuracy against cost: water of the outer skin after a year, against a finer run")
    for finest, growth, tolerance in ((0.002, 1.6, 3.0), (0.001, 1.35, 1.0), (0.0005, 1.2, 1.0), (0.0005, 1.2, 0.3)):
        seconds, found = timed(finest, growth, tolerance)
        off = abs(found.totals[-1][-1] / true.totals[-1][-1] - 1)
        print(f"    {len(found.grid.dx):4d} cells, tolerance {tolerance:g}: {seconds:5.2f} s, {100 * off:.3f} % off")
    _lives()


def _lives() -> None:
    """A run until its years repeat, and eight lives of three years on two workers, with their reading."""
    wall = SYSTEMS["sip"].assembly("w", "w")
    life = Life()
    start = time.perf_counter()
    found = seasons(wall, CATALOGUE, Basis(), life)
    seconds = time.perf_counter() - start
    print(f"a build-up of {found.cells} cells until its years repeat: {seconds:.1f} s for {found.years} years")
    runs = [one for _, one in fan(life)]
    with ProcessPoolExecutor(2, mp_context=multiprocessing.get_context("spawn")) as pool:
        list(pool.map(warmed, range(2)))
        start = time.perf_counter()
        list(pool.map(seasons, *zip(*((wall, CATALOGUE, Basis(), one) for one in runs), strict=True)))
        seconds = time.perf_counter() - start
    print(f"the fan, {len(runs)} lives of three years on two workers: {seconds:.1f} s (asked: 15 s)")
    coarse = seasons(wall, CATALOGUE, Basis(), Life(coarse=True, years=2))
    fine = seasons(wall, CATALOGUE, Basis(), Life(years=2))
    print(f"  on its {coarse.cells} cells the wettest wood is {100 * coarse.worst_wood[1]:.2f} %, "
          f"on {fine.cells} cells {100 * fine.worst_wood[1]:.2f} %")  # fmt: skip
    planes, counted = element_planes(wall, CATALOGUE, Basis())
    leak = Leak(leakage=0.9, height=3.5, plane=skin_plane(wall, planes, counted))
    start = time.perf_counter()
    leak_year(wall, CATALOGUE, planes, months_of(Basis()), leak, Basis().air, Basis().damp)
    one = time.perf_counter() - start
    start = time.perf_counter()
    judge(wall, CATALOGUE, Basis())
    print(f"a joint line by month: {1000 * one:.0f} ms; a verdict with its margin, in a worker: "
          f"{time.perf_counter() - start:.2f} s")  # fmt: skip


def warmed(_: int) -> None:
    """In a worker, before it is timed."""
    warm()
