"""How a length goes into a module: whole and quarter modules, what is left over, and where it would close."""

from __future__ import annotations

import math
from dataclasses import dataclass

CLOSES = 5e-4  #: a length so near to whole modules is whole [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class ModuleFit:
    """A length in panels."""

    module: float  #: [m]
    whole: int  #: whole modules in it
    left_over: float  #: beyond them; 0 where it closes [m]
    closes: tuple[float, ...]  #: the nearest lengths below and above that close; one, where it does [m]

    @property
    def quarters(self) -> int:
        """Quarters of a module that are left over, rounded: 4 is a whole one less a trifle."""
        return round(4 * self.left_over / self.module)


def fit(length: float, module: float) -> ModuleFit:
    """How a length goes into a module.

    Parameters
    ----------
    length, module : float
        Above 0. [m]
    """
    whole = math.floor((length + CLOSES) / module)
    left = length - whole * module
    if left <= CLOSES:
        return ModuleFit(module=module, whole=whole, left_over=0.0, closes=(whole * module,))
    near = tuple(n * module for n in (whole, whole + 1) if n > 0)
    return ModuleFit(module=module, whole=whole, left_over=left, closes=near)


def off_module(place: float, module: float) -> float:
    """How far a place along a wall lies from the nearest seam; to the right is above nought. [m]"""
    return place - module * round(place / module)
