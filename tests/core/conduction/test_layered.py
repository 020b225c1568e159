"""The solver for layers with little in them, against algebraic multigrid on the same cells."""

from __future__ import annotations

import numpy as np
import pytest

from nimble_shell.core.conduction import solve_boxes
from nimble_shell.core.conduction.boxes import Box, BoxModel, Face, first_lines
from nimble_shell.core.conduction.solve_boxes import solve_cells


def bracket(lambda_: float) -> BoxModel:
    """A plate with a foot that crosses insulation and stands free outside, with void around it."""
    return BoxModel(
        boxes=(
            Box(low=(0, 0, 0), high=(0.3, 0.15, 0.6), lambda_=2.3),
            Box(low=(0, 0.15, 0), high=(0.3, 0.25, 0.6), lambda_=0.035),
            Box(low=(0, 0.15, 0), high=(0.04, 0.153, 0.06), lambda_=lambda_),
            Box(low=(0, 0.15, 0), high=(0.0015, 0.28, 0.04), lambda_=lambda_),
        ),
        faces=(
            Face(low=(0, 0, 0), high=(0.3, 0, 0.6), env="in", R_s=0.13),
            Face(low=(0, 0.25, 0), high=(0.3, 0.25, 0.6), env="out", R_s=0.04),
            Face(low=(0.0015, 0.25, 0), high=(0.0015, 0.28, 0.04), env="out", R_s=0.04),
            Face(low=(0, 0.28, 0), high=(0.0015, 0.28, 0.04), env="out", R_s=0.0),
        ),
        temperatures={"in": 1.0, "out": 0.0},
    )


@pytest.mark.parametrize("lambda_", [0.035, 17.0, 160.0, 4000.0])
def test_it_agrees_with_multigrid(lambda_: float, monkeypatch: pytest.MonkeyPatch) -> None:
    model = bracket(lambda_)
    lines = first_lines(model)
    ours = solve_cells(model, lines)
    monkeypatch.setattr(solve_boxes, "layered", lambda network: None)
    theirs = solve_cells(model, lines)
    assert ours.theta == pytest.approx(theirs.theta, abs=1e-7)
    assert np.allclose(ours.G, theirs.G, rtol=1e-8)


def test_a_body_that_is_not_layered_is_left_to_multigrid(monkeypatch: pytest.MonkeyPatch) -> None:
    checks = tuple(
        Box(low=(0.1 * i, 0.1 * j, 0.1 * k), high=(0.1 * (i + 1), 0.1 * (j + 1), 0.1 * (k + 1)),
            lambda_=0.1 if (i + j + k) % 2 else 1.0)
        for i in range(3) for j in range(3) for k in range(3)
    )  # fmt: skip
    model = BoxModel(
        boxes=checks,
        faces=(Face(low=(0, 0, 0), high=(0.3, 0, 0.3), env="in", R_s=0.13),
               Face(low=(0, 0.3, 0), high=(0.3, 0.3, 0.3), env="out", R_s=0.04)),
        temperatures={"in": 1.0, "out": 0.0},
    )  # fmt: skip
    seen = []
    plain = solve_boxes._by_multigrid
    monkeypatch.setattr(solve_boxes, "_by_multigrid", lambda *args: seen.append(1) or plain(*args))
    found = solve_cells(model, first_lines(model))
    assert seen
    assert abs(found.G.sum()) < 1e-12
