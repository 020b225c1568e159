"""What a material is to the calculation."""

from __future__ import annotations

import itertools
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities import limits
from nimble_shell.core.quantities.limits import within
from nimble_shell.core.quantities.sentence import sentence

#: (θ [°C], λ [W/(m·K)]) pairs, rising in θ; linear between, held at the ends.
ConductivityTable = tuple[tuple[float, float], ...]

#: Names of the drawn patterns.
Hatching = Literal["foam", "fibre", "straw", "osb", "timber", "grain", "board", "concrete", "masonry", "gravel",
                   "earth", "glass", "steel", "membrane"]  # fmt: skip
MouldClass = Literal["very sensitive", "sensitive", "medium resistant", "resistant"]
Wood = Literal["no", "solid", "board", "straw"]
SealingSurface = Literal["foam", "wood", "concrete", "metal", "membrane", "render", "board", "none"]

ABSOLUTE_ZERO = -273.15  #: [°C]


@dataclass(frozen=True, slots=True, kw_only=True)
class Material:
    """A generic building material.

    λ is the design value, for foams the aged one, at 10 °C mean. Cost and carbon are examples to be replaced by
    the practice's own figures. What is None here is not known of the material itself; `derived` says what is taken in
    its place. Nothing is ever looked up by its key or its name.
    """

    key: str
    name: str
    family: str  #: "foam", "panel", "timber", "concrete", …: groups the list and picks the hatch
    hatch: Hatching
    lambda_: float  #: design thermal conductivity, aged [W/(m·K)]
    rho: float  #: density [kg/m³]
    c: float  #: specific heat capacity [J/(kg·K)]
    mu: float = 1.0  #: water vapour resistance factor, dry cup or the lower of two [-]
    sd: float | None = None  #: equivalent air layer of a sheet, whatever its thickness [m]
    lambda_fresh: float | None = None  #: as made, before blowing gas is lost [W/(m·K)]
    lambda_T: ConductivityTable = ()  #: aged conductivity against temperature
    emissivity: float = 0.9  #: of its surface, towards an air layer [-]
    cost: float = 0.0  #: example, currency per m³
    carbon: float = 0.0  #: example, cradle to gate [kg CO₂e/kg]
    stock: tuple[float, ...] = ()  #: thicknesses commonly kept in stock [m]
    usual: tuple[float, float] | None = None  #: common range of thickness [m]; outside it is remarked, not refused
    w80: float | None = None  #: water held at 80 % relative humidity; 0 stores nothing that counts [kg/m³]
    w_f: float | None = None  #: free water saturation [kg/m³]
    A_w: float | None = None  #: water absorption coefficient; 0 carries no liquid [kg/(m²·s^0.5)]
    mu_dry: float | None = None  #: water vapour resistance factor in the dry cup, if μ is the wet one's [-]
    sd_moist: float | None = None  #: equivalent air layer of a sheet that opens, where it is moist [m]
    lambda_moist: float | None = None  #: growth of λ with each per cent of water by mass [%]
    w_fresh: float = 0.0  #: water it brings along, poured or plastered wet [kg/m³]
    mould: MouldClass | None = None  #: sensitivity to mould, untreated, dusted as on a site
    feeds_mould: bool | None = None  #: whether mould can live on it: wood, paper, fibres that grew
    wood: Wood | None = None  #: which limits of wood it has to keep
    wets: bool | None = None  #: whether it swells, rots or loses its use when it is wet
    takes_up: bool | None = None  #: whether its face takes up water that condenses on it
    surface: SealingSurface | None = None  #: what a sealant or tape finds on it
    source: str = ""
    rates: str = "catalogue, example"  #: where cost and carbon come from

    def __post_init__(self) -> None:
        check = Collector()
        conductivity = "conductivity_not_positive"
        within(
            check, self.lambda_, limits.CONDUCTIVITY, ("lambda",), conductivity, "thermal conductivity", "conductivity"
        )
        if self.lambda_fresh is not None:
            within(check, self.lambda_fresh, limits.CONDUCTIVITY, ("lambda_fresh",), conductivity, "fresh conductivity",
                   "conductivity")  # fmt: skip
        within(check, self.rho, limits.DENSITY, ("rho",), "density_not_positive", "density", "density")
        within(check, self.c, limits.SPECIFIC_HEAT, ("c",), "density_not_positive", "specific heat", "specific_heat")
        within(check, self.emissivity, (1e-3, 1.0), ("emissivity",), "emissivity_out_of_range", "emissivity")
        within(check, self.cost, limits.PRICE, ("cost",), "rate_negative", "cost per m³")
        within(check, self.carbon, limits.CARBON, ("carbon",), "rate_out_of_range", "carbon")
        if self.sd is not None:
            within(check, self.sd, limits.AIR_LAYER, ("sd",), "sd_negative", "s_d", "distance")
        for name in ("stock", "usual"):
            for at, d in enumerate(getattr(self, name) or ()):
                within(check, d, limits.STOCK, (name, at), "thickness_not_positive", f"{name} thickness", "length")
        check.check(bool(self.name.strip()), ("name",), "name_length", "the name is empty", "give it a name")
        within(check, self.mu, limits.VAPOUR_FACTOR, ("mu",), "mu_not_positive", "μ")
        check_table(self.lambda_T, check, ("lambda_T",))
        self._check_water(check)
        check.refuse()

    def _check_water(self, check: Collector) -> None:
        for name in ("w80", "w_f", "A_w", "sd_moist", "lambda_moist", "w_fresh"):
            value = getattr(self, name)
            check.check(value is None or 0 <= value < 10_000, (name,), "water_out_of_range", f"{name} is {value}",
                        "zero or above")  # fmt: skip
        if self.mu_dry is not None:
            within(check, self.mu_dry, limits.VAPOUR_FACTOR, ("mu_dry",), "mu_not_positive", "μ")
        three = (self.w80, self.w_f, self.A_w)
        check.check(
            self.w80 == 0 or all(one is None for one in three) or all(one is not None for one in three),
            ("w80",), "sorption_in_part", "water at 80 %, at saturation and absorption are not all given",
            "give the three of them, or none; 0 at 80 % stores nothing",
        )  # fmt: skip
        if self.w80 and self.w_f is not None:
            check.check(self.w80 < 0.8 * self.w_f, ("w_f",), "sorption_not_rising",
                        sentence(f"it holds {{v1}} at 80 % and {self.w_f:g} at saturation", v1=(self.w80, "density")),
                        "at saturation it holds more than 1.25 times as much")  # fmt: skip


def check_table(table: ConductivityTable, check: Collector, path: tuple[str | int, ...]) -> None:
    """Note what is wrong with a λ(T) table."""
    rising = all(a[0] < b[0] for a, b in itertools.pairwise(table))
    check.check(rising, path, "temperatures_not_rising", "temperatures of the λ(T) table do not rise", "sort the rows")
    for row, (theta, lambda_) in enumerate(table):
        code = "conductivity_not_positive"
        within(check, theta, limits.TEMPERATURE, (*path, row), code, "temperature of the λ(T) table", "temperature")
        within(check, lambda_, limits.CONDUCTIVITY, (*path, row), code, "λ of the table", "conductivity")


Catalogue = Mapping[str, Material]
