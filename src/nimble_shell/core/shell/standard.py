"""A practice standard: a build-up the practice trusts, with the reason and the history."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly, StandardRef
from nimble_shell.core.errors import Collector
from nimble_shell.core.materials import Material
from nimble_shell.core.shell.project import Place


@dataclass(frozen=True, slots=True, kw_only=True)
class Standard:
    """One version of a standard."""

    id: str
    version: int
    place: Place
    assembly: Assembly
    materials: tuple[Material, ...] = ()  #: own materials that it needs
    reason: str = ""
    source: str = ""
    trusted_since: str = ""  #: as the practice writes it

    def __post_init__(self) -> None:
        check = Collector()
        check.check(self.version >= 1, ("version",), "version_not_positive", f"version is {self.version}", "from 1")
        check.check(bool(self.reason.strip()), ("reason",), "reason_missing", "no reason is given",
                    "say why the practice trusts it")  # fmt: skip
        check.refuse()

    def copy(self, assembly_id: str, name: str) -> Assembly:
        """The build-up for use in a project, knowing where it came from."""
        return replace(self.assembly, id=assembly_id, name=name, standard=StandardRef(self.id, self.version))


def own_materials(assembly: Assembly, materials: tuple[Material, ...]) -> tuple[Material, ...]:
    """Those of the materials that the build-up uses."""
    keys = {layer.material for layer in assembly.layers}
    keys |= {member.material for layer in assembly.layers for member in layer.members}
    keys |= {key for fixing in assembly.fixings for key in fixing.materials}
    keys |= {layer.substitution.asked for layer in assembly.layers if layer.substitution}
    return tuple(material for material in materials if material.key in keys)
