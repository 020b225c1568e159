"""χ of fixings: analytic limits, cross-checks between solvers, and what the approximate formula makes of them."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from replaying import replay

from nimble_shell.core.assemblies.assembly import Assembly, Layer
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.errors import DomainError
from nimble_shell.core.fixings import solved
from nimble_shell.core.fixings.cell import Cell, cell_of
from nimble_shell.core.fixings.kinds import KINDS, started
from nimble_shell.core.fixings.solved import CHI_ERROR, solve_fixing
from nimble_shell.core.fixings.working import fixing_working
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.thermal.solved import with_solved
from nimble_shell.core.working import value_of
from nimble_shell.demo.heron_flats import campus

BASIS = campus().basis
T = {"inside": 20.0, "outside": -10.0}
#: Spreads heat so well that a skin of it has one temperature.
PERFECT = {**CATALOGUE, "perfect": replace(CATALOGUE["steel"], key="perfect", lambda_=990.0)}


def sandwich(skin: str = "perfect", core: str = "eps-035", d: float = 0.1) -> Assembly:
    return Assembly(
        id="a",
        name="Sandwich",
        system="sip",
        layers=(
            Layer(id="i", material=skin, d=0.02),
            Layer(id="c", material=core, d=d, studied=True),
            Layer(id="o", material=skin, d=0.02),
        ),
    )


def cell(assembly: Assembly, fixing: Fixing) -> Cell:
    return cell_of(assembly, fixing, PERFECT, BASIS)


def between_isothermal_skins(lambda_: float, area: float, share: float, d: float) -> float:
    """χ where both skins have one temperature: the shank and the rest of the core side by side."""
    films = 0.13 + 0.04 + 2 * 0.02 / 990.0
    core = CATALOGUE["eps-035"].lambda_
    beside = ((share - area) * core + area * lambda_) / d / share
    return share / (films + 1 / beside) - share / (films + d / core)


SHANKS = {
    "round": Fixing(id="f", name="rods", material="steel", layer="c", n=4, diameter=0.008),
    "flat": Fixing(id="f", name="flats", material="steel", layer="c", across=0.5, along=0.5, t=0.003, h=0.03),
    "through": Fixing(
        id="f", name="plates", material="polypropylene", layer="c", across=0.4, along=0.5, t=0.004, h=0.5
    ),
}


@pytest.mark.parametrize("shape", SHANKS)
def test_between_isothermal_skins_it_is_a_path_beside_another(shape: str) -> None:
    fixing = SHANKS[shape]
    found = solve_fixing(cell(sandwich(), fixing), T)
    expected = between_isothermal_skins(PERFECT[fixing.material].lambda_, fixing.area, 1 / fixing.per_area, 0.1)
    assert found.chi == pytest.approx(expected, rel=2 * CHI_ERROR["final"])


@pytest.mark.parametrize("shape", SHANKS)
def test_a_fixing_of_the_core_s_own_material_loses_nothing(shape: str) -> None:
    fixing = replace(SHANKS[shape], material="eps-035")
    found = solve_fixing(cell(sandwich("osb"), fixing), T)
    assert abs(found.chi) * fixing.per_area < 1e-5


def test_a_plate_all_but_as_high_as_its_spacing_is_the_plan() -> None:
    plan = replace(SHANKS["through"], material="steel", t=0.001)
    boxes = replace(plan, h=0.5 * (1 - 1e-5))
    in_plan, in_space = (solve_fixing(cell(sandwich("osb"), one), T, accuracy="working") for one in (plan, boxes))
    assert cell(sandwich("osb"), boxes).boxes is not None
    assert cell(sandwich("osb"), plan).boxes is None
    assert in_space.chi == pytest.approx(in_plan.chi, rel=0.01)


def test_more_conductive_or_thicker_loses_more() -> None:
    wall = sandwich("osb")
    row = [replace(SHANKS["round"], material=key) for key in ("polypropylene", "stainless-steel", "steel", "aluminium")]
    row += [replace(row[-1], diameter=d) for d in (0.010, 0.014)]
    chi = [solve_fixing(cell(wall, one), T).chi for one in row]
    assert chi == sorted(chi)
    assert chi[0] > 0


def test_a_sunk_head_loses_less() -> None:
    wall = SYSTEMS["masonry"].assembly("m", "M", {})
    layer = wall.layers[wall.core_index or 0].id
    flush, sunk = (solve_fixing(cell_of(wall, started(key, wall, layer, "f"), CATALOGUE, BASIS), T).chi
                   for key in ("dowel", "sunk"))  # fmt: skip
    assert 0 < sunk < flush


def test_steel_screws_between_wood_skins_lose_less_than_the_formula_says() -> None:
    screw = Fixing(id="f", name="screws", material="steel", layer="c", n=4, diameter=0.006, inner=0.011, outer=0.011)
    thin = replace(sandwich("osb"), layers=tuple(
        replace(one, d=0.011) if one.material == "osb" else one for one in sandwich("osb", d=0.14).layers
    ))  # fmt: skip
    drawn = cell(thin, screw)
    assert 0.25 < solve_fixing(drawn, T).chi / drawn.chi_approximate < 0.5


def test_wires_between_mortar_skins_are_about_what_the_formula_says() -> None:
    wall = SYSTEMS["mesh-mortar"].assembly("m", "M", {})
    wire = started("wire", wall, wall.layers[wall.core_index or 0].id, "f")
    drawn = cell_of(wall, wire, CATALOGUE, BASIS)
    assert solve_fixing(drawn, T).chi / drawn.chi_approximate == pytest.approx(1.0, abs=0.15)


def test_a_mesh_spreads_heat_to_the_wire() -> None:
    wall = SYSTEMS["mesh-mortar"].assembly("m", "M", {})
    wire = started("wire", wall, wall.layers[wall.core_index or 0].id, "f")
    bare, meshed = (solve_fixing(cell_of(wall, replace(wire, mesh=mesh), CATALOGUE, BASIS), T).chi
                    for mesh in (0.0, wire.mesh))  # fmt: skip
    assert meshed > bare


@pytest.mark.parametrize("key", KINDS)
def test_what_is_solved_opens_to_its_working(key: str) -> None:
    """A body of revolution, a repeating plan or boxes: each to the figure that is shown."""
    wall = SYSTEMS["masonry"].assembly("m", "M", {})
    fixing = started(key, wall, wall.layers[wall.core_index or 0].id, "f")
    drawn = cell_of(wall, fixing, CATALOGUE, BASIS)
    found = solve_fixing(drawn, T, accuracy="working")
    said = fixing_working(wall, fixing, CATALOGUE, BASIS, "horizontal", drawn, found)
    shown = {"chi": found.chi, "chi_approximate": drawn.chi_approximate, "ratio": found.chi / drawn.chi_approximate}
    assert set(said) == set(shown)
    for figure, derivation in said.items():
        assert derivation.value == pytest.approx(shown[figure], rel=1e-9)
        assert replay(derivation) == pytest.approx(shown[figure], rel=1e-9)


@pytest.mark.parametrize("key", ["washer", "wire", "web", "bracket"])
def test_the_stated_error_holds(key: str, monkeypatch: pytest.MonkeyPatch) -> None:
    wall = SYSTEMS["masonry"].assembly("m", "M", {})
    drawn = cell_of(wall, started(key, wall, wall.layers[wall.core_index or 0].id, "f"), CATALOGUE, BASIS)
    working, final = (solve_fixing(drawn, T, accuracy=accuracy) for accuracy in ("working", "final"))
    monkeypatch.setitem(CHI_ERROR, "final", 0.002 if drawn.boxes else 1e-5)
    monkeypatch.setattr(solved, "_LEAST", 1e-8)
    monkeypatch.setitem(solved._MOST, "final", 20_000)
    finer = solve_fixing(drawn, T)
    assert finer.field.unknowns > final.field.unknowns
    assert abs(final.chi - finer.chi) <= 0.005 * finer.chi
    assert abs(working.chi - finer.chi) <= CHI_ERROR["working"] * finer.chi


@pytest.mark.parametrize("system", [key for key, one in SYSTEMS.items() if one.place != "floor"])
@pytest.mark.parametrize("key", KINDS)
def test_every_kind_starts_in_every_build_up(system: str, key: str) -> None:
    wall = SYSTEMS[system].assembly("w", "W", {})
    core = next(layer for layer in wall.layers if layer.studied)
    fixing = started(key, wall, core.id, "f1")
    assert replace(wall, fixings=(fixing,)).fixings[0].per_area > 0
    assert cell_of(wall, fixing, CATALOGUE, BASIS, "up").chi_approximate >= 0


@pytest.mark.parametrize("system", ["sip", "icf", "mesh-mortar", "metal-panel", "straw-bale"])
@pytest.mark.parametrize("key", KINDS)
def test_every_kind_is_solved_where_it_is_used(system: str, key: str) -> None:
    wall = SYSTEMS[system].assembly("w", "W", {})
    fixing = started(key, wall, wall.layers[wall.core_index or 0].id, "f1")
    found = solve_fixing(cell_of(wall, fixing, CATALOGUE, BASIS), T, accuracy="working")
    assert found.chi > 0
    assert found.field.f_rsi is not None
    assert 0 < found.field.f_rsi < 1
    assert np.isfinite(found.field.field.theta).all()


def test_the_solved_ratio_brings_n_times_chi_into_the_wall() -> None:
    wall = sandwich("osb")
    fixing = replace(SHANKS["round"], n=9)
    drawn = cell_of(wall, fixing, CATALOGUE | PERFECT, BASIS)
    chi = solve_fixing(drawn, T).chi
    owned = with_solved(replace(wall, fixings=(fixing,)), {fixing.id: chi / drawn.chi_approximate})
    R_without, R_with = (
        value_of(wall_figures(one, PERFECT, BASIS, "winter").figures["R_combined"].number) for one in (wall, owned)
    )
    assert 1 / R_with - 1 / R_without == pytest.approx(9 * chi, rel=1e-9)


REFUSED = {
    "count_unclear": {"n": None},
    "shank_unclear": {"diameter": None},
    "diameter_out_of_range": {"diameter": 0.0},
    "count_out_of_range": {"n": -1.0},
    "length_out_of_range": {"inner": -0.01},
    "sleeve_unclear": {"sleeve": 0.004, "sleeve_material": "polypropylene"},
    "mesh_out_of_range": {"mesh": 1.0},
}


@pytest.mark.parametrize("code", REFUSED)
def test_what_cannot_be_is_refused(code: str) -> None:
    with pytest.raises(DomainError) as refused:
        replace(SHANKS["round"], **REFUSED[code])  # type: ignore[arg-type]
    assert code in {issue.code for issue in refused.value.issues}


def test_a_fixing_wider_than_its_cell_is_refused() -> None:
    fixing = replace(SHANKS["round"], n=1000.0, diameter=0.1)
    with pytest.raises(DomainError, match="its share of the wall"):
        cell(sandwich(), fixing)
    assert math.isclose(fixing.per_area, 1000.0)


def test_a_fixing_outside_of_what_counts_is_refused() -> None:
    wall = SYSTEMS["sip"].assembly("s", "S", {})
    with pytest.raises(DomainError, match="outside of the ventilated"):
        cell(wall, replace(SHANKS["round"], layer=wall.layers[-1].id))


def test_a_fixing_far_too_long_is_refused() -> None:
    with pytest.raises(DomainError, match="stand free"):
        cell(sandwich(), replace(SHANKS["round"], outer=1.0))
