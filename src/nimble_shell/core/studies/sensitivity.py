"""Which input moves the answer most: each varied by itself, and what money over the life and the needed core do."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly, Layer, Member
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.studies.sweep import studied_layer
from nimble_shell.core.studies.thickness import crossing
from nimble_shell.core.thermal.amounts import wall_amounts
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.thermal.life_cost import life_cost
from nimble_shell.core.working import value_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Swing:
    """One input at its low and its high value."""

    key: str
    text: str
    money: tuple[float, float]  #: change of money over the life [currency/m²]
    core: tuple[float | None, float | None]  #: core that reaches what is asked [m]


@dataclass(frozen=True, slots=True)
class _Case:
    assembly: Assembly
    basis: Basis
    cost_factor: float = 1.0


def sensitivity(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    *,
    asked: float | None,
    direction: Direction = "horizontal",
) -> tuple[Swing, ...]:
    """Every input varied by itself, the one that moves the money most first.

    Parameters
    ----------
    assembly : Assembly
        With a layer marked as core.
    catalogue : mapping of key to Material
    basis : Basis
    asked : float or None
        Clear-wall R wanted. [m²·K/W]
    direction : {"horizontal", "up", "down"}
    """
    studied_layer(assembly)

    def money(case: _Case) -> float:
        R = value_of(clear_wall_R(case.assembly, catalogue, case.basis, direction=direction))
        amounts = {key: value_of(value) for key, value in wall_amounts(case.assembly, catalogue).items()}
        panels = [case.assembly.layers[at] for at in case.assembly.panels]
        core = sum(one.d_mean * (1 - sum(one.shares())) * catalogue[one.material].cost for one in panels)
        cost = amounts["cost"] + core * (case.cost_factor - 1)
        return value_of(life_cost(1 / R, cost, amounts["carbon"], case.basis).money)

    def needed(case: _Case) -> float | None:
        if asked is None:
            return None
        found, _ = crossing(case.assembly, catalogue, case.basis, asked, direction)
        return None if found is None else value_of(found)

    now = _Case(assembly, basis)
    start = money(now)
    swings = []
    for key, (text, vary) in _inputs(assembly, catalogue).items():
        cases = []
        for sign in (-1, 1):
            try:
                cases.append(vary(now, sign))
            except DomainError:
                break
        if len(cases) == 2:
            swings.append(
                Swing(
                    key=key,
                    text=text,
                    money=(money(cases[0]) - start, money(cases[1]) - start),
                    core=(needed(cases[0]), needed(cases[1])),
                )
            )
    return tuple(sorted(swings, key=lambda swing: -max(abs(one) for one in swing.money)))


def _inputs(assembly: Assembly, catalogue: Catalogue) -> dict[str, tuple[str, Callable[[_Case, int], _Case]]]:
    def economy(**factors: float) -> Callable[[_Case, int], _Case]:
        def vary(case: _Case, sign: int) -> _Case:
            now = case.basis.economy
            changed = {key: getattr(now, key) * (1 + sign * factor) for key, factor in factors.items()}
            return replace(case, basis=replace(case.basis, economy=replace(now, **changed)))

        return vary

    def discount(case: _Case, sign: int) -> _Case:
        now = case.basis.economy
        return replace(case, basis=replace(case.basis, economy=replace(now, discount=now.discount + sign * 0.01)))

    def conductivity(case: _Case, sign: int) -> _Case:
        def more(layer: Layer) -> Layer:
            lambda_ = layer.lambda_entered or catalogue[layer.material].lambda_
            return replace(layer, lambda_entered=lambda_ * (1 + sign * 0.1))

        return replace(case, assembly=_panels(case.assembly, more))

    def members(case: _Case, sign: int) -> _Case:
        def wider(layer: Layer) -> Layer:
            return replace(layer, members=tuple(_wider(member, 1 + sign * 0.25) for member in layer.members))

        return replace(case, assembly=_panels(case.assembly, wider))

    def outdoors(case: _Case, sign: int) -> _Case:
        climate = case.basis.climate
        warmer = replace(climate, theta_e=tuple(theta + sign for theta in climate.theta_e))
        return replace(case, basis=replace(case.basis, climate=warmer))

    def indoors(case: _Case, sign: int) -> _Case:
        indoor = case.basis.indoor
        return replace(
            case, basis=replace(case.basis, indoor=replace(indoor, theta_heating=indoor.theta_heating + sign))
        )

    found: dict[str, tuple[str, Callable[[_Case, int], _Case]]] = {
        "lambda": ("λ of the core ± 10 %", conductivity),
        "core_cost": ("price of the core ± 20 %", lambda case, sign: replace(case, cost_factor=1 + sign * 0.2)),
        "energy": ("price of energy ± 30 %", economy(heat_price=0.3, cool_price=0.3)),
        "yield": ("efficiency of heating and cooling ± 20 %", economy(heat_yield=0.2, cool_yield=0.2)),
        "life": ("life ± 20 %", economy(life=0.2)),
        "discount": ("discount ± 1 point", discount),
        "outdoors": (sentence("outdoors ± {step} all year", step=(1.0, "difference")), outdoors),
        "indoors": (sentence("room ± {step} when heated", step=(1.0, "difference")), indoors),
    }
    if any(assembly.layers[at].members for at in assembly.panels):
        found["members"] = ("members in the core ± 25 %", members)
    return found


def _panels(assembly: Assembly, change: Callable[[Layer], Layer]) -> Assembly:
    """The same with its core changed, and the panels that go with it."""
    panels = assembly.panels
    return replace(
        assembly, layers=tuple(change(one) if at in panels else one for at, one in enumerate(assembly.layers))
    )


def _wider(member: Member, factor: float) -> Member:
    if member.share is not None:
        return replace(member, share=member.share * factor)
    assert member.width is not None
    return replace(member, width=member.width * factor)
