"""Every family and variant over its whole range: drawn for every system it suits, solved, balanced and plausible."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from functools import cache

import numpy as np
import pytest
import shapely

from nimble_shell.core.assemblies.assembly import JointPlace
from nimble_shell.core.assemblies.systems import SYSTEMS
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.conduction.solve import begun
from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.bound import section_of, solid_of
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.families import FAMILIES, Family
from nimble_shell.core.joints.families.family import Role
from nimble_shell.core.joints.solved import solve_joint
from nimble_shell.core.joints.stack import Stack, stack_of
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.parameters import Parameter, Value

T = {"inside": 20.0, "outside": -10.0, "neighbour": 8.0}
OTHERS: dict[Role, tuple[str, Direction]] = {
    "wall": ("sip", "horizontal"), "roof": ("sip-roof", "up"), "floor": ("slab", "down"),
    "upper": ("cassette", "horizontal"), "party": ("cassette", "horizontal"),
}  # fmt: skip
REENTRANT = {"inner corner", "valley", "abutment"}
#: Every variant with every third system it suits, beginning with another one each time.
EVERY = [
    pytest.param(family, variant.key, system, id=f"{family.key}-{variant.key}-{system}")
    for at, (family, variant) in enumerate((one, each) for one in FAMILIES.values() for each in one.variants)
    for system in variant.suits[at % min(3, len(variant.suits)) :: 3]
]


#: The first two systems of each variant: its parameters do not depend on which.
FIRST = [
    pytest.param(family, variant.key, system, id=f"{family.key}-{variant.key}-{system}")
    for family in FAMILIES.values()
    for variant in family.variants
    for system in variant.suits[:2]
]


@cache
def stack(system: str, direction: Direction, owned: frozenset[JointPlace] = frozenset()) -> Stack:
    return stack_of(SYSTEMS[system].assembly("w", system), CATALOGUE, Basis(), direction, owned)


def stacks(family: Family, variant: str, system: str) -> dict[Role, Stack]:
    met = {role: OTHERS[role] for role in family.roles}
    met[family.roles[0]] = (system, OTHERS[family.roles[0]][1])
    owned = {role: frozenset(one.place for one in family.owned(variant) if one.role == role) for role in met}
    return {role: stack(*one, owned[role]) for role, one in met.items()}


def drawing(family: Family, variant: str, system: str, values: Mapping[str, Value] | None = None) -> Drawing:
    return family.drawing(variant, stacks(family, variant, system), CATALOGUE, values)


def drawing_or_none(family: Family, variant: str, system: str, values: Mapping[str, Value]) -> Drawing | None:
    """The drawing, or nothing where the parameters do not go with the build-up and the refusal says so."""
    fault: DomainError | None = None
    try:
        return drawing(family, variant, system, values)
    except DomainError as refused:
        fault = refused
    assert fault.issues[0].code == "does_not_fit"
    assert fault.issues[0].path[0] == "values"
    return None


@pytest.mark.parametrize(("family", "variant", "system"), FIRST)
def test_every_variant_is_drawn_at_the_ends_of_every_parameter(family: Family, variant: str, system: str) -> None:
    drawn = 0
    for parameter in family.turned(variant):
        ends = (parameter.least, parameter.most) if isinstance(parameter, Parameter) else parameter.options
        for value in ends:
            found = drawing_or_none(family, variant, system, {parameter.key: value})
            if found is None:
                continue
            drawn += 1
            section = section_of(found, T, "iso6946")
            assert {segment.env for segment in section.segments} >= {"inside", "outside"}
            assert shapely.get_num_geometries(solid_of(found)) == 1
            x0, y0, x1, y1 = found.view
            assert x0 < x1
            assert y0 < y1
    assert drawn >= len(family.turned(variant))


@pytest.mark.parametrize(("family", "variant", "system"), EVERY)
def test_variants_are_solved_and_balanced(family: Family, variant: str, system: str) -> None:
    found = solve_joint(drawing(family, variant, system), T, accuracy="working")
    assert found.balance < 1e-6
    assert found.f_rsi is not None
    assert 0 < found.f_rsi < 1
    main = found.coupling.get(("inside", "outside"))
    assert main is not None
    assert found.error < 0.006 * sum(found.coupling.values())
    psi = found.psi["inside", "outside"]
    assert -0.2 < psi["overall"] < 2.5
    inner, overall, outer = psi["internal"], psi["overall"], psi["external"]
    if family.key in REENTRANT:  # there the inner faces are the longer ones
        inner, outer = outer, inner
    assert outer <= overall + 1e-12
    assert overall <= inner + 1e-12
    assert sum(flow for env, _, _, flow in found.segments if env == "inside") == pytest.approx(
        found.heat_flow["inside"], rel=1e-6
    )


@pytest.mark.parametrize(
    ("family", "variant"),
    [pytest.param(f, v.key, id=f"{f.key}-{v.key}") for f in FAMILIES.values() for v in f.variants],
)
def test_both_ends_of_all_parameters_at_once_are_solved_or_refused_in_words(family: Family, variant: str) -> None:
    system = family.variant(variant).suits[0]
    for end in ("least", "most"):
        values: dict[str, Value] = {
            p.key: getattr(p, end) if isinstance(p, Parameter) else p.options[0 if end == "least" else -1]
            for p in family.turned(variant)
        }
        shape = drawing_or_none(family, variant, system, values)
        if shape is None:
            continue
        # The first grid tells whether it can be solved; how well is what the variants in between are for.
        there = {env: T[env] for env in {air.env for air in shape.airs}}
        G = begun(section_of(shape, there, "iso6946")).fields.G
        assert np.isfinite(G).all()
        assert np.abs(G.sum(axis=0)).max() < 1e-6 * np.abs(np.diag(G)).max()


def test_a_parameter_out_of_range_unknown_or_a_missing_build_up_is_refused() -> None:
    family = FAMILIES["seam"]
    with pytest.raises(DomainError, match="spline width is 5"):
        drawing(family, "block", "sip", {"width": 5.0})
    with pytest.raises(DomainError, match="no parameter “colour”"):
        drawing(family, "block", "sip", {"colour": 1.0})
    with pytest.raises(DomainError, match="needs a build-up as its roof"):
        FAMILIES["eave"].drawing("flush", {"wall": stack("sip", "horizontal")}, CATALOGUE)
    with pytest.raises(DomainError, match="no variant “glued”"):
        drawing(family, "glued", "sip")


def test_a_build_up_that_became_thinner_than_its_spline_is_refused() -> None:
    thin = SYSTEMS["sip"].assembly("w", "thin", {"core": 0.09})
    core = next(at for at, layer in enumerate(thin.layers) if layer.studied)
    layers = (*thin.layers[:core], replace(thin.layers[core], d=0.02), *thin.layers[core + 1 :])
    squeezed = stack_of(replace(thin, layers=layers), CATALOGUE, Basis())
    with pytest.raises(DomainError, match="fill the core") as refused:
        FAMILIES["seam"].drawing("surface", {"wall": squeezed}, CATALOGUE)
    assert refused.value.issues[0].path == ("values", "thickness")
