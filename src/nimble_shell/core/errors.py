"""Refusals: where, what, and the way out.

ValueError
└── DomainError        well-formed input that physics or construction does not allow (the user's to mend)
ArithmeticError
└── NotConverged       an iteration that ended without an answer (ours to answer for)
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

Path = tuple[str | int, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Issue:
    """One thing that is wrong."""

    path: Path  #: ("layers", 2, "lambda"), in the wire's own names
    code: str  #: stable: tests and translations hold on to it
    message: str  #: what is wrong, with the value and its unit
    hint: str  #: what would make it right
    entity: str = ""  #: of a drawing or model of somebody else: its handle or id there
    proposed: str = ""  #: a value that would do


class DomainError(ValueError):
    """Well-formed input that physics or construction does not allow."""

    def __init__(self, *issues: Issue) -> None:
        super().__init__("; ".join(f"{'/'.join(map(str, i.path))}: {i.message}" for i in issues))
        self.issues = issues

    def __reduce__(self) -> tuple[type[DomainError], tuple[Issue, ...]]:
        """A refusal comes through unharmed from a worker process."""
        return type(self), self.issues

    def under(self, *prefix: str | int) -> DomainError:
        """The same issues, seen from one level further out."""
        return DomainError(*(replace(issue, path=(*prefix, *issue.path)) for issue in self.issues))


def reason_of(error: BaseException) -> str:
    """Why something was refused, in one sentence; it keeps its values."""
    return error.issues[0].message if isinstance(error, DomainError) and error.issues else str(error)


class NotConverged(ArithmeticError):
    """An iteration reached its limit."""

    def __init__(self, iterations: int, residual: float) -> None:
        super().__init__(f"no answer after {iterations} iterations, residual {residual:g}")
        self.iterations, self.residual = iterations, residual

    def __reduce__(self) -> tuple[type[NotConverged], tuple[int, float]]:
        """The same for this one."""
        return type(self), (self.iterations, self.residual)


class Collector:
    """Gathers the refusals of several fields, so that the user sees all of them at once."""

    def __init__(self) -> None:
        self.issues: list[Issue] = []

    def check(self, good: bool, path: Path, code: str, message: str, hint: str) -> None:
        """Note an issue unless `good`."""
        if not good:
            self.issues.append(Issue(path=path, code=code, message=message, hint=hint))

    def add(self, issues: Iterable[Issue]) -> None:
        self.issues.extend(issues)

    def refuse(self) -> None:
        """Raise DomainError with everything noted, if anything was."""
        if self.issues:
            raise DomainError(*self.issues)
