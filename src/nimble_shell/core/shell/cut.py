"""A building cut across: what a vertical plane through its largest body meets of its faces."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.shell.measured import MeasuredBuilding

FloatArray = NDArray[np.float64]
Segment = tuple[tuple[float, float], tuple[float, float]]


@dataclass(frozen=True, slots=True, kw_only=True)
class CutFace:
    """A face in the section; u runs to the right, z is the height. [m]"""

    element: str
    kind: str  #: wall, roof or floor
    to: str
    outer: Segment
    inner: Segment


@dataclass(frozen=True, slots=True, kw_only=True)
class BuildingSection:
    """What the plane meets."""

    faces: tuple[CutFace, ...]
    floors: tuple[float, ...]  #: heights of the floors between storeys [m]
    ground: float | None  #: of the body that is cut [m]
    width: float  #: outer [m]


def cut_across(building: MeasuredBuilding) -> BuildingSection:
    """The section square to the longest side of the largest body, a little off its middle.

    Notes
    -----
    Off the middle, so that it runs through no corner of a hip or a symmetric plan.
    """
    body = max(building.bodies, key=lambda one: _extent(one.outline))
    outline = np.array(body.outline)
    sides = np.roll(outline, -1, axis=0) - outline
    along = sides[int(np.argmax(np.hypot(*sides.T)))]
    along = along / np.hypot(*along)
    across = np.array([-along[1], along[0]])
    middle = outline.mean(axis=0) + 0.013 * along * np.ptp(outline @ along)
    found = building.shape.takeoff
    outer, inner = (found.placed[system].points for system in ("external", "overall_internal"))
    faces = []
    for face, ring in zip(found.body.faces, found.body.rings, strict=True):
        pair = [_cut(points[ring], middle, along, across) for points in (outer, inner)]
        if pair[0] is not None and pair[1] is not None:
            faces.append(CutFace(element=face.zone, kind=face.kind, to=face.to, outer=pair[0], inner=pair[1]))
    spread = [u for one in faces for u, _ in one.outer]
    return BuildingSection(faces=tuple(faces), floors=body.floors, ground=body.ground,
                           width=max(spread) - min(spread) if spread else 0.0)  # fmt: skip


def _extent(outline: tuple[tuple[float, float], ...]) -> float:
    return float(np.prod(np.ptp(np.array(outline), axis=0)))


def _cut(points: FloatArray, middle: FloatArray, along: FloatArray, across: FloatArray) -> Segment | None:
    """Where a ring of points in space passes the plane: its first and last crossing."""
    beyond = (points[:, :2] - middle) @ along
    met: list[tuple[float, float]] = []
    for at in range(len(points)):
        after = (at + 1) % len(points)
        if beyond[at] * beyond[after] < 0:
            share = beyond[at] / (beyond[at] - beyond[after])
            place = points[at] + share * (points[after] - points[at])
            met.append((float((place[:2] - middle) @ across), float(place[2])))
    if len(met) < 2:
        return None
    met.sort()
    return met[0], met[-1]
