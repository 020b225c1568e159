"""Verdicts on the moisture of build-ups and joints: found at the queue, and what is known of a whole building."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from concurrent.futures import Future
from dataclasses import dataclass
from typing import Any

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.flow import direction_in, over_the_year
from nimble_shell.core.basis.stations import Direction, direction_through
from nimble_shell.core.errors import DomainError, reason_of
from nimble_shell.core.held import Held
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.joints.sealing.seals import Leakages, graded
from nimble_shell.core.moisture.verdict.verdict import ADDED, JudgedJoint, Verdict, judge, judge_alone, judge_joint
from nimble_shell.core.shell.decisions import JudgedPart
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.services.bare_questions import bare_assembly, bare_basis, made_of, materials_of
from nimble_shell.services.joints import Drawn, KnownJoint, drawn, sealing
from nimble_shell.services.solver_queue import SolverQueue, key_of
from nimble_shell.services.studies import PlacedDraft


@dataclass(frozen=True, slots=True, kw_only=True)
class LeakQuestion:
    """What is asked of a joint that leaks."""

    assembly: Assembly
    args: tuple[Any, ...]
    station: str
    grade: str
    leakage: tuple[float, float]  #: of its seals as scheduled, at 50 Pa [m³/(h·m)]
    judged: float  #: the leakage that is judged [m³/(h·m)]


@dataclass(frozen=True, slots=True, kw_only=True)
class _Asked:
    """What is asked of a build-up."""

    args: tuple[Any, ...]
    alone: str  #: key of its verdict without a search
    searched: str  #: and with one


class VerdictResults:
    """What is known of the moisture of buildings; what is not known yet is asked for."""

    def __init__(self, queue: SolverQueue) -> None:
        self.queue = queue
        self._asked: Held[_Asked] = Held(512)  #: by what it is made of: a question takes long to put into a key

    def element(self, project: Project, at: PlacedDraft, ticket: str = "") -> Future[Verdict]:
        """A build-up as drafted. Raises NotFound; the future raises DomainError."""
        project, direction = (
            project.within(at.building_id),
            direction_in(project.within(at.building_id).basis, at.station(project)),
        )
        return self.queue.ask(judge, *_element(project, at.assembly, direction), ticket=ticket)

    def alone(self, project: Project, at: PlacedDraft) -> tuple[Verdict | None, str]:
        """A build-up as drafted, without a search, if it is known; and why there is none. Raises NotFound."""
        inside = project.within(at.building_id)
        asked = self._element(inside, at.assembly, direction_in(inside.basis, at.station(inside)))
        return self._known(judge_alone, asked.args, asked.alone, looked_at=True)

    def joint(self, question: LeakQuestion, ticket: str = "") -> Future[JudgedJoint]:
        """A joint. The future raises DomainError."""
        return self.queue.ask(judge_joint, *question.args, ticket=ticket)

    def building(self, project: Project, building: Building, joints: Sequence[KnownJoint]) -> tuple[JudgedPart, ...]:
        """Every build-up and joint of a building, the least margin first, what is unknown last; nothing is searched."""
        project = project.within(building.id)
        by_id = {one.id: one for one in project.assemblies}
        found: list[JudgedPart] = []
        for element in building.elements:
            assembly = by_id.get(element.assembly_id or "")
            if assembly is not None:
                asked = self._element(project, assembly, direction_in(project.basis, element.station))
                verdict, why = self._known(judge_alone, asked.args, asked.alone)
                if verdict is not None and not verdict.passes:
                    verdict = self.queue.known(asked.searched) or verdict  # with its search, where one was made
                found.append(JudgedPart(id=element.id, station=element.station, name=element.name, joint=False,
                                   verdict=verdict, why_not=why))  # fmt: skip
        for known in joints:
            joint = known.joint
            if not known.point:
                verdict, why = self.leaking(project, known)
                found.append(JudgedPart(id=joint.id, station=joint.station, name=joint.name, joint=True,
                                   verdict=verdict, why_not=why))  # fmt: skip
        return tuple(sorted(found, key=_rank))

    def leaking(self, project: Project, known: KnownJoint) -> tuple[Verdict | None, str]:
        """A solved joint of a project within its building, if it is judged; and why it cannot be."""
        f_rsi = None if known.solved is None else known.solved.f_rsi
        if known.why_not or f_rsi is None or known.point:
            return None, known.why_not
        try:
            args = leak_question(project, known.joint, f_rsi, what=known.drawn).args
        except DomainError as error:
            return None, error.issues[0].message
        answer, why = self._known(judge_joint, args)
        return (None, why) if answer is None else (answer[0], "")

    def _element(self, project: Project, assembly: Assembly, direction: Direction) -> _Asked:
        parts = made_of(project, assembly)
        held = self._asked.get(parts, direction)
        if held is not None:
            return held
        args = _element(project, assembly, direction)
        made = _Asked(args=args, alone=key_of(judge_alone, *args), searched=key_of(judge, *args))
        return self._asked.put(parts, made, direction)

    def _known(
        self, judge_it: Callable[..., Any], args: tuple[Any, ...], key: str = "", *, looked_at: bool = False
    ) -> tuple[Any, str]:
        answer = self.queue.known(key or key_of(judge_it, *args))
        if answer is not None:
            return answer, ""
        future = self.queue.ask(judge_it, *args, looked_at=looked_at)
        error = future.exception() if future.done() and not future.cancelled() else None
        return None, "" if error is None else reason_of(error)


def leak_question(
    project: Project, joint: ShellJoint, f_rsi: float | None, leakage: float | None = None, what: Drawn | None = None
) -> LeakQuestion:
    """What is asked of a joint: its first build-up, and its seals' leakage at the high end unless another is named.

    Raises
    ------
    DomainError
        If it cannot be drawn.
    """
    what = what or drawn(project, joint)
    judged = sealing(project, joint, what, f_rsi)
    role = joint.roles[0]
    assembly = next(one for one in project.assemblies if one.id == role.assembly_id)
    direction = over_the_year(project.basis, direction_through(role.role))
    value = judged.leakage[1] if leakage is None else leakage
    args = (
        bare_assembly(assembly), materials_of(project, assembly), bare_basis(project.basis), direction, value,
        project.basis.air.height(joint.station), f_rsi,
    )  # fmt: skip
    return LeakQuestion(assembly=assembly, args=args, station=joint.station, grade=judged.grade,
                        leakage=judged.leakage, judged=value)  # fmt: skip


def safe_grade(safe: float | None, leakages: Leakages) -> str | None:
    """The loosest grade of seal whose high end is safe; None where none is. [m³/(h·m)]"""
    return next((name for name, _, high in graded(leakages) if safe is not None and high <= safe), None)


def _element(project: Project, assembly: Assembly, direction: Direction) -> tuple[Any, ...]:
    return (bare_assembly(assembly), materials_of(project, assembly, *ADDED), bare_basis(project.basis), direction)


def _rank(place: JudgedPart) -> tuple[bool, float]:
    verdict = place.verdict
    if verdict is None:
        return True, 0.0
    return False, 1.0 if verdict.margin is None else verdict.margin
