"""Build-ups by the hour: asked at the queue, kept in the database, and what a harder life does to them."""

from __future__ import annotations

from collections.abc import Mapping
from concurrent.futures import Future
from dataclasses import dataclass, replace
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.damp import DampLimits
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.materials import Material
from nimble_shell.core.moisture.hourly.life import OCTOBER, Effect, Failing, Life, Seasons
from nimble_shell.core.moisture.hourly.outdoors import Exposure
from nimble_shell.core.moisture.verdict.verdict import Advice, AdviceKind
from nimble_shell.core.shell.coursed import cast_layers
from nimble_shell.core.shell.project import Project
from nimble_shell.services.bare_questions import bare_assembly, bare_basis, materials_of
from nimble_shell.services.joints import building_in
from nimble_shell.services.solver_queue import SolverQueue, key_of
from nimble_shell.services.studies import PlacedDraft

FAN_YEARS = 3
_LEAKING, _DAMPER, _MUCH_DAMPER, _WET = 0.9, 0.05, 0.10, 0.97
STANDING = 90.0  #: [°]
TILTS: dict[str, float] = {"B": 35.0, "F": 180.0, "H": 180.0}  #: of the stations that do not stand [°]
EFFECTS: tuple[Effect, ...] = ("storage", "liquid", "sun")
#: What a search may change.
KINDS: tuple[AdviceKind, ...] = ("vapour", "outside", "core", "gap", "room", "seal")
Cause = Literal["storage", "liquid", "sun", "several"]


@dataclass(frozen=True, slots=True, kw_only=True)
class HoursQuestion:
    """What is asked of a build-up, without anything that does not matter to it."""

    assembly: Assembly
    materials: Mapping[str, Material]
    basis: Basis
    life: Life
    direction: Direction

    @property
    def args(self) -> tuple[Assembly, Mapping[str, Material], Basis, Life, Direction]:
        return self.assembly, self.materials, self.basis, self.life, self.direction

    @property
    def key(self) -> str:
        return key_of(solve, *self.args)


def solve(
    assembly: Assembly, materials: Mapping[str, Material], basis: Basis, life: Life, direction: Direction
) -> Seasons:
    """In a worker: only there the compiled part is needed."""
    from nimble_shell.core.moisture.hourly.seasons import seasons

    return seasons(assembly, materials, basis, life, direction)


def advise(
    assembly: Assembly, materials: Mapping[str, Material], basis: Basis, life: Life, direction: Direction,
    damp: DampLimits, kind: AdviceKind,
) -> Advice | None:  # fmt: skip
    """In a worker: the smallest change of one kind."""
    from nimble_shell.core.moisture.verdict.hourly_search import search_hours

    return search_hours(assembly, materials, basis, life, direction, damp, kind)


def question(project: Project, at: PlacedDraft, life: Life, *more: str) -> HoursQuestion:
    """Of a build-up as drafted, with more materials than it has where they are wanted. Raises NotFound."""
    project = project.within(at.building_id)
    return HoursQuestion(
        assembly=bare_assembly(at.assembly), materials=materials_of(project, at.assembly, *more),
        basis=replace(bare_basis(project.basis), damp=DampLimits()), life=life,
        direction=direction_in(project.basis, at.station(project)),
    )  # fmt: skip


def meant(project: Project, at: PlacedDraft) -> Life:
    """What a run supposes until somebody says otherwise: a form that is filled in a month brings its water then.

    Raises NotFound.
    """
    building = building_in(project, at.building_id)
    station = at.station(project)
    life = Life(exposure=Exposure(tilt=TILTS.get(station, STANDING)), height=project.basis.air.height(station))
    month = building.pour.month
    if month is None or not cast_layers(at.assembly, project.catalogue):
        return life
    return replace(life, fresh=True, begins=month)


def fan(life: Life) -> tuple[tuple[str, Life], ...]:
    """What may befall a build-up, each for three years: as meant, and with one thing or all of them wrong."""
    meant = replace(life, years=FAN_YEARS, whole=True, coarse=True, leakage=0.0, without=(), begins=OCTOBER)
    leak = max(life.leakage, _LEAKING)
    return (
        ("as meant", meant),
        ("a joint with one seal line", replace(meant, leakage=leak)),
        ("the same joint without any", replace(meant, leakage=6.0)),
        (f"room {100 * _DAMPER:.0f} points damper", replace(meant, damper=life.damper + _DAMPER)),
        (f"room {100 * _MUCH_DAMPER:.0f} points damper", replace(meant, damper=life.damper + _MUCH_DAMPER)),
        ("gap blocked", replace(meant, gap=0.0)),
        ("built in wet", replace(meant, phi_0=_WET)),
        ("all at once", replace(meant, leakage=leak, damper=life.damper + _MUCH_DAMPER, gap=0.0, phi_0=_WET)),
    )


class HoursResults:
    """Runs of build-ups: known, or asked for."""

    def __init__(self, queue: SolverQueue) -> None:
        self.queue = queue

    def known(self, key: str) -> Seasons | None:
        """A run that is there; None where there is none."""
        found = self.queue.known(key)
        return found if isinstance(found, Seasons) else None

    def said(self, project: Project, at: PlacedDraft) -> Failing | None:
        """What the hours say of a build-up as meant; None while it was not run. Raises NotFound."""
        found = self.known(question(project, at, meant(project, at)).key)
        return None if found is None else found.fails(project.basis.damp)

    def ask(self, asked: HoursQuestion, ticket: str = "") -> Future[Seasons]:
        """A run, at once or later. The future raises DomainError, NotConverged or Stopped."""
        return self.queue.ask(solve, *asked.args, ticket=ticket, long=True)

    def advise(self, asked: HoursQuestion, damp: DampLimits, ticket: str = "") -> list[Future[Advice | None]]:
        """What would make a run accepted, one question for each kind of change. Futures raise Stopped."""
        return [self.queue.ask(advise, *asked.args, damp, kind, ticket=ticket, long=True) for kind in KINDS]


def cause_of(fails: bool, without: Mapping[Effect, bool]) -> Cause:
    """Which effect the months do not see makes the hours say otherwise.

    Parameters
    ----------
    fails : bool
        What the hours say with all of them.
    without : mapping of effect to bool
        What they say with one left out.
    """
    turned = [effect for effect in EFFECTS if without.get(effect, fails) != fails]
    return turned[0] if len(turned) == 1 else "several"
