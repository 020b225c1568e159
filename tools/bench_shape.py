"""What a building's shape costs: everything derived from cold, after an edit of one body, and as it grows."""

from __future__ import annotations

import time

from nimble_shell.core.building.body import BuildingBody, PlacedOpening, Thicknesses
from nimble_shell.core.building.footprint import checked, footprint
from nimble_shell.core.building.joined import faces_of_building, floor_lines_of
from nimble_shell.core.building.roof import Roof
from nimble_shell.core.geometry.face import Opening
from nimble_shell.core.takeoff.takeoff import Takeoff, take_off

COLD_MS, EDIT_MS = 300.0, 30.0  #: asked: twelve buildings of 400 faces with 1,500 openings, and one edit
_BUILDINGS, _WINGS = 12, 5


def building(wings: int, shift: float = 0.0) -> list[BuildingBody]:
    """A row of bodies, each with a roof of two pitches and openings in both long walls."""
    thick = Thicknesses(wall=0.3, roof=0.35, floor=0.25)
    found = []
    for n in range(wings):
        plan = footprint("rectangle", 8.0, 7.0)
        outline = checked([(x + 8.0 * n, y) for x, y in plan])
        openings = tuple(
            PlacedOpening(
                side=side, opening=Opening(id=f"o{n}-{side}-{k}", u=0.3 + 0.6 * k + shift, v=0.9, w=0.45, h=1.2)
            )
            for side in (0, 2) for k in range(12)
        )  # fmt: skip
        found.append(BuildingBody(id=f"b{n}", outline=outline, storeys=(2.7, 2.6), thicknesses=thick,
                                  roof=Roof(form="two pitches", pitch=35), openings=openings))  # fmt: skip
    return found


def derived(bodies: list[BuildingBody]) -> Takeoff:
    """Every face, area, joint and opening of a building."""
    return take_off(faces_of_building(bodies), "external", floor_lines_of(bodies, 0.3))


def _least_ms(run: int, bodies: list[list[BuildingBody]]) -> float:
    took = []
    for _ in range(run):
        start = time.process_time()
        for one in bodies:
            derived(one)
        took.append(1000 * (time.process_time() - start))
    return min(took)


def main() -> None:
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
