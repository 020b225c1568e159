"""Seams between the panels of a roof: those of walls, with the heat going up."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.joints.drawing import Drawing
from nimble_shell.core.joints.families import seam
from nimble_shell.core.joints.families.family import Family, Owned, Situation


def draw(at: Situation) -> Drawing:
    """The seam of a roof, cut along the eave."""
    found = seam.draw(replace(at, stacks={"wall": at.stacks["roof"]}))
    return replace(found, plan=False, direction="up", sides=("outside above", "room below"))


FAMILY = Family(
    key="roof seam",
    name="Seam between roof panels",
    station="B",
    roles=("roof",),
    owns=(Owned(role="roof", place="seam"),),
    draw=draw,
    variants=tuple(
        replace(one, suits=tuple(system for system in one.suits if system in seam.ROOFS),
                owns=tuple(replace(own, role="roof") for own in one.owns))
        for one in seam.FAMILY.variants if set(one.suits) & set(seam.ROOFS)
    ),
)  # fmt: skip
