"""A floor on, above or in the ground, as ISO 13370 sees it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from nimble_shell.core.errors import Collector
from nimble_shell.core.quantities.sentence import sentence

EdgeKind = Literal["horizontal", "vertical"]


@dataclass(frozen=True, slots=True, kw_only=True)
class EdgeFoam:
    """Insulation along the edge of a slab: level beside it, or upright down from it."""

    kind: EdgeKind
    D: float  #: width, or depth below the ground [m]
    d: float  #: thickness [m]
    lambda_: float  #: [W/(m·K)]

    @property
    def reach(self) -> float:
        """D* of annex B: the width, or twice the depth. [m]"""
        return self.D if self.kind == "horizontal" else 2 * self.D


@dataclass(frozen=True, slots=True, kw_only=True)
class GroundFloor:
    """What all kinds have in common."""

    A: float  #: [m²]
    P: float  #: exposed perimeter [m]
    lambda_: float  #: of the soil, not frozen [W/(m·K)]
    w: float = 0.0  #: thickness of the walls above [m]
    rho_c: float | None = None  #: heat capacity of the soil; without it nothing is said of the months [J/(m³·K)]
    Rf: float = 0.0  #: of the floor, without hardcore below it [m²·K/W]
    Rsi: float = 0.17
    Rse: float = 0.04
    Rsi_wall: float = 0.13
    psi: float = 0.0  #: of the junction of wall and floor [W/(m·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Slab(GroundFloor):
    """On the ground over its whole area."""

    edges: tuple[EdgeFoam, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Suspended(GroundFloor):
    """Above a space that the wind blows through."""

    U_f: float  #: between the rooms and the space below [W/(m²·K)]
    h: float  #: of its surface above the ground [m]
    U_w: float  #: of the walls of that space [W/(m²·K)]
    eps: float  #: vents, per perimeter [m²/m]
    f_w: float  #: shelter from the wind, 0.02…0.10
    v: float  #: wind at 10 m height, mean of the year [m/s]
    Rg: float = 0.0  #: of what lies on the ground below [m²·K/W]


@dataclass(frozen=True, slots=True, kw_only=True)
class HeatedBasement(GroundFloor):
    """A room below the ground that is heated; Rf is that of its floor."""

    Rw: float  #: of its walls [m²·K/W]
    z: float  #: depth of its floor below the ground [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class UnheatedBasement(GroundFloor):
    """A cellar; Rf is that of its floor."""

    Rw: float  #: of its walls below the ground [m²·K/W]
    z: float  #: depth of its floor below the ground [m]
    U_f: float  #: between the rooms and the cellar [W/(m²·K)]
    U_w: float  #: of its walls above the ground [W/(m²·K)]
    h: float  #: of those walls [m]
    n: float  #: changes of its air [1/h]
    V: float  #: its air [m³]


def check(floor: GroundFloor) -> None:
    """Refuse what has no answer.

    Raises
    ------
    DomainError
        If nothing resists the flow, or foam at the edge carries more heat than the soil it replaces.
    """
    found = Collector()
    upon = floor.Rg if isinstance(floor, Suspended) else floor.Rf
    d_t = floor.w + floor.lambda_ * (floor.Rsi + upon + floor.Rse)
    found.check(d_t > 0, ("Rf",), "nothing_resists", "floor, films and wall have no thickness and no resistance",
                "give the resistance of the floor, or its films")  # fmt: skip
    if isinstance(floor, HeatedBasement | UnheatedBasement):
        found.check(floor.Rsi_wall + floor.Rw + floor.Rse > 0, ("Rw",), "nothing_resists",
                    "walls below the ground and their films have no resistance",
                    "give the resistance of the walls")  # fmt: skip
    if isinstance(floor, Slab):
        for at, foam in enumerate(floor.edges):
            found.check(d_t + floor.lambda_ * foam.d / foam.lambda_ - foam.d > 0, ("edge", at, "lambda"),
                        "edge_conducts",
                        sentence("at {v} it carries far more heat than the soil", v=(foam.lambda_, "conductivity")),
                        "a foam, below the conductivity of the soil")  # fmt: skip
    found.refuse()
