"""What no material and no wall can be is refused by name, and what would take for ever with its number."""

from __future__ import annotations

from dataclasses import replace

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.thermal.element import Element, ElementLayer, Part
from nimble_shell.core.thermal.resistance import resistances


@pytest.mark.parametrize("field", ["lambda_", "rho", "c", "mu", "mu_dry", "lambda_fresh", "emissivity", "cost", "carbon",
                                   "sd"])  # fmt: skip
@pytest.mark.parametrize("value", [1e308, -1e3, float("nan"), float("inf")])
def test_a_material_has_values_that_something_can_have(field: str, value: float) -> None:
    with pytest.raises(DomainError) as refused:
        replace(CATALOGUE["osb"], **{field: value})
    assert refused.value.issues[0].path == (field.rstrip("_"),)


@pytest.mark.parametrize("field", ["lambda_", "rho", "c", "mu"])
def test_nothing_is_smaller_than_the_smallest(field: str) -> None:
    with pytest.raises(DomainError, match=r"to|is"):
        replace(CATALOGUE["osb"], **{field: 1e-320})


def bridged(count: int, group: str) -> Element:
    parts = (Part(f=0.9, lambda_=0.035), Part(f=0.1, lambda_=0.13))
    return Element(layers=tuple(ElementLayer(name=f"{at}", d=0.05, parts=parts, group=group) for at in range(count)),
                   R_si=0.13, R_se=0.04)  # fmt: skip


def test_as_many_paths_as_can_be_computed_are_computed_and_no_more() -> None:
    assert resistances(bridged(10, "")).combined > 10
    with pytest.raises(DomainError) as refused:
        bridged(60, "")
    assert "1,152,921,504,606,846,976 paths" in refused.value.issues[0].message
    assert resistances(bridged(60, "studs")).parallel > 60  # aligned: two paths
