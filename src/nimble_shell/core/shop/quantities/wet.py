"""What is sprayed, plastered or blown: mortar, plaster and beads. Areas in m², thicknesses in mm."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.shop.quantities.counts import whole


@dataclass(frozen=True, slots=True, kw_only=True)
class Rib:
    """Ribs of the foam that mortar fills: pitch 0 for a wave."""

    pitch: float = 0.0
    depth: float
    top: float = 0.0
    bottom: float = 0.0

    @property
    def mean(self) -> float:
        """Depth spread over the face. [mm]"""
        return self.depth / 2 if self.pitch == 0 else self.depth * (self.top + self.bottom) / 2 / self.pitch


@dataclass(frozen=True, slots=True, kw_only=True)
class Mortar:
    volume: float  #: in place [m³]
    order: float  #: with what is lost when spraying


def mortar(area: float, faces: Sequence[tuple[float, Rib | None]], perimeter: float, reveal: float,
           reveal_thickness: float, loss: float) -> Mortar:  # fmt: skip
    """Of a wall.

    Parameters
    ----------
    area : float
        Less openings. [m²]
    faces : sequence of (cover, rib)
        [mm]
    perimeter : float
        Of all openings. [m]
    loss : float
        Share of what is sprayed.
    """
    faces_volume = sum(area * (cover + (0.0 if rib is None else rib.mean)) for cover, rib in faces) / 1000
    volume = faces_volume + perimeter * reveal * reveal_thickness * 1e-6
    return Mortar(volume=volume, order=volume / (1 - loss))


@dataclass(frozen=True, slots=True, kw_only=True)
class Ingredient:
    """A dry part of a mix."""

    name: str
    ratio: float
    density: float  #: loose [kg/m³]
    bag: float | None  #: [kg]


@dataclass(frozen=True, slots=True, kw_only=True)
class Needed:
    """Of an ingredient."""

    name: str
    litres_per_batch: float
    litres: float
    bags: int | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Plaster:
    volume: float  #: wet [m³]
    batches: int
    needed: tuple[Needed, ...]


def plaster(volume: float, parts: Sequence[Ingredient], yields: float, batch: float) -> Plaster:
    """Of a wet volume: every batch is a full one.

    Parameters
    ----------
    yields : float
        Wet volume of a volume of dry parts.
    batch : float
        Wet. [l]
    """
    batches = whole(volume * 1000 / batch)
    dry, total = batch / yields, sum(one.ratio for one in parts)
    needed = []
    for one in parts:
        litres = dry * one.ratio / total
        bags = None if one.bag is None else whole(litres * batches / 1000 * one.density / one.bag)
        needed.append(Needed(name=one.name, litres_per_batch=litres, litres=litres * batches, bags=bags))
    return Plaster(volume=volume, batches=batches, needed=tuple(needed))


@dataclass(frozen=True, slots=True, kw_only=True)
class Beads:
    cavity: float  #: [m³]
    blown: float  #: so that it is full after it has settled
    bags: int
    mass: float  #: [kg]


def beads(area: float, depth: float, timber: float, settlement: float, bag: float, density: float) -> Beads:
    """Blown into a frame; `bag` in litres, `density` as blown [kg/m³]."""
    cavity = area * depth / 1000 * (1 - timber)
    blown = cavity / (1 - settlement)
    return Beads(cavity=cavity, blown=blown, bags=whole(blown * 1000 / bag), mass=blown * density)
