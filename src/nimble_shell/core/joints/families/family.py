"""The common interface of the joint families: what meets, what can be turned, and how it is drawn."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.assemblies.assembly import JointPlace
from nimble_shell.core.basis.stations import Station
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.stack import Fill, Stack, fill_of
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.parameters import Choice, Parameter, Value, chosen_values

Role = Literal["wall", "roof", "floor", "upper", "party"]
#: Members in whose place a joint stands: a count, plates at a foot or a head, or what its drawing shows.
Lines = float | Literal["foot", "head", "drawn"]
ROLES: dict[Role, str] = {
    "wall": "wall",
    "roof": "roof",
    "floor": "floor",
    "upper": "upper wall",
    "party": "party wall",
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Situation:
    """What a joint is drawn from."""

    variant: str
    values: Mapping[str, Value]
    stacks: Mapping[Role, Stack]
    catalogue: Catalogue

    def number(self, key: str) -> float:
        """A parameter. [SI]"""
        value = self.values[key]
        assert not isinstance(value, str)
        return value

    def word(self, key: str) -> str:
        """A choice."""
        return str(self.values[key])

    def fill(self, key: str) -> Fill:
        """A material. Raises DomainError."""
        return fill_of(self.catalogue, key)

    @property
    def wall(self) -> Stack:
        """The wall."""
        return self.stacks["wall"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Owned:
    """Members of a build-up that the joint takes over from its area share, per metre of the joint."""

    role: Role
    place: JointPlace
    lines: Lines = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Variant:
    """One way to build a joint."""

    key: str
    text: str
    suits: tuple[str, ...]  #: keys of the systems whose build-ups it joins; of the first role
    parameters: tuple[Parameter | Choice, ...] = ()
    note: str = ""
    owns: tuple[Owned, ...] = ()  #: beside what every variant of its family owns


@dataclass(frozen=True, slots=True, kw_only=True)
class Family:
    """A kind of joint, with all its variants."""

    key: str
    name: str
    station: Station
    roles: tuple[Role, ...]
    variants: tuple[Variant, ...]
    draw: Callable[[Situation], Drawing]
    parameters: tuple[Parameter | Choice, ...] = ()  #: of every variant
    owns: tuple[Owned, ...] = ()  #: of every variant
    point: bool = False  #: χ per piece rather than ψ per metre

    def variant(self, key: str) -> Variant:
        """Raises DomainError."""
        for variant in self.variants:
            if variant.key == key:
                return variant
        raise DomainError(Issue(path=("variant",), code="unknown_variant",
                                message=f"{self.name} has no variant “{key}”",
                                hint=f"one of {', '.join(one.key for one in self.variants)}"))  # fmt: skip

    def owned(self, variant: str) -> tuple[Owned, ...]:
        """What a variant takes over. Raises DomainError."""
        return (*self.owns, *self.variant(variant).owns)

    def turned(self, variant: str) -> tuple[Parameter | Choice, ...]:
        """Every parameter of a variant; its own take the place of the family's. Raises DomainError."""
        own = self.variant(variant).parameters
        keys = {parameter.key for parameter in own}
        return (*own, *(parameter for parameter in self.parameters if parameter.key not in keys))

    def drawing(
        self,
        variant: str,
        stacks: Mapping[Role, Stack],
        catalogue: Catalogue,
        values: Mapping[str, Value] | None = None,
    ) -> Drawing:
        """Draw a variant.

        Parameters
        ----------
        variant : str
        stacks : mapping of role to Stack
        catalogue : mapping of key to Material
        values : mapping, optional
            Parameters that differ from their start; SI.

        Raises
        ------
        DomainError
            If a role has no build-up, or a parameter is unknown, out of its range or does not fit the build-ups.
        """
        check = Collector()
        for role in self.roles:
            check.check(role in stacks, ("roles", role), "build_up_missing",
                        f"{self.name} needs a build-up as its {ROLES[role]}",
                        "choose one; if it was removed, choose another")  # fmt: skip
        chosen = chosen_values(self.name, self.turned(variant), values, check, ("values",))
        check.refuse()
        return self.draw(Situation(variant=variant, values=chosen, stacks=stacks, catalogue=catalogue))


def fits(good: bool, key: str, message: str, hint: str) -> None:
    """Refuse a parameter that does not go with the build-ups.

    Raises
    ------
    DomainError
        At the parameter.
    """
    if not good:
        raise DomainError(Issue(path=("values", key), code="does_not_fit", message=message, hint=hint))


def length(key: str, text: str, start: float, least: float, most: float) -> Parameter:
    """A length that can be turned. [m]"""
    return Parameter(key=key, text=text, start=start, least=least, most=most)


def reach(stack: Stack) -> float:
    """How far a section goes from the joint: 1 m, and three times the thickness (ISO 10211:2017, 7.2). [m]"""
    return max(1.0, 3 * stack.d)
