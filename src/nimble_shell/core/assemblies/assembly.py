"""What a designer edits: layers of catalogue materials, members that run through them, air gaps."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from nimble_shell.core.assemblies.course import Course
from nimble_shell.core.assemblies.fixing import THICKEST, Fixing
from nimble_shell.core.errors import Collector, DomainError, Issue
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.quantities import limits
from nimble_shell.core.quantities.limits import within
from nimble_shell.core.quantities.sentence import sentence

Ventilation = Literal["unventilated", "slightly", "well"]
Run = Literal["vertical", "horizontal"]
Control = Literal["rain", "wind", "air", "vapour", "heat"]
CONTROLS: tuple[Control, ...] = ("rain", "wind", "air", "vapour", "heat")
Fitted = Literal["shop", "site", "late"]  #: in the shop, on site before the air test, after it
Outside = Literal["air", "ground"]


#: A member that a solved one may own: "seam" between pieces of a wall, "plate" along its foot and head, "stud" of a
#: frame, "frame" for posts, headers and corners by one share, "web" of a form.
JointPlace = Literal["", "seam", "plate", "stud", "frame", "web"]


THINNEST = 1e-6  #: of a layer [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Member:
    """Something that repeats through a layer: stud, plate, spline, batten. Owned by the area share until solved."""

    name: str
    material: str
    run: Run = "vertical"
    share: float | None = None  #: area share, 0…1; or else
    width: float | None = None  #: width of one [m]
    centres: float | None = None  #: distance between centres [m]
    joint: JointPlace = ""  #: where it stands: a solved joint of that place takes over as much as it is long

    def __post_init__(self) -> None:
        check = Collector()
        by_share = self.share is not None
        by_centres = self.width is not None and self.centres is not None
        check.check(
            by_share != (self.width is not None or self.centres is not None) and (by_share or by_centres),
            ("share",),
            "member_unclear",
            f"“{self.name}” has share {self.share}, width {self.width} and centres {self.centres}",
            "give an area share, or a width with its centres",
        )
        if by_share and self.share is not None:
            check.check(
                0 < self.share < 1,
                ("share",),
                "share_out_of_range",
                f"area share is {100 * self.share:g} %",
                "an area share lies above 0 and below 100 %",
            )
        elif self.width is not None and self.centres is not None:
            check.check(
                0 < self.width <= 1,
                ("width",),
                "width_out_of_range",
                sentence("width is {v1}", v1=(self.width, "length")),
                sentence("a width lies above 0 and up to {v1}", v1=(1.0, "distance")),
            )
            check.check(
                self.width < self.centres <= 20,
                ("centres",),
                "centres_out_of_range",
                sentence(
                    "centres are {v1} for a width of {v2}", v1=(self.centres, "length"), v2=(self.width, "length")
                ),
                sentence("centres are wider than the member, up to {v1}", v1=(20.0, "distance")),
            )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class AirGap:
    """An air layer; openings only matter when it is slightly ventilated."""

    ventilation: Ventilation = "unventilated"
    A_v: float = 1000e-6  #: area of openings per metre of length [m²/m]

    def __post_init__(self) -> None:
        if self.ventilation == "slightly" and not 500e-6 < self.A_v < 1500e-6:
            raise DomainError(
                Issue(
                    path=("A_v",),
                    code="openings_out_of_range",
                    message=sentence("openings are {v1}", v1=(self.A_v, "opening_area")),
                    hint=sentence(
                        "slightly ventilated means between {v1} and {v2}; below it is unventilated, "
                        "above it well ventilated",
                        v1=(0.0005, "opening_area"),
                        v2=(0.0015, "opening_area"),
                    ),
                )
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class Declared:
    """A fire class or sound rating that somebody declared; recorded with its source, never computed."""

    kind: Literal["fire", "sound"]
    value: str
    source: str

    def __post_init__(self) -> None:
        check = Collector()
        check.check(bool(self.value.strip()), ("value",), "declared_empty", "nothing is declared", "write the class")
        check.check(
            bool(self.source.strip()),
            ("source",),
            "source_missing",
            f"“{self.value}” has no source",
            "name the test report or certificate",
        )
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Substitution:
    """Another material was delivered than was asked; the layer carries the delivered one."""

    asked: str  #: key of the asked material
    asked_lambda: float | None = None  #: if its λ was entered [W/(m·K)]
    reason: str = ""
    approved: str = ""  #: by whom; empty while undecided


@dataclass(frozen=True, slots=True, kw_only=True)
class Layer:
    """One layer of an assembly: a catalogue material, or an air gap."""

    id: str  #: stays with the layer through edits
    material: str = ""  #: key of the catalogue; empty for an air gap
    d: float  #: thickness [m]
    lambda_entered: float | None = None  #: a declared value that replaces the catalogue's [W/(m·K)]
    air: AirGap | None = None
    members: tuple[Member, ...] = ()
    studied: bool = False  #: the core: the layer whose thickness is studied
    goes_with_core: bool = False  #: the other panel of a form: is changed with the core, in material and in proportion
    rib: float = 0.0  #: depth of ribs filled by the neighbours; the mean thickness is d − rib/2 [m]
    control: tuple[Control, ...] = ()  #: what this layer keeps out or in
    services: bool = False  #: pipes, wires and boxes run in it
    fitted: Fitted = "site"
    passes: int = 1  #: working passes of labour
    declared: tuple[Declared, ...] = ()
    substitution: Substitution | None = None

    def __post_init__(self) -> None:
        check = Collector()
        self._check_depths(check)
        check.check(
            0 <= self.passes <= 20,
            ("passes",),
            "passes_out_of_range",
            f"{self.passes} rounds of work",
            "from 0 to 20",
        )
        check.check(
            len(set(self.control)) == len(self.control),
            ("control",),
            "control_twice",
            "a control is named twice",
            "name each once",
        )
        check.check(
            bool(self.material) != (self.air is not None),
            ("material",),
            "material_unclear",
            "a layer is a material or an air gap",
            "choose one of them",
        )
        check.check(
            bool(self.material) or not self.goes_with_core,
            ("goes_with_core",),
            "air_with_core",
            "an air gap goes with no core",
            "choose a layer of material",
        )
        if self.lambda_entered is not None:
            within(check, self.lambda_entered, limits.CONDUCTIVITY, ("lambda",), "conductivity_not_positive",
                   "thermal conductivity", "conductivity")  # fmt: skip
        check.check(
            len(self.members) <= 6,
            ("members",),
            "too_many_members",
            f"{len(self.members)} kinds of member",
            "a layer holds at most six",
        )
        check.check(
            sum(self.shares()) < 1,
            ("members",),
            "shares_not_whole",
            f"members take {100 * sum(self.shares()):.4g} % of the layer",
            "leave room for the layer's own material",
        )
        check.refuse()

    def _check_depths(self, check: Collector) -> None:
        """Asked before it is worded: a layer is made anew at every step of a drag, and nearly all of them are good."""
        if not (0 <= self.rib < self.d or self.rib == 0):
            check.check(
                False,
                ("rib",),
                "rib_too_deep",
                sentence("the profile is {v1} deep in {v2}", v1=(self.rib, "length"), v2=(self.d, "length")),
                "a profile is shallower than its layer",
            )
        if not THINNEST <= self.d <= THICKEST:
            check.check(
                False,
                ("d",),
                "thickness_not_positive" if self.d <= 0 else "thickness_too_large",
                sentence("thickness is {v1}", v1=(self.d, "length")),
                sentence("a thickness lies above 0 and up to {v1}", v1=(THICKEST, "distance")),
            )

    @property
    def d_mean(self) -> float:
        """Mean thickness, without the ribs' hollows. [m]"""
        return self.d - self.rib / 2

    def shares(self) -> tuple[float, ...]:
        """Area share of each member; horizontal ones run through, vertical ones stand between them."""
        horizontal = sum(nominal_share(m) for m in self.members if m.run == "horizontal")
        return tuple(nominal_share(m) * (1.0 if m.run == "horizontal" else 1 - horizontal) for m in self.members)


def nominal_share(member: Member) -> float:
    """Area share of a member as entered, or its width over its centres; 0…1."""
    if member.share is not None:
        return member.share
    assert member.width is not None
    assert member.centres is not None
    return member.width / member.centres


@dataclass(frozen=True, slots=True)
class StandardRef:
    """Where a build-up was taken from."""

    id: str
    version: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Assembly:
    """A build-up: layers inside → outside, with its system and what it was chosen for."""

    id: str
    name: str
    system: str  #: key of the system it started from
    layers: tuple[Layer, ...]
    note: str = ""
    fixings: tuple[Fixing, ...] = ()
    outside: Outside = "air"
    standard: StandardRef | None = None  #: the practice standard it was taken from

    def __post_init__(self) -> None:
        check = Collector()
        for at, fixing in enumerate(self.fixings):
            found = next((layer for layer in self.layers if layer.id == fixing.layer), None)
            check.check(
                found is not None and bool(found.material),
                ("fixings", at, "layer"),
                "no_such_layer",
                f"“{fixing.name}” goes through no layer of material",
                "choose the insulating layer it goes through",
            )
        check.check(bool(self.layers), ("layers",), "no_layers", "there are no layers", "add at least one layer")
        check.check(
            len(self.layers) <= 60,
            ("layers",),
            "too_many_layers",
            f"there are {len(self.layers)} layers",
            "an assembly holds at most 60",
        )
        check.check(
            0 < len(self.name.strip()) <= 120,
            ("name",),
            "name_length",
            f"the name has {len(self.name)} letters",
            "a name has 1 to 120",
        )
        ids = [layer.id for layer in self.layers]
        check.check(
            len(set(ids)) == len(ids),
            ("layers",),
            "layer_id_taken",
            "two layers carry the same id",
            "give every layer an id of its own",
        )
        check.check(
            sum(layer.studied for layer in self.layers) <= 1,
            ("layers",),
            "two_cores",
            "two layers are marked as core",
            "mark one layer at most",
        )
        check.refuse()

    def solved_course(self, fixing_id: str) -> Course:  # noqa: ARG002 - a solved build-up looks it up
        """Solved χ of a group over the approximate one by the core's thickness; a build-up as edited has nothing."""
        return ()

    def solved_ratio(self, fixing_id: str) -> float | None:  # noqa: ARG002 - a solved build-up looks it up
        """Solved χ of a group over the approximate one; None, for a build-up as edited has nothing solved."""
        return None

    @property
    def core_index(self) -> int | None:
        """Index of the layer marked as core."""
        return next((i for i, layer in enumerate(self.layers) if layer.studied), None)

    @property
    def panels(self) -> dict[int, float]:
        """The core and the panels that go with it, by index: the thickness of each over the core's; 1 for the core."""
        core = self.core_index
        if core is None:
            return {}
        d = self.layers[core].d
        return {at: layer.d / d for at, layer in enumerate(self.layers) if at == core or layer.goes_with_core}

    @property
    def thickness(self) -> float:
        """Whole thickness. [m]"""
        return sum(layer.d for layer in self.layers)

    @property
    def substituted(self) -> bool:
        """Whether any layer stands for another that was asked."""
        return any(layer.substitution for layer in self.layers)

    def as_asked(self) -> Assembly:
        """The same assembly with every substituted material put back."""
        return replace(self, layers=tuple(_asked(layer) for layer in self.layers))

    def with_thickness(self, index: int, d: float) -> Assembly:
        """The same assembly with one layer of another thickness. [m]

        Raises
        ------
        DomainError
            If the thickness is not possible.
        """
        try:
            changed = replace(self.layers[index], d=d)
        except DomainError as error:
            raise error.under("layers", index) from error
        return replace(self, layers=(*self.layers[:index], changed, *self.layers[index + 1 :]))

    def with_core(self, d: float, material: str = "") -> Assembly:
        """The same assembly with another core, and with it the panels that go with it, in proportion.

        Parameters
        ----------
        d : float
            Thickness of the core. [m]
        material : str
            Where it is another than the core's, of the core and its panels; a declared λ belongs to the old one.

        Raises
        ------
        DomainError
            If a thickness is not possible.
        """
        core, changed = self.core_index, self
        for at, over in self.panels.items():
            changed = changed.with_thickness(at, d * over)
        if core is None or material in ("", self.layers[core].material):
            return changed
        layers = tuple(
            replace(layer, material=material, lambda_entered=None)
            if at in self.panels and layer.material != material
            else layer
            for at, layer in enumerate(changed.layers)
        )
        return replace(changed, layers=layers)


def _asked(layer: Layer) -> Layer:
    change = layer.substitution
    if change is None:
        return layer
    return replace(layer, material=change.asked, lambda_entered=change.asked_lambda, substitution=None)


def check_materials(assembly: Assembly, catalogue: Catalogue) -> None:
    """Refuse materials that the catalogue does not hold.

    Raises
    ------
    DomainError
        With the path of every unknown key.
    """
    check = Collector()
    for index, layer in enumerate(assembly.layers):
        if layer.material:
            check.check(
                layer.material in catalogue,
                ("layers", index, "material"),
                "unknown_material",
                f"there is no material “{layer.material}”",
                "choose one of the catalogue",
            )
        if layer.substitution is not None:
            check.check(
                layer.substitution.asked in catalogue,
                ("layers", index, "substitution", "asked"),
                "unknown_material",
                f"there is no material “{layer.substitution.asked}”",
                "choose one of the catalogue",
            )
        for number, member in enumerate(layer.members):
            check.check(
                member.material in catalogue,
                ("layers", index, "members", number, "material"),
                "unknown_material",
                f"there is no material “{member.material}”",
                "choose one of the catalogue",
            )
    for number, fixing in enumerate(assembly.fixings):
        for material in fixing.materials:
            check.check(
                material in catalogue,
                ("fixings", number, "material"),
                "unknown_material",
                f"there is no material “{material}”",
                "choose one of the catalogue",
            )
    check.refuse()
