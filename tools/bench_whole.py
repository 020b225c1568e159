"""What the whole shell costs: a building summed up after an edit, its hot day, its ground, and its measures."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path

from nimble_shell.core.ground.floor import Slab
from nimble_shell.core.ground.steady import ground_figures
from nimble_shell.core.loads.cooling_day import CoolingCase, DayElement, SunnyDay, cooling_day, swing
from nimble_shell.core.loads.periodic_walls import MassLayer, MassWall
from nimble_shell.core.shell.project import Project
from nimble_shell.core.sun.position import Day
from nimble_shell.demo import PROJECT_ID, plant
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.store import Stored
from tools.bench_design import served

WHOLE_MS, DAY_MS, GROUND_MS, MEASURES_MS = 60.0, 5.0, 50.0, 2000.0  #: asked
_ELEMENTS, _CASES = 40, 500


def hot_day_ms() -> float:
    """A day of forty elements that all look another way."""
    layers = (
        MassLayer(d=0.0125, lambda_=0.25, rho=800.0, c=1000.0),
        MassLayer(d=0.16, lambda_=0.035, rho=18.0, c=1450.0),
        MassLayer(d=0.14, lambda_=2.0, rho=2400.0, c=1000.0),
    )
    wall = MassWall(layers=layers, Rsi=0.13, Rse=0.04)
    elements = tuple(DayElement(id=str(n), A=20.0, wall=wall, azimuth=9.0 * n, alpha=0.6) for n in range(_ELEMENTS))
    case = CoolingCase(theta_i=25.0, theta_e=swing(23.0, 7.0, 15.0), elements=elements,
                       sun=SunnyDay(latitude=50.0, day=Day(month=7, day=15)))  # fmt: skip
    return _least(lambda: cooling_day(case))


def ground_ms() -> float:
    """Five hundred floors."""
    floors = [Slab(A=60.0 + n, P=32.0, lambda_=2.0, w=0.3, Rf=0.01 * n) for n in range(_CASES)]
    return _least(lambda: [ground_figures(one) for one in floors])


def _least(run: Callable[[], object]) -> float:
    took = []
    for _ in range(20):
        start = time.perf_counter()
        run()
        took.append(1000 * (time.perf_counter() - start))
    return min(took)


def answers(runs: int) -> tuple[tuple[float, float], float]:
    """Median and p95 of a building summed up after an edit of it, and its measures once. [ms]"""
    with tempfile.TemporaryDirectory() as folder, served(Path(folder), 0) as (client, database, _):
        projects = ProjectService(database)
        plant(projects)
        place = f"/api/v1/projects/{PROJECT_ID}/buildings/main-laboratory"
        took = []
        assert client.get(f"{place}/whole").status_code == 200
        for run in range(runs):
            note = ChangeNote(text="persons", zone="D7")
            projects.edit(PROJECT_ID, partial(_more_persons, persons=4.0 + run), note)
            assert client.get(f"{place}/ledger").status_code == 200  # is asked first, and knows fixings and joints
            start = time.perf_counter()
            assert client.get(f"{place}/whole").status_code == 200
            took.append(1000 * (time.perf_counter() - start))
        start = time.perf_counter()
        assert client.get(f"{place}/measures").status_code == 200
        return (statistics.median(took), statistics.quantiles(took, n=20)[-1]), 1000 * (time.perf_counter() - start)


def _more_persons(stored: Stored, persons: float) -> Project:
    lab, *others = stored.project.buildings
    made = replace(lab, plant=replace(lab.plant, air=replace(lab.plant.air, persons=persons)))
    return replace(stored.project, buildings=(made, *others))


def main() -> None:
    (median, p95), measures = answers(40)
    print(f"whole shell summed up after an edit: median {median:.0f} ms, p95 {p95:.0f} ms (asked {WHOLE_MS:.0f})")
    print(f"cooling day of {_ELEMENTS} elements: {hot_day_ms():.1f} ms (asked {DAY_MS:.0f})")
    print(f"{_CASES} floors on the ground: {ground_ms():.0f} ms (asked {GROUND_MS:.0f})")
    print(f"measures of a building, first answer: {measures:.0f} ms (asked {MEASURES_MS:.0f})")


if __name__ == "__main__":
    main()
