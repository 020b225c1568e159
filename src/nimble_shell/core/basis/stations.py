"""Stations of the shell: what stands where, which way heat flows there, and what is asked."""

from __future__ import annotations

from typing import Literal

from nimble_shell.core.basis.targets import Targets

Station = Literal["A", "B", "C", "D", "E", "F", "G", "H"]  #: from the ridge down to the footing
Direction = Literal["horizontal", "up", "down"]  #: of heat flow
ShellPart = Literal["wall", "roof", "floor"]
STATIONS: dict[Station, str] = {
    "A": "Ridge",
    "B": "Roof",
    "C": "Eave",
    "D": "Wall",
    "E": "Opening",
    "F": "Floor line",
    "G": "Sill",
    "H": "Footing",
}
#: Heat flows up through what is above the room, down through what is below it.
DIRECTIONS: dict[Station, Direction] = {"A": "up", "B": "up", "F": "down", "H": "down"}
#: Stations whose elements are build-ups, and what they are.
PARTS: dict[Station, ShellPart] = {"B": "roof", "D": "wall", "F": "floor", "H": "floor"}

_THROUGH: dict[str, Direction] = {"roof": "up", "floor": "down"}


def direction_through(part: str) -> Direction:
    """Direction of heat flow through a part of the shell, or through what meets at a joint by its role there."""
    return _THROUGH.get(part, "horizontal")


def direction_at(station: Station) -> Direction:
    """Direction of heat flow at a station."""
    return DIRECTIONS.get(station, "horizontal")


def misses(value: float, asked: float | None) -> bool:
    """Whether a value lies below what is asked of it by more than rounding; nothing asked is never missed."""
    return asked is not None and value < asked * (1 - 1e-12)


def asked_R(targets: Targets, station: Station) -> float | None:
    """Clear-wall R asked of the build-ups of a station; None where nothing is. [m²·K/W]"""
    part = PARTS.get(station)
    return {"wall": targets.R_wall, "roof": targets.R_roof, "floor": targets.R_floor}[part] if part else None
