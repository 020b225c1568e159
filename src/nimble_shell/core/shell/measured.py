"""A building with its areas and lengths as they follow from its shape: computed with, and never stored."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, fields, replace
from typing import Literal

from nimble_shell.core.assemblies.module import module_of
from nimble_shell.core.assemblies.structure import outside_of_structure
from nimble_shell.core.basis.schools import Dimensions, DrawnTo
from nimble_shell.core.errors import DomainError
from nimble_shell.core.held import Held
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.shell.project import BareEdge, Building, FilledOpenings, Project, ShellElement
from nimble_shell.core.shell.quantities import EDGES, IN_AREA_SHARES, Quantities, ShapeEdge, along, quantities
from nimble_shell.core.takeoff.takeoff import DrawnPlane

#: "read": of a shape that was read from a file and not changed since.
Origin = Literal["derived", "read", "typed", "unknown"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Quantity:
    """An area or a length with where it comes from."""

    id: str  #: of the element or joint
    value: float  #: that counts; 0 while nothing is known [m²] or [m]
    origin: Origin
    derived: float | None  #: what the shape comes to, also where another is typed
    source: str = ""  #: file that it was read from


@dataclass(frozen=True, slots=True, kw_only=True)
class MeasuredBuilding(Building):
    """A building whose elements and joints carry the figures that count."""

    shape: Quantities = field(compare=False, repr=False)
    areas: tuple[Quantity, ...]
    lengths: tuple[Quantity, ...]

    stored: Building
    dimensions: Dimensions
    modules: dict[str, float]  #: width of the panels of each element that is made of them [m]
    fillings: Mapping[str, tuple[FilledOpenings, ...]]  #: of each element that openings are counted with

    def as_stored(self) -> Building:
        """The building as it is written."""
        return self.stored

    def opened(self, element_id: str) -> float | None:
        """Area of the openings in an element; None where its area was typed. [m²]"""
        of = next((one for one in self.areas if one.id == element_id), None)
        derived = of is not None and of.origin in ("derived", "read")
        return self.shape.elements[element_id].openings if derived else None

    def filled(self, element_id: str) -> tuple[FilledOpenings, ...]:
        """Openings that are counted with an element, alike ones together."""
        return self.fillings.get(element_id, ())

    def follows_shape(self, part_id: str) -> bool:
        """Whether the area or length of an element or joint is that of the shape."""
        return any(one.id == part_id and one.origin in ("derived", "read") for one in (*self.areas, *self.lengths))

    @property
    def unclaimed(self) -> tuple[ShapeEdge, ...]:
        """Edges of the shape that no joint of the building stands for."""
        claimed = {key for joint in self.joints for key in joint.follows}
        return tuple(one for one in self.shape.edges if one.key not in claimed)

    def without_joint(self) -> tuple[BareEdge, ...]:
        """Those of them that the sums lack: seams are in the area shares of the build-ups until they are joints."""
        bare = [one for one in self.unclaimed if one.kind not in IN_AREA_SHARES]
        several = Counter(one.kind for one in bare)
        return tuple(
            BareEdge(key=one.key, name=self._name(one, told_apart=several[one.kind] > 1), station=EDGES[one.kind][1],
                     length=along(one.length, self.dimensions)) for one in bare
        )  # fmt: skip

    def _name(self, edge: ShapeEdge, *, told_apart: bool) -> str:
        meet = [one.name for one in self.elements if one.id in edge.elements]
        return f"{EDGES[edge.kind][0]}, {' and '.join(meet)}" if told_apart and meet else EDGES[edge.kind][0]


def with_edges(building: MeasuredBuilding, edges: tuple[ShapeEdge, ...]) -> MeasuredBuilding:
    """The building with other lengths of its edges; what is typed of a joint stays."""
    shape = replace(building.shape, edges=edges)
    lengths = []
    for joint, of in zip(building.joints, building.lengths, strict=True):
        derived = shape.length(joint.follows, building.dimensions) if joint.follows else None
        value = of.value if derived is None or of.origin not in ("derived", "read") else derived
        lengths.append(replace(of, derived=derived, value=value))
    joints = tuple(replace(one, length=of.value) for one, of in zip(building.joints, lengths, strict=True))
    return replace(building, shape=shape, lengths=tuple(lengths), joints=joints)


_MEASURED: Held[Building] = Held(256)
_SHAPES: Held[Quantities] = Held(256)  #: by what is drawn of a building
_PLANES: dict[DrawnTo, DrawnPlane] = {"outer": "external", "inner": "overall_internal", "structure": "structure"}


def measured(project: Project, building: Building) -> Building:
    """The building with areas and lengths as its shape has them; itself where it has no shape.

    Raises
    ------
    DomainError
        Where the shape does not close, with the path of the body or opening.
    """
    if not building.bodies:
        return building
    thickness, module = _of_elements(project, building)
    parts = (building, *project.units)
    schools = project.basis.schools
    beyond = _outside(project, building) if schools.drawn_to == "structure" else {}
    key = (schools.dimensions, schools.drawn_to, *(tuple(one.items()) for one in (thickness, module, beyond)))
    held = _MEASURED.get(parts, key)
    if held is not None:
        return held
    return _MEASURED.put(parts, _measured(project, building, thickness, module, beyond), key)


def _of_elements(project: Project, building: Building) -> tuple[dict[str, float], dict[str, float]]:
    known = {assembly.id: assembly for assembly in project.assemblies}
    thickness: dict[str, float] = {}
    module: dict[str, float] = {}
    for element in building.elements:
        assembly = known.get(element.assembly_id or "")
        if assembly is not None:
            thickness[element.id] = assembly.thickness
            width = module_of(assembly)
            if width is not None:
                module[element.id] = width
    return thickness, module


def _measured(
    project: Project, building: Building, thickness: Mapping[str, float], module: Mapping[str, float],
    beyond: Mapping[str, float],
) -> MeasuredBuilding:  # fmt: skip
    schools = project.basis.schools
    # What somebody says of its plant or its joints leaves the shape as it is.
    drawn = (building.bodies, building.openings, building.faces)
    key = (schools.drawn_to, building.floor_thickness, *(tuple(one.items()) for one in (thickness, module, beyond)))
    shape = _SHAPES.get(drawn, key) or _SHAPES.put(drawn, quantities(
        building.bodies, building.openings, thickness_of=thickness, module_of=module,
        measured=_PLANES[schools.drawn_to], beyond_line=beyond,
        floor_thickness=building.floor_thickness, flat=building.faces,
    ), key)  # fmt: skip
    files = _files(building, shape)
    areas = tuple(
        _area(one, shape.area(one.id, schools.dimensions), files.get(one.id, "")) for one in building.elements
    )
    edges = {one.key: one.elements for one in shape.edges}
    lengths = tuple(
        _length(one, shape.length(one.follows, schools.dimensions),
                _common(files.get(each, "") for key in one.follows for each in edges.get(key, ())))
        for one in building.joints
    )  # fmt: skip
    plain = {one.name: getattr(building, one.name) for one in fields(Building)}
    plain["elements"] = tuple(replace(one, area=of.value) for one, of in zip(building.elements, areas, strict=True))
    plain["joints"] = tuple(replace(one, length=of.value) for one, of in zip(building.joints, lengths, strict=True))
    return MeasuredBuilding(**plain, shape=shape, areas=areas, lengths=lengths, stored=building,
                            dimensions=schools.dimensions, modules=dict(module),
                            fillings=_fillings(project, building))  # fmt: skip


def _outside(project: Project, building: Building) -> dict[str, float]:
    """Of each element what lies outside of its build-up's structure. [m]"""
    known = {one.id: outside_of_structure(one, project.catalogue) for one in project.assemblies}
    return {one.id: known[one.assembly_id] for one in building.elements if one.assembly_id in known}


def _fillings(project: Project, building: Building) -> dict[str, tuple[FilledOpenings, ...]]:
    units = {one.id: one for one in project.units}
    alike: dict[str, Counter[tuple[str, float, float]]] = {}
    for n, one in enumerate(building.openings):
        here = alike.setdefault(one.zone, Counter())
        unit = units.get(one.unit)
        if unit is not None and not here[one.unit, one.w, one.h]:
            try:
                unit.figures(one.w, one.h)
            except DomainError as error:  # its frame leaves no light at this size
                raise DomainError(*(replace(each, path=("openings", n)) for each in error.issues)) from None
        here[one.unit, one.w, one.h] += 1
    return {
        zone: tuple(FilledOpenings(unit=units.get(key), w=w, h=h, n=count) for (key, w, h), count in found.items())
        for zone, found in alike.items()
    }


def _files(building: Building, shape: Quantities) -> dict[str, str]:
    """The file that all faces and openings of an element were read from, by element."""
    bodies = {one.id: one.source for one in building.bodies}
    found: dict[str, list[str]] = {}
    for face in shape.takeoff.body.faces:
        found.setdefault(face.zone, []).append(bodies.get(face.id.partition(".")[0], ""))
    for one in building.openings:
        found.setdefault(one.zone, []).append(one.source)
    return {zone: _common(sources) for zone, sources in found.items()}


def _common(sources: Iterable[str]) -> str:
    """The one that all are; empty where they differ."""
    several = set(sources)
    return several.pop() if len(several) == 1 else ""


def _area(element: ShellElement, derived: float | None, source: str) -> Quantity:
    return _quantity(element.id, element.area, derived, source)


def _length(joint: ShellJoint, derived: float, source: str) -> Quantity:
    return _quantity(joint.id, joint.length, derived if joint.follows else None, source)


def _quantity(part_id: str, typed: float, derived: float | None, source: str) -> Quantity:
    if typed > 0:
        return Quantity(id=part_id, value=typed, origin="typed", derived=derived)
    if derived is None:
        return Quantity(id=part_id, value=0.0, origin="unknown", derived=None)
    return Quantity(id=part_id, value=derived, origin="read" if source else "derived", derived=derived, source=source)
