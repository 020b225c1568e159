"""The sheet of wet trades: mortar, plaster and straw boards of a building, build-up by build-up."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import set_out_building
from nimble_shell.core.shell.wetting import (
    BOARDED,
    MORTARED,
    PLASTERED,
    BoardedFaces,
    Clocked,
    MortaredFaces,
    PlasteredFaces,
    boarded,
    clocked,
    mortared,
    plastered,
    temperature,
)
from nimble_shell.core.shop.wet_choices import WetChoices
from nimble_shell.services.shop_panels import assemblies_of
from nimble_shell.services.whole_shell import shaped

_SHOWN = 200  #: days


@dataclass(frozen=True, slots=True, kw_only=True)
class CastDay:
    """A day of the casting."""

    theta: float  #: mean [°C]
    read: bool
    warm: bool
    plaster: float  #: as planned [m³]


@dataclass(frozen=True, slots=True, kw_only=True)
class WetSheet:
    """Of a building."""

    choices: WetChoices
    mortar: tuple[MortaredFaces, ...]
    plaster: tuple[PlasteredFaces, ...]
    boards: tuple[BoardedFaces, ...]
    log: tuple[Clocked, ...]
    days: tuple[CastDay, ...]
    lacking: tuple[str, ...]


def wet_sheet(project: Project, building_id: str) -> WetSheet:
    """Every build-up that is sprayed, plastered or jointed wet. Raises DomainError, NotFound, Stopped."""
    building = shaped(project, building_id)
    found, of, choices = set_out_building(project, building), assemblies_of(project, building), building.wet
    basis = project.within(building_id).basis
    faces = defaultdict[str, list[FaceSetOut]](list)
    for one in found.faces:
        faces[of[one.zone].id].append(one)
    known = {one.id: one for one in of.values()}

    def by(systems: tuple[str, ...]) -> list[str]:
        return [key for key in faces if known[key].system in systems]

    plans = tuple(plastered(faces[key], known[key], choices, basis) for key in by(PLASTERED))
    return WetSheet(
        choices=choices, mortar=tuple(mortared(building, faces[key], known[key], choices) for key in by(MORTARED)),
        plaster=plans, boards=tuple(boarded(building, faces[key], known[key]) for key in by(BOARDED)),
        log=tuple(clocked(choices, basis)), days=_days(plans, choices, project, building_id), lacking=found.lacking,
    )  # fmt: skip


def _days(
    plans: tuple[PlasteredFaces, ...], choices: WetChoices, project: Project, building_id: str
) -> tuple[CastDay, ...]:
    basis = project.within(building_id).basis
    mixed = defaultdict[int, float](float)
    for one in plans:
        sides = {each.panel: each.side for each in one.panels}
        for cast in one.plan or ():
            mixed[cast.first] += sides[cast.panel]
            mixed[cast.turned] += sides[cast.panel]
    lifts = [each.lift for one in plans for each in one.plan or ()]
    last = min(_SHOWN, max([*lifts, len(choices.days) - 1, *(one.lift or 0 for one in clocked(choices, basis))],
                           default=-1))  # fmt: skip
    thetas = [temperature(day, choices, basis) for day in range(last + 1)]
    return tuple(CastDay(theta=theta, read=day < len(choices.days), warm=theta >= choices.cold, plaster=mixed[day])
                 for day, theta in enumerate(thetas))  # fmt: skip
