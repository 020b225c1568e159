"""A practice standard: a build-up or a joint the practice trusts, with the reason and the history."""

from __future__ import annotations

from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly, StandardRef, check_materials
from nimble_shell.core.assemblies.difference import Difference
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.errors import Collector, DomainError
from nimble_shell.core.joints.joint import JointValue, ShellJoint
from nimble_shell.core.materials import CATALOGUE, Material


@dataclass(frozen=True, slots=True, kw_only=True)
class Standard:
    """One version of a standard."""

    id: str
    version: int
    place: ShellPart
    assembly: Assembly
    materials: tuple[Material, ...] = ()  #: own materials that it needs
    reason: str = ""
    source: str = ""
    trusted_since: str = ""  #: as the practice writes it

    def __post_init__(self) -> None:
        _check(self.version, self.reason)
        try:
            check_materials(self.assembly, {**CATALOGUE, **{one.key: one for one in self.materials}})
        except DomainError as error:
            raise error.under("assembly") from error

    @property
    def name(self) -> str:
        """What the practice calls it."""
        return self.assembly.name

    def copy(self, assembly_id: str, name: str) -> Assembly:
        """The build-up for use in a project, knowing where it came from."""
        return replace(self.assembly, id=assembly_id, name=name, standard=StandardRef(self.id, self.version))


@dataclass(frozen=True, slots=True, kw_only=True)
class JointStandard:
    """One version of a joint that the practice trusts: how it is built and sealed, whatever build-ups meet in it."""

    id: str
    version: int
    joint: ShellJoint  #: without roles, length and decisions, which are a project's own
    reason: str = ""
    source: str = ""
    trusted_since: str = ""  #: as the practice writes it

    def __post_init__(self) -> None:
        _check(self.version, self.reason)

    @property
    def name(self) -> str:
        """What the practice calls it."""
        return self.joint.name

    def put(self, joint: ShellJoint) -> ShellJoint:
        """The joint, built as the standard says, knowing where that came from."""
        own = {key: getattr(self.joint, key) for key in _BUILT}
        return replace(joint, **own, decided=True, standard=StandardRef(self.id, self.version))


#: What a standard says of a joint.
_BUILT = ("family", "variant", "values", "omitted", "sealant", "tape", "fall", "drains_to")
_WORDS = {
    "family": "family",
    "variant": "variant",
    "omitted": "seals left out",
    "sealant": "sealant",
    "tape": "tape",
    "drains_to": "drained path ends",
}


def stripped(joint: ShellJoint) -> ShellJoint:
    """What of a joint a standard keeps."""
    own = {key: getattr(joint, key) for key in _BUILT}
    return ShellJoint(id="standard", station=joint.station, name=joint.name, roles=(), **own)


def joint_differences(before: ShellJoint, after: ShellJoint) -> list[Difference]:
    """What is built differently."""
    found = []
    for key, words in _WORDS.items():
        old, new = (_said(getattr(joint, key)) for joint in (before, after))
        if old != new:
            found.append(Difference(what=words, before=old, after=new))
    if before.fall != after.fall:
        found.append(Difference(what="fall", before=before.fall, after=after.fall, dimension="share"))
    values = [{value.key: value for value in joint.values} for joint in (before, after)]
    for key in sorted({*values[0], *values[1]}):
        a, b = (each.get(key) for each in values)
        if a != b:
            found.append(Difference(what=key, before=_plain(a), after=_plain(b)))
    return found


def _said(value: str | tuple[str, ...]) -> str:
    return value if isinstance(value, str) else ", ".join(value) or "none"


def _plain(value: JointValue | None) -> float | str | None:
    if value is None:
        return "as the variant starts"
    return value.word if value.number is None else value.number


def _check(version: int, reason: str) -> None:
    check = Collector()
    check.check(version >= 1, ("version",), "version_not_positive", f"version is {version}", "from 1")
    check.check(bool(reason.strip()), ("reason",), "reason_missing", "no reason is given",
                "say why the practice trusts it")  # fmt: skip
    check.refuse()


def own_materials(assembly: Assembly, materials: tuple[Material, ...]) -> tuple[Material, ...]:
    """Those of the materials that the build-up uses."""
    keys = {layer.material for layer in assembly.layers}
    keys |= {member.material for layer in assembly.layers for member in layer.members}
    keys |= {key for fixing in assembly.fixings for key in fixing.materials}
    keys |= {layer.substitution.asked for layer in assembly.layers if layer.substitution}
    return tuple(material for material in materials if material.key in keys)
