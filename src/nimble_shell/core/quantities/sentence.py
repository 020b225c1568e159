"""Sentences that carry their values: formatted where they are shown, in the units of who reads them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from nimble_shell.core.quantities.units import UnitSystem, show, unit_for


@dataclass(frozen=True, slots=True)
class Quantity:
    """A value in a sentence."""

    value: float  #: in SI (temperatures in °C)
    dimension: str  #: key of DIMENSIONS


class Sentence(str):
    """A text with values in it. As a plain text it is in SI; `in_units` says it in any system."""

    template: str  #: with {name} where a value stands
    values: dict[str, Quantity]

    def __new__(cls, template: str, values: dict[str, Quantity]) -> Sentence:
        made = super().__new__(cls, _said(template, values, "SI"))
        made.template, made.values = template, values
        return made

    def __reduce__(self) -> tuple[Any, ...]:
        """As it is, through a worker."""
        return Sentence, (self.template, self.values)


def sentence(template: str, **values: tuple[float | None, str]) -> Sentence:
    """A sentence with its values.

    Parameters
    ----------
    template : str
        With {name} where a value stands; its unit is put behind it.
    values : (float, str)
        In SI, and the key of its dimension.
    """
    return Sentence(template, {name: Quantity(value or 0.0, of) for name, (value, of) in values.items()})


def composed(template: str, **parts: str) -> Sentence:
    """A sentence out of others, whose values it takes along.

    Parameters
    ----------
    template : str
        With {name} where a part stands.
    parts : str or Sentence
    """
    values: dict[str, Quantity] = {}
    for name, part in parts.items():
        inner = str(part)
        if isinstance(part, Sentence):
            inner = part.template
            for key, one in part.values.items():
                values[f"{name}_{key}"] = one
                inner = inner.replace(f"{{{key}}}", f"{{{name}_{key}}}")
        template = template.replace(f"{{{name}}}", inner)
    return Sentence(template, values)


def joined(separator: str, parts: Iterable[str]) -> Sentence:
    """Sentences one after the other."""
    every = {f"p{at}": part for at, part in enumerate(parts)}
    return composed(separator.join(f"{{{name}}}" for name in every), **every)


def in_units(text: str, system: UnitSystem) -> str:
    """A text in a system of units; one without values stays as it is."""
    return _said(text.template, text.values, system) if isinstance(text, Sentence) else text


def marked(text: str) -> str:
    """A text to be kept, with each value as ⟨value dimension⟩: it is said in the units of who reads it one day."""
    if not isinstance(text, Sentence):
        return str(text)
    found = text.template
    for name, one in text.values.items():
        found = found.replace(f"{{{name}}}", f"⟨{one.value:.12g} {one.dimension}⟩")
    return found


@lru_cache(maxsize=4096)  # limits are said again with every check
def quantity_text(value: float, dimension: str, system: UnitSystem) -> str:
    """A value with its unit, without zeros at its end."""
    number = show(value, dimension, system)
    if "." in number:
        number = number.rstrip("0").rstrip(".")
    symbol = unit_for(dimension, system).symbol
    return f"{number} {symbol}" if symbol else number


def _said(template: str, values: dict[str, Quantity], system: UnitSystem) -> str:
    found = template
    for name, one in values.items():
        found = found.replace(f"{{{name}}}", quantity_text(one.value, one.dimension, system))
    return found
