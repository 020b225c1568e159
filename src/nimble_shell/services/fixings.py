"""Fixings of build-ups: solved at the queue, and from then on part of every figure of their build-up."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import Future
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.course import Course
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.schools import FilmSchool
from nimble_shell.core.basis.stations import Direction, Station, asked_R
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.fixings.cell import Cell, cell_of
from nimble_shell.core.fixings.solved import SolvedFixing, solve_fixing
from nimble_shell.core.fixings.working import fixing_working
from nimble_shell.core.held import Held
from nimble_shell.core.joints.solved import Accuracy
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.shell.project import Project
from nimble_shell.core.studies.thickness import crossing
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.thermal.solved import core_thickness, with_solved
from nimble_shell.core.working import Derivation, value_of
from nimble_shell.services.bench import area_of, with_draft
from nimble_shell.services.joints import building_in
from nimble_shell.services.solver_queue import SolverQueue, key_of
from nimble_shell.services.studies import PlacedDraft
from nimble_shell.store import Stored

MOST_SWEPT = 41
_MOST_ALONG = 3  #: times that points are solved at the thickness that reaches what is asked
_NEAR = 0.0005  #: a thickness nearer than this to one that was solved needs no solution of its own [m]


class FixingResults:
    """What is known of the fixings of projects."""

    def __init__(self, queue: SolverQueue) -> None:
        self.queue = queue
        self._owned: Held[tuple[int, list[dict[str, Course]], Project]] = Held(64)  #: with the generation of answers
        self._ratios: Held[tuple[_Group, ...]] = Held()
        self._crossings: Held[tuple[float | None]] = Held()
        self._there: Held[Assembly] = Held()

    def owned(self, stored: Stored, ticket: str = "") -> Project:
        """The stored project with every solved group in the place of its approximate correction.

        A group that is still to be solved counts as it was solved before the newest change, else as approximate; it is
        among what is `waiting`. So the figures follow from the project and from what is solved, never from the order in
        which it was asked. What is not known is asked for, under a ticket.
        """
        return self._counted(stored.project, stored.before, begin=True, ticket=ticket)

    def before(self, stored: Stored) -> Project | None:
        """The same of the project before its newest change, as far as it is known; None without one."""
        return None if stored.before is None else self._counted(stored.before, None, begin=False)

    def waiting(self, project: Project, building_id: str) -> tuple[str, ...]:
        """Groups of a building whose χ is still to come."""
        building = next((one for one in project.buildings if one.id == building_id), None)
        used = {element.assembly_id for element in building.elements} if building is not None else set()
        return tuple(
            f"{assembly.name}: {group.fixing.name}"
            for assembly in project.assemblies
            if assembly.id in used
            for group in self._groups(project, assembly)
            if self.queue.figures(group.key) is None and not self.queue.refused(group.key)
        )

    def settled(self, stored: Stored, draft: Assembly) -> bool:
        """Whether the thickness at which a build-up reaches what is asked rests on its points solved there.

        What is missing is asked for; of a draft that differs from what is stored nothing is, until it is saved.
        """
        project = stored.project
        if not draft.fixings:
            return True
        saved = next((assembly for assembly in project.assemblies if assembly == draft), None)
        if saved is None:
            return False
        found = self._solved(project, saved, begin=True)
        return len(found) == len(self._groups(project, saved)) and self._along(project, saved, found, begin=True)[1]

    def _along(
        self, project: Project, assembly: Assembly, now: Mapping[str, Course], *, begin: bool
    ) -> tuple[dict[str, Course], bool]:
        """What is known of its groups at the thickness that reaches what is asked, and whether that settles it."""

        def reached(courses: Mapping[str, Course]) -> float | None:
            station, _ = place_in(project, assembly.id)
            more = (station, tuple(courses.items()))
            parts = (assembly, project.catalogue, project.basis)
            kept = self._crossings.get(parts, more)
            return (kept or self._crossings.put(parts, (_crossing(project, assembly, courses, station),), more))[0]

        def solved(d: float) -> dict[str, Course]:
            there = self._there.get((assembly,), d)
            there = there or self._there.put((assembly,), assembly.with_core(d), d)
            return self._solved(project, there, begin=begin)

        return _solved_along(now, reached, solved)

    def _counted(self, project: Project, before: Project | None, *, begin: bool, ticket: str = "") -> Project:
        parts = (project, before)
        kept = self._owned.get(parts, begin, ticket)
        generation = self.queue.generation
        if kept is not None and kept[0] == generation:
            return kept[2]
        ratios = [self._best(project, before, assembly, begin=begin, ticket=ticket) for assembly in project.assemblies]
        if (
            kept is not None and kept[1] == ratios
        ):  # what was answered was something else: all that was made of it stands
            return self._owned.put(parts, (generation, ratios, kept[2]), begin, ticket)[2]
        assemblies = tuple(
            with_solved(assembly, own) if own else assembly
            for assembly, own in zip(project.assemblies, ratios, strict=True)
        )
        return self._owned.put(parts, (generation, ratios, replace(project, assemblies=assemblies)), begin, ticket)[2]

    def _best(
        self, project: Project, before: Project | None, assembly: Assembly, *, begin: bool, ticket: str
    ) -> dict[str, Course]:
        """Its solved ratios; where one is still missing, the last that was known of the same fixing."""
        ratios = self._solved(project, assembly, begin=begin, ticket=ticket)
        if ratios and len(ratios) == len(self._groups(project, assembly)):
            ratios = self._along(project, assembly, ratios, begin=False)[0]
        earlier = next((one for one in before.assemblies if one.id == assembly.id), None) if before else None
        if before is None or earlier is None or len(ratios) >= len(assembly.fixings):
            return ratios
        now = {one.id: one.material for one in assembly.fixings}
        then = {one.id: one.material for one in earlier.fixings}
        last = self._solved(before, earlier, begin=False)
        return {key: one for key, one in last.items() if now.get(key) == then[key]} | ratios

    def _solved(self, project: Project, assembly: Assembly, *, begin: bool, ticket: str = "") -> dict[str, Course]:
        """Ratios of the groups that are solved, by id, at the thickness the core has."""
        found: dict[str, Course] = {}
        now = core_thickness(assembly)
        for group in self._groups(project, assembly):
            solved = self.queue.figures(group.key)
            if solved is not None:
                found[group.fixing.id] = ((now, solved.chi / group.cell.chi_approximate),)
            elif begin:
                self.queue.ask(solve_fixing, *group.args, looked_at=False, ticket=ticket)
        return found

    def _groups(self, project: Project, assembly: Assembly) -> tuple[_Group, ...]:
        """The groups of a build-up that can be solved, drawn once while all they are drawn from is the same."""
        if not assembly.fixings:
            return ()
        basis = project.basis
        direction = direction_of(project, assembly)
        parts = (assembly, project.catalogue, basis.site, basis.climate, basis.indoor, basis.schools)
        kept = self._ratios.get(parts, direction)
        if kept is not None:
            return kept
        found = (_group(assembly, one, project.catalogue, basis, direction) for one in assembly.fixings)
        return self._ratios.put(parts, tuple(one for one in found if one is not None), direction)


def place_in(project: Project, assembly_id: str) -> tuple[Station, Direction]:
    """Where the project uses a build-up first, and which way heat flows there; a wall if nowhere."""
    for building in project.buildings:
        for element in building.elements:
            if element.assembly_id == assembly_id:
                return element.station, direction_in(project.within(building.id).basis, element.station)
    return "D", "horizontal"


def direction_of(project: Project, assembly: Assembly) -> Direction:
    """Of the heat flow where the project uses a build-up."""
    return place_in(project, assembly.id)[1]


def _solved_along(
    now: Mapping[str, Course],
    reached: Callable[[Mapping[str, Course]], float | None],
    solved: Callable[[float], dict[str, Course]],
) -> tuple[dict[str, Course], bool]:
    """Ratios of groups at the thickness that reaches what is asked, and whether they are all there.

    Where a ratio that was carried over puts that thickness, the groups are solved; there again, as long as it moves.

    Parameters
    ----------
    now : mapping of fixing id to Course
        At the thickness the core has.
    reached : callable
        The thickness that reaches what is asked with what is solved so far; None where none does. [m]
    solved : callable
        The groups at a thickness [m], as far as they are known.
    """
    courses = dict(now)
    for _ in range(_MOST_ALONG):
        d = reached(courses)
        if d is None or all(min(abs(d - at) for at, _ in course) < _NEAR for course in courses.values()):
            return courses, True
        there = solved(round(d, 4))
        if set(there) != set(courses):
            return courses, False
        courses = {key: tuple(sorted((*course, *there[key]))) for key, course in courses.items()}
    return courses, True


def _crossing(project: Project, assembly: Assembly, courses: Mapping[str, Course], station: Station) -> float | None:
    """The thickness of its core at which a build-up reaches what is asked of its station. [m]"""
    asked = asked_R(project.basis.targets, station)
    if asked is None or assembly.core_index is None:
        return None
    counted = with_solved(assembly, courses)
    try:
        found, _ = crossing(counted, project.catalogue, project.basis, asked, direction_of(project, assembly))
    except DomainError:  # its core does not count: nothing is asked of its thickness
        return None
    return None if found is None else value_of(found)


def carried(project: Project, draft: Assembly) -> Assembly:
    """A draft with the ratios that the project's own build-up has, until it is saved and solved itself."""
    known = next((assembly for assembly in project.assemblies if assembly.id == draft.id), None)
    if known is None:
        return draft
    materials = {one.id: one.material for one in known.fixings}
    courses = {one.id: known.solved_course(one.id) for one in draft.fixings if materials.get(one.id) == one.material}
    return with_solved(draft, {key: course for key, course in courses.items() if course})


@dataclass(frozen=True, slots=True, kw_only=True)
class LookedAtFixing:
    """A fixing as looked at: its cell, and the answer at once or later."""

    cell: Cell
    fixing: Fixing
    solved: Future[SolvedFixing]


def workings(project: Project, at: PlacedDraft, looked: LookedAtFixing, solved: SolvedFixing) -> dict[str, Derivation]:
    """How χ comes about, solved and by the approximate procedure."""
    direction = direction_of(project, at.assembly)
    return fixing_working(at.assembly, looked.fixing, project.catalogue, project.basis, direction, looked.cell, solved)


def look(
    queue: SolverQueue,
    project: Project,
    assembly: Assembly,
    fixing_id: str,
    moment: str,
    accuracy: Accuracy,
    ticket: str = "",
) -> LookedAtFixing:
    """A fixing of a draft. Raises DomainError."""
    fixing = fixing_in(assembly, fixing_id)
    cell = cell_of(assembly, fixing, project.catalogue, project.basis, direction_of(project, assembly))
    solved = queue.ask(solve_fixing, *_args(cell, project.basis, moment, accuracy), ticket=ticket)
    return LookedAtFixing(cell=cell, fixing=fixing, solved=solved)


def fixing_in(assembly: Assembly, fixing_id: str) -> Fixing:
    """Raises DomainError."""
    for fixing in assembly.fixings:
        if fixing.id == fixing_id:
            return fixing
    raise DomainError(Issue(path=("fixing_id",), code="no_such_fixing", message=f"there is no group “{fixing_id}”",
                            hint="one of the build-up's fixings"))  # fmt: skip


def spaced(fixing: Fixing, spacing: float) -> Fixing:
    """The group at another spacing: the pattern keeps its proportion, a number per area its square. [m]"""
    across = fixing.across or (1 / fixing.per_area) ** 0.5
    along = fixing.along or (1 / fixing.per_area) ** 0.5
    h = fixing.h
    if h is not None and h >= along * (1 - 1e-9):  # it runs through: only its distance changes
        return replace(fixing, n=None, across=spacing, along=along)
    return replace(fixing, n=None, across=spacing, along=along * spacing / across)


def spacings(fixing: Fixing) -> list[float]:
    """Nine of them, from a third of the group's own to twice that, in equal ratios. [m]"""
    own = fixing.across or (1 / fixing.per_area) ** 0.5
    return [float(f"{own / 3 * 6 ** (n / 8):.4g}") for n in range(9)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Swept:
    """A group at one spacing; without a cell where it cannot be."""

    value: float  #: across [m]
    along: float  #: of the pattern at that spacing [m]
    cell: Cell | None = None
    solved: Future[SolvedFixing] | None = None
    why_not: str = ""


def swept(
    queue: SolverQueue, project: Project, assembly: Assembly, fixing_id: str, values: Sequence[float] | None = None,
    ticket: str = "",
) -> list[Swept]:  # fmt: skip
    """A group over spacings, at working accuracy; from a third to twice its own where none are given.

    Raises
    ------
    DomainError
        If there are too many values, or no such group.
    """
    fixing = fixing_in(assembly, fixing_id)
    values = spacings(fixing) if values is None else values
    if not 1 <= len(values) <= MOST_SWEPT:
        raise DomainError(Issue(path=("values",), code="too_many_values", message=f"{len(values)} values",
                                hint=f"from 1 to {MOST_SWEPT}"))  # fmt: skip
    found = []
    for value in values:
        at = spaced(fixing, value)
        along = at.along or value
        try:
            cell = cell_of(assembly, at, project.catalogue, project.basis,
                           direction_of(project, assembly))  # fmt: skip
            solved = queue.ask(solve_fixing, *_args(cell, project.basis, "winter", "working"), ticket=ticket)
            found.append(Swept(value=value, along=along, cell=cell, solved=solved))
        except DomainError as error:
            found.append(Swept(value=value, along=along, why_not=error.issues[0].message))
    return found


@dataclass(frozen=True, slots=True, kw_only=True)
class Remaining:
    """What a group leaves of its build-up."""

    R_without: float  #: clear wall without this group [m²·K/W]
    R_with: float  #: with this group alone
    R_all: float  #: with every group
    area: float  #: net area of the build-up in the building [m²]


def remaining(project: Project, at: PlacedDraft, fixing: Fixing, ratio: float) -> Remaining:
    """Clear-wall R without and with a group.

    Parameters
    ----------
    project : Project
        With what is solved in it.
    at : At
        The build-up as drafted, where a building uses it.
    fixing : Fixing
    ratio : float
        Its solved χ over the approximate one.
    """
    draft = carried(project, at.assembly)
    direction = direction_of(project, at.assembly)
    ratios = {one.id: known for one in draft.fixings if (known := draft.solved_ratio(one.id)) is not None}
    ratios[fixing.id] = ratio
    others = tuple(one for one in draft.fixings if one.id != fixing.id)
    draft = with_solved(replace(draft, fixings=(*others, fixing)), ratios)  # a web's share is not counted in its place

    def R(fixings: tuple[Fixing, ...]) -> float:
        one = with_solved(replace(draft, fixings=fixings), ratios)
        return value_of(clear_wall_R(one, project.catalogue, project.basis, direction=direction))

    return Remaining(
        R_without=R(others),
        R_with=R((fixing,)),
        R_all=R((*others, fixing)),
        area=area_of(building_in(with_draft(project, draft), at.building_id), draft.id),
    )


def solved_here(project: Project) -> Project:
    """The project with every group solved in this process, for the command line."""
    return replace(project, assemblies=tuple(_solved_here(project, assembly) for assembly in project.assemblies))


def _solved_here(project: Project, assembly: Assembly) -> Assembly:
    station, direction = place_in(project, assembly.id)

    def solved(d: float) -> dict[str, Course]:
        there = assembly if d == core_thickness(assembly) else assembly.with_core(d)
        groups = (_group(there, one, project.catalogue, project.basis, direction) for one in assembly.fixings)
        return {
            group.fixing.id: ((d, solve_fixing(*group.args).chi / group.cell.chi_approximate),)
            for group in groups
            if group is not None
        }

    now = solved(core_thickness(assembly))
    if not now:
        return assembly
    courses, _ = _solved_along(now, lambda known: _crossing(project, assembly, known, station), solved)
    return with_solved(assembly, courses)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Group:
    """What the queue is asked of a group."""

    fixing: Fixing
    cell: Cell
    args: tuple[Cell, dict[str, float], FilmSchool, Accuracy]
    key: str


def _group(
    assembly: Assembly, fixing: Fixing, catalogue: Catalogue, basis: Basis, direction: Direction
) -> _Group | None:
    """None where it does not count or cannot be drawn."""
    try:
        cell = cell_of(assembly, fixing, catalogue, basis, direction)
    except DomainError:
        return None
    if cell.chi_approximate <= 0:
        return None
    args = _args(cell, basis, "winter", "final")
    return _Group(fixing=fixing, cell=cell, args=args, key=key_of(solve_fixing, *args))


def _args(
    cell: Cell, basis: Basis, moment: str, accuracy: Accuracy
) -> tuple[Cell, dict[str, float], FilmSchool, Accuracy]:  # fmt: skip
    when = condition(basis, moment)
    return cell, {"inside": when.theta_i, "outside": when.theta_e}, basis.schools.films, accuracy
