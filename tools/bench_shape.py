"""What a building's shape costs: everything derived from cold, after an edit of one body, and as it grows."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path

from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.building.footprint import footprint
from nimble_shell.core.building.joined import faces_of_building, floor_lines_of
from nimble_shell.core.building.roof import Roof
from nimble_shell.core.takeoff.takeoff import Takeoff, take_off
from nimble_shell.demo import PROJECT_ID, plant
from nimble_shell.formats.project import BodyDoc
from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Database
from tools.bench_design import served
from tools.percentiles import percentiles

COLD_MS, EDIT_MS = 300.0, 30.0  #: asked: twelve buildings of 400 faces with 1,500 openings, and one edit
DRAG_MS = 60.0  #: asked of the server's answer to one step of a drag, p95
_BUILDINGS, _WINGS = 12, 6


_THICK = {"wall": 0.3, "roof": 0.35, "floor": 0.25}
Shape = tuple[list[BuildingBody], list[BodyOpening]]


def building(wings: int, shift: float = 0.0) -> Shape:
    """A row of bodies, each with a roof of two pitches and openings in both long walls."""
    bodies, openings = [], []
    for n in range(wings):
        plan = footprint("rectangle", 8.0, 7.0)
        bodies.append(BuildingBody(id=f"b{n}", outline=tuple((x + 8.0 * n, y) for x, y in plan), storeys=(2.7, 2.6),
                                   roof=Roof(form="two pitches", pitch=35), wall="wall", top="roof",
                                   floor="floor"))  # fmt: skip
        openings += [
            BodyOpening(id=f"o{n}-{side}-{k}", body=f"b{n}", side=side, u=0.3 + 0.6 * k + shift, sill=0.9, w=0.45,
                        h=1.2)
            for side in (0, 2) for k in range(11)
        ]  # fmt: skip
    return bodies, openings


def derived(shape: Shape) -> Takeoff:
    """Every face, area, joint and opening of a building."""
    bodies, openings = shape
    return take_off(faces_of_building(bodies, openings, _THICK), "external", floor_lines_of(bodies, 0.3))


def _least_ms(run: int, bodies: list[Shape]) -> float:
    took = []
    for _ in range(run):
        start = time.process_time()
        for one in bodies:
            derived(one)
        took.append(1000 * (time.process_time() - start))
    return min(took)


def _drag_ms() -> tuple[float, float]:
    """One step of a drag: the answer of the API to another outline of the Main Laboratory, ledger included."""
    with tempfile.TemporaryDirectory() as folder, served(Path(folder), 0) as (client, _, _):
        projects = ProjectService(Database(Path(folder)))
        lab = plant(projects).project.buildings[0]
        body = BodyDoc.from_core(lab.bodies[0]).to_wire()
        address = f"/api/v1/projects/{PROJECT_ID}/buildings/{lab.id}/shape"

        def step(run: int) -> None:
            wide = 8.4 + 0.005 * run
            outline = [[0, 0], [12, 0], [12, wide], [0, wide]]
            answer = client.post(address, json={"bodies": [{**body, "outline": outline}]})
            assert answer.status_code == 200

        return percentiles(step, 60)


def main() -> None:
    p50, p95 = _drag_ms()
    print(f"shape: one step of a drag, faces, quantities and ledger: p50 {p50:.0f} ms, p95 {p95:.0f} ms "
          f"(asked: p95 {DRAG_MS:.0f} ms, {'within' if p95 <= DRAG_MS else 'OVER'})")  # fmt: skip
    campus = [building(_WINGS) for _ in range(_BUILDINGS)]
    found = [derived(one) for one in campus]
    faces, openings = sum(len(one.faces) for one in found), sum(one.openings.n for one in found)
    cold = _least_ms(3, campus)
    print(f"shape: {_BUILDINGS} buildings, {faces} faces, {openings} openings, all derived: {cold:.0f} ms "
          f"(asked {COLD_MS:.0f}, {'within' if cold <= COLD_MS else 'OVER'})")  # fmt: skip
    edit = _least_ms(5, [building(_WINGS, 0.01)])
    print(f"  one building anew after an edit: {edit:.1f} ms (asked {EDIT_MS:.0f}, "
          f"{'within' if edit <= EDIT_MS else 'OVER'})")  # fmt: skip
    base = None
    print("growth with faces of one building")
    for wings in (2, 6, 20, 60, 200):
        bodies = building(wings)
        count = len(derived(bodies).faces)
        took = _least_ms(1 if wings > 50 else 3, [bodies])
        base = base or took / count
        print(f"  {count:5d} faces {took:8.1f} ms, per face {took / count / base:.2f} times the least building's")


if __name__ == "__main__":
    main()
