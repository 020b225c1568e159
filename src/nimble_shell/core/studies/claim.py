"""A supplier's R: what the wall is with it by each method, and how much of the claim remains."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import Collector
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.studies.sweep import studied_layer
from nimble_shell.core.thermal.conductivity import conductivity_at
from nimble_shell.core.thermal.figures import WallFigures, wall_figures
from nimble_shell.core.thermal.resolve import Age
from nimble_shell.core.working import Given, Num, named, plain, value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Claim:
    """What a leaflet says of a core."""

    R: float  #: [m²·K/W]
    d: float  #: thickness it is said of [m]
    theta: float = 10.0  #: mean temperature of the test [°C]
    age: Age = "fresh"

    def __post_init__(self) -> None:
        check = Collector()
        check.check(
            0 < self.R <= 100,
            ("R",),
            "resistance_not_physical",
            sentence("claimed R is {v1}", v1=(self.R, "resistance")),
            sentence("above 0 and up to {v1}", v1=(100.0, "resistance")),
        )
        check.check(
            0 < self.d <= 3,
            ("d",),
            "thickness_not_positive",
            sentence("thickness is {v1}", v1=(self.d, "distance")),
            sentence("above 0 and up to {v1}", v1=(3.0, "distance")),
        )
        check.check(
            -40 <= self.theta <= 80,
            ("theta",),
            "temperature_out_of_range",
            sentence("mean temperature is {v1}", v1=(self.theta, "temperature")),
            sentence("from {v1} to {v2}; labels use 10 or 24", v1=(-40.0, "temperature"), v2=(80.0, "temperature")),
        )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Checked:
    """The claim worked through."""

    lambda_claimed: Num  #: as said [W/(m·K)]
    lambda_aged: Num  #: the same foam aged, at the label temperature of the Basis [W/(m·K)]
    lambda_catalogue: float  #: what the catalogue holds for this core [W/(m·K)]
    wall: WallFigures  #: of the wall with that core
    remains: Num  #: clear-wall R over the claim

    @property
    def figures(self) -> dict[str, Num]:
        """What has a working."""
        own = {"lambda_claimed": self.lambda_claimed, "lambda_aged": self.lambda_aged, "remains": self.remains}
        return {**{key: figure.number for key, figure in self.wall.figures.items()}, **own}


def check_claim(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    claim: Claim,
    direction: Direction = "horizontal",
    *,
    given: Given = plain,
) -> Checked:
    """The wall with the claimed core; `given` is `plain` for figures, `traced` for working.

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
    R = given(claim.R, "R_claim", "claimed resistance", "m²·K/W", "entered: the supplier's")
    d = given(claim.d, "d_claim", "thickness it is said of", "m", "entered: the supplier's")
    claimed = named(d / R, "lambda_claim", "claimed conductivity", "W/(m·K)", "λ = d/R")
    aged = claimed
    rows = f"catalogue: λ(θ) of {material.name}"
    if material.lambda_T:
        tested, label = claim.theta, basis.schools.label_mean
        there, here = (value_of(conductivity_at(material.lambda_T, theta)) for theta in (tested, label))
        aged = aged * given(
            here,
            "lambda_at_label",
            sentence("λ at {at}, the label of the Basis", at=(label, "temperature")),
            "W/(m·K)",
            rows,
        )
        aged = aged / given(
            there, "lambda_at_test", sentence("λ at {at}, the test", at=(tested, "temperature")), "W/(m·K)", rows
        )
    if claim.age == "fresh" and material.lambda_fresh:
        rows = f"catalogue: {material.source}"
        aged = aged * given(material.lambda_, "lambda_aged", "aged", "W/(m·K)", rows)
        aged = aged / given(material.lambda_fresh, "lambda_fresh", "fresh", "W/(m·K)", rows)
    aged = named(aged, "lambda_used", "conductivity of the claim, aged, at the label", "W/(m·K)", "by ratio")
    changed = replace(layer, d=claim.d, lambda_entered=value_of(aged))
    wall = replace(assembly, layers=(*assembly.layers[:index], changed, *assembly.layers[index + 1 :]))
    found = wall_figures(wall, catalogue, basis, "0", direction=direction, given=given)
    left = found.figures["R_clear"].number / R
    return Checked(
        lambda_claimed=claimed,
        lambda_aged=aged,
        lambda_catalogue=material.lambda_,
        wall=found,
        remains=named(left, "share_left", "clear-wall R over the claim", "", "R_clear/R_claim"),
    )
