"""The whole file: its blocks, and what they take from one another."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Literal

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.transmission.sums import sums
from nimble_shell.formats.neutral_shell.air import (
    BalanceCase,
    BlowerDoorCase,
    LeakageCase,
    VentilationCase,
    answer_balance,
    answer_blower_door,
    answer_leakage,
    answer_ventilation,
)
from nimble_shell.formats.neutral_shell.geometry import GeometryCase, answer_geometry, take_off_of
from nimble_shell.formats.neutral_shell.ground import GroundCase, grounds_of
from nimble_shell.formats.neutral_shell.loads import (
    CoolingDayCase,
    EnergyBlock,
    HeatingLoadCase,
    answer_cooling_day,
    answer_energy,
    answer_heating_load,
)
from nimble_shell.formats.neutral_shell.sun import SunCase, answer_sun
from nimble_shell.formats.neutral_shell.transmission import (
    GlazingCase,
    TransmissionCase,
    answer_glazing,
    answer_transmission,
    transmission_of,
)
from nimble_shell.formats.neutral_shell.values import placed
from nimble_shell.formats.neutral_shell.windows import WindowCase, windows_of
from nimble_shell.formats.strict import Strict


class ShellCase(Strict):
    kind: Literal["shell"] = "shell"
    name: str = ""
    geometry: GeometryCase | None = None
    ground: list[GroundCase] | None = None
    windows: list[WindowCase] | None = None
    transmission: TransmissionCase | None = None
    leakage: LeakageCase | None = None
    blower_door: BlowerDoorCase | None = None
    balance: BalanceCase | None = None
    ventilation: VentilationCase | None = None
    sun: SunCase | None = None
    heating_load: HeatingLoadCase | None = None
    cooling_day: CoolingDayCase | None = None
    glazing: GlazingCase | None = None
    energy: EnergyBlock | None = None


_BLOCKS = tuple(name for name in ShellCase.model_fields if name not in ("kind", "name"))


def read(case: dict[str, Any]) -> ShellCase:
    """A case as it stands in its file.

    Raises
    ------
    pydantic.ValidationError
        With what is wrong in the file.
    """
    return ShellCase.model_validate(case)


def compute(case: ShellCase) -> dict[str, Any]:
    """Answer a case, block by block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    if all(getattr(case, name) is None for name in _BLOCKS):
        raise DomainError(Issue(path=(), code="nothing_asked", message="there is no block in it",
                                hint=f"give at least one of {', '.join(_BLOCKS)}"))  # fmt: skip
    answer: dict[str, Any] = {}
    takeoff = None if case.geometry is None else take_off_of(case.geometry)
    if takeoff is not None:
        answer["geometry"] = answer_geometry(takeoff)
    grounds = grounds_of(case.ground or [], takeoff)
    if case.ground is not None:
        answer["ground"] = {name: one.answer for name, one in grounds.items()}
    windows = windows_of(case.windows or [])
    if case.windows is not None:
        answer["windows"] = {name: one.answer for name, one in windows.items()}
    building = whole = None
    if case.transmission is not None:
        building = parts = transmission_of(case.transmission, takeoff, windows, grounds)
        whole = placed("transmission", lambda: sums(parts))
        answer["transmission"] = answer_transmission(whole)
    if case.leakage is not None:
        answer["leakage"] = answer_leakage(case.leakage, takeoff)
    if case.heating_load is not None:
        answer["heating_load"] = answer_heating_load(case.heating_load, whole)
    if case.energy is not None:
        answer["energy"] = answer_energy(case.energy, building, whole, grounds)
    return answer | _alone(case)


def _alone(case: ShellCase) -> dict[str, Any]:
    """Blocks that name nothing in another."""
    asked: dict[str, tuple[Any, Callable[[Any], dict[str, Any]]]] = {
        "blower_door": (case.blower_door, answer_blower_door), "balance": (case.balance, answer_balance),
        "ventilation": (case.ventilation, answer_ventilation), "sun": (case.sun, answer_sun),
        "cooling_day": (case.cooling_day, answer_cooling_day), "glazing": (case.glazing, answer_glazing),
    }  # fmt: skip
    return {name: answer(block) for name, (block, answer) in asked.items() if block is not None}
