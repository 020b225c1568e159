"""What a designer decides of a set-out: joints that stay where they were put, limits, and what counts most.

Panels are results; only this is stored.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.setout.entered import Anchors, EnteredPost, Screws, Sensor, Socket
from nimble_shell.core.setout.rules import MEASURED, TERMS, Term

MOST_PINS = 2000
MOST_ENTERED = 500  #: of each kind
MOST_PEOPLE = 6  #: that carry one panel; what is heavier wants a crane


@dataclass(frozen=True, slots=True, kw_only=True)
class JointPin:
    """A joint that stays where it is."""

    face: str
    u: float  #: along the face from its left end, seen from outside [m]
    storey: int = 0  #: from below


@dataclass(frozen=True, slots=True, kw_only=True)
class SetOutChoices:
    """Of a building."""

    order: tuple[Term, ...] = ("panels", "off_module", "members", "waste")  #: the first counts most
    least_strip: float = 0.3  #: narrowest panel [m]
    clear: float = 0.15  #: of a joint from an opening that it does not touch [m]
    longest: float = 7.2  #: that can be brought [m]
    heaviest: float | None = None  #: that can be lifted [kg]
    people_kg: float = 25.0  #: that each carries where there is no crane [kg]
    crane: bool = True  #: whether there is one
    counts: bool = False  #: whether timber and seams of the thermal model come from here
    pins: tuple[JointPin, ...] = ()
    posts: tuple[EnteredPost, ...] = ()
    anchors: tuple[Anchors, ...] = ()
    screws: Screws | None = None  #: None while nobody has entered a pattern
    sensors: tuple[Sensor, ...] = ()
    sockets: tuple[Socket, ...] = ()

    def people(self, mass: float) -> int:
        """That carry a panel. [kg]"""
        return max(1, math.ceil(mass / self.people_kg - 1e-9))

    def wants_crane(self, mass: float) -> bool:
        return self.people(mass) > MOST_PEOPLE

    def __post_init__(self) -> None:
        check = Collector()
        for at, term in enumerate(self.order):
            check.check(term in TERMS, ("order", at), "unknown_term", f"there is no “{term}”", "one of the terms")
            check.check(term not in self.order[:at], ("order", at), "told_twice", f"“{term}” is there twice",
                        "no term twice")  # fmt: skip
            check.check(term not in MEASURED or at == len(self.order) - 1, ("order", at), "not_last",
                        f"“{term}” before others", "in the last place: no two of it are ever equal")  # fmt: skip
        check.check(bool(self.order), ("order",), "empty", "nothing is to be least", "name one term or more")
        for name, least, most in (("least_strip", 0.0, 3.0), ("clear", 0.0, 2.0), ("longest", 1.0, 30.0)):
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "length")),
                        sentence("{a} to {b}", a=(least, "distance"), b=(most, "distance")))  # fmt: skip
        for name in ("heaviest", "people_kg"):
            value = getattr(self, name)
            check.check(value is None or 1 <= value <= 1e5, (name,), "out_of_range",
                        sentence("{v}", v=(value or 0.0, "mass")),
                        sentence("{a} to {b}", a=(1.0, "mass"), b=(1e5, "mass")))  # fmt: skip
        check.check(len(self.pins) <= MOST_PINS, ("pins",), "too_many", f"{len(self.pins)} joints are pinned",
                    f"at most {MOST_PINS}")  # fmt: skip
        for name in ("posts", "anchors", "sensors", "sockets"):
            count = len(getattr(self, name))
            check.check(count <= MOST_ENTERED, (name,), "too_many", f"{count} {name}", f"at most {MOST_ENTERED}")
        named = [one.name for one in self.sensors]
        for at, name in enumerate(named):
            check.check(name not in named[:at], ("sensors", at, "name"), "told_twice", f"“{name}” is there twice",
                        "an identity of its own")  # fmt: skip
        check.refuse()
