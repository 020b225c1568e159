"""Where the structure of a build-up ends: the line that many plans are drawn to."""

from __future__ import annotations

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.materials import Catalogue

_CAST = ("concrete", "masonry")  #: what carries wherever it stands
_SKINS = ("panel", "metal")  #: what is one piece with the core that it lies on


def outside_of_structure(assembly: Assembly, catalogue: Catalogue) -> float:
    """Thickness of the layers outside of the structure's outer face. [m]

    That is the outer face of the outermost concrete or masonry; without any that of the core, with the board or metal
    skin that lies on it.
    """
    families = [catalogue[layer.material].family if layer.material in catalogue else "" for layer in assembly.layers]
    cast = [at for at, family in enumerate(families) if family in _CAST]
    last = cast[-1] if cast else assembly.core_index
    if last is None:
        return 0.0
    if not cast and last + 1 < len(families) and families[last + 1] in _SKINS:
        last += 1
    return sum(layer.d for layer in assembly.layers[last + 1 :])
