"""Show working of what is studied: a day, a claim, a probe, a variant, a side of a comparison, moisture."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.moisture.monthly.condensation import DAYS
from nimble_shell.core.moisture.monthly.element import element_planes, months_of
from nimble_shell.core.moisture.monthly.leak import Leak, leak_month, leak_year, skin_plane
from nimble_shell.core.moisture.monthly.position import share_working
from nimble_shell.core.moisture.monthly.surface import f_rsi_required, failing_humidity, required_factor
from nimble_shell.core.moisture.verdict.verdict import margin_working
from nimble_shell.core.shell.project import Project
from nimble_shell.core.studies.claim import Claim, check_claim
from nimble_shell.core.studies.day import day
from nimble_shell.core.studies.probe import chase, temperature_at
from nimble_shell.core.studies.variants import variant_working
from nimble_shell.core.thermal.figures import surface_factor, wall_working
from nimble_shell.core.working import Derivation, Num, derive_one, traced
from nimble_shell.services.bench import station_of
from nimble_shell.services.joints import building_in, joint_in
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.services.verdicts import leak_question


@dataclass(frozen=True, slots=True, kw_only=True)
class OfDay:
    """A figure of the day."""

    month: int
    rise: float


@dataclass(frozen=True, slots=True, kw_only=True)
class OfProbe:
    """The temperature at a depth ("winter", "coldest"), or a figure of the groove."""

    depth: float | None
    layer: int | None
    groove: float
    share: float


@dataclass(frozen=True, slots=True, kw_only=True)
class OfVariant:
    """A column that compares a variant with the wall as it is."""

    core: str
    d: float


@dataclass(frozen=True, slots=True, kw_only=True)
class OfSide:
    """A figure of a build-up in a comparison, reckoned where the first one stands."""

    leader: str
    condition: str


@dataclass(frozen=True, slots=True, kw_only=True)
class OfMoisture:
    """A figure of the surface ("f_required", "phi_fails") or of the control plane ("share_safe") in a month."""

    month: int


@dataclass(frozen=True, slots=True, kw_only=True)
class OfMargin:
    """The margin of a build-up's verdict."""


@dataclass(frozen=True, slots=True, kw_only=True)
class OfLeak:
    """What air through a joint leaves in a month; with the leakage of its seals unless one is tried."""

    joint_id: str
    month: int
    leakage: float | None = None  #: at 50 Pa [m³/(h·m)]


Studied = OfMargin | OfLeak | OfMoisture | OfDay | Claim | OfProbe | OfVariant | OfSide


def study_working(project: Project, at: PlacedDraft, of: Studied, figure: str) -> Derivation:
    """The working of a figure of a study. Raises DomainError, NotFound."""
    return _WORKINGS[type(of)](_Place(project, at), of, figure)


class _Place:
    """Where the build-up of a study stands."""

    def __init__(self, project: Project, at: PlacedDraft) -> None:
        self.project, self.at = project, at
        self.wall = (at.assembly, project.catalogue, project.basis)

    @property
    def direction(self) -> Direction:
        return direction_in(self.project.basis, self.at.station(self.project))


def _of_side(place: _Place, of: OfSide, figure: str) -> Derivation:
    direction = direction_in(
        place.project.basis, station_of(building_in(place.project, place.at.building_id), of.leader)
    )
    return wall_working(*place.wall, of.condition, figure, direction=direction)


def _of_moisture(place: _Place, of: OfMoisture, figure: str) -> Derivation:
    direction = place.direction
    month = months_of(place.project.basis, place.at.assembly.outside)[of.month]
    if f_rsi_required(month) is None:
        raise DomainError(Issue(path=("of", "month"), code="month_asks_nothing",
                                message="room and outside are as warm in this month: it asks nothing",
                                hint="choose a colder month"))  # fmt: skip
    f_rsi = surface_factor(*place.wall, direction=direction)
    return derive_one(
        {
            "f_required": required_factor(month, given=traced),
            "phi_fails": failing_humidity(month, f_rsi, given=traced),
            "share_safe": share_working(*place.wall, direction, of.month, traced),
        },
        figure,
    )


def _of_margin(place: _Place, _: OfMargin, figure: str) -> Derivation:
    margin = margin_working(*place.wall, place.direction, traced)
    if margin is None:
        raise DomainError(Issue(path=("figure",), code="never_fails", message="it passes up to a room at 95 %",
                                hint="there is no margin to show"))  # fmt: skip
    return derive_one({"margin": margin}, figure)


def _of_leak(place: _Place, of: OfLeak, figure: str) -> Derivation:
    return derive_one({"carried": _leak_month(place.project, place.at, of)}, figure)


def _of_day(place: _Place, of: OfDay, figure: str) -> Derivation:
    found = day(*place.wall, of.month, rise=of.rise, direction=place.direction, given=traced)
    return derive_one(found.figures, figure)


def _of_claim(place: _Place, of: Claim, figure: str) -> Derivation:
    return derive_one(check_claim(*place.wall, of, place.direction, given=traced).figures, figure)


def _of_variant(place: _Place, of: OfVariant, figure: str) -> Derivation:
    return variant_working(*place.wall, of.core, of.d, figure, direction=place.direction)


def _of_probe(place: _Place, of: OfProbe, figure: str) -> Derivation:
    direction = place.direction
    found: dict[str, Num] = {}
    if of.depth is not None and figure in ("winter", "coldest"):
        moment = "winter" if figure == "winter" else str(place.project.basis.climate.coldest)
        found[figure] = temperature_at(*place.wall, of.depth, moment, direction, given=traced)
    if of.layer is not None:
        grooved = chase(*place.wall, of.layer, of.groove, of.share, direction, given=traced)
        found |= {key: getattr(grooved, key) for key in ("R_there", "R_clear", "R_without")}
    return derive_one(found, figure)


#: The working of each kind of study: a new one is a class above and a line here.
_WORKINGS: dict[type[Any], Callable[[_Place, Any, str], Derivation]] = {
    OfSide: _of_side,
    OfMoisture: _of_moisture,
    OfMargin: _of_margin,
    OfLeak: _of_leak,
    OfDay: _of_day,
    Claim: _of_claim,
    OfVariant: _of_variant,
    OfProbe: _of_probe,
}


def _leak_month(project: Project, at: PlacedDraft, of: OfLeak) -> Num:
    joint = joint_in(building_in(project, at.building_id), of.joint_id)
    question = leak_question(project, joint, None, of.leakage)
    assembly, materials, basis, direction, leakage, height, _ = question.args
    planes, counted = element_planes(assembly, materials, basis, direction)
    leak = Leak(leakage=leakage, height=height, plane=skin_plane(assembly, planes, counted))
    months = months_of(basis)
    found = leak_year(assembly, materials, planes, months, leak, basis.air, basis.damp)
    p_skin = float(found.year.p[of.month, leak.plane])
    return leak_month(months[of.month], leak, basis.air, p_skin, DAYS[of.month], traced)
