"""Version 1 of the API, `/api/v1/…`: a whole building, its losses, its air, its loads and its year."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter
from fastapi.responses import Response

from nimble_shell.api import schemas as s
from nimble_shell.api import views
from nimble_shell.api.ground import REFUSALS, Fixings, Id, Joints, Projects, Registers, WholeBuildings, attachment
from nimble_shell.api.strict_body import StrictRoute
from nimble_shell.core.airflow.ventilation import AirFigures, RoomAir
from nimble_shell.core.loads.energy import MonthFigures
from nimble_shell.core.loads.heating import HeatingFigures
from nimble_shell.core.loads.vented_day import VentedDay
from nimble_shell.core.shell.cut import BuildingSection, CutFace, cut_across
from nimble_shell.core.shell.glazed import Orientation, Shading
from nimble_shell.core.shell.whole_building import HungLoss, Sizes, WholeBuilding
from nimble_shell.core.sun.overhang import BestDepth
from nimble_shell.core.transmission.sums import Group
from nimble_shell.core.working import value_of
from nimble_shell.formats.document import Model
from nimble_shell.formats.reader import Prose
from nimble_shell.services import sheets
from nimble_shell.services.joints import building_in
from nimble_shell.services.whole_shell import Glazed, figures_of, glazed, shaped

router = APIRouter(prefix="/api/v1", responses=REFUSALS, route_class=StrictRoute)


class HungLossOut(Model, core=HungLoss):
    pass


class SizesOut(Model, core=Sizes):
    pass


class GroupOut(Model, core=Group):
    pass


class SumsOut(Model):
    """Heat transfer coefficients. [W/K]"""

    H_D: float
    H_g: float
    H_U: float
    H_A: float
    H_tr: float
    H_ve: float
    H: float
    b: dict[str, float]
    shares: dict[str, float | None]  #: of H
    groups: dict[str, GroupOut]  #: by station


class GroundOut(Model):
    """What lies on the ground, or stands in it."""

    kind: str
    A: float
    P: float
    B: float
    d_t: float
    U: float
    H_g: float
    z: float | None  #: depth of a basement [m]
    psi_ge: float | None  #: of foam at the edge [W/(m·K)]


class LeakRowOut(Model):
    """A row of the leak budget; `q` low, likely, high at 50 Pa. [m³/h]"""

    id: str
    name: str
    station: str
    joint: str
    q: list[float]


class LeaksOut(Model):
    """The leak budget; each figure low, likely, high."""

    rows: list[LeakRowOut]
    largest: str | None
    q50: list[float]  #: [m³/h]
    n50: list[float]  #: [1/h]
    qE50: list[float]
    qF50: list[float]
    ELA4: list[float]  #: [cm²]
    q_inf: list[float]


class AirFlowOut(Model, core=AirFigures):
    needs: dict[str, float]


class RoomAirOut(Model, core=RoomAir):
    pass


class PressureOut(Model):
    """Pressures of a zone; `lift` is how much the outside weighs more, for a metre. [Pa/m]"""

    theta_e: float
    p_int: float
    neutral_z: float | None
    q_in: float
    lift: float


class DraughtOut(Model):
    """A fire or hood in the tight building."""

    p_int: float
    depressurisation: float | None
    ok: bool | None
    allowed_extract: float | None
    makeup_A: float | None


class HeatingOut(Model, core=HeatingFigures):
    pass


class VentedOut(Model, core=VentedDay):
    """The room left alone whose vents stand open whenever it is colder outside, hour by hour."""

    theta: list[float]  #: [°C]
    q: list[float]  #: [m³/h]


class CoolingOut(Model):
    """The hot day; `parts` is what brings the load, hour by hour. [W]"""

    load: list[float]
    parts: dict[str, list[float]]
    solar: list[float]
    free: list[float]  #: [°C]
    hour: int
    peak: float
    per_area: float
    rule_total: float
    ratio: float | None
    vented: VentedOut | None  #: the room left alone with its vents open


class MonthOut(Model, core=MonthFigures):
    pass


class YearOut(Model):
    tau: float
    a: float
    months: list[MonthOut]
    Q_nd: float
    per_area: float
    degree_kKh: float


class WholeBuildingOut(Model):
    """A building summed up; where it is not `whole`, `last` is the last one that was, if there is one."""

    whole: bool
    missing: list[Prose]
    pending: list[Prose]
    sizes: SizesOut
    losses: list[HungLossOut]
    sums: SumsOut
    A: float
    R_effective: float | None
    ground: GroundOut | None
    leaks: LeaksOut
    air: AirFlowOut
    rooms: list[RoomAirOut]
    natural: PressureOut
    drawn: DraughtOut | None
    heating: HeatingOut
    cooling: CoolingOut
    energy: YearOut
    figures: list[str]  #: that open a working
    last: WholeBuildingOut | None


class OrientationOut(Model, core=Orientation):
    pass


class BestDepthOut(Model, core=BestDepth):
    pass


class ShadingOut(Model, core=Shading):
    hours: list[list[float | None]]  #: lit share by month and hour


class GlazedOut(Model, core=Glazed):
    pass


class CutFaceOut(Model, core=CutFace):
    outer: list[list[float]]
    inner: list[list[float]]


class BuildingSectionOut(Model, core=BuildingSection):
    pass


class WholeWorkingIn(Model):
    figure: str


@router.get("/projects/{project_id}/buildings/{building_id}/whole")
def whole(project_id: Id, building_id: Id, service: Projects, wholes: WholeBuildings) -> WholeBuildingOut:
    """Everything a building comes to, as saved."""
    found = wholes.of(service.load(project_id), building_id)
    rule = found.rule_cooling
    return _whole(found.now, rule, None if found.last is None else _whole(found.last, rule, None))


@router.get("/projects/{project_id}/buildings/{building_id}/glazing")
def glazing(project_id: Id, building_id: Id, service: Projects, results: Joints, fixings: Fixings) -> GlazedOut:
    """Windows by where they look: their share against the wall's R, and the sun that an overhang lets in."""
    stored = service.load(project_id)
    joints = results.known(stored.project, building_in(stored.project, building_id))
    project = fixings.owned(stored)
    waiting = fixings.waiting(stored.project, building_id)
    return GlazedOut.model_validate(glazed(project, shaped(project, building_id), joints, waiting))


@router.get("/projects/{project_id}/buildings/{building_id}/section")
def section(project_id: Id, building_id: Id, service: Projects) -> BuildingSectionOut:
    """The building cut across, from its shape."""
    found = cut_across(shaped(service.load(project_id).project, building_id))
    return BuildingSectionOut.model_validate(found)


@router.get("/projects/{project_id}/buildings/{building_id}/plant.pdf")
def statement(
    project_id: Id, building_id: Id, service: Projects, wholes: WholeBuildings, register: Registers
) -> Response:
    """One page for the plant contractor."""
    stored = service.load(project_id)
    found = wholes.of(stored, building_id).now
    pdf = sheets.plant_sheet(stored, building_id, found, register(stored, building_id))
    name = building_in(stored.project, building_id).name
    return attachment(pdf, "application/pdf", f"{name}-plant.pdf")


@router.get("/projects/{project_id}/buildings/{building_id}/specification.pdf")
def whole_specification(
    project_id: Id, building_id: Id, service: Projects, wholes: WholeBuildings, register: Registers
) -> Response:
    """The pages of the whole building in its specification."""
    stored = service.load(project_id)
    found = wholes.of(stored, building_id).now
    pdf = sheets.whole_sheet(stored, building_id, found, register(stored, building_id))
    name = building_in(stored.project, building_id).name
    return attachment(pdf, "application/pdf", f"{name}-specification.pdf")


@router.post("/projects/{project_id}/buildings/{building_id}/whole-working")
def whole_working(
    project_id: Id, building_id: Id, asked: WholeWorkingIn, service: Projects, wholes: WholeBuildings
) -> s.WorkingOut:
    """Show working of a figure of the whole building."""
    return views.working(wholes.working(service.load(project_id), building_id, asked.figure))


def _whole(found: WholeBuilding, rule: float, last: WholeBuildingOut | None) -> WholeBuildingOut:
    return WholeBuildingOut(
        whole=found.whole, missing=list(found.missing), pending=list(found.pending),
        sizes=SizesOut.model_validate(found.sizes), losses=[HungLossOut.model_validate(one) for one in found.losses],
        sums=_sums(found), A=found.A, R_effective=None if found.R_effective is None else value_of(found.R_effective),
        ground=_ground(found), leaks=_leaks(found), air=AirFlowOut.model_validate(found.air),
        rooms=[RoomAirOut.model_validate(one) for one in found.rooms], natural=_natural(found), drawn=_drawn(found),
        heating=HeatingOut.model_validate(found.heating), cooling=_cooling(found, rule), energy=_year(found),
        figures=sorted(name for name, one in figures_of(found).items() if one is not None), last=last,
    )  # fmt: skip


def _sums(found: WholeBuilding) -> SumsOut:
    sums = found.sums
    names = ("H_D", "H_g", "H_U", "H_A", "H_tr", "H_ve", "H")
    return SumsOut(
        **{name: value_of(getattr(sums, name)) for name in names},
        b={name: value_of(one) for name, one in sums.b.items()},
        shares={name: None if one is None else value_of(one) for name, one in sums.shares.items()},
        groups={name: GroupOut.model_validate(one) for name, one in sums.groups.items()},
    )


def _ground(found: WholeBuilding) -> GroundOut | None:
    if found.ground is None:
        return None
    floor, figures = found.ground.floor, found.ground.figures
    return GroundOut(
        kind="basement" if figures.U_bw is not None else "slab", A=floor.A, P=floor.P, z=getattr(floor, "z", None),
        psi_ge=None if figures.psi_ge is None or figures.edge is None else value_of(figures.psi_ge),
        **{name: value_of(getattr(figures, name)) for name in ("B", "d_t", "U", "H_g")},
    )  # fmt: skip


def _leaks(found: WholeBuilding) -> LeaksOut:
    leaks = found.leaks
    rows = [LeakRowOut(id=one.id, name=one.name, station=one.station, joint=one.joint,
                    q=[value_of(q) for q in leaks.items[one.id]]) for one in found.leak_rows]  # fmt: skip
    figures: dict[str, Any] = {name: [value_of(one) for one in getattr(leaks, name)]
                               for name in ("q50", "n50", "qE50", "qF50", "ELA4", "q_inf")}  # fmt: skip
    return LeaksOut(rows=rows, largest=leaks.largest, **figures)


def _natural(found: WholeBuilding) -> PressureOut:
    natural = found.natural
    p, z = value_of(natural.p_int), natural.neutral_z
    lift = -p / value_of(z) if z is not None and value_of(z) else 0.0
    return PressureOut(theta_e=found.coldest, p_int=p, neutral_z=None if z is None else value_of(z),
                       q_in=value_of(natural.q_in), lift=lift)  # fmt: skip


def _drawn(found: WholeBuilding) -> DraughtOut | None:
    if found.drawn is None:
        return None
    p, draught = value_of(found.drawn.p_int), found.drawn.draught
    if draught is None:
        return DraughtOut(p_int=p, depressurisation=None, ok=None, allowed_extract=None, makeup_A=None)
    area = draught.makeup_A
    return DraughtOut(
        p_int=p,
        depressurisation=value_of(draught.depressurisation),
        ok=draught.ok,
        allowed_extract=value_of(draught.allowed_extract),
        makeup_A=None if area is None else value_of(area),
    )


def _cooling(found: WholeBuilding, rule: float) -> CoolingOut:
    hot, A_F = found.cooling, found.sizes.A_F
    open_ = found.vented
    vented = None if open_ is None else VentedOut(theta=open_.theta.tolist(), q=open_.q.tolist(), hour=open_.hour)
    return CoolingOut(
        vented=vented,
        load=hot.load.tolist(),
        parts={name: hours.tolist() for name, hours in hot.parts.items()},
        solar=hot.solar.tolist(),
        free=hot.free.tolist(),
        hour=hot.hour,
        peak=hot.peak,
        per_area=hot.peak / A_F,
        rule_total=rule * A_F,
        ratio=rule * A_F / hot.peak if hot.peak > 0 else None,
    )


def _year(found: WholeBuilding) -> YearOut:
    year = found.energy
    names = ("tau", "a", "Q_nd", "per_area", "degree_kKh")
    return YearOut(months=[MonthOut.model_validate(one) for one in year.months],
                   **{name: value_of(getattr(year, name)) for name in names})  # fmt: skip
