"""Models of boxes: closed forms, agreement with sections, and refusals."""

from __future__ import annotations

import math

import numpy as np
import pytest

from nimble_shell.core.conduction.boxes import Box, BoxModel, Face
from nimble_shell.core.conduction.solve_boxes import solve_boxes, solve_cells
from nimble_shell.core.errors import DomainError

NOWHERE = np.empty((0, 3))


def wall(*more: Box, temperatures: dict[str, float] | None = None) -> BoxModel:
    return BoxModel(
        boxes=(Box(low=(0, 0, 0), high=(0.4, 0.3, 0.2), lambda_=0.04), *more),
        faces=(
            Face(low=(0, 0, 0), high=(0.4, 0.3, 0), env="out", R_s=0.04),
            Face(low=(0, 0, 0.2), high=(0.4, 0.3, 0.2), env="in", R_s=0.13),
        ),
        temperatures=temperatures or {"out": 0.0, "in": 20.0},
    )


def test_a_plain_block_gives_its_resistance_and_straight_temperatures() -> None:
    found = solve_boxes(wall(), np.array([(0.1, 0.1, 0.0), (0.2, 0.29, 0.1), (0.4, 0.3, 0.2), (1.0, 0.0, 0.0)]))
    R = 0.04 + 5 + 0.13
    assert found.coupling[("out", "in")] == pytest.approx(0.12 / R, rel=1e-8)
    assert found.points[:3] == pytest.approx([20 * 0.04 / R, 20 * 2.54 / R, 20 * 5.04 / R], abs=1e-6)
    assert math.isnan(found.points[3])
    assert found.f_rsi == pytest.approx(1 - 0.13 / R, abs=1e-8)
    assert found.balance is not None
    assert found.balance < 1e-7


def test_a_rod_through_the_block_is_the_same_from_each_corner() -> None:
    def rod(x: float, y: float) -> float:
        bar = Box(low=(x, y, 0.0), high=(x + 0.01, y + 0.01, 0.2), lambda_=17.0)
        found = solve_boxes(wall(bar), NOWHERE, target=2e-3)
        assert found.estimated_error <= 2e-3
        value = found.coupling[("out", "in")]
        assert value is not None
        return value

    corners = [rod(x, y) for x in (0.0, 0.39) for y in (0.0, 0.29)]
    assert corners == pytest.approx([corners[0]] * 4, rel=1e-3)
    assert corners[0] > 0.12 / 5.17
    assert rod(0.195, 0.145) > corners[0]  # in the middle it draws from all sides


def test_three_environments_see_each_other_the_same_both_ways() -> None:
    model = BoxModel(
        boxes=(
            Box(low=(0, 0, 0), high=(0.4, 0.3, 0.2), lambda_=0.4),
            Box(low=(0.1, 0.1, 0), high=(0.2, 0.2, 0.2), lambda_=9),
        ),
        faces=(
            Face(low=(0, 0, 0), high=(0.4, 0.3, 0), env="out", R_s=0.04),
            Face(low=(0, 0, 0.2), high=(0.15, 0.3, 0.2), env="room", R_s=0.13),
            Face(low=(0.15, 0, 0.2), high=(0.4, 0.3, 0.2), env="stairs", R_s=0.0),
        ),
        temperatures={"out": 0.0, "room": 20.0, "stairs": 10.0},
    )
    lines = [np.linspace(0, top, n) for top, n in ((0.4, 17), (0.3, 13), (0.2, 9))]
    G = solve_cells(model, lines).G
    assert pytest.approx(G.T, abs=1e-8) == G
    assert G.sum(axis=1) == pytest.approx(0, abs=1e-8)


def test_a_void_passes_no_heat() -> None:
    hollow = solve_boxes(
        wall(Box(low=(0.1, 0.0, 0.05), high=(0.3, 0.3, 0.15), lambda_=None)), np.array([(0.2, 0.1, 0.1)])
    )
    assert math.isnan(hollow.points[0])
    coupling = hollow.coupling[("out", "in")]
    assert coupling is not None
    assert 0.06 / 5.17 < coupling < 0.12 / 5.17


def test_refinement_comes_from_below() -> None:
    bar = Box(low=(0.1, 0.1, 0.0), high=(0.11, 0.11, 0.15), lambda_=50.0)
    found = []
    for n in (1, 2, 4):
        lines = [
            np.unique(np.r_[np.linspace(0, 0.4, 20 * n + 1), 0.11]),
            np.unique(np.r_[np.linspace(0, 0.3, 15 * n + 1), 0.11]),
            np.linspace(0, 0.2, 4 * n + 1),
        ]
        found.append(-solve_cells(wall(bar), lines).G[0, 1])
    assert found[0] < found[1] < found[2]
    assert found[2] - found[1] < found[1] - found[0]


def block(**change: object) -> BoxModel:
    given: dict[str, object] = {
        "boxes": (Box(low=(0, 0, 0), high=(1, 1, 1), lambda_=1.0),),
        "faces": (Face(low=(0, 0, 0), high=(1, 1, 0), env="a", R_s=0.1),),
        "temperatures": {"a": 1.0},
    }
    return BoxModel(**(given | change))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("code", "change"),
    [
        ("nothing_solid", {"boxes": (Box(low=(0, 0, 0), high=(1, 1, 1), lambda_=None),)}),
        ("conductivity_not_positive", {"boxes": (Box(low=(0, 0, 0), high=(1, 1, 1), lambda_=-0.1),)}),
        ("region_without_size", {"boxes": (Box(low=(0, 0, 0), high=(1, 1, 0), lambda_=1.0),)}),
        ("face_not_parallel", {"faces": (Face(low=(0, 0, 0), high=(1, 1, 1), env="a", R_s=0.1),)}),
        ("film_out_of_range", {"faces": (Face(low=(0, 0, 0), high=(1, 1, 0), env="a", R_s=-1),)}),
        ("no_boundaries", {"faces": ()}),
        ("environment_meets_nothing", {"faces": (Face(low=(0, 0, 3), high=(1, 1, 3), env="a", R_s=0.1),)}),
        ("part_without_environment", {"boxes": tuple(Box(low=(0, 0, z), high=(1, 1, z + 1), lambda_=1.0) for z in (0, 3))}),
        ("nothing_solid", {"boxes": tuple(Box(low=(0, 0, 0), high=(1, 1, 1), lambda_=value) for value in (1.0, None))}),
        ("too_many_cells", {"boxes": tuple(Box(low=(x, x, x), high=(1, 1, 1), lambda_=1.0) for x in np.arange(0, 0.9, 0.009))}),
    ],
)  # fmt: skip
def test_what_cannot_be_solved_is_refused_by_name(code: str, change: dict[str, object]) -> None:
    with pytest.raises(DomainError) as refused:
        solve_boxes(block(**change), NOWHERE)
    assert code in {issue.code for issue in refused.value.issues}
