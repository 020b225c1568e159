"""What an engineer or a designer enters on the faces of a set-out: posts, anchors, screws, sensors, sockets."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

AnchorKind = Literal["anchor", "hold_down"]
Way = Literal["up", "down", "left", "right"]


def _within(check: Collector, name: str, value: float, least: float, most: float) -> None:
    check.check(least <= value <= most, (name,), "out_of_range", sentence("{v}", v=(value, "length")),
                sentence("{a} to {b}", a=(least, "distance"), b=(most, "distance")))  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class EnteredPost:
    """A post under a load from above: no joint comes into it, one may stand exactly at its edge."""

    face: str
    u: float  #: of its middle [m]
    storey: int = 0  #: from below
    width: float = 0.076  #: [m]
    load: float | None = None  #: as the engineer stated it [N]

    def __post_init__(self) -> None:
        check = Collector()
        _within(check, "width", self.width, 0.03, 0.6)
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Anchors:
    """What holds a wall down, as the engineer specified it: bolts along the bottom plate, or at places of their own."""

    name: str  #: as it stands on the engineer's drawing
    kind: AnchorKind = "anchor"
    face: str = ""  #: every wall, where none is named
    at: tuple[float, ...] = ()  #: along that face [m]; or else a spacing
    spacing: float | None = None  #: at most [m]
    end: float = 0.3  #: of the first and the last from the ends of a plate, at most [m]
    clear: float = 0.05  #: from splines, posts and joints, at least [m]
    by: str = ""  #: whose pattern it is

    def __post_init__(self) -> None:
        check = Collector()
        check.check(bool(self.name.strip()), ("name",), "no_name", "an anchor without a name",
                    "as the engineer's drawing calls it")  # fmt: skip
        check.check((self.spacing is None) == bool(self.at), ("spacing",), "anchors_unclear",
                    f"{len(self.at)} places and {'no' if self.spacing is None else 'a'} spacing",
                    "a spacing along the plate, or places on one face")  # fmt: skip
        check.check(not self.at or bool(self.face), ("face",), "no_face", "places along no face", "name the face")
        if self.spacing is not None:
            _within(check, "spacing", self.spacing, 0.1, 10.0)
        _within(check, "end", self.end, 0.0, 5.0)
        _within(check, "clear", self.clear, 0.0, 1.0)
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Screws:
    """What fixes skins to splines, posts and plates, on both faces of a panel, as the engineer specified it."""

    spacing: float = 0.15  #: at most [m]
    end: float = 0.05  #: from both ends of a line [m]
    through: float | None = None  #: spacing of those through the core into what carries the plates; None of none [m]
    box: int = 250

    def __post_init__(self) -> None:
        check = Collector()
        _within(check, "spacing", self.spacing, 0.02, 2.0)
        _within(check, "end", self.end, 0.0, 0.5)
        if self.through is not None:
            _within(check, "through", self.through, 0.05, 3.0)
        check.check(1 <= self.box <= 10_000, ("box",), "out_of_range", f"{self.box} in a box", "1 to 10,000")
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Sensor:
    """A sensor in a panel, with the way that its cable takes."""

    name: str  #: its identity, as it stands in the log
    face: str
    u: float  #: [m]
    v: float  #: [m]
    depth: float = 0.05  #: from the inside of the panel [m]
    way: Way = "up"

    def __post_init__(self) -> None:
        check = Collector()
        check.check(bool(self.name.strip()), ("name",), "no_name", "a sensor without an identity", "as it is labelled")
        _within(check, "depth", self.depth, 0.0, 1.0)
        check.refuse()


@dataclass(frozen=True, slots=True, kw_only=True)
class Socket:
    """A box recessed into the inner skin, and the chase that leads to it."""

    face: str
    u: float  #: [m]
    v: float  #: [m]
    way: Way = "down"

    @property
    def name(self) -> str:
        return "socket"
