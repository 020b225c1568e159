"""A whole building: every area, joint and fixing, ground, air and sun in one sum, and what it asks of its plant."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np

from nimble_shell.core.airflow.balance import AirPath, BalanceFigures, Fan, Flue, Makeup, Zone, balance
from nimble_shell.core.airflow.leakage import LeakFigures, leak_figures
from nimble_shell.core.airflow.ventilation import (
    AirFigures,
    AirState,
    Mode,
    RoomAir,
    Ventilation,
    air_figures,
    room_air,
)
from nimble_shell.core.airflow.venting import Vents, stack_flow
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.building.footprint import plan_area
from nimble_shell.core.ground.seasons import ground_swing, monthly_flow
from nimble_shell.core.ground.steady import ground_figures
from nimble_shell.core.loads.cooling_day import CoolingCase, CoolingFigures, cooling_day
from nimble_shell.core.loads.energy import EnergyCase, EnergyFigures, MonthOutside, energy
from nimble_shell.core.loads.heating import HeatingCase, HeatingFigures, heating_load
from nimble_shell.core.loads.periodic_walls import MassWall
from nimble_shell.core.loads.vented_day import VentedDay, vented_day
from nimble_shell.core.shell.buffer import BUFFER, space_of, unheated_shares
from nimble_shell.core.shell.hot_day import Facing, Pane, cooling_case, stored
from nimble_shell.core.shell.leaks import JointLeak, Leak, leaky
from nimble_shell.core.shell.ledger import ShellLedger
from nimble_shell.core.shell.measured import MeasuredBuilding
from nimble_shell.core.shell.on_ground import OnGround, on_ground, year_of
from nimble_shell.core.shell.plant import Plant
from nimble_shell.core.sun.clear_sky import ClearSky, irradiance
from nimble_shell.core.sun.position import Day, on_plane, sun_at
from nimble_shell.core.transmission.rows import OUTSIDE, AreaRow, JointRow, PointRow, Transmission
from nimble_shell.core.transmission.sums import Sums, sums
from nimble_shell.core.working import Given, Num, named, plain, value_of

LossKind = Literal["areas", "joints", "fixings", "glazing", "ground", "air"]
_AIR = 3.0  #: q/3 W/K for q in m³/h
_SLANT = 0.9  #: of the sun through glass, for its slant
_LEE, _LUV = -0.4, 0.4  #: wind coefficients of the two halves of a shell in the open; starting values


@dataclass(frozen=True, slots=True, kw_only=True)
class HungLoss:
    """A loss with where it hangs on the section; H is None while it is not known."""

    id: str  #: of the element or joint; "ground", "infiltration" or "ventilation" of those
    station: str  #: empty of air, which hangs nowhere
    name: str
    kind: LossKind
    H: float | None  #: [W/K]
    amount: float  #: [m²], [m] or pieces; [m³/h] of air
    unit: Literal["area", "distance", "", "air"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sizes:
    """Of a building by overall inner dimensions."""

    A_F: float  #: heated floor [m²]
    V: float  #: [m³]
    A_E: float  #: envelope [m²]
    low: float  #: of its lowest and highest points and its eaves, in space [m]
    eaves: float
    high: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Known:
    """What other rooms know of a building: its ledger, its build-ups, its leaks."""

    ledger: ShellLedger
    leaks: Sequence[JointLeak]
    R_of: Mapping[str, float]  #: of each element's build-up, without films [m²·K/W]
    walls: Mapping[str, MassWall]  #: field of each element's build-up with its mass, in summer
    panes: Sequence[Pane]
    facings: Sequence[Facing]


@dataclass(frozen=True, slots=True, kw_only=True)
class WholeBuilding:
    """What it comes to. Sums that lack a part say so in `missing` and `pending`."""

    sizes: Sizes
    losses: tuple[HungLoss, ...]
    sums: Sums
    A: float  #: counted area [m²]
    R_effective: Num | None  #: of transmission over all of it [m²·K/W]
    ground: OnGround | None
    leaks: LeakFigures
    leak_rows: tuple[Leak, ...]
    air: AirFigures
    rooms: tuple[RoomAir, ...]  #: of twelve months
    natural: BalanceFigures  #: by the cold of January's mean, without fans and wind
    drawn: BalanceFigures | None  #: on a cold day with its fans and the hood
    heating: HeatingFigures
    cooling: CoolingFigures
    vented: VentedDay | None  #: the room left alone with its vents open; None without any
    vent_flow: Num | None  #: through them at its greatest [m³/h]
    energy: EnergyFigures
    coldest: float  #: mean of the coldest month, at which `natural` is looked at [°C]
    missing: tuple[str, ...]
    pending: tuple[str, ...]

    @property
    def whole(self) -> bool:
        """Whether nothing is lacking."""
        return not self.missing and not self.pending

    @property
    def so_far(self) -> str:
        """What stands beside its sums in print while a part is lacking."""
        return "" if self.whole else ", so far"

    @property
    def lacking(self) -> tuple[str, ...]:
        """What lacks, in sentences; all that is being solved in one."""
        solving = (f"being solved: {', '.join(self.pending)}",) if self.pending else ()
        return (*self.missing, *solving)


def whole_building(building: MeasuredBuilding, basis: Basis, known: Known, given: Given = plain) -> WholeBuilding:
    """Everything a building comes to.

    Parameters
    ----------
    building : MeasuredBuilding
    basis : Basis
        With the building's own room.
    known : Known
    given : Given
        `plain` for figures, `traced` for working.

    Raises
    ------
    DomainError
        If the building loses nothing, or moisture has no way out of it.
    """
    plant, sizes = building.plant, sizes_of(building)
    ground = on_ground(building, plant.ground, known.R_of, given)
    shell, rows = leaky(building, known.leaks, plant, sizes.A_F)
    leaks = leak_figures(shell, given)
    moved = _ventilation(plant, sizes, basis.indoor.theta_heating, value_of(leaks.q_inf[1]))
    air = air_figures(moved, given)
    found = sums(_transmission(building, known, ground, _AIR * value_of(air.H_ve)), given)
    counted = [line for line in known.ledger.lines if line.H is not None]
    A = sum((line.area for line in counted), 0.0)
    R = None
    if counted and value_of(found.H_tr) > 0:
        R = named(A / found.H_tr, "R_eff", "effective R, ground and all", "m²·K/W", "ΣA/H_tr; air apart")
    coldest = min(basis.climate.theta_e)
    hot = _hot(basis, plant, sizes, known, found, air)
    cooling = cooling_day(hot)
    vents = Vents(low=plant.loads.vent_low, high=plant.loads.vent_high, rise=plant.loads.vent_rise)
    vented = vented_day(hot, cooling, vents) if vents.there else None
    return WholeBuilding(
        sizes=sizes,
        losses=(*_hung(known.ledger, ground), *_of_air(leaks, air)),
        sums=found,
        A=value_of(A),
        R_effective=R,
        ground=ground,
        leaks=leaks,
        leak_rows=rows,
        air=air,
        rooms=_rooms(basis, moved, air, given),
        natural=balance(_zone(building, leaks, rows, basis, sizes, coldest), given),
        drawn=_drawn(building, leaks, rows, basis, sizes, given),
        heating=heating_load(_cold(basis, plant, sizes, found, leaks, air), given),
        coldest=coldest,
        cooling=cooling,
        vented=vented,
        vent_flow=None if vented is None else _at_its_most(vents, vented, hot, given),
        energy=energy(_year(basis, plant, sizes, known, found, ground), given),
        missing=(*known.ledger.missing, *_unknown(building, ground)),
        pending=known.ledger.pending,
    )


def _rooms(basis: Basis, moved: Ventilation, air: AirFigures, given: Given) -> tuple[RoomAir, ...]:
    """The room in each of twelve months, at its temperature then."""
    climate, found = basis.climate, []
    for theta_e, phi_e in zip(climate.theta_e, climate.phi_e, strict=True):
        theta_i, _ = basis.indoor.in_month(theta_e, phi_e)
        state = AirState(theta_e=theta_e, phi_e=phi_e)
        found.extend(room_air(replace(moved, theta_i=theta_i), air.q_mean, [state], given))
    return tuple(found)


def sizes_of(building: MeasuredBuilding) -> Sizes:
    """Floor, volume and heights."""
    found, plant = building.shape.takeoff, building.plant
    floors = [found.faces[face.id].gross for face in found.body.faces if face.kind == "floor"]
    outer, inner = sum(one.external for one in floors), sum(one.overall_internal for one in floors)
    storeys = sum(plan_area(one.outline) * len(one.storeys) for one in building.bodies)
    heights = found.body.points[:, 2]
    return Sizes(
        A_F=plant.floor_area or storeys * (inner / outer if outer else 1.0),
        V=plant.volume or found.volume.overall_internal, A_E=found.envelope,
        low=float(heights.min()), high=float(heights.max()), eaves=min(one.eaves for one in building.bodies),
    )  # fmt: skip


def _ventilation(plant: Plant, sizes: Sizes, theta_i: float, q_inf: float) -> Ventilation:
    air = plant.air
    modes = (Mode(share=air.low_share, factor=air.low_factor), Mode(share=1 - air.low_share, factor=1.0))
    return Ventilation(
        persons=air.persons, q_person=air.q_person, A_F=sizes.A_F, q_area=air.q_area,
        extract=(air.extract,) if air.extract else (), n_min=air.n_min or None, V=sizes.V, q_mech=air.q_design,
        modes=modes if air.low_share else (), eta_t=air.eta_t, eta_x=air.eta_x, sfp=air.sfp, moisture=air.moisture,
        q_inf=q_inf, theta_i=theta_i,
    )  # fmt: skip


def _transmission(building: MeasuredBuilding, known: Known, ground: OnGround | None, air_q: float) -> Transmission:
    """The ledger's lines as ISO 13789 sums them; what lies on the ground is summed by ISO 13370 instead."""
    buffer = building.plant.buffer
    shares = unheated_shares(known.facings) if buffer.known else {}
    in_ground = set() if ground is None else {*ground.floors, *ground.walls}
    areas: list[AreaRow] = []
    points: list[PointRow] = []
    joints: list[JointRow] = []
    for line in known.ledger.lines:
        if line.H is None or line.U is None or line.element_id in in_ground:
            continue
        A, cold = value_of(line.area), shares.get(line.element_id, 0.0)
        through = 0.0 if line.H_fixings is None else value_of(line.H_fixings) / A
        for part, to in ((1 - cold, OUTSIDE), (cold, BUFFER)):
            if part > 0:
                name = line.name if to == OUTSIDE else f"{line.name}, to the {BUFFER}"
                areas.append(
                    AreaRow(
                        id=name,
                        A=part * A,
                        U=value_of(line.U) - through,
                        glazing=line.station == "E",
                        to=to,
                        group=line.station,
                    )
                )
                if through:
                    points.append(
                        PointRow(id=f"fixings, {name}", n=1.0, chi=through * part * A, to=to, group=line.station)
                    )
    for joint in known.ledger.joints:
        if joint.psi is not None and joint.length > 0:
            psi = value_of(joint.psi)
            if joint.point:
                points.append(PointRow(id=joint.name, n=joint.length, chi=psi, group=joint.station))
            else:
                joints.append(JointRow(id=joint.name, l=joint.length, psi=psi, group=joint.station))
    return Transmission(
        areas=tuple(areas),
        joints=tuple(joints),
        points=tuple(points),
        air_q=air_q,
        spaces=(space_of(buffer),) if shares else (),
        H_ground=0.0 if ground is None else value_of(ground.figures.H_g),
    )


def _hung(ledger: ShellLedger, ground: OnGround | None) -> list[HungLoss]:
    """Areas, glazing, fixings, joints and the ground, each at its station."""
    in_ground = set() if ground is None else {*ground.floors, *ground.walls}
    found: list[HungLoss] = []
    for line in ledger.lines:
        A = value_of(line.area)
        if line.element_id in in_ground:
            continue
        through = 0.0 if line.H_fixings is None else value_of(line.H_fixings)
        kind: LossKind = "glazing" if line.station == "E" else "areas"
        H = None if line.H is None else value_of(line.H) - through
        found.append(
            HungLoss(id=line.element_id, station=line.station, name=line.name, kind=kind, H=H, amount=A, unit="area")
        )
        if through:
            found.append(HungLoss(id=f"{line.element_id}/fixings", station=line.station, name=f"Fixings, {line.name}",
                                  kind="fixings", H=through, amount=A, unit="area"))  # fmt: skip
    for joint in ledger.joints:
        if joint.length > 0:
            found.append(
                HungLoss(
                    id=joint.joint_id,
                    station=joint.station,
                    name=joint.name,
                    kind="fixings" if joint.point else "joints",
                    H=None if joint.H is None else value_of(joint.H),
                    amount=joint.length,
                    unit="" if joint.point else "distance",
                )
            )
    if ground is not None:
        found.append(HungLoss(id="ground", station="H", name="Ground", kind="ground", H=value_of(ground.figures.H_g),
                              amount=ground.floor.A, unit="area"))  # fmt: skip
    return found


def _of_air(leaks: LeakFigures, air: AirFigures) -> list[HungLoss]:
    q_inf = value_of(leaks.q_inf[1])
    moved = value_of(air.H_ve) - q_inf / _AIR
    return [
        HungLoss(
            id="infiltration", station="", name="Infiltration", kind="air", H=q_inf / _AIR, amount=q_inf, unit="air"
        ),
        HungLoss(
            id="ventilation",
            station="",
            name="Ventilation",
            kind="air",
            H=moved,
            amount=value_of(air.q_mean),
            unit="air",
        ),
    ]


def _zone(
    building: MeasuredBuilding,
    leaks: LeakFigures,
    rows: Sequence[Leak],
    basis: Basis,
    sizes: Sizes,
    theta_e: float,
    fans: tuple[Fan, ...] = (),
    wind: float = 0.0,
) -> Zone:
    """Half of each leak to the wind and half to its lee, at the height of its station."""
    n = building.plant.tightness.exponent
    middle = (sizes.low + sizes.eaves) / 2
    heights = {
        "A": sizes.high,
        "B": (sizes.eaves + sizes.high) / 2,
        "C": sizes.eaves,
        "F": middle,
        "D": middle,
        "E": middle,
    }
    paths = []
    for row in rows:
        C = value_of(leaks.items[row.id][1]) / 50**n
        if C > 0:
            z = heights.get(row.station, max(sizes.low, 0.0)) - sizes.low
            sides = (_LEE, _LEE) if row.station in ("A", "B") else (_LUV, _LEE)
            paths += [AirPath(id=f"{row.id}/{side}", z=z, C=C / 2, n=n, cp=cp) for side, cp in enumerate(sides)]
    return Zone(theta_i=basis.indoor.theta_heating, theta_e=theta_e, paths=tuple(paths), fans=fans, wind=wind)


def _drawn(
    building: MeasuredBuilding, leaks: LeakFigures, rows: Sequence[Leak], basis: Basis, sizes: Sizes, given: Given
) -> BalanceFigures | None:
    """With the hood running, on the cold design day; None where nothing draws and no fire burns."""
    fire = building.plant.fire
    if not fire.hood and not fire.flue:
        return None
    fans = (Fan(id="hood", kind="extract", q=fire.hood),) if fire.hood else ()
    zone = _zone(building, leaks, rows, basis, sizes, basis.site.theta_winter, fans, fire.wind)
    if fire.flue:
        zone = replace(zone, flue=Flue(z=fire.flue_z, limit=fire.limit), makeup=Makeup(z=fire.flue_z))
    return balance(zone, given)


def _cold(basis: Basis, plant: Plant, sizes: Sizes, found: Sums, leaks: LeakFigures, air: AirFigures) -> HeatingCase:
    return HeatingCase(
        theta_i=basis.indoor.theta_heating,
        theta_e=basis.site.theta_winter,
        theta_mean=sum(basis.climate.theta_e) / 12,
        H_D=value_of(found.H_D) + value_of(found.H_U),
        H_g=value_of(found.H_g),
        V=sizes.V,
        n50=value_of(leaks.n50[1]),
        e=plant.loads.shielding,
        A_F=sizes.A_F,
        q_mech=value_of(air.q_mean),
        eta=plant.air.eta_t,
        f_RH=plant.loads.reheat,
        rule=plant.loads.rule_heating,
    )


def _hot(basis: Basis, plant: Plant, sizes: Sizes, known: Known, found: Sums, air: AirFigures) -> CoolingCase:
    fields = sum(one.area / known.walls[one.element].R for one in known.facings
                 if one.to != "ground" and one.element in known.walls)  # fmt: skip
    panes = sum(one.area * one.U for one in known.panes)
    return cooling_case(
        basis, plant.loads, known.facings, known.walls, known.panes, persons=plant.air.persons, A_F=sizes.A_F,
        H_rest=value_of(found.H_D) + value_of(found.H_U) - fields - panes,
        q_air=plant.loads.night_air + _AIR * value_of(air.H_ve_without),
    )  # fmt: skip


def _at_its_most(vents: Vents, day: VentedDay, hot: CoolingCase, given: Given) -> Num:
    at = f"at {day.hour}:00 of the hot day"
    theta_i = given(float(day.theta[day.hour]), "theta_i", f"room left alone, {at}", "°C", "of its heat balance")
    theta_e = given(hot.theta_e[day.hour], "theta_e", f"outside, {at}", "°C", "of the hot day")
    return stack_flow(vents, theta_i, theta_e, given)


def _year(basis: Basis, plant: Plant, sizes: Sizes, known: Known, found: Sums, ground: OnGround | None) -> EnergyCase:
    climate, theta_i = basis.climate, basis.indoor.theta_heating
    sun = [0.0] * 12
    for one in known.panes:
        for month, mean in enumerate(clear_means(basis.site.latitude, one.azimuth, one.tilt)):
            sun[month] += plant.loads.clearness * mean * one.area * one.solar * _SLANT
    flow = None
    if ground is not None:
        year = year_of(climate, [theta_i] * 12)
        figures = ground_figures(ground.floor)
        flow = tuple(value_of(one) for one in monthly_flow(figures, ground_swing(ground.floor, figures), year))
    return EnergyCase(
        theta_i=theta_i,
        months=tuple(MonthOutside(theta_e=theta, sun=one) for theta, one in zip(climate.theta_e, sun, strict=True)),
        H_tr=value_of(found.H_tr),
        H_ve=value_of(found.H_ve),
        H_ground=value_of(found.H_g),
        ground_flow=flow,
        A_F=sizes.A_F,
        C_m=stored(
            [(one.area, known.walls[one.element]) for one in known.facings if one.element in known.walls],
            plant.loads,
            sizes.A_F,
        ),
        beside=(1 - value_of(found.b[BUFFER])) * plant.buffer.sun if BUFFER in found.b else 0.0,
        gains=plant.air.persons * plant.loads.persons_W + plant.loads.gains * sizes.A_F,
    )


@lru_cache(maxsize=4096)
def clear_means(latitude: float, azimuth: float, tilt: float) -> tuple[float, ...]:
    """Mean sunshine of the clear middle day of each month on a plane. [W/m²]"""
    found = []
    for month in range(1, 13):
        count = 24 * 6
        sun = sun_at(latitude, Day(month=month, day=15), (np.arange(count) + 0.5) / 6)
        light = irradiance(ClearSky(), sun, on_plane(sun, azimuth, tilt), tilt)
        found.append(float(np.mean(light.beam + light.rest)))
    return tuple(found)


def _unknown(building: MeasuredBuilding, ground: OnGround | None) -> tuple[str, ...]:
    """What the sums lack beside the ledger's own."""
    lies = building.shape.takeoff.ground is not None and building.shape.takeoff.ground.B is not None
    return ("Ground: its floor has no build-up",) if lies and ground is None else ()
