"""Bodies of faces: areas, joints and volume of two houses that were worked out from their planes."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator
from importlib.resources import files
from typing import Any

from nimble_shell.core.geometry.face import Face
from nimble_shell.core.takeoff.takeoff import take_off
from nimble_shell.formats import neutral_shell
from nimble_shell.references.rows import Row

HOUSES = ("shell_two_pitches", "shell_split_level")
_TOLERANCE = 0.0005  #: of each figure


def house(name: str) -> dict[str, Any]:
    """A case with its reference."""
    text = files("nimble_shell.references").joinpath("cases", f"{name}.json").read_text()
    case: dict[str, Any] = json.loads(text)
    return case


def rows() -> list[Row]:
    """References of bodies."""
    return [*_houses(), *_pyramid()]


def _houses() -> Iterator[Row]:
    for name in HOUSES:
        given = house(name)
        asked = neutral_shell.read(given["case"])
        found = neutral_shell.compute(asked)["geometry"]
        expected = given["reference"]["result"]["geometry"]
        for place in ("areas", "openings", "joints", "volume", "A_E", "ground"):
            for path, reference in _leaves(expected[place], place):
                ours: Any = found
                for step in path.split("/"):
                    ours = ours[step]
                named = f"{name.replace('_', ' ')}: {path.replace('/', ' ')}"
                yield Row(name=named, source=given["reference"]["source"],
                          reference=reference, ours=ours, tolerance=_TOLERANCE * max(abs(reference), 1.0))  # fmt: skip


def _leaves(value: Any, path: str) -> Iterator[tuple[str, float]]:
    if isinstance(value, dict):
        for key, one in value.items():
            yield from _leaves(one, f"{path}/{key}")
    else:
        yield path, float(value)


def _pyramid() -> Iterator[Row]:
    """A pyramid on a square: the volume is a third of base times height, the hips are its edges in space."""
    wide, pitch = 6.0, 40.0
    high = wide / 2 * math.tan(math.radians(pitch))
    corners = ((0.0, 0.0), (wide, 0.0), (wide, wide), (0.0, wide))
    top = (wide / 2, wide / 2)
    sides = [Face(id=f"r{n}", kind="roof", at=(*corners[n], 0.0), pitch=pitch, azimuth=180.0 - 90.0 * n,
                  outline=(corners[n], corners[(n + 1) % 4], top)) for n in range(4)]  # fmt: skip
    floor = Face(id="floor", kind="floor", outline=corners, to="ground")
    found = take_off([*sides, floor], "external")
    edge = math.hypot(wide / 2, wide / 2, high)
    for name, reference, ours in (
        ("volume [m³]", wide**2 * high / 3, found.volume.external),
        ("hips [m]", 4 * edge, found.joints["hip"]["outside"].external),
        ("roof [m²]", wide**2 / math.cos(math.radians(pitch)), found.areas["roof|outside"].gross.external),
    ):
        yield Row(
            name=f"pyramid: {name}", source="closed form", reference=reference, ours=ours, tolerance=1e-9 * reference
        )
