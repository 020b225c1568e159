"""The practice's own cost, carbon and stock of materials, and the catalogue at these rates."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.errors import Collector
from nimble_shell.core.materials import CATALOGUE, Catalogue, Material
from nimble_shell.core.quantities.sentence import sentence


@dataclass(frozen=True, slots=True, kw_only=True)
class Rate:
    """The practice's own cost, carbon and stock of a material, in place of the catalogue's examples."""

    material: str
    cost: float | None = None  #: [currency per m³]
    carbon: float | None = None  #: [kg CO₂e/kg]
    stock: tuple[float, ...] | None = None  #: [m]

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("cost", "carbon"):
            value = getattr(self, name)
            least = -10.0 if name == "carbon" else 0.0  # stored carbon may be negative, a price may not
            check.check(
                value is None or least <= value < 1e7,
                (name,),
                "rate_negative" if value is not None and value < least else "rate_out_of_range",
                f"{name} of {self.material} is {value}",
                "a rate is zero or above",
            )
        for at, d in enumerate(self.stock or ()):
            check.check(
                0 < d <= 3,
                ("stock", at),
                "thickness_not_positive",
                sentence("stock size is {v1}", v1=(d, "distance")),
                sentence("above 0, up to {v1}", v1=(3.0, "distance")),
            )
        check.refuse()


class PricedCatalogue(dict[str, Material]):
    """A catalogue that can be a cache's key: the same object for the same own materials and rates."""

    __slots__ = ()

    def __hash__(self) -> int:  # type: ignore[override]  # a dict says that it has none
        return id(self)

    def __eq__(self, other: object) -> bool:
        return self is other


_PRICED: dict[tuple[tuple[Material, ...], tuple[Rate, ...]], PricedCatalogue] = {}
_MOST_PRICED = 64


def priced_catalogue(own: tuple[Material, ...], rates: tuple[Rate, ...]) -> Catalogue:
    """The shipped catalogue with a project's own materials and the practice's rates. Kept, so that caches hit.

    Rates are in currency per m³ and kg CO₂e/kg, stock sizes in m.
    """
    known = _PRICED.get((own, rates))
    if known is not None:
        return known
    found = PricedCatalogue(CATALOGUE)
    found.update({material.key: material for material in own})
    for rate in rates:
        material = found.get(rate.material)
        if material is not None:
            found[rate.material] = replace(
                material,
                cost=material.cost if rate.cost is None else rate.cost,
                carbon=material.carbon if rate.carbon is None else rate.carbon,
                stock=material.stock if rate.stock is None else rate.stock,
                rates="the practice's own rates",
            )
    if len(_PRICED) >= _MOST_PRICED:
        _PRICED.pop(next(iter(_PRICED)))
    _PRICED[own, rates] = found
    return found
