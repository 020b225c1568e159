"""Joints of a building: draw, ask the queue, sweep a parameter, and what is known for the ledger."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from concurrent.futures import Future
from dataclasses import dataclass, replace

from nimble_shell.core.basis.condition import Condition, condition
from nimble_shell.core.basis.flow import flows_inwards, over_the_year
from nimble_shell.core.basis.schools import FilmSchool
from nimble_shell.core.basis.stations import direction_through
from nimble_shell.core.errors import DomainError, Issue, reason_of
from nimble_shell.core.held import Held
from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.families import FAMILIES, Family
from nimble_shell.core.joints.families.family import Role
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.core.joints.ownership import Taken, taken_by
from nimble_shell.core.joints.sealing.schedules import schedule
from nimble_shell.core.joints.sealing.seals import LINES, LineState, Sealed, SealedLine, Sealing, judge
from nimble_shell.core.joints.sealing.walk import Stop, Walk, build_up, walk
from nimble_shell.core.joints.sealing.walk import joint as joint_stop
from nimble_shell.core.joints.solved import Accuracy, JointFigures, SolvedJoint, solve_joint
from nimble_shell.core.joints.stack import Stack, stack_of
from nimble_shell.core.moisture.monthly.element import factor_asked
from nimble_shell.core.parameters import Value
from nimble_shell.core.shell.measured import measured
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.shell.set_out import built_as_set_out
from nimble_shell.services.solver_queue import SolverQueue, key_of
from nimble_shell.store import NotFound, Stored

UNHEATED_SHARE = 0.5  #: an unheated neighbour stands this far from the room's temperature to the outside's
MOST_SWEPT = 41


@dataclass(frozen=True, slots=True, kw_only=True)
class Drawn:
    """A joint as drawn, and at which temperatures it is looked at."""

    family: Family
    drawing: Drawing
    stacks: Mapping[Role, Stack]
    temperatures: dict[str, float]
    moment: Condition


def family_of(joint: ShellJoint) -> Family:
    """Raises DomainError."""
    family = FAMILIES.get(joint.family)
    if family is None:
        raise DomainError(Issue(path=("family",), code="unknown_family", message=f"there is no joint “{joint.family}”",
                                hint=f"one of {', '.join(FAMILIES)}"))  # fmt: skip
    return family


def building_in(project: Project, building_id: str) -> Building:
    """The building with areas and lengths as its shape has them. Raises DomainError, NotFound."""
    for at, building in enumerate(project.buildings):
        if building.id == building_id:
            try:
                return built_as_set_out(project, measured(project, building))
            except DomainError as error:
                raise error.under("buildings", at) from None
    raise NotFound("building", building_id)


def joint_in(building: Building, joint_id: str) -> ShellJoint:
    """Raises NotFound."""
    for joint in building.joints:
        if joint.id == joint_id:
            return joint
    raise NotFound("joint", joint_id)


def other_of(joint: ShellJoint) -> str:
    """The variant a joint is compared with. Raises DomainError."""
    if not joint.other:
        raise DomainError(Issue(path=("other",), code="nothing_to_compare", message="no other variant is chosen",
                                hint="choose the one it is compared with"))  # fmt: skip
    return joint.other


def drawn(project: Project, joint: ShellJoint, moment_key: str = "winter", variant: str | None = None) -> Drawn:
    """A joint of a project, in a variant of its own or another one.

    Raises
    ------
    DomainError
        If a build-up is missing, or the parameters do not go with them.
    """
    family = family_of(joint)
    known = {assembly.id: assembly for assembly in project.assemblies}
    stacks: dict[Role, Stack] = {}
    chosen = variant or joint.variant
    owns = family.owned(chosen)
    for number, role in enumerate(joint.roles):
        assembly = known.get(role.assembly_id)
        if assembly is None:
            raise DomainError(Issue(path=("roles", number, "assembly_id"), code="build_up_missing",
                                    message=f"the build-up “{role.assembly_id}” is gone",
                                    hint="choose another one for this joint"))  # fmt: skip
        owned = frozenset(one.place for one in owns if one.role == role.role)
        stacks[role.role] = stack_of(  # type: ignore[index]  # roles of the family
            assembly,
            project.catalogue,
            project.basis,
            over_the_year(project.basis, direction_through(role.role)),
            owned,
        )
    values = values_of(joint, family, chosen)
    drawing = family.drawing(chosen, stacks, project.catalogue, values)
    if flows_inwards(project.basis):
        drawing = replace(drawing, inwards=True)
    moment = condition(project.basis, moment_key)
    between = moment.theta_i + UNHEATED_SHARE * (moment.theta_e - moment.theta_i)
    temperatures = {"inside": moment.theta_i, "outside": moment.theta_e, "neighbour": between}
    return Drawn(family=family, drawing=drawing, stacks=stacks, temperatures=temperatures, moment=moment)


def values_of(joint: ShellJoint, family: Family, variant: str) -> dict[str, Value]:
    """The joint's parameters; of another variant those that it has and that lie in its range."""
    found: dict[str, Value] = {}
    turned = {parameter.key: parameter for parameter in family.turned(variant)}
    for value in joint.values:
        plain: Value = value.number if value.number is not None else str(value.word)
        parameter = turned.get(value.key)
        if variant == joint.variant or (parameter is not None and parameter.allows(plain)):
            found[value.key] = plain
    return found


def sealing(project: Project, joint: ShellJoint, what: Drawn, f_rsi: float | None = None) -> Sealing:
    """The seals of a joint, judged; the insulation goes through where its surface keeps what is asked."""
    system = what.stacks[what.family.roles[0]].system
    values = {parameter.key: parameter.start for parameter in what.family.turned(joint.variant)}
    values |= values_of(joint, what.family, joint.variant)
    steps = schedule(joint.family, joint.variant, system=system, fin=values.get("fin") == "fin",
                     order=str(values.get("order", "")))  # fmt: skip
    asked = factor_asked(project.basis)
    surfaces = [shape.fill.surface for shape in what.drawing.shapes if shape.fill is not None]
    sealed = Sealed(omitted=joint.omitted, decided=joint.sealed, sealant=joint.sealant, tape=joint.tape,
                    fall=joint.fall, drains_to=joint.drains_to)  # fmt: skip
    heat = f_rsi is None or asked is None or f_rsi >= asked
    return judge(steps, sealed, heat=heat, surfaces=surfaces, leakages=project.basis.air.leakages)


def question(
    project: Project, what: Drawn, accuracy: Accuracy
) -> tuple[Drawing, dict[str, float], FilmSchool, Accuracy]:
    """What `solve_joint` is asked of a joint."""
    return what.drawing, what.temperatures, project.basis.schools.films, accuracy


def ask(
    queue: SolverQueue, project: Project, what: Drawn, accuracy: Accuracy, *, looked_at: bool = True, ticket: str = ""
) -> Future[SolvedJoint]:
    """A joint's answer, at once or later; first what somebody looks at."""
    return queue.ask(solve_joint, *question(project, what, accuracy), looked_at=looked_at, ticket=ticket)


def swept(
    queue: SolverQueue, project: Project, joint: ShellJoint, key: str, values: Sequence[float], ticket: str = ""
) -> list[tuple[float, Future[SolvedJoint] | str]]:
    """The joint over values of one parameter, at working accuracy; in words where it cannot be drawn.

    Raises
    ------
    DomainError
        If there are too many values.
    """
    if not 1 <= len(values) <= MOST_SWEPT:
        raise DomainError(Issue(path=("values",), code="too_many_values", message=f"{len(values)} values",
                                hint=f"from 1 to {MOST_SWEPT}"))  # fmt: skip
    rest = tuple(value for value in joint.values if value.key != key)
    found: list[tuple[float, Future[SolvedJoint] | str]] = []
    for number in values:
        changed = replace(joint, values=(*rest, JointValue(key=key, number=float(number))))
        try:
            found.append((number, ask(queue, project, drawn(project, changed), "working", ticket=ticket)))
        except DomainError as error:
            found.append((number, error.issues[0].message))
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class KnownJoint:
    """What is known of a building's joint without solving anything."""

    joint: ShellJoint
    solved: JointFigures | None  #: None while it is being solved; without its field, so that many can be held
    takes: tuple[Taken, ...]  #: members of build-ups that it has taken over; none until it is solved
    point: bool
    why_not: str = ""  #: why it cannot be solved
    drawn: Drawn | None = None  #: None where it cannot be drawn


class JointResults:
    """What is known of the joints of buildings; each is drawn once for as long as all it is drawn from is the same."""

    def __init__(self, queue: SolverQueue) -> None:
        self.queue = queue
        self._sketches: Held[_Sketch] = Held()
        self._known: Held[tuple[int, tuple[KnownJoint, ...]]] = Held(256)  #: with the generation of answers

    def known(
        self, project: Project, building: Building, *, begin: bool = True, ticket: str = ""
    ) -> tuple[KnownJoint, ...]:
        """Every joint of a building: its final answer if it is there.

        Parameters
        ----------
        project : Project
            As stored, now or before its newest change.
        building : Building
        begin : bool
            Whether what is not known is asked for.
        ticket : str
            Under which it is.
        """
        generation = self.queue.generation
        kept = self._known.get((project, building), begin, ticket)
        if kept is not None and kept[0] == generation:
            return kept[1]
        inside = project.within(building.id)
        found = tuple(
            self._one(inside, self._sketch(inside, joint), begin=begin, ticket=ticket) for joint in building.joints
        )
        return self._known.put((project, building), (generation, found), begin, ticket)[1]

    def beside(self, stored: Stored, building_id: str) -> tuple[tuple[KnownJoint, ...], tuple[KnownJoint, ...] | None]:
        """Joints of a building as known, now and before the newest change. Raises NotFound."""
        now = self.known(stored.project, building_in(stored.project, building_id))
        before = stored.before
        if before is None or building_id not in {building.id for building in before.buildings}:
            return now, None
        # What was never solved before the change counts as it is now: the change is not blamed for it.
        solved = {known.joint.id: known for known in now}
        then = self.known(before, building_in(before, building_id), begin=False)
        return now, tuple(solved.get(known.joint.id, known) if known.solved is None else known for known in then)

    def _sketch(self, project: Project, joint: ShellJoint) -> _Sketch:
        basis = project.basis
        met = tuple(one for one in project.assemblies if one.id in joint.assembly_ids)
        parts = (joint, project.catalogue, basis.site, basis.climate, basis.indoor, basis.schools, *met)
        return self._sketches.get(parts) or self._sketches.put(parts, _sketch(project, joint))

    def _one(self, project: Project, sketch: _Sketch, *, begin: bool, ticket: str) -> KnownJoint:
        joint, what, why = sketch.joint, sketch.drawn, sketch.why_not
        if what is None:
            point = joint.family in FAMILIES and FAMILIES[joint.family].point
            return KnownJoint(joint=joint, solved=None, takes=(), point=point, why_not=why)
        solved: JointFigures | None = self.queue.figures(sketch.key)
        if solved is None and begin:
            future = ask(self.queue, project, what, "final", looked_at=False, ticket=ticket)
            error = future.exception() if future.done() and not future.cancelled() else None
            why = "" if error is None else reason_of(error)
        return KnownJoint(
            joint=joint, solved=solved, takes=() if solved is None else sketch.takes, point=what.family.point,
            why_not=why, drawn=what,
        )  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class _Sketch:
    """A joint as drawn, with the key of its answer; or why it cannot be drawn."""

    joint: ShellJoint
    drawn: Drawn | None = None
    takes: tuple[Taken, ...] = ()
    key: str = ""
    why_not: str = ""


def _sketch(project: Project, joint: ShellJoint) -> _Sketch:
    try:
        what = drawn(project, joint)
    except DomainError as error:
        return _Sketch(joint=joint, why_not=error.issues[0].message)
    key = key_of(solve_joint, *question(project, what, "final"))
    ids = {role.role: role.assembly_id for role in joint.roles}
    takes = tuple(
        taken_by(owned, ids[owned.role], what.stacks[owned.role], what.drawing, joint.length)
        for owned in what.family.owned(joint.variant)
    )
    return _Sketch(joint=joint, drawn=what, takes=takes, key=key)


def continuity_walk(project: Project, building: Building, known: Sequence[KnownJoint]) -> Walk:
    """The lines of control round a building; a joint that cannot be drawn is undecided, with the reason."""
    project = project.within(building.id)
    by_id = {assembly.id: assembly for assembly in project.assemblies}
    stops = [
        build_up(element.station, element.id, element.name, by_id[element.assembly_id])
        for element in building.elements
        if element.assembly_id is not None
    ]
    for one in known:
        joint = one.joint
        try:
            f_rsi = None if one.solved is None else one.solved.f_rsi
            judged = sealing(project, joint, one.drawn or drawn(project, joint), f_rsi)
            stops.append(joint_stop(joint.station, joint.id, joint.name, judged))
        except DomainError as error:
            lines: tuple[tuple[SealedLine, LineState], ...] = tuple((line, "undecided") for line in LINES)
            stops.append(
                Stop(station=joint.station, kind="joint", id=joint.id, name=joint.name, lines=lines,
                     why=(error.issues[0].message,))
            )  # fmt: skip
    return walk(stops, [element.station for element in building.elements])
