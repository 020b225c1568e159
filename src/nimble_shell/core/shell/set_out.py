"""A building set out: each of its faces that is made of panels, and what that means for its build-ups."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.building.joined import floor_lines_of
from nimble_shell.core.geometry.face import Face, FloatArray
from nimble_shell.core.held import Held
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.progress import report
from nimble_shell.core.setout.faces import FaceSetOut, elevation_of, face_marks, set_out_face
from nimble_shell.core.setout.panels import NoWay
from nimble_shell.core.setout.systems import PanelRules, panel_rules
from nimble_shell.core.setout.timber import Timber, from_set_out, timber_of
from nimble_shell.core.shell.coursed import as_laid, from_courses
from nimble_shell.core.shell.lifting import density_of
from nimble_shell.core.shell.measured import MeasuredBuilding, with_edges
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shop.cut_list import timbers_of
from nimble_shell.core.shop.screwing import screwed
from nimble_shell.core.takeoff.takeoff import Both


@dataclass(frozen=True, slots=True, kw_only=True)
class NotOfPanels:
    """A face that is poured, laid, framed on site or not drawn yet."""

    face: str
    mark: str
    kind: str
    zone: str
    reason: str


@dataclass(frozen=True, slots=True, kw_only=True)
class BuildingSetOut:
    """All faces of a building, in the order of its shape."""

    faces: tuple[FaceSetOut, ...]
    others: tuple[NotOfPanels, ...]
    timber: Mapping[str, Timber]  #: of each build-up, by its id
    masses: Mapping[str, float]  #: of what is put together in the shop, by build-up [kg/m²]
    plates: Mapping[str, int]  #: one on another, of a build-up

    @property
    def lacking(self) -> tuple[str, ...]:
        """Marks of faces of panels that cannot be set out: no sum over faces is whole while there are any."""
        return tuple(one.mark for one in self.faces if isinstance(one.found, NoWay))


def set_out_building(
    project: Project, building: MeasuredBuilding, only: str | None = None, *, module: float | None = None
) -> BuildingSetOut:
    """Set out all faces that are made of panels, or one of them; on another module, if one is given. [m]"""
    assemblies = {one.id: one for one in project.assemblies}
    used = {one.id: assemblies.get(one.assembly_id or "") for one in building.elements}
    masses = {one.id: shop_mass(one, project.catalogue) for one in used.values() if one is not None}
    choices, placed = building.setout, building.shape.takeoff.placed["external"]
    rules = {key: panel_rules(one, masses[one.id], choices, module) for key, one in used.items() if one is not None}
    weights = _weights(project, building)
    marks = face_marks(placed.body.faces)
    names = {one.id: one.mark for one in building.openings if one.mark}
    found, others = list[FaceSetOut](), list[NotOfPanels]()
    for n, face in enumerate(placed.body.faces):
        if only is not None and face.id != only:
            continue
        if only is None:
            report(n, len(placed.body.faces))
        of = rules.get(face.zone)
        mark = marks[face.id]
        if of is None or (face.kind == "floor" and face.to == "ground"):
            others.append(NotOfPanels(face=face.id, mark=mark, kind=face.kind, zone=face.zone,
                                      reason=_why(used.get(face.zone))))  # fmt: skip
            continue
        flat = placed.flats[n]
        elevation, shift = elevation_of(face, flat, _levels(building, face, flat, of, choices.longest), weights, names)
        up = float(placed.body.normals[n][2])
        pitch = math.degrees(math.acos(min(1.0, max(-1.0, up)))) if face.kind == "roof" else 0.0
        found.append(set_out_face(face, mark, elevation, shift, of, choices, pitch))
    plates = {one.id: timbers_of(one).plates for one in used.values() if one is not None}
    return BuildingSetOut(faces=tuple(found), others=tuple(others), timber=_timber(building, found), masses=masses,
                          plates=plates)  # fmt: skip


def shop_mass(assembly: Assembly, catalogue: Catalogue) -> float:
    """Of what is put together in the shop; of everything where nothing is said to be. [kg/m²]"""
    shop = [one for one in assembly.layers if one.fitted == "shop"] or list(assembly.layers)
    return sum(layer.d * density_of(layer, catalogue) for layer in shop)


def built_as_set_out(project: Project, building: Building) -> Building:
    """The building with its seams as long as they are set out, where that is what counts; else as it is."""
    if not isinstance(building, MeasuredBuilding) or not building.setout.counts:
        return building
    held = _BUILT.get((project, building))
    if held is not None:
        return held
    found = set_out_building(project, building)
    known = {one.id for one in building.elements if one.assembly_id in found.timber}
    edges = tuple(
        replace(one, length=_seams(found, one.elements[0]))
        if one.kind in SEAMS and known.issuperset(one.elements) else one
        for one in building.shape.edges
    )  # fmt: skip
    return _BUILT.put((project, building), with_edges(building, edges))


def as_set_out(project: Project, building: Building) -> Project:
    """The project with the build-ups of a building as they are set out, where that is what counts; else as it is."""
    if not isinstance(building, MeasuredBuilding) or not (building.setout.counts or building.forms.counts):
        return project
    held = _SEEN.get((project, building))
    if held is not None:
        return held
    timber = set_out_building(project, building).timber if building.setout.counts else {}
    laid = as_laid(project, building) if building.forms.counts else {}
    own = {one.assembly_id for one in building.elements}

    def seen(one: Assembly) -> Assembly:
        if one.id in own and one.id in laid:
            return from_courses(one, laid[one.id], building.forms.web)
        return from_set_out(one, timber[one.id]) if one.id in own and one.id in timber else one

    return _SEEN.put((project, building), replace(project, assemblies=tuple(map(seen, project.assemblies))))


SEAMS = ("seam", "roof_seam")
_BUILT: Held[Building] = Held(64)
_SEEN: Held[Project] = Held(64)


def _seams(found: BuildingSetOut, element: str) -> Both:
    length = timber_of(one for one in found.faces if one.zone == element).seams
    return Both(length, length)


def _levels(building: MeasuredBuilding, face: Face, flat: FloatArray, rules: PanelRules, longest: float) -> list[float]:
    """Up the face, of joints between storeys; and between the eaves and a gable, or the halves of a slope, that are
    too long for one panel. [m]"""
    low, high = float(flat[:, 1].min()), float(flat[:, 1].max())
    if face.kind != "wall":
        pieces = math.ceil((high - low) / longest - 1e-9)
        return [low + (high - low) * n / pieces for n in range(1, pieces)]
    lines = floor_lines_of(building.bodies, building.floor_thickness)
    levels = {one.z for one in lines if face.id.startswith(one.of) and low < one.z < high}
    body = next((one for one in building.bodies if face.id.startswith(f"{one.id}.")), None)
    if body is not None and high - max([*levels, low]) > longest and rules.crane:
        levels.add(body.eaves)
    return sorted(one for one in levels if low < one < high)


def _weights(project: Project, building: MeasuredBuilding) -> dict[str, float]:
    """Of what is built into each opening, as far as its type says. [kg]"""
    units = {one.id: one.mass for one in project.units}
    return {one.id: units.get(one.unit) or 0.0 for one in building.openings}


def _timber(building: MeasuredBuilding, faces: Iterable[FaceSetOut]) -> dict[str, Timber]:
    """Of each build-up: all of its faces have to be set out, else it is not known."""
    of = {one.id: one.assembly_id for one in building.elements}
    by_assembly: dict[str, list[FaceSetOut]] = defaultdict(list)
    for one in faces:
        by_assembly[of.get(one.zone) or ""].append(one)
    screws = building.setout.screws
    return {
        key: timber_of(several) + Timber(through=0 if screws is None else sum(
            screwed(one, screws).through for one in several))
        for key, several in by_assembly.items() if key and all(one.panels for one in several)
    }  # fmt: skip


def _why(assembly: Assembly | None) -> str:
    if assembly is None:
        return "no build-up is drawn for it"
    return f"“{assembly.name}” is not made of panels"
