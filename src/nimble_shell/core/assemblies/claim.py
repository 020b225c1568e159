"""A supplier's R: what the wall is with it by each method, and how much of the claim remains."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.conductivity import conductivity_at
from nimble_shell.core.assemblies.figures import WallFigures, wall_figures
from nimble_shell.core.assemblies.films import Direction
from nimble_shell.core.assemblies.resolve import Age
from nimble_shell.core.assemblies.study import studied_layer
from nimble_shell.core.errors import Collector
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.shell.basis import Basis
from nimble_shell.core.working import value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Claim:
    """What a leaflet says of a core."""

    R: float  #: [m²·K/W]
    d: float  #: thickness it is said of [m]
    theta: float = 10.0  #: mean temperature of the test [°C]
    age: Age = "fresh"

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 < self.R <= 100, ("R",), "resistance_not_physical", f"claimed R is {self.R:g} m²·K/W",
                    "above 0 and up to 100 m²·K/W")  # fmt: skip
        check.check(0 < self.d <= 3, ("d",), "thickness_not_positive", f"thickness is {self.d:g} m",
                    "above 0 and up to 3 m")  # fmt: skip
        check.check(-40 <= self.theta <= 80, ("theta",), "temperature_out_of_range",
                    f"mean temperature is {self.theta:g} °C", "from −40 to 80 °C; labels use 10 or 24")  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Checked:
    """The claim worked through."""

    lambda_claimed: float  #: as said [W/(m·K)]
    lambda_aged: float  #: the same foam aged, at the label temperature of the Basis [W/(m·K)]
    lambda_catalogue: float  #: what the catalogue holds for this core [W/(m·K)]
    wall: WallFigures  #: of the wall with that core
    remains: float  #: clear-wall R over the claim


def check_claim(
    assembly: Assembly, catalogue: Catalogue, basis: Basis, claim: Claim, direction: Direction = "horizontal"
) -> Checked:
    """The wall with the claimed core.

    Notes
    -----
    λ = d/R at the test's temperature and age; brought to the label temperature by the core's own λ(θ), and from fresh
    to aged by the ratio the catalogue holds for it (1 where it holds none).

    Raises
    ------
    DomainError
        If nothing is marked as core.
    """
    index = studied_layer(assembly)
    layer = assembly.layers[index]
    material = catalogue[layer.material]
    claimed = claim.d / claim.R
    factor = 1.0
    if material.lambda_T:
        at_label = value_of(conductivity_at(material.lambda_T, basis.schools.label_mean))
        factor = at_label / value_of(conductivity_at(material.lambda_T, claim.theta))
    aging = material.lambda_ / material.lambda_fresh if claim.age == "fresh" and material.lambda_fresh else 1.0
    aged = claimed * factor * aging
    changed = replace(layer, d=claim.d, lambda_entered=aged)
    wall = replace(assembly, layers=(*assembly.layers[:index], changed, *assembly.layers[index + 1 :]))
    found = wall_figures(wall, catalogue, basis, "0", direction=direction)
    return Checked(
        lambda_claimed=claimed,
        lambda_aged=aged,
        lambda_catalogue=material.lambda_,
        wall=found,
        remains=value_of(found.figures["R_clear"].number) / claim.R,
    )
