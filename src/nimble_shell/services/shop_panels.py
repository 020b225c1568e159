"""Panels in the shop: what each weighs and how it is moved, what is worked into it, what is blown into its frame."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.setout.timber import framed_share, from_set_out
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.core.shop.cut_list import PanelCuts
from nimble_shell.core.shop.filling import BEFORE, fill_of, is_filled
from nimble_shell.core.shop.handling import handling_of
from nimble_shell.core.shop.laydown import FOUR
from nimble_shell.core.shop.works import Kind, fittings_of, works_of
from nimble_shell.services.simulated_tape import tape_readings
from nimble_shell.services.whole_shell import shaped

_M = 1000.0
Point = tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelWeight:
    """How a panel is moved. u and v from its lower left corner [m]."""

    panel: str
    width: float
    height: float
    mass: float  #: [kg]
    u: float  #: of the centre of gravity
    v: float
    turn: float  #: at its top edge, to begin to stand it up [N]
    people: int
    crane: bool  #: whether it is more than people carry


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelWork:
    """A cut into a panel. [m]"""

    kind: Kind
    where: str
    u: float
    v: float
    length: float
    wide: float
    deep: float
    angle: float  #: [°]


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelCard:
    """Of one panel; outline and holes from its lower left corner. [m]"""

    weight: PanelWeight
    outline: tuple[Point, ...]
    holes: tuple[tuple[Point, ...], ...]
    works: tuple[PanelWork, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class FilledPanel:
    """What is blown into one panel."""

    panel: str
    cavity: float  #: [m³]
    blown: float  #: [m³]
    mass: float  #: [kg]
    ports: tuple[Point, ...]  #: on the face, in the order they are used [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Filled:
    """Of one build-up whose frame is filled with beads."""

    assembly: str
    name: str
    panels: tuple[FilledPanel, ...]  #: in the order they are filled
    cavity: float  #: [m³]
    blown: float  #: [m³]
    mass: float  #: [kg]
    bags: int
    settlement: float  #: share of what is blown
    density: float  #: as blown [kg/m³]
    lacking: tuple[str, ...]  #: marks of its faces that no sum has
    before: tuple[str, ...]  #: what has to be closed and looked at before


def weights_of(
    building: MeasuredBuilding, faces: Sequence[FaceSetOut], masses: Mapping[str, float], of: Mapping[str, Assembly]
) -> Iterator[PanelWeight]:
    """Of all panels, in set order.

    Parameters
    ----------
    masses : mapping of build-up id to float
        Of what is put together in the shop. [kg/m²]
    of : mapping of element id to Assembly
    """
    for face in faces:
        for one in face.panels:
            yield _weight(building, face, one, masses.get(of[face.zone].id, 0.0))


def _weight(building: MeasuredBuilding, face: FaceSetOut, one: Marked, per_m2: float) -> PanelWeight:
    found, choices = handling_of(one, face.elevation.openings, per_m2), building.setout
    return PanelWeight(
        panel=one.mark, width=one.panel.piece.width / _M, height=one.panel.piece.height / _M, mass=found.mass,
        u=found.u / _M, v=found.v / _M, turn=found.turn, people=choices.people(found.mass),
        crane=choices.wants_crane(found.mass),
    )  # fmt: skip


def panel_card(project: Project, building_id: str, mark: str) -> PanelCard:
    """One panel with what is worked into it. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    found = set_out_building(project, building)
    face, one = _panel(found.faces, mark)
    assembly = assemblies_of(project, building)[face.zone]
    piece, openings = one.panel.piece, face.elevation.openings

    def on(x: float, y: float) -> Point:
        return (x - piece.x0) / _M, (y - piece.y0) / _M

    return PanelCard(
        weight=_weight(building, face, one, found.masses.get(assembly.id, 0.0)),
        outline=tuple(on(x, y) for x, y in piece.outline),
        holes=tuple(
            (on(each.x, each.y), on(each.right, each.y), on(each.right, each.top), on(each.x, each.top))
            for each in openings if each.name in piece.holes
        ),
        works=tuple(_works(building, face, one, _cuts(project, building, face, assembly))),
    )  # fmt: skip


def every_work(project: Project, building_id: str) -> Iterator[tuple[str, PanelWork]]:
    """What is worked into each panel, in set order, with its mark. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    of = assemblies_of(project, building)
    for face in set_out_building(project, building).faces:
        cuts = _cuts(project, building, face, of[face.zone])
        for one in face.panels:
            for work in _works(building, face, one, cuts):
                yield one.mark, work


def _cuts(project: Project, building: MeasuredBuilding, face: FaceSetOut, assembly: Assembly) -> PanelCuts:
    return PanelCuts(face, assembly, project.catalogue, max(building.shop.bars) * _M)


def _works(building: MeasuredBuilding, face: FaceSetOut, one: Marked, cuts: PanelCuts) -> Iterator[PanelWork]:
    for each in works_of(cuts, one, fittings_of(face, building.setout)):
        yield PanelWork(kind=each.kind, where=each.where, u=each.u / _M, v=each.v / _M, length=each.length / _M,
                        wide=each.wide / _M, deep=each.deep / _M, angle=each.angle)  # fmt: skip


def tape_read(project: Project, building_id: str, mark: str) -> tuple[float, ...]:
    """What the simulated tape reads on a laid-down panel of four corners. Raises DomainError, NotFound. [m]"""
    building = shaped(project, building_id)
    _, one = _panel(set_out_building(project, building).faces, mark)
    if len(one.panel.piece.outline) != FOUR:
        raise DomainError(Issue(path=("panel",), code="not_four", message=f"“{mark}” is no panel of four corners",
                                hint="choose one of those that are laid down"))  # fmt: skip
    return tuple(one / _M for one in tape_readings(mark, one.panel.piece.outline))


def filling_of(project: Project, building_id: str) -> tuple[Filled, ...]:
    """Of each build-up that beads are blown into. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    found, of = set_out_building(project, building), assemblies_of(project, building)
    rows = []
    for assembly in {one.id: one for one in of.values()}.values():
        faces = [face for face in found.faces if of[face.zone].id == assembly.id and face.panels]
        if not is_filled(assembly) or not faces or assembly.core_index is None:
            continue
        set_ = from_set_out(assembly, found.timber[assembly.id]) if assembly.id in found.timber else assembly
        core = assembly.layers[assembly.core_index].material
        done = fill_of(faces, assembly, _frame(set_), project.catalogue[core].rho, building.shop)
        rows.append(Filled(
            assembly=assembly.id, name=assembly.name, settlement=done.settlement, density=done.density,
            panels=tuple(
                FilledPanel(panel=one.mark, cavity=one.cavity, blown=one.blown, mass=one.mass,
                            ports=tuple((each.u / _M, each.v / _M) for each in one.ports))
                for one in done.panels
            ),
            cavity=sum(one.cavity for one in done.panels), blown=done.blown,
            mass=sum(one.mass for one in done.panels), bags=done.bags(building.shop.bag), before=BEFORE,
            lacking=tuple(face.mark for face in found.faces if of[face.zone].id == assembly.id and not face.panels),
        ))  # fmt: skip
    return tuple(rows)


def _frame(assembly: Assembly) -> float:
    return framed_share(assembly) or 0.0


def assemblies_of(project: Project, building: MeasuredBuilding) -> dict[str, Assembly]:
    """Of each element that has a build-up."""
    known = {one.id: one for one in project.assemblies}
    return {one.id: known[one.assembly_id] for one in building.elements if one.assembly_id in known}


def _panel(faces: Sequence[FaceSetOut], mark: str) -> tuple[FaceSetOut, Marked]:
    for face in faces:
        for one in face.panels:
            if one.mark == mark:
                return face, one
    raise DomainError(Issue(path=("panel",), code="no_such_panel", message=f"there is no panel “{mark}”",
                            hint="choose one of the panel list"))  # fmt: skip
