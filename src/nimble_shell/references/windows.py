"""Windows by parts: three units, their sums written out part by part, and two with a closed form."""

from __future__ import annotations

import json
from collections.abc import Iterator
from importlib.resources import files
from typing import Any

from nimble_shell.core.windows.transmittance import Frame, Glass, Window, window_figures
from nimble_shell.core.working import value_of
from nimble_shell.formats import neutral_shell
from nimble_shell.references.rows import Row

_TOLERANCE = 1e-6  #: of each figure


def case() -> dict[str, Any]:
    """The case with its reference."""
    found: dict[str, Any] = json.loads(
        files("nimble_shell.references").joinpath("cases", "shell_windows.json").read_text()
    )
    return found


def rows() -> list[Row]:
    """References of windows."""
    return [*_units(), *_closed()]


def _units() -> Iterator[Row]:
    given = case()
    asked = neutral_shell.read(given["case"])
    found = neutral_shell.compute(asked)["windows"]
    for unit, expected in given["reference"]["result"]["windows"].items():
        for key, reference in expected.items():
            yield Row(name=f"unit {unit}: {key}", source=given["reference"]["source"], reference=reference,
                      ours=found[unit][key], tolerance=_TOLERANCE * max(abs(reference), 1.0))  # fmt: skip


def _closed() -> Iterator[Row]:
    """A pane without a frame is its glass and its edge; a frame as good as its glass, without an edge, is both."""
    bare = Frame(left=0.0, right=0.0, top=0.0, bottom=0.0, U=1.0)
    pane = Window(w=2.0, h=0.5, frame=bare, glass=Glass(U=0.8, g=0.5, psi=0.05))
    alike = Window(w=1.3, h=0.9, frame=Frame(left=0.1, right=0.08, top=0.07, bottom=0.12, U=0.8),
                   glass=Glass(U=0.8, g=0.5, psi=0.0))  # fmt: skip
    for name, window, reference in (("bare pane", pane, 0.8 + 0.05 * 5.0), ("frame as its glass", alike, 0.8)):
        yield Row(name=f"{name}: U_w", source="closed form", reference=reference,
                  ours=value_of(window_figures(window).U_w), tolerance=1e-12)  # fmt: skip
