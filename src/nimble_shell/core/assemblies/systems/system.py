"""The common interface of the shell systems."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from itertools import count

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer, Member
from nimble_shell.core.errors import Collector

Value = float | str


@dataclass(frozen=True, slots=True, kw_only=True)
class Parameter:
    """A number the designer turns; SI. The limits are the system's own and are refused beyond."""

    key: str
    text: str
    start: float
    least: float
    most: float
    dimension: str = "length"


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """One of several words the designer picks."""

    key: str
    text: str
    start: str
    options: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class System:
    """A shell system as a kind of the product."""

    key: str
    name: str
    anatomy: str  #: outside → inside, in words
    parameters: tuple[Parameter | Choice, ...]
    build: Callable[[Mapping[str, Value]], tuple[Layer, ...]]
    cautions: tuple[str, ...]

    def assembly(self, assembly_id: str, name: str, values: Mapping[str, Value] | None = None) -> Assembly:
        """A build-up of this system.

        Parameters
        ----------
        assembly_id, name : str
        values : mapping, optional
            Parameters that differ from their start values; SI.

        Raises
        ------
        DomainError
            If a parameter is unknown or out of its range.
        """
        check = Collector()
        known = {parameter.key: parameter for parameter in self.parameters}
        chosen: dict[str, Value] = {parameter.key: parameter.start for parameter in self.parameters}
        for key, value in (values or {}).items():
            parameter = known.get(key)
            check.check(
                parameter is not None,
                (key,),
                "unknown_parameter",
                f"{self.name} has no parameter “{key}”",
                f"one of {', '.join(known)}",
            )
            if isinstance(parameter, Parameter):
                good = not isinstance(value, str) and parameter.least <= value <= parameter.most
                check.check(
                    good,
                    (key,),
                    "parameter_out_of_range",
                    f"{parameter.text} is {value}",
                    f"from {parameter.least:g} to {parameter.most:g}",
                )
            elif isinstance(parameter, Choice):
                check.check(
                    value in parameter.options,
                    (key,),
                    "parameter_out_of_range",
                    f"{parameter.text} is {value}",
                    f"one of {', '.join(parameter.options)}",
                )
            chosen[key] = value
        check.refuse()
        return Assembly(id=assembly_id, name=name, system=self.key, layers=self.build(chosen))


class Stack:
    """Collects layers inside → outside and numbers them."""

    def __init__(self) -> None:
        self.layers: list[Layer] = []
        self._ids: Iterator[int] = count(1)

    def add(self, material: str, d: float, *, core: bool = False, members: tuple[Member, ...] = ()) -> None:
        self.layers.append(Layer(id=f"l{next(self._ids)}", material=material, d=d, studied=core, members=members))

    def air(self, d: float, gap: AirGap, *, members: tuple[Member, ...] = ()) -> None:
        self.layers.append(Layer(id=f"l{next(self._ids)}", d=d, air=gap, members=members))


def number(values: Mapping[str, Value], key: str) -> float:
    """A numeric parameter."""
    value = values[key]
    assert not isinstance(value, str)
    return value
