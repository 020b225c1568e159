"""What a building comes to with other build-ups in the place of one of its own: joints, fixings, moisture.

Nothing is saved. What is not known yet is asked for, and a sum that lacks a part is not given.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.held import Held
from nimble_shell.core.moisture.verdict.verdict import Verdict
from nimble_shell.core.shell.project import Project
from nimble_shell.core.working import Num, value_of
from nimble_shell.services.bench import Lowest, consequence, with_draft
from nimble_shell.services.fixings import FixingResults
from nimble_shell.services.joints import JointResults, building_in
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.services.verdicts import VerdictResults
from nimble_shell.store import Stored


@dataclass(frozen=True, slots=True, kw_only=True)
class WholeSums:
    """Sums of a building; None while a part of them is missing or to come."""

    R_effective: float | None = None  #: [m²·K/W]
    H: float | None = None  #: [W/K]
    H_joints: float | None = None  #: of H [W/K]
    H_fixings: float | None = None  #: of H [W/K]
    lowest: Lowest | None = None
    waiting: int = 0  #: joints and fixings that are still to come
    missing: tuple[str, ...] = ()  #: what cannot be known, with the reason


@dataclass(frozen=True, slots=True, kw_only=True)
class OnTheWhole:
    """One build-up in the place of another."""

    verdict: Verdict | None  #: of the build-up alone; None while it is to come or cannot be given
    verdict_why: str
    sums: WholeSums | None  #: None where only its moisture was asked


class WholeResults:
    """Asks what each of several build-ups makes of a building."""

    def __init__(self, joints: JointResults, fixings: FixingResults, verdicts: VerdictResults) -> None:
        self._joints, self._fixings, self._verdicts = joints, fixings, verdicts
        self._projects: Held[tuple[Assembly, Stored]] = Held(256)  #: equal drafts are one, so that what is known holds

    def of(
        self, stored: Stored, building_id: str, assembly_id: str, instead: Sequence[Assembly], *, joints: bool,
        ticket: str = "",
    ) -> list[OnTheWhole]:  # fmt: skip
        """What comes of each, as far as it is known.

        Parameters
        ----------
        stored : Stored
        building_id : str
        assembly_id : str
            The build-up of the project whose place they take, wherever it is used.
        instead : sequence of Assembly
        joints : bool
            Whether joints and fixings are solved with each, too.
        ticket : str
            Of what is asked for.

        Raises
        ------
        NotFound
            If the project has no such building or build-up.
        """
        building_in(stored.project, building_id)
        found = []
        for one in instead:
            draft, changed = self._with(stored, replace(one, id=assembly_id))
            at = PlacedDraft(building_id=building_id, assembly=draft)
            verdict, why = self._verdicts.alone(changed.project, at)
            sums = self._sums(changed, building_id, ticket) if joints else None
            found.append(OnTheWhole(verdict=verdict, verdict_why=why, sums=sums))
        return found

    def _with(self, stored: Stored, draft: Assembly) -> tuple[Assembly, Stored]:
        kept = self._projects.get((stored.project,), draft)
        if kept is not None:
            return kept
        changed = replace(stored, project=with_draft(stored.project, draft), before=None)
        return self._projects.put((stored.project,), (draft, changed), draft)

    def _sums(self, stored: Stored, building_id: str, ticket: str) -> WholeSums:
        project: Project = stored.project
        building = building_in(project, building_id)
        known = self._joints.known(project, building, ticket=ticket)
        owned = self._fixings.owned(stored, ticket)
        effect = consequence(owned, None, building_id, known, waiting=self._fixings.waiting(project, building_id)).now
        ledger = effect.ledger
        if not ledger.whole:
            return WholeSums(waiting=len(ledger.pending), missing=ledger.missing)
        return WholeSums(
            R_effective=_plain(ledger.R_effective), H=_plain(ledger.H), H_joints=_plain(ledger.H_joints),
            H_fixings=_plain(ledger.H_fixings), lowest=effect.lowest,
        )  # fmt: skip


def _plain(number: Num | None) -> float | None:
    return None if number is None else value_of(number)
