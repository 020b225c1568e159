"""A piece laid down to be checked: true sides and diagonals, and how far it is out of square."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue

Corner = tuple[float, float]
FOUR = 4
NEAR = 1e-6


@dataclass(frozen=True, slots=True, kw_only=True)
class Measured:
    """Read with a tape on a quadrilateral. [mm]"""

    sides: tuple[float, float, float, float]  #: 0–1, 1–2, 2–3, 3–0
    diagonals: tuple[float, float]  #: 0–2, 1–3


@dataclass(frozen=True, slots=True, kw_only=True)
class Check:
    """What was read against what is asked for."""

    angles: tuple[float, float, float, float]  #: inside, from what was read [°]
    off: tuple[float, float, float, float]  #: read less asked [°]
    closure: float  #: of the diagonal 1–3, read less what follows from the other five [mm]
    rack: float  #: half of what the diagonals differ [mm]; positive: 0–2 is too long
    worst: float  #: greatest difference of the six [mm]


@dataclass(frozen=True, slots=True, kw_only=True)
class Laydown:
    """Of an outline, its corners anticlockwise or clockwise."""

    sides: tuple[float, ...]  #: corner i to i + 1 [mm]
    diagonals: dict[tuple[int, int], float]  #: every other pair [mm]
    angles: tuple[float, ...]  #: inside [°]
    area: float  #: [mm²]


def laydown(outline: Sequence[Corner]) -> Laydown:
    """Sides, diagonals, angles and area of a simple polygon.

    Raises
    ------
    DomainError
        If two corners are one, or the outline has no area.
    """
    n = len(outline)
    area = sum(_cross(outline[i], outline[(i + 1) % n]) for i in range(n)) / 2
    sides = tuple(math.dist(outline[i], outline[(i + 1) % n]) for i in range(n))
    for i, side in enumerate(sides):
        if side <= NEAR:
            raise _refused(("outline", i), "corner_twice", "two corners are one", "leave one of them out")
    if abs(area) <= NEAR:
        raise _refused(("outline",), "no_area", "the outline has no area", "give its corners in order")
    turn = math.copysign(1.0, area)
    angles = []
    for i in range(n):
        ax, ay = outline[i][0] - outline[i - 1][0], outline[i][1] - outline[i - 1][1]
        bx, by = outline[(i + 1) % n][0] - outline[i][0], outline[(i + 1) % n][1] - outline[i][1]
        angles.append(180.0 - turn * math.degrees(math.atan2(ax * by - ay * bx, ax * bx + ay * by)))
    diagonals = {
        (i, j): math.dist(outline[i], outline[j])
        for i, j in itertools.combinations(range(n), 2) if j - i not in (1, n - 1)
    }  # fmt: skip
    return Laydown(sides=sides, diagonals=diagonals, angles=tuple(angles), area=abs(area))


def measured_of(read: Sequence[float]) -> Measured:
    """Six readings as they are taken: four sides in order, then both diagonals. [mm]"""
    a, b, c, d, e, f = read
    return Measured(sides=(a, b, c, d), diagonals=(e, f))


def check(asked: Laydown, read: Measured) -> Check:
    """What was read on a quadrilateral.

    Raises
    ------
    DomainError
        If three of the lengths are no triangle.
    """
    s, (d02, d13) = read.sides, read.diagonals
    angles = (
        _angle(s[3], s[0], d13, "3–0–1"), _angle(s[0], s[1], d02, "0–1–2"),
        _angle(s[1], s[2], d13, "1–2–3"), _angle(s[2], s[3], d02, "2–3–0"),
    )  # fmt: skip
    off02, off13 = d02 - asked.diagonals[(0, 2)], d13 - asked.diagonals[(1, 3)]
    differences = [one - of for one, of in zip(s, asked.sides, strict=True)] + [off02, off13]
    a, b, c, d = (one - of for one, of in zip(angles, asked.angles, strict=True))
    return Check(angles=angles, off=(a, b, c, d), closure=d13 - _across(s, d02),
                 rack=(off02 - off13) / 2, worst=max(abs(one) for one in differences))  # fmt: skip


def _angle(a: float, b: float, opposite: float, name: str) -> float:
    """Between two sides. [°]"""
    if opposite > a + b + NEAR or opposite < abs(a - b) - NEAR:
        raise _refused(("measured",), "no_triangle", f"{a:g}, {b:g} and {opposite:g} at {name} are no triangle",
                       "read them again")  # fmt: skip
    cosine = (a * a + b * b - opposite * opposite) / (2 * a * b)
    return math.degrees(math.acos(max(-1.0, min(1.0, cosine))))


def _across(s: tuple[float, float, float, float], d02: float) -> float:
    """The diagonal 1–3 that four sides and 0–2 leave, its corners on both sides of 0–2."""

    def beside(near: float, far: float) -> tuple[float, float]:
        along = (near * near - far * far + d02 * d02) / (2 * d02)
        return along, math.sqrt(max(0.0, near * near - along * along))

    (x1, y1), (x3, y3) = beside(s[0], s[1]), beside(s[3], s[2])
    return math.hypot(x1 - x3, y1 + y3)


def _cross(a: Corner, b: Corner) -> float:
    return a[0] * b[1] - b[0] * a[1]


def _refused(path: tuple[str | int, ...], code: str, message: str, hint: str) -> DomainError:
    return DomainError(Issue(path=path, code=code, message=message, hint=hint))
