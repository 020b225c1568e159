"""The criteria register: what the site asks, what a kit was engineered for, and who answers for it.

Nothing structural is decided here. The check compares what somebody wrote with what somebody else wrote.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

CriterionKey = Literal["floor", "roof", "snow", "wind", "exposure", "seismic", "frost", "code"]
KitCoverage = Literal["inside", "needs an engineer", "not stated"]

#: Key → (words, dimension). Numbers are compared, as written in SI; where there is no dimension the user's own words
#: are.
CRITERIA: dict[CriterionKey, tuple[str, str]] = {
    "floor": ("floor load", "load"),
    "roof": ("roof load", "load"),
    "snow": ("ground snow load", "load"),
    "wind": ("basic wind speed", "speed"),
    "exposure": ("exposure", ""),
    "seismic": ("seismic class", ""),
    "frost": ("frost depth", "distance"),
    "code": ("code and edition", ""),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Criterion:
    """One line of the register, in the user's words."""

    key: CriterionKey
    site: str = ""  #: what applies here
    kit: str = ""  #: what the kit was pre-engineered for
    responsible: str = ""
    stamped: bool = False

    def __post_init__(self) -> None:
        check = Collector()
        check.check(self.key in CRITERIA, ("key",), "unknown_criterion", f"there is no criterion “{self.key}”",
                    f"one of {', '.join(CRITERIA)}")  # fmt: skip
        if not check.issues and CRITERIA[self.key][1]:
            for name in ("site", "kit"):
                text = getattr(self, name)
                check.check(
                    not text.strip() or _number(text) is not None,
                    (name,),
                    "criterion_not_a_number",
                    f"“{text}” is no number",
                    "write a number, or leave it empty",
                )
        check.refuse()

    @property
    def finding(self) -> KitCoverage:
        """Whether the site lies inside of what the kit was engineered for; never a structural verdict."""
        if not self.site.strip() or not self.kit.strip():
            return "not stated"
        if CRITERIA[self.key][1]:
            site, kit = _number(self.site), _number(self.kit)
            return "inside" if site is not None and kit is not None and site <= kit else "needs an engineer"
        return "inside" if self.site.strip().casefold() == self.kit.strip().casefold() else "needs an engineer"


def _number(text: str) -> float | None:
    try:
        value = float(text.strip().replace(",", "."))
    except ValueError:
        return None
    return value if 0 <= value < 1e6 else None


@dataclass(frozen=True, slots=True, kw_only=True)
class Handling:
    """How pieces get to their place."""

    crane: bool = True
    people: int = 4  #: at one piece, where it is carried
    kg_per_person: float = 25.0  #: [kg]
    access: float = 3.0  #: narrowest width on the way; pieces wider than it are remarked on [m]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(1 <= self.people <= 30, ("people",), "people_out_of_range", f"{self.people} people", "from 1 to 30")
        check.check(
            0 < self.kg_per_person <= 60,
            ("kg_per_person",),
            "mass_out_of_range",
            sentence("{v1} a person", v1=(self.kg_per_person, "mass")),
            sentence("above 0 and up to {v1}; the local rule decides", v1=(60.0, "mass")),
        )
        check.check(
            0 < self.access <= 100,
            ("access",),
            "width_out_of_range",
            sentence("access is {v1}", v1=(self.access, "distance")),
            sentence("above {v1}", v1=(0.0, "distance")),
        )
        check.refuse()

    @property
    def heaviest(self) -> float | None:
        """The heaviest piece that can be carried; None with a crane. [kg]"""
        return None if self.crane else self.people * self.kg_per_person
