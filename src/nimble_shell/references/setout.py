"""Elevations cut into panels: what is least in two walls, and closed forms of walls without an opening."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator
from importlib.resources import files
from typing import Any

from nimble_shell.core.setout.elevation import Elevation
from nimble_shell.core.setout.panels import SetOut, set_out
from nimble_shell.core.setout.rules import Blank, Objective, Rules
from nimble_shell.formats import neutral_setout
from nimble_shell.references.rows import Row

CASES = ("panels_sip", "panels_metal")
_TOLERANCE = 1e-6  #: of each figure


def case(name: str) -> dict[str, Any]:
    """A case with its reference."""
    found: dict[str, Any] = json.loads(
        files("nimble_shell.references").joinpath("cases", f"setout_{name}.json").read_text()
    )
    return found


def rows() -> list[Row]:
    """References of the set-out."""
    return [*_walls(), *_closed()]


def _walls() -> Iterator[Row]:
    for name in CASES:
        given = case(name)
        found = neutral_setout.compute(neutral_setout.read(given["case"]))
        expected = {**given["reference"]["objective"], **given["reference"].get("what_if", {})}
        ours = {**found["objective"], **found.get("what_if", {})}
        for key, reference in expected.items():
            yield Row(name=f"{name}: {key}", source="worked case", reference=reference, ours=ours[key],
                      tolerance=_TOLERANCE)  # fmt: skip


def _closed() -> Iterator[Row]:
    """A plain wall takes as many sheets as its length holds, and wastes what the last ones are too wide."""
    rules = Rules(layout="free", step=10.0, joint_at_edge=False, at_opening="inside", edge_clear=0.0, min_strip=300.0,
                  blanks=(Blank(width=1200.0, length=2700.0),))  # fmt: skip
    for length in (1200.0, 7210.0, 29_990.0):
        wall = Elevation(outline=((0.0, 0.0), (length, 0.0), (length, 2700.0), (0.0, 2700.0)))
        found = set_out(wall, rules, Objective(order=("panels", "waste")))
        assert isinstance(found, SetOut)
        count = math.ceil(length / 1200.0)
        for key, reference in (("panels", count), ("waste", (count * 1200.0 - length) * 2.7e-3)):
            yield Row(name=f"plain wall of {length:g} mm: {key}", source="closed form", reference=float(reference),
                      ours=float(getattr(found.sum, key)), tolerance=_TOLERANCE)  # fmt: skip
