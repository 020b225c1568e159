"""What would keep the inner surface of a joint: other variants, parameters and build-ups, each solved again."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import Future
from dataclasses import dataclass, replace
from functools import partial
from itertools import islice
from typing import Any, Literal

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.errors import DomainError, Issue, NotConverged
from nimble_shell.core.held import Held
from nimble_shell.core.joints.families.family import ROLES
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.core.joints.solved import Accuracy, solve_joint
from nimble_shell.core.moisture.monthly.element import months_of
from nimble_shell.core.moisture.monthly.surface import critical_month, f_rsi_required
from nimble_shell.core.moisture.verdict.verdict import core_of, outside_steps, thicker_steps, with_own_ids
from nimble_shell.core.parameters import Parameter, Value
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.search import smallest
from nimble_shell.core.shell.decisions import WayOut
from nimble_shell.core.shell.project import Project
from nimble_shell.services.bare_questions import bare_assembly, bare_basis
from nimble_shell.services.joints import drawn, family_of, question, values_of
from nimble_shell.services.solver_queue import SolverQueue, key_of

RemedyKind = Literal["variant", "choice", "parameter", "outside", "core"]
_NOT_OF_IT = frozenset(
    {"U_frame", "U_door", "pitch", "half_width", "bore"}
)  #: parameters that the joint is not free to choose
_MOST_ADDED = 30  #: steps of insulation
_MOST_HELD = 256  #: searches
_STEP, _MOST_STEPS, _STEPS = 0.005, 60, 20  #: of lengths [m], at most so many; of other parameters, to either end


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """A change of one kind that would keep the surface, the smallest; or that none of its kind does."""

    kind: RemedyKind
    text: str  #: the variant, parameter, or build-up that is changed
    found: bool
    f_rsi: float | None  #: with the change; the best that was seen where none is found
    word: str = ""  #: the option that is chosen
    amount: float | None = None  #: the value that passes, else the last that was tried; SI
    before: float | None = None  #: the step before it, which fails
    dimension: str = "length"
    variant: str = ""  #: of the joint with the change; empty where a build-up is changed
    values: tuple[JointValue, ...] = ()  #: of the joint with the change
    assembly_id: str = ""  #: of the build-up that is changed; empty where the joint is


@dataclass(frozen=True, slots=True, kw_only=True)
class JointSurface:
    """The inner surface of a joint through the year, against what its worst month asks."""

    f_rsi: float
    required: float | None
    month: int | None

    @property
    def passes(self) -> bool:
        return self.required is None or self.f_rsi >= self.required

    def asked(self, target: float | None) -> float | None:
        """The stricter of its worst month and the factor that the Basis asks; None where neither asks anything."""
        return max((one for one in (self.required, target) if one is not None), default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class SurfaceQuestion:
    """A joint with the build-ups that meet there, and nothing else that could make two of one question."""

    project: Project
    joint: ShellJoint

    def surface(self, queue: SolverQueue, ticket: str = "") -> Future[JointSurface]:
        """Later. The future raises DomainError."""
        return queue.ask(joint_surface, self.project, self.joint, ticket=ticket)

    def searched(self, queue: SolverQueue, required: float, ticket: str = "") -> list[Future[list[Remedy]]]:
        """One for each thing that can be changed."""
        return [
            queue.ask(search, self.project, self.joint, number, required, ticket=ticket, long=True)
            for number in range(len(list(searches(self.project, self.joint))))
        ]


class RemedyResults:
    """What was searched for joints while the program runs, by all that it rests on."""

    def __init__(self) -> None:
        self._keys: Held[str] = Held(512)  #: a key is made of the whole question: once for the same objects
        self._found: dict[str, tuple[Remedy, ...]] = {}

    def hold(self, project: Project, joint: ShellJoint, found: Sequence[Remedy]) -> None:
        self._found[self._key(project, joint)] = tuple(found)
        while len(self._found) > _MOST_HELD:
            del self._found[next(iter(self._found))]

    def _key(self, project: Project, joint: ShellJoint) -> str:
        parts = _parts(project, joint)
        kept = self._keys.get(parts)
        if kept is not None:
            return kept
        asked = question_of(project, joint)
        return self._keys.put(parts, key_of(search, asked.project, asked.joint, project.basis.targets.f_rsi))

    def searched(self, project: Project, joint: ShellJoint) -> bool:
        """Whether somebody has had a joint searched, whatever was found."""
        return bool(self._found) and self._key(project, joint) in self._found

    def ways(self, project: Project, joint: ShellJoint) -> list[WayOut]:
        """The changes that keep the surface of a joint, each as one click would write it."""
        found = self._found.get(self._key(project, joint), ()) if self._found else ()
        ways = [(one, _changed(project, joint, one)) for one in found if one.found]
        return [WayOut(text=_words(one), changed=changed) for one, changed in ways if changed is not None]


def _parts(project: Project, joint: ShellJoint) -> tuple[Any, ...]:
    """All that the question of a search is made of; the joint's room, where it has its own, is the caller's."""
    met = {role.assembly_id for role in joint.roles}
    basis = project.basis
    return (joint, *(one for one in project.assemblies if one.id in met), project.materials, basis.site, basis.climate,
            basis.indoor, basis.schools, basis.damp, basis.air, basis.targets)  # fmt: skip


def _changed(project: Project, joint: ShellJoint, one: Remedy) -> ShellJoint | Assembly | None:
    if not one.assembly_id:
        return replace(joint, variant=one.variant, values=one.values)
    assembly = next((each for each in project.assemblies if each.id == one.assembly_id), None)
    if assembly is None:
        return None
    steps = outside_steps(assembly) if one.kind == "outside" else thicker_steps(assembly)
    changed = next((there for amount, there in steps if amount == one.amount), None)
    return None if changed is None else with_own_ids(assembly, changed)


def _words(one: Remedy) -> str:
    size = (one.amount or 0.0, one.dimension)
    match one.kind:
        case "variant":
            return f"The variant “{one.text}”"
        case "choice":
            return f"{one.text}: {one.word}"
        case "outside":
            return sentence(f"{{d}} of open insulation outside of the {one.text}", d=size)
        case "core":
            return sentence(f"A core of {{d}} in the {one.text}", d=size)
        case "parameter":
            return sentence(f"{one.text} of {{d}}", d=size)


def question_of(project: Project, joint: ShellJoint) -> SurfaceQuestion:
    """Of a joint in its building; the project as the building sees it."""
    met = {role.assembly_id for role in joint.roles}
    bare = Project(
        id="asked", name="asked", basis=bare_basis(project.basis), materials=project.materials,
        assemblies=tuple(replace(bare_assembly(one), id=one.id) for one in project.assemblies if one.id in met),
    )  # fmt: skip
    plain = replace(joint, id="asked", name="asked", length=0.0, follows=(), decided=True,
                    omitted=(), sealed=False, standard=None)  # fmt: skip
    return SurfaceQuestion(project=bare, joint=plain)


def joint_surface(project: Project, joint: ShellJoint) -> JointSurface:
    """In a worker: the surface of a joint at final accuracy, and the month that asks most of it.

    Raises
    ------
    DomainError
        If the joint cannot be drawn, or has no inner surface.
    """
    drawing, temperatures, school, _ = question(project, drawn(project, joint), "final")
    f_rsi = solve_joint(drawing, temperatures, school).f_rsi
    if f_rsi is None:
        raise DomainError(Issue(path=("joint_id",), code="no_inner_surface", message="this joint has no inner surface",
                                hint="there is nothing to judge"))  # fmt: skip
    required = [f_rsi_required(month) for month in months_of(project.basis)]
    month = critical_month(required)
    return JointSurface(f_rsi=f_rsi, required=None if month is None else required[month], month=month)


def search(project: Project, joint: ShellJoint, number: int, required: float) -> list[Remedy]:
    """In a worker: one of the things that can be changed, counted as they are drawn; empty where it cannot be."""
    return next(islice(searches(project, joint), number, None))(required)


_Search = Callable[[float], list[Remedy]]


def searches(project: Project, joint: ShellJoint) -> Iterator[_Search]:
    """One for each thing that can be changed."""
    yield from _other_variants(project, joint)
    yield from _other_parameters(project, joint)
    yield from _other_build_ups(project, joint)


def _other_variants(project: Project, joint: ShellJoint) -> Iterator[_Search]:
    family = family_of(joint)
    system = next((one.system for one in project.assemblies if one.id == joint.roles[0].assembly_id), "")
    for variant in family.variants:
        if variant.key != joint.variant and system in variant.suits:
            kept = tuple(_value(*one) for one in values_of(joint, family, variant.key).items())
            yield partial(_one, "variant", variant.text, "", project, replace(joint, variant=variant.key, values=kept))


def _other_parameters(project: Project, joint: ShellJoint) -> Iterator[_Search]:
    """Every option of a choice, and every number in steps to both ends of its range."""
    family = family_of(joint)
    values = values_of(joint, family, joint.variant)
    for parameter in family.turned(joint.variant):
        now = values.get(parameter.key, parameter.start)
        if not isinstance(parameter, Parameter):
            for option in parameter.options:
                if option != now:
                    turned = _turned(joint, parameter.key, option)
                    yield partial(_one, "choice", parameter.text, option, project, turned)
        elif not isinstance(now, str) and parameter.key not in _NOT_OF_IT:
            for end in sorted({parameter.least, parameter.most} - {now}):
                ladder = _ladder(now, end, parameter.dimension)
                made = [(project, _turned(joint, parameter.key, one)) for one in ladder]
                yield partial(_climbed, "parameter", parameter.text, parameter.dimension, ladder, made)


def _other_build_ups(project: Project, joint: ShellJoint) -> Iterator[_Search]:
    """Insulation outside, and a thicker core, of every build-up that meets here."""
    known = {one.id: one for one in project.assemblies}
    met = {role.role: role.assembly_id for role in joint.roles}
    for role in family_of(joint).roles:
        assembly = known.get(met.get(role, ""))
        if assembly is not None:
            name, core = ROLES[role], assembly.layers[core_of(assembly)].d
            yield partial(_thickened, "outside", name, project, joint, 0.0, _some(outside_steps(assembly)))
            yield partial(_thickened, "core", name, project, joint, core, _some(thicker_steps(assembly)))


def _some(steps: Iterator[tuple[float, Assembly]]) -> list[tuple[float, Assembly]]:
    return list(islice(steps, _MOST_ADDED))


def _ladder(now: float, end: float, dimension: str) -> list[float]:
    count = min(max(round(abs(end - now) / _STEP), 1), _MOST_STEPS) if dimension == "length" else _STEPS
    return [round(now + (end - now) * n / count, 4) for n in range(count + 1)]


def _one(kind: RemedyKind, text: str, word: str, project: Project, joint: ShellJoint, asked: float) -> list[Remedy]:
    f_rsi = _factor(project, joint, "final")
    if f_rsi is None:
        return []
    return [Remedy(kind=kind, text=text, found=f_rsi >= asked, f_rsi=f_rsi, word=word, variant=joint.variant,
                   values=joint.values)]  # fmt: skip


def _thickened(
    kind: RemedyKind,
    role: str,
    project: Project,
    joint: ShellJoint,
    now: float,
    steps: Sequence[tuple[float, Assembly]],
    asked: float,
) -> list[Remedy]:
    """A build-up that meets here, changed in steps."""
    made = [(project, joint), *((_with(project, changed), joint) for _, changed in steps)]
    found = _climbed(kind, role, "length", [now, *(amount for amount, _ in steps)], made, asked)
    return [replace(one, variant="", values=(), assembly_id=changed.id) for one in found for _, changed in steps[:1]]


def _climbed(
    kind: RemedyKind, text: str, dimension: str, ladder: Sequence[float], made: Sequence[tuple[Project, ShellJoint]],
    asked: float,
) -> list[Remedy]:  # fmt: skip
    """The smallest step that passes at final accuracy while the one before it fails; none where none is drawn."""
    seen: dict[tuple[int, Accuracy], float] = {}

    def passes(at: int, accuracy: Accuracy) -> bool:
        f_rsi = _factor(*made[at], accuracy)
        if f_rsi is not None:
            seen[at, accuracy] = f_rsi
        return f_rsi is not None and f_rsi >= asked

    at = smallest(len(ladder) - 1, lambda n: passes(n, "working"), lambda n: passes(n, "final"), looks=3)
    if not seen:
        return []
    if at is None:
        return [Remedy(kind=kind, text=text, found=False, f_rsi=max(seen.values()), amount=ladder[-1],
                       dimension=dimension)]  # fmt: skip
    return [Remedy(kind=kind, text=text, found=True, f_rsi=seen[at, "final"], amount=ladder[at], before=ladder[at - 1],
                   dimension=dimension, variant=made[at][1].variant, values=made[at][1].values)]  # fmt: skip


def _factor(project: Project, joint: ShellJoint, accuracy: Accuracy) -> float | None:
    """None where it cannot be drawn like that."""
    try:
        drawing, temperatures, school, accuracy = question(project, drawn(project, joint), accuracy)
        return solve_joint(drawing, temperatures, school, accuracy).f_rsi
    except (DomainError, NotConverged):
        return None


def _with(project: Project, changed: Assembly) -> Project:
    return replace(project, assemblies=tuple(changed if one.id == changed.id else one for one in project.assemblies))


def _turned(joint: ShellJoint, key: str, value: Value) -> ShellJoint:
    others = tuple(one for one in joint.values if one.key != key)
    return replace(joint, values=(*others, _value(key, value)))


def _value(key: str, value: Value) -> JointValue:
    return JointValue(key=key, word=value) if isinstance(value, str) else JointValue(key=key, number=value)
