"""The joints of the shell: drawn from the build-ups that meet, solved, and measured against them."""

from nimble_shell.core.joints.families import (
    base,
    corner,
    floor_line,
    opening,
    party,
    pipe,
    roof,
    seam,
    sill,
    threshold,
)
from nimble_shell.core.joints.families.family import Family

#: Every family, from the ridge down.
FAMILIES: dict[str, Family] = {
    family.key: family
    for family in (
        roof.RIDGE,
        roof.EAVE,
        seam.FAMILY,
        corner.FAMILY,
        party.FAMILY,
        pipe.FAMILY,
        opening.FAMILY,
        floor_line.FAMILY,
        sill.FAMILY,
        base.FAMILY,
        threshold.FAMILY,
    )
}

__all__ = ["FAMILIES", "Family"]
