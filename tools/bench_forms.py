"""What forms cost: twelve corners with thirty openings to the optimum, a window that is drawn, drift of a high wall."""

from __future__ import annotations

import random
import statistics
import tempfile
import time
from pathlib import Path

from nimble_shell.core.setout.courses.courses import Coursed, lay_run
from nimble_shell.core.setout.courses.run import Block, Run, RunWall, WallOpening
from nimble_shell.core.setout.drift import DriftCase, mend
from nimble_shell.demo import PROJECT_ID, plant
from nimble_shell.services.projects import ProjectService
from tools.bench_design import served

RUN_S, DRAG_MS, DRIFT_S = 3.0, 100.0, 1.0  #: asked
_BLOCK = Block(length=1200, height=400, half_height=200, thickness=300, increment=200, min_cut=400, long=900, short=500)
_STEPS = 60


def run(*, webs: bool) -> tuple[float, bool]:
    """Seconds, and whether it is proved; with webs also the fewest pieces on one of them."""
    lengths, turns = (9800.0, 6700.0, 6700.0), ("out", "in", "out")
    walls = tuple(RunWall(name=f"W{n}", length=lengths[n % 3], turn=turns[n % 3]) for n in range(12))  # type: ignore[arg-type]
    given = random.Random(30)
    openings = tuple(
        WallOpening(name=f"O{n}-{k}", wall=f"W{n}", x=1500.0 + 1700.0 * k + 50 * given.randint(0, 4), y=800.0, w=1000.0,
                    h=1300.0)
        for n in range(12) for k in range(4 if n % 3 == 0 else 0 if n == 11 else 2)
    )  # fmt: skip
    given_run = Run(block=_BLOCK, bond=200.0, height=2600.0, first_long="before", closed=True, walls=walls,
                    openings=openings, webs=webs)  # fmt: skip
    start = time.perf_counter()
    found = lay_run(given_run)
    return time.perf_counter() - start, isinstance(found, Coursed) and found.proved


def drag_ms() -> tuple[float, float]:
    """Median and p95 of a window that is drawn along a form wall of the demo, over the API."""
    with tempfile.TemporaryDirectory() as folder, served(Path(folder), 0) as (client, database, _):
        plant(ProjectService(database))
        place = f"/api/v1/projects/{PROJECT_ID}/buildings/boat-workshop"
        project = client.get(f"/api/v1/projects/{PROJECT_ID}").json()["project"]
        openings = next(one for one in project["buildings"] if one["id"] == "boat-workshop")["openings"]
        took = []
        for step in range(_STEPS):
            moved = [{**one, "u": one["u"] + 0.005 * step} if one["id"] == "w1" else one for one in openings]
            start = time.perf_counter()
            client.post(f"{place}/courses/wall", json={"wall": "b1.1.p1", "openings": moved})
            took.append(1000 * (time.perf_counter() - start))
        return statistics.median(took), statistics.quantiles(took, n=20)[-1]


def drift_s() -> tuple[float, bool]:
    """Forty blocks in twelve courses, and whether it is proved."""
    given = random.Random(40)
    courses = tuple(tuple(1200.0 + 0.5 * given.randint(-10, 2) for _ in range(40)) for _ in range(12))
    case = DriftCase(nominal=1200, sheets=(1200.0,) * 40, courses=courses, tolerance=8, step=0.5, max_trim=30,
                     thickness=270)  # fmt: skip
    start = time.perf_counter()
    found = mend(case)
    return time.perf_counter() - start, found is None or found.proved


def main() -> None:
    """Print a row each."""
    for webs in (False, True):
        seconds, proved = run(webs=webs)
        words = "fewest on one web too" if webs else "pieces, cuts, blocks"
        print(f"courses, 12 corners, 30 openings, {words}: {seconds:.1f} s of {RUN_S:g}, proved {proved}")
    median, p95 = drag_ms()
    print(f"a window drawn along a form wall: {median:.0f} ms, p95 {p95:.0f} of {DRAG_MS:g}")
    seconds, proved = drift_s()
    print(f"drift, 40 blocks × 12 courses: {seconds:.1f} s of {DRIFT_S:g}, proved {proved}")


if __name__ == "__main__":
    main()
