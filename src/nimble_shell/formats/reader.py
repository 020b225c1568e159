"""Who reads: the system of units in which sentences are said, of one request; SI where nobody asks."""

from __future__ import annotations

from contextvars import ContextVar
from typing import Annotated, Any

from pydantic import BeforeValidator

from nimble_shell.core.quantities.sentence import in_units
from nimble_shell.core.quantities.units import UNIT_SYSTEMS, UnitSystem

_system: ContextVar[UnitSystem | None] = ContextVar("units_of_the_reader", default=None)


def read_in(system: str) -> None:
    """From here on, in this request, sentences are said in this system; an unknown one changes nothing."""
    for known in UNIT_SYSTEMS:
        if known == system:
            _system.set(known)


def chosen() -> UnitSystem | None:
    """The system the reader asked for; None where nobody asked."""
    return _system.get()


def said(text: str) -> str:
    """A text as its reader has it."""
    return in_units(text, _system.get() or "SI")


def _said(value: Any) -> Any:
    return said(value) if isinstance(value, str) else value


#: A text of an answer; values in it come in the reader's units.
Prose = Annotated[str, BeforeValidator(_said)]
