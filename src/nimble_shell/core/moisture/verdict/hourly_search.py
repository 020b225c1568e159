"""The smallest change of one kind with which a build-up is accepted by the hour; every step is a run of years."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from itertools import islice

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.damp import DampLimits
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, NotConverged
from nimble_shell.core.materials import Material
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.hourly.seasons import seasons
from nimble_shell.core.moisture.verdict.verdict import (
    MOST_OUTSIDE,
    POINT,
    STEP,
    Advice,
    AdviceKind,
    changes,
    inwards_of,
    sheet_of,
)
from nimble_shell.core.search import smallest

_DRIER = 30  #: points that the room may be drier
_TIGHTER, _SEALS = 0.75, 16  #: leakage of each step to the one before, and steps
_STEPS = round(MOST_OUTSIDE / STEP)
_Case = tuple[Assembly, Mapping[str, Material], Life]


def search_hours(
    assembly: Assembly, catalogue: Mapping[str, Material], basis: Basis, life: Life, direction: Direction,
    damp: DampLimits, kind: AdviceKind,
) -> Advice | None:  # fmt: skip
    """Search one kind of change; None where there is nothing of the kind to change.

    Parameters
    ----------
    catalogue : mapping of key to Material
        With what the search adds, `verdict.ADDED`.
    life : Life
        What the run supposes that is not accepted.
    damp : DampLimits

    Notes
    -----
    A room is told by how much drier it is than it was supposed. Steps are looked at with fewer cells; the answer passes
    and the step before it fails with all of them.
    """
    amounts, case, layer = _ladder(assembly, catalogue, basis, life, kind)
    if len(amounts) < 2:
        return None

    def accepted(at: int, *, coarse: bool) -> bool:
        changed, materials, lived = case(at)
        try:
            found = seasons(changed, materials, basis, replace(lived, coarse=coarse), direction)
        except (DomainError, NotConverged):
            return False
        return not found.fails(damp)

    count = len(amounts) - 1
    at = smallest(count, lambda n: accepted(n, coarse=True), lambda n: accepted(n, coarse=False), looks=3)
    if at is None:
        return Advice(kind=kind, found=False, amount=amounts[-1], step=amounts[-1], layer=layer)
    return Advice(kind=kind, found=True, amount=amounts[at], step=amounts[at - 1], layer=layer)


def _ladder(
    assembly: Assembly, catalogue: Mapping[str, Material], basis: Basis, life: Life, kind: AdviceKind
) -> tuple[list[float], Callable[[int], _Case], int | None]:
    """Amounts from the one there is on, what is run at each, and the layer they are about."""
    if kind == "room":
        drier = [n * POINT for n in range(_DRIER + 1) if life.damper - n * POINT >= -0.5]
        return drier, lambda at: (assembly, catalogue, replace(life, damper=life.damper - drier[at])), None
    if kind == "seal":
        tighter = [life.leakage * _TIGHTER**n for n in range(_SEALS + 1)] if life.leakage else []
        return tighter, lambda at: (assembly, catalogue, replace(life, leakage=tighter[at])), None
    every = changes(assembly, catalogue, inwards=inwards_of(assembly, basis))
    found = next((one for one in every if one[0] == kind), None)
    if found is None:
        return [], _nothing, None
    _, layer, begin, steps = found
    rungs = [(begin, assembly), *islice(steps, _STEPS)]

    def rung(at: int) -> _Case:
        amount, changed = rungs[at]
        return changed, {**catalogue, **sheet_of(amount)} if kind == "vapour" else catalogue, life

    return [amount for amount, _ in rungs], rung, layer


def _nothing(at: int) -> _Case:
    raise IndexError(at)
