"""Loads and energy of the neutral shell case: the cold design day, the hot day, the year."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from nimble_shell.core.errors import Collector, DomainError, Issue, Path
from nimble_shell.core.loads.cooling_day import CoolingCase, DayElement, DayWindow, SunnyDay, cooling_day, swing
from nimble_shell.core.loads.energy import Aperture, EnergyCase, Measure, MonthOutside, energy, fall, rank
from nimble_shell.core.loads.heating import HeatingCase, heating_load
from nimble_shell.core.loads.periodic_walls import MassLayer, MassWall
from nimble_shell.core.transmission.rows import Transmission
from nimble_shell.core.transmission.sums import Sums, sums
from nimble_shell.core.working import value_of
from nimble_shell.formats.neutral_shell.ground import AnsweredGround
from nimble_shell.formats.neutral_shell.sun import OverhangCase, SkyCase
from nimble_shell.formats.neutral_shell.values import (
    DayCase,
    Hour,
    Latitude,
    NotNegative,
    Positive,
    Share,
    Temperature,
    TwentyFour,
    each,
    missing,
    not_there,
    numbers,
    one_of,
    only_once,
    placed,
)
from nimble_shell.formats.strict import Number, Strict


class HeatingLoadCase(Strict):
    theta_i: Temperature
    theta_e: Temperature
    theta_mean: Temperature
    H_D: NotNegative | None = None
    H_g: NotNegative | None = None
    f_g1: NotNegative = 1.45
    V: Positive
    n50: NotNegative
    e: NotNegative
    eps: NotNegative = 1.0
    q_mech: NotNegative = 0.0
    eta: Share = 0.0
    q_min: NotNegative = 0.0
    A_F: Positive
    f_RH: NotNegative = 0.0
    rule: Positive | None = None


def answer_heating_load(case: HeatingLoadCase, whole: Sums | None) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        If neither it nor a block transmission says what is lost.
    """
    if case.H_D is None and whole is None:
        raise missing("heating_load", "H_D")
    H_D, H_g = case.H_D, case.H_g
    if whole is not None:
        H_D = value_of(whole.H_D + whole.H_U + whole.H_A) if H_D is None else H_D
        H_g = value_of(whole.H_g) if H_g is None else H_g
    given = case.model_dump() | {"H_D": H_D, "H_g": H_g or 0.0}
    found = heating_load(HeatingCase(**given))
    answer = numbers(found, "transmission", "ground", "q", "ventilation", "reheat", "total", "per_area")
    return answer if case.rule is None else answer | numbers(found, "rule_total", "ratio")


class CosineCase(Strict):
    mean: Temperature
    amplitude: NotNegative
    hour_max: Hour


Course = Annotated[
    Annotated[list[Temperature], Field(min_length=24, max_length=24), Tag("tagged-hours")]
    | Annotated[CosineCase, Tag("tagged-cosine")],
    Discriminator(lambda value: "tagged-hours" if isinstance(value, list) else "tagged-cosine"),
]  #: of a day's temperature


class LayerCase(Strict):
    d: Positive | None = None
    lambda_: Annotated[Positive | None, Field(alias="lambda")] = None
    rho: NotNegative | None = None
    c: NotNegative | None = None
    R: NotNegative | None = None

    def layer(self, path: Path) -> MassLayer:
        told = {"d": self.d, "lambda": self.lambda_, "rho": self.rho, "c": self.c}
        if self.R is not None:
            extra = [name for name, value in told.items() if value is not None]
            if extra:
                raise DomainError(
                    Issue(
                        path=(*path, extra[0]),
                        code="told_twice",
                        message=f"“R” and “{extra[0]}” say the same",
                        hint="leave one of them out",
                    )
                )
            return MassLayer(R=self.R)
        lacking = [name for name, value in told.items() if value is None]
        if lacking:
            raise missing(*path, lacking[0])
        return MassLayer(d=self.d or 0.0, lambda_=self.lambda_ or 1.0, rho=self.rho or 0.0, c=self.c or 0.0)


class BackCase(Strict):
    theta: Temperature


Back = Annotated[
    Annotated[Literal["outside", "adiabatic"], Tag("tagged-named")] | Annotated[BackCase, Tag("tagged-theta")],
    Discriminator(lambda value: "tagged-theta" if isinstance(value, dict | BackCase) else "tagged-named"),
]


class DayElementCase(Strict):
    id: str
    A: Positive
    layers: list[LayerCase]
    Rsi: NotNegative
    Rse: NotNegative = 0.0
    back: Back = "outside"
    azimuth: Number | None = None
    tilt: Annotated[Number, Field(ge=0, le=180)] | None = None
    alpha: Share = 0.0
    sky_loss: Number = 0.0

    def element(self, path: Path, sunny: bool) -> DayElement:
        level = self.tilt in (0.0, 180.0)
        if sunny and self.alpha and self.back == "outside" and self.azimuth is None and not level:
            raise missing(*path, "azimuth")
        layers = each(self.layers, lambda one, where: one.layer(where), *path, "layers")
        wall = MassWall(layers=tuple(layers), Rsi=self.Rsi, Rse=self.Rse, adiabatic=self.back == "adiabatic")
        return DayElement(id=self.id, A=self.A, wall=wall, azimuth=self.azimuth or 0.0, alpha=self.alpha,
                          beyond=self.back.theta if isinstance(self.back, BackCase) else self.back,
                          tilt=90.0 if self.tilt is None else self.tilt, sky_loss=self.sky_loss)  # fmt: skip


class DayWindowCase(Strict):
    id: str
    A: Positive
    U: Positive
    g: Share
    F_F: Share
    F_w: Share = 0.9
    F_c: Share = 1.0
    azimuth: Number
    tilt: Annotated[Number, Field(ge=0, le=180)] = 90.0
    w: Positive | None = None
    h: Positive | None = None
    overhang: OverhangCase | None = None

    def window(self, path: Path) -> DayWindow:
        for key in ("w", "h"):
            if self.overhang is not None and getattr(self, key) is None:
                raise missing(*path, key)
        return DayWindow(id=self.id, A=self.A, U=self.U, g=self.g, F_F=self.F_F, F_w=self.F_w, F_c=self.F_c,
                         azimuth=self.azimuth, tilt=self.tilt, w=self.w or 1.0, h=self.h or 1.0,
                         overhang=None if self.overhang is None else self.overhang.overhang())  # fmt: skip


class DaySunCase(DayCase):
    latitude: Latitude
    clear_sky: SkyCase | None = None


class GainsCase(Strict):
    convective: TwentyFour = [0.0] * 24
    radiant: TwentyFour = [0.0] * 24


class CoolingDayCase(Strict):
    theta_i: Temperature
    theta_e: Course
    A_F: Positive
    rule: Positive | None = None
    q_air: NotNegative = 0.0
    sun: DaySunCase | None = None
    elements: Annotated[list[DayElementCase], Field(min_length=1)]
    windows: list[DayWindowCase] = []
    gains: GainsCase = GainsCase()


def answer_cooling_day(case: CoolingDayCase) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    block = "cooling_day"
    check = Collector()
    only_once(check, (one.id for one in case.elements), block, "elements")
    only_once(check, (one.id for one in case.windows), block, "windows")
    check.refuse()
    sunny = None
    if case.sun is not None:
        if case.sun.clear_sky is None:
            raise missing(block, "sun", "clear_sky")
        sunny = SunnyDay(latitude=case.sun.latitude, day=case.sun.day_at(block, "sun"), sky=case.sun.clear_sky.sky())
    hot = case.theta_e
    theta_e = tuple(hot) if isinstance(hot, list) else swing(hot.mean, hot.amplitude, hot.hour_max)
    asked = CoolingCase(
        theta_i=case.theta_i, theta_e=theta_e,
        elements=tuple(each(case.elements, lambda one, path: one.element(path, sunny is not None), block, "elements")),
        windows=tuple(each(case.windows, lambda one, path: one.window(path), block, "windows")), sun=sunny,
        q_air=case.q_air, convective=tuple(case.gains.convective), radiant=tuple(case.gains.radiant),
    )  # fmt: skip
    found = placed(block, lambda: cooling_day(asked))
    free = found.free
    answer: dict[str, Any] = {
        "load": found.load.tolist(), "peak": found.peak, "hour": found.hour, "mean": found.mean,
        "per_area": found.peak / case.A_F, "solar": found.solar.tolist(),
        "solar_day_kWh": float(found.solar.sum()) / 1000,
        "free": {"theta": free.tolist(), "mean": float(free.mean()), "max": float(free.max()),
                 "hour_max": int(free.argmax()), "min": float(free.min())},
    }  # fmt: skip
    if case.rule is not None:
        whole = case.rule * case.A_F
        answer |= {"rule_total": whole, "ratio": whole / found.peak if found.peak else None}
    return answer


class MonthCase(Strict):
    theta_e: Temperature
    I: dict[str, NotNegative]  # noqa: E741 - as the format writes it


class ApertureCase(Strict):
    orientation: str
    A: Positive
    g: Share
    F_F: Share
    F_sh: Share = 1.0
    F_w: Share = 0.9


class ChangeCase(Strict):
    element: str | None = None
    window: str | None = None
    joint: str | None = None
    point: str | None = None
    U: Positive | None = None
    psi: Number | None = None
    chi: Number | None = None
    air_q: NotNegative | None = None


class MeasureCase(Strict):
    id: str
    cost: NotNegative
    changes: Annotated[list[ChangeCase], Field(min_length=1)]


class EnergyBlock(Strict):
    theta_i: Temperature
    months: Annotated[list[MonthCase], Field(min_length=12, max_length=12)]
    H_tr: NotNegative | None = None
    H_ve: NotNegative | None = None
    ground_flow: list[str] | None = None
    gains_W: NotNegative = 0.0
    apertures: list[ApertureCase] = []
    C_m: Positive
    a0: Positive = 1.0
    tau0: Positive = 15.0
    A_F: Positive
    measures: list[MeasureCase] | None = None


def answer_energy(
    case: EnergyBlock, building: Transmission | None, whole: Sums | None, grounds: Mapping[str, AnsweredGround]
) -> dict[str, Any]:
    """Answer the block.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    asked = _energy_case(case, whole, grounds)
    found = placed("energy", lambda: energy(asked))
    answer: dict[str, Any] = {
        **numbers(found, "tau", "a", "Q_nd", "per_area", "degree_kKh"),
        "months": [numbers(one, "Q_ht", "Q_gn", "eta", "Q_nd") for one in found.months],
    }
    if case.measures is not None:
        if building is None:
            raise missing("transmission")
        answer |= _measures(case.measures, building, asked)
    return answer


def _energy_case(case: EnergyBlock, whole: Sums | None, grounds: Mapping[str, AnsweredGround]) -> EnergyCase:
    if whole is None and (case.H_tr is None or case.H_ve is None):
        raise missing("energy", "H_tr" if case.H_tr is None else "H_ve")
    H_tr = case.H_tr if case.H_tr is not None or whole is None else value_of(whole.H_tr)
    H_ve = case.H_ve if case.H_ve is not None or whole is None else value_of(whole.H_ve)
    for at, one in enumerate(case.apertures):
        if any(one.orientation not in month.I for month in case.months):
            raise not_there("orientation", one.orientation, "energy", "apertures", at, "orientation")
    openings = [Aperture(**one.model_dump()) for one in case.apertures]
    suns = [sum(one.sunlit * month.I[one.orientation] for one in openings) for month in case.months]
    months = tuple(MonthOutside(theta_e=one.theta_e, sun=sun) for one, sun in zip(case.months, suns, strict=True))
    ground, flow = 0.0, None
    if case.ground_flow is not None:
        flows = each(case.ground_flow, lambda name, path: _flow(name, path, grounds), "energy", "ground_flow")
        ground, flow = sum(grounds[name].H_g for name in case.ground_flow), tuple(map(sum, zip(*flows, strict=True)))
    assert H_tr is not None and H_ve is not None  # noqa: PT018 - told, or of the block transmission
    return EnergyCase(
        theta_i=case.theta_i,
        months=months,
        H_tr=H_tr,
        H_ve=H_ve,
        C_m=case.C_m,
        A_F=case.A_F,
        H_ground=ground,
        ground_flow=flow or None,
        gains=case.gains_W,
        a0=case.a0,
        tau0=case.tau0,
    )


def _flow(name: str, path: Path, grounds: Mapping[str, AnsweredGround]) -> tuple[float, ...]:
    if name not in grounds:
        raise not_there("ground", name, *path)
    flow = grounds[name].flow
    if flow is None:
        raise DomainError(Issue(path=path, code="no_year", message=f"“{name}” has no year",
                                hint="give the ground its “year”"))  # fmt: skip
    return flow


def _measures(cases: list[MeasureCase], building: Transmission, asked: EnergyCase) -> dict[str, Any]:
    check = Collector()
    only_once(check, (one.id for one in cases), "energy", "measures")
    check.refuse()
    before = value_of(energy(asked).Q_nd)
    changed = each(cases, lambda one, path: _changed(building, one, path), "energy", "measures")
    ranked = rank(asked, [_measure(one, with_it) for one, with_it in zip(cases, changed, strict=True)])
    all_of_them = building
    for at, one in enumerate(cases):
        all_of_them = _changed(all_of_them, one, ("energy", "measures", at))
    together = _measure(cases[0], all_of_them) if cases else None
    dH, dQ = (0.0, 0.0) if together is None else fall(asked, before, together.H_tr, together.H_ve)
    listed = [{"id": one.id, "dH": one.dH, "dQ": one.dQ, "dH_per_cost": one.dH_per_cost, "rank": at}
              for at, one in enumerate(ranked, 1)]  # fmt: skip
    return {"measures": listed, "together": {"dH": dH, "dQ": dQ}}


def _measure(case: MeasureCase, building: Transmission) -> Measure:
    found = sums(building)
    return Measure(id=case.id, cost=case.cost, H_tr=value_of(found.H_tr), H_ve=value_of(found.H_ve))


_PARTS = {"element": ("areas", "U"), "window": ("windows", "U"), "joint": ("joints", "psi"), "point": ("points", "chi")}


def _changed(building: Transmission, case: MeasureCase, path: Path) -> Transmission:
    for at, one in enumerate(case.changes):
        building = _change(building, one, (*path, "changes", at))
    return building


def _change(building: Transmission, one: ChangeCase, path: Path) -> Transmission:
    told = one_of(one, ("air_q", *_PARTS), *path)
    if told == "air_q":
        assert one.air_q is not None
        return replace(building, air_q=one.air_q)
    rows, key = _PARTS[told]
    name, value = getattr(one, told), getattr(one, key)
    if value is None:
        raise missing(*path, key)
    listed = getattr(building, rows)
    if name not in {row.id for row in listed}:
        raise not_there(told, name, *path, told)
    changed = tuple(replace(row, **{key: value}) if row.id == name else row for row in listed)
    parts: dict[str, Any] = {rows: changed}
    return replace(building, **parts)
