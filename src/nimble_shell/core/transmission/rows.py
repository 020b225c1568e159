"""What the transmission of a building is summed of."""

from __future__ import annotations

from dataclasses import dataclass

OUTSIDE, HEATED = "outside", "heated"


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """What every part says of itself."""

    id: str
    to: str = OUTSIDE  #: the outside, a room as warm as ours, or a space by its id
    group: str = ""  #: a wall, a roof: what it is part of; none if empty


@dataclass(frozen=True, slots=True, kw_only=True)
class AreaRow(Row):
    """An area."""

    A: float  #: [m²]
    U: float  #: [W/(m²·K)]
    glazing: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class WindowRow(Row):
    """Units that are alike."""

    A: float  #: of one [m²]
    U: float  #: without its setting [W/(m²·K)]
    n: float = 1
    L_install: float = 0.0  #: Σ ψ·l of the setting of one [W/K]


@dataclass(frozen=True, slots=True, kw_only=True)
class JointRow(Row):
    """A joint."""

    l: float  # noqa: E741 - length as the standard writes it [m]
    psi: float  #: [W/(m·K)]


@dataclass(frozen=True, slots=True, kw_only=True)
class PointRow(Row):
    """Fixings that are alike."""

    n: float
    chi: float  #: [W/K]


@dataclass(frozen=True, slots=True, kw_only=True)
class UnheatedSpace:
    """A space that is as cold as its surroundings make it."""

    id: str
    elements: tuple[tuple[float, float], ...] = ()  #: area and U to the outside [m², W/(m²·K)]
    joints: tuple[tuple[float, float], ...] = ()  #: length and ψ to the outside [m, W/(m·K)]
    H_ground: float = 0.0  #: [W/K]
    V: float = 0.0  #: [m³]
    n_ue: float = 0.0  #: changes of its air with the outside [1/h]


@dataclass(frozen=True, slots=True, kw_only=True)
class FixedSpace:
    """A space whose temperature is known."""

    id: str
    theta: float  #: [°C]


Space = UnheatedSpace | FixedSpace


@dataclass(frozen=True, slots=True, kw_only=True)
class Transmission:
    """A building's parts."""

    areas: tuple[AreaRow, ...] = ()
    windows: tuple[WindowRow, ...] = ()
    joints: tuple[JointRow, ...] = ()
    points: tuple[PointRow, ...] = ()
    spaces: tuple[Space, ...] = ()
    H_ground: float = 0.0  #: Σ H_g of its ground floors [W/K]
    air_q: float = 0.0  #: air from outside at its temperature [m³/h]
    theta_i: float | None = None  #: needed by a fixed space [°C]
    theta_e: float | None = None
