"""Which way heat flows through a part of the shell: up through roofs, unless the room is the colder side."""

from __future__ import annotations

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.stations import Direction, Station, direction_at
from nimble_shell.core.climate import MONTHS
from nimble_shell.core.held import Held

_TURNED: dict[Direction, Direction] = {"up": "down", "down": "up", "horizontal": "horizontal"}
_held: Held[bool] = Held(256)


def direction_of_flow(outwards: Direction, theta_i: float, theta_e: float) -> Direction:
    """Direction of the heat flow between two temperatures, by that of a flow from inside to outside. [°C]"""
    return outwards if theta_i >= theta_e else _TURNED[outwards]


def flows_inwards(basis: Basis) -> bool:
    """Whether the room is colder than the outside air over the mean year, as a cold store is."""
    parts = (basis.climate, basis.indoor, basis.site)
    found = _held.get(parts)
    if found is None:
        months = [condition(basis, str(month)) for month in range(len(MONTHS))]
        found = _held.put(parts, sum(one.theta_i - one.theta_e for one in months) < 0)
    return found


def over_the_year(basis: Basis, outwards: Direction) -> Direction:
    """Direction of the heat flow that U and ψ stand for, by that of a flow from inside to outside."""
    return _TURNED[outwards] if flows_inwards(basis) else outwards


def direction_in(basis: Basis, station: Station) -> Direction:
    """The same at a station of the shell."""
    return over_the_year(basis, direction_at(station))
