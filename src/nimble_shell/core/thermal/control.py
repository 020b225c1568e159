"""Control layers: the lines that keep rain, wind, air, vapour and heat where they belong, and what breaks them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import CONTROLS, Assembly, Control
from nimble_shell.core.materials import Catalogue
from nimble_shell.core.materials.derived import wets
from nimble_shell.core.thermal.vapour import diffusion_thicknesses
from nimble_shell.core.working import plain, value_of

TIGHT_SD = 5.0  #: from this s_d on a layer counts as vapour-tight [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class ControlLine:
    """One line of the continuity strip."""

    control: Control
    layers: tuple[int, ...]  #: layers that carry it, from inside; empty is undecided
    pierced: bool = False  #: services run through one of them


@dataclass(frozen=True, slots=True, kw_only=True)
class Share:
    """How much of the thermal resistance lies inside the vapour-control plane."""

    layer: int  #: the plane is this layer's inner face
    share: float  #: of the field's resistance without films, 0…1


@dataclass(frozen=True, slots=True, kw_only=True)
class Enclosed:
    """A layer that wets between two vapour-tight ones."""

    layer: int
    inside: int
    outside: int
    sd_inside: float  #: [m]
    sd_outside: float  #: [m]


def continuity(assembly: Assembly) -> tuple[ControlLine, ...]:
    """The lines in their fixed order, with the layers that carry them."""
    return tuple(
        ControlLine(
            control=control,
            layers=tuple(n for n, layer in enumerate(assembly.layers) if control in layer.control),
            pierced=any(control in layer.control and layer.services for layer in assembly.layers),
        )
        for control in CONTROLS
    )


def services_outside_air_line(assembly: Assembly) -> tuple[int, int] | None:
    """A layer with services outside of, or in, the air line: (service, air); None if none."""
    air = [n for n, layer in enumerate(assembly.layers) if "air" in layer.control]
    services = [n for n, layer in enumerate(assembly.layers) if layer.services]
    if not air or not services or max(services) < air[0]:
        return None
    return max(services), air[0]


def enclosed_wettable(assembly: Assembly, catalogue: Catalogue, counted: int) -> Iterator[Enclosed]:
    """Layers that wet with a vapour-tight one on either side; s_d in m."""
    sd = [value_of(one) for one in diffusion_thicknesses(assembly, catalogue, counted, plain)]
    for index, layer in enumerate(assembly.layers[:counted]):
        if not layer.material or not wets(catalogue[layer.material]):
            continue
        inside = next((n for n in range(index - 1, -1, -1) if sd[n] >= TIGHT_SD), None)
        outside = next((n for n in range(index + 1, counted) if sd[n] >= TIGHT_SD), None)
        if inside is not None and outside is not None:
            yield Enclosed(layer=index, inside=inside, outside=outside, sd_inside=sd[inside], sd_outside=sd[outside])


def share_inside(assembly: Assembly, resistances: list[float]) -> Share | None:
    """Share of the resistance inside the innermost vapour-control plane; None without one.

    Parameters
    ----------
    assembly : Assembly
    resistances : list of float
        Of the field of each counted layer, from inside. [m²·K/W]
    """
    plane = vapour_plane(assembly, len(resistances))
    total = sum(resistances)
    if plane is None or total <= 0:
        return None
    return Share(layer=plane, share=sum(resistances[:plane]) / total)


def vapour_plane(assembly: Assembly, counted: int) -> int | None:
    """The innermost counted layer that controls vapour, by its index from inside."""
    return next((n for n, layer in enumerate(assembly.layers[:counted]) if "vapour" in layer.control), None)
