"""The module of a build-up: how far apart the joints of its pieces are until they are set out."""

from __future__ import annotations

from nimble_shell.core.assemblies.assembly import Assembly

#: Width of one piece, where no member of the build-up says it; a system that is not named has no such seams. [m]
_WIDTHS = {"sip": 1.2, "sip-roof": 1.2, "sip-floor": 1.2, "metal-panel": 1.1, "metal-panel-roof": 1.1, "cassette": 2.4,
           "cassette-roof": 2.4, "cassette-floor": 2.4, "bead-cassette": 2.4, "bead-roof": 2.4, "bead-floor": 2.4,
           "mesh-mortar": 1.2, "mesh-mortar-roof": 1.2, "straw-bale": 2.4, "straw-board": 1.2}  # fmt: skip


def module_of(assembly: Assembly) -> float | None:
    """Width of its panels; None for what is poured, laid or framed on site. [m]"""
    for layer in assembly.layers:
        for member in layer.members:
            if member.joint == "seam" and member.centres is not None:
                return member.centres
    return _WIDTHS.get(assembly.system)
