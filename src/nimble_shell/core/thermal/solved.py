"""A build-up with what has been solved of it beside what was edited."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.course import Course, ratio_at


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedAssembly(Assembly):
    """A build-up whose groups of points count as solved, where they are; it is computed with, and never stored."""

    courses: tuple[tuple[str, Course], ...] = ()  #: of each fixing, by id

    def solved_course(self, fixing_id: str) -> Course:
        """Solved χ of a group over the approximate one, at each thickness of the core it was solved at."""
        return dict(self.courses).get(fixing_id, ())

    def solved_ratio(self, fixing_id: str) -> float | None:
        """The same at the core's own thickness; None where nothing is solved."""
        course = self.solved_course(fixing_id)
        return None if not course else ratio_at(course, core_thickness(self))


def core_thickness(assembly: Assembly) -> float:
    """Of the layer marked as core; 0 without one. [m]"""
    return 0.0 if assembly.core_index is None else assembly.layers[assembly.core_index].d


def with_solved(assembly: Assembly, solved: Mapping[str, float | Course]) -> Assembly:
    """The build-up with what is solved of its groups, in place of any it had.

    Parameters
    ----------
    solved : mapping of fixing id to float or sequence of (float, float)
        Solved χ over the approximate one [-]: at the thickness the core has now, or at several of them [m].
        Between them it goes straight, beyond them it stays.
    """
    known = {one.id for one in assembly.fixings}
    now = core_thickness(assembly)
    courses = tuple(
        sorted((key, tuple(sorted(one)) if isinstance(one, tuple) else ((now, one),))
               for key, one in solved.items() if key in known)
    )  # fmt: skip
    plain = {field.name: getattr(assembly, field.name) for field in fields(Assembly)}
    return without_solved_webs(SolvedAssembly(**plain, courses=courses)) if courses else Assembly(**plain)


def without_solved_webs(assembly: Assembly) -> Assembly:
    """The build-up without the webs that a solved group of webs has taken over."""
    if not any(one.kind == "web" and assembly.solved_course(one.id) for one in assembly.fixings):
        return assembly
    layers = tuple(
        replace(layer, members=tuple(member for member in layer.members if member.joint != "web"))
        for layer in assembly.layers
    )
    return replace(assembly, layers=layers)
