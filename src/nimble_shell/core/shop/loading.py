"""Trucks that unload in set order: each takes the next unbroken run of pieces, the last to be set lies lowest.

What can be loaded can also be loaded without some of its pieces. So trucks filled as far as they go, one after the
other, are as few as can be.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.progress import report
from nimble_shell.core.quantities.sentence import composed, sentence

NEAR = 1e-6


@dataclass(frozen=True, slots=True, kw_only=True)
class Load:
    """A piece that lies flat. Lengths in mm, mass in kg."""

    name: str
    length: float
    thickness: float
    mass: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Truck:
    """What one may carry."""

    stacks: int
    max_height: float
    max_mass: float
    max_length: float
    overhang: float  #: that a piece may be longer than any below it


@dataclass(frozen=True, slots=True, kw_only=True)
class Loaded:
    """Of every truck its stacks, each from the bottom up, by number in the set order."""

    trucks: tuple[tuple[tuple[int, ...], ...], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class NoLoad:
    """A piece that no truck takes."""

    piece: int
    reason: str


@dataclass(frozen=True, slots=True)
class _Stack:
    """As far as it is filled from the top: its height, and how long a piece below has to be."""

    height: float
    least: float
    pieces: tuple[int, ...] = ()


def load(pieces: Sequence[Load], truck: Truck) -> Loaded | NoLoad:
    """Fewest trucks for pieces in set order."""
    for at, one in enumerate(pieces):
        reason = _too_much(one, truck)
        if reason:
            return NoLoad(piece=at, reason=composed(f"“{one.name}” {{reason}}", reason=reason))
    trucks: list[tuple[tuple[int, ...], ...]] = []
    at = 0
    while at < len(pieces):
        report(len(trucks), at)
        stacks = _longest_run(pieces, at, truck)
        trucks.append(tuple(stack.pieces[::-1] for stack in stacks))
        at += sum(len(stack.pieces) for stack in stacks)
    return Loaded(trucks=tuple(trucks))


def _too_much(one: Load, truck: Truck) -> str:
    for value, most, what, of, size in (
        (one.length, truck.max_length, "is {v} long", "length", 1000.0),
        (one.thickness, truck.max_height, "is {v} high", "length", 1000.0),
        (one.mass, truck.max_mass, "weighs {v}", "mass", 1.0),
    ):
        if value > most + NEAR:
            return sentence(f"{what}, and a truck takes {{most}}", v=(value / size, of), most=(most / size, of))
    return ""


def _longest_run(pieces: Sequence[Load], first: int, truck: Truck) -> tuple[_Stack, ...]:
    """Stacks of the longest run from a piece on; all ways to stack it are followed side by side."""
    states: list[tuple[_Stack, ...]] = [tuple(_Stack(0.0, 0.0) for _ in range(truck.stacks))]
    mass = 0.0
    for at in range(first, len(pieces)):
        one = pieces[at]
        mass += one.mass
        following = [] if mass > truck.max_mass + NEAR else [
            more for state in states for more in _below(state, at, one, truck)
        ]  # fmt: skip
        if not following:
            break
        states = _undominated(following)
    return states[0]


def _below(state: tuple[_Stack, ...], at: int, one: Load, truck: Truck) -> list[tuple[_Stack, ...]]:
    """The piece as the next lower one of each stack; stacks that are alike are tried once."""
    found, seen = [], set()
    for n, stack in enumerate(state):
        key = (stack.height, stack.least)
        height = stack.height + one.thickness
        if key in seen or height > truck.max_height + NEAR or one.length + NEAR < stack.least:
            continue
        seen.add(key)
        longer = _Stack(height, max(stack.least, one.length - truck.overhang), (*stack.pieces, at))
        found.append((*state[:n], longer, *state[n + 1 :]))
    return found


def _undominated(states: list[tuple[_Stack, ...]]) -> list[tuple[_Stack, ...]]:
    """Without those that are nowhere lower nor less demanding than another."""
    states = [tuple(sorted(state, key=lambda stack: (stack.height, stack.least))) for state in states]
    states.sort(key=lambda state: [(stack.height, stack.least) for stack in state])
    kept: list[tuple[_Stack, ...]] = []
    for state in states:
        if not any(_no_worse(other, state) for other in kept):
            kept.append(state)
    return kept


def _no_worse(a: tuple[_Stack, ...], b: tuple[_Stack, ...]) -> bool:
    return all(
        one.height <= other.height + NEAR and one.least <= other.least + NEAR for one, other in zip(a, b, strict=True)
    )
