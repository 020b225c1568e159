"""Days of setting pieces on site."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from nimble_shell.core.errors import Collector
from nimble_shell.core.site.order import site_time
from nimble_shell.formats.neutral_shell.values import NotNegative, Positive
from nimble_shell.formats.strict import Strict

_NEAR = 1e-9


class SiteTimeCase(Strict):
    kind: Literal["site_time"] = "site_time"
    minutes: Annotated[list[Positive], Field(max_length=100_000)]
    day_h: Annotated[Positive, Field(le=24)]
    setup_h: NotNegative
    crews: Annotated[int, Field(strict=True, ge=1, le=1000)] = 1
    start_after_days: Annotated[int, Field(strict=True, ge=0, le=100_000)] = 0


def compute(case: SiteTimeCase) -> dict[str, Any]:
    """Answer a case.

    Raises
    ------
    DomainError
        With the path of a piece that takes longer than a day.
    """
    check, room = Collector(), case.day_h - case.setup_h
    for at, one in enumerate(case.minutes):
        check.check(one / 60 <= room + _NEAR, ("minutes", at), "longer_than_a_day",
                    f"{one:g} min, a day has {60 * room:g}", "a piece that is set within a day")  # fmt: skip
    check.refuse()
    found = site_time([one / 60 for one in case.minutes], case.day_h, case.setup_h, case.crews, case.start_after_days)
    return {"days": found.days, "last_day_h": found.last_day, "pieces_per_day": list(found.per_day)}
