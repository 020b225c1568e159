"""What the shop has and what it has done: stock, saw, truck, and pieces that are cut."""

from __future__ import annotations

from dataclasses import dataclass

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

MOST_CUT = 50_000
READINGS = 6  #: of a panel with four corners


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
class TapeReadings:
    """What a tape read on a panel of four corners, laid down."""

    panel: str  #: its mark
    read: tuple[float, ...]  #: four sides in order, then both diagonals [m]

    def __post_init__(self) -> None:
        check = Collector()
        check.check(len(self.read) == READINGS, ("read",), "not_six", f"{len(self.read)} readings",
                    "four sides, then both diagonals")  # fmt: skip
        for at, one in enumerate(self.read):
            check.check(0 < one <= 100, ("read", at), "out_of_range", sentence("{v}", v=(one, "length")),
                        sentence("above nought, up to {b}", b=(100.0, "distance")))  # fmt: skip
        check.refuse()


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
    bag: float = 0.25  #: of beads [m³]
    settlement: float | None = None  #: of what is blown; None as usual for its beads
    port_rise: float = 2.8  #: that beads are driven up from one port [m]
    packers: float = 0.0  #: width of packing strips that offcuts of boards are cut into; 0 for none [m]
    tolerance: float = 0.003  #: of a reading on the bed [m]
    readings: tuple[TapeReadings, ...] = ()
    cut: tuple[CutPiece, ...] = ()

    def __post_init__(self) -> None:
        check = Collector()
        check.check(1 <= len(self.bars) <= 12, ("bars",), "no_stock", f"{len(self.bars)} lengths of stock", "1 to 12")
        for at, bar in enumerate(self.bars):
            check.check(0.5 <= bar <= 20, ("bars", at), "out_of_range", sentence("{v}", v=(bar, "length")),
                        sentence("{a} to {b}", a=(0.5, "distance"), b=(20.0, "distance")))  # fmt: skip
        for name, least, most in (
            ("kerf", 0.0, 0.02), ("end_trim", 0.0, 0.2), ("keep", 0.0, 5.0), ("truck_height", 0.3, 5.0),
            ("truck_length", 1.0, 30.0), ("overhang", 0.0, 5.0), ("port_rise", 0.5, 6.0), ("packers", 0.0, 0.6),
            ("tolerance", 0.0, 0.1),
        ):  # fmt: skip
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "length")),
                        sentence("{a} to {b}", a=(least, "length"), b=(most, "length")))  # fmt: skip
        check.check(0.01 <= self.bag <= 2.0, ("bag",), "out_of_range", sentence("{v}", v=(self.bag, "volume")),
                    sentence("{a} to {b}", a=(0.01, "volume"), b=(2.0, "volume")))  # fmt: skip
        check.check(self.settlement is None or 0 <= self.settlement <= 0.5, ("settlement",), "out_of_range",
                    f"{100 * (self.settlement or 0):g} %", "0 to 50 %")  # fmt: skip
        check.check(
            1 <= self.truck_stacks <= 4, ("truck_stacks",), "out_of_range", f"{self.truck_stacks} stacks", "1 to 4"
        )
        check.check(10 <= self.truck_mass <= 60_000, ("truck_mass",), "out_of_range",
                    sentence("{v}", v=(self.truck_mass, "mass")),
                    sentence("{a} to {b}", a=(10.0, "mass"), b=(60_000.0, "mass")))  # fmt: skip
        check.check(len(self.cut) <= MOST_CUT, ("cut",), "too_many", f"{len(self.cut)} pieces", f"at most {MOST_CUT}")
        check.refuse()
