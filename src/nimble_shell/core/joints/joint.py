"""A joint of a building's shell: which family and variant, between which build-ups, how long."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import StandardRef
from nimble_shell.core.basis.stations import Station
from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence


@dataclass(frozen=True, slots=True, kw_only=True)
class JointRole:
    """A build-up that meets in the joint."""

    role: str  #: "wall", "roof", "floor", "upper", "party"
    assembly_id: str


@dataclass(frozen=True, slots=True, kw_only=True)
class JointValue:
    """A parameter that differs from the variant's start; a number in SI or a word."""

    key: str
    number: float | None = None
    word: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class ShellJoint:
    """A joint with its length in the building."""

    id: str
    station: Station
    name: str
    family: str
    variant: str
    roles: tuple[JointRole, ...]
    values: tuple[JointValue, ...] = ()
    length: float = 0.0  #: metres of it as typed, or pieces of a point; 0 follows the shape, or is not known
    follows: tuple[str, ...] = ()  #: edges of the shape that it stands for
    decided: bool = True  #: whether somebody has chosen its variant where several suit
    other: str = ""  #: variant it is compared with; empty for none
    omitted: tuple[str, ...] = ()  #: seals of its schedule that are left out
    sealed: bool = False  #: somebody has said that it is built as scheduled
    sealant: str = "polyurethane"
    tape: str = "acrylic tape"
    fall: float | None = None  #: outwards, of what water runs off on; None while nobody has said [-]
    drains_to: Literal["", "outside", "inside"] = ""  #: where the drained path ends
    standard: StandardRef | None = None  #: the practice standard it was taken from

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 < len(self.name.strip()) <= 80, ("name",), "name_length",
                    f"the name has {len(self.name)} letters", "a name has 1 to 80")  # fmt: skip
        check.check(
            0 <= self.length <= 1e5,
            ("length",),
            "length_out_of_range",
            sentence("length is {v1}", v1=(self.length, "distance")),
            sentence("from 0 to {v1}", v1=(100000.0, "distance")),
        )
        check.check(self.fall is None or -1 <= self.fall <= 1, ("fall",), "fall_out_of_range",
                    f"fall is {100 * (self.fall or 0):g} %", "from −100 to 100 %")  # fmt: skip
        roles = [role.role for role in self.roles]
        check.check(len(set(roles)) == len(roles), ("roles",), "role_twice", "a role is taken twice", "give each once")
        for at, value in enumerate(self.values):
            check.check((value.number is None) != (value.word is None), ("values", at), "value_unclear",
                        f"“{value.key}” has no value, or two", "give a number or a word")  # fmt: skip
        check.refuse()

    @property
    def assembly_ids(self) -> tuple[str, ...]:
        """Build-ups that meet here."""
        return tuple(role.assembly_id for role in self.roles)
