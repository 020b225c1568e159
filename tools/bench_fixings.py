"""Fixings in `./nimble bench`: χ in its time, one large solution in space, and growth."""

from __future__ import annotations

import time
from pathlib import Path

import numpy as np

from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.conduction.boxes import BoxModel, first_lines
from nimble_shell.core.conduction.mesh import Grid, first_grid
from nimble_shell.core.conduction.solve import solve_on
from nimble_shell.core.conduction.solve_boxes import refined_boxes, solve_cells
from nimble_shell.core.fixings.cell import Cell, cell_of
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.materials import CATALOGUE
from tools.bench_joints import halved_all, section, timed
from tools.growth import Series, drawn

ASKED = 200_000  #: unknowns of a fixing in space that are to be solved in 3 s


def cell(kind: str, system: str = "masonry") -> Cell:
    """A kind of fixing at its usual sizes."""
    wall = SYSTEMS[system].assembly("w", system)
    return cell_of(wall, started(kind, wall, wall.layers[wall.core_index or 0].id, "f"), CATALOGUE, Basis())


def model_of(kind: str) -> tuple[BoxModel, float]:
    """Boxes of a fixing, and U·A of the quarter cell. [W/K]"""
    one = cell(kind)
    assert one.boxes is not None
    return one.boxes, one.U * one.boxes.boxes[0].high[0] * one.boxes.boxes[0].high[2]


def at_least(lines: list[np.ndarray], cells: int) -> list[np.ndarray]:
    """The lines with every interval halved, axis by axis, until there are so many cells."""
    axis = 0
    while np.prod([float(len(line) - 1) for line in lines]) < cells:
        lines = [halved_all(line) if at == axis else line for at, line in enumerate(lines)]
        axis = (axis + 1) % 3
    return lines


def main(figure: Path | None = None) -> None:
    """Print the figures; draw the growth where a file is named."""
    print("fixings in space, χ within 1 % of converged")
    for kind in ("veneer", "web", "bracket"):
        model, field = model_of(kind)

        def chi(good: float, model: BoxModel = model, field: float = field) -> float:
            def enough(G: np.ndarray, error: float) -> bool:
                return bool(error * abs(G[0, 1]) <= good * abs(-G[0, 1] - field))

            return float(-refined_boxes(model, enough).G[0, 1] - field)

        converged = chi(0.001)
        seconds, found = timed(lambda chi=chi: chi(0.01), 1)  # type: ignore[misc]
        print(f"  {kind:8s} {1000 * seconds:6.0f} ms, {100 * abs(found - converged) / converged:.2f} % of χ off")
    model, _ = model_of("bracket")
    lines = refined_boxes(model, lambda *_: False, most=ASKED * 3 // 2).fields.cells.lines
    seconds, _ = timed(lambda: -float(solve_cells(model, lines).G[0, 1]), 1)
    count = int(np.prod([len(line) - 1 for line in lines]))
    print(f"  {count} cells: {seconds:.1f} s (asked: 3 s), {'within' if seconds <= 3 else 'OVER'}")
    print("growth of one solution with its unknowns")
    growths = [_in_space(), _in_plane()]
    for series in growths:
        first = series.points[0][1] / series.points[0][0]
        for unknowns, seconds in series.points:
            print(f"  {series.name:8s} {unknowns:9d} unknowns: {seconds:6.2f} s, "
                  f"{seconds / unknowns / first:4.1f} × per unknown")  # fmt: skip
    if figure is not None:
        figure.write_text(drawn(growths))


def _in_space() -> Series:
    model, _ = model_of("bracket")
    points = []
    for asked in (10_000, 30_000, 100_000, 300_000, 1_000_000):
        lines = at_least(first_lines(model), asked)
        begun = time.perf_counter()
        fields = solve_cells(model, lines)
        points.append((len(fields.theta), time.perf_counter() - begun))
    return Series(name="in space", points=points)


def _in_plane() -> Series:
    one = section("corner", "lumber", "sip")
    grid = first_grid(one)
    points: list[tuple[int, float]] = []
    while not points or points[-1][0] < 1_000_000:
        begun = time.perf_counter()
        fields = solve_on(one, grid)
        seconds = time.perf_counter() - begun
        if fields.space.size >= 10_000:
            points.append((fields.space.size, seconds))
        grid = Grid(x=halved_all(grid.x), y=halved_all(grid.y))
        if fields.space.size > 300_000:
            break
    return Series(name="in plane", points=points)


if __name__ == "__main__":
    main()
