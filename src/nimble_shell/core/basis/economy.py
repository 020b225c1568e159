"""What the practice pays and reckons with: its own rates, stock sizes, energy and the life that is looked at."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector


@dataclass(frozen=True, slots=True, kw_only=True)
class Economy:
    """Energy and life; starting values are examples."""

    currency: str = ""
    heat_price: float = 0.12  #: of delivered energy for heating [currency/kWh]
    heat_yield: float = 0.95  #: heat out of a unit of it [-]
    heat_carbon: float = 0.20  #: [kg CO₂e/kWh]
    cool_price: float = 0.25  #: [currency/kWh]
    cool_yield: float = 3.0  #: [-]
    cool_carbon: float = 0.35  #: [kg CO₂e/kWh]
    life: float = 50.0  #: [a]
    discount: float = 0.02  #: real, per year [-]

    def __post_init__(self) -> None:
        check = Collector()
        for name in ("heat_price", "heat_carbon", "cool_price", "cool_carbon"):
            value = getattr(self, name)
            check.check(0 <= value < 1e4, (name,), "rate_negative" if value < 0 else "rate_out_of_range",
                        f"{name.replace('_', ' ')} is {value:g}", "zero or above")  # fmt: skip
        for name in ("heat_yield", "cool_yield"):
            value = getattr(self, name)
            check.check(0.1 <= value <= 20, (name,), "yield_out_of_range", f"{name.replace('_', ' ')} is {value:g}",
                        "from 0.1 to 20")  # fmt: skip
        check.check(0 < self.life <= 200, ("life",), "life_not_positive", f"life is {self.life:g} years",
                    "above 0 and up to 200 years")  # fmt: skip
        check.check(-0.05 <= self.discount <= 0.2, ("discount",), "discount_out_of_range",
                    f"discount is {100 * self.discount:g} %", "from −5 to 20 % a year, after inflation")  # fmt: skip
        check.refuse()

    @property
    def present_years(self) -> float:
        """Years of today's money that a yearly sum over the life is worth. [a]"""
        if abs(self.discount) < 1e-9:
            return self.life
        return float((1 - (1 + self.discount) ** -self.life) / self.discount)
