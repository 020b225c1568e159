"""Models of boxes: what is solved, and the cells it is cut into. Lengths in m."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.conduction.mesh import NEAREST, graded
from nimble_shell.core.conduction.section import CONDUCTIVITY, EXTENT, check_surface
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.quantities.limits import within

Point3 = tuple[float, float, float]
FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int64]

_NEAR = 2e-8  #: a face nearer to a segment than this lies on it [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """A box of one material, or of nothing; a later one takes the place of what it covers."""

    low: Point3  #: [m]
    high: Point3  #: [m]
    lambda_: float | None  #: [W/(m·K)]; None is void


@dataclass(frozen=True, slots=True, kw_only=True)
class Face:
    """An axis-parallel rectangle of surface in contact with an environment; counts only where it meets the surface."""

    low: Point3  #: [m]
    high: Point3  #: [m]
    env: str
    R_s: float  #: surface resistance; 0 prescribes the surface's temperature [m²·K/W]

    @property
    def axis(self) -> int:
        return next(axis for axis in range(3) if self.low[axis] == self.high[axis])


@dataclass(frozen=True, slots=True, kw_only=True)
class BoxModel:
    """Boxes and the environments they meet."""

    boxes: tuple[Box, ...]
    faces: tuple[Face, ...]
    temperatures: dict[str, float]  #: of each environment [°C]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(any(box.lambda_ for box in self.boxes), ("boxes",), "nothing_solid", "no box has a conductivity",
                    "add a box of material")  # fmt: skip
        for at, box in enumerate(self.boxes):
            if box.lambda_ is not None:
                within(check, box.lambda_, CONDUCTIVITY, ("boxes", at, "lambda"), "conductivity_not_positive",
                       "thermal conductivity", "conductivity")  # fmt: skip
            far = max(map(abs, (*box.low, *box.high)))
            within(check, far, EXTENT, ("boxes", at), "too_far_away", "a corner", "distance")
            sized = all(a < b for a, b in zip(box.low, box.high, strict=True))
            check.check(sized, ("boxes", at), "region_without_size", "the box has no volume",
                        "give it a length, a width and a height")  # fmt: skip
        for at, face in enumerate(self.faces):
            flat = sum(a == b for a, b in zip(face.low, face.high, strict=True))
            check.check(flat == 1, ("boundaries", at), "face_not_parallel", f"the face is flat in {flat} directions",
                        "a face of a box is flat in one of x, y and z")  # fmt: skip
            check_surface(check, face.R_s, self.temperatures.get(face.env, 0.0), at)
            far = max(map(abs, (*face.low, *face.high)))
            within(check, far, EXTENT, ("boundaries", at), "too_far_away", "a corner", "distance")
        check.check(bool(self.faces), ("boundaries",), "no_boundaries", "no surface meets an environment",
                    "bind at least one face to an environment")  # fmt: skip
        check.refuse()


def first_lines(model: BoxModel) -> list[FloatArray]:
    """Grid planes through every corner, graded between, for each axis. [m]"""
    parts: tuple[Box | Face, ...] = (*model.boxes, *model.faces)
    ends = [corner for part in parts for corner in (part.low, part.high)]
    nearest = float(np.ptp(ends, axis=0).min()) / NEAREST
    return [graded(np.array(ends)[:, axis], nearest) for axis in range(3)]


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Cells:
    """The cells of a grid: conductivities, numbers of the solid ones, and the surfaces that meet an environment."""

    lines: list[FloatArray]
    lambda_: FloatArray  #: shape (nx, ny, nz), nan for void [W/(m·K)]
    number: IntArray  #: shape (nx, ny, nz), −1 for void
    surfaces: list[Surface]

    @property
    def sizes(self) -> list[FloatArray]:
        """Sizes of the cells along each axis, ready to broadcast over the grid. [m]"""
        return [along(np.diff(lines), axis) for axis, lines in enumerate(self.lines)]

    @property
    def middles(self) -> list[FloatArray]:
        return [(lines[:-1] + lines[1:]) / 2 for lines in self.lines]


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Surface:
    """Cell faces of one side and one segment: the cells behind them, by index along each axis."""

    axis: int
    side: int  #: 0 on the low side of its cells, 1 on the high side
    cells: tuple[IntArray, ...]
    env: str
    R_s: float


def along(values: FloatArray, axis: int) -> FloatArray:
    """A line of values, shaped to broadcast along an axis of the grid."""
    return values.reshape([-1 if at == axis else 1 for at in range(3)])


def cut(model: BoxModel, lines: list[FloatArray]) -> Cells:
    """Cells of the model on a grid.

    Raises
    ------
    DomainError
        If nothing solid is left.
    """
    lambda_ = np.full([len(line) - 1 for line in lines], np.nan)
    middles = [(line[:-1] + line[1:]) / 2 for line in lines]
    for box in model.boxes:
        within = [
            (middle > low) & (middle < high) for middle, low, high in zip(middles, box.low, box.high, strict=True)
        ]
        lambda_[np.ix_(*within)] = np.nan if box.lambda_ is None else box.lambda_
    solid = np.isfinite(lambda_)
    if not solid.any():
        raise DomainError(Issue(path=("boxes",), code="nothing_solid", message="later voids cover every box",
                                hint="voids take the place of what they cover; check their order"))  # fmt: skip
    number = np.full(lambda_.shape, -1)
    number[solid] = np.arange(solid.sum())
    return Cells(lines=lines, lambda_=lambda_, number=number, surfaces=_surfaces(model, lines, middles, solid))


def _surfaces(
    model: BoxModel, lines: list[FloatArray], middles: list[FloatArray], solid: NDArray[np.bool_]
) -> list[Surface]:
    """Surfaces in contact with an environment; of two faces on one place the later one counts."""
    found: list[Surface] = []
    for axis in range(3):
        for side in (0, 1):
            empty = np.roll(~solid, 1 if side == 0 else -1, axis=axis)
            edge = [slice(None)] * 3
            edge[axis] = slice(0, 1) if side == 0 else slice(-1, None)
            empty[tuple(edge)] = True
            open_ = solid & empty
            taken = np.full(solid.shape, -1)
            planes = lines[axis][:-1] if side == 0 else lines[axis][1:]
            for at, face in enumerate(model.faces):
                if face.axis != axis:
                    continue
                within = [
                    np.abs(planes - face.low[d]) < _NEAR
                    if d == axis
                    else (middles[d] > face.low[d]) & (middles[d] < face.high[d])
                    for d in range(3)
                ]
                block = np.ix_(*within)
                taken[block] = np.where(open_[block], at, taken[block])
            for at, face in enumerate(model.faces):
                cells = np.nonzero(taken == at)
                if len(cells[0]):
                    found.append(Surface(axis=axis, side=side, cells=cells, env=face.env, R_s=face.R_s))
    return found
