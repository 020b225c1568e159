"""The catalogue: complete, plausible, sourced."""

from __future__ import annotations

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.core.thermal.conductivity import conductivity_at
from nimble_shell.core.working import value_of
from nimble_shell.reports.hatches import HATCHES


def test_there_are_enough_generic_materials_each_with_a_source() -> None:
    assert len(CATALOGUE) >= 60
    assert all(material.source and material.name for material in CATALOGUE.values())
    assert all(key == material.key for key, material in CATALOGUE.items())
    assert len({material.name for material in CATALOGUE.values()}) == len(CATALOGUE)


def test_every_material_is_drawn() -> None:
    assert {material.hatch for material in CATALOGUE.values()} <= HATCHES.keys()


def test_every_foam_board_knows_its_conductivity_by_temperature() -> None:
    foams = [m for m in CATALOGUE.values() if m.family in ("foam", "fibre") and m.key not in ("cellular-glass",)]
    for material in foams:
        assert len(material.lambda_T) >= 5, material.key
        assert value_of(conductivity_at(material.lambda_T, 10.0)) == pytest.approx(material.lambda_, rel=1e-3)


def test_blown_foams_are_worse_aged_and_pass_a_minimum_in_the_cold() -> None:
    blown = [m for m in CATALOGUE.values() if m.lambda_fresh is not None]
    assert len(blown) >= 6
    assert all(m.lambda_fresh is not None and m.lambda_fresh < m.lambda_ for m in blown)
    table = CATALOGUE["pir-core"].lambda_T
    least = min(table, key=lambda row: row[1])
    assert table[0][1] > least[1] < table[-1][1]


def test_conductivities_lie_in_the_ranges_of_the_trade() -> None:
    ranges = {"eps-035": (0.031, 0.038), "xps-033": (0.029, 0.036), "pir-core": (0.022, 0.028), "osb": (0.13, 0.13),
              "concrete-reinforced": (2.3, 2.3), "gypsum-board": (0.25, 0.25), "straw-flat": (0.05, 0.065),
              "steel": (50, 50), "stainless-steel": (17, 17), "aluminium": (160, 230)}  # fmt: skip
    for key, (low, high) in ranges.items():
        assert low <= CATALOGUE[key].lambda_ <= high


@pytest.mark.parametrize(
    ("change", "code"),
    [
        ({"lambda_": 0.0}, "conductivity_not_positive"),
        ({"rho": -1.0}, "density_not_positive"),
        ({"mu": 0.0}, "mu_not_positive"),
        ({"lambda_T": ((10.0, 0.03), (0.0, 0.03))}, "temperatures_not_rising"),
        ({"lambda_T": ((10.0, -0.03),)}, "conductivity_not_positive"),
    ],
)
def test_an_impossible_material_is_refused(change: dict[str, object], code: str) -> None:
    values = {"key": "x", "name": "X", "family": "foam", "hatch": "foam", "lambda_": 0.03, "rho": 20.0, "c": 1450.0}
    with pytest.raises(DomainError) as refused:
        Material(**(values | change))  # type: ignore[arg-type]
    assert code in {issue.code for issue in refused.value.issues}
