"""A number that remembers the expression that made it."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Protocol, cast

import numpy as np


@dataclass(frozen=True, slots=True)
class Label:
    """How a quantity is called, and where it comes from."""

    symbol: str  #: an identifier, such as "R_tot" or "lambda_3"
    text: str  #: in words
    unit: str  #: as printed: "m²·K/W"; empty for a pure number
    source: str = ""  #: clause for a computed quantity, origin for an input


@dataclass(frozen=True, slots=True, eq=False)
class Traced:
    """A value, the operation and operands that made it, and optionally a name."""

    value: float
    op: str = "input"
    args: tuple[Traced, ...] = ()
    label: Label | None = None

    def __add__(self, other: Num) -> Traced:
        return _binary("+", self, other)

    def __radd__(self, other: float) -> Traced:
        return _binary("+", other, self)

    def __sub__(self, other: Num) -> Traced:
        return _binary("-", self, other)

    def __rsub__(self, other: float) -> Traced:
        return _binary("-", other, self)

    def __mul__(self, other: Num) -> Traced:
        return _binary("*", self, other)

    def __rmul__(self, other: float) -> Traced:
        return _binary("*", other, self)

    def __truediv__(self, other: Num) -> Traced:
        return _binary("/", self, other)

    def __rtruediv__(self, other: float) -> Traced:
        return _binary("/", other, self)


Num = float | Traced

#: What a formula may call besides its operators; named as in `math`.
FUNCTIONS = ("exp", "log", "sqrt", "sin", "cos", "sinh", "cosh", "atan2")
_NUMPY = {"atan2": "arctan2"}


class Given(Protocol):
    """Makes an input of a calculation: a plain float, or a traced one that knows its origin."""

    def __call__(self, value: float, symbol: str, text: str, unit: str, origin: str) -> Num: ...


def plain(value: float, symbol: str, text: str, unit: str, origin: str) -> Num:  # noqa: ARG001 - a Given
    """The live path: an input is its value."""
    return value


def traced(value: float, symbol: str, text: str, unit: str, origin: str) -> Num:
    """The showing path: an input remembers its name, unit and origin."""
    return Traced(value, label=Label(symbol, text, unit, origin))


def named(number: Num, symbol: str, text: str, unit: str, clause: str = "") -> Num:
    """Give an intermediate result a name of its own in the working; does nothing to a float."""
    if isinstance(number, Traced):
        if number.label is not None:  # an alias: keep the older name's own step
            return Traced(number.value, "=", (number,), Label(symbol, text, unit, clause))
        return replace(number, label=Label(symbol, text, unit, clause))
    return number


def value_of(number: Num) -> float:
    """The value alone."""
    return number.value if isinstance(number, Traced) else number


def exp(number: Num) -> Num:
    """e to the power of the number."""
    return apply("exp", number)


def apply(function: str, *numbers: Num) -> Num:
    """A function of FUNCTIONS of one or two numbers: floats, arrays (by numpy) or traced ones alike."""
    if any(isinstance(number, Traced) for number in numbers):
        args = tuple(_lift(number) for number in numbers)
        return Traced(getattr(math, function)(*(one.value for one in args)), function, args)
    if any(isinstance(number, np.ndarray) for number in numbers):
        return cast("Num", getattr(np, _NUMPY.get(function, function))(*numbers))
    return cast("float", getattr(math, function)(*numbers))


def power(number: Num, exponent: float) -> Num:
    """The number to a constant power."""
    if isinstance(number, Traced):
        return Traced(number.value**exponent, "**", (number, _constant(exponent)))
    return float(number**exponent)


def _constant(value: float) -> Traced:
    return Traced(value, "constant")


def _lift(number: Num) -> Traced:
    return number if isinstance(number, Traced) else _constant(float(number))


def _binary(op: str, a: Num, b: Num) -> Traced:
    left, right = _lift(a), _lift(b)
    x, y = left.value, right.value
    value = x + y if op == "+" else x - y if op == "-" else x * y if op == "*" else x / y
    if op == "+" and left.op == "constant" and x == 0.0:
        return right  # the start of a sum() is not part of the formula
    return Traced(value, op, (left, right))
