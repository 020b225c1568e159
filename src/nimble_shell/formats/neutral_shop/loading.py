"""Loading of the neutral shop case: trucks in set order."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector
from nimble_shell.core.shop.loading import Load, NoLoad, Truck, load
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive, only_once
from nimble_shell.formats.strict import Strict


class LoadCase(Strict):
    name: str
    length: Positive
    thickness: Positive
    mass_kg: NotNegative


class TruckCase(Strict):
    stacks: Annotated[int, Field(strict=True, ge=1, le=12)]
    max_height: Positive
    max_mass_kg: Positive
    max_length: Positive
    overhang: NotNegative


class LoadingCase(Strict):
    kind: Literal["loading"] = "loading"
    pieces: list[LoadCase]
    truck: TruckCase


def compute(case: LoadingCase) -> dict[str, Any]:
    """Answer a case."""
    check = Collector()
    only_once(check, (one.name for one in case.pieces), "pieces")
    check.refuse()
    truck = case.truck
    found = load(
        [Load(name=one.name, length=one.length, thickness=one.thickness, mass=one.mass_kg) for one in case.pieces],
        Truck(stacks=truck.stacks, max_height=truck.max_height, max_mass=truck.max_mass_kg,
              max_length=truck.max_length, overhang=truck.overhang),
    )  # fmt: skip
    if isinstance(found, NoLoad):
        return {"status": "infeasible", "reason": found.reason}
    count = len(found.trucks)
    trucks = [[[case.pieces[at].name for at in stack] for stack in stacks] for stacks in found.trucks]
    return {"status": "optimal", "bound": count, "objective": {"trucks": count}, "trucks": trucks}
