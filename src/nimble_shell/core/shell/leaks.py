"""What a building leaks, station by station: its joints by their seals, its openings, passages and surfaces."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nimble_shell.core.airflow.leakage import Infiltration, LeakItem, Leaky
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.plant import Plant, Range


@dataclass(frozen=True, slots=True, kw_only=True)
class JointLeak:
    """A joint as the leak budget takes it."""

    id: str
    name: str
    station: str
    length: float  #: [m]
    drawn: bool = True  #: False of a gap that no joint is drawn for
    q: (
        tuple[float, float] | None
    )  #: of its seals at 50 Pa, low and high; None of a joint that nobody has sealed [m³/(h·m)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Leak:
    """A row of the budget, with where it hangs."""

    id: str
    name: str
    station: str
    joint: str = ""  #: id of the joint; empty for another leak


def leaky(
    building: MeasuredBuilding, joints: Sequence[JointLeak], plant: Plant, A_F: float
) -> tuple[Leaky, tuple[Leak, ...]]:
    """The shell as the leak budget takes it, and what its rows are called.

    Notes
    -----
    Of a range by seals the likely value is the geometric mean of its ends: grades span powers of ten.
    """
    tight, found = plant.tightness, building.shape.takeoff
    rows: list[tuple[Leak, LeakItem]] = []
    for one in joints:
        if one.length > 0:
            q = tight.unsealed if one.q is None else (one.q[0], math.sqrt(one.q[0] * one.q[1]), one.q[1])
            leak = Leak(id=f"joint-{one.id}", name=one.name, station=one.station, joint=one.id if one.drawn else "")
            rows.append(_row(leak, one.length, "m", q))
    for bare in building.without_joint():
        leak = Leak(id=f"edge-{bare.key}", name=f"{bare.name}, no joint yet", station=bare.station)
        rows.append(_row(leak, bare.length, "m", tight.unsealed))
    opened = found.openings
    gaps = opened.head + opened.sill + opened.threshold + opened.jamb
    if gaps:
        rows.append(_row(Leak(id="openings", name="Gaps of windows and doors", station="E"), gaps, "m", tight.openings))
    if tight.services:
        rows.append(
            _row(Leak(id="services", name="Passages of services", station="D"), tight.services, "", tight.service)
        )
    rows.append(_row(Leak(id="surfaces", name="Panels and boards themselves", station="D"), found.envelope, "m²",
                     tight.surfaces))  # fmt: skip
    shell = Leaky(
        V=plant.volume or found.volume.overall_internal, A_E=found.envelope, A_F=A_F, n=tight.exponent,
        items=tuple(item for _, item in rows),
        infiltration=Infiltration(e=tight.shelter_e, f=tight.shelter_f),
    )  # fmt: skip
    return shell, tuple(leak for leak, _ in rows)


def _row(leak: Leak, amount: float, unit: str, q: Range) -> tuple[Leak, LeakItem]:
    return leak, LeakItem(id=leak.id, amount=amount, unit=unit, q=q)
