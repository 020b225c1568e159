"""The lifts sheet: every panel with its hook, crane, wind and people, and the days that all of them take."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.setout.faces import FaceSetOut, Marked
from nimble_shell.core.shell.lifting import ANGLES, Lifted, lifted, side_view
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.set_out import BuildingSetOut, set_out_building
from nimble_shell.core.site.choices import LiftChoices
from nimble_shell.core.site.order import SiteTime, site_time
from nimble_shell.core.site.slings import hung
from nimble_shell.services.shop_panels import assemblies_of
from nimble_shell.services.whole_shell import shaped

_M = 1000.0
Point = tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftRow:
    """A panel in set order."""

    mark: str
    mass: float  #: [kg]
    radius: float  #: [m]
    capacity: float | None  #: [kg]
    use: float | None  #: of the practice's share of the crane's table
    over: bool  #: the crane's table, or outside of it
    reach: float | None  #: greatest radius at which it is carried [m]
    people: int
    crane: bool
    problem: str


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftSheet:
    """Of a building."""

    choices: LiftChoices
    rows: tuple[LiftRow, ...]
    lacking: tuple[str, ...]
    days: int | None  #: None while a face lacks
    per_day: tuple[int, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftCard:
    """One panel on its hook. Lengths in m from its lower left corner and its inside, forces in N."""

    row: LiftRow
    outline: tuple[Point, ...]
    holes: tuple[tuple[Point, ...], ...]
    thickness: float
    u: float  #: of the centre of gravity
    v: float
    z: float
    pitch: float  #: [°]
    picks: tuple[tuple[float, float, float], ...]
    hook: float | None  #: above its highest pick
    legs: tuple[float, ...]
    angles: tuple[float, ...]  #: to the horizontal [°]
    tension: tuple[float, ...]
    most: tuple[float | None, ...]  #: with one leg slack
    tilt: float | None
    side: tuple[Point, ...]  #: its thickness as it hangs
    side_picks: tuple[Point, ...]
    side_centre: Point
    wind: float  #: that is allowed [m/s]
    area: float  #: [m²]
    force: float
    calm: float | None
    turn_at: tuple[float, ...]  #: [°]
    turn: tuple[float, ...]


def lift_sheet(project: Project, building_id: str) -> LiftSheet:
    """Every panel in set order. Raises DomainError, NotFound, Stopped."""
    building = shaped(project, building_id)
    found = set_out_building(project, building)
    rows = tuple(_row(lift) for _, _, lift in lifts_of(project, building, found))
    days = _days(building.lifting, len(rows)) if rows and not found.lacking else None
    return LiftSheet(
        choices=building.lifting, rows=rows, lacking=found.lacking, days=None if days is None else days.days,
        per_day=() if days is None else days.per_day,
    )  # fmt: skip


def _days(choices: LiftChoices, pieces: int) -> SiteTime | None:
    hours = choices.minutes / 60
    if hours > choices.day - choices.setup:
        return None
    return site_time([hours] * pieces, choices.day, choices.setup, choices.crews, 0)


def lifts_of(
    project: Project, building: MeasuredBuilding, found: BuildingSetOut
) -> Iterator[tuple[FaceSetOut, Marked, Lifted]]:
    """Of every panel."""
    of = assemblies_of(project, building)
    shapes = {one.id: one for one in building.shape.takeoff.placed["external"].body.faces}
    for face in found.faces:
        for one in face.panels:
            yield (face, one, lifted(one, face, shapes.get(face.face), of[face.zone], project.catalogue,
                                     building.lifting, building.setout))  # fmt: skip


def _row(lift: Lifted) -> LiftRow:
    crane = lift.crane
    return LiftRow(
        mark=lift.mark, mass=lift.weight.mass, radius=lift.radius, capacity=None if crane is None else crane.capacity,
        use=lift.use, over=crane is not None and not crane.ok, reach=None if crane is None else crane.max_radius,
        people=lift.people, crane=lift.wants_crane, problem=lift.problem,
    )  # fmt: skip


def lift_card(project: Project, building_id: str, mark: str) -> LiftCard:
    """One panel. Raises DomainError, NotFound."""
    building = shaped(project, building_id)
    every = lifts_of(project, building, set_out_building(project, building))
    lift = next((lift for _, one, lift in every if one.mark == mark), None)
    if lift is None:
        raise DomainError(Issue(path=("mark",), code="unknown_panel", message=f"there is no panel “{mark}”",
                                hint="one of the list"))  # fmt: skip
    held, (outline, picks) = lift.slung, side_view(lift)
    x, y, z = lift.weight.at
    centre = _side(lift)
    hook = None if held is None else _hook(lift, picks)
    return LiftCard(
        row=_row(lift), outline=tuple((a / _M, b / _M) for a, b in lift.body.outline),
        holes=tuple(((h.x / _M, h.y / _M), ((h.x + h.w) / _M, h.y / _M), ((h.x + h.w) / _M, (h.y + h.h) / _M),
                     (h.x / _M, (h.y + h.h) / _M)) for h in lift.body.openings),
        thickness=sum(one.d for one in lift.body.layers) / _M, u=x / _M, v=y / _M, z=z / _M, pitch=lift.pitch,
        picks=tuple((a / _M, b / _M, c / _M) for a, b, c in lift.picks), hook=hook,
        legs=() if held is None else tuple(one / _M for one in held.legs), angles=() if held is None else held.angles,
        tension=() if held is None else held.tension, most=() if held is None else held.tension_max, tilt=lift.tilt,
        side=tuple((a / _M, b / _M) for a, b in outline), side_picks=tuple((a / _M, b / _M) for a, b in picks),
        side_centre=centre, wind=building.lifting.wind, area=lift.area, force=lift.force, calm=lift.calm,
        turn_at=ANGLES, turn=lift.turn,
    )  # fmt: skip


def _side(lift: Lifted) -> Point:
    at = hung(lift.weight.at, lift.pitch)
    return float(at[1]) / _M, float(at[2]) / _M


def _hook(lift: Lifted, picks: tuple[Point, ...]) -> float:
    """Above the highest pick, by a leg and its angle. [m]"""
    assert lift.slung is not None
    top = max(z for _, z in picks)
    rise = lift.slung.legs[0] * math.sin(math.radians(lift.slung.angles[0]))
    return (picks[0][1] + rise - top) / _M
