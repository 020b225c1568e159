"""Bodies for tests: a prism over any plan, a house with two pitches, a hip; and the same turned, mirrored or scaled."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise

import numpy as np

from nimble_shell.core.geometry.face import Beyond, Face, Opening
from nimble_shell.core.geometry.moved import Placed

Plan = Sequence[tuple[float, float]]

L_PLAN: Plan = ((0, 0), (9, 0), (9, 5), (4, 5), (4, 8), (0, 8))
U_PLAN: Plan = ((0, 0), (12, 0), (12, 7), (8, 7), (8, 3), (4, 3), (4, 7), (0, 7))
SKEW_PLAN: Plan = ((0, 0), (8, 1), (10, 6), (3, 7.5))


def wall(
    name: str, p: tuple[float, float], q: tuple[float, float], outline: Plan, thickness: float = 0.3, **more: object
) -> Face:
    """The wall from p to q, anticlockwise round the plan."""
    azimuth = math.degrees(math.atan2(q[1] - p[1], p[0] - q[0]))
    return Face(
        id=name, kind="wall", at=(*p, 0.0), azimuth=azimuth, outline=tuple(outline), thickness=thickness, **more
    )  # type: ignore[arg-type]  # as the caller names them


def prism(plan: Plan, low: float = 0.0, high: float = 3.0, to: Beyond = "outside") -> list[Face]:
    """A plan, upright."""
    found = []
    for n, (p, q) in enumerate(pairwise([*plan, plan[0]])):
        length = math.dist(p, q)
        outline = [(0.0, low), (length, low), (length, high), (0.0, high)]
        found.append(wall(f"w{n}", p, q, outline, to=to))
    floor = Face(id="floor", kind="floor", at=(0, 0, low), outline=tuple(plan), thickness=0.25, to="ground")
    roof = Face(id="roof", kind="roof", at=(*plan[0], high), outline=tuple(plan), thickness=0.35)
    return [*found, floor, roof]


def gable(long: float, wide: float, eaves: float, pitch: float, thickness: float = 0.3) -> list[Face]:
    """Two pitches that meet in a ridge along x."""
    rise = wide / 2 * math.tan(math.radians(pitch))
    corners = [(0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)]
    side = [(0.0, 0.0), (long, 0.0), (long, eaves), (0.0, eaves)]
    end = [(0.0, 0.0), (wide, 0.0), (wide, eaves), (wide / 2, eaves + rise), (0.0, eaves)]
    walls = [
        wall("SENW"[n], corners[n], corners[(n + 1) % 4], side if n % 2 == 0 else end, thickness) for n in range(4)
    ]
    half = wide / 2
    return [
        *walls,
        Face(id="floor", kind="floor", outline=tuple(corners), thickness=0.25, to="ground"),
        Face(id="RS", kind="roof", at=(0, 0, eaves), pitch=pitch, azimuth=180, thickness=0.35,
             outline=((0, 0), (long, 0), (long, half), (0, half))),
        Face(id="RN", kind="roof", at=(0, wide, eaves), pitch=pitch, azimuth=0, thickness=0.35,
             outline=((0, half), (long, half), (long, wide), (0, wide))),
    ]  # fmt: skip


def hip(long: float, wide: float, eaves: float, pitch: float) -> list[Face]:
    """Four equal pitches; the ridge is long minus wide."""
    half = wide / 2
    corners = [(0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)]
    a, b = (half, half), (long - half, half)
    walls = [one for one in prism(corners, 0.0, eaves) if one.kind != "roof"]
    planes = [(180.0, (corners[0], corners[1], b, a)), (90.0, (corners[1], corners[2], b)),
              (0.0, (corners[2], corners[3], a, b)), (270.0, (corners[3], corners[0], a))]  # fmt: skip
    return [*walls, *(Face(id=f"R{azimuth:.0f}", kind="roof", at=(*outline[0], eaves), pitch=pitch, azimuth=azimuth,
                           outline=outline, thickness=0.35) for azimuth, outline in planes)]  # fmt: skip


def turned(faces: Sequence[Face], by: float, east: float = 0.0, north: float = 0.0, up: float = 0.0) -> list[Face]:
    """The same, turned anticlockwise [°] and carried away [m]."""
    c, s = math.cos(math.radians(by)), math.sin(math.radians(by))

    def place(x: float, y: float) -> tuple[float, float]:
        return c * x - s * y + east, s * x + c * y + north

    def one(face: Face) -> Face:
        x, y, z = face.at
        height = z + up if face.kind != "wall" else z
        if face.kind == "wall":
            outline = [(u, v + up) for u, v in face.outline]
            openings = tuple(replace(each, v=each.v + up) for each in face.openings)
        else:
            outline, openings = [place(*each) for each in face.outline], face.openings
        return replace(
            face, at=(*place(x, y), height), azimuth=face.azimuth - by, outline=tuple(outline), openings=openings
        )

    return [one(face) for face in faces]


def mirrored(faces: Sequence[Face]) -> list[Face]:
    """As a mirror to the east shows it."""

    def one(face: Face) -> Face:
        x, y, z = face.at
        openings = tuple(replace(each, u=-each.u - each.w) for each in face.openings)
        outline = tuple((-u, v) for u, v in face.outline)
        return replace(face, at=(-x, y, z), azimuth=-face.azimuth, outline=outline, openings=openings)

    return [one(face) for face in faces]


def scaled(faces: Sequence[Face], k: float) -> list[Face]:
    """Every length k times as long."""

    def opening(one: Opening) -> Opening:
        return replace(one, u=k * one.u, v=k * one.v, w=k * one.w, h=k * one.h)

    return [replace(one, at=tuple(k * x for x in one.at), outline=tuple((k * u, k * v) for u, v in one.outline),
                    thickness=k * one.thickness, openings=tuple(opening(each) for each in one.openings))
            for one in faces]  # fmt: skip


def by_its_planes(placed: Placed) -> list[Face]:
    """The faces of a moved body, as if they had been measured there."""
    found = []
    for face, flat, ring, offset in zip(placed.body.faces, placed.flats, placed.body.rings, placed.offset, strict=True):
        at = np.array(face.at) + offset * face.axes[2]
        outline = flat if face.kind == "wall" else placed.points[ring][:, :2]
        found.append(replace(face, at=tuple(at.tolist()), outline=tuple((float(u), float(v)) for u, v in outline)))
    return found
