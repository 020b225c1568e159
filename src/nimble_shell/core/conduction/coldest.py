"""The critical place of a surface: found, looked at closely, and refined for until its temperature stands still."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.conduction.elements import edge_nodes
from nimble_shell.core.conduction.mesh import Grid
from nimble_shell.core.conduction.result import Extremes
from nimble_shell.core.conduction.section import Point, Section
from nimble_shell.core.conduction.solve import Fields, Solved, extremes, once_more_for, with_films
from nimble_shell.core.conduction.window import window

FloatArray = NDArray[np.float64]

_LEAST = 7e-4  #: that the error is at least said to be, as a share of the difference
_TIMES = 2.0  #: the change between two grids that the error is said to be


@dataclass(frozen=True, slots=True, eq=False)
class Watched:
    """The surface of one environment, its coldest place above all; in a room that is the colder side, its warmest."""

    solved: Solved
    extremes: Extremes  #: with the films that judge it [°C], [m]
    error: float | None  #: of the critical one, as a share of the difference of all temperatures; None if not known


def watched(section: Section, judged: Section, env: str, found: Solved, *, target: float, most: int) -> Watched:
    """Go on with a solved section until its critical surface temperature stands still.

    Parameters
    ----------
    section : Section
        As it was solved.
    judged : Section
        The same with the films by which its surface is judged.
    env : str
        Whose surface it is.
    found : Solved
        The section on grids that were fine enough for its couplings.
    target : float
        Error of the temperature, as a share of the difference of all temperatures.
    most : int
        Unknowns at which it ends; the error then says what was reached.

    Notes
    -----
    Couplings settle long before a temperature in a corner does, where the flux has no bound. A window around the place
    takes care of the corner; what the rest of the grid still moves it by is seen between the last two grids, and where
    that is too much the grid is refined for the place.
    """
    look = _Look(section, judged, env)
    if any(region.table for region in section.regions):  # the grids before are of other conductivities
        return Watched(found, look.extremes(found), None)
    if found.before is None:
        found = once_more_for(section, found, look.at(found.fields, found.grid)[1])
    before, _ = look.at(*_pair(found))
    while True:
        now, place = look.at(found.fields, found.grid)
        error = _TIMES * abs(now - before) + _LEAST
        if error <= target or found.fields.space.size * 2 > most:
            return Watched(found, look.extremes(found), error)
        found, before = once_more_for(section, found, place), now


def _pair(found: Solved) -> tuple[Fields, Grid]:
    assert found.before is not None
    return found.before


class _Look:
    """How an environment's surface is looked at.

    While grids become finer, the films that judge are put on at each place as if heat flowed straight through it: good
    enough to find the critical place and to see it move. They are solved for once, at the end.
    """

    def __init__(self, section: Section, judged: Section, env: str) -> None:
        self._section, self._judged = section, judged
        self._T = np.array(list(section.temperatures.values()))
        self._env = list(section.temperatures).index(env)
        own = self._T[self._env]
        self._own, self._across = float(own), float(self._T[np.argmax(np.abs(self._T - own))] - own) or 1.0
        before, after = (np.array([one.R_s for one in each.segments]) for each in (section, judged))
        self._ratio = np.divide(after, before, out=np.ones(len(after)), where=before > 0)
        self._of = np.array([one.env == env for one in section.segments])

    def at(self, fields: Fields, grid: Grid) -> tuple[float, Point]:
        """How far from the air's own temperature the critical place is, as a share of the difference; and where."""
        theta = fields.theta @ self._T
        on = fields.system.on[fields.system.env == self._env]
        nodes = edge_nodes(fields.space, on)
        segment = fields.segment_of[fields.segment_of >= 0][fields.system.env == self._env]
        _, place = self._worst(theta[nodes], segment, fields.space.places[nodes])
        near = window(self._section, fields.space, grid, theta, place)
        own = self._of[near.segment]
        return self._worst(near.theta[own], near.segment[own], near.places[own])

    def extremes(self, found: Solved) -> Extremes:
        """With the films that judge; the critical one as close as the window looks."""
        fields = found.fields
        theta = with_films(self._judged, fields)
        seen = extremes(fields, self._env, theta)
        cold = self._across < 0
        near = window(self._judged, fields.space, found.grid, theta, seen.at if cold else seen.at_max)  # type: ignore[arg-type]  # of a section
        own = self._of[near.segment]
        values, places = near.theta[own].ravel(), near.places[own].reshape(-1, 2)
        low, high = int(np.argmin(values)), int(np.argmax(values))
        if cold:
            return replace(seen, min=float(values[low]), at=tuple(map(float, places[low])))
        return replace(seen, max=float(values[high]), at_max=tuple(map(float, places[high])))

    def _worst(self, theta: FloatArray, segment: NDArray[np.int64], places: FloatArray) -> tuple[float, Point]:
        away = (theta - self._own) / self._across
        ratio = self._ratio[segment][:, None]
        judged = ratio * away / (1 + (ratio - 1) * away)
        worst = np.unravel_index(np.argmax(judged), judged.shape)
        x, y = places[worst]
        return float(judged[worst]), (float(x), float(y))
