"""What bars are cut from and into. Lengths in mm."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Term = Literal["cost", "bars", "waste"]
TERMS: tuple[Term, ...] = ("cost", "bars", "waste")


@dataclass(frozen=True, slots=True, kw_only=True)
class Stock:
    """Bars of one length, new or from the rack."""

    length: float
    cost: float  #: of one
    count: int | None = None  #: None: as many as are wanted
    offcut: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Saw:
    """How bars are cut."""

    kerf: float
    end_trim: float = 0.0  #: at both ends of every bar
    keep: float = 0.0  #: least remnant that goes to the rack; 0: none does

    def remnant(self, bar: float, pieces: float, count: int) -> float:
        """What is left of a bar behind the last cut."""
        return max(0.0, bar - 2 * self.end_trim - pieces - self.kerf * count)

    def kept(self, remnant: float) -> float:
        """What of it goes to the rack."""
        return remnant if self.keep > 0 and remnant >= self.keep - 1e-6 else 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Bar:
    """Bars that are cut alike."""

    length: float
    offcut: bool
    cost: float  #: of one
    times: int
    lengths: tuple[float, ...]  #: of the pieces, longest first
    remnant: float


@dataclass(frozen=True, slots=True, kw_only=True)
class BarSum:
    """What bars come to."""

    cost: float = 0.0
    bars: int = 0
    waste: float = 0.0  #: cut away, or left too short to keep

    def __add__(self, other: BarSum) -> BarSum:
        return BarSum(cost=self.cost + other.cost, bars=self.bars + other.bars, waste=self.waste + other.waste)


@dataclass(frozen=True, slots=True, kw_only=True)
class Nested:
    """Pieces of one section in their bars."""

    bars: tuple[Bar, ...]
    sum: BarSum
    bound: float  #: nothing is below this in the first term
    proved: bool  #: nothing is better, term by term


@dataclass(frozen=True, slots=True, kw_only=True)
class NoBars:
    """Why pieces cannot be cut."""

    reason: str
