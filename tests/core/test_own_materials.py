"""Own materials: what a material is stands in the material; neither its key nor how it is drawn says it."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import PARTS, direction_at
from nimble_shell.core.joints.stack import stack_of
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.core.materials.derived import sealing_surface
from nimble_shell.core.moisture.hourly.hygric import stuff_of
from nimble_shell.core.moisture.hourly.life import Life
from nimble_shell.core.moisture.hourly.seasons import _places, _slabs, _wood
from nimble_shell.core.moisture.monthly.element import element_year
from nimble_shell.core.remarks.remarks import remarks
from nimble_shell.core.studies.thickness import thickness_study
from nimble_shell.core.thermal.figures import wall_figures
from nimble_shell.core.working import value_of

BASIS = Basis()
COPIES = {f"own-{key}": replace(one, key=f"own-{key}") for key, one in CATALOGUE.items()}
STATION_OF = {part: station for station, part in PARTS.items()}


def copied(assembly: Assembly) -> Assembly:
    """The build-up, every material exchanged for its copy under another key."""

    def key(material: str) -> str:
        return f"own-{material}" if material else ""

    layers = tuple(
        replace(layer, material=key(layer.material),
                members=tuple(replace(member, material=key(member.material)) for member in layer.members))
        for layer in assembly.layers
    )  # fmt: skip
    fixings = tuple(
        replace(one, material=key(one.material), sleeve_material=key(one.sleeve_material),
                head=one.head and replace(one.head, material=key(one.head.material)),
                foot=one.foot and replace(one.foot, material=key(one.foot.material)))
        for one in assembly.fixings
    )  # fmt: skip
    return replace(assembly, layers=layers, fixings=fixings)


def everything_of(assembly: Assembly, catalogue: dict[str, Material], part: str) -> dict[str, Any]:
    """What the program computes of a build-up without solving fields."""
    direction = direction_at(STATION_OF[part])
    wall = wall_figures(assembly, catalogue, BASIS, "winter", direction=direction)
    study = thickness_study(assembly, catalogue, BASIS, asked=5.0, direction=direction)
    year = element_year(assembly, catalogue, BASIS, direction)
    slabs = _slabs(assembly, catalogue, BASIS, Life(), direction)
    plies = stack_of(assembly, catalogue, BASIS, direction, frozenset()).plies
    return {
        "figures": {key: value_of(one.number) for key, one in wall.figures.items()},
        "remarks": list(remarks(assembly, catalogue, BASIS, wall, study, asked=5.0)),
        "wet": [(one.limit, one.reason, one.M) for one in year.wet],
        "slabs": slabs,
        "places": _places(assembly, catalogue, slabs[0]),
        "wood": _wood(assembly, catalogue),
        "plies": [(ply.d, replace(ply.fill, key="")) for ply in plies],
    }


@pytest.mark.parametrize("key", SYSTEMS)
def test_a_build_up_of_copies_has_every_figure_of_the_shipped_materials(key: str) -> None:
    assembly = SYSTEMS[key].assembly("a", "A")
    shipped = everything_of(assembly, dict(CATALOGUE), SYSTEMS[key].place)
    assert everything_of(copied(assembly), COPIES, SYSTEMS[key].place) == shipped


@pytest.mark.parametrize("key", CATALOGUE)
def test_a_copied_material_stores_carries_and_seals_alike(key: str) -> None:
    own = COPIES[f"own-{key}"]
    assert stuff_of(own, 0.02) == stuff_of(CATALOGUE[key], 0.02)
    assert sealing_surface(own) == sealing_surface(CATALOGUE[key])


def test_nothing_of_a_shipped_material_is_left_to_be_derived() -> None:
    for material in CATALOGUE.values():
        assert stuff_of(material, 0.02)[1] == ""
        for name in ("w80", "mould", "feeds_mould", "wood", "wets", "takes_up", "surface", "lambda_moist"):
            assert getattr(material, name) is not None, (material.key, name)


def test_a_copy_of_osb_keeps_the_limit_of_its_mass() -> None:
    """A plane beside it holds three per cent of its mass, not the general kilogram."""
    assembly = copied(SYSTEMS["sip"].assembly("a", "A"))
    from nimble_shell.core.moisture.monthly.element import limit_beside

    osb = next(layer for layer in assembly.layers if layer.material == "own-osb")
    limit, _ = limit_beside([osb], COPIES, BASIS.damp)
    assert limit == pytest.approx(0.03 * osb.d * CATALOGUE["osb"].rho)


def test_the_concrete_of_a_form_wall_is_found_by_what_it_is() -> None:
    """Drawn otherwise it is concrete still: the sill of a form wall takes hold of it."""
    wall = SYSTEMS["icf"].assembly("a", "A")
    odd = {key: replace(one, hatch="board") for key, one in COPIES.items()}
    stack = stack_of(copied(wall), odd, BASIS, "horizontal", frozenset())
    found = stack.of_family("concrete")
    assert found is not None


def test_an_edited_conductivity_counts_where_a_course_with_temperature_is_known() -> None:
    wall = SYSTEMS["sip"].assembly("a", "A")
    own = copied(wall)
    core = own.layers[own.core_index or 0].material
    better = COPIES | {core: replace(COPIES[core], lambda_=COPIES[core].lambda_ / 2)}
    before, after = (
        wall_figures(own, catalogue, BASIS, "winter").figures["R_winter"].number for catalogue in (COPIES, better)
    )
    d = own.layers[own.core_index or 0].d
    assert value_of(after) - value_of(before) == pytest.approx(d / COPIES[core].lambda_, rel=0.15)


def test_sorption_is_given_whole_or_not_at_all() -> None:
    from nimble_shell.core.errors import DomainError

    for change, code in (
        ({"w80": 5.0, "w_f": None, "A_w": None}, "sorption_in_part"),
        ({"w80": 90.0, "w_f": 100.0, "A_w": 0.0}, "sorption_not_rising"),
        ({"mu_dry": 0.0}, "mu_not_positive"),
    ):
        with pytest.raises(DomainError) as refused:
            replace(CATALOGUE["brick"], **change)
        assert refused.value.issues[0].code == code
