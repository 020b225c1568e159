"""The same body by its other surfaces: every plane moved by its face's thickness, corners to where the planes meet."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.closed import Body
from nimble_shell.core.geometry.face import FloatArray, signed_area
from nimble_shell.core.quantities.sentence import sentence

PLANES_MEET = 1e-3  #: how far moved planes may miss one another [m]
_COPLANAR = 1e-3  #: of directions that leave a corner free, as a share of the largest singular value


@dataclass(frozen=True)
class Placed:
    """A body as its faces lie by one system of dimensions."""

    body: Body
    shift: FloatArray  #: of each corner: (corners, 3) [m]
    offset: FloatArray  #: of each face's plane, outwards: (faces,) [m]

    @cached_property
    def points(self) -> FloatArray:
        """Its corners: (corners, 3). [m]"""
        return self.body.points + self.shift

    @cached_property
    def flats(self) -> tuple[FloatArray, ...]:
        """Outlines in the planes of the faces, anticlockwise as seen from outside: each (corners, 2). [m]"""
        if not self.shift.any():
            return self.body.flats
        found = []
        for face, ring, flat in zip(self.body.faces, self.body.rings, self.body.flats, strict=True):
            right, up, _ = face.axes
            found.append(flat + np.column_stack([self.shift[ring] @ right, self.shift[ring] @ up]))
        return tuple(found)

    @cached_property
    def gross(self) -> FloatArray:
        """Areas of the faces: (faces,). [m²]"""
        return np.array([signed_area(flat) for flat in self.flats])

    @cached_property
    def volume(self) -> float:
        """By the divergence theorem: a third of each area times its plane's distance from the origin. [m³]"""
        origins = np.array([face.origin for face in self.body.faces])
        return float(self.gross @ ((origins * self.body.normals).sum(axis=1) + self.offset)) / 3

    def length(self, start: int, end: int) -> float:
        """Between two corners. [m]"""
        return float(np.linalg.norm(self.points[end] - self.points[start]))


def as_given(body: Body) -> Placed:
    """The body as its outlines say. Raises DomainError if its faces look inwards."""
    placed = Placed(body, np.zeros_like(body.points), np.zeros(len(body.faces)))
    if placed.volume <= 0:
        raise DomainError(Issue(path=(), code="inside_out", message="the faces close no volume: they look inwards",
                                hint="azimuths are those of the outward normals"))  # fmt: skip
    return placed


def moved(body: Body, offset: FloatArray) -> Placed:
    """Every plane moved along its normal.

    Parameters
    ----------
    body : Body
    offset : ndarray
        Of each face, outwards: (faces,). [m]

    Raises
    ------
    DomainError
        With the path of a face, where moved planes do not meet within 1 mm, or where a face is eaten up.

    Notes
    -----
    A corner's shift is the least one that brings it on to all moved planes through it: where they leave it free, along
    the edge of two planes or in the plane of coplanar ones, it does not move.
    """
    most = max(len(one) for one in body.through)
    planes = np.zeros((len(body.points), most, 3))
    wanted = np.zeros((len(body.points), most))
    for corner, through in enumerate(body.through):
        planes[corner, : len(through)] = body.normals[through]
        wanted[corner, : len(through)] = offset[through]
    shift = (np.linalg.pinv(planes, rcond=_COPLANAR) @ wanted[:, :, None])[:, :, 0]
    missed = np.abs((planes @ shift[:, :, None])[:, :, 0] - wanted).max(axis=1)
    worst = int(np.argmax(missed))
    if missed[worst] > PLANES_MEET:
        raise _apart(body, worst, float(missed[worst]))
    placed = Placed(body, shift, offset)
    for one in body.meetings:
        before, after = body.points[one.end] - body.points[one.start], placed.points[one.end] - placed.points[one.start]
        if before @ after <= 0:
            names = " and ".join(f"“{body.faces[number].id}”" for number in (one.face, one.other))
            raise DomainError(Issue(path=(one.face,), code="edge_eaten",
                                    message=f"inside of the thicknesses nothing is left of the edge of {names}",
                                    hint="thinner faces, or a larger body"))  # fmt: skip
    return placed


def _apart(body: Body, corner: int, missed: float) -> DomainError:
    names = ", ".join(f"“{body.faces[number].id}”" for number in body.through[corner])
    x, y, z = ((float(one), "distance") for one in body.points[corner])
    message = sentence(f"the moved planes of {names} at ({{x}}, {{y}}, {{z}}) miss one another by {{v}}",
                       x=x, y=y, z=z, v=(missed, "length"))  # fmt: skip
    return DomainError(Issue(path=(int(body.through[corner][0]),), code="planes_apart", message=message,
                             hint="thicknesses of faces that meet in one corner have to suit one another"))  # fmt: skip
