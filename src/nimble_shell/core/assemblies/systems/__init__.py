"""Shell systems: each a small generator of a correct, editable starting point, with its parameters and cautions."""

from nimble_shell.core.assemblies.systems import cassette, icf, sip
from nimble_shell.core.assemblies.systems.system import Choice, Parameter, System

SYSTEMS: dict[str, System] = {system.key: system for system in (sip.SYSTEM, icf.SYSTEM, cassette.SYSTEM)}

__all__ = ["SYSTEMS", "Choice", "Parameter", "System"]
