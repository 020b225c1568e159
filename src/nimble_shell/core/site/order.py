"""Order of work: earliest times with waits and exposures, what is critical, what a proposed order breaks; and days.

Times in h.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

_NEAR = 1e-9


@dataclass(frozen=True, slots=True, kw_only=True)
class After:
    """What another task asks: begun so long after its end, and no later than so long after it."""

    id: str
    wait: float = 0.0
    within: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Task:
    id: str
    hours: float
    hold: bool = False  #: a hold point: nothing that comes after it begins without it
    after: tuple[After, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Plan:
    """Tasks at their earliest."""

    earliest: Mapping[str, float]
    total: float
    critical: tuple[str, ...]  #: without float, sorted
    sequence: tuple[str, ...]  #: one that keeps every `after`


def cycle_of(tasks: Sequence[Task]) -> tuple[str, ...] | None:
    """One round of tasks that wait for one another; None where there is none."""
    follows = {one.id: [each.id for each in one.after] for one in tasks}
    state: dict[str, int] = {}
    for begin in follows:
        if begin in state:
            continue
        way, turns = [begin], [iter(follows[begin])]
        state[begin] = 1
        while turns:
            step = next(turns[-1], None)
            if step is None:
                state[way.pop()] = 2
                turns.pop()
            elif state.get(step) == 1:
                return tuple(reversed(way[way.index(step) :]))
            elif step not in state:
                state[step] = 1
                way.append(step)
                turns.append(iter(follows[step]))
    return None


def plan_of(tasks: Sequence[Task]) -> Plan | None:
    """Earliest starts that keep all waits and exposures; None where those contradict one another.

    The tasks have to be without a cycle.
    """
    hours = {one.id: one.hours for one in tasks}
    #: The second begins at least so long after the first.
    edges = [
        edge for one in tasks for each in one.after
        for edge in (
            (each.id, one.id, hours[each.id] + each.wait),
            *(() if each.within is None else ((one.id, each.id, -hours[each.id] - each.within),)),
        )
    ]  # fmt: skip
    earliest = dict.fromkeys(hours, 0.0)
    if not _relaxed(earliest, edges):
        return None
    total = max((earliest[key] + hours[key] for key in hours), default=0.0)
    #: Latest starts, below nought: the same from the end backwards.
    latest = {key: hours[key] - total for key in hours}
    _relaxed(latest, [(b, a, gap) for a, b, gap in edges])
    critical = tuple(sorted(key for key in hours if -latest[key] - earliest[key] <= _NEAR * max(1.0, total)))
    return Plan(earliest=earliest, total=total, critical=critical, sequence=tuple(_sequence(tasks)))


def _relaxed(at: dict[str, float], edges: Sequence[tuple[str, str, float]]) -> bool:
    """Raise every place to what its edges ask; False where they never come to rest."""
    for _ in range(len(at) + 1):
        moved = False
        for a, b, gap in edges:
            if at[a] + gap > at[b] + _NEAR:
                at[b] = at[a] + gap
                moved = True
        if not moved:
            return True
    return False


def _sequence(tasks: Sequence[Task]) -> Iterator[str]:
    left = {one.id: {each.id for each in one.after} for one in tasks}
    while left:
        ready = next(key for key, waits in left.items() if not waits & left.keys())
        del left[ready]
        yield ready


def violations(tasks: Sequence[Task], proposed: Sequence[str]) -> tuple[tuple[str, str], ...]:
    """In a proposed order, each task with what it waits for that comes later or not at all; sorted."""
    place = {key: at for at, key in enumerate(proposed)}
    return tuple(sorted(
        (one.id, each.id) for one in tasks if one.id in place for each in one.after
        if place.get(each.id, len(place)) > place[one.id]
    ))  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class SiteTime:
    days: int
    last_day: float  #: of the busiest crew on the last day
    per_day: tuple[int, ...]


def site_time(hours: Sequence[float], day: float, setup: float, crews: int, start_after: int) -> SiteTime:
    """Pieces in set order, each by the crew that is free first; none is carried over night."""
    room, per_day = day - setup, list[int]()
    busy = [0.0] * crews
    for one in hours:
        crew = busy.index(min(busy))
        if not per_day or busy[crew] + one > room + _NEAR:
            per_day.append(0)
            busy = [0.0] * crews
            crew = 0
        busy[crew] += one
        per_day[-1] += 1
    return SiteTime(days=start_after + len(per_day), last_day=max(busy) if per_day else 0.0, per_day=tuple(per_day))
