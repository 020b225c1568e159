"""The set-out sheet: faces cut into panels as stored or as somebody is drawing them, and what that means."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.progress import report
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.courses.choices import FormChoices
from nimble_shell.core.setout.elevation import Opening
from nimble_shell.core.setout.faces import FaceSetOut, module_in, set_out_again
from nimble_shell.core.setout.panels import NoWay, SetOut
from nimble_shell.core.setout.rules import COUNTED
from nimble_shell.core.setout.timber import framed_share, from_set_out
from nimble_shell.core.shell.coursed import forms_of
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import BuildingSetOut, NotOfPanels, set_out_building
from nimble_shell.core.shop.screwing import Screwed, screwed
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.working import plain, value_of
from nimble_shell.services.bench import shell_of, to_outside
from nimble_shell.services.joints import KnownJoint
from nimble_shell.services.setout_drawn import DrawnSetOut, drawn_faces
from nimble_shell.services.shape import ShapeDraft, with_shape
from nimble_shell.services.whole_shell import shaped

MOVE_STEP, MOST_MOVE = 5.0, 600.0  #: of an opening that is looked for a better place [mm]
_COARSE = 100.0  #: first looked at every so far; then in steps, short of the best that was found [mm]
_NEAR = 1e-6
_M = 1000.0


@dataclass(frozen=True, slots=True, kw_only=True)
class SetOutDraft:
    """What somebody is drawing; None of what stays as it is stored."""

    choices: SetOutChoices | None = None
    forms: FormChoices | None = None
    shape: ShapeDraft = field(default_factory=ShapeDraft)


@dataclass(frozen=True, slots=True, kw_only=True)
class ThermalBack:
    """What a set-out makes of a build-up, beside what was assumed."""

    assembly: str
    name: str
    panels: int
    area: float  #: of its panels [m²]
    seams: float  #: between them, by set-out [m]
    seams_assumed: float  #: at each whole module [m]
    posts: float  #: of them at openings [m]
    plates: float  #: [m]
    headers: float  #: [m]
    timber: float | None  #: share of its area in the framed layer, by set-out; None where nothing is framed
    timber_assumed: float | None
    R: float  #: clear section with that [m²·K/W]
    R_assumed: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SetOutEffect:
    """What the shell comes to, with timber and seams as assumed and as set out."""

    H_assumed: float  #: [W/K]
    H: float
    R_assumed: float  #: whole wall [m²·K/W]
    R: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SetOutSheet:
    """All faces of a building."""

    choices: SetOutChoices
    faces: tuple[DrawnSetOut, ...]
    others: tuple[NotOfPanels, ...]
    thermal: tuple[ThermalBack, ...]
    lacking: tuple[str, ...]  #: marks of faces that no sum over faces has
    forms: bool  #: whether walls are cast in forms, and laid in courses
    screws: int | None  #: in all skins; None while no pattern is entered or a face lacks
    boxes: int | None
    effect: SetOutEffect | None = None  #: on the shell; None while what the shell loses is not whole


@dataclass(frozen=True, slots=True, kw_only=True)
class Move:
    """An opening moved to where the wall comes out better."""

    opening: str = ""  #: its id
    mark: str = ""
    by: float  #: to the right; to the left is below nought [m]
    panels: int  #: changes, below nought is saved
    joints: int
    off_module: int
    length: float  #: of joints [m]
    waste: float  #: [m²]
    waste_kg: float
    heat: float | None  #: of the seams that go; None while their ψ is not known [W/K]


def set_out_sheet(project: Project, building_id: str, draft: SetOutDraft) -> SetOutSheet:
    """All faces of a building. Raises DomainError, NotFound."""
    drawn = drafted(project, building_id, draft)
    choices = shaped(drawn, building_id).setout
    building = assumed(drawn, building_id)
    found = set_out_building(drawn, building)
    screws = None if choices.screws is None or found.lacking else sum(
        (screwed(one, choices.screws) for one in found.faces), Screwed()
    )  # fmt: skip
    return SetOutSheet(
        choices=choices, faces=drawn_faces(building, found),
        others=found.others, forms=bool(forms_of(drawn, building)),
        thermal=_thermal(drawn.within(building_id), building, found), lacking=found.lacking,
        screws=None if screws is None else screws.skins,
        boxes=None if screws is None or choices.screws is None else screws.boxes(choices.screws.box),
    )  # fmt: skip


def assumed(project: Project, building_id: str) -> MeasuredBuilding:
    """The building with seams as assumed, whatever counts. Raises DomainError, NotFound."""
    choices = replace(shaped(project, building_id).setout, counts=False)
    return shaped(drafted(project, building_id, SetOutDraft(choices=choices)), building_id)


def effect_of(
    project: Project, building_id: str, joints: Sequence[KnownJoint], waiting: Sequence[str]
) -> SetOutEffect | None:
    """The ledger both ways; None while it lacks a part. Raises DomainError, NotFound."""
    both = []
    for counts in (False, True):
        choices = replace(shaped(project, building_id).setout, counts=counts)
        drawn = drafted(project, building_id, SetOutDraft(choices=choices))
        ledger = shell_of(drawn, shaped(drawn, building_id), joints, plain, waiting)
        if not ledger.whole or ledger.H is None or ledger.R_effective is None:
            return None
        both.append((value_of(ledger.H), value_of(ledger.R_effective)))
    return SetOutEffect(H_assumed=both[0][0], R_assumed=both[0][1], H=both[1][0], R=both[1][1])


def set_out_one(project: Project, building_id: str, face_id: str, draft: SetOutDraft) -> DrawnSetOut:
    """One face. Raises DomainError, NotFound."""
    drawn = drafted(project, building_id, draft)
    building = shaped(drawn, building_id)
    found = set_out_building(drawn, building, only=face_id)
    if not found.faces:
        why = found.others[0].reason if found.others else f"there is no face “{face_id}”"
        raise DomainError(Issue(path=("face",), code="not_of_panels", message=why, hint="choose a face of panels"))
    return drawn_faces(building, found)[0]


def better_places(project: Project, building_id: str, face_id: str, joints: Sequence[KnownJoint]) -> tuple[Move, ...]:
    """For each opening of a face, the shortest move that makes the wall better by what counts most.

    Panels and joints off the module and joints count as ordered; waste alone moves nothing. Places are looked at where
    an edge meets a line of the module's eighths, and every 100 mm; then step by step short of the best of them. An
    opening without which the wall would be no better stays where it is.
    """
    building = shaped(project, building_id)
    found = set_out_building(project, building, only=face_id)
    if not found.faces or isinstance(found.faces[0].found, NoWay):
        return ()
    face = found.faces[0]
    psi = _seam_psi(building, face, joints)
    of = next(one.assembly_id or "" for one in building.elements if one.id == face.zone)
    moves = []
    for n, (own, one) in enumerate(zip(face.openings, face.elevation.openings, strict=True)):
        report(n, len(face.openings))
        best = _better(face, building.setout, one)
        if best is not None:
            moved = _move(face.found, *best, psi=psi, mass=found.masses.get(of, 0.0))
            moves.append(replace(moved, opening=own, mark=one.name))
    return tuple(moves)


def _better(face: FaceSetOut, choices: SetOutChoices, opening: Opening) -> tuple[float, SetOut] | None:
    """How far, and what it comes to. [mm]"""
    now = _counted(face.found, choices)
    others = tuple(one for one in face.elevation.openings if one is not opening)
    without = set_out_again(face, replace(face.elevation, openings=others), choices)
    if isinstance(without, SetOut) and _counted(without, choices) >= now:
        return None  # it is in nobody's way
    best: tuple[list[int], float, float, SetOut] | None = None

    def look(by: float) -> None:
        nonlocal best
        openings = tuple(replace(one, x=one.x + by) if one is opening else one for one in face.elevation.openings)
        there = set_out_again(face, replace(face.elevation, openings=openings), choices)
        if isinstance(there, SetOut):
            value = _counted(there, choices)
            if value < now and (best is None or (value, abs(by)) < best[:2]):
                best = (value, abs(by), by, there)

    for by in _tries(face, opening):
        look(by)
    if best is None:
        return None
    far = best[1]
    for n in range(1, int(far / MOVE_STEP)):
        for by in (n * MOVE_STEP, -n * MOVE_STEP):
            if best[1] > abs(by):
                look(by)
    return best[2], best[3]


def _counted(found: SetOut | NoWay, choices: SetOutChoices) -> list[int]:
    assert isinstance(found, SetOut)
    return [getattr(found.sum, one) for one in choices.order if one in COUNTED]


def _tries(face: FaceSetOut, opening: Opening) -> list[float]:
    """Moves that put one of its edges on a line of the module's eighths, in whole steps, and others every 100 mm; the
    shortest first. [mm]"""
    grid = module_in(face) / 8
    found = {_COARSE * n for n in range(-int(MOST_MOVE / _COARSE), int(MOST_MOVE / _COARSE) + 1) if n}
    for edge in (opening.x, opening.right):
        first = round((edge - MOST_MOVE) / grid)
        for n in range(first, first + round(2 * MOST_MOVE / grid) + 1):
            by = round((n * grid - edge) / MOVE_STEP) * MOVE_STEP
            if _NEAR < abs(by) <= MOST_MOVE:
                found.add(round(by, 3))
    return sorted(found, key=abs)


def _move(now: SetOut | NoWay, by: float, there: SetOut, *, psi: float | None, mass: float) -> Move:
    assert isinstance(now, SetOut)
    length, waste = there.sum.member_length - now.sum.member_length, there.sum.waste - now.sum.waste
    return Move(
        by=by / _M, panels=there.sum.panels - now.sum.panels,
        joints=there.sum.members - now.sum.members, off_module=there.sum.off_module - now.sum.off_module,
        length=length, waste=waste, waste_kg=waste * mass, heat=None if psi is None else psi * length,
    )  # fmt: skip


def _seam_psi(building: MeasuredBuilding, face: FaceSetOut, joints: Sequence[KnownJoint]) -> float | None:
    """Of the joint that stands for the seams of this face's element. [W/(m·K)]"""
    kind = "seam" if face.kind == "wall" else "roof_seam"
    keys = {one.key for one in building.shape.edges if one.kind == kind and face.zone in one.elements}
    ids = {one.id for one in building.joints if keys & set(one.follows)}
    solved = next((one.solved for one in joints if one.joint.id in ids), None)
    return None if solved is None else to_outside(solved, building.dimensions)


def drafted(project: Project, building_id: str, draft: SetOutDraft) -> Project:
    """The project as somebody draws it. Raises NotFound."""
    drawn = with_shape(project, building_id, draft.shape)
    if draft.choices is None and draft.forms is None:
        return drawn
    return replace(drawn, buildings=tuple(
        replace(one, setout=draft.choices or one.setout, forms=draft.forms or one.forms)
        if one.id == building_id else one for one in drawn.buildings
    ))  # fmt: skip


def _thermal(project: Project, building: MeasuredBuilding, found: BuildingSetOut) -> tuple[ThermalBack, ...]:
    """Of each build-up whose faces are all set out."""
    known = {one.id: one for one in project.assemblies}
    rows = []
    for key, timber in found.timber.items():
        assembly = known[key]
        elements = {one.id for one in building.elements if one.assembly_id == key}
        station = next(one.station for one in building.elements if one.assembly_id == key)
        assumed = sum(one.length.external for one in building.shape.edges
                      if one.kind in ("seam", "roof_seam") and elements & set(one.elements))  # fmt: skip
        direction = direction_in(project.basis, station)
        changed = from_set_out(assembly, timber)
        R, R_assumed = (
            value_of(clear_wall_R(one, project.catalogue, project.basis, direction=direction))
            for one in (changed, assembly)
        )
        rows.append(ThermalBack(
            assembly=key, name=assembly.name, panels=timber.panels, area=timber.area, seams=timber.seams,
            seams_assumed=assumed, posts=timber.posts, plates=timber.bottom + timber.top, headers=timber.headers,
            timber=framed_share(changed), timber_assumed=framed_share(assembly), R=R, R_assumed=R_assumed,
        ))  # fmt: skip
    return tuple(rows)
