"""Thicknesses by which planes can move: faces of one plane move as one, whatever their build-ups.

A wall of forms below and panels above is one plane outside and two inside. Areas and lengths are taken to one inner
plane, at the mean thickness by area: the volume is right, and a joint is off by no more than the ledge between them.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence

import numpy as np

from nimble_shell.core.geometry.face import MEET, Face, FloatArray, signed_area

_ANGLE = 1e-6  #: of normals that are one


def in_planes(faces: Sequence[Face]) -> list[Face]:
    """The faces, those of one plane at their mean thickness."""
    if len({(face.thickness, face.beyond_line) for face in faces}) == 1:
        return list(faces)
    heights = [float(face.origin @ face.axes[2]) for face in faces]
    planes: list[tuple[int, float]] = []  # the first face of each, and how far it is from the origin
    of: list[Hashable] = []
    for n, face in enumerate(faces):
        normal = face.axes[2]
        known = next((k for k, (first, height) in enumerate(planes)
                      if abs(height - heights[n]) < MEET and np.abs(faces[first].axes[2] - normal).max() < _ANGLE),
                     None)  # fmt: skip
        if known is None:
            planes.append((n, heights[n]))
            known = len(planes) - 1
        of.append(known)
    return _at_mean(faces, of)


def by_kind(faces: Sequence[Face]) -> list[Face]:
    """The faces, all walls, all roofs and all floors at their mean thickness: where planes would not meet otherwise."""
    return _at_mean(faces, [face.kind for face in faces])


def _at_mean(faces: Sequence[Face], of: Sequence[Hashable]) -> list[Face]:
    sums: dict[Hashable, FloatArray] = {}
    for face, key in zip(faces, of, strict=True):
        area = signed_area(face.flat)
        sums[key] = sums.get(key, 0.0) + area * np.array((1.0, face.thickness, face.beyond_line))
    means = {key: (float(thick / area), float(beyond / area)) for key, (area, thick, beyond) in sums.items()}
    return [_with(face, *means[key]) for face, key in zip(faces, of, strict=True)]


def _with(face: Face, thickness: float, beyond: float) -> Face:
    same = abs(face.thickness - thickness) < 1e-12 and abs(face.beyond_line - beyond) < 1e-12
    return face if same else face.of_thickness(thickness, beyond)


Suiting = Callable[[Sequence[Face]], list[Face]]
