"""What a partition keeps to, and what it is to be good at. Lengths in mm, masses in kg."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

Layout = Literal["free", "cover"]
AtOpening = Literal["inside", "bay", "either", "cut"]
Term = Literal["panels", "off_module", "members", "lopsided", "astray", "member_length", "waste"]
COUNTED: tuple[Term, ...] = ("panels", "off_module", "members", "lopsided", "astray")
MEASURED: tuple[Term, ...] = ("member_length", "waste")
TERMS = (*COUNTED, *MEASURED)


@dataclass(frozen=True, slots=True, kw_only=True)
class Blank:
    """A sheet that pieces are cut from; any length where none is given."""

    width: float
    length: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Bale:
    """Whole bales in a frame, the last one tight."""

    length: float
    tight: float
    frame: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Rules:
    """Of a system."""

    layout: Layout
    cover: float | None = None  #: of every strip but the first and the last
    step: float  #: joints lie at origin + k·step
    origin: float = 0.0
    mirrored: bool = False  #: …and as far from the right end as those are from the left one
    joint_at_edge: bool  #: …and exactly at an opening's edge, where a post then stands
    at_opening: AtOpening
    edge_clear: float
    min_strip: float
    min_piece: float = 0.0
    blanks: tuple[Blank, ...] | None
    max_width: float | None = None  #: without blanks
    max_length: float | None = None
    mass_per_m2: float = 0.0
    max_mass: float | None = None
    module_widths: tuple[float, ...] = ()
    bale: Bale | None = None
    layers: int = 1  #: 1 or 2
    stagger: float = 0.0
    header_bearing: float = 0.0

    @property
    def widest(self) -> float:
        """Of a full strip."""
        sheets = [self.max_width or 0.0] if self.blanks is None else [one.width for one in self.blanks]
        widest = max(sheets)
        return widest if self.cover is None else min(widest, self.cover)


@dataclass(frozen=True, slots=True, kw_only=True)
class Objective:
    """Terms one after the other, or summed with weights."""

    order: tuple[Term, ...] = ()
    weights: Mapping[Term, float] | None = None
