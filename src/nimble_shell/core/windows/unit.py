"""A type of window or door that a project builds with: its parts, its size, and how it sits in the wall."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence
from nimble_shell.core.windows.transmittance import (
    Division,
    Frame,
    Glass,
    Panel,
    Window,
    WindowFigures,
    window_figures,
)
from nimble_shell.core.working import Given, Num, plain

UnitKind = Literal["window", "door"]
Opens = Literal["fixed", "side hung", "top hung", "tilt and turn", "sliding", "inward", "outward"]
Edge = Literal["head", "jamb", "sill", "threshold"]
LEAST, MOST = 0.2, 6.0  #: size of a unit, either way [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class UnitJoint:
    """Which variant of a joint an edge of it is built with."""

    edge: Edge
    variant: str


@dataclass(frozen=True, slots=True, kw_only=True)
class UnitType:
    """A window or door as it is ordered."""

    id: str
    name: str
    kind: UnitKind = "window"
    opens: Opens = "tilt and turn"
    w: float = 1.2  #: outer size of its frame [m]
    h: float = 1.3
    sill: float = 0.9  #: of its lower edge above the floor of its storey [m]
    frame: Frame = field(default_factory=lambda: Frame(left=0.11, right=0.11, top=0.11, bottom=0.12, U=1.1))
    glass: Glass = field(default_factory=lambda: Glass(U=0.6, g=0.5, psi=0.04))
    panes: int = 3
    spacer: str = ""  #: in words; its ψ is that of the glass
    columns: int = 1  #: of lights, evenly divided
    rows: int = 1
    division: float = 0.12  #: visible width of a mullion or transom [m]
    filled: int = 0  #: rows from below that are panels in the place of glass
    panel_U: float = 1.0  #: of such a panel [W/(m²·K)]
    panel_psi: float = 0.03  #: of its edge [W/(m·K)]
    U_declared: float | None = None  #: of the whole unit, in the place of its parts [W/(m²·K)]
    g_declared: float | None = None  #: of the whole unit, with its frame
    shim: float = 0.012  #: space round the frame, on every side [m]
    flashing: float = 0.0  #: build-up of pan and flashing under it [m]
    fin: bool = False  #: whether a fin fastens it to the wall's face
    deep: float = 0.08  #: depth of the frame [m]
    position: float = 0.5  #: in the wall's depth: 0 flush outside, 1 flush inside
    joints: tuple[UnitJoint, ...] = ()
    mass: float | None = None  #: [kg]
    price: float | None = None  #: without setting it, in the currency of the Basis

    def __post_init__(self) -> None:
        check = Collector()
        check.check(0 < len(self.name.strip()) <= 80, ("name",), "name_length",
                    f"the name has {len(self.name)} letters", "a name has 1 to 80")  # fmt: skip
        for key, value, most in (("w", self.w, MOST), ("h", self.h, MOST), ("deep", self.deep, 0.5)):
            least = LEAST if most == MOST else 0.03
            check.check(least <= value <= most, (key,), "unit_size", sentence("{v}", v=(value, "length")),
                        sentence("{v1} to {v2}", v1=(least, "length"), v2=(most, "length")))  # fmt: skip
        for key, value, most in (
            ("sill", self.sill, 10.0), ("shim", self.shim, 0.1), ("flashing", self.flashing, 0.2),
            ("division", self.division, 1.0), ("frame", min(self._widths), 1.0),
        ):  # fmt: skip
            check.check(0 <= value <= most, (key,), "length_out_of_range", sentence("{v}", v=(value, "length")),
                        sentence("{v1} to {v2}", v1=(0.0, "length"), v2=(most, "length")))  # fmt: skip
        for path, U in (
            (("frame", "U"), self.frame.U), (("glass", "U"), self.glass.U), (("panel_U",), self.panel_U),
            (("U_declared",), self.U_declared),
        ):  # fmt: skip
            check.check(U is None or 0 < U <= 10, path, "transmittance_not_positive",
                        sentence("U is {v}", v=(U, "transmittance")),
                        sentence("above 0 and up to {v}", v=(10.0, "transmittance")))  # fmt: skip
        for path, psi in ((("glass", "psi"), self.glass.psi), (("panel_psi",), self.panel_psi)):
            check.check(0 <= psi <= 0.5, path, "psi_out_of_range", sentence("ψ is {v}", v=(psi, "linear")),
                        sentence("{v1} to {v2}", v1=(0.0, "linear"), v2=(0.5, "linear")))  # fmt: skip
        for path, share in (
            (("glass", "g"), self.glass.g), (("g_declared",), self.g_declared), (("position",), self.position),
        ):  # fmt: skip
            check.check(share is None or 0 <= share <= 1, path, "share_out_of_range", f"it is {share or 0:g}",
                        "0 to 1")  # fmt: skip
        for key, count, least, most in (
            ("panes", self.panes, 1, 5), ("columns", self.columns, 1, 12), ("rows", self.rows, 1, 12),
            ("filled", self.filled, 0, self.rows),
        ):  # fmt: skip
            check.check(least <= count <= most, (key,), "count_out_of_range", f"there are {count}",
                        f"{least} to {most}")  # fmt: skip
        for key, amount in (("mass", self.mass), ("price", self.price)):
            check.check(amount is None or 0 <= amount <= 1e6, (key,), "amount_out_of_range", f"it is {amount}",
                        "0 or more")  # fmt: skip
        check.refuse()
        window_figures(self.parts())  # refuses a frame that leaves no light

    @property
    def _widths(self) -> tuple[float, ...]:
        return (self.frame.left, self.frame.right, self.frame.top, self.frame.bottom)

    def parts(self, w: float | None = None, h: float | None = None) -> Window:
        """Its parts at its own size or at another. [m]"""
        w, h = w or self.w, h or self.h
        return Window(
            w=w, h=h, frame=self.frame, glass=self.glass,
            mullions=_evenly(self.columns, self.frame.left, w - self.frame.right, self.division),
            transoms=_evenly(self.rows, self.frame.bottom, h - self.frame.top, self.division),
            panels=tuple(Panel(col=c, row=r, U=self.panel_U, psi=self.panel_psi)
                         for r in range(self.filled) for c in range(self.columns)),
        )  # fmt: skip

    def figures(self, w: float | None = None, h: float | None = None) -> WindowFigures:
        """By its parts, at its own size or at another [m]. Raises DomainError where that leaves no light."""
        return _figures(self, w, h)

    def transmittance(self, w: float, h: float, given: Given = plain) -> Num:
        """Of the unit at a size: as declared, else by its parts. [W/(m²·K)]"""
        if self.U_declared is not None:
            return given(self.U_declared, "U_w", f"transmittance, {self.name}", "W/(m²·K)", "declared")
        return _figures(self, w, h).U_w if given is plain else window_figures(self.parts(w, h), given).U_w

    def solar(self, w: float | None = None, h: float | None = None) -> float:
        """Total solar energy transmittance of the unit with its frame, 0…1."""
        return self.figures(w, h).g_w if self.g_declared is None else self.g_declared

    def rough(self, w: float | None = None, h: float | None = None) -> tuple[float, float]:
        """Width and height of the hole that it needs: shim all round, and the flashing under it. [m]"""
        return (w or self.w) + 2 * self.shim, (h or self.h) + 2 * self.shim + self.flashing

    def variant(self, edge: str) -> str:
        """Of the joint at an edge; empty where the unit names none."""
        return next((one.variant for one in self.joints if one.edge == edge), "")


@lru_cache(maxsize=1024)  # the same few units count in every sum of a building
def _figures(unit: UnitType, w: float | None, h: float | None) -> WindowFigures:
    return window_figures(unit.parts(w, h))


def _evenly(count: int, start: float, end: float, b: float) -> tuple[Division, ...]:
    """Divisions that leave lights of one width."""
    light = (end - start - (count - 1) * b) / count
    return tuple(Division(at=start + (n + 1) * light + (n + 0.5) * b, b=b) for n in range(count - 1))
