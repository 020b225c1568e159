"""Trucks against every way to share few pieces out."""

from __future__ import annotations

import itertools
import random

import pytest

from nimble_shell.core.shop.loading import Load, Loaded, NoLoad, Truck, load


def stackable(stack: list[Load], truck: Truck) -> bool:
    """From the top down, as set first to last."""
    return sum(one.thickness for one in stack) <= truck.max_height + 1e-9 and all(
        upper.length <= lower.length + truck.overhang + 1e-9 for upper, lower in itertools.combinations(stack, 2)
    )


def goes(run: list[Load], truck: Truck) -> bool:
    if sum(one.mass for one in run) > truck.max_mass + 1e-9:
        return False
    for shared in itertools.product(range(truck.stacks), repeat=len(run)):
        stacks = [[one for one, at in zip(run, shared, strict=True) if at == n] for n in range(truck.stacks)]
        if all(stackable(stack, truck) for stack in stacks):
            return True
    return False


def fewest(pieces: list[Load], truck: Truck) -> int:
    least = [0] + [10**9] * len(pieces)
    for end in range(1, len(pieces) + 1):
        for begin in range(end):
            if least[begin] + 1 < least[end] and goes(pieces[begin:end], truck):
                least[end] = least[begin] + 1
    return least[-1]


@pytest.mark.parametrize("seed", range(25))
def test_no_way_takes_fewer_trucks(seed: int) -> None:
    given = random.Random(seed)
    pieces = [
        Load(name=str(n), length=given.choice([2400.0, 3000.0, 4200.0, 6000.0]), thickness=given.choice([180.0, 240.0]),
             mass=given.uniform(50, 300))
        for n in range(7)
    ]  # fmt: skip
    truck = Truck(stacks=given.randint(1, 2), max_height=given.choice([500.0, 800.0]), max_mass=given.choice([700.0, 2000.0]),
                  max_length=6000.0, overhang=given.choice([0.0, 650.0]))  # fmt: skip
    found = load(pieces, truck)
    assert isinstance(found, Loaded)
    assert len(found.trucks) == fewest(pieces, truck)
    at = 0
    for stacks in found.trucks:
        run = sorted(n for stack in stacks for n in stack)
        assert run == list(range(at, at + len(run))), "an unbroken run of the set order"
        at += len(run)
        assert sum(pieces[n].mass for n in run) <= truck.max_mass
        for stack in stacks:
            assert list(stack) == sorted(stack, reverse=True), "later set lies lower"
            assert stackable([pieces[n] for n in reversed(stack)], truck)
    assert at == len(pieces)


@pytest.mark.parametrize(
    ("changed", "said"),
    [({"length": 7000.0}, "7 000 mm long"), ({"thickness": 900.0}, "900 mm high"), ({"mass": 4000.0}, "4 000 kg")],
)
def test_a_piece_that_no_truck_takes_is_named(changed: dict[str, float], said: str) -> None:
    good = {"length": 3000.0, "thickness": 200.0, "mass": 100.0}
    truck = Truck(stacks=2, max_height=800.0, max_mass=3500.0, max_length=6000.0, overhang=300.0)
    found = load([Load(name="a", **good), Load(name="b", **(good | changed))], truck)
    assert isinstance(found, NoLoad)
    assert found.piece == 1
    assert said in found.reason.replace("\N{THIN SPACE}", " ")
