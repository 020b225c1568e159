"""What blocks take from the geometry by name: areas of faces, lengths of joints."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.takeoff.takeoff import Takeoff
from nimble_shell.formats.neutral_shell.values import not_there

Dimensions = Literal["external", "overall_internal", "internal"]
_OPENINGS = ("head", "sill", "threshold", "jamb")


@dataclass(frozen=True, slots=True)
class Named:
    """A building's quantities by one system of dimensions."""

    takeoff: Takeoff | None
    dimensions: Dimensions

    def net_area(self, face: str, *path: str | int) -> float:
        """Of a face, without its openings. [m²]"""
        if self.takeoff is None or face not in self.takeoff.faces:
            raise not_there("face", face, *path)
        found: float = getattr(self.takeoff.faces[face].net, self.dimensions)
        return found

    def length(self, kind: str, at: str | None, *path: str | int) -> float:
        """Of a kind of joint, all of it or what is to one side. Inner lengths are the overall inner ones. [m]"""
        if self.takeoff is None:
            raise not_there("joint", kind, *path, "joint")
        if kind.startswith("opening_") and kind.removeprefix("opening_") in _OPENINGS:
            return float(getattr(self.takeoff.openings, kind.removeprefix("opening_")))
        by = self.takeoff.joints.get(kind)
        if by is None:
            raise not_there("joint", kind, *path, "joint")
        if at is not None and at not in by:
            raise not_there(f"{kind} to", at, *path, "at")
        system = "external" if self.dimensions == "external" else "overall_internal"
        return sum(float(getattr(one, system)) for to, one in by.items() if at in (None, to))
