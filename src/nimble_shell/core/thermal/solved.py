"""A build-up with what has been solved of it beside what was edited."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace

from nimble_shell.core.assemblies.assembly import Assembly


@dataclass(frozen=True, slots=True, kw_only=True)
class SolvedAssembly(Assembly):
    """A build-up whose groups of points count as solved, where they are; it is computed with, and never stored."""

    ratios: tuple[tuple[str, float], ...] = ()  #: fixing id and its solved χ over the approximate one

    def solved_ratio(self, fixing_id: str) -> float | None:
        """Solved χ of a group over the approximate one; None where it is not solved."""
        return dict(self.ratios).get(fixing_id)


def with_solved(assembly: Assembly, ratios: Mapping[str, float]) -> Assembly:
    """The build-up with ratios of its groups, in place of any it had.

    Parameters
    ----------
    ratios : mapping of fixing id to float
        Solved χ over the approximate one. [-]
    """
    known = {one.id for one in assembly.fixings}
    kept = tuple(sorted((key, ratio) for key, ratio in ratios.items() if key in known))
    plain = {field.name: getattr(assembly, field.name) for field in fields(Assembly)}
    return without_solved_webs(SolvedAssembly(**plain, ratios=kept)) if kept else Assembly(**plain)


def without_solved_webs(assembly: Assembly) -> Assembly:
    """The build-up without the webs that a solved group of webs has taken over."""
    if not any(one.kind == "web" and assembly.solved_ratio(one.id) is not None for one in assembly.fixings):
        return assembly
    layers = tuple(
        replace(layer, members=tuple(member for member in layer.members if member.joint != "web"))
        for layer in assembly.layers
    )
    return replace(assembly, layers=layers)
