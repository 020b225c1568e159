"""The joints of the shell: drawn from the build-ups that meet, solved, and measured against them."""

from nimble_shell.core.joints.families import (
    base,
    change,
    corner,
    floor_line,
    opening,
    parapet,
    party,
    pipe,
    roof,
    roof_seam,
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
        roof.HIP,
        roof.VALLEY,
        roof_seam.FAMILY,
        roof.EAVE,
        roof.HIGH_EAVE,
        roof.VERGE,
        parapet.PARAPET,
        parapet.ABUTMENT,
        seam.FAMILY,
        corner.FAMILY,
        corner.INNER,
        party.FAMILY,
        pipe.FAMILY,
        opening.FAMILY,
        floor_line.FAMILY,
        sill.FAMILY,
        change.FAMILY,
        base.FAMILY,
        threshold.FAMILY,
    )
}

__all__ = ["FAMILIES", "Family"]
