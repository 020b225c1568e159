"""Kinds of values that the blocks have in common, and how they are checked against one another."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from typing import Annotated, Any, TypeVar

from pydantic import Field

from nimble_shell.core.errors import Collector, DomainError, Issue, Path
from nimble_shell.core.sun.position import Day, days_in
from nimble_shell.core.working import Num, value_of
from nimble_shell.formats.strict import Number, Strict

Positive = Annotated[Number, Field(gt=0)]
NotNegative = Annotated[Number, Field(ge=0)]
Share = Annotated[Number, Field(ge=0, le=1)]
Exponent = Annotated[Number, Field(ge=0.5, le=1)]
Temperature = Annotated[Number, Field(ge=-90, le=90)]
Latitude = Annotated[Number, Field(ge=-90, le=90)]
Hour = Annotated[Number, Field(ge=0, le=24)]
Wind = Annotated[Number, Field(ge=0, le=60)]  #: [m/s]
Pressure = Annotated[Number, Field(gt=10_000, le=120_000)]  #: of the air [Pa]
Three = Annotated[list[NotNegative], Field(min_length=3, max_length=3)]
TwentyFour = Annotated[list[Number], Field(min_length=24, max_length=24)]
T = TypeVar("T")


class DayCase(Strict):
    month: Annotated[int, Field(ge=1, le=12, strict=True)]
    day: Annotated[int, Field(ge=1, le=31, strict=True)]

    def day_at(self, *path: str | int) -> Day:
        """The day, or a refusal with its place."""
        if self.day > days_in(self.month):
            raise DomainError(Issue(path=(*path, "day"), code="no_such_day",
                                    message=f"month {self.month} has {days_in(self.month)} days",
                                    hint="a day of a year of 365"))  # fmt: skip
        return Day(month=self.month, day=self.day)


def only_once(check: Collector, ids: Iterable[str], *path: str | int) -> None:
    """Refuse an id that is told twice in a list, at the second."""
    seen: set[str] = set()
    for at, one in enumerate(ids):
        check.check(one not in seen, (*path, at), "id_taken", f"“{one}” is there already",
                    "give every one an id of its own")  # fmt: skip
        seen.add(one)


def missing(*path: str | int) -> DomainError:
    """Of a key that is needed here."""
    return DomainError(Issue(path=path, code="missing", message=f"“{path[-1]}” is missing", hint="add it"))


def not_there(what: str, name: str, *path: str | int) -> DomainError:
    """Of a name that leads nowhere."""
    return DomainError(Issue(path=path, code="unknown_name", message=f"there is no {what} “{name}”",
                             hint="check its spelling, or add it"))  # fmt: skip


def one_of(case: Any, names: Sequence[str], *path: str | int) -> str:
    """Which of several keys that stand for one another is there; exactly one has to be."""
    there = [name for name in names if getattr(case, name) is not None]
    if not there:
        raise missing(*path, names[0])
    if len(there) > 1:
        raise DomainError(
            Issue(
                path=(*path, there[1]),
                code="told_twice",
                message=f"“{there[0]}” and “{there[1]}” say the same",
                hint="leave one of them out",
            )
        )
    return there[0]


def each(cases: Sequence[T], make: Callable[[T, Path], Any], *path: str | int) -> list[Any]:
    """What is made of every case, and all refusals at once."""
    check, found = Collector(), []
    for at, one in enumerate(cases):
        try:
            found.append(make(one, (*path, at)))
        except DomainError as error:
            check.add(error.issues)
    check.refuse()
    return found


def number(value: Num | None) -> float | None:
    """As written into the answer."""
    return None if value is None else value_of(value)


def numbers(found: Any, *names: str) -> dict[str, float | None]:
    """Attributes by their names."""
    return {name: number(getattr(found, name)) for name in names}


def placed(block: str, ask: Callable[[], T]) -> T:
    """An answer, or its refusal with its block's place in the file."""
    try:
        return ask()
    except DomainError as error:
        raise error.under(block) from None
