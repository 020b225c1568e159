"""`./nimble bench`: what an edit costs the server, as percentiles, growth curves and ratios within one run."""

from __future__ import annotations

import argparse
import json
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from http.client import HTTPConnection
from pathlib import Path
from typing import Any

import numpy as np

from nimble_shell.api.main import create_app
from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.studies.thickness import thickness_study
from nimble_shell.core.studies.variants import FloatArray, decide
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.demo.heron_flats import PROJECT_ID, plant
from nimble_shell.formats.project import AssemblyDoc
from nimble_shell.services.projects import ProjectService
from nimble_shell.services.solver_queue import SolverQueue
from nimble_shell.store import Database
from tools import (
    bench_design,
    bench_fixings,
    bench_forms,
    bench_frame,
    bench_joints,
    bench_moisture,
    bench_setout,
    bench_shape,
    bench_whole,
)
from tools.in_process import InProcess
from tools.percentiles import percentiles
from tools.window import Server

BUDGET_MS = 25.0  #: asked of one edit of a 12-layer wall, p95
STUDY_MS = 300.0  #: asked of a whole foam study


def wall_of(layers: int) -> Assembly:
    """A wall of so many layers: the demo's SIP wall with boards added inside."""
    wall = SYSTEMS["sip"].assembly("wall-w-a", "Wall W-A")
    boards = tuple(
        Layer(id=f"b{n}", material="gypsum-board" if n % 2 else "wood-fibre-board", d=0.0125 + n * 0.001)
        for n in range(layers - len(wall.layers))
    )
    return replace(wall, layers=(*boards, *wall.layers))


def _edits(ask: Callable[[dict[str, Any]], int], runs: int) -> tuple[float, float]:
    """Of a 12-layer wall whose core is another one thick at each run; drafts are drawn before anything is timed."""
    wall = wall_of(12)
    core = wall.core_index
    assert core is not None
    drafts = [AssemblyDoc.from_core(wall.with_thickness(core, 0.1 + 0.0005 * n)).to_wire() for n in range(-10, runs)]

    def edit(run: int) -> None:
        assert ask({"building_id": "main-laboratory", "condition": "0", "assembly": drafts[run + 10]}) == 200

    for run in range(-10, 0):
        edit(run)
    return percentiles(edit, runs)


def edit_latency(runs: int) -> tuple[float, float]:
    """One edit of a 12-layer wall of a building with a shape: request in, every figure out."""
    with tempfile.TemporaryDirectory() as folder:
        database = Database(Path(folder))
        database.migrate()
        plant(ProjectService(database))
        with InProcess(create_app(database, queue=SolverQueue(workers=0))) as app:
            found = _edits(lambda body: app.post(f"/api/v1/projects/{PROJECT_ID}/bench", body), runs)
        database.close()
        return found


def edit_over_a_connection(runs: int) -> tuple[float, float]:
    """The same of a server, over a connection that is kept, as a window has one, once its joints are solved."""
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        while server.call("GET", f"/projects/{PROJECT_ID}/buildings/main-laboratory/ledger")["now"]["pending"]:
            time.sleep(1)
        kept = HTTPConnection("127.0.0.1", server.port)

        def ask(body: dict[str, Any]) -> int:
            headers = {"Content-Type": "application/json", "Authorization": f"Bearer {server.key}"}
            kept.request("POST", f"/api/v1/projects/{PROJECT_ID}/bench", json.dumps(body), headers)
            answer = kept.getresponse()
            answer.read()
            return answer.status

        found = _edits(ask, runs)
        kept.close()
        server.stop()
        return found


def main() -> None:
    reader = argparse.ArgumentParser(prog="./nimble bench", description="Measured speed, as figures and ratios.")
    reader.add_argument("--save", type=Path, metavar="FILE", help="draw the growth of fixings in space as SVG")
    arguments = reader.parse_args()
    bench_design.main()  # first: a server's process is as young
    p50, p95 = edit_latency(200)
    print(f"one edit of a 12-layer wall, all figures, study and ledger: p50 {p50:.1f} ms, p95 {p95:.1f} ms "
          f"(asked: p95 {BUDGET_MS:.0f} ms, {'within' if p95 <= BUDGET_MS else 'OVER'})")  # fmt: skip
    p50, p95 = edit_over_a_connection(200)
    print(f"the same over a connection to a server at rest: p50 {p50:.1f} ms, p95 {p95:.1f} ms")
    basis = Basis()
    base = None
    print("growth with layers: all figures of one wall")
    for layers in (8, 12, 24, 48):
        wall = wall_of(layers)
        p50, _ = percentiles(lambda run, wall=wall: wall_figures(wall, CATALOGUE, basis, str(run % 12)), 40)  # type: ignore[misc]
        base = base or p50
        print(f"  {layers:3d} layers: {p50:6.2f} ms, {p50 / base:4.2f} × the 8-layer wall")
    wall = wall_of(12)
    figures, _ = percentiles(lambda run: wall_figures(wall, CATALOGUE, basis, str(run % 12)), 40)
    study, _ = percentiles(lambda run: thickness_study(wall, CATALOGUE, basis, asked=5.0 + 0.01 * run), 40)
    cores = SYSTEMS["sip"].cores
    swept = wall_of(12)
    p50, p95 = percentiles(lambda run: decide(swept, CATALOGUE, basis, cores, asked=5.0 + 0.01 * run), 20)
    print(f"foam study, 8 cores by 40 thicknesses, every column: p50 {p50:.0f} ms, p95 {p95:.0f} ms "
          f"(asked: {STUDY_MS:.0f} ms, {'within' if p95 <= STUDY_MS else 'OVER'})")  # fmt: skip
    print("growth with variants: the same study")
    base = None
    for each in (40, 400, 1250):
        grid = np.linspace(0.05, 0.5, each)

        def sweep(run: int, grid: FloatArray = grid) -> object:
            return decide(swept, CATALOGUE, basis, cores, asked=5.0 + 0.01 * run, thicknesses=grid)

        p50, _ = percentiles(sweep, 5)
        base = base or p50
        print(f"  {8 * each:6d} variants: {p50:6.0f} ms, {p50 / base:4.1f} × the 320-variant study")
    print(f"thickness study of 30 walls over the figures of one: {study / figures:.2f} ×")
    bench_moisture.main()
    bench_joints.main()
    bench_shape.main()
    bench_frame.main()
    bench_whole.main()
    bench_setout.main()
    bench_forms.main()
    bench_fixings.main(arguments.save)


if __name__ == "__main__":
    main()
