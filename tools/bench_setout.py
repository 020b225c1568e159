"""What set-out and shop cost: a long wall to its optimum, a face that is drawn on, many faces, bars and sheets."""

from __future__ import annotations

import random
import statistics
import tempfile
import time
from pathlib import Path

from nimble_shell.core.setout.elevation import Elevation, Opening
from nimble_shell.core.setout.panels import SetOut, set_out
from nimble_shell.core.setout.rules import Blank, Objective, Rules
from nimble_shell.core.shop.bars.nest import nest
from nimble_shell.core.shop.bars.stock import Nested, Saw, Stock
from nimble_shell.core.shop.sheets.cut import cut
from nimble_shell.core.shop.sheets.stock import Cut, Part, Sheet
from nimble_shell.core.shop.sheets.stock import Saw as SheetSaw
from nimble_shell.demo import PROJECT_ID, plant
from nimble_shell.services.projects import ProjectService
from tools.bench_design import served

WALL_MS, DRAG_MS, FACES_S, BARS_S, SHEETS_S = 300.0, 60.0, 20.0, 2.0, 5.0  #: asked
_FACES = 400
_ORDER = Objective(order=("panels", "off_module", "members", "waste"))


def wall(moved: float = 0.0) -> Elevation:
    """Thirty metres with ten openings."""
    openings = tuple(
        Opening(name=f"o{n}", x=1000.0 + moved + 2800.0 * n + 37.5 * (n % 3), y=900.0 if n % 3 else 0.0,
                w=900.0 + 200.0 * (n % 4), h=1300.0 if n % 3 else 2100.0)
        for n in range(10)
    )  # fmt: skip
    return Elevation(outline=((0, 0), (30_000, 0), (30_000, 2700), (0, 2700)), openings=openings)


def rules(step: float) -> Rules:
    blanks = (Blank(width=1200.0, length=2700.0), Blank(width=2400.0, length=2700.0))
    return Rules(layout="free", step=step, joint_at_edge=True, at_opening="either", edge_clear=150.0, min_strip=300.0,
                 blanks=blanks, module_widths=(1200.0, 2400.0))  # fmt: skip


def _once(elevation: Elevation, step: float) -> float:
    start = time.perf_counter()
    assert isinstance(set_out(elevation, rules(step), _ORDER), SetOut)
    return 1000 * (time.perf_counter() - start)


def drag_ms(steps: int) -> tuple[float, float]:
    """Median and p95 of a joint that is drawn along the demo's wall, over the API."""
    with tempfile.TemporaryDirectory() as folder, served(Path(folder), 0) as (client, database, _):
        plant(ProjectService(database))
        place = f"/api/v1/projects/{PROJECT_ID}/buildings/main-laboratory/setout"
        sheet = client.get(place).json()
        face, took = sheet["faces"][0]["face"], []
        for step in range(steps):
            pins = [{"face": face, "u": 5.2 + 0.005 * step, "storey": 0}]
            body = {"face": face, "choices": {**sheet["choices"], "pins": pins}}
            start = time.perf_counter()
            assert client.post(f"{place}/face", json=body).status_code == 200
            took.append(1000 * (time.perf_counter() - start))
        return statistics.median(took), statistics.quantiles(took, n=20)[-1]


def bars() -> tuple[float, bool]:
    """Two hundred pieces of twenty lengths, and whether they are proved."""
    given = random.Random(20)
    lengths = [float(one) for one in given.sample(range(300, 3500), 20)]
    start = time.perf_counter()
    found = nest(lengths, [10] * 20, [Stock(length=6000.0, cost=6000.0)], Saw(kerf=4.0), ("bars",))
    assert isinstance(found, Nested)
    return time.perf_counter() - start, found.proved


def sheets() -> tuple[float, float, float]:
    """A hundred and fifty parts, all different: seconds, boards and bound."""
    given = random.Random(1)
    parts = [Part(name=str(n), w=float(given.randint(200, 1200)), h=float(given.randint(200, 900)), count=1, turn=True)
             for n in range(150)]  # fmt: skip
    board = [Sheet(name="board", w=2500.0, h=1250.0, cost=1.0)]
    cut(parts[:2], board, SheetSaw(kerf=4.0))  # compiled once
    start = time.perf_counter()
    found = cut(parts, board, SheetSaw(kerf=4.0))
    assert isinstance(found, Cut)
    return time.perf_counter() - start, found.cost, found.bound


def main() -> None:
    _once(wall(), 50.0)
    for step in (50.0, 25.0, 10.0):
        took = statistics.median(_once(wall(2.5 * n), step) for n in range(1, 6))
        print(f"30 m with 10 openings to its optimum, places every {step:.0f} mm: {took:.0f} ms (asked {WALL_MS:.0f})")
    median, p95 = drag_ms(40)
    print(f"a joint drawn along a face: median {median:.0f} ms, p95 {p95:.0f} ms (asked {DRAG_MS:.0f})")
    start = time.perf_counter()
    for n in range(_FACES):
        set_out(wall(0.5 * n), rules(25.0), _ORDER)
    print(f"{_FACES} faces of that length: {time.perf_counter() - start:.0f} s (asked {FACES_S:.0f})")
    took, proved = bars()
    print(f"200 pieces in bars: {took:.1f} s, {'proved' if proved else 'not proved'} (asked {BARS_S:.0f})")
    took, boards, bound = sheets()
    print(f"150 parts in boards: {took:.1f} s, {boards:.0f} boards, bound {bound:.0f} (asked {SHEETS_S:.0f})")


if __name__ == "__main__":
    main()
