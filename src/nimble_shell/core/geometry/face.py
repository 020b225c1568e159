"""One plane side of a heated volume: a wall, a floor or a roof, with its openings."""

from __future__ import annotations

import math
from collections.abc import Sequence
from copy import copy
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
import shapely
from numpy.typing import NDArray

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

FloatArray = NDArray[np.float64]
FaceKind = Literal["wall", "floor", "roof"]
Beyond = Literal["outside", "ground", "heated", "unheated"]
OpeningKind = Literal["window", "door"]

MEET = 2e-3  #: how near points have to be to be one [m]
_LEAST_EDGE = 1e-4  #: [m]
_LEAST_AREA = 1e-6  #: of what two openings may share [m²]


@dataclass(frozen=True, slots=True, kw_only=True)
class Opening:
    """A rectangle in a face, from its lower left corner as seen from outside."""

    id: str
    u: float  #: along the face [m]
    v: float  #: up the face; of a wall its height in space [m]
    w: float  #: [m]
    h: float  #: [m]
    kind: OpeningKind = "window"


@dataclass(frozen=True, kw_only=True)
class Face:
    """A plane side of the heated volume.

    A wall stands upright through `at`; its outline is (u, z), u to the right as seen from outside, z in space. A floor
    is level at `at`, its outline is in plan, it faces down. A roof falls from `at` towards its azimuth by its pitch;
    its outline is in plan.
    """

    id: str
    kind: FaceKind
    outline: tuple[tuple[float, float], ...]  #: either way round [m]
    at: tuple[float, float, float] = (0.0, 0.0, 0.0)  #: [m]
    azimuth: float = 180.0  #: of the outward normal, from north, clockwise [°]
    pitch: float = 0.0  #: of a roof [°]
    thickness: float = 0.0  #: at right angles to it [m]
    to: Beyond = "outside"
    openings: tuple[Opening, ...] = ()
    beyond_line: float = 0.0  #: of its thickness what lies outside of the structure, where it is drawn to that [m]
    zone: str = ""  #: what it is counted with, in words of who made it

    def __post_init__(self) -> None:
        check = Collector()
        self._checked_outline(check)
        self._checked_numbers(check)
        check.refuse()
        self._checked_openings(check)
        check.refuse()

    @cached_property
    def axes(self) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Unit vectors to the right and up the face as seen from outside, and outward: each (3,)."""
        a, p = math.radians(self.azimuth), math.radians(self.pitch)
        right = np.array([-math.cos(a), math.sin(a), 0.0])
        if self.kind == "wall":
            up = np.array([0.0, 0.0, 1.0])
        elif self.kind == "floor":
            right, up = np.array([1.0, 0.0, 0.0]), np.array([0.0, -1.0, 0.0])
        else:
            up = np.array([-math.sin(a) * math.cos(p), -math.cos(a) * math.cos(p), math.sin(p)])
        (a, b, c), (d, e, f) = right, up
        return right, up, np.array([b * f - c * e, c * d - a * f, a * e - b * d])

    @cached_property
    def origin(self) -> FloatArray:
        """Where u and v are nought: (3,). [m]"""
        x, y, z = self.at
        return np.array([x, y, 0.0] if self.kind == "wall" else [0.0, 0.0, z] if self.kind == "floor" else [x, y, z])

    @cached_property
    def flat(self) -> FloatArray:
        """The outline in the face's own plane, anticlockwise as seen from outside: (corners, 2). [m]"""
        given = np.array(self.outline, dtype=float)
        if self.kind == "floor":
            given = given * (1.0, -1.0)
        elif self.kind == "roof":
            a = math.radians(self.azimuth)
            away = given - self.origin[:2]
            rise = -(away[:, 0] * math.sin(a) + away[:, 1] * math.cos(a)) / math.cos(math.radians(self.pitch))
            given = np.column_stack([away[:, 1] * math.sin(a) - away[:, 0] * math.cos(a), rise])
        return given if signed_area(given) > 0 else given[::-1]

    @cached_property
    def corners(self) -> FloatArray:
        """The same in space: (corners, 3). [m]"""
        right, up, _ = self.axes
        flat = self.flat
        corners: FloatArray = self.origin + flat[:, :1] * right + flat[:, 1:] * up
        return corners

    def of_thickness(self, thickness: float, beyond_line: float = 0.0) -> Face:
        """The same side of another thickness: its outline was checked, and what follows from it is shared.

        Raises
        ------
        DomainError
            Below nought. [m]
        """
        _ = self.corners  # from here on all of them have the same ones
        made = copy(self)
        vars(made).update(thickness=thickness, beyond_line=beyond_line)
        check = Collector()
        made._checked_numbers(check)
        check.refuse()
        return made

    def _checked_outline(self, check: Collector) -> None:
        path = ("outline",)
        given = np.array(self.outline, dtype=float).reshape(-1, 2)
        check.check(
            len(given) >= 3, path, "too_few_corners", f"an outline of {len(given)} corners is no face", "3 or more"
        )
        if check.issues:
            return
        edges = np.hypot(*np.diff(given, axis=0, append=given[:1]).T)
        short = int(np.argmin(edges))
        check.check(edges[short] >= _LEAST_EDGE, path, "zero_edge",
                    f"corners {short} and {(short + 1) % len(given)} of “{self.id}” are one",
                    "leave one of them out")  # fmt: skip
        simple = edges[short] < _LEAST_EDGE or _is_simple(given)
        check.check(bool(simple), path, "outline_crosses", f"the outline of “{self.id}” crosses or touches itself",
                    "give its corners in order; parts that only touch are faces of their own")  # fmt: skip

    def _checked_numbers(self, check: Collector) -> None:
        if self.thickness < 0:  # no sentence is made for each face that is good
            check.check(False, ("thickness",), "thickness_negative",
                        sentence("thickness is {v}", v=(self.thickness, "length")), "0 or more")  # fmt: skip
        check.check(
            0 <= self.pitch < 90, ("pitch",), "pitch_out_of_range", f"pitch is {self.pitch:g}°", "0 to below 90°"
        )

    def _checked_openings(self, check: Collector) -> None:
        seen: set[str] = set()
        boxes = np.array([(one.u, one.v, one.u + one.w, one.v + one.h) for one in self.openings]).reshape(-1, 4)
        if not len(boxes):
            return
        inside = _inside(self.flat, boxes)
        shared = _shared(boxes[:, None], boxes[None])
        for n, one in enumerate(self.openings):
            path = ("openings", n)
            check.check(one.id not in seen, path, "id_twice", f"there are two openings “{one.id}”", "rename one")
            seen.add(one.id)
            check.check(
                one.w > 0 and one.h > 0, path, "size_not_positive", f"the opening “{one.id}” has no size", "above 0"
            )
            check.check(bool(inside[n]), path, "opening_outside", f"the opening “{one.id}” leaves its face “{self.id}”",
                        "move it, or make it smaller")  # fmt: skip
            over = shared[n, :n] > _LEAST_AREA
            other = self.openings[int(np.argmax(over))].id if over.any() else ""
            check.check(not over.any(), path, "openings_overlap", f"the openings “{one.id}” and “{other}” overlap",
                        "move one of them")  # fmt: skip


def signed_area(points: FloatArray) -> float:
    """Of a polygon, (corners, 2); above nought where it runs anticlockwise. [m²]"""
    x, y = points.T
    round_, last = float(x[:-1] @ y[1:] - y[:-1] @ x[1:]), float(x[-1] * y[0] - y[-1] * x[0])
    return 0.5 * (round_ + last)


def _turns(points: FloatArray) -> FloatArray:
    """At each corner twice the area of the triangle with its neighbours; above nought to the left. [m²]"""
    ahead = np.diff(points, axis=0, append=points[:1])
    behind = ahead[np.arange(-1, len(ahead) - 1)]
    turns: FloatArray = behind[:, 0] * ahead[:, 1] - behind[:, 1] * ahead[:, 0]
    return turns


def _is_simple(outline: FloatArray) -> bool:
    """Whether it neither crosses nor touches itself: four corners that all turn one way go round once."""
    if len(outline) == 4:
        turns = _turns(outline)
        if (turns > _LEAST_AREA).all() or (turns < -_LEAST_AREA).all():
            return True
    return bool(shapely.is_valid(shapely.Polygon(outline)))


def _inside(flat: FloatArray, boxes: FloatArray) -> NDArray[np.bool_]:
    """Which rectangles (u, v, u, v) lie in an outline that runs anticlockwise."""
    if (_turns(flat) >= 0).all():  # no corner of them is beyond any of its sides
        ahead = np.diff(flat, axis=0, append=flat[:1])
        out = np.column_stack([ahead[:, 1], -ahead[:, 0]]) / np.hypot(*ahead.T)[:, None]
        corners = boxes[:, [[0, 1], [2, 1], [2, 3], [0, 3]]]
        inside: NDArray[np.bool_] = (corners @ out.T - (flat * out).sum(axis=1)).max(axis=(1, 2)) <= _LEAST_EDGE
        return inside
    found: NDArray[np.bool_] = shapely.covers(shapely.Polygon(flat).buffer(_LEAST_EDGE), shapely.box(*boxes.T))
    return found


def _shared(one: FloatArray, other: FloatArray) -> FloatArray:
    """Area that rectangles (…, u, v, u, v) share."""
    wide = np.minimum(one[..., 2], other[..., 2]) - np.maximum(one[..., 0], other[..., 0])
    high = np.minimum(one[..., 3], other[..., 3]) - np.maximum(one[..., 1], other[..., 1])
    area: FloatArray = np.maximum(wide, 0) * np.maximum(high, 0)
    return area


def level_length(flat: FloatArray, v: float) -> float:
    """How long a level line is inside of an outline, (corners, 2); none at its bottom or top. [m]"""
    corners = flat.tolist()  # few: numbers one by one are quicker than arrays of four
    heights = [y for _, y in corners]
    if not min(heights) + MEET < v < max(heights) - MEET:
        return 0.0
    at = sorted(
        x + (v - y) / (y1 - y) * (x1 - x)
        for (x, y), (x1, y1) in zip(corners, [*corners[1:], corners[0]], strict=True)
        if (y <= v) != (y1 <= v)
    )
    return float(sum(end - start for start, end in zip(at[::2], at[1::2], strict=True)))


def ids_once(faces: Sequence[Face]) -> None:
    """Refuse two faces of one id. Raises DomainError."""
    check, seen = Collector(), set[str]()
    for n, one in enumerate(faces):
        check.check(one.id not in seen, (n,), "id_twice", f"there are two faces “{one.id}”", "rename one")
        seen.add(one.id)
    check.refuse()
