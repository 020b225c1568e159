"""Laydown: figures of known quadrilaterals, and what is read on a racked one."""

from __future__ import annotations

import math

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.shop.laydown import Measured, check, laydown

RECTANGLE = [(0.0, 0.0), (1800.0, 0.0), (1800.0, 2400.0), (0.0, 2400.0)]


def test_a_rectangle() -> None:
    found = laydown(RECTANGLE)
    assert found.sides == (1800.0, 2400.0, 1800.0, 2400.0)
    assert found.diagonals == {(0, 2): 3000.0, (1, 3): 3000.0}
    assert found.angles == pytest.approx([90.0] * 4)
    assert found.area == 1800.0 * 2400.0


def test_angles_of_any_polygon_add_up_and_a_corner_may_turn_inwards() -> None:
    found = laydown([(0, 0), (3000, 0), (3000, 1000), (1000, 1000), (1000, 2000), (0, 2000)])
    assert sum(found.angles) == pytest.approx(4 * 180.0)
    assert found.angles[3] == pytest.approx(270.0)
    assert len(found.diagonals) == 9
    mirrored = laydown([(-x, y) for x, y in RECTANGLE])
    assert mirrored.area == laydown(RECTANGLE).area
    assert mirrored.angles == pytest.approx([90.0] * 4)


@pytest.mark.parametrize("lean", [-12.0, 0.0, 7.0])
def test_what_is_read_on_a_leaning_piece_says_which_way_it_leans(lean: float) -> None:
    """Sides as asked, the top pushed sideways: a parallelogram's diagonals are known."""
    height = math.sqrt(2400.0**2 - lean**2)
    d02, d13 = math.hypot(1800 + lean, height), math.hypot(1800 - lean, height)
    found = check(laydown(RECTANGLE), Measured(sides=(1800, 2400, 1800, 2400), diagonals=(d02, d13)))
    assert found.closure == pytest.approx(0.0, abs=1e-6)
    assert found.rack == pytest.approx((d02 - d13) / 2)
    assert math.copysign(1, found.rack) == math.copysign(1, lean) or lean == 0
    turned = math.degrees(math.asin(lean / 2400))
    assert found.off == pytest.approx([-turned, turned, -turned, turned], abs=1e-9)
    assert found.worst == pytest.approx(max(abs(d02 - 3000), abs(d13 - 3000)))


def test_a_wrongly_read_length_does_not_close() -> None:
    found = check(laydown(RECTANGLE), Measured(sides=(1800, 2400, 1800, 2400), diagonals=(3000, 3006)))
    assert found.closure == pytest.approx(6.0)
    assert found.worst == 6.0


@pytest.mark.parametrize(
    ("sides", "diagonals"),
    [((1800, 2400, 1800, 2400), (4300, 3000)), ((100, 2400, 1800, 2400), (2600, 3000))],
)
def test_lengths_that_are_no_triangle_are_refused(sides: tuple[float, ...], diagonals: tuple[float, float]) -> None:
    with pytest.raises(DomainError, match="no triangle"):
        check(laydown(RECTANGLE), Measured(sides=sides, diagonals=diagonals))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("outline", "said"),
    [([(0, 0), (0, 0), (1, 1)], "one"), ([(0, 0), (1, 1), (2, 2)], "no area")],
)
def test_no_polygon_is_refused(outline: list[tuple[float, float]], said: str) -> None:
    with pytest.raises(DomainError, match=said):
        laydown(outline)
