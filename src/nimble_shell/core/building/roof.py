"""Roofs over a footprint: flat, of one pitch, of two, or hipped; each plane with its outline in plan."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
import shapely

from nimble_shell.core.building.footprint import FloatArray, Outline, inward, is_convex, is_square
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.quantities.sentence import sentence

RoofForm = Literal["flat", "one pitch", "two pitches", "hip"]
LEAST_PITCH, MOST_PITCH = 1.0, 75.0  #: of a pitched roof [°]
MOST_OVERHANG, MOST_PARAPET = 4.0, 3.0  #: [m]
_FAR = 1e4  #: beyond any building [m]
_SAME = 1e-9  #: of heights [m]
_STRAIGHT = 1e-5  #: how far a point may lie off a line and be none of its corners [m]
_GRID = 1e-6  #: to which crossings of lines are rounded [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Roof:
    """A roof as it is drawn.

    One pitch falls towards its azimuth. Two pitches fall towards it and away from it, from a ridge through the middle
    of the plan. A hip falls to every side. Eaves are the lowest place of it, on the footprint.
    """

    form: RoofForm = "flat"
    pitch: float = 0.0  #: [°]
    towards: float = 180.0  #: azimuth that it falls to, from the plan's y axis, clockwise [°]
    overhang: float = 0.0  #: beyond the walls at eaves and verges; drawn, and none of the heated volume [m]
    parapet: float = 0.0  #: of a flat roof: how far the walls go on above it [m]

    def __post_init__(self) -> None:
        check = Collector()
        for name, size, most in (("overhang", self.overhang, MOST_OVERHANG), ("parapet", self.parapet, MOST_PARAPET)):
            check.check(0 <= size <= most, (name,), f"{name}_out_of_range",
                        sentence(f"{name} is {{v}}", v=(size, "length")),
                        sentence("0 to {v}", v=(most, "length")))  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class RoofPlane:
    """One plane of a roof: its height above the eaves is (place − `at`)·`inward`·tan pitch."""

    pitch: float  #: [°]
    azimuth: float  #: that it falls to [°]
    at: tuple[float, float]  #: a place on it that is as high as the eaves [m]
    outline: Outline  #: in plan [m]

    def height(self, places: FloatArray) -> FloatArray:
        """Above the eaves at places in plan, (n, 2). [m]"""
        a = math.radians(self.azimuth)
        away = places - np.array(self.at)
        up: FloatArray = -(away @ np.array([math.sin(a), math.cos(a)])) * math.tan(math.radians(self.pitch))
        return up


def pitch_of(outline: Outline, roof: Roof, rise: float) -> float:
    """The pitch with which a roof rises so far from eaves to ridge. [°]

    Parameters
    ----------
    outline : Outline
    roof : Roof
        Its form and direction.
    rise : float
        [m]
    """
    run = run_of(outline, roof)
    return math.degrees(math.atan2(rise, run)) if run > 0 else 0.0


def rise_of(outline: Outline, roof: Roof) -> float:
    """How far a roof rises from eaves to ridge. [m]"""
    return run_of(outline, roof) * math.tan(math.radians(roof.pitch))


def run_of(outline: Outline, roof: Roof) -> float:
    """In plan from the eaves to the highest place, whatever the pitch; 0 of a flat roof. [m]"""
    if roof.form == "flat":
        return 0.0
    if roof.form == "hip":
        corners = np.concatenate([np.array(one) for one, _ in _hips(outline)])
        return float(_from_sides(outline, corners).max())
    along = np.array(outline) @ _fall(roof.towards)
    run = float(along.max() - along.min())
    return run if roof.form == "one pitch" else run / 2


@lru_cache(1024)
def planes(outline: Outline, roof: Roof) -> tuple[RoofPlane, ...]:
    """The planes of a roof over a footprint; together they cover it.

    Raises
    ------
    DomainError
        If the pitch is none of a roof, or if a hip has no rule over this plan.
    """
    check = Collector()
    check.check(roof.form == "flat" or LEAST_PITCH <= roof.pitch <= MOST_PITCH, ("roof", "pitch"), "pitch_out_of_range",
                f"a pitch of {roof.pitch:g}°", f"{LEAST_PITCH:g} to {MOST_PITCH:g}°, or a flat roof")  # fmt: skip
    check.refuse()
    if roof.form == "flat":
        return (RoofPlane(pitch=0.0, azimuth=roof.towards, at=outline[0], outline=outline),)
    if roof.form == "hip":
        normals, _ = inward(outline)
        return tuple(RoofPlane(pitch=roof.pitch, azimuth=_azimuth(-normals[side]), at=outline[side], outline=one)
                     for one, side in _hips(outline))  # fmt: skip
    fall = _fall(roof.towards)
    along = np.array(outline) @ fall
    low, high = outline[int(along.argmax())], outline[int(along.argmin())]
    if roof.form == "one pitch":
        return (RoofPlane(pitch=roof.pitch, azimuth=roof.towards, at=low, outline=outline),)
    ridge = float(along.max() + along.min()) / 2
    one = RoofPlane(pitch=roof.pitch, azimuth=roof.towards, at=low, outline=())
    other = RoofPlane(pitch=roof.pitch, azimuth=(roof.towards + 180) % 360, at=high, outline=())
    return (*_half(outline, fall, ridge, one), *_half(outline, -fall, -ridge, other))


def _half(outline: Outline, fall: FloatArray, ridge: float, plane: RoofPlane) -> list[RoofPlane]:
    """What of the plan lies on the lower side of a ridge: of an angled plan more than one piece."""
    across = np.array([-fall[1], fall[0]])
    corners = [ridge * fall - _FAR * across, ridge * fall + _FAR * across]
    box = shapely.Polygon([*corners, corners[1] + _FAR * fall, corners[0] + _FAR * fall])
    parts = shapely.get_parts(shapely.intersection(shapely.Polygon(outline), box))
    return [RoofPlane(pitch=plane.pitch, azimuth=plane.azimuth, at=plane.at, outline=_ring(one))
            for one in parts if one.area > _SAME]  # fmt: skip


def _hips(outline: Outline) -> list[tuple[Outline, int]]:
    """Outlines in plan of the planes of a hip of one pitch, each with the side that it rises from.

    Notes
    -----
    The plan is cut along every line on which two sides are equally far; of each cell one side is nearest. Near is by
    right angles over a plan without re-entrant corners, and by the larger of both distances along its sides over a
    plan whose corners are all square: there the mitred offset of the plan is that distance.
    """
    if not (is_convex(outline) or is_square(outline)):
        hint = "square corners, none that is re-entrant, several bodies, or faces of their own"
        raise DomainError(Issue(path=("roof", "form"), code="no_hip", hint=hint,
                                message="over this plan a hip has no rule yet"))  # fmt: skip
    plan = shapely.Polygon(outline)
    lines = shapely.union_all([plan.exterior, *_bisectors(outline)], grid_size=_GRID)
    cells = shapely.get_parts(shapely.polygonize([lines]))
    cells = [one for one in cells if plan.contains(one.representative_point())]
    middles = np.array([one.representative_point().coords[0] for one in cells])
    nearest = _nearest(outline, middles)
    found = []
    for side in range(len(outline)):
        whole = shapely.union_all([one for one, of in zip(cells, nearest, strict=True) if of == side], grid_size=_GRID)
        found += [(_ring(one), side) for one in shapely.get_parts(whole) if one.area > _SAME]
    return found


def _bisectors(outline: Outline) -> list[shapely.LineString]:
    """Lines in plan on which two sides are equally far, as long as any building."""
    normals, offsets = inward(outline)
    found = []
    for i in range(len(outline)):
        for j in range(i):
            across = normals[i] - normals[j]
            size = float(np.linalg.norm(across))
            if size > _SAME:
                middle = across / size**2 * (offsets[i] - offsets[j])
                way = np.array([-across[1], across[0]]) / size * _FAR
                found.append(shapely.LineString([middle - way, middle + way]))
    return found


def _from_sides(outline: Outline, places: FloatArray) -> FloatArray:
    """How far places are from the nearest side, by the measure of a hip: (n,). [m]"""
    least: FloatArray = _apart(outline, places).min(axis=1)
    return least


def _nearest(outline: Outline, places: FloatArray) -> FloatArray:
    """The side that a place of a hip rises from: of those that are equally far the one that it is right above."""
    apart = _apart(outline, places)
    normals, offsets = inward(outline)
    straight = np.abs(places @ normals.T - offsets - apart)
    among = np.where(apart <= apart.min(axis=1)[:, None] + 1e-7, straight, np.inf)
    nearest: FloatArray = among.argmin(axis=1)
    return nearest


def _apart(outline: Outline, places: FloatArray) -> FloatArray:
    """How far places are from each side: (n, sides). [m]"""
    normals, offsets = inward(outline)
    straight = places @ normals.T - offsets
    if is_convex(outline):
        return straight
    a = np.array(outline)
    along = np.column_stack([normals[:, 1], -normals[:, 0]])
    t = places @ along.T - (a * along).sum(axis=1)
    length = np.linalg.norm(np.roll(a, -1, axis=0) - a, axis=1)
    beyond = np.maximum(np.maximum(-t, t - length), 0.0)
    apart: FloatArray = np.maximum(np.abs(straight), beyond)
    return apart


def _fall(azimuth: float) -> FloatArray:
    a = math.radians(azimuth)
    return np.array([math.sin(a), math.cos(a)])


def _azimuth(normal: FloatArray) -> float:
    return math.degrees(math.atan2(normal[0], normal[1])) % 360


def _ring(polygon: shapely.Polygon) -> Outline:
    """Corners of a polygon without those on a straight line."""
    points = shapely.get_coordinates(shapely.orient_polygons(shapely.simplify(polygon, _STRAIGHT)).exterior)[:-1]
    chord = np.roll(points, -1, axis=0) - np.roll(points, 1, axis=0)
    away = points - np.roll(points, 1, axis=0)
    off = np.abs(chord[:, 0] * away[:, 1] - chord[:, 1] * away[:, 0]) / np.linalg.norm(chord, axis=1)
    return tuple((float(x), float(y)) for x, y in points[off > _STRAIGHT])
