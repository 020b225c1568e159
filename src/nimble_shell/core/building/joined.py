"""Several bodies as one heated volume: where two of them touch there is no face."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

import numpy as np
import shapely

from nimble_shell.core.building.body import BodyOpening, BuildingBody, faces_of, without_holes
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.geometry.face import MEET, Face, Opening
from nimble_shell.core.held import Held
from nimble_shell.core.takeoff.takeoff import FloorLine

_SIDES: Held[tuple[Face, ...]] = Held(256)  #: by what is drawn; a build-up that is made thicker leaves them as they are
_GRID = 1e-6  #: to which what is left of faces is rounded [m]
_SLIVER = 1e-3  #: what counts for no face [m²]


def faces_of_building(
    bodies: Sequence[BuildingBody],
    openings: Sequence[BodyOpening] = (),
    thickness_of: Mapping[str, float] | None = None,
    beyond_line: Mapping[str, float] | None = None,
) -> list[Face]:
    """The faces that close the volume of all bodies together.

    Parameters
    ----------
    bodies : sequence of BuildingBody
        They touch, or stand apart; none lies in another.
    openings : sequence of BodyOpening
    thickness_of : mapping of zone to float, optional
        Of the build-ups. [m]
    beyond_line : mapping of zone to float, optional
        Of that what lies outside of their structure. [m]

    Raises
    ------
    DomainError
        With the path of a body that lies in another one, or of an opening where two of them touch.
    """
    thick, beyond, drawn = thickness_of or {}, beyond_line or {}, (tuple(bodies), tuple(openings))
    sides = _SIDES.get(drawn) or _SIDES.put(drawn, tuple(_sides(*drawn)))
    return [one.of_thickness(thick.get(one.zone, 0.0), beyond.get(one.zone, 0.0)) for one in sides]


def _sides(bodies: Sequence[BuildingBody], openings: Sequence[BodyOpening]) -> list[Face]:
    _apart(bodies)
    of_each: list[list[Face]] = []
    for n, body in enumerate(bodies):
        try:
            of_each.append(faces_of(body, openings))
        except DomainError as error:
            raise error.under("bodies", n) from None
    faces = [face for own in of_each for face in own]
    of_body = np.repeat(np.arange(len(of_each)), [len(own) for own in of_each])
    normals = np.array([face.axes[2] for face in faces])
    heights = (np.array([face.origin for face in faces]) * normals).sum(axis=1)
    against = (normals @ normals.T < -1 + 1e-9) & (np.abs(heights[:, None] + heights) < MEET)
    against &= of_body[:, None] != of_body
    return [one for face, theirs in zip(faces, against, strict=True)
            for one in _left(face, [faces[n] for n in np.flatnonzero(theirs)])]  # fmt: skip


def floor_lines_of(bodies: Sequence[BuildingBody], thickness: float) -> list[FloorLine]:
    """Where storeys meet the walls, each on the walls of its own body."""
    return [FloorLine(z=z, thickness=thickness, of=f"{body.id}.") for body in bodies for z in body.floors]


def _apart(bodies: Sequence[BuildingBody]) -> None:
    for n, one in enumerate(bodies):
        for other in bodies[:n]:
            shared = shapely.intersection(shapely.Polygon(one.outline), shapely.Polygon(other.outline)).area
            high = min(one.eaves, other.eaves) - max(one.base, other.base)
            if shared > _SLIVER and high > MEET:
                raise DomainError(Issue(path=("bodies", n), code="bodies_overlap",
                                        message=f"“{one.id}” lies in “{other.id}”",
                                        hint="bodies touch along a side, or stand on one another"))  # fmt: skip


def _left(face: Face, others: Sequence[Face]) -> list[Face]:
    """What is left of a face where others lie on it from beyond."""
    touched = [_seen(one, face) for one in others]
    if not touched:
        return [face]
    rest = shapely.difference(shapely.Polygon(face.flat), shapely.union_all(touched), grid_size=_GRID)
    parts = [one for whole in shapely.get_parts(rest) for one in without_holes(whole) if one.area > _SLIVER]
    names = [face.id] if len(parts) == 1 else [f"{face.id}.{n + 1}" for n in range(len(parts))]
    openings = list(face.openings)
    found = []
    for name, part in zip(names, parts, strict=True):
        mine = tuple(one for one in openings if part.buffer(_GRID).covers(_box(one)))
        openings = [one for one in openings if one not in mine]
        found.append(replace(face, id=name, outline=_outline(face, part), openings=mine))
    if openings:
        raise DomainError(Issue(path=("openings", openings[0].id), code="opening_covered",
                                message=f"the opening “{openings[0].id}” lies where another body touches “{face.id}”",
                                hint="move it, or move the body"))  # fmt: skip
    return found


def _box(one: Opening) -> shapely.Polygon:
    return shapely.box(one.u, one.v, one.u + one.w, one.v + one.h)


def _seen(one: Face, by: Face) -> shapely.Polygon:
    """A face that looks against another one, in the other's own axes."""
    right, up, _ = by.axes
    away = one.corners - by.origin
    return shapely.Polygon(np.column_stack([away @ right, away @ up]))


def _outline(face: Face, part: shapely.Polygon) -> tuple[tuple[float, float], ...]:
    """As the face's kind has it: in its plane for a wall, in plan for others."""
    flat = shapely.get_coordinates(part.exterior)[:-1]
    if face.kind != "wall":
        right, up, _ = face.axes
        flat = (face.origin + flat[:, :1] * right + flat[:, 1:] * up)[:, :2]
    return tuple((float(u), float(v)) for u, v in flat)
