"""The plan, storeys and roof of a model, as far as they make one body: upright walls over one outline."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.building.roof import RoofForm
from nimble_shell.formats.reading.reading import ReadBody

FloatArray = NDArray[np.float64]
_LEVEL = 0.5  #: pitch of a roof that counts as flat [°]
_SAME = 2.0  #: by which pitches and bearings of one roof may differ [°]
_LEAST_STOREY = 1.5  #: [m]
_DIGITS = 4  #: of lengths in metres


@dataclass(frozen=True, slots=True)
class RoofPlate:
    """Upper face of a roof slab."""

    normal: FloatArray  #: upwards
    corners: FloatArray  #: (n, 2) in plan [m]

    @property
    def pitch(self) -> float:
        """[°]"""
        return math.degrees(math.acos(min(abs(float(self.normal[2])), 1.0)))


def body_of(
    outline: shapely.Polygon, walls: Sequence[tuple[float, float]], levels: Sequence[float],
    roofs: Sequence[RoofPlate], north: float,
) -> ReadBody | None:  # fmt: skip
    """The body that walls, storeys and roof make.

    Parameters
    ----------
    outline : Polygon
        What the building covers, in the model's plan. [m]
    walls : sequence of (low, high)
        Heights of the outer walls. [m]
    levels : sequence of float
        Heights of the storeys, rising. [m]
    roofs : sequence of RoofPlate
    north : float
        Of true north from the model's y axis, clockwise. [°]

    Returns
    -------
    ReadBody or None
        With the longest side of its plan along x and its lower left corner in the origin; None without walls.
    """
    if not walls:
        return None
    base = min(low for low, _ in walls)
    top = max(low for low, _ in walls)
    eaves = min(high for low, high in walls if low > top - _LEAST_STOREY)
    if eaves - base < _LEAST_STOREY:
        return None
    ring = np.array(shapely.orient_polygons(shapely.simplify(outline, 1e-3)).exterior.coords[:-1])
    turn = _turn(ring)
    turned = _rotated(ring, -turn)
    plan = np.round(turned - turned.min(axis=0), _DIGITS)
    plan = np.roll(plan, -int(np.lexsort((plan[:, 0], plan[:, 1]))[0]), axis=0)
    inner = [level for level in levels if base + _LEAST_STOREY <= level <= eaves - _LEAST_STOREY]
    heights = [base, *inner, eaves]
    form, pitch, towards, overhang = _roof(roofs, turn, turned)
    pitched = any(one.pitch > _LEVEL for one in roofs)
    return ReadBody(
        outline=tuple((float(x), float(y)) for x, y in plan), base=round(base, _DIGITS),
        storeys=tuple(round(b - a, _DIGITS) for a, b in pairwise(heights)), form=form,
        pitch=pitch, towards=towards, overhang=overhang, north=round((-turn - north) % 360, 4),
        roof_known=form != "flat" or not pitched,
    )  # fmt: skip


def _turn(ring: FloatArray) -> float:
    """Angle of the longest side from x, anticlockwise, brought to within 45°. [°]"""
    ways = np.roll(ring, -1, axis=0) - ring
    longest = ways[int(np.argmax(np.linalg.norm(ways, axis=1).round(3)))]
    return (math.degrees(math.atan2(longest[1], longest[0])) + 45) % 90 - 45


def _rotated(points: FloatArray, angle: float) -> FloatArray:
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    turned: FloatArray = points @ np.array([[c, s], [-s, c]])
    return turned


def _roof(roofs: Sequence[RoofPlate], turn: float, plan: FloatArray) -> tuple[RoofForm, float, float, float]:
    """Form, pitch [°], where it falls to in the turned plan [°], overhang [m]; flat where it is none of ours."""
    pitched = [one for one in roofs if one.pitch > _LEVEL]
    if not pitched:
        return "flat", 0.0, 180.0, 0.0
    pitch = pitched[0].pitch
    falls = sorted({round(_falls(one, turn)) % 360 for one in pitched})
    if max(abs(one.pitch - pitch) for one in pitched) > _SAME:
        return "flat", 0.0, 180.0, 0.0
    if len(falls) == 1:
        form: RoofForm = "one pitch"
    elif len(falls) == 2 and abs(falls[1] - falls[0] - 180) <= _SAME:
        form = "two pitches"
    elif len(falls) == 4:
        form = "hip"
    else:
        return "flat", 0.0, 180.0, 0.0
    towards = float(falls[0] if form == "one pitch" else falls[-1] if form == "two pitches" else 180)
    return form, round(pitch, 3), towards, _overhang(pitched, turn, plan, towards)


def _falls(one: RoofPlate, turn: float) -> float:
    """Azimuth from the turned plan's y axis, clockwise. [°]"""
    x, y = _rotated(one.normal[None, :2], -turn)[0]
    return math.degrees(math.atan2(x, y))


def _overhang(roofs: Sequence[RoofPlate], turn: float, plan: FloatArray, towards: float) -> float:
    """How far the roof reaches beyond the walls where it falls. [m]"""
    way = np.array([math.sin(math.radians(towards)), math.cos(math.radians(towards))])
    beyond = max(float((_rotated(one.corners, -turn) @ way).max()) for one in roofs) - float((plan @ way).max())
    return round(max(beyond, 0.0), 3)
