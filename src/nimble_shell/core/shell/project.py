"""A project: several buildings on one Basis, each with the elements of its shell by station."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, field, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.indoor import Indoor
from nimble_shell.core.basis.stations import STATIONS, Station
from nimble_shell.core.building.body import BodyOpening, BuildingBody
from nimble_shell.core.building.flat_face import FlatFace
from nimble_shell.core.errors import Collector, Issue
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.materials import CATALOGUE, Catalogue, Material
from nimble_shell.core.materials.rates import priced_catalogue
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.courses.choices import FormChoices
from nimble_shell.core.shell.plant import Plant
from nimble_shell.core.shop.bill import BillChoices
from nimble_shell.core.shop.choices import ShopChoices
from nimble_shell.core.shop.wet_choices import WetChoices
from nimble_shell.core.site.choices import LiftChoices, PourChoices
from nimble_shell.core.site.work_plan import WorkChoices
from nimble_shell.core.windows.unit import UnitType


@dataclass(frozen=True, slots=True, kw_only=True)
class ShellElement:
    """A piece of the shell's surface: an assembly, or an entered U until its build-up is drawn."""

    id: str
    station: Station
    name: str
    area: float = 0.0  #: gross area as typed; 0 where it follows the shape. Openings are taken off the walls [m²]
    assembly_id: str | None = None
    U_entered: float | None = None  #: [W/(m²·K)]
    origin: str = ""  #: where an entered U comes from

    def __post_init__(self) -> None:
        check = Collector()
        check.check(
            0 <= self.area <= 1e6,
            ("area",),
            "area_out_of_range",
            sentence("area is {v1}", v1=(self.area, "area")),
            sentence("an area lies above 0 and up to {v1}; 0 follows the shape", v1=(1000000.0, "area")),
        )
        check.check(
            self.U_entered is None or 0 < self.U_entered <= 20,
            ("U",),
            "transmittance_not_positive",
            sentence("U is {v1}", v1=(self.U_entered, "transmittance")),
            sentence("an entered U lies above 0 and up to {v1}", v1=(20.0, "transmittance")),
        )
        check.check(
            self.station in STATIONS,
            ("station",),
            "unknown_station",
            f"there is no station {self.station}",
            "stations run from A (ridge) to H (footing)",
        )
        check.check(
            0 < len(self.name.strip()) <= 80,
            ("name",),
            "name_length",
            f"the name has {len(self.name)} letters",
            "a name has 1 to 80",
        )
        check.refuse()


_ONE = {"joints": "joint", "bodies": "body", "openings": "opening", "faces": "face"}


@dataclass(frozen=True, slots=True, kw_only=True)
class BareEdge:
    """An edge of the shape that no joint stands for."""

    key: str
    name: str
    station: Station
    length: float  #: [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class FilledOpenings:
    """Openings of one size and one type that are counted with an element."""

    unit: UnitType | None  #: None where nobody has said what they are filled with
    w: float  #: [m]
    h: float
    n: int

    @property
    def area(self) -> float:
        """Of all of them. [m²]"""
        return self.n * self.w * self.h


@dataclass(frozen=True, slots=True, kw_only=True)
class Building:
    """One building of the project, with its own mast."""

    id: str
    name: str
    use: str = ""
    elements: tuple[ShellElement, ...] = ()
    asked_H: float | None = None  #: asked transmission heat loss [W/K]
    joints: tuple[ShellJoint, ...] = ()
    indoor: Indoor | None = None  #: its own room; None has that of the Basis
    bodies: tuple[BuildingBody, ...] = ()  #: its shape
    openings: tuple[BodyOpening, ...] = ()
    faces: tuple[FlatFace, ...] = ()  #: those that no body has
    north: float = 0.0  #: bearing of the plan's y axis, clockwise from north [°]
    floor_thickness: float = 0.3  #: of the floors between storeys, where they meet the walls [m]
    plant: Plant = field(default_factory=Plant)  #: what it stands on, how tight it is meant to be, what heats it
    setout: SetOutChoices = field(default_factory=SetOutChoices)  #: what is decided of its panels
    shop: ShopChoices = field(default_factory=ShopChoices)  #: what its panels are cut from, and which are
    forms: FormChoices = field(default_factory=FormChoices)  #: what is decided of its insulated concrete forms
    pour: PourChoices = field(default_factory=PourChoices)  #: how they are filled
    wet: WetChoices = field(default_factory=WetChoices)  #: mortar and plaster
    work: WorkChoices = field(default_factory=WorkChoices)  #: what is done in which order
    bill: BillChoices = field(default_factory=BillChoices)  #: sizes things are sold in, and prices
    lifting: LiftChoices = field(default_factory=LiftChoices)  #: how pieces are lifted

    # What a measured building looks up, and one without a shape does not have:

    def opened(self, element_id: str) -> float | None:  # noqa: ARG002
        """Area of the openings in an element; None where no shape tells. [m²]"""
        return None

    def filled(self, element_id: str) -> tuple[FilledOpenings, ...]:  # noqa: ARG002
        """Openings that are counted with an element, alike ones together; none where no shape tells."""
        return ()

    def follows_shape(self, part_id: str) -> bool:  # noqa: ARG002
        """Whether the area or length of an element or joint is that of the shape."""
        return False

    def as_stored(self) -> Building:
        """The building as it is written: what is changed is made of that."""
        return self

    def without_joint(self) -> tuple[BareEdge, ...]:
        """Edges of the shape that no joint stands for."""
        return ()

    def __post_init__(self) -> None:
        check = Collector()
        check.check(
            0 < len(self.name.strip()) <= 80,
            ("name",),
            "name_length",
            f"the name has {len(self.name)} letters",
            "a name has 1 to 80",
        )
        check.check(
            self.asked_H is None or 0 < self.asked_H < 1e6,
            ("asked_H",),
            "target_out_of_range",
            sentence("asked heat loss is {v1}", v1=(self.asked_H, "coupling")),
            "an asked heat loss lies above 0",
        )
        walls = sum(element.area for element in self.elements if element.station == "D")
        openings = sum(element.area for element in self.elements if element.station == "E")
        check.check(
            walls == 0 or openings < walls,
            ("elements",),
            "openings_exceed_walls",
            sentence("openings have {v1}, the gross walls {v2}", v1=(openings, "area"), v2=(walls, "area")),
            "gross wall areas include their openings",
        )
        ids = [element.id for element in self.elements]
        check.check(
            len(set(ids)) == len(ids),
            ("elements",),
            "element_id_taken",
            "two elements carry the same id",
            "give every element an id of its own",
        )
        for part, several in (("joints", self.joints), ("bodies", self.bodies), ("openings", self.openings),
                              ("faces", self.faces)):  # fmt: skip
            named = [one.id for one in several]
            check.check(len(set(named)) == len(named), (part,), f"{_ONE[part]}_id_taken",
                        f"two {part} carry the same id", f"give every {_ONE[part]} an id of its own")  # fmt: skip
        check.check(abs(self.north) <= 360, ("north",), "angle_out_of_range", f"north is at {self.north:g}°",
                    "−360 to 360°")  # fmt: skip
        check.check(0 <= self.floor_thickness <= 2, ("floor_thickness",), "thickness_out_of_range",
                    sentence("floors are {v} thick", v=(self.floor_thickness, "length")),
                    sentence("0 to {v}", v=(2.0, "length")))  # fmt: skip
        check.refuse()

    def check_places(self, units: Collection[str]) -> None:
        """Refuse openings in sides or of types that are not there, and faces that count with a missing element.

        Not looked at while things are put in and taken out one after the other. Raises DomainError.
        """
        check = Collector()
        sides = {one.id: len(one.outline) for one in self.bodies}
        elements = {one.id for one in self.elements}
        for n, opening in enumerate(self.openings):
            called = opening.mark or opening.id
            check.check(opening.body in sides and opening.side < sides[opening.body], ("openings", n), "unknown_side",
                        f"there is no side {opening.side + 1} of a body “{opening.body}” for “{called}”",
                        "place it in a side that is there, or take it away with it")  # fmt: skip
            check.check(not opening.zone or opening.zone in elements, ("openings", n), "unknown_element",
                        f"“{called}” is counted with “{opening.zone}”, which is not there",
                        "count it with another element, or take it away with it")  # fmt: skip
            check.check(not opening.unit or opening.unit in units, ("openings", n), "unknown_unit",
                        f"“{called}” is of type “{opening.unit}”, which is not there",
                        "name a type of the project, or none")  # fmt: skip
        for n, face in enumerate(self.faces):
            check.check(not face.zone or face.zone in elements, ("faces", n), "unknown_element",
                        f"“{face.name}” is counted with “{face.zone}”, which is not there",
                        "count it with another element")  # fmt: skip
        for n, body in enumerate(self.bodies):
            for zone in sorted(body.zones - elements):
                check.add([Issue(path=("bodies", n), code="unknown_element",
                                 message=f"“{body.name or body.id}” counts with “{zone}”, which is not there",
                                 hint="count it with another element")])  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Project:
    """Everything the practice knows of one job."""

    id: str
    name: str
    basis: Basis
    buildings: tuple[Building, ...] = ()
    assemblies: tuple[Assembly, ...] = ()
    materials: tuple[Material, ...] = ()  #: the practice's own, besides the shipped ones
    units: tuple[UnitType, ...] = ()  #: types of windows and doors

    @property
    def catalogue(self) -> Catalogue:
        """Shipped and own materials, at the practice's rates."""
        return priced_catalogue(self.materials, self.basis.rates)

    def within(self, building_id: str) -> Project:
        """The project as seen from inside of a building: its Basis has the building's own room, where there is one."""
        rooms = (one.indoor for one in self.buildings if one.id == building_id)
        room = next(rooms, None)
        return self if room is None else replace(self, basis=replace(self.basis, indoor=room))

    def __post_init__(self) -> None:
        check = Collector()
        check.check(
            0 < len(self.name.strip()) <= 80,
            ("name",),
            "name_length",
            f"the name has {len(self.name)} letters",
            "a name has 1 to 80",
        )
        for part, things in (("buildings", self.buildings), ("assemblies", self.assemblies), ("units", self.units)):
            ids = [thing.id for thing in things]
            check.check(
                len(set(ids)) == len(ids),
                (part,),
                "id_taken",
                f"two {part} carry the same id",
                "give each an id of its own",
            )
        for at, material in enumerate(self.materials):
            check.check(
                material.key not in CATALOGUE,
                ("materials", at, "key"),
                "material_shipped",
                f"“{material.key}” is a shipped material",
                "give your own material a key of its own; shipped ones are never overridden",
            )
        keys = [material.key for material in self.materials]
        check.check(len(set(keys)) == len(keys), ("materials",), "material_twice", "two materials carry the same key",
                    "give each a key of its own")  # fmt: skip
        known = {assembly.id for assembly in self.assemblies}
        for at, building in enumerate(self.buildings):
            for number, element in enumerate(building.elements):
                check.check(
                    element.assembly_id is None or element.assembly_id in known,
                    ("buildings", at, "elements", number, "assembly_id"),
                    "unknown_assembly",
                    f"there is no build-up “{element.assembly_id}”",
                    "name one of the project's build-ups",
                )
        check.refuse()
