"""What lies beyond walls to an unheated space: it is as cold as its surroundings make it (ISO 13789)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from nimble_shell.core.shell.hot_day import Facing
from nimble_shell.core.shell.ledger import ShellLedger
from nimble_shell.core.shell.plant import Buffer
from nimble_shell.core.transmission.rows import AreaRow, Transmission, UnheatedSpace
from nimble_shell.core.transmission.sums import sums
from nimble_shell.core.working import value_of

BUFFER = "unheated space"


def unheated_shares(facings: Sequence[Facing]) -> dict[str, float]:
    """Of each element, which share of it lies towards an unheated space; elements without any are left out."""
    area: dict[str, float] = {}
    cold: dict[str, float] = {}
    for one in facings:
        area[one.element] = area.get(one.element, 0.0) + one.area
        if one.to == "unheated":
            cold[one.element] = cold.get(one.element, 0.0) + one.area
    return {element: more / area[element] for element, more in cold.items()}


def space_of(buffer: Buffer) -> UnheatedSpace:
    """The space as it is summed."""
    return UnheatedSpace(id=BUFFER, elements=((buffer.H_outwards, 1.0),), V=buffer.V, n_ue=buffer.n)


def adjustments(ledger: ShellLedger, buffer: Buffer, shares: Mapping[str, float]) -> dict[str, float]:
    """What is left of the loss of each element that lies towards the space: 1 − s·(1 − b).

    References
    ----------
    .. [1] ISO 13789:2017, 8.4.
    """
    if not buffer.known or not shares:
        return {}
    rows = tuple(
        AreaRow(id=line.name, A=value_of(line.area) * shares[line.element_id], U=value_of(line.U), to=BUFFER)
        for line in ledger.lines if line.U is not None and line.element_id in shares and value_of(line.area) > 0
    )  # fmt: skip
    b = value_of(sums(Transmission(areas=rows, spaces=(space_of(buffer),))).b[BUFFER])
    return {element: 1 - share * (1 - b) for element, share in shares.items()}
