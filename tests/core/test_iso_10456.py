"""What is labelled as a value of ISO 10456 is one: λ, density, μ of the wet cup and of the dry one."""

from __future__ import annotations

import pytest

from nimble_shell.core.materials import CATALOGUE
from nimble_shell.core.materials.catalogue import ISO, ISO_LAMBDA

#: ISO 10456:2007, table 3: density from and to [kg/m³], λ [W/(m·K)], μ dry and wet.
TABLE = {
    "plywood": (500, 500, 0.13, 200, 70), "particleboard": (600, 600, 0.14, 50, 15),
    "cement-particle": (1200, 1200, 0.23, 50, 30), "softwood": (500, 500, 0.13, 50, 20),
    "hardwood": (700, 700, 0.18, 200, 50), "concrete": (2200, 2200, 1.65, 120, 70),
    "gypsum-plaster": (1300, 1300, 0.57, 10, 6), "steel": (7800, 7800, 50, 1e6, 1e6),
    "stainless-steel": (7900, 7900, 17, 1e6, 1e6), "aluminium": (2800, 2800, 160, 1e6, 1e6),
    "polypropylene": (910, 910, 0.22, 1e4, 1e4), "nylon": (1150, 1150, 0.25, 5e4, 5e4),
    "glass": (2500, 2500, 1.0, 1e6, 1e6), "gravel": (1700, 2200, 2.0, 50, 50), "clay-soil": (1200, 1800, 1.5, 50, 50),
}  # fmt: skip
#: λ of the nearest kind in the table.
LAMBDA = {"osb": 0.13, "glulam": 0.13, "lvl": 0.13, "larch-boards": 0.13, "softwood-battens": 0.13,
          "concrete-reinforced": 2.3}  # fmt: skip


def test_every_labelled_material_is_in_the_table() -> None:
    assert {key for key, one in CATALOGUE.items() if one.source == ISO} == set(TABLE)
    assert {key for key, one in CATALOGUE.items() if one.source == ISO_LAMBDA} == set(LAMBDA)


@pytest.mark.parametrize("key", TABLE)
def test_a_labelled_value_is_that_of_the_table(key: str) -> None:
    low, high, lambda_, dry, wet = TABLE[key]
    found = CATALOGUE[key]
    assert low <= found.rho <= high
    assert found.lambda_ == lambda_
    assert found.mu == wet
    assert (found.mu_dry or found.mu) == dry


@pytest.mark.parametrize("key", LAMBDA)
def test_a_labelled_conductivity_is_that_of_the_table(key: str) -> None:
    assert CATALOGUE[key].lambda_ == LAMBDA[key]
