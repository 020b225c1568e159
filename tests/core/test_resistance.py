"""R by every method: exact where it can be, bounded where it must be."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from core.strategies import bridged, elements, homogeneous
from hypothesis import assume, given
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.thermal.element import Element, ElementLayer, Part
from nimble_shell.core.thermal.resistance import resistances
from nimble_shell.core.working import value_of


def wall(*layers: ElementLayer) -> Element:
    return Element(layers=layers, R_si=0.13, R_se=0.04)


def homogeneous_layer(d: float, lambda_: float) -> ElementLayer:
    return ElementLayer(name="layer", d=d, parts=(Part(lambda_=lambda_),))


@given(elements(bridges=False))
def test_without_bridges_all_methods_agree_and_add_up(element: Element) -> None:
    found = resistances(element)
    total = 0.0 + value_of(element.R_si) + value_of(element.R_se)
    for layer in element.layers:
        assert layer.parts[0].lambda_ is not None
        total += value_of(layer.d) / value_of(layer.parts[0].lambda_)
    for kind in (found.nominal, found.parallel, found.isothermal, found.combined):
        assert value_of(kind) == pytest.approx(total, rel=1e-12)
    assert value_of(found.error_e) == pytest.approx(0, abs=1e-12)


@given(elements())
def test_parallel_is_never_below_combined_nor_combined_below_isothermal(element: Element) -> None:
    found = resistances(element)
    upper, middle, lower = (value_of(R) for R in (found.parallel, found.combined, found.isothermal))
    assert upper >= middle * (1 - 1e-12)
    assert middle >= lower * (1 - 1e-12)
    assert 0 <= value_of(found.error_e) + 1e-12 < 1


@given(elements(), homogeneous())
def test_another_resisting_layer_always_helps(element: Element, more: ElementLayer) -> None:
    thicker = replace(element, layers=(*element.layers, more))
    for kind in ("nominal", "parallel", "isothermal", "combined"):
        assert value_of(getattr(resistances(thicker), kind)) > value_of(getattr(resistances(element), kind))


@given(elements())
def test_turning_the_wall_round_changes_nothing(element: Element) -> None:
    turned = replace(element, layers=element.layers[::-1], R_si=element.R_se, R_se=element.R_si)
    for kind in ("nominal", "parallel", "isothermal", "combined"):
        here, there = value_of(getattr(resistances(element), kind)), value_of(getattr(resistances(turned), kind))
        assert here == pytest.approx(there, rel=1e-12)


@given(elements(), st.integers(0, 4), st.floats(min_value=0.1, max_value=0.9))
def test_cutting_a_layer_in_two_aligned_slices_changes_nothing(element: Element, at: int, share: float) -> None:
    assume(at < len(element.layers))
    layer = element.layers[at]
    group = layer.group or "slices"
    d = value_of(layer.d)
    slices = (replace(layer, d=d * share, group=group), replace(layer, d=d * (1 - share), group=group))
    cut = replace(element, layers=(*element.layers[:at], *slices, *element.layers[at + 1 :]))
    for kind in ("nominal", "parallel", "isothermal"):
        whole, sliced = value_of(getattr(resistances(element), kind)), value_of(getattr(resistances(cut), kind))
        assert sliced == pytest.approx(whole, rel=1e-9)


@given(bridged(), bridged())
def test_crossing_layers_make_every_section_by_its_area(first: ElementLayer, second: ElementLayer) -> None:
    first, second = replace(first, group="a"), replace(second, group="b")
    conductance = 0.0
    for one in first.parts:
        for other in second.parts:
            assert one.lambda_ is not None
            assert other.lambda_ is not None
            path = 0.17 + value_of(first.d) / value_of(one.lambda_) + value_of(second.d) / value_of(other.lambda_)
            conductance += value_of(one.f) * value_of(other.f) / path
    assert value_of(resistances(wall(first, second)).parallel) == pytest.approx(1 / conductance, rel=1e-12)


def test_aligned_layers_make_straight_paths() -> None:
    parts = (Part(f=0.9, lambda_=0.04), Part(f=0.1, lambda_=0.13))
    layers = tuple(ElementLayer(name=n, d=0.1, parts=parts, group="studs") for n in ("one", "other"))
    by_hand = 1 / (0.9 / (0.17 + 0.2 / 0.04) + 0.1 / (0.17 + 0.2 / 0.13))
    assert value_of(resistances(wall(*layers)).parallel) == pytest.approx(by_hand, rel=1e-12)


@given(elements(), st.integers(0, 4))
def test_a_sweep_in_an_array_is_each_wall_on_its_own(element: Element, at: int) -> None:
    assume(at < len(element.layers))
    thicknesses = np.linspace(0.02, 0.4, 7)
    swept = resistances(element, swept={at: thicknesses})  # type: ignore[arg-type]  # an array sweeps
    for number, d in enumerate(thicknesses):
        changed = replace(element.layers[at], d=float(d))
        alone = resistances(replace(element, layers=(*element.layers[:at], changed, *element.layers[at + 1 :])))
        for kind in ("nominal", "parallel", "isothermal", "combined"):
            array = np.asarray(getattr(swept, kind))
            assert array[number] == pytest.approx(value_of(getattr(alone, kind)), rel=1e-12)


def test_the_combined_method_remarks_its_range() -> None:
    steel = ElementLayer(name="steel studs", d=0.2, parts=(Part(f=0.995, lambda_=0.035), Part(f=0.005, lambda_=50)))
    skins = ElementLayer(name="foam", d=0.06, parts=(Part(lambda_=0.03),))
    assert not resistances(wall(skins, steel)).in_range
    assert resistances(wall(skins)).in_range


@pytest.mark.parametrize(
    ("layer", "code", "path"),
    [
        (homogeneous_layer(-0.1, 0.04), "thickness_not_positive", ("layers", 0, "d")),
        (homogeneous_layer(0.0, 0.04), "thickness_not_positive", ("layers", 0, "d")),
        (homogeneous_layer(float("nan"), 0.04), "thickness_not_positive", ("layers", 0, "d")),
        (homogeneous_layer(0.1, 0.0), "conductivity_not_positive", ("layers", 0, "lambda")),
        (homogeneous_layer(0.1, -1.0), "conductivity_not_positive", ("layers", 0, "lambda")),
        (ElementLayer(name="R", parts=(Part(R=-1.0),)), "resistance_not_physical", ("layers", 0, "R")),
        (
            ElementLayer(name="b", d=0.1, parts=(Part(f=0.8, lambda_=1.0), Part(f=0.3, lambda_=1.0))),
            "shares_not_whole",
            ("layers", 0, "parts"),
        ),
        (
            ElementLayer(name="b", d=0.1, parts=(Part(f=1.2, lambda_=1.0), Part(f=-0.2, lambda_=1.0))),
            "share_out_of_range",
            ("layers", 0, "parts", 0, "f"),
        ),
    ],
)
def test_what_cannot_exist_is_refused(layer: ElementLayer, code: str, path: tuple[object, ...]) -> None:
    with pytest.raises(DomainError) as refused:
        wall(layer)
    assert (code, path) in [(issue.code, issue.path) for issue in refused.value.issues]


def test_all_refusals_come_at_once() -> None:
    with pytest.raises(DomainError) as refused:
        Element(layers=(homogeneous_layer(-1, 1), homogeneous_layer(1, -1)), R_si=-1, R_se=99)
    assert len(refused.value.issues) == 4


def test_a_group_with_other_shares_is_refused() -> None:
    one = ElementLayer(name="a", d=0.1, parts=(Part(f=0.9, lambda_=1.0), Part(f=0.1, lambda_=2.0)), group="g")
    other = replace(one, parts=(Part(f=0.8, lambda_=1.0), Part(f=0.2, lambda_=2.0)))
    with pytest.raises(DomainError) as refused:
        wall(one, other)
    assert refused.value.issues[0].code == "group_not_aligned"
    assert refused.value.issues[0].path == ("layers", 1, "parts")


def test_no_layers_is_refused() -> None:
    with pytest.raises(DomainError) as refused:
        wall()
    assert refused.value.issues[0].code == "no_layers"
