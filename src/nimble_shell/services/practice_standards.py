"""What standards of build-ups and of joints have in common: every version kept, used, withdrawn, read from files."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Generic, TypeVar

from nimble_shell.core.assemblies.difference import Difference
from nimble_shell.core.shell.standard import JointStandard, Standard
from nimble_shell.services.clock import now
from nimble_shell.services.projects import ProjectService
from nimble_shell.store import Database, Kept, NotFound, StandardVersions, Use

S = TypeVar("S", Standard, JointStandard)


@dataclass(frozen=True, slots=True, kw_only=True)
class Offer(Generic[S]):
    """The newest version of the standard that a build-up or a joint was taken from."""

    kept: Kept[S]
    differences: tuple[Difference, ...]  #: from what is drawn to that version


class PracticeStandards(Generic[S]):
    """One method per thing a user can do with standards; each is one transaction."""

    kept_in: type[StandardVersions[S]]  #: where they are read and written, in one session

    def __init__(self, database: Database, projects: ProjectService) -> None:
        self._database, self._projects = database, projects

    def all(self) -> list[tuple[Kept[S], list[Use]]]:
        """Every standard with where it is used."""
        with self._database.read() as session:
            standards = self.kept_in(session)
            uses = standards.uses()
            return [(kept, uses.get(kept.standard.id, [])) for kept in standards.all()]

    def newest(self, standard_id: str) -> S:
        """The newest version. Raises NotFound."""
        with self._database.read() as session:
            return self.kept_in(session).newest(standard_id).standard

    def _offered(
        self, standard_id: str, version: int, differences: Callable[[S], Iterable[Difference]]
    ) -> Offer[S] | None:
        """The newest version of what was taken from a version; None where it is gone, or is what is drawn."""
        with self._database.read() as session:
            try:
                kept = self.kept_in(session).newest(standard_id)
            except NotFound:
                return None
        changes = tuple(differences(kept.standard))
        if kept.standard.version == version and not changes:
            return None
        return Offer(kept=kept, differences=changes)

    def withdraw(self, standard_id: str, *, again: bool = False) -> None:
        """No longer offer a standard, or offer it again. What uses it keeps its build-up. Raises NotFound."""
        with self._database.write() as session:
            self.kept_in(session).withdraw(standard_id, None if again else now())

    def bring_in(self, standards: Sequence[S]) -> int:
        """Store standards from a file; one that is known gets a next version if it differs. The number stored."""
        stored = 0
        with self._database.write() as session:
            repository = self.kept_in(session)
            known = {kept.standard.id: kept.standard for kept in repository.all()}
            for standard in standards:
                before = known.get(standard.id)
                if before is not None and replace(standard, version=before.version) == before:
                    continue
                version = 1 if before is None else before.version + 1
                repository.add(replace(standard, version=version), now())
                session.flush()
                known[standard.id] = replace(standard, version=version)
                stored += 1
        return stored
