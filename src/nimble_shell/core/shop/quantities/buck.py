"""A buck: boards that hold the opening in concrete, from the size of what is built in. [mm]"""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.shop.bars.nest import nest
from nimble_shell.core.shop.bars.stock import NoBars, Saw, Stock


@dataclass(frozen=True, slots=True, kw_only=True)
class Buck:
    rough: tuple[float, float]
    opening: tuple[float, float]  #: in the concrete
    boards: tuple[float, ...]  #: longest first
    bars: int


def buck(unit: tuple[float, float], shim: float, head: float, jamb: float, sill: float, stock: float,
         kerf: float) -> Buck | NoBars:  # fmt: skip
    """Head and sill over the whole width, jambs between them; a door (sill 0) stands on what is below."""
    door = sill == 0
    rough = unit[0] + 2 * shim, unit[1] + shim * (1 if door else 2)
    opening = rough[0] + 2 * jamb, rough[1] + head + sill
    boards = sorted([opening[0]] * (1 if door else 2) + [rough[1]] * 2, reverse=True)
    lengths = sorted(set(boards))
    found = nest(lengths, [boards.count(one) for one in lengths], [Stock(length=stock, cost=stock)], Saw(kerf=kerf),
                 ("bars",))  # fmt: skip
    if isinstance(found, NoBars):
        return found
    return Buck(rough=rough, opening=opening, boards=tuple(boards), bars=found.sum.bars)
