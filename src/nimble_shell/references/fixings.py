"""Fixings: χ where it is known in closed form, and one model by two solvers."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.kinds import started
from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.references.rows import Row

_T = {"inside": 20.0, "outside": 0.0}
_SKIN = 990.0  #: spreads heat so well that the skin has one temperature [W/(m·K)]
_MATERIALS = {**CATALOGUE, "perfect": replace(CATALOGUE["steel"], key="perfect", lambda_=_SKIN)}
_SHANKS = {
    "rod, body of revolution": Fixing(id="f", name="rod", material="steel", layer="c", n=4, diameter=0.008),
    "flat, boxes": Fixing(id="f", name="flat", material="steel", layer="c", across=0.5, along=0.5, t=0.003, h=0.03),
    "plate, repeating plan": Fixing(id="f", name="plate", material="polypropylene", layer="c", across=0.4, along=0.5,
                                    t=0.004, h=0.5),
}  # fmt: skip


def rows() -> Iterator[Row]:
    """References of fixings."""
    basis = Basis()
    for name, fixing in _SHANKS.items():
        reference = _beside(fixing)
        found = solve_fixing(cell_of(_sandwich("perfect"), fixing, _MATERIALS, basis), _T).chi
        yield Row(name=f"{name}, between skins of one temperature, χ [W/K]", source="analytic (parallel paths)",
                  reference=reference, ours=found, tolerance=0.01 * reference)  # fmt: skip
    plan = replace(_SHANKS["plate, repeating plan"], material="steel", t=0.001)
    in_plan, in_space = (
        solve_fixing(cell_of(_sandwich("osb"), one, _MATERIALS, basis), _T).chi
        for one in (plan, replace(plan, h=0.5 * (1 - 1e-5)))
    )
    yield Row(name="steel plate all but through, χ [W/K]", source="triangles in plan against boxes", reference=in_plan,
              ours=in_space, tolerance=0.01 * in_plan)  # fmt: skip
    wall = SYSTEMS["mesh-mortar"].assembly("m", "M")
    wire = started("wire", wall, wall.layers[wall.core_index or 0].id, "f")
    cell = cell_of(wall, wire, CATALOGUE, basis)
    yield Row(name="wires between mortar skins, solved over approximate", source="ISO 6946:2017, F.3, where it holds",
              reference=1.0, ours=solve_fixing(cell, _T).chi / cell.chi_approximate, tolerance=0.15)  # fmt: skip


def _sandwich(skin: str) -> Assembly:
    layers = (
        Layer(id="i", material=skin, d=0.02),
        Layer(id="c", material="eps-035", d=0.1, studied=True),
        Layer(id="o", material=skin, d=0.02),
    )
    return Assembly(id="a", name="Sandwich", system="sip", layers=layers)


def _beside(fixing: Fixing) -> float:
    """χ of a shank beside the rest of the core, both between skins of one temperature. [W/K]"""
    share, d, core = 1 / fixing.per_area, 0.1, CATALOGUE["eps-035"].lambda_
    films = 0.13 + 0.04 + 2 * 0.02 / _SKIN
    both = ((share - fixing.area) * core + fixing.area * _MATERIALS[fixing.material].lambda_) / d / share
    return share / (films + 1 / both) - share / (films + d / core)
