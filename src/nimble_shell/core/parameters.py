"""Parameters of systems and joints: what a designer turns, with its range, checked in one way."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from nimble_shell.core.errors import Collector, Path

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

    def allows(self, value: Value) -> bool:
        """Whether a value lies in the range."""
        return not isinstance(value, str) and self.least <= value <= self.most

    @property
    def range(self) -> str:
        """The range, in words."""
        return f"from {self.least:g} to {self.most:g}"


@dataclass(frozen=True, slots=True, kw_only=True)
class Choice:
    """One of several words the designer picks."""

    key: str
    text: str
    start: str
    options: tuple[str, ...]

    def allows(self, value: Value) -> bool:
        """Whether a value is one of the options."""
        return value in self.options

    @property
    def range(self) -> str:
        """The options, in words."""
        return f"one of {', '.join(self.options)}"


def chosen_values(
    whose: str,
    parameters: Iterable[Parameter | Choice],
    values: Mapping[str, Value] | None,
    check: Collector,
    path: Path = (),
) -> dict[str, Value]:
    """Every parameter with its value: the one given, else its start.

    Parameters
    ----------
    whose : str
        Name of what has the parameters.
    parameters : iterable of Parameter or Choice
    values : mapping, optional
        What differs from the start; SI.
    check : Collector
        Takes note of unknown parameters and of values out of range.
    path : tuple
        Where the values stand.
    """
    known = {parameter.key: parameter for parameter in parameters}
    chosen: dict[str, Value] = {key: parameter.start for key, parameter in known.items()}
    for key, value in (values or {}).items():
        parameter = known.get(key)
        check.check(parameter is not None, (*path, key), "unknown_parameter", f"{whose} has no parameter “{key}”",
                    f"one of {', '.join(known)}")  # fmt: skip
        if parameter is not None:
            check.check(parameter.allows(value), (*path, key), "parameter_out_of_range",
                        f"{parameter.text} is {value}", parameter.range)  # fmt: skip
        chosen[key] = value
    return chosen


def word(values: Mapping[str, Value], key: str) -> str:
    """A chosen word."""
    return str(values[key])


def number(values: Mapping[str, Value], key: str) -> float:
    """A numeric parameter."""
    value = values[key]
    assert not isinstance(value, str)
    return value
