"""What a square metre of a build-up costs over a life: energy by degree hours, money and carbon."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.climate import cooling_degree_hours, heating_degree_hours
from nimble_shell.core.working import Given, Num, named, plain


@dataclass(frozen=True, slots=True, kw_only=True)
class LifeCost:
    """Per square metre of the build-up."""

    heat: Num  #: heat lost in heated hours [kWh/(m²·a)]
    cool: Num  #: heat gained in cooled hours, air temperature only [kWh/(m²·a)]
    yearly: Num  #: money for energy [currency/(m²·a)]
    money: Num  #: materials and energy over the life, present value [currency/m²]
    carbon_life: Num  #: materials and energy over the life [kg CO₂e/m²]


@lru_cache(maxsize=64)
def degree_hours(basis: Basis) -> tuple[float, float]:
    """Heating and cooling degree hours of the Basis. [K·h/a]"""
    indoor = basis.indoor
    return (
        heating_degree_hours(basis.climate, indoor.theta_heating, indoor.heated_below),
        cooling_degree_hours(basis.climate, indoor.theta_cooling),
    )


def life_cost(U: Num, cost: Num, carbon: Num, basis: Basis, *, given: Given = plain) -> LifeCost:
    """Energy, money and carbon of a build-up.

    Parameters
    ----------
    U : float, ndarray or Traced
        Clear-wall transmittance. [W/(m²·K)]
    cost, carbon : float, ndarray or Traced
        Of its materials. [currency/m²], [kg CO₂e/m²]
    basis : Basis
        Climate, indoor regime and economy.
    given : Given
        `plain` for figures, `traced` for working.

    Notes
    -----
    Transmission only, by air temperature: sun, night sky and the building's own gains are not in it. Energy is paid
    yearly at a constant real price; the present value of N years at discount r is (1 − (1 + r)^−N)/r times a year's.
    """
    economy = basis.economy
    heating, cooling = degree_hours(basis)
    HDH = given(heating, "HDH", "heating degree hours", "K·h/a", "Basis: climate and indoor regime, normal scatter")
    CDH = given(cooling, "CDH", "cooling degree hours", "K·h/a", "Basis: climate and indoor regime, normal scatter")
    heat = named(U * HDH / 1000, "Q_heat", "heat lost in heated hours", "kWh/(m²·a)", "U·HDH")
    cool = named(U * CDH / 1000, "Q_cool", "heat gained in cooled hours", "kWh/(m²·a)", "U·CDH")
    origin = "Basis: economy"
    bought = [
        named(
            need / given(getattr(economy, f"{kind}_yield"), f"eta_{kind}", f"yield of {kind}ing", "", origin),
            f"E_{kind}",
            f"energy bought for {kind}ing",
            "kWh/(m²·a)",
            "Q/η",
        )
        for kind, need in (("heat", heat), ("cool", cool))
    ]
    prices = [
        given(getattr(economy, f"{kind}_price"), f"price_{kind}", f"price, {kind}ing", "per kWh", origin)
        for kind in ("heat", "cool")
    ]
    factors = [
        given(getattr(economy, f"{kind}_carbon"), f"carbon_{kind}", f"carbon, {kind}ing", "kg CO₂e/kWh", origin)
        for kind in ("heat", "cool")
    ]
    yearly = named(bought[0] * prices[0] + bought[1] * prices[1], "K_year", "energy a year", "per m²·a", "Σ E·price")
    years = given(economy.present_years, "a_present", "years of today's money", "a",
                  f"{economy.life:g} years at {100 * economy.discount:g} %")  # fmt: skip
    money = named(cost + yearly * years, "K_life", "money over the life", "per m²", "materials + energy·present years")
    life = given(economy.life, "a_life", "years counted", "a", origin)
    yearly_carbon = named(bought[0] * factors[0] + bought[1] * factors[1], "G_year", "carbon of energy a year",
                          "kg CO₂e/(m²·a)", "Σ E·factor")  # fmt: skip
    carbon_life = named(carbon + yearly_carbon * life, "G_life", "carbon over the life", "kg CO₂e/m²",
                        "materials + energy·life")  # fmt: skip
    return LifeCost(heat=heat, cool=cool, yearly=yearly, money=money, carbon_life=carbon_life)
