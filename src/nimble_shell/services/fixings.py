"""Fixings of build-ups: solved at the queue, and from then on part of every figure of their build-up."""

from __future__ import annotations

from collections.abc import Sequence
from concurrent.futures import Future
from dataclasses import dataclass, replace
from functools import lru_cache

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.fixing import Fixing
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.condition import condition
from nimble_shell.core.basis.schools import FilmSchool
from nimble_shell.core.basis.stations import Direction, direction_at
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.fixings.cell import Cell, cell_of
from nimble_shell.core.fixings.solved import SolvedFixing, solve_fixing
from nimble_shell.core.joints.solved import Accuracy
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.shell.project import Project
from nimble_shell.core.thermal.figures import clear_wall_R
from nimble_shell.core.working import value_of
from nimble_shell.services.bench import area_of, find_building, with_draft
from nimble_shell.services.solver_queue import SolverQueue, key_of
from nimble_shell.services.studies import PlacedDraft

MOST_SWEPT = 41


class FixingResults:
    """What is known of the fixings of projects."""

    def __init__(self, queue: SolverQueue) -> None:
        self.queue = queue
        #: The ratio last solved of a group, which counts until its next one is there.
        self._last: dict[tuple[str, str, str, str], float] = {}

    def owned(self, project: Project, *, begin: bool = True) -> Project:
        """The project with every solved group in the place of its approximate correction; the others are asked for.

        Parameters
        ----------
        project : Project
            As stored.
        begin : bool
            Whether what is not known is asked for.
        """
        assemblies = tuple(self._with_ratios(project, assembly, begin=begin) for assembly in project.assemblies)
        return replace(project, assemblies=assemblies)

    def waiting(self, project: Project, building_id: str) -> tuple[str, ...]:
        """Groups of a building whose χ is still to come."""
        building = next((one for one in project.buildings if one.id == building_id), None)
        used = {element.assembly_id for element in building.elements} if building is not None else set()
        return tuple(
            f"{assembly.name}: {fixing.name}"
            for assembly in project.assemblies
            if assembly.id in used
            for fixing in assembly.fixings
            if (asked := _asked(assembly, fixing.id, project.catalogue, project.basis, direction_of(project, assembly)))
            and self.queue.known(asked.key) is None
            and not self.queue.refused(asked.key)
        )

    def _with_ratios(self, project: Project, assembly: Assembly, *, begin: bool) -> Assembly:
        if not assembly.fixings:
            return assembly
        direction = direction_of(project, assembly)
        fixings = []
        for fixing in assembly.fixings:
            place = (project.id, assembly.id, fixing.id, fixing.material)
            asked = _asked(assembly, fixing.id, project.catalogue, project.basis, direction)
            if asked is not None:
                solved = self.queue.known(asked.key)
                if solved is not None:
                    self._last[place] = solved.chi / asked.cell.chi_approximate
                elif begin:
                    self.queue.ask(solve_fixing, *asked.args, looked_at=False)
            fixings.append(replace(fixing, ratio=self._last.get(place) if asked is not None else None))
        return without_owned_members(replace(assembly, fixings=tuple(fixings)))


def direction_of(project: Project, assembly: Assembly) -> Direction:
    """Of the heat flow where the project uses a build-up."""
    for building in project.buildings:
        for element in building.elements:
            if element.assembly_id == assembly.id:
                return direction_at(element.station)
    return "horizontal"


def without_owned_members(assembly: Assembly) -> Assembly:
    """The build-up without the webs that a solved group of webs has taken over."""
    if not any(fixing.kind == "web" and fixing.ratio is not None for fixing in assembly.fixings):
        return assembly
    layers = tuple(
        replace(layer, members=tuple(member for member in layer.members if member.joint != "web"))
        for layer in assembly.layers
    )
    return replace(assembly, layers=layers)


def carried(project: Project, draft: Assembly) -> Assembly:
    """A draft with the ratios that the project's own build-up has, until it is saved and solved itself."""
    known = next((assembly for assembly in project.assemblies if assembly.id == draft.id), None)
    if known is None:
        return draft
    ratios = {(fixing.id, fixing.material): fixing.ratio for fixing in known.fixings}
    fixings = tuple(replace(one, ratio=ratios.get((one.id, one.material))) for one in draft.fixings)
    return without_owned_members(replace(draft, fixings=fixings))


@dataclass(frozen=True, slots=True, kw_only=True)
class LookedAtFixing:
    """A fixing as looked at: its cell, and the answer at once or later."""

    cell: Cell
    fixing: Fixing
    solved: Future[SolvedFixing]


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


@dataclass(frozen=True, slots=True, kw_only=True)
class Swept:
    """A group at one spacing; without a cell where it cannot be."""

    value: float  #: [m]
    cell: Cell | None = None
    solved: Future[SolvedFixing] | None = None
    why_not: str = ""


def swept(
    queue: SolverQueue, project: Project, assembly: Assembly, fixing_id: str, values: Sequence[float], ticket: str = ""
) -> list[Swept]:  # fmt: skip
    """A group over spacings, at working accuracy.

    Raises
    ------
    DomainError
        If there are too many values, or no such group.
    """
    if not 1 <= len(values) <= MOST_SWEPT:
        raise DomainError(Issue(path=("values",), code="too_many_values", message=f"{len(values)} values",
                                hint=f"from 1 to {MOST_SWEPT}"))  # fmt: skip
    fixing = fixing_in(assembly, fixing_id)
    found = []
    for value in values:
        try:
            cell = cell_of(assembly, spaced(fixing, value), project.catalogue, project.basis,
                           direction_of(project, assembly))  # fmt: skip
            solved = queue.ask(solve_fixing, *_args(cell, project.basis, "winter", "working"), ticket=ticket)
            found.append(Swept(value=value, cell=cell, solved=solved))
        except DomainError as error:
            found.append(Swept(value=value, why_not=error.issues[0].message))
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
    own = replace(fixing, ratio=ratio)
    others = tuple(one for one in draft.fixings if one.id != fixing.id)

    if own.kind == "web":  # its share of the area is not counted in its place
        draft = without_owned_members(replace(draft, fixings=(own,)))

    def R(fixings: tuple[Fixing, ...]) -> float:
        one = without_owned_members(replace(draft, fixings=fixings))
        return value_of(clear_wall_R(one, project.catalogue, project.basis, direction=direction))

    return Remaining(
        R_without=R(others),
        R_with=R((own,)),
        R_all=R((*others, own)),
        area=area_of(with_draft(project, draft), find_building(project, at.building_id), draft.id),
    )


def solved_here(project: Project) -> Project:
    """The project with every group solved in this process, for the command line."""
    assemblies = []
    for assembly in project.assemblies:
        fixings = []
        for fixing in assembly.fixings:
            asked = _asked(assembly, fixing.id, project.catalogue, project.basis, direction_of(project, assembly))
            ratio = None if asked is None else solve_fixing(*asked.args).chi / asked.cell.chi_approximate
            fixings.append(replace(fixing, ratio=ratio))
        assemblies.append(without_owned_members(replace(assembly, fixings=tuple(fixings))))
    return replace(project, assemblies=tuple(assemblies))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Asked:
    cell: Cell
    args: tuple[Cell, dict[str, float], FilmSchool, Accuracy]
    key: str


@lru_cache(maxsize=512)
def _asked(
    assembly: Assembly, fixing_id: str, catalogue: Catalogue, basis: Basis, direction: Direction
) -> _Asked | None:  # fmt: skip
    """What the queue is asked of a group; None where it does not count or cannot be drawn."""
    try:
        cell = cell_of(assembly, fixing_in(assembly, fixing_id), catalogue, basis, direction)
    except DomainError:
        return None
    if cell.chi_approximate <= 0:
        return None
    args = _args(cell, basis, "winter", "final")
    return _Asked(cell=cell, args=args, key=key_of(solve_fixing, *args))


def _args(
    cell: Cell, basis: Basis, moment: str, accuracy: Accuracy
) -> tuple[Cell, dict[str, float], FilmSchool, Accuracy]:  # fmt: skip
    when = condition(basis, moment)
    return cell, {"inside": when.theta_i, "outside": when.theta_e}, basis.schools.films, accuracy
