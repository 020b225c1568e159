"""A fixing solved: χ with its error, and the field around it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from nimble_shell.core.basis.schools import FilmSchool
from nimble_shell.core.conduction.limit import extrapolated
from nimble_shell.core.fixings.cell import Cell
from nimble_shell.core.fixings.space import solve_space
from nimble_shell.core.joints.bound import section_of
from nimble_shell.core.joints.solved import Accuracy, SolvedJoint, psi_of, surface_of, told

#: Error of χ, relative, and of the coupling, which χ is a small part of.
CHI_ERROR: dict[Accuracy, float] = {"working": 0.03, "final": 0.005}
_LEAST = 2e-5  #: of the whole coupling; a χ below a thousandth of it needs no more digits
_MOST: dict[Accuracy, int] = {"working": 40_000, "final": 160_000}


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class FixingFigures:
    """Figures of one fixing."""

    chi: float  #: [W/K]
    error: float  #: of χ, estimated [W/K]


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class SolvedFixing(FixingFigures):
    """The figures with the field they were read from."""

    field: SolvedJoint  #: what is drawn; its ψ is of the model, not of the fixing

    @property
    def figures(self) -> FixingFigures:
        """The figures alone."""
        return FixingFigures(chi=self.chi, error=self.error)


def solve_fixing(
    cell: Cell, temperatures: Mapping[str, float], school: FilmSchool = "iso6946", accuracy: Accuracy = "final"
) -> SolvedFixing:
    """χ of one fixing in its cell.

    Parameters
    ----------
    cell : Cell
    temperatures : mapping
        Of "inside" and "outside". [°C]
    school : {"iso6946", "north_american"}
    accuracy : {"working", "final"}
        3 % or 0.5 % of χ.

    Raises
    ------
    DomainError
        If the cell cannot be solved.

    Notes
    -----
    χ = L3D − U·A with U of the same plies. A first, coarse χ sets the error that the coupling is refined to.

    References
    ----------
    .. [1] ISO 10211:2017, 11.
    """
    if cell.boxes is not None:
        solved = solve_space(cell.boxes, temperatures, target=CHI_ERROR[accuracy], U=cell.U)
    else:
        section = section_of(cell.drawing, temperatures, school)
        rough = extrapolated(section, target=0.01, absolute=np.inf, most=_MOST[accuracy])
        L3D = float(-(rough.fields.G if rough.limit is None else rough.limit)[0, 1])
        absolute = CHI_ERROR[accuracy] * abs(psi_of(cell.drawing, ("inside", "outside"), L3D)["internal"])
        least = _LEAST * L3D
        found = extrapolated(section, target=0.01, absolute=max(absolute, least), most=_MOST[accuracy])
        surface = surface_of(cell.drawing, section, found, accuracy)
        solved = told(cell.drawing, section, surface, None, lines=accuracy == "final")
    return SolvedFixing(chi=cell.times * _beyond(solved), error=cell.times * solved.error, field=solved)


def _beyond(solved: SolvedJoint) -> float:
    """Of the model, what is more than its reference. [W/K] or [W/(m·K)]"""
    (systems,) = solved.psi.values()
    return systems["internal"]
