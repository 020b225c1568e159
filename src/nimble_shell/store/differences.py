"""What has to be written for a project to become another one: thing by thing, each with its place among others."""

from __future__ import annotations

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from nimble_shell.core.shell.project import Project
from nimble_shell.formats.things import BASIS, HEADING, KINDS, Heading, Key, groups

_LEAST_GAP = 1e-9  #: between two positions; below it all siblings are numbered again


@dataclass(frozen=True, slots=True)
class Slot:
    """Where a thing stands among its siblings, and when it was written last."""

    position: float
    revision: int


@dataclass(frozen=True, slots=True)
class ChangeItem:
    """What becomes of one thing: its new bare value and position; without a value it goes."""

    key: Key
    value: Any
    position: float


def differences(before: Project, slots: Mapping[Key, Slot], after: Project, revision: int) -> list[ChangeItem]:
    """What turns one project into the other.

    Parameters
    ----------
    before, after : Project
    slots : mapping of Key to Slot
        Of every thing of the project before.
    revision : int
        Of the change; it sets things that are added apart from those that once stood there.
    """
    found: list[ChangeItem] = []
    if after.name != before.name:
        found.append(ChangeItem(HEADING, Heading(name=after.name), 0.0))
    if after.basis is not before.basis and after.basis != before.basis:
        found.append(ChangeItem(BASIS, after.basis, 0.0))
    old, new = ({(kind, owner): values for kind, owner, values in groups(one)} for one in (before, after))
    for group in new | old:
        was, now = old.get(group, ()), new.get(group, ())
        if was is not now:
            found += _group(group, was, now, slots, revision)
    return found


def _group(
    group: tuple[str, str], was: Sequence[Any], now: Sequence[Any], slots: Mapping[Key, Slot], revision: int
) -> list[ChangeItem]:
    kind = KINDS[group[0]]
    old = {kind.id_of(one): one for one in was}
    new = {kind.id_of(one): one for one in now}
    found = [ChangeItem(Key(*group, one), None, slots[Key(*group, one)].position) for one in old if one not in new]
    places = positions([(one, slots[Key(*group, one)].position) for one in old], list(new), revision)
    for one, value in new.items():
        key, known = Key(*group, one), old.get(one)
        moved = known is None or slots[key].position != places[one]
        if moved or (value is not known and kind.bare(value) != kind.bare(known)):
            found.append(ChangeItem(key, kind.bare(value), places[one]))
    return found


def positions(old: Sequence[tuple[str, float]], new: Sequence[str], revision: int = 0) -> dict[str, float]:
    """Positions of things in a new order: those that stay keep theirs, unless they changed places.

    Parameters
    ----------
    old : sequence of (str, float)
        Ids with their positions, in order.
    new : sequence of str
        Ids in their new order.
    revision : int
        Of the change.
    """
    known = dict(old)
    stay = [one for one in new if one in known]
    if stay != [one for one, _ in old if one in set(new)]:
        return {one: float(at) for at, one in enumerate(new)}
    found: dict[str, float] = {}
    low: float | None = None
    for at, one in enumerate(new):
        if one in known:
            found[one] = low = known[one]
            continue
        above = next((known[later] for later in new[at:] if later in known), None)
        if above is None:  # behind all of them, and behind what once stood there and may come back
            low = (-1.0 if low is None else low) + 1.0 + 1e-6 * revision
        elif low is None:
            low = above - 1.0
        else:
            low = (low + above) / 2
        found[one] = low
    values = [found[one] for one in new]
    if any(b - a < _LEAST_GAP for a, b in itertools.pairwise(values)):
        return {one: float(at) for at, one in enumerate(new)}
    return found
