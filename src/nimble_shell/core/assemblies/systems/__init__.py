"""Shell systems: each a small generator of a correct, editable starting point, with its parameters and cautions."""

from nimble_shell.core.assemblies.systems import (
    bead_cassette,
    cassette,
    icf,
    masonry,
    mesh_mortar,
    metal_panel,
    sip,
    sip_roof,
    site_framing,
    straw,
)
from nimble_shell.core.assemblies.systems.system import System
from nimble_shell.core.parameters import Choice, Parameter

_ROOMS = (sip, sip_roof, icf, mesh_mortar, metal_panel, cassette, bead_cassette, straw, masonry, site_framing)
SYSTEMS: dict[str, System] = {system.key: system for room in _ROOMS for system in room.SYSTEMS}
REFERENCE = "site-framing"  #: the wall everybody compares with

__all__ = ["REFERENCE", "SYSTEMS", "Choice", "Parameter", "System"]
