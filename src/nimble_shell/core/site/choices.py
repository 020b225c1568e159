"""What is decided of pours and lifts on site: concrete, the form's rated value, braces; the crane and its slings."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

COLDEST, HOTTEST = -15.0, 60.0  #: of fresh concrete; the first school has no value at −16 [°C]
MOST_ROWS = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class BraceRow:
    """Of the supplier's table."""

    height: float  #: of the wall [m]
    spacing: float  #: greatest [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class StringLine:
    """A wall's top against its string line, at one brace."""

    wall: str
    u: float  #: along the wall [m]
    before: float  #: inwards is above nought [m]
    after: float | None = None  #: the pour [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class LoggedDay:
    """The last course that was filled on a day: where a joint between lifts came to lie."""

    run: str
    level: float  #: above the foot [m]
    reason: str = ""  #: why it lies off a board joint


@dataclass(frozen=True, slots=True, kw_only=True)
class PourChoices:
    """Of a building."""

    school: Literal["A", "B"] = "A"
    C1: float = 1.0  #: by the section
    C2: float = 0.3  #: by cement and admixtures
    Cw: float = 1.0  #: by unit weight
    Cc: float = 1.0  #: by chemistry
    density: float = 2400.0  #: of fresh concrete [kg/m³]
    temperature: float = 15.0  #: as placed [°C]
    rate: float = 1.0  #: of rise [m/h]
    rated: float | None = None  #: pressure that the form's supplier rates it for [kN/m²]
    in_lifts: bool = True  #: filled in lifts with waits between; else to the top in one
    max_lift: float = 1.5  #: [m]
    visible: bool = True  #: concrete stays visible, so joints between lifts lie on board joints
    wait: float = 0.75  #: between lifts [h]
    waste: float = 0.05
    truck: float = 6.0  #: [m³]
    begins: float = 8.0  #: hour of the day
    month: int | None = None  #: of the pour, 1…12
    braces: tuple[BraceRow, ...] = ()
    brace_end: float = 0.6  #: of the first and the last from the ends of a wall [m]
    brace_clear: float = 0.15  #: from openings [m]
    tie_clear: float = 0.03  #: from the columns of tie screws of a one-sided form [m]
    brace_height: float = 1.5  #: where it meets the wall [m]
    brace_foot: float = 1.2  #: how far from the wall it stands [m]
    lean: float = 0.0025  #: inwards before the pour [m/m]
    strings: tuple[StringLine, ...] = ()
    days: tuple[LoggedDay, ...] = ()
    flat: float = 0.003  #: that a lining bridges without packing [m]
    packing: float = 0.012  #: that packers on webs even out [m]
    furring: float = 0.025  #: depth of battens before a wall [m]
    direct_cost: float | None = None  #: of a lining on webs, per m²
    furred_cost: float | None = None  #: of a lining on battens, per m²

    def __post_init__(self) -> None:
        check = Collector()
        check.check(COLDEST <= self.temperature <= HOTTEST, ("temperature",), "out_of_range",
                    sentence("{v}", v=(self.temperature, "temperature")),
                    sentence("{a} to {b}", a=(COLDEST, "temperature"), b=(HOTTEST, "temperature")))  # fmt: skip
        check.check(0 < self.rate <= 20, ("rate",), "out_of_range", sentence("{v}", v=(self.rate, "rise")),
                    sentence("above nought, up to {b}", b=(20.0, "rise")))  # fmt: skip
        check.check(self.rated is None or 0.1 <= self.rated <= 1000, ("rated",), "out_of_range",
                    sentence("{v}", v=(self.rated or 0.0, "load")),
                    sentence("{a} to {b}, or none while nobody has stated it", a=(0.1, "load"),
                             b=(1000.0, "load")))  # fmt: skip
        for name, least, most in (("C1", 0.1, 3.0), ("C2", 0.05, 2.0), ("Cw", 0.1, 3.0), ("Cc", 0.1, 3.0)):
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", f"{value:g}", f"{least:g} to {most:g}")
        check.check(500 <= self.density <= 6000, ("density",), "out_of_range",
                    sentence("{v}", v=(self.density, "density")),
                    sentence("{a} to {b}", a=(500.0, "density"), b=(6000.0, "density")))  # fmt: skip
        for name, least, most in (
            ("flat", 0.0, 0.05),
            ("packing", 0.0, 0.1),
            ("furring", 0.01, 0.3),
            ("tie_clear", 0.0, 0.2),
        ):
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "length")),
                        sentence("{a} to {b}", a=(least, "length"), b=(most, "length")))  # fmt: skip
        for name in ("direct_cost", "furred_cost"):
            value = getattr(self, name)
            check.check(value is None or 0 <= value < 1e6, (name,), "out_of_range", f"{value}", "nought or above")
        for name, least, most in (("max_lift", 0.1, 10.0), ("brace_end", 0.0, 5.0), ("brace_clear", 0.0, 1.0),
                                  ("brace_height", 0.2, 10.0), ("brace_foot", 0.2, 10.0)):  # fmt: skip
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "distance")),
                        sentence("{a} to {b}", a=(least, "distance"), b=(most, "distance")))  # fmt: skip
        check.check(0 <= self.waste <= 0.5, ("waste",), "out_of_range", f"{100 * self.waste:g} %", "0 to 50 %")
        check.check(0.1 <= self.truck <= 20, ("truck",), "out_of_range", sentence("{v}", v=(self.truck, "volume")),
                    sentence("{a} to {b}", a=(0.1, "volume"), b=(20.0, "volume")))  # fmt: skip
        check.check(0 <= self.wait <= 72, ("wait",), "out_of_range", f"{self.wait:g} h", "0 to 72 h")
        check.check(0 <= self.begins < 24, ("begins",), "out_of_range", f"{self.begins:g}", "an hour of the day")
        check.check(self.month is None or 1 <= self.month <= 12, ("month",), "out_of_range", f"{self.month}", "1 to 12")
        check.check(0 <= self.lean <= 0.02, ("lean",), "out_of_range", sentence("{v}", v=(self.lean, "slope")),
                    sentence("0 to {b}", b=(0.02, "slope")))  # fmt: skip
        check.check(len(self.braces) <= MOST_ROWS, ("braces",), "too_many", f"{len(self.braces)} rows",
                    f"at most {MOST_ROWS}")  # fmt: skip
        for at, (a, b) in enumerate(pairwise(self.braces), 1):
            check.check(a.height < b.height, ("braces", at, "height"), "not_rising", "heights that do not rise",
                        "the table from low to high")  # fmt: skip
        for at, row in enumerate(self.braces):
            check.check(row.height > 0 and row.spacing > 0, ("braces", at), "out_of_range", "a row of nought",
                        "above nought")  # fmt: skip
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class CraneRow:
    """Of the crane's own table."""

    radius: float  #: [m]
    mass: float  #: [kg]


@dataclass(frozen=True, slots=True, kw_only=True)
class LiftChoices:
    """How pieces are lifted."""

    table: tuple[CraneRow, ...] = ()
    stand: tuple[float, float] | None = None  #: of the crane in plan; None while nobody has placed it [m]
    radius: float = 8.0  #: while it is not placed [m]
    share: float = 0.8  #: of its table that the practice uses
    rigging: float = 40.0  #: [kg]
    dynamic: float = 1.1
    angle: float = 60.0  #: least of a leg to the horizontal [°]
    pick: float = 0.2  #: of its length from either end of a panel
    drop: float = 0.1  #: of picks below the top edge [m]
    wind: float = 9.0  #: above which nothing is lifted, as crane and practice say [m/s]
    cf: float = 1.2
    limit: float | None = None  #: wind force that people on lines hold [N]
    minutes: float = 30.0  #: per piece
    day: float = 8.0  #: [h]
    setup: float = 1.0  #: of each day [h]
    crews: int = 1

    def __post_init__(self) -> None:
        check = Collector()
        check.check(len(self.table) <= MOST_ROWS, ("table",), "too_many", f"{len(self.table)} rows",
                    f"at most {MOST_ROWS}")  # fmt: skip
        for at, (a, b) in enumerate(pairwise(self.table), 1):
            check.check(a.radius < b.radius and a.mass >= b.mass, ("table", at), "not_rising",
                        "a radius that does not rise, or a load that does",
                        "from the smallest radius outwards")  # fmt: skip
        for at, row in enumerate(self.table):
            check.check(row.radius > 0 and row.mass > 0, ("table", at), "out_of_range", "a row of nought",
                        "above nought")  # fmt: skip
        for name, least, most in (("radius", 0.5, 200.0), ("drop", 0.0, 2.0)):
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "distance")),
                        sentence("{a} to {b}", a=(least, "distance"), b=(most, "distance")))  # fmt: skip
        for name, least, most in (("share", 0.1, 1.0), ("dynamic", 1.0, 3.0), ("pick", 0.0, 0.45), ("cf", 0.1, 3.0)):
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", f"{value:g}", f"{least:g} to {most:g}")
        check.check(10 <= self.angle <= 85, ("angle",), "out_of_range", f"{self.angle:g}°", "10 to 85°")
        check.check(0 <= self.rigging <= 5000, ("rigging",), "out_of_range", sentence("{v}", v=(self.rigging, "mass")),
                    sentence("0 to {b}", b=(5000.0, "mass")))  # fmt: skip
        check.check(0 < self.wind <= 30, ("wind",), "out_of_range", sentence("{v}", v=(self.wind, "speed")),
                    sentence("above nought, up to {b}", b=(30.0, "speed")))  # fmt: skip
        check.check(0 < self.minutes <= 24 * 60, ("minutes",), "out_of_range", f"{self.minutes:g} min", "up to a day")
        check.check(0 <= self.setup < self.day <= 24, ("setup",), "out_of_range",
                    f"{self.setup:g} of {self.day:g} h", "less than a day of 24 h at most")  # fmt: skip
        check.check(1 <= self.crews <= 2, ("crews",), "out_of_range", f"{self.crews} crews", "1 or 2")
        check.refuse()
