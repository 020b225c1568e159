"""What an hourly run of a build-up supposes, and what it has shown. Nothing here is computed."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from nimble_shell.core.basis.damp import DampLimits
from nimble_shell.core.errors import Collector
from nimble_shell.core.materials.material import MouldClass
from nimble_shell.core.moisture.hourly.outdoors import Exposure
from nimble_shell.core.quantities.sentence import sentence

FloatArray = NDArray[np.float64]
SmallArray = NDArray[np.float32]
IntArray = NDArray[np.int64]
Effect = Literal["storage", "liquid", "sun"]
Failing = Literal["wood", "mould", "gathers", ""]
MOST_YEARS = 10
OCTOBER = 10  #: a building closed before its first winter
REPEATS = 0.005  #: of a layer's water, or
REPEATS_LEAST = 0.01  #: [kg/m²]: what two years may differ by and still be the same


@dataclass(frozen=True, slots=True, kw_only=True)
class Life:
    """What a run supposes."""

    exposure: Exposure = field(default_factory=Exposure)
    years: int = 5  #: at most
    fresh: bool = False  #: concrete, mortar and plaster bring their water
    phi_0: float = 0.8  #: of everything else at the start, 0…1
    gap: float = 50.0  #: air changes of well-ventilated layers [1/h]
    damper: float = 0.0  #: added to the room's relative humidity, 0…1
    leakage: float = 0.0  #: of a joint at whose line the section stands, at 50 Pa [m³/(h·m)]
    height: float = 0.0  #: of that joint above the level where inside and outside press alike [m]
    leak_layer: int | None = None  #: at whose inner face it leaves its water; the outer skin if not named
    whole: bool = False  #: all the years, also where they repeat
    coarse: bool = False  #: fewer cells, for many runs beside one another
    without: tuple[Effect, ...] = ()  #: left out, to see what it does
    begins: int = OCTOBER  #: month on whose first day it begins, 1…12

    def __post_init__(self) -> None:
        check = Collector()
        check.check(1 <= self.years <= MOST_YEARS, ("years",), "years_out_of_range", f"{self.years} years",
                    f"from 1 to {MOST_YEARS}")  # fmt: skip
        check.check(0 < self.phi_0 <= 1, ("phi_0",), "humidity_out_of_range", f"{100 * self.phi_0:g} % at the start",
                    "above 0 and up to 100 %")  # fmt: skip
        check.check(0 <= self.gap <= 1000, ("gap",), "air_changes_out_of_range", f"{self.gap:g} air changes an hour",
                    "from 0 to 1000")  # fmt: skip
        check.check(-0.5 <= self.damper <= 0.5, ("damper",), "humidity_out_of_range",
                    f"{100 * self.damper:g} points of humidity", "from −50 to 50")  # fmt: skip
        check.check(1 <= self.begins <= 12, ("begins",), "month_out_of_range", f"{self.begins}", "1 to 12")
        check.check(self.leak_layer is None or self.leak_layer >= 1, ("leak_layer",), "layer_innermost",
                    "a leak cannot wet the innermost layer from inside", "a layer further out")  # fmt: skip
        check.check(0 <= self.leakage <= 1000, ("leakage",), "leakage_out_of_range",
                    sentence("leakage is {v1}", v1=(self.leakage, "joint_flow")), "from 0 to 1000")  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class MouldSpot:
    """Where mould is judged: a face of a layer."""

    layer: int
    x: float  #: from the inner face [m]
    outer: bool  #: the layer's outer face
    kind: MouldClass


@dataclass(frozen=True, slots=True, kw_only=True, eq=False)
class Seasons:
    """What the years have shown. Days and kept hours run from the first day of the month it begins in."""

    years: int
    begins: int  #: month, 1…12
    repeats: bool  #: the last year is like the one before
    layers: tuple[int, ...]  #: that may not gather water; the outermost one may where it lies in the ground
    x: FloatArray  #: places of the section [m]
    layer: IntArray  #: of the build-up, at each place
    hours: IntArray  #: that are kept
    theta: SmallArray  #: shape (kept, places) [°C]
    phi: SmallArray  #: shape (kept, places), 0…1
    w: SmallArray  #: shape (kept, places) [kg/m³]
    water: FloatArray  #: of each layer, shape (1 + days, layers) [kg/m²]
    places: tuple[MouldSpot, ...]
    mould: FloatArray  #: at the end of each day, shape (days, places of mould)
    wood: tuple[int, ...]  #: layers of wood
    wood_share: FloatArray  #: daily mean of the wettest 10 mm, of the dry mass, shape (days, wood)
    dry_after: tuple[tuple[int, int | None], ...]  #: fresh layers, and the day from which each is dry
    came_in: float  #: over all years [kg/m²]
    balance_error: float  #: water gained less water that came in [kg/m²]
    heat_error: float  #: heat gained less heat that came in, of what the cells hold [-]
    steps: int
    cells: int
    notes: tuple[str, ...]

    @property
    def last(self) -> slice:
        """Days of the last year."""
        return slice(365 * (self.years - 1), 365 * self.years)

    @property
    def worst_mould(self) -> tuple[int, float]:
        """Place of mould and its highest index in all years."""
        if not self.places:
            return -1, 0.0
        most = self.mould.max(axis=0)
        return int(most.argmax()), float(most.max())

    @property
    def worst_wood(self) -> tuple[int, float]:
        """Layer of wood, counted among them, and its highest daily mean in the last year."""
        if not self.wood:
            return -1, 0.0
        most = self.wood_share[self.last].max(axis=0)
        return int(most.argmax()), float(most.max())

    def fails(self, damp: DampLimits) -> Failing:
        """What the practice does not accept of the last year, if anything."""
        if self.worst_wood[1] > damp.wood:
            return "wood"
        if self.worst_mould[1] > damp.mould:
            return "mould"
        return "gathers" if self.gathers else ""

    @property
    def gathers(self) -> bool:
        """Whether the last year ends with more water than it began with, beyond what counts as the same."""
        ends = self.water[:, list(self.layers)]
        gained = ends[-1] - ends[-366]
        return bool((gained > np.maximum(REPEATS * ends[-1], REPEATS_LEAST)).any())
