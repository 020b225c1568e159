"""Show working of what panels come to: joints, waste, weights, timber, resistance, beads."""

from __future__ import annotations

from collections.abc import Callable

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.elevation import bands_of
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.setout.panels import SetOut, is_bay
from nimble_shell.core.setout.plates import LINES, plates_of
from nimble_shell.core.setout.strips import M2, BandStrips
from nimble_shell.core.setout.timber import framed_layer, framing, from_set_out
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import BuildingSetOut, set_out_building
from nimble_shell.core.shell.site_workings import SITE_FIGURES
from nimble_shell.core.shop.filling import fill_of
from nimble_shell.core.shop.handling import G, handling_of
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.working import Derivation, Num, derive, named, traced

_BY = "set-out"


def panel_working(project: Project, building: MeasuredBuilding, figure: str, of: str) -> Derivation:
    """The working of a figure of the set-out or the shop.

    Parameters
    ----------
    figure : str
        "joints", "plates" or "waste" of a face, "mass" or "turn" of a panel, "timber", "R" or "beads" of a build-up;
        those of `site_workings` of a run, a build-up or a panel.
    of : str
        Id of the face, run or build-up, or mark of the panel.

    Raises
    ------
    DomainError
        If there is no such figure, or nothing that it could be of.
    """
    if figure in SITE_FIGURES:
        return derive(SITE_FIGURES[figure](project, building, of))
    make = _FIGURES.get(figure)
    if make is None:
        raise DomainError(Issue(path=("figure",), code="unknown_figure", message=f"there is no figure “{figure}”",
                                hint=f"one of {', '.join((*_FIGURES, *SITE_FIGURES))}"))  # fmt: skip
    return derive(make(_Ground(project, building), of))


class _Ground:
    def __init__(self, project: Project, building: MeasuredBuilding) -> None:
        self.project, self.building = project, building
        self.found: BuildingSetOut = set_out_building(project, building)

    def face(self, of: str) -> tuple[FaceSetOut, SetOut]:
        one = next((each for each in self.found.faces if each.face == of), None)
        if one is None or not isinstance(one.found, SetOut):
            raise _nothing(of)
        return one, one.found

    def panel(self, of: str) -> tuple[FaceSetOut, Marked]:
        for face in self.found.faces:
            for one in face.panels:
                if one.mark == of:
                    return face, one
        raise _nothing(of)

    def assembly(self, of: str) -> Assembly:
        one = next((each for each in self.project.assemblies if each.id == of), None)
        if one is None or of not in self.found.timber:
            raise _nothing(of)
        return one

    def per_m2(self, face: FaceSetOut) -> float:
        element = next(one for one in self.building.elements if one.id == face.zone)
        return self.found.masses.get(element.assembly_id or "", 0.0)


def _nothing(of: str) -> DomainError:
    return DomainError(Issue(path=("of",), code="not_set_out", message=f"“{of}” is not set out",
                             hint="a face, a build-up or a panel that is"))  # fmt: skip


def _sum(parts: list[Num]) -> Num:
    total = parts[0] if parts else traced(0.0, "none", "nothing of it", "m", _BY)
    for one in parts[1:]:
        total = total + one
    return total


def _joints(ground: _Ground, of: str) -> Num:
    face, _ = ground.face(of)
    bands = bands_of(face.elevation)
    parts = [
        traced(bands[one.band].member(one.x), f"l_{n}", f"{'post' if one.post else face.rules.spline} {n} of storey "
               f"{one.band + 1}, its length less the openings it crosses", "m", _BY)
        for n, one in enumerate(face.members(), 1)
    ]  # fmt: skip
    return named(_sum(parts), "l", "length of all joints", "m", "sum over joints")


def _plates(ground: _Ground, of: str) -> Num:
    face, _ = ground.face(of)
    runs = [one for band in bands_of(face.elevation) for line in LINES for one in plates_of(band, line)]
    parts = [
        traced(one.length / 1000, f"l_{n}", f"{one.line} plate {n} of storey {one.band + 1}", "m", _BY)
        for n, one in enumerate(runs, 1)
    ]
    return named(_sum(parts), "l", "length of plates, once each", "m", "sum over runs; openings on the line left out")


def _waste(ground: _Ground, of: str) -> Num:
    face, _ = ground.face(of)
    rules, bands = face.rules.rules, bands_of(face.elevation)
    strips = {band.index: BandStrips(band, rules) for band in bands}
    parts: list[Num] = []
    for n, one in enumerate(face.panels, 1):
        piece = one.panel.piece
        bay = is_bay(bands[one.panel.band], piece.x0, piece.x1)
        lost = strips[one.panel.band].waste_of(piece, turned=bay) or 0.0
        blank = traced(piece.area * M2 + lost, f"B_{n}", f"smallest blank for {one.mark}", "m²", "sheets of the system")
        area = traced(piece.area * M2, f"A_{n}", f"area of {one.mark}", "m²", _BY)
        parts.append(named(blank - area, f"w_{n}", f"left of the blank of {one.mark}", "m²", "blank less panel"))
    return named(_sum(parts), "w", "cut from the blanks and left", "m²", "sum over panels")


def _mass(ground: _Ground, of: str) -> Num:
    face, one = ground.panel(of)
    area = traced(one.panel.piece.area * M2, "A", f"area of {of} less its holes", "m²", _BY)
    per = traced(ground.per_m2(face), "m_A", "mass of what is put together in the shop", "kg/m²",
                 "layers fitted in the shop, thickness by density, members by their share")  # fmt: skip
    own = named(area * per, "m_own", "the panel itself", "kg", "area by mass per area")
    units = one.panel.mass - one.panel.piece.area * M2 * ground.per_m2(face)
    held = traced(units if units > 1e-9 else 0.0, "m_units", "what is fitted into its openings", "kg", "unit schedule")
    return named(own + held, "m", f"mass of {of}", "kg", "panel and units")


def _turn(ground: _Ground, of: str) -> Num:
    face, one = ground.panel(of)
    found = handling_of(one, face.elevation.openings, ground.per_m2(face))
    mass = traced(found.mass, "m", f"mass of {of}", "kg", _BY)
    at = traced(found.v / 1000, "v", "centre of gravity above its lower edge", "m", "areas and units, first moments")
    high = traced(one.panel.piece.height / 1000, "h", "height of the panel", "m", _BY)
    g = traced(G, "g", "gravity", "m/s²", "standard value")
    return named(mass * g * at / high, "F", "force at its top edge that begins to turn it", "N",
                 "moments about the lower edge, flat on the ground")  # fmt: skip


def _timber(ground: _Ground, of: str) -> Num:
    layer = framed_layer(from_set_out(ground.assembly(of), ground.found.timber[of]))
    left: Num | None = None
    for n, one in enumerate(() if layer is None else framing(layer), 1):
        if one.share is not None:
            share = traced(one.share, f"t_{n}", f"share of {one.name}", "", _BY)
        else:
            width = traced(one.width or 0.0, f"w_{n}", f"width of {one.name}", "m", "build-up")
            centres = traced(
                one.centres or 1.0, f"c_{n}", f"centres of {one.name}", "m", "area over length, by set-out"
            )
            share = named(width / centres, f"t_{n}", f"share of {one.name}", "", "width over centres")
        one_less = 1.0 - share
        left = one_less if left is None else left * one_less
    if left is None:
        raise _nothing(of)
    return named(1.0 - left, "t", "timber in the framed layer", "", "members crossing one another counted once")


def _R(ground: _Ground, of: str) -> Num:
    assembly, project = ground.assembly(of), ground.project
    station = next(one.station for one in ground.building.elements if one.assembly_id == of)
    found = clear_wall_R(from_set_out(assembly, ground.found.timber[of]), project.catalogue, project.basis,
                         direction=direction_in(project.basis, station), given=traced)  # fmt: skip
    return named(found, "R_set_out", "clear R with timber as set out", "m²·K/W", "by the method of the Basis")


def _beads(ground: _Ground, of: str) -> Num:
    assembly = ground.assembly(of)
    assert assembly.core_index is not None
    core = assembly.layers[assembly.core_index]
    zones = {one.id for one in ground.building.elements if one.assembly_id == of}
    faces = [one for one in ground.found.faces if one.zone in zones]
    frame = _timber(ground, of)
    done = fill_of(faces, assembly, 0.0, ground.project.catalogue[core.material].rho, ground.building.shop)
    area = traced(sum(one.panel.piece.area for face in faces for one in face.panels) * M2, "A", "area of panels", "m²",
                  _BY)  # fmt: skip
    depth = traced(core.d, "d", "depth of the frame", "m", "build-up")
    settled = traced(done.settlement, "s", "settles by", "", "as entered, else usual for these beads")
    cavity = named(area * depth * (1.0 - frame), "V", "to be filled", "m³", "area by depth, less timber")
    return named(cavity / (1.0 - settled), "V_blown", "blown", "m³", "so that it is full after it has settled")


_FIGURES: dict[str, Callable[[_Ground, str], Num]] = {
    "joints": _joints, "plates": _plates, "waste": _waste, "mass": _mass, "turn": _turn, "timber": _timber, "R": _R,
    "beads": _beads,
}  # fmt: skip
