"""A build-up as the plies of a section: each of one conductivity, inside → outside."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from nimble_shell.core.assemblies.assembly import Assembly, JointPlace
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.materials import Catalogue, Material
from nimble_shell.core.materials.derived import sealing_surface
from nimble_shell.core.materials.material import Hatching, SealingSurface
from nimble_shell.core.thermal.section import resolved_section, surroundings
from nimble_shell.core.working import value_of

THINNEST = 0.0015  #: a membrane below this is not drawn into sections; metal always is [m]


@dataclass(frozen=True, slots=True)
class Fill:
    """What a place in a section is made of."""

    key: str  #: material key; "air" for an enclosed air layer
    name: str
    hatch: Hatching | Literal["air"]  #: how it is drawn
    family: str  #: of the material; "air" for an enclosed air layer
    surface: SealingSurface  #: what a sealant or tape finds on it
    lambda_: float  #: [W/(m·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Ply:
    """A layer of a build-up in a section."""

    d: float  #: [m]
    fill: Fill
    layer: int  #: index in the build-up, from inside


@dataclass(frozen=True, slots=True, kw_only=True)
class Stack:
    """A build-up between its films. Members that no solved joint owns are in the plies' conductivities."""

    name: str
    system: str
    plies: tuple[Ply, ...]  #: inside → outside
    R_si: float  #: [m²·K/W]
    R_se: float  #: [m²·K/W]
    core: int | None  #: index of the core among the plies

    @property
    def d(self) -> float:
        """Thickness of the plies. [m]"""
        return sum(ply.d for ply in self.plies)

    @property
    def U(self) -> float:
        """Transmittance of the plies with films. [W/(m²·K)]"""
        return 1 / (self.R_si + sum(ply.d / ply.fill.lambda_ for ply in self.plies) + self.R_se)

    def depth(self, index: int) -> float:
        """Distance of a ply's inner face from the inner face of all. [m]"""
        return sum(ply.d for ply in self.plies[:index])

    def span(self, index: int) -> tuple[float, float]:
        """Distances of both faces of a ply from the inner face. [m]"""
        a = self.depth(index)
        return a, a + self.plies[index].d

    @property
    def core_span(self) -> tuple[float, float]:
        """Of the core, or where none is marked of the thickest ply. [m]"""
        return self.span(self.core_at)

    @property
    def core_at(self) -> int:
        """The core, or where none is marked the thickest ply."""
        if self.core is not None:
            return self.core
        return max(range(len(self.plies)), key=lambda at: self.plies[at].d)

    def of_family(self, family: str) -> int | None:
        """The thickest ply of a family of materials; None without one."""
        found = [at for at, ply in enumerate(self.plies) if ply.fill.family == family]
        return max(found, key=lambda at: self.plies[at].d, default=None)


def fill_of(catalogue: Catalogue, key: str) -> Fill:
    """A material as a fill.

    Raises
    ------
    DomainError
        If the catalogue does not have it.
    """
    if key not in catalogue:
        raise DomainError(Issue(path=("material",), code="unknown_material", message=f"there is no material “{key}”",
                                hint="choose one of the catalogue"))  # fmt: skip
    material = catalogue[key]
    return _fill(material, material.lambda_)


def air_fill(name: str, lambda_: float) -> Fill:
    """Enclosed air, as if it only conducted. [W/(m·K)]"""
    return Fill("air", name, "air", "air", "none", lambda_)


def _fill(material: Material, lambda_: float) -> Fill:
    return Fill(material.key, material.name, material.hatch, material.family, sealing_surface(material), lambda_)


def row_of(metal: Fill, around: Fill, share: float) -> Fill:
    """Pieces of metal in a row, as the mean of the row: `share` of the metal, the rest of what they stand in."""
    return replace(metal, name=f"{metal.name}, a row", lambda_=share * metal.lambda_ + (1 - share) * around.lambda_)


def stack_of(
    assembly: Assembly,
    catalogue: Catalogue,
    basis: Basis,
    direction: Direction = "horizontal",
    owned: frozenset[JointPlace] = frozenset(),
) -> Stack:
    """The plies of a build-up.

    Parameters
    ----------
    assembly : Assembly
    catalogue : mapping of key to Material
    basis : Basis
        Films and the label's temperature.
    direction : {"horizontal", "up", "down"}
        Of the heat flow through it.
    owned : set of str
        Places of members that the joint owns: they are left out here and drawn there.

    Notes
    -----
    λ of a ply is the mean over its parts by area share; an air layer has d/R. Layers from a well-ventilated one
    outwards are left out, and membranes. The same plies give U and the section, so that ψ holds the joint alone.
    """
    resolved = resolved_section(assembly, catalogue, surroundings(basis.schools, direction)).resolved
    plies: list[Ply] = []
    core = None
    for index in range(resolved.counted):
        layer, element = assembly.layers[index], resolved.element.layers[index]
        material = catalogue[layer.material] if layer.material else None
        if material is not None and layer.d < THINNEST and material.family != "metal":
            continue
        d = value_of(element.d)
        main = element.parts[0]
        own = d / value_of(main.R) if main.R is not None else value_of(main.lambda_ or 0.0)
        others = [
            (value_of(part.f), value_of(part.lambda_ or 0.0))
            for member, part in zip(layer.members, element.parts[1:], strict=True)
            if member.joint not in owned or not member.joint
        ]
        lambda_ = own * (1 - sum(f for f, _ in others)) + sum(f * value for f, value in others)
        fill = air_fill("air layer", lambda_) if material is None else _fill(material, lambda_)
        core = len(plies) if layer.studied else core
        plies.append(Ply(d=d, fill=fill, layer=index))
    if not plies:
        raise DomainError(Issue(path=("layers",), code="no_plies", message=f"nothing of “{assembly.name}” can be drawn",
                                hint="give it a layer of material"))  # fmt: skip
    return Stack(
        name=assembly.name,
        system=assembly.system,
        plies=tuple(plies),
        R_si=value_of(resolved.element.R_si),
        R_se=value_of(resolved.element.R_se),
        core=core,
    )
