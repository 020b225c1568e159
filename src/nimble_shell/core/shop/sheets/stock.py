"""Sheets, and the rectangles that are cut from them. Lengths in mm; w lies along x, h along y."""

from __future__ import annotations

from dataclasses import dataclass

NEAR = 1e-6


@dataclass(frozen=True, slots=True, kw_only=True)
class Sheet:
    """A sheet from stock."""

    name: str
    w: float
    h: float
    cost: float
    count: int | None = None  #: None: as many as are wanted


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """Rectangles of one size."""

    name: str
    w: float
    h: float
    count: int
    turn: bool  #: else its grain keeps w along x


@dataclass(frozen=True, slots=True, kw_only=True)
class Saw:
    """How sheets are cut."""

    kerf: float
    edge_trim: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Placed:
    """A part on its sheet, by its lower left corner."""

    part: int  #: of parts and fillers, the parts first
    x: float
    y: float
    w: float  #: as it lies
    h: float
    turned: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Cutting:
    """One sheet."""

    sheet: int
    placed: tuple[Placed, ...]
    offcuts: tuple[tuple[float, float, float, float], ...]  #: x, y, w, h of what comes out free


@dataclass(frozen=True, slots=True, kw_only=True)
class Cut:
    """Sheets for all parts."""

    cuttings: tuple[Cutting, ...]
    cost: float
    fillers: int
    bound: float  #: no way costs less


@dataclass(frozen=True, slots=True, kw_only=True)
class NoSheets:
    """Why parts cannot be cut."""

    reason: str
