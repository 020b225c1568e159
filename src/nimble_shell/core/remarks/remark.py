"""A remark: what triggered it, and what would clear it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Weight = Literal["decision", "caution", "note"]


@dataclass(frozen=True, slots=True)
class Said:
    """A value named in a remark."""

    name: str
    value: float  #: in SI
    dimension: str  #: key of quantities.DIMENSIONS


@dataclass(frozen=True, slots=True, kw_only=True)
class Remark:
    """One thing to know or decide; numbers are SI and named, so that any unit system can print them."""

    code: str
    weight: Weight
    text: str  #: with {name} places for the values
    clears: str  #: the way out, with the same places
    values: tuple[Said, ...] = ()
    layer: int | None = None  #: index from inside
