"""What the moisture routes take and give. SI; relative humidities 0…1."""

from __future__ import annotations

from typing import Literal

from nimble_shell.api.schemas import Model


class WetOut(Model):
    """A plane that is wet in some month; lists have one entry for each month, January first."""

    x: float
    inner: int
    outer: int
    limit: float
    reason: str
    peak: float
    g: list[float]
    M: list[float]


class MonthOut(Model):
    """One month of the Basis with its room, and what it asks of the surface."""

    theta_e: float
    phi_e: float
    theta_i: float
    phi_i: float
    required: float | None
    phi_fails: float | None


class MoistureOut(Model):
    """A build-up through the year by month."""

    months: list[MonthOut]
    counted: int
    start: int | None
    wet: list[WetOut]
    peak: float
    left: float
    dries: bool
    verdict: Literal["dry", "dries", "too wet", "gathers"]
    f_rsi: float
    critical: int | None
    surface_passes: bool
    x: list[float]
    share: list[list[float]]  # vapour pressure over saturation at every plane, by month
    closest_month: int
    closest_plane: int


class SurfaceOut(Model):
    id: str
    station: str
    name: str
    joint: bool
    f_rsi: float | None
    phi_fails: float | None
    why_not: str


class LeagueOut(Model):
    """Every surface of a building, the worst first."""

    surfaces: list[SurfaceOut]
    required: float | None
    critical: int | None
