"""A flat face that no body has: of a dormer, a bay, or a curved wall laid out flat; it counts by its outline."""

from __future__ import annotations

from dataclasses import dataclass

import shapely

from nimble_shell.core.building.footprint import Outline
from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

LEAST_AREA = 1e-3  #: [m²]
FARTHEST = 200.0  #: of a point of the outline from its origin [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class FlatFace:
    """A face by itself, in its own plane."""

    id: str
    name: str
    zone: str = ""  #: element that it is counted with
    outline: Outline  #: u to the right as seen from outside, v up [m]
    azimuth: float = 180.0  #: of its outward normal, from the plan's y axis, clockwise [°]
    pitch: float = 90.0  #: from level; 90 is a wall [°]
    taken: bool = False  #: its area is taken away: what a dormer cuts out of the roof

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 < len(self.name.strip()) <= 80, ("name",), "name_length",
                    f"the name has {len(self.name)} letters", "a name has 1 to 80")  # fmt: skip
        check.check(0 <= self.pitch <= 90, ("pitch",), "pitch_out_of_range", f"it pitches {self.pitch:g}°", "0 to 90°")
        check.check(len(self.outline) >= 3, ("outline",), "outline_open",
                    f"the outline has {len(self.outline)} points", "three or more")  # fmt: skip
        far = max((max(abs(u), abs(v)) for u, v in self.outline), default=0.0)
        check.check(far <= FARTHEST, ("outline",), "outline_far",
                    sentence("a point lies {v} away", v=(far, "distance")),
                    sentence("within {v}; is it typed in another unit?", v=(FARTHEST, "distance")))  # fmt: skip
        if len(self.outline) >= 3:
            shape = shapely.Polygon(self.outline)
            check.check(shape.is_valid, ("outline",), "outline_crosses", "the outline crosses itself",
                        "give its corners in order, once round")  # fmt: skip
            said = sentence("the outline has {v}", v=(float(shape.area), "area"))
            check.check(shape.area >= LEAST_AREA, ("outline",), "no_area", said, "a face has an area")
        check.refuse()

    @property
    def area(self) -> float:
        """What it adds; negative of one that is taken away. [m²]"""
        size = float(shapely.Polygon(self.outline).area)
        return -size if self.taken else size
