"""What the shop has and what it has done: stock, saw, truck, and pieces that are cut."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

MOST_CUT = 50_000


@dataclass(frozen=True, slots=True, kw_only=True)
class CutPiece:
    """A piece that is cut, as it was asked for then."""

    key: str  #: of the cut list
    length: float  #: [m]
    width: float = 0.0  #: [m]
    count: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class RackBar:
    """Offcuts on the rack."""

    length: float  #: [m]
    thick: float  #: its section [m]
    deep: float
    count: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class ShopChoices:
    """Of a building."""

    bars: tuple[float, ...] = (4.8, 6.0)  #: lengths of stock [m]
    kerf: float = 0.004  #: [m]
    end_trim: float = 0.0  #: at both ends of a bar [m]
    keep: float = 0.6  #: shortest remnant that goes to the rack [m]
    rack: tuple[RackBar, ...] = ()
    truck_stacks: int = 2
    truck_height: float = 2.4  #: [m]
    truck_mass: float = 3500.0  #: [kg]
    truck_length: float = 7.2  #: [m]
    overhang: float = 0.3  #: that a piece may be longer than one below [m]
    cut: tuple[CutPiece, ...] = ()

    def __post_init__(self) -> None:
        check = Collector()
        check.check(1 <= len(self.bars) <= 12, ("bars",), "no_stock", f"{len(self.bars)} lengths of stock", "1 to 12")
        for at, bar in enumerate(self.bars):
            check.check(0.5 <= bar <= 20, ("bars", at), "out_of_range", sentence("{v}", v=(bar, "length")),
                        sentence("{a} to {b}", a=(0.5, "distance"), b=(20.0, "distance")))  # fmt: skip
        for name, least, most in (
            ("kerf", 0.0, 0.02), ("end_trim", 0.0, 0.2), ("keep", 0.0, 5.0), ("truck_height", 0.3, 5.0),
            ("truck_length", 1.0, 30.0), ("overhang", 0.0, 5.0),
        ):  # fmt: skip
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "length")),
                        sentence("{a} to {b}", a=(least, "length"), b=(most, "length")))  # fmt: skip
        check.check(
            1 <= self.truck_stacks <= 4, ("truck_stacks",), "out_of_range", f"{self.truck_stacks} stacks", "1 to 4"
        )
        check.check(10 <= self.truck_mass <= 60_000, ("truck_mass",), "out_of_range",
                    sentence("{v}", v=(self.truck_mass, "mass")),
                    sentence("{a} to {b}", a=(10.0, "mass"), b=(60_000.0, "mass")))  # fmt: skip
        check.check(len(self.cut) <= MOST_CUT, ("cut",), "too_many", f"{len(self.cut)} pieces", f"at most {MOST_CUT}")
        check.refuse()
