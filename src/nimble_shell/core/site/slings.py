"""Slings from picks to a hook over the centre of gravity: lengths, angles, pulls. Lengths in mm, forces in N."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.site.weight import Place

Floats = NDArray[np.float64]
TWO, FOUR = 2, 4  #: picks
_NEAR = 1e-9


@dataclass(frozen=True, slots=True, kw_only=True)
class Slung:
    """A panel as it hangs, leg by leg."""

    legs: tuple[float, ...]  #: lengths
    angles: tuple[float, ...]  #: to the horizontal [°]
    tension: tuple[float, ...]
    tension_max: tuple[float | None, ...]


def hung(place: Sequence[float], pitch: float) -> Floats:
    """A place of the panel in the world while it hangs at a pitch; Z is up. [°]"""
    x, y, z = place
    phi = math.radians(pitch)
    return np.array([x, y * math.cos(phi) - z * math.sin(phi), y * math.sin(phi) + z * math.cos(phi)])


def slung(
    picks: Sequence[Place], centre: Place, pitch: float, load: float, *, height: float | None, angle: float | None
) -> Slung:
    """Legs to a hook on the vertical through the centre of gravity.

    Parameters
    ----------
    height : float, optional
        Of the hook above the highest pick; or else
    angle : float, optional
        That the flattest leg makes with the horizontal. [°]

    Raises
    ------
    DomainError
        If the picks lie so that no pull can hold the load.
    """
    places = [hung(one, pitch) for one in picks]
    over = hung(centre, pitch)
    flat = [float(np.hypot(*(one[:2] - over[:2]))) for one in places]
    top = max(float(one[2]) for one in places)
    if height is not None:
        hook = top + height
    else:
        rise = math.tan(math.radians(angle or 0.0))
        hook = max(float(one[2]) + far * rise for one, far in zip(places, flat, strict=True))
    legs = [np.array([*over[:2], hook]) - one for one in places]
    lengths = [float(np.linalg.norm(one)) for one in legs]
    if min(lengths) <= _NEAR or hook <= top + _NEAR:
        raise _cannot("the hook is no higher than a pick")
    ways = [leg / length for leg, length in zip(legs, lengths, strict=True)]
    pulls = _two(ways, places, load) if len(picks) == TWO else _four(ways, load)
    most: tuple[float | None, ...] = pulls if len(picks) == TWO else _most(ways, load)
    angles = tuple(math.degrees(math.atan2(leg[2], far)) for leg, far in zip(legs, flat, strict=True))
    return Slung(legs=tuple(lengths), angles=angles, tension=pulls, tension_max=most)


def _two(ways: Sequence[Floats], places: Sequence[Floats], load: float) -> tuple[float, ...]:
    """Upright, and along the line of the picks."""
    along = (places[1] - places[0])[:2]
    far = float(np.linalg.norm(along))
    if far <= _NEAR:
        raise _cannot("both picks lie over one another")
    along = along / far
    matrix = np.array([[one[2] for one in ways], [float(one[:2] @ along) for one in ways]])
    if abs(float(np.linalg.det(matrix))) <= _NEAR:
        raise _cannot("both legs pull the same way")
    first, second = np.linalg.solve(matrix, np.array([load, 0.0]))
    return float(first), float(second)


def _four(ways: Sequence[Floats], load: float) -> tuple[float, ...]:
    """Of all pulls that hold the load, the least by the sum of their squares."""
    matrix, wanted = np.array(ways).T, np.array([0.0, 0.0, load])
    found = np.linalg.lstsq(matrix, wanted, rcond=None)[0]
    if not _holds(matrix, found, wanted, load):
        raise _cannot("the legs cannot hold the load level")
    return tuple(float(one) for one in found)


def _most(ways: Sequence[Floats], load: float) -> tuple[float | None, ...]:
    """Of each leg its greatest pull over all states with at most three pulling legs and none pushing."""
    wanted, most = np.array([0.0, 0.0, load]), [None] * len(ways)
    found: list[float | None] = list(most)
    for count in (1, 2, 3):
        for some in combinations(range(len(ways)), count):
            matrix = np.array([ways[one] for one in some]).T
            if np.linalg.matrix_rank(matrix, tol=_NEAR) < count:
                continue
            pulls = np.linalg.lstsq(matrix, wanted, rcond=None)[0]
            if pulls.min() < -1e-9 * load or not _holds(matrix, pulls, wanted, load):
                continue
            for n in range(len(ways)):
                pull = float(pulls[some.index(n)]) if n in some else 0.0
                found[n] = max(found[n] or 0.0, pull)
    return tuple(found)


def _holds(matrix: Floats, pulls: Floats, wanted: Floats, load: float) -> bool:
    return bool(np.abs(matrix @ pulls - wanted).max() <= 1e-7 * load)


def _cannot(why: str) -> DomainError:
    return DomainError(Issue(path=("picks",), code="cannot_hang", message=why, hint="other picks, or a higher hook"))
