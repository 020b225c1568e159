"""What is decided of mortar and plaster: coats and their waits, mix, mesh, dowels; casting beds and what was read."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

MOST = 2000


@dataclass(frozen=True, slots=True, kw_only=True)
class MixPart:
    """A dry part of the plaster."""

    name: str
    ratio: float
    density: float  #: loose [kg/m³]
    bag: float | None = None  #: [kg]; None where it comes loose


@dataclass(frozen=True, slots=True, kw_only=True)
class CastLog:
    """A panel that was cast, and lifted; days from the first one of the casting."""

    panel: str
    cast: int
    lifted: int | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class BaleReading:
    """Moisture of a bale before it is set."""

    panel: str
    moisture: float  #: of its dry mass, 0…1


@dataclass(frozen=True, slots=True, kw_only=True)
class MortarTest:
    """Thickness of mortar as it was probed."""

    face: str
    thickness: float  #: [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class WetChoices:
    """Of a building."""

    coat: float = 0.020  #: thickest coat of mortar [m]
    least: float = 0.030  #: thinnest mortar anywhere on a side [m]
    most: float = 0.060  #: thickest [m]
    wait: float = 24.0  #: between coats [h]
    loss: float = 0.12  #: share of what is sprayed that rebounds
    lap: float = 0.10  #: of splice mesh on either side of a seam [m]
    corner: float = 0.25  #: of corner mesh on either side [m]
    diagonal: float = 0.60  #: length of the mesh across a corner of an opening [m]
    strip: float = 0.25  #: width of mesh strips [m]
    dowel: float | None = None  #: spacing, by the engineer's pattern; None while nobody has stated it [m]
    dowel_faces: Literal[1, 2] = 2
    cold: float = 5.0  #: below this nothing is sprayed or plastered, and the cure clock stands still [°C]
    hot: float = 30.0  #: [°C]
    windy: float = 8.0  #: [m/s]
    bond: float = 0.003  #: bond coat on the bales, each side [m]
    mix: tuple[MixPart, ...] = (
        MixPart(name="lime", ratio=1.0, density=600.0, bag=25.0),
        MixPart(name="cement", ratio=1.0, density=1200.0, bag=25.0),
        MixPart(name="sand", ratio=6.0, density=1500.0),
    )
    yields: float = 0.75  #: wet volume of a volume of dry parts
    batch: float = 0.12  #: of the mixer [m³]
    mixer: float = 1.2  #: that is mixed in a day [m³]
    beds: int = 2
    turn: int = 2  #: warm days until the first side is hard enough to turn
    cure: int = 7  #: warm days from the second side to the lift
    gap: float = 0.04  #: of the joint between panels that a straw roll fills [m]
    roll: float = 0.15  #: plaster of a roll, as share of its joint
    damp: float = 0.20  #: moisture of bales that stay out
    days: tuple[float, ...] = ()  #: mean temperature of each day of the casting, as read [°C]
    month: int = 5  #: in which it begins
    cast: tuple[CastLog, ...] = ()
    bales: tuple[BaleReading, ...] = ()
    probes: tuple[MortarTest, ...] = ()

    def __post_init__(self) -> None:
        check = Collector()
        for name, least, most in (
            ("coat", 0.005, 0.06), ("least", 0.01, 0.2), ("most", 0.01, 0.2), ("lap", 0.0, 1.0), ("corner", 0.0, 1.0),
            ("diagonal", 0.0, 2.0), ("strip", 0.05, 2.0), ("bond", 0.0, 0.02), ("gap", 0.0, 0.3),
        ):  # fmt: skip
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "length")),
                        sentence("{a} to {b}", a=(least, "length"), b=(most, "length")))  # fmt: skip
        check.check(self.least <= self.most, ("most",), "out_of_range", sentence("{v}", v=(self.most, "length")),
                    sentence("no thinner than {a}", a=(self.least, "length")))  # fmt: skip
        check.check(self.dowel is None or 0.05 <= self.dowel <= 3, ("dowel",), "out_of_range",
                    sentence("{v}", v=(self.dowel or 0.0, "length")),
                    sentence("{a} to {b}", a=(0.05, "length"), b=(3.0, "length")))  # fmt: skip
        for name, least, most in (("loss", 0.0, 0.8), ("roll", 0.0, 1.0), ("damp", 0.05, 0.5)):
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", f"{100 * value:g} %",
                        f"{100 * least:g} to {100 * most:g} %")  # fmt: skip
        check.check(0 <= self.wait <= 1000, ("wait",), "out_of_range", f"{self.wait:g} h", "0 to 1000 h")
        for name in ("cold", "hot"):
            value = getattr(self, name)
            check.check(-20 <= value <= 50, (name,), "out_of_range", sentence("{v}", v=(value, "temperature")),
                        sentence("{a} to {b}", a=(-20.0, "temperature"), b=(50.0, "temperature")))  # fmt: skip
        check.check(0.2 <= self.yields <= 1.5, ("yields",), "out_of_range", f"{self.yields:g}", "0.2 to 1.5")
        for name in ("batch", "mixer"):
            value = getattr(self, name)
            check.check(0.005 <= value <= 50, (name,), "out_of_range", sentence("{v}", v=(value, "volume")),
                        sentence("{a} to {b}", a=(0.005, "volume"), b=(50.0, "volume")))  # fmt: skip
        for name, least, most in (("beds", 1, 50), ("turn", 0, 60), ("cure", 0, 90), ("month", 1, 12)):
            value = getattr(self, name)
            check.check(least <= value <= most, (name,), "out_of_range", f"{value}", f"{least} to {most}")
        check.check(1 <= len(self.mix) <= 12, ("mix",), "no_mix", f"{len(self.mix)} parts", "1 to 12")
        for at, part in enumerate(self.mix):
            good = part.ratio > 0 and part.density > 0 and (part.bag is None or part.bag > 0)
            check.check(good, ("mix", at), "out_of_range", f"“{part.name}” has a part of nought", "above nought")
        for name in ("days", "cast", "bales", "probes"):
            count = len(getattr(self, name))
            check.check(count <= MOST, (name,), "too_many", f"{count} of them", f"at most {MOST}")
        for at, one in enumerate(self.cast):
            check.check(one.lifted is None or one.lifted >= one.cast, ("cast", at, "lifted"), "out_of_range",
                        f"{one.panel} lifted on day {one.lifted}, cast on day {one.cast}",
                        "no earlier than it was cast")  # fmt: skip
        check.refuse()
