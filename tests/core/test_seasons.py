"""R of a season with points: as the same build-up would be with the season's conductivities throughout."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.fixings.cell import cell_of
from nimble_shell.core.fixings.solved import solve_fixing
from nimble_shell.core.thermal.figures import clear_wall_R, wall_figures
from nimble_shell.core.thermal.solved import with_solved
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus

PROJECT = campus()
WIRED = next(one for one in PROJECT.assemblies if one.id == "wall-w-f")


def solved(assembly: Assembly) -> Assembly:
    """With χ of its wires, solved with the conductivities that it has."""
    [wire] = assembly.fixings
    cell = cell_of(assembly, wire, PROJECT.catalogue, PROJECT.basis)
    chi = solve_fixing(cell, {"inside": 20.0, "outside": -10.0}).chi
    return with_solved(assembly, {wire.id: chi / cell.chi_approximate})


def at_season(assembly: Assembly, season: str) -> Assembly:
    """Every layer with the one conductivity that it has in the season's field."""
    found = wall_figures(assembly, PROJECT.catalogue, PROJECT.basis, season)
    planes = [plane.theta for plane in found.profile.planes]
    layers = []
    for layer, warm, cold in zip(assembly.layers, planes, planes[1:], strict=False):
        table = PROJECT.catalogue[layer.material].lambda_T if layer.material else ()
        if not table:
            layers.append(layer)
            continue
        known = dict(table)
        (t0, l0), (t1, l1) = next(
            (a, b) for a, b in zip(table, table[1:], strict=False) if a[0] <= (warm + cold) / 2 <= b[0]
        )
        label = l0 + (l1 - l0) * (10.0 - t0) / (t1 - t0) if 10.0 not in known else known[10.0]
        mean = l0 + (l1 - l0) * ((warm + cold) / 2 - t0) / (t1 - t0)
        layers.append(replace(layer, lambda_entered=PROJECT.catalogue[layer.material].lambda_ * mean / label))
    return replace(assembly, layers=(*layers, *assembly.layers[len(layers) :]))


@pytest.mark.parametrize("season", ["winter", "summer"])
def test_the_season_s_R_with_points_is_that_of_the_season_s_conductivities(season: str) -> None:
    found = wall_figures(solved(WIRED), PROJECT.catalogue, PROJECT.basis, season).figures
    mine = value_of(found[f"R_{season}_clear"].number)
    bare = {**PROJECT.catalogue, **{key: replace(one, lambda_T=()) for key, one in PROJECT.catalogue.items()}}
    alone = at_season(WIRED, season)
    [wire] = alone.fixings
    cell = cell_of(alone, wire, bare, PROJECT.basis)
    chi = solve_fixing(cell, {"inside": 20.0, "outside": -10.0}).chi
    whole = clear_wall_R(with_solved(alone, {wire.id: chi / cell.chi_approximate}), bare, PROJECT.basis)
    assert mine == pytest.approx(value_of(whole), rel=3e-3)
