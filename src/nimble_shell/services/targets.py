"""Sets of targets: the examples that ship and the practice's own."""

from __future__ import annotations

from nimble_shell.core.basis.targets import TARGET_SETS, Targets, TargetSet
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.services.clock import now
from nimble_shell.store import Database, TargetSetRepository

_LONGEST = 80  #: name of a set [characters]


class TargetService:
    """One method per thing a user can do with sets of targets; each is one transaction."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def own(self) -> list[TargetSet]:
        """The practice's sets, by name."""
        with self._database.read() as session:
            return TargetSetRepository(session).all()

    def keep(self, name: str, targets: Targets) -> None:
        """Keep targets under a name; a known name gets a next version.

        Raises
        ------
        DomainError
            If the name is empty, too long or that of an example, or nothing is asked.
        """
        name = name.strip()
        if not 0 < len(name) <= _LONGEST or name in {one.name for one in TARGET_SETS}:
            raise DomainError(
                Issue(path=("name",), code="name_not_usable", message=f"“{name}” cannot name a set of the practice",
                      hint=f"1 to {_LONGEST} characters, and not the name of a shipped example")
            )  # fmt: skip
        if targets == Targets():
            raise DomainError(
                Issue(path=("targets",), code="nothing_asked", message="these targets ask nothing",
                      hint="enter at least one of them")
            )  # fmt: skip
        with self._database.write() as session:
            TargetSetRepository(session).add(name, targets, now())

    def withdraw(self, name: str) -> None:
        """No longer offer a set. Raises NotFound."""
        with self._database.write() as session:
            TargetSetRepository(session).withdraw(name, now())
