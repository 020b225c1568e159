"""Show working of what a solved fixing says: χ, solved and by the approximate procedure, and the ratio of both."""

from __future__ import annotations

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.fixings.cell import Cell, chi_approximate
from nimble_shell.core.fixings.solved import SolvedFixing
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.working import Derivation, Num, derive, named, traced, value_of


def fixing_working(
    assembly: Assembly, fixing: Fixing, catalogue: Catalogue, basis: Basis, direction: Direction, cell: Cell,
    solved: SolvedFixing,
) -> dict[str, Derivation]:  # fmt: skip
    """The working of "chi", and where the procedure gives something of "chi_approximate" and "ratio".

    Parameters
    ----------
    assembly : Assembly
        The fixing's own.
    fixing : Fixing
    catalogue : mapping of key to Material
    basis : Basis
    direction : {"horizontal", "up", "down"}
    cell : Cell
        Of the fixing.
    solved : SolvedFixing
        Of the cell.
    """
    chi = _solved(cell, solved)
    found = {"chi": chi}
    approximate = chi_approximate(assembly, fixing, catalogue, basis, direction, traced)
    if value_of(approximate):
        found["chi_approximate"] = approximate
        found["ratio"] = named(chi / approximate, "k", "solved over approximate", "",
                               "carried to the build-up's correction")  # fmt: skip
    return {key: derive(number) for key, number in found.items()}


def _solved(cell: Cell, solved: SolvedFixing) -> Num:
    field = solved.field
    (coupling,), (systems,) = field.coupling.values(), field.psi.values()
    unit = "W/(m·K)" if cell.method == "repeating plan" else "W/K"
    size = "m" if cell.method == "repeating plan" else "m²"
    source = f"ISO 10211:2017, solved as {cell.method}: {field.unknowns:,} unknowns, error ±{field.error:.1g} {unit}"
    L = traced(coupling, "L", "coupling of the model, room to outside", unit, source)
    U = traced(cell.U, "U", "of the same plies without the fixing", "W/(m²·K)", "as drawn, no members")
    A = traced((coupling - systems["internal"]) / cell.U, "A", "of the model, across the heat flow", size, "drawn")
    beyond = named(L - U * A, "chi_model", "what the model loses beyond its plies", unit,
                   "ISO 10211:2017, 11, χ = L3D − U·A")  # fmt: skip
    times = traced(cell.times, "n_model", "models that make one fixing", "", cell.method)
    whole = "W/K"
    return named(times * beyond, "chi", "of one fixing", whole, f"error estimated ±{solved.error:.1g} {whole}")
