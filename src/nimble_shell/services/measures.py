"""What could be done to a building, each change re-run on the real one: alone, and several together."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.basis.economy import Economy
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.progress import report
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.whole_building import WholeBuilding
from nimble_shell.core.working import value_of
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joints import JointResults, KnownJoint, building_in
from nimble_shell.services.next_steps import Measure, measures
from nimble_shell.services.projects import ChangeNote, ProjectService
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.services.verdicts import VerdictResults
from nimble_shell.services.whole_shell import shaped, summed_up
from nimble_shell.store import Stored


@dataclass(frozen=True, slots=True, kw_only=True)
class Gains:
    """What one or several come to beside the building as it is."""

    dH: float  #: fall of transmission and air [W/K]
    dH_tr: float  #: of it transmission [W/K]
    dQ: float  #: of the year's heating need [kWh]
    dq50: float  #: of the likely leakage at 50 Pa [m³/h]
    dload: float  #: of the heating load [W]
    carbon_year: float  #: of the heating energy [kg CO₂e]
    money_life: float | None  #: saved over the life less the cost; None where the cost is not known


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """A measure re-run by itself."""

    measure: Measure
    gains: Gains | None  #: None while a part of the sum is being solved, or one is missing
    waiting: int
    why_not: str = ""
    margin: float | None = None  #: of moisture, the least of what it changes; None while that is judged

    @property
    def per_cost(self) -> float | None:
        """Fall of the loss for a unit of money; None of what has no rate, or costs nothing. [W/K]"""
        cost = self.measure.cost
        return None if self.gains is None or cost is None or cost <= 0 else self.gains.dH / cost


@dataclass(frozen=True, slots=True, kw_only=True)
class Together:
    """Several at once; they are not additive."""

    gains: Gains | None
    waiting: int
    singly: float | None  #: sum of their falls one by one [W/K]
    cost: float | None
    misses: tuple[str, ...]  #: what is asked and still not reached
    margin: float | None  #: of moisture, the least of what they change; None while that is judged, or of none


class MeasureResults:
    """Re-runs buildings with measures."""

    def __init__(self, joints: JointResults, fixings: FixingResults, verdicts: VerdictResults) -> None:
        self.queue = joints.queue
        self._joints, self._fixings, self._verdicts = joints, fixings, verdicts

    def all(self, stored: Stored, building_id: str, ticket: str = "") -> list[Outcome]:
        """Every measure by itself, those that save most for their money first. Raises DomainError, NotFound."""
        before = self.sum(stored, building_id, ticket)
        known = measures(stored.project, shaped(stored.project, building_id), before)
        found: list[Outcome] = []
        for done, one in enumerate(known, 1):
            report(done, len(known))
            found.append(self.outcome(stored, building_id, one, before, ticket))
        return sorted(found, key=_rank)

    def together(self, stored: Stored, building_id: str, keys: Sequence[str], ticket: str = "") -> Together:
        """Several at once. Raises DomainError for one that is not there, and NotFound."""
        before = self.sum(stored, building_id, ticket)
        chosen = _chosen(measures(stored.project, shaped(stored.project, building_id), before), keys)
        singles = [self.outcome(stored, building_id, one, before, ticket).gains for one in chosen]
        return self.of_chosen(stored, building_id, chosen, before, singles, ticket)

    def with_measures(self, stored: Stored, building_id: str, keys: Sequence[str]) -> Stored:
        """The project as it would be with them. Raises DomainError for one that is not there, and NotFound."""
        before = self.sum(stored, building_id)
        return built_with(stored, _chosen(measures(stored.project, shaped(stored.project, building_id), before), keys))

    def outcome(self, stored: Stored, building_id: str, one: Measure, before: WholeBuilding, ticket: str) -> Outcome:
        """A measure re-run beside the building as it is. Raises NotFound."""
        changed = built_with(stored, [one])
        try:
            after = self.sum(changed, building_id, ticket)
        except DomainError as error:
            return Outcome(measure=one, gains=None, waiting=0, why_not=error.issues[0].message)
        waiting = len(after.pending)
        if not (before.whole and after.whole):
            lacking = (*before.missing, *after.missing)
            return Outcome(
                measure=one, gains=None, waiting=waiting, why_not=lacking[0] if lacking and not waiting else ""
            )
        gains = _gains(before, after, stored.project.basis.economy, one.cost)
        margin, judging = self._margin(changed, building_id, [one], ticket)
        return Outcome(measure=one, gains=gains, waiting=judging, margin=margin)

    def _margin(
        self, changed: Stored, building_id: str, chosen: Sequence[Measure], ticket: str
    ) -> tuple[float | None, int]:
        """The least of the build-ups and joints that measures change, and how many of them are being judged."""
        project = changed.project
        assemblies, joints = ({getattr(one, part) for one in chosen} - {""} for part in ("assembly", "joint"))
        judged = [
            self._verdicts.alone(project, PlacedDraft(building_id=building_id, assembly=one))
            for one in project.assemblies if one.id in assemblies
        ]  # fmt: skip
        if joints:
            known, inside = self.known(changed, building_id, ticket), project.within(building_id)
            judged += [self._verdicts.leaking(inside, one) for one in known if one.joint.id in joints]
        waiting = sum(verdict is None and not why for verdict, why in judged)
        margins = [verdict.margin for verdict, _ in judged if verdict is not None and verdict.margin is not None]
        return (min(margins), 0) if margins and not waiting else (None, waiting)

    def of_chosen(
        self,
        stored: Stored,
        building_id: str,
        chosen: Sequence[Measure],
        before: WholeBuilding,
        singles: Sequence[Gains | None],
        ticket: str,
    ) -> Together:
        """Measures re-run together beside the building as it is. Raises DomainError, NotFound."""
        changed = built_with(stored, chosen)
        after = self.sum(changed, building_id, ticket)
        costs = [one.cost for one in chosen]
        cost = None if any(one is None for one in costs) else sum(one or 0.0 for one in costs)
        whole = before.whole and after.whole
        margin, judging = self._margin(changed, building_id, chosen, ticket) if whole else (None, 0)
        return Together(
            gains=_gains(before, after, stored.project.basis.economy, cost) if whole else None,
            waiting=len(after.pending) + judging,
            singly=None if any(one is None for one in singles) else sum(one.dH for one in singles if one),
            cost=cost,
            misses=misses(changed.project, shaped(changed.project, building_id), after) if whole else (),
            margin=margin,
        )

    def known(self, stored: Stored, building_id: str, ticket: str = "") -> tuple[KnownJoint, ...]:
        """Its joints as they are known. Raises NotFound."""
        return self._joints.known(stored.project, building_in(stored.project, building_id), ticket=ticket)

    def sum(self, stored: Stored, building_id: str, ticket: str = "") -> WholeBuilding:
        """A building as it is known. Raises DomainError, NotFound."""
        joints = self.known(stored, building_id, ticket)
        owned = self._fixings.owned(stored, ticket)
        waiting = self._fixings.waiting(stored.project, building_id)
        return summed_up(owned, shaped(owned, building_id), joints, waiting)


def adopt(
    service: ProjectService, results: MeasureResults, project_id: str, building_id: str, keys: Sequence[str],
    note: ChangeNote,
) -> Stored:  # fmt: skip
    """Build with them: one undoable change. Raises DomainError, NotFound."""

    def change(stored: Stored) -> Project:
        return results.with_measures(stored, building_id, keys).project

    return service.edit(project_id, change, note)


def misses(project: Project, building: Building, found: WholeBuilding) -> tuple[str, ...]:
    """What is asked of a building and not reached: R_effective, H_shell, n50."""
    asked_R, asked_n50 = project.basis.targets.R_shell, building.plant.tightness.n50_asked
    R = None if found.R_effective is None else value_of(found.R_effective)
    H, asked_H, n50 = value_of(found.sums.H_tr), building.asked_H, value_of(found.leaks.n50[1])
    tests = {
        "R_effective": asked_R is not None and (R is None or asked_R * (1 - 1e-9) > R),
        "H_shell": asked_H is not None and H - asked_H > 1e-9 * asked_H,
        "n50": asked_n50 is not None and n50 - asked_n50 > 1e-9 * asked_n50,
    }
    return tuple(name for name, true in tests.items() if true)


def _rank(one: Outcome) -> tuple[int, float]:
    """By what they save for their money, free ones first; then those without a rate."""
    if one.gains is None:
        return 3, 0.0
    if one.measure.cost is not None and one.measure.cost <= 0:
        return 0, -one.gains.dH
    return (2, -one.gains.dH) if one.per_cost is None else (1, -one.per_cost)


def built_with(stored: Stored, chosen: Sequence[Measure]) -> Stored:
    """The project with measures in it, one after the other."""
    project = stored.project
    for one in chosen:
        project = one.apply(project)
    return replace(stored, project=project, before=None)


def _chosen(known: Sequence[Measure], keys: Sequence[str]) -> list[Measure]:
    by_key = {one.key: one for one in known}
    for at, key in enumerate(keys):
        if key not in by_key:
            raise DomainError(
                Issue(
                    path=("keys", at),
                    code="unknown_measure",
                    message=f"there is no measure “{key}” any more",
                    hint="read the list again",
                )
            )
    chosen = [by_key[key] for key in dict.fromkeys(keys)]
    of = [(one.kind, one.id) for one in chosen if one.kind != "points"]
    if len(set(of)) < len(of):
        raise DomainError(
            Issue(
                path=("keys",),
                code="same_thing",
                message="two of them change the same thing",
                hint="pick one variant of a joint",
            )
        )
    return chosen


def _gains(before: WholeBuilding, after: WholeBuilding, economy: Economy, cost: float | None) -> Gains:
    dQ = value_of(before.energy.Q_nd) - value_of(after.energy.Q_nd)
    bought = dQ / economy.heat_yield
    return Gains(
        dH=value_of(before.sums.H) - value_of(after.sums.H),
        dH_tr=value_of(before.sums.H_tr) - value_of(after.sums.H_tr),
        dQ=dQ,
        dq50=value_of(before.leaks.q50[1]) - value_of(after.leaks.q50[1]),
        dload=value_of(before.heating.total) - value_of(after.heating.total),
        carbon_year=bought * economy.heat_carbon,
        money_life=None if cost is None else bought * economy.heat_price * economy.present_years - cost,
    )
