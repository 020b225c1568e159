"""Show working of what is studied: a day, a claim, a probe, a variant, a side of a comparison, moisture."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.basis.stations import direction_at
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
    args = (at.assembly, project.catalogue, project.basis)
    if isinstance(of, OfSide):
        direction = direction_at(station_of(building_in(project, at.building_id), of.leader))
        return wall_working(*args, of.condition, figure, direction=direction)
    direction = direction_at(at.station(project))
    if isinstance(of, OfMoisture):
        month = months_of(project.basis, at.assembly.outside)[of.month]
        if f_rsi_required(month) is None:
            raise DomainError(Issue(path=("of", "month"), code="month_asks_nothing",
                                    message="room and outside are as warm in this month: it asks nothing",
                                    hint="choose a colder month"))  # fmt: skip
        f_rsi = surface_factor(*args, direction=direction)
        return derive_one(
            {
                "f_required": required_factor(month, given=traced),
                "phi_fails": failing_humidity(month, f_rsi, given=traced),
                "share_safe": share_working(*args, direction, of.month, traced),
            },
            figure,
        )
    if isinstance(of, OfMargin):
        margin = margin_working(*args, direction, traced)
        if margin is None:
            raise DomainError(Issue(path=("figure",), code="never_fails", message="it passes up to a room at 95 %",
                                    hint="there is no margin to show"))  # fmt: skip
        return derive_one({"margin": margin}, figure)
    if isinstance(of, OfLeak):
        return derive_one({"carried": _leak_month(project, at, of)}, figure)
    if isinstance(of, OfDay):
        return derive_one(day(*args, of.month, rise=of.rise, direction=direction, given=traced).figures, figure)
    if isinstance(of, Claim):
        return derive_one(check_claim(*args, of, direction, given=traced).figures, figure)
    if isinstance(of, OfVariant):
        return variant_working(*args, of.core, of.d, figure, direction=direction)
    found: dict[str, Num] = {}
    if of.depth is not None and figure in ("winter", "coldest"):
        moment = "winter" if figure == "winter" else str(project.basis.climate.coldest)
        found[figure] = temperature_at(*args, of.depth, moment, direction, given=traced)
    if of.layer is not None:
        grooved = chase(*args, of.layer, of.groove, of.share, direction, given=traced)
        found |= {key: getattr(grooved, key) for key in ("R_there", "R_clear", "R_without")}
    return derive_one(found, figure)


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
