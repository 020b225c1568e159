"""Beads blown into a frame: what goes into which field, through which ports, in which order."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.setout.elevation import NEAR
from nimble_shell.core.setout.faces import FaceSetOut
from nimble_shell.core.setout.strips import M2
from nimble_shell.core.shop.choices import ShopChoices
from nimble_shell.core.shop.quantities.counts import whole
from nimble_shell.core.shop.quantities.wet import beads

BEADS = {"eps-bonded-beads": 0.0, "eps-loose-beads": 0.04}  #: what is blown, and how much of it settles where unsaid
BEFORE = (
    "services, boxes and chases are in and sealed",
    "boards close both sides, and the airtight layer is taped",
    "every field is looked into through its port: no block, no open end",
    "an inspector has signed for what will not be seen again",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class Port:
    """A hole that beads are blown through; u and v on the face. [mm]"""

    u: float
    v: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelFill:
    """Of one panel."""

    mark: str
    cavity: float  #: [m³]
    blown: float  #: so that it is full after it has settled [m³]
    mass: float  #: [kg]
    ports: tuple[Port, ...]  #: in the order they are used


@dataclass(frozen=True, slots=True, kw_only=True)
class Fill:
    """Of all panels of a build-up, in set order."""

    panels: tuple[PanelFill, ...]
    settlement: float  #: share of what is blown
    density: float  #: as blown [kg/m³]

    @property
    def blown(self) -> float:
        return sum(one.blown for one in self.panels)

    def bags(self, bag: float) -> int:
        """Of a volume each. [m³]"""
        return whole(self.blown / bag)


def is_filled(assembly: Assembly) -> bool:
    """Whether beads are blown into it."""
    return assembly.core_index is not None and assembly.layers[assembly.core_index].material in BEADS


def fill_of(faces: Sequence[FaceSetOut], assembly: Assembly, timber: float, density: float, shop: ShopChoices) -> Fill:
    """Beads of a build-up.

    Parameters
    ----------
    timber : float
        Share of the frame's own area.
    density : float
        Of the beads as they are blown. [kg/m³]
    """
    assert assembly.core_index is not None
    core = assembly.layers[assembly.core_index]
    settlement = BEADS[core.material] if shop.settlement is None else shop.settlement
    studs = next((one.centres for one in core.members if one.joint == "stud" and one.centres), 0.6) * 1000
    panels = []
    for face in faces:
        for one in face.panels:
            area = one.panel.piece.area * M2
            found = beads(area, core.d * 1000, timber, settlement, shop.bag * 1000, density)
            panels.append(PanelFill(
                mark=one.mark, cavity=found.cavity, blown=found.blown, mass=found.mass,
                ports=_ports(face, one.panel.piece.x0, one.panel.piece.x1, one.panel.piece.y0, one.panel.piece.y1,
                             studs, shop.port_rise * 1000),
            ))  # fmt: skip
    return Fill(panels=tuple(panels), settlement=settlement, density=density)


def _ports(
    face: FaceSetOut, x0: float, x1: float, y0: float, y1: float, studs: float, rise: float
) -> tuple[Port, ...]:  # fmt: skip
    """One at the top of each field between studs, more below where it is higher than beads are driven; lowest first.

    A field that an opening interrupts is two.
    """
    fields = max(1, math.ceil((x1 - x0) / studs - NEAR))
    found = []
    for n in range(fields):
        a, b = x0 + n * studs, min(x0 + (n + 1) * studs, x1)
        u = (a + b) / 2
        openings = face.elevation.openings
        gap = next((one for one in openings if one.x < u < one.right and one.y < y1 and one.top > y0), None)
        parts = [(y0, y1)] if gap is None else [(y0, gap.y), (gap.top, y1)]
        for low, high in parts:
            tall = high - low
            if tall <= NEAR:
                continue
            several = max(1, math.ceil(tall / rise - NEAR))
            found += [Port(u=u, v=low + tall * (k + 1) / several - min(150.0, tall / 4)) for k in range(several)]
    return tuple(sorted(found, key=lambda one: (one.v, one.u)))
