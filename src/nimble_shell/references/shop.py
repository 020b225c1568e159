"""The shop: the least bars and sheets of two lots, and closed forms of quantities and laydowns."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from nimble_shell.formats import neutral_shop
from nimble_shell.references.rows import Row
from nimble_shell.references.setout import case

_TOLERANCE = 1e-6


def rows() -> list[Row]:
    """References of the shop."""
    return [*_bars(), *_sheets(), *_quantities(), *_laydown()]


def _answer(given: dict[str, Any]) -> dict[str, Any]:
    return neutral_shop.compute(neutral_shop.read(given))


def _bars() -> Iterator[Row]:
    given = case("shop_bars")
    found = _answer(given["case"])
    for term, reference in given["reference"]["objective"].items():
        yield Row(name=f"bars: {term}", source="worked case", reference=reference, ours=found["objective"][term],
                  tolerance=_TOLERANCE)  # fmt: skip


def _sheets() -> Iterator[Row]:
    given = case("shop_sheets")
    found = _answer(given["case"])
    reference = given["reference"]
    for name, expected, ours in (
        ("cost", reference["best_cost"], found["objective"]["cost"]),
        ("bound", reference["proved_bound"], found["bound"]),
    ):  # fmt: skip
        yield Row(name=f"sheets: {name}", source="worked case", reference=expected, ours=ours, tolerance=_TOLERANCE)


def _quantities() -> Iterator[Row]:
    """Concrete of a square ring of walls, and of a waffle whose ribs fill it, are prisms."""
    walls = [{"name": str(n), "length": 10_000.0, "turn": "out"} for n in range(4)]
    flat = {"type": "icf_concrete", "run": {"closed": True, "walls": walls}, "height": 3000.0, "foam_out": 75.0,
            "core": 150.0, "openings": [{"w": 1000.0, "h": 2000.0, "count": 3}], "waste": 0.05,
            "truck_m3": 8.0}  # fmt: skip
    full = {**flat, "waffle": {"a": 400.0, "b": 300.0, "web": 50.0, "v": [400.0, 150.0], "h": [300.0, 150.0]}}
    # Between both faces of the core.
    volume = (9.85**2 - 9.55**2) * 3.0 - 3 * 2.0 * 0.15
    mix = [{"name": "lime", "ratio": 1.0, "density": 600.0, "bag_kg": 25.0},
           {"name": "sand", "ratio": 3.0, "density": 1500.0, "bag_kg": None}]  # fmt: skip
    plaster = {"type": "plaster", "area_m2": 40.0, "openings": [], "faces": [30.0, 30.0], "bond": 5.0, "parts": mix,
               "yield": 0.7, "batch_l": 100.0}  # fmt: skip
    bead = {"type": "sealant", "length_m": 100.0, "passes": 2, "bead": {"round": 10.0}, "waste": 0.1, "tube_ml": 310.0}
    items = _answer({"kind": "quantities", "items": [flat, full, plaster, bead]})["items"]
    for name, reference, ours in (
        ("concrete of a ring", volume, items[0]["volume_m3"]),
        ("the same of ribs that fill it", volume, items[1]["volume_m3"]),
        ("wet plaster", 40 * 0.07, items[2]["volume_m3"]),
        ("dry lime of 28 batches", 28 * 100 / 0.7 / 4, items[2]["parts"][0]["litres"]),
        ("sealant of a cylinder", 200 * math.pi * 25 * 1.1, items[3]["volume_ml"]),
    ):
        yield Row(name=name, source="closed form", reference=reference, ours=ours, tolerance=_TOLERANCE * reference)


def _laydown() -> Iterator[Row]:
    """A right triangle of whole numbers, and a square pushed aside."""
    found = _answer({"kind": "laydown", "outline": [[0, 0], [4000, 0], [0, 3000]]})
    yield Row(name="side opposite a right angle", source="closed form", reference=5000.0, ours=found["sides"][1],
              tolerance=_TOLERANCE)  # fmt: skip
    square = [[0, 0], [2000, 0], [2000, 2000], [0, 2000]]
    lean = math.radians(1.0)
    long, short = 4000 * math.cos((math.pi / 2 - lean) / 2), 4000 * math.sin((math.pi / 2 - lean) / 2)
    read = _answer({"kind": "laydown", "outline": square, "tolerance": 3.0,
                    "measured": {"sides": [2000] * 4, "diagonals": [long, short]}})["check"]  # fmt: skip
    yield Row(name="rhombus that leans by a degree: angle at 0", source="closed form", reference=89.0,
              ours=read["angles_deg"][0], tolerance=_TOLERANCE)  # fmt: skip
    yield Row(name="the same: to be racked", source="closed form", reference=(long - short) / 2, ours=read["rack_mm"],
              tolerance=_TOLERANCE)  # fmt: skip
